import type { Degree } from '../pitch/degree'
import { noteName } from '../pitch/note'
import { fuller, inMajor, name, tonicOf, type Rule } from './rule'
import { chordOn, fallsBy, noteAt, type Spot } from './spot'

// prettier-ignore
const FLIPS: readonly { id: string; rel: number; kinds: readonly Spot['kind'][]; suffix: readonly [string, string]; label: string; mood: string; says: string }[] = [
  { id: 'major-ii', rel: 2, kinds: ['minor'], suffix: ['', '7'], label: 'II for ii', mood: 'brighter, pushing on', says: 'its third raised' },
  { id: 'major-iii', rel: 4, kinds: ['minor'], suffix: ['', '7'], label: 'III for iii', mood: 'brighter, pushing on', says: 'its third raised' },
  { id: 'major-vi', rel: 9, kinds: ['minor'], suffix: ['', '7'], label: 'VI for vi', mood: 'brighter, pushing on', says: 'its third raised' },
  { id: 'minor-iv', rel: 5, kinds: ['major'], suffix: ['m', 'm7'], label: 'iv for IV', mood: 'aching', says: 'its third lowered' },
  { id: 'minor-v', rel: 7, kinds: ['major', 'dominant'], suffix: ['m', 'm7'], label: 'v for V', mood: 'wistful', says: 'its third lowered' },
]

// prettier-ignore
const LENT: readonly { id: string; rel: number; kinds: readonly Spot['kind'][]; degree: Degree; suffix: string; label: string; mood: string; shares: string }[] = [
  { id: 'half-diminished-ii', rel: 2, kinds: ['minor'], degree: '2', suffix: 'm7b5', label: 'iiø for ii', mood: 'darker', shares: 'only its fifth is lowered' },
  { id: 'iv6-for-iv', rel: 5, kinds: ['major'], degree: '4', suffix: 'm6', label: 'iv6 for IV', mood: 'aching', shares: 'root and fifth stay' },
  { id: 'flat-vi', rel: 9, kinds: ['minor'], degree: 'b13', suffix: 'maj7', label: 'bVI for vi', mood: 'dark, wide', shares: 'the tonic stays in it' },
  { id: 'flat-iii', rel: 4, kinds: ['minor'], degree: 'b3', suffix: 'maj7', label: 'bIII for iii', mood: 'dark, open', shares: 'the fifth of the key stays in it' },
  { id: 'flat-vii', rel: 7, kinds: ['major', 'dominant'], degree: 'b7', suffix: '7', label: 'bVII for V', mood: 'broad', shares: 'its flat seventh is the flat sixth of the key, which falls to the fifth' },
]

/** d: from elsewhere. */
export const BORROWINGS: readonly Rule[] = [
  ...FLIPS.map(({ id, rel, kinds, suffix, label, mood, says: how }): Rule => ({
    id,
    family: 'd1',
    school: 'romantic',
    name: `quality flip: ${label}`,
    intent: 'borrow',
    mood,
    put: (spot) => {
      if (!inMajor(spot) || spot.rel !== rel || !kinds.includes(spot.kind)) return null
      const chord = chordOn(spot.chord.root, fuller(spot, ...suffix))
      return { chords: [chord], why: `${chord.canonical} is ${name(spot)} with ${how}.` }
    },
  })),
  ...LENT.map(({ id, rel, kinds, degree, suffix, label, mood, shares }): Rule => ({
    id,
    family: 'd2',
    school: 'romantic',
    name: `from the parallel minor: ${label}`,
    intent: 'borrow',
    mood,
    put: (spot) => {
      if (!inMajor(spot) || spot.rel !== rel || !kinds.includes(spot.kind)) return null
      const chord = chordOn(tonicOf(spot, degree), suffix)
      return {
        chords: [chord],
        why: `${chord.canonical} is borrowed from ${noteName(spot.key.tonic)} minor in place of ${name(spot)}: ${shares}.`,
      }
    },
  })),
  {
    id: 'side-step',
    family: 'd3',
    school: 'bebop',
    name: 'a ii-V from a half step above, then home',
    intent: 'borrow',
    mood: 'surprising, sliding',
    span: 2,
    room: 1,
    put: (spot) => {
      const five = spot.next
      if (
        !five ||
        spot.kind !== 'minor' ||
        five.kind !== 'dominant' ||
        fallsBy(spot) !== 7 ||
        spot.beats !== five.beats
      )
        return null
      const [two, high] = [
        chordOn(noteAt(spot.chord.root, 'b9'), 'm7'),
        chordOn(noteAt(five.chord.root, 'b9'), '7'),
      ]
      return {
        chords: [two, high, spot.chord, five.chord],
        why: `${two.canonical} ${high.canonical} is the ii-V of a half step above; it slides down into ${name(spot)} ${name(five)}, which now share the second half.`,
      }
    },
  },
]
