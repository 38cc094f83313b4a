import {
  fromBook,
  goTo,
  expect,
  melodyFound,
  melodyIn,
  open,
  saved,
  test,
  haveTune,
  staves,
  tablature,
  chordNames,
  homeLine,
} from './fixtures'

test('notes written by keys, on the staff and on the neck; undone, kept over a reload', async ({ page }) => {
  await haveTune(page, 'Sung', '| C | Am | Dm | G |', 'Melody')
  await expect(page.getByText('There is no melody yet')).toBeVisible()
  const body = page.locator('body')
  await expect(async () => {
    await body.press('e')
    await expect(page.getByRole('button', { name: /Writing on bar 1/ })).toBeVisible({ timeout: 1_000 })
  }).toPass()
  for (const key of ['2', 'e', '4', 'g', '8', 'a', 't', 'g', 'f', 'e', 't', 'ArrowUp', 'Shift+ArrowUp'])
    await body.press(key)
  await expect
    .poll(() => melodyIn(page))
    .toEqual([
      'E4 on bar 1 beat 1',
      'G4 on bar 1 beat 3',
      'A4 on bar 1 beat 4',
      'G4 on bar 1 the “and” of 4',
      'F4 on bar 1 the last sextuplet of 4',
      'F5 on bar 2 the second sextuplet of 1',
    ])
  await body.press('Backspace')
  await body.press('Escape')
  await saved(page)
  await expect(page.locator('[id^="vf-"]').first()).toBeVisible()

  // A click on the third beat of bar 3, on the middle line: B, as it sounds B4 of the staff an
  // octave lower.
  await page.getByRole('button', { name: /^Write notes/ }).click()
  await page.getByRole('button', { name: /^Half/ }).click()
  const staff = staves(page).first()
  const box = (await staff.boundingBox())!
  const bar = (box.width - 84) / 4
  await staff.click({ position: { x: 84 + bar * 2 + bar * 0.54, y: 72 } })
  await expect.poll(() => melodyIn(page)).toContain('B3 on bar 3 beat 3')
  await page.getByRole('button', { name: 'Neck', exact: true }).click()
  // String 1 at its eighth fret is C5; it comes behind the note before.
  await page.locator('svg rect', { hasText: /^String 1, fret 8$/ }).click()
  await expect.poll(() => melodyIn(page)).toContain('C5 on bar 4 beat 1')
  await page.getByRole('button', { name: /^Writing on/ }).click()
  await body.press('Control+z')
  await expect.poll(() => melodyIn(page)).not.toContain('C5 on bar 4 beat 1')
  await melodyFound(page)
  const before = await melodyIn(page)
  await page.reload()
  await expect.poll(() => melodyIn(page)).toEqual(before)
})

test('who comes back to the step, or undoes what was changed, has what was found: nothing is looked for twice', async ({
  page,
}) => {
  await fromBook(page, 'Halyard Waltz', 'Melody')
  await melodyFound(page)
  const word = page.getByRole('button', { name: /^Under it/ })
  await expect(word).toContainText(/way 1 of \d/)
  const found = (await word.textContent())!
  // How often a search was seen to run, from now on.
  const searched = await page.evaluateHandle(() => {
    const seen = { times: 0 }
    new MutationObserver(() => {
      if (document.querySelector('[role="progressbar"]')) seen.times += 1
    }).observe(document.body, { childList: true, subtree: true })
    return seen
  })
  const times = () => searched.evaluate(({ times }) => times)
  await goTo(page, 'Chart')
  await goTo(page, 'Melody')
  await expect(word).toHaveText(found)
  await melodyFound(page)
  expect(await times()).toBe(0)

  await open(page, 'Under it')
  await page.getByRole('button', { name: 'every note', exact: true }).click()
  await expect.poll(times).toBeGreaterThan(0)
  await melodyFound(page)
  const before = await times()
  await page.getByRole('button', { name: /^Undo/ }).click()
  await page.keyboard.press('Escape')
  await expect(word).toHaveText(found)
  await melodyFound(page)
  expect(await times()).toBe(before)
})

test('chords come under the melody: density, texture, another way under one note kept by hand and set free', async ({
  page,
}) => {
  await fromBook(page, 'Halyard Waltz', 'Melody')
  await melodyFound(page)
  const frets = () => tablature(page).locator('text').count()
  const sparse = await frets()
  await open(page, 'Under it')
  await page.getByRole('button', { name: 'every note', exact: true }).click()
  await expect.poll(frets).toBeGreaterThan(sparse)
  await melodyFound(page)
  await page.getByRole('button', { name: 'Two lines', exact: true }).click()
  await expect.poll(frets).toBeLessThan(sparse)
  await melodyFound(page)
  await page.getByRole('button', { name: 'Full', exact: true }).click()
  await melodyFound(page)

  await staves(page).locator('rect').nth(5).click()
  const drawer = page.getByRole('complementary')
  await expect(drawer.getByText(/ways under it, nearest first/)).toBeVisible()
  await expect(drawer.getByText(/the ♭3 of/).first()).toBeVisible()
  await page.locator('body').press('ArrowDown')
  await page.locator('body').press('ArrowDown')
  const tried = drawer.locator('button[aria-current="true"]')
  await expect(tried).toHaveCount(1)
  const wanted = await tried.getAttribute('aria-label')
  await page.locator('body').press('Enter')
  const byHand = page.getByRole('region', { name: 'Music' }).getByText('by hand', { exact: true })
  await expect(byHand).toHaveCount(1)
  await melodyFound(page)
  await expect(drawer.getByRole('button', { pressed: true })).toHaveAttribute(
    'aria-label',
    new RegExp(`${wanted!.split('. ')[1]!}$`),
  )
  await page.locator('body').press('Backspace')
  await expect(byHand).toHaveCount(0)
  await saved(page)
  // What the melody is played with is heard, and its place is shown.
  await page.getByRole('button', { name: 'New', exact: true }).click()
  await page.locator('body').press('Space')
  await expect(
    page.getByRole('group', { name: 'Tablature of the chord melody' }).locator('[aria-current="true"]'),
  ).toHaveCount(1)
  await page.locator('body').press('Space')
})

test('ABC and files: what is wrong is said and nothing is lost; the melody alone, or the whole tune', async ({
  page,
}) => {
  await haveTune(page, 'Brought', '| C | F |', 'Melody')
  await open(page, 'Notes')
  await page.getByRole('button', { name: 'ABC or a file' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Type ABC here').fill('no tune')
  await expect(dialog.getByText(/No ABC tune with notes was found.*Accepted:/)).toBeVisible()
  await dialog.getByLabel('Type ABC here').fill('X:1\nM:4/4\nL:1/4\nK:C\nE G c2 | (3A/B/c/ d2 z |')
  await expect(dialog.getByText('7 notes.')).toBeVisible()
  await dialog.getByRole('button', { name: 'Only the melody' }).click()
  await expect.poll(() => melodyIn(page)).toHaveLength(7)
  await expect(page.getByRole('group', { name: 'Home line' })).toContainText('F')

  await open(page, 'Notes')
  await page.getByRole('button', { name: 'ABC or a file' }).click()
  await dialog.locator('input[type=file]').setInputFiles({
    name: 'bad.mid',
    mimeType: 'audio/midi',
    buffer: Buffer.from([0x4d, 0x54, 0x68, 0x64, 0, 0, 0, 6, 0, 2, 0, 1, 0, 96]),
  })
  await expect(dialog.getByText(/type 2/)).toBeVisible()
  const xml =
    '<score-partwise><part-list><score-part id="P1"><part-name>Voice</part-name></score-part></part-list><part id="P1"><measure number="1"><harmony><root><root-step>D</root-step></root><kind>minor-seventh</kind></harmony><note><pitch><step>A</step><octave>4</octave></pitch><duration>4</duration></note></measure></part></score-partwise>'
  await dialog
    .locator('input[type=file]')
    .setInputFiles({ name: 'tune.musicxml', mimeType: 'application/xml', buffer: Buffer.from(xml) })
  await expect(dialog.getByText('1 note.')).toBeVisible()
  await dialog.getByRole('button', { name: 'Chords and melody in place' }).click()
  await expect.poll(() => melodyIn(page)).toEqual(['A4 on bar 1 beat 1'])
  await expect(chordNames(homeLine(page))).toHaveAttribute('aria-label', 'Dm7')
  await page.locator('body').press('Control+z')
  await expect.poll(() => melodyIn(page)).toHaveLength(7)
})

test('elsewhere on the neck, all keys, blocks under a phrase, an ending', async ({ page }) => {
  await haveTune(page, 'Moved', '| C | G7 | C |', 'Melody')
  await open(page, 'Notes')
  await page.getByRole('button', { name: 'ABC or a file' }).click()
  await page
    .getByRole('dialog')
    .getByLabel('Type ABC here')
    .fill('X:1\nM:4/4\nL:1/4\nK:C\nE G c2 | B A G2 | c4 |')
  await page.getByRole('dialog').getByRole('button', { name: 'Only the melody' }).click()
  await melodyFound(page)
  await open(page, 'Elsewhere')
  await page.getByRole('button', { name: 'Other positions, strings, registers' }).click()
  const places = page.getByRole('list', { name: 'Other places' })
  await expect(places.getByRole('listitem').first()).toBeVisible()
  await places
    .getByRole('listitem')
    .filter({ hasText: 'frets 5 to 10' })
    .getByRole('button', { name: 'Play it there' })
    .click()
  await melodyFound(page)
  const outside = () =>
    tablature(page)
      .locator('text')
      .evaluateAll((texts) =>
        texts.map((text) => Number(text.textContent)).filter((fret) => fret !== 0 && (fret < 5 || fret > 10)),
      )
  await expect.poll(outside).toEqual([])
  await open(page, 'Elsewhere')
  await page.getByRole('button', { name: 'All twelve keys' }).click()
  // In some keys the melody leaves the position that is set: those are counted, and left out.
  const keys = page.getByRole('list', { name: 'Keys by ease' }).getByRole('listitem')
  await expect(keys.first()).toBeVisible({ timeout: 120_000 })
  const playable = await keys.count()
  if (playable < 12)
    await expect(
      page.getByText(`${12 - playable} ${playable === 11 ? 'key' : 'keys'} left out`),
    ).toBeVisible()
  expect(playable).toBeGreaterThan(5)

  await open(page, 'Blocks')
  await page.getByLabel('Under', { exact: true }).click()
  await page.getByRole('option', { name: 'the phrase of the note' }).click()
  await page.getByLabel('Chords', { exact: true }).click()
  await page.getByRole('option', { name: 'Sixth-diminished, major' }).click()
  await page.getByRole('button', { name: 'Put them under the phrase' }).click()
  const music = page.getByRole('region', { name: 'Music' })
  await expect(music.getByText('by hand', { exact: true }).first()).toBeVisible()
  await expect(music.getByRole('img', { name: 'Bdim7', exact: true }).first()).toBeVisible()

  await open(page, 'Ends')
  await page
    .getByRole('region', { name: 'Endings' })
    .getByRole('listitem')
    .filter({ hasText: 'backdoor' })
    .getByRole('button', { name: 'Put it at the end' })
    .click()
  await expect(chordNames(homeLine(page))).toHaveCount(6)
  expect(await melodyIn(page)).toHaveLength(7)
  await saved(page)
})

test('a melody played in on the keys of the computer comes on the grid', async ({ page }) => {
  await haveTune(page, 'Played', 'tempo: 60\n| C | F | C | F |', 'Melody')
  await open(page, 'Notes')
  await page.getByRole('button', { name: 'Play it in' }).click()
  await expect(page.getByRole('status').filter({ hasText: 'Count-in; then play from bar 1' })).toBeVisible()
  await expect(page.getByRole('status').filter({ hasText: 'Playing in from bar 1' })).toBeVisible()
  for (const key of ['a', 'd']) {
    await page.keyboard.down(key)
    await page.waitForTimeout(480)
    await page.keyboard.up(key)
  }
  await page.keyboard.press('Space')
  await expect.poll(() => melodyIn(page)).toHaveLength(2)
  const [first, second] = await melodyIn(page)
  // The second row of keys is the G string: its first key the open string, its third the second
  // fret.
  expect(first).toMatch(/^G3 on bar/)
  expect(second).toMatch(/^A3 on bar/)
})
