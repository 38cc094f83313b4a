import { use } from 'react'
import { CursorContext } from '../room/RoomFrame'
import type { MusicShown } from '../room/room'
import { useSelection } from '../selection/SelectionContext'
import { useKnownTune } from '../tune/TuneContext'
import { chordInWords } from '../words/placeWords'
import { Systems } from './Systems'

/** The tune in its systems, as a room shows it; the chord selected is said to whoever listens. */
export function Music(shown: MusicShown) {
  const { document } = useKnownTune()
  const { selection, lineSelection, select, selectLine } = useSelection()
  const cursor = use(CursorContext)
  const focus = shown.reading.chords[selection.focus]
  return (
    <>
      {/*
       * Before the music: it is taken out of the flow, and behind a long tune it would make the
       * page itself as long.
       */}
      <p className="visually-hidden" aria-live="polite">
        {focus && chordInWords(focus, shown.reading)}
      </p>
      <Systems
        shown={shown}
        tune={document}
        selection={selection}
        lineSelection={shown.lineSelection ?? lineSelection}
        cursor={cursor}
        onSelect={select}
        onSelectLine={shown.onSelectLine ?? selectLine}
      />
    </>
  )
}
