import { firstOf, itemAt } from '../lists'
import fc from 'fast-check'
import { Chord as TonalChord } from 'tonal'
import { chord } from '../chord/parseChord'
import { easiestFingering } from '../neck/fingering'
import { soundAt } from '../neck/instrument'
import { midi, pitchClass } from '../pitch/note'
import { voicingsOf } from './enumerate'
import { familiesOf } from './family'
import { soundsLike } from './fits'
import { DEFAULT_LIMITS, type Limits } from './gripLimits'
import { namesOf } from './possibleNames'
import { whyNone } from './whyNoGrip'
import { requirementOf } from './requirement'

/** A neck of four strings and five frets, small enough to try every combination. */
const SMALL: Limits = {
  ...DEFAULT_LIMITS,
  frets: [0, 5],
  notes: [2, 4],
  instrument: { ...DEFAULT_LIMITS.instrument, tuning: ['D3', 'G3', 'B3', 'E4'].map(midi) },
}
const symbols = [
  'C',
  'Am',
  'G7',
  'Dm7',
  'Fmaj7',
  'Bm7b5',
  'E7b9',
  'Asus4',
  'D9',
  'C6/9',
  'G13',
  'Cdim7',
  'C/E',
  'F/G',
  'A7alt',
  'D5',
]

/** Every combination of frets, filtered by the definition itself. */
function bruteForce(symbol: string, limits: Limits): string[] {
  const target = chord(symbol)
  const { tuning } = limits.instrument
  const per = [
    null,
    ...(limits.open ? [0] : []),
    ...Array.from(
      { length: limits.frets[1] - Math.max(1, limits.frets[0]) + 1 },
      (_, at) => at + Math.max(1, limits.frets[0]),
    ),
  ]
  let grips: (number | null)[][] = [[]]
  for (let string = 0; string < tuning.length; string += 1)
    grips = grips.flatMap((grip) => per.map((fret) => [...grip, fret]))
  const bassClass = pitchClass(target.bass ?? target.root)
  const foreignBass =
    target.bass !== null && !target.tones.some((tone) => pitchClass(tone.note) === bassClass)
  return grips
    .filter((grip) => {
      const midis = grip.flatMap((fret, string) =>
        fret === null ? [] : [soundAt(limits.instrument, string, fret)],
      )
      if (
        midis.length < limits.notes[0] ||
        midis.length > limits.notes[1] ||
        !soundsLike(grip, target, limits)
      )
        return false
      if (limits.bass === 'chord' && foreignBass && midis.filter((one) => one % 12 === bassClass).length > 1)
        return false
      return easiestFingering(grip, limits.instrument, limits.hand) !== null
    })
    .map((grip) => grip.join())
    .sort()
}

describe('enumeration', () => {
  test('is complete: the same grips as trying every combination on a small neck', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...symbols),
        fc.constantFrom('chord', 'root', 'any', 'none' as const),
        fc.boolean(),
        fc.boolean(),
        fc.integer({ min: 60, max: 160 }),
        (symbol, bass, open, barre, reachMm) => {
          const limits: Limits = {
            ...SMALL,
            bass: bass as Limits['bass'],
            open,
            hand: { ...SMALL.hand, barre, reachMm },
          }
          expect(
            voicingsOf(chord(symbol), limits)
              .map((voicing) => voicing.frets.join())
              .sort(),
          ).toEqual(bruteForce(symbol, limits))
        },
      ),
      { numRuns: 60 },
    )
  })
  test('keeps every limit, and no tone is foreign or missing', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...symbols),
        fc.constantFrom('chord', 'any', 'none' as const),
        fc.integer({ min: 1, max: 8 }),
        (symbol, bass, low) => {
          const limits: Limits = {
            ...DEFAULT_LIMITS,
            bass: bass as Limits['bass'],
            frets: [low, low + 4],
            notes: [3, 5],
            open: false,
            range: [midi('G2'), midi('A4')],
          }
          for (const voicing of voicingsOf(chord(symbol), limits)) {
            expect(soundsLike(voicing.frets, chord(symbol), limits)).toBe(true)
            expect(voicing.midis.length).toBeGreaterThanOrEqual(3)
            expect(voicing.midis.length).toBeLessThanOrEqual(5)
            expect(voicing.midis[0]).toBeGreaterThanOrEqual(midi('G2'))
            expect(voicing.midis.at(-1)).toBeLessThanOrEqual(midi('A4'))
            for (const fret of voicing.frets)
              if (fret !== null) {
                expect(fret).toBeGreaterThanOrEqual(low)
                expect(fret).toBeLessThanOrEqual(low + 4)
              }
            expect(voicing.fingering.reachMm).toBeLessThanOrEqual(limits.hand.reachMm)
          }
        },
      ),
      { numRuns: 40 },
    )
  })
  test('a wanted top note is on top, and only asked-for families come', () => {
    const top = midi('E4')
    expect(
      voicingsOf(chord('Cmaj7'), { ...DEFAULT_LIMITS, top }).every((voicing) => voicing.midis.at(-1) === top),
    ).toBe(true)
    const drops = voicingsOf(chord('Cmaj7'), { ...DEFAULT_LIMITS, bass: 'any', families: ['drop 2'] })
    expect(drops.length).toBeGreaterThan(3)
    expect(drops.every((voicing) => voicing.families.includes('drop 2'))).toBe(true)
  })
  test('what may be left out (common practice): the fifth always, the root only when a bass plays it, never third, seventh or a named tension', () => {
    const needs = (symbol: string, bass: Limits['bass']) => {
      const { required } = requirementOf(chord(symbol), { bass, omit: [] })
      return chord(symbol)
        .tones.filter((tone) => required & (1 << pitchClass(tone.note)))
        .map((tone) => tone.degree)
    }
    expect(needs('C7', 'chord')).toEqual(['1', '3', 'b7'])
    expect(needs('C7', 'any')).toEqual(['3', 'b7'])
    expect(needs('C13', 'none')).toEqual(['3', 'b7', '13'])
    expect(needs('Cm11', 'any')).toEqual(['b3', 'b7', '11'])
    expect(needs('C7b9', 'any')).toEqual(['3', 'b7', 'b9'])
    expect(needs('Cm7b5', 'any')).toEqual(['b3', 'b5', 'b7'])
  })
})

describe('families by their definitions (common practice, no source)', () => {
  const family = (notes: string, openAmongFretted = false) =>
    familiesOf({
      notes: notes
        .split(' ')
        .map((pair) => ({ degree: pair.split(':')[0] as '1', midi: midi(itemAt(pair.split(':'), 1)) })),
      openAmongFretted,
    })
  test.each([
    ['1:C4 3:E4 5:G4 7:B4', 'close'],
    ['5:G3 1:C4 3:E4 7:B4', 'drop 2'],
    ['3:E3 1:C4 5:G4 7:B4', 'drop 3'],
    ['1:C3 5:G3 3:E4 7:B4', 'drop 2 and 4'],
    ['1:G2 b7:F3 3:B3', 'shell'],
    ['3:E3 b7:Bb3', 'guide tones'],
    ['1:C3 3:E4', 'tenth'],
    ['1:D3 11:G3 b7:C4', 'quartal'],
    ['1:C4 3:E4 5:G4', 'triad'],
    ['1:C4 9:D4 5:G4', 'cluster'],
  ])('%s is %s', (notes, expected) => expect(family(notes)).toContain(expected))
  test('every seventh chord gives four drop-2 inversions on the inner four strings', () => {
    for (const symbol of ['Cmaj7', 'C7', 'Cm7', 'Cm7b5', 'Cdim7', 'Cm(maj7)']) {
      const grips = voicingsOf(chord(symbol), {
        ...DEFAULT_LIMITS,
        bass: 'any',
        notes: [4, 4],
        strings: [1, 2, 3, 4],
        frets: [1, 15],
        open: false,
        families: ['drop 2'],
        hand: { ...DEFAULT_LIMITS.hand, reachMm: 130 },
      })
      expect(new Set(grips.map((voicing) => firstOf(voicing.strings).degree)).size).toBe(4)
    }
  })
})

describe('names', () => {
  const best = (notes: string) => firstOf(namesOf(notes.split(' ').map(midi))).chord.canonical
  test.each([
    ['C3 E3 G3', 'C'],
    ['E3 G3 C4', 'C/E'],
    ['C3 Eb3 G3 Bb3', 'Cm7'],
    ['B2 F3 A3 D4', 'Bm7b5'],
    ['C3 Bb3 E4 Eb5', 'C7#9'],
  ])('%s is %s', (notes, name) => {
    expect(best(notes)).toBe(name)
  })
  test('a 13 without fifth and ninth is among the names of its notes', () => {
    expect(namesOf(['G2', 'F3', 'B3', 'E4'].map(midi)).map((one) => one.chord.canonical)).toContain('G13')
  })
  test('a grip without its root is named over the root given: F A C E over D is Dm9', () => {
    const [first] = namesOf(['F3', 'A3', 'C4', 'E4'].map(midi), { over: { letter: 1, alter: 0 } })
    expect(first!.chord.canonical).toBe('Dm9')
    expect(first!.rootless).toBe(true)
    expect(first!.degrees).toEqual(['b3', '5', 'b7', '9'])
  })
  test('every name found agrees with a general theory library where that finds one in root position (tonal 6.4.3)', () => {
    for (const symbol of [
      'C',
      'Cm',
      'C7',
      'Cmaj7',
      'Cm7',
      'Cm7b5',
      'Cdim7',
      'C6',
      'Cm6',
      'Csus4',
      'C7sus4',
      'C9',
      'Cmaj9',
      'Cm9',
      'C6/9',
      'C7b9',
      'Caug',
      'C7#5',
    ]) {
      const notes = TonalChord.get(symbol.replace('6/9', '69')).notes
      let floor = 47
      const midis = notes.map((note) => {
        let at = midi(`${note}3`)
        while (at <= floor) at += 12
        floor = at
        return at
      })
      expect(namesOf(midis).map((one) => one.chord.canonical)).toContain(symbol)
      expect(firstOf(namesOf(midis)).chord.root).toEqual(chord(symbol).root)
    }
  })
  test('what is named always sounds: degrees fit the notes', () => {
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.integer({ min: 40, max: 72 }), { minLength: 2, maxLength: 6 }),
        (midis) => {
          const sorted = [...midis].sort((a, b) => a - b)
          for (const { chord: named, degrees, rootless } of namesOf(sorted)) {
            expect(degrees).toHaveLength(sorted.length)
            expect(rootless).toBe(!sorted.some((one) => one % 12 === pitchClass(named.root)))
          }
        },
      ),
      { numRuns: 60 },
    )
  })
})

test('strings that are to ring do, and a limit that leaves nothing says so', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('C', 'G', 'Em', 'Am7', 'D', 'Ab'),
      fc.integer({ min: 1, max: 6 }),
      (symbol, openAtLeast) => {
        const limits = { ...DEFAULT_LIMITS, openAtLeast }
        const grips = voicingsOf(chord(symbol), limits)
        for (const { frets } of grips)
          expect(frets.filter((fret) => fret === 0).length).toBeGreaterThanOrEqual(openAtLeast)
        expect(grips).toHaveLength(
          voicingsOf(chord(symbol), DEFAULT_LIMITS).filter(
            ({ frets }) => frets.filter((fret) => fret === 0).length >= openAtLeast,
          ).length,
        )
        if (grips.length === 0)
          expect(whyNone(chord(symbol), limits).map(({ limit }) => limit)).toContain('openAtLeast')
      },
    ),
    { numRuns: 20 },
  )
})
