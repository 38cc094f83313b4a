import { firstOf, itemAt, lastOf } from '../../../core/lists'
import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useMemo } from 'react'
import { placeName } from '../../../core/chart/chart'
import { parseNote, pitchClass, type Note } from '../../../core/pitch/note'
import {
  bassWalk,
  commonThread,
  heldThrough,
  nameOver,
  wantedBass,
  type Threaded,
} from '../../../core/reharm/thread'
import { ChordName } from '../../services/notation/ChordName'
import { engraved, engravedNote, engravedWords } from '../../../core/chord/engraved'
import { type TuneDocument } from '../../../core/tune/document'
import type { TuneChord } from '../../../core/tune/tuneReading'
import { decidedByHand } from '../../../core/tune/edits/colourEdits'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

/** The open strings first: they can sound on as a drone. */
const HELD = ['E', 'A', 'D', 'G', 'B', 'C', 'Db', 'Eb', 'F', 'F#', 'Ab', 'Bb'] as const
const OPEN_STRINGS = 5

/** A note through all chords, a way for the bass, or both at once. */
export interface CommonAsked {
  note: string | null
  bass: { kind: 'walk'; direction: 'down' | 'up' } | { kind: 'notes'; notes: string } | null
}

interface Props {
  document: TuneDocument
  chords: readonly TuneChord[]
  wanted: CommonAsked
  onWanted: (wanted: CommonAsked) => void
  /** First and last selected chord: typed bass notes begin at the first. */
  range: readonly [number, number]
  onEdit: (edit: TuneEdit) => void
}

/** What is taken away, at most so many places by name. */
const PLACES_SAID = 4
const placesInWords = (chords: readonly TuneChord[]): string =>
  `${chords
    .slice(0, PLACES_SAID)
    .map(({ slot }) => placeName(slot))
    .join('; ')}${chords.length > PLACES_SAID ? ` and ${chords.length - PLACES_SAID} more` : ''}`

/** The ways of the bass as a choice shows them; none is ''. */
type BassChoice = '' | 'notes' | 'down' | 'up'
function choiceOf(bass: CommonAsked['bass']): BassChoice {
  if (!bass) return ''
  return bass.kind === 'walk' ? bass.direction : 'notes'
}
function bassOf(choice: BassChoice): CommonAsked['bass'] {
  if (choice === '') return null
  return choice === 'notes' ? { kind: 'notes', notes: '' } : { kind: 'walk', direction: choice }
}

/** What the panel begins with when nothing was asked yet. */
export const NO_THREAD: CommonAsked = { note: 'E', bass: null }

/** What is looked for, in the words of the bar. */
export function threadInWords(asked: CommonAsked): string {
  if (asked === NO_THREAD) return 'nothing yet'
  const { note, bass } = asked
  const held = note === null || note === '' ? null : `${engravedWords(note)} held`
  if (!bass) return held ?? 'nothing'
  const goes =
    bass.kind === 'walk' ? `bass ${bass.direction}` : `bass ${engravedWords(bass.notes) || 'as typed'}`
  return held ? `${held}, ${goes}` : goes
}

/**
 * One note through all chords, a bass that goes where it is wanted, or both: what each chord has to
 * become for it, and what that takes away.
 */
export function CommonPanel({ document, chords, range, wanted, onWanted: setWanted, onEdit }: Props) {
  const { text } = document
  const [from] = range
  const typed = useMemo(() => (wanted.bass?.kind === 'notes' ? readNotes(wanted.bass.notes) : null), [wanted])
  const held = wanted.note === null ? null : noteOf(wanted.note)
  const found = useMemo((): (Threaded | null)[] => {
    const { bass, note } = wanted
    const sound = note === null ? null : noteOf(note)
    if (!bass) return sound ? commonThread(text, sound) : []
    if (bass.kind === 'walk') return bassWalk(text, bass.direction, sound)
    return typed?.ok
      ? wantedBass(
          text,
          chords.map((_, index) => typed.notes[index - from] ?? null),
          sound,
        )
      : []
  }, [wanted, text, typed, chords, from])
  const byHand = decidedByHand(document)
  const missing = chords.filter(
    (chord, index) =>
      chord.decision &&
      !found[index] &&
      (wanted.bass?.kind !== 'notes' || (typed?.ok && index >= from && index - from < typed.notes.length)),
  )
  const choices = found.flatMap((one, index) => {
    const change = one?.change
    return change && !byHand.has(index)
      ? [
          [
            itemAt(chords, index).key,
            {
              chords: change.puts.map(({ chord, beats }) => ({ symbol: chord.canonical, beats })),
              span: 1,
              rule: change.rule,
              at: 0,
            },
          ] as const,
        ]
      : []
  })
  const take = () => {
    const at = Date.now()
    onEdit({
      kind: 'way',
      choices: Object.fromEntries(choices.map(([key, choice]) => [key, { ...choice, at }])),
      did: inWords(wanted),
    })
  }
  const taken = new Map(choices)
  /** Chords a way through the tune put there before, which this takes away or changes. */
  const replaced = chords.filter(({ key }) => {
    const now = document.choices[key]
    return now?.by === 'tune' && symbols(now.chords) !== symbols(taken.get(key)?.chords ?? [])
  })
  const after = chords.flatMap(({ decision }, index) =>
    decision
      ? [
          byHand.has(index)
            ? lastOf(decision.puts).chord
            : (found[index]?.chord ?? lastOf(decision.puts).chord),
        ]
      : [],
  )
  const before = chords.flatMap(({ decision }) => (decision ? [lastOf(decision.puts).chord] : []))
  const kept = heldThrough(after)
  const lost = heldThrough(before).filter((note) => !kept.some((one) => pitchClass(one) === pitchClass(note)))
  const without = held
    ? chords.filter((_, index) => {
        const one = found[index]
        return (
          one &&
          nameOver(held, one.chord) &&
          !one.chord.tones.some(({ note }) => pitchClass(note) === pitchClass(held))
        )
      })
    : []
  return (
    <section className="panel" aria-label="Held note and bass line">
      <ThreadChoice wanted={wanted} onWanted={setWanted} wrong={typed && !typed.ok ? typed.text : null} />
      <ThreadChords found={found} held={held} walks={wanted.bass !== null} />
      {missing.length > 0 && (
        <p className="quiet">Nothing found at {placesInWords(missing)}: the chord stays as it is there.</p>
      )}
      {held && wanted.bass && without.length > 0 && (
        <p className="quiet">
          The {engravedNote(held)} cannot be held at {placesInWords(without)}: no chord there has both.
        </p>
      )}
      {replaced.length > 0 && (
        <p className="quiet">
          Takes the place of what a change of the whole tune put in before, at {placesInWords(replaced)}.
        </p>
      )}
      {lost.length > 0 && (
        <p className="quiet">
          The {lost.map(engravedNote).join(' and ')} that sounds through all chords now would not any more.{' '}
          {wanted.bass && (
            <Button size="small" onClick={() => setWanted({ ...wanted, note: nameHere(firstOf(lost)) })}>
              Hold the {engravedNote(firstOf(lost))} as well
            </Button>
          )}
        </p>
      )}
      <Button disabled={choices.length === 0} onClick={take}>
        Take {choices.length === 1 ? 'this change' : `these ${choices.length} changes`}
      </Button>
    </section>
  )
}

/**
 * The note that is held and the bass, as they are chosen. @param wrong a word among the bass notes
 * that is none
 */
function ThreadChoice({
  wanted,
  onWanted,
  wrong,
}: {
  wanted: CommonAsked
  onWanted: (asked: CommonAsked) => void
  wrong: string | null
}) {
  return (
    <div className="common-choice">
      <TextField
        select
        label="Note held through all chords"
        size="small"
        value={wanted.note ?? ''}
        onChange={(event) => onWanted({ ...wanted, note: event.target.value || null })}
        sx={{ minWidth: 210 }}
      >
        <MenuItem value="">none</MenuItem>
        {HELD.map((note, at) => (
          <MenuItem key={note} value={note}>
            {engraved(note)}
            {at < OPEN_STRINGS ? ', an open string' : ''}
          </MenuItem>
        ))}
      </TextField>
      <TextField
        select
        label="Bass line"
        size="small"
        value={choiceOf(wanted.bass)}
        sx={{ minWidth: 190 }}
        onChange={({ target: { value } }) => onWanted({ ...wanted, bass: bassOf(value as BassChoice) })}
      >
        <MenuItem value="">as the chords have it</MenuItem>
        <MenuItem value="down">down by step</MenuItem>
        <MenuItem value="up">up by step</MenuItem>
        <MenuItem value="notes">notes of my own</MenuItem>
      </TextField>
      {wanted.bass?.kind === 'notes' && (
        <TextField
          label={wrong !== null ? `${wrong} is no note` : 'Bass notes from the selected chord on'}
          error={wrong !== null}
          size="small"
          placeholder="G F# E D"
          value={wanted.bass.notes}
          onChange={(event) => onWanted({ ...wanted, bass: { kind: 'notes', notes: event.target.value } })}
          sx={{ minWidth: 250 }}
        />
      )}
    </div>
  )
}

/** Each chord as it becomes, with what the held note is to it and where the bass goes. */
function ThreadChords({
  found,
  held,
  walks,
}: {
  found: readonly (Threaded | null)[]
  held: Note | null
  walks: boolean
}) {
  return (
    <ol className="common-chords">
      {found.map(
        (one, index) =>
          one && (
            <li key={index} className={one.change ? 'changed' : ''}>
              <ChordName chord={one.chord} />{' '}
              <small>
                {held && engraved(nameOver(held, one.chord))}
                {held && walks ? ', ' : ''}
                {walks && engravedNote(one.chord.bass ?? one.chord.root)}
              </small>
            </li>
          ),
      )}
    </ol>
  )
}

const symbols = (chords: readonly { symbol: string }[]): string =>
  chords.map(({ symbol }) => symbol).join(' ')

/** The name a sound has in the list of notes that can be held. */
const nameHere = (note: Note): string => HELD.find((name) => pitchClass(noteOf(name)) === pitchClass(note))!

const inWords = ({ note, bass }: CommonAsked): string =>
  [
    ...(note ? [`${note} through the tune`] : []),
    ...(bass ? [bass.kind === 'walk' ? `bass ${bass.direction} by step` : 'bass as typed'] : []),
  ]
    .join(', ')
    .slice(0, 80)

const noteOf = (name: string): Note => {
  const note = parseNote(name)
  if (!note.ok) throw new Error(note.fault.message)
  return note.value
}

function readNotes(text: string): { ok: true; notes: Note[] } | { ok: false; text: string } {
  const notes: Note[] = []
  for (const name of text.split(/[\s,]+/).filter(Boolean)) {
    const note = parseNote(name)
    if (!note.ok) return { ok: false, text: name }
    notes.push(note.value)
  }
  return { ok: true, notes }
}
