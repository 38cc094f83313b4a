import { firstOf, itemAt, lastOf } from '../lists'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import { pitchClass, plainSpelling } from '../pitch/note'
import type { Change, Intent, Put } from './change'
import { tonesOutside } from './distance'
import { FIRST_RESOURCES } from './places'
import { putsOf } from './rule'
import { USUAL_HERE } from './ruleNames'
import { chordOn, noteAt, type Spot } from './spot'

/** Degrees of a root above another, as the table writes them, by the words of tones. */
const ROOTS: Readonly<Record<string, Degree>> = {
  b2: 'b9',
  '2': '9',
  b3: 'b3',
  '3': '3',
  '4': '11',
  '#4': '#11',
  b5: 'b5',
  '5': '5',
  b6: 'b13',
  '6': '13',
  b7: 'b7',
  '7': '7',
}

/** A chord of the table at a spot. */
function chordAt(spot: Spot, token: string): ChordSymbol {
  const { chord } = spot
  if (token === '=') return chord
  const [root, rest] = token.split('|') as [string, string]
  const slash = /\/(=|[b#]?[2-7]|1)$/.exec(rest)
  const isSixNine = rest.endsWith('6/9')
  const bass = isSixNine ? undefined : slash?.[1]
  const suffix = bass === undefined ? rest : rest.slice(0, slash!.index)
  const on = (degree: string) => {
    if (degree === '1') return chord.root
    // Up a half step by its own letter.
    if (degree === '#1') return plainSpelling(pitchClass(chord.root) + 1, true)
    return noteAt(chord.root, ROOTS[degree]!)
  }
  const kept = root === '1' && bass === undefined ? chord.bass : null
  const base = on(root)
  let over = kept
  if (bass === '=') over = chord.bass
  else if (bass !== undefined) over = on(bass)
  return chordOn(base, suffix, over && pitchClass(over) !== pitchClass(base) ? over : undefined)
}

/** Three chords and more in the place of one have two beats each, or are a crowd. */
const MANY_ROOM = 2

/** What the place asks for first: the table read off at a spot, in its order. */
export function firstAt(spot: Spot): readonly Change[] {
  const known = FIRST.get(spot)
  if (known) return known
  const made = readOff(spot)
  FIRST.set(spot, made)
  return made
}
const FIRST = new WeakMap<Spot, readonly Change[]>()

function readOff(spot: Spot): Change[] {
  const found: Change[] = []
  const seen = new Set<string>()
  for (const { idioms, places, on, tries } of FIRST_RESOURCES) {
    if ((idioms && !idioms.includes(spot.idiom)) || (places && !places.includes(spot.place)) || !on(spot))
      continue
    for (const [words, why] of tries) {
      if ((words.includes('/=') && !spot.chord.bass) || (why.includes('>') && !spot.next)) continue
      const chords = words.split(' ').map((token) => chordAt(spot, token))
      const puts = putsOf({ chords }, spot.beats, chords.length > 2 ? MANY_ROOM : 1)
      const key = chords.map(({ canonical }) => canonical).join(' ')
      if (
        !puts ||
        seen.has(key) ||
        saysItTwice(puts) ||
        breaksLine(spot, puts) ||
        repeatsNeighbour(spot, puts) ||
        key === spot.chord.canonical ||
        !keepsQuality(spot, chords)
      )
        continue
      seen.add(key)
      found.push(usual(spot, puts, why, found.length))
    }
  }
  return found
}

/** In part of a bar a chord put in is none that stands beside it already. */
const repeatsNeighbour = ({ beats, barBeats, previous, next }: Spot, puts: readonly Put[]): boolean =>
  puts.length > 1 &&
  beats < barBeats &&
  (firstOf(puts).chord.canonical === previous?.chord.canonical ||
    lastOf(puts).chord.canonical === next?.chord.canonical)

/**
 * A colour on the chord's own root keeps its third, but where a single chord stands for it by
 * another job.
 */
function keepsQuality(spot: Spot, chords: readonly ChordSymbol[]): boolean {
  const { chord } = spot
  const [only] = chords
  // A seventh that is written stays.
  if (
    hasDegree(chord, 'b7') &&
    chords.some(
      (one) => pitchClass(one.root) === pitchClass(chord.root) && !hasDegree(one, 'b7', '7', '6', 'bb7'),
    )
  )
    return false
  if (chords.length > 1 || pitchClass(only!.root) !== pitchClass(chord.root) || only!.bass) return true
  const isMinor = hasDegree(chord, 'b3')
  return !(isMinor && hasDegree(only!, '3') && hasDegree(only!, '7'))
}

const bassOf = (chord: ChordSymbol) => pitchClass(chord.bass ?? chord.root)

function usual(spot: Spot, puts: readonly Put[], why: string, order: number): Change {
  const own = pitchClass(spot.chord.root)
  const isOwn = puts.every(({ chord }) => pitchClass(chord.root) === own)
  const moves = puts.some(({ chord }) => bassOf(chord) !== bassOf(spot.chord))
  const last = lastOf(puts).chord
  const leads = pushesOn(last, spot)
  const goal = spot.next?.chord.canonical ?? 'what follows'
  return {
    rule: USUAL_HERE,
    name: nameOf(spot, puts, isOwn, moves),
    intent: intentOf(puts, isOwn, moves),
    index: spot.index,
    span: 1,
    puts,
    why: saidOf(why, puts).replaceAll('%', spot.chord.canonical).replaceAll('>', goal),
    mood: 'usual here',
    school: 'functional',
    depth: 1,
    landsOn: leads && spot.next ? pitchClass(spot.next.chord.root) : null,
    usual: order,
  }
}

/** A reason that names no chord says which chords it is of. */
const saidOf = (why: string, puts: readonly Put[]): string =>
  /[%>]/.test(why)
    ? why
    : `${puts.map(({ chord }) => chord.canonical).join(' ')}: ${/^[A-Z][a-z]/.test(why) ? firstOf(why).toLowerCase() + why.slice(1) : why}`

/** A dominant that was not there, or an altered one, goes where it points. */
export const pushesOn = (last: ChordSymbol, spot: Spot): boolean =>
  hasDegree(last, 'b7') &&
  hasDegree(last, '3') &&
  last.canonical !== spot.chord.canonical &&
  spot.next !== null &&
  [5, 11].includes((pitchClass(spot.next.chord.root) - pitchClass(last.root) + 12) % 12)

function intentOf(puts: readonly Put[], isOwn: boolean, moves: boolean): Intent {
  if (isOwn) return moves ? 'bass and texture' : 'colour'
  return puts.length > 1 ? 'insert' : 'swap'
}

function nameOf({ chord }: Spot, puts: readonly Put[], isOwn: boolean, moves: boolean): string {
  const [first] = puts
  if (isOwn && puts.length > 1 && hasDegree(first!.chord, '4')) return 'a suspension and its resolution'
  if (isOwn && puts.length > 1) return moves ? 'a bass that moves under the chord' : 'a line inside the chord'
  if (isOwn) return moves ? 'another bass' : 'a usual colour'
  if (puts.length === 1)
    return first!.chord.bass && bassOf(first!.chord) === bassOf(chord)
      ? 'a chord over the same bass'
      : 'a usual substitute'
  return 'a usual way on'
}

/**
 * A line that is written inside a chord goes on in whatever colours it: no tone of it is lost, and
 * none of another place of it comes in.
 */
function breaksLine(spot: Spot, puts: readonly Put[]): boolean {
  if (!spot.inLine) return false
  const [{ chord }] = puts as [Put]
  const has = (degree: Degree) => spot.chord.tones.some((tone) => tone.degree === degree)
  return (
    puts.length > 1 ||
    pitchClass(chord.root) !== pitchClass(spot.chord.root) ||
    bassOf(chord) !== bassOf(spot.chord) ||
    !spot.chord.tones.every(({ degree, need }) => need === 'free' || hasDegree(chord, degree)) ||
    LINE_TONES.some((degree) => !has(degree) && hasDegree(chord, degree))
  )
}
const LINE_TONES: readonly Degree[] = ['7', 'b7', '6', '#5', 'b13']

/** Tensions that only a dominant on its way takes. */
const SHARP = ['b9', '#9', 'b13', '#5', 'b5'] as const

/**
 * Whether a change is out of its place or its style, so that nobody who plays there would try it
 * first. It stays to be found, behind all others.
 */
export function isOutOfPlace(spot: Spot, puts: readonly Put[]): boolean {
  const own = pitchClass(spot.chord.root)
  const [first] = puts
  const songs = spot.idiom === 'song' || spot.idiom === 'gospel'
  const roots = puts.map(({ chord }) => pitchClass(chord.root))
  const altered = puts.some(
    ({ chord }) => hasDegree(chord, 'b7') && hasDegree(chord, '3', '4') && hasDegree(chord, ...SHARP),
  )
  const fourMinor = spot.key.mode === 'minor'
  if (breaksLine(spot, puts)) return true
  // A major seventh a half step under a minor chord does not do its job.
  if (
    puts.length === 1 &&
    spot.kind === 'minor' &&
    hasDegree(first!.chord, '7') &&
    (own - firstOf(roots) + 12) % 12 === 1
  )
    return true
  // An arrival keeps its root.
  if (spot.place === 'arrival' && roots[0] !== own) return true
  if (spot.place === 'arrival' && spot.next?.index === 0 && !roots.includes(own)) return true
  const plainMajor = ({ chord }: Put) => hasDegree(chord, '7') && !hasDegree(chord, 'b3')
  if (spot.rel === 7 && spot.kind !== 'minor' && puts.length === 1) {
    // V in minor takes the tensions of minor; V keeps its third, and bIImaj7 is no V.
    if (fourMinor && roots[0] === own && hasDegree(first!.chord, '9', '13') && !altered) return true
    if (plainMajor(first!) || (roots[0] === own && hasDegree(first!.chord, 'b3'))) return true
    if (
      roots[0] !== own &&
      hasDegree(first!.chord, 'b3') &&
      !first!.chord.bass &&
      !hasDegree(first!.chord, 'b5', 'bb7')
    )
      return true
  }
  // A V that stands, or goes elsewhere, is not altered in major.
  if (altered && !spot.resolving && !fourMinor && spot.kind === 'dominant' && roots.length === 1) return true
  if (spot.role === 'Mixolydian tonic' && puts.some((put) => plainMajor(put))) return true
  if (
    (spot.idiom === 'blues' || spot.idiom === 'minor blues') &&
    spot.kind === 'dominant' &&
    puts.some(
      (put) => plainMajor(put) || (roots.length === 1 && roots[0] !== own && hasDegree(put.chord, 'b3')),
    )
  )
    return true
  if (songs) {
    const minorFive = fourMinor && spot.rel === 7
    if (altered && !minorFive) return true
    if (puts.some((_, at) => roots[at] !== own && isForeign(puts, at, spot))) return true
    if (puts.some(({ chord }) => hasDegree(chord, '13', '#11') && hasSeventhOf(chord))) return true
    if (puts.length > 2 && new Set(roots).size > 2) return true
    // A substitute a half step above its goal is not of this style.
    if (
      puts.some(
        ({ chord }, at) =>
          roots[at] !== own &&
          hasDegree(chord, 'b7') &&
          hasDegree(chord, '3') &&
          tonesOutside(chord, spot.key) > 0 &&
          !leadsByFifth(puts, at, spot),
      )
    )
      return true
  }
  return false
}

/**
 * Outside the key, and neither a V nor a diminished chord on its way, nor borrowed as songs borrow.
 */
function isForeign(puts: readonly Put[], at: number, spot: Spot): boolean {
  const { chord } = itemAt(puts, at)
  if (tonesOutside(chord, spot.key) === 0) return false
  const above = (pitchClass(chord.root) - pitchClass(spot.key.tonic) + 12) % 12
  if (hasDegree(chord, '3') && leadsByFifth(puts, at, spot)) return false
  if (hasDegree(chord, 'bb7') || (hasDegree(chord, 'b3') && hasDegree(chord, 'b5'))) return puts.length === 1
  return !(spot.key.mode === 'major' && ((above === 5 && hasDegree(chord, 'b3')) || above === 10))
}

const hasSeventhOf = (chord: ChordSymbol) => hasDegree(chord, '7', 'b7')

function leadsByFifth(puts: readonly Put[], at: number, spot: Spot): boolean {
  const next = puts[at + 1]?.chord ?? spot.next?.chord
  return (
    next !== undefined && (pitchClass(next.root) - pitchClass(itemAt(puts, at).chord.root) + 12) % 12 === 5
  )
}

/** The same chord twice, under one spelling or two: noise. */
export const saysItTwice = (puts: readonly Put[]): boolean =>
  puts.some(({ chord }, at) => at > 0 && soundOf(chord) === soundOf(itemAt(puts, at - 1).chord))
const soundOf = (chord: ChordSymbol): string =>
  `${bassOf(chord)} ${[...new Set(chord.tones.map(({ note }) => pitchClass(note)))].sort((a, b) => a - b).join()}`

/** Three quick chords and more in the place of one, but where the form turns. */
export const isCrowd = ({ puts, span }: Change, { place }: Spot): boolean =>
  puts.length - span > 1 && place !== 'turnaround' && puts.some(({ beats }) => beats < QUICK)
const QUICK = 2
