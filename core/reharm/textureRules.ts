import { firstOf, itemAt } from '../lists'
import type { Degree } from '../pitch/degree'
import { scaleNotes } from '../pitch/key'
import { pitchClass } from '../pitch/note'
import { tonesOutside } from './distance'
import { keySays, name, says, tonicOf, type Rule } from './rule'
import { chordOn, isMinorish, noteAt, type Spot } from './spot'

/** Chord tones that can go into the bass, as they are called. */
const BASSES: readonly (readonly [readonly Degree[], string])[] = [
  [['3', 'b3'], 'third'],
  [['5', 'b5'], 'fifth'],
  [['7', 'b7'], 'seventh'],
]

/** Beats a chord has to stand for a texture to be worth it: two bars of four. */
const STANDING = 8
const isStanding = (spot: Spot) =>
  (spot.beats >= 4 &&
    spot.stands >= Math.min(STANDING, 2 * spot.beats) &&
    spot.previous?.chord.canonical !== spot.chord.canonical) ||
  spot.beats >= STANDING
/** Chords of a texture, each an equal share. */
const texture = (spot: Spot, suffixes: readonly string[]) =>
  suffixes.map((suffix) => chordOn(spot.chord.root, suffix))

/** e: the bass and what stands still. */
export const TEXTURE_RULES: readonly Rule[] = [
  ...BASSES.map(([degrees, label]): Rule => ({
    id: `${label}-in-the-bass`,
    family: 'e1',
    school: 'functional',
    name: `inversion: the ${label} in the bass`,
    intent: 'bass and texture',
    mood: label === 'third' ? 'lighter' : 'hanging',
    put: (spot) => {
      const tone = spot.chord.tones.find(({ degree }) => degrees.includes(degree))
      if (!tone || spot.chord.bass || spot.kind === 'power') return null
      const chord = chordOn(spot.chord.root, spot.chord.suffix, tone.note)
      const to = spot.next?.chord.root
      const step = to
        ? Math.min(
            (pitchClass(to) - pitchClass(tone.note) + 12) % 12,
            (pitchClass(tone.note) - pitchClass(to) + 12) % 12,
          )
        : 12
      return {
        chords: [chord],
        why: `${chord.canonical} keeps the chord and puts its ${label} below${step <= 2 && step > 0 ? `, a ${step === 1 ? 'half' : 'whole'} step from ${says(to!)}` : ''}.`,
      }
    },
  })),
  ...(['3', '5'] as const).map((degree): Rule => ({
    id: degree === '3' ? 'add9-third-in-the-bass' : 'add9-fifth-in-the-bass',
    family: 'e1',
    school: 'functional',
    name: `add9 with its ${degree === '3' ? 'third' : 'fifth'} in the bass`,
    intent: 'bass and texture',
    mood: degree === '3' ? 'bright, lifted' : 'bright, hanging',
    put: (spot) => {
      const tone = spot.chord.tones.find((one) => one.degree === degree)
      if (!tone || spot.chord.bass || spot.kind !== 'major' || spot.chord.tones.length !== 3) return null
      const chord = chordOn(spot.chord.root, 'add9', tone.note)
      return {
        chords: [chord],
        why: `${chord.canonical} keeps ${name(spot)} with its ninth above and its ${degree === '3' ? 'third' : 'fifth'} below.`,
      }
    },
  })),
  ...(['1', '5'] as const).map((degree): Rule => ({
    id: degree === '1' ? 'pedal-on-the-tonic' : 'pedal-on-the-fifth',
    family: 'e2',
    school: 'modal',
    name: degree === '1' ? 'pedal on the tonic' : 'pedal on the fifth of the key',
    intent: 'bass and texture',
    mood: degree === '1' ? 'rooted' : 'waiting',
    put: (spot) => {
      const bass = tonicOf(spot, degree)
      if (pitchClass(bass) === pitchClass(spot.chord.root) || spot.chord.bass || spot.kind === 'power')
        return null
      // A half step under a tone of the chord is no ground to stand on; nor is one key's bass under
      // another's chords.
      const isRubbed = spot.chord.tones.some(
        ({ note, degree }) => degree !== 'b9' && (pitchClass(note) - pitchClass(bass) + 12) % 12 === 1,
      )
      if (isRubbed || tonesOutside(spot.chord, spot.key) > 1) return null
      const chord = chordOn(spot.chord.root, spot.chord.suffix, bass)
      return {
        chords: [chord],
        why: `${says(bass)}, the ${degree === '1' ? 'tonic' : 'fifth'} of ${keySays(spot)}, stays below while ${name(spot)} passes over it.`,
      }
    },
  })),
  {
    id: 'line-from-the-root',
    family: 'e4',
    school: 'romantic',
    name: 'line cliché: 8 7 b7 6',
    intent: 'bass and texture',
    mood: 'walking down inside',
    room: 1,
    put: (spot) => {
      if (!isStanding(spot) || (spot.kind !== 'minor' && spot.kind !== 'major') || spot.role === 'ii minor')
        return null
      const chords = texture(
        spot,
        spot.kind === 'minor' ? ['m', 'm(maj7)', 'm7', 'm6'] : ['', 'maj7', '7', '6'],
      )
      return {
        chords,
        why: `${name(spot)} stands while one voice walks down from its root: ${chords.map((chord) => chord.canonical).join(' ')}.`,
      }
    },
  },
  {
    id: 'line-from-the-fifth',
    family: 'e4',
    school: 'romantic',
    name: 'line cliché: 5 #5 6 #5',
    intent: 'bass and texture',
    mood: 'rising and falling inside',
    room: 1,
    put: (spot) => {
      if (!isStanding(spot) || (spot.kind !== 'minor' && spot.kind !== 'major') || spot.role === 'ii minor')
        return null
      const chords = texture(
        spot,
        spot.kind === 'minor' ? ['m', 'mb13', 'm6', 'mb13'] : ['', 'aug', '6', 'aug'],
      )
      return {
        chords,
        why: `${name(spot)} stands while its fifth climbs to the sixth and back: ${chords.map((chord) => chord.canonical).join(' ')}.`,
      }
    },
  },
  {
    id: 'scale-planing',
    family: 'e5',
    school: 'modal',
    name: 'planing: a suspended shape along the scale',
    intent: 'bass and texture',
    mood: 'floating',
    room: 1,
    put: (spot) => {
      if (!isStanding(spot) || (isMinorish(spot.kind) && spot.kind !== 'minor')) return null
      const scale = scaleNotes(spot.key)
      const from = scale.findIndex((note) => pitchClass(note) === pitchClass(spot.chord.root))
      if (from < 0) return null
      const chords = [0, 1, 2, 1].map((step) => chordOn(itemAt(scale, (from + step) % 7), '7sus4'))
      return {
        chords,
        why: `Without a third ${firstOf(chords).canonical} belongs nowhere in particular and can walk the scale of ${keySays(spot)} in parallel and come back.`,
      }
    },
  },
  {
    id: 'pentatonic-planing',
    family: 'e5',
    school: 'modal',
    name: 'planing: a suspended shape along the pentatonic',
    intent: 'bass and texture',
    mood: 'open, drifting',
    room: 1,
    put: (spot) => {
      if (!isStanding(spot) || (spot.kind !== 'minor' && spot.kind !== 'major' && spot.kind !== 'dominant'))
        return null
      const steps: readonly Degree[] = spot.kind === 'minor' ? ['1', 'b3', '4', 'b3'] : ['1', '9', '5', '9']
      const chords = steps.map((degree) => chordOn(noteAt(spot.chord.root, degree), '7sus4'))
      return {
        chords,
        why: `The shape of ${firstOf(chords).canonical} has no third to contradict ${name(spot)}: it goes along the pentatonic of ${says(spot.chord.root)}, ${chords.map((chord) => says(chord.root)).join(' ')}, and comes back.`,
      }
    },
  },
  {
    id: 'sixth-diminished',
    family: 'e6',
    school: 'bebop',
    name: 'sixth-diminished alternation',
    intent: 'bass and texture',
    mood: 'old, moving',
    room: 1,
    put: (spot) => {
      if (!isStanding(spot) || (spot.kind !== 'major' && spot.kind !== 'minor') || spot.role === 'ii minor')
        return null
      const minor = spot.kind === 'minor'
      const { root } = spot.chord
      const sixth = minor ? 'm6' : '6'
      const third = noteAt(root, minor ? 'b3' : '3')
      const chords = [
        chordOn(root, sixth),
        chordOn(noteAt(root, '2'), 'dim7'),
        chordOn(root, sixth, third),
        chordOn(noteAt(root, '4'), 'dim7'),
      ]
      return {
        chords,
        why: `Every step of the scale gets a chord: inversions of ${firstOf(chords).canonical} in turn with those of ${says(noteAt(root, '7'))}dim7, which is ${says(noteAt(root, '5'))}7b9 without its root.`,
      }
    },
  },
  {
    id: 'step-above-and-back',
    family: 'e7',
    school: 'modal',
    name: 'minor: the chord a whole step above and back',
    intent: 'bass and texture',
    mood: 'modal',
    room: 1,
    put: (spot) => {
      if (!isStanding(spot) || spot.kind !== 'minor') return null
      const [here, above] = [chordOn(spot.chord.root, 'm7'), chordOn(noteAt(spot.chord.root, '2'), 'm7')]
      return {
        chords: [here, above, here, above],
        why: `${above.canonical} comes from the Dorian scale of ${says(spot.chord.root)} and moves ${here.canonical} without leaving it.`,
      }
    },
  },
  {
    id: 'dorian-quartals',
    family: 'e7',
    school: 'modal',
    name: 'minor: quartal shapes of its Dorian scale',
    intent: 'bass and texture',
    mood: 'open, modal',
    room: 1,
    put: (spot) => {
      if (!isStanding(spot) || spot.kind !== 'minor') return null
      // Stacks of fourths on 1, 9 and 4 of the Dorian scale, as they are named by their lowest
      // note.
      const chords = (['1', '9', '4', '9'] as const).map((degree) =>
        chordOn(noteAt(spot.chord.root, degree), degree === '4' ? '7sus4' : 'm11'),
      )
      const stack = (['1', '4', 'b7', 'b3'] as const).map((degree) => says(noteAt(spot.chord.root, degree)))
      return {
        chords,
        why: `Fourths stacked on the Dorian scale of ${says(spot.chord.root)}, such as ${stack.join(' ')} for ${firstOf(chords).canonical}, move in parallel while ${name(spot)} stands.`,
      }
    },
  },
  {
    id: 'quartal-shape',
    family: 'e7',
    school: 'modal',
    name: 'minor: quartal shape',
    intent: 'bass and texture',
    mood: 'open, modal',
    put: (spot) => {
      if (spot.kind !== 'minor' || spot.stands < 4) return null
      const chord = chordOn(spot.chord.root, 'm11')
      return {
        chords: [chord],
        why: `${chord.canonical} can be stacked in fourths: ${(['1', '4', 'b7', 'b3'] as const).map((degree) => says(noteAt(spot.chord.root, degree))).join(' ')}.`,
      }
    },
  },
]
