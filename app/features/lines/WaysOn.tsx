import Button from '@mui/material/Button'
import type { WayOn } from '../../../workers/messages'
import { engravedWords } from '../notation/ChordName'
import { GripDiagram } from '../notation/GripDiagram'

/** How to get from the selected grip to the next chord, from the smoothest way to the boldest, with what each voice does. */
export function WaysOn({ ways, capo, now, onTake }: { ways: readonly WayOn[] | null; capo: number; now: string; onTake: (way: WayOn) => void }) {
  return (
    <section aria-label="On to the next chord">
      <h3>On to the next chord, from the smoothest way to the boldest</h3>
      {!ways && <p className="quiet">Looking for ways.</p>}
      <ol className="ways-on">
        {ways?.map((way) => (
          <li key={way.voicing.frets.join()}>
            <GripDiagram voicing={way.voicing} capo={capo} />
            <div>
              <b>{way.motion} {way.motion === 1 ? 'semitone' : 'semitones'}</b>{way.voicing.frets.join() === now && ' (as it is)'}
              <p>{engravedWords(way.words)}.</p>
              <Button size="small" disabled={way.voicing.frets.join() === now} onClick={() => onTake(way)}>Take this way</Button>
            </div>
          </li>
        ))}
      </ol>
    </section>
  )
}
