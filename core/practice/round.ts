import { itemAt } from '../lists'
import type { Grade } from './grade'

/**
 * One pass driven by one key: a press begins it, its end asks how it was, and the presses that come
 * together then are the grade: one clean, two nearly, three failed. A press while it sounds ends it
 * early: what was cut short was no clean pass, and one press says nearly then, two failed.
 */
export type Round =
  | { at: 'ready' }
  | { at: 'playing' }
  | { at: 'asked'; presses: number; /** It ended before its last beat. */ cut: boolean }

export const READY: Round = { at: 'ready' }
/** Presses that follow one another within this time belong together, in ms. */
export const TOGETHER_MS = 1_200

const BY_PRESSES: readonly Grade[] = ['clean', 'nearly', 'failed']

/** @param cut what sounds has not come to its end */
export function pressed(round: Round, cut: boolean): Round {
  switch (round.at) {
    case 'ready':
      return { at: 'playing' }
    case 'playing':
      return { at: 'asked', presses: 0, cut }
    case 'asked':
      return { ...round, presses: round.presses + 1 }
  }
}

/** What sounded has ended. @param cut before its last beat */
export const ended = (round: Round, cut: boolean): Round =>
  round.at === 'playing' ? { at: 'asked', presses: 0, cut } : round

/** The grades that a pass can have now. */
export const gradesOf = (round: Round): readonly Grade[] =>
  round.at === 'asked' ? BY_PRESSES.filter((grade) => grade !== 'clean' || !round.cut) : []

/**
 * The grade of the presses so far; more than there are grades are the last; null before the first
 * one.
 */
export function gradeOf(round: Round): Grade | null {
  const grades = gradesOf(round)
  return round.at === 'asked' && round.presses > 0
    ? itemAt(grades, Math.min(round.presses, grades.length) - 1)
    : null
}
