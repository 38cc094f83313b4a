import Button from '@mui/material/Button'
import { INTENTS, type Intent } from '../../../core/reharm/change'
import type { ColourOption } from '../../../core/reharm/colour'
import { Why } from '../chart/Why'
import { ChordName, engraved, engravedWords } from '../notation/ChordName'
import type { TuneChord } from '../workspace/useTuneReading'
import type { Offered } from './offered'

const MOST_DIGIT = 9

const INTENT_WORDS: Readonly<Record<Intent, string>> = {
  colour: 'Colour', swap: 'Swap: another chord with the same job', insert: 'Insert', borrow: 'Borrow: from another key', 'bass and texture': 'Bass and texture', simplify: 'Simplify',
}

interface Props {
  chord: TuneChord
  offered: readonly Offered[]
  onChoose: (option: ColourOption | null) => void
}

/** What the selected chord can become, by intent. A digit or a click takes one; the control's own choice comes back with one key. */
export function ColourDrawer({ chord, offered, onChoose }: Props) {
  if (!chord.made || !chord.reading) return <p className="quiet">Nothing to change here.</p>
  const now = chord.made.chord.canonical
  const intents = INTENTS.filter((intent) => offered.some((one) => one.intent === intent))
  return (
    <>
      <h2><ChordName chord={chord.options[0]!.chord} /> can become</h2>
      {intents.map((intent) => (
        <section key={intent} aria-label={intent}>
          <h3>{INTENT_WORDS[intent]}</h3>
          <ol className="options">
            {offered.map((one, at) => one.intent === intent && (
              <li key={`${one.option.chord.canonical}${one.name}`}>
                <button
                  type="button" className={one.option.chord.canonical === now ? 'option taken' : 'option'} aria-pressed={one.option.chord.canonical === now}
                  onClick={() => onChoose(one.option)}
                >
                  <kbd>{at <= MOST_DIGIT ? at : ''}</kbd>
                  <span className="option-chord"><ChordName chord={one.option.chord} /></span>
                  <span className="option-added">{sideNote(one)}</span>
                  <span className="option-why">{engravedWords(one.option.why)} <i>{one.option.mood}</i></span>
                </button>
                {one.distance && <OptionFacts offered={one} distance={one.distance} />}
              </li>
            ))}
          </ol>
        </section>
      ))}
      <Button disabled={!chord.chosen} onClick={() => onChoose(null)}>Give back to the control (Backspace)</Button>
    </>
  )
}

function sideNote({ option, intent, name }: Offered): string {
  if (intent !== 'colour') return engravedWords(name)
  return `${option.added.length > 0 ? `+ ${option.added.map(engraved).join(' ')}` : ''}${option.special ? ' special' : ''}`
}

/** How far the chord lies from home, laid open, and the other ways to it. */
function OptionFacts({ offered: { also, lost }, distance: { total, tones, root } }: { offered: Offered; distance: NonNullable<Offered['distance']> }) {
  const parts = `${tones.toFixed(0)} of its tones are outside the key and its root is ${root.toFixed(0)} ${root === 1 ? 'fifth' : 'fifths'} from the tonic: 0.7 × ${tones.toFixed(0)}/4 + 0.3 × ${root.toFixed(0)}/6.`
  const gone = lost.length > 0 ? ` Of the plain chord it leaves out ${lost.join(' ')}.` : ''
  const ways = also.map(({ name, why }) => ` Also as ${name}: ${why}`).join('')
  return <div className="option-facts">{total.toFixed(2)} from home <Why>{parts + gone + ways}</Why></div>
}
