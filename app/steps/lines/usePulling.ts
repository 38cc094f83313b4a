import { entryOf, itemAt } from '../../../core/lists'
import { useMemo, useState } from 'react'
import { soundAt, type Frets } from '../../../core/neck/instrument'
import { pulled, type Pulled } from '../../../core/leading/pull'
import type { Key } from '../../../core/pitch/key'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import { limitsFor, type PlayerBody } from '../../../core/player/playerLimits'
import type { LineChord } from '../../../core/tune/decisions'
import { madeChord } from '../../../core/tune/tuneReading'

interface PullingOf {
  voicings: ReadonlyMap<string, Voicing>
  /** The selected chord. */
  focus: LineChord | undefined
  bass: 'chord' | 'any'
  capo: number
  body: PlayerBody
  songKey: Key
  onHear: (midis: readonly number[]) => void
}

export interface PullShown extends Pulled {
  chord: LineChord
  /** The string that was taken hold of, and the fret it was pulled to. */
  string: number
  fret: number
  voicing: Voicing | null
}

/**
 * One note taken hold of and pulled: nothing is written until it is kept, and the line shows what
 * it would be.
 */
export function usePulling({ voicings, focus, bass, capo, body, songKey, onHear }: PullingOf) {
  const [held, setHeld] = useState<{ key: string; string: number; from: number; fret: number } | null>(null)
  const limits = useMemo(
    () => ({ ...limitsFor(body, capo, bass), frets: [0, body.instrument.cutaway] as const }),
    [body, capo, bass],
  )
  const here = held && held.key === focus?.key ? held : null
  const grip = here && voicings.get(here.key)
  const shown = useMemo((): PullShown | null => {
    const symbol = focus && madeChord(focus)
    if (!here || !grip || !focus || !symbol || here.fret === here.from) return null
    const result = pulled(grip.frets, here.string, here.fret, symbol, limits, songKey)
    return {
      ...result,
      chord: focus,
      string: here.string,
      fret: here.fret,
      voicing: result.playable ? voicingOf(result.frets, symbol, limits) : null,
    }
  }, [here, grip, focus, limits, songKey])

  const withPulled = useMemo(
    () => (shown?.voicing ? new Map(voicings).set(shown.chord.key, shown.voicing) : voicings),
    [shown, voicings],
  )

  const fretOf = (key: string, string: number) => voicings.get(key)?.frets[string] ?? null
  const take = (key: string, string: number) => {
    const fret = fretOf(key, string)
    if (fret !== null) setHeld({ key, string, from: fret, fret })
  }
  const openSound = (string: number) => soundAt(limits.instrument, string, 0)
  /**
   * Semitones from where it was; the string ends at its open sound and at the highest fret the hand
   * gets to.
   */
  const pullTo = (semitones: number) => {
    if (!here) return
    const from = soundAt(limits.instrument, here.string, here.from)
    const above = Math.max(0, from + semitones - openSound(here.string))
    const fret = above === 0 ? 0 : Math.min(body.instrument.cutaway, above + capo)
    if (fret === here.fret) return
    setHeld({ ...here, fret })
    const midis = entryOf(voicings, here.key).frets.flatMap((now: Frets[number], string) => {
      const at = string === here.string ? fret : now
      return at === null ? [] : [soundAt(limits.instrument, string, at)]
    })
    onHear(midis.sort((a, b) => a - b))
  }
  const pulledBy = here
    ? soundAt(limits.instrument, here.string, here.fret) - soundAt(limits.instrument, here.string, here.from)
    : 0

  /** Keys: Shift with an arrow goes from voice to voice, an arrow pulls; true when one was used. */
  const onKey = (key: string, shift: boolean): boolean => {
    if (!focus) return false
    if (key !== 'ArrowUp' && key !== 'ArrowDown') return false
    const strings = [...(voicings.get(focus.key)?.strings ?? [])]
      .sort((a, b) => a.midi - b.midi)
      .map(({ string }) => string)
    if (strings.length === 0) return false
    const up = key === 'ArrowUp'
    if (!here || shift) {
      const last = strings.length - 1
      const nextTo = (string: number) => strings.indexOf(string) + (up ? 1 : -1)
      const outer = up ? last : 0
      const next = here ? Math.max(0, Math.min(last, nextTo(here.string))) : outer
      take(focus.key, itemAt(strings, next))
    } else pullTo(pulledBy + (up ? 1 : -1))
    return true
  }
  const letGo = () => setHeld(null)
  return {
    taken: here && { key: here.key, string: here.string },
    shown,
    voicings: withPulled,
    take,
    pullTo,
    onKey,
    letGo,
  }
}
export type NotePulling = ReturnType<typeof usePulling>
