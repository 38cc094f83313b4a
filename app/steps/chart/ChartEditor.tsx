import { useRef, useState, type KeyboardEvent } from 'react'
import type { Chart } from '../../../core/chart/chart'
import { withSetting } from '../../../core/chart/editBars'
import { keyName } from '../../../core/pitch/key'
import { useListening } from '../../services/forms/useListening'
import { keyInWords } from '../../../core/chord/engraved'
import { offsetsOf } from './Problems'
import { MOST_TYPED } from './editorLimits'
import type { TuneReading } from '../../../core/tune/tuneReading'

interface Props {
  text: string
  reading: TuneReading
  onText: (text: string) => void
  onLeave: () => void
  onStep: (direction: 'undo' | 'redo') => void
}

/** The chart as text, with whatever could not be read marked in its place. */
export function ChartEditor({ text, reading, onText, onLeave, onStep }: Props) {
  const listening = useListening()
  const area = useRef<HTMLTextAreaElement>(null)
  const { chart, analysis } = reading
  const [refused, setRefused] = useState<string | null>(null)
  const type = (next: string) => {
    const room = next.length <= MOST_TYPED || next.length <= text.length
    setRefused(
      room
        ? null
        : `A chart has room for ${MOST_TYPED.toLocaleString('en')} letters, and this would make ${next.length.toLocaleString('en')}: it was not put in.`,
    )
    if (room) onText(next)
  }
  const onKey = (event: KeyboardEvent) => {
    const key = event.key.toLowerCase()
    if (!(event.ctrlKey || event.metaKey) || (key !== 'z' && key !== 'y')) return
    event.preventDefault()
    onStep(key === 'y' || event.shiftKey ? 'redo' : 'undo')
  }
  return (
    <div className="chart-editor">
      <label htmlFor="chart-text" className="visually-hidden">
        Chart text
      </label>
      <div className="chart-text">
        <div>
          <div className="chart-marks" aria-hidden>
            {marked(text, chart)}
            {'\u200b'}
          </div>
          <textarea
            id="chart-text"
            ref={area}
            value={text}
            readOnly={!listening}
            spellCheck={false}
            autoCapitalize="off"
            autoCorrect="off"
            aria-describedby="chart-help"
            aria-invalid={chart.problems.length > 0}
            onChange={(event) => type(event.target.value)}
            onBlur={onLeave}
            onKeyDown={onKey}
          />
        </div>
      </div>
      {refused && (
        <p className="fault" role="alert">
          {refused}
        </p>
      )}
      {text.trim() === '' ? (
        <p id="chart-help" className="quiet chart-help">
          Type chords between bar lines, one or more to a bar, and see them laid out below.
        </p>
      ) : (
        <p id="chart-help" className="quiet chart-help">
          {analysis.keyGuessed && chart.bars.length > 0 && (
            <>
              {keyInWords(analysis.key)} was found.{' '}
              <button
                type="button"
                className="plain-button"
                onClick={() => onText(withSetting(text, 'key', keyName(analysis.key)))}
              >
                Write it into the chart
              </button>
            </>
          )}
        </p>
      )}
    </div>
  )
}

/**
 * The text again, with the pieces that were not read wrapped in marks; it lies behind the typing.
 */
function marked(text: string, chart: Chart) {
  const offset = offsetsOf(text)
  const spans = chart.problems
    .map((problem) => ({
      from: offset(problem),
      length: Math.max(1, problem.text.length),
      message: problem.message,
    }))
    .sort((a, b) => a.from - b.from)
  const pieces = []
  let at = 0
  for (const span of spans) {
    if (span.from < at) continue
    pieces.push(
      text.slice(at, span.from),
      <mark key={span.from}>{text.slice(span.from, span.from + span.length)}</mark>,
    )
    at = span.from + span.length
  }
  return [...pieces, text.slice(at)]
}
