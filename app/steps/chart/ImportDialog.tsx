import Button from '@mui/material/Button'
import Dialog from '@mui/material/Dialog'
import DialogActions from '@mui/material/DialogActions'
import DialogContent from '@mui/material/DialogContent'
import DialogTitle from '@mui/material/DialogTitle'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import { useDeferredValue, useMemo, useState } from 'react'
import { guessFormat, importChart } from '../../../core/formats/importChart'
import { FORMATS, PASTED_FORMATS, type PastedFormat } from '../../../core/formats/names'
import type { ImportedChart, ImportWarning } from '../../../core/formats/chartDraft'
import { groupedBy } from '../../../core/grouped'
import { parseKey } from '../../../core/pitch/key'
import { MOST_TYPED } from './editorLimits'

/** Keys offered, major and minor, flats and sharps in turn. */
const KEY_NAMES = [
  'C',
  'Am',
  'F',
  'Dm',
  'G',
  'Em',
  'Bb',
  'Gm',
  'D',
  'Bm',
  'Eb',
  'Cm',
  'A',
  'F#m',
  'Ab',
  'Fm',
  'E',
  'C#m',
  'Db',
  'Bbm',
  'B',
  'G#m',
  'Gb',
  'Ebm',
  'F#',
  'D#m',
] as const

/** What comes with the chords, in words; null where nothing does. */
function comesAlong({ lyrics, grips }: ImportedChart): string | null {
  const parts = [
    ...(lyrics.length > 0 ? [`words at ${lyrics.length} ${lyrics.length === 1 ? 'place' : 'places'}`] : []),
    ...(grips.length > 0 ? [`${grips.length} ${grips.length === 1 ? 'grip' : 'grips'}`] : []),
  ]
  return parts.length > 0 ? `With the chords come ${parts.join(' and ')}.` : null
}

/** Warnings that say the same, together, each with where it is said first. */
const alikeIn = (warnings: readonly ImportWarning[]): [ImportWarning, ...ImportWarning[]][] =>
  [...groupedBy(warnings, ({ message }) => message).values()] as [ImportWarning, ...ImportWarning[]][]

/** Things left out that are named at once. */
const WARNINGS_SHOWN = 30

/**
 * Takes in what a player has elsewhere, shows the chart it makes and what was left out, and puts it
 * in when told to.
 */
export function ImportDialog({
  onClose,
  onBringIn,
}: {
  onClose: () => void
  onBringIn: (chart: Pick<ImportedChart, 'text' | 'lyrics' | 'grips'>) => void
}) {
  const [chosen, setChosen] = useState<PastedFormat | null>(null)
  const [typed, setTyped] = useState('')
  const [refused, setRefused] = useState<string | null>(null)
  const [keyText, setKeyText] = useState('')
  // What is pasted shows at once; what is made of it follows as soon as the page has time.
  const content = useDeferredValue(typed)
  const format = useMemo(() => chosen ?? guessFormat(content), [chosen, content])
  const made = useMemo(() => {
    const key = parseKey(keyText)
    return importChart(content, format, { key: key.ok ? key.value : null })
  }, [content, format, keyText])
  // What the player changes in the chart counts until something else is pasted or chosen.
  const [changed, setChanged] = useState<{ of: string; text: string } | null>(null)
  const text = changed?.of === made.text ? changed.text : made.text
  const paste = (next: string) => {
    const room = next.length <= MOST_TYPED
    setRefused(
      room
        ? null
        : `A chart has room for ${MOST_TYPED.toLocaleString('en')} letters, and this has ${next.length.toLocaleString('en')}: it was not put in. Paste a part of it.`,
    )
    if (room) setTyped(next)
  }
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="import-title">
      <DialogTitle id="import-title" component="h2">
        Bring in chords
      </DialogTitle>
      <DialogContent>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={format}
          aria-label="What it is"
          onChange={(_, next: PastedFormat | null) => next && setChosen(next)}
        >
          {PASTED_FORMATS.map((name) => (
            <ToggleButton key={name} value={name}>
              {FORMATS[name].label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        {chosen === null && content.trim() !== '' && (
          <p className="quiet" role="status">
            Read as {FORMATS[format].label}, by what is in it. If that is wrong, choose above.
          </p>
        )}
        {format === 'numerals' && !/^\s*key\s*:/im.test(content) && (
          <TextField
            select
            size="small"
            label="In the key of"
            value={keyText}
            onChange={(event) => setKeyText(event.target.value)}
            sx={{ minWidth: 160, marginTop: 1 }}
          >
            <MenuItem value="">as guessed</MenuItem>
            {KEY_NAMES.map((name) => (
              <MenuItem key={name} value={name}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        <div className="import-columns">
          <label>
            Paste here
            <textarea
              className={format === 'text' || format === 'tab' ? 'by-columns' : undefined}
              value={typed}
              spellCheck={false}
              placeholder={FORMATS[format].pasted}
              onChange={(event) => paste(event.target.value)}
            />
          </label>
          <label>
            The chart it makes; it can be changed here
            <textarea
              value={text}
              spellCheck={false}
              onChange={(event) => setChanged({ of: made.text, text: event.target.value })}
            />
          </label>
        </div>
        {refused && (
          <p className="fault" role="alert">
            {refused}
          </p>
        )}
        <WhatWasRead made={made} />
      </DialogContent>
      <DialogActions>
        <Button onClick={onClose}>Cancel</Button>
        <Button
          variant="contained"
          color="primary"
          disabled={text.trim() === ''}
          onClick={() => {
            onBringIn({ text, lyrics: made.lyrics, grips: made.grips })
            onClose()
          }}
        >
          Put it in place of the chart
        </Button>
      </DialogActions>
    </Dialog>
  )
}

/** What comes with the chords, and what was left out or guessed. */
function WhatWasRead({ made }: { made: ImportedChart }) {
  const { warnings } = made
  const alike = useMemo(() => alikeIn(warnings), [warnings])
  return (
    <div aria-live="polite">
      {comesAlong(made) && <p>{comesAlong(made)}</p>}
      {warnings.length > 0 && <h3>Left out or guessed ({warnings.length})</h3>}
      <ul className="import-warnings">
        {alike.slice(0, WARNINGS_SHOWN).map(([{ line, column, message }, ...more]) => (
          <li key={message}>
            Line {line}, column {column}
            {more.length > 0 && ` and ${more.length} more ${more.length === 1 ? 'place' : 'places'}`}:{' '}
            {message}
          </li>
        ))}
        {alike.length > WARNINGS_SHOWN && <li>and {alike.length - WARNINGS_SHOWN} more</li>}
      </ul>
    </div>
  )
}
