import { firstOf, theOne } from '../lists'
import fc from 'fast-check'
import { parseNote, pitchClass } from '../pitch/note'
import { must } from '../result'
import { optionsAt } from './options'
import { reharmonise } from './reharmonise'
import { schoolOf } from './ruleNames'
import { SCHOOL_NAMES, type School } from './schools'
import { DEFAULT_TASTE, LEANINGS, rankedByTaste, type Taste } from './taste'
import { wantedBass } from './thread'

const text = 'key: C\n| Cmaj7 | A7 | Dm7 | G7 | Cmaj7 | C7 | Fmaj7 | Fm7 |'
const nothingAround = () => ({ before: null, behind: null })
const share = fc.double({ min: 0, max: 1, noNaN: true })
const anyTaste: fc.Arbitrary<Taste> = fc.record({
  far: share,
  busy: share,
  bassSteps: share,
  schools: fc.record(
    Object.fromEntries(SCHOOL_NAMES.map((school) => [school, fc.constantFrom(...LEANINGS)])) as Record<
      School,
      fc.Arbitrary<(typeof LEANINGS)[number]>
    >,
  ),
})

describe('the order in which options are offered', () => {
  const options = optionsAt(text, 3, { depth: 2 })
  test('best first, each score the sum of its parts, only schools never wanted left out', () => {
    fc.assert(
      fc.property(
        anyTaste,
        fc.dictionary(fc.constantFrom('tritone-substitution', 'minor-subdominant', 'related-ii'), fc.nat(9)),
        (taste, liking) => {
          const list = rankedByTaste(options, taste, liking, nothingAround)
          expect(list.map(({ score }) => score)).toEqual(list.map(({ score }) => score).sort((a, b) => b - a))
          const sum = (parts: object) => Object.values(parts).reduce((all: number, part) => all + part, 0)
          expect(list.filter(({ score, parts }) => Math.abs(score - sum(parts)) > 0.005)).toEqual([])
          expect(list).toHaveLength(
            options.filter(({ rule }) => taste.schools[schoolOf(rule)] !== 'never').length,
          )
        },
      ),
    )
  })
  test('a rule kept often rises by at most what five times are worth', () => {
    const partOf = (times: number) =>
      theOne(
        rankedByTaste(options, DEFAULT_TASTE, { 'tritone-substitution': times }, nothingAround),
        ({ option }) => option.rule === 'tritone-substitution',
      ).parts.liking
    expect([0, 1, 5, 50].map(partOf)).toEqual([0, 0.08, 0.4, 0.4])
  })
  test('a bass that steps on both sides is worth its full share', () => {
    // B natural and C lie a half step from Db7's neighbours D and C.
    const list = rankedByTaste(options, { ...DEFAULT_TASTE, bassSteps: 1 }, {}, () => ({
      before: 2,
      behind: 0,
    }))
    expect(theOne(list, ({ option }) => option.rule === 'tritone-substitution').parts.bass).toBeCloseTo(0.4)
    expect(
      theOne(
        list,
        ({ option }) => option.rule === 'iv6-for-v' && firstOf(option.puts).chord.canonical === 'Fm6',
      ).parts.bass,
    ).toBe(0)
  })
})

describe('taste in the search over the whole tune', () => {
  const rulesUsed = (taste: Partial<Taste>, liking = {}) =>
    reharmonise(text, { distance: 0.6, count: 3, taste: { ...DEFAULT_TASTE, ...taste }, liking }).flatMap(
      ({ changes }) => changes.map(({ rule }) => rule),
    )
  const leaning = (school: School, how: (typeof LEANINGS)[number]) => ({
    schools: { ...DEFAULT_TASTE.schools, [school]: how },
  })
  test('a school never wanted does not come', () => {
    for (const school of SCHOOL_NAMES)
      expect(rulesUsed(leaning(school, 'never')).filter((rule) => schoolOf(rule) === school)).toEqual([])
  })
  test('a school leaned to comes more often than one leaned away from', () => {
    const times = (how: 'less' | 'more') =>
      rulesUsed(leaning('bebop', how)).filter((rule) => schoolOf(rule) === 'bebop').length
    expect(times('more')).toBeGreaterThan(times('less'))
  })
  test('each result is told as it is found', () => {
    const told: string[] = []
    const all = reharmonise(text, { distance: 0.5, count: 3, onFound: (one) => told.push(one.text) })
    expect(told).toEqual(all.map((one) => one.text))
  })
})

test('wanted bass notes: each chord that can have its note below gets it, the others say so', () => {
  const note = (name: string) => must(parseNote(name))
  const found = wantedBass('key: C\n| C | G7 | Am7 | F |', [null, note('B'), note('A'), note('G')])
  expect(found.map((one) => one && one.chord.canonical)).toEqual([
    null,
    'G7/B',
    'Am7',
    expect.stringMatching(/\/G$|^G/),
  ])
  found.forEach((one, at) => {
    if (one) expect(pitchClass(one.chord.bass ?? one.chord.root)).toBe([0, 11, 9, 7][at])
  })
  expect(wantedBass('key: C\n| C |', [note('F#')])).toEqual([null])
})
