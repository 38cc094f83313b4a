import { entryOf } from '../lists'
import { createEmptyCard, fsrs, Rating, type Card, type Grade as Rated } from 'ts-fsrs'
import type { Grade, Pass } from './grade'

/** Ms of a day; days are counted from 1970, as the player's clock has them. */
export const DAY_MS = 86_400_000

/** The day of a moment, in whole days since 1970-01-01 where the player is. */
export type DayOf = (at: number) => number
/** Days that change at midnight UTC. */
export const utcDay: DayOf = (at) => Math.floor(at / DAY_MS)

/**
 * The library's own published parameters (FSRS 6, retention 0.9), without chance and without steps
 * within a day: what is due is due on a day.
 */
const SCHEDULER = fsrs({ enable_fuzz: false, enable_short_term: false })

/**
 * What a grade says of recall: the player's three words on the library's four. `Easy` is never
 * claimed for them.
 */
const RATED: Readonly<Record<Grade, Rated>> = {
  clean: Rating.Good,
  nearly: Rating.Hard,
  failed: Rating.Again,
}

export interface Recall {
  /** Days on which it was tried. */
  tries: number
  /** The day it is due, in days since 1970; it may be in the past. */
  due: number
  /** Days from the last try until it is due. */
  interval: number
}

/**
 * When something is to be recalled again. The first pass of a day tells what was remembered; those
 * after it are practice, not recall.
 * @param passes of one item, in any order
 * @returns null where it was never tried
 */
export function recallOf(passes: readonly Pick<Pass, 'at' | 'grade'>[], dayOf: DayOf): Recall | null {
  const firsts = new Map<number, Pick<Pass, 'at' | 'grade'>>()
  for (const pass of passes) {
    const day = dayOf(pass.at)
    const known = firsts.get(day)
    if (!known || pass.at < known.at) firsts.set(day, pass)
  }
  const days = [...firsts.keys()].sort((a, b) => a - b)
  const [first] = days
  if (first === undefined) return null
  let card: Card = createEmptyCard(new Date(first * DAY_MS))
  for (const day of days)
    card = SCHEDULER.next(card, new Date(day * DAY_MS), RATED[entryOf(firsts, day).grade]).card
  return {
    tries: days.length,
    due: Math.round(card.due.getTime() / DAY_MS),
    interval: card.scheduled_days,
  }
}
