import { CHROMIUM } from './chromium'
import { chromium } from '@playwright/test'
import { spawn, type ChildProcess } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import {
  fromBook,
  staves,
  act,
  drawn,
  expect,
  goTo,
  gripsIn,
  homeLine,
  linesFound,
  melodyIn,
  newLine,
  pick,
  printed,
  saved,
  symbolsIn,
  test,
  haveTune,
  typeTune,
  problems,
  gripChoices,
} from './fixtures'
import type { Page } from '@playwright/test'

/** What is made is kept, and what is said is true: as a player meets it. */

const text = (page: Page) => page.getByLabel('Chart text', { exact: true })
const status = (page: Page, words: string) =>
  expect(page.getByRole('status').filter({ hasText: words })).toBeVisible()

test('a melody that fills the tune takes no more and loses nothing; the pen is taken up where it can write; undo moves it', async ({
  page,
}) => {
  await haveTune(page, 'Filled', '| C | G7 |', 'Melody')
  const body = page.locator('body')
  await expect(async () => {
    await body.press('e')
    await expect(page.getByRole('button', { name: /^Writing on bar 1/ })).toBeVisible({ timeout: 1_000 })
  }).toPass()
  for (const key of ['2', 'c', 'd', 'e', 'g', 'a']) await body.press(key)
  await expect(page.getByText('The tune ends here, after bar 2')).toBeVisible()
  await expect.poll(() => melodyIn(page)).toHaveLength(4)
  // Edits that are right are taken afterwards.
  await body.press('ArrowLeft')
  await body.press('f')
  await body.press('Escape')
  await saved(page)
  await expect
    .poll(() => melodyIn(page))
    .toEqual(['C5 on bar 1 beat 1', 'D5 on bar 1 beat 3', 'E5 on bar 2 beat 1', 'F5 on bar 2 beat 3'])
  // On a full melody the pen begins at the note that is selected.
  await staves(page).locator('rect').nth(2).click()
  await body.press('e')
  await expect(page.getByRole('button', { name: 'Writing on bar 2, beat 1' })).toBeVisible()
  await body.press('Home')
  await expect(page.getByRole('button', { name: 'Writing on bar 1, beat 1' })).toBeVisible()
  await body.press('End')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('button', { name: 'Writing on bar 2, beat 3' })).toBeVisible()
  await staves(page).locator('rect').nth(1).click()
  await expect(page.getByRole('button', { name: 'Writing on bar 1, beat 3' })).toBeVisible()
})

test('a chord typed in small letters is typed, whatever its letters do elsewhere; near symbols are offered; undo goes by words', async ({
  page,
}) => {
  await haveTune(page, 'Small', 'key: C\n| C | F | G7 | C |')
  await pick(homeLine(page), 2)
  await page.keyboard.type('gsus')
  await page.keyboard.press('Enter')
  await expect(text(page)).toHaveValue('key: C\n| C | F | Gsus | C |')
  // An error is selected as a whole, so that typing takes its place.
  await text(page).fill('key: C\n| C | Fmaj77 | Gsus | C |')
  await problems(page).getByRole('button').first().click()
  await page.keyboard.type('Fm')
  await expect(text(page)).toHaveValue('key: C\n| C | Fm | Gsus | C |')
  await text(page).fill('key: C\n| C | Fmaj77 | Gsus | C |')
  await problems(page).getByRole('button', { name: 'Fmaj7', exact: true }).click()
  await expect(text(page)).toHaveValue('key: C\n| C | Fmaj7 | Gsus | C |')
  await text(page).fill('| C |')
  await saved(page)
  await text(page).press('End')
  await text(page).pressSequentially(' Dm7 G7', { delay: 120 })
  await text(page).press('Control+z')
  await expect(text(page)).toHaveValue('| C | Dm7 ')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(text(page)).toHaveValue('| C | ')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(text(page)).toHaveValue('| C |')
})

test('more letters than a chart has room for are refused at once, and the tune is as it was', async ({
  page,
}) => {
  await typeTune(page, 'Pasted', '| C |')
  await text(page).fill('C '.repeat(180_000))
  await expect(page.getByRole('alert')).toContainText('room for 40,000 letters, and this would make 360,000')
  await expect(text(page)).toHaveValue('| C |')
  await text(page).fill(`| C |\n${'| Am | Dm7 '.repeat(700)}|`)
  await expect(problems(page)).toContainText('more than 500 bars')
  await expect(homeLine(page).getByRole('button')).not.toHaveCount(0)
})

test('colour: after Tab the arrows and digits take the focus along, and Enter keeps what is tried', async ({
  page,
}) => {
  await haveTune(page, 'One Cursor', 'key: C\n| C | Am7 | Dm7 | G7 |', 'Colour')
  await pick(newLine(page), 3)
  for (let press = 0; press < 4; press += 1) await page.keyboard.press('Tab')
  expect(
    await page.evaluate(() => document.activeElement?.closest('.slot[aria-pressed="true"]') === null),
  ).toBe(true)
  await page.keyboard.press('2')
  await expect(page.getByText('is tried.')).toBeVisible()
  expect(await page.evaluate(() => document.activeElement?.getAttribute('aria-pressed'))).toBe('true')
  const tried = await symbolsIn(newLine(page))
  await page.keyboard.press('Enter')
  await expect(newLine(page).getByText('by hand')).toHaveCount(1)
  expect(await symbolsIn(newLine(page))).toEqual(tried)
  // On a control that has keys of its own they are that control's.
  const slider = page.getByRole('slider', { name: 'Colour of the whole tune' })
  await slider.focus()
  await page.keyboard.press('ArrowRight')
  await expect(slider).toHaveAttribute('aria-valuenow', '1')
  expect(await newLine(page).getByRole('button', { pressed: true }).getAttribute('data-slot')).toBe('3')
})

test('steps can be changed while the server is away, and all that was made follows', async ({
  page,
  server,
}) => {
  await typeTune(page, 'Offline', 'key: C\n| C | Am | Dm | G7 |')
  await server.kill()
  await goTo(page, 'Colour')
  await expect(page.getByRole('slider', { name: 'Colour of the whole tune' })).toBeVisible()
  await pick(newLine(page), 3)
  await page.keyboard.press('2')
  await page.keyboard.press('Enter')
  await drawn(page)
  const made = await symbolsIn(newLine(page))
  await goTo(page, 'Lines')
  await goTo(page, 'Chart')
  await expect(text(page)).toBeVisible()
  await expect(page.getByText('Something went wrong')).toHaveCount(0)
  await status(page, 'Not saved yet')
  await page.getByRole('button', { name: 'Undo' }).click()
  await page.getByRole('button', { name: 'Redo' }).click()
  await server.restart()
  await saved(page)
  await goTo(page, 'Colour')
  await page.reload()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(made)
})

test('settings and forms while the server is away: what was chosen stays, what was typed stays, and both are taken when it is back', async ({
  page,
  server,
}) => {
  await page.goto('/player')
  await expect(page.getByRole('status').filter({ hasText: 'Saved' })).toBeVisible()
  await server.kill()
  await page.getByLabel('Left-handed').check()
  await status(page, 'Not saved yet')
  await server.restart()
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible()
  await page.reload()
  await expect(page.getByLabel('Left-handed')).toBeChecked()
  await page.getByLabel('Left-handed').uncheck()
  await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible()

  await page.goto('/')
  await page.getByLabel('Title of a new tune').fill('Typed Away')
  await server.kill()
  await page.getByRole('button', { name: 'New tune' }).click()
  await expect(page.getByRole('alert')).toContainText('does not answer')
  await expect(page.getByLabel('Title of a new tune')).toHaveValue('Typed Away')
  await server.restart()
  await page.getByRole('button', { name: 'New tune' }).click()
  await expect(text(page)).toBeVisible()
  await expect(page.getByLabel('Title', { exact: true })).toHaveValue('Typed Away')
})

test('deleted tunes are kept in a list until it is emptied by hand', async ({ page }) => {
  await haveTune(page, 'Gone', '| C |')
  await page.goto('/')
  await act(page.locator('tbody tr').filter({ hasText: 'Gone' }), 'Delete')
  await expect(page.getByRole('button', { name: 'Undo the deletion' })).toBeVisible()
  await page.goto('/player')
  await page.goto('/deleted')
  const gone = page.getByRole('row', { name: /Gone/ })
  await gone.getByRole('button', { name: /back/i }).click()
  await expect(gone).toHaveCount(0)
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Gone', exact: true })).toBeVisible()
})

/** A browser of its own on a profile that outlives it, and can be killed as by a power cut. */
async function ownBrowser(profile: string): Promise<{ page: Page; child: ChildProcess }> {
  const child = spawn(
    CHROMIUM,
    [
      '--headless=new',
      '--no-sandbox',
      '--disable-gpu',
      '--disable-background-networking',
      '--disable-component-update',
      '--disable-sync',
      '--no-first-run',
      '--remote-debugging-port=0',
      `--user-data-dir=${profile}`,
      'about:blank',
    ],
    { stdio: ['ignore', 'ignore', 'pipe'], detached: true },
  )
  const address = await new Promise<string>((resolve) =>
    child.stderr!.on('data', (chunk: Buffer) => {
      const found = /ws:\/\/\S+/.exec(chunk.toString())
      if (found) resolve(found[0])
    }),
  )
  const browser = await chromium.connectOverCDP(address)
  const context = browser.contexts()[0]!
  return { page: context.pages()[0] ?? (await context.newPage()), child }
}

test('the whole browser killed half a second after an edit that could not be sent: the edit is there on the next visit', async ({
  server,
}) => {
  const profile = mkdtempSync(join(tmpdir(), 'heron-profile-'))
  const first = await ownBrowser(profile)
  await first.page.goto(server.url)
  await first.page.getByLabel('Title of a new tune').fill('Power Cut')
  await first.page.getByRole('button', { name: 'New tune' }).click()
  await text(first.page).fill('| C | G7 |')
  await saved(first.page)
  const address = first.page.url()
  await server.kill()
  await text(first.page).fill('| C | G7 | Am |')
  await first.page.waitForTimeout(500)
  process.kill(-first.child.pid!, 'SIGKILL')
  await server.restart()
  const second = await ownBrowser(profile)
  await second.page.goto(address)
  await expect(text(second.page)).toHaveValue('| C | G7 | Am |')
  await saved(second.page)
  process.kill(-second.child.pid!, 'SIGKILL')
  rmSync(profile, { recursive: true, force: true, maxRetries: 5 })
})

test('a pulled note names the chord it makes, on the line and on the sheet; one fix leaves the picked line', async ({
  page,
}) => {
  await haveTune(page, 'Named', 'key: C\n| Db7 | Cmaj7 | Am7 | Dm7 | G7 | Cmaj7 |', 'Lines')
  await linesFound(page)
  await page.getByRole('radio', { name: /^Line 3/ }).click()
  await linesFound(page)
  const before = await gripsIn(page)
  await pick(newLine(page), 1)
  await gripChoices(page, false).nth(2).click()
  await expect(page.getByRole('radio', { name: /^Your line/ })).toBeVisible()
  await linesFound(page)
  const after = await gripsIn(page)
  expect(after.filter((grip, at) => grip !== before[at])).toHaveLength(1)
  // The highest note of a grip that has the seventh on top is pulled up a half step.
  await pick(newLine(page), 0)
  const seventh = gripChoices(page)
  await expect(seventh.first()).toBeVisible()
  await page.getByRole('complementary').getByRole('combobox', { name: 'On top' }).click()
  await page.getByRole('option', { name: '♭7' }).click()
  await seventh.first().click()
  await linesFound(page)
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await symbolsIn(newLine(page)))[0]).toMatch(/^Dbmaj7/)
  await saved(page)
  await goTo(page, 'Sheet')
  await expect(
    printed(page)
      .getByRole('img', { name: /^Dbmaj7/ })
      .first(),
  ).toBeVisible()
})

test('a tune whose lines were never opened has grips on its sheet, and files of it too', async ({
  page,
  request,
}) => {
  await haveTune(page, 'Unopened', 'key: Eb\n| Ebmaj7 | Cm7 | Fm7 | Bb7 |')
  await goTo(page, 'Sheet')
  await expect(printed(page).getByRole('img', { name: /^Grip/ })).toHaveCount(4)
  const file = await request.get(page.url().replace(/sheet.*/, 'file/musicxml'))
  expect((await file.text()).match(/<chord\/>/g)?.length ?? 0).toBeGreaterThanOrEqual(8)
  await fromBook(page, 'Halyard Waltz')
  await goTo(page, 'Sheet')
  await page.getByRole('combobox', { name: 'Layout' }).selectOption({ label: 'Chord melody' })
  await expect(printed(page).getByRole('group', { name: 'Tablature' }).first()).toBeVisible()
})
