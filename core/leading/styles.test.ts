import { firstOf, itemAt } from '../lists'
import fc from 'fast-check'
import { chord } from '../chord/parseChord'
import { parseKey } from '../pitch/key'
import { midi, parsePitch, pitchClass } from '../pitch/note'
import { must } from '../result'
import { voicingsOf } from '../voicing/enumerate'
import { DEFAULT_LIMITS, TUNE_LIMITS, type Limits } from '../voicing/gripLimits'
import { voicingOf, type Voicing } from '../voicing/voicing'
import { arrange, melodyNoteAt } from './arrange'
import { constrained, type Constraint } from './constraints'
import { leadInStyle } from './inStyle'
import { bestLines } from './lead'
import { lineOf } from './line'
import { pulled } from './pull'
import { STYLES, STYLE_NAMES, TERM_NAMES, weightsFrom, type Weights } from './weights'
import { hardestSpots, lineInWords, stepInWords } from './lineWords'

const CHORDS = ['Cmaj7', 'A7', 'Dm7', 'G7'].map(chord)
const lead = (style: (typeof STYLE_NAMES)[number], more: object = {}) =>
  firstOf(must(leadInStyle({ chords: CHORDS, limits: TUNE_LIMITS, style, count: 1, ...more })))

describe('styles', () => {
  test('one position: the hand stays within five frets, or within those that are set', () => {
    const held = (frets: readonly (number | null)[]) =>
      frets.filter((fret): fret is number => fret !== null && fret > 0)
    const all = lead('position').voicings.flatMap(({ frets }) => held(frets))
    expect(Math.max(...all) - Math.min(...all)).toBeLessThanOrEqual(4)
    const set = lead('position', { window: [7, 11] }).voicings.flatMap(({ frets }) => held(frets))
    expect(Math.min(...set)).toBeGreaterThanOrEqual(7)
    expect(Math.max(...set)).toBeLessThanOrEqual(11)
  })
  test('drone: one open string through every chord, the string that is chosen, or a pitch that is held', () => {
    const strings = lead('drone').voicings.map(({ frets }) =>
      frets.flatMap((fret, string) => (fret === 0 ? [string] : [])),
    )
    expect([0, 1, 2, 3, 4, 5].some((string) => strings.every((open) => open.includes(string)))).toBe(true)
    for (const { frets } of lead('drone', { drone: { string: 4 } }).voicings) expect(frets[4]).toBe(0)
    for (const { midis } of lead('drone', { drone: { midi: midi('E4') } }).voicings)
      expect(midis).toContain(midi('E4'))
  })
  test('thin has two or three notes, rootless no root', () => {
    for (const { midis } of lead('thin').voicings) expect(midis.length).toBeLessThanOrEqual(3)
    for (const { strings } of lead('rootless').voicings)
      expect(strings.map(({ degree }) => degree)).not.toContain('1')
  })
  test('tension: every chord sounds a tension, and no more tendencies come down where one lies above than in the smooth line', () => {
    const chords = ['Dm7', 'G7', 'Cmaj7', 'A7', 'Dm7', 'G7', 'Cmaj7'].map(chord)
    const measured = (style: 'smooth' | 'tension') => lead(style, { chords }).measures
    expect(measured('tension').plain).toBeLessThan(measured('smooth').plain)
    expect(measured('tension').tame).toBeLessThanOrEqual(measured('smooth').tame)
  })
  test('contrary has more contrary steps than smooth, top-led a calmer top', () => {
    const chords = ['Cmaj7', 'Am7', 'Dm7', 'G7', 'Em7', 'A7', 'Dm7', 'G7', 'Cmaj7'].map(chord)
    const contrary = (style: 'smooth' | 'contrary') =>
      lead(style, { chords }).steps.filter(({ outer }) => outer === 'contrary' || outer === 'oblique').length
    expect(contrary('contrary')).toBeGreaterThanOrEqual(contrary('smooth'))
    expect(lead('top', { chords }).measures.top).toBeLessThanOrEqual(lead('smooth', { chords }).measures.top)
  })
  test('each says in a sentence what it is', () => {
    for (const name of STYLE_NAMES) expect(STYLES[name].says).toMatch(/^[A-Z].*\.$/)
  })
})

describe('constraints', () => {
  const asked: fc.Arbitrary<Constraint> = fc.oneof(
    fc
      .constantFrom('C4', 'E4', 'G4', 'F#4')
      .map((top): Constraint => ({ from: 0, to: 0, kind: 'top', midi: midi(top) })),
    fc.nat(5).map((string): Constraint => ({ from: 0, to: 0, kind: 'silent', string })),
    fc.nat(5).map((string): Constraint => ({ from: 0, to: 0, kind: 'open', string })),
    fc.nat(6).map((low): Constraint => ({ from: 0, to: 0, kind: 'frets', low: low + 1, high: low + 5 })),
    fc
      .constantFrom('D3', 'G3')
      .map((low): Constraint => ({ from: 0, to: 0, kind: 'range', low: midi(low), high: midi('C5') })),
    fc
      .constantFrom('C4', 'D4')
      .map((one): Constraint => ({ from: 0, to: 0, kind: 'sounds', midi: midi(one) })),
  )
  test('every grip keeps to what is asked', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Cmaj7', 'G7', 'Dm9'),
        fc.array(asked, { maxLength: 2 }),
        (symbol, constraints) => {
          for (const { frets, midis } of constrained(chord(symbol), TUNE_LIMITS, constraints))
            for (const one of constraints) {
              if (one.kind === 'top') expect(midis.at(-1)).toBe(one.midi)
              if (one.kind === 'silent') expect(frets[one.string]).toBeNull()
              if (one.kind === 'open') expect(frets[one.string]).toBe(0)
              if (one.kind === 'frets')
                for (const fret of frets)
                  if (fret) {
                    expect(fret).toBeGreaterThanOrEqual(one.low)
                    expect(fret).toBeLessThanOrEqual(one.high)
                  }
              if (one.kind === 'range') expect(firstOf(midis)).toBeGreaterThanOrEqual(one.low)
              if (one.kind === 'sounds') expect(midis).toContain(one.midi)
            }
        },
      ),
      { numRuns: 60 },
    )
  })
  test('two different notes on top leave nothing', () => {
    const top = (name: string): Constraint => ({ from: 0, to: 0, kind: 'top', midi: midi(name) })
    expect(constrained(chord('Cmaj7'), TUNE_LIMITS, [top('E4'), top('G4')])).toEqual([])
    expect(constrained(chord('Cmaj7'), TUNE_LIMITS, [top('E4'), top('E4')]).length).toBeGreaterThan(0)
  })
  test('hold only where they are asked for, and say what leaves nothing', () => {
    const line = firstOf(
      must(
        bestLines({
          chords: CHORDS,
          limits: TUNE_LIMITS,
          weights: weightsFrom('smooth'),
          count: 1,
          constraints: [{ from: 1, to: 2, kind: 'sounds', midi: midi('A3') }],
        }),
      ),
    )
    for (const at of [1, 2]) expect(itemAt(line.voicings, at).midis).toContain(midi('A3'))
    const none = bestLines({
      chords: CHORDS,
      limits: TUNE_LIMITS,
      weights: weightsFrom('smooth'),
      count: 1,
      constraints: [{ from: 3, to: 3, kind: 'top', midi: midi('E2') }],
    })
    expect(none).toMatchObject({
      ok: false,
      fault: { code: 'no-grip', at: 3, message: expect.stringContaining('E2 on top') },
    })
  })
})

describe('a form that repeats', () => {
  const SMALL: Limits = {
    ...DEFAULT_LIMITS,
    frets: [0, 4],
    notes: [3, 4],
    bass: 'any',
    instrument: { ...DEFAULT_LIMITS.instrument, tuning: ['D3', 'G3', 'B3', 'E4'].map(midi) },
  }
  const weights = fc
    .record(Object.fromEntries(TERM_NAMES.map((term) => [term, fc.constantFrom(0, 0.03, 0.5, 1, 2.5)])))
    .map((table) => table as unknown as Weights)
  test('the best loops are those of trying every sequence, the step back counted', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('C', 'Am7', 'Dm7', 'G7', 'E7'), { minLength: 2, maxLength: 3 }),
        weights,
        fc.integer({ min: 1, max: 3 }),
        (symbols, table, count) => {
          const chords = symbols.map(chord)
          const layers = chords.map((one) => voicingsOf(one, SMALL))
          const lines = layers.reduce<Voicing[][]>(
            (all, layer) => all.flatMap((line) => layer.map((voicing) => [...line, voicing])),
            [[]],
          )
          const costs = lines
            .map((line) => lineOf(line, { chords, weights: table, limits: SMALL, loop: true }).cost)
            .sort((a, b) => a - b)
            .slice(0, count)
          const found = must(bestLines({ chords, limits: SMALL, weights: table, count, loop: true }))
          expect(found).toHaveLength(costs.length)
          found.forEach((line, at) => expect(line.cost).toBeCloseTo(itemAt(costs, at), 6))
        },
      ),
      { numRuns: 8 },
    )
  })
})

describe('one note pulled', () => {
  const frets = [null, 5, 7, 5, 6, null]
  const pull = (string: number, fret: number, from: readonly (number | null)[] = frets, symbol = 'Dm7') =>
    pulled(from, string, fret, chord(symbol), TUNE_LIMITS, must(parseKey('C')))
  test('the grip follows, the new name comes, and what is lost is said', () => {
    const up = pull(4, 7)
    expect([up.frets, up.playable, up.moved]).toEqual([[null, 5, 7, 5, 7, null], true, false])
    expect(firstOf(up.names).chord.canonical).toBe('D7')
    expect(up.lost).toEqual(['b3'])
  })
  test('where no hand holds it the same sounds are looked for on other strings; the pitches stay', () => {
    fc.assert(
      fc.property(fc.constantFrom(1, 2, 3, 4), fc.integer({ min: 0, max: 14 }), (string, fret) => {
        const result = pull(string, fret)
        const sounds = (grip: readonly (number | null)[]) =>
          grip
            .flatMap((one, at) => (one === null ? [] : [itemAt(TUNE_LIMITS.instrument.tuning, at) + one]))
            .sort((a, b) => a - b)
        expect(sounds(result.frets)).toEqual(result.midis)
        expect(result.playable).toBe(voicingOf(result.frets, chord('Dm7'), TUNE_LIMITS) !== null)
        if (!result.playable) expect(result.fingering).toMatchObject({ why: expect.stringMatching(/./) })
      }),
    )
  })
})

describe('words', () => {
  test('what each voice does from grip to grip', () => {
    const grip = (text: string, symbol: string) =>
      voicingOf(
        text.split(' ').map((fret) => (fret === 'x' ? null : Number(fret))),
        chord(symbol),
        TUNE_LIMITS,
      )!
    expect(stepInWords(grip('x 5 x 5 6 x', 'Dm7'), grip('x x 3 4 3 x', 'G7'))).toBe(
      'F falls a minor third to D, the 5; C falls a half step to B, the 3; D rises a minor third to F, the b7',
    )
    expect(stepInWords(grip('x 3 2 0 x x', 'C'), grip('x 3 3 0 x x', 'Csus4'))).toBe(
      'G stays, now the 5; E rises a half step to F, the 4; C stays, now the 1',
    )
  })
  test('a line says what it is good at beside the others, and the hardest spots come first', () => {
    const lines = must(
      leadInStyle({ chords: CHORDS, limits: TUNE_LIMITS, style: 'smooth', count: 5, different: true }),
    )
    expect(lines).toHaveLength(5)
    const words = lines.map((line) => lineInWords(line, lines))
    for (const one of words) expect(one.length).toBeGreaterThan(0)
    expect(words.flat()).toContain('least motion of these')
    const spots = hardestSpots(firstOf(lines), CHORDS, 4)
    expect(spots.map(({ effort }) => effort)).toEqual(spots.map(({ effort }) => effort).sort((a, b) => b - a))
  })
})

describe('substitutions and grips together', () => {
  const text = 'key: C\n| Cmaj7 | A7 | Dm7 | G7 | Em7 | A7 | Dm7 | G7 |'
  const melody = [
    ['A4', 3],
    ['B4', 4],
    ['C5', 5],
  ].map(([note, bar]) => ({ bar: bar as number, beat: 1, beats: 4, note: must(parsePitch(note as string)) }))
  test('at no distance the chords are the plain ones, led exactly', () => {
    const [plain] = must(
      arrange({ text, distance: 0, limits: TUNE_LIMITS, colour: false, texture: 'as it comes' }),
    )
    expect(plain!.changes).toEqual([])
    const chords = plain!.chords.map((one) => one.chord)
    expect(plain!.line.cost).toBeCloseTo(
      firstOf(
        must(
          bestLines({ chords, limits: TUNE_LIMITS, weights: weightsFrom('smooth'), usual: true, count: 1 }),
        ),
      ).cost,
    )
  })
  test('goes about as far as is wanted, in different ways, each filling the time of the tune', () => {
    const found = must(arrange({ text, distance: 0.5, limits: TUNE_LIMITS, count: 2 }))
    expect(found).toHaveLength(2)
    for (const { distance, chords, changes } of found) {
      expect(Math.abs(distance - 0.5)).toBeLessThan(0.25)
      expect(chords.reduce((sum, { beats }) => sum + beats, 0)).toBe(32)
      expect(changes.length).toBeGreaterThan(0)
    }
    expect(firstOf(found).chords.map(({ chord: one }) => one.canonical)).not.toEqual(
      itemAt(found, 1).chords.map(({ chord: one }) => one.canonical),
    )
  })
  test('a melody is on top wherever it sounds', () => {
    const [one] = must(arrange({ text, distance: 0.4, limits: { ...TUNE_LIMITS, frets: [0, 15] }, melody }))
    one!.chords.forEach((place, at) => {
      const top = melodyNoteAt(melody, place)
      if (top !== null) expect(itemAt(one!.line.voicings, at).midis.at(-1)).toBe(top)
    })
  })
  test('can be stopped', () => {
    expect(
      arrange({ text, distance: 0.5, limits: TUNE_LIMITS, count: 2, onProgress: () => false }),
    ).toMatchObject({ ok: false, fault: { code: 'stopped' } })
    expect(
      must(arrange({ text, distance: 0.5, limits: TUNE_LIMITS, count: 3, onProgress: (done) => done < 8 })),
    ).toHaveLength(1)
  })
})

test('a chord that takes a drone for one of its free tensions is called so', () => {
  const [line] = must(
    leadInStyle({
      chords: ['Cmaj7', 'Dm7', 'Fmaj7', 'G7'].map(chord),
      limits: TUNE_LIMITS,
      style: 'drone',
      drone: { string: 2 },
      count: 1,
    }),
  )
  expect(firstOf(line!.chords).canonical).toBe('Cmaj9')
  line!.voicings.forEach(({ frets, midis }, at) => {
    expect(frets[2]).toBe(0)
    for (const midi of midis)
      expect(itemAt(line!.chords, at).tones.map(({ note }) => pitchClass(note))).toContain(midi % 12)
  })
})
