import { itemAt } from '../core/lists'
import { keyName } from '../core/pitch/key'
import { limitsFor } from '../core/player/playerLimits'
import { DEFAULT_PLAYER } from '../core/player/playerSettings'
import { DAY_MS } from '../core/practice/recall'
import type { Grade } from '../core/practice/grade'
import { itemsOf, type Item } from '../core/practice/items'
import { nextRung } from '../core/practice/ladder'
import type { LoggedPass } from '../core/practice/passSchema'
import { scattered } from '../core/rhythm/scattered'
import { handTempo } from '../core/rhythm/handTempo'
import { chartOfLine } from '../core/tune/accompaniment'
import type { TuneDocument } from '../core/tune/document'
import { keptVoicings } from '../core/tune/keptGrips'
import { readTuneDocument } from '../core/tune/tuneReading'
import type { Voicing } from '../core/voicing/voicing'

/** Five weeks of an invented player: rises, a bad third week, and two keys that are avoided. */
const WEEKS = 5
const BAD_WEEK = 2
const DAYS = 7 * WEEKS
/** Keys the player goes round, by the names of their items. */
const AVOIDED = ['in Gb', 'in B', 'in Gbm', 'in Bm']
/** Days of a week without a guitar in the hand; the bad week has few with one. */
const REST_DAYS: readonly number[] = [3, 6]
const BAD_WEEK_PLAYED: readonly number[] = [1, 5]
/** How likely a pass is not clean, by week. */
const TROUBLE = [0.45, 0.35, 0.75, 0.3, 0.2]
const NOTES: readonly string[] = [
  'The barre tires the hand: shorter, more often.',
  'Sang the top line first, and then it went.',
  'Too fast too soon.',
  'With the brushes it swings.',
]
/** Tried so many times at one sitting. */
const TRIES = 5

/** A tune with its id, as it stands in the demo book. */
export interface SeededTune {
  id: string
  document: TuneDocument
}

interface DemoMaterial {
  items: Item[]
  key: string
}
/** Worked out once for each tune of the book. */
const known = new WeakMap<TuneDocument, DemoMaterial>()
function itemsIn({ document }: SeededTune): DemoMaterial {
  const found = known.get(document) ?? itemsOfTune(document)
  known.set(document, found)
  return found
}

/** What of a demo tune can be practised. */
function itemsOfTune(document: TuneDocument): DemoMaterial {
  const reading = readTuneDocument(document)
  const voicings = keptVoicings(document, reading.line, reading.chart.capo, DEFAULT_PLAYER)
  const { chart, chordOf } = chartOfLine(reading, 'new')
  const grips = new Map(
    [...chordOf].flatMap(([slot, { key }]): [typeof slot, Voicing][] => {
      const voicing = voicings.get(key)
      return voicing ? [[slot, voicing]] : []
    }),
  )
  if (grips.size < 2) return { items: [], key: keyName(reading.analysis.key) }
  const limits = limitsFor(DEFAULT_PLAYER, chart.capo, document.bass)
  const hand = handTempo({ chart, grips, figure: null, limits, help: false })
  return {
    items: itemsOf({ chart, analysis: reading.analysis, grips, hand, goal: document.tempo }),
    key: keyName(reading.analysis.key),
  }
}

/** An id that is the same at every seeding. */
const idOf = (at: number): string => `00000000-0000-4000-8000-${String(at).padStart(12, '0')}`

/** @param now the day it ends before, ms since 1970 */
export function demoPasses(tunes: readonly SeededTune[], now: number): LoggedPass[] {
  const material = tunes.map((tune) => ({ tune, ...itemsIn(tune) })).filter(({ items }) => items.length > 0)
  if (material.length === 0) return []
  const begun = new Map<string, { tempo: number }>()
  const passes: LoggedPass[] = []
  const today = Math.floor(now / DAY_MS)
  for (let day = 0; day < DAYS; day += 1) {
    const [week, weekday] = [Math.floor(day / 7), day % 7]
    if (week === BAD_WEEK ? !BAD_WEEK_PLAYED.includes(weekday) : REST_DAYS.includes(weekday)) continue
    let at = (today - DAYS + day) * DAY_MS + 18 * 3_600_000 + Math.round(scattered(3, day, 1) * 3_600_000)
    const { tune, items, key } = itemAt(material, day % material.length)
    for (const item of chosenOn(day, items)) {
      const climbed = begun.get(`${tune.id} ${item.item}`)
      const start = climbed?.tempo ?? Math.min(tune.document.tempo, Math.floor(item.comfortable * 0.8))
      const grades: Grade[] = []
      for (let turn = 0; turn < TRIES; turn += 1) {
        const chance = scattered(11, day * 97 + turn, item.item.length)
        const trouble = itemAt(TROUBLE, week) * (0.5 + item.hard)
        const missed: Grade = chance > trouble / 2 ? 'nearly' : 'failed'
        const grade: Grade = chance > trouble ? 'clean' : missed
        const { tempo } = nextRung({ start, goal: tune.document.tempo, passes: grades })
        const seconds = Math.round(20 + 25 * scattered(5, day, turn))
        grades.push(grade)
        passes.push({
          id: idOf(passes.length + 1),
          tuneId: tune.id,
          title: tune.document.title,
          kind: item.kind,
          item: item.item,
          fromBar: item.from,
          toBar: item.to,
          key: item.kind === 'keys' ? item.item.replace(/^in /, '') : key,
          tempo: item.kind === 'grip' ? null : tempo,
          goal: tune.document.tempo,
          grade,
          seconds,
          at,
          zone: 'UTC',
          note:
            turn === TRIES - 1 && scattered(7, day, item.item.length) > 0.8
              ? itemAt(NOTES, day % NOTES.length)
              : '',
          hurt: false,
        })
        begun.set(`${tune.id} ${item.item}`, { tempo })
        at += (seconds + 15) * 1000
      }
    }
  }
  return passes
}

/**
 * What is taken up on a day: two passages, a change, by turns a grip or a cadence, and two of the
 * other keys.
 */
function chosenOn(day: number, items: readonly Item[]): Item[] {
  const of = (kind: Item['kind']) =>
    items.filter((item) => item.kind === kind && !AVOIDED.includes(item.item))
  const pick = (kind: Item['kind'], by: number): Item[] => {
    const found = of(kind)
    return found.length > 0 ? [itemAt(found, by % found.length)] : []
  }
  const turn = Math.floor(day / 3)
  return [
    ...pick('passage', Math.floor(day / 2)),
    ...pick('passage', 0),
    ...pick('change', Math.floor(day / 4)),
    ...pick(turn % 2 === 0 ? 'grip' : 'cadence', turn),
    ...pick('keys', 2 * turn),
    ...pick('keys', 2 * turn + 1),
  ].filter((item, at, all) => all.indexOf(item) === at)
}
