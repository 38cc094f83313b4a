import { COLOURS } from './catalogue'
import { FAMILIES, FAMILY_CODES, ruleNow } from './families'
import { familyOf, isAskedBy, isColour, RULE_IDS, ruleInWords, RULES, schoolOf } from './ruleNames'
import { SCHOOL_NAMES } from './schools'
import { likingOf } from './taste'

const inFamily = (code: string) => RULE_IDS.filter((id) => familyOf(id) === code)

test('every rule has a readable name that no other rule and no other family has', () => {
  const names = [
    ...RULES.map(({ id }) => id),
    ...new Set(
      Object.values(COLOURS)
        .flat()
        .map(({ rule }) => rule),
    ),
  ]
  expect(new Set(names).size).toBe(names.length)
  expect(names.filter((name) => !/^[a-z]+\d?(-[a-z0-9]+)+$/.test(name))).toEqual([])
  expect(names.filter((name) => !RULE_IDS.includes(name))).toEqual([])
  expect(new Set(Object.values(FAMILIES)).size).toBe(FAMILY_CODES.length)
  for (const id of RULE_IDS) expect(SCHOOL_NAMES).toContain(schoolOf(id))
})

test('a family has the name of its rule exactly where it has one: what an older book kept is then that rule', () => {
  for (const code of FAMILY_CODES) {
    const rules = inFamily(code)
    expect(rules.length).toBeGreaterThan(0)
    expect([code, rules.includes(FAMILIES[code])]).toEqual([code, rules.length === 1])
  }
})

test.each([
  ['b3', 'diminished-dominant'],
  ['b2', 'shared-tones'],
  ['b1+c1+a4', 'substitute-dominant+related-ii+altered-dominant'],
  ['tritone-substitution+related-ii', 'tritone-substitution+related-ii'],
  ['pulled', 'pulled'],
  ['plain', 'plain'],
])('a rule that was kept as %s is %s now', (before, now) => expect(ruleNow(before)).toBe(now))

test('a rule is asked for by its name, its family and its kind, and by no other', () => {
  const asked = (word: string) => RULE_IDS.filter((id) => isAskedBy(id, word))
  expect(asked('tritone-substitution')).toEqual(['tritone-substitution'])
  expect(asked('b1')).toEqual(['tritone-substitution', 'flat-ii-major-seventh'])
  expect(asked('substitute-dominant')).toEqual(asked('b1'))
  expect(asked('f')).toEqual(['without-ii', 'reduced-to-seventh', 'reduced-to-triad'])
  expect(asked('a').length).toBe(8)
  for (const word of ['tritone', 'b', 'z', 'e3', '']) expect(asked(word).length > 0).toBe(word === 'b')
})

test('a rule and a family are said in words, and only fuller forms of a chord are colours', () => {
  expect(ruleInWords('iii-for-i')).toBe('shared tones: iii for I')
  expect(ruleInWords('shared-tones')).toBe('shared tones')
  expect(ruleInWords('minor-colour')).toBe('colours of minor chords')
  expect(ruleInWords('something else')).toBe('something else')
  expect(
    ['minor-colour', 'raised-ninth', 'minor-v-as-dominant', 'minor-colour+related-ii'].map(isColour),
  ).toEqual([true, true, false, false])
})

test('what was kept under a family counts for each rule of it, beside what is kept under its own name', () => {
  expect(likingOf('iii-for-i', { 'shared-tones': 2, 'iii-for-i': 1 })).toBeCloseTo(0.24)
  expect(likingOf('passing-diminished', { 'passing-diminished': 2 })).toBeCloseTo(0.16)
  expect(likingOf('passing-diminished', { 'shared-tones': 3 })).toBe(0)
})
