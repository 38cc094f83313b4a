import {
  expect,
  goTo,
  gripChoices,
  gripsIn,
  linesFound,
  newLine,
  pick,
  printed,
  saved,
  symbolsIn,
  test,
  typeTune,
} from './fixtures'

/**
 * The longest way of all, in a file of its own so that it is not the one that the others wait for
 * in the end.
 */
test('the whole way: typed, coloured, led, fixed, in two tunings, two tabs, an hour offline and a reload; nothing is lost or misnamed', async ({
  page,
  context,
  server,
}) => {
  const chartText = page.getByLabel('Chart text', { exact: true })
  // An earlier test may have left another instrument.
  await page.goto('/player')
  await page.getByRole('combobox', { name: 'Instrument' }).click()
  await page.getByRole('option', { name: 'Guitar, standard tuning', exact: true }).click()
  await typeTune(page, 'Whole Way', 'key: G\n| Em7 | Am7 | D7 | Gmaj7 |')
  await goTo(page, 'Colour')
  await pick(newLine(page), 2)
  await page.keyboard.press('1')
  await page.keyboard.press('Enter')
  await saved(page)
  const chords = await symbolsIn(newLine(page))
  await goTo(page, 'Lines')
  await linesFound(page)
  await pick(newLine(page), 3)
  // A grip with the lowest string in it, which drop D takes away.
  await page.getByRole('complementary').getByRole('combobox', { name: 'Strings' }).click()
  await page.getByRole('option').filter({ hasText: /^6 / }).first().click()
  await gripChoices(page).first().click()
  await linesFound(page)
  const grips = await gripsIn(page)
  expect(await symbolsIn(newLine(page))).toEqual(chords)
  const tune = page.url()

  const tuned = async (name: string) => {
    await page.goto('/player')
    await page.getByRole('combobox', { name: 'Instrument' }).click()
    await page.getByRole('option', { name, exact: true }).click()
    await expect(page.getByRole('status').filter({ hasText: /^Saved$/ })).toBeVisible()
    await page.goto(tune)
  }
  await tuned('Guitar, drop D')
  await linesFound(page)
  expect(await symbolsIn(newLine(page))).toEqual(chords)
  await goTo(page, 'Sheet')
  await expect(printed(page).first()).toContainText('strings D A D G B E')
  // The home line is small under it: the new chords alone are asked for.
  await page.getByRole('combobox', { name: 'Chords' }).selectOption({ label: 'The new line' })
  const names = printed(page).getByRole('img', { name: /^(?!Grip)/ })
  await expect(names).toHaveCount(chords.length)
  expect(await names.evaluateAll((all) => all.map((one) => one.getAttribute('aria-label')))).toEqual(chords)
  await tuned('Guitar, standard tuning')
  await linesFound(page)
  expect(await symbolsIn(newLine(page))).toEqual(chords)
  expect((await gripsIn(page))[3]).toBe(grips[3])

  // A second tab, behind, is told when it looks; then an hour without the server.
  await goTo(page, 'Chart')
  const second = await context.newPage()
  await second.goto(page.url())
  await saved(second)
  await page.getByRole('textbox', { name: 'Title' }).fill('Whole Way Home')
  await page.getByRole('textbox', { name: 'Title' }).press('Enter')
  await saved(page)
  await second.bringToFront()
  await second.evaluate(() => window.dispatchEvent(new Event('focus')))
  await expect(second.getByRole('textbox', { name: 'Title' })).toHaveValue('Whole Way Home')
  await second.close()
  await page.bringToFront()
  await server.kill()
  await chartText.press('Control+End')
  await chartText.pressSequentially(' C |')
  await goTo(page, 'Lines')
  await page.waitForTimeout(3_000)
  await goTo(page, 'Chart')
  await server.restart()
  await saved(page)
  await page.reload()
  await expect(chartText).toHaveValue('key: G\n| Em7 | Am7 | D7 | Gmaj7 | C |')
  await goTo(page, 'Lines')
  await linesFound(page)
  expect((await symbolsIn(newLine(page))).slice(0, 4)).toEqual(chords)
  expect((await gripsIn(page))[3]).toBe(grips[3])
})
