import { pitchClass, type Note } from '../pitch/note'
import { goesOn, inMajor, isOne, keySays, name, tonicOf, type Rule } from './rule'
import { chordOn, fallsBy, isMinorish, noteAt, resolves, risesBy, shapeOf, type Spot, endsForm } from './spot'

const twoOf = (spot: Spot, root: Note) =>
  chordOn(noteAt(root, '5'), spot.role === 'dominant to minor' ? 'm7b5' : 'm7')

/** c: more chords on the way. */
export const INSERTS: readonly Rule[] = [
  {
    id: 'related-ii',
    family: 'c1',
    school: 'bebop',
    name: 'its ii before a dominant',
    intent: 'insert',
    mood: 'smoother, busier',
    room: 1,
    put: (spot) => {
      if (spot.kind !== 'dominant' && !(spot.kind === 'major' && resolves(spot))) return null
      const two = twoOf(spot, spot.chord.root)
      if (spot.previous && pitchClass(spot.previous.chord.root) === pitchClass(two.root)) return null
      return {
        chords: [two, spot.chord],
        why: `${two.canonical} prepares ${name(spot)} as the ii does its V; they share the time.`,
      }
    },
  },
  {
    id: 'secondary-dominant',
    family: 'c2',
    school: 'functional',
    name: 'a dominant on the way to the next chord',
    intent: 'insert',
    mood: 'pushing',
    room: 1,
    leads: true,
    put: (spot) => {
      if (!goesOn(spot) || fallsBy(spot) === 7 || spot.next.kind === 'diminished') return null
      const five = chordOn(noteAt(spot.next.chord.root, '5'), '7')
      return {
        chords: [spot.chord, five],
        why: `${five.canonical} is the V of ${name(spot.next)} and leads there in the time ${name(spot)} can spare.`,
      }
    },
  },
  {
    id: 'approaching-substitute',
    family: 'c2',
    school: 'functional',
    name: 'a substitute dominant on the way to the next chord',
    intent: 'insert',
    mood: 'sly, chromatic',
    room: 1,
    leads: true,
    put: (spot) => {
      if (!goesOn(spot) || fallsBy(spot) === 1 || spot.next.kind === 'diminished') return null
      const five = chordOn(noteAt(spot.next.chord.root, 'b9'), '7')
      return {
        chords: [spot.chord, five],
        why: `${five.canonical} has the tritone of the V of ${name(spot.next)} and falls a half step to it.`,
      }
    },
  },
  {
    id: 'chain-of-dominants',
    family: 'c2',
    school: 'functional',
    name: 'two dominants in a chain',
    intent: 'insert',
    mood: 'driving',
    room: 1,
    leads: true,
    put: (spot) => {
      if (!goesOn(spot) || spot.next.kind === 'diminished' || spot.beats < 3) return null
      const five = noteAt(spot.next.chord.root, '5')
      const [far, near] = [chordOn(noteAt(five, '5'), '7'), chordOn(five, '7')]
      return {
        chords: [spot.chord, far, near],
        shares: [spot.beats - 2, 1, 1],
        why: `${far.canonical} is the V of ${near.canonical}, which is the V of ${name(spot.next)}: a chain made from its end.`,
      }
    },
  },
  {
    id: 'approaching-ii-v',
    family: 'c2',
    school: 'functional',
    name: 'a ii-V on the way to the next chord',
    intent: 'insert',
    mood: 'flowing',
    room: 1,
    leads: true,
    put: (spot) => {
      if (!goesOn(spot) || fallsBy(spot) === 7 || spot.next.kind === 'diminished' || spot.beats < 3)
        return null
      const five = noteAt(spot.next.chord.root, '5')
      const [two, dominant] = [
        chordOn(noteAt(five, '5'), isMinorish(spot.next.kind) ? 'm7b5' : 'm7'),
        chordOn(five, '7'),
      ]
      return {
        chords: [spot.chord, two, dominant],
        shares: [spot.beats - 2, 1, 1],
        why: `${two.canonical} ${dominant.canonical} is the ii-V of ${name(spot.next)} and leads there in the time ${name(spot)} can spare.`,
      }
    },
  },
  {
    id: 'tonic-diminished',
    family: 'c7',
    school: 'romantic',
    name: 'a diminished chord on the tonic holds I up',
    intent: 'insert',
    mood: 'held back, aching',
    room: 1,
    put: (spot) => {
      if (!isOne(spot) || !inMajor(spot) || spot.beats < 2) return null
      const delay = chordOn(spot.chord.root, 'dim7')
      return {
        chords: [delay, spot.chord],
        why: `${delay.canonical} keeps the root of ${name(spot)} below; its other tones climb by half steps into it.`,
      }
    },
  },
  ...(
    [
      ['above', 'b9'],
      ['below', '7'],
    ] as const
  ).map(([where, degree]): Rule => ({
    id: `approach-from-${where}`,
    family: 'c3',
    school: 'bebop',
    name: `the same shape from a half step ${where}`,
    intent: 'insert',
    mood: where === 'above' ? 'sliding down' : 'sliding up',
    room: 1,
    leads: true,
    put: (spot) => {
      if (!goesOn(spot) || spot.beats < 2) return null
      const chord = chordOn(noteAt(spot.next.chord.root, degree), shapeOf(spot.next))
      return {
        chords: [spot.chord, chord],
        shares: [spot.beats - 1, 1],
        why: `${chord.canonical} is the shape of ${name(spot.next)} a half step ${where} and slides into it.`,
      }
    },
  })),
  {
    id: 'passing-diminished',
    family: 'c4',
    school: 'functional',
    name: 'passing diminished',
    intent: 'insert',
    mood: 'walking',
    room: 1,
    leads: true,
    put: (spot) => {
      if (!goesOn(spot) || (risesBy(spot) !== 2 && fallsBy(spot) !== 2)) return null
      const up = risesBy(spot) === 2
      const root = up ? noteAt(spot.next.chord.root, '7') : noteAt(spot.next.chord.root, 'b9')
      const chord = chordOn(root, 'dim7')
      return {
        chords: [spot.chord, chord],
        why: `${chord.canonical} fills the whole step from ${name(spot)} ${up ? 'up' : 'down'} to ${name(spot.next)}.`,
      }
    },
  },
  {
    id: 'rising-bass',
    family: 'c5',
    school: 'romantic',
    name: 'only the bass goes up a half step',
    intent: 'insert',
    mood: 'rising',
    room: 1,
    leads: true,
    put: (spot) => {
      if (!goesOn(spot) || !isOne(spot) || !inMajor(spot) || spot.next.rel !== 2) return null
      const [first, second] = [
        chordOn(spot.chord.root, 'maj7'),
        chordOn({ letter: spot.chord.root.letter, alter: spot.chord.root.alter + 1 }, 'm7b5'),
      ]
      return {
        chords: [first, second],
        why: `The upper tones of ${first.canonical} stay, its bass goes up a half step on the way to ${name(spot.next)}.`,
      }
    },
  },
  ...(
    [
      [
        'turnaround-i-vi',
        'I VI ii V',
        [
          ['1', 'maj7'],
          ['6', '7'],
          ['2', 'm7'],
          ['5', '7'],
        ],
        'round, familiar',
      ],
      [
        'turnaround-iii-vi',
        'iii VI ii V',
        [
          ['3', 'm7'],
          ['6', '7'],
          ['2', 'm7'],
          ['5', '7'],
        ],
        'round, on the move',
      ],
      [
        'turnaround-iii-flat-iii',
        'iii bIII ii bII',
        [
          ['3', 'm7'],
          ['b3', '7'],
          ['2', 'm7'],
          ['b9', '7'],
        ],
        'sliding down',
      ],
      [
        'turnaround-i-flat-iii',
        'I bIII bVI bII',
        [
          ['1', 'maj7'],
          ['b3', 'maj7'],
          ['b13', 'maj7'],
          ['b9', 'maj7'],
        ],
        'wide, surprising',
      ],
    ] as const
  ).map(([id, numerals, chords, mood]): Rule => ({
    id,
    family: 'c6',
    school: 'functional',
    name: `turnaround ${numerals}`,
    intent: 'insert',
    mood,
    room: 1,
    leads: true,
    put: (spot) => {
      // On a last I, or one that stands on before home, ii or V comes round again.
      if (
        !isOne(spot) ||
        !inMajor(spot) ||
        spot.beats < 4 ||
        (spot.next && !endsForm(spot) && ![0, 4].includes(spot.next.rel))
      )
        return null
      const put = chords.map(([degree, suffix]) => chordOn(tonicOf(spot, degree), suffix))
      return {
        chords: put,
        why: `${put.map((chord) => chord.canonical).join(' ')} goes round in the time of ${name(spot)} and comes back to ${keySays(spot)}.`,
      }
    },
  })),
]
