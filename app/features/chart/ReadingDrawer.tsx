import { keyName } from '../../../core/pitch/key'
import { noteName } from '../../../core/pitch/note'
import { ChordName, engraved, engravedWords } from '../notation/ChordName'
import type { TuneChord } from '../workspace/useTuneReading'

/** What the selected chord is and does, with the reason. */
export function ReadingDrawer({ chord }: { chord: TuneChord }) {
  const { reading, slot } = chord
  if (!reading || slot.symbol?.kind !== 'chord')
    return <p className="quiet">{slot.symbol ? 'Nobody plays here.' : `"${slot.text}" could not be read; the list under the text says why.`}</p>
  return (
    <>
      <h2><ChordName chord={slot.symbol.chord} /> <span className="drawer-numeral">{engraved(reading.roman)}</span></h2>
      <p>{engravedWords(reading.reason)}</p>
      <dl>
        <dt>Function</dt><dd>{reading.function}</dd>
        <dt>Key</dt><dd>{engraved(keyName(reading.key).replace('m', ''))} {reading.key.mode}</dd>
        <dt>In the key</dt><dd>{reading.diatonic ? 'yes' : 'no'}</dd>
      </dl>
      <h3>Tones</h3>
      <ul className="tones">
        {slot.symbol.chord.tones.map((tone) => <li key={tone.degree}><b>{engravedWords(noteName(tone.note)).replace(/(?<=[♭♯])[b#]/, (sign) => (sign === 'b' ? '♭' : '♯'))}</b><span>{engraved(tone.degree)}</span></li>)}
      </ul>
      {reading.alternatives.length > 0 && (
        <>
          <h3>Also read as</h3>
          <ul className="plain-list">{reading.alternatives.map((other) => <li key={other.roman}><b>{engraved(other.roman)}</b> {engravedWords(other.reason)}</li>)}</ul>
        </>
      )}
    </>
  )
}
