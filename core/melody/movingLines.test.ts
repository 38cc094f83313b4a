import { itemAt } from '../lists'
import fc from 'fast-check'
import { homeKey } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { scaleNotes } from '../pitch/key'
import { midi, midiOf, modulo, parsePitch, pitchClass } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { must } from '../result'
import { tuneLimits, type Limits } from '../voicing/gripLimits'
import { Clock, sungIn } from './clock'
import { harmonise } from './harmonise'
import { ringingLayers } from './ringing'
import { lowerLine } from './lowerLine'

const LIMITS: Limits = { ...tuneLimits(0, 'any'), frets: [0, 17] }
const note = (bar: number, beat: number, beats: number, name: string): MelodyNote => ({
  bar,
  beat,
  beats,
  note: must(parsePitch(name)),
})
const symbols = fc.constantFrom('C', 'Am', 'F', 'G7', 'Dm7', 'Em7', 'G', 'Cmaj7', 'F6', 'C/E', 'Bm7b5')
const tune = fc
  .record({
    chords: fc.array(symbols, { minLength: 3, maxLength: 8 }),
    notes: fc.array(fc.constantFrom('E4', 'F4', 'G4', 'A4', 'B4', 'C5', 'D5', 'E5'), {
      minLength: 8,
      maxLength: 8,
    }),
  })
  .map(({ chords, notes }) => ({
    chart: parseChart(`key: C\n| ${chords.join(' | ')} |`),
    melody: chords.flatMap((_, at) => [
      note(at + 1, 1, 2, itemAt(notes, at)),
      note(at + 1, 3, 2, itemAt(notes, 7 - at)),
    ]),
  }))

/**
 * Rules of the second and fourth species of counterpoint: Fux, Gradus ad Parnassum, from memory.
 */
describe('the lower line keeps the rules of the species', () => {
  const soundsOf = (line: ReturnType<typeof lowerLine>, at: number) =>
    itemAt(line, at).chord.tones.map((tone) => pitchClass(tone.note))
  test('a suspension is prepared by a tone of the chord before, held over, strange to its chord, and falls a step to a tone of it', () => {
    let seen = 0
    fc.assert(
      fc.property(tune, ({ chart, melody }) => {
        const line = lowerLine({ chart, melody, limits: LIMITS })
        line.forEach((one, at) => {
          if (!one.kind.startsWith('suspension')) return
          seen += 1
          const [before, after] = [itemAt(line, at - 1), itemAt(line, at + 1)]
          expect([before.midi, before.to]).toEqual([one.midi, one.from])
          expect(soundsOf(line, at - 1)).toContain(one.midi % 12)
          expect(soundsOf(line, at)).not.toContain(one.midi % 12)
          expect(after.kind).toBe('resolution')
          expect([1, 2]).toContain(one.midi - after.midi)
          const bass = pitchClass(one.chord.bass ?? one.chord.root)
          const figure = { 'suspension 4-3': [3, 4], 'suspension 7-6': [8, 9], 'suspension 9-8': [0] }[
            one.kind as 'suspension 4-3'
          ]!
          expect(figure).toContain(modulo(after.midi - bass, 12))
        })
      }),
      { numRuns: 60 },
    )
    expect(seen).toBeGreaterThan(5)
  })
  test('a passing note is weak, of the scale, and goes on by step the way it came', () => {
    let seen = 0
    fc.assert(
      fc.property(tune, ({ chart, melody }) => {
        const sounds = scaleNotes(homeKey(chart)).map(pitchClass)
        const line = lowerLine({ chart, melody, limits: LIMITS })
        line.forEach((one, at) => {
          if (one.kind !== 'passing note') return
          seen += 1
          const [before, after] = [itemAt(line, at - 1), itemAt(line, at + 1)]
          expect(one.from % 4).toBeGreaterThanOrEqual(2)
          expect(sounds).toContain(one.midi % 12)
          const [came, goes] = [one.midi - before.midi, after.midi - one.midi]
          expect(Math.sign(came)).toBe(Math.sign(goes))
          for (const step of [came, goes]) expect([1, 2]).toContain(Math.abs(step))
        })
      }),
      { numRuns: 60 },
    )
    expect(seen).toBeGreaterThan(5)
  })
  test('it stays under the melody, fills the time of the chords, and prefers contrary motion', () => {
    let [contrary, similar] = [0, 0]
    fc.assert(
      fc.property(tune, ({ chart, melody }) => {
        const line = lowerLine({ chart, melody, limits: LIMITS })
        const sung = sungIn(new Clock(chart), melody)
        expect(line.reduce((sum, { from, to }) => sum + to - from, 0)).toBeCloseTo(chart.bars.length * 4)
        for (const { from, to, midi: low } of line)
          for (const one of sung) if (one.from < to && one.to > from) expect(one.midi).toBeGreaterThan(low)
        for (let bar = 1; bar < chart.bars.length; bar += 1) {
          const at = (time: number) => line.findLast((one) => one.from <= time)!.midi
          const [lower, upper] = [
            at(bar * 4) - at(bar * 4 - 4),
            sung.findLast((one) => one.from <= bar * 4)!.midi -
              sung.findLast((one) => one.from <= bar * 4 - 4)!.midi,
          ]
          if (lower * upper < 0) contrary += 1
          if (lower * upper > 0) similar += 1
        }
      }),
      { numRuns: 80 },
    )
    expect(contrary).toBeGreaterThan(similar)
  })
})

describe('on the neck', () => {
  test('the worked case: B is held over C as a 4-3 of F would be; G over D falls to F sharp', () => {
    const chart = parseChart('key: G\n| G | D | G | G |')
    const line = lowerLine({
      chart,
      melody: [note(1, 1, 4, 'B4'), note(2, 1, 4, 'D5'), note(3, 1, 4, 'B4'), note(4, 1, 4, 'G4')],
      limits: LIMITS,
    })
    const held = line.findIndex(({ kind }) => kind === 'suspension 4-3')
    expect([line[held]?.midi, line[held + 1]?.midi].map((one) => one! % 12)).toEqual([
      midi('G3') % 12,
      midi('F#3') % 12,
    ])
  })
  test('every melody note is there and highest, notes that sound on stay on their string', () => {
    fc.assert(
      fc.property(tune, ({ chart, melody }) => {
        const [line] = must(harmonise({ chart, melody, limits: LIMITS, texture: 'two lines' }))
        for (const one of melody) expect(line!.notes.some(({ note: sung }) => sung === one)).toBe(true)
        for (const { note: sung, voicing } of line!.notes)
          if (sung) expect(voicing.midis.at(-1)).toBe(midiOf(sung.note))
        const { upper } = ringingLayers(chart, line!.notes)
        expect(upper).toHaveLength(melody.length)
        upper.forEach(({ from, to }, at) => {
          expect(from).toBe((itemAt(melody, at).bar - 1) * 4 + itemAt(melody, at).beat - 1)
          expect(to - from).toBe(itemAt(melody, at).beats)
        })
      }),
      { numRuns: 30 },
    )
  })
  test('several ways differ, and a melody that lies too low says where', () => {
    const chart = parseChart('| C | Am | F | G7 |')
    const melody = [note(1, 1, 4, 'E4'), note(2, 1, 4, 'C5'), note(3, 1, 4, 'A4'), note(4, 1, 4, 'B4')]
    const lines = must(harmonise({ chart, melody, limits: LIMITS, texture: 'two lines', count: 3 }))
    expect(
      new Set(lines.map(({ notes }) => notes.map(({ voicing }) => voicing.midis.join()).join(' '))).size,
    ).toBe(lines.length)
    expect(lines.length).toBeGreaterThan(1)
    expect(
      harmonise({ chart, melody: [note(2, 1, 4, 'C2')], limits: LIMITS, texture: 'two lines' }),
    ).toMatchObject({ ok: false, fault: { message: expect.stringContaining('C2 in bar 2') } })
  })
})
