import { TEMPO_RANGE } from '../chart/parseChart'
import type { Grade } from './grade'

/**
 * How far a ladder climbs and falls, as shares of the tempo. Common practice, no source: a few per
 * cent, so that no step is felt.
 */
export const RUNGS = {
  /** Up after a clean pass. */
  up: 0.05,
  /** Up while a failed pass is among the last CAREFUL ones: more slowly where it was too much. */
  upCarefully: 0.025,
  careful: 3,
  /** Back after a failed pass: more than was climbed, so that the next one is clean. */
  back: 0.08,
  /** Back after so many passes in a row that were only nearly clean. */
  backNearly: 0.04,
  nearly: 3,
  /** Never further back than this share of where it began. */
  lowest: 0.5,
} as const

export interface Climb {
  /** Beats a minute. */
  start: number
  goal: number
  passes: readonly Grade[]
}

export interface Rung {
  /** Tempo of the next pass: a whole number, or the goal. */
  tempo: number
  /** The last pass was clean at the goal. */
  done: boolean
  why: string
}

/**
 * The tempo of the next pass. Never above the goal; a clean pass never lowers it, a failed one
 * never raises it; the same passes always give the same tempo.
 */
export function nextRung({ start, goal, passes }: Climb): Rung {
  const begin = Math.min(start, goal)
  const lowest = Math.min(begin, Math.max(TEMPO_RANGE[0], Math.round(begin * RUNGS.lowest)))
  let rung: Rung = {
    tempo: begin,
    done: false,
    why:
      start > goal
        ? `Begins at the goal, ${said(goal)}: you are at ease above it.`
        : `Begins at ${said(begin)}, where it is at ease.`,
  }
  let nearly = 0
  passes.forEach((grade, at) => {
    nearly = grade === 'nearly' ? nearly + 1 : 0
    const recent = passes.slice(Math.max(0, at - RUNGS.careful), at)
    rung = stepped(rung, grade, {
      goal,
      lowest,
      careful: recent.includes('failed'),
      tired: nearly > 0 && nearly % RUNGS.nearly === 0,
    })
  })
  return rung
}

function stepped(
  { tempo }: Rung,
  grade: Grade,
  { goal, lowest, careful, tired }: { goal: number; lowest: number; careful: boolean; tired: boolean },
): Rung {
  if (grade === 'clean') {
    if (tempo >= goal) return { tempo: goal, done: true, why: `Clean at the goal, ${said(goal)}.` }
    const next = Math.min(goal, above(tempo, careful ? RUNGS.upCarefully : RUNGS.up))
    const why =
      next === goal
        ? `Clean: now the goal, ${said(goal)}.`
        : `Clean at ${said(tempo)}: up to ${said(next)}${careful ? ', in small steps after the fall' : ''}.`
    return { tempo: next, done: false, why }
  }
  if (grade === 'failed') {
    const next = back(tempo, RUNGS.back, lowest)
    return {
      tempo: next,
      done: false,
      why: next < tempo ? `Failed at ${said(tempo)}: back to ${said(next)}.` : LOWEST,
    }
  }
  if (!tired) return { tempo, done: false, why: `Nearly: ${said(tempo)} once more, until it is clean.` }
  const next = back(tempo, RUNGS.backNearly, lowest)
  return {
    tempo: next,
    done: false,
    why: next < tempo ? `Nearly ${RUNGS.nearly} times in a row: a little back, to ${said(next)}.` : LOWEST,
  }
}

const LOWEST = 'This is as slow as it gets: take fewer bars, or an easier grip.'
const said = (tempo: number): string => String(Math.round(tempo * 10) / 10)
/** At least one beat a minute more, in whole numbers. */
const above = (tempo: number, share: number): number =>
  Math.max(Math.floor(tempo) + 1, Math.round(tempo * (1 + share)))
const back = (tempo: number, share: number, lowest: number): number =>
  Math.min(tempo, Math.max(lowest, Math.min(Math.ceil(tempo) - 1, Math.round(tempo * (1 - share)))))
