import type { Page } from '@playwright/test'
import { fromBook, expect, goTo, linesFound, open, test, haveTune, newestDay, grips } from './fixtures'

const stage = (page: Page) => page.getByRole('region', { name: 'What is practised' })
const plan = (page: Page) => page.getByRole('complementary').getByRole('list').first()
const marks = (page: Page) => stage(page).getByText(/^(No pass yet|Passes: )/)

/** A tune with grips, in its Practice room. */
async function practising(page: Page, title: string, text: string): Promise<void> {
  await haveTune(page, title, text, 'Lines')
  await linesFound(page)
  await goTo(page, 'Practice')
  await expect(stage(page)).toBeVisible()
}
async function mode(page: Page, name: string): Promise<void> {
  await open(page, 'Mode')
  await page.getByRole('button', { name, exact: true }).click()
  await page.keyboard.press('Escape')
}
/** The one key, as a foot switch types it: wherever the focus is on the page. */
const foot = (page: Page) => page.locator('body').press(' ')
/** A pass has ended by itself, and it is asked how it was. */
const asked = (page: Page) =>
  expect(stage(page).getByRole('button', { name: 'Nearly' })).toBeEnabled({ timeout: 60_000 })
const tempoNow = async (page: Page) =>
  Number(
    await stage(page)
      .locator('p', { hasText: /goal \d/ })
      .locator('b')
      .textContent(),
  )

test('a whole round by one key: begin, end, say how it was, and the ladder goes up and back; the log has each pass at once', async ({
  page,
  server,
}) => {
  // The log is slow to answer: the ladder begins where the hand is at ease, and what is begun
  // stays.
  let tell = () => {}
  const told = new Promise<void>((resolve) => (tell = resolve))
  await page.route(/practice-log/, async (route) => {
    await told
    await route.continue()
  })
  await practising(page, 'One Key', 'tempo: 300\n| C | F |')
  const begun = await tempoNow(page)
  expect(begun).toBeLessThan(300)
  await foot(page)
  await expect(stage(page).getByRole('button', { name: 'End it here' })).toBeVisible()
  tell()
  await asked(page)
  await foot(page)
  await expect(marks(page)).toHaveText('Passes: clean')
  await expect.poll(() => tempoNow(page)).toBeGreaterThanOrEqual(begun)
  const climbed = await tempoNow(page)
  // Ended early it cannot be clean, and three presses say that it failed.
  await foot(page)
  await foot(page)
  await asked(page)
  await expect(stage(page).getByRole('button', { name: 'Clean' })).toBeDisabled()
  await expect(stage(page).getByRole('status')).toContainText('clean is for a whole pass')
  for (let press = 0; press < 3; press += 1) await foot(page)
  await expect(marks(page)).toHaveText('Passes: clean, failed')
  await expect.poll(() => tempoNow(page)).toBeLessThan(climbed)
  // Killed in the middle: what was graded is there, and what is graded meanwhile follows.
  await server.kill()
  await foot(page)
  await asked(page)
  await page.locator('body').press('2')
  await expect(page.getByText('The log cannot be reached')).toBeVisible()
  await server.restart()
  await page.goto('/log')
  await expect(page.getByRole('button', { name: 'bars 1 to 2' })).toBeVisible()
  const day = newestDay(page)
  await expect(day.getByText('clean, failed, nearly')).toBeAttached()
})

test('a rubato walk: phrase by phrase, what is on top is said, doubt becomes an exercise', async ({
  page,
}) => {
  await practising(page, 'Without Time', 'tempo: 120\n[A] | C | Am | Dm | G7 |\n[B] | F | Fm | C | C |')
  await mode(page, 'Rubato walk')
  await expect(stage(page)).toContainText('Phrase 1 of 2')
  await expect(stage(page)).toContainText(/On top [A-G]/)
  await foot(page)
  await expect(stage(page)).toContainText('Phrase 2 of 2')
  await page.getByRole('group', { name: 'New line' }).nth(1).getByRole('button').nth(1).click()
  await page.locator('body').press('d')
  await foot(page)
  await asked(page)
  await page.locator('body').press('1')
  await expect(stage(page)).toContainText('Phrase 1 of 2')
  await expect(plan(page)).toContainText(/weak: failed last time/)
  await page.goto('/log')
  await expect(page.getByText('doubtful on a rubato walk')).toBeVisible()
  await expect(page.getByRole('button', { name: 'rubato walk' })).toBeVisible()
})

test('from memory the grips are hidden until they are asked for; in other keys and areas they are others; it hurts ends it', async ({
  page,
}) => {
  await practising(page, 'By Heart', 'key: C\ntempo: 200\n| Dm7 | G7 | Cmaj7 | Cmaj7 |')
  const shown = grips(stage(page))
  await expect(shown.first()).toBeVisible()
  const home = await shown.first().getAttribute('aria-label')
  await mode(page, 'From memory')
  await expect(shown).toHaveCount(0)
  await page.locator('body').press('r')
  await expect(shown.first()).toBeVisible()
  await mode(page, 'Through the keys')
  await open(page, 'Keys')
  await page.getByRole('button', { name: 'led anew' }).click()
  await page.keyboard.press('Escape')
  await expect(shown.first()).toBeVisible()
  await foot(page)
  await asked(page)
  await foot(page)
  // Clean: on to the next key by fourths.
  await expect(stage(page).getByRole('heading')).toHaveText('Bars 1 to 4 in F')
  await expect(shown.first()).toBeVisible()
  await expect.poll(() => shown.first().getAttribute('aria-label')).not.toBe(home)
  await mode(page, 'Areas of the neck')
  await open(page, 'Area')
  await page.getByRole('button', { name: '7 to 11' }).click()
  await page.keyboard.press('Escape')
  await expect(stage(page).getByRole('heading')).toContainText('frets 7 to 11')
  await expect(shown.first()).toBeVisible()
  await stage(page).getByRole('button', { name: 'It hurts' }).click()
  await expect(page.getByRole('alert').filter({ hasText: 'See a clinician when pain stays' })).toBeVisible()
  await page.goto('/log')
  await expect(page.getByText('it hurt')).toBeVisible()
})

test.describe('with a clock of its own', () => {
  test.use({ apart: true })

  test('what is wanted comes into the plan; at midnight a new day begins and what is due is said', async ({
    page,
  }) => {
    await page.clock.install({ time: new Date('2026-05-04T23:58:00') })
    await practising(page, 'Past Midnight', 'tempo: 200\n| C | F | G7 | C |')
    const drawer = page.getByRole('complementary')
    await drawer.getByText(/Everything that can be practised/).click()
    const key = drawer.getByRole('listitem').filter({ hasText: 'The tune in E♭' })
    await key.getByRole('button', { name: 'Want' }).click()
    await expect(plan(page)).toContainText('you want it')
    const passage = drawer
      .getByRole('listitem')
      .filter({ hasText: /^Bars 1 to 4.*at ease/ })
      .last()
    await passage.getByRole('button').first().click()
    await foot(page)
    await page.clock.runFor(2_000)
    await foot(page)
    await page.locator('body').press('3')
    await expect(marks(page)).toHaveText('Passes: failed')
    await expect(passage).toContainText('due tomorrow')
    await page.clock.fastForward('03:00')
    await expect(passage).toContainText('due today')
  })
})

test('the trainer asks for three minutes, by keys, says what is right, and the log has it', async ({
  page,
}) => {
  await page.goto('/trainer')
  await page.getByLabel('Questions about').selectOption({ label: 'Lantern on the Rail' })
  await page.getByRole('button', { name: 'what is on top' }).click()
  for (const other of [
    'where the third is',
    'next inversion',
    'guide tones',
    'spelling',
    'the next grip',
    'what a chord does',
    'what a grip is called',
    'by ear',
  ])
    if (other !== 'guide tones') await page.getByRole('button', { name: other }).click()
  // Only guide tones are left.
  await page.getByRole('button', { name: /^Begin three minutes/ }).click()
  const question = page.getByRole('region', { name: 'Question' })
  await expect(question.getByRole('heading')).toContainText('Where do its third and its seventh go?')
  await page.locator('body').press('h')
  await expect(question.getByText(/^It is not/)).toBeVisible()
  await page.locator('body').press('1')
  await expect(question.getByRole('status').last()).toContainText(/Right\.|No: /)
  await expect(question.getByRole('img', { name: /^Threads: / })).toBeVisible()
  await page.locator('body').press(' ')
  await expect(question.getByText('of 1 right')).toBeVisible()
  await page.goto('/log')
  await expect(page.getByRole('button', { name: /^guide tones: / }).first()).toBeVisible()
})

test('for a left hand the grips on the stage are mirrored', async ({ page }) => {
  /** Where the fingers of the first grip stand from left to right, as shares of its width. */
  const fingers = async () => {
    const grip = grips(stage(page)).first()
    await expect(grip).toBeVisible()
    return grip.evaluate((svg) => {
      const { left, right } = svg.querySelector('line')!.getBoundingClientRect()
      return [...svg.querySelectorAll('circle, path')].map((dot) => {
        const box = dot.getBoundingClientRect()
        return Math.round((((box.left + box.right) / 2 - left) / (right - left)) * 100) / 100
      })
    })
  }
  const leftHanded = async (on: boolean) => {
    await page.goto('/player')
    await page.getByLabel('Left-handed').setChecked(on)
    await expect(page.getByText('Saved', { exact: true })).toBeVisible()
    await page.reload()
    await expect(page.getByLabel('Left-handed')).toBeChecked({ checked: on })
  }
  await fromBook(page, 'Lantern on the Rail', 'Practice')
  const address = page.url()
  const right = await fingers()
  expect(right.length).toBeGreaterThan(3)
  await leftHanded(true)
  try {
    await page.goto(address)
    await expect.poll(fingers).toEqual(right.map((share) => Math.round((1 - share) * 100) / 100))
  } finally {
    await leftHanded(false)
  }
  await page.goto(address)
  await expect.poll(fingers).toEqual(right)
})

test('the log: a pass is corrected, taken out and put back; out as CSV and in again', async ({ page }) => {
  await page.goto('/log')
  const passes = async () =>
    Number(/^(\d+) passes/.exec((await page.getByText(/^\d+ passes, /).textContent())!)![1])
  const before = await passes()
  const day = newestDay(page)
  await day.getByRole('button').first().click()
  await day.getByLabel('Note').first().fill('slower next time')
  await day.getByRole('button', { name: 'Correct' }).first().click()
  await expect(day.getByText('slower next time')).toBeVisible()
  await day.getByRole('button', { name: 'Take out' }).first().click()
  await expect(page.getByText('The pass was taken out.')).toBeVisible()
  expect(await passes()).toBe(before - 1)
  await page.getByRole('button', { name: 'Put it back' }).click()
  await expect.poll(passes).toBe(before)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'Save as CSV' }).click(),
  ])
  await page.getByLabel('CSV to bring in').setInputFiles((await download.path())!)
  await page.getByRole('button', { name: 'Bring in', exact: true }).click()
  await expect(page.getByText('0 passes were new and brought in.')).toBeVisible()
  await expect(page.getByRole('img', { name: /^Keys by when they were last played/ })).toBeVisible()
})

test('the stretch that is practised is under the stage, also where the page opens on it', async ({
  page,
}) => {
  await fromBook(page, 'Lantern on the Rail', 'Practice')
  const systems = page.locator('.system')
  await expect(systems).toHaveCount(8)
  await page.getByText(/^Everything that can be practised/).click()
  const part = page
    .getByRole('listitem')
    .filter({ hasText: /^Bars 29 to 32/ })
    .last()
  const want = part.getByRole('button', { name: 'Want', exact: true })
  await want.click()
  const unwant = part.getByRole('button', { name: 'Wanted', exact: true })
  await expect(unwant).toBeVisible()
  try {
    await page.reload()
    await expect(stage(page).getByRole('heading').first()).toHaveText('Bars 29 to 32')
    await expect(systems).toHaveCount(8)
    await expect(systems.last().getByRole('img').first()).toBeVisible()
    const underStage = async () => {
      const above = (await stage(page).boundingBox())!
      return Math.round((await systems.last().boundingBox())!.y - (above.y + above.height))
    }
    await expect.poll(underStage).toBeLessThan(60)
    expect(await underStage()).toBeGreaterThanOrEqual(0)
  } finally {
    await page.getByText(/^Everything that can be practised/).click()
    await unwant.click()
    await expect(want).toBeVisible()
  }
})
