import AddOutlined from '@mui/icons-material/AddOutlined'
import Button from '@mui/material/Button'
import { barName, type Chart } from '../../../core/chart/chart'
import type { BarAct, ChartEditing } from './useChartEditing'

const ACTS: readonly { act: BarAct; label: string; key: string; says: string }[] = [
  { act: 'before', label: 'Insert before', key: 'Shift I', says: 'A silent bar before' },
  { act: 'after', label: 'Insert after', key: 'I', says: 'A silent bar behind' },
  { act: 'split', label: 'Split', key: 'S', says: 'Two bars of it: each half lasts a whole bar' },
  { act: 'join', label: 'Join', key: 'J', says: 'One bar of it and the next: each lasts half a bar' },
  { act: 'earlier', label: 'Earlier', key: '[', says: 'Changes places with the bar before' },
  { act: 'later', label: 'Later', key: ']', says: 'Changes places with the bar behind' },
  { act: 'down', label: '½ down', key: '−', says: 'Only these bars, a half step down' },
  { act: 'up', label: '½ up', key: '+', says: 'Only these bars, a half step up' },
  { act: 'copy', label: 'Copy', key: 'Ctrl C', says: 'As chart text, to paste here or elsewhere' },
  { act: 'paste', label: 'Paste', key: 'Ctrl V', says: 'What was copied, behind' },
  { act: 'remove', label: 'Take out', key: 'X', says: 'These bars go; undo brings them back' },
]

/** What can be done with the selected bars, each with its key. */
export function BarTools({ chart, tools: { bars, act, canPaste, says } }: { chart: Chart; tools: ChartEditing }) {
  if (chart.bars.length === 0)
    return <div className="bar-tools"><Button size="small" startIcon={<AddOutlined />} onClick={() => act('after')}>Put in a bar</Button></div>
  if (!bars) return null
  const [from, to] = [chart.bars[bars[0]]!.number, chart.bars[bars[1]]?.number ?? chart.bars.at(-1)!.number]
  return (
    <div className="bar-tools" role="toolbar" aria-label="Bars">
      <b>{from === to ? capital(barName(from)) : `Bars ${from === 0 ? 'pickup' : from} to ${to}`}</b>
      {ACTS.map(({ act: what, label, key, says: title }) => (
        <button key={what} type="button" className="tool" title={`${title} (${key})`} disabled={what === 'paste' && !canPaste} onClick={() => act(what)}>{label}</button>
      ))}
      <span className="visually-hidden" aria-live="polite">{says}</span>
    </div>
  )
}

const capital = (words: string) => words[0]!.toUpperCase() + words.slice(1)
