import { itemAt } from '../../../core/lists'
import { useMemo } from 'react'
import { keyAbove, transposeSymbol } from '../../../core/chart/transpose'
import { chord } from '../../../core/chord/parseChord'
import { keyName, type Key } from '../../../core/pitch/key'
import { limitsFor } from '../../../core/player/playerLimits'
import { AREAS, inKeyWords, type Item } from '../../../core/practice/items'
import { movedShapes } from '../../../core/practice/moved'
import { excerptQuestion } from '../../../core/tune/questions'
import type { Line } from '../../../core/leading/line'
import type { LinesQuestion } from '../../../core/tune/linesQuestion'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useAnswer } from '../../services/workers/useAnswer'
import type { Staged, StageChord } from './stagedGrips'

/** How a line goes into another key. */
export const INTO_KEYS = ['same shapes', 'led anew'] as const
export type IntoKey = (typeof INTO_KEYS)[number]

export interface Elsewhere {
  staged: Staged | null
  /** What stands in the way, or that it is being looked for. */
  says: string | null
}

interface Wanted {
  /** The stretch as it is in the tune. */
  from: Staged | null
  /** Semitones up for another key; null for an area of the neck. */
  semitones: number | null
  into: IntoKey
  /** The area, by its place in the list. */
  area: number
  items: readonly Item[]
}

/**
 * A stretch in another key, or its cadence in another area of the neck: its chords, and grips that
 * are moved or led anew.
 */
export function useElsewhere(wanted: Wanted | null): Elsewhere {
  const { document, reading, body } = useKnownTune()
  const { chart, analysis } = reading
  const home = analysis.key
  const limits = useMemo(() => limitsFor(body, chart.capo, 'any'), [body, chart.capo])
  const made = useMemo(() => {
    if (!wanted?.from) return null
    const { from, semitones } = wanted
    const key = semitones === null || semitones === 0 ? home : keyAbove(home, semitones)
    const chords = from.chords.map((one): StageChord => ({
      ...one,
      index: -1,
      voicing: null,
      chord: chord(transposeSymbol(one.chord.canonical, home, key)),
    }))
    return { key, chords, from }
  }, [wanted, home])
  const shapes = useMemo(() => {
    if (!wanted || !made || wanted.semitones === null || wanted.into === 'led anew') return null
    const grips = made.from.chords.map(({ voicing }) => voicing?.frets)
    if (grips.some((grip) => !grip)) return { why: 'Not every chord has a grip yet.', voicings: null }
    const moved = movedShapes(grips as Voicing['frets'][], wanted.semitones, limits)
    const voicings = moved.frets.map((frets, at) => voicingOf(frets, itemAt(made.chords, at).chord, limits))
    return { why: moved.why ?? (voicings.includes(null) ? NOT_THERE : null), voicings }
  }, [wanted, made, limits])
  const question = useMemo((): LinesQuestion | null => {
    if (
      !wanted ||
      !made ||
      made.chords.length === 0 ||
      (wanted.semitones !== null && wanted.into === 'same shapes')
    )
      return null
    const asked = excerptQuestion(
      made.chords.map((one) => one.chord.canonical),
      [],
      { bass: document.bass, style: document.style },
      chart.capo,
      body,
    )
    if (wanted.semitones !== null) return asked
    const [low, high] = itemAt(AREAS, wanted.area)
    return {
      ...asked,
      constraints: [
        {
          kind: 'frets',
          from: 0,
          to: made.chords.length - 1,
          low: low + chart.capo,
          high: high + chart.capo,
        },
      ],
    }
  }, [wanted, made, document.bass, document.style, chart.capo, body])
  const led = useAnswer('search', 'lines', question)
  return useMemo((): Elsewhere => {
    if (!wanted || !made) return { staged: null, says: null }
    const line: Line | undefined = question ? led.now?.lines[0] : undefined
    const voicings = shapes ? shapes.voicings : line?.voicings
    const searched = line ? null : 'Finding grips …'
    const found = led.state.kind === 'fault' ? led.state.message : searched
    const says = shapes ? shapes.why : found
    const chords = made.chords.map((one, at) => ({ ...one, voicing: voicings?.[at] ?? null }))
    const item = itemOf(wanted, made.key)
    return {
      says,
      staged: {
        ...(item ?? made.from),
        from: made.from.from,
        to: made.from.to,
        chords,
        alone: true,
        key: keyName(made.key),
      },
    }
  }, [wanted, made, question, led.now, led.state, shapes])
}
const NOT_THERE = 'Your hand does not hold these shapes there: have the line led anew.'

function itemOf({ semitones, area, items }: Wanted, key: Key): Item | undefined {
  if (semitones === null) {
    const [low, high] = itemAt(AREAS, area)
    return items.find(({ kind, item }) => kind === 'cadence' && item.endsWith(`frets ${low} to ${high}`))
  }
  // In the home key it is the passage itself.
  return semitones === 0
    ? undefined
    : items.find(({ kind, item }) => kind === 'keys' && item === inKeyWords(key))
}

/** Where in the chart a cadence stands, for the areas of the neck. */
export const cadenceOf = (items: readonly Item[]): Item | undefined =>
  items.find(({ kind }) => kind === 'cadence')
