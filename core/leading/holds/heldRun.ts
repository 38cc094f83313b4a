import { chordScale } from '../../analysis/scales'
import type { Role } from '../../analysis/role'
import type { ChordSymbol } from '../../chord/symbol'
import { itemAt, lastOf } from '../../lists'
import type { Key } from '../../pitch/key'
import { pitchClass } from '../../pitch/note'
import type { Limits } from '../../voicing/gripLimits'
import type { SoundingGrip, Voicing } from '../../voicing/voicing'
import { constrained } from '../constraints'
import { voicingsOf } from '../../voicing/enumerate'
import { isPlayedByPlayers } from '../../voicing/gripIdiom'
import { gripMeasures } from '../measures'
import { lineOf } from '../line'
import { weightsOf } from '../lineProblem'
import { bestPaths } from '../search'
import type { Layer, TopGoes } from '../searchStage'
import { weightsFrom } from '../weights'
import type { Hold } from './hold'

/** A chord that lasts, or two in turn, step by step. */
export interface HeldRun {
  chords: readonly ChordSymbol[]
  /** What the chords do where they stand. */
  roles: readonly (Role | undefined)[]
  hold: Hold
  limits: Limits
  /** Decides flats or sharps. */
  key: Key | null
}

/** The one chord of a run; null for a vamp of two. */
export const onlyChord = ({ chords }: HeldRun): ChordSymbol | null =>
  chords.every(({ canonical }) => canonical === chords[0]?.canonical) ? (chords[0] ?? null) : null

/** The notes a chord's grips may sound in its place: its scale; its own tones where it has none. */
export function placeScale(chord: ChordSymbol, role: Role | undefined): readonly ChordSymbol['root'][] {
  const scale = role ? chordScale(chord, role) : null
  return scale?.notes ?? chord.tones.map(({ note }) => note)
}

/** Voices of a grip that is led through its inversions: three of a triad, else four. */
const voicesOf = ({ tones }: ChordSymbol): 3 | 4 => (tones.length <= 3 ? 3 : 4)

/**
 * Sets of strings that a ladder may stay on: neighbouring ones, the highest first; above a drone
 * those that are higher than it.
 */
export function stringSets({ hold, limits, chords }: HeldRun, voices?: number): number[][] {
  const strings = limits.instrument.tuning.length
  const { drone } = hold
  if (hold.strings) {
    const set = new Set(drone === undefined ? hold.strings : [...hold.strings, drone])
    return [[...set].sort((a, b) => a - b)]
  }
  const size = voices ?? (drone === undefined ? Math.max(...chords.map(voicesOf)) : 3)
  const lowest = drone === undefined ? 0 : drone + 1
  const sets: number[][] = []
  for (let top = strings - 1; top - size + 1 >= lowest; top -= 1) {
    const set = Array.from({ length: size }, (_, at) => top - size + 1 + at)
    sets.push(drone === undefined ? set : [drone, ...set])
  }
  // A high string that rings lies above what moves.
  if (sets.length === 0 && drone !== undefined)
    for (let top = drone - 1; top - size + 1 >= 0; top -= 1)
      sets.push([...Array.from({ length: size }, (_, at) => top - size + 1 + at), drone])
  return sets
}

/** Grips of a chord that sound on every string of a set, no tone of them twice but the drone's. */
export function gripsOn(set: readonly number[], chord: ChordSymbol, { hold, limits }: HeldRun): Voicing[] {
  const { drone } = hold
  const within: Limits = {
    ...limits,
    bass: 'any',
    strings: set,
    notes: [Math.min(set.length, voicesOf(chord) + (drone === undefined ? 0 : 1)), set.length],
    families: null,
    open: drone !== undefined || limits.open,
  }
  const clear = ({ strings, frets }: SoundingGrip) => {
    const moving = strings.filter(({ string }) => string !== drone)
    return (
      new Set(moving.map(({ midi }) => midi % 12)).size === moving.length &&
      // Beside a drone no other string rings by chance.
      moving.every(({ string }) => frets[string] !== 0) &&
      isUnbroken(moving.map(({ string }) => string))
    )
  }
  return constrained(
    chord,
    within,
    drone === undefined ? [] : [{ kind: 'open', string: drone, from: 0, to: 0 }],
    clear,
  )
}

const isUnbroken = (strings: readonly number[]): boolean =>
  strings.every((string, at) => at === 0 || string === itemAt(strings, at - 1) + 1)

/**
 * The cheapest way through some grips of the chords in which the top goes where it has to; null
 * where there is none.
 */
export function searchedLadder(
  run: HeldRun,
  chords: readonly ChordSymbol[],
  gripsFor: (chord: ChordSymbol) => Voicing[],
  tops: readonly (TopGoes | null)[],
): { voicings: Voicing[]; cost: number } | null {
  const known = new Map<string, Voicing[]>()
  const layers = chords.map((chord, at): Layer => {
    const grips = known.get(chord.canonical) ?? gripsFor(chord)
    known.set(chord.canonical, grips)
    const topGoes = tops[at]
    return { chord, voicings: grips, only: 'held', ...(topGoes ? { topGoes } : {}) }
  })
  const [path] = bestPaths(layers, ladderPrices(run, 'any').weights, run.limits.instrument, 1) ?? []
  if (!path || path.cost === Infinity) return null
  const voicings = path.indexes.map((index, at) => itemAt(itemAt(layers, at).voicings, index))
  return { voicings, cost: ladderCost(run, voicings, chords) }
}

/**
 * The prices of a smooth line. What climbs does so above somebody's bass or its own drone, so that
 * its lowest note is no bass; a grip that stays has the bass that the player's grips have.
 */
const ladderPrices = ({ limits }: HeldRun, over: 'any' | 'own bass') => {
  const within = { ...limits, bass: over === 'any' ? over : limits.bass }
  return {
    limits: within,
    weights: weightsOf({ weights: weightsFrom('smooth', {}, within.bass), limits: within }),
  }
}

/** What a row of grips costs by the prices of every line. */
export const ladderCost = (
  run: HeldRun,
  voicings: readonly Voicing[],
  chords: readonly ChordSymbol[],
  over: 'any' | 'own bass' = 'any',
): number => lineOf([...voicings], { chords, ...ladderPrices(run, over) }).cost

export const highestOf = ({ midis }: Voicing): number => lastOf(midis)

/** Whether everything a grip sounds is among some notes, but for a string that rings on. */
export const soundsWithin = (
  { strings }: Voicing,
  notes: readonly ChordSymbol['root'][],
  drone?: number,
): boolean =>
  strings.every(
    ({ midi, string }) => string === drone || notes.some((note) => pitchClass(note) === midi % 12),
  )

/** Grips considered for each line, the most usual first. */
const MOST_GRIPS = 60

/** Grips that players hold a chord with, easiest and most usual first. */
export function usualGrips(chord: ChordSymbol, { hold, limits }: HeldRun): Voicing[] {
  const { instrument } = limits
  const within = { ...limits, bass: 'any' as const, strings: hold.strings ?? limits.strings, families: null }
  const price = (voicing: Voicing) => {
    const { grip, idiom, fullness, register, open } = gripMeasures(voicing, chord, instrument)
    return grip + 2 * idiom + 3 * fullness + 0.3 * register + open
  }
  return voicingsOf(
    chord,
    within,
    (grip) =>
      isPlayedByPlayers(grip, chord, instrument) &&
      (hold.drone === undefined || grip.frets[hold.drone] === 0),
  )
    .map((voicing) => ({ voicing, cost: price(voicing) }))
    .sort((a, b) => a.cost - b.cost)
    .slice(0, MOST_GRIPS)
    .map(({ voicing }) => voicing)
}
