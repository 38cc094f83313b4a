import {
  expect,
  goTo,
  homeLine,
  linesFound,
  newLine,
  open,
  pick,
  playerKept,
  printed,
  saved,
  symbolsIn,
  test,
  haveTune,
  grips,
  reasons,
} from './fixtures'

const TEXT = 'key: C\n| Cmaj7 | Am7 | Dm7 | G7 | Cmaj7 | Fmaj7 | Dm7 | G7 |'

test('trying: a digit tries, the new line shows it, nothing is written; Escape leaves it, Enter keeps it, Backspace puts back', async ({
  page,
}) => {
  await haveTune(page, 'Trying', TEXT, 'Colour')
  await expect.poll(async () => (await symbolsIn(newLine(page))).length).toBe(8)
  const plain = await symbolsIn(newLine(page))
  await newLine(page).getByRole('button').nth(3).click()
  await page.keyboard.press('2')
  await expect(page.getByText('is tried.')).toBeVisible()
  await expect.poll(() => symbolsIn(newLine(page))).not.toEqual(plain)
  const tried = await symbolsIn(newLine(page))
  // It is heard where it would stand: the player is playing.
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Undo' })).toBeEnabled()
  await page.keyboard.press('Escape')
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(plain)
  await page.keyboard.press('2')
  await page.keyboard.press('Enter')
  await expect(newLine(page).getByText('by hand')).toHaveCount(1)
  await saved(page)
  await page.reload()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(tried)
  await pick(newLine(page), 3)
  await page.keyboard.press('Backspace')
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(plain)
})

test('chords put in: they share the bar, have grips of their own in the lines and on the sheet, and come out alone from the trail', async ({
  page,
}) => {
  await haveTune(page, 'Put In', TEXT, 'Colour')
  await newLine(page).getByRole('button').nth(3).click()
  await page
    .getByRole('region', { name: 'insert' })
    .getByRole('button', { name: /Dm7.*G7/ })
    .first()
    .click()
  await expect(newLine(page).getByRole('button')).toHaveCount(9)
  const made = await symbolsIn(newLine(page))
  expect(await symbolsIn(homeLine(page))).toHaveLength(8)
  await newLine(page).getByRole('button').nth(0).click()
  await page.getByRole('region', { name: 'swap' }).getByRole('button').first().click()
  await expect(newLine(page).getByText('by hand')).toHaveCount(2)
  const both = await symbolsIn(newLine(page))

  await goTo(page, 'Lines')
  await linesFound(page)
  await expect(grips(newLine(page))).toHaveCount(9)
  // The arrow keys go through the chords that were put in too.
  await newLine(page).getByRole('button').nth(4).click()
  await expect(
    page.getByRole('complementary').getByRole('heading', { level: 2 }).getByRole('img'),
  ).toHaveAttribute('aria-label', both[4]!)
  await page.keyboard.press('ArrowLeft')
  await expect(
    page.getByRole('complementary').getByRole('heading', { level: 2 }).getByRole('img'),
  ).toHaveAttribute('aria-label', both[3]!)
  await goTo(page, 'Sheet')
  // A chord that goes on with its grip has it once.
  await expect(printed(page).getByRole('img', { name: /^Grip/ })).toHaveCount(8)
  await page.getByRole('link', { name: 'Back to the tune' }).click()

  await goTo(page, 'Colour')
  await open(page, 'Trail')
  const trail = page.getByRole('region', { name: 'Trail' })
  await expect(trail.getByRole('row')).toHaveCount(2)
  // The latest first: the swap of bar 1.
  await trail.getByRole('row').first().getByRole('button', { name: 'Back to the plain chord' }).click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(made)
})

test('a stretch: only it is taken further, and one key puts it back', async ({ page }) => {
  await haveTune(page, 'Stretch', TEXT, 'Colour')
  await expect.poll(async () => (await symbolsIn(newLine(page))).length).toBe(8)
  const plain = await symbolsIn(newLine(page))
  await homeLine(page).getByRole('button').nth(4).click()
  await homeLine(page)
    .getByRole('button')
    .nth(7)
    .click({ modifiers: ['Shift'] })
  await open(page, 'Take me further')
  const slider = page.getByRole('slider', { name: /bar 5, beat 1 to bar 8, beat 1: take me this far/ })
  await slider.focus()
  for (let press = 0; press < 10; press += 1) await page.keyboard.press('ArrowRight')
  await page.getByRole('radio', { name: /Way 1/ }).click()
  await expect.poll(() => symbolsIn(newLine(page))).not.toEqual(plain)
  expect((await symbolsIn(newLine(page))).slice(0, 4)).toEqual(plain.slice(0, 4))
  await page.getByRole('button', { name: /Take my choice away/ }).click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(plain)
})

test('versions: kept under a name, shown beside, heard in turn, taken up', async ({ page }) => {
  await haveTune(page, 'Two Ways', TEXT, 'Colour')
  await newLine(page).getByRole('button').nth(3).click()
  await page.getByRole('region', { name: 'swap' }).getByRole('button').first().click()
  const first = await symbolsIn(newLine(page))
  await open(page, 'Versions')
  await page.getByLabel('Keep what stands now as').fill('Sly')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await page.keyboard.press('Escape')
  await newLine(page).getByRole('button').nth(3).click()
  await page.keyboard.press('Backspace')
  await open(page, 'Versions')
  await page.getByRole('button', { name: 'Show beside' }).click()
  await expect.poll(() => symbolsIn(page.getByRole('group', { name: 'Kept: Sly' }))).toEqual(first)
  await page.getByRole('button', { name: 'New, then Sly' }).click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await open(page, 'Versions')
  await page.getByRole('button', { name: 'Reasons', exact: true }).click()
  await expect(reasons(page)).toHaveCount(1)
  await expect(page.getByText('Sly · ')).toBeVisible()
  await page.getByRole('link', { name: 'Back to the tune' }).click()
  await goTo(page, 'Colour')
  await open(page, 'Versions')
  await page.getByRole('button', { name: 'Work on this version' }).click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(first)
  await saved(page)
  await page.reload()
  await expect(page.getByRole('button', { name: 'Versions 1' })).toBeVisible()
})

test('some bars of a version are taken into another; the rest stays', async ({ page }) => {
  await haveTune(page, 'Two Ways In One', TEXT, 'Colour')
  const swapAt = async (chord: number) => {
    await newLine(page).getByRole('button').nth(chord).click()
    await page.getByRole('region', { name: 'swap' }).getByRole('button').first().click()
  }
  await swapAt(1)
  await swapAt(3)
  const sly = await symbolsIn(newLine(page))
  await open(page, 'Versions')
  await page.getByLabel('Keep what stands now as').fill('Sly')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await page.keyboard.press('Escape')
  for (const chord of [1, 3]) {
    await newLine(page).getByRole('button').nth(chord).click()
    await page.keyboard.press('Backspace')
  }
  const plain = await symbolsIn(newLine(page))
  expect(plain).not.toEqual(sly)
  await open(page, 'Versions')
  await page.getByRole('button', { name: 'Take bar 4 of it' }).click()
  await expect
    .poll(() => symbolsIn(newLine(page)))
    .toEqual(plain.map((symbol, at) => (at === 3 ? sly[3] : symbol)))
})

test('a second opinion of the new line: what it does, what is said against it, what would mend that', async ({
  page,
}) => {
  await haveTune(page, 'Said Again', TEXT, 'Colour')
  await newLine(page).getByRole('button').first().click()
  await page.getByRole('region', { name: 'bass and texture' }).getByRole('button').last().click()
  const opinion = page.getByRole('button', { name: /^Second opinion/ })
  await expect(opinion).toContainText('remark')
  await opinion.click()
  const against = page.getByRole('table', { name: 'What could be said against it' })
  await expect(against.getByRole('row').first()).toContainText('bar 1')
  await against.getByRole('button', { name: 'What would mend it?' }).first().click()
  await against.getByRole('button', { name: 'Take it' }).first().click()
  await expect(opinion).not.toContainText('remark')
  await saved(page)
})

test('one note through all chords, and a bass as typed', async ({ page }) => {
  await haveTune(page, 'One Note', 'key: C\n| C | F | G7 | Am |', 'Colour')
  await open(page, 'Thread')
  const panel = page.getByRole('region', { name: 'Held note and bass line' })
  await expect(panel.getByRole('list').getByRole('listitem')).toHaveCount(4)
  await panel.getByRole('button', { name: /^Take/ }).click()
  await expect.poll(() => symbolsIn(newLine(page))).toEqual(expect.arrayContaining(['C', 'Am', 'Fmaj7']))
  await page.keyboard.press('Escape')
  await newLine(page).getByRole('button').nth(2).click()
  await open(page, 'Thread')
  await panel.getByLabel('Bass line').click()
  await page.getByRole('option', { name: 'notes of my own' }).click()
  await panel.getByLabel('Bass notes from the selected chord on').fill('B')
  await panel.getByRole('button', { name: 'Take this change' }).click()
  await expect.poll(async () => (await symbolsIn(newLine(page)))[2]).toBe('G7/B')
})

test('taste: what is wanted comes first, what was kept is counted, seen and forgotten', async ({ page }) => {
  await haveTune(page, 'Taste', TEXT, 'Colour')
  await newLine(page).getByRole('button').nth(3).click()
  const swaps = page.getByRole('region', { name: 'swap' }).getByRole('button')
  const before = await swaps.first().textContent()
  await open(page, 'Taste')
  await page.getByRole('slider', { name: 'How far out' }).focus()
  await page.keyboard.press('End')
  await expect(swaps.first()).not.toHaveText(before!)
  await open(page, 'Taste')
  await page.getByRole('group', { name: 'bebop' }).getByRole('button', { name: 'never' }).click()
  await expect(page.getByRole('region', { name: 'swap' }).getByRole('button', { name: /^Db7/ })).toHaveCount(
    0,
  )
  await playerKept(page, 'bebop', () =>
    page.getByRole('group', { name: 'bebop' }).getByRole('button', { name: 'more' }).click(),
  )
  await page.getByRole('region', { name: 'swap' }).getByRole('button', { name: /Db7/ }).first().click()
  await open(page, 'Taste')
  await expect(page.getByText('tritone substitution 1×')).toBeVisible()
  await saved(page)
  await page.reload()
  await open(page, 'Taste')
  await expect(page.getByRole('slider', { name: 'How far out' })).toHaveValue('1')
  await expect(
    page.getByRole('group', { name: 'bebop' }).getByRole('button', { name: 'more' }),
  ).toHaveAttribute('aria-pressed', 'true')
  await page.getByRole('button', { name: 'Forget tritone substitution' }).click()
  await expect(page.getByText('tritone substitution 1×')).toHaveCount(0)
})

test('the idiom decides what is offered first: read from the chords, set in the bar, kept with the chart; the drawer names the place', async ({
  page,
}) => {
  await haveTune(page, 'Two Ways To Say', 'key: C\n[A] | C | Am | F | G | C | Am | F G | C |', 'Colour')
  const drawer = page.getByRole('complementary')
  await expect(drawer).toContainText('Arrival. C is home where the section begins.')
  const idiom = page.getByRole('button', { name: /^Idiom/ })
  await expect(idiom).toContainText('song')
  await newLine(page).getByRole('button').nth(3).click()
  const first = drawer.getByRole('region', { name: 'colour' }).getByRole('button').nth(1)
  await expect(first).toContainText('sus')
  await idiom.click()
  await page.getByRole('combobox', { name: 'Idiom of the tune' }).click()
  await page.getByRole('option', { name: 'jazz' }).click()
  await expect(idiom).toContainText('jazz')
  await expect(first).not.toContainText('sus')
  await saved(page)
  await page.reload()
  await expect(idiom).toContainText('jazz')
})
