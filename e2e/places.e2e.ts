import { expect, fromBook, haveTune, goTo, saved, test } from './fixtures'
import { Server } from './server'

const PLACES = ['Songbook', 'Sets', 'Practice', 'Trainer', 'Grip book', 'Player', 'Files', 'Guide']

test('every page leads to every place, always in one order, with the present one marked; in a tune behind the heron, on a phone under one button', async ({
  page,
}) => {
  const links = page.getByRole('navigation', { name: 'Places' }).getByRole('link')
  for (const [at, path] of [
    '/',
    '/sets',
    '/log',
    '/trainer',
    '/grips',
    '/player',
    '/files',
    '/guide',
  ].entries()) {
    await page.goto(path)
    await expect(links).toHaveText(PLACES)
    await expect(links.nth(at)).toHaveAttribute('aria-current', 'page')
  }
  await fromBook(page, 'Four Planks', 'Lines')
  await page.getByRole('banner').getByTitle('Places').click()
  await expect(links).toHaveText(PLACES)
  await page.keyboard.press('Escape')
  await expect(links).toHaveCount(0)
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto('/trainer')
  await page.getByText('Places', { exact: true }).click()
  await expect(links).toHaveText(PLACES)
  await links.nth(5).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Player' })).toBeVisible()
})

test('what does not fit a bar stands under More: each of its words comes into the window', async ({
  page,
}) => {
  for (const width of [820, 390]) {
    await page.setViewportSize({ width, height: 900 })
    await fromBook(page, 'Four Planks', 'Colour')
    const bar = page.getByRole('region', { name: 'Controls' })
    await bar.getByRole('button', { name: 'More', exact: true }).click()
    for (const word of ['Take me further', 'Trail', 'Versions', 'Thread', 'Taste']) {
      const box = (await bar.getByRole('button', { name: new RegExp(`^${word}`) }).boundingBox())!
      expect(box.x).toBeGreaterThanOrEqual(0)
      expect(box.x + box.width).toBeLessThanOrEqual(width)
      expect(box.height).toBeGreaterThanOrEqual(44)
    }
    await expect(bar.getByRole('button', { name: 'Less', exact: true })).toBeVisible()
  }
})

test('undo says what it takes back and where, as label and as message', async ({ page }) => {
  await haveTune(page, 'Said', '| C | F |')
  await page.getByRole('combobox', { name: 'Capo' }).click()
  await page.getByRole('option', { name: /5/ }).first().click()
  await saved(page)
  await goTo(page, 'Colour')
  const undo = page.getByRole('button', { name: /^Undo: .*, Chart$/ })
  await undo.click()
  await expect(page.getByRole('status').filter({ hasText: /^Undone: .*, Chart$/ })).toBeVisible()
})

test('with one touch the demo gives way to the player’s own book: tunes wait among the deleted, its passes are gone', async ({
  browser,
}) => {
  const server = new Server()
  await server.start()
  const context = await browser.newContext({ baseURL: server.url, serviceWorkers: 'block' })
  try {
    const page = await context.newPage()
    await page.goto('/')
    await page.getByRole('button', { name: 'Begin my own book' }).click()
    await expect(page.getByText('The book is empty.')).toBeVisible()
    await expect(page.getByRole('link', { name: 'Deleted tunes (8)' })).toBeVisible()
    await page.goto('/log')
    await expect(page.getByText('Nothing has been practised yet.')).toBeVisible()
  } finally {
    await context.close()
    await server.end()
  }
})
