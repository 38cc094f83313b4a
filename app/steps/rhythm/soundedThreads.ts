import { entryOf, itemAt, lastOf } from '../../../core/lists'
import type { Accompaniment } from '../../../core/tune/accompaniment'
import type { Voicing } from '../../../core/voicing/voicing'
import type { System } from '../../services/notation/systemLayout'
import type { SoundedNote } from '../../services/notation/Threads'

/**
 * What sounds of each voice in one system, hit by hit; what is tied over from the system before
 * goes on at its left edge.
 */
export function soundedIn(
  { bars, edges }: System,
  { bars: played, hits }: Pick<Accompaniment, 'bars' | 'hits'>,
  voicings: ReadonlyMap<string, Pick<Voicing, 'midis'>>,
): SoundedNote[] {
  const here = new Map(bars.map(({ number }, at) => [number, at]))
  const own = played.filter(({ bar }) => here.has(bar.number))
  const [first, last] = [own[0], own.at(-1)]
  if (!first || !last) return []
  /** How far across the system a time lies. */
  const share = (time: number): number => {
    const found = own.find(({ to }) => time < to) ?? last
    const at = entryOf(here, found.bar.number)
    const into = Math.min(1, Math.max(0, (time - found.from) / (found.to - found.from || 1)))
    return itemAt(edges, at) + into * (itemAt(edges, at + 1) - itemAt(edges, at))
  }
  return hits.flatMap(({ time, lasts, midis, key, stroke }) => {
    const ends = Math.min(time + lasts, last.to)
    if (stroke === 'dead' || time >= last.to || ends <= first.from) return []
    const grip = voicings.get(key)?.midis ?? []
    const [from, to] = [share(Math.max(time, first.from)), ends >= last.to ? lastOf(edges) : share(ends)]
    return midis.map((midi) => ({ from, to, midi, voice: grip.indexOf(midi), voices: grip.length }))
  })
}
