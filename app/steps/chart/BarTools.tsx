import { firstOf } from '../../../core/lists'
import { memo } from 'react'
import { barName } from '../../../core/chart/chart'
import type { BarAct } from './useChartEditing'

const ACTS: readonly { act: BarAct; label: string; key: string; says: string }[] = [
  { act: 'before', label: 'Insert before', key: 'Alt Shift I', says: 'A silent bar before' },
  { act: 'after', label: 'Insert after', key: 'Alt I', says: 'A silent bar behind' },
  { act: 'split', label: 'Split', key: 'Alt S', says: 'Two bars of it: each half lasts a whole bar' },
  { act: 'join', label: 'Join', key: 'Alt J', says: 'One bar of it and the next: each lasts half a bar' },
  { act: 'earlier', label: 'Earlier', key: '[', says: 'Changes places with the bar before' },
  { act: 'later', label: 'Later', key: ']', says: 'Changes places with the bar behind' },
  { act: 'down', label: '½ down', key: '−', says: 'Only these bars, a half step down' },
  { act: 'up', label: '½ up', key: '+', says: 'Only these bars, a half step up' },
  { act: 'copy', label: 'Copy', key: 'Ctrl C', says: 'As chart text, to paste here or elsewhere' },
  { act: 'paste', label: 'Paste', key: 'Ctrl V', says: 'What was copied, behind' },
  { act: 'remove', label: 'Take out', key: 'Delete', says: 'These bars go; undo brings them back' },
]

interface Props {
  /** Numbers of the first and last selected bar; null where nothing is selected. */
  from: number | null
  to: number | null
  empty: boolean
  canPaste: boolean
  /** What was done last. */
  says: string
  onAct: (act: BarAct) => void
}

/** What can be done with the selected bars, each with its key. */
export const BarTools = memo(function BarTools({ from, to, empty, canPaste, says, onAct }: Props) {
  if (empty)
    return (
      <div className="bar-tools">
        <button type="button" className="tool" onClick={() => onAct('after')}>
          Put in a bar
        </button>
      </div>
    )
  if (from === null || to === null) return null
  return (
    <div className="bar-tools" role="toolbar" aria-label="Bars">
      <b>{barsInWords(from, to)}</b>
      {ACTS.map(({ act, label, key, says: title }) => (
        <button
          key={act}
          type="button"
          className="tool"
          title={`${title} (${key})`}
          disabled={act === 'paste' && !canPaste}
          onClick={() => onAct(act)}
        >
          {label}
        </button>
      ))}
      <span className="visually-hidden" aria-live="polite">
        {says}
      </span>
    </div>
  )
})

/** The selected bars by their numbers. */
export const barsInWords = (from: number, to: number): string =>
  from === to ? capital(barName(from)) : `${from === 0 ? 'Pickup' : `Bars ${from}`} to ${to}`

const capital = (words: string) => firstOf(words).toUpperCase() + words.slice(1)
