import { availableTensions } from '../../../core/analysis/tensions'
import type { Degree } from '../../../core/pitch/degree'
import { ChordName, engraved, engravedNote, engravedWords, keyInWords } from '../notation/ChordName'
import type { TuneChord } from '../workspace/useTuneReading'

/** What the selected chord is and does, with the reason. */
export function ReadingDrawer({ chord }: { chord: TuneChord }) {
  const { reading, slot } = chord
  if (!reading || slot.symbol?.kind !== 'chord')
    return <p className="quiet">{slot.symbol ? 'Nobody plays here.' : `"${slot.text}" could not be read; the list under the text says why.`}</p>
  const tensions = availableTensions(slot.symbol.chord, reading.role)
  return (
    <>
      <h2><ChordName chord={slot.symbol.chord} /> <span className="drawer-numeral">{engraved(reading.roman)}</span></h2>
      <p>{engravedWords(reading.reason)}</p>
      <dl>
        <dt>Function</dt><dd>{reading.function}</dd>
        <dt>Key</dt><dd>{keyInWords(reading.key)}</dd>
        <dt>In the key</dt><dd>{reading.diatonic ? 'yes' : 'no'}</dd>
      </dl>
      <h3>Tones</h3>
      <ul className="tones">
        {slot.symbol.chord.tones.map((tone) => <li key={tone.degree}><b>{engravedNote(tone.note)}</b><span>{engraved(tone.degree)}</span></li>)}
      </ul>
      <h3>Tensions here</h3>
      <dl>
        <dt>Free</dt><dd>{degreesInWords(tensions.free)}</dd>
        <dt>Special colour</dt><dd>{degreesInWords(tensions.special)}</dd>
        <dt>Avoid</dt><dd>{degreesInWords(tensions.avoid)}</dd>
      </dl>
      {reading.alternatives.length > 0 && (
        <>
          <h3>Also read as</h3>
          <ul className="plain-list">{reading.alternatives.map((other) => <li key={other.roman}><b>{engraved(other.roman)}</b> {engravedWords(other.reason)}</li>)}</ul>
        </>
      )}
    </>
  )
}

const degreesInWords = (degrees: readonly Degree[]): string => (degrees.length > 0 ? degrees.map(engraved).join(', ') : 'none')
