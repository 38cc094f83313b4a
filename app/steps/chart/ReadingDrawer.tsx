import type { Group } from '../../../core/analysis/chordReading'
import { PLACE_WORDS } from '../../services/words/placeWords'
import { availableTensions, whyTension } from '../../../core/analysis/tensions'
import type { Degree } from '../../../core/pitch/degree'
import { ChordName } from '../../services/notation/ChordName'
import { TradeWords } from '../../services/words/TradeWords'
import { engraved, engravedNote, engravedWords, keyInWords } from '../../../core/chord/engraved'
import { groupInWords } from '../../services/notation/Brackets'
import type { TuneChord } from '../../../core/tune/tuneReading'
import { Fact } from '../../services/words/Why'

interface Props {
  chord: TuneChord
  /** Groups this chord is part of. */
  groups: readonly Group[]
}

/** What the selected chord is and does, each with its reason. */
export function ReadingDrawer({ chord, groups }: Props) {
  const { reading, slot, played } = chord
  if (!reading || slot.symbol?.kind !== 'chord')
    return (
      <p className="quiet">
        {slot.symbol
          ? 'Nobody plays here.'
          : `"${slot.text}" could not be read; the list under the text says why.`}
      </p>
    )
  const { chord: symbol } = slot.symbol
  const tensions = availableTensions(symbol, reading.role)
  const why = (degrees: readonly Degree[], none: string) =>
    degrees.length > 0 ? degrees.map((degree) => whyTension(symbol, reading.role, degree)).join(' ') : none
  return (
    <>
      <h2>
        <ChordName chord={symbol} /> <span className="drawer-numeral">{engraved(reading.roman)}</span>
      </h2>
      <p>{engravedWords(reading.reason)}</p>
      <dl className="facts">
        {played && (
          <Fact
            name="With the capo"
            why="The capo raises every string: the shape that is fingered is named as if the nut were there."
          >
            <ChordName chord={played} />
          </Fact>
        )}
        <Fact name="Numeral" why={reading.why.roman}>
          {engraved(reading.roman)}
        </Fact>
        <Fact name="Place" why={reading.placeReason}>
          {PLACE_WORDS[reading.place]}
        </Fact>
        <Fact name="Function" why={reading.reason}>
          <TradeWords>{reading.function}</TradeWords>
        </Fact>
        <Fact name="Key" why={reading.why.key}>
          {keyInWords(reading.key)}
        </Fact>
        <Fact name="In the key" why={reading.why.diatonic}>
          {reading.diatonic ? 'inside' : `outside: ${reading.function}`}
        </Fact>
        <Fact name="Scale" why={reading.why.scale}>
          {reading.scale
            ? `${engravedWords(reading.scale.name)}: ${reading.scale.notes.map(engravedNote).join(' ')}`
            : 'its own tones only'}
        </Fact>
      </dl>
      <h3>Tones</h3>
      <ul className="tones">
        {symbol.tones.map((tone) => (
          <li key={tone.degree}>
            <b>{engravedNote(tone.note)}</b>
            <span>{engraved(tone.degree)}</span>
          </li>
        ))}
      </ul>
      <h3>Tensions here</h3>
      <dl className="facts">
        <Fact name="Free" why={why(tensions.free, 'The chord has them already, or this job has none.')}>
          {degreesInWords(tensions.free, { '4': '4 in place of the 3' })}
        </Fact>
        <Fact name="Special" why={why(tensions.special, 'This job has none.')}>
          {degreesInWords(tensions.special)}
        </Fact>
        <Fact
          name="Avoid"
          why={why(tensions.avoid, 'No tone of the scale lies a half step above a chord tone.')}
        >
          {degreesInWords(tensions.avoid, { '11': '11 beside the 3' })}
        </Fact>
      </dl>
      {groups.length > 0 && (
        <>
          <h3>Belongs to</h3>
          <ul className="plain-list">
            {groups.map((group) => (
              <li key={`${group.kind}${group.from.bar}:${group.from.beat}`}>
                <b>{groupInWords(group)}.</b> {engravedWords(group.why)}
              </li>
            ))}
          </ul>
        </>
      )}
      {reading.alternatives.length > 0 && (
        <>
          <h3>Also read as</h3>
          <ul className="plain-list">
            {reading.alternatives.map((other) => (
              <li key={other.roman}>
                <b>{engraved(other.roman)}</b> {engravedWords(other.reason)}
              </li>
            ))}
          </ul>
        </>
      )}
    </>
  )
}

/**
 * @param named degrees of which it is said how: a 4 that is free and an 11 that is not are one
 *   sound
 */
const degreesInWords = (degrees: readonly Degree[], named: Partial<Record<Degree, string>> = {}): string =>
  degrees.length > 0 ? degrees.map((degree) => named[degree] ?? engraved(degree)).join(', ') : 'none'
