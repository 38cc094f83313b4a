import { itemAt } from '../lists'
import { homeKey } from '../analysis/analyse'
import type { Chart } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { printChart } from '../chart/print'
import { keyAbove, transposeSymbol, transposeText } from '../chart/transpose'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { STOPPED } from '../leading/lead'
import { handPlace, handTravelMm } from '../leading/measures'
import { TRAVEL_MM } from '../leading/lineWords'
import type { Key } from '../pitch/key'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/gripLimits'
import { harmonise } from './harmonise'
import type { HarmonisedLine, HarmonisedNote, HarmoniseProblem, LinePlace } from './melodyLine'
import { byOctaves, melodyInKey, octavesToSing } from './melody'

/**
 * What a chord melody asks of the hand for each of its notes: difficulty of the grips that are set
 * down, and the travel between them.
 */
export function handEffort(
  notes: readonly HarmonisedNote[],
  { instrument }: Pick<Limits, 'instrument'>,
): number {
  if (notes.length === 0) return 0
  const hands = notes.map(({ voicing }) => handPlace(voicing, instrument))
  const sum = notes.reduce(
    (all, { voicing, under }, at) =>
      all +
      (under === 'held' ? 0 : voicing.fingering.difficulty) +
      (at > 0 ? handTravelMm(itemAt(hands, at - 1), itemAt(hands, at)) / TRAVEL_MM : 0),
    0,
  )
  return sum / notes.length
}

/** The same melody somewhere else on the neck. */
export interface MovedMelody {
  /** In words: `frets 5 to 10`, `highest note on string 2`, `an octave lower`. */
  where: string
  window: readonly [number, number] | null
  /** Strings in use, by index; null for all. */
  strings: readonly number[] | null
  octaves: number
  line: HarmonisedLine
  effort: number
  /** Melody notes that stand alone there. */
  alone: number
}

/**
 * Frets of a position for a chord melody: one for each finger and a stretch on both sides, or more
 * where the melody needs them.
 */
const POSITIONS = [6, 8, 10] as const
/** The lowest frets of the positions tried. */
const STEP = 2

const alone = ({ notes }: HarmonisedLine): number =>
  notes.filter(({ kind, chord }) => kind === 'single note' && chord !== null).length

/**
 * The same melody in other positions, on lower strings, and in other registers, each led as well as
 * it can be, the easiest for the hand first. Places where it cannot be played are left out.
 */
export function elsewhere(problem: HarmoniseProblem): Result<MovedMelody[]> {
  const { limits, onProgress = () => true } = problem
  const lowest = Math.max(1, limits.instrument.capo + 1, limits.frets[0])
  const tries: (Pick<MovedMelody, 'where' | 'window' | 'strings' | 'octaves'> & { low: number | null })[] = []
  for (let low = lowest; low + POSITIONS[0] - 1 <= limits.frets[1]; low += STEP)
    for (const high of new Set(POSITIONS.map((wide) => Math.min(limits.frets[1], low + wide - 1))))
      tries.push({ where: `frets ${low} to ${high}`, window: [low, high], strings: null, octaves: 0, low })
  const count = limits.instrument.tuning.length
  for (const string of [2, 3])
    tries.push({
      where: `melody on string ${string} and lower`,
      window: null,
      strings: Array.from({ length: count - string + 1 }, (_, at) => at),
      octaves: 0,
      low: null,
    })
  for (const octaves of [-1, 1])
    tries.push({
      where: octaves < 0 ? 'an octave lower' : 'an octave higher',
      window: null,
      strings: null,
      octaves,
      low: null,
    })
  const found: MovedMelody[] = []
  const placed = new Set<number>()
  for (const [at, { low, ...one }] of tries.entries()) {
    if (!onProgress(at, tries.length))
      return found.length > 0
        ? good(inOrder(found))
        : bad({ code: STOPPED, message: 'The search was stopped.' })
    // The narrowest position in which it can be played at all stands for its place.
    if (low !== null && placed.has(low)) continue
    const within: Limits = {
      ...limits,
      ...(one.window ? { frets: one.window, open: limits.open } : {}),
      ...(one.strings ? { strings: one.strings } : {}),
    }
    const moved = harmonise({
      ...problem,
      limits: within,
      melody: byOctaves(problem.melody, one.octaves),
      count: 1,
      fixed: new Map(),
      onProgress: () => true,
    })
    const line = moved.ok ? moved.value[0] : undefined
    if (line && low !== null) placed.add(low)
    if (line) found.push({ ...one, line, effort: handEffort(line.notes, limits), alone: alone(line) })
  }
  return good(inOrder(found))
}

const inOrder = <T extends { effort: number; alone: number }>(list: T[]): T[] =>
  list.sort((a, b) => a.effort + a.alone - (b.effort + b.alone))

/** A chord melody in another key. */
export interface InKey {
  key: Key
  /** From the key it stands in, -5 to 6. */
  semitones: number
  /** Octaves the melody was moved besides, so that it stays where the guitar sings. */
  octaves: number
  line: HarmonisedLine
  effort: number
  alone: number
}

/**
 * The tune in all twelve keys, the easiest for the hand first; keys in which a note cannot be
 * played are left out.
 */
export function keysRanked(problem: HarmoniseProblem, key: Key = homeKey(problem.chart)): Result<InKey[]> {
  const { chart, melody, places, limits, onProgress = () => true } = problem
  const text = printChart(chart)
  const found: InKey[] = []
  for (let step = 0; step < 12; step += 1) {
    if (!onProgress(step, 12))
      return found.length > 0
        ? good(inOrder(found))
        : bad({ code: STOPPED, message: 'The search was stopped.' })
    const semitones = step > 6 ? step - 12 : step
    const goal = step === 0 ? key : keyAbove(key, semitones)
    const turned: Chart = step === 0 ? chart : parseChart(transposeText(text, key, goal))
    const sung = step === 0 ? [...melody] : melodyInKey(melody, key, goal, semitones)
    const octaves = octavesToSing(sung, limits)
    const moved = harmonise({
      ...problem,
      chart: turned,
      melody: byOctaves(sung, octaves),
      ...(places ? { places: places.map((place) => inOther(place, key, goal)) } : {}),
      count: 1,
      fixed: new Map(),
      onProgress: () => true,
    })
    const line = moved.ok ? moved.value[0] : undefined
    if (line)
      found.push({
        key: goal,
        semitones,
        octaves,
        line,
        effort: handEffort(line.notes, limits),
        alone: alone(line),
      })
  }
  return good(inOrder(found))
}

function inOther(place: LinePlace, from: Key, to: Key): LinePlace {
  if (!place.chord) return place
  const read = parseChord(transposeSymbol(place.chord.canonical, from, to))
  const chord: ChordSymbol | null = read.ok ? read.value : null
  return { ...place, chord }
}
