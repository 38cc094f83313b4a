import { readFileSync } from 'node:fs'
import type { Page } from '@playwright/test'
import { expect, goTo, linesFound, saved, test, haveTune, withoutCountIn } from './fixtures'

/** 16-bit mono samples of the sound file that the page saves. */
async function heard(page: Page): Promise<{ rate: number; samples: Float64Array }> {
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as sound file' }).click(),
  ])
  const bytes = readFileSync((await download.path())!)
  const data = bytes.subarray(44)
  return {
    rate: bytes.readUInt32LE(24),
    samples: Float64Array.from({ length: data.length / 2 }, (_, at) => data.readInt16LE(at * 2) / 32768),
  }
}

/**
 * When something begins to sound, in seconds: where the level of a quarter of a ms rises over many
 * times that of the 20 ms before.
 */
function onsets({ rate, samples }: { rate: number; samples: Float64Array }): number[] {
  const step = Math.round(rate / 4000)
  const seconds = step / rate
  const levels = Array.from({ length: Math.floor(samples.length / step) }, (_, at) =>
    samples.subarray(at * step, (at + 1) * step).reduce((most, one) => Math.max(most, Math.abs(one)), 0),
  )
  const found: number[] = []
  for (let at = 0; at < levels.length; at += 1) {
    const before = Math.max(0.0005, ...levels.slice(Math.max(0, at - 80), at))
    const waits = found.length === 0 || at * seconds - found.at(-1)! > 0.05
    if (levels[at]! > 0.004 && levels[at]! > 4 * before && waits) found.push(at * seconds)
  }
  return found
}

const word = (page: Page, name: string) =>
  page.getByRole('region', { name: 'Controls' }).getByRole('button', { name: new RegExp(`^${name} `) })
const figure = (page: Page, name: string) =>
  page.getByRole('complementary').getByRole('button', { name: new RegExp(`^${name}`) })
const hits = (page: Page) =>
  page.getByRole('region', { name: 'Music' }).getByRole('button', { name: /^bar \d+, (beat|the)/ })

test('a figure is tried by keys, kept, and heard where it stands: onsets within 3 ms, the swing as set within 0.03', async ({
  page,
}) => {
  await haveTune(page, 'In Swing', 'tempo: 120\n| C | F |', 'Lines')
  await linesFound(page)
  await goTo(page, 'Rhythm')
  await page.locator('body').press('ArrowDown')
  await expect(page.getByText('is tried')).toBeVisible()
  await page.locator('body').press('Escape')
  await expect(page.getByText('is tried')).toHaveCount(0)
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await figure(page, 'rest and off-beat').click()
  await page.locator('body').press('Enter')
  await saved(page)
  await expect(word(page, 'Figure')).toContainText('rest and off-beat')
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await word(page, 'Feel').click()
  await page.getByRole('button', { name: 'Shuffle' }).click()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'New', exact: true }).click()
  await withoutCountIn(page)
  const shuffled = onsets(await heard(page))
  // Off the second and the fourth beat, at two to one: 1 2/3 and 3 2/3 beats of half a second, in
  // both bars.
  const expected = [1, 3, 5, 7].map((beat) => (beat + 2 / 3) / 2)
  expect(shuffled).toHaveLength(4)
  for (const [at, time] of shuffled.entries())
    expect(Math.abs(time - expected[at]!)).toBeLessThanOrEqual(0.003)
  const place = (shuffled[0]! * 2) % 1
  expect(Math.abs(place / (1 - place) - 2)).toBeLessThan(0.03)
})

test('hits by hand: moved, accented, put in, left out, given back, each undone; a section rests', async ({
  page,
}) => {
  await haveTune(page, 'By Hand', 'tempo: 100\n[A] | C | F | [B] | G | C |', 'Lines')
  await linesFound(page)
  await goTo(page, 'Rhythm')
  await figure(page, 'half notes').click()
  await page.locator('body').press('Enter')
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(hits(page)).toHaveCount(8)
  await hits(page).nth(1).click()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(hits(page).nth(1)).toHaveAccessibleName(/^bar 1, the “and” of 3/)
  await page.keyboard.press('a')
  await expect(hits(page).nth(1)).toHaveAccessibleName(/accent/)
  await page.keyboard.press('i')
  await expect(hits(page)).toHaveCount(9)
  await page.keyboard.press('Delete')
  await expect(hits(page)).toHaveCount(8)
  await saved(page)
  await page.reload()
  await expect(hits(page).nth(1)).toHaveAccessibleName(/^bar 1, the “and” of 3.*accent.*by hand/)
  for (let step = 0; step < 4; step += 1) await page.keyboard.press('Control+z')
  await expect(hits(page).nth(1)).toHaveAccessibleName(/^bar 1, beat 3,/)
  // Pulled along by a beat and a half with the mouse.
  const box = (await hits(page).nth(1).boundingBox())!
  const next = (await hits(page).nth(2).boundingBox())!
  await page.mouse.move(box.x + 8, box.y + 20)
  await page.mouse.down()
  await page.mouse.move(box.x + 8 + ((next.x - box.x) * 3) / 4, box.y + 20, { steps: 4 })
  await page.mouse.up()
  await expect(hits(page).nth(1)).toHaveAccessibleName(/^bar 1, the “and” of 4/)
  await page.keyboard.press('Control+z')
  await expect(hits(page).nth(1)).toHaveAccessibleName(/^bar 1, beat 3,/)
  // A slider is one step of undo, however far it is pulled.
  await word(page, 'Space').click()
  const thumb = await page.getByRole('slider', { name: 'Density' }).evaluate((input) => {
    const box = input.closest('.MuiSlider-root')!.getBoundingClientRect()
    return { left: box.left, right: box.right, y: (box.top + box.bottom) / 2 }
  })
  await page.mouse.move(thumb.right, thumb.y)
  await page.mouse.down()
  await page.mouse.move((thumb.left + thumb.right) / 2, thumb.y, { steps: 12 })
  await page.mouse.up()
  await expect(word(page, 'Space')).toContainText('50 of 100 hits')
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(word(page, 'Space')).toContainText('every hit')
  await word(page, 'Figure').click()
  await page.getByRole('combobox', { name: 'Section B' }).click()
  await page.getByRole('option', { name: 'the guitar rests' }).click()
  await page.keyboard.press('Escape')
  await expect(hits(page)).toHaveCount(4)
})

test('the band: bass and brushes sound with the guitar or without it, below full scale; what the hand needs is said and helped', async ({
  page,
}) => {
  await haveTune(page, 'Full Band', 'tempo: 200\n| C F | G7 C | F Bb | C G7 |', 'Lines')
  await linesFound(page)
  await goTo(page, 'Rhythm')
  await figure(page, 'big quarters').click()
  await page.locator('body').press('Enter')
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await word(page, 'Band').click()
  await page.getByRole('combobox', { name: 'Bass', exact: true }).click()
  await page.getByRole('option', { name: 'walking' }).click()
  await page.getByRole('combobox', { name: 'Time', exact: true }).click()
  await page.getByRole('option', { name: 'brushes' }).click()
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'New', exact: true }).click()
  await withoutCountIn(page)
  const loudest = ({ samples }: { samples: Float64Array }) =>
    samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0)
  const tutti = await heard(page)
  expect(loudest(tutti)).toBeGreaterThan(0.2)
  expect(loudest(tutti)).toBeLessThan(1)
  await word(page, 'Band').click()
  await page.getByRole('group', { name: 'Band' }).getByRole('button', { name: 'Guitar: Heard' }).click()
  await page.keyboard.press('Escape')
  await saved(page)
  const without = await heard(page)
  expect(loudest(without)).toBeLessThan(loudest(tutti))
  expect(loudest(without)).toBeGreaterThan(0.02)
  await expect(word(page, 'Hand')).toContainText(/at ease to \d+/)
  const ease = async () => Number(/at ease to (\d+)/.exec((await word(page, 'Hand').textContent())!)![1])
  const before = await ease()
  await page.locator('body').press('h')
  await saved(page)
  await expect.poll(ease).toBeGreaterThanOrEqual(before)
})

test('a figure is tapped in on one key', async ({ page }) => {
  await haveTune(page, 'Tapped', 'tempo: 80\n| C | F |', 'Lines')
  await linesFound(page)
  await goTo(page, 'Rhythm')
  await page.locator('body').press('t')
  await expect(page.getByText('one bar is counted in')).toBeVisible()
  // Tapped until it is heard: nothing is while the bar is counted in.
  const listening = page.getByRole('status').filter({ hasText: 'Tap on' })
  await expect(async () => {
    await page.keyboard.press(' ')
    await expect(listening).toContainText(/Heard on \d/, { timeout: 200 })
  }).toPass()
  await page.keyboard.press(' ')
  await expect(word(page, 'Figure')).toContainText('your own')
  await saved(page)
  expect(await hits(page).count()).toBeGreaterThanOrEqual(1)
})
