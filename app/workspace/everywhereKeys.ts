import { itemAt } from '../../core/lists'
import type { KeyRow } from '../services/keys/keyTable'
import type { Room } from '../services/room/room'
import { useSelection, type Bank } from '../services/selection/SelectionContext'
import { COUNT_INS, usePlaying, useSound } from '../services/sound/SoundContext'
import { SOUND } from '../services/sound/soundStore'
import { useKnownTune } from '../services/tune/TuneContext'

const VERSIONS = { p: 'plain', n: 'new', b: 'both', v: 'turn' } as const

interface EverywhereOf {
  rooms: readonly Room[]
  /** The bank that the arrow keys go through; null where the room has a cursor of its own. */
  cursor: Bank | null
  onRoom: (room: Room | undefined) => boolean
  onKeys: () => void
}

/** Keys that say the same in every room, unless the room has them itself. */
export function useEverywhereKeys({ rooms, cursor, onRoom, onKeys }: EverywhereOf): KeyRow[] {
  const { session } = useKnownTune()
  const { move, narrow } = useSelection()
  const { hearing, setHearing, play } = useSound()
  const { playing } = usePlaying()
  const bank = cursor ?? 'home'
  return [
    { on: ['Space'], shown: 'Space', says: 'Play or stop', act: () => (playing ? SOUND.stop() : play()) },
    {
      on: ['ArrowLeft', 'ArrowRight'],
      shown: '← →',
      says: 'Chord before, chord after',
      act: (press) => move(bank, press === 'ArrowLeft' ? -1 : 1, false),
    },
    {
      on: ['Shift+ArrowLeft', 'Shift+ArrowRight'],
      shown: 'Shift ← →',
      says: 'Stretch the selection (it is what is played and looped)',
      act: (press) => move(bank, press.endsWith('Left') ? -1 : 1, true),
    },
    {
      on: ['Escape'],
      shown: 'Escape',
      says: 'Select only the present chord; close what is open',
      act: () => narrow(bank),
    },
    {
      on: Object.keys(VERSIONS).flatMap((letter) => [letter, `Alt+${letter}`]),
      shown: 'P  N  B  V',
      says: 'Hear the plain version, the new one, both in turn, the new one and the version beside it. On the Chart step B and N with Alt',
      act: (press) => setHearing({ ...hearing, version: VERSIONS[press.at(-1) as keyof typeof VERSIONS] }),
    },
    {
      on: ['l', 'Alt+l'],
      shown: 'L',
      says: 'Loop on or off',
      act: () => setHearing({ ...hearing, loop: !hearing.loop }),
    },
    {
      on: ['c', 'Alt+c'],
      shown: 'C',
      says: 'Counted in by one bar, by two, not at all. On the Chart step Alt C',
      act: () =>
        setHearing({ ...hearing, countIn: itemAt(COUNT_INS, (hearing.countIn + 1) % COUNT_INS.length) }),
    },
    {
      on: rooms.map((_, at) => `Alt+${at + 1}`),
      shown: `Alt ${rooms.map((_, at) => at + 1).join(' ')}`,
      says: rooms.map(({ label }) => label).join(', '),
      act: (press) => onRoom(rooms[Number(press.at(-1)) - 1]),
    },
    { on: ['Ctrl+z'], shown: 'Ctrl Z', says: 'Undo', act: () => void session.step('undo') },
    {
      on: ['Ctrl+Shift+z', 'Ctrl+y'],
      shown: 'Ctrl Shift Z',
      says: 'Redo',
      act: () => void session.step('redo'),
    },
    { on: ['?'], shown: '?', says: 'This list', act: onKeys },
  ]
}
