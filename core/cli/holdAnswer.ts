import type { z } from 'zod'
import { analyse } from '../analysis/analyse'
import type { Chart } from '../chart/chart'
import { holdLines, type HoldLine } from '../leading/holds/holdLines'
import { holdSteps, type Hold, type HoldStep } from '../leading/holds/hold'
import type { StyledProblem } from '../leading/inStyle'
import { itemAt } from '../lists'
import { soundAt } from '../neck/instrument'
import { pitchClass } from '../pitch/note'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/gripLimits'
import type { Answer } from './answersTo'
import { lineAnswer, tidy } from './parts'
import type { holdField, LimitsInput } from './requestFields'

type HoldAsked = z.output<typeof holdField>

/** Frets that a chord that lasts may climb to where the request does not say. */
const HOLD_FRETS = 15

export const withHoldFrets = (input: LimitsInput | undefined): LimitsInput => ({
  ...input,
  frets: input?.frets ?? [0, HOLD_FRETS + (input?.capo ?? 0)],
})

/** `lead` with chords that last: a grip for each step of them. */
export function heldAnswer(chart: Chart, asked: HoldAsked, problem: StyledProblem): Result<Answer> {
  const { limits } = problem
  if ((problem.constraints ?? []).length > 0)
    return bad({
      code: 'bad-field',
      message: 'A melody has the highest note, and so has a chord that lasts.',
      accepted: 'melody or hold, not both',
      text: 'hold',
    })
  const analysis = analyse(chart)
  const readings = analysis.readings.filter(({ slot }) => slot.symbol?.kind === 'chord')
  const steps = holdSteps(chart, asked.every)
  const hold = holdFrom(asked, limits, steps)
  if (!hold.ok) return hold
  const { fixed, times } = problem
  const ofSteps = <T>(items: readonly T[]): T[] => steps.map(({ of }) => itemAt(items, of))
  const found = holdLines({
    ...problem,
    chords: steps.map(({ chord }) => chord),
    roles: ofSteps(readings.map(({ role }) => role)),
    ...(times ? { times: ofSteps(times) } : {}),
    // What is fixed for a chord is held as long as it lasts.
    fixed: new Map(steps.flatMap(({ of }, at) => (fixed?.has(of) ? [[at, fixed.get(of)!] as const] : []))),
    steps,
    hold: hold.value,
    key: analysis.key,
  })
  if (!found.ok) return found
  const { lines, says, texture } = found.value
  return good({
    texture,
    says,
    lines: lines.map((line) => heldLineAnswer(line, steps)),
  })
}

function heldLineAnswer({ line, ladders }: HoldLine, steps: readonly HoldStep[]): Answer {
  const answer = lineAnswer(line, line.chords)
  return {
    ...answer,
    voicings: answer.voicings.map((voicing, at) => {
      const { of, chord, bar, beat, beats } = itemAt(steps, at)
      return { ...voicing, of, chord: chord.text, bar, beat: tidy(beat), beats: tidy(beats) }
    }),
    holds: [...ladders].map(([from, { idea, says, voicings }]) => ({
      from,
      to: from + voicings.length - 1,
      idea,
      says,
    })),
  }
}

/** The strings a request names, by index, and the string that rings. */
function holdFrom(asked: HoldAsked, limits: Limits, steps: readonly HoldStep[]): Result<Hold> {
  const { strings, drone, ...rest } = asked
  const { tuning } = limits.instrument
  const beyond = strings?.find((string) => string > tuning.length)
  if (beyond !== undefined) return noString(beyond, tuning.length, 'hold.strings')
  const rings = drone === undefined || drone === false ? good(null) : droneFrom(drone, limits, steps)
  if (!rings.ok) return rings
  return good({
    ...rest,
    ...(strings
      ? { strings: [...new Set(strings)].map((string) => tuning.length - string).sort((a, b) => a - b) }
      : {}),
    ...(rings.value === null ? {} : { drone: rings.value }),
  })
}

function droneFrom(
  drone: Exclude<HoldAsked['drone'], undefined | false>,
  { instrument }: Limits,
  steps: readonly HoldStep[],
): Result<number> {
  const { tuning } = instrument
  const open = tuning.map((_, string) => soundAt(instrument, string, 0))
  if (typeof drone === 'object' && 'string' in drone) return stringOf(drone.string)
  if (typeof drone === 'number' && drone <= tuning.length) return stringOf(drone)
  const found = (test: (midi: number) => boolean) => {
    const string = open.findIndex(test)
    return string < 0
      ? bad({
          code: 'bad-field',
          message: 'No open string has that note.',
          accepted: `a string, 1 to ${tuning.length}, or the note of an open string`,
          text: 'hold.drone',
        })
      : good(string)
  }
  if (drone === true) {
    const { root, tones } = itemAt(steps, 0).chord
    const onRoot = found((midi) => midi % 12 === pitchClass(root))
    return onRoot.ok ? onRoot : found((midi) => tones.some(({ note }) => pitchClass(note) === midi % 12))
  }
  return typeof drone === 'number'
    ? found((midi) => midi === drone)
    : found((midi) => midi % 12 === pitchClass(drone))

  function stringOf(string: number): Result<number> {
    return string > tuning.length
      ? noString(string, tuning.length, 'hold.drone')
      : good(tuning.length - string)
  }
}

const noString = (string: number, strings: number, text: string) =>
  bad({
    code: 'bad-field',
    message: `There is no string ${string} on ${strings} strings.`,
    accepted: `1 to ${strings}`,
    text,
  })
