import { lastOf } from '../lists'
import { modulo } from './note'

/** Two notes joined by a voice, with the signed semitones it moves. */
export interface VoiceStep {
  from: number
  to: number
  semitones: number
}

/**
 * The least total movement, in semitones, from one sounding chord to another over all pairings in
 * which every note of both takes part at least once (Tymoczko, "The Geometry of Musical Chords",
 * Science 313, 2006). On a line crossing never helps, so the best pairing walks both chords upwards
 * together and can be found by dynamic programming.
 * @param a MIDI numbers, lowest first
 * @param b MIDI numbers, lowest first
 */
export function leastMotion(a: readonly number[], b: readonly number[]): number {
  const width = b.length
  const first = a[0]!
  let sum = 0
  for (let j = 0; j < width; j += 1) {
    sum += Math.abs(first - b[j]!)
    row[j] = sum
  }
  for (let i = 1; i < a.length; i += 1) {
    const from = a[i]!
    let diagonal = row[0]!
    let left = diagonal + Math.abs(from - b[0]!)
    row[0] = left
    for (let j = 1; j < width; j += 1) {
      const above = row[j]!
      let best = diagonal < above ? diagonal : above
      if (left < best) best = left
      diagonal = above
      left = best + Math.abs(from - b[j]!)
      row[j] = left
    }
  }
  return row[width - 1]!
}
/**
 * Scratch row of `leastMotion`; grips have at most eight notes, chords given by hand at most 64.
 */
const row = new Float64Array(64)

/** The most notes a chord given to these functions may have. */
export const MOST_NOTES = 64

/**
 * Scratch of `pairing`: a table of costs, and the pairs as places in the two chords, highest first.
 */
const table = new Float64Array(64 * 64)
const PAIRS = { from: new Int16Array(128), to: new Int16Array(128) }

/**
 * The pairing behind `leastMotion` as places in the two chords, highest voices first; of equal
 * pairings the one that keeps voices in order. The pairs stand in scratch arrays until the next
 * call.
 * @returns how many pairs there are
 */
export function pairing(
  a: readonly number[],
  b: readonly number[],
): { count: number; from: Int16Array; to: Int16Array } {
  const width = b.length
  for (let i = 0; i < a.length; i += 1)
    for (let j = 0; j < width; j += 1) {
      const at = i * width + j
      let before = 0
      if (i > 0 || j > 0) {
        before = i > 0 && j > 0 ? table[at - width - 1]! : Infinity
        if (i > 0 && table[at - width]! < before) before = table[at - width]!
        if (j > 0 && table[at - 1]! < before) before = table[at - 1]!
      }
      table[at] = before + Math.abs(a[i]! - b[j]!)
    }
  let [i, j, count] = [a.length - 1, width - 1, 0]
  while (i >= 0 && j >= 0) {
    PAIRS.from[count] = i
    PAIRS.to[count] = j
    count += 1
    if (i === 0 && j === 0) break
    const at = i * width + j
    const diagonal = i > 0 && j > 0 ? table[at - width - 1]! : Infinity
    const up = i > 0 ? table[at - width]! : Infinity
    const left = j > 0 ? table[at - 1]! : Infinity
    if (diagonal <= up && diagonal <= left) {
      i -= 1
      j -= 1
    } else if (up <= left) i -= 1
    else j -= 1
  }
  return { count, ...PAIRS }
}

/**
 * The pairing behind `leastMotion`, lowest voices first; of equal pairings the one that keeps
 * voices in order.
 */
export function voiceSteps(a: readonly number[], b: readonly number[]): VoiceStep[] {
  const { count, from, to } = pairing(a, b)
  return Array.from({ length: count }, (_, at): VoiceStep => {
    const [x, y] = [a[from[count - 1 - at]!]!, b[to[count - 1 - at]!]!]
    return { from: x, to: y, semitones: y - x }
  })
}

/** Shortest way round the circle of twelve from one pitch class to another, -5 to 6. */
const roundTheCircle = (from: number, to: number): number => {
  const up = modulo(to - from, 12)
  return up > 6 ? up - 12 : up
}

/**
 * Least motion between two sets of pitch classes: as `leastMotion`, with every note free to go the
 * shorter way round the octave. Exact, by trying for each note of `a` every set of partners in `b`.
 * @param a pitch classes 0 to 11
 * @param b pitch classes 0 to 11, at most 12
 */
export function leastClassMotion(a: readonly number[], b: readonly number[]): VoiceStep[] {
  const all = (1 << b.length) - 1
  type State = { total: number; steps: VoiceStep[] }
  let states = new Map<number, State>([[0, { total: 0, steps: [] }]])
  for (const from of a) {
    const next = new Map<number, State>()
    const partners = b.map((to) => ({ from, to, semitones: roundTheCircle(from, to) }))
    for (const [covered, state] of states) {
      // A note joins one partner, or everything still uncovered in any combination.
      for (let set = 1; set <= all; set += 1) {
        const steps = partners.filter((_, index) => set & (1 << index))
        const total = state.total + steps.reduce((sum, step) => sum + Math.abs(step.semitones), 0)
        const known = next.get(covered | set)
        if (!known || total < known.total)
          next.set(covered | set, { total, steps: [...state.steps, ...steps] })
      }
    }
    states = next
  }
  return states.get(all)!.steps
}

export type OuterMotion = 'contrary' | 'similar' | 'parallel' | 'oblique'

/** How the lowest and the highest voice move against each other. */
export function outerMotion(a: readonly number[], b: readonly number[]): OuterMotion {
  const bass = b[0]! - a[0]!
  const top = lastOf(b) - lastOf(a)
  if (bass === 0 || top === 0) return 'oblique'
  if (bass === top) return 'parallel'
  return Math.sign(bass) === Math.sign(top) ? 'similar' : 'contrary'
}
