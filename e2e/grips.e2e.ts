import {
  expect,
  linesFound,
  playerKept,
  newLine,
  saved,
  test,
  haveTune,
  gripsListed,
  gripChoices,
  grips,
} from './fixtures'

test('the grip book: fret a grip, read its names, keep it, find it, let it go and take it back', async ({
  page,
}) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Grip book' }).click()
  await expect(page.getByRole('button', { name: /^In the book \(/ })).toContainText(/\((4\d|5\d)\)/)
  const frets = page.getByLabel(/^Frets, lowest/)
  await frets.fill('x 5 3 5 5 x')
  await page.keyboard.press('Enter')
  const here = page.getByRole('region', { name: 'This grip' })
  await expect(here.getByRole('heading', { level: 2 }).getByRole('img')).toHaveAttribute('aria-label', 'Dm9')
  // Over another root it is another chord; without its own root it says so.
  await page.getByLabel('Over the root').fill('G')
  await expect(here.getByRole('listitem').filter({ hasText: 'rootless' })).not.toHaveCount(0)
  await page.getByLabel('Over the root').fill('')
  await page.getByLabel('Tags, with commas').fill('ferry, slow')
  await page.getByLabel('Note', { exact: true }).fill('for the last chorus')
  await page.getByRole('button', { name: 'Keep in the book' }).click()
  await expect(page.getByRole('button', { name: 'Keep the changes' })).toBeVisible()
  await page.getByLabel('Search chords, tags, notes').fill('slow')
  await expect(gripsListed(page)).toHaveCount(1)
  await page.getByRole('button', { name: 'Take it out of the book' }).click()
  await expect(page.getByText('was taken out')).toBeVisible()
  await page.getByRole('button', { name: 'Put it back' }).click()
  await page.getByLabel('Search chords, tags, notes').fill('slow')
  await expect(gripsListed(page)).toHaveCount(1)
})

test('the neck is touched, a grip the hand does not hold says why, and bad frets say what is accepted', async ({
  page,
}) => {
  await page.goto('/grips')
  const neck = page.getByRole('group', { name: /^Neck/ })
  await neck.locator('rect', { hasText: /^String 5, fret 3$/ }).click()
  await neck.locator('rect', { hasText: /^String 4, fret 2$/ }).click()
  await expect(page.getByLabel(/^Frets, lowest/)).toHaveValue('x 3 2 x x x')
  await page.getByLabel(/^Frets, lowest/).fill('1 9 1 9 1 9')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/This hand does not hold it/)).toBeVisible()
  await page.getByLabel(/^Frets, lowest/).fill('1 2')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Accepted: a fret or x for each of the 6 strings/)).toBeVisible()
  await page.getByLabel('Chord', { exact: true }).fill('G7')
  await page.getByRole('button', { name: /^On the neck/ }).click()
  await expect(page.getByText(/\d+ of \d+ grips, the usual ones first/)).toBeVisible()
  await page.getByRole('region', { name: 'Grips found' }).getByLabel('Family').click()
  await page.getByRole('option', { name: 'drop 3' }).click()
  const found = gripsListed(page).getByRole('button')
  await expect(found.first()).toBeVisible()
  await found.first().click()
  await expect(page.getByRole('region', { name: 'This grip' })).toContainText('drop 3')
  await expect(page.getByRole('region', { name: 'Inversions' }).getByRole('button').first()).toBeVisible()
})

test('the finder in a tune: filters, easier grips, the neck, and into the grip book', async ({ page }) => {
  await haveTune(page, 'Found Grips', 'key: C\n| Cmaj7 | Fmaj7 | Dm7 | G7 |', 'Lines')
  await linesFound(page)
  await newLine(page).getByRole('button').nth(1).click()
  const drawer = page.getByRole('complementary')
  await expect(drawer.getByRole('heading', { name: /^All \d+ grips/ })).toBeVisible()
  await drawer.getByLabel('Family').click()
  await page.getByRole('option', { name: 'drop 2', exact: true }).click()
  await expect(drawer.getByRole('heading', { name: /^\d+ of \d+ grips/ })).toBeVisible()
  await gripChoices(page).first().click()
  await expect(newLine(page).getByText('your grip')).toBeVisible()
  await expect(drawer).toContainText('drop 2')
  await drawer.getByRole('button', { name: 'Keep in the grip book' }).click()
  await page.locator('body').press('k')
  await expect(page.getByRole('img', { name: 'Tones of Fmaj7 over the whole neck' })).toBeVisible()
  await linesFound(page)
  await saved(page)
  await page.goto('/grips')
  await page.getByLabel('Search chords, tags, notes').fill('Fmaj7')
  await gripsListed(page).getByRole('button').first().click()
  await expect(page.getByText('Found Grips')).toBeVisible()
})

test('the player: another instrument and hand change the grips, and stay', async ({ page }) => {
  await page.goto('/player')
  for (const name of ['Frets 9 to 12', 'Frets 5 to 9'])
    await page.getByRole('group', { name }).getByRole('button', { name: 'comfortable' }).click()
  await page.getByRole('group', { name: 'Frets 1 to 5' }).getByRole('button', { name: 'too wide' }).click()
  await expect(page.getByText('Comfortable reach: 113 mm')).toBeVisible()
  await page.getByLabel('Open strings, lowest first').fill('E2 A2 Q3')
  await expect(page.getByRole('alert')).toContainText('Accepted: 4 to 8 pitches')
  await page.getByRole('combobox', { name: 'Instrument' }).click()
  await page.getByRole('option', { name: 'Seven-string guitar' }).click()
  await playerKept(page, 'barre', () => page.getByRole('switch', { name: 'Barres' }).click())
  await page.reload()
  await expect(page.getByLabel('Open strings, lowest first')).toHaveValue('B1 E2 A2 D3 G3 B3 E4')
  await expect(page.getByText('Comfortable reach: 113 mm')).toBeVisible()
  await haveTune(page, 'Seven Strings', '| Em7 | A7 |', 'Lines')
  await linesFound(page)
  await expect(grips(newLine(page)).first()).toHaveAttribute(
    'aria-label',
    /^Grip, lowest string first: (\S+, ){6}\S+$/,
  )
})
