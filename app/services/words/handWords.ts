import type { DifficultyParts } from '../../../core/neck/difficulty'

/**
 * Where each way of saying how hard something is to hold begins, on the scale of the hand model (0
 * is nothing at all). Common practice, no source.
 */
const HOLD: readonly (readonly [number, string])[] = [
  [0, 'easy'],
  [3, 'moderate'],
  [4.5, 'demanding'],
  [6.5, 'hard'],
]

/** How hard a grip, or the grips of a line on average, are to hold, in a word. */
export const holdInWords = (difficulty: number): string =>
  HOLD.findLast(([begins]) => difficulty >= begins)![1]

/** Names of what makes a grip hard, and of the most a filter lets through. */
export const MOST_TO_HOLD = [
  ['1.5', 'very easy'],
  ['3', 'easy'],
  ['4.5', 'moderate'],
  ['6.5', 'demanding'],
] as const

const PARTS: Readonly<Record<keyof DifficultyParts, string>> = {
  fingers: 'fingers to set down',
  stretch: 'stretch',
  placement: 'fingers off their frets',
  barre: 'barre',
  mutes: 'muted strings in between',
  thumb: 'thumb',
}
/** Parts named. */
const PARTS_SAID = 2
/** What of a grip costs the hand most, the worst first. */
export const hardPartsInWords = (parts: Readonly<DifficultyParts>): string =>
  (Object.keys(PARTS) as (keyof DifficultyParts)[])
    .filter((part) => parts[part] > 0.4)
    .sort((a, b) => parts[b] - parts[a])
    .slice(0, PARTS_SAID)
    .map((part) => PARTS[part])
    .join(', ')

/**
 * Where each way of saying how hard a chord melody is begins, in effort a note. Common practice, no
 * source.
 */
const PLAY: readonly (readonly [number, string])[] = [
  [0, 'easy'],
  [1.5, 'moderate'],
  [2.5, 'demanding'],
  [4, 'hard'],
]

/** How hard a chord melody is for the hand, a note on average: grips and the way between them. */
export const effortInWords = (effort: number): string =>
  `${PLAY.findLast(([begins]) => effort >= begins)![1]} for the hand`

/** Melody notes without a chord. */
export const aloneInWords = (count: number): string =>
  count === 0 ? '' : `, ${count} ${count === 1 ? 'note' : 'notes'} without a chord`

/** Movement of voices, in half steps. */
export const halfSteps = (count: number): string => `${count} half ${count === 1 ? 'step' : 'steps'}`
