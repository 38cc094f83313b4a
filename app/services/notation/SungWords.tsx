import type { KeyboardEvent } from 'react'
import { barName, type Bar } from '../../../core/chart/chart'
import { lyricInWords, printLyrics, readLyrics, type Lyric } from '../../../core/melody/lyrics'

/** What is sung in a bar, and the beats on which notes of the melody begin there. */
export interface SungBar {
  lyrics: readonly Lyric[]
  onsets: readonly number[]
}
export const NOTHING_SUNG: SungBar = { lyrics: [], onsets: [] }

/** The words of a bar, each under its beat. */
export function SungWords({ bar, sung: { lyrics } }: { bar: Bar; sung: SungBar }) {
  const end = bar.from + bar.beats
  const [first] = lyrics
  return (
    <div className="sung-words" role="group" aria-label={`Words of ${barName(bar.number)}`}>
      {first && first.beat > bar.from && <span style={{ flexGrow: first.beat - bar.from }} />}
      {lyrics.map((one, at) => (
        <span key={one.beat} style={{ flexGrow: (lyrics[at + 1]?.beat ?? end) - one.beat }}>
          {lyricInWords(one)}
        </span>
      ))}
    </div>
  )
}

interface FieldProps {
  bar: Bar
  sung: SungBar
  onTake: (bar: number, lyrics: Lyric[]) => void
}

/** A field under a bar for its words. Enter goes on to the next bar's. */
export function WordsField({ bar, sung: { lyrics, onsets }, onTake }: FieldProps) {
  const now = printLyrics(lyrics, bar, onsets)
  const take = (typed: string) => {
    if (typed.trim() !== now) onTake(bar.number, readLyrics(typed, bar, onsets))
  }
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    // What the field does not use is not for the page's keys either.
    event.stopPropagation()
    const field = event.currentTarget
    if (event.key === 'Escape') {
      field.value = now
      field.blur()
    } else if (event.key === 'Enter') {
      event.preventDefault()
      const fields = [...document.querySelectorAll<HTMLInputElement>('input.words-field')]
      const next = fields[fields.indexOf(field) + (event.shiftKey ? -1 : 1)]
      if (next) next.focus()
      else field.blur()
    }
  }
  return (
    <input
      key={now}
      className="words-field"
      aria-label={`Words of ${barName(bar.number)}`}
      placeholder={onsets.length > 0 ? 'sum-mer night . is' : 'words'}
      title={
        onsets.length > 0
          ? 'A word on each note, - between syllables, . for a note without one, @3 for beat 3'
          : 'Words from the beginning of the bar, @3 for beat 3'
      }
      defaultValue={now}
      maxLength={1000}
      spellCheck={false}
      autoComplete="off"
      onBlur={(event) => take(event.target.value)}
      onKeyDown={onKey}
    />
  )
}
