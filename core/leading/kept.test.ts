import { firstOf, itemAt } from '../lists'
import fc from 'fast-check'
import { chord } from '../chord/parseChord'
import { midi } from '../pitch/note'
import { must } from '../result'
import { voicingsOf } from '../voicing/enumerate'
import { DEFAULT_LIMITS, TUNE_LIMITS, type Limits } from '../voicing/gripLimits'
import { voicingOf } from '../voicing/voicing'
import type { Constraint } from './constraints'
import { KeptSearch } from './kept'
import { bestLines } from './lead'
import { onTheWay, type Stop } from './onTheWay'
import { mixedWeights, STYLES, STYLE_NAMES, TERM_NAMES, weightsFrom } from './weights'

const SMALL: Limits = {
  ...DEFAULT_LIMITS,
  frets: [0, 5],
  notes: [3, 4],
  bass: 'any',
  instrument: { ...DEFAULT_LIMITS.instrument, tuning: ['D3', 'G3', 'B3', 'E4'].map(midi) },
}
const NAMES = ['C', 'Am7', 'Dm7', 'G7', 'E7']

describe('only what changed is searched again', () => {
  /**
   * One thing the player does: fixes a grip, lets one go, asks for a string to be silent, puts
   * another chord in, takes one out.
   */
  const acts = fc.array(
    fc.record({
      kind: fc.constantFrom('fix', 'free', 'silent', 'swap', 'add', 'drop'),
      at: fc.nat(7),
      pick: fc.nat(50),
      settles: fc.boolean(),
    }),
    { minLength: 1, maxLength: 8 },
  )
  test('after any row of changes the line costs what a whole search finds', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom(...NAMES), { minLength: 1, maxLength: 6 }),
        acts,
        (symbols, row) => {
          const names = [...symbols]
          const weights = weightsFrom('smooth')
          const kept = new KeptSearch()
          let fixed = new Map<number, readonly (number | null)[]>()
          let constraints: Constraint[] = []
          for (const { kind, at: place, pick, settles } of row) {
            const at = place % names.length
            if (kind === 'fix') {
              const grips = voicingsOf(chord(itemAt(names, at)), SMALL)
              fixed.set(at, itemAt(grips, pick % grips.length).frets)
            }
            if (kind === 'free') fixed.delete(at)
            if (kind === 'silent')
              constraints = [{ kind: 'silent', string: pick % 4, from: at, to: names.length - 1 }]
            if (kind === 'swap' && !fixed.has(at)) names[at] = itemAt(NAMES, pick % NAMES.length)
            if (kind === 'add') {
              names.splice(at, 0, itemAt(NAMES, pick % NAMES.length))
              fixed = new Map()
              constraints = []
            }
            if (kind === 'drop' && names.length > 1) {
              names.splice(at, 1)
              fixed = new Map()
              constraints = []
            }
            const problem = { chords: names.map(chord), limits: SMALL, weights, fixed, constraints }
            const whole = bestLines({ ...problem, count: 1 })
            const again = kept.best(problem)
            expect(again.ok).toBe(whole.ok)
            if (again.ok && whole.ok) expect(again.value!.cost).toBeCloseTo(firstOf(whole.value).cost, 6)
            if (settles) while (kept.settle());
          }
        },
      ),
      { numRuns: 40 },
    )
  })
  test('no chords, no line; a grip nobody can hold is refused as by the whole search', () => {
    const kept = new KeptSearch()
    expect(must(kept.best({ chords: [], limits: SMALL, weights: weightsFrom('smooth') }))).toBeNull()
    expect(
      kept.best({
        chords: [chord('C')],
        limits: TUNE_LIMITS,
        weights: weightsFrom('smooth'),
        fixed: new Map([[0, [1, null, null, null, null, 12]]]),
      }),
    ).toMatchObject({ ok: false, fault: { code: 'unplayable' } })
  })
})

describe('styles mixed', () => {
  test('one style alone is itself; two halves lie between', () => {
    for (const name of STYLE_NAMES) expect(mixedWeights({ [name]: 1 })).toEqual(STYLES[name].weights)
    const mixed = mixedWeights({ smooth: 1, contrary: 1 })
    for (const term of TERM_NAMES)
      expect(mixed[term]).toBeCloseTo((STYLES.smooth.weights[term] + STYLES.contrary.weights[term]) / 2)
  })
})

describe('an extra beat on the way', () => {
  const stop = (symbol: string, frets: readonly (number | null)[]): Stop => ({
    chord: chord(symbol),
    voicing: voicingOf(frets, chord(symbol), TUNE_LIMITS)!,
  })
  const dominant = stop('G7', [3, null, 3, 4, 3, null])
  const tonic = stop('C6', [null, 3, 2, 2, 1, null])
  const ways = onTheWay(dominant, tonic, TUNE_LIMITS)
  test('the seventh of V stays and falls a beat later: 4–3 over I (common practice: a tone may be left behind and resolve a beat later)', () => {
    const late = ways.filter(({ kind, words }) => kind === 'late resolution' && words.includes('11–3 over C'))
    expect(late.length).toBeGreaterThan(0)
    for (const { voicing, takes } of late) {
      expect(takes).toBe('beginning of second')
      expect(voicing.midis).toContain(midi('F3'))
      expect(voicing.midis[0]).toBe(midi('C3'))
    }
  })
  test('every way is a grip a hand holds, named so that its notes are the chord', () => {
    expect(ways.length).toBeGreaterThan(3)
    for (const { chord: named, voicing, kind } of ways) {
      expect(voicing.fingering.difficulty).toBeGreaterThan(0)
      if (kind !== 'late resolution' && kind !== 'early arrival') continue
      const between = new Set([...dominant.voicing.midis, ...tonic.voicing.midis])
      for (const note of voicing.midis) expect(between).toContain(note)
      expect(named.tones.length).toBeGreaterThan(0)
    }
  })
  test('a half step approach is the grip itself, one fret off; open strings cannot slide', () => {
    const approach = onTheWay(dominant, stop('Cmaj7', [null, 3, 5, 4, 5, null]), TUNE_LIMITS).filter(
      ({ kind }) => kind === 'half step approach',
    )
    expect(approach.map(({ chord: one, voicing }) => [one.canonical, voicing.frets])).toEqual([
      ['Dbmaj7', [null, 4, 6, 5, 6, null]],
      ['Bmaj7', [null, 2, 4, 3, 4, null]],
    ])
    expect(
      onTheWay(dominant, stop('Cmaj7', [null, 3, 2, 0, 0, null]), TUNE_LIMITS).some(
        ({ kind }) => kind === 'half step approach',
      ),
    ).toBe(false)
  })
  test('a passing diminished chord stands between roots a whole step apart, up and down, and nowhere else', () => {
    const passing = (a: Stop, b: Stop) =>
      onTheWay(a, b, TUNE_LIMITS)
        .filter(({ kind }) => kind === 'passing diminished')
        .map(({ chord: one }) => one.canonical)
    const [c, d] = [stop('Cmaj7', [null, 3, 5, 4, 5, null]), stop('Dm7', [null, 5, 7, 5, 6, null])]
    expect(passing(c, d)).toEqual(['C#dim7'])
    expect(passing(d, c)).toEqual(['Dbdim7'])
    expect(passing(dominant, c)).toEqual([])
  })
})
