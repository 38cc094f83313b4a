import { placeKey } from '../../../core/melody/melodyLine'
import { MELODY_TEXTURES } from '../../../core/melody/melodyTextures'
import type { Key } from '../../../core/pitch/key'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import { ControlBar, BarWord } from '../../services/controls/ControlBar'
import { SearchState } from '../../services/room/SearchState'
import { BlocksTab } from './BlocksTab'
import { ElsewhereTab } from './ElsewhereTab'
import { EndsTab } from './EndsTab'
import { DENSITY_NAMES, MELODY_TEXTURE_LABELS, UnderTab } from './UnderTab'
import type { MelodyStepState } from './useMelodyStep'
import { WriteTab } from './WriteTab'
import type { PlayerBody } from '../../../core/player/playerLimits'

interface Props {
  state: MelodyStepState
  document: TuneDocument
  songKey: Key
  capo: number
  body: PlayerBody
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
}

/** What is under the melody, in words that open, and what else can be done with it. */
export function MelodyBar({ state, document, songKey, capo, body, onEdit, onHear }: Props) {
  const { view, writing, playing } = state
  const { density, texture } = document.chordMelody
  const under = view.lines.length > 1 ? `, way ${view.chosen + 1} of ${view.lines.length}` : ''
  return (
    <ControlBar label="Melody and what is under it">
      <button
        type="button"
        className="tool"
        title="Keys put notes in; so do clicks on the staff"
        onClick={state.takeUpPen}
      >
        Write notes (E)
      </button>
      <BarWord name="Notes" term="notes" says={view.notes.length === 0 ? 'none yet' : view.notes.length}>
        <WriteTab
          view={view}
          writing={writing}
          playing={playing}
          limits={state.limits}
          onBringIn={() => state.setBringIn(true)}
        />
      </BarWord>
      <BarWord
        name="Under it"
        term="texture"
        says={`${MELODY_TEXTURE_LABELS[texture]}, ${DENSITY_NAMES[density]}${under}`}
        title={MELODY_TEXTURES[texture].says}
      >
        <UnderTab document={document} view={view} onEdit={onEdit} />
      </BarWord>
      {view.troubles.length + view.leftOut.length > 0 && (
        <BarWord
          name="To check"
          term="to-check"
          says={view.troubles.length + view.leftOut.length}
          title="Hard to play, harsh, or not to be had here"
        >
          <ul className="melody-list" aria-label="Trouble spots">
            {view.leftOut.map(({ bar, beat, message, accepted }) => (
              <li key={`${bar}:${beat}`}>
                <button
                  type="button"
                  className="plain-button"
                  onClick={() => view.select(placeKey({ bar, beat }))}
                >
                  Left out: {message}
                </button>{' '}
                <span>Would help: {accepted}.</span>
              </li>
            ))}
            {view.troubles.map(({ at, says, remedy }) => (
              <li key={`${at}${says}`}>
                <button
                  type="button"
                  className="plain-button"
                  onClick={() => view.select(view.events[at]?.key ?? null)}
                >
                  Bar {view.events[at]?.made.bar}: {says}
                </button>{' '}
                <span>Try {remedy}.</span>
              </li>
            ))}
          </ul>
        </BarWord>
      )}
      <BarWord name="Elsewhere" term="elsewhere" says="on the neck" keeps>
        <ElsewhereTab
          document={document}
          notes={view.notes}
          asked={view.asked}
          onEdit={onEdit}
          onHear={state.hearLine}
        />
      </BarWord>
      <BarWord name="Blocks" term="block-chords" says="scale or phrase">
        <BlocksTab
          view={view}
          text={document.text}
          songKey={songKey}
          capo={capo}
          body={body}
          onEdit={onEdit}
          onHear={onHear}
        />
      </BarWord>
      <BarWord name="Ends" term="ends" says="intros, endings">
        <EndsTab text={document.text} songKey={songKey} onEdit={onEdit} onHear={state.hearChords} />
      </BarWord>
      <button
        type="button"
        className="tool"
        aria-pressed={state.threads}
        title="The voices between staff and tablature"
        onClick={() => state.setThreads(!state.threads)}
      >
        Threads (K)
      </button>
      <button
        type="button"
        className="tool"
        aria-pressed={state.neck}
        onClick={() => state.setNeck(!state.neck)}
      >
        Neck
      </button>
      <SearchState
        state={view.state}
        label="Search for chords under the melody"
        onStop={view.stop}
        onAgain={view.again}
      />
    </ControlBar>
  )
}
