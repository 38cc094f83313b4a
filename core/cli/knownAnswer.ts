import type { z } from 'zod'
import { knownLines, type KnownProblem, type NewGrip } from '../leading/knownLine'
import type { Line } from '../leading/line'
import { knownShape, type Vocabulary } from '../leading/vocabulary'
import type { StyledProblem } from '../leading/inStyle'
import { itemAt } from '../lists'
import { bad, good, type Result } from '../result'
import type { Answer } from './answersTo'
import { lineAnswer, wrongStrings } from './parts'
import type { vocabularyField } from './requestFields'

/** Wishes of a line that known grips alone cannot meet. */
const NOT_WITH_ONLY = ['melody', 'hold', 'drone', 'window', 'contour', 'texture', 'colour', 'times'] as const

/** `lead` held to the grips that are known. */
export function knownAnswer(
  request: Readonly<Record<string, unknown>>,
  { only, more }: { only: z.output<typeof vocabularyField>; more: number },
  problem: StyledProblem,
): Result<Answer> {
  const beside = NOT_WITH_ONLY.find((field) => request[field] !== undefined)
  if (beside || request['loop'] === true)
    return bad({
      code: 'bad-field',
      message: `A line of known grips alone cannot be asked for with ${beside ?? 'loop'}.`,
      accepted: 'only with style, weights, limits, count, fixed and new',
      text: beside ?? 'loop',
    })
  const vocabulary = vocabularyOf(only, problem.limits.instrument.tuning.length)
  if (!vocabulary.ok) return vocabulary
  const { chords, limits, style, weights, count, fixed, onProgress } = problem
  const known: KnownProblem = {
    chords,
    limits,
    vocabulary: vocabulary.value,
    style,
    count,
    more,
    fixed: fixed ?? new Map(),
    ...(weights ? { weights } : {}),
    ...(onProgress ? { onProgress } : {}),
  }
  const found = knownLines(known)
  if (!found.ok) return found
  const { lines, indexes, holes, added, wouldHelp } = found.value
  return good({
    lines: lines.map((line) => withHoles(line, indexes, problem)),
    holes: holes.map((index) => ({ index, symbol: itemAt(chords, index).text })),
    new: added.map((grip) => newGripAnswer(grip)),
    wouldHelp: wouldHelp ? newGripAnswer(wouldHelp) : null,
    says: saysOf(holes, wouldHelp, problem),
  })
}

/** A line with nothing played where no known grip serves. */
function withHoles(line: Line, indexes: readonly number[], { chords, limits }: StyledProblem): Answer {
  const answer = lineAnswer(line, line.chords)
  return {
    ...answer,
    voicings: chords.map((chord, index) => {
      const at = indexes.indexOf(index)
      return at < 0
        ? {
            symbol: chord.text,
            added: [],
            frets: limits.instrument.tuning.map(() => null),
            notes: [],
            degrees: [],
            fingers: [],
          }
        : itemAt(answer.voicings, at)
    }),
  }
}

const newGripAnswer = ({ frets, movable, chord, fills }: NewGrip) => ({
  frets,
  movable,
  symbol: chord.text,
  fills,
})

function saysOf(holes: readonly number[], help: NewGrip | null, { chords }: StyledProblem): string[] {
  if (holes.length === 0) return []
  const names = [...new Set(holes.map((at) => itemAt(chords, at).text))].join(', ')
  const more = help
    ? ` One grip more, that of ${help.chord.text}, would serve ${help.fills.length} of ${holes.length}.`
    : ''
  return [`No known grip serves ${names}: nothing is played there.${more}`]
}

function vocabularyOf(only: z.output<typeof vocabularyField>, strings: number): Result<Vocabulary> {
  if (typeof only === 'string') return good({ stage: only })
  const shapes = only.map((one) => ('frets' in one ? { ...knownShape(one.frets), ...one } : knownShape(one)))
  const wrong = shapes.findIndex(({ frets }) => frets.length !== strings)
  if (wrong >= 0) return wrongStrings(itemAt(shapes, wrong).frets, strings, `only.${wrong}`)
  const silent = shapes.findIndex(({ frets }) => frets.every((fret) => fret === null))
  if (silent >= 0)
    return bad({
      code: 'bad-field',
      message: 'A grip sounds nothing.',
      accepted: 'at least one fret',
      text: `only.${silent}`,
    })
  return good({
    // A shape with an open string stays where it is.
    shapes: shapes.map(({ frets, movable }) => ({ frets, movable: movable && !frets.includes(0) })),
  })
}
