import {
  expect,
  goTo,
  homeLine,
  newLine,
  open,
  printed,
  saved,
  symbolsIn,
  test,
  haveTune,
  whatIsPlayed,
  problems,
  formLine,
  unread,
  numerals,
  chordNames,
} from './fixtures'
import type { Page } from '@playwright/test'

const text = (page: Page) => page.getByLabel('Chart text', { exact: true })
const chordAt = (page: Page, index: number) => homeLine(page).locator(`[data-slot="${index}"]`)
const tabs = (page: Page) => page.getByRole('group', { name: 'Charts of this tune' })
const press = (page: Page, key: string) => page.locator('body').press(key)

test('typing on the systems: arrow to a chord, type beat after beat, off the beat, and leave one as it was', async ({
  page,
}) => {
  await haveTune(page, 'On the Beat', '| C | F | G |')
  await chordAt(page, 0).click()
  await press(page, 'ArrowRight')
  await press(page, 'Enter')
  const field = page.getByRole('textbox', { name: /^Chord on beat/ })
  await expect(field).toHaveValue('F')
  await page.keyboard.type('Dm7 ')
  await expect(field).toHaveAccessibleName('Chord on beat 2')
  await page.keyboard.press('Tab')
  await page.keyboard.type('_G7')
  await page.keyboard.press('Enter')
  await expect(text(page)).toHaveValue('| C | Dm7 . _G7 . | G |')
  expect(await symbolsIn(homeLine(page))).toEqual(['C', 'Dm7', 'G7', 'G'])
  // A capital letter begins a chord; Escape leaves the beat as it was.
  await chordAt(page, 3).click()
  await press(page, 'E')
  await expect(field).toHaveValue('E')
  await page.keyboard.press('Escape')
  await expect(field).toHaveCount(0)
  await expect(text(page)).toHaveValue('| C | Dm7 . _G7 . | G |')
  // A beat under a bar can be touched; what cannot be read stays and is marked.
  await homeLine(page).getByTitle('Type on beat 3').first().click()
  await page.keyboard.type('Hm')
  await page.keyboard.press('Enter')
  await expect(text(page)).toHaveValue('| C Hm | Dm7 . _G7 . | G |')
  await expect(unread(homeLine(page))).toHaveText(/Hm/)
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(text(page)).toHaveValue('| C | Dm7 . _G7 . | G |')
})

test('bars by keys and by buttons: insert, split, join, move, transpose, take out', async ({ page }) => {
  await haveTune(page, 'Bar by Bar', 'key: C\n| C | F G7 | Am |')
  await chordAt(page, 1).click()
  await press(page, 'Alt+s')
  await expect(text(page)).toHaveValue('key: C\n| C | F | G7 | Am |')
  await press(page, 'Escape')
  await chordAt(page, 1).click()
  await press(page, 'Alt+j')
  await expect(text(page)).toHaveValue('key: C\n| C | F G7 | Am |')
  await press(page, ']')
  await expect(text(page)).toHaveValue('key: C\n| C | Am | F G7 |')
  await press(page, '+')
  await expect(text(page)).toHaveValue('key: C\n| C | Am | Gb Ab7 |')
  await open(page, 'Bars')
  await page.getByRole('button', { name: '½ down' }).click()
  await expect(text(page)).toHaveValue('key: C\n| C | Am | F G7 |')
  await chordAt(page, 0).click()
  await press(page, 'Alt+i')
  await expect(text(page)).toHaveValue('key: C\n| C | N.C. | Am | F G7 |')
  await press(page, 'Delete')
  await expect(text(page)).toHaveValue('key: C\n| C | Am | F G7 |')
  await open(page, 'Bars')
  await expect(page.getByRole('toolbar', { name: 'Bars' })).toContainText('Bar 1')
  await page.getByRole('button', { name: 'Copy' }).click()
  await page.getByRole('button', { name: 'Paste' }).click()
  await expect(text(page)).toHaveValue('key: C\n| C | C | Am | F G7 |')
})

test('bars can be copied as text and chords pasted as players write them', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await haveTune(page, 'Cut and Splice', '| C | F | G |')
  await chordAt(page, 0).click()
  await chordAt(page, 1).click({ modifiers: ['Shift'] })
  await page.keyboard.press('Control+c')
  expect(await page.evaluate(() => navigator.clipboard.readText())).toBe('| C | F |')
  await page.evaluate(() => navigator.clipboard.writeText('Em7 - A7'))
  await chordAt(page, 2).click()
  await page.keyboard.press('Control+v')
  await expect(text(page)).toHaveValue('| C | F | G | Em7 | A7 |')
  await page.keyboard.press('Control+x')
  await expect(text(page)).toHaveValue('| C | F | G |')
})

test('the form is drawn and followed: repeats, endings, pickup, changes, wrong beats', async ({ page }) => {
  await haveTune(
    page,
    'Round the Island',
    'key: C\npickup: 1\n[A] | G7 |: C | F |1. G7 :|2. C Fine |\nkey: Eb\nmeter: 3/4\n[B] | Eb . | Bb7 D.C. al Fine |',
  )
  const bars = homeLine(page).getByRole('group', { name: /^(pickup|bar)/ })
  expect(await bars.evaluateAll((bars) => bars.map((bar) => bar.getAttribute('aria-label')))).toEqual([
    'pickup',
    'bar 1, repeat begins',
    'bar 2',
    'bar 3, repeat ends',
    'bar 4',
    'bar 5',
    'bar 6',
  ])
  await expect(bars.first()).toContainText('pickup')
  await expect(bars.nth(1)).toContainText('1')
  await expect(homeLine(page).getByText('1.', { exact: true })).toBeVisible()
  await expect(homeLine(page).getByText(/^(Fine|D\.C\..*)$/)).toHaveText(['Fine', 'D.C. al Fine'])
  // The new key and metre, then the chord.
  await expect(bars.nth(5).getByText(/^(E♭|3\/4)$/)).toHaveText(['E♭', '3/4', 'E♭'])
  await expect(homeLine(page).getByText('2 of 3 beats')).toBeVisible()
  await expect(problems(page)).toContainText('Bar 5 has 2 beats; it should have 3.')
  await expect(formLine(page)).toContainText('6 bars written, 11 played')
  await goTo(page, 'Sheet')
  await expect(printed(page).getByText(/^[12]\.$/)).toHaveText(['1.', '2.'])
})

test('every reason can be read: for a chord, its tensions, its groups, and the form', async ({ page }) => {
  await haveTune(page, 'Tell Me Why', 'key: C\n| C | A7 | Dm7 | G7 | C |')
  await chordAt(page, 1).click()
  const drawer = page.getByRole('complementary')
  await expect(drawer.locator('details p:visible')).toHaveCount(0)
  await press(page, 'w')
  await expect(drawer).toContainText('C♯ is not in C.')
  await expect(drawer).toContainText('A is the V of Dm, and D is the ii of C.')
  await expect(drawer).toContainText('A Mixolydian ♭9 ♭13')
  await expect(formLine(page)).toContainText('Home C: The chart says so.')
  await press(page, 'w')
  await expect(drawer.getByText('C♯ is not in C.')).toBeHidden()
  await drawer.locator('dl > div').filter({ hasText: 'In the key' }).getByText('why?').click()
  await expect(drawer.getByText('C♯ is not in C.')).toBeVisible()
  // A bracket is a touch away from being selected, and its chords then are what is played.
  await page.getByRole('button', { name: 'ii-V-I in C' }).first().click()
  await expect(drawer).toContainText('Dm7 and G7 are the ii and V of C')
  await expect(whatIsPlayed(page)).toContainText('bar 3, beat 1 to bar 5, beat 1')
  await chordAt(page, 3).click()
  await press(page, 'Alt+g')
  await expect(whatIsPlayed(page)).toContainText('bar 3, beat 1 to bar 5, beat 1')
})

test('a key that was found can be written into the chart', async ({ page }) => {
  await haveTune(page, 'Where Is Home', '| Dm7 | G7 | Cmaj7 |')
  await expect(page.getByText(/C major was found/)).toBeVisible()
  await page.getByRole('button', { name: 'Write it into the chart' }).click()
  await expect(text(page)).toHaveValue('key: C\n| Dm7 | G7 | Cmaj7 |')
  await expect(page.getByText(/was found/)).toHaveCount(0)
})

test('both schools of numerals, and the capo: sounding above, fingered below', async ({ page }) => {
  await haveTune(page, 'Second Fret', 'key: D\n| D | Em7 | A7 | D |')
  await open(page, 'Numerals')
  await page.getByRole('button', { name: 'IIm7 V7', exact: true }).click()
  await expect(numerals(homeLine(page))).toHaveText(['I', 'IIm7', 'V7', 'I'])
  await page.getByRole('combobox', { name: 'Capo' }).click()
  await page.getByRole('option', { name: '2, played in C major' }).click()
  await expect(text(page)).toHaveValue('key: D\ncapo: 2\n| D | Em7 | A7 | D |')
  expect(
    await chordNames(homeLine(page)).evaluateAll((names) =>
      names.map((name) => name.getAttribute('aria-label')),
    ),
  ).toEqual(['D', 'C', 'Em7', 'Dm7', 'A7', 'G7', 'D', 'C'])
  await saved(page)
  await page.reload()
  await expect(numerals(homeLine(page))).toHaveText(['I', 'IIm7', 'V7', 'I'])
})

test('a tune has several charts, each with what was made of it', async ({ page }) => {
  await haveTune(page, 'Two Ways Home', 'key: C\n| C | F | G | C |')
  await open(page, 'Chart')
  await page.getByRole('button', { name: 'New chart' }).click()
  await page.getByLabel('Name').fill('Later')
  await page.keyboard.press('Enter')
  await expect(tabs(page).getByRole('button', { name: 'Later' })).toHaveAttribute('aria-pressed', 'true')
  await page.keyboard.press('Escape')
  await text(page).fill('key: C\n| C | A7 | Dm7 G7 | C |')
  await saved(page)
  await goTo(page, 'Colour')
  await newLine(page).getByRole('button').nth(1).click()
  await page.keyboard.press('1')
  await page.keyboard.press('Enter')
  await expect(newLine(page).getByText('by hand')).toBeVisible()
  await goTo(page, 'Chart')
  await open(page, 'Chart')
  await tabs(page).getByRole('button', { name: 'Plain' }).click()
  await expect(text(page)).toHaveValue('key: C\n| C | F | G | C |')
  await saved(page)
  await page.reload()
  await open(page, 'Chart')
  await tabs(page).getByRole('button', { name: 'Later' }).click()
  await expect(text(page)).toHaveValue('key: C\n| C | A7 | Dm7 G7 | C |')
  await goTo(page, 'Colour')
  await expect(newLine(page).getByText('by hand')).toBeVisible()
  await goTo(page, 'Chart')
  await open(page, 'Chart')
  await tabs(page).getByRole('button', { name: 'Take out' }).click()
  await expect(tabs(page).getByRole('button', { name: 'Later' })).toHaveCount(0)
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await open(page, 'Chart')
  await expect(tabs(page).getByRole('button', { name: 'Later' })).toHaveAttribute('aria-pressed', 'true')
})

test('words typed under the bars by keys alone: they stand under their beats, on every step, and go with their chords', async ({
  page,
}) => {
  await haveTune(page, 'Sung', '| C | F G7 | Am |')
  const words = (bar: number) => page.getByRole('textbox', { name: `Words of bar ${bar}` })
  await chordAt(page, 0).click()
  await press(page, 'l')
  await words(1).focus()
  await page.keyboard.type('Over the')
  await page.keyboard.press('Enter')
  await expect(words(2)).toBeFocused()
  await page.keyboard.type('wa- @3 ter we')
  await page.keyboard.press('Enter')
  await saved(page)
  // Escape leaves a bar as it was.
  await page.keyboard.type('nothing')
  await page.keyboard.press('Escape')
  await expect(words(3)).toHaveValue('')
  await page.getByRole('button', { name: 'Type words' }).click()
  await expect(words(1)).toHaveCount(0)
  const row = homeLine(page).getByRole('group', { name: /^Words of/ })
  await expect(row).toHaveText(['Over the', 'wa-ter we', ''])
  await goTo(page, 'Colour')
  await expect(row).toHaveText(['Over the', 'wa-ter we', ''])
  await goTo(page, 'Chart')
  await text(page).fill('| Dm7 | C | F G7 | Am |')
  await saved(page)
  await expect(row).toHaveText(['', 'Over the', 'wa-ter we', ''])
  await page.reload()
  await expect(row).toHaveText(['', 'Over the', 'wa-ter we', ''])
})
