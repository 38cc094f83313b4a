import type { Degree } from '../pitch/degree'

/** The trade's families of voicings. */
export const FAMILIES = [
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
export type Family = (typeof FAMILIES)[number]

export interface SoundingTone {
  /** MIDI numbers with their degrees, lowest pitch first. */
  notes: readonly { midi: number; degree: Degree }[]
  /** An open string sounds beside fretted ones. */
  openAmongFretted: boolean
}

const THIRDS: readonly Degree[] = ['3', 'b3', '4', '2']
const SEVENTHS: readonly Degree[] = ['7', 'b7', 'bb7', '6']

/**
 * Every family a set of sounding notes belongs to, the most telling first. Definitions are common practice:
 * close is within an octave; drop 2 is close with the second voice from the top an octave lower, and so on.
 */
export function familiesOf({ notes, openAmongFretted }: SoundingTone): Family[] {
  const midis = notes.map((note) => note.midi)
  const degrees = notes.map((note) => note.degree)
  const distinct = new Set(midis.map((midi) => midi % 12))
  const gaps = midis.slice(1).map((midi, index) => midi - midis[index]!)
  const families: Family[] = []
  const add = (family: Family, when: boolean) => {
    if (when && !families.includes(family)) families.push(family)
  }
  const isShellTone = (degree: Degree) =>
    degree === '1' || THIRDS.includes(degree) || SEVENTHS.includes(degree)

  if (notes.length === 2) {
    const span = midis[1]! - midis[0]!
    add('guide tones', degrees.some((d) => THIRDS.includes(d)) && degrees.some((d) => SEVENTHS.includes(d)))
    add('tenth', span === 15 || span === 16)
    add('double stop', true)
  }
  add(
    'shell',
    notes.length === 3 &&
      distinct.size === 3 &&
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
  add('triad', distinct.size === 3 && isTriad(distinct))
  add(
    'triad over bass',
    notes.length >= 4 && !distinctWithout(midis, 0).has(midis[0]! % 12) && isTriad(distinctWithout(midis, 0)),
  )

  if (notes.length === 4 && distinct.size === 4) {
    const drops: readonly [Family, readonly number[]][] = [
      ['close', []],
      ['drop 2', [2]],
      ['drop 3', [3]],
      ['drop 2 and 4', [2, 4]],
    ]
    for (const [family, dropped] of drops) add(family, isDrop(midis, dropped))
  }
  add('close', notes.length === 3 && distinct.size === 3 && midis.at(-1)! - midis[0]! < 12)
  add(
    'cluster',
    gaps.some((gap) => gap === 1 || gap === 2),
  )
  add('open string', openAmongFretted)
  add('rootless', !degrees.includes('1'))
  add(
    'spread',
    families.length === 0 || (distinct.size === 3 && notes.length === 3 && midis.at(-1)! - midis[0]! > 12),
  )
  return families
}

const distinctWithout = (midis: readonly number[], index: number): Set<number> =>
  new Set(midis.filter((_, other) => other !== index).map((midi) => midi % 12))

/** Major, minor, diminished or augmented, in any inversion. */
function isTriad(sounds: Set<number>): boolean {
  if (sounds.size !== 3) return false
  const shapes = ['4,7', '3,7', '3,6', '4,8']
  return [...sounds].some((root) => {
    const above = [...sounds]
      .filter((pc) => pc !== root)
      .map((pc) => (pc - root + 12) % 12)
      .sort((a, b) => a - b)
    return shapes.includes(above.join(','))
  })
}

/**
 * Whether four notes are a close voicing with the named voices (counted from the top) an octave lower:
 * raising them again must give four notes within an octave in the same order of tones.
 */
function isDrop(midis: readonly number[], dropped: readonly number[]): boolean {
  // Dropped voices lie at the bottom, deepest first: drop 3 is [v3, v4, v2, v1], drop 2 and 4 is [v4, v2, v3, v1].
  const raised = midis.map((midi, index) => (index < dropped.length ? midi + 12 : midi))
  const close = [...raised].sort((a, b) => a - b)
  if (close.at(-1)! - close[0]! >= 12) return false
  const positions = raised.slice(0, dropped.length).map((midi) => close.length - close.indexOf(midi))
  return dropped.length === positions.length && dropped.every((voice) => positions.includes(voice))
}
