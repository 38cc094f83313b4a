import type { Grade } from './grade'

/**
 * One pass driven by one key: a press begins it, its end asks how it was, and the presses that come together then are the grade: one clean, two nearly, three
 * failed. A press while it sounds ends it early.
 */
export type Round = { at: 'ready' } | { at: 'playing' } | { at: 'asked'; presses: number }

export const READY: Round = { at: 'ready' }
/** Presses that follow one another within this time belong together, in ms. */
export const TOGETHER_MS = 1_200

const BY_PRESSES: readonly Grade[] = ['clean', 'nearly', 'failed']

export function pressed(round: Round): Round {
  switch (round.at) {
    case 'ready':
      return { at: 'playing' }
    case 'playing':
      return { at: 'asked', presses: 0 }
    case 'asked':
      return { at: 'asked', presses: round.presses + 1 }
  }
}

/** What sounded has ended. */
export const ended = (round: Round): Round => (round.at === 'playing' ? { at: 'asked', presses: 0 } : round)

/** The grade of the presses so far; more than three are three; null before the first one. */
export const gradeOf = (round: Round): Grade | null =>
  round.at === 'asked' && round.presses > 0
    ? BY_PRESSES[Math.min(round.presses, BY_PRESSES.length) - 1]!
    : null
