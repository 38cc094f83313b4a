import { useRef, type KeyboardEvent } from 'react'
import type { Bar } from '../../../core/chart/chart'

/** A beat that is being typed. */
export interface Editing {
  /** Number of the bar. */
  bar: number
  beat: number
  /** What stands in the field at first. */
  word: string
  /** What stands there is marked, so that typing replaces it. */
  marked: boolean
  /** Takes the word and goes on a beat, back a beat, or stays. */
  onTake: (word: string, move: -1 | 0 | 1) => void
  onLeave: () => void
}

/** A field on a beat of a bar: what is typed there is read as a sign of the chart text. */
export function BeatInput({ bar, editing }: { bar: Bar; editing: Editing }) {
  const left = Math.max(0, Math.min(0.75, (editing.beat - bar.from) / bar.beats))
  return (
    <span className="beat-input" style={{ left: `${left * 100}%` }}>
      <BeatField key={`${editing.bar}:${editing.beat}`} editing={editing} />
    </span>
  )
}

/**
 * Where a key leaves the field to: the beat before, none, the beat behind; null where it stays in
 * it.
 */
function moveOf(event: KeyboardEvent<HTMLInputElement>): -1 | 0 | 1 | null {
  const { key, shiftKey, currentTarget: field } = event
  const isAt = (place: number) => field.selectionStart === place && field.selectionEnd === place
  switch (key) {
    case 'Enter':
      return 0
    case 'Tab':
      return shiftKey ? -1 : 1
    // Inside brackets a space is a letter of the symbol.
    case ' ':
      return field.value.includes('(') ? null : 1
    case 'ArrowRight':
      return isAt(field.value.length) ? 1 : null
    case 'ArrowLeft':
      return isAt(0) ? -1 : null
    default:
      return null
  }
}

function BeatField({ editing }: { editing: Editing }) {
  const done = useRef(false)
  const take = (word: string, move: -1 | 0 | 1) => {
    if (done.current) return
    done.current = true
    editing.onTake(word, move)
  }
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    const move = moveOf(event)
    if (event.key === 'Escape') {
      event.preventDefault()
      done.current = true
      editing.onLeave()
    }
    if (move === null) return
    event.preventDefault()
    take(event.currentTarget.value, move)
  }
  return (
    <input
      autoFocus
      defaultValue={editing.word}
      maxLength={60}
      spellCheck={false}
      autoCapitalize="off"
      autoComplete="off"
      aria-label={`Chord on beat ${editing.beat}`}
      onFocus={(event) => {
        if (editing.marked) event.target.select()
      }}
      onKeyDown={onKey}
      onBlur={(event) => take(event.target.value, 0)}
    />
  )
}
