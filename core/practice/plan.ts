import { firstOf, itemAt } from '../lists'
import { dayInWords } from './days'
import { itemKey, type ItemKind } from './grade'
import type { Item } from './items'
import { nextRung } from './ladder'
import type { ItemRecord } from './record'

/** A part of a session, in the order in which it is played. */
export interface Planned {
  kind: ItemKind | 'rest'
  item: string
  from?: number
  to?: number
  /** Beats a minute. */
  tempo?: number
  minutes: number
  why: string
}

export interface PlanQuestion {
  items: readonly Item[]
  /** What was practised before, by `kind item`. */
  records: ReadonlyMap<string, ItemRecord>
  /** Beats a minute that are wanted. */
  goal: number
  minutes: number
  /** Items the player wants, by `kind item`. */
  wanted?: ReadonlySet<string>
  /** Today, in days since 1970. */
  today: number
}

/** How a session is shared out, in minutes and shares. Common practice, no source. */
export const SHARES = {
  /** Warm-up: a share of the time, at most so many minutes. */
  warmUp: 0.12,
  warmUpMost: 4,
  /** A rest of one minute after so many minutes of playing. */
  restAfter: 10,
  rest: 1,
  /** Something whole at the end. */
  whole: 0.2,
  wholeMost: 10,
  /** One thing is practised at least and about so long. */
  least: 2,
  about: 5,
  /** Questions that are due, for so many minutes, in a session of at least so many. */
  questions: 3,
  questionsFrom: 15,
  /** Below so many minutes one thing is enough. */
  oneThing: 6,
} as const

/** What makes something worth its time now, in points. */
const POINTS = {
  /** For all that went wrong lately. */
  weak: 4,
  /** Due today, and for each day late, up to so many days. */
  due: 2,
  late: 0.1,
  lateDays: 14,
  /** Never played; more the harder it is. */
  new: 1.2,
  hard: 2,
  wanted: 5,
  /** Bars together and changes are what a tune is made of; the rest comes beside them. */
  kind: { passage: 1, change: 0.8, grip: 0.3, 'top line': 0.3, cadence: 0.1, keys: 0 } as Readonly<
    Partial<Record<ItemKind, number>>
  >,
  /** Clean lately and not due: it can wait. */
  resting: -3,
} as const

/** At most so many of one kind beside passages and changes, so that a session has several sides. */
const OF_A_KIND = 2
/** A warm-up is played at this share of the tempo at which its item is at ease. */
const WARM_TEMPO = 0.7

/**
 * What to play in the minutes given: a warm-up, then from easy to hard what is weak, due, new or
 * wanted, with rests between, and something whole at the end. The minutes sum to at most what was
 * given; the same log and moment always give the same plan.
 */
export function planOf({
  items,
  records,
  goal,
  minutes,
  wanted = new Set(),
  today,
}: PlanQuestion): Planned[] {
  const time = Math.floor(minutes)
  const played = items.filter(({ kind }) => kind !== 'tune' && kind !== 'warm-up')
  if (time < 1 || played.length === 0) return []
  const scored = played
    .map((item) => ({ item, ...scoreOf(item, records.get(itemKey(item)), wanted, today) }))
    .sort((a, b) => b.points - a.points)
  const tempoOf = (item: Item) => tempoFor(item, goal, records.get(itemKey(item)))
  const planned = ({ item, why }: { item: Item; why: string }, length: number): Planned => ({
    kind: item.kind,
    item: item.item,
    from: item.from,
    to: item.to,
    ...(TIMED.has(item.kind) ? { tempo: tempoOf(item) } : {}),
    minutes: length,
    why,
  })
  if (time < SHARES.oneThing) return [planned(firstOf(scored), time)]

  const warmUp = Math.max(1, Math.min(SHARES.warmUpMost, Math.round(time * SHARES.warmUp)))
  const whole = items.find(({ kind }) => kind === 'tune')
  const end = whole ? Math.max(1, Math.min(SHARES.wholeMost, Math.round(time * SHARES.whole))) : 0
  const rests = Math.floor((time - 1) / (SHARES.restAfter + SHARES.rest)) * SHARES.rest
  const asked = time >= SHARES.questionsFrom ? questionsDue(records, today) : null
  const work = time - warmUp - end - rests - (asked ? asked.minutes : 0)
  const chosen = spread(scored, Math.max(1, Math.floor(work / SHARES.about) || 1))
  const inOrder = [...chosen].sort((a, b) => a.item.hard - b.item.hard)
  const lengths = sharedOut(work, inOrder.length)
  const parts: Planned[] = [
    warming(played, warmUp),
    ...(asked ? [asked] : []),
    ...inOrder.map((one, at) => planned(one, itemAt(lengths, at))),
    ...(whole
      ? [planned({ item: whole, why: 'something whole at the end: through the tune, whatever happens' }, end)]
      : []),
  ]
  return withRests(parts, rests)
}

/** Kinds that are played at a tempo. */
const TIMED: ReadonlySet<ItemKind> = new Set<ItemKind>([
  'warm-up',
  'passage',
  'change',
  'tune',
  'cadence',
  'keys',
  'top line',
])

/** Questions of the trainer that were missed or are due: asked while the hand is still warming. */
function questionsDue(records: ReadonlyMap<string, ItemRecord>, today: number): Planned | null {
  const questions = [...records.values()].filter(({ last }) => last.kind === 'question')
  const due = questions.filter(({ weak, recall }) => weak > 0 || recall.due <= today)
  if (due.length === 0) return null
  const missed = due.filter(({ last }) => last.grade === 'failed').length
  return {
    kind: 'question',
    item: due.length === 1 ? 'one question of the trainer' : `${due.length} questions of the trainer`,
    minutes: SHARES.questions,
    why: missed > 0 ? `${missed} missed last time` : 'due today',
  }
}

/** The easiest thing, slowly. */
function warming(items: readonly Item[], minutes: number): Planned {
  const passages = items.filter(({ kind }) => kind === 'passage')
  const [easiest] = [...(passages.length > 0 ? passages : items)].sort((a, b) => a.hard - b.hard)
  const tempo = Math.max(20, Math.round(Math.min(easiest!.comfortable, 120) * WARM_TEMPO))
  return {
    kind: 'warm-up',
    item: easiest!.item,
    from: easiest!.from,
    to: easiest!.to,
    tempo,
    minutes,
    why: 'the easiest of the tune, slowly and softly, until the hand is warm',
  }
}

function scoreOf(
  item: Item,
  record: ItemRecord | undefined,
  wanted: ReadonlySet<string>,
  today: number,
): { points: number; why: string } {
  const kind = POINTS.kind[item.kind] ?? 0
  const asked = wanted.has(itemKey(item)) ? POINTS.wanted : 0
  const whyAsked = asked > 0 ? 'you want it; ' : ''
  if (!record)
    return {
      points: kind + asked + POINTS.new + POINTS.hard * item.hard,
      why: `${whyAsked}new: ${item.why}`,
    }
  const { weak, recall, last } = record
  const late = today - recall.due
  const due = late >= 0 ? POINTS.due + POINTS.late * Math.min(late, POINTS.lateDays) : 0
  const points =
    kind + asked + POINTS.weak * weak + due + (weak === 0 && late < 0 ? POINTS.resting : 0) + item.hard
  const how = last.grade === 'nearly' ? 'nearly clean' : last.grade
  const at = last.tempo === undefined ? '' : ` at ${Math.round(last.tempo)}`
  const lately = last.grade === 'clean' ? 'weak lately, though clean' : `weak: ${how}`
  const whyDue =
    late >= 0
      ? `due ${dayInWords(recall.due, today)}: it was ${how} last time`
      : `kept warm: due ${dayInWords(recall.due, today)}`
  const whyNow = weak > 0 ? `${lately} last time${at}, ${item.why}` : whyDue
  return { points, why: whyAsked + whyNow }
}

/** The tempo for today: a rung on from what was played last, else where the hand is at ease. */
export function tempoFor(
  item: Pick<Item, 'comfortable'>,
  goal: number,
  record: ItemRecord | undefined,
): number {
  const last = record?.lastTimed
  if (!last) return Math.min(goal, Math.max(20, Math.floor(item.comfortable * EASE)))
  return nextRung({ start: Math.min(goal, last.tempo!), goal, passes: [last.grade] }).tempo
}
/** A first try is a little under what is at ease. */
const EASE = 0.9

/** The best of the list, but not more than a few of one kind beside passages and changes. */
function spread<One extends { item: Item }>(scored: readonly One[], count: number): One[] {
  const taken: One[] = []
  const ofKind = new Map<ItemKind, number>()
  for (const one of scored) {
    if (taken.length === count) break
    const { kind, from, to } = one.item
    const beside = kind !== 'passage' && kind !== 'change'
    if (beside && (ofKind.get(kind) ?? 0) >= OF_A_KIND) continue
    // A passage inside one that is taken already is practised with it.
    const inside = taken.some(
      ({ item }) => item.kind === 'passage' && kind === 'passage' && item.from <= to && from <= item.to,
    )
    if (inside) continue
    ofKind.set(kind, (ofKind.get(kind) ?? 0) + 1)
    taken.push(one)
  }
  return taken
}

/**
 * Whole minutes that sum to all of them, as even as can be; the later, harder ones get what is left
 * over.
 */
function sharedOut(minutes: number, count: number): number[] {
  const each = Math.floor(minutes / count)
  const over = minutes - each * count
  return Array.from({ length: count }, (_, at) => each + (at >= count - over ? 1 : 0))
}

/**
 * A minute of rest wherever ten have been played; what is longer is not cut, the rest comes behind
 * it.
 */
function withRests(parts: readonly Planned[], rests: number): Planned[] {
  const all: Planned[] = []
  let [since, left] = [0, rests]
  parts.forEach((part, at) => {
    const next = parts[at + 1]
    all.push(part)
    since += part.minutes
    if (left > 0 && next && (since + next.minutes > SHARES.restAfter || since >= SHARES.restAfter)) {
      all.push({
        kind: 'rest',
        item: 'hands down',
        minutes: SHARES.rest,
        why: 'let both hands hang and shake them out',
      })
      since = 0
      left -= SHARES.rest
    }
  })
  return all
}

/** A part that is played, and not a rest. */
export const isPlayedPart = (part: Planned): part is Planned & { kind: ItemKind } => part.kind !== 'rest'
