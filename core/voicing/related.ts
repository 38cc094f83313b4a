import { firstOf, itemAt, lastOf } from '../lists'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { scaleNotes, type Key } from '../pitch/key'
import { leastMotion } from '../pitch/motion'
import { modulo, noteName, pitchClass } from '../pitch/note'
import { scaleOfKey } from '../pitch/scale'
import { must } from '../result'
import { voicingsOf } from './enumerate'
import type { Limits } from './gripLimits'
import { walkByScale } from './shapeWalk'
import { voicingOf, type Voicing } from './voicing'

const stringsOf = (voicing: Voicing) => voicing.strings.map(({ string }) => string)
/**
 * Degrees from the lowest note up, as numbers: `b3` and `3` are both 3, so that a type of grip can
 * be followed through a key.
 */
export const stepsOf = (voicing: Voicing): string =>
  [...voicing.strings]
    .sort((a, b) => a.midi - b.midi)
    .map(({ degree }) => SAME[degree.replace(/[b#]/g, '')] ?? degree.replace(/[b#]/g, ''))
    .join(' ')
/**
 * The ninth is the second an octave up and so on; a sixth stands where another chord has its
 * seventh.
 */
const SAME: Readonly<Record<string, string>> = { '9': '2', '11': '4', '13': '6' }

/** A shape without open strings can be moved along the neck. */
export const isMovable = (voicing: Voicing): boolean => !voicing.frets.includes(0)

const sameSounds = (a: Voicing, b: Voicing): boolean => {
  const sounds = (one: Voicing) =>
    [...new Set(one.midis.map((midi) => midi % 12))].sort((x, y) => x - y).join()
  return a.midis.length === b.midis.length && sounds(a) === sounds(b)
}

/**
 * Families that say how four voices are laid out: they tell more of a grip than what else it
 * happens to be.
 */
const LAYOUTS = ['close', 'drop 2', 'drop 3', 'drop 2 and 4'] as const
const layoutOf = ({ families }: Voicing) => LAYOUTS.find((family) => families.includes(family)) ?? families[0]

/**
 * The inversions of a grip on its own strings, from low to high: the same sounds, another one
 * lowest, of one family where the grip has one.
 */
export function inversionsOf(voicing: Voicing, chord: ChordSymbol, limits: Limits): Voicing[] {
  const strings = stringsOf(voicing)
  const all = voicingsOf(chord, {
    ...limits,
    bass: 'any',
    strings,
    notes: [strings.length, strings.length],
    families: null,
  }).filter((one) => sameSounds(one, voicing) && layoutOf(one) === layoutOf(voicing))
  const byHeight = [...all].sort(
    (a, b) => firstOf(a.midis) - firstOf(b.midis) || a.fingering.difficulty - b.fingering.difficulty,
  )
  // One for each height: the easiest of those with the same notes.
  return byHeight.filter((one, at) => at === 0 || one.midis.join() !== itemAt(byHeight, at - 1).midis.join())
}

/**
 * The same type of grip (degrees from the lowest up) on other strings, the nearest in sound first.
 */
export function onOtherStrings(voicing: Voicing, chord: ChordSymbol, limits: Limits): Voicing[] {
  const here = stringsOf(voicing).join()
  const steps = stepsOf(voicing)
  const all = voicingsOf(chord, {
    ...limits,
    bass: 'any',
    notes: [voicing.midis.length, voicing.midis.length],
    families: null,
  }).filter((one) => stepsOf(one) === steps && stringsOf(one).join() !== here && sameSounds(one, voicing))
  const sets = new Map<string, Voicing>()
  const price = (one: Voicing) => leastMotion(voicing.midis, one.midis) + one.fingering.difficulty
  for (const one of all) {
    const set = stringsOf(one).join()
    const known = sets.get(set)
    if (!known || price(one) < price(known)) sets.set(set, one)
  }
  return [...sets.values()].sort((a, b) => price(a) - price(b))
}

/**
 * The seventh chords (or triads) on the seven steps of a key, in their order from the tonic. In
 * minor: those of the natural scale.
 */
export function chordsOfKey(key: Key, sevenths: boolean): ChordSymbol[] {
  const notes = scaleNotes(key)
  return notes.map((root, step) => {
    const above = (steps: number) =>
      modulo(pitchClass(itemAt(notes, (step + steps) % 7)) - pitchClass(root), 12)
    const suffix = sevenths ? seventhOn(above(2), above(4), above(6)) : triadOn(above(2), above(4))
    return must(parseChord(noteName(root) + suffix))
  })
}

/** What a chord on a step of a key is called, by its third, fifth and seventh in half steps. */
function triadOn(third: number, fifth: number): string {
  if (fifth === 6) return 'dim'
  return third === 3 ? 'm' : ''
}
function seventhOn(third: number, fifth: number, seventh: number): string {
  if (fifth === 6) return seventh === 10 ? 'm7b5' : 'dim7'
  if (third === 3) return 'm7'
  return seventh === 11 ? 'maj7' : '7'
}

/**
 * The harmonised scale of a key in one type of grip: the same strings and the same degrees from the
 * lowest up for the chord of each step, going up the neck. A step whose grip no hand holds within
 * the limits is null.
 */
export function harmonisedScale(
  voicing: Voicing,
  key: Key,
  limits: Limits,
): { chord: ChordSymbol; voicing: Voicing | null }[] {
  const strings = stringsOf(voicing)
  const steps = stepsOf(voicing)
  const sevenths = /[67]/.test(steps)
  let below = -Infinity
  const scale = chordsOfKey(key, sevenths).map((chord) => {
    const grips = voicingsOf(chord, {
      ...limits,
      bass: 'any',
      strings,
      notes: [strings.length, strings.length],
      families: null,
      omit: ['1', '3', 'b3', '5', 'b5', '7', 'b7', 'bb7'],
    })
      .filter((one) => stepsOf(one) === steps && isMovable(one) === isMovable(voicing))
      .sort((a, b) => firstOf(a.midis) - firstOf(b.midis) || a.fingering.difficulty - b.fingering.difficulty)
    return { chord, grips }
  })
  // Begin with the step that lies lowest on the neck, and go up from there.
  const lowest = scale.reduce((best, { grips }, at) => {
    const [here] = grips
    const [low] = itemAt(scale, best).grips
    return here && (!low || firstOf(here.midis) < firstOf(low.midis)) ? at : best
  }, 0)
  const found = [...scale.slice(lowest), ...scale.slice(0, lowest)].map(({ chord, grips }) => {
    const next = grips.find((one) => firstOf(one.midis) > below) ?? null
    if (next) below = firstOf(next.midis)
    return { chord, voicing: next }
  })
  return found.some((step) => step.voicing) ? found : walkedThroughKey(voicing, key, limits)
}

/**
 * A grip that is no seventh chord or triad of the key, voice by voice through it from the lowest
 * place on the neck; nothing where it sounds a note outside the key, which has no next step.
 */
function walkedThroughKey(
  { frets }: Voicing,
  key: Key,
  { instrument, hand, frets: range }: Limits,
): { chord: ChordSymbol; voicing: Voicing | null }[] {
  const walk = { frets, instrument, hand, highest: range[1], key }
  const scale = scaleOfKey(key)
  const down = walkByScale(walk, scale, 1 - scale.notes.length).steps
  if (firstOf(down).foreign.length > 0) return []
  const stopped = down.filter((step) => step.frets.includes(0) === frets.includes(0))
  return walkByScale({ ...walk, frets: lastOf(stopped).frets }, scale)
    .steps.filter((step) => step.frets.every((fret) => fret === null || fret <= range[1]))
    .flatMap((step) => {
      const [name] = step.names
      return name
        ? [{ chord: name.chord, voicing: voicingOf(step.frets, name.chord, { instrument, hand }) }]
        : []
    })
}
