import { firstOf } from '../../../core/lists'
import type { Chart } from '../../../core/chart/chart'
import { Clock } from '../../../core/melody/clock'
import type { GuitarHit } from '../../../core/tune/accompaniment'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { HandHit } from '../../../core/tune/rhythmSchema'
import { placeOfHit } from './RhythmRow'

type HitsEdit = Extract<TuneEdit, { kind: 'rhythm-hits' }>

/** Shortest hit by hand, and steps of its length, in beats. */
const SHORTEST = 0.25
const STEP = 0.5

/**
 * What sounds at one place as one hit by hand: parts that are struck together become the whole
 * grip.
 */
export function asOne(hits: readonly GuitarHit[]): HandHit {
  const [first] = hits
  return {
    length: Math.max(SHORTEST, Math.round(first!.beats * 24) / 24),
    part: hits.length > 1 ? 'all' : first!.part,
    accent: first!.accent,
    stroke: first!.stroke,
    push: first!.pushed,
  }
}

const edit = (hits: HitsEdit['hits'], did: string, free: string[] = []): HitsEdit => ({
  kind: 'rhythm-hits',
  hits,
  free,
  did,
})

/** A hit so many beats later, or earlier; null past the ends of the tune. */
export function moveHit(
  chart: Chart,
  hits: readonly GuitarHit[],
  beats: number,
): { edit: HitsEdit; to: string } | null {
  const clock = new Clock(chart)
  const time = clock.at(firstOf(hits)) + clock.lasts(firstOf(hits).bar, beats)
  if (time < 0 || time >= clock.end) return null
  const to = placeOfHit(clock.place(time))
  return {
    edit: edit(
      { [placeOfHit(firstOf(hits))]: null, [to]: asOne(hits) },
      beats < 0 ? 'hit earlier' : 'hit later',
    ),
    to,
  }
}

const ACCENTS_IN_TURN = { plain: 'accent', accent: 'ghost', ghost: 'plain' } as const

/** One thing of a hit changed. */
export function changeHit(
  hits: readonly GuitarHit[],
  what: 'longer' | 'shorter' | 'accent' | 'push',
): HitsEdit {
  const one = asOne(hits)
  const place = placeOfHit(firstOf(hits))
  const length = Number(one.length)
  switch (what) {
    case 'accent': {
      const accent = ACCENTS_IN_TURN[one.accent]
      return edit({ [place]: { ...one, accent } }, `hit: ${accent}`)
    }
    case 'push':
      return edit({ [place]: { ...one, push: !one.push } }, one.push ? 'hit not pushed' : 'hit pushed')
    default:
      return edit(
        {
          [place]: { ...one, length: Math.max(SHORTEST, what === 'longer' ? length + STEP : length - STEP) },
        },
        `hit ${what}`,
      )
  }
}

export const leftOut = (place: string): HitsEdit => edit({ [place]: null }, 'hit left out')
export const givenBack = (place: string): HitsEdit => edit({}, 'hit as the figure has it', [place])

/** A hit put in on the next free place of the grid behind another. */
export function putIn(
  chart: Chart,
  behind: GuitarHit,
  taken: ReadonlySet<string>,
  grid: number,
): { edit: HitsEdit; to: string } | null {
  const clock = new Clock(chart)
  for (let time = clock.at(behind) + grid; time < clock.end; time += grid) {
    const to = placeOfHit(clock.place(time))
    if (taken.has(to)) continue
    const hit: HandHit = {
      length: 'held',
      part: 'all',
      accent: 'plain',
      stroke: behind.stroke === 'dead' ? 'down' : behind.stroke,
      push: false,
    }
    return { edit: edit({ [to]: hit }, 'hit put in'), to }
  }
  return null
}
