import { firstOf, itemAt, lastOf } from '../lists'
import type { Analysis } from '../analysis/chordReading'
import type { Chart } from '../chart/chart'
import { pitchClass } from '../pitch/note'
import { isCrowd } from './atPlace'
import { putsKey, type Change, type Put } from './change'
import { reachOf } from './distance'
import { guardAgainst, guardedPlaces, isOn, type Guards } from './guards'
import { localJudge } from './judging/local'
import { barStarts, fitOf, type MelodyFit, type MelodyNote } from './melodyFit'
import { changesAt } from './options'
import type { Spot } from './spot'
import { familyOf } from './ruleNames'
import { leaningWorth, likingOf, type Liking, type Taste } from './taste'

/**
 * Prices of the search, in points a beat-for-beat change is worth. Common practice, no source; what
 * forbids is a rule (a landing must land), what costs is taste.
 */
export const PRICE = {
  /** What the judge of versions says of a change among its neighbours, for each point of its. */
  judged: 1.6,
  /**
   * Any change but a colour, so that a few that say something win over many that say little; a bass
   * or a texture says least.
   */
  change: 0.5,
  texture: 0.8,
  /**
   * A chord that moves, at no distance: near home colour comes before substitution. It fades as the
   * distance grows.
   */
  moved: 6,
  /** A colour fuller than the distance asks for, for each tone; and an altered one, near home. */
  fuller: 0.6,
  altered: 1,
  /** A colour in a song, away from home, for all the distance. */
  colourOut: 1.2,
  /** A bare triad that stays as it is, where the tune is coloured. */
  bare: 2.2,
  /**
   * A shape that only slides in from a half step, or a substitute by itself, leads nowhere: worth
   * less than a chain, a walking bass or a turnaround.
   */
  loneSlide: 1,
  leads: -0.4,
  /** The bass stepping from one changed chord to the next: it walks. */
  walks: -0.4,
  /** What a way of its own kind is drawn to. */
  drawn: -1.2,
  /** Two changed chords in a row that are both swapped: they begin to hide the tune. */
  swapsInARow: 1.2,
  /** A chord put in, at no liking for busy playing. */
  addedChord: 1.6,
  /** The bass leaping, at full liking for steps. */
  bassLeap: 0.5,
  /** A special colour, which the player should ask for. */
  special: 1.5,
  /** What a school leaned to, or a rule often kept, is worth: taste of 0.3 is half a point. */
  liked: 1.6,
  /** Plainer than the chart. */
  simpler: 3,
  /** A melody note to avoid, and a sour one. */
  avoid: 5,
  sour: 12,
  /** How unlike results become: what one result used costs the next. */
  usedBefore: 2.5,
  /** Size of the seeded chance between things as good as each other. */
  chance: 0.8,
} as const

/** A change, or the plain chord, as the search sees it. */
export interface Arc {
  change: Change | null
  index: number
  span: number
  key: string
  /** Reach times beats. */
  weight: number
  price: number
  firstRoot: number
  lastBass: number
  firstBass: number
  landsOn: number | null
  swaps: boolean
  /** What stands behind it on the page is what is played behind it, at least once. */
  goesOn: boolean
  puts: readonly Put[]
}

export interface LatticeAsked {
  taste: Taste
  liking: Liking
  melody: readonly MelodyNote[]
  keep: ReadonlySet<number>
  guards: Guards
  allowed: (change: Change) => boolean
  distance: number
}

/**
 * For every slot what can begin there, within the guards; and the most the rules could change
 * without them.
 */
export function lattice(
  { chart, analysis, spots }: { chart: Chart; analysis: Analysis; spots: readonly (Spot | null)[] },
  asked: LatticeAsked,
): { arcs: Arc[][]; most: number } {
  const { taste, melody, keep, guards, allowed } = asked
  const places = guardedPlaces(chart, analysis, spots)
  const starts = barStarts(chart)
  const judged = localJudge(chart, analysis, spots, melody)
  const weights: Pick<Arc, 'weight' | 'span'>[][] = []
  const arcs = spots.map((spot, index): Arc[] => {
    if (!spot) {
      weights.push([PLAIN])
      return [
        {
          change: null,
          index,
          ...PLAIN,
          key: '',
          price: 0,
          firstRoot: -1,
          firstBass: -1,
          lastBass: -1,
          landsOn: null,
          swaps: false,
          goesOn: true,
          puts: [],
        },
      ]
    }
    const fits = (puts: readonly Put[], replaced: readonly Spot[]): MelodyFit[] => {
      const { next } = lastOf(replaced)
      return melody.length === 0
        ? []
        : fitOf(
            puts,
            replaced.map(({ slot }) => slot),
            melody,
            starts,
            next && pitchClass(next.chord.root),
          )
    }
    const plainPuts: Put[] = [{ chord: spot.chord, beats: spot.beats }]
    const plain = arcOf(null, [spot], plainPuts, asked, fits(plainPuts, [spot]))
    if (keep.has(index)) {
      weights.push([PLAIN])
      return [plain]
    }
    const stays = ({ index: from, span }: Change) =>
      Array.from({ length: span - 1 }, (_, more) => from + 1 + more).some((at) => keep.has(at))
    const changes = changesAt(spot)
      .filter((change) => allowed(change) && leaningWorth(change.rule, taste) > -Infinity && !stays(change))
      .map((change) => {
        const replaced = spots.slice(index, index + change.span) as Spot[]
        const fit = fits(change.puts, replaced)
        const sourer =
          sours(fit) >
          sours(
            fits(
              replaced.map(({ chord, beats }) => ({ chord, beats })),
              replaced,
            ),
          )
        const { faults, cost } = judged(change)
        const arc = arcOf(change, replaced, change.puts, asked, fit)
        return {
          arc: { ...arc, price: arc.price + PRICE.judged * cost },
          guarded: guardAgainst(change, spots, places, guards) !== null || (sourer && isOn(guards, 'melody')),
          outOfPlace: change.outOfPlace === true || faults > MOST_AT_FAULT || isCrowd(change, spot),
        }
      })
    // What is out of its place is no measure of how far a tune can go, and no way there.
    weights.push([PLAIN, ...changes.filter((one) => !one.outOfPlace).map(({ arc }) => arc)])
    const kept = changes.filter((one) => !one.guarded && !one.outOfPlace)
    return [plain, ...kept.map(({ arc }) => arc)]
  })
  return { arcs, most: mostWeight(weights, spots.length) }
}

/**
 * A change that costs more by its faults alone is not looked at: it is told in the list of options,
 * behind all others.
 */
const MOST_AT_FAULT = 0.85

/** A slot that stays as it is changes nothing. */
const PLAIN = { weight: 0, span: 1 } as const
const sours = (fit: readonly MelodyFit[]): number => fit.filter(({ heard }) => heard === 'sour').length

/** Shapes that slide in from a half step, by themselves. */
const SLIDES: readonly string[] = ['approach-from-above', 'approach-from-below', 'approaching-substitute']
/** Families whose chords lead somewhere: walking basses, turnarounds. */
const LEADING: readonly string[] = ['c1', 'c4', 'c5', 'c6', 'b8']
const leadsOn = (rule: string): boolean =>
  rule === 'chain-of-dominants' || LEADING.includes(familyOf(rule) ?? '')

function arcOf(
  change: Change | null,
  replaced: readonly Spot[],
  puts: readonly Put[],
  { taste, liking, distance }: LatticeAsked,
  melody: readonly MelodyFit[],
): Arc {
  const beats = replaced.reduce((sum, spot) => sum + spot.beats, 0)
  const plain = replaced.map((spot): Put => ({ chord: spot.chord, beats: spot.beats }))
  const bassOf = ({ chord }: Put) => pitchClass(chord.bass ?? chord.root)
  const added = Math.max(0, puts.length - replaced.length)
  let price = added * PRICE.addedChord * (1 - taste.busy)
  if (change && change.intent !== 'colour')
    price +=
      PRICE.change +
      PRICE.moved * Math.max(0, 1 - distance) ** 3 * (keepsRoots(puts, replaced) ? ONLY_THE_BASS : 1)
  if (change?.intent === 'colour')
    price +=
      PRICE.fuller * Math.max(0, firstOf(puts).chord.tones.length - FULL - MORE * distance) +
      (change.rule === 'altered-dominant' ? PRICE.altered * (1 - distance) : 0)
  // Away from home a song moves in a few places; colours all over it only soften it.
  if (change?.intent === 'colour' && isSong(firstOf(replaced)))
    price += PRICE.colourOut * Math.max(0, distance - NEAR)
  if (!change && isBare(firstOf(replaced).chord) && !isSong(firstOf(replaced))) price += PRICE.bare
  if (change && SLIDES.includes(change.rule)) price += PRICE.loneSlide
  if (change && leadsOn(change.rule)) price += PRICE.leads
  if (change?.intent === 'bass and texture') price += PRICE.texture
  if (change?.name === 'special colour') price += PRICE.special
  if (change?.intent === 'simplify') price += PRICE.simpler
  if (change) price -= PRICE.liked * (leaningWorth(change.rule, taste) + likingOf(change.rule, liking))
  if (change) for (const { heard } of melody) if (heard === 'sour' || heard === 'avoid') price += PRICE[heard]
  const [first, last] = [firstOf(puts), lastOf(puts)]
  return {
    change,
    index: firstOf(replaced).index,
    span: replaced.length,
    key: change ? putsKey(change) : '',
    price,
    puts,
    weight: change ? reachOf(plain, puts, firstOf(replaced).key) * beats : 0,
    firstRoot: pitchClass(first.chord.root),
    firstBass: bassOf(first),
    lastBass: bassOf(last),
    landsOn: change?.landsOn ?? null,
    goesOn: goesOnPage(lastOf(replaced)),
    swaps: change !== null && (change.intent === 'swap' || change.intent === 'borrow'),
  }
}

/** Only the bass or a voice inside moves. */
const keepsRoots = (puts: readonly Put[], replaced: readonly Spot[]): boolean =>
  puts.every(({ chord }) => replaced.some((spot) => pitchClass(spot.chord.root) === pitchClass(chord.root)))
const ONLY_THE_BASS = 0.2

/** Triads are what a song is made of. */
const isSong = ({ idiom }: Spot): boolean => idiom === 'song' || idiom === 'gospel'

/** Near home ends about here. */
const NEAR = 0.3

/** Tones of a colour near home, and how many more there may be far out. */
const FULL = 4
const MORE = 3

/** A plain major or minor triad. */
const isBare = ({ tones }: Put['chord']): boolean =>
  tones.length === 3 && tones.some(({ degree }) => degree === '3' || degree === 'b3')

/**
 * The slot behind it on the page is played behind it, on one time through; so it is, too, where
 * nobody plays there or the tune ends.
 */
const goesOnPage = ({ nexts, index }: Spot): boolean =>
  nexts.length === 0 || nexts.some((next) => next.index === index + 1)

/** The most the rules could change, beat by beat, neighbours not asked. */
export function mostWeight(
  arcs: readonly (readonly { weight: number; span: number }[])[],
  slots: number,
): number {
  const most = new Array<number>(slots + 1).fill(0)
  for (let at = slots - 1; at >= 0; at -= 1)
    most[at] = Math.max(...itemAt(arcs, at).map((arc) => arc.weight + (most[at + arc.span] ?? 0)))
  return firstOf(most)
}

/** What two neighbours cost each other; infinite where one spoils the other's reason. */
export function between(a: Arc, b: Arc, taste: Taste): number {
  if (!a.goesOn) return 0
  if (a.landsOn !== null && b.firstRoot !== a.landsOn) return Infinity
  const leap =
    a.lastBass < 0 || b.firstBass < 0
      ? 0
      : Math.min((a.lastBass - b.firstBass + 12) % 12, (b.firstBass - a.lastBass + 12) % 12)
  return (
    (a.swaps && b.swaps ? PRICE.swapsInARow : 0) +
    (leap > 0 && leap <= 2 && (a.change !== null || b.change !== null) ? PRICE.walks : 0) +
    (leap > 2 ? PRICE.bassLeap * taste.bassSteps : 0)
  )
}
