import { useRef, useState, type KeyboardEvent } from 'react'
import type { Chart, ChartProblem } from '../../../core/chart/chart'
import { withSetting } from '../../../core/chart/edit'
import { keyName } from '../../../core/pitch/key'
import { useListening } from '../../services/forms/useListening'
import { keyInWords } from '../../services/notation/ChordName'
import { FIRST_CHART } from '../../services/tune/firstChart'
import { MOST_TYPED } from './limits'
import type { TuneReading } from '../../../core/tune/reading'

interface Props {
  text: string
  reading: TuneReading
  onText: (text: string) => void
  onLeave: () => void
  onStep: (direction: 'undo' | 'redo') => void
}

/** Problems named at once. */
const PROBLEMS_SHOWN = 12

/** The chart as text, with whatever could not be read marked in its place. */
export function ChartEditor({ text, reading, onText, onLeave, onStep }: Props) {
  const listening = useListening()
  const area = useRef<HTMLTextAreaElement>(null)
  const { chart, analysis } = reading
  const [refused, setRefused] = useState<string | null>(null)
  const type = (next: string) => {
    const room = next.length <= MOST_TYPED || next.length <= text.length
    setRefused(room ? null : `A chart has room for ${MOST_TYPED.toLocaleString('en')} letters, and this would make ${next.length.toLocaleString('en')}: it was not put in.`)
    if (room) onText(next)
  }
  const onKey = (event: KeyboardEvent) => {
    const key = event.key.toLowerCase()
    if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y')) return
    event.preventDefault()
    onStep(key === 'y' || event.shiftKey ? 'redo' : 'undo')
  }
  const offset = offsetsOf(text)
  const take = (problem: ChartProblem, symbol: string) => {
    const at = offset(problem)
    onText(text.slice(0, at) + symbol + text.slice(at + problem.text.length))
  }
  const show = (problem: ChartProblem) => {
    const at = offset(problem)
    area.current?.focus()
    area.current?.setSelectionRange(at, at + problem.text.length)
  }
  return (
    <div className="chart-editor">
      <label htmlFor="chart-text" className="visually-hidden">Chart text</label>
      <div className="chart-text"><div>
        <div className="chart-marks" aria-hidden>{marked(text, chart)}{'\u200b'}</div>
        <textarea
          id="chart-text" ref={area} value={text} readOnly={!listening} spellCheck={false} autoCapitalize="off" autoCorrect="off"
          aria-describedby="chart-help" aria-invalid={chart.problems.length > 0}
          onChange={(event) => type(event.target.value)} onBlur={onLeave} onKeyDown={onKey}
        />
      </div></div>
      {refused && <p className="fault" role="alert">{refused}</p>}
      {text.trim() === '' ? (
        <p id="chart-help">
          Type chords between bar lines, one or more to a bar, and see them laid out below.{' '}
          <button type="button" className="plain-button" onClick={() => onText(FIRST_CHART)}>Put in four plain chords</button>
        </p>
      ) : (
        <div id="chart-help" className="quiet chart-help">
          {analysis.keyGuessed && chart.bars.length > 0 && (
            <p>{keyInWords(analysis.key)} was found. <button type="button" className="plain-button" onClick={() => onText(withSetting(text, 'key', keyName(analysis.key)))}>Write it into the chart</button></p>
          )}
          <details><summary>Signs of the chart text</summary><code>|</code> bar, <code>C . . G7</code> beats, <code>_G7</code> off the beat, <code>%</code> the bar again, <code>|: :|</code> repeat, <code>|1. |2.</code> endings, <code>[A]</code> section, <code>N.C.</code> silence, <code>D.S. al Coda</code>, <code>pickup: 1</code>, <code>capo: 2</code></details>
        </div>
      )}
      {chart.problems.length > 0 && (
        <ul className="problems" aria-live="polite">
          {chart.problems.slice(0, PROBLEMS_SHOWN).map((problem) => (
            <li key={`${problem.line}:${problem.column}:${problem.code}`}>
              <button type="button" className="plain-button" onClick={() => show(problem)}>
                {problem.bar ? `Bar ${problem.bar}, beat ${Math.round(problem.beat! * 100) / 100}` : `Line ${problem.line}`} (line {problem.line}, column {problem.column})
              </button>
              : {problem.message} <span className="quiet">Accepted: {problem.accepted}.</span>
              {problem.near && <> Is it {problem.near.map((symbol, at) => <span key={symbol}>{at > 0 && ' or '}<button type="button" className="plain-button" title={`Put ${symbol} in its place`} onClick={() => take(problem, symbol)}>{symbol}</button></span>)}?</>}
            </li>
          ))}
          {chart.problems.length > PROBLEMS_SHOWN && <li>and {chart.problems.length - PROBLEMS_SHOWN} more, each marked in the text.</li>}
        </ul>
      )}
    </div>
  )
}

/** Where places of a text are, counted from its beginning. */
function offsetsOf(text: string): (place: Pick<ChartProblem, 'line' | 'column'>) => number {
  const begins = [0, ...[...text.matchAll(/\r\n|\r|\n/g)].map((end) => end.index + end[0].length)]
  return ({ line, column }) => (begins[line - 1] ?? text.length) + column - 1
}

/** The text again, with the pieces that were not read wrapped in marks; it lies behind the typing. */
function marked(text: string, chart: Chart) {
  const offset = offsetsOf(text)
  const spans = chart.problems
    .map((problem) => ({ from: offset(problem), length: Math.max(1, problem.text.length), message: problem.message }))
    .sort((a, b) => a.from - b.from)
  const pieces = []
  let at = 0
  for (const span of spans) {
    if (span.from < at) continue
    pieces.push(text.slice(at, span.from), <mark key={span.from}>{text.slice(span.from, span.from + span.length)}</mark>)
    at = span.from + span.length
  }
  return [...pieces, text.slice(at)]
}
