import Button from '@mui/material/Button'
import MenuItem from '@mui/material/MenuItem'
import TextField from '@mui/material/TextField'
import ToggleButton from '@mui/material/ToggleButton'
import ToggleButtonGroup from '@mui/material/ToggleButtonGroup'
import { memo, useState } from 'react'
import type { Line } from '../../../core/leading/line'
import { lineInWords } from '../../../core/leading/words'
import type { Key } from '../../../core/pitch/key'
import type { Bass, TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/edit'
import type { Easier } from '../../../core/voicing/ease'
import type { Voicing } from '../../../core/voicing/voicing'
import { Bar, Word } from '../../services/controls/Bar'
import { engravedWords } from '../../../core/chord/engraved'
import { SearchState } from '../../services/room/SearchState'
import { VOICES, type VoiceHeard } from '../../services/sound/voiceHeard'
import { holdInWords } from '../../services/words/hand'
import type { LinesAsked } from '../../services/workers/useLines'
import { LinesChart } from './LinesChart'
import { SmallThreads } from './SmallThreads'
import { StyleControl, TextureControl } from './StyleControl'
import { STYLE_LABELS, TEXTURE_LABELS } from './styleLabels'

/** A hard place of the line. */
export interface HardSpotShown {
  place: string
  effort: number
  /** Its chord's place in the line. */
  line: number
  easier: Easier | null
}

interface Props {
  document: Pick<TuneDocument, 'bass' | 'style' | 'leading'>
  search: LinesAsked
  chosen: number
  /** Every grip stays as it is: the line is the player's own. */
  stays: boolean
  /** Holds every grip as it is, or leads the rest anew around the grips by hand. */
  onStays: (stays: boolean) => void
  songKey: Key
  onEdit: (edit: TuneEdit) => void
  /** A line touched on the chart: taken and heard. */
  onHearLine: (line: number) => void
  /** The neck is shown. */
  neck: boolean
  onNeck: (shown: boolean) => void
  /** A line to be heard in turn with the one that is kept, by its place. */
  beside: number | null
  onBeside: (line: number | null) => void
  voice: VoiceHeard
  onVoice: (voice: VoiceHeard) => void
  /** The hardest places of the line. */
  spots: readonly HardSpotShown[]
  onEasier: (line: number, voicing: Voicing) => void
  onSpot: (line: number) => void
}

const BASS_LABELS: Readonly<Record<Bass, { label: string; title: string }>> = {
  chord: {
    label: 'Guitar plays the bass',
    title: 'The lowest note of each grip is the chord’s bass: for playing alone or in a duo',
  },
  any: {
    label: 'Bass player has it',
    title: 'Any chord tone may be lowest and the root may be left out: a bass player has it',
  },
}

const perChange = (line: Line, total: number): string =>
  (total / Math.max(1, line.voicings.length - 1)).toFixed(1)
/** Where the guitar has the bass, that follows the roots: the voices above it are led. */
const totalsOf = (line: Line, bass: Bass): string =>
  `${bass === 'chord' ? 'voices above the bass' : 'voices'} move ${perChange(line, bass === 'chord' ? line.measures.upper : line.measures.motion)} half steps a change; hand travels ${(line.measures.hand / 10).toFixed(0)} cm; grips ${holdInWords(line.measures.grip / line.voicings.length)}`

/** Things said of a line where it is compared. */
const WORDS_SHOWN = 2

/** What the lines are led by, in words that open, and the lines found. */
export const LinesBar = memo(function LinesBar({
  document: { bass, style, leading },
  search,
  chosen,
  stays,
  onStays,
  songKey,
  onEdit,
  onHearLine,
  neck,
  onNeck,
  beside,
  onBeside,
  voice,
  onVoice,
  spots,
  onSpot,
  onEasier,
}: Props) {
  const [chart, setChart] = useState(false)
  const { lines, taken, state } = search
  // Where every grip stays there is one line; ways that differ in nothing are not shown beside it.
  const shown = stays ? lines.slice(0, 1) : lines
  const pitches = lines.flatMap(({ voicings }) => voicings.flatMap(({ midis }) => midis))
  const range = [Math.min(...pitches), Math.max(...pitches)] as const
  const texture = leading.texture ?? taken?.texture
  return (
    <Bar label="How the lines are led">
      <Word
        name="Style"
        term="style"
        says={`${leading.own?.name ?? STYLE_LABELS[style]}${leading.loop ? ', round again' : ''}`}
      >
        <StyleControl
          style={style}
          leading={leading}
          songKey={songKey}
          onStyle={(next) => onEdit({ kind: 'style', style: next })}
          onLeading={(next) => onEdit({ kind: 'leading', leading: next })}
        />
      </Word>
      <Word
        name="Texture"
        term="texture"
        says={
          texture ? `${TEXTURE_LABELS[texture]}${leading.texture ? '' : ', by the chart'}` : 'by the chart'
        }
      >
        <TextureControl
          texture={leading.texture}
          onTexture={(next) => onEdit({ kind: 'leading', leading: { ...leading, texture: next } })}
        />
        {state.kind === 'found' && !stays && taken && taken.says.length > 0 && (
          <p className="quiet">{engravedWords(taken.says.join(' '))}</p>
        )}
      </Word>
      <Word name="Bass" term="bass" says={BASS_LABELS[bass].label}>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={bass}
          aria-label="Who plays the bass"
          onChange={(_, next: Bass | null) => next && onEdit({ kind: 'bass', bass: next })}
        >
          {(Object.keys(BASS_LABELS) as Bass[]).map((one) => (
            <ToggleButton key={one} value={one} title={BASS_LABELS[one].title}>
              {BASS_LABELS[one].label}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      </Word>
      <span className="line-marks" role="radiogroup" aria-label="Lines found">
        {shown.map((line, at) => (
          <button
            key={at}
            type="button"
            role="radio"
            aria-checked={at === chosen}
            className="line-mark"
            aria-label={`${stays ? 'Your line' : `Line ${at + 1}`}: ${totalsOf(line, bass)}`}
            title={totalsOf(line, bass)}
            onClick={() => {
              if (!stays) onEdit({ kind: 'line', line: at })
            }}
          >
            {stays ? 'Your line' : at + 1}
          </button>
        ))}
      </span>
      {lines.length > 0 && (
        <>
          <Word name="Compare" term="line" says={shown.length === 1 ? 'one line' : `${shown.length} lines`}>
            <div className="line-cards">
              {shown.map((line, at) => (
                <button
                  key={at}
                  type="button"
                  className="line-card"
                  aria-pressed={at === chosen}
                  onClick={() => {
                    if (!stays) onEdit({ kind: 'line', line: at })
                  }}
                >
                  <b>
                    {stays ? 'Your line' : `Line ${at + 1}`}
                    {!stays && line.texture && <small> {line.texture}</small>}
                  </b>
                  <span title="Half steps that the voices together move from chord to chord, on average; how far the hand travels through the tune; how hard the grips are to hold on average">
                    {totalsOf(line, bass)}
                  </span>
                  <SmallThreads line={line} range={range} />
                  <span className="line-words">
                    {lineInWords(line, lines).slice(0, WORDS_SHOWN).join('; ')}
                  </span>
                </button>
              ))}
            </div>
            <Button size="small" aria-expanded={chart} onClick={() => setChart(!chart)}>
              Chart of all lines
            </Button>
            {chart && <LinesChart lines={lines} chosen={chosen} onLine={onHearLine} />}
          </Word>
          <Word name="Hear" term="voices-heard" says={VOICES.find(({ name }) => name === voice)!.label}>
            <ToggleButtonGroup
              exclusive
              size="small"
              value={voice}
              aria-label="Voices heard"
              onChange={(_, next: VoiceHeard | null) => next && onVoice(next)}
            >
              {VOICES.map(({ name, label, title }) => (
                <ToggleButton key={name} value={name} title={title}>
                  {label}
                </ToggleButton>
              ))}
            </ToggleButtonGroup>
            <TextField
              select
              size="small"
              label="Compare by ear with"
              value={beside !== null && lines[beside] && beside !== chosen ? String(beside) : ''}
              onChange={(event) => onBeside(event.target.value === '' ? null : Number(event.target.value))}
              sx={{ minWidth: 190 }}
            >
              <MenuItem value="">no other line</MenuItem>
              {lines.map(
                (_, at) =>
                  at !== chosen && (
                    <MenuItem key={at} value={String(at)}>
                      Line {at + 1}
                    </MenuItem>
                  ),
              )}
            </TextField>
          </Word>
          {spots.length > 0 && (
            <Word name="Hardest" term="easy" says={spots[0]!.place}>
              <ul className="plain-list">
                {spots.map(({ place, effort, line, easier }) => (
                  <li key={line}>
                    <button type="button" className="plain-button" onClick={() => onSpot(line)}>
                      {place}
                    </button>{' '}
                    ({holdInWords(effort)})
                    {easier && (
                      <>
                        {' '}
                        (
                        <button
                          type="button"
                          className="plain-button"
                          title={`${easier.easing}${easier.lost ? `, loses ${easier.lost}` : ''}`}
                          onClick={() => onEasier(line, easier.voicing)}
                        >
                          take an easier grip
                        </button>
                        )
                      </>
                    )}
                  </li>
                ))}
              </ul>
            </Word>
          )}
          <button
            type="button"
            className="tool"
            aria-pressed={stays}
            title={
              stays
                ? 'The grips you chose stay; all others are looked for again around them'
                : 'No grip changes but those you change'
            }
            onClick={() => onStays(!stays)}
          >
            {stays ? 'Lead the rest anew (R)' : 'Hold every grip (R)'}
          </button>
          <button type="button" className="tool" aria-pressed={neck} onClick={() => onNeck(!neck)}>
            Neck (K)
          </button>
        </>
      )}
      <SearchState state={state} label="Search for lines" onStop={search.stop} onAgain={search.again} />
    </Bar>
  )
})
