import { noteName, pitchClass, type Note } from '../pitch/note'
import type { ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import { scaleNotes } from '../pitch/key'
import { reduceTo } from '../analysis/skeleton'
import type { Intent, Put } from './change'
import { chordOn, fallsBy, hasSeventh, isMinorish, noteAt, resolves, risesBy, shapeOf, type Spot } from './spot'

/** What a rule puts in place. Lengths are given as shares of the time there is. */
interface Result {
  chords: readonly ChordSymbol[]
  /** One share for each chord; equal shares where there are none. */
  shares?: readonly number[]
  why: string
}

/** One way to change a progression. */
export interface Rule {
  /** As the theory numbers them: b swap, c insert, d borrow, e texture, f simplify. Colours (a) have a table of their own. */
  id: string
  name: string
  intent: Intent
  mood: string
  school?: string
  /** It takes the place of this chord and so many behind it. */
  span?: number
  /** It needs at least so many beats for each chord it puts in. */
  room?: number
  /** What comes behind has to be what comes behind now, because it is led to. */
  leads?: true
  /** The result, or several, or nothing where the condition does not hold. */
  put: (spot: Spot) => Result | readonly Result[] | null
}

const name = ({ chord }: { chord: ChordSymbol }) => chord.canonical
const says = (note: Note) => noteName(note)
const keySays = (spot: Spot) => `${noteName(spot.key.tonic)} ${spot.key.mode}`
const inMajor = (spot: Spot) => spot.key.mode === 'major'
const tonicOf = (spot: Spot, degree: Degree) => noteAt(spot.key.tonic, degree)
const isOne = (spot: Spot) => spot.rel === 0 && (spot.kind === 'major' || (spot.kind === 'minor' && !inMajor(spot)))
/** A seventh chord stays one, a triad a triad. */
const fuller = (spot: Spot, triad: string, seventh: string) => (hasSeventh(spot.chord) ? seventh : triad)
const dominantGoing = (spot: Spot) => resolves(spot) && spot.next !== null
/** A chord that stands where another is asked to come in has to give it room, and to be another chord. */
const goesOn = (spot: Spot): spot is Spot & { next: Spot } => spot.next !== null && spot.next.chord.canonical !== spot.chord.canonical

/** b: another chord with the same job. */
const SWAPS: readonly Rule[] = [
  {
    id: 'b1', name: 'tritone substitution', intent: 'swap', mood: 'sly, chromatic', leads: true,
    put: (spot) => {
      if (!dominantGoing(spot)) return null
      const chord = chordOn(noteAt(spot.chord.root, 'b5'), '7')
      return { chords: [chord], why: `${chord.canonical} has the third and seventh of ${says(spot.chord.root)}7, swapped, and falls a half step to ${name(spot.next!)}.` }
    },
  },
  {
    id: 'b2', name: 'shared tones: iii for I', intent: 'swap', mood: 'lighter, less at home',
    put: (spot) => {
      if (!isOne(spot) || !inMajor(spot)) return null
      const chord = chordOn(tonicOf(spot, '3'), 'm7')
      return { chords: [chord], why: `${chord.canonical} is ${says(spot.chord.root)}maj9 without its root: three tones stay.` }
    },
  },
  {
    id: 'b2', name: 'shared tones: vi for I', intent: 'swap', mood: 'wistful',
    put: (spot) => {
      if (!isOne(spot) || !inMajor(spot)) return null
      const chord = chordOn(tonicOf(spot, '6'), 'm7')
      return { chords: [chord], why: `${chord.canonical} has the same tones as ${says(spot.chord.root)}6.` }
    },
  },
  {
    id: 'b2', name: 'shared tones: ii for IV', intent: 'swap', mood: 'softer, on its way',
    put: (spot) => {
      if (!inMajor(spot) || spot.rel !== 5 || spot.kind !== 'major') return null
      const chord = chordOn(tonicOf(spot, '2'), 'm7')
      return { chords: [chord], why: `${chord.canonical} has the same tones as ${says(spot.chord.root)}6 and prepares the V.` }
    },
  },
  {
    id: 'b2', name: 'shared tones: vii° for V', intent: 'swap', mood: 'tense, thin', leads: true,
    put: (spot) => {
      if (!dominantGoing(spot)) return null
      const suffix = spot.role === 'dominant to minor' ? 'dim7' : 'm7b5'
      const chord = chordOn(noteAt(spot.chord.root, '3'), suffix)
      return { chords: [chord], why: `${chord.canonical} is ${says(spot.chord.root)}${suffix === 'dim7' ? '7b9' : '9'} without its root.` }
    },
  },
  {
    id: 'b2', name: 'major seventh on the flat third of a minor seventh', intent: 'swap', mood: 'open',
    put: (spot) => {
      if (spot.kind !== 'minor') return null
      const chord = chordOn(noteAt(spot.chord.root, 'b3'), 'maj7')
      return { chords: [chord], why: `${chord.canonical} is ${says(spot.chord.root)}m9 without its root.` }
    },
  },
  {
    id: 'b2', name: 'minor seventh a third below a major seventh', intent: 'swap', mood: 'darker',
    put: (spot) => {
      if (spot.kind !== 'major' || isOne(spot)) return null
      const chord = chordOn(noteAt(spot.chord.root, '6'), 'm7')
      return { chords: [chord], why: `${name(spot)} is the upper part of ${says(chord.root)}m9: ${chord.canonical} goes below it.` }
    },
  },
  {
    id: 'b3', name: 'diminished seventh for V7b9', intent: 'swap', mood: 'tense, symmetric', leads: true,
    put: (spot) => !dominantGoing(spot) ? null : (['3', '5', 'b7', 'b9'] as const).map((degree) => {
      const chord = chordOn(noteAt(spot.chord.root, degree), 'dim7')
      return { chords: [chord], why: `${chord.canonical} is ${says(spot.chord.root)}7b9 with its root left out, from its ${degree} up: every inversion is the same shape.` }
    }),
  },
  {
    id: 'b4', name: 'augmented triad for V', intent: 'swap', mood: 'straining', leads: true,
    put: (spot) => !dominantGoing(spot) ? null : (['1', '3', '#5'] as const).map((degree) => {
      const chord = chordOn(noteAt(spot.chord.root, degree), 'aug')
      return { chords: [chord], why: `${chord.canonical} has the root and third of ${name(spot)} and its raised fifth, which ${isMinorish(spot.next!.kind) ? 'is already' : 'climbs to'} the third of ${name(spot.next!)}.` }
    }),
  },
  {
    id: 'b5', name: 'backdoor dominant', intent: 'swap', mood: 'soft landing', leads: true,
    put: (spot) => {
      if (!dominantGoing(spot) || spot.next!.rel !== 0 || !inMajor(spot)) return null
      const chord = chordOn(tonicOf(spot, 'b7'), '7')
      return { chords: [chord], why: `${chord.canonical} comes home to ${name(spot.next!)} from a whole step below, borrowed from ${noteName(spot.key.tonic)} minor.` }
    },
  },
  {
    id: 'b5', name: 'iv6 for V', intent: 'swap', mood: 'aching', leads: true,
    put: (spot) => {
      if (!dominantGoing(spot) || spot.next!.rel !== 0 || !inMajor(spot)) return null
      const chord = chordOn(tonicOf(spot, '4'), 'm6')
      return { chords: [chord], why: `${chord.canonical} is the upper part of ${says(tonicOf(spot, 'b7'))}9: its flat sixth falls to the fifth of ${name(spot.next!)}.` }
    },
  },
  {
    id: 'b6', name: 'V9sus: the ii over the bass of the V', intent: 'swap', mood: 'held back, wide',
    put: (spot) => {
      if (!(spot.function === 'dominant' || dominantGoing(spot)) || isMinorish(spot.kind)) return null
      const chord = chordOn(spot.chord.root, '9sus4')
      return { chords: [chord], why: `${chord.canonical} is ${says(noteAt(spot.chord.root, '5'))}m7 over ${says(spot.chord.root)}: the ii waits on the bass of the V.` }
    },
  },
  {
    id: 'b7', name: 'the V for its ii', intent: 'swap', mood: 'pushing',
    put: (spot) => {
      if (spot.kind !== 'minor' || spot.role !== 'ii minor') return null
      const root = noteAt(spot.chord.root, '4')
      return ['7', '7sus4'].map((suffix) => {
        const chord = chordOn(root, suffix)
        return { chords: [chord], why: `${name(spot)} and ${says(root)}7 come from one scale and stand for each other.` }
      })
    },
  },
  {
    id: 'b7', name: 'the ii for its V', intent: 'swap', mood: 'softer',
    put: (spot) => {
      if (spot.kind !== 'dominant' || spot.function === 'substitute dominant') return null
      const chord = chordOn(noteAt(spot.chord.root, '5'), spot.role === 'dominant to minor' ? 'm7b5' : 'm7')
      return { chords: [chord], why: `${chord.canonical} is the ii to ${name(spot)}: both come from one scale and stand for each other.` }
    },
  },
  {
    id: 'b8', name: 'arrive on iii and turn around', intent: 'swap', mood: 'keeps going', room: 1, leads: true,
    put: (spot) => {
      if (!isOne(spot) || !inMajor(spot) || !spot.next || spot.next.rel !== 2) return null
      const [three, six] = [chordOn(tonicOf(spot, '3'), 'm7'), chordOn(tonicOf(spot, '6'), '7')]
      return { chords: [three, six], why: `${three.canonical} stands for ${name(spot)}, and with ${six.canonical} behind it turns round to ${name(spot.next)}.` }
    },
  },
  {
    id: 'b9', name: 'cycle of major thirds', intent: 'swap', mood: 'far out, bright', span: 3, room: 1,
    put: (spot) => {
      const five = spot.next
      const one = five?.next
      if (!one || spot.kind !== 'minor' || five.kind !== 'dominant' || one.kind !== 'major' || fallsBy(spot) !== 7 || fallsBy(five) !== 7) return null
      if (spot.beats !== five.beats || one.beats < five.beats) return null
      const home = one.chord.root
      const [flatSix, three] = [noteAt(home, 'b13'), noteAt(home, '3')]
      const chords = [chordOn(spot.chord.root, 'm7'), chordOn(noteAt(flatSix, '5'), '7'), chordOn(flatSix, 'maj7'), chordOn(noteAt(three, '5'), '7'), chordOn(three, 'maj7'), chordOn(five.chord.root, '7'), chordOn(home, 'maj7')]
      const { beats } = spot
      const long = one.beats >= 2 * beats
      // Over a long I every step gets half a bar of the ii and the I keeps the rest; over a short one the steps are pressed into ii and V.
      const shares = long ? [beats / 2, beats / 2, beats / 2, beats / 2, beats / 2, beats / 2, one.beats - beats] : [...Array<number>(6).fill(beats / 3), one.beats]
      return { chords, shares, why: `On the way to ${name(one)} the keys of ${says(flatSix)} and ${says(three)} are touched, each by its own V: major thirds divide the octave in three.` }
    },
  },
]

const twoOf = (spot: Spot, root: Note) => chordOn(noteAt(root, '5'), spot.role === 'dominant to minor' ? 'm7b5' : 'm7')

/** c: more chords on the way. */
const INSERTS: readonly Rule[] = [
  {
    id: 'c1', name: 'its ii before a dominant', intent: 'insert', mood: 'smoother, busier', room: 1,
    put: (spot) => {
      if (spot.kind !== 'dominant') return null
      const two = twoOf(spot, spot.chord.root)
      if (spot.previous && pitchClass(spot.previous.chord.root) === pitchClass(two.root)) return null
      return { chords: [two, spot.chord], why: `${two.canonical} prepares ${name(spot)} as the ii does its V; they share the time.` }
    },
  },
  {
    id: 'c2', name: 'a dominant on the way to the next chord', intent: 'insert', mood: 'pushing', room: 1, leads: true,
    put: (spot) => {
      if (!goesOn(spot) || fallsBy(spot) === 7 || spot.next.kind === 'diminished') return null
      const five = chordOn(noteAt(spot.next.chord.root, '5'), '7')
      return { chords: [spot.chord, five], why: `${five.canonical} is the V of ${name(spot.next)} and leads there in the time ${name(spot)} can spare.` }
    },
  },
  {
    id: 'c2', name: 'a substitute dominant on the way to the next chord', intent: 'insert', mood: 'sly, chromatic', room: 1, leads: true,
    put: (spot) => {
      if (!goesOn(spot) || fallsBy(spot) === 1 || spot.next.kind === 'diminished') return null
      const five = chordOn(noteAt(spot.next.chord.root, 'b9'), '7')
      return { chords: [spot.chord, five], why: `${five.canonical} has the tritone of the V of ${name(spot.next)} and falls a half step to it.` }
    },
  },
  {
    id: 'c2', name: 'two dominants in a chain', intent: 'insert', mood: 'driving', room: 1, leads: true,
    put: (spot) => {
      if (!goesOn(spot) || spot.next.kind === 'diminished' || spot.beats < 3) return null
      const five = noteAt(spot.next.chord.root, '5')
      const [far, near] = [chordOn(noteAt(five, '5'), '7'), chordOn(five, '7')]
      return { chords: [spot.chord, far, near], shares: [spot.beats - 2, 1, 1], why: `${far.canonical} is the V of ${near.canonical}, which is the V of ${name(spot.next)}: a chain made from its end.` }
    },
  },
  ...([['b9', 'above', 'b9'], ['7', 'below', '7']] as const).map(([id, where, degree]): Rule => ({
    id: 'c3', name: `the same shape from a half step ${where}`, intent: 'insert', mood: id === 'b9' ? 'sliding down' : 'sliding up', room: 1, leads: true,
    put: (spot) => {
      if (!goesOn(spot) || spot.beats < 2) return null
      const chord = chordOn(noteAt(spot.next.chord.root, degree), shapeOf(spot.next))
      return { chords: [spot.chord, chord], shares: [spot.beats - 1, 1], why: `${chord.canonical} is the shape of ${name(spot.next)} a half step ${where} and slides into it.` }
    },
  })),
  {
    id: 'c4', name: 'passing diminished', intent: 'insert', mood: 'walking', room: 1, leads: true,
    put: (spot) => {
      if (!goesOn(spot) || (risesBy(spot) !== 2 && fallsBy(spot) !== 2)) return null
      const up = risesBy(spot) === 2
      const root = up ? noteAt(spot.next.chord.root, '7') : noteAt(spot.next.chord.root, 'b9')
      const chord = chordOn(root, 'dim7')
      return { chords: [spot.chord, chord], why: `${chord.canonical} fills the whole step from ${name(spot)} ${up ? 'up' : 'down'} to ${name(spot.next)}.` }
    },
  },
  {
    id: 'c5', name: 'only the bass goes up a half step', intent: 'insert', mood: 'rising', room: 1, leads: true,
    put: (spot) => {
      if (!goesOn(spot) || !isOne(spot) || !inMajor(spot) || spot.next.rel !== 2) return null
      const [first, second] = [chordOn(spot.chord.root, 'maj7'), chordOn({ letter: spot.chord.root.letter, alter: spot.chord.root.alter + 1 }, 'm7b5')]
      return { chords: [first, second], why: `The upper tones of ${first.canonical} stay, its bass goes up a half step on the way to ${name(spot.next)}.` }
    },
  },
  ...([
    ['I VI ii V', [['1', 'maj7'], ['6', '7'], ['2', 'm7'], ['5', '7']], 'round, familiar'],
    ['iii VI ii V', [['3', 'm7'], ['6', '7'], ['2', 'm7'], ['5', '7']], 'round, on the move'],
    ['iii bIII ii bII', [['3', 'm7'], ['b3', '7'], ['2', 'm7'], ['b9', '7']], 'sliding down'],
    ['I bIII bVI bII', [['1', 'maj7'], ['b3', 'maj7'], ['b13', 'maj7'], ['b9', 'maj7']], 'wide, surprising'],
  ] as const).map(([numerals, chords, mood]): Rule => ({
    id: 'c6', name: `turnaround ${numerals}`, intent: 'insert', mood, room: 1, leads: true,
    put: (spot) => {
      // On a last I, or one that stands on before home, ii or V comes round again.
      if (!isOne(spot) || !inMajor(spot) || spot.beats < 4 || (spot.next && ![0, 4].includes(spot.next.rel))) return null
      const put = chords.map(([degree, suffix]) => chordOn(tonicOf(spot, degree), suffix))
      return { chords: put, why: `${put.map((chord) => chord.canonical).join(' ')} goes round in the time of ${name(spot)} and comes back to ${keySays(spot)}.` }
    },
  })),
]

const FLIPS: readonly { rel: number; kinds: readonly Spot['kind'][]; suffix: readonly [string, string]; label: string; mood: string; says: string }[] = [
  { rel: 2, kinds: ['minor'], suffix: ['', '7'], label: 'II for ii', mood: 'brighter, pushing on', says: 'its third raised' },
  { rel: 4, kinds: ['minor'], suffix: ['', '7'], label: 'III for iii', mood: 'brighter, pushing on', says: 'its third raised' },
  { rel: 9, kinds: ['minor'], suffix: ['', '7'], label: 'VI for vi', mood: 'brighter, pushing on', says: 'its third raised' },
  { rel: 5, kinds: ['major'], suffix: ['m', 'm7'], label: 'iv for IV', mood: 'aching', says: 'its third lowered' },
  { rel: 7, kinds: ['major', 'dominant'], suffix: ['m', 'm7'], label: 'v for V', mood: 'wistful', says: 'its third lowered' },
]

const LENT: readonly { rel: number; kinds: readonly Spot['kind'][]; degree: Degree; suffix: string; label: string; mood: string; shares: string }[] = [
  { rel: 2, kinds: ['minor'], degree: '2', suffix: 'm7b5', label: 'iiø for ii', mood: 'darker', shares: 'only its fifth is lowered' },
  { rel: 5, kinds: ['major'], degree: '4', suffix: 'm6', label: 'iv6 for IV', mood: 'aching', shares: 'root and fifth stay' },
  { rel: 9, kinds: ['minor'], degree: 'b13', suffix: 'maj7', label: 'bVI for vi', mood: 'dark, wide', shares: 'the tonic stays in it' },
  { rel: 4, kinds: ['minor'], degree: 'b3', suffix: 'maj7', label: 'bIII for iii', mood: 'dark, open', shares: 'the fifth of the key stays in it' },
  { rel: 7, kinds: ['major', 'dominant'], degree: 'b7', suffix: '7', label: 'bVII for V', mood: 'broad', shares: 'its flat seventh is the flat sixth of the key, which falls to the fifth' },
]

/** d: from elsewhere. */
const BORROWINGS: readonly Rule[] = [
  ...FLIPS.map(({ rel, kinds, suffix, label, mood, says: how }): Rule => ({
    id: 'd1', name: `quality flip: ${label}`, intent: 'borrow', mood,
    put: (spot) => {
      if (!inMajor(spot) || spot.rel !== rel || !kinds.includes(spot.kind)) return null
      const chord = chordOn(spot.chord.root, fuller(spot, ...suffix))
      return { chords: [chord], why: `${chord.canonical} is ${name(spot)} with ${how}.` }
    },
  })),
  ...LENT.map(({ rel, kinds, degree, suffix, label, mood, shares }): Rule => ({
    id: 'd2', name: `from the parallel minor: ${label}`, intent: 'borrow', mood,
    put: (spot) => {
      if (!inMajor(spot) || spot.rel !== rel || !kinds.includes(spot.kind)) return null
      const chord = chordOn(tonicOf(spot, degree), suffix)
      return { chords: [chord], why: `${chord.canonical} is borrowed from ${noteName(spot.key.tonic)} minor in place of ${name(spot)}: ${shares}.` }
    },
  })),
  {
    id: 'd3', name: 'a ii-V from a half step above, then home', intent: 'borrow', mood: 'surprising, sliding', span: 2, room: 1,
    put: (spot) => {
      const five = spot.next
      if (!five || spot.kind !== 'minor' || five.kind !== 'dominant' || fallsBy(spot) !== 7 || spot.beats !== five.beats) return null
      const [two, high] = [chordOn(noteAt(spot.chord.root, 'b9'), 'm7'), chordOn(noteAt(five.chord.root, 'b9'), '7')]
      return { chords: [two, high, spot.chord, five.chord], why: `${two.canonical} ${high.canonical} is the ii-V of a half step above; it slides down into ${name(spot)} ${name(five)}, which now share the second half.` }
    },
  },
]

/** Chord tones that can go into the bass, as they are called. */
const BASSES: readonly (readonly [readonly Degree[], string])[] = [[['3', 'b3'], 'third'], [['5', 'b5'], 'fifth'], [['7', 'b7'], 'seventh']]

/** Beats a chord has to stand for a texture to be worth it: two bars of four. */
const STANDING = 8
const isStanding = (spot: Spot) => spot.beats >= 4 && spot.stands >= Math.min(STANDING, 2 * spot.beats) && spot.previous?.chord.canonical !== spot.chord.canonical || spot.beats >= STANDING
/** Chords of a texture, each an equal share. */
const texture = (spot: Spot, suffixes: readonly string[]) => suffixes.map((suffix) => chordOn(spot.chord.root, suffix))

/** e: the bass and what stands still. */
const TEXTURES: readonly Rule[] = [
  ...BASSES.map(([degrees, label]): Rule => ({
    id: 'e1', name: `inversion: the ${label} in the bass`, intent: 'bass and texture', mood: label === 'third' ? 'lighter' : 'hanging',
    put: (spot) => {
      const tone = spot.chord.tones.find(({ degree }) => degrees.includes(degree))
      if (!tone || spot.chord.bass || spot.kind === 'power') return null
      const chord = chordOn(spot.chord.root, spot.chord.suffix, tone.note)
      const to = spot.next?.chord.root
      const step = to ? Math.min((pitchClass(to) - pitchClass(tone.note) + 12) % 12, (pitchClass(tone.note) - pitchClass(to) + 12) % 12) : 12
      return { chords: [chord], why: `${chord.canonical} keeps the chord and puts its ${label} below${step <= 2 && step > 0 ? `, a ${step === 1 ? 'half' : 'whole'} step from ${says(to!)}` : ''}.` }
    },
  })),
  ...(['1', '5'] as const).map((degree): Rule => ({
    id: 'e2', name: degree === '1' ? 'pedal on the tonic' : 'pedal on the fifth of the key', intent: 'bass and texture', mood: degree === '1' ? 'rooted' : 'waiting',
    put: (spot) => {
      const bass = tonicOf(spot, degree)
      if (pitchClass(bass) === pitchClass(spot.chord.root) || spot.chord.bass || spot.kind === 'power') return null
      const chord = chordOn(spot.chord.root, spot.chord.suffix, bass)
      return { chords: [chord], why: `${says(bass)}, the ${degree === '1' ? 'tonic' : 'fifth'} of ${keySays(spot)}, stays below while ${name(spot)} passes over it.` }
    },
  })),
  {
    id: 'e4', name: 'line cliché: 8 7 b7 6', intent: 'bass and texture', mood: 'walking down inside', room: 1,
    put: (spot) => {
      if (!isStanding(spot) || (spot.kind !== 'minor' && spot.kind !== 'major') || spot.role === 'ii minor') return null
      const chords = texture(spot, spot.kind === 'minor' ? ['m', 'm(maj7)', 'm7', 'm6'] : ['', 'maj7', '7', '6'])
      return { chords, why: `${name(spot)} stands while one voice walks down from its root: ${chords.map((chord) => chord.canonical).join(' ')}.` }
    },
  },
  {
    id: 'e4', name: 'line cliché: 5 #5 6 #5', intent: 'bass and texture', mood: 'rising and falling inside', room: 1,
    put: (spot) => {
      if (!isStanding(spot) || (spot.kind !== 'minor' && spot.kind !== 'major') || spot.role === 'ii minor') return null
      const chords = texture(spot, spot.kind === 'minor' ? ['m', 'mb13', 'm6', 'mb13'] : ['', 'aug', '6', 'aug'])
      return { chords, why: `${name(spot)} stands while its fifth climbs to the sixth and back: ${chords.map((chord) => chord.canonical).join(' ')}.` }
    },
  },
  {
    id: 'e5', name: 'planing: a suspended shape along the scale', intent: 'bass and texture', mood: 'floating', room: 1,
    put: (spot) => {
      if (!isStanding(spot) || isMinorish(spot.kind) && spot.kind !== 'minor') return null
      const scale = scaleNotes(spot.key)
      const from = scale.findIndex((note) => pitchClass(note) === pitchClass(spot.chord.root))
      if (from < 0) return null
      const chords = [0, 1, 2, 1].map((step) => chordOn(scale[(from + step) % 7]!, '7sus4'))
      return { chords, why: `Without a third ${chords[0]!.canonical} belongs nowhere in particular and can walk the scale of ${keySays(spot)} in parallel and come back.` }
    },
  },
  {
    id: 'e6', name: 'sixth-diminished alternation', intent: 'bass and texture', mood: 'old, moving', room: 1,
    put: (spot) => {
      if (!isStanding(spot) || (spot.kind !== 'major' && spot.kind !== 'minor') || spot.role === 'ii minor') return null
      const minor = spot.kind === 'minor'
      const { root } = spot.chord
      const sixth = minor ? 'm6' : '6'
      const third = noteAt(root, minor ? 'b3' : '3')
      const chords = [chordOn(root, sixth), chordOn(noteAt(root, '2'), 'dim7'), chordOn(root, sixth, third), chordOn(noteAt(root, '4'), 'dim7')]
      return { chords, why: `Every step of the scale gets a chord: inversions of ${chords[0]!.canonical} in turn with those of ${says(noteAt(root, '7'))}dim7, which is ${says(noteAt(root, '5'))}7b9 without its root.` }
    },
  },
  {
    id: 'e7', name: 'minor: the chord a whole step above and back', intent: 'bass and texture', mood: 'modal', room: 1,
    put: (spot) => {
      if (!isStanding(spot) || spot.kind !== 'minor') return null
      const [here, above] = [chordOn(spot.chord.root, 'm7'), chordOn(noteAt(spot.chord.root, '2'), 'm7')]
      return { chords: [here, above, here, above], why: `${above.canonical} comes from the Dorian scale of ${says(spot.chord.root)} and moves ${here.canonical} without leaving it.` }
    },
  },
  {
    id: 'e7', name: 'minor: quartal shape', intent: 'bass and texture', mood: 'open, modal',
    put: (spot) => {
      if (spot.kind !== 'minor' || spot.stands < 4) return null
      const chord = chordOn(spot.chord.root, 'm11')
      return { chords: [chord], why: `${chord.canonical} can be stacked in fourths: ${[spot.chord.root, noteAt(spot.chord.root, '4'), noteAt(spot.chord.root, 'b7'), noteAt(spot.chord.root, 'b3')].map(says).join(' ')}.` }
    },
  },
]

/** f: less. */
const REDUCTIONS: readonly Rule[] = [
  {
    id: 'f1', name: 'without the related ii', intent: 'simplify', mood: 'plainer', span: 2,
    put: (spot) => {
      const five = spot.next
      if (!five || (spot.kind !== 'minor' && spot.kind !== 'half-diminished') || five.kind !== 'dominant' || fallsBy(spot) !== 7) return null
      return { chords: [five.chord], why: `${name(five)} takes the time of its ii, ${name(spot)}: it sounds the same scale.` }
    },
  },
  ...([[2, 'to the seventh'], [3, 'to the triad']] as const).map(([level, label]): Rule => ({
    id: `f${level}`, name: `reduced ${label}`, intent: 'simplify', mood: 'plainer',
    put: (spot) => {
      const chord = reduceTo(spot.chord, level)
      return { chords: [chord], why: `${chord.canonical} is ${name(spot)} reduced ${label}.` }
    },
  })),
]

/** Every rule but the colours, in the order in which a player would look through them. */
export const RULES: readonly Rule[] = [...SWAPS, ...INSERTS, ...BORROWINGS, ...TEXTURES, ...REDUCTIONS]

/** The chords of a result with their lengths, or null where there is no room for them. */
export function putsOf({ chords, shares }: Pick<Result, 'chords' | 'shares'>, beats: number, room: number): Put[] | null {
  const lengths = shares ?? sharesOf(beats, chords.length)
  if (chords.length > 1 && lengths.some((length) => length < room)) return null
  return chords.map((chord, at) => ({ chord, beats: lengths[at]! }))
}

/** Equal shares where the beats divide, else the first chords get a beat more: 3 beats for two chords are 2 and 1. */
function sharesOf(beats: number, chords: number): number[] {
  if (!Number.isInteger(beats) || beats % chords === 0) return Array<number>(chords).fill(beats / chords)
  return Array.from({ length: chords }, (_, at) => Math.floor(beats / chords) + (at < beats % chords ? 1 : 0))
}

export const resultsOf = (result: ReturnType<Rule['put']>): readonly Result[] => (result === null ? [] : 'chords' in result ? [result] : result)
