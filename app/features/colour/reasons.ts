import type { ColourOption } from '../../../core/reharm/colour'
import type { TuneDocument } from '../tune/document'
import type { TuneChord, TuneReading } from '../workspace/useTuneReading'
import { offeredFor } from './offered'

/** One chord that was changed. */
export interface ChangeReason {
  chord: TuneChord
  made: ColourOption
  /** The change in trade words. */
  how: string
  distance: number | null
  /** Who decided it; empty where the colour control did. */
  byWhom: string
}

/** Every chord of the new line that is not the home line's, in the order of the chart. */
export function reasonsOf({ chart, analysis, chords }: TuneReading, { choices }: Pick<TuneDocument, 'choices'>): ChangeReason[] {
  return chords.flatMap((chord): ChangeReason[] => {
    const { made } = chord
    if (!made || made.rule === 'plain') return []
    const offered = offeredFor(chord, chart, analysis).find((one) => one.option.chord.canonical === made.chord.canonical)
    const by = choices[chord.key]?.by
    return [{
      chord, made, how: offered?.name ?? 'as chosen', distance: offered?.distance?.total ?? null,
      byWhom: !chord.chosen ? '' : by === 'tune' ? 'with the whole tune' : 'by hand',
    }]
  })
}
