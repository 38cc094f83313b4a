import Button from '@mui/material/Button'
import type { ColourOption } from '../../../core/reharm/colour'
import { ChordName, engraved, engravedWords } from '../notation/ChordName'
import type { TuneChord } from '../workspace/useTuneReading'

const MOST_DIGIT = 9

/** The colours of the selected chord. A digit or a click takes one; the control's own choice comes back with one key. */
export function ColourDrawer({ chord, onChoose }: { chord: TuneChord; onChoose: (option: ColourOption | null) => void }) {
  if (!chord.made || !chord.reading) return <p className="quiet">Nothing to colour here.</p>
  const now = chord.made.chord.canonical
  return (
    <>
      <h2><ChordName chord={chord.options[0]!.chord} /> can become</h2>
      <ol className="options">
        {chord.options.map((option, at) => (
          <li key={option.chord.canonical}>
            <button type="button" className={option.chord.canonical === now ? 'option taken' : 'option'} aria-pressed={option.chord.canonical === now} onClick={() => onChoose(option)}>
              <kbd>{at <= MOST_DIGIT ? at : ''}</kbd>
              <span className="option-chord"><ChordName chord={option.chord} /></span>
              <span className="option-added">{option.added.length > 0 ? `+ ${option.added.map(engraved).join(' ')}` : ''}{option.special ? ' special' : ''}</span>
              <span className="option-why">{engravedWords(option.why)} <i>{option.mood}</i></span>
            </button>
          </li>
        ))}
      </ol>
      <Button disabled={!chord.byHand} onClick={() => onChoose(null)}>Give back to the control (Backspace)</Button>
    </>
  )
}
