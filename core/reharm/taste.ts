import { modulo, pitchClass } from '../pitch/note'
import type { ChangeOption } from './options'
import { FAMILIES, rulesIn } from './families'
import { familyOf, schoolOf } from './ruleNames'
import { SCHOOL_NAMES, type School } from './schools'

/** How a player leans to a school. */
export const LEANINGS = ['never', 'less', 'as it comes', 'more'] as const
export type Leaning = (typeof LEANINGS)[number]

/** What a player likes; the numbers go from 0 to 1. */
export interface Taste {
  /** How far from home a change should lie. */
  far: number
  /** How readily chords are added. */
  busy: number
  /** How much the bass should step. */
  bassSteps: number
  schools: Readonly<Record<School, Leaning>>
}

export const DEFAULT_TASTE: Taste = {
  far: 0.25,
  busy: 0.5,
  bassSteps: 0.5,
  schools: Object.fromEntries(SCHOOL_NAMES.map((school) => [school, 'as it comes'])) as Record<
    School,
    Leaning
  >,
}

/** How often the player has kept a change of each rule, by its name. */
export type Liking = Readonly<Record<string, number>>

/**
 * What each part of a player's taste is worth. Nearness to the wanted distance is the measure, 0 to
 * 1; the others are set against it. Common practice, no source.
 */
const WORTH = {
  far: 1,
  /** A chord more than there was, at no liking or full liking for busy playing. */
  added: 0.4,
  /** A bass that steps on both sides, at full liking for steps. */
  bass: 0.4,
  less: -0.3,
  more: 0.3,
  /** Each time a change of the same rule was kept, up to the most. */
  kept: 0.08,
  mostKept: 5,
  /** What players try first at this place; and what nobody there would. */
  usual: 0.9,
  outOfPlace: -1.5,
  /** A special colour, which the player should look for. */
  special: -1.2,
  /** A melody note to avoid, and a sour one. */
  avoid: -0.4,
  sour: -1.5,
} as const

/** Why an option stands where it does in the list: the parts add up to the score. */
export interface Ranked {
  option: ChangeOption
  score: number
  parts: {
    far: number
    busy: number
    bass: number
    school: number
    special: number
    liking: number
    place: number
    melody: number
  }
}

/**
 * How much a player's liking raises a rule, 0 to 0.4. What was kept before rules had names of their
 * own counts for all of its family.
 */
export const likingOf = (rule: string, liking: Liking): number =>
  Math.max(...rulesIn(rule).map((one) => Math.min(WORTH.mostKept, timesKept(one, liking)))) * WORTH.kept

function timesKept(rule: string, liking: Liking): number {
  const family = familyOf(rule)
  const ofFamily = family && FAMILIES[family] !== rule ? (liking[FAMILIES[family]] ?? 0) : 0
  return (liking[rule] ?? 0) + ofFamily
}

/** What leaning to a school is worth; minus infinity for never. */
export const leaningWorth = (rule: string, { schools }: Pick<Taste, 'schools'>): number => {
  const leaning = schools[schoolOf(rule)]
  if (leaning === 'never') return -Infinity
  if (leaning === 'less') return WORTH.less
  if (leaning === 'more') return WORTH.more
  return 0
}

/** The later in the table of places, the less. */
const MOST_USUAL = 10
function placeWorth({ usual, outOfPlace }: ChangeOption): number {
  if (usual !== undefined) return WORTH.usual * (1 - 0.5 * Math.min(1, usual / MOST_USUAL))
  return outOfPlace ? WORTH.outOfPlace : 0
}

const stepsTo = (from: number, to: number): boolean => {
  const up = modulo(to - from, 12)
  const move = Math.min(up, 12 - up)
  return move > 0 && move <= 2
}

/**
 * Options in the order of a player's taste, best first; those of a school never wanted are left
 * out. Equal ones keep the order of the catalogue.
 * @param around bass notes, as pitch classes, of the chords before and behind; null where there is
 *   none
 */
export function rankedByTaste(
  options: readonly ChangeOption[],
  taste: Taste,
  liking: Liking,
  around: (option: ChangeOption) => { before: number | null; behind: number | null },
): Ranked[] {
  return options
    .map((option): Ranked => {
      const { before, behind } = around(option)
      const bassOf = (at: number) => {
        const { chord } = option.puts.at(at)!
        return pitchClass(chord.bass ?? chord.root)
      }
      const steps =
        (before !== null && stepsTo(before, bassOf(0)) ? 0.5 : 0) +
        (behind !== null && stepsTo(bassOf(-1), behind) ? 0.5 : 0)
      const parts = {
        far: WORTH.far * (1 - Math.abs(option.reach - taste.far)),
        busy: WORTH.added * Math.max(0, option.puts.length - option.span) * (2 * taste.busy - 1),
        bass: WORTH.bass * taste.bassSteps * steps,
        school: leaningWorth(option.rule, taste),
        special: option.name === 'special colour' ? WORTH.special : 0,
        liking: likingOf(option.rule, liking),
        place: placeWorth(option),
        melody: option.melody.reduce(
          (sum, { heard }) => sum + (heard === 'sour' || heard === 'avoid' ? WORTH[heard] : 0),
          0,
        ),
      }
      return { option, parts, score: Object.values(parts).reduce((sum, part) => sum + part, 0) }
    })
    .filter(({ score }) => score > -Infinity)
    .sort((a, b) => b.score - a.score)
}
