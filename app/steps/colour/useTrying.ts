import { firstOf, itemAt } from '../../../core/lists'
import { useMemo, useState } from 'react'
import { melodyOf } from '../../../core/tune/applyMelody'
import { type TuneDocument } from '../../../core/tune/document'
import { plainChord, readingWith, type TuneReading } from '../../../core/tune/tuneReading'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { rangeOf, type ChordSelection } from '../../services/selection/selection'
import { choiceOf, offeredFor, type Offered } from './offered'
import { applyEdit, type TuneEdit } from '../../../core/tune/tuneEdit'

interface TryingOf {
  document: TuneDocument
  reading: TuneReading
  selection: ChordSelection
  onEdit: (edit: TuneEdit) => void
  /** Sounds something offered where it would stand. */
  onHear: (offered: Offered) => void
}

const nameOf = ({ key, name }: Offered) => `${key} ${name}`

/**
 * Trying what is offered for the selected chords before anything is kept: nothing tried is written,
 * and it goes when the selection does.
 */
export function useTrying({ document, reading, selection, onEdit, onHear }: TryingOf) {
  const player = usePlayerSettings()
  const { settings, liking } = player
  const [from, to] = rangeOf(selection)
  const melody = melodyOf(document)
  // Liking changes as changes are kept: the list is put in order anew when another chord is
  // selected, not under the player's hand.
  const offered = useMemo(
    () => (reading.chords[to] ? offeredFor(reading, from, to, { settings, liking }, melody) : []),
    // oxlint-disable-next-line react/exhaustive-deps -- not by liking, see above
    [reading.chart, reading.analysis, from, to, settings, melody],
  )
  const of = `${from}-${to}:${offered.length}`
  // By what it is, not by its place: keeping one changes what is liked, and so the order.
  const [cursor, setCursor] = useState<{ of: string; one: string; tried: boolean } | null>(null)
  const at = cursor?.of === of ? offered.findIndex((one) => nameOf(one) === cursor.one) : -1
  const here = at >= 0 ? { at, tried: cursor!.tried } : null
  const tried = here?.tried ? itemAt(offered, here.at) : null

  const shown = useMemo(
    () =>
      tried
        ? readingWith(
            reading,
            applyEdit(document, { kind: 'choose', slot: tried.place, choice: choiceOf(tried, 0) }),
          )
        : reading,
    [tried, reading, document],
  )

  const go = (at: number, trying: boolean) => {
    const one = offered[at]
    if (!one) return false
    setCursor({ of, one: nameOf(one), tried: trying })
    onHear(one)
    return true
  }
  const keep = (one: Offered) => {
    setCursor({ of, one: nameOf(one), tried: false })
    onEdit({ kind: 'choose', slot: one.place, choice: choiceOf(one, Date.now()) })
    if (one.rule !== 'plain') player.liked(one.rule)
  }
  const putBack = () => {
    setCursor(null)
    const chosen = reading.decisions.filter(
      ({ index, span, by }) => by !== 'control' && index <= to && index + span > from,
    )
    if (chosen.length === 0) return
    if (chosen.length === 1) return onEdit({ kind: 'choose', slot: firstOf(chosen).key, choice: null })
    const [first, last] = [itemAt(reading.chords, from), itemAt(reading.chords, to)]
    onEdit({
      kind: 'choose-many',
      choices: Object.fromEntries(chosen.map(({ key }) => [key, null])),
      did: `plain chords back from ${plainChord(first)?.canonical ?? ''} to ${plainChord(last)?.canonical ?? ''}`.slice(
        0,
        80,
      ),
    })
  }

  /** Keys of the Colour step; true when one was used. */
  const onKey = (key: string): boolean => {
    if (/^\d$/.test(key)) return go(Number(key), true)
    if (key === 'ArrowDown' || key === 'ArrowUp')
      return go(
        Math.max(0, Math.min(offered.length - 1, here ? here.at + (key === 'ArrowDown' ? 1 : -1) : 0)),
        false,
      )
    if (key === 'Enter' && here) {
      keep(itemAt(offered, here.at))
      return true
    }
    if (key === 'Escape' && here) {
      setCursor(null)
      return true
    }
    if (key === 'Backspace') {
      putBack()
      return true
    }
    return false
  }
  return {
    offered,
    at: here?.at ?? null,
    tried: tried !== null,
    shown,
    keep,
    leave: () => setCursor(null),
    putBack,
    onKey,
  }
}
