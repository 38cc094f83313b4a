import { stringNumber } from '../neck/instrument'
import { pitchAt, pitchName, plainSpelling } from '../pitch/note'
import { bad, good, type Result } from '../result'
import type { Constraint } from './constraints'
import { bestLines, differentLines, STOPPED, type LeadProblem, type Line } from './lead'
import { STYLES, weightsFrom, type StyleName, type Weights } from './weights'

export interface StyledProblem extends Omit<LeadProblem, 'weights'> {
  style: StyleName
  /** The player's own weights over those of the style. */
  weights?: Partial<Weights>
  /** Position: the frets the hand stays in; the best five are looked for where none are given. */
  window?: readonly [number, number] | null
  /** Drone: the string that rings open, by index, or the pitch that is held; the best open string is looked for where none is given. */
  drone?: { string: number } | { midi: number } | null
  /** Lines unlike one another, instead of the exact best ones. */
  different?: boolean
}

/** Frets of one position: one for each finger and one to stretch to. */
const POSITION = 5

/** A style made into a problem of the search, with the places that it may be played in; null where it has no place. */
function problemOf({ style, weights, window = null, drone = null, different: _, ...given }: StyledProblem): { problem: LeadProblem; choices: (ChoiceOfStyle | null)[] } {
  const named = STYLES[style]
  const own = 'within' in named ? named.within(given.limits) : given.limits
  // A position that is asked for lies where it was asked for, also beyond the frets that lines are otherwise looked for in.
  const limits = style === 'position' && window ? { ...own, frets: [own.frets[0], Math.max(own.frets[1], window[1])] as const } : own
  const problem: LeadProblem = { ...given, limits, weights: weightsFrom(style, weights) }
  return { problem, choices: style === 'position' ? positions(problem, window) : style === 'drone' ? drones(problem, drone) : [null] }
}

const withChoice = (problem: LeadProblem, choice: ChoiceOfStyle | null): LeadProblem =>
  (choice ? { ...problem, constraints: [...(problem.constraints ?? []), { from: 0, to: problem.chords.length - 1, ...choice } as Constraint] } : problem)

/** The problem where nothing but the grips is open: null where several places have to be compared, or the line leads back to its beginning. */
export function singleProblem(styled: StyledProblem): LeadProblem | null {
  const { problem, choices } = problemOf(styled)
  return choices.length === 1 && !problem.loop ? withChoice(problem, choices[0]!) : null
}

/** Lines in a style: its weights, what its grips keep to, and for one position or a drone the best place for it. */
export function leadInStyle(styled: StyledProblem): Result<Line[]> {
  const lead = styled.different ? differentLines : bestLines
  const { problem, choices } = problemOf(styled)
  if (choices.length === 1) return lead(withChoice(problem, choices[0]!))

  // Several places are possible: the best line of each is compared, and the lines of the best place are given.
  let best: { choice: ChoiceOfStyle | null; cost: number } | null = null
  let fault: Result<Line[]> | null = null
  const stuck: { string: number; chord: number }[] = []
  for (const [at, choice] of choices.entries()) {
    if (problem.onProgress && !problem.onProgress(at, choices.length + 1)) return { ok: false, fault: { code: STOPPED, message: 'The search was stopped.' } }
    const found = bestLines({ ...withChoice(problem, choice), count: 1 })
    if (!found.ok) { fault ??= found; if (choice?.kind === 'open' && found.fault.at !== undefined) stuck.push({ string: choice.string, chord: found.fault.at }) }
    else if (found.value[0] && (!best || found.value[0].cost < best.cost)) best = { choice, cost: found.value[0].cost }
  }
  if (best) return lead(withChoice(problem, best.choice))
  return styled.style === 'drone' && stuck.length > 0 ? noDrone(problem, stuck) : fault ?? good([])
}

/** No open string goes with every chord: for each the first chord that is in its way. */
function noDrone({ chords, limits: { instrument: { tuning } } }: LeadProblem, stuck: readonly { string: number; chord: number }[]): Result<Line[]> {
  const each = stuck.map(({ string, chord }) => `string ${stringNumber(string, tuning.length)} (${pitchName(pitchAt(tuning[string]!, plainSpelling(tuning[string]! % 12)))}) with ${chords[chord]!.canonical}, chord ${chord + 1}`)
  return bad({ code: 'no-drone', message: `No open string can ring through every chord: the hand finds no grip for ${each.join('; ')}.`, accepted: 'chords changed under "Held note, bass line" on the Colour step, a held pitch as the drone, or another style', text: 'style' })
}

type ChoiceOfStyle = { kind: 'frets'; low: number; high: number } | { kind: 'open'; string: number } | { kind: 'sounds'; midi: number }

function positions({ limits }: LeadProblem, window: readonly [number, number] | null): ChoiceOfStyle[] {
  if (window) return [{ kind: 'frets', low: window[0], high: window[1] }]
  const lowest = Math.max(1, limits.frets[0], limits.instrument.capo + 1)
  const last = Math.max(lowest, limits.frets[1] - POSITION + 1)
  return Array.from({ length: last - lowest + 1 }, (_, at) => ({ kind: 'frets', low: lowest + at, high: lowest + at + POSITION - 1 }))
}

function drones({ limits }: LeadProblem, drone: StyledProblem['drone'] | null): ChoiceOfStyle[] {
  if (drone) return ['string' in drone ? { kind: 'open', string: drone.string } : { kind: 'sounds', midi: drone.midi }]
  return limits.instrument.tuning.map((_, string) => ({ kind: 'open', string }))
}
