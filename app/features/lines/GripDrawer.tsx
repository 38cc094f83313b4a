import Button from '@mui/material/Button'
import { useState } from 'react'
import type { Key } from '../../../core/pitch/key'
import type { Voicing } from '../../../core/voicing/voicing'
import type { NearGrip, Related } from '../../../workers/messages'
import { GripFacts } from '../grips/GripFacts'
import { GripFilters, NO_FILTER, passes, type GripFilter } from '../grips/GripFilters'
import { GripNames } from '../grips/GripNames'
import { RelatedGrips } from '../grips/RelatedGrips'
import { ChordName } from '../notation/ChordName'
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
  /** Null while it is being found. */
  related: Related | null
  capo: number
  songKey: Key
  onFix: (voicing: Voicing | null) => void
  onHear: (voicing: Voicing) => void
  /** Keeps the grip in the grip book. */
  onKeep: (voicing: Voicing) => void
}

/** The grip of the selected chord, what belongs to it, and every other way to hold it, those nearest to the neighbours first. */
export function GripDrawer({ chord, voicing, grips, related, capo, songKey, onFix, onHear, onKeep }: Props) {
  const [shown, setShown] = useState(GRIPS_AT_ONCE)
  const [filter, setFilter] = useState<GripFilter>(NO_FILTER)
  const [kept, setKept] = useState(false)
  const symbol = madeChord(chord)
  if (!symbol) return <p className="quiet">Nothing sounds here.</p>
  const now = voicing?.frets.join() ?? ''
  const found = grips?.filter((one) => passes(one.voicing, filter)) ?? null
  return (
    <>
      <h2><ChordName chord={symbol} /></h2>
      {voicing && (
        <div className="present-grip">
          <GripDiagram voicing={voicing} scale={1.6} capo={capo} />
          <GripFacts voicing={voicing} chord={symbol} />
        </div>
      )}
      <div className="drawer-buttons">
        {voicing && <Button onClick={() => onHear(voicing)}>Hear it</Button>}
        {voicing && <Button disabled={kept} onClick={() => { onKeep(voicing); setKept(true) }}>{kept ? 'In the grip book' : 'Keep in the grip book'}</Button>}
        <Button disabled={!chord.fixed} onClick={() => onFix(null)}>Set free (Backspace)</Button>
      </div>
      <h3>{found ? `${found.length === grips!.length ? 'All' : `${found.length} of`} ${grips!.length} grips, nearest first` : 'Finding grips'}</h3>
      {grips && <GripFilters grips={grips.map((one) => one.voicing)} filter={filter} onFilter={(next) => { setFilter(next); setShown(GRIPS_AT_ONCE) }} />}
      <div className="grip-list">
        {found?.slice(0, shown).map(({ voicing: other, motion }) => {
          const digit = grips!.findIndex((one) => one.voicing === other)
          return (
            <button key={other.frets.join()} type="button" className="grip-choice" aria-pressed={other.frets.join() === now} aria-label={`${gripInWords(other)}; ${motion} semitones from its neighbours`} onClick={() => onFix(other)}>
              <kbd>{digit < 9 ? digit + 1 : ''}</kbd>
              <GripDiagram voicing={other} capo={capo} />
              <span>{motion} st</span>
            </button>
          )
        })}
      </div>
      {found && shown < found.length && <Button onClick={() => setShown(shown + GRIPS_AT_ONCE)}>Show {Math.min(GRIPS_AT_ONCE, found.length - shown)} more</Button>}
      {voicing && <RelatedGrips related={related} capo={capo} now={now} onTake={onFix} />}
      {voicing && <><h3>It can also be called</h3><GripNames midis={voicing.midis} songKey={songKey} /></>}
      <p className="quiet caution">Stop when it hurts. Wide stretches and hard barres tire a hand: near its limit the reach stands under the grip, and an easier grip is in the list.</p>
    </>
  )
}
