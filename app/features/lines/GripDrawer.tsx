import Button from '@mui/material/Button'
import { useState } from 'react'
import { pitchAt, pitchName } from '../../../core/pitch/note'
import type { Voicing } from '../../../core/voicing/voicing'
import type { NearGrip } from '../../../workers/messages'
import { ChordName, engraved } from '../notation/ChordName'
import { GripDiagram, gripInWords } from '../notation/GripDiagram'
import type { LineChord } from '../tune/decisions'
import { madeChord } from '../workspace/useTuneReading'

/** Grips shown at first and added with each "more". */
export const GRIPS_AT_ONCE = 12

interface Props {
  chord: LineChord
  voicing: Voicing | undefined
  /** Null while they are being found. */
  grips: NearGrip[] | null
  capo: number
  onFix: (voicing: Voicing | null) => void
  onHear: (voicing: Voicing) => void
}

/** The grip of the selected chord, and every other way to hold it, those nearest to the neighbours first. */
export function GripDrawer({ chord, voicing, grips, capo, onFix, onHear }: Props) {
  const [shown, setShown] = useState(GRIPS_AT_ONCE)
  const symbol = madeChord(chord)
  if (!symbol) return <p className="quiet">Nothing sounds here.</p>
  const now = voicing?.frets.join()
  return (
    <>
      <h2><ChordName chord={symbol} /></h2>
      {voicing && (
        <div className="present-grip">
          <GripDiagram voicing={voicing} scale={1.6} capo={capo} />
          <dl>
            <dt>Notes</dt><dd>{voicing.strings.map(({ midi, note }) => engravedPitch(pitchName(pitchAt(midi, note)))).join(' ')}</dd>
            <dt>Family</dt><dd>{voicing.families.join(', ')}</dd>
            <dt>Reach</dt><dd>{Math.round(voicing.fingering.reachMm)} mm</dd>
            <dt>Effort</dt><dd>{voicing.fingering.difficulty.toFixed(1)}</dd>
          </dl>
        </div>
      )}
      <div className="drawer-buttons">
        {voicing && <Button onClick={() => onHear(voicing)}>Hear it</Button>}
        <Button disabled={!chord.fixed} onClick={() => onFix(null)}>Set free (Backspace)</Button>
      </div>
      <h3>{grips ? `All ${grips.length} grips, nearest first` : 'Finding grips'}</h3>
      <div className="grip-list">
        {grips?.slice(0, shown).map(({ voicing: other, motion }, at) => (
          <button key={other.frets.join()} type="button" className="grip-choice" aria-pressed={other.frets.join() === now} aria-label={`${gripInWords(other)}; ${motion} semitones from its neighbours`} onClick={() => onFix(other)}>
            <kbd>{at < 9 ? at + 1 : ''}</kbd>
            <GripDiagram voicing={other} capo={capo} />
            <span>{motion} st</span>
          </button>
        ))}
      </div>
      {grips && shown < grips.length && <Button onClick={() => setShown(shown + GRIPS_AT_ONCE)}>Show {Math.min(GRIPS_AT_ONCE, grips.length - shown)} more</Button>}
      <p className="quiet caution">Stop when it hurts. Wide stretches and hard barres tire a hand: near its limit the reach stands under the grip, and an easier grip is in the list.</p>
    </>
  )
}

const engravedPitch = (name: string): string => engraved(name.replace(/(?<=^.)b+/, (flats) => '♭'.repeat(flats.length)))
