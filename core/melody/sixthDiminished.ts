import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { hasDegree } from '../chord/symbol'
import { bestLines } from '../leading/lead'
import { type Line } from '../leading/line'
import { weightsFrom } from '../leading/weights'
import { spellDegree, type Degree } from '../pitch/degree'
import { midiOf, noteName, type Note } from '../pitch/note'
import { bad, must, type Result } from '../result'
import type { Family } from '../voicing/family'
import type { Limits } from '../voicing/gripLimits'

/**
 * The eight steps: a sixth chord and the diminished seventh a half step under its root, turn by
 * turn (common practice, no source).
 */
const STEPS: Readonly<Record<'major' | 'minor', readonly Degree[]>> = {
  major: ['1', '9', '3', '11', '5', 'b13', '13', '7'],
  minor: ['1', '9', 'b3', '11', '5', 'b13', '13', '7'],
}

export interface ScaleStep {
  /** The note of the scale, which is on top. */
  note: Note
  chord: ChordSymbol
}

/** The sixth-diminished scale of a major or minor chord: every step with its chord. */
export function sixthDiminishedScale(chord: ChordSymbol): Result<ScaleStep[]> {
  const minor = hasDegree(chord, 'b3') && !hasDegree(chord, 'b5')
  if (!minor && !(hasDegree(chord, '3') && !hasDegree(chord, 'b7') && !hasDegree(chord, '#5')))
    return bad({
      code: 'bad-field',
      message: `${chord.canonical} has no sixth-diminished scale.`,
      accepted: 'a major or minor chord such as C6 or Am6',
      text: 'chord',
    })
  const sixth = must(parseChord(`${noteName(chord.root)}${minor ? 'm6' : '6'}`))
  return {
    ok: true,
    value: STEPS[minor ? 'minor' : 'major'].map((degree, step) => {
      const note = spellDegree(chord.root, degree)
      return {
        note,
        chord: step % 2 === 0 ? sixth : must(parseChord(`${noteName(spellDegree(chord.root, '7'))}dim7`)),
      }
    }),
  }
}

/**
 * Four neighbouring strings, the highest of which has the scale, and how four voices lie on them:
 * the usual first.
 */
const SETS = [2, 1, 0] as const
const LAYOUTS: readonly Family[] = ['drop 2', 'close']

/**
 * All four tones of each step in one layout on one set of strings, the scale going up on the
 * highest; null where the neck has no room for that.
 */
function onOneSet(steps: readonly ScaleStep[], limits: Limits): Line | null {
  const { tuning } = limits.instrument
  for (const families of LAYOUTS)
    for (const octave of OCTAVES)
      for (const from of SETS) {
        const strings = Array.from({ length: 4 }, (_, at) => tuning.length - 6 + from + at).filter(
          (string) => string >= 0,
        )
        if (strings.length < 4) continue
        const lines = bestLines({
          chords: steps.map((step) => step.chord),
          limits: { ...limits, bass: 'any', notes: [4, 4], strings, families: [families] },
          weights: weightsFrom('smooth', {}, 'any'),
          count: 1,
          constraints: topsFrom(steps, octave).map((midi, at) => ({
            from: at,
            to: at,
            kind: 'top' as const,
            midi,
          })),
        })
        if (lines.ok && lines.value[0]) return lines.value[0]
      }
  return null
}

function topsFrom(steps: readonly ScaleStep[], octave: number): number[] {
  let last = -Infinity
  return steps.map(({ note }) => {
    let midi = midiOf({ ...note, octave })
    while (midi <= last) midi += 12
    last = midi
    return midi
  })
}

/** Octaves in which the scale is looked for on top of the grips, the usual one first. */
const OCTAVES = [4, 3, 5]

/**
 * One grip for each step of the scale, the scale going up on top, led as smoothly as the hand
 * allows.
 */
export function harmonisedSixthDiminished(
  chord: ChordSymbol,
  limits: Limits,
): Result<{ steps: ScaleStep[]; line: Line }> {
  const steps = sixthDiminishedScale(chord)
  if (!steps.ok) return steps
  const four: Limits = {
    ...limits,
    bass: 'any',
    notes: [Math.min(4, limits.notes[1]), Math.min(4, limits.notes[1])],
  }
  // From the tonic up where the neck has room for that; else from the step with which it has.
  if (limits.strings === null && limits.families === null)
    for (let from = 0; from < steps.value.length; from += 1) {
      const turned = [...steps.value.slice(from), ...steps.value.slice(0, from)]
      const line = onOneSet(turned, limits)
      if (line) return { ok: true, value: { steps: turned, line } }
    }
  let fault: Result<never> | null = null
  for (const octave of OCTAVES) {
    const tops = topsFrom(steps.value, octave)
    const lines = bestLines({
      chords: steps.value.map((step) => step.chord),
      limits: four,
      weights: weightsFrom('smooth'),
      count: 1,
      constraints: tops.map((midi, at) => ({ from: at, to: at, kind: 'top' as const, midi })),
    })
    if (lines.ok && lines.value[0]) return { ok: true, value: { steps: steps.value, line: lines.value[0] } }
    if (!lines.ok) fault ??= lines
  }
  return (
    fault ??
    bad({
      code: 'no-grip',
      message: `No hand holds the scale of ${chord.canonical} within these limits.`,
      accepted: 'wider frets, reach or notes',
      text: 'limits',
    })
  )
}
