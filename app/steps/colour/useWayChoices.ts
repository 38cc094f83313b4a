import { itemAt } from '../../../core/lists'
import { useMemo } from 'react'
import { decisionsOf, tuneFarGone } from '../../../core/tune/decisions'
import type { TuneDocument } from '../../../core/tune/document'
import { homeIndexAt } from '../../../core/tune/following'
import type { TuneReading } from '../../../core/tune/tuneReading'
import type { FoundVersion } from '../../../workers/searchQuestions'

/**
 * What a way through a stretch of the tune puts beside what stands there. @param from, to the first
 * and last chord of the stretch
 */
export function useWayChoices(
  { colour, choices }: Pick<TuneDocument, 'colour' | 'choices'>,
  { chart, analysis, chords }: Pick<TuneReading, 'chart' | 'analysis' | 'chords'>,
  [from, to]: readonly [number, number],
) {
  const slots = useMemo(() => chords.map(({ slot }) => slot), [chords])
  const isInside = (place: string) => {
    const at = homeIndexAt(slots, place)
    return at >= from && at <= to
  }
  const byTune = Object.entries(choices).filter(([, one]) => one.by === 'tune')
  const byOthers = Object.fromEntries(Object.entries(choices).filter(([, one]) => one.by !== 'tune'))
  /** A way through a stretch leaves what an earlier one put elsewhere. */
  const choicesOf = (way: FoundVersion, at: number): TuneDocument['choices'] =>
    Object.fromEntries([
      ...byTune.filter(([place]) => !isInside(place)),
      ...way.changes.map(
        ({ index, span, chords: put, rule, why }) =>
          [itemAt(chords, index).key, { chords: put, span, rule, at, by: 'tune' as const, why }] as const,
      ),
    ])
  const isTaken = (way: FoundVersion) => {
    const here = byTune.filter(([place]) => isInside(place))
    return (
      here.length === way.changes.length &&
      way.changes.every(
        ({ index, chords: put }) =>
          JSON.stringify(choices[itemAt(chords, index).key]?.chords) === JSON.stringify(put),
      )
    )
  }
  /**
   * How far the tune goes, or the stretch, once the way is taken: the same number that a version
   * kept then has.
   */
  const farOf = (way: FoundVersion) =>
    tuneFarGone(
      chart,
      analysis,
      decisionsOf(chart, analysis, {
        colour,
        choices: { ...byOthers, ...choicesOf(way, 0) },
      }),
      from,
      to,
    )
  return { byTune, byOthers, choicesOf, isTaken, farOf }
}
