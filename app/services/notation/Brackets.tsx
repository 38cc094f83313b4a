import { firstOf, lastOf } from '../../../core/lists'
import { NEAR, sameBeat } from '../../../core/chart/beats'
import type { TuneChord } from '../../../core/tune/tuneReading'
import { memo } from 'react'
import type { Group } from '../../../core/analysis/chordReading'
import { keyName } from '../../../core/pitch/key'
import { engravedWords } from '../../../core/chord/engraved'
import { across, slotEnd, type System } from './systemLayout'

interface BracketSpan {
  group: Group
  /** Across the system, 0 to 1. */
  from: number
  to: number
  /** It goes on from the system before, or into the next one. */
  open: boolean
}

/**
 * Groups that are told in words only: they are long, or made of groups that have their own
 * brackets.
 */
const IN_WORDS: readonly Group['kind'][] = ['blues form', 'ii-V chain']

interface Props {
  groups: readonly Group[]
  system: System
  onSelect: (group: Group) => void
}

/**
 * What belongs together over the home line: each group with its key, whole when it lands, broken
 * when it does not.
 */
export const Brackets = memo(function Brackets({ groups, system, onSelect }: Props) {
  const rows = packed(
    groups.flatMap((group) => (IN_WORDS.includes(group.kind) ? [] : (spanOf(group, system) ?? []))),
  )
  if (rows.length === 0) return null
  return (
    <div className="brackets">
      {rows.map((row, at) => (
        <div className="bracket-row" key={at}>
          {row.map(({ group, from, to, open }) => (
            <button
              key={`${group.kind}${group.from.bar}:${group.from.beat}`}
              type="button"
              tabIndex={-1}
              title={engravedWords(group.why)}
              className={`bracket${group.resolves || group.atTop ? '' : ' unresolved'}${open ? ' open' : ''}`}
              style={{ left: `${from * 100}%`, width: `${(to - from) * 100}%` }}
              onClick={() => onSelect(group)}
            >
              <span>{groupInWords(group)}</span>
            </button>
          ))}
        </div>
      ))}
    </div>
  )
})

/** Groups that end something, or only fill, point nowhere. */
const POINTS_NOWHERE: readonly Group['kind'][] = [
  'line cliché',
  'passing diminished',
  'half cadence',
  'deceptive cadence',
  'blues form',
]

export function groupInWords({ kind, key, resolves, atTop }: Group): string {
  const saysWhere = !POINTS_NOWHERE.includes(kind) && (atTop || !resolves)
  const where = atTop ? ', lands at the top' : ', does not land'
  const lands = saysWhere ? where : ''
  return `${kind} in ${engravedWords(keyName(key))}${lands}`
}

function spanOf(group: Group, system: System): BracketSpan | null {
  const { bars } = system
  const [first, last] = [firstOf(bars), lastOf(bars)]
  if (group.to.bar < first.number || group.from.bar > last.number) return null
  const before = group.from.bar < first.number
  const after = group.to.bar > last.number
  const index = (number: number) => number - first.number
  const final = bars[index(group.to.bar)]?.slots.find((slot) => sameBeat(slot.beat, group.to.beat))
  return {
    group,
    from: before ? 0 : across(system, index(group.from.bar), group.from.beat),
    to: after
      ? lastOf(system.edges)
      : across(system, index(group.to.bar), final ? slotEnd(final) : group.to.beat),
    open: before || after,
  }
}

/**
 * Groups that overlap go one above the other on as few rows as it takes, the short ones nearest to
 * their chords.
 */
function packed(spans: readonly BracketSpan[]): BracketSpan[][] {
  const rows: BracketSpan[][] = []
  for (const span of [...spans].sort((a, b) => a.to - a.from - (b.to - b.from) || a.from - b.from)) {
    const free = rows.find((row) =>
      row.every((other) => other.to <= span.from + NEAR || other.from >= span.to - NEAR),
    )
    if (free) free.push(span)
    else rows.push([span])
  }
  return rows.reverse()
}

/** Whether a chord stands within a group. */
export function isPartOf({ slot }: Pick<TuneChord, 'slot'>, { from, to }: Group): boolean {
  const after = slot.bar > from.bar || (slot.bar === from.bar && slot.beat > from.beat - NEAR)
  const before = slot.bar < to.bar || (slot.bar === to.bar && slot.beat < to.beat + NEAR)
  return after && before
}
