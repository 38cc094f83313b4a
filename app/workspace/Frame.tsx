import Button from '@mui/material/Button'
import { memo, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { useGrips } from '../services/grips/GripsContext'
import { KeysDialog } from '../services/keys/KeysDialog'
import { actOn } from '../services/keys/keyTable'
import { useKeys } from '../services/keys/useKeys'
import { useKeptTune } from '../services/offline/useKept'
import { Guarded } from '../services/room/Guarded'
import { CursorContext, useRoomShown, type FrameSlot } from '../services/room/RoomFrame'
import type { Room } from '../services/room/room'
import { usePlaceKept } from '../services/tune/usePlaceKept'
import { useSelection } from '../services/selection/SelectionContext'
import { saveSound } from '../services/sound/saveSound'
import { levelsHeard, useSound, usePlaying } from '../services/sound/SoundContext'
import { SOUND } from '../services/sound/soundStore'
import { Transport } from '../services/sound/Transport'
import { FIRST_CHART } from '../services/tune/firstChart'
import { useKnownTune } from '../services/tune/TuneContext'
import { hearingInWords, silenceInWords } from '../services/words/placeWords'
import { useStableCallback } from '../services/words/stable'
import { useWorkerFault } from '../services/workers/workerFault'
import { Drawer } from './Drawer'
import { useEverywhereKeys } from './everywhereKeys'
import { FirstStrip } from './FirstStrip'
import { Header } from './Header'
import { KeepingNotices } from './KeepingNotices'
import { useHeard, type HeardNow } from './useHeard'

interface FrameProps {
  slot: FrameSlot
  rooms: readonly Room[]
  /** What of the tune is kept for reading without the server. */
  kept: () => readonly string[]
}

/**
 * What stands around every room: title and steps above, its bar, the music, its drawer, and the
 * transport below. It stays when the player goes from room to room, and with it the focus, the
 * place in the music and what is drawn already.
 */
export const Frame = memo(function Frame({ slot, rooms, kept }: FrameProps) {
  const { room, parts } = useRoomShown(slot)
  const tune = useKnownTune()
  const { id, session, document, reading, undo, redo, stepped, status, keptHere, aside, edit } = tune
  const { selection, walks } = useSelection()
  const navigate = useNavigate()
  const heard = useHeard(parts.plays)
  usePlaceKept(id, room.name, reading.chords[selection.focus]?.key ?? null)
  useKeptTune(kept, status.kind === 'saved' ? document : null)
  const [keysOpen, setKeysOpen] = useState(false)

  const goTo = (other: Room | undefined) => {
    if (!other) return false
    const go = () => navigate(`/tunes/${id}/${other.name}`, { preventScrollReset: true })
    // A page of its own is read from the disk: what waits goes there first.
    if (other.View) void go()
    else void session.flush().then(go)

    return true
  }
  const { cursor } = parts
  const everywhere = useEverywhereKeys({ rooms, cursor, onRoom: goTo, onKeys: () => setKeysOpen(true) })
  useKeys(
    (event) => actOn([...parts.keys, ...everywhere], event),
    () =>
      cursor &&
      window.document.querySelector<HTMLElement>(
        `${cursor === 'line' ? '.bank-new' : '.bank-home'} .slot[aria-pressed="true"]`,
      ),
  )

  const onTitle = useStableCallback((title: string) => edit({ kind: 'title', title }))
  const onHistory = useStableCallback((direction: 'undo' | 'redo') => void session.step(direction))
  const onRoom = useStableCallback((other: Room) => void goTo(other))
  const onKeys = useStableCallback(() => setKeysOpen(true))

  return (
    <div className="workspace">
      <a className="skip-link" href="#music">
        To the music
      </a>
      <Header
        id={id}
        title={document.title}
        room={room}
        rooms={rooms}
        undo={undo}
        redo={redo}
        stepped={stepped}
        status={status.kind}
        keptHere={keptHere}
        onTitle={onTitle}
        onStep={onHistory}
        onRoom={onRoom}
        onKeys={onKeys}
      />
      <main>
        <h1 className="visually-hidden">
          {document.title}: {room.label}
        </h1>
        <section className="controls" aria-label="Controls">
          <FirstStrip room={room} rooms={rooms} document={document} onRoom={onRoom} />
          <Guarded key={room.name} what={`the bar of ${room.label}`} of={document}>
            {parts.bar}
          </Guarded>
          <WorkerFaultNotice />
          <KeepingNotices
            view={{ status, keptHere, aside, title: document.title }}
            unread={tune.unread}
            session={session}
          />
        </section>
        <div className="music-column">
          {parts.head && (
            <div className="room-head" key={room.name}>
              <Guarded what={`the head of ${room.label}`} of={document}>
                {parts.head}
              </Guarded>
            </div>
          )}
          <section className="music" id="music" aria-label="Music" tabIndex={-1}>
            <Guarded key={room.name} what={`the top of ${room.label}`} of={document}>
              {parts.lead}
            </Guarded>
            {reading.chords.length === 0 && (
              <NoChords
                typed={document.text.trim() !== ''}
                onBegin={() => edit({ kind: 'text', text: FIRST_CHART })}
              />
            )}
            <CursorContext value={cursor}>
              <Guarded what="the music" of={document}>
                {parts.children}
              </Guarded>
            </CursorContext>
          </section>
        </div>
      </main>
      <Drawer key={room.name} name={parts.drawer.name} walks={walks}>
        <Guarded what="the drawer" of={parts.drawer.name}>
          {parts.drawer.content || <p className="quiet">Select a chord to read about it.</p>}
        </Guarded>
      </Drawer>
      <TransportHere heard={heard} beside={parts.plays?.beside?.name ?? null} />
      <KeysDialog
        open={keysOpen}
        onClose={() => setKeysOpen(false)}
        tables={[
          { name: `On ${room.label}`, rows: parts.keys },
          { name: 'Everywhere', rows: everywhere },
        ]}
      />
    </div>
  )
})

/** A worker that ended by itself, until it is put away. */
function WorkerFaultNotice() {
  const [broken, putAway] = useWorkerFault()
  return (
    broken && (
      <p className="notice" role="alert">
        {broken} What you made is kept; reload the page to try again.{' '}
        <Button size="small" onClick={putAway}>
          Close
        </Button>
      </p>
    )
  )
}

/** What to do where there is no music yet. @param typed something is there, but no chord */
function NoChords({ typed, onBegin }: { typed: boolean; onBegin: () => void }) {
  return typed ? (
    <p className="quiet">Nothing of the text could be read as chords yet.</p>
  ) : (
    <p className="empty">
      There are no chords yet: type them on the Chart step, or begin with four plain ones.{' '}
      <Button variant="contained" onClick={onBegin}>
        Put in four plain chords
      </Button>
    </p>
  )
}

/**
 * The transport with what is heard in the room. @param beside what is heard beside the new line, by
 * name
 */
function TransportHere({ heard, beside }: { heard: HeardNow; beside: string | null }) {
  const { document, reading, edit } = useKnownTune()
  const { search, plain } = useGrips()
  const { hearing, setHearing, heardTempo, play } = useSound()
  const { playing, trouble } = usePlaying()
  const hearingHere = useMemo(() => ({ ...hearing, version: heard.version }), [hearing, heard.version])
  const onTempo = useStableCallback((tempo: number) => edit({ kind: 'tempo', tempo }))
  const onSave = useStableCallback(() =>
    saveSound(heard.schedule, heardTempo, document.title, levelsHeard(document.rhythm)),
  )
  const silence = silenceInWords(reading.chords, heard.sequence, [search.state.kind, plain.state.kind])
  return (
    <Transport
      hearing={hearingHere}
      beside={beside}
      onHearing={setHearing}
      tempo={document.tempo}
      playing={playing}
      ready={heard.ready}
      trouble={trouble}
      says={heard.ready ? hearingInWords(heard.sequence) : silence}
      onTempo={onTempo}
      onPlay={play}
      onStop={SOUND.stop}
      onSave={onSave}
    />
  )
}
