import { renderToString } from 'react-dom/server'
import { MemoryRouter } from 'react-router'
import { newDocument } from '../../core/tune/document'
import type { TuneState } from '../../db/tunes'
import { RoomFrame } from '../services/room/RoomFrame'
import type { MusicShown, Room } from '../services/room/room'
import { Music } from '../services/systems/Music'
import { rowsTold } from '../services/room/rowsContext'
import { useKnownTune } from '../services/tune/TuneContext'
import { Workspace } from '../workspace/Workspace'
import { ROOMS, roomNamed } from './rooms'

jest.mock('../services/workers/workerPool', () => ({ WORKER_POOLS: {}, WorkerFault: class extends Error {} }))

const state: TuneState = {
  id: '5f0c8a52-93c3-4f7e-9a55-4f2f6f0a8b11',
  revision: 'r1',
  document: newDocument('Ferry at Dusk', 'key: C\n| C | Am | Dm | G7 |'),
  undo: null,
  redo: null,
  unread: [],
}

/** All that a room has to be: what a folder of `steps` would hold. */
const counting: Room = {
  name: 'counting',
  label: 'Counting',
  View: () => <Counting />,
}
function Counting(music: Partial<MusicShown>) {
  const { reading } = useKnownTune()
  return (
    <RoomFrame
      bar={<p>Chords counted</p>}
      drawer={{ name: 'Count', content: <p>{reading.chords.length} chords</p> }}
      keys={[{ on: ['q'], shown: 'Q', says: 'Count again', act: () => undefined }]}
      cursor="home"
    >
      <Music reading={reading} newLine="none" {...music} />
    </RoomFrame>
  )
}

const counts = rowsTold<string>()
const other = rowsTold<string>()
/**
 * A row of the counting room; it would read what another room tells its own rows, if that reached
 * it.
 */
function CountRow() {
  return (
    <p>
      {counts.useTold() ?? 'nothing told'}, {other.useTold() ?? 'nothing from another room'}
    </p>
  )
}

const drawn = (room: Room, rooms: readonly Room[]) =>
  renderToString(
    <MemoryRouter>
      <Workspace at={null} state={state} room={room} rooms={rooms} kept={() => []} />
    </MemoryRouter>,
  )

test('a room is one folder and one line: its place along the top, its bar, music and drawer come from there', () => {
  const rooms = [...ROOMS, counting]
  const page = drawn(roomNamed('counting', rooms)!, rooms)
  expect(page).toContain(`href="/tunes/${state.id}/counting"`)
  expect(page).toContain('Chords counted')
  expect(page).toMatch(/aria-label="Count"[\s\S]*4<!-- --> chords/)
  expect(page.match(/aria-pressed="(true|false)"[^>]*>[\s\S]*?<\/button>/g)!.length).toBeGreaterThanOrEqual(4)
  expect(roomNamed('counting')).toBeUndefined()
})

test('what a room tells its rows reaches them, and the rows of no other room', () => {
  const told = (music: Partial<MusicShown>) =>
    drawn({ ...counting, View: () => <Counting Row={CountRow} {...music} /> }, ROOMS).replaceAll(
      '<!-- -->',
      '',
    )
  expect(told({ rows: counts.tell('four in a bar') })).toContain(
    '<p>four in a bar, nothing from another room</p>',
  )
  expect(told({})).toContain('<p>nothing told, nothing from another room</p>')
})

test.each(ROOMS.filter(({ View }) => View).map((room) => [room.label, room] as const))(
  '%s is drawn on the server with its controls, the music and its drawer',
  (label, room) => {
    const page = drawn(room, ROOMS)
    expect(page).toContain('aria-label="Controls"')
    expect(page).toContain('aria-label="Music"')
    expect(page).toMatch(new RegExp(`aria-current="step"[^>]*>${label}<`))
    // Nothing is said to be saved before anybody listens.
    expect(page).toContain('Opening…')
  },
)

test('a page of its own is no room of the workspace', () => {
  expect(ROOMS.map(({ name }) => name)).toEqual([
    'chart',
    'colour',
    'lines',
    'melody',
    'rhythm',
    'practice',
    'sheet',
  ])
  expect(roomNamed('sheet')).toBeUndefined()
  expect(roomNamed(undefined)).toBeUndefined()
})
