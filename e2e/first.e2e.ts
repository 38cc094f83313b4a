import type { Page } from '@playwright/test'
import { expect, homeLine, newLine, saved, symbolsIn, test } from './fixtures'

/** What a player who has never seen it may need at most, from the songbook to their own tune heard in a richer version. */
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
  await page.getByLabel('Chart text').fill('key: C\n| Dm7 | G7 | C | Am |')
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
