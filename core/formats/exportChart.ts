import { slotKey, slotsOf, type Chart, type Slot } from '../chart/chart'
import { homeKey } from '../analysis/analyse'
import type { ChordSymbol } from '../chord/symbol'
import type { Lyric } from '../melody/lyrics'
import type { MelodyNote } from '../reharm/melodyFit'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/gripLimits'
import { voicingOf, type Voicing } from '../voicing/voicing'
import type { Score } from './musicxml'
import { FORMATS, SAVED_FORMATS, type SavedFormat } from './names'
import { WRITERS } from './register'

/** The text of a chart is written as it was typed, and not made. */
export type ExportFormat = Exclude<SavedFormat, 'text'>
export const EXPORT_FORMATS = SAVED_FORMATS.filter((name): name is ExportFormat => name !== 'text')

export interface ExportProblem {
  chart: Chart
  /** A grip for each sounding chord, in order; none for symbols alone. */
  frets: readonly (readonly (number | null)[])[]
  melody: readonly MelodyNote[]
  lyrics?: readonly Lyric[]
  limits: Limits
}

export interface Exported {
  content: string
  encoding: 'utf-8' | 'base64'
}

/** Where a tune names no tempo. */
const USUAL_TEMPO = 96

/** The chords of a chart that sound, in order: as many as there are grips, where there are any. */
export function chordsFor(
  chart: Chart,
  frets: readonly unknown[],
): Result<{ slot: Slot; chord: ChordSymbol }[]> {
  const sounding = slotsOf(chart).flatMap((slot) =>
    slot.symbol?.kind === 'chord' ? [{ slot, chord: slot.symbol.chord }] : [],
  )
  return frets.length === 0 || frets.length === sounding.length
    ? good(sounding)
    : bad({
        code: 'bad-field',
        message: `${frets.length} grips were given for ${sounding.length} chords.`,
        accepted: 'one grip for each chord, or none',
        text: 'voicings',
      })
}

/** A chart with its grips and melody in an open format. */
export function exportChart(
  { chart, frets, melody, lyrics = [], limits }: ExportProblem,
  format: ExportFormat,
): Result<Exported> {
  const found = chordsFor(chart, frets)
  if (!found.ok) return found
  const sounding = found.value
  // A capo in the chart lies on the neck: frets behind it do not sound.
  const neck = chart.capo > 0 ? { ...limits, instrument: { ...limits.instrument, capo: chart.capo } } : limits
  const chords = new Map<string, { chord: ChordSymbol; voicing: Voicing | null }>()
  for (const [at, { slot, chord }] of sounding.entries()) {
    const grip = frets[at]
    const voicing = grip ? voicingOf(grip, chord, neck) : null
    if (grip && !voicing)
      return bad({
        code: 'unplayable',
        message: `The grip for ${chord.canonical} (chord ${at + 1}) cannot be held by this hand.`,
        accepted: 'a grip that `finger` calls playable',
        text: `voicings.${at}`,
        at,
      })
    chords.set(slotKey(slot), { chord, voicing })
  }
  return good(
    exportScore(
      {
        title: chart.title ?? 'Untitled',
        chart,
        key: homeKey(chart),
        tempo: chart.tempo ?? USUAL_TEMPO,
        chords,
        melody,
        lyrics,
        tuning: limits.instrument.tuning,
      },
      format,
      limits,
    ),
  )
}

/** A tune with everything made of it that a format can hold. */
export const exportScore = (score: Score, format: ExportFormat, limits: Limits): Exported => ({
  content: WRITERS[format](score, limits),
  encoding: FORMATS[format].encoding,
})
