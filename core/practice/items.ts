import { entryOf, firstOf, itemAt, lastOf } from '../lists'
import { barName, type Bar, type Chart, type Slot } from '../chart/chart'
import { writtenFrets } from '../neck/instrument'
import { keyName, type Key } from '../pitch/key'
import { keyAbove } from '../chart/transpose'
import type { Analysis, Group } from '../analysis/chordReading'
import { atEase, type GripChange, type HandTempo } from '../rhythm/handTempo'
import type { Voicing } from '../voicing/voicing'
import type { ItemKind } from './grade'
import { keySteps } from './keysPractised'

/** Something of a tune to be practised. */
export interface Item {
  kind: ItemKind
  /** Its name in the log: the same as long as what is practised is the same. */
  item: string
  /** First and last bar. */
  from: number
  to: number
  /** 0 falls into the hand, 1 is out of reach at the goal. */
  hard: number
  /**
   * The fastest tempo at which the hand is at ease in it, in beats a minute; the fastest there is
   * where nothing changes.
   */
  comfortable: number
  /** What makes it hard. */
  why: string
}

/** What items are made of. */
export interface ItemMaterial {
  chart: Chart
  analysis: Pick<Analysis, 'key' | 'groups'>
  /** The grip of each chord, in order. */
  grips: ReadonlyMap<Slot, Voicing>
  hand: HandTempo
  /** Beats a minute that are wanted. */
  goal: number
}

/**
 * A change that has all the time it needs at the goal, twice over, is easy; one with two thirds of
 * it is as hard as can be.
 */
const EASY_RATIO = 0.5
const HARD_RATIO = 1.5
/** A grip of so many points of difficulty is as hard as can be. */
const HARDEST_GRIP = 9
/** Bars of a passage: the trade's four. */
const PASSAGE = 4
/** Changes that are practised by themselves, with the bar around each. */
const HARD_CHANGES = 8
/** Areas of the neck, by their frets: the same cadence in each. Common practice, no source. */
export const AREAS = [
  [0, 4],
  [2, 6],
  [5, 9],
  [7, 11],
  [9, 13],
] as const

const share = (value: number, low: number, high: number): number =>
  Math.min(1, Math.max(0, (value - low) / (high - low)))

export function barsName(from: number, to: number): string {
  if (from === to) return barName(from)
  return from === 0 ? `the pickup to bar ${to}` : `bars ${from} to ${to}`
}
export const gripItemName = (slot: Pick<Slot, 'text'>, voicing: Pick<Voicing, 'frets'>): string =>
  `${slot.text} (${writtenFrets(voicing.frets)})`
export const WHOLE_TUNE = 'the whole tune'

/** Everything in a tune that can be practised by itself. */
export function itemsOf(material: ItemMaterial): Item[] {
  const slots = [...material.grips.keys()]
  return [
    ...passages(material, slots),
    ...changes(material, slots),
    ...grips(material),
    ...topLine(material),
    ...cadences(material),
    ...otherKeys(material),
    whole(material),
  ]
}

interface BarsStretch {
  from: number
  to: number
  name: string
}

/** Four bars at a time from each section's beginning, then the sections. */
function stretchesOf(bars: readonly Bar[]): BarsStretch[] {
  const fours: Bar[][] = []
  const sections: Bar[][] = []
  for (const bar of bars) {
    if (sections.length === 0 || bar.opensSection) {
      sections.push([])
      fours.push([])
    } else if (lastOf(fours).filter(({ number }) => number > 0).length === PASSAGE) fours.push([])
    lastOf(sections).push(bar)
    lastOf(fours).push(bar)
  }
  const named = (inside: readonly Bar[], name?: string): BarsStretch => {
    const [from, to] = [firstOf(inside).number, lastOf(inside).number]
    return { from, to, name: name ?? barsName(from, to) }
  }
  const long = sections.filter((inside) => inside.length > PASSAGE)
  return [
    ...fours.map((inside) => named(inside)),
    ...(sections.length > 1
      ? long.map((inside) =>
          named(
            inside,
            `section ${firstOf(inside).section ?? ''}, ${barsName(firstOf(inside).number, lastOf(inside).number)}`,
          ),
        )
      : []),
  ]
}

const changeHard = (change: GripChange | undefined, goal: number): number =>
  change ? share(goal / change.comfortable, EASY_RATIO, HARD_RATIO) : 0

function passages({ chart, hand, goal, grips: held }: ItemMaterial, slots: readonly Slot[]): Item[] {
  const stretches = stretchesOf(chart.bars)
  const inBars = (slot: Slot, { from, to }: BarsStretch) => slot.bar >= from && slot.bar <= to
  return stretches.flatMap((stretch): Item[] => {
    if (!slots.some((slot) => inBars(slot, stretch))) return []
    // The list has the most limiting change first.
    const worst = hand.changes.find(
      ({ index, to }) => inBars(itemAt(slots, index), stretch) && inBars(itemAt(slots, to), stretch),
    )
    const hardest = hardestGrip(
      slots.filter((slot) => inBars(slot, stretch)),
      held,
    )
    const hard = Math.max(
      changeHard(worst, goal),
      hardest ? gripHard(entryOf(held, hardest)) * GRIP_IN_PASSAGE : 0,
    )
    return [
      {
        kind: 'passage',
        item: stretch.name,
        from: stretch.from,
        to: stretch.to,
        hard,
        comfortable: worst?.comfortable ?? hand.comfortable,
        why: worst
          ? `${itemAt(slots, worst.index).text} to ${itemAt(slots, worst.to).text} is ${atEase(worst.comfortable)}`
          : 'no grip changes in it',
      },
    ]
  })
}
/** A hard grip weighs less inside a passage than by itself. */
const GRIP_IN_PASSAGE = 0.7

const gripHard = ({ fingering }: Voicing): number => share(fingering.difficulty, 1, HARDEST_GRIP)

function hardestGrip(slots: readonly Slot[], held: ReadonlyMap<Slot, Voicing>): Slot | undefined {
  return [...slots].sort(
    (a, b) => entryOf(held, b).fingering.difficulty - entryOf(held, a).fingering.difficulty,
  )[0]
}

function changes({ hand, grips: held, goal }: ItemMaterial, slots: readonly Slot[]): Item[] {
  const known = new Set<string>()
  return hand.changes.flatMap((change): Item[] => {
    const [from, to] = [itemAt(slots, change.index), itemAt(slots, change.to)]
    const item = `${gripItemName(from, entryOf(held, from))} to ${gripItemName(to, entryOf(held, to))}`
    if (known.has(item) || known.size >= HARD_CHANGES) return []
    known.add(item)
    const way = change.mm > 1 ? `${Math.round(change.mm)} mm along the neck, ` : ''
    return [
      {
        kind: 'change',
        item,
        from: Math.min(from.bar, to.bar),
        to: Math.max(from.bar, to.bar),
        hard: changeHard(change, goal),
        comfortable: change.comfortable,
        why: `${way}${change.fingers} ${change.fingers === 1 ? 'finger' : 'fingers'} set down anew, ${atEase(change.comfortable)}`,
      },
    ]
  })
}

function grips({ grips: held, hand }: ItemMaterial): Item[] {
  const known = new Map<string, Item>()
  for (const [slot, voicing] of held) {
    const item = gripItemName(slot, voicing)
    if (known.has(item)) continue
    const { reachMm, barres } = voicing.fingering
    known.set(item, {
      kind: 'grip',
      item,
      from: slot.bar,
      to: slot.bar,
      hard: gripHard(voicing),
      comfortable: hand.comfortable,
      why: [
        reachMm > 0 ? `${Math.round(reachMm)} mm wide` : 'no reach',
        ...(barres.length > 0 ? ['a barre'] : []),
      ].join(', '),
    })
  }
  return [...known.values()]
}

const ends = ({ chart }: Pick<ItemMaterial, 'chart'>) => ({
  from: chart.bars[0]?.number ?? 1,
  to: chart.bars.at(-1)?.number ?? 1,
})

function topLine({ chart, grips: held, hand }: ItemMaterial): Item[] {
  const tops = [...held.values()].map(({ midis }) => lastOf(midis))
  if (tops.length < 2) return []
  const steps = tops.slice(1).map((top, at) => Math.abs(top - itemAt(tops, at)))
  const leaps = steps.filter((step) => step > 2).length
  return [
    {
      kind: 'top line',
      item: 'the top notes',
      ...ends({ chart }),
      hard: share(leaps / steps.length, 0, 1),
      comfortable: hand.comfortable,
      why: `sung and played: ${leaps} of ${steps.length} moves are leaps`,
    },
  ]
}

/** The first cadence of the tune, in each area of the neck. */
function cadences({ analysis, hand }: ItemMaterial): Item[] {
  const group = analysis.groups.find(isCadence)
  if (!group) return []
  return AREAS.map(([low, high]) => ({
    kind: 'cadence',
    item: `${group.kind} in ${keyName(group.key)}, frets ${low} to ${high}`,
    from: group.from.bar,
    to: group.to.bar,
    hard: CADENCE_HARD,
    comfortable: hand.comfortable,
    why: 'the nearest shapes of the same chords in this area of the neck',
  }))
}
const isCadence = ({ kind, from, to }: Group): boolean =>
  ['ii-V-I', 'minor ii-V', 'ii-V', 'authentic cadence', 'turnaround'].includes(kind) && to.bar >= from.bar
const CADENCE_HARD = 0.5

/** The tune in the keys it is not written in. */
function otherKeys({ chart, analysis: { key }, hand }: ItemMaterial): Item[] {
  return keySteps('fourths')
    .slice(1)
    .map((semitones) => ({
      kind: 'keys',
      item: inKeyWords(keyAbove(key, semitones)),
      ...ends({ chart }),
      hard: KEYS_HARD,
      comfortable: hand.comfortable,
      why: 'the same line begun from the same degree of another key',
    }))
}
export const inKeyWords = (key: Key): string => `in ${keyName(key)}`
const KEYS_HARD = 0.6

function whole({ chart, hand, goal }: ItemMaterial): Item {
  const [worst] = hand.changes
  return {
    kind: 'tune',
    item: WHOLE_TUNE,
    ...ends({ chart }),
    hard: changeHard(worst, goal),
    comfortable: hand.comfortable,
    why: worst ? `the hand is ${atEase(hand.comfortable)}` : 'no grip changes in it',
  }
}
