import { itemAt } from '../../../core/lists'
import { useState } from 'react'
import type { NoteChoice } from '../../../core/melody/harmonise'
import { placeKey } from '../../../core/melody/melodyLine'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { MelodyView } from './useMelody'

/** What could be under the selected note: gone through by ear, taken, left. */
export function useTriedUnder(
  view: Pick<MelodyView, 'selected' | 'choices'>,
  onEdit: (edit: TuneEdit) => void,
  onHear: (midis: readonly number[]) => void,
) {
  const [cursor, setCursor] = useState<{ of: string; at: number } | null>(null)
  const { choices } = view
  const of = `${view.selected ?? ''}/${view.choices?.length ?? 0}`
  const at = cursor?.of === of ? cursor.at : null
  const take = (choice: NoteChoice) => {
    const { note } = choice
    const key = placeKey(note)
    onEdit({
      kind: 'melody-fix',
      did: `${note.under === 'single' ? 'note alone' : (note.chord?.canonical ?? 'grip')} in ${note.bar === 0 ? 'the upbeat' : `bar ${note.bar}`}`.slice(
        0,
        80,
      ),
      fixed: {
        [key]: {
          frets: [...note.voicing.frets],
          symbol:
            note.under === 'single' || !note.chord || note.chord.tones.length === 0
              ? null
              : note.chord.canonical,
        },
      },
    })
    onHear(note.voicing.midis)
  }
  return {
    /** The one that is heard; null where none is. */
    at,
    take,
    leave: () => setCursor(null),
    /** The next one, or the one before; false where there are none. */
    hear: (by: 1 | -1): boolean => {
      if (!choices?.length) return false
      const next = at === null ? 0 : Math.max(0, Math.min(choices.length - 1, at + by))
      setCursor({ of, at: next })
      onHear(itemAt(choices, next).note.voicing.midis)
      return true
    },
  }
}
export type TriedUnder = ReturnType<typeof useTriedUnder>
