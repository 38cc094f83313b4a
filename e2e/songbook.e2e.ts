import { expect, goTo, haveTune, homeLine, test } from './fixtures'

test('a book of many: searched by numerals and misspelt, tagged and deleted several at once, and each tune opens where it was left', async ({
  page,
}) => {
  for (const [title, text] of [
    ['Willow Gate', 'key: Ab\n| Ab | Bbm7 Eb7 | Ab | Fm7 |'],
    ['Willow Gate', 'key: C\n| C | Am | F | G |'],
    ['Kiln Street', 'key: D\n| D | Em | F#m | G |'],
  ] as const)
    await haveTune(page, title, text)
  await goTo(page, 'Colour')
  const left = page.waitForRequest((asked) => asked.url().endsWith('/place'))
  await homeLine(page).getByRole('button').nth(2).click()
  await left
  const rows = page.getByRole('row')
  const search = async (words: string) => {
    await page.goto('/')
    await page.getByLabel('Search the songbook').fill(words)
    await page.getByRole('button', { name: 'Search' }).click()
  }
  await search('kiln walking up')
  await expect(rows).toHaveCount(2)
  await search('willow kilm')
  await expect(page.getByText('No tune has')).toBeVisible()
  await search('kilm stret')
  await page.getByRole('link', { name: 'Kiln Street' }).click()
  // Where it was left: the step, and the third chord.
  await expect(page).toHaveURL(/colour$/)
  await expect(homeLine(page).getByRole('button', { pressed: true })).toHaveText(/F♯m/)
  await page.goto('/?twice=yes')
  // Other tests may have made tunes that stand twice.
  await expect(
    rows
      .filter({ has: page.getByRole('link', { name: 'Willow Gate', exact: true }) })
      .filter({ hasText: 'title stands twice' }),
  ).toHaveCount(2)
  await search('willow')
  await page.getByLabel('Choose all tunes shown').check()
  await page.getByRole('combobox', { name: 'Tag' }).fill('rehearsal')
  await page.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(page.getByText('2 tunes got the tag “rehearsal”.')).toBeVisible()
  await page.getByRole('navigation', { name: 'Tags' }).getByRole('link', { name: 'rehearsal 2' }).click()
  await expect(rows).toHaveCount(3)
  // A stretch of rows with Shift, then a file of both. What was chosen still is.
  await page.getByRole('button', { name: 'Choose none' }).click()
  await page.getByLabel('Choose Willow Gate').first().check()
  await page
    .getByLabel('Choose Willow Gate')
    .last()
    .click({ modifiers: ['Shift'] })
  await expect(page.getByText('2 tunes chosen')).toBeVisible()
  await page.getByLabel('File').selectOption('chordpro')
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save', exact: true }).click(),
  ])
  expect(file.suggestedFilename()).toBe('songbook-chordpro.zip')
  await page.getByLabel('Set', { exact: true }).selectOption('new')
  await page.getByRole('button', { name: 'Put in' }).click()
  await expect(page).toHaveURL(/\/sets\//)
  await expect(page.getByRole('link', { name: 'Willow Gate' })).toHaveCount(2)
  await page.goto('/?tag=rehearsal')
  await page.getByLabel('Choose all tunes shown').check()
  await page.getByRole('button', { name: 'Delete', exact: true }).first().click()
  await expect(page.getByText('No tune has the tag “rehearsal”.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo the deletion' }).click()
  await expect(page.getByLabel('Choose Willow Gate')).toHaveCount(2)
})
