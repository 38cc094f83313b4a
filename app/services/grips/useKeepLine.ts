import { useEffect } from 'react'
import type { LineChord } from '../../../core/tune/decisions'
import type { TuneDocument } from '../../../core/tune/document'
import { gripsOfLine } from '../../../core/tune/keptGrips'
import type { LinesAsked } from '../workers/useLines'

/**
 * Keeps the chosen line with the tune as soon as the search has answered for the present chords.
 */
export function useKeepLine(
  { lines, current }: Pick<LinesAsked, 'lines' | 'current'>,
  chosen: number,
  sounding: readonly LineChord[],
  kept: Pick<TuneDocument, 'grips' | 'gripsOn' | 'fixed'>,
  on: string,
  keep: (grips: TuneDocument['grips']) => void,
): void {
  useEffect(() => {
    const line = lines[chosen]
    if (!current || !line) return
    const grips = { ...gripsOfLine(line, sounding), ...kept.fixed }
    // The same frets on another instrument are other grips; those by hand go on saying for which
    // they were made.
    if (
      !sameGrips(grips, kept.grips) ||
      Object.keys(grips).some((key) => !(key in kept.fixed) && (kept.gripsOn[key] ?? on) !== on)
    )
      keep(grips)
    // oxlint-disable-next-line react/exhaustive-deps -- `keep` is new on every render and does not matter
  }, [lines, current, chosen, sounding, kept.grips, kept.gripsOn, kept.fixed, on])
}

function sameGrips(a: TuneDocument['grips'], b: TuneDocument['grips']): boolean {
  const keys = Object.keys(a)
  return keys.length === Object.keys(b).length && keys.every((key) => b[key]?.join() === a[key]!.join())
}
