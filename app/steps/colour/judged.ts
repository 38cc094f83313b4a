import { itemAt } from '../../../core/lists'
import { judge, type Judgement } from '../../../core/reharm/judging/judge'
import type { Made, Mend } from '../../../core/reharm/judging/mend'
import { applyChanges } from '../../../core/reharm/apply'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import { read } from '../../../core/tune/applyMelody'
import { MOST_WHY, type Choice, type TuneDocument } from '../../../core/tune/document'
import type { TuneReading } from '../../../core/tune/tuneReading'

/** What the new line changes. */
export const madeOf = ({ decisions }: TuneReading): Made[] =>
  decisions.filter(({ rule }) => rule !== 'plain').map(({ index, span, puts }) => ({ index, span, puts }))

export const melodyJudged = ({ melody }: Pick<TuneDocument, 'melody'>): MelodyNote[] => melody.map(read)

/** The new line judged against the plain chart. */
export const judgedLine = (
  document: Pick<TuneDocument, 'text' | 'melody'>,
  reading: TuneReading,
): Judgement =>
  judge(document.text, applyChanges(document.text, madeOf(reading)), { melody: melodyJudged(document) })

/** The chord of the home line that stands at a place, by index. */
export const chordIndexAt = ({ chords }: TuneReading, place: { bar: number; beat: number }): number =>
  Math.max(
    0,
    chords.findLastIndex(
      ({ slot }) => slot.bar < place.bar || (slot.bar === place.bar && slot.beat <= place.beat + 1e-6),
    ),
  )

/**
 * What mends a fault as a choice: the plain chord is one where the control of colour would change
 * it else.
 */
export function choiceOfMend(
  { change, index }: Mend,
  { colour }: Pick<TuneDocument, 'colour'>,
  { chords }: TuneReading,
  at: number,
): Choice | null {
  if (change)
    return {
      chords: change.puts.map(({ chord, beats }) => ({ symbol: chord.canonical, beats })),
      span: change.span,
      rule: change.rule,
      at,
      why: change.why.slice(0, MOST_WHY),
    }
  const { slot } = itemAt(chords, index)
  return colour > 0 && slot.symbol?.kind === 'chord'
    ? {
        chords: [{ symbol: slot.symbol.chord.canonical, beats: slot.beats }],
        span: 1,
        rule: 'plain',
        at,
      }
    : null
}
