/**
 * Comping figures. All common practice, no source, but where one is named. Places and lengths are
 * in beats of the metre; a beat of 6/8 and 12/8 is an eighth.
 */

/**
 * What of a grip sounds. `fifth` is the other low tone an alternating thumb goes to; `inner` and
 * `single` take the next voice at each hit.
 */
export const HIT_PARTS = ['all', 'upper', 'bass', 'fifth', 'top', 'inner', 'single'] as const
export type Part = (typeof HIT_PARTS)[number]
export const ACCENTS = ['ghost', 'plain', 'accent'] as const
export type Accent = (typeof ACCENTS)[number]
/** How the right hand makes it; `dead` is struck over damped strings. */
export const STROKES = ['down', 'up', 'fingers', 'thumb', 'roll', 'dead'] as const
export type Stroke = (typeof STROKES)[number]
/**
 * A short hit is let go at once; a held one lasts until the next of its voices, or to the end of
 * its chord; else in beats.
 */
export type Length = 'short' | 'held' | number
export const FEELS = ['straight', 'swing', 'shuffle', 'either'] as const
export type Feel = (typeof FEELS)[number]
/** What the right hand plays with. */
export type RightHand = 'pick' | 'fingers' | 'thumb and fingers'

export interface FigureHit {
  /** Beats from the beginning of the cycle, from 0. */
  at: number
  length: Length
  part: Part
  accent: Accent
  stroke: Stroke
  /** Belongs to the chord that comes next, where that comes within a beat. */
  push: boolean
}

/** A figure that is laid on a tune: a cycle of any length, which runs on over bar lines. */
export interface Cycle {
  /** In beats. */
  cycle: number
  hits: readonly FigureHit[]
}

export interface Figure extends Cycle {
  name: string
  /** Metres it is made for. */
  meters: readonly string[]
  feel: Feel
  hand: RightHand
  /** What it is good for. */
  why: string
}

type HitMark = 'ghost' | 'accent' | 'push'
type HitRow = readonly [at: number, part: Part, length: Length, stroke: Stroke, ...marks: HitMark[]]
type FigureRow = readonly [
  name: string,
  cycle: number,
  feel: Feel,
  hand: RightHand,
  hits: readonly HitRow[],
  why: string,
]

// A row is a figure: its name, its cycle, its feel, the right hand; each hit with its place, what
// sounds, how long, by what stroke; what it is good for.
// prettier-ignore
const ROWS: Readonly<Record<string, readonly FigureRow[]>> = {
  // In four
  '4/4': [
    ['four to the bar', 2, 'swing', 'pick', [[0, 'all', 'short', 'down'], [1, 'all', 'short', 'down', 'accent']],
      'carries the time where there is no drummer: light and even, the second and fourth a little stronger'],
    ['two and four', 2, 'swing', 'pick', [[1, 'all', 'short', 'down', 'accent']],
      'leaves one and three to the bass: the lightest way to keep time with a band'],
    ['dotted quarter and eighth', 4, 'swing', 'pick', [[0, 'all', 1.5, 'down'], [1.5, 'all', 'short', 'up', 'accent']],
      'the first figure to learn: on the beat, then ahead of the third; it answers any melody'],
    ['rest and off-beat', 4, 'swing', 'pick', [[1.5, 'all', 'short', 'up'], [3.5, 'all', 'short', 'up', 'accent']],
      'the answer to the dotted quarter and eighth: what is on the beat is left to others'],
    ['off-beat and beat', 4, 'swing', 'pick', [[0.5, 'all', 'short', 'up'], [2, 'all', 1.5, 'down', 'accent']],
      'turns the dotted quarter and eighth round: the chord comes late and is then stood on'],
    ['off-beat eighths', 1, 'either', 'pick', [[0.5, 'all', 'short', 'up']],
      'lifts a slow tune, as in reggae or a polka; the bass has every beat'],
    ['pushes on the and of four', 4, 'swing', 'pick', [[1.5, 'all', 'short', 'up'], [3.5, 'all', 'held', 'up', 'accent', 'push']],
      'each chord comes half a beat early and is tied over the bar line: the tune leans forward'],
    ['pushes on two and four', 4, 'swing', 'pick', [[1.5, 'all', 'held', 'up', 'push'], [3.5, 'all', 'held', 'up', 'accent', 'push']],
      'for two chords a bar, both ahead of the beat'],
    ['half notes', 2, 'either', 'fingers', [[0, 'all', 'held', 'fingers']],
      'calm ground for a ballad, or the way to learn the grips'],
    ['whole notes', 4, 'either', 'fingers', [[0, 'all', 'held', 'roll']],
      'a chord spread once and left to ring: under a busy melody, or before the time begins'],
    ['big quarters', 1, 'straight', 'pick', [[0, 'all', 'held', 'down', 'accent']],
      'exactly on the beat, long and accented: for an ending or a last chorus'],
    ['bass, chord', 2, 'either', 'thumb and fingers', [[0, 'bass', 1, 'thumb'], [1, 'upper', 'short', 'fingers']],
      'two players in one: for songs, marches and two-beat tunes'],
    ['bass, bass, chord, chord', 4, 'either', 'thumb and fingers', [[0, 'bass', 1, 'thumb'], [1, 'fifth', 1, 'thumb'], [2, 'upper', 'short', 'fingers'], [3, 'upper', 'short', 'fingers', 'accent']],
      'the low voice has the first half of the bar, the chord the second: room below a singer'],
    ['alternating thumb', 4, 'straight', 'thumb and fingers', [[0, 'upper', 'held', 'fingers'], [0, 'bass', 1, 'thumb'], [1, 'fifth', 1, 'thumb'], [2, 'bass', 1, 'thumb'], [3, 'fifth', 1, 'thumb']],
      'root and fifth walk below while the voices above ring on'],
    ['alternating thumb, chords between', 2, 'straight', 'thumb and fingers', [[0, 'bass', 1, 'thumb'], [0.5, 'upper', 'short', 'fingers'], [1, 'fifth', 1, 'thumb'], [1.5, 'upper', 'short', 'fingers', 'accent']],
      'the whole accompaniment of a quick song in one hand'],
    ['bass and top, inner voices after', 4, 'straight', 'fingers', [[0, 'bass', 'held', 'thumb'], [0, 'top', 'held', 'fingers', 'accent'], [1, 'inner', 1, 'fingers'], [2, 'inner', 1, 'fingers'], [3, 'inner', 1, 'fingers']],
      'shows the line of the highest voice, then fills it: for slow chord melody'],
    ['eighths through the voices', 4, 'straight', 'fingers', [[0, 'single', 'held', 'thumb'], ...[0.5, 1, 1.5, 2, 2.5, 3, 3.5].map((at): HitRow => [at, 'single', 'held', 'fingers'])],
      'picked one by one from the bass up and down again, all ringing on'],
    ['long voices over halves', 4, 'either', 'fingers', [[0, 'bass', 'held', 'thumb'], [0, 'top', 'held', 'fingers'], [0, 'inner', 2, 'fingers'], [2, 'inner', 2, 'fingers']],
      'one voice moves at the half bar between two that stand: shows a moving inner line'],
    ['bossa in two bars', 8, 'straight', 'thumb and fingers', [[0, 'bass', 2, 'thumb'], [0, 'upper', 'short', 'fingers'], [1.5, 'upper', 'short', 'fingers'], [2, 'fifth', 2, 'thumb'], [3, 'upper', 'short', 'fingers'], [4, 'bass', 2, 'thumb'], [5, 'upper', 'short', 'fingers'], [6, 'fifth', 2, 'thumb'], [6.5, 'upper', 1.5, 'fingers', 'accent']],
      'thumb on one and three, the chord against it over two bars: soft and even, never swung'],
    ['three over four', 3, 'swing', 'pick', [[0, 'all', 1.5, 'down', 'accent'], [1.5, 'all', 'short', 'up']],
      'three beats run on over the bar line and meet it again after three bars: tension before a new section'],
    ['dotted quarters over four', 1.5, 'swing', 'pick', [[0, 'all', 1, 'down']],
      'every third eighth: the bar line disappears for a while'],
    ['five over four', 5, 'straight', 'pick', [[0, 'all', 1.5, 'down', 'accent'], [2, 'all', 1, 'down'], [3, 'all', 1.5, 'down']],
      'three and two beats run on over the bar line; it meets it again after five bars'],
    ['ballad: roll and answer', 4, 'either', 'fingers', [[0, 'all', 2, 'roll'], [2.5, 'upper', 'short', 'fingers', 'ghost'], [3, 'upper', 1, 'fingers']],
      'the chord is spread, then two soft answers where a singer breathes'],
    ['sixteenths with dead strokes', 4, 'straight', 'pick', [[0, 'all', 'short', 'down', 'accent'], [0.5, 'all', 'short', 'dead', 'ghost'], [0.75, 'all', 'short', 'up'], [1, 'all', 'short', 'dead', 'accent'], [1.5, 'all', 'short', 'down'], [1.75, 'all', 'short', 'dead', 'ghost'], [2.25, 'all', 'short', 'up', 'accent'], [2.75, 'all', 'short', 'dead', 'ghost'], [3, 'all', 'short', 'dead', 'accent'], [3.5, 'all', 'short', 'down']],
      'damped strokes keep the hand going between short chords: dry and close to the drums'],
  ],
  // In two
  '2/4': [
    ['two-beat', 2, 'either', 'thumb and fingers', [[0, 'bass', 1, 'thumb'], [1, 'upper', 'short', 'fingers']],
      'bass and chord in turn: songs, marches, polkas'],
  ],
  // In three
  '3/4': [
    ['waltz', 3, 'straight', 'thumb and fingers', [[0, 'bass', 1, 'thumb'], [1, 'upper', 'short', 'fingers'], [2, 'upper', 'short', 'fingers']],
      'bass, chord, chord: the dance itself'],
    ['slow waltz', 3, 'either', 'fingers', [[0, 'bass', 'held', 'thumb'], [1, 'upper', 2, 'fingers']],
      'the chord on two rings to the end of the bar: less dance, more song'],
    ['jazz waltz', 3, 'swing', 'pick', [[0, 'all', 1.5, 'down'], [1.5, 'all', 'short', 'up', 'accent']],
      'dotted quarters, two against three: it floats'],
    ['jazz waltz, off-beats', 3, 'swing', 'pick', [[1.5, 'all', 'short', 'up'], [2.5, 'all', 'held', 'up', 'accent', 'push']],
      'one is left to the bass, the next chord comes ahead of it'],
    ['waltz through the voices', 3, 'straight', 'fingers', [[0, 'single', 'held', 'thumb'], ...[0.5, 1, 1.5, 2, 2.5].map((at): HitRow => [at, 'single', 'held', 'fingers'])],
      'picked in eighths from the bass up: an introduction, or a verse'],
  ],
  // In six eighths: a beat is an eighth
  '6/8': [
    ['two dotted beats', 6, 'straight', 'fingers', [[0, 'all', 'held', 'fingers'], [3, 'all', 'held', 'fingers', 'accent']],
      'one and four: the sway of the metre and nothing more'],
    ['six-eight, bass and chords', 6, 'straight', 'thumb and fingers', [[0, 'bass', 2, 'thumb'], [2, 'upper', 'short', 'fingers'], [3, 'fifth', 2, 'thumb'], [5, 'upper', 'short', 'fingers', 'accent']],
      'the lilt of a jig at any speed'],
    ['six-eight through the voices', 6, 'straight', 'fingers', [[0, 'single', 'held', 'thumb'], ...[1, 2, 3, 4, 5].map((at): HitRow => [at, 'single', 'held', 'fingers'])],
      'picked in eighths: the usual ground of a slow song in six'],
  ],
  // In twelve eighths
  '12/8': [
    ['slow twelve-eight', 12, 'straight', 'thumb and fingers', [[0, 'bass', 3, 'thumb'], [3, 'upper', 'short', 'fingers', 'accent'], [5, 'upper', 'short', 'fingers', 'ghost'], [6, 'fifth', 3, 'thumb'], [9, 'upper', 'short', 'fingers', 'accent'], [11, 'upper', 'short', 'fingers', 'ghost']],
      'a slow blues or a soul ballad: bass on one and three, the chord on two and four with its pick-up'],
    ['twelve-eight shuffle', 3, 'straight', 'pick', [[0, 'all', 2, 'down'], [2, 'all', 'short', 'up', 'ghost']],
      'long and short on every beat: drives'],
    ['twelve-eight through the voices', 6, 'straight', 'fingers', [[0, 'single', 'held', 'thumb'], ...[1, 2, 3, 4, 5].map((at): HitRow => [at, 'single', 'held', 'fingers'])],
      'triplets picked through the chord: an old slow dance'],
  ],
  // In five
  '5/4': [
    ['five: three and two', 5, 'either', 'thumb and fingers', [[0, 'bass', 3, 'thumb'], [1, 'upper', 'short', 'fingers'], [2, 'upper', 'short', 'fingers'], [3, 'fifth', 2, 'thumb'], [4, 'upper', 'short', 'fingers', 'accent']],
      'a waltz bar and a march bar joined: shows where the five is divided'],
    ['five: dotted quarters and quarters', 5, 'swing', 'pick', [[0, 'all', 1.5, 'down'], [1.5, 'all', 1.5, 'up'], [3, 'all', 1, 'down', 'accent'], [4, 'all', 'short', 'down']],
      'two long, two short: moves where the other only counts'],
    ['five, whole bar', 5, 'either', 'fingers', [[0, 'all', 'held', 'roll'], [3, 'upper', 'held', 'fingers']],
      'the chord, then its upper voices again where the two begins: calm'],
  ],
}

const hitOf = ([at, part, length, stroke, ...marks]: HitRow): FigureHit => ({
  at,
  part,
  length,
  stroke,
  accent: marks.find((mark): mark is 'ghost' | 'accent' => mark !== 'push') ?? 'plain',
  push: marks.includes('push'),
})

export const FIGURES: readonly Figure[] = Object.entries(ROWS).flatMap(([meter, rows]) =>
  rows.map(([name, cycle, feel, hand, hits, why]): Figure => ({
    name,
    cycle,
    feel,
    hand,
    why,
    hits: hits.map(hitOf),
    meters: [meter],
  })),
)

/** No figure: each chord is struck once where it comes, and held. */
export const EVERY_CHORD_ONCE: Cycle = {
  cycle: 64,
  hits: [{ at: 0, length: 'held', part: 'all', accent: 'plain', stroke: 'down', push: false }],
}

export const figureNamed = (name: string): Figure | undefined => FIGURES.find((one) => one.name === name)

/** Figures made for a metre, the plainest first; none where the table has none for it. */
export const figuresFor = (meter: string): Figure[] => FIGURES.filter(({ meters }) => meters.includes(meter))

/**
 * How long a hit that is let go at once sounds, in beats of a quarter: no longer than to the next
 * hit.
 */
export const SHORT_BEATS = 0.4

/**
 * Length of a hit in beats, as it stands in its cycle: to the next hit of its voices, which may be
 * in the cycle's next round.
 */
export function lengthInCycle({ cycle, hits }: Cycle, hit: FigureHit): number {
  const after = hits
    .filter((one) => one !== hit && sameVoices(one.part, hit.part))
    .map(({ at }) => (at > hit.at ? at : at + cycle) - hit.at)
    .filter((beats) => beats > 0)
  const room = Math.min(cycle, ...after)
  if (hit.length === 'short') return Math.min(SHORT_BEATS, room)
  return hit.length === 'held' ? room : Math.min(hit.length, Math.max(room, 0))
}

const LOW: readonly Part[] = ['bass', 'fifth']
const HIGH: readonly Part[] = ['upper', 'top', 'inner', 'single']
/**
 * Whether one part, struck, ends the sound of another: the low voice and those above sound on
 * beside one another; voices picked in turn ring on.
 */
export function sameVoices(struck: Part, sounding: Part): boolean {
  if (struck === 'all' || sounding === 'all') return true
  if (LOW.includes(struck) || LOW.includes(sounding)) return LOW.includes(struck) && LOW.includes(sounding)
  if (struck === 'single' && sounding === 'single') return false
  if (struck === 'upper' || sounding === 'upper') return HIGH.includes(struck) && HIGH.includes(sounding)
  return struck === sounding
}

/** Whether a hit lets a chord be heard, and not only its bass or a damped stroke. */
export const soundsAChord = ({ part, stroke }: { part: Part; stroke: Stroke }): boolean =>
  !LOW.includes(part) && stroke !== 'dead'
