import type { ChordSymbol } from '../../../core/chord/symbol'
import { soundAt } from '../../../core/neck/instrument'
import { ToneNames, type Voicing } from '../../../core/voicing/voicing'
import { pitchClass } from '../../../core/pitch/note'
import { Neck, type NeckMark } from '../../services/notation/Neck'
import { limitsFor } from '../../../core/player/playerLimits'
import { usePlayerSettings } from '../../services/player/PlayerContext'

/**
 * All tones of the selected chord over the whole neck, with the grip that is held and the hand's
 * reach from its lowest fret.
 */
export function NeckView({
  chord,
  voicing,
  capo,
}: {
  chord: ChordSymbol
  voicing: Voicing | undefined
  capo: number
}) {
  const { settings } = usePlayerSettings()
  const { instrument } = limitsFor(settings, capo, 'any')
  const names = new ToneNames(chord)
  const tones = new Set(chord.tones.map((tone) => pitchClass(tone.note)))
  const frets = settings.instrument.frets
  const marks = instrument.tuning.flatMap((_, string) =>
    Array.from({ length: frets + 1 }, (__, fret): NeckMark | null => {
      if (fret > 0 && fret <= capo) return null
      const sounding = soundAt(instrument, string, fret)
      if (!tones.has(sounding % 12)) return null
      return {
        string,
        fret: fret === 0 ? capo : fret,
        label: names.of(sounding)[0],
        kind: voicing?.frets[string] === fret ? 'held' : 'tone',
      }
    }).filter((mark) => mark !== null),
  )
  const held = voicing?.frets.filter((fret): fret is number => fret !== null && fret > 0) ?? []
  return (
    <Neck
      strings={instrument.tuning.length}
      frets={frets}
      marks={marks}
      reachFrom={held.length > 0 ? Math.min(...held) : null}
      muted={voicing?.frets.flatMap((fret, string) => (fret === null ? [string] : [])) ?? []}
      label={`Tones of ${chord.canonical} over the whole neck`}
    />
  )
}
