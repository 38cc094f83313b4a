import { fingersHeld, formsHeld, linesHeld, melodiesHeld, type Held } from '../../fit/preferred'

/**
 * What players prefer, by its own measure (common practice, no source); as many cases again are
 * kept back to judge by.
 */
const share = ({ held, of }: Held): number => held / of

test('three of the first six grips of a chord are usual forms for nine chords in ten', () =>
  expect(share(formsHeld())).toBeGreaterThanOrEqual(0.9))
test('a fingering that is taught comes first for nine grips in ten', () =>
  expect(share(fingersHeld())).toBeGreaterThanOrEqual(0.9))
test('lines that are preferred are found, half of one or more in one of the first five, in 85 of 100', () => {
  const { found, notNearer } = linesHeld()
  expect(share(found)).toBeGreaterThanOrEqual(0.85)
  expect(share(notNearer)).toBeGreaterThanOrEqual(0.85)
})
test('chord melodies that are preferred are found, half of what is struck in one of five, in three of four', () => {
  const { found, notNearer } = melodiesHeld()
  expect(share(found)).toBeGreaterThanOrEqual(0.76)
  expect(share(notNearer)).toBeGreaterThanOrEqual(0.9)
})
