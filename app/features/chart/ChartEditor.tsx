import { useRef, useState, type ReactNode } from 'react'
import type { Chart, ChartProblem } from '../../../core/chart/chart'
import { withSetting } from '../../../core/chart/edit'
import { keyName } from '../../../core/pitch/key'
import { keyInWords } from '../notation/ChordName'
import { ImportDialog } from './ImportDialog'
import type { TuneReading } from '../workspace/useTuneReading'

interface Props {
  text: string
  reading: TuneReading
  /** What stands at the left of the head: the charts of the tune. */
  head: ReactNode
  onText: (text: string) => void
  onLeave: () => void
}

/** Four plain chords to begin with, offered wherever a tune is still empty. */
export const FIRST_CHART = 'key: C\nmeter: 4/4\n[A] | C | Am | Dm | G |'

/** The chart as text, with whatever could not be read marked in its place. */
export function ChartEditor({ text, reading, head, onText, onLeave }: Props) {
  const [bringing, setBringing] = useState(false)
  const [folded, setFolded] = useState(false)
  const area = useRef<HTMLTextAreaElement>(null)
  const { chart, analysis } = reading
  const show = (problem: ChartProblem) => {
    const at = offsetOf(text, problem)
    area.current?.focus()
    area.current?.setSelectionRange(at, at + problem.text.length)
  }
  return (
    <div className="chart-editor">
      <div className="chart-head">
        {head}
        <span className="chart-head-tools">
          <button type="button" className="tool" aria-expanded={!folded} aria-controls="chart-text" onClick={() => setFolded(!folded)}>{folded ? 'Show the text' : 'Hide the text'}</button>
          <button type="button" className="tool" onClick={() => setBringing(true)}>Bring in chords</button>
        </span>
      </div>
      {bringing && <ImportDialog onClose={() => setBringing(false)} onText={onText} />}
      <label htmlFor="chart-text" className="visually-hidden">Chart text</label>
      <div className="chart-text" hidden={folded}><div>
        <div className="chart-marks" aria-hidden>{marked(text, chart)}{'\u200b'}</div>
        <textarea
          id="chart-text" ref={area} value={text} spellCheck={false} autoCapitalize="off" autoCorrect="off"
          aria-describedby="chart-help" aria-invalid={chart.problems.length > 0} maxLength={100_000}
          onChange={(event) => onText(event.target.value)} onBlur={onLeave}
        />
      </div></div>
      {text.trim() === '' ? (
        <p id="chart-help">
          Type chords between bar lines, one or more to a bar, and see them laid out below.{' '}
          <button type="button" className="plain-button" onClick={() => onText(FIRST_CHART)}>Put in four plain chords</button>
        </p>
      ) : (
        <div id="chart-help" className="quiet chart-help" hidden={folded}>
          {analysis.keyGuessed && chart.bars.length > 0 && (
            <p>{keyInWords(analysis.key)} was found. <button type="button" className="plain-button" onClick={() => onText(withSetting(text, 'key', keyName(analysis.key)))}>Write it into the chart</button></p>
          )}
          <details><summary>Signs of the chart text</summary><code>|</code> bar, <code>C . . G7</code> beats, <code>_G7</code> off the beat, <code>%</code> the bar again, <code>|: :|</code> repeat, <code>|1. |2.</code> endings, <code>[A]</code> section, <code>N.C.</code> silence, <code>D.S. al Coda</code>, <code>pickup: 1</code>, <code>capo: 2</code></details>
        </div>
      )}
      {chart.problems.length > 0 && (
        <ul className="problems" aria-live="polite">
          {chart.problems.map((problem) => (
            <li key={`${problem.line}:${problem.column}:${problem.code}`}>
              <button type="button" className="plain-button" onClick={() => show(problem)}>
                {problem.bar ? `Bar ${problem.bar}, beat ${Math.round(problem.beat! * 100) / 100}` : `Line ${problem.line}`} (line {problem.line}, column {problem.column})
              </button>
              : {problem.message} <span className="quiet">Accepted: {problem.accepted}.</span>
            </li>
          ))}
        </ul>
      )}
    </div>
  )
}

const offsetOf = (text: string, { line, column }: ChartProblem): number =>
  text.split(/\r\n|\r|\n/).slice(0, line - 1).reduce((sum, one) => sum + one.length + 1, 0) + column - 1

/** The text again, with the pieces that were not read wrapped in marks; it lies behind the typing. */
function marked(text: string, chart: Chart) {
  const spans = chart.problems
    .map((problem) => ({ from: offsetOf(text, problem), length: Math.max(1, problem.text.length), message: problem.message }))
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
