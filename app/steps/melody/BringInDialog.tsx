import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { Chart } from '../../../core/chart/chart'
import { toAbc } from '../../../core/formats/abc'
import { lettersOf } from '../../../core/formats/letters'
import { scoreInMxl } from '../../../core/formats/mxl'
import type { Lyric } from '../../../core/melody/lyrics'
import type { Key } from '../../../core/pitch/key'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import { useAnswer } from '../../services/workers/useAnswer'
import { FORMATS, namesInWords, NOTES_FORMATS, type NotesFormat } from '../../../core/formats/names'
import type { ImportedTune } from '../../../core/formats/readTune'
import { bad, good, type Fault, type Result } from '../../../core/result'

/** Bytes of a file that is read at most; a larger one is refused before it is opened. */
const MOST_BYTES = 2_000_000

interface Props {
  onClose: () => void
  /**
   * The melody alone goes over the bars there are; with the chords the whole tune takes the chart's
   * place.
   */
  onBringIn: (tune: ImportedTune, withChords: boolean) => void
  /** The melody there is stands as ABC, to be written on. */
  title: string
  chart: Chart
  notes: readonly MelodyNote[]
  lyrics: readonly Lyric[]
  songKey: Key
  tempo: number
}

type Source = { content: string; format: NotesFormat; name: string } | null

const broughtInWords = ({ melody, lyrics }: ImportedTune): string =>
  `${counted(melody.length, 'note')}${lyrics.length > 0 ? `, words at ${counted(lyrics.length, 'place')}` : ''}.`
const counted = (count: number, what: string): string => `${count} ${what}${count === 1 ? '' : 's'}`

const ACCEPTED = [...NOTES_FORMATS.flatMap((name) => FORMATS[name].endings), 'txt']
  .map((ending) => `.${ending}`)
  .join()
const formatOf = (text: string): NotesFormat => (/^\s*</.test(text) ? 'musicxml' : 'abc')
const beginningOf = ({ format, content }: { format: NotesFormat; content: string }): string =>
  format === 'midi' ? 'A MIDI file' : content.slice(0, SHOWN_LETTERS)

/**
 * A melody typed as ABC, or from a MIDI, MusicXML or ABC file: what was read and what was left out
 * is shown before anything changes.
 */
export function BringInDialog({ onClose, onBringIn, title, chart, notes, lyrics, songKey, tempo }: Props) {
  const [typed, setTyped] = useState(() =>
    notes.length === 0 ? '' : toAbc({ title, chart, key: songKey, tempo, melody: notes, lyrics }),
  )
  const [source, setSource] = useState<Source>(null)
  const [part, setPart] = useState<number | null>(null)
  const [refused, setRefused] = useState<Fault | null>(null)
  const asked = source ?? (typed.trim() === '' ? null : { content: typed, format: 'abc' as const })
  const read = useAnswer('import', 'tune', asked && { content: asked.content, format: asked.format, part }, {
    pauseMs: TYPING_PAUSE_MS,
  })
  const reading = read.state.kind === 'searching'
  const broken: Fault | null =
    read.state.kind === 'fault'
      ? { code: 'broken', message: read.state.message, accepted: 'another file, or ABC that is typed' }
      : null
  const fault = refused ?? broken
  const answer = asked ? read.answer : null
  const found: Result<ImportedTune> | null = fault ? bad(fault) : answer

  const open = async (file: File | undefined) => {
    if (!file) return
    const opened = await sourceIn(file)
    setRefused(opened.ok ? null : opened.fault)
    if (!opened.ok) return
    setPart(null)
    setSource(opened.value)
  }
  const tune = found?.ok ? found.value : null
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="bring-in-title">
      <DialogTitle id="bring-in-title" component="h2">
        Bring in a melody
      </DialogTitle>
      <DialogContent>
        <Button component="label" variant="outlined" size="small">
          Open a file of {namesInWords(NOTES_FORMATS).replace(/ and /, ' or ')}
          <input
            type="file"
            hidden
            accept={ACCEPTED}
            onChange={(event) => void open(event.target.files?.[0])}
          />
        </Button>
        {source && (
          <>
            {' '}
            {source.name}{' '}
            <Button
              size="small"
              onClick={() => {
                setSource(null)
                setPart(null)
              }}
            >
              Back to typing
            </Button>
          </>
        )}
        <div className="import-columns">
          <label>
            {source ? 'From the file' : 'Type ABC here'}
            <textarea
              value={source ? beginningOf(source) : typed}
              readOnly={source !== null}
              spellCheck={false}
              placeholder={'X:1\nM:4/4\nL:1/8\nK:G\n"G"B2 d2 "D7"c2 A2 | "G"G8 |'}
              onChange={(event) => setTyped(event.target.value)}
            />
          </label>
          <label>
            The chart it makes
            <textarea value={tune?.text ?? ''} readOnly />
          </label>
        </div>
        <WhatWasRead reading={reading} found={found} onPart={setPart} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          disabled={!tune || reading}
          onClick={() => {
            onBringIn(tune!, true)
            onClose()
          }}
        >
          Chords and melody in place of the chart
        </Button>
        <Button
          variant="contained"
          color="primary"
          disabled={!tune || reading || tune.melody.length === 0}
          onClick={() => {
            onBringIn(tune!, false)
            onClose()
          }}
        >
          Only the melody
        </Button>
      </DialogActions>
    </Dialog>
  )
}

/**
 * What is in a file, as it is read; refused where it is too large, or a packed score without a
 * score.
 */
async function sourceIn(file: File): Promise<Result<NonNullable<Source>>> {
  if (file.size > MOST_BYTES)
    return bad({
      code: 'too-large',
      message: `${file.name} has ${file.size} bytes.`,
      accepted: `at most ${MOST_BYTES} bytes`,
    })
  const bytes = new Uint8Array(await file.arrayBuffer())
  const { name } = file
  if (begins(bytes, MIDI_BEGINS))
    return good({
      name,
      content: btoa([...bytes].map((byte) => String.fromCharCode(byte)).join('')),
      format: 'midi',
    })
  const score = begins(bytes, ZIP_BEGINS) ? scoreInMxl(name, bytes) : null
  if (score && !score.ok) return score
  const text = lettersOf(score ? score.value : bytes)
  return good({ name, content: text, format: formatOf(text) })
}
/** The first bytes of a MIDI file (`MTh`), and of a zip file (`PK`). */
const MIDI_BEGINS = [0x4d, 0x54, 0x68]
const ZIP_BEGINS = [0x50, 0x4b]
const begins = (bytes: Uint8Array, with_: readonly number[]): boolean =>
  with_.every((byte, at) => bytes[at] === byte)

interface ReadProps {
  reading: boolean
  found: Result<ImportedTune> | null
  /** Another part of the file has the melody. */
  onPart: (part: number) => void
}

/** What came of what was brought: notes, parts to choose from, what was left out. */
function WhatWasRead({ reading, found, onPart }: ReadProps) {
  const tune = found?.ok ? found.value : null
  return (
    <div aria-live="polite">
      {reading ? <p>Reading what was brought…</p> : tune && <p>{broughtInWords(tune)}</p>}
      {tune?.parts && (
        <TextField
          select
          size="small"
          label="Melody"
          value={tune.parts.taken}
          onChange={(event) => onPart(Number(event.target.value))}
        >
          {tune.parts.names.map((name, at) => (
            <MenuItem key={at} value={at + 1}>
              {name}
            </MenuItem>
          ))}
        </TextField>
      )}
      {found && !found.ok && (
        <p className="fault">
          {found.fault.message} Accepted: {found.fault.accepted}.
        </p>
      )}
      {tune && tune.warnings.length > 0 && (
        <ul className="import-warnings">
          {tune.warnings.map((one) => (
            <li key={one}>{one}</li>
          ))}
        </ul>
      )}
    </div>
  )
}

const TYPING_PAUSE_MS = 200
/** Letters of a file that are shown. */
const SHOWN_LETTERS = 20_000
