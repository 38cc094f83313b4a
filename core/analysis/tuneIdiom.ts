import { IDIOMS, type Chart, type Idiom } from '../chart/chart'
import { hasDegree } from '../chord/symbol'
import type { Key } from '../pitch/key'
import { kindOf } from './kind'
import type { Place } from './chordPlaces'

/** Other names players have for the styles. */
const ALSO: Readonly<Record<string, Idiom>> = {
  soul: 'gospel',
  'gospel-soul': 'gospel',
  'jazz major': 'jazz',
  'jazz minor': 'jazz',
}
/**
 * Names that say what is sung and not how it is played: the chords tell whether it is a song or
 * jazz.
 */
const BY_CHORDS = ['folk', 'pop', 'ballad']
export const IDIOM_NAMES = [...IDIOMS, ...Object.keys(ALSO), ...BY_CHORDS]

/**
 * The style of a name; null where there is none of it. @param read the style that the chords speak
 */
export function idiomNamed(name: string, read: Idiom): Idiom | null {
  if (BY_CHORDS.includes(name)) return read === 'jazz' || read === 'waltz' ? 'jazz' : 'song'
  return ALSO[name] ?? IDIOMS.find((one) => one === name) ?? null
}

/** A style with what of the chart says so. */
export interface IdiomRead {
  idiom: Idiom
  /** One sentence. */
  reason: string
}

/** A chord in so many is a seventh chord: the tune speaks jazz. */
const SEVENTHS = 0.45
/** Fewer different roots than this for eight bars, none of them a V going home: a mode. */
const FEW_ROOTS = 3
/** Chords of a mode last so many beats on average. */
const LASTS = 3.9
/** So many chords over other basses or diminished ones, among triads: gospel. */
const GOSPEL = 0.2

/** The style of a tune, read from its chart. Common practice, no source. */
export function idiomOf(
  chart: Chart,
  places: readonly Place[],
  groups: readonly { kind: string }[],
  home: Key,
): IdiomRead {
  if (chart.idiom) return { idiom: chart.idiom, reason: 'The chart says so.' }
  const title = chart.title ?? ''
  if (/\bbossa\b/i.test(title)) return { idiom: 'bossa', reason: 'Its title says bossa.' }
  if (places.length === 0) return { idiom: 'song', reason: 'It has no chords yet.' }
  const count = (of: (place: Place) => boolean) => places.filter(of).length
  const share = (of: (place: Place) => boolean) => count(of) / places.length
  const isSeventh = ({ chord }: Place) => hasDegree(chord, '7', 'b7', 'bb7') || hasDegree(chord, '6')
  const sevenths = share(isSeventh)
  const blues = groups.find(({ kind }) => kind === 'blues form')
  const seventhHome = count(({ rel, kind }) => rel === 0 && kind === 'dominant')
  const seventhFour = count(({ rel, kind }) => rel === 5 && kind === 'dominant')
  if (blues && home.mode === 'minor')
    return { idiom: 'minor blues', reason: 'Twelve bars of a blues, with a minor home.' }
  if (blues && (seventhHome > 0 || seventhFour > 0))
    return { idiom: 'blues', reason: 'Twelve bars of a blues, with sevenths on I and IV.' }
  if (seventhHome * 2 > count(({ rel }) => rel === 0) && seventhFour > 0)
    return { idiom: 'blues', reason: 'I7 and IV7 are at rest in it.' }
  const roots = new Set(places.map(({ root }) => root)).size
  const bars = chart.bars.length
  // By its V, or by the back door.
  const goesHome = places.some(
    ({ rel, kind, next }) =>
      next?.rel === 0 &&
      ((rel === 7 && (kind === 'dominant' || kind === 'major')) || (rel === 10 && kind === 'dominant')),
  )
  const lasts = places.reduce((sum, { slot }) => sum + slot.beats, 0) / runs(places)
  const isModal =
    roots <= Math.max(FEW_ROOTS, Math.ceil((FEW_ROOTS * bars) / 12)) &&
    !goesHome &&
    (sevenths >= SEVENTHS || share(({ kind }) => kind === 'suspended') > 0.3) &&
    lasts >= LASTS
  if (isModal) return { idiom: 'modal', reason: `${roots} roots that last, and no V that goes home: a mode.` }
  const inThree = chart.meter.beats === 3
  if (sevenths >= SEVENTHS)
    return inThree
      ? { idiom: 'waltz', reason: 'Sevenths in three.' }
      : { idiom: 'jazz', reason: 'Most of its chords are sevenths.' }
  const moving = share(
    ({ chord, kind }) =>
      kind === 'diminished' ||
      (chord.bass !== null && kindOf(chord) !== 'power') ||
      (kind === 'augmented' && chord.tones.length === 3),
  )
  if (moving >= GOSPEL && count(({ kind }) => kind === 'diminished') > 0 && !inThree)
    return {
      idiom: 'gospel',
      reason: 'Triads on the way by other basses and diminished chords.',
    }
  return { idiom: 'song', reason: inThree ? 'Triads in three.' : 'Mostly triads.' }
}

/** Different chords in a row. */
const runs = (places: readonly Place[]): number =>
  places.filter(({ chord }, at) => chord.canonical !== places[at - 1]?.chord.canonical).length
