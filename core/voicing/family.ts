import { firstOf, itemAt, lastOf } from '../lists'
import type { Degree } from '../pitch/degree'

/** The trade's families of voicings. */
export const VOICING_FAMILIES = [
  'guide tones',
  'double stop',
  'tenth',
  'shell',
  'quartal',
  'triad',
  'triad over bass',
  'close',
  'drop 2',
  'drop 3',
  'drop 2 and 4',
  'cluster',
  'open string',
  'rootless',
  'spread',
] as const
export type Family = (typeof VOICING_FAMILIES)[number]

export interface SoundingTone {
  /** MIDI numbers with their degrees, lowest pitch first. */
  notes: readonly { midi: number; degree: Degree }[]
  /** An open string sounds beside fretted ones. */
  openAmongFretted: boolean
}

const THIRDS: readonly Degree[] = ['3', 'b3', '4', '2']
const SEVENTHS: readonly Degree[] = ['7', 'b7', 'bb7', '6']

/**
 * Every family a set of sounding notes belongs to, the most telling first. Definitions are common
 * practice: close is within an octave; drop 2 is close with the second voice from the top an octave
 * lower, and so on.
 */
export function familiesOf({ notes, openAmongFretted }: SoundingTone): Family[] {
  const midis = notes.map((note) => note.midi)
  const degrees = notes.map((note) => note.degree)
  const sounds = soundsFrom(midis, 0)
  const distinct = countOf(sounds)
  const gaps = midis.slice(1).map((midi, index) => midi - itemAt(midis, index))
  const families: Family[] = []
  const add = (family: Family, when: boolean) => {
    if (when && !families.includes(family)) families.push(family)
  }
  const isShellTone = (degree: Degree) =>
    degree === '1' || THIRDS.includes(degree) || SEVENTHS.includes(degree)

  if (notes.length === 2) {
    const span = itemAt(midis, 1) - firstOf(midis)
    add('guide tones', degrees.some((d) => THIRDS.includes(d)) && degrees.some((d) => SEVENTHS.includes(d)))
    add('tenth', span === 15 || span === 16)
    add('double stop', true)
  }
  add(
    'shell',
    notes.length === 3 &&
      distinct === 3 &&
      degrees[0] === '1' &&
      degrees.every(isShellTone) &&
      degrees.some((d) => SEVENTHS.includes(d)),
  )
  add(
    'quartal',
    notes.length >= 3 &&
      gaps.every((gap) => gap === 5 || gap === 6) &&
      gaps.filter((gap) => gap === 6).length <= 1,
  )
  add('triad', TRIADS.has(sounds))
  add(
    'triad over bass',
    notes.length >= 4 &&
      (soundsFrom(midis, 1) & (1 << (firstOf(midis) % 12))) === 0 &&
      TRIADS.has(soundsFrom(midis, 1)),
  )

  if (notes.length === 4 && distinct === 4) {
    for (const [family, dropped] of DROPS) add(family, isDrop(midis, dropped))
  }
  add('close', notes.length === 3 && distinct === 3 && lastOf(midis) - firstOf(midis) < 12)
  add(
    'cluster',
    gaps.some((gap) => gap === 1 || gap === 2),
  )
  add('open string', openAmongFretted)
  add('rootless', !degrees.includes('1'))
  add(
    'spread',
    families.length === 0 || (distinct === 3 && notes.length === 3 && lastOf(midis) - firstOf(midis) > 12),
  )
  return families
}

/** Voices, counted from the top, that lie an octave lower. */
const DROPS: readonly [Family, readonly number[]][] = [
  ['close', []],
  ['drop 2', [2]],
  ['drop 3', [3]],
  ['drop 2 and 4', [2, 4]],
]

function countOf(sounds: number): number {
  let count = 0
  for (let left = sounds; left > 0; left &= left - 1) count += 1
  return count
}

/**
 * Major, minor, diminished and augmented triads on every root, as sets of pitch classes in masks of
 * twelve bits.
 */
const TRIADS: ReadonlySet<number> = new Set(
  [
    [4, 7],
    [3, 7],
    [3, 6],
    [4, 8],
  ].flatMap(([third, fifth]) =>
    Array.from(
      { length: 12 },
      (_, root) => (1 << root) | (1 << ((root + third!) % 12)) | (1 << ((root + fifth!) % 12)),
    ),
  ),
)

/** The pitch classes of notes from one on, as a mask. */
function soundsFrom(midis: readonly number[], first: number): number {
  let sounds = 0
  for (let at = first; at < midis.length; at += 1) sounds |= 1 << (itemAt(midis, at) % 12)
  return sounds
}

/**
 * Whether four notes are a close voicing with the named voices (counted from the top) an octave
 * lower: raising them again must give four notes within an octave in the same order of tones.
 */
function isDrop(midis: readonly number[], dropped: readonly number[]): boolean {
  // Dropped voices lie at the bottom, deepest first: drop 3 is [v3, v4, v2, v1], drop 2 and 4 is
  // [v4, v2, v3, v1].
  const raised = (at: number) => (at < dropped.length ? itemAt(midis, at) + 12 : itemAt(midis, at))
  let [low, high] = [Infinity, -Infinity]
  for (let at = 0; at < midis.length; at += 1) {
    low = Math.min(low, raised(at))
    high = Math.max(high, raised(at))
  }
  if (high - low >= 12) return false
  for (let at = 0; at < dropped.length; at += 1) {
    let position = 1
    for (let other = 0; other < midis.length; other += 1) if (raised(other) > raised(at)) position += 1
    if (!dropped.includes(position)) return false
  }
  return true
}
