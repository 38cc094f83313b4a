import { noteName } from '../pitch/note'
import { tonesOutside } from './distance'
import { dominantGoing, inMajor, isOne, name, says, tonicOf, type Rule } from './rule'
import { chordOn, fallsBy, isMinorish, noteAt } from './spot'

/** Dominants on the V of a minor key, and what stands over their new third. */
const MINOR_DOMINANTS = [
  ['7#9', 'the old third above it'],
  ['7b9', 'and the flat sixth of the key as its b9'],
  ['7#5', 'and the third of the key as its raised fifth'],
] as const

/** b: another chord with the same job. */
export const SWAPS: readonly Rule[] = [
  {
    id: 'tritone-substitution',
    family: 'b1',
    school: 'bebop',
    name: 'tritone substitution',
    intent: 'swap',
    mood: 'sly, chromatic',
    leads: true,
    put: (spot) => {
      if (!dominantGoing(spot)) return null
      const chord = chordOn(noteAt(spot.chord.root, 'b5'), '7')
      return {
        chords: [chord],
        why: `${chord.canonical} has the third and seventh of ${says(spot.chord.root)}7, swapped, and falls a half step to ${name(spot.next!)}.`,
      }
    },
  },
  {
    id: 'minor-v-as-dominant',
    family: 'a7',
    school: 'functional',
    name: 'the minor V as a dominant',
    intent: 'swap',
    mood: 'dark, pushing',
    leads: true,
    put: (spot) => {
      if (spot.key.mode !== 'minor' || spot.rel !== 7 || spot.kind !== 'minor') return null
      return MINOR_DOMINANTS.map(([suffix, above]) => {
        const chord = chordOn(spot.chord.root, suffix)
        return {
          chords: [chord],
          why: `${chord.canonical} is ${name(spot)} with the leading note of ${says(spot.key.tonic)} minor for its third, ${above}.`,
        }
      })
    },
  },
  {
    id: 'flat-ii-major-seventh',
    family: 'b1',
    school: 'bebop',
    name: 'bIImaj7 for V',
    intent: 'swap',
    mood: 'wide, glowing',
    leads: true,
    put: (spot) => {
      if (!dominantGoing(spot) || spot.next!.rel !== 0) return null
      const chord = chordOn(tonicOf(spot, 'b9'), 'maj7')
      return {
        chords: [chord],
        why: `${chord.canonical} falls a half step to ${name(spot.next!)} like the substitute dominant, with the tonic as its major seventh, which stays.`,
      }
    },
  },
  {
    id: 'iii-for-i',
    family: 'b2',
    school: 'functional',
    name: 'shared tones: iii for I',
    intent: 'swap',
    mood: 'lighter, less at home',
    put: (spot) => {
      if (!isOne(spot) || !inMajor(spot)) return null
      const chord = chordOn(tonicOf(spot, '3'), 'm7')
      return {
        chords: [chord],
        why: `${chord.canonical} is ${says(spot.chord.root)}maj9 without its root: three tones stay.`,
      }
    },
  },
  {
    id: 'vi-for-i',
    family: 'b2',
    school: 'functional',
    name: 'shared tones: vi for I',
    intent: 'swap',
    mood: 'wistful',
    put: (spot) => {
      if (!isOne(spot) || !inMajor(spot)) return null
      const chord = chordOn(tonicOf(spot, '6'), 'm7')
      return { chords: [chord], why: `${chord.canonical} has the same tones as ${says(spot.chord.root)}6.` }
    },
  },
  {
    id: 'ii-for-iv',
    family: 'b2',
    school: 'functional',
    name: 'shared tones: ii for IV',
    intent: 'swap',
    mood: 'softer, on its way',
    put: (spot) => {
      if (!inMajor(spot) || spot.rel !== 5 || spot.kind !== 'major') return null
      const chord = chordOn(tonicOf(spot, '2'), 'm7')
      return {
        chords: [chord],
        why: `${chord.canonical} has the same tones as ${says(spot.chord.root)}6 and prepares the V.`,
      }
    },
  },
  {
    id: 'vii-diminished-for-v',
    family: 'b2',
    school: 'functional',
    name: 'shared tones: vii° for V',
    intent: 'swap',
    mood: 'tense, thin',
    leads: true,
    put: (spot) => {
      if (!dominantGoing(spot)) return null
      const suffix = spot.role === 'dominant to minor' ? 'dim7' : 'm7b5'
      const chord = chordOn(noteAt(spot.chord.root, '3'), suffix)
      return {
        chords: [chord],
        why: `${chord.canonical} is ${says(spot.chord.root)}${suffix === 'dim7' ? '7b9' : '9'} without its root.`,
      }
    },
  },
  {
    id: 'major-seventh-on-flat-third',
    family: 'b2',
    school: 'functional',
    name: 'major seventh on the flat third of a minor seventh',
    intent: 'swap',
    mood: 'open',
    put: (spot) => {
      if (spot.kind !== 'minor') return null
      const chord = chordOn(noteAt(spot.chord.root, 'b3'), 'maj7')
      // Over iii it has the raised fourth of the key, and takes the V away that follows.
      if (tonesOutside(chord, spot.key) > tonesOutside(spot.chord, spot.key)) return null
      return { chords: [chord], why: `${chord.canonical} is ${says(spot.chord.root)}m9 without its root.` }
    },
  },
  {
    id: 'minor-seventh-a-third-below',
    family: 'b2',
    school: 'functional',
    name: 'minor seventh a third below a major seventh',
    intent: 'swap',
    mood: 'darker',
    put: (spot) => {
      if (spot.kind !== 'major' || isOne(spot)) return null
      const chord = chordOn(noteAt(spot.chord.root, '6'), 'm7')
      return {
        chords: [chord],
        why: `${name(spot)} is the upper part of ${says(chord.root)}m9: ${chord.canonical} goes below it.`,
      }
    },
  },
  {
    id: 'diminished-dominant',
    family: 'b3',
    school: 'bebop',
    name: 'diminished seventh for V7b9',
    intent: 'swap',
    mood: 'tense, symmetric',
    leads: true,
    put: (spot) =>
      !dominantGoing(spot)
        ? null
        : (['3', '5', 'b7', 'b9'] as const).map((degree) => {
            const chord = chordOn(noteAt(spot.chord.root, degree), 'dim7')
            return {
              chords: [chord],
              why: `${chord.canonical} is ${says(spot.chord.root)}7b9 with its root left out, from its ${degree} up: every inversion is the same shape.`,
            }
          }),
  },
  {
    id: 'augmented-dominant',
    family: 'b4',
    school: 'romantic',
    name: 'augmented triad for V',
    intent: 'swap',
    mood: 'straining',
    leads: true,
    put: (spot) =>
      !dominantGoing(spot)
        ? null
        : (['1', '3', '#5'] as const).map((degree) => {
            const chord = chordOn(noteAt(spot.chord.root, degree), 'aug')
            return {
              chords: [chord],
              why: `${chord.canonical} has the root and third of ${name(spot)} and its raised fifth, which ${isMinorish(spot.next!.kind) ? 'is already' : 'climbs to'} the third of ${name(spot.next!)}.`,
            }
          }),
  },
  {
    id: 'backdoor-dominant',
    family: 'b5',
    school: 'romantic',
    name: 'backdoor dominant',
    intent: 'swap',
    mood: 'soft landing',
    leads: true,
    put: (spot) => {
      if (!dominantGoing(spot) || spot.next!.rel !== 0 || !inMajor(spot)) return null
      const chord = chordOn(tonicOf(spot, 'b7'), '7')
      return {
        chords: [chord],
        why: `${chord.canonical} comes home to ${name(spot.next!)} from a whole step below, borrowed from ${noteName(spot.key.tonic)} minor.`,
      }
    },
  },
  {
    id: 'iv6-for-v',
    family: 'b5',
    school: 'romantic',
    name: 'iv6 for V',
    intent: 'swap',
    mood: 'aching',
    leads: true,
    put: (spot) => {
      if (!dominantGoing(spot) || spot.next!.rel !== 0 || !inMajor(spot)) return null
      const chord = chordOn(tonicOf(spot, '4'), 'm6')
      return {
        chords: [chord],
        why: `${chord.canonical} is the upper part of ${says(tonicOf(spot, 'b7'))}9: its flat sixth falls to the fifth of ${name(spot.next!)}.`,
      }
    },
  },
  {
    id: 'suspended-dominant',
    family: 'b6',
    school: 'modal',
    name: 'V9sus: the ii over the bass of the V',
    intent: 'swap',
    mood: 'held back, wide',
    put: (spot) => {
      if (!(spot.function === 'dominant' || dominantGoing(spot)) || isMinorish(spot.kind)) return null
      const chord = chordOn(spot.chord.root, '9sus4')
      return {
        chords: [chord],
        why: `${chord.canonical} is ${says(noteAt(spot.chord.root, '5'))}m7 over ${says(spot.chord.root)}: the ii waits on the bass of the V.`,
      }
    },
  },
  {
    id: 'v-for-ii',
    family: 'b7',
    school: 'functional',
    name: 'the V for its ii',
    intent: 'swap',
    mood: 'pushing',
    put: (spot) => {
      if (spot.kind !== 'minor' || spot.role !== 'ii minor') return null
      const root = noteAt(spot.chord.root, '4')
      return ['7', '7sus4'].map((suffix) => {
        const chord = chordOn(root, suffix)
        return {
          chords: [chord],
          why: `${name(spot)} and ${says(root)}7 come from one scale and stand for each other.`,
        }
      })
    },
  },
  {
    id: 'ii-for-v',
    family: 'b7',
    school: 'functional',
    name: 'the ii for its V',
    intent: 'swap',
    mood: 'softer',
    put: (spot) => {
      if (spot.kind !== 'dominant' || spot.function === 'substitute dominant') return null
      const chord = chordOn(noteAt(spot.chord.root, '5'), spot.role === 'dominant to minor' ? 'm7b5' : 'm7')
      return {
        chords: [chord],
        why: `${chord.canonical} is the ii to ${name(spot)}: both come from one scale and stand for each other.`,
      }
    },
  },
  {
    id: 'arrival-on-iii',
    family: 'b8',
    school: 'functional',
    name: 'arrive on iii and turn around',
    intent: 'swap',
    mood: 'keeps going',
    room: 1,
    leads: true,
    put: (spot) => {
      if (!isOne(spot) || !inMajor(spot) || !spot.next || spot.next.rel !== 2) return null
      const [three, six] = [chordOn(tonicOf(spot, '3'), 'm7'), chordOn(tonicOf(spot, '6'), '7')]
      return {
        chords: [three, six],
        why: `${three.canonical} stands for ${name(spot)}, and with ${six.canonical} behind it turns round to ${name(spot.next)}.`,
      }
    },
  },
  {
    id: 'cycle-of-major-thirds',
    family: 'b9',
    school: 'cycles',
    name: 'cycle of major thirds',
    intent: 'swap',
    mood: 'far out, bright',
    span: 3,
    room: 1,
    put: (spot) => {
      const five = spot.next
      const one = five?.next
      if (
        !one ||
        spot.kind !== 'minor' ||
        five.kind !== 'dominant' ||
        one.kind !== 'major' ||
        fallsBy(spot) !== 7 ||
        fallsBy(five) !== 7
      )
        return null
      if (spot.beats !== five.beats || one.beats < five.beats) return null
      const home = one.chord.root
      const [flatSix, three] = [noteAt(home, 'b13'), noteAt(home, '3')]
      const chords = [
        chordOn(spot.chord.root, 'm7'),
        chordOn(noteAt(flatSix, '5'), '7'),
        chordOn(flatSix, 'maj7'),
        chordOn(noteAt(three, '5'), '7'),
        chordOn(three, 'maj7'),
        chordOn(five.chord.root, '7'),
        chordOn(home, 'maj7'),
      ]
      const { beats } = spot
      const long = one.beats >= 2 * beats
      // Over a long I every step gets half a bar of the ii and the I keeps the rest; over a short
      // one the steps are pressed into ii and V.
      const shares = long
        ? [beats / 2, beats / 2, beats / 2, beats / 2, beats / 2, beats / 2, one.beats - beats]
        : [beats / 2, beats / 2, beats / 4, beats / 4, beats / 4, beats / 4, one.beats]
      return {
        chords,
        shares,
        why: `On the way to ${name(one)} the keys of ${says(flatSix)} and ${says(three)} are touched, each by its own V: major thirds divide the octave in three.`,
      }
    },
  },
]
