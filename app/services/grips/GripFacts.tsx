import { itemAt } from '../../../core/lists'
import type { ChordSymbol } from '../../../core/chord/symbol'
import { mudIn, soursIn } from '../../../core/voicing/clashes'
import type { Voicing } from '../../../core/voicing/voicing'
import { usePlayerSettings } from '../player/PlayerContext'
import { degreesLowToHigh, notesInWords } from './GripFilters'
import { hardPartsInWords, holdInWords } from '../words/handWords'
import { engraved } from '../../../core/chord/engraved'

/** What a grip sounds and asks of the hand, with the strings that disturb each other. */
export function GripFacts({ voicing, chord }: { voicing: Voicing; chord: ChordSymbol }) {
  const {
    settings: { hand },
  } = usePlayerSettings()
  const { reachMm, difficulty, parts } = voicing.fingering
  const byPitch = [...voicing.strings].sort((a, b) => a.midi - b.midi)
  const stringsOf = (low: number, high: number) =>
    `strings ${voicing.frets.length - itemAt(byPitch, low).string} and ${voicing.frets.length - itemAt(byPitch, high).string}`
  const clashes = [...soursIn(voicing.midis, chord), ...mudIn(voicing.midis)]
  return (
    <dl>
      <dt>Notes</dt>
      <dd>{notesInWords(voicing)}</dd>
      <dt>Low to high</dt>
      <dd>{degreesLowToHigh(voicing).split(' ').map(engraved).join(' ')}</dd>
      <dt>Family</dt>
      <dd>{voicing.families.join(', ')}</dd>
      <dt>Reach</dt>
      <dd>
        {Math.round(reachMm)} mm of your {Math.round(hand.reachMm)} mm
      </dd>
      <dt>To hold</dt>
      <dd>
        {holdInWords(difficulty)} <span className="quiet">{hardPartsInWords(parts)}</span>
      </dd>
      {clashes.length > 0 && (
        <>
          <dt className="fault">Listen</dt>
          <dd>
            {clashes
              .map(
                ({ kind, low, high }) =>
                  `${kind === 'sour' ? 'a minor ninth between' : 'muddy:'} ${stringsOf(low, high)}`,
              )
              .join('; ')}
          </dd>
        </>
      )}
    </dl>
  )
}
