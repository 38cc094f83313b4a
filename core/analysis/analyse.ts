import { slotsOf, type Chart, type Slot } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import { hasDegree } from '../chord/symbol'
import { keyName, scaleNotes, scaleSounds, type Key } from '../pitch/key'
import { modulo, noteName, pitchClass, type Note } from '../pitch/note'
import { findKey } from './findKey'
import { groupsOf } from './groups'
import { kindOf, type Kind } from './kind'
import { numeralOf, numeralOver, stepName, targetName, type NumeralSchool } from './numeral'
import type { Analysis, Function, Reading, Role } from './reading'

/** A chord with its neighbours, as the rules below see it. */
export interface Place {
  slot: Slot
  chord: ChordSymbol
  kind: Kind
  /** Semitones above the home tonic. */
  rel: number
  /** The next different chord; after the last one the form begins again. */
  next: Place | null
  previous: Place | null
  /** `next` is reached by going back to the top. */
  wraps: boolean
}

/**
 * Reads a chart in its key: a numeral, a function and a reason for each chord, and the groups they make.
 * The rules are those of theory: reading a progression (common practice).
 */
export function analyse(chart: Chart, school: NumeralSchool = 'case'): Analysis {
  const slots = slotsOf(chart)
  const key = chart.key ?? findKey(slots)
  const places = placesOf(slots, key)
  return {
    key,
    keyGuessed: chart.key === null,
    readings: places.map((place) => readPlace(place, key, school)),
    groups: groupsOf(places, key),
  }
}

function placesOf(slots: readonly Slot[], key: Key): Place[] {
  const places = slots.flatMap((slot): Place[] => {
    if (slot.symbol?.kind !== 'chord') return []
    const { chord } = slot.symbol
    return [{ slot, chord, kind: kindOf(chord), rel: modulo(pitchClass(chord.root) - pitchClass(key.tonic), 12), next: null, previous: null, wraps: false }]
  })
  const same = (a: Place, b: Place) => a.chord.canonical === b.chord.canonical
  places.forEach((place, at) => {
    for (let ahead = 1; ahead < places.length && !place.next; ahead += 1) {
      const other = places[(at + ahead) % places.length]!
      if (same(place, other)) continue
      place.next = other
      place.wraps = at + ahead >= places.length
    }
    for (let back = at - 1; back >= 0 && !place.previous; back -= 1) if (!same(place, places[back]!)) place.previous = places[back]!
  })
  return places
}

/** What a rule makes of a chord; the numeral is the plain one unless it says otherwise. */
interface Finding {
  function: Function
  role: Role
  reason: string
  roman?: string
  key?: Key
}

function readPlace(place: Place, key: Key, school: NumeralSchool): Reading {
  const plain = numeralOf(place.chord, key, school)
  const diatonic = isDiatonic(place, key)
  const findings = [diatonic ? insideRule(place, key) : null, ...OUTSIDE_RULES.map((rule) => rule(place, key, school))].filter((f) => f !== null)
  const [first, ...others] = findings.length > 0 ? findings : [lastResort(place, key)]
  const { roman = plain, key: local = key, ...found } = first!
  return {
    slot: place.slot, roman, key: local, diatonic, ...found,
    alternatives: others
      .map((other) => ({ roman: other.roman ?? plain, reason: other.reason }))
      .filter((other, at, all) => other.roman !== roman && all.findIndex((same) => same.roman === other.roman) === at),
  }
}

/** The seventh or sixth of a chord may be outside in minor when its third and fifth ask for the raised scale. */
function isDiatonic({ chord, rel, kind }: Place, key: Key): boolean {
  const sounds = scaleSounds(key)
  if (key.mode === 'minor') {
    const raisedSeventh = modulo(pitchClass(key.tonic) + 11, 12)
    const raisedSixth = modulo(pitchClass(key.tonic) + 9, 12)
    if (rel === 7 && kind !== 'minor') { sounds.delete(modulo(raisedSeventh - 1, 12)); sounds.add(raisedSeventh) }
    if (rel === 11 && kind === 'diminished') sounds.add(raisedSeventh)
    // The tonic minor takes its natural sixth and its major seventh.
    if (rel === 0 && kind === 'minor') sounds.add(raisedSeventh).add(raisedSixth)
  }
  return chord.tones.every((tone) => sounds.has(pitchClass(tone.note)))
}

const isMinorKind = (kind: Kind) => kind === 'minor' || kind === 'half-diminished' || kind === 'diminished'
/** A chord that can push a fifth down: a dominant seventh, or a plain major, augmented or suspended one doing its job. */
const canPush = (kind: Kind) => ['dominant', 'major', 'augmented', 'suspended'].includes(kind)
const fallsTo = (place: Place, semitones: number): Place | null =>
  place.next && modulo(pitchClass(place.chord.root) - pitchClass(place.next.chord.root), 12) === semitones ? place.next : null
const name = (place: Place) => place.chord.canonical
const roleOfPush = (target: Place): Role => (isMinorKind(target.kind) ? 'dominant to minor' : 'dominant to major')

/** Chords of the key itself, by mode and step. */
const INSIDE: Record<Key['mode'], Partial<Record<number, readonly [Function, Role, string]>>> = {
  major: {
    0: ['tonic', 'I major', 'home'],
    2: ['subdominant', 'ii minor', 'prepares the V'],
    4: ['tonic', 'iii minor', 'shares two tones with I and stands for it'],
    5: ['subdominant', 'IV major', 'leaves home'],
    7: ['dominant', 'home dominant at rest', 'wants to go home'],
    9: ['tonic', 'vi minor', 'the relative minor, shares two tones with I'],
    11: ['dominant', 'half-diminished', 'a V9 without its root'],
  },
  minor: {
    0: ['tonic', 'tonic minor', 'home'],
    2: ['subdominant', 'half-diminished', 'prepares the V'],
    3: ['tonic', 'borrowed major', 'the relative major'],
    5: ['subdominant', 'iv minor', 'leaves home'],
    7: ['dominant', 'home dominant at rest', 'wants to go home'],
    8: ['subdominant', 'borrowed major', 'a half step above the V'],
    10: ['subdominant', 'dominant at rest', 'leads to the relative major or back home'],
    11: ['dominant', 'diminished', 'a V7b9 without its root'],
  },
}

function insideRule(place: Place, key: Key): Finding | null {
  const entry = INSIDE[key.mode][place.rel]
  if (!entry) return null
  const [fn, role, what] = entry
  const reason = `${name(place)} belongs to ${keyName(key)}: ${what}.`
  if (fn === 'dominant' && canPush(place.kind)) {
    const home = fallsTo(place, 7)
    if (home && home.rel === 0) return { function: fn, role: roleOfPush(home), reason: `${name(place)} is the V of ${keyName(key)} and goes home to ${name(home)}.` }
    return { function: fn, role: place.kind === 'minor' ? 'ii minor' : role, reason }
  }
  return { function: fn, role: roleByKind(place.kind, role), reason }
}

/** A role only fits its own kind of chord; a suspended, diminished or power chord keeps its own. */
function roleByKind(kind: Kind, role: Role): Role {
  switch (kind) {
    case 'major':
      return ['I major', 'IV major', 'borrowed major'].includes(role) ? role : 'borrowed major'
    case 'dominant':
      return 'dominant at rest'
    case 'minor':
      return ['ii minor', 'iii minor', 'vi minor', 'iv minor', 'tonic minor'].includes(role) ? role : 'ii minor'
    case 'half-diminished': case 'diminished': case 'augmented': case 'suspended': case 'power':
      return kind
  }
}

type Rule = (place: Place, key: Key, school: NumeralSchool) => Finding | null

/** A major or minor key on a chord's root, for the key a passing group speaks in. */
const keyOn = (root: Note, minor: boolean): Key => ({ tonic: root, mode: minor ? 'minor' : 'major' })

const relatedTwo: Rule = (place, key, school) => {
  if (place.kind !== 'minor' && place.kind !== 'half-diminished') return null
  const dominant = place.wraps ? null : fallsTo(place, 7)
  if (!dominant || dominant.kind !== 'dominant') return null
  if (isBackdoor(place, dominant)) return null
  const goal = fallsTo(dominant, 7)
  const minor = goal ? isMinorKind(goal.kind) : place.kind === 'half-diminished'
  const tonic = goal?.chord.root ?? fifthBelow(dominant.chord.root)
  const sameAsHome = pitchClass(tonic) === pitchClass(key.tonic)
  if (sameAsHome) return place.kind === 'half-diminished' && key.mode === 'major'
    ? { function: 'borrowed', role: 'half-diminished', reason: `${name(place)} is the ii of the parallel minor before ${name(dominant)}.` }
    : null
  const target = targetName(tonic, minor, key.tonic)
  return {
    function: 'related ii', role: roleByKind(place.kind, 'ii minor'), key: keyOn(tonic, minor),
    roman: numeralOver('II', place.chord, target, school),
    reason: `${name(place)} is the ii before ${name(dominant)}, a ii-V pointing at ${noteName(tonic)}${minor ? ' minor' : ''}${goal ? '' : ', which does not come'}.`,
  }
}

/** iv and bVII7 on the way home are borrowed together; they do not point at the key of bIII. */
const isBackdoor = (two: Place, dominant: Place): boolean => two.rel === 5 && dominant.rel === 10 && dominant.next?.rel === 0

/** The note a perfect fifth below, spelled by its letter. */
function fifthBelow(root: Note): Note {
  return scaleNotes({ tonic: root, mode: 'major' })[3]!
}

const secondaryDominant: Rule = (place, key, school) => {
  const target = fallsTo(place, 7)
  if (!target || place.wraps || !canPush(place.kind) || target.rel === 0 || target.kind === 'diminished') return null
  // A plain triad only pushes into a chord of the key: Eb to Ab in C is two borrowed chords, D to G is V of V.
  if (place.kind !== 'dominant' && (insideKey(place, key) || place.kind === 'suspended' || !isDiatonic(target, key))) return null
  const minor = isMinorKind(target.kind)
  return {
    function: 'secondary dominant', role: roleOfPush(target), key: keyOn(target.chord.root, minor),
    roman: numeralOver('V', place.chord, targetName(target.chord.root, minor, key.tonic), school),
    reason: `${name(place)} is the V of ${name(target)}, which follows.`,
  }
}

const insideKey = (place: Place, key: Key) => isDiatonic(place, key) && INSIDE[key.mode][place.rel] !== undefined

const substituteDominant: Rule = (place, key, school) => {
  const target = fallsTo(place, 1)
  if (!target || place.kind !== 'dominant') return null
  const minor = isMinorKind(target.kind)
  const home = target.rel === 0
  return {
    function: 'substitute dominant', role: 'dominant at rest',
    key: home ? key : keyOn(target.chord.root, minor),
    ...(home ? {} : { roman: numeralOver('bII', place.chord, targetName(target.chord.root, minor, key.tonic), school) }),
    reason: `${name(place)} falls a half step to ${name(target)}: it has the third and seventh of its V, swapped.`,
  }
}

const bluesSeventh: Rule = (place, key) => {
  if (place.kind !== 'dominant' || (place.rel !== 0 && place.rel !== 5)) return null
  return { function: 'blues', role: 'dominant at rest', reason: `${name(place)} is the ${place.rel === 0 ? 'I' : 'IV'} of ${keyName(key)} with the flat seventh of the blues.` }
}

const borrowedChord: Rule = (place, key) => {
  if (key.mode === 'minor') {
    if (place.rel === 5 && (place.kind === 'major' || place.kind === 'dominant'))
      return { function: 'borrowed', role: 'dominant at rest', reason: `${name(place)} is the IV of the parallel major, with the raised sixth of the minor scale.` }
    if (place.rel === 0 && place.kind === 'major') return { function: 'borrowed', role: 'I major', reason: `${name(place)} is home in major, a brighter ending.` }
    if (place.rel === 2 && place.kind === 'minor') return { function: 'borrowed', role: 'ii minor', reason: `${name(place)} is the ii of the parallel major.` }
    return null
  }
  const entry = BORROWED[place.rel]
  if (!entry || !entry.kinds.includes(place.kind)) return null
  return { function: 'borrowed', role: entry.role(place.kind), reason: `${name(place)} is borrowed from ${keyName({ tonic: key.tonic, mode: 'minor' })}: ${entry.says}.` }
}

const BORROWED: Partial<Record<number, { kinds: Kind[]; role: (kind: Kind) => Role; says: string }>> = {
  0: { kinds: ['minor'], role: () => 'tonic minor', says: 'home turned minor' },
  1: { kinds: ['major'], role: () => 'borrowed major', says: 'the flat II, a half step above home' },
  2: { kinds: ['half-diminished'], role: () => 'half-diminished', says: 'the ii of a minor ii-V' },
  3: { kinds: ['major'], role: () => 'borrowed major', says: 'the relative major of the parallel minor' },
  5: { kinds: ['minor'], role: () => 'iv minor', says: 'the minor iv, whose flat sixth falls to the fifth' },
  7: { kinds: ['minor'], role: () => 'ii minor', says: 'the minor v, without the leading note' },
  8: { kinds: ['major', 'dominant'], role: (kind) => (kind === 'dominant' ? 'dominant at rest' : 'borrowed major'), says: 'the flat VI' },
  10: { kinds: ['major', 'dominant'], role: (kind) => (kind === 'dominant' ? 'dominant at rest' : 'borrowed major'), says: 'the flat VII, which can come home from behind' },
}

const diminishedChord: Rule = (place, key, school) => {
  if (place.kind !== 'diminished' && !(place.kind === 'half-diminished' && !isDiatonic(place, key))) return null
  const next = place.next && !place.wraps ? place.next : null
  if (!next) return null
  const rise = modulo(pitchClass(next.chord.root) - pitchClass(place.chord.root), 12)
  const from = place.previous ? modulo(pitchClass(place.chord.root) - pitchClass(place.previous.chord.root), 12) : null
  if (rise === 0 && place.kind === 'diminished')
    return { function: 'common-tone diminished', role: 'diminished', reason: `${name(place)} shares its root with ${name(next)}, which follows.` }
  if (place.kind === 'diminished' && ((rise === 1 && from === 1) || (rise === 11 && from === 11)))
    return { function: 'passing diminished', role: 'diminished', reason: `${name(place)} fills the whole step between ${name(place.previous!)} and ${name(next)}.` }
  if (rise === 1) {
    const minor = isMinorKind(next.kind)
    return {
      function: 'leading diminished', role: roleByKind(place.kind, 'half-diminished'), key: keyOn(next.chord.root, minor),
      ...(next.rel === 0 ? {} : { roman: numeralOver('VII', place.chord, targetName(next.chord.root, minor, key.tonic), school) }),
      reason: `${name(place)} leads up a half step into ${name(next)}: the V7b9 of it without its root.`,
    }
  }
  if (rise === 11) return { function: 'passing diminished', role: 'diminished', reason: `${name(place)} steps down a half step into ${name(next)}.` }
  return null
}

const qualityFlip: Rule = (place, key) => {
  if (key.mode !== 'major' || (place.kind !== 'major' && place.kind !== 'dominant')) return null
  if (![2, 4, 9].includes(place.rel)) return null
  return {
    function: 'quality flip', role: 'dominant at rest',
    reason: `${name(place)} is the ${stepName(place.chord.root, key.tonic)} of ${keyName(key)} made major: brighter, pushing on.`,
  }
}

const chromaticApproach: Rule = (place) => {
  if (!place.next || place.wraps || place.next.kind !== place.kind) return null
  const rise = modulo(pitchClass(place.next.chord.root) - pitchClass(place.chord.root), 12)
  if (rise !== 1 && rise !== 11) return null
  return {
    function: 'chromatic approach', role: roleByKind(place.kind, 'ii minor'),
    reason: `${name(place)} is the shape of ${name(place.next)} from a half step ${rise === 1 ? 'below' : 'above'}.`,
  }
}

/** In the order in which a player would try them. */
const OUTSIDE_RULES: readonly Rule[] = [
  relatedTwo, secondaryDominant, substituteDominant, bluesSeventh, borrowedChord, diminishedChord, qualityFlip, chromaticApproach,
]

function lastResort(place: Place, key: Key): Finding {
  const pushes = place.kind === 'dominant' || hasDegree(place.chord, 'b7')
  const home = fallsTo(place, 7)
  if (pushes && home?.rel === 0) return { function: 'dominant', role: roleOfPush(home), reason: `${name(place)} is the V of ${keyName(key)} with altered tones and goes home to ${name(home)}.` }
  if (place.rel === 7 && canPush(place.kind)) return { function: 'dominant', role: home?.rel === 0 ? roleOfPush(home) : 'home dominant at rest', reason: `${name(place)} stands on the V of ${keyName(key)}.` }
  const role = place.kind === 'dominant' ? 'dominant at rest' : roleByKind(place.kind, 'ii minor')
  return { function: 'outside', role, reason: `${name(place)} is outside ${keyName(key)} and does not lead to the chord after it by a usual way.` }
}
