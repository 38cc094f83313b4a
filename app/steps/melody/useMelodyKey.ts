import { itemAt } from '../../../core/lists'
import { useMemo } from 'react'
import { placeKey } from '../../../core/melody/melodyLine'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import { placeOfKey } from './placeAt'
import type { MelodyView } from './useMelody'
import type { TriedUnder } from './useTriedUnder'
import type { useWriting } from './useWriting'

interface MelodyKeyOf {
  view: MelodyView
  writing: ReturnType<typeof useWriting>
  tried: TriedUnder
  /** Grips by hand. */
  fixed: TuneDocument['chordMelody']['fixed']
  onSelect: (key: string) => void
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
  onPen: () => void
  onThreads: () => void
}

/** Keys of the Melody step; true when one was used. */
export function useMelodyKey({
  view,
  writing,
  tried,
  fixed,
  onSelect,
  onEdit,
  onHear,
  onPen,
  onThreads,
}: MelodyKeyOf): (event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'target'>) => boolean {
  const keysOfEvents = useMemo(
    () =>
      [...new Set([...view.events.map(({ key }) => key), ...view.notes.map(placeKey)])].sort(
        (a, b) => timeOf(a, view.clock) - timeOf(b, view.clock),
      ),
    [view.events, view.notes, view.clock],
  )

  return (event) => {
    if (writing.onKey(event)) return true
    const { key } = event
    const { choices } = view
    switch (key) {
      case 'ArrowLeft':
      case 'ArrowRight': {
        const here = keysOfEvents.indexOf(view.selected ?? '')
        const next =
          keysOfEvents[Math.max(0, Math.min(keysOfEvents.length - 1, here + (key === 'ArrowLeft' ? -1 : 1)))]
        if (next) {
          onSelect(next)
          const made = view.events.find((one) => one.key === next)
          if (made) onHear(made.made.voicing.midis)
        }
        return true
      }
      case 'ArrowUp':
      case 'ArrowDown':
        return tried.hear(key === 'ArrowDown' ? 1 : -1)
      case 'Enter':
        if (tried.at === null || !choices?.[tried.at]) return false
        tried.take(itemAt(choices, tried.at))
        return true
      case 'Escape':
        tried.leave()
        return tried.at !== null
      case 'Backspace':
        if (view.selected && view.selected in fixed)
          onEdit({ kind: 'melody-fix', fixed: { [view.selected]: null }, did: 'grip left to the search' })
        return true
      case 'e':
      case 'E':
        onPen()
        return true
      case 'k':
      case 'K':
        onThreads()
        return true
    }
    const choice = /^[1-9]$/.test(key) ? choices?.[Number(key) - 1] : undefined
    if (choice) {
      tried.take(choice)
      return true
    }
    return false
  }
}

const timeOf = (key: string, clock: MelodyView['clock']): number => {
  const at = clock.at(placeOfKey(key))
  return Number.isNaN(at) ? Infinity : at
}
