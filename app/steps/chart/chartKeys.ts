import { wholeBeat } from '../../../core/chart/beats'
import type { TuneChord } from '../../../core/tune/tuneReading'
import type { KeyRow } from '../../services/keys/keyTable'
import type { BarAct, useChartEditing } from './useChartEditing'

/** Keys for the selected bars, and what they do. */
const BAR_KEYS: readonly { on: string; shown: string; says: string; act: BarAct }[] = [
  { on: 'Alt+i', shown: 'Alt I', says: 'A bar put in behind', act: 'after' },
  { on: 'Alt+Shift+i', shown: 'Alt Shift I', says: 'A bar put in before', act: 'before' },
  { on: 'Alt+s', shown: 'Alt S', says: 'Split the bar in two', act: 'split' },
  { on: 'Alt+j', shown: 'Alt J', says: 'Join the bar with the next', act: 'join' },
  { on: '[', shown: '[', says: 'Move the selected bars earlier', act: 'earlier' },
  { on: ']', shown: ']', says: 'Move the selected bars later', act: 'later' },
  { on: '-', shown: '−', says: 'The selected bars a half step down', act: 'down' },
  { on: '+', shown: '+', says: 'The selected bars a half step up', act: 'up' },
  { on: 'Delete', shown: 'Delete', says: 'Take the selected bars out', act: 'remove' },
]
/** The same sign from another key. */
const ALSO: Readonly<Record<string, string>> = { '-': '−', Delete: 'Alt+x' }

/** Letters that a chord symbol, or N.C., begins with. */
const BEGIN_A_CHORD = [...'abcdefgn']

interface ChartKeysOf {
  focus: TuneChord | undefined
  /** The chart itself is shown, not its skeleton: it can be written on. */
  writes: boolean
  editing: ReturnType<typeof useChartEditing>
  onNextGroup: (chord: TuneChord) => void
  onWords: () => void
  onReasons: () => void
}

export function chartKeys({
  focus,
  writes,
  editing,
  onNextGroup,
  onWords,
  onReasons,
}: ChartKeysOf): KeyRow[] {
  const typeOn = (word?: string) => {
    if (!writes || !focus) return false
    editing.openAt(focus.slot.bar, wholeBeat(focus.slot.beat), word)

    return true
  }
  return [
    {
      on: [...BEGIN_A_CHORD, 'Enter'],
      shown: 'A to G, N, Enter',
      says: 'Type a chord (or N.C.) on the beat of the selected one',
      act: (press, event) => typeOn(press === 'Enter' ? undefined : event.key),
    },
    {
      on: [],
      shown: 'Space or Tab, Shift Tab',
      says: 'While typing a beat: take it and go a beat on, or back',
      act: () => false,
    },
    {
      on: [],
      shown: 'Enter, Escape',
      says: 'While typing a beat: take it, or leave it as it was',
      act: () => false,
    },
    {
      on: ['Alt+g', 'g'],
      shown: 'Alt G',
      says: 'Select the group around the chord (ii-V, turnaround, …), then the next',
      act: () => {
        if (!focus) return false
        onNextGroup(focus)

        return true
      },
    },
    { on: ['l', 'Alt+l'], shown: 'L', says: 'Type words under the bars', act: onWords },
    { on: ['w', 'Alt+w'], shown: 'W', says: 'Every reason shown or hidden', act: onReasons },
    ...BAR_KEYS.map(({ on, shown, says, act }): KeyRow => ({
      on: [on, ...(ALSO[on] ? [ALSO[on]] : [])],
      shown,
      says,
      act: () => {
        if (!writes || !focus) return false
        editing.act(act)

        return true
      },
    })),
    { on: [], shown: 'Ctrl C  Ctrl X  Ctrl V', says: 'Copy, cut, paste bars', act: () => false },
  ]
}
