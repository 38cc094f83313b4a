import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useMemo, useState } from 'react'
import { placeName } from '../../../core/chart/chart'
import { parseNote, type Note } from '../../../core/pitch/note'
import { bassWalk, commonThread, wantedBass, type Threaded } from '../../../core/reharm/thread'
import { ChordName, engraved, engravedNote } from '../notation/ChordName'
import { decidedByHand, type TuneDocument, type TuneEdit } from '../tune/document'
import type { TuneChord } from '../workspace/useTuneReading'

/** The open strings first: they can sound on as a drone. */
const HELD = ['E', 'A', 'D', 'G', 'B', 'C', 'Db', 'Eb', 'F', 'F#', 'Ab', 'Bb'] as const
const OPEN_STRINGS = 5

type Wanted = { kind: 'note'; note: string } | { kind: 'walk'; direction: 'down' | 'up' } | { kind: 'bass'; notes: string }

interface Props {
  document: TuneDocument
  chords: readonly TuneChord[]
  /** First and last selected chord: typed bass notes begin at the first. */
  range: readonly [number, number]
  onEdit: (edit: TuneEdit) => void
}

interface Found { threaded: Threaded; note: string }

/** One note through all chords, or a bass that goes where it is wanted: what each chord has to become for it. */
export function CommonPanel({ document, chords, range, onEdit }: Props) {
  const [wanted, setWanted] = useState<Wanted>({ kind: 'note', note: 'E' })
  const { text } = document
  const [from] = range
  const bass = useMemo(() => (wanted.kind === 'bass' ? readNotes(wanted.notes) : null), [wanted])
  const found = useMemo((): (Found | null)[] => {
    if (wanted.kind === 'note') return commonThread(text, noteOf(wanted.note)).map((one) => one && { threaded: one, note: engraved(one.degree) })
    const threads = wanted.kind === 'walk' ? bassWalk(text, wanted.direction)
      : bass && bass.ok ? wantedBass(text, chords.map((_, index) => bass.notes[index - from] ?? null)) : []
    return threads.map((one) => one && { threaded: one, note: engravedNote(one.chord.bass ?? one.chord.root) })
  }, [wanted, text, bass, chords, from])
  const byHand = decidedByHand(document)
  const missing = chords.filter((chord, index) => chord.decision && !found[index] && (wanted.kind !== 'bass' || (bass?.ok && index >= from && index - from < bass.notes.length)))
  const take = () => {
    const at = Date.now()
    const choices = found.flatMap((one, index) => {
      const change = one?.threaded.change
      return change && !byHand.has(index) ? [[chords[index]!.key, { chords: change.puts.map(({ chord, beats }) => ({ symbol: chord.canonical, beats })), span: 1, rule: change.rule, at }] as const] : []
    })
    onEdit({ kind: 'way', choices: Object.fromEntries(choices), did: wanted.kind === 'note' ? `${wanted.note} through the tune` : wanted.kind === 'walk' ? `bass ${wanted.direction} by step` : 'bass as typed' })
  }
  const changes = found.filter((one) => one?.threaded.change).length
  return (
    <section className="panel" aria-label="Common note and bass">
      <div className="common-choice">
        <TextField select label="A note through all chords" size="small" value={wanted.kind === 'note' ? wanted.note : ''} onChange={(event) => setWanted({ kind: 'note', note: event.target.value })} sx={{ minWidth: 190 }}>
          {HELD.map((note, at) => <MenuItem key={note} value={note}>{engraved(note)}{at < OPEN_STRINGS ? ', an open string' : ''}</MenuItem>)}
        </TextField>
        <Button aria-pressed={wanted.kind === 'walk' && wanted.direction === 'down'} onClick={() => setWanted({ kind: 'walk', direction: 'down' })}>Bass down by step</Button>
        <Button aria-pressed={wanted.kind === 'walk' && wanted.direction === 'up'} onClick={() => setWanted({ kind: 'walk', direction: 'up' })}>Bass up by step</Button>
        <TextField
          label={bass && !bass.ok ? `${bass.text} is no note` : 'Bass notes from the selected chord on'} error={bass !== null && !bass.ok} size="small" placeholder="G F# E D" value={wanted.kind === 'bass' ? wanted.notes : ''}
          onChange={(event) => setWanted({ kind: 'bass', notes: event.target.value })} sx={{ minWidth: 250 }}
        />
      </div>
      <ol className="common-chords">
        {found.map((one, index) => one && <li key={index} className={one.threaded.change ? 'changed' : ''}><ChordName chord={one.threaded.chord} /> <small>{one.note}</small></li>)}
      </ol>
      {missing.length > 0 && <p className="quiet">Nothing found at {missing.slice(0, 4).map(({ slot }) => placeName(slot)).join('; ')}{missing.length > 4 ? ` and ${missing.length - 4} more` : ''}: the chord there stays.</p>}
      <Button disabled={changes === 0} onClick={take}>Take {changes === 1 ? 'this change' : `these ${changes} changes`}</Button>
    </section>
  )
}

const noteOf = (name: string): Note => { const note = parseNote(name); if (!note.ok) throw new Error(note.fault.message); return note.value }

function readNotes(text: string): { ok: true; notes: Note[] } | { ok: false; text: string } {
  const notes: Note[] = []
  for (const name of text.split(/[\s,]+/).filter(Boolean)) {
    const note = parseNote(name)
    if (!note.ok) return { ok: false, text: name }
    notes.push(note.value)
  }
  return { ok: true, notes }
}
