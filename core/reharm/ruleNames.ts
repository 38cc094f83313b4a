import { firstOf } from '../lists'
import { BORROWINGS } from './borrowings'
import { COLOUR_RULES } from './catalogue'
import { FAMILIES, FAMILY_CODES, rulesIn, type RuleFamily } from './families'
import { INSERTS } from './inserts'
import { REDUCTIONS } from './reductions'
import type { Rule } from './rule'
import type { School } from './schools'
import { SWAPS } from './swaps'
import { TEXTURE_RULES } from './textureRules'

/** Every rule but the colours, in the order in which a player would look through them. */
export const RULES: readonly Rule[] = [...SWAPS, ...INSERTS, ...BORROWINGS, ...TEXTURE_RULES, ...REDUCTIONS]

/** What the table of places asks for, which is a rule of its own: its changes are of every kind. */
export const USUAL_HERE = FAMILIES.p1

type Known = Pick<Rule, 'id' | 'family' | 'school' | 'name'>
/** Every rule there is, colours first. */
const ALL: readonly Known[] = [
  ...Object.entries(COLOUR_RULES).map(([id, rule]): Known => ({ id, ...rule, school: 'functional' })),
  ...RULES,
  { id: USUAL_HERE, family: 'p1', school: 'functional', name: 'what players try first at a place' },
]
const BY_ID = new Map(ALL.map((rule) => [rule.id, rule]))
export const RULE_IDS: readonly string[] = [...BY_ID.keys()]

/**
 * Of a rule, the first of several put on one another, or a family by its name; undefined for what
 * is no rule of the catalogue.
 */
export function familyOf(rule: string): RuleFamily | undefined {
  const [first = ''] = rulesIn(rule)
  return BY_ID.get(first)?.family ?? FAMILY_CODES.find((code) => FAMILIES[code] === first)
}

/** The families of rules put on one another, as the theory numbers them: `b1+c1`. */
export const familiesIn = (rule: string): string =>
  rulesIn(rule)
    .map((one) => familyOf(one) ?? one)
    .join('+')

/** A fuller form of the same chord, and nothing else. */
export const isColour = (rule: string): boolean =>
  rulesIn(rule).every((one) => Object.hasOwn(COLOUR_RULES, one))

/** @param rule as a change names it; rules put on one another belong to the school of the first */
export const schoolOf = (rule: string): School => BY_ID.get(firstOf(rulesIn(rule)))?.school ?? 'functional'

/** A rule or a family in words; what is neither is said as it is. */
export const ruleInWords = (rule: string): string => BY_ID.get(rule)?.name ?? rule.replaceAll('-', ' ')

/**
 * Whether a rule is asked for by this: its name, its family by name or number (`b2`), or the letter
 * of its kind (`b`).
 */
export function isAskedBy(rule: string, asked: string): boolean {
  const family = familyOf(rule)
  return rule === asked || (family !== undefined && [family, family[0], FAMILIES[family]].includes(asked))
}
