import { firstOf, itemAt } from '../../lists'
import { kindOf } from '../../analysis/kind'
import type { Analysis } from '../../analysis/chordReading'
import type { Chart } from '../../chart/chart'
import { pitchClass } from '../../pitch/note'
import type { Change, Put } from '../change'
import type { MelodyNote } from '../melodyFit'
import type { Spot } from '../spot'
import { aligned, type Sounded } from './aligned'
import { JUDGE_PRICES } from './prices'
import { JUDGED_TERMS } from './terms'

const LOCAL = JUDGED_TERMS.filter(({ isLocal }) => isLocal)
/** Chords around a change that are looked at with it. */
const AROUND = 2

/**
 * What a single change costs among the plain chords around it, at the prices of the judge: faults
 * alone, and all together.
 */
export interface LocalCost {
  faults: number
  cost: number
}

/** A judge of single changes of one chart, for a search that looks at thousands of them. */
export function localJudge(
  chart: Chart,
  analysis: Analysis,
  spots: readonly (Spot | null)[],
  melody: readonly MelodyNote[],
): (change: Pick<Change, 'index' | 'span' | 'puts'>) => LocalCost {
  const costs = costsOf(spots, melody)
  const plain = aligned(chart, chart, melody, null, { analysis, spots })
  const at = new Map(plain.sounded.map((one, order) => [one.plain!, order]))
  return (change) => {
    const known = costs.get(change) ?? costOf(change)
    costs.set(change, known)
    return known
  }
  function costOf({ index, span, puts }: Pick<Change, 'index' | 'span' | 'puts'>): LocalCost {
    const replaced = spots.slice(index, index + span) as Spot[]
    const first = at.get(firstOf(replaced))
    if (first === undefined) return { faults: 0, cost: 0 }
    const changed = soundedFrom(itemAt(plain.sounded, first), replaced, puts, plain.sounded)
    const before = plain.sounded.slice(Math.max(0, first - AROUND), first).map((one) => ({ ...one }))
    const behind = plain.sounded.slice(first + span, first + span + AROUND).map((one) => ({ ...one }))
    const beyond = plain.sounded[first + span + AROUND] ?? null
    const all = [...before, ...changed, ...behind]
    all.forEach((one, order) => {
      one.previous = all[order - 1] ?? null
      one.next = all[order + 1] ?? beyond
    })
    const over = new Map<Spot, Sounded[]>()
    for (const one of all) if (one.plain) over.set(one.plain, [...(over.get(one.plain) ?? []), one])
    const version = {
      ...plain,
      sounded: all,
      top: first === 0 ? firstOf(all) : plain.top,
      over: (spot: Spot) => over.get(spot) ?? [],
    }
    let [faults, cost] = [0, 0]
    for (const { name, find } of LOCAL) {
      const price = JUDGE_PRICES[name] ?? 0
      const amount = find(version).reduce((sum, one) => sum + one.amount, 0)
      cost += price * amount
      if (price > 0) faults += price * amount
    }
    return { faults, cost }
  }
}

/** What changes of one tune under one melody cost, asked once. */
const KNOWN = new WeakMap<readonly (Spot | null)[], { melody: string; costs: WeakMap<object, LocalCost> }>()
function costsOf(spots: readonly (Spot | null)[], melody: readonly MelodyNote[]): WeakMap<object, LocalCost> {
  const sung = JSON.stringify(melody)
  const known = KNOWN.get(spots)
  if (known?.melody === sung) return known.costs
  const costs = new WeakMap<object, LocalCost>()
  KNOWN.set(spots, { melody: sung, costs })
  return costs
}

/** The chords of a change at their places, each over the plain chord it begins in. */
function soundedFrom(
  head: Sounded,
  replaced: readonly Spot[],
  puts: readonly Put[],
  plain: readonly Sounded[],
): Sounded[] {
  let offset = 0
  return puts.map(({ chord, beats }): Sounded => {
    const from = head.from + offset
    const under = plain.findLast((one) => replaced.includes(one.plain!) && one.from <= from + 1e-6) ?? head
    offset += beats
    const root = pitchClass(chord.root)
    return {
      ...under,
      from,
      beat: under.beat + (from - under.from),
      beats,
      chord,
      kind: kindOf(chord),
      root,
      bass: pitchClass(chord.bass ?? chord.root),
      begins: Math.abs(under.from - from) < 1e-6,
      isPlain: chord.canonical === under.chord.canonical,
      moved: root !== under.root,
    }
  })
}
