import { memo } from 'react'
import { engravedWords } from '../../../core/chord/engraved'
import type { Key } from '../../../core/pitch/key'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { Voicing } from '../../../core/voicing/voicing'
import { ControlBar, BarWord } from '../../services/controls/ControlBar'
import { SearchState } from '../../services/room/SearchState'
import type { VoiceHeard } from '../../services/sound/voiceHeard'
import type { LinesAsked } from '../../services/workers/useLines'
import { BassWord } from './BassWord'
import { HardestWord } from './HardestWord'
import { HearWord } from './HearWord'
import { CompareWord, LineMarks } from './LinesFound'
import { StyleControl, TextureControl } from './StyleControl'
import { STYLE_LABELS, TEXTURE_LABELS } from './styleLabels'
import type { HardSpotShown } from './useHardSpots'

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
  const { lines, taken, state } = search
  // Where every grip stays there is one line; ways that differ in nothing are not shown beside it.
  const shown = stays ? lines.slice(0, 1) : lines
  const onLine = (at: number) => {
    if (!stays) onEdit({ kind: 'line', line: at })
  }
  const found = { lines: shown, chosen, stays, bass, onLine }
  const texture = leading.texture ?? taken?.texture
  return (
    <ControlBar label="How the lines are led">
      <BarWord
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
      </BarWord>
      <BarWord
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
      </BarWord>
      <BassWord bass={bass} onEdit={onEdit} />
      <LineMarks {...found} />
      {lines.length > 0 && (
        <>
          <CompareWord {...found} all={lines} onHearLine={onHearLine} />
          <HearWord
            lines={lines.length}
            chosen={chosen}
            beside={beside}
            onBeside={onBeside}
            voice={voice}
            onVoice={onVoice}
          />
          {spots.length > 0 && <HardestWord spots={spots} onSpot={onSpot} onEasier={onEasier} />}
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
    </ControlBar>
  )
})
