import type { Locator, Page } from '@playwright/test'
import { expect, goTo, homeLine, newLine, open, saved, symbolsIn, test, grips } from './fixtures'
import { Server } from './server'

/**
 * What a player who has never seen it may need at most, from the songbook to their own tune heard
 * in a richer version.
 */
const MOST_CLICKS = 12

/** Clicks and counts. */
function clicks(page: Page) {
  const said = { count: 0 }
  return {
    said,
    on: async (name: string | RegExp, role: 'button' | 'link' | 'radio' = 'button') => {
      said.count += 1
      await page
        .getByRole(role, { name, exact: typeof name === 'string' })
        .first()
        .click()
    },
  }
}

test('from the songbook to a typed tune heard in a richer version, in few clicks', async ({ page }) => {
  await page.goto('/')
  const { said, on } = clicks(page)
  await page.getByLabel('Title of a new tune').fill('Seen Today')
  await on('New tune')
  await saved(page)
  await page.getByLabel('Chart text', { exact: true }).fill('key: C\n| Dm7 | G7 | C | Am |')
  await saved(page)
  await on('Colour', 'link')
  await page.getByRole('slider').first().press('ArrowRight')
  await page.getByRole('slider').first().press('ArrowRight')
  said.count += 2
  await expect.poll(() => symbolsIn(newLine(page))).not.toEqual(await symbolsIn(homeLine(page)))
  await on('Lines', 'link')
  await expect(newLine(page).locator('svg').first()).toBeVisible()
  await on(/^Play/)
  await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible()
  expect(said.count).toBeLessThanOrEqual(MOST_CLICKS)
})

/** Goes on by Tab until what is wanted has the focus. */
async function tabTo(page: Page, what: Locator, most = 60): Promise<void> {
  for (let at = 0; at < most; at += 1) {
    if (await what.evaluate((one) => one === document.activeElement || one.contains(document.activeElement)))
      return
    await page.keyboard.press('Tab')
  }
  throw new Error(`${most} times Tab do not lead there`)
}

test('the first steps, by the keyboard alone: a demo tune heard plain and new, a chart of one’s own richer and under the fingers; then never again, unless asked', async ({
  browser,
}) => {
  const server = new Server()
  await server.start()
  const context = await browser.newContext({ baseURL: server.url, serviceWorkers: 'block' })
  try {
    const page = await context.newPage()
    const { keyboard } = page
    await page.goto('/')
    await expect(page.locator('html[data-listening="yes"]')).toBeAttached()
    const panel = page.getByRole('region', { name: /in four steps$/ })
    // One touch plays both.
    await tabTo(page, panel.getByRole('button', { name: 'Play plain, then new' }))
    await keyboard.press('Enter')
    await expect(panel.getByRole('status')).toHaveText('Now: the plain chords')
    await expect(panel.getByRole('status')).toHaveText('Now: the new ones', { timeout: 120_000 })
    await keyboard.press('Enter')
    await expect(panel.getByRole('button', { name: 'Play plain, then new' })).toBeVisible()
    // What cannot be read is said, and stays.
    const chords = panel.getByRole('textbox', { name: 'Its chords, in bars' })
    await tabTo(page, chords)
    await keyboard.type('| ?? | !! |')
    await tabTo(page, panel.getByRole('button', { name: 'Use this chart' }))
    await keyboard.press('Enter')
    await expect(panel.getByRole('alert')).toContainText('No chord could be read')
    await expect(chords).toHaveValue('| ?? | !! |')
    await keyboard.press('Shift+Tab')
    await keyboard.press('Shift+Tab')
    await keyboard.press('Control+a')
    await keyboard.type('| Dm7 | G7 | C | Am |')
    await tabTo(page, panel.getByRole('button', { name: 'Use this chart' }))
    await keyboard.press('Enter')
    // Told in place: one thing to do, and on.
    const strip = page.getByRole('group', { name: 'First steps' })
    await expect(strip.getByRole('status')).toContainText('3 of 4, Colour.')
    await tabTo(page, page.getByRole('slider').first())
    await keyboard.press('ArrowRight')
    await keyboard.press('ArrowRight')
    await expect.poll(() => symbolsIn(newLine(page))).not.toEqual(await symbolsIn(homeLine(page)))
    await keyboard.press('Escape')
    const play = page.getByRole('button', { name: /^(Play|Stop)/ })
    await expect(play).toBeEnabled()
    await tabTo(page, strip.getByRole('button', { name: 'On to Lines' }), 90)
    await keyboard.press('Enter')
    await expect(strip.getByRole('status')).toContainText('4 of 4, Lines.')
    await expect(grips(newLine(page)).first()).toBeVisible()
    await tabTo(page, page.getByRole('button', { name: /^Play/ }), 90)
    await keyboard.press('Enter')
    await expect(page.getByRole('button', { name: /^Stop/ })).toBeVisible()
    await tabTo(page, strip.getByRole('button', { name: 'Done' }), 120)
    await keyboard.press('Enter')
    await expect(strip).toBeHidden()
    await saved(page)
    // Never again, unless asked.
    await expect.poll(async () => (await context.request.get('/')).text()).not.toContain('in four steps')
    await page.goto('/player')
    await expect(page.locator('html[data-listening="yes"]')).toBeAttached()
    await page.getByRole('button', { name: 'Show the first steps' }).click()
    await expect(panel.getByRole('button', { name: 'Play plain, then new' })).toBeVisible()
    await panel.getByRole('button', { name: 'Skip the first steps' }).click()
    await expect(panel).toBeHidden()
  } finally {
    await context.close()
    await server.end()
  }
})

test('the guide: from every page, its places, and the words it points to', async ({ page, request }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Guide' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Guide' })).toBeVisible()
  await page.getByRole('link', { name: 'how hard a grip is' }).click()
  await expect(page.getByRole('heading', { name: 'How hard a grip is' })).toBeInViewport()
  await expect(page.getByRole('img', { name: /^The Lines step/ })).toHaveJSProperty('complete', true)
  await page.getByRole('link', { name: 'the glossary' }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Words of the program' })).toBeVisible()
  expect((await request.get('/guide/nosuch')).status()).toBe(404)
})

test('a word of a bar leads to what it means, and back', async ({ page, context }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Halyard Waltz', exact: true }).click()
  await goTo(page, 'Lines')
  await open(page, 'Texture')
  const opened = context.waitForEvent('page')
  await page.getByRole('link', { name: 'What “Texture” means' }).click()
  const beside = await opened
  await expect(beside.getByRole('row', { name: /^texture the kind of grip/ })).toBeInViewport()
})
