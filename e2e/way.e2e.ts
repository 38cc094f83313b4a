import { type Page } from '@playwright/test'
import {
  act,
  expect,
  goTo,
  gripsIn,
  homeLine,
  linesFound,
  newLine,
  open,
  pick,
  printed,
  saved,
  symbolsIn,
  test,
  haveTune,
  typeTune,
  grips,
  threads,
  reasons,
  searchState,
  gripChoices,
  numerals,
} from './fixtures'

const TEXT = 'key: G\n| G | Em | Am | D7 |'

test('the whole way with mouse and keyboard, on a tune that is not in the demo book', async ({ page }) => {
  await typeTune(page, 'Night Crossing', TEXT)
  expect(await symbolsIn(homeLine(page))).toEqual(['G', 'Em', 'Am', 'D7'])
  await expect(numerals(homeLine(page))).toHaveText(['I', 'vi', 'ii', 'V7'])

  await goTo(page, 'Colour')
  const slider = page.getByRole('slider', { name: 'Colour of the whole tune' })
  await slider.focus()
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['G6/9', 'Em9', 'Am9', 'D9'])
  await expect(newLine(page).getByText(/home/).first()).toBeVisible()
  // Another colour for one chord with a digit, and put back with one key.
  await newLine(page).getByRole('button').nth(3).click()
  await page.getByRole('complementary').getByRole('button', { name: /D13b9/ }).click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['G6/9', 'Em9', 'Am9', 'D13b9'])
  await page.locator('body').press('Backspace')
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['G6/9', 'Em9', 'Am9', 'D9'])
  await newLine(page).getByRole('button').nth(1).click()
  await page.keyboard.press('0')
  await page.keyboard.press('Enter')
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['G6/9', 'Em', 'Am9', 'D9'])
  expect(await symbolsIn(homeLine(page))).toEqual(['G', 'Em', 'Am', 'D7'])

  await goTo(page, 'Lines')
  await linesFound(page)
  await expect(page.getByRole('radio')).toHaveCount(5)
  await expect(threads(page)).toHaveCount(1)
  const first = await gripsIn(page)
  expect(first).toHaveLength(4)
  await page.getByRole('radio', { name: /^Line 2/ }).click()
  await expect.poll(() => gripsIn(page)).not.toEqual(first)
  // Another grip at one chord: the rest is led around it.
  await newLine(page).getByRole('button').nth(2).click()
  const choices = gripChoices(page)
  await expect(choices.nth(5)).toBeVisible()
  const wanted = (await grips(choices.nth(5)).getAttribute('aria-label'))!
  await choices
    .filter({ has: page.getByRole('img', { name: wanted, exact: true }) })
    .first()
    .click()
  await expect(newLine(page).getByText('your grip')).toBeVisible()
  await linesFound(page)
  await expect.poll(async () => (await gripsIn(page))[2]).toBe(wanted)
  const kept = await gripsIn(page)

  // Reload keeps everything.
  await saved(page)
  await page.reload()
  await expect.poll(() => gripsIn(page)).toEqual(kept)
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['G6/9', 'Em', 'Am9', 'D9'])

  await goTo(page, 'Sheet')
  await expect(page.getByRole('heading', { name: 'Night Crossing' })).toBeVisible()
  await expect(printed(page).getByRole('img', { name: /^Grip/ })).toHaveCount(4)
  await page.emulateMedia({ media: 'print' })
  await expect(page.getByRole('button', { name: 'Print' })).toBeHidden()
})

test('undo and redo work over all of it, by keys and by buttons', async ({ page }) => {
  await haveTune(page, 'Back and Forth', '| C | F | G7 | C |', 'Colour')
  await page.getByRole('slider', { name: 'Colour of the whole tune' }).focus()
  await page.keyboard.press('ArrowRight')
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['Cmaj7', 'Fmaj7', 'G7', 'Cmaj7'])
  await saved(page)
  await page.locator('body').press('Control+z')
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['C', 'F', 'G7', 'C'])
  await page.getByRole('button', { name: 'Redo' }).click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['Cmaj7', 'Fmaj7', 'G7', 'Cmaj7'])
  await goTo(page, 'Chart')
  await page.getByRole('textbox', { name: 'Title' }).fill('Forth and Back')
  await page.keyboard.press('Enter')
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByRole('textbox', { name: 'Title' })).toHaveValue('Back and Forth')
})

test('an empty tune says what to do, and a long search can be stopped and begun again', async ({ page }) => {
  await page.goto('/')
  await page.getByLabel('Title of a new tune').fill('Nothing Yet')
  await page.getByRole('button', { name: 'New tune' }).click()
  await goTo(page, 'Lines')
  await page.getByRole('button', { name: 'Put in four plain chords' }).click()
  await linesFound(page)
  expect(await symbolsIn(newLine(page))).toEqual(['C', 'Am', 'Dm', 'G'])

  await goTo(page, 'Chart')
  const bars = ['Cmaj9', 'A7b9', 'Dm11', 'G13', 'Em9', 'Am11', 'Fmaj9', 'Bb13']
  await page
    .getByLabel('Chart text', { exact: true })
    .fill(
      `key: C\n| ${Array.from({ length: 64 }, (_, at) => bars[(at * 5 + Math.floor(at / 8)) % 8]).join(' | ')} |`,
    )
  await goTo(page, 'Lines')
  // Any grip, for a bass player: the longest search there is.
  await open(page, 'Texture')
  await page.getByRole('button', { name: 'As it comes' }).click()
  await linesFound(page)
  await open(page, 'Bass')
  // Pressed by the page itself in the frame in which it appears: on a busy machine a search is over
  // before a pointer has come to it.
  const stopped = inItsFrame(page, 'Stop the search')
  await page.getByRole('button', { name: 'Bass player has it' }).click()
  await stopped
  await expect(searchState(page)).toContainText('was stopped')
  const again = inItsFrame(page, 'Stop the search')
  await page.getByRole('button', { name: 'Search again' }).click()
  await again
  await expect(searchState(page)).toContainText('was stopped')
})

/** Presses a button as soon as it is there. */
const inItsFrame = (page: Page, name: string) =>
  page.evaluate(
    (text) =>
      new Promise<void>((done) => {
        const look = () => {
          const button = [...document.querySelectorAll('button')].find(
            (one) => one.textContent?.replaceAll('\u00a0', ' ') === text,
          )
          if (!button) return void requestAnimationFrame(look)
          button.click()
          done()
        }
        look()
      }),
    name,
  )

test('the chart read: brackets, skeleton and back, another key and back', async ({ page }) => {
  await haveTune(page, 'Read Me', 'key: C\n| C | Ebm7 Ab7 | Dm7 G7 | C |')
  await expect(page.getByRole('button', { name: /^ii-V/ })).toHaveText([
    'ii-V in D♭, does not land',
    'ii-V-I in C',
  ])
  await open(page, 'Shown')
  await page.getByRole('button', { name: 'Without passing chords', exact: true }).click()
  expect(await symbolsIn(homeLine(page))).toEqual(['C', 'Ab7', 'G7', 'C'])
  await page.getByRole('button', { name: 'Triads', exact: true }).click()
  expect(await symbolsIn(homeLine(page))).toEqual(['C', 'Ab', 'G', 'C'])
  await page.getByRole('button', { name: 'As written', exact: true }).click()
  expect(await symbolsIn(homeLine(page))).toEqual(['C', 'Ebm7', 'Ab7', 'Dm7', 'G7', 'C'])
  await page.getByRole('combobox', { name: 'Key' }).click()
  await page.getByRole('option', { name: 'B♭ major' }).click()
  await expect(page.getByLabel('Chart text', { exact: true })).toHaveValue(
    'key: Bb\n| Bb | Dbm7 Gb7 | Cm7 F7 | Bb |',
  )
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByLabel('Chart text', { exact: true })).toHaveValue(
    'key: C\n| C | Ebm7 Ab7 | Dm7 G7 | C |',
  )
})

test('chords brought in from elsewhere: the chart they make, what was left out, and undo', async ({
  page,
}) => {
  await haveTune(page, 'Brought In', '| C |')
  await page.getByRole('button', { name: 'Bring in chords' }).click()
  await page.getByLabel('Paste here').fill('Am   Dm7\nwords on the water\nE7   Am')
  await expect(page.getByLabel('The chart it makes')).toHaveValue('| Am | Dm7 |\n| E7 | Am |')
  await expect(page.getByText('With the chords come words at 2 places.')).toBeVisible()
  await page.getByRole('button', { name: 'Put it in place of the chart' }).click()
  expect(await symbolsIn(homeLine(page))).toEqual(['Am', 'Dm7', 'E7', 'Am'])
  await expect(homeLine(page).first()).toContainText('on the water')
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(page.getByLabel('Chart text', { exact: true })).toHaveValue('| C |')
})

test('the songbook: search, duplicate, rename, delete with undo', async ({ page }) => {
  await page.goto('/')
  await expect(page.locator('tbody tr').filter({ hasText: 'Low Water Blues' })).toContainText('C minor')
  await page.getByLabel('Search the songbook').fill('halyard')
  await page.getByRole('button', { name: 'Search' }).click()
  await expect(page.locator('tbody tr')).toHaveCount(1)
  await page.goto('/')
  const row = page.locator('tbody tr').filter({ hasText: 'Warm Current' })
  await act(row, 'Duplicate')
  const titled = (title: string) =>
    page.getByRole('row').filter({ has: page.getByRole('link', { name: title, exact: true }) })
  const copy = titled('Warm Current (copy)')
  await expect(copy).toBeVisible()
  await act(copy, 'Rename')
  await page.getByLabel('New title').fill('Cold Current')
  await page.keyboard.press('Enter')
  const renamed = titled('Cold Current')
  await act(renamed, 'Delete')
  await expect(renamed).toHaveCount(0)
  await page.getByRole('button', { name: 'Undo the deletion' }).click()
  await expect(renamed).toBeVisible()
})

test('forms of the songbook work before scripts load', async ({ browser, baseURL }) => {
  const page = await (await browser.newContext({ javaScriptEnabled: false, baseURL: baseURL! })).newPage()
  await page.goto('/')
  await page.getByLabel('Title of a new tune').fill('Without Scripts')
  await page.getByRole('button', { name: 'New tune' }).click()
  await expect(page).toHaveURL(/\/tunes\/.*\/chart$/)
  await page.goto('/')
  await expect(page.getByRole('link', { name: 'Without Scripts' })).toBeVisible()
})

test('one chord swapped: by intent, with its distance and reasons, kept, and put back', async ({ page }) => {
  await haveTune(page, 'Other Side', 'key: C\n| Cmaj7 | Dm7 | G7 | Cmaj7 |', 'Colour')
  await newLine(page).getByRole('button').nth(2).click()
  const drawer = page.getByRole('complementary')
  await expect(drawer.getByRole('heading', { level: 3 })).toHaveText([
    'Colour',
    'Swap: another chord with the same job',
    'Insert: more on the way',
    'Borrow: from another key',
    'Bass and texture',
    'Simplify',
  ])
  await drawer
    .getByRole('region', { name: 'swap' })
    .getByRole('button', { name: /(^|\s)Db7 / })
    .click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['Cmaj7', 'Dm7', 'Db7', 'Cmaj7'])
  expect(await symbolsIn(homeLine(page))).toEqual(['Cmaj7', 'Dm7', 'G7', 'Cmaj7'])
  await expect(newLine(page).getByText('has the third and seventh of G7, swapped')).toBeVisible()
  const facts = drawer.getByRole('group', { name: 'How far it is' })
  await expect(facts).toContainText(/near home|way out|half way|well out|far out/)
  await facts.getByText('why?').click()
  await expect(facts).toContainText(
    '2 of its tones are outside the key, and its root is 5 fifths from the tonic',
  )
  await page.getByRole('button', { name: 'All reasons' }).click()
  await expect(reasons(page)).toHaveCount(1)
  await expect(reasons(page)).toContainText('bar 3, beat 1')
  await expect(reasons(page)).toContainText('tritone substitution')
  await expect(reasons(page)).toContainText('by hand')
  await page.reload()
  await page.getByRole('link', { name: 'Back to the tune' }).click()
  await goTo(page, 'Lines')
  await linesFound(page)
  await saved(page)
  await page.reload()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['Cmaj7', 'Dm7', 'Db7', 'Cmaj7'])
  await goTo(page, 'Colour')
  await pick(newLine(page), 2)
  await page.locator('body').press('Backspace')
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(['Cmaj7', 'Dm7', 'G7', 'Cmaj7'])
})

test('the whole tune taken somewhere: different ways, one taken, a chord by hand stays, and back', async ({
  page,
}) => {
  await haveTune(page, 'This Far', 'key: C\n| Cmaj7 | A7 | Dm7 | G7 | Em7 | A7 | Dm7 | G7 |', 'Colour')
  await newLine(page).getByRole('button').nth(1).click()
  await page.keyboard.press('1')
  await page.keyboard.press('Enter')
  await expect(newLine(page).getByText('by hand')).toBeVisible()
  const plain = await symbolsIn(newLine(page))
  await open(page, 'Take me further')
  const slider = page.getByRole('slider', { name: /take me this far/ })
  await slider.focus()
  for (let press = 0; press < 9; press += 1) await page.keyboard.press('ArrowRight')
  const ways = page.getByRole('radiogroup', { name: 'Ways found' }).getByRole('radio')
  await expect(ways).toHaveCount(3)
  // Two are seen and heard beside the new line before one is taken.
  for (const [at, way] of ['Way 1', 'Way 2'].entries()) {
    await page
      .getByRole('button', { name: /^(Show beside and hear|Hide)$/ })
      .nth(at)
      .click()
    await expect(page.getByRole('group', { name: `Not taken yet: ${way}` }).first()).toBeVisible()
    await expect(page.getByRole('button', { name: `New, then ${way}` })).toBeVisible()
  }
  expect(await symbolsIn(newLine(page))).toEqual(plain)
  await ways.nth(1).click()
  await expect(page.getByRole('group', { name: /^Not taken yet: / })).toHaveCount(0)
  await expect(ways.nth(1)).toBeChecked()
  await expect.poll(() => symbolsIn(newLine(page))).not.toEqual(plain)
  const taken = await symbolsIn(newLine(page))
  // Chords may be put in before it: it still stands at the beginning of its bar.
  expect(taken).toContain(plain[1])
  await expect(newLine(page).getByText('by hand')).toHaveCount(1)
  await saved(page)
  await page.reload()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(taken)
  await open(page, 'Take me further')
  await page.getByRole('button', { name: 'Put the plain chords back' }).click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(plain)
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(taken)
})
