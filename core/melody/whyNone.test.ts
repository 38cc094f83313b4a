import { parseChart } from '../chart/parseChart'
import { chord } from '../chord/parseChord'
import { leadInStyle } from '../leading/inStyle'
import { midi, parsePitch } from '../pitch/note'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { harmonise } from './harmonise'
import { whyNoNote } from './whyNoHarmony'

const limits = { ...TUNE_LIMITS, frets: [0, 9] as const }
const why = (name: string, within: Partial<typeof TUNE_LIMITS> = {}, names = {}) =>
  whyNoNote(midi(name), name, 'bar 1', { ...limits, ...within }, names)

test('a refusal names the limit that made it', () => {
  expect(why('E5', {}, { frets: 'the highest fret at ease' })).toEqual({
    message: 'E5 in bar 1 needs fret 12 on string 1 (E4); the highest fret at ease is 9.',
    accepted: 'a highest fret of 12 or more, or the melody an octave lower',
  })
  expect(why('D2')!.message).toBe('D2 in bar 1 lies below the lowest open string in use, E2.')
  expect(
    why('E5', { strings: [0, 1, 2, 3, 4] }, { strings: 'the melody is kept off string 1' })!.message,
  ).toMatch(/fret 17 on string 2 \(B3\).* is 9, and the melody is kept off string 1/)
  expect(why('F2', { frets: [5, 9] })!.message).toMatch(
    /no fret from 5 to 9: the nearest is fret 1 on string 6/,
  )
  expect(why('E4')).toBeNull()
})
test('an open string under a capo is where the capo lies', () => {
  const capo = { instrument: { ...TUNE_LIMITS.instrument, capo: 3 } }
  expect(why('F2', capo)!.message).toMatch(/below the lowest open string in use, G2/)
  expect(why('G2', capo)).toBeNull()
})
test('the search for chords under a melody says it so', () => {
  const result = harmonise({
    chart: parseChart('| C |'),
    melody: [{ bar: 1, beat: 1, beats: 4, note: must(parsePitch('E5')) }],
    limits,
    limitNames: { frets: 'the highest fret at ease' },
  })
  expect(result).toMatchObject({
    ok: false,
    fault: {
      message: expect.stringContaining('the highest fret at ease is 9'),
      accepted: expect.stringContaining('12 or more'),
    },
  })
})

test('a drone that nothing can be says which chord is in the way of each', () => {
  const chords = ['Abmaj7', 'A7', 'Bbm7', 'B7'].map(chord)
  const result = leadInStyle({ chords, limits: { ...TUNE_LIMITS, frets: [0, 1] }, style: 'drone', count: 1 })
  expect(result.ok).toBe(false)
  if (!result.ok) {
    expect(result.fault.message).toMatch(/^No drone can be held through these chords: .* with \S+, chord \d/)
    expect(result.fault.accepted).toContain('Held note, bass line')
  }
})

test('one note that cannot be played is left out and said, and the rest of the tune stands', () => {
  const note = (name: string, bar: number) => ({ bar, beat: 1, beats: 4, note: must(parsePitch(name)) })
  const [line] = must(
    harmonise({
      chart: parseChart('| C | F | G7 | C |'),
      melody: [
        note('C5', 1),
        { ...note('A5', 2), beats: 2 },
        { ...note('C5', 2), beat: 3, beats: 2 },
        note('B4', 3),
        note('C5', 4),
      ],
      limits,
      limitNames: { frets: 'the highest fret at ease' },
    }),
  )
  expect(line!.notes.map(({ bar, beat }) => `${bar}:${beat}`)).toEqual(['1:1', '2:3', '3:1', '4:1'])
  expect(line!.leftOut).toMatchObject([
    { bar: 2, message: expect.stringContaining('A5'), accepted: expect.stringContaining('an octave lower') },
  ])
})
