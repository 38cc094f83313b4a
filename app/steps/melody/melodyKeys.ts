import { DIGITS, type KeyRow } from '../../services/keys/keyTable'
import type { MelodyStepState } from './useMelodyStep'

/** While notes are written the pen has the keys first; all others are the step's own. */
export function melodyKeys({ onKey, writing }: Pick<MelodyStepState, 'onKey' | 'writing'>): KeyRow[] {
  const act: KeyRow['act'] = (_, pressed) => onKey(pressed)
  const written = (row: Omit<KeyRow, 'act'>): KeyRow => ({
    ...row,
    act: (_, pressed) => writing.onKey(pressed),
  })
  return [
    written({
      on: [...'abcdefg', 'r', '0'],
      shown: 'A to G, R',
      says: 'While writing: that note nearest to the last, a rest',
    }),
    written({
      on: ['1', '2', '4', '8', '6', '.', 't'],
      shown: '1 2 4 8 6, .  T',
      says: 'While writing: whole, half, quarter, eighth, sixteenth; dotted; triplet',
    }),
    written({
      on: ['ArrowUp', 'ArrowDown', 'Shift+ArrowUp', 'Shift+ArrowDown'],
      shown: '↑ ↓, Shift ↑ ↓',
      says: 'While writing: the last note a half step, an octave',
    }),
    written({
      on: [
        '=',
        '+',
        'Backspace',
        'Delete',
        'ArrowLeft',
        'ArrowRight',
        'Home',
        'End',
        'PageUp',
        'PageDown',
        'Escape',
        'Enter',
      ],
      shown: '=, Backspace, ← → Home End, Page keys',
      says: 'While writing: the last note longer, taken out; the place moved, by bars',
    }),
    {
      on: [],
      shown: 'Four rows of keys',
      says: 'While playing in: neighbouring strings, a fret a key; the arrows move them on the neck, Space ends',
      act: () => false,
    },
    {
      on: ['ArrowLeft', 'ArrowRight'],
      shown: '← →',
      says: 'Note before, note after, heard with what is under it',
      act,
    },
    {
      on: ['ArrowUp', 'ArrowDown', 'Enter'],
      shown: '↑ ↓, Enter',
      says: 'Hear what the note could have under it; keep it',
      act,
    },
    {
      on: [...DIGITS.slice(1), 'Backspace'],
      shown: '1 to 9, Backspace',
      says: 'Take that grip; leave it to the search again',
      act,
    },
    { on: ['Escape'], shown: 'Escape', says: 'Leave what is tried', act },
    { on: ['e'], shown: 'E', says: 'Write notes; Escape leaves', act },
    { on: ['k'], shown: 'K', says: 'The threads shown or hidden', act },
  ]
}
