import type { Browser, Page } from '@playwright/test'
import { expect, test, printed } from './fixtures'
import { Server } from './server'

/** Addresses that are kept in this browser, without the sizes of windows. */
const keptIn = (page: Page) =>
  page.evaluate(async () => {
    const names = (await caches.keys()).filter((name) => name.startsWith('pages-'))
    const all = await Promise.all(names.map(async (name) => (await caches.open(name)).keys()))
    return all.flat().map(({ url }) => new URL(url).pathname)
  })

/** A browser that keeps what it reads, on a server of its own, with one tune opened long enough. */
async function withTuneKept(
  browser: Browser,
  act: (page: Page, server: Server, tune: string) => Promise<void>,
) {
  const server = new Server()
  await server.start()
  const context = await browser.newContext({ serviceWorkers: 'allow' })
  try {
    const page = await context.newPage()
    await page.goto(`${server.url}/`)
    await page.evaluate(() => navigator.serviceWorker.ready)
    await page.getByRole('link', { name: 'Halyard Waltz', exact: true }).click()
    await expect(page.getByRole('navigation', { name: 'Steps' })).toBeVisible()
    const tune = new URL(page.url()).pathname.split('/')[2]!
    await expect
      .poll(() => keptIn(page), { timeout: 120_000 })
      .toEqual(
        expect.arrayContaining([
          '/',
          `/tunes/${tune}/practice`,
          `/tunes/${tune}/sheet`,
          '/stand',
          '/stand/pages',
        ]),
      )
    await act(page, server, tune)
  } finally {
    await context.close()
    await server.end()
  }
}

test('a tune that was open is practised, printed and on the stand while the server is away', async ({
  browser,
}) => {
  await withTuneKept(browser, async (page, server, tune) => {
    await server.kill()
    const away = page.getByRole('status').filter({ hasText: 'The server does not answer' })

    await page.goto(`${server.url}/tunes/${tune}/sheet`)
    await expect(printed(page).first()).toBeVisible()
    await expect(away).toContainText(/kept on \d+ \w+ \d{4}/)

    await page.goto(`${server.url}/stand?tune=${tune}`)
    await expect(printed(page)).toBeVisible()
    await page.setViewportSize({ width: 700, height: 900 })
    await page.reload()
    await expect(printed(page)).toBeVisible()
    await page.setViewportSize({ width: 1280, height: 800 })

    // A step that is not kept is shown out of one that is: all are in it, and ask nothing of the
    // server.
    await page.goto(`${server.url}/tunes/${tune}/melody`)
    await expect(page).toHaveURL(/\/melody$/)
    await expect(page.getByRole('heading', { level: 1, name: 'Halyard Waltz: Melody' })).toBeAttached()
    await page
      .getByRole('navigation', { name: 'Steps' })
      .getByRole('link', { name: 'Lines', exact: true })
      .click()
    await expect(page.getByRole('heading', { level: 1, name: 'Halyard Waltz: Lines' })).toBeAttached()

    // An edit waits here, and is saved when the server is back.
    await page.getByLabel('Tempo in beats').fill('141')
    await page.getByLabel('Tempo in beats').press('Enter')
    await expect(page.getByRole('status').filter({ hasText: 'Not saved yet' })).toBeVisible()
    await server.restart()
    await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible()
    await expect(page.getByRole('status').filter({ hasText: 'The server is back' })).toBeVisible()
    await page.reload()
    await expect(page.getByLabel('Tempo in beats')).toHaveValue('141')
    await expect(away).toBeHidden()
  })
})

test('from the kept songbook a tune that is not kept leads to those that are, and comes when the server is back', async ({
  browser,
}) => {
  await withTuneKept(browser, async (page, server, tune) => {
    await server.kill()
    await page.goto(`${server.url}/`)
    await page.getByRole('link', { name: 'Coil of Rope', exact: true }).click()
    await expect(page.getByRole('heading', { name: 'The server does not answer' })).toBeVisible()
    await expect(page.getByRole('listitem')).toHaveText(['Halyard Waltz: Practice · Sheet · Stand'])
    await page.getByRole('link', { name: 'Practice' }).click()
    await expect(page).toHaveURL(new RegExp(`/tunes/${tune}/practice`))
    await page.goBack()
    await server.restart()
    // It looks by itself.
    await expect(page.getByRole('navigation', { name: 'Steps' })).toBeVisible()
  })
})

test('it can be installed: its name, its pictures and where it begins', async ({ page, request }) => {
  await page.goto('/')
  const address = await page.locator('link[rel="manifest"]').getAttribute('href')
  const answer = await request.get(address!)
  expect(answer.headers()['content-type']).toContain('application/manifest+json')
  const manifest = (await answer.json()) as {
    name: string
    start_url: string
    display: string
    icons: { src: string; sizes: string; type: string }[]
  }
  expect(manifest).toMatchObject({ name: 'Yellow Heron', start_url: '/', display: 'standalone' })
  expect(manifest.icons.map(({ sizes }) => sizes)).toEqual(expect.arrayContaining(['192x192', '512x512']))
  for (const { src, type } of manifest.icons)
    expect((await request.get(src)).headers()['content-type']).toContain(type)
  const worker = await request.get('/service-worker.js')
  expect([worker.status(), worker.headers()['cache-control']]).toEqual([200, 'no-cache'])
})
