import type { Chart, Slot } from '../chart/chart'
import { slotKey } from '../chart/chart'
import type { Frets } from '../neck/instrument'
import { limitsFor, type PlayerBody } from '../player/playerLimits'
import { handTempo, type HandTempo } from '../rhythm/handTempo'
import { voicingOf, type Voicing } from '../voicing/voicing'
import { chartOfLine, figureOfBar, handHits } from './accompaniment'
import type { Bass, TuneDocument } from './document'
import type { TuneReading } from './tuneReading'
import type { Rhythm } from './rhythmSchema'

/** Whether the hand gets there: plain data for a worker. */
export interface LateQuestion {
  /** The new line as a chart. */
  chart: Chart
  /** The grip of each chord, by the place of its slot. */
  grips: Record<string, Frets>
  rhythm: Pick<Rhythm, 'figure' | 'sections' | 'bars' | 'restart' | 'byHand'>
  bass: Bass
  body: PlayerBody
}

/** @returns null while there are fewer than two grips, and nothing to change between */
export function lateQuestion(
  reading: TuneReading,
  { rhythm, bass }: Pick<TuneDocument, 'rhythm' | 'bass'>,
  voicings: ReadonlyMap<string, Voicing>,
  body: PlayerBody,
): LateQuestion | null {
  const { chart, chordOf } = chartOfLine(reading, 'new')
  const grips: Record<string, Frets> = {}
  for (const [slot, one] of chordOf) {
    const voicing = voicings.get(one.key)
    if (voicing && slot.symbol?.kind === 'chord') grips[slotKey(slot)] = [...voicing.frets]
  }
  if (Object.keys(grips).length < 2) return null
  const { figure, sections, bars, restart, byHand } = rhythm
  return { chart, grips, rhythm: { figure, sections, bars, restart, byHand }, bass, body }
}

/** @param help what would help is worked out too */
export function lateHand({ chart, grips, rhythm, bass, body }: LateQuestion, help = true): HandTempo {
  const limits = limitsFor(body, chart.capo, bass)
  const held = new Map<Slot, Voicing>()
  for (const bar of chart.bars)
    for (const slot of bar.slots) {
      const frets = grips[slotKey(slot)]
      if (!frets || slot.symbol?.kind !== 'chord') continue
      const voicing = voicingOf(frets, slot.symbol.chord, limits)
      if (voicing) held.set(slot, voicing)
    }
  return handTempo({
    chart,
    grips: held,
    figure: figureOfBar(rhythm),
    restart: rhythm.restart,
    byHand: handHits(rhythm),
    limits,
    help,
  })
}
