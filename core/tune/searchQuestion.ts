import { chord } from '../chord/parseChord'
import { leadInStyle, type StyledProblem } from '../leading/inStyle'
import { limitsFor, type PlayerBody } from '../player/playerLimits'
import type { TuneDocument } from './document'
import type { LineChord } from './decisions'
import { madeChord, type TuneReading } from './tuneReading'
import { gripsOfLine, keptVoicings } from './keptGrips'
import { newQuestion } from './questions'
import type { LinesQuestion } from './linesQuestion'

/** A question about lines, as plain data, as the core has it. */
export const problemOf = ({
  symbols,
  home,
  times,
  fixed,
  bass,
  capo,
  style,
  leading: { weights, texture, ...leading },
  body,
  constraints,
  count,
}: LinesQuestion): StyledProblem => ({
  chords: symbols.map(chord),
  ...(home ? { home: home.map(chord) } : {}),
  ...(times ? { times } : {}),
  fixed: new Map(fixed),
  count,
  limits: limitsFor(body, capo, bass),
  style,
  constraints,
  ...leading,
  ...(weights ? { weights } : {}),
  ...(texture ? { texture } : {}),
})

/**
 * What has to be looked for so that every chord of the new line has a grip; null where each has
 * one. The grips that are there stay.
 */
export function missingGrips(
  document: TuneDocument,
  { chart, line }: Pick<TuneReading, 'chart' | 'line'>,
  body: PlayerBody,
): { question: LinesQuestion; sounding: LineChord[] } | null {
  const sounding = line.filter((one) => madeChord(one))
  const kept = keptVoicings(document, line, chart.capo, body)
  if (sounding.every(({ key }) => kept.has(key))) return null
  const question = newQuestion(
    sounding,
    { ...document, fixed: { ...document.grips, ...document.fixed } },
    chart,
    body,
  )
  return question && { question: { ...question, count: 1 }, sounding }
}

/**
 * A tune with a grip for every chord of its line, looked for where there is none, for those who
 * have no page to search on; as it is where no line can be led.
 */
export function withEveryGrip(
  document: TuneDocument,
  reading: Pick<TuneReading, 'chart' | 'line'>,
  body: PlayerBody,
): TuneDocument {
  const missing = missingGrips(document, reading, body)
  const lines = missing && leadInStyle(problemOf(missing.question))
  return missing && lines?.ok && lines.value[0]
    ? { ...document, grips: gripsOfLine(lines.value[0], missing.sounding), gripsOn: {} }
    : document
}
