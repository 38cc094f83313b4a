import { firstOf, itemAt, lastOf } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { reachMm, stringNumber, STANDARD_GUITAR, type Frets, type Instrument } from '../neck/instrument'
import type { Degree } from '../pitch/degree'
import { modulo, pitchClass } from '../pitch/note'
import { mudBelow } from './clashes'
import type { Family } from './family'
import { IDIOM_WEIGHTS, USUAL_IDIOM } from './idiomWeights'
import { isUsualForm } from './usualForms'
import type { Voicing } from './voicing'
import { WRITTEN_MOVABLE, WRITTEN_OPEN } from './writtenShapes'

/**
 * How much a grip by itself is like the grips that players write down. Each feature is something a
 * player can name; how much it counts was fitted (`npm run fit`) on an open dataset of chord shapes
 * and on the trade's own grips, and is not guessed here.
 */

/** What a tone is in its chord, as far as idiom goes. */
export type ToneClass = 'root' | 'third' | 'fifth' | 'seventh' | 'tension'
const CLASS: Partial<Record<Degree, ToneClass>> = {
  '1': 'root',
  '2': 'third',
  b3: 'third',
  '3': 'third',
  '4': 'third',
  b5: 'fifth',
  '5': 'fifth',
  '#5': 'fifth',
  '6': 'seventh',
  bb7: 'seventh',
  b7: 'seventh',
  '7': 'seventh',
}
export const toneClass = (degree: Degree): ToneClass => CLASS[degree] ?? 'tension'

/**
 * Names of features that have a number or a tone in them, made once: they are asked for at every
 * grip of the neck.
 */
const numbered = (name: (number: number) => string, most: number): readonly string[] =>
  Array.from({ length: most + 1 }, (_, number) => name(number))
const toned = (name: string): Readonly<Record<ToneClass, string>> => ({
  root: `${name} root`,
  third: `${name} third`,
  fifth: `${name} fifth`,
  seventh: `${name} seventh`,
  tension: `${name} tension`,
})
const NAMED = {
  notes: numbered((count) => `${count} notes`, 8),
  lowest: numbered((string) => `lowest string ${string}`, 8),
  highest: numbered((string) => `highest string ${string}`, 8),
  silent: numbered((count) => `silent strings inside ${count}`, 3),
  span: numbered((frets) => `span ${frets}`, 36),
  fingers: numbered((count) => `fingers ${count}`, 5),
  position: numbered((fret) => `position ${fret}`, 12),
  open: numbered((count) => `open strings ${count}`, 8),
  openPosition: numbered((fret) => `open position ${fret}`, 12),
  rootless: numbered((count) => `rootless ${count} notes`, 8),
  second: numbered((gap) => `second note ${gap}`, 17),
  doubled: toned('doubled'),
  thrice: toned('three times'),
  missing: toned('missing'),
  bass: toned('bass'),
  top: toned('top'),
}

/** Layouts that count by themselves. */
const LAYOUTS: readonly Family[] = ['close', 'drop 2', 'drop 3', 'drop 2 and 4', 'shell', 'triad', 'quartal']
/**
 * The widest interval above the lowest note that is told apart, and the smallest gap that is called
 * wide.
 */
const WIDEST = 17
const WIDE_GAP = 9
/** Up to this fret a hand is near the open strings. */
const NEAR_OPEN = 2
/** The notes around which bass and top of most grips lie (A2 and E4), and an octave. */
const BASS_PITCH = 45
const TOP_PITCH = 64
const OCTAVE = 12
/** D3: below it a bass player is. */
const LOW_LINE = 50

/**
 * The features of a grip, each with how much of it there is. Names are those of the table of
 * weights.
 * @param known how many keys the shape is written in; looked up where it is not said
 */
export function idiomFeatures(
  voicing: Voicing,
  chord: ChordSymbol,
  instrument: Instrument,
  known = writtenIn(voicing.frets, chord, instrument),
  count: (feature: string, amount: number) => void,
): void {
  const { frets, midis, strings, fingering } = voicing
  const notes = midis.length
  const [low, high] = [firstOf(strings).string, itemAt(strings, notes - 1).string]
  let [lowest, highest, open] = [0, 0, 0]
  for (const fret of frets) {
    if (fret === 0) open += 1
    else if (fret !== null) {
      if (lowest === 0 || fret < lowest) lowest = fret
      if (fret > highest) highest = fret
    }
  }
  const hand = lowest === 0 ? 0 : lowest - instrument.capo
  count(itemAt(NAMED.notes, notes), 1)
  count(itemAt(NAMED.lowest, stringNumber(low, frets.length)), 1)
  count(itemAt(NAMED.highest, stringNumber(high, frets.length)), 1)
  const inner = high - low + 1 - notes
  if (inner > 0) count(itemAt(NAMED.silent, Math.min(inner, 3)), 1)
  count(itemAt(NAMED.span, highest - lowest), 1)
  count('stretch', fingering.parts.stretch)
  count('placement', fingering.parts.placement)
  count(itemAt(NAMED.fingers, fingering.presses.length), 1)
  for (const { finger, from, to } of fingering.barres)
    count(`${finger === 1 ? 'index' : 'other'} barre ${from - to + 1}`, 1)

  if (open === 0) {
    count('movable', 1)
    count(itemAt(NAMED.position, Math.min(hand, 12)), 1)
  } else {
    count(itemAt(NAMED.open, open), 1)
    count(itemAt(NAMED.openPosition, Math.min(hand, 12)), 1)
    count('open far', open * Math.max(0, hand - NEAR_OPEN))
    if (frets[low] === 0) count('open bass', 1)
    if (frets[high] === 0 && high !== low) count('open top', 1)
    for (let string = low + 1; string < high; string += 1) if (frets[string] === 0) count('open inside', 1)
  }

  countTones(voicing, chord, open, count)
  countIntervals(midis, count)
  if (hasUsualForm(voicing, chord, instrument)) count('usual form', 1)
  if (known > 0) {
    count('written', 1)
    count('written often', Math.min(known, OFTEN))
  }
}
type Count = (feature: string, amount: number) => void

/**
 * Which tones it has, twice or not at all, and which are lowest and highest. @param open how many
 * strings are
 */
function countTones(
  { midis, strings, families }: Voicing,
  chord: ChordSymbol,
  open: number,
  count: Count,
): void {
  const notes = midis.length
  const [classes, sounding] = [new Map<Degree, number>(), new Set<number>()]
  let [bass, top] = [firstOf(strings), firstOf(strings)]
  let crossed = false
  strings.forEach((one, at) => {
    classes.set(one.degree, (classes.get(one.degree) ?? 0) + 1)
    sounding.add(one.midi % 12)
    if (one.midi < bass.midi) bass = one
    if (one.midi > top.midi) top = one
    if (at > 0 && one.midi < itemAt(strings, at - 1).midi) crossed = true
  })
  for (const [degree, times] of classes) {
    if (times === 2) count(NAMED.doubled[toneClass(degree)], 1)
    if (times > 2) count(NAMED.thrice[toneClass(degree)], 1)
  }
  for (const { degree, note } of chord.tones)
    if (!sounding.has(pitchClass(note))) count(NAMED.missing[toneClass(degree)], 1)
  // Without a root somebody else has the bass: other grips are usual then.
  if (!classes.has('1')) {
    count(itemAt(NAMED.rootless, notes), 1)
    if (open > 0) count('rootless open', open)
    if (firstOf(midis) < LOW_LINE) count('rootless low', (LOW_LINE - firstOf(midis)) / OCTAVE)
  }
  count(NAMED.bass[toneClass(bass.degree)], 1)
  count(NAMED.top[toneClass(top.degree)], 1)
  for (const family of LAYOUTS) if (families.includes(family)) count(family, 1)
  if (crossed) count('crossing', 1)
}

/** How far its voices lie from one another, and how low and high it is. */
function countIntervals(midis: readonly number[], count: Count): void {
  const notes = midis.length
  for (let at = 1; at < notes; at += 1) {
    const gap = itemAt(midis, at) - itemAt(midis, at - 1)
    if (at === 1) count(itemAt(NAMED.second, Math.min(gap, WIDEST)), 1)
    if (gap === 0) count('unison', 1)
    else if (gap === 1) count('half step', 1)
    else if (gap === 2) count('whole step', 1)
    else if (gap > OCTAVE) count('gap over an octave', 1)
    else if (gap >= WIDE_GAP) count('wide gap', 1)
  }
  const mud = mudBelow(midis)
  if (mud > 0) count('mud', mud)
  const [down, up] = [(firstOf(midis) - BASS_PITCH) / OCTAVE, (itemAt(midis, notes - 1) - TOP_PITCH) / OCTAVE]
  count('bass pitch', down)
  count('bass pitch squared', down * down)
  count('top pitch', up)
  count('top pitch squared', up * up)
}

/** Frets that a form lies within. */
const COMPACT = 4
/** Keys from which on a shape counts as written in all of them. */
const OFTEN = 3

/**
 * The idiom of a grip: higher is more usual. Differences mean something, the number by itself does
 * not.
 */
export function gripIdiom(voicing: Voicing, chord: ChordSymbol, instrument: Instrument): number {
  let sum = 0
  idiomFeatures(voicing, chord, instrument, undefined, (feature, amount) => {
    sum += amount * (IDIOM_WEIGHTS[feature] ?? 0)
  })
  return sum
}

/**
 * From this idiom on a grip is as usual as any: half of the shapes written down, and of the trade's
 * grips, lie above it.
 */
const USUAL = USUAL_IDIOM

/**
 * How far a grip is from the usual ones, 0 or more. A point is about a factor of e in how often it
 * is written down.
 */
export function strangenessOf(voicing: Voicing, chord: ChordSymbol, instrument: Instrument): number {
  const known = KNOWN.get(voicing)
  if (known && known.chord === chord.canonical) return known.strangeness
  const strangeness = Math.max(0, USUAL - gripIdiom(voicing, chord, instrument))
  KNOWN.set(voicing, { chord: chord.canonical, strangeness })
  return strangeness
}
const KNOWN = new WeakMap<Voicing, { chord: string; strangeness: number }>()

/**
 * The six strings of a guitar in standard tuning, from the highest down, in semitones below the
 * highest.
 */
const STRINGS = STANDARD_GUITAR.tuning.map((midi) => lastOf(STANDARD_GUITAR.tuning) - midi).reverse()

/**
 * How a shape is written whatever its fret: `x` for a silent string, frets from the lowest held
 * one.
 */
export const movableShape = (frets: Frets): string => {
  let lowest = Infinity
  for (const fret of frets) if (fret !== null && fret < lowest) lowest = fret
  return frets.map((fret) => (fret === null ? 'x' : fret - lowest)).join(' ')
}

/**
 * In how many keys people write this shape for this kind of chord: a movable one anywhere on the
 * neck, one with open strings where it is.
 */
export function writtenIn(frets: Frets, chord: ChordSymbol, instrument: Instrument): number {
  if (chord.bass) return 0
  const six = onSixStrings(frets, instrument)
  if (!six) return 0
  if (!six.includes(0)) return WRITTEN_MOVABLE[chord.suffix]?.[movableShape(six)] ?? 0
  const root = modulo(
    pitchClass(chord.root) - instrument.capo - (lastOf(instrument.tuning) - lastOf(STANDARD_GUITAR.tuning)),
    12,
  )
  return WRITTEN_OPEN[chord.suffix]?.[root]?.includes(six.map((fret) => fret ?? 'x').join(' ')) ? OFTEN : 0
}

/**
 * The grip as it lies on six strings tuned like a guitar, frets counted from the capo; null where
 * it does not.
 */
function onSixStrings(frets: Frets, { tuning, capo }: Instrument): Frets | null {
  const six: (number | null)[] = []
  for (let down = 0; down < tuning.length; down += 1) {
    const fret = itemAt(frets, frets.length - 1 - down)
    if (
      down >= STRINGS.length ||
      itemAt(tuning, tuning.length - 1 - down) !== lastOf(tuning) - itemAt(STRINGS, down)
    ) {
      if (fret !== null) return null
    }
    if (down < STRINGS.length) six.unshift(fret === null || fret === 0 ? fret : fret - capo)
  }
  while (six.length < STRINGS.length) six.unshift(null)
  return six
}

/**
 * Whether a grip is one of the forms that players learn first, on six strings tuned like a guitar.
 */
export function hasUsualForm(
  voicing: Pick<Voicing, 'frets' | 'strings'>,
  chord: ChordSymbol,
  instrument: Instrument,
): boolean {
  let [lowest, highest] = [Infinity, -Infinity]
  for (const fret of voicing.frets)
    if (fret !== null) {
      lowest = Math.min(lowest, fret)
      highest = Math.max(highest, fret)
    }
  return highest - Math.max(lowest, instrument.capo) <= COMPACT && soundsUsual(voicing, chord, instrument)
}
function soundsUsual(
  { frets, strings }: Pick<Voicing, 'frets' | 'strings'>,
  chord: ChordSymbol,
  instrument: Instrument,
): boolean {
  if (!onSixStrings(frets, instrument)) return false
  const root = pitchClass(chord.root)
  const above: (number | null)[] = STRINGS.map(() => null)
  for (const { string, midi } of strings)
    above[string + STRINGS.length - frets.length] = modulo(midi - root, OCTAVE)
  return isUsualForm(above)
}

/**
 * Movable shapes without their lowest note, where that is a fifth below the root: x 2 4 4 3 2 is
 * played as often as 2 2 4 4 3 2.
 */
const WITHOUT_LOWEST = new Map(
  Object.entries(WRITTEN_MOVABLE).map(([suffix, shapes]) => [
    suffix,
    new Set(
      Object.keys(shapes).map((shape) =>
        movableShape(withoutLowest(shape.split(' ').map((fret) => (fret === 'x' ? null : Number(fret))))),
      ),
    ),
  ]),
)
function withoutLowest(frets: Frets): Frets {
  const lowest = frets.findIndex((fret) => fret !== null)
  return frets.map((fret, string) => (string === lowest ? null : fret))
}

/**
 * Whether a set of frets is a shape people write down for a chord, or such a shape without the
 * fifth below its root.
 */
export function isKnownShape(frets: Frets, chord: ChordSymbol, instrument: Instrument): boolean {
  if (isWritten(frets, chord, instrument)) return true
  const six = chord.bass ? null : onSixStrings(frets, instrument)
  return (
    six !== null && !six.includes(0) && (WITHOUT_LOWEST.get(chord.suffix)?.has(movableShape(six)) ?? false)
  )
}

/** Layouts that are played on neighbouring strings whatever the chord. */
const LAID_OUT: readonly Family[] = ['drop 2', 'drop 3', 'shell']

/**
 * Whether players take a grip for a chord at all: a form that is learned or written down, or four
 * voices and shells as they are laid out.
 */
export const isPlayedByPlayers = (
  voicing: Pick<Voicing, 'frets' | 'strings' | 'families'>,
  chord: ChordSymbol,
  instrument: Instrument,
): boolean =>
  !isStretched(voicing.frets, instrument) &&
  (hasUsualForm(voicing, chord, instrument) ||
    isKnownShape(voicing.frets, chord, instrument) ||
    (voicing.families.some((family) => LAID_OUT.includes(family)) && !isPacked(voicing)))

/**
 * Further than this nobody reaches in time, whatever the form, in mm (common practice, no source).
 */
const WIDEST_MM = 84

function isStretched(frets: Frets, { scaleLengthMm }: Instrument): boolean {
  let [lowest, highest] = [Infinity, 0]
  for (const fret of frets)
    if (fret !== null && fret > 0) {
      lowest = Math.min(lowest, fret)
      highest = Math.max(highest, fret)
    }
  return highest > lowest && reachMm(lowest, highest, scaleLengthMm) > WIDEST_MM
}

/**
 * Root and tension in four voices: laid out by any rule they are a cluster, and the chord has forms
 * of its own.
 */
export const isPacked = ({ strings }: Pick<Voicing, 'strings'>): boolean =>
  strings.some(({ degree }) => degree === '1') &&
  strings.some(({ degree }) => toneClass(degree) === 'tension')

/** Whether a set of frets is a shape people write down for a chord. */
export const isWritten = (frets: Frets, chord: ChordSymbol, instrument: Instrument): boolean =>
  writtenIn(frets, chord, instrument) > 0

/** Grips in whose low register nothing is muddy come first: so many of them. */
const CLEAR_FIRST = 10

/**
 * Grips of a chord, the usual ones first (common practice: known shapes before unknown ones). Muddy
 * ones are not among the first ten, but for the full open chords that everybody plays.
 */
export function usualFirst(
  voicings: readonly Voicing[],
  chord: ChordSymbol,
  instrument: Instrument,
): Voicing[] {
  const judged = voicings
    .map((voicing, order) => ({
      voicing,
      order,
      idiom: gripIdiom(voicing, chord, instrument),
      muddy: mudBelow(voicing.midis) > 0 && !isKnownByAll(voicing, chord, instrument),
    }))
    .sort((a, b) => b.idiom - a.idiom || a.order - b.order)
  const clear = varied(judged.filter(({ muddy }) => !muddy))
  const first = new Set(clear.slice(0, CLEAR_FIRST))
  return [...first, ...judged.filter((one) => !first.has(one))].map(({ voicing }) => voicing)
}

/**
 * What a grip loses in a list for each before it that is the same grip with strings more or less,
 * in points of idiom; so many are put in order so.
 */
const SAME_AGAIN = 0.6
const VARIED = 12

/**
 * Grips in order of idiom, but those that only leave out or add strings of one before them make
 * room for others.
 */
function varied<T extends { voicing: Voicing; idiom: number }>(judged: readonly T[]): T[] {
  const left = judged.map((one) => ({ one, worth: one.idiom }))
  const first: T[] = []
  while (first.length < VARIED && left.length > 0) {
    let best = 0
    for (let at = 1; at < left.length; at += 1)
      if (itemAt(left, at).worth > itemAt(left, best).worth) best = at
    const [{ one }] = left.splice(best, 1) as [{ one: T; worth: number }]
    first.push(one)
    for (const other of left)
      if (isSameGrip(one.voicing.frets, other.one.voicing.frets)) other.worth -= SAME_AGAIN
  }
  return [...first, ...left.map(({ one }) => one)]
}

/** Whether one of two grips is the other with strings left out. */
function isSameGrip(a: Frets, b: Frets): boolean {
  let [more, less] = [false, false]
  for (let string = 0; string < a.length; string += 1) {
    const [one, other] = [a[string] ?? null, b[string] ?? null]
    if (one === other) continue
    if (one !== null && other !== null) return false
    if (other === null) more = true
    else less = true
  }
  return !(more && less)
}

/**
 * A full chord of open position that people write down for a plain chord, such as 3 2 0 0 0 3, or
 * learn first, such as 2 0 0 2 3 2 for D/F#.
 */
const isKnownByAll = (voicing: Voicing, chord: ChordSymbol, instrument: Instrument): boolean =>
  voicing.midis.length >= 5 &&
  voicing.frets.includes(0) &&
  chord.tones.length <= 4 &&
  (isWritten(voicing.frets, chord, instrument) || hasUsualForm(voicing, chord, instrument))
