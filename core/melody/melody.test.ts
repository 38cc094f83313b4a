import { itemAt, lastOf } from '../lists'
import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { chord } from '../chord/parseChord'
import { easiestFingering } from '../neck/fingering'
import { midi, midiOf, modulo, noteName, parsePitch, pitchClass } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { must } from '../result'
import { TUNE_LIMITS, type Limits } from '../voicing/gripLimits'
import { harmonise } from './harmonise'
import { harmonisedSixthDiminished, sixthDiminishedScale } from './sixthDiminished'

const LIMITS: Limits = { ...TUNE_LIMITS, frets: [0, 17] }
const TEXT = 'key: C\n| Cmaj7 | A7 | Dm7 | G7 |'
const note = (bar: number, beat: number, beats: number, name: string): MelodyNote => ({
  bar,
  beat,
  beats,
  note: must(parsePitch(name)),
})
const chart = parseChart(TEXT)

describe('a melody harmonised', () => {
  const anyNote = fc.record({
    bar: fc.integer({ min: 1, max: 4 }),
    beat: fc.constantFrom(1, 2, 2.5, 3, 4),
    pitch: fc.constantFrom('C4', 'E4', 'G4', 'A4', 'B4', 'C5', 'D5', 'E5', 'Bb4', 'F#4'),
  })
  test('the melody is the highest note of every grip, each note gets one, and a hand holds them all', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(anyNote, {
          minLength: 1,
          maxLength: 7,
          selector: ({ bar, beat }) => `${bar}:${beat}`,
        }),
        (notes) => {
          const melody = notes.map(({ bar, beat, pitch }) => note(bar, beat, 0.5, pitch))
          const [line] = must(harmonise({ chart, melody, limits: LIMITS }))
          expect(line!.notes).toHaveLength(melody.length)
          for (const { note: sung, voicing, under } of line!.notes) {
            expect(voicing.midis.at(-1)).toBe(midiOf(sung!.note))
            expect(easiestFingering(voicing.frets, LIMITS.instrument, LIMITS.hand)).not.toBeNull()
            if (under === 'single') expect(voicing.midis).toHaveLength(1)
          }
        },
      ),
      { numRuns: 25 },
    )
  })
  test('a note that moves over a held grip leaves the other strings as they are', () => {
    const [line] = must(
      harmonise({
        chart,
        melody: [note(1, 1, 1, 'E4'), note(1, 2, 1, 'F4'), note(1, 3, 2, 'G4')],
        limits: LIMITS,
      }),
    )
    const [first, ...rest] = line!.notes
    expect(first!.under).toBe('chord')
    for (const { under, voicing } of rest) {
      if (under !== 'held') continue
      const lower = (one: typeof voicing) => one.midis.slice(0, -1)
      expect(lower(voicing)).toEqual(lower(first!.voicing))
    }
    expect(rest.some(({ under }) => under === 'held')).toBe(true)
  })
  test('a note where nobody plays stands alone; one that no string has says where', () => {
    const silent = parseChart('| N.C. | G7 |')
    const [line] = must(
      harmonise({ chart: silent, melody: [note(1, 1, 4, 'D4'), note(2, 1, 4, 'B4')], limits: LIMITS }),
    )
    expect(line!.notes.map(({ under }) => under)).toEqual(['single', 'chord'])
    expect(harmonise({ chart, melody: [note(2, 1, 4, 'C2')], limits: LIMITS })).toMatchObject({
      ok: false,
      fault: { code: 'no-grip', message: expect.stringContaining('C2 in bar 2') },
    })
    expect(harmonise({ chart, melody: [note(9, 1, 4, 'C4')], limits: LIMITS })).toMatchObject({
      ok: false,
      fault: { code: 'no-melody' },
    })
  })
  test('several ways, the cheapest first', () => {
    const lines = must(
      harmonise({ chart, melody: [note(1, 1, 4, 'E4'), note(3, 1, 4, 'F4')], limits: LIMITS, count: 3 }),
    )
    expect(lines).toHaveLength(3)
    expect(lines.map(({ cost }) => cost)).toEqual(lines.map(({ cost }) => cost).sort((a, b) => a - b))
  })
})

describe('the sixth-diminished scale, from its definition, in all keys', () => {
  const roots = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
  test.each(roots)(
    '%s: major is the scale with b6, minor the melodic minor with b6; sixth chords and diminished sevenths in turn',
    (root) => {
      const above = (symbol: string) =>
        must(sixthDiminishedScale(chord(symbol))).map((step) =>
          modulo(pitchClass(step.note) - pitchClass(chord(root).root), 12),
        )
      expect(above(root)).toEqual([0, 2, 4, 5, 7, 8, 9, 11])
      expect(above(`${root}m`)).toEqual([0, 2, 3, 5, 7, 8, 9, 11])
      for (const symbol of [`${root}6`, `${root}m6`])
        must(sixthDiminishedScale(chord(symbol))).forEach((step, at) => {
          const sixth = symbol.includes('m') ? 'm6' : '6'
          expect(step.chord.tones.map((tone) => pitchClass(tone.note))).toContain(pitchClass(step.note))
          expect(step.chord.suffix).toBe(at % 2 === 1 ? 'dim7' : sixth)
        })
    },
  )
  test('each step has a grip with its note on top, going up', () => {
    for (const symbol of ['C6', 'Am6', 'F', 'Gm']) {
      const { steps, line } = must(harmonisedSixthDiminished(chord(symbol), LIMITS))
      const tops = line.voicings.map(({ midis }) => lastOf(midis))
      expect(tops).toEqual([...tops].sort((a, b) => a - b))
      expect(new Set(tops).size).toBe(8)
      expect(tops.map((one) => one % 12)).toEqual(steps.map((step) => pitchClass(step.note)))
    }
  })
  test('a chord that has none says what is accepted', () => {
    expect(sixthDiminishedScale(chord('G7'))).toMatchObject({
      ok: false,
      fault: { accepted: 'a major or minor chord such as C6 or Am6' },
    })
    expect(noteName(itemAt(must(sixthDiminishedScale(chord('Eb'))), 1).note)).toBe('F')
    expect(midi('C4')).toBe(60)
  })
})
