import type { Bar, Slot } from '../../../core/chart/chart'
import type { Group } from '../../../core/analysis/reading'
import { keyName } from '../../../core/pitch/key'
import { engravedWords } from '../notation/ChordName'
import { BARS_IN_SYSTEM } from './Systems'

interface Span {
  group: Group
  /** Across the system, 0 to 1. */
  from: number
  to: number
  /** It goes on from the system before, or into the next one. */
  open: boolean
}

/** What belongs together over the home line: each group with its key, whole when it lands, broken when it does not. */
export function Brackets({ groups, bars }: { groups: readonly Group[]; bars: readonly Bar[] }) {
  const rows = packed(groups.flatMap((group) => spanOf(group, bars) ?? []))
  if (rows.length === 0) return null
  return (
    <div className="brackets">
      {rows.map((row, at) => (
        <div className="bracket-row" key={at}>
          {row.map(({ group, from, to, open }) => (
            <span
              key={`${group.kind}${group.from.bar}:${group.from.beat}`} className={`bracket${group.resolves ? '' : ' unresolved'}${open ? ' open' : ''}`}
              style={{ left: `${from * 100}%`, width: `${(to - from) * 100}%` }}
            >
              <span>{group.kind} in {engravedWords(keyName(group.key))}{group.resolves ? '' : ', does not land'}</span>
            </span>
          ))}
        </div>
      ))}
    </div>
  )
}

const placeAcross = (bar: Bar, at: number, beat: number): number => {
  const beats = bar.slots.reduce((sum, slot) => sum + slot.beats, 0) || 1
  return (at + (beat - 1) / beats) / BARS_IN_SYSTEM
}

function spanOf(group: Group, bars: readonly Bar[]): Span | null {
  const [first, last] = [bars[0]!, bars.at(-1)!]
  if (group.to.bar < first.number || group.from.bar > last.number) return null
  const before = group.from.bar < first.number
  const after = group.to.bar > last.number
  const bar = (number: number) => bars[number - first.number]!
  const end = (slots: readonly Slot[], beat: number) => beat + (slots.find((slot) => Math.abs(slot.beat - beat) < 1e-6)?.beats ?? 0)
  return {
    group,
    from: before ? 0 : placeAcross(bar(group.from.bar), group.from.bar - first.number, group.from.beat),
    to: after ? bars.length / BARS_IN_SYSTEM : placeAcross(bar(group.to.bar), group.to.bar - first.number, end(bar(group.to.bar).slots, group.to.beat)),
    open: before || after,
  }
}

/** Groups that overlap go one above the other, on as few rows as it takes. */
function packed(spans: readonly Span[]): Span[][] {
  const rows: Span[][] = []
  for (const span of [...spans].sort((a, b) => a.from - b.from)) {
    const free = rows.find((row) => row.at(-1)!.to <= span.from + 1e-6)
    if (free) free.push(span)
    else rows.push([span])
  }
  return rows
}
