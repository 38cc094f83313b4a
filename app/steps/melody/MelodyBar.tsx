import { placeKey } from '../../../core/melody/line'
import { TEXTURES } from '../../../core/melody/textures'
import type { Key } from '../../../core/pitch/key'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/edit'
import { Bar, Word } from '../../services/controls/Bar'
import { SearchState } from '../../services/room/SearchState'
import { BlocksTab } from './BlocksTab'
import { ElsewhereTab } from './ElsewhereTab'
import { EndsTab } from './EndsTab'
import { DENSITY_NAMES, TEXTURE_LABELS, UnderTab } from './UnderTab'
import type { MelodyStepState } from './useMelodyStep'
import { WriteTab } from './WriteTab'
import type { PlayerBody } from '../../../core/player/limits'

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
    <Bar label="Melody and what is under it">
      <button
        type="button"
        className="tool"
        title="Keys put notes in; so do clicks on the staff"
        onClick={state.takeUpPen}
      >
        Write notes (E)
      </button>
      <Word name="Notes" term="notes" says={view.notes.length === 0 ? 'none yet' : view.notes.length}>
        <WriteTab
          view={view}
          writing={writing}
          playing={playing}
          limits={state.limits}
          onBringIn={() => state.setBringIn(true)}
        />
      </Word>
      <Word
        name="Under it"
        term="texture"
        says={`${TEXTURE_LABELS[texture]}, ${DENSITY_NAMES[density]}${under}`}
        title={TEXTURES[texture].says}
      >
        <UnderTab document={document} view={view} onEdit={onEdit} />
      </Word>
      {view.troubles.length + view.leftOut.length > 0 && (
        <Word
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
        </Word>
      )}
      <Word name="Elsewhere" term="elsewhere" says="on the neck" keeps>
        <ElsewhereTab
          document={document}
          notes={view.notes}
          asked={view.asked}
          onEdit={onEdit}
          onHear={state.hearLine}
        />
      </Word>
      <Word name="Blocks" term="block-chords" says="scale or phrase">
        <BlocksTab
          view={view}
          text={document.text}
          songKey={songKey}
          capo={capo}
          body={body}
          onEdit={onEdit}
          onHear={onHear}
        />
      </Word>
      <Word name="Ends" term="ends" says="intros, endings">
        <EndsTab text={document.text} songKey={songKey} onEdit={onEdit} onHear={state.hearChords} />
      </Word>
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
    </Bar>
  )
}
