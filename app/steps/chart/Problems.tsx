import { beatInWords } from '../../../core/chart/beats'
import type { ChartProblem } from '../../../core/chart/chart'
import type { TuneReading } from '../../../core/tune/tuneReading'

interface Props {
  text: string
  reading: Pick<TuneReading, 'chart'>
  onText: (text: string) => void
}

/** Problems named at once. */
const PROBLEMS_SHOWN = 12

/** What of the chart could not be read: where, why, and what would be. */
export function Problems({ text, reading: { chart }, onText }: Props) {
  const offset = offsetsOf(text)
  const take = (problem: ChartProblem, symbol: string) => {
    const at = offset(problem)
    onText(text.slice(0, at) + symbol + text.slice(at + problem.text.length))
  }
  const show = (problem: ChartProblem) => {
    const at = offset(problem)
    const area = document.getElementById('chart-text') as HTMLTextAreaElement | null
    area?.focus()
    area?.setSelectionRange(at, at + problem.text.length)
  }
  if (chart.problems.length === 0) return null
  return (
    <ul className="problems" aria-label="Problems" aria-live="polite">
      {chart.problems.slice(0, PROBLEMS_SHOWN).map((problem) => (
        <li key={`${problem.line}:${problem.column}:${problem.code}`}>
          <button type="button" className="plain-button" onClick={() => show(problem)}>
            {problem.bar ? `Bar ${problem.bar}, ${beatInWords(problem.beat!)}` : `Line ${problem.line}`} (line{' '}
            {problem.line}, column {problem.column})
          </button>
          : {problem.message} <span className="quiet">Accepted: {problem.accepted}.</span>
          {problem.near && (
            <>
              {' '}
              Is it{' '}
              {problem.near.map((symbol, at) => (
                <span key={symbol}>
                  {at > 0 && ' or '}
                  <button
                    type="button"
                    className="plain-button"
                    title={`Put ${symbol} in its place`}
                    onClick={() => take(problem, symbol)}
                  >
                    {symbol}
                  </button>
                </span>
              ))}
              ?
            </>
          )}
        </li>
      ))}
      {chart.problems.length > PROBLEMS_SHOWN && (
        <li>and {chart.problems.length - PROBLEMS_SHOWN} more, each marked in the text.</li>
      )}
    </ul>
  )
}

/** Where places of a text are, counted from its beginning. */
export function offsetsOf(text: string): (place: Pick<ChartProblem, 'line' | 'column'>) => number {
  const begins = [0, ...[...text.matchAll(/\r\n|\r|\n/g)].map((end) => end.index + end[0].length)]
  return ({ line, column }) => (begins[line - 1] ?? text.length) + column - 1
}
