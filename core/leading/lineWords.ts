import { firstOf, itemAt, lastOf, theOne } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { FINGER_NAMES } from '../neck/hand'
import { noteName, type Note } from '../pitch/note'
import { voiceSteps, type VoiceStep } from '../pitch/motion'
import type { Voicing } from '../voicing/voicing'
import type { Line } from './line'

/** Grips whose difficulty is this much above the mean of their line are said to be hard. */
const HARD = 1.5
/** A top note held through so many chords is said. */
const LONG = 3

/**
 * What a line is good at, and where it asks something, beside the others found with it. Two or
 * three short sentences.
 */
export function lineInWords(line: Line, others: readonly Line[]): string[] {
  const words: string[] = []
  const least = (of: (one: Line) => number) =>
    others.length > 1 && others.every((one) => one === line || of(one) > of(line))
  if (least((one) => one.cost)) words.push('the best on the whole')
  if (least((one) => one.measures.idiom)) words.push('the grips players know best')
  if (least((one) => one.measures.upper)) words.push('least motion above the bass')
  if (least((one) => one.measures.motion)) words.push('least motion of these')
  if (least((one) => one.measures.hand)) words.push('the hand travels least')
  if (least((one) => one.measures.grip)) words.push('the easiest grips')
  const contrary = line.steps.filter(({ outer }) => outer === 'contrary').length
  if (line.steps.length >= 3 && contrary * 2 > line.steps.length)
    words.push(`bass and top in contrary motion in ${contrary} of ${line.steps.length} steps`)
  const held = longestTop(line.voicings)
  if (held.length >= LONG) words.push(`holds ${held.name} on top for ${held.length} chords`)
  const stepwise = line.voicings
    .slice(1)
    .filter(
      (voicing, at) => Math.abs(firstOf(voicing.midis) - firstOf(itemAt(line.voicings, at).midis)) <= 2,
    ).length
  if (line.steps.length >= 3 && stepwise * 3 >= line.steps.length * 2)
    words.push(`the bass steps or stays in ${stepwise} of ${line.steps.length}`)
  const mean = line.measures.grip / line.voicings.length
  const hard = line.voicings
    .map((voicing, at) => ({ at, effort: voicing.fingering.difficulty, voicing }))
    .filter(({ effort }) => effort > mean + HARD)
    .sort((a, b) => b.effort - a.effort)[0]
  if (hard) words.push(`works hardest in chord ${hard.at + 1}${whatWorks(hard.voicing)}`)
  return words.length > 0
    ? words
    : [`${line.steps.reduce((sum, step) => sum + step.held, 0)} notes held on the way`]
}

function whatWorks({ fingering }: Voicing): string {
  const [part] = firstOf(Object.entries(fingering.parts).sort((a, b) => b[1] - a[1]))
  if (part === 'barre') return ', a barre'
  if (part === 'stretch') {
    const last = fingering.presses.at(-1)
    return last
      ? `, a stretch of ${Math.round(fingering.reachMm)} mm to the ${FINGER_NAMES[last.finger]}`
      : ''
  }
  return ''
}

function longestTop(voicings: readonly Voicing[]): { length: number; name: string } {
  let best = { length: 0, name: '' }
  let length = 0
  voicings.forEach((voicing, at) => {
    const top = lastOf(voicing.midis)
    length = at > 0 && itemAt(voicings, at - 1).midis.at(-1) === top ? length + 1 : 1
    if (length > best.length) best = { length, name: noteName(noteOf(voicing, top)) }
  })
  return best
}

const noteOf = (voicing: Voicing, midi: number): Note =>
  theOne(voicing.strings, (one) => one.midi === midi).note
const degreeOf = (voicing: Voicing, midi: number): string =>
  theOne(voicing.strings, (one) => one.midi === midi).degree

const SIZES: Readonly<Record<number, string>> = {
  1: 'a half step',
  2: 'a whole step',
  3: 'a minor third',
  4: 'a major third',
  5: 'a fourth',
  6: 'a tritone',
  7: 'a fifth',
  12: 'an octave',
}

/**
 * What each voice does from one grip to the next, from the highest down: `C stays; F falls a half
 * step to E, the 3`.
 */
export function stepInWords(from: Voicing, to: Voicing): string {
  const name = (voicing: Voicing, midi: number) => noteName(noteOf(voicing, midi))
  const say = ({ from: a, to: b, semitones }: VoiceStep) => {
    if (semitones === 0) return `${name(from, a)} stays, now the ${degreeOf(to, b)}`
    return `${name(from, a)} ${semitones < 0 ? 'falls' : 'rises'} ${SIZES[Math.abs(semitones)] ?? `${Math.abs(semitones)} half steps`} to ${name(to, b)}, the ${degreeOf(to, b)}`
  }
  return [...voiceSteps([...new Set(from.midis)], [...new Set(to.midis)])].reverse().map(say).join('; ')
}

export interface HardSpot {
  /** Index of the chord. */
  index: number
  effort: number
  chord: ChordSymbol
}

/**
 * The chords of a line by what they ask of the hand, the hardest first; getting there counts as
 * well as holding.
 */
export function hardestSpots(line: Line, chords: readonly ChordSymbol[], count: number): HardSpot[] {
  const travel = (at: number) => (at > 0 ? itemAt(line.steps, at - 1).hand / TRAVEL_MM : 0)
  return line.voicings
    .map((voicing, index) => ({
      index,
      chord: itemAt(chords, index),
      effort: voicing.fingering.difficulty + travel(index),
    }))
    .sort((a, b) => b.effort - a.effort || a.index - b.index)
    .slice(0, count)
}
/**
 * Hand travel that weighs as much as one point of difficulty: about two frets in the middle of the
 * neck.
 */
export const TRAVEL_MM = 50

/** How colourful a line is: tensions that sound, on average for each of its chords. */
export const colourOf = ({ voicings }: Line): number =>
  voicings.reduce(
    (sum, { strings }) =>
      sum + new Set(strings.map(({ degree }) => degree).filter((degree) => COLOURS.has(degree))).size,
    0,
  ) / Math.max(1, voicings.length)
const COLOURS: ReadonlySet<string> = new Set([
  'b9',
  '9',
  '#9',
  '11',
  '#11',
  'b5',
  '#5',
  'b13',
  '13',
  '6',
  '4',
  '2',
])
