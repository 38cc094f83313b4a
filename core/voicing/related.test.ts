import { firstOf, itemAt, theOne } from '../lists'
import fc from 'fast-check'
import { Chord as TonalChord } from 'tonal'
import { chord } from '../chord/parseChord'
import { ANSWERS, reachFrom, STRETCHES } from '../neck/calibration'
import { fingeringsOf } from '../neck/fingering'
import { DEFAULT_HAND } from '../neck/hand'
import { reachMm, STANDARD_GUITAR } from '../neck/instrument'
import { INSTRUMENTS, instrumentOf } from '../neck/instruments'
import { parseKey } from '../pitch/key'
import { midi, noteName } from '../pitch/note'
import { must } from '../result'
import { mudIn, soursIn } from './clashes'
import { easierThan } from './ease'
import { voicingsOf } from './enumerate'
import { soundsLike } from './fits'
import { DEFAULT_LIMITS, type Limits } from './gripLimits'
import { chordsOfKey, harmonisedScale, inversionsOf, isMovable, onOtherStrings, stepsOf } from './related'
import { voicingOf } from './voicing'
import { whyNone } from './whyNoGrip'

const LIMITS: Limits = { ...DEFAULT_LIMITS, frets: [0, 15] }
const fretsOf = (text: string) => text.split(' ').map((fret) => (fret === 'x' ? null : Number(fret)))
const grip = (text: string, symbol: string) => voicingOf(fretsOf(text), chord(symbol), LIMITS)!
const inText = (one: { frets: readonly (number | null)[] } | null) =>
  one?.frets.map((fret) => fret ?? 'x').join(' ') ?? null

describe('instruments', () => {
  test('every tuning goes up but for none, and sounds as it is written', () => {
    for (const { tuning, frets, cutaway, scaleLengthMm } of Object.values(INSTRUMENTS)) {
      const open = instrumentOf({ tuning, scaleLengthMm }, 0).tuning
      expect(open).toEqual(tuning.map(midi))
      expect([...open].sort((a, b) => a - b)).toEqual(open)
      expect(cutaway).toBeLessThan(frets)
    }
  })
  test('grips are found on each, sounding their chord (from three strings up in any tuning)', () => {
    for (const one of Object.values(INSTRUMENTS)) {
      const limits = { ...LIMITS, instrument: instrumentOf(one, 0), frets: [0, 7] as const }
      const grips = voicingsOf(chord('G7'), limits)
      expect(grips.length).toBeGreaterThan(3)
      for (const { frets } of grips) expect(soundsLike(frets, chord('G7'), limits)).toBe(true)
    }
  })
})

describe('the hand', () => {
  test('calibration: the limit lies between what is comfortable and what is too wide, whatever was said', () => {
    const mm = STRETCHES.map(({ from, to }) => reachMm(from, to, 648))
    expect(mm).toEqual([...mm].sort((a, b) => a - b))
    expect(reachFrom(['comfortable', 'just', 'too wide'], 648)).toBe(Math.round(itemAt(mm, 1)))
    expect(reachFrom(['comfortable', 'comfortable', 'too wide'], 648)).toBe(
      Math.round((itemAt(mm, 1) + itemAt(mm, 2)) / 2),
    )
    fc.assert(
      fc.property(fc.array(fc.constantFrom(...ANSWERS), { minLength: 3, maxLength: 3 }), (answers) => {
        const reach = reachFrom(answers, 648)
        expect(reach).toBeGreaterThanOrEqual(50)
        expect(reach).toBeLessThanOrEqual(160)
        if (answers.every((answer) => answer === 'comfortable')) expect(reach).toBeGreaterThan(itemAt(mm, 2))
      }),
    )
  })
  test('a missing finger is never used, and a weak one makes a grip harder', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(1, 2, 3, 4 as const),
        fc.constantFrom('x 3 2 0 1 0', '3 x 3 4 3 x', 'x 5 7 5 6 5', 'x x 0 2 3 2'),
        (finger, text) => {
          const hand = { ...DEFAULT_HAND, missing: [finger as 1] }
          const answer = fingeringsOf(fretsOf(text), STANDARD_GUITAR, hand)
          if (answer.playable)
            for (const { fingers } of answer.fingerings) expect(fingers).not.toContain(finger)
        },
      ),
    )
    expect(
      fingeringsOf(fretsOf('x 3 5 4 5 3'), STANDARD_GUITAR, { ...DEFAULT_HAND, missing: [3, 4] }),
    ).toMatchObject({ playable: false })
    const difficulty = (weak: readonly 4[]) => {
      const answer = fingeringsOf(fretsOf('3 x 3 4 3 x'), STANDARD_GUITAR, { ...DEFAULT_HAND, weak })
      return answer.playable ? firstOf(answer.fingerings).difficulty : NaN
    }
    expect(difficulty([4])).toBeGreaterThan(difficulty([]))
  })
})

describe('easier grips', () => {
  test('each is easier, keeps what the symbol names, and is what it says it is', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Fmaj7', 'G7', 'Dm7', 'C6/9', 'Bm7b5', 'E7b9'),
        fc.nat(400),
        (symbol, pick) => {
          const all = voicingsOf(chord(symbol), LIMITS)
          const hard = itemAt(
            [...all].sort((a, b) => b.fingering.difficulty - a.fingering.difficulty),
            pick % 40,
          )
          for (const { easing, voicing, easierBy } of easierThan(hard, chord(symbol), LIMITS)) {
            expect(easierBy).toBeCloseTo(hard.fingering.difficulty - voicing.fingering.difficulty)
            expect(easierBy).toBeGreaterThan(0)
            expect(soundsLike(voicing.frets, chord(symbol), { ...LIMITS, bass: 'any', omit: ['1'] })).toBe(
              true,
            )
            if (easing === 'without a barre') expect(voicing.fingering.barres).toEqual([])
            if (easing === 'top strings only') expect(voicing.frets.slice(0, 2)).toEqual([null, null])
          }
        },
      ),
      { numRuns: 25 },
    )
  })
  test('the full F: the double goes, or the barre, or the low strings, and it is said what is lost', () => {
    const easier = easierThan(grip('1 3 3 2 1 1', 'F'), chord('F'), LIMITS)
    expect(easier.map(({ easing }) => easing)).toEqual(
      expect.arrayContaining(['without a barre', 'top strings only']),
    )
    expect(theOne(easier, ({ easing }) => easing === 'top strings only').lost).toMatch(
      /doubled note|lowest note|^$/,
    )
  })
})

/**
 * The six types of seventh chord and their tones, from their definition; degrees of a drop voicing
 * from the lowest up.
 */
const SEVENTHS = ['Cmaj7', 'C7', 'Cm7', 'Cm7b5', 'Cdim7', 'Cm(maj7)'] as const
/**
 * Close position from the lowest, each inversion; drop 2 puts the second from the top an octave
 * down, drop 3 the third.
 */
const CLOSE = ['1 3 5 7', '3 5 7 1', '5 7 1 3', '7 1 3 5'].map((text) => text.split(' '))
const dropped = (voice: number) =>
  CLOSE.map((close) => {
    const low = itemAt(close, close.length - voice)
    return [low, ...close.filter((one) => one !== low)].join(' ')
  })

describe('drop voicings of the six seventh-chord types on each string set, from their definition', () => {
  const sets = { 'drop 2': ['6543', '5432', '4321'], 'drop 3': ['6432', '5321'] } as const
  test.each(
    Object.entries(sets).flatMap(([family, strings]) => strings.map((set) => [family, set] as const)),
  )('%s on strings %s: all four inversions', (family, set) => {
    const wanted = dropped(family === 'drop 2' ? 2 : 3).sort()
    for (const symbol of SEVENTHS) {
      const strings = [...set].map((number) => 6 - Number(number))
      // Two of them are wide for a usual hand low on the neck; a wide hand shows that none is
      // missing.
      const limits: Limits = {
        ...DEFAULT_LIMITS,
        frets: [0, 17],
        strings,
        notes: [4, 4],
        bass: 'any',
        hand: { ...DEFAULT_HAND, reachMm: 130 },
      }
      const found = voicingsOf(chord(symbol), limits).filter((one) =>
        one.families.includes(family as 'drop 2'),
      )
      expect(
        [...new Set(found.map((one) => stepsOf(one).replaceAll('6', '7')))]
          .filter((steps) => new Set(steps.split(' ')).size === 4)
          .sort(),
      ).toEqual(wanted)
    }
  })
})

describe('grips that belong together', () => {
  test('inversions of one chord up the neck on its strings', () => {
    const found = inversionsOf(grip('x x 2 4 1 3', 'Cmaj7'), chord('Cmaj7'), LIMITS)
    const here = grip('x 3 5 4 5 x', 'Cmaj7')
    // The first inversion is 100 mm wide here: a little more than the usual hand.
    const ladder = inversionsOf(here, chord('Cmaj7'), { ...LIMITS, hand: { ...DEFAULT_HAND, reachMm: 110 } })
    expect(ladder.map(stepsOf)).toEqual(expect.arrayContaining(['1 5 7 3', '3 7 1 5', '5 1 3 7', '7 3 5 1']))
    expect(ladder.map((one) => firstOf(one.midis))).toEqual(
      [...ladder.map((one) => firstOf(one.midis))].sort((a, b) => a - b),
    )
    for (const one of [...ladder, ...found])
      expect(soundsLike(one.frets, chord('Cmaj7'), { ...LIMITS, bass: 'any' })).toBe(true)
  })
  test('the same type on other strings', () => {
    const others = onOtherStrings(grip('x 3 5 4 5 x', 'Cmaj7'), chord('Cmaj7'), LIMITS)
    expect(others.map(inText)).toEqual(expect.arrayContaining(['x x 10 12 12 12']))
    for (const one of others) expect(stepsOf(one)).toBe('1 5 7 3')
  })
  test('the harmonised scale: one type of grip on the seven chords of a key, going up (chords against tonal 6.4.3)', () => {
    const key = must(parseKey('G'))
    expect(chordsOfKey(key, true).map((one) => one.canonical)).toEqual([
      'Gmaj7',
      'Am7',
      'Bm7',
      'Cmaj7',
      'D7',
      'Em7',
      'F#m7b5',
    ])
    for (const one of chordsOfKey(key, true))
      expect(TonalChord.get(one.canonical).notes).toEqual(one.tones.map(({ note }) => noteName(note)))
    const scale = harmonisedScale(grip('3 x 4 4 3 x', 'Gmaj7'), key, LIMITS)
    expect(scale.map((one) => one.chord.canonical)).toEqual([
      'F#m7b5',
      'Gmaj7',
      'Am7',
      'Bm7',
      'Cmaj7',
      'D7',
      'Em7',
    ])
    expect(scale.map((one) => inText(one.voicing)).slice(0, 3)).toEqual([
      '2 x 2 2 1 x',
      '3 x 4 4 3 x',
      '5 x 5 5 5 x',
    ])
    const lows = scale.flatMap((one) => one.voicing?.midis[0] ?? [])
    expect(lows).toEqual([...lows].sort((a, b) => a - b))
  })
  test('a grip with a fourth in it goes through the key too, voice by voice', () => {
    const key = must(parseKey('G'))
    const scale = harmonisedScale(grip('7 x 7 7 5 x', 'Bm11'), key, LIMITS)
    expect(scale.map((one) => inText(one.voicing))).toEqual([
      '3 x 4 4 1 x',
      '5 x 5 5 3 x',
      '7 x 7 7 5 x',
      '8 x 9 9 7 x',
      '10 x 10 11 8 x',
      '12 x 12 12 10 x',
      '14 x 14 14 12 x',
    ])
  })
  test('a grip with a note outside the key is not said to be beyond the hand', () => {
    const key = must(parseKey('G'))
    expect(harmonisedScale(grip('x x 4 5 3 6', 'D7#5'), key, LIMITS).filter((one) => !one.voicing)).toEqual(
      [],
    )
  })
  test('a shape without open strings can be moved', () =>
    expect([isMovable(grip('x 3 5 4 5 x', 'Cmaj7')), isMovable(grip('x 3 2 0 0 0', 'Cmaj7'))]).toEqual([
      true,
      false,
    ]))
})

describe('what disturbs', () => {
  test('mud: neighbours closer than a fourth below C3; sour: a minor ninth, but for the b9 of a dominant', () => {
    expect(mudIn(['E2', 'G2', 'E3'].map(midi))).toEqual([{ kind: 'mud', low: 0, high: 1 }])
    expect(mudIn(['C3', 'E3'].map(midi))).toEqual([])
    expect(soursIn(['E3', 'B3', 'F4'].map(midi), chord('Cadd11'))).toEqual([
      { kind: 'sour', low: 0, high: 2 },
    ])
    expect(soursIn(['G2', 'B3', 'Ab4'].map(midi), chord('G7b9'))).toEqual([])
    expect(soursIn(['B2', 'G3', 'C4'].map(midi), chord('Cmaj7'))).toEqual([{ kind: 'sour', low: 0, high: 2 }])
  })
})

describe('limits that leave nothing', () => {
  const why = (limits: Partial<Limits>, symbol = 'Cmaj9') =>
    whyNone(chord(symbol), { ...DEFAULT_LIMITS, ...limits }).map(({ limit }) => limit)
  test('the one that excludes everything is named', () => {
    expect(why({})).toEqual([])
    expect(why({ top: midi('F#4') })).toEqual(['top'])
    expect(why({ families: ['tenth'] })).toContain('families')
    expect(why({ notes: [6, 6], open: false, hand: { ...DEFAULT_HAND, barre: false } })).toEqual(
      expect.arrayContaining(['notes', 'barre']),
    )
    expect(why({ strings: [0, 1], notes: [3, 6] })).toContain('strings')
  })
  test('each limit named brings grips back when it is loosened, or they act together', () => {
    expect(why({ top: midi('F#4'), families: ['quartal'], strings: [0] }).sort()).toEqual(
      expect.arrayContaining(['families', 'strings', 'top']),
    )
  })
})
