import { expect, test } from './fixtures'

test('a page that is given back has nothing of the test that had it', async ({
  page,
  context,
  kept,
  viewport,
}) => {
  const stored = () =>
    page.evaluate(async () => ({
      local: localStorage.length,
      session: sessionStorage.length,
      books: (await indexedDB.databases()).length,
      cookies: document.cookie,
      width: window.innerWidth,
      online: navigator.onLine,
    }))
  await page.goto('/heron.svg')
  const fresh = await stored()
  await page.evaluate(async () => {
    localStorage.setItem('left', 'behind')
    sessionStorage.setItem('left', 'behind')
    document.cookie = 'left=behind'
    await new Promise((opened) => (indexedDB.open('left').onsuccess = opened))
  })
  await page.setViewportSize({ width: 390, height: 700 })
  await context.newPage()
  await context.route('**/heron.svg', (route) => route.abort())
  await context.setOffline(true)
  expect(await stored()).toEqual({
    local: 1,
    session: 1,
    books: 1,
    cookies: 'left=behind',
    width: 390,
    online: false,
  })
  await kept.empty(viewport!)
  expect(await stored()).toEqual(fresh)
  expect(fresh).toMatchObject({ local: 0, session: 0, books: 0, cookies: '', width: viewport!.width })
  expect(context.pages()).toEqual([page])
  await page.goto('/heron.svg')
})
