import {
  expect,
  gripsIn,
  linesFound,
  newLine,
  open,
  pick,
  saved,
  symbolsIn,
  test,
  haveTune,
  searchState,
  pointsOf,
  threads,
} from './fixtures'

/** A line with one of the things that are said of it beside its totals. */
const GOOD_AT =
  /^Line \d .*(best on the whole|players know best|least motion|travels least|the easiest grips|contrary motion|on top for|steps or stays|works hardest|held on the way)/
const TEXT = 'key: C\n| Cmaj7 | Am7 | Dm7 | G7 |'

test('a note is taken hold of and pulled by keys: the new name comes, nothing is kept until Enter, and the other grips stay', async ({
  page,
}) => {
  await haveTune(page, 'Pulled', TEXT, 'Lines')
  await linesFound(page)
  await saved(page)
  const before = await gripsIn(page)
  await newLine(page).getByRole('button').nth(2).click()
  await page.keyboard.press('ArrowUp')
  await expect(page.getByText(/^Holding .*, on string \d\./)).toHaveCount(1)
  await page.keyboard.press('ArrowUp')
  const panel = page.getByRole('status', { name: 'The pulled note' })
  await expect(panel).toContainText('Now it is')
  await page.keyboard.press('Escape')
  await expect(panel).toHaveCount(0)
  expect(await gripsIn(page)).toEqual(before)
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowUp')
  await expect(panel).toContainText(/A hand can hold it|The grip follows on other strings/)
  await page.keyboard.press('Enter')
  await expect(newLine(page).getByText('your grip')).toBeVisible()
  await linesFound(page)
  expect((await gripsIn(page))[2]).not.toBe(before[2])
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(() => gripsIn(page)).toEqual(before)
  // Taken back while the rest is led anew: what was found before is there, and nothing is looked
  // for any more.
  await linesFound(page)
  await page.keyboard.press('Shift+Digit3')
  await page.keyboard.press('Control+z')
  await expect.poll(() => gripsIn(page)).toEqual(before)
  await linesFound(page)
})

test('a pulled note names the chord anew, is dragged with the mouse, and the rest can stay', async ({
  page,
}) => {
  await haveTune(page, 'Dragged', TEXT, 'Lines')
  await linesFound(page)
  const note = threads(page).first().locator('g').nth(1)
  const box = (await note.boundingBox())!
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2)
  await page.mouse.down()
  await page.mouse.move(box.x + box.width / 2, box.y + box.height / 2 - 9, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByRole('status', { name: 'The pulled note' })).toContainText('Now it is')
  await page.getByRole('button', { name: 'Put the note back (Esc)' }).click()
  await newLine(page).getByRole('button').nth(3).click()
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.press('ArrowDown')
  await page.getByRole('status', { name: 'The pulled note' }).getByTitle('Call it this').first().click()
  await expect.poll(async () => (await symbolsIn(newLine(page)))[3]).not.toBe('G7')
  await newLine(page).getByRole('button').nth(1).click()
  await page.keyboard.press('ArrowUp')
  await page.keyboard.press('ArrowDown')
  await page.getByRole('button', { name: 'Keep it, the other grips stay (Enter)' }).click()
  await expect(newLine(page).getByText('your grip')).toHaveCount(2)
})

test('five lines say what they are good at; styles; one voice heard; two lines in turn; hard spots; ways on', async ({
  page,
}) => {
  await haveTune(page, 'Five Ways', TEXT, 'Lines')
  await linesFound(page)
  await open(page, 'Compare')
  await expect(page.getByRole('button', { name: GOOD_AT })).toHaveCount(5)
  await open(page, 'Style')
  await page.getByRole('button', { name: 'Thin' }).click()
  await expect
    .poll(async () => (await gripsIn(page)).every((grip) => (grip!.match(/muted/g) ?? []).length >= 3), {
      timeout: 30_000,
    })
    .toBe(true)
  await linesFound(page)
  await open(page, 'Hear')
  await page
    .getByRole('group', { name: 'Voices heard' })
    .getByRole('button', { name: 'Bass', exact: true })
    .click()
  await page.getByLabel('Compare by ear with').click()
  await page.getByRole('option', { name: 'Line 2' }).click()
  await page.getByRole('button', { name: 'New, then line 2' }).click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await open(page, 'Hardest')
  await page.getByRole('group', { name: 'Hardest' }).getByRole('button').first().click()
  await page.getByRole('button', { name: 'take an easier grip' }).first().click()
  await expect(newLine(page).getByText('your grip')).toHaveCount(1)
  await page.getByRole('button', { name: 'Undo' }).click()
  await newLine(page).getByRole('button').nth(0).click()
  const ways = page.getByRole('region', { name: 'On to the next chord' })
  await expect(ways.getByRole('listitem').first()).toContainText(/stays|falls|rises/)
  await ways.getByRole('button', { name: 'Take this way' }).last().click()
  await expect(newLine(page).getByText('your grip')).toHaveCount(2)
})

test('conditions: a note asked for on top is there in every line, a condition that leaves nothing says so, and is taken away', async ({
  page,
}) => {
  await haveTune(page, 'Asked For', TEXT, 'Lines')
  await linesFound(page)
  await newLine(page).getByRole('button').nth(1).click()
  const panel = page.getByRole('region', { name: 'Conditions' })
  // What is found for the chord stands above the panel: it is there before anything below it is
  // pressed.
  await expect(page.getByRole('heading', { name: /grips?, best here first$/ })).toBeVisible()
  await expect(page.getByText('Looking for grips that belong to it.')).toHaveCount(0)
  await panel.getByLabel('Which').fill('G4')
  await panel.getByRole('button', { name: 'Ask for it in bar 2' }).click()
  await expect(panel).toContainText('G4 on top, bar 2, beat 1')
  await linesFound(page)
  await expect(threads(page).locator('title').filter({ hasText: 'G4, ' })).not.toHaveCount(0)
  await panel.getByLabel('Which').fill('E9')
  await panel.getByRole('button', { name: 'Ask for it in bar 2' }).click()
  await expect(searchState(page)).toContainText('keeps to these limits and to G4 on top; E9 on top')
  await panel.getByRole('button', { name: 'take away' }).nth(1).click()
  await linesFound(page)
  await expect(searchState(page).filter({ hasText: /\S/ })).toHaveCount(0)
  await saved(page)
  await page.reload()
  await pick(newLine(page), 1)
  await expect(panel).toContainText('G4 on top, bar 2, beat 1')
})

test('the chart of the lines: a point for each, and a touch takes the line', async ({ page }) => {
  await haveTune(page, 'Points', TEXT, 'Lines')
  await linesFound(page)
  await open(page, 'Compare')
  await page.getByRole('button', { name: 'Chart of all lines' }).click()
  const points = pointsOf(page)
  await expect(points).toHaveCount(5)
  const box = (await points.nth(3).boundingBox())!
  await page.mouse.click(box.x + box.width / 2, box.y + box.height / 2)
  await expect(page.getByRole('radio', { checked: true })).toHaveAccessibleName(/^Line [1-5]/)
  await expect(page.getByRole('radio', { name: /^Line 1/ })).not.toBeChecked()
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
})

test('chords and grips chosen together for the whole tune', async ({ page }) => {
  await haveTune(page, 'Together', TEXT, 'Colour')
  await expect.poll(async () => (await symbolsIn(newLine(page))).length).toBe(4)
  const plain = await symbolsIn(newLine(page))
  await open(page, 'Take me further')
  await page.getByRole('slider', { name: /take me this far/ }).focus()
  for (let press = 0; press < 10; press += 1) await page.keyboard.press('ArrowRight')
  await page.getByLabel(/Chosen together with the grips/).click()
  const ways = page.getByRole('radiogroup', { name: 'Ways found' }).getByRole('radio')
  await expect(ways.first()).toBeVisible({ timeout: 90_000 })
  await expect(page.getByText('Looking for ways')).toHaveCount(0, { timeout: 120_000 })
  await ways.first().click()
  await expect.poll(() => symbolsIn(newLine(page))).not.toEqual(plain)
})

test("a style of the player's own is mixed, kept and led by; one position at chosen frets; round again", async ({
  page,
}) => {
  await haveTune(page, 'Mixed', TEXT, 'Lines')
  await linesFound(page)
  await open(page, 'Style')
  await page.getByRole('button', { name: 'Mix a style' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Name').fill('High and contrary')
  await dialog.getByRole('slider', { name: 'Share of Contrary' }).focus()
  await page.keyboard.press('ArrowRight')
  await dialog.getByText('What matters how much, one by one').click()
  await expect(dialog.getByRole('slider', { name: 'Bass and top move against each other' })).toHaveAttribute(
    'aria-valuenow',
    '4',
  )
  await dialog.getByRole('button', { name: 'Keep and lead by it' }).click()
  await expect(page.getByLabel('Own style')).toHaveText('High and contrary')
  await linesFound(page)
  await saved(page)
  await page.reload()
  await open(page, 'Style')
  await expect(page.getByLabel('Own style')).toHaveText('High and contrary')
  await page.getByRole('button', { name: 'One position' }).click()
  await page.getByLabel('Frets', { exact: true }).click()
  await page.getByRole('option', { name: '7 to 11' }).click()
  await linesFound(page)
  await expect
    .poll(async () =>
      (await gripsIn(page)).every((grip) => {
        const frets = grip!.match(/\d+/g)?.map(Number) ?? []
        return frets.length > 0 && frets.every((fret) => fret >= 7 && fret <= 11)
      }),
    )
    .toBe(true)
  await page.getByRole('button', { name: 'Smooth', exact: true }).click()
  await page.getByRole('button', { name: 'Lead back to the top' }).click()
  await expect(page.getByRole('button', { name: 'Lead back to the top' })).toHaveAttribute(
    'aria-pressed',
    'true',
  )
  await linesFound(page)
  await expect(page.getByRole('radio', { name: /^Line/ })).toHaveCount(5)
})

test('a beat between two chords: a voice resolves late, the chord is named, undo takes it back in one step', async ({
  page,
}) => {
  await haveTune(page, 'Late', 'key: C\n| Dm7 | G7 | Cmaj7 | % |', 'Lines')
  await linesFound(page)
  await newLine(page).getByRole('button').nth(1).click()
  const between = page.getByRole('list', { name: 'A beat between' })
  const late = between.getByRole('listitem').filter({ hasText: 'late resolution' }).first()
  await expect(late).toContainText('a beat later')
  const grips = await gripsIn(page)
  await late.getByRole('button', { name: 'Put it there' }).click()
  await expect.poll(async () => (await symbolsIn(newLine(page))).length).toBe(5)
  expect((await gripsIn(page))[3]).toBe(grips[2])
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await symbolsIn(newLine(page))).length).toBe(4)
})
