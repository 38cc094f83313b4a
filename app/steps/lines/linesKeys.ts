import { DIGITS, SHIFT_DIGITS, type KeyRow } from '../../services/keys/keyTable'
import type { PulledActs } from './usePulledActs'
import type { NotePulling } from './usePulling'

interface LinesKeysOf {
  pulling: NotePulling
  acts: PulledActs
  /**
   * Takes the grip of that order among those near the present one; `anew` leads the rest around it.
   * False where there is none.
   */
  onNear: (at: number, anew: boolean) => boolean
  /** Leaves the grip to the search again. */
  onLeave: () => void
  onHold: () => void
  onNeck: () => void
}

export const linesKeys = ({ pulling, acts, onNear, onLeave, onHold, onNeck }: LinesKeysOf): KeyRow[] => [
  {
    on: ['ArrowUp', 'ArrowDown'],
    shown: '↑ ↓',
    says: 'Take hold of the top or lowest note; then pull it',
    act: (press) => pulling.onKey(press, false),
  },
  {
    on: ['Shift+ArrowUp', 'Shift+ArrowDown'],
    shown: 'Shift ↑ ↓',
    says: 'Hold the next voice',
    act: (press) => pulling.onKey(press.replace('Shift+', ''), true),
  },
  {
    on: ['Enter', 'Shift+Enter'],
    shown: 'Enter',
    says: 'Keep what was pulled; the other grips stay. With Shift the rest is led anew around it',
    act: (press) => {
      if (!pulling.shown) return false
      acts.keep(press === 'Enter' ? 'stays' : 'leads')

      return true
    },
  },
  {
    on: ['Escape'],
    shown: 'Escape',
    says: 'Put the pulled note back',
    act: () => {
      if (!pulling.taken) return false
      pulling.letGo()

      return true
    },
  },
  {
    on: [...DIGITS.slice(1), ...SHIFT_DIGITS.slice(1)],
    shown: '1 to 9',
    says: 'Take that grip. With Shift the rest is led anew around it',
    act: (press) => {
      if (!onNear(Number(press.at(-1)) - 1, press.startsWith('Shift'))) return false

      return true
    },
  },
  { on: ['Backspace'], shown: 'Backspace', says: 'The grip is left to the search again', act: onLeave },
  {
    on: ['r', 'Alt+r'],
    shown: 'R',
    says: 'Lead the rest anew, or hold every grip as it is',
    act: onHold,
  },
  { on: ['k', 'Alt+k'], shown: 'K', says: 'The neck shown or hidden', act: onNeck },
]
