import { itemAt } from '../../../core/lists'
import Button from '@mui/material/Button'
import { useState } from 'react'
import { placeKey } from '../../../core/melody/melodyLine'
import { parseChord } from '../../../core/chord/parseChord'
import { pitchName } from '../../../core/pitch/note'
import type { NoteChoice } from '../../../core/melody/harmonise'
import type { NoteReading, Remedy } from '../../../core/melody/melodyReading'
import type { EventShown } from '../../services/notation/melodyShown'
import { ChordName } from '../../services/notation/ChordName'
import { engraved, engravedWords } from '../../../core/chord/engraved'
import { gripInWords } from '../../../core/voicing/inWords'
import { GripDiagram } from '../../services/notation/GripDiagram'
import type { MelodyView } from './useMelody'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

/** Choices shown at first and added with each "more". */
const AT_ONCE = 12

interface Props {
  view: MelodyView
  capo: number
  /** The choice the arrow keys stand on; null for none. */
  cursor: number | null
  /** Places of the home line's chords, by index, for remedies. */
  slotKeys: readonly string[]
  phrases: Readonly<Record<string, boolean>>
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
  onTake: (choice: NoteChoice) => void
}

/**
 * What the drawer says of a melody note: what it is over the plain and the new chord, what mends it
 * where it fights, and what it could have under it.
 */
export function MelodyDrawer({ view, capo, cursor, slotKeys, phrases, onEdit, onHear, onTake }: Props) {
  const { selected, notes, events, over } = view
  const note = notes.find((one) => placeKey(one) === selected)
  const event = events.find(({ key }) => key === selected)
  if (!note && !event)
    return (
      <p className="quiet">
        {notes.length === 0
          ? 'There is no melody yet. Write notes with the keys A to G, play it in, or bring in ABC or a file; then chords come under it.'
          : 'Touch a note to read about it.'}
      </p>
    )
  const reading = selected ? over.get(selected) : undefined
  const begins = note && view.phrases.some(({ from }) => placeKey(from) === selected)
  const troubles = view.troubles.filter(({ at }) => events[at]?.key === selected)
  const remedies = reading?.made?.remedies ?? []
  return (
    <>
      <h2>
        {note ? engraved(pitchName(note.note)) : 'A chord in a rest'}
        {event?.made.chord && event.made.chord.tones.length > 0 && (
          <>
            {' '}
            <small>over</small> <ChordName chord={event.made.chord} />
          </>
        )}
      </h2>
      {note && (
        <dl>
          <dt>Plain chord</dt>
          <dd>{heardInWords(reading?.plain)}</dd>
          <dt>New chord</dt>
          <dd>{heardInWords(reading?.made)}</dd>
          {event && (
            <>
              <dt>Under it</dt>
              <dd>{event.fixed ? 'a grip chosen by hand' : event.made.kind}</dd>
            </>
          )}
        </dl>
      )}
      {remedies.length > 0 && <Remedies remedies={remedies} slotKeys={slotKeys} onEdit={onEdit} />}
      {troubles.map(({ says, remedy }) => (
        <p key={says} className="fault">
          {says} Try {remedy}.
        </p>
      ))}
      {event?.elsewhere && (
        <p className="fault">
          The grip you chose here is for other open strings and cannot be played on these. It is kept for when
          you tune back; until then the search plays another.
        </p>
      )}
      {event && (
        <div className="present-grip">
          <GripDiagram voicing={event.made.voicing} scale={1.5} capo={capo} />
        </div>
      )}
      <div className="drawer-buttons">
        {event && <Button onClick={() => onHear(event.made.voicing.midis)}>Hear it</Button>}
        {event && (
          <Button
            disabled={!event.fixed && !event.elsewhere}
            onClick={() =>
              onEdit({
                kind: 'melody-fix',
                fixed: { [event.key]: null },
                did: `grip left to the search in bar ${event.made.bar}`,
              })
            }
          >
            Let the search choose (Backspace)
          </Button>
        )}
        {note && (
          <Button
            onClick={() => onEdit({ kind: 'phrases', phrases: { ...phrases, [placeKey(note)]: !begins } })}
          >
            {begins ? 'No phrase begins here' : 'A phrase begins here'}
          </Button>
        )}
      </div>
      {event && <WaysUnder view={view} event={event} capo={capo} cursor={cursor} onTake={onTake} />}
    </>
  )
}

/** What mends a note that fights its chord, the smallest first. */
function Remedies({
  remedies,
  slotKeys,
  onEdit,
}: Pick<Props, 'slotKeys' | 'onEdit'> & { remedies: readonly Remedy[] }) {
  return (
    <section aria-label="Remedies">
      <h3>It fights the chord: the smallest remedy first</h3>
      <ul className="plain-list remedies">
        {remedies.map((one) => (
          <li key={one.says}>
            {engravedWords(one.says)}
            {'symbol' in one && (
              <Button
                size="small"
                onClick={() =>
                  onEdit({
                    kind: 'choose',
                    slot: itemAt(slotKeys, one.index),
                    choice: {
                      chords: [{ symbol: one.symbol, beats: 1 }],
                      span: 1,
                      rule: one.rule,
                      at: Date.now(),
                    },
                  })
                }
              >
                Take it
              </Button>
            )}
          </li>
        ))}
      </ul>
    </section>
  )
}

/** Chords and grips that could stand under the note. */
function WaysUnder({
  view,
  event,
  capo,
  cursor,
  onTake,
}: Pick<Props, 'view' | 'capo' | 'cursor' | 'onTake'> & { event: EventShown }) {
  const [shown, setShown] = useState(AT_ONCE)
  const { choices } = view
  return (
    <>
      <h3>{choices ? `${choices.length} ways under it, nearest first` : 'Finding what could be under it'}</h3>
      <div className="grip-list">
        {choices?.slice(0, Math.max(shown, (cursor ?? 0) + 1)).map((choice, at) => (
          <button
            key={`${choice.note.chord?.canonical}${choice.note.voicing.frets.join()}`}
            type="button"
            className={`grip-choice under-choice${at === cursor ? ' tried' : ''}`}
            aria-pressed={choice.note.voicing.frets.join() === event.made.voicing.frets.join()}
            aria-current={at === cursor || undefined}
            aria-label={`${choice.note.chord?.canonical ?? 'alone'}, ${choice.note.kind}. ${gripInWords(choice.note.voicing, capo)}`}
            title={choice.note.kind}
            onClick={() => onTake(choice)}
          >
            <kbd>{at < 9 ? at + 1 : ''}</kbd>
            {choice.note.chord && choice.note.under !== 'single' ? (
              <ChordName chord={choice.note.chord} />
            ) : (
              <b>alone</b>
            )}
            <GripDiagram voicing={choice.note.voicing} capo={capo} />
            <span>{choice.note.kind}</span>
          </button>
        ))}
      </div>
      {choices && shown < choices.length && (
        <Button onClick={() => setShown(shown + AT_ONCE)}>
          Show {Math.min(AT_ONCE, choices.length - shown)} more
        </Button>
      )}
      {choices && view.choicesLeft > 0 && shown >= choices.length && (
        <Button onClick={view.askAll}>Try {view.choicesLeft} more chords that take this note</Button>
      )}
      <p className="quiet caution">
        Stop when it hurts, and see a clinician when pain stays. A thinner texture or one position is easier
        on the hand.
      </p>
    </>
  )
}

const HEARD: Readonly<Record<string, string>> = {
  'chord tone': 'a chord tone',
  tension: 'a tension',
  avoid: 'a note to avoid: natural 11 over a major third',
  sour: 'sour: a half step above a chord tone',
}

function heardInWords(reading: NoteReading | null | undefined) {
  if (!reading) return '…'
  if (!reading.chord || !reading.degree) return 'nobody plays'
  const chord = parseChord(reading.chord.canonical)
  return (
    <>
      the {engraved(reading.degree)} of{' '}
      {chord.ok ? <ChordName chord={chord.value} /> : reading.chord.canonical},{' '}
      {HEARD[reading.heard ?? ''] ?? ''}
    </>
  )
}
