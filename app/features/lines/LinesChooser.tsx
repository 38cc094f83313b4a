import Button from '@mui/material/Button'
import LinearProgress from '@mui/material/LinearProgress'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import type { Easier } from '../../../core/voicing/ease'
import type { Voicing } from '../../../core/voicing/voicing'
import type { Line } from '../../../core/leading/lead'
import { lineInWords } from '../../../core/leading/words'
import type { Key } from '../../../core/pitch/key'
import type { StyleName } from '../../../core/leading/weights'
import { useState } from 'react'
import { LinesChart } from './LinesChart'
import type { Bass, Leading } from '../../../core/tune/document'
import { VOICES, type VoiceHeard } from '../sound/voiceHeard'
import { holdInWords } from '../words/hand'
import { engravedWords } from '../notation/ChordName'
import { SmallThreads } from './SmallThreads'
import { StyleControl } from './StyleControl'
import { LINES_WANTED } from '../../../core/tune/questions'
import type { LinesState, Taken } from './useLines'

interface Props {
  lines: Line[]
  taken: Taken | null
  state: LinesState
  chosen: number
  /** Every grip stays as it is: the line is the player's own. */
  stays: boolean
  /** Holds every grip as it is, or leads the rest anew around the grips by hand. */
  onStays: (stays: boolean) => void
  bass: Bass
  style: StyleName
  songKey: Key
  onLine: (line: number) => void
  /** A line touched on the chart: taken and heard. */
  onHearLine: (line: number) => void
  onBass: (bass: Bass) => void
  onStyle: (style: StyleName) => void
  leading: Leading
  onLeading: (leading: Leading) => void
  onStop: () => void
  onAgain: () => void
  /** The neck is shown. */
  neck: boolean
  onNeck: (shown: boolean) => void
  /** A line to be heard in turn with the one that is kept, by its place. */
  beside: number | null
  onBeside: (line: number | null) => void
  voice: VoiceHeard
  onVoice: (voice: VoiceHeard) => void
  /** The hardest places of the line. */
  spots: readonly { place: string; effort: number; line: number; easier: Easier | null }[]
  onEasier: (line: number, voicing: Voicing) => void
  onSpot: (line: number) => void
}

const perChange = (line: Line, total: number): string => (total / Math.max(1, line.voicings.length - 1)).toFixed(1)

/** Things said of a line on its card. */
const WORDS_SHOWN = 2

/** The lines found, their totals side by side, and what they are led by. */
export function LinesChooser({ lines, taken, state, chosen, stays, onStays, bass, style, songKey, leading, onLine, onHearLine, onBass, onStyle, onLeading, onStop, onAgain, neck, onNeck, beside, onBeside, voice, onVoice, spots, onSpot, onEasier }: Props) {
  const [chart, setChart] = useState(false)
  // Where every grip stays there is one line; ways that differ in nothing are not shown beside it.
  const shownLines = stays ? lines.slice(0, 1) : lines
  const pitches = lines.flatMap(({ voicings }) => voicings.flatMap(({ midis }) => midis))
  const range = [Math.min(...pitches), Math.max(...pitches)] as const
  return (
    <div className="lines-chooser">
      <div className="lines-settings">
        <StyleControl style={style} leading={leading} songKey={songKey} onStyle={onStyle} onLeading={onLeading} suggested={taken?.texture ?? null} />
        <ToggleButtonGroup exclusive size="small" value={bass} aria-label="Who plays the bass" onChange={(_, next: Bass | null) => next && onBass(next)}>
          <ToggleButton value="chord" title="The lowest note of each grip is the chord's bass: for playing alone or in a duo">Guitar plays the bass</ToggleButton>
          <ToggleButton value="any" title="Any chord tone may be lowest and the root may be left out: a bass player has it">Bass player has it</ToggleButton>
        </ToggleButtonGroup>
      </div>
      <div className="line-cards" role="radiogroup" aria-label="Lines found">
        {shownLines.map((line, at) => (
          <button key={at} type="button" role="radio" aria-checked={at === chosen} className="line-card" onClick={() => { if (!stays) onLine(at) }}>
            <b>{stays ? 'Your line' : `Line ${at + 1}`}</b>
            <span title="Semitones that all voices move from chord to chord, on average; how far the hand travels through the tune; how hard the grips are to hold on average">voices move {perChange(line, line.measures.motion)} a change; hand travels {(line.measures.hand / 10).toFixed(0)} cm; grips {holdInWords(line.measures.grip / line.voicings.length)}</span>
            <SmallThreads line={line} range={range} />
            <span className="line-words">{lineInWords(line, lines).slice(0, WORDS_SHOWN).join('; ')}</span>
          </button>
        ))}
        {state.kind === 'searching' && !stays && Array.from({ length: Math.max(0, LINES_WANTED - lines.length) }, (_, at) => <span key={`w${at}`} className="line-card waiting" aria-hidden />)}
      </div>
      {lines.length > 0 && (
        <div className="spots">
          <ToggleButtonGroup exclusive size="small" value={voice} aria-label="Voices heard" onChange={(_, next: VoiceHeard | null) => next && onVoice(next)}>
            {VOICES.map(({ name, label, title }) => <ToggleButton key={name} value={name} title={title}>{label}</ToggleButton>)}
          </ToggleButtonGroup>
          <TextField select size="small" label="Compare by ear with" value={beside !== null && lines[beside] && beside !== chosen ? String(beside) : ''} onChange={(event) => onBeside(event.target.value === '' ? null : Number(event.target.value))} sx={{ minWidth: 190 }}>
            <MenuItem value="">no other line</MenuItem>
            {lines.map((_, at) => at !== chosen && <MenuItem key={at} value={String(at)}>Line {at + 1}</MenuItem>)}
          </TextField>
          {stays
            ? <Button size="small" onClick={() => onStays(false)} title="The grips you chose stay; all others are looked for again around them">Lead the rest anew (R)</Button>
            : <Button size="small" onClick={() => onStays(true)} title="No grip changes but those you change">Hold every grip (R)</Button>}
          <ToggleButton size="small" value="neck" selected={neck} onChange={() => onNeck(!neck)}>Neck (K)</ToggleButton>
          <Button size="small" aria-expanded={chart} onClick={() => setChart(!chart)}>Chart of all lines</Button>
          {spots.length > 0 && <span className="quiet">Hardest for the hand: {spots.map(({ place, effort, line, easier }, at) => (
            <span key={line}>
              {at > 0 && '; '}<button type="button" className="plain-button" onClick={() => onSpot(line)}>{place}</button> ({holdInWords(effort)})
              {easier && <> (<button type="button" className="plain-button" title={`${easier.easing}${easier.lost ? `, loses ${easier.lost}` : ''}`} onClick={() => onEasier(line, easier.voicing)}>take an easier grip</button>)</>}
            </span>
          ))}</span>}
        </div>
      )}
      {chart && lines.length > 0 && <LinesChart lines={lines} chosen={chosen} onLine={onHearLine} />}
      <div className="lines-state" aria-live="polite">
        {state.kind === 'searching' && (
          <>
            <LinearProgress variant="determinate" value={(100 * state.done) / state.of} aria-label="Search for lines" />
            <span>Searching, {Math.round((100 * state.done) / state.of)}%</span>
            <Button size="small" onClick={onStop}>Stop the search</Button>
          </>
        )}
        {state.kind === 'stopped' && <>The search was stopped; the lines found before stay. <Button size="small" onClick={onAgain}>Search again</Button></>}
        {state.kind === 'fault' && <span className="fault">{state.message}</span>}
        {state.kind === 'found' && !stays && taken && taken.says.length > 0 && <span className="quiet">{engravedWords(taken.says.join(' '))}</span>}
      </div>
    </div>
  )
}
