import Button from '@mui/material/Button'
import { useState } from 'react'
import type { Line } from '../../../core/leading/line'
import { lineInWords } from '../../../core/leading/lineWords'
import type { Bass } from '../../../core/tune/document'
import { BarWord } from '../../services/controls/ControlBar'
import { holdInWords } from '../../services/words/handWords'
import { LinesChart } from './LinesChart'
import { SmallThreads } from './SmallThreads'

interface Props {
  /** Those that are shown. */
  lines: readonly Line[]
  chosen: number
  /** Every grip stays: there is one line, the player's own. */
  stays: boolean
  bass: Bass
  onLine: (at: number) => void
}

const perChange = (line: Line, total: number): string =>
  (total / Math.max(1, line.voicings.length - 1)).toFixed(1)
/** Where the guitar has the bass, that follows the roots: the voices above it are led. */
const totalsOf = (line: Line, bass: Bass): string =>
  `${bass === 'chord' ? 'voices above the bass' : 'voices'} move ${perChange(line, bass === 'chord' ? line.measures.upper : line.measures.motion)} half steps a change; hand travels ${(line.measures.hand / 10).toFixed(0)} cm; grips ${holdInWords(line.measures.grip / line.voicings.length)}`

/** Things said of a line where it is compared. */
const WORDS_SHOWN = 2

/** The lines by number, one of them chosen. */
export function LineMarks({ lines, chosen, stays, bass, onLine }: Props) {
  return (
    <span className="line-marks" role="radiogroup" aria-label="Lines found">
      {lines.map((line, at) => (
        <button
          key={at}
          type="button"
          role="radio"
          aria-checked={at === chosen}
          className="line-mark"
          aria-label={`${stays ? 'Your line' : `Line ${at + 1}`}: ${totalsOf(line, bass)}`}
          title={totalsOf(line, bass)}
          onClick={() => onLine(at)}
        >
          {stays ? 'Your line' : at + 1}
        </button>
      ))}
    </span>
  )
}

/**
 * The lines beside one another, with what each is best at. @param all every line found: what is
 * said of one is said against these
 */
export function CompareWord({
  lines,
  all,
  chosen,
  stays,
  bass,
  onLine,
  onHearLine,
}: Props & { all: readonly Line[]; onHearLine: (at: number) => void }) {
  const [chart, setChart] = useState(false)
  const pitches = all.flatMap(({ voicings }) => voicings.flatMap(({ midis }) => midis))
  const range = [Math.min(...pitches), Math.max(...pitches)] as const
  return (
    <BarWord name="Compare" term="line" says={lines.length === 1 ? 'one line' : `${lines.length} lines`}>
      <div className="line-cards">
        {lines.map((line, at) => (
          <button
            key={at}
            type="button"
            className="line-card"
            aria-pressed={at === chosen}
            onClick={() => onLine(at)}
          >
            <b>
              {stays ? 'Your line' : `Line ${at + 1}`}
              {!stays && line.texture && <small> {line.texture}</small>}
            </b>
            <span title="Half steps that the voices together move from chord to chord, on average; how far the hand travels through the tune; how hard the grips are to hold on average">
              {totalsOf(line, bass)}
            </span>
            <SmallThreads line={line} range={range} />
            <span className="line-words">{lineInWords(line, all).slice(0, WORDS_SHOWN).join('; ')}</span>
          </button>
        ))}
      </div>
      <Button size="small" aria-expanded={chart} onClick={() => setChart(!chart)}>
        Chart of all lines
      </Button>
      {chart && <LinesChart lines={all} chosen={chosen} onLine={onHearLine} />}
    </BarWord>
  )
}
