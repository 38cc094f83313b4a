import axe from 'axe-core'
import type { Page } from '@playwright/test'
import {
  expect,
  goTo,
  haveTune,
  linesFound,
  melodyFound,
  open,
  saved,
  test,
  newestDay,
  pointsOf,
  staves,
} from './fixtures'

/**
 * What breaks the rules, in words: the view, the rule and where. The rules are read by a page once,
 * and only what breaks them is worked out.
 */
async function faults(page: Page, view: string, rules: string[]): Promise<string[]> {
  if (!(await page.evaluate(() => 'axe' in window))) await page.evaluate(axe.source)
  const { violations } = await page.evaluate(
    (runOnly) =>
      (window as unknown as { axe: typeof axe }).axe.run({
        runOnly,
        resultTypes: ['violations'],
        iframes: false,
      }),
    rules,
  )
  return violations.map(
    ({ id, nodes }) =>
      `${view}: ${id} ${nodes
        .slice(0, 3)
        .map(({ html }) => html)
        .join(' ')}`,
  )
}

/**
 * Every view by the automatic part of WCAG 2.2 AA (axe-core), and its contrast on the other paper
 * too: all else is the same there.
 */
test('every view is accessible, on both papers', async ({ page }) => {
  test.setTimeout(600_000)
  const check = async (view: string) => {
    expect(await faults(page, `${view}, morning`, ['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])).toEqual([])
    const turn = (to: string) =>
      page
        .getByRole('button', { name: `Change to ${to}`, includeHidden: true })
        .first()
        .evaluate((button) => (button as HTMLElement).click())
    if ((await page.getByRole('button', { name: 'Change to dusk', includeHidden: true }).count()) === 0)
      return
    await turn('dusk')
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'dusk')
    expect(await faults(page, `${view}, dusk`, ['color-contrast'])).toEqual([])
    await turn('morning')
    await expect(page.locator('html')).toHaveAttribute('data-theme', 'morning')
  }
  // Colours are looked at when they have changed, not while they do.
  await page.emulateMedia({ reducedMotion: 'reduce' })
  await page.goto('/')
  await check('songbook')
  // As short as a tune with all signs can be: the rules go through every element of a page.
  await haveTune(page, 'Every Sign', 'key: A minor\n[A] |: Am7 | D7 . | E7#9 | Am6 D7 :|')
  await saved(page)
  await check('chart')
  await page.getByRole('button', { name: 'Bring in chords' }).click()
  await check('bring in')
  await page.keyboard.press('Escape')
  await goTo(page, 'Colour')
  await page.getByRole('slider', { name: 'Colour of the whole tune' }).focus()
  for (let more = 0; more < 3; more += 1) await page.keyboard.press('ArrowRight')
  await saved(page)
  await check('colour')
  await open(page, 'Take me further')
  await check('colour, a word open')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'All reasons' }).click()
  await expect(page.getByRole('table', { name: 'Reasons' })).toBeVisible()
  await check('reasons')
  await page.getByRole('link', { name: 'Back to the tune' }).click()
  await goTo(page, 'Lines')
  await linesFound(page)
  await open(page, 'Compare')
  await page.getByRole('button', { name: 'Chart of all lines' }).click()
  await expect(pointsOf(page)).not.toHaveCount(0)
  await check('lines')
  await goTo(page, 'Melody')
  await open(page, 'Notes')
  await check('melody, empty')
  await page.keyboard.press('Escape')
  for (const key of ['e', '2', 'g', '4', 'b', 'd', 'Escape']) await page.locator('body').press(key)
  await melodyFound(page)
  await expect(staves(page).locator('text').first()).toBeVisible()
  await check('melody')
  await page.locator('body').press('?')
  await expect(page.getByRole('dialog')).toBeVisible()
  await check('keys')
  await page.keyboard.press('Escape')
  await goTo(page, 'Rhythm')
  await check('rhythm')
  await open(page, 'Band')
  await check('rhythm, the band')
  await page.keyboard.press('Escape')
  await goTo(page, 'Practice')
  await expect(page.getByRole('region', { name: 'What is practised' })).toBeVisible()
  await check('practice')
  await goTo(page, 'Sheet')
  await expect(page.getByRole('button', { name: 'Print' })).toBeVisible()
  await check('sheet')
  await page.goto('/files')
  await check('files')
  await page.goto('/sets')
  await check('sets')
  await page.getByRole('link', { name: 'Evening crossing' }).click()
  await expect(page.getByRole('button', { name: 'PDF of the set' })).toBeVisible()
  await check('set')
  await page.getByRole('link', { name: 'On the stand' }).click()
  await expect(page.getByRole('group', { name: /^Page 1/ })).toBeVisible()
  await check('stand')
  await page.goto('/log')
  await expect(pointsOf(page).first()).toBeVisible()
  await newestDay(page).getByRole('button').first().click()
  await check('log')
  await page.goto('/trainer')
  await page.getByRole('button', { name: /^Begin three minutes/ }).click()
  await expect(page.getByRole('region', { name: 'Question' })).toBeVisible()
  await check('trainer')
  await page.goto('/grips')
  await page.getByLabel(/^Frets, lowest/).fill('x 3 5 4 5 x')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'Inversions' })).toBeVisible()
  await check('grip book')
  await page.goto('/player')
  await check('player')
})
