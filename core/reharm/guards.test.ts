import { firstOf, itemAt, lastOf, theOne } from '../lists'
import fc from 'fast-check'
import { analyse } from '../analysis/analyse'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { arrange } from '../leading/arrange'
import { parsePitch, pitchClass } from '../pitch/note'
import { chord } from '../chord/parseChord'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { guardAgainst, guardedPlaces } from './guards'
import { reharmonise } from './reharmonise'
import { spotsOf } from './spot'
import { heardOver, type MelodyNote } from './melodyFit'

const chordsOf = (text: string) =>
  slotsOf(parseChart(text)).flatMap(({ symbol, bar, beat, beats }) =>
    symbol?.kind === 'chord' ? [{ chord: symbol.chord, bar, beat, beats }] : [],
  )
const rootOf = ({ chord }: ReturnType<typeof chordsOf>[number]) => pitchClass(chord.root)

const tune = fc
  .tuple(
    fc.constantFrom('C', 'F', 'Bb', 'A'),
    fc.array(fc.constantFrom(2, 5, 9, 4, 7), { minLength: 3, maxLength: 10 }),
  )
  .map(([key, steps]) => {
    const tonic = pitchClass(analyse(parseChart(`| ${key} |`)).key.tonic)
    const names = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
    // A major triad on the fourth step, the dominant on the fifth.
    const PLAIN_ON: Record<number, string> = { 5: '', 7: '7' }
    const on = (step: number, suffix: string) => itemAt(names, (tonic + step) % 12) + suffix
    return `key: ${key}\n| ${[key, ...steps.map((step) => on(step, PLAIN_ON[step] ?? 'm7')), on(7, '7'), key].join(' | ')} |`
  })

describe('guards keep a tune recognisable (common practice, no source)', () => {
  test('it begins and ends where the tune does, by a way home, whatever the distance', () => {
    fc.assert(
      fc.property(tune, fc.constantFrom(0.2, 0.5, 0.9), (text, distance) => {
        const plain = chordsOf(text)
        for (const { text: result } of reharmonise(text, { distance, count: 3 })) {
          const now = chordsOf(result)
          expect([rootOf(firstOf(now)), rootOf(lastOf(now))]).toEqual([
            rootOf(firstOf(plain)),
            rootOf(lastOf(plain)),
          ])
          const home = rootOf(lastOf(now))
          const before = now.findLast((one) => rootOf(one) !== home)!
          // V, bII, bVII, IV or iv, vii° and the other diminished sevenths and augmented triads of
          // the V.
          expect([7, 1, 10, 5, 11, 2, 8, 3]).toContain((rootOf(before) - home + 12) % 12)
        }
      }),
      { numRuns: 7 },
    )
  })
  test('no chord stands where two moved', () => {
    fc.assert(
      fc.property(tune, fc.constantFrom(0.3, 0.7), (text, distance) => {
        const plain = chordsOf(text)
        const under = (at: { bar: number; beat: number }) =>
          plain.findLast((one) => one.bar < at.bar || (one.bar === at.bar && one.beat <= at.beat + 1e-6))!
        for (const { text: result } of reharmonise(text, { distance, count: 2 })) {
          const now = chordsOf(result)
          now.slice(1).forEach((one, at) => {
            const [a, b] = [under(itemAt(now, at)), under(one)]
            if (
              a !== b &&
              rootOf(a) !== rootOf(b) &&
              (itemAt(now, at).chord.canonical !== a.chord.canonical ||
                one.chord.canonical !== b.chord.canonical)
            )
              expect(itemAt(now, at).chord.canonical).not.toBe(one.chord.canonical)
          })
        }
      }),
      { numRuns: 7 },
    )
  })
  test('a blues keeps its IV in bar 5; a written bass stays; both only while the guard is on', () => {
    const blues = 'key: F\n| F7 | Bb7 | F7 | F7 | Bb7 | Bb7 | F7 | D7 | Gm7 | C7 | F7 | C7 |'
    for (const distance of [0.4, 0.8])
      for (const { text } of reharmonise(blues, { distance, count: 3 }))
        expect(rootOf(theOne(chordsOf(text), ({ bar }) => bar === 5))).toBe(10)
    const walk = 'key: C\n| C | C/B | Am | Am/G | F | G7 | C |'
    for (const { text } of reharmonise(walk, { distance: 0.6, count: 3 })) {
      const bass = (bar: number) => {
        const { chord } = theOne(chordsOf(text), (one) => one.bar === bar)
        return pitchClass(chord.bass ?? chord.root)
      }
      expect([bass(2), bass(4)]).toEqual([11, 7])
    }
    const freed = reharmonise(walk, {
      distance: 0.9,
      count: 4,
      guards: { 'written bass': false, form: false, home: false },
    })
    expect(
      freed.some(({ text }) =>
        chordsOf(text)
          .filter(({ bar }) => bar === 2 || bar === 4)
          .some(({ chord }) => chord.bass === null),
      ),
    ).toBe(true)
  })
  test('a melody note is checked against every chord that sounds under any part of it', () => {
    const text = 'key: C\n| Dm7 | G7 | Cmaj7 | Am7 | Dm7 | G7 | Cmaj7 |'
    const notes = fc.array(fc.constantFrom('C5', 'D5', 'E5', 'G4', 'A4', 'B4'), {
      minLength: 3,
      maxLength: 3,
    })
    fc.assert(
      fc.property(notes, fc.constantFrom(0.3, 0.7), ([a, b, c], distance) => {
        // Held over the bar line, where other chords enter under them.
        const melody: MelodyNote[] = [
          [a!, 1],
          [b!, 3],
          [c!, 5],
        ].map(([note, bar]) => ({
          bar: bar as number,
          beat: 3,
          beats: 6,
          note: must(parsePitch(note as string)),
        }))
        const sour = (chart: string) =>
          chordsOf(chart).flatMap(({ chord, bar, beat, beats }) =>
            melody.filter((one) => {
              const [from, begins] = [bar * 4 + beat, one.bar * 4 + one.beat]
              return (
                begins < from + beats &&
                begins + one.beats > from &&
                heardOver(pitchClass(one.note), chord) === 'sour'
              )
            }),
          ).length
        for (const { text: result } of reharmonise(text, { distance, count: 2, melody }))
          expect(sour(result)).toBeLessThanOrEqual(sour(text))
      }),
      { numRuns: 7 },
    )
  })
})

describe('distance and direction', () => {
  const TUNE = 'key: C\n| C | Am | Dm | G | C | Am | F | G | Em | Am | Dm | G | C | F | G | C |'
  test('near home it is colour, on half of the triads and more, and few have moved', () => {
    for (const { text, distance, reached, changes } of reharmonise(TUNE, { distance: 0.2, count: 3 })) {
      expect([Math.abs(distance - 0.2) < 0.1, reached]).toEqual([true, true])
      expect(chordsOf(text).filter(({ chord }) => chord.tones.length > 3).length).toBeGreaterThanOrEqual(7)
      expect(
        changes.filter(({ intent }) => intent === 'swap' || intent === 'borrow').length,
      ).toBeLessThanOrEqual(3)
    }
  })
  test('what comes back is within a tenth, or says that it is not; in arrangements too', () => {
    for (const distance of [0.1, 0.4, 0.8, 1])
      for (const one of reharmonise(TUNE, { distance, count: 2 }))
        expect(Math.abs(one.distance - distance) <= 0.1).toBe(one.reached)
    for (const distance of [0.4])
      for (const one of must(
        arrange({
          text: 'key: C\n| C | Am | Dm | G | Em | A7 | Dm | G | C |',
          distance,
          limits: TUNE_LIMITS,
          count: 1,
        }),
      ))
        expect(Math.abs(one.distance - distance) <= 0.1).toBe(one.reached)
  })
  test('the ways differ in kind and say how', () => {
    const ways = reharmonise(TUNE, { distance: 0.6, count: 3 }).map(({ says }) => says)
    expect(new Set(ways).size).toBe(3)
    expect(ways.join(' ')).toMatch(/the bass walks|a chain of dominants/)
  })
  test('what is put in comes on beats of the metre and does not hang over a bar line', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('3/4', '4/4', '5/4'),
        fc.constantFrom(0.5, 0.9),
        fc.nat(20),
        (meter, distance, seed) => {
          const text = `meter: ${meter}\n${TUNE}`
          for (const { text: result } of reharmonise(text, { distance, seed, count: 2 }))
            for (const { beat, beats } of chordsOf(result))
              expect([Number.isInteger(beat), Number.isInteger(beats)]).toEqual([true, true])
        },
      ),
      { numRuns: 6 },
    )
  })
})

test('a bass that is written inside what a change takes the place of stays too', () => {
  const text = 'key: C\n| C | Dm7 | G7/B | C | F | Dm7 | G7 | C |'
  const chart = parseChart(text)
  const analysis = analyse(chart)
  const spots = spotsOf(chart, analysis)
  const places = guardedPlaces(chart, analysis, spots)
  // The dominant takes the time of its ii: where its third is written below it, and where it is
  // not.
  const withoutTwo = (index: number) => ({
    index,
    span: 2,
    puts: [{ chord: chord('G7'), beats: 8 }],
  })
  expect(guardAgainst(withoutTwo(1), spots, places, {})).toBe('written bass')
  expect(guardAgainst(withoutTwo(5), spots, places, {})).toBeNull()
  expect(guardAgainst(withoutTwo(1), spots, places, { 'written bass': false })).toBeNull()
  for (const distance of [0.3, 0.6, 0.9])
    for (const { text: result } of reharmonise(text, { distance, count: 4 }))
      expect(firstOf(itemAt(parseChart(result).bars, 2).slots).text).toMatch(/^B|\/B/)
})
