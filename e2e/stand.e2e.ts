import { expect, test, haveTune, printed, inSet } from './fixtures'

test('a set: tunes put in, moved by keys and by buttons, played in another key, taken out and put back, printed as one', async ({
  page,
}) => {
  await haveTune(page, 'First Tune', 'key: C\n| C | F | G7 | C |')
  await haveTune(page, 'Second Tune', 'key: F\n| F | Bb | C7 | F |')
  await page.goto('/sets')
  await page.getByRole('textbox', { name: 'Name of a new set' }).fill('Tried Evening')
  await page.getByRole('button', { name: 'New set', exact: true }).click()
  await expect(page.getByRole('heading', { level: 1, name: 'Tried Evening' })).toBeVisible()
  const rows = inSet(page)
  for (const title of ['First Tune', 'Second Tune', 'Halyard Waltz']) {
    // Other tests may have made more tunes than the list shows.
    await page.getByRole('textbox', { name: 'Search the songbook' }).fill(title)
    await page.getByRole('button', { name: 'Search' }).click()
    await page.getByRole('button', { name: title, exact: true }).click()
    await expect(rows.last()).toContainText(title)
  }
  await page.getByRole('button', { name: 'Halyard Waltz earlier' }).click()
  await expect(rows.nth(1)).toContainText('Halyard Waltz')
  const handle = page.getByRole('button', { name: /^Move First Tune/ })
  await handle.focus()
  await page.keyboard.press('Space')
  await expect(handle).toHaveAttribute('aria-pressed', 'true')
  // An arrow counts from the moment at which the rows are measured.
  await expect(page.getByText('First Tune is at place 1.')).toBeAttached()
  await page.keyboard.press('ArrowDown')
  await expect(page.getByText('First Tune is at place 2.')).toBeAttached()
  await page.keyboard.press('Space')
  await expect(rows.nth(1)).toContainText('First Tune')
  await page.reload()
  await expect(rows.nth(1)).toContainText('First Tune')

  await page.getByRole('textbox', { name: 'Key of Second Tune' }).fill('G')
  await page.getByRole('textbox', { name: 'Tempo of Second Tune' }).fill('77')
  await page.getByRole('textbox', { name: 'Tempo of Second Tune' }).press('Enter')
  await page.getByRole('textbox', { name: 'Key of First Tune' }).fill('nokey')
  await page.getByRole('textbox', { name: 'Key of First Tune' }).press('Enter')
  await expect(page.getByRole('alert')).toContainText('a key such as Bb')

  await page.getByRole('button', { name: 'Take First Tune out' }).click()
  await expect(rows).toHaveCount(2)
  await page.getByRole('button', { name: 'Put it back' }).click()
  await expect(rows.nth(1)).toContainText('First Tune')
  await expect(page.getByRole('textbox', { name: 'Tempo of Second Tune' })).toHaveValue('77')

  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'PDF of the set' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Tried Evening.pdf')

  await page.getByRole('link', { name: 'On the stand' }).click()
  await expect(page.getByRole('group', { name: /^Page 1/ })).toBeVisible()
  // To the last tune: in G now, and slow.
  for (let at = 0; at < 2; at += 1) await page.keyboard.press('n')
  await expect(page.getByRole('group', { name: /^Page 1/ })).toContainText('Second Tune')
  await expect(page.getByRole('group', { name: /^Page 1/ })).toContainText(
    'G major · 4/4 · 77 beats a minute',
  )
})

test('the stand needs no network once it is loaded: pages, the next tune, and the tablet turned', async ({
  page,
  context,
}) => {
  await page.setViewportSize({ width: 768, height: 1024 })
  await page.goto('/sets')
  await page.getByRole('link', { name: 'Evening crossing' }).click()
  await page.getByRole('link', { name: 'On the stand' }).click()
  const shown = printed(page)
  await expect(shown).toContainText('Lantern on the Rail')
  await expect(page.getByRole('group', { name: 'Place', exact: true })).not.toContainText('preparing')
  await context.setOffline(true)
  const place = page.getByRole('group', { name: 'Place', exact: true })
  await expect(place).toContainText('1/5 · page 1/')
  await page.keyboard.press('PageDown')
  await expect(place).toContainText('page 2/')
  const box = (await shown.boundingBox())!
  await page.mouse.click(box.x + 20, box.y + 200)
  await expect(place).toContainText('page 1/')
  await page.mouse.click(box.x + box.width - 20, box.y + 200)
  await expect(place).toContainText('page 2/')
  await page.keyboard.press('n')
  await expect(shown).toContainText('Halyard Waltz')
  // Across: the lines are wider, and fewer stand on a page.
  await page.setViewportSize({ width: 1024, height: 768 })
  await expect
    .poll(() =>
      shown.evaluate(
        (svg) =>
          (svg as unknown as SVGSVGElement).viewBox.baseVal.width >
          (svg as unknown as SVGSVGElement).viewBox.baseVal.height,
      ),
    )
    .toBe(true)
  await expect(shown).toContainText('Halyard Waltz')
  // Back from the first page of a tune to the last of the one before.
  await page.keyboard.press('Home')
  await page.keyboard.press('Backspace')
  await expect(place).toContainText(/1\/5 · page (\d+)\/\1/)
  await context.setOffline(false)
})

test('on the stand a chord can be read from two metres, and everything can be pressed with a thumb on a phone', async ({
  page,
}) => {
  const heightOf = (text: string) =>
    page
      .getByRole('group', { name: /^Page \d+ of \d+$/ })
      .locator('text', { hasText: new RegExp(`^${text}$`) })
      .first()
      .evaluate((one) => one.getBoundingClientRect().height)
  await page.setViewportSize({ width: 1024, height: 768 })
  await page.goto('/sets')
  await page.getByRole('link', { name: 'Evening crossing' }).click()
  await page.getByRole('link', { name: 'On the stand' }).click()
  await expect(printed(page)).toContainText('Lantern')
  // A line of type of 48 px is 10 mm on a tablet 20 cm wide; its capitals 7 mm, more than 10
  // minutes of arc at 2 m.
  expect(await heightOf('G')).toBeGreaterThan(48)
  await page.setViewportSize({ width: 390, height: 844 })
  await page.reload()
  await expect(printed(page)).toContainText('Lantern')
  expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  for (const one of await page
    .getByRole('navigation', { name: 'Stand' })
    .locator('button:visible, select, a')
    .all()) {
    const box = (await one.boundingBox())!
    expect(box.height).toBeGreaterThanOrEqual(40)
    expect(box.x + box.width).toBeLessThanOrEqual(390)
  }
})

test('a set plays as one: at the end of a tune the next one begins', async ({ page }) => {
  await haveTune(page, 'Short One', 'key: C\ntempo: 300\n| C |')
  await haveTune(page, 'Short Two', 'key: C\ntempo: 300\n| G7 | C |')
  await page.goto('/sets')
  await page.getByRole('textbox', { name: 'Name of a new set' }).fill('Short Set')
  await page.getByRole('button', { name: 'New set', exact: true }).click()
  const rows = inSet(page)
  for (const title of ['Short One', 'Short Two']) {
    await page.getByRole('button', { name: title, exact: true }).click()
    await expect(rows.last()).toContainText(title)
  }
  await page.getByRole('link', { name: 'On the stand' }).click()
  await expect(printed(page)).toContainText('Short One')
  await page.getByRole('button', { name: 'Play the set' }).click()
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await expect(printed(page)).toContainText('Short Two')
  await expect(page.getByRole('button', { name: 'Stop' })).toBeVisible()
  await expect(page.getByRole('button', { name: 'Play the set' })).toBeVisible()
})

test('a layout that a tune keeps can be chosen on the stand and for the sheets of a set; other tunes stand as usual', async ({
  page,
}) => {
  await haveTune(page, 'Own Sheet', 'key: C\n[A] | C | F | G7 | C |')
  await page.getByRole('navigation', { name: 'Steps' }).getByRole('link', { name: 'Sheet' }).click()
  await page.getByRole('checkbox', { name: 'Numerals' }).check()
  await page.getByLabel('Keep this layout as').fill('Mine')
  await page.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(page.getByRole('combobox', { name: 'Layout' })).toContainText('Mine')
  await page.getByRole('link', { name: 'Stand' }).click()
  const shown = page.getByRole('combobox', { name: 'What is shown' })
  await shown.selectOption('Mine')
  const stood = page.getByRole('group', { name: /^Page 1/ })
  await expect(stood).toContainText('V7')
  // It is kept in this browser, and a set whose tunes keep none of that name is shown as usual.
  await page.reload()
  await expect(shown).toHaveValue('own:Mine')
  await page.goto('/sets')
  await page.getByRole('textbox', { name: 'Name of a new set' }).fill('With Mine')
  await page.getByRole('button', { name: 'New set', exact: true }).click()
  for (const title of ['Own Sheet', 'Halyard Waltz']) {
    const search = page.getByRole('textbox', { name: 'Search the songbook' })
    await search.fill(title)
    await search.press('Enter')
    await page.getByRole('button', { name: title, exact: true }).click()
    await expect(inSet(page).last()).toContainText(title)
  }
  await page.getByLabel('Sheets').selectOption('Mine')
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'PDF of the set' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('With Mine.pdf')
})
