import { itemAt, theOne } from '../../../core/lists'
import type { ChordSymbol } from '../../../core/chord/symbol'
import type { Item } from '../../../core/practice/items'
import { gripItemName } from '../../../core/practice/items'
import type { LineChord } from '../../../core/tune/decisions'
import { madeChord, type TuneReading } from '../../../core/tune/tuneReading'
import type { Voicing } from '../../../core/voicing/voicing'

/**
 * A chord on the stage: what is played, how it is held, and for how long in beats of the first
 * metre.
 */
export interface StageChord {
  key: string
  /** Its place in the tune's line; -1 where it is played elsewhere. */
  index: number
  chord: ChordSymbol
  voicing: Voicing | null
  beats: number
}

/** What is practised now. */
export interface Staged extends Pick<Item, 'kind' | 'item' | 'from' | 'to' | 'comfortable' | 'why'> {
  chords: readonly StageChord[]
  /** It is played by itself, and not as a part of the tune. */
  alone: boolean
  /** The key it is in, by name. */
  key: string
}

/** How long a chord is held that is practised by itself, in bars. */
const ALONE_BARS = 1

const onStage =
  (voicings: ReadonlyMap<string, Voicing>) =>
  (one: LineChord): StageChord[] => {
    const chord = madeChord(one)
    return chord
      ? [{ key: one.key, index: one.index, chord, voicing: voicings.get(one.key) ?? null, beats: one.lasts }]
      : []
  }

/** An item as it is played: the chords of its bars, or the grips it names. */
export function staged(
  item: Item,
  { line, chart }: Pick<TuneReading, 'line' | 'chart'>,
  voicings: ReadonlyMap<string, Voicing>,
  key: string,
): Staged {
  const all = line.flatMap(onStage(voicings))
  const inBars = all.filter((_, at) => {
    const { bar } = theOne(line, (one) => one.index === itemAt(all, at).index).slot
    return bar >= item.from && bar <= item.to
  })
  const lasts = ALONE_BARS * chart.meter.beats
  const by = (one: StageChord) => ({ ...one, beats: lasts })
  const name = (one: StageChord) => one.voicing && gripItemName({ text: textOf(one, line) }, one.voicing)
  if (item.kind === 'grip') {
    const found = all.find((one) => name(one) === item.item)
    return { ...item, chords: found ? [by(found)] : inBars.slice(0, 1), alone: true, key }
  }
  if (item.kind === 'change') {
    const at = all.findIndex((one, index) => {
      const next = all[index + 1]
      return next !== undefined && `${name(one)} to ${name(next)}` === item.item
    })
    return {
      ...item,
      chords: (at < 0 ? inBars.slice(0, 2) : all.slice(at, at + 2)).map(by),
      alone: true,
      key,
    }
  }
  return { ...item, chords: inBars, alone: false, key }
}

const textOf = ({ index }: StageChord, line: readonly LineChord[]): string => {
  const found = theOne(line, (one) => one.index === index)
  return madeChord(found)?.canonical ?? found.slot.text
}
