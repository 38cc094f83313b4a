import { itemAt } from '../lists'
import { hasDegree } from '../chord/symbol'
import { keyName, scaleNotes, type Key } from '../pitch/key'
import { modulo, noteName, pitchClass, type Note } from '../pitch/note'
import { scaleHolding } from './keyFit'
import type { Kind } from './kind'
import { numeralAs, numeralOver, stepName, targetName, type NumeralSchool } from './numeral'
import type { Place } from './chordPlaces'
import type { HarmonicFunction } from './chordReading'
import type { Role } from './role'

/** What a rule makes of a chord; the numeral is the plain one unless it says otherwise. */
export interface Finding {
  function: HarmonicFunction
  role: Role
  reason: string
  roman?: string
  key?: Key
}

const isMinorKind = (kind: Kind) => kind === 'minor' || kind === 'half-diminished' || kind === 'diminished'
/**
 * A chord that can push a fifth down: a dominant seventh, or a plain major, augmented or suspended
 * one doing its job.
 */
const canPush = (kind: Kind) => ['dominant', 'major', 'augmented', 'suspended'].includes(kind)
const fallsTo = (place: Place, semitones: number): Place | null =>
  place.next && modulo(place.root - place.next.root, 12) === semitones ? place.next : null
const name = (place: Place) => place.chord.canonical
const roleOfPush = (target: Place): Role =>
  isMinorKind(target.kind) ? 'dominant to minor' : 'dominant to major'

/** All tones lie in one scale of the key. */
export const isInside = (place: Place, key: Key): boolean => scaleHolding(place.sounds, key) !== null

/** Chords of the key itself, by mode and step. */
const INSIDE: Record<Key['mode'], Partial<Record<number, readonly [HarmonicFunction, Role, string]>>> = {
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
    3: ['tonic', 'relative major', 'the relative major'],
    5: ['subdominant', 'iv minor', 'leaves home'],
    7: ['dominant', 'home dominant at rest', 'wants to go home'],
    8: ['subdominant', 'borrowed major', 'a half step above the V'],
    10: ['subdominant', 'dominant at rest', 'leads to the relative major or back home'],
    9: ['tonic', 'half-diminished', 'the tonic minor with its sixth in the bass'],
    11: ['dominant', 'diminished', 'a V7b9 without its root'],
  },
}

/** The scales of minor other than the natural one are named where a chord needs them. */
const scaleInWords = (place: Place, key: Key): string => {
  const scale = scaleHolding(place.sounds, key)
  return scale === 'harmonic minor' || scale === 'melodic minor' ? `, in its ${scale}` : ''
}

export function insideRule(place: Place, key: Key): Finding | null {
  const entry = INSIDE[key.mode][place.rel]
  if (!entry) return null
  const [fn, role, what] = entry
  const reason = `${name(place)} belongs to ${keyName(key)}${scaleInWords(place, key)}: ${what}.`
  if (fn === 'dominant' && canPush(place.kind)) {
    const home = fallsTo(place, 7)
    if (home && home.rel === 0)
      return {
        function: fn,
        role: roleOfPush(home),
        reason: `${name(place)} is the V of ${keyName(key)} and goes home to ${name(home)}.`,
      }
    if (place.rel === 7)
      return {
        function: fn,
        role: key.mode === 'minor' ? 'dominant to minor' : fiveAtRest(place.kind),
        reason,
      }
    return { function: fn, role: place.kind === 'minor' ? 'ii minor' : role, reason }
  }
  return { function: fn, role: roleByKind(place.kind, role), reason }
}

/** A V of a major key that does not go home next. */
const fiveAtRest = (kind: Kind): Role => (kind === 'suspended' ? 'suspended' : 'home dominant at rest')

/**
 * A role only fits its own kind of chord; a diminished or power chord keeps its own, and a
 * suspended one takes what its step takes.
 */
function roleByKind(kind: Kind, role: Role): Role {
  switch (kind) {
    case 'major':
      // The IV of a Dorian minor has the flat seventh of its mode.
      if (role === 'iv minor') return 'dominant at rest'
      // The bVII of minor is coloured as a dominant that rests.
      return [
        'I major',
        'IV major',
        'borrowed major',
        'relative major',
        'dominant at rest',
        'Mixolydian tonic',
      ].includes(role)
        ? role
        : 'borrowed major'
    case 'dominant':
      return 'dominant at rest'
    case 'minor':
      return ['ii minor', 'iii minor', 'vi minor', 'iv minor', 'tonic minor'].includes(role)
        ? role
        : 'ii minor'
    // Its third is only held back.
    case 'suspended':
      return role
    case 'half-diminished':
    case 'diminished':
    case 'augmented':
    case 'power':
      return kind
  }
}

/** What the rules need to know besides the chord and its key. */
export interface Manner {
  school: NumeralSchool
  /** I and IV carry the flat seventh all through this tune. */
  blues: boolean
  /** A major home with bVII and no leading note. */
  mixolydian: boolean
}

type ReadingRule = (place: Place, key: Key, manner: Manner) => Finding | null

/** A major or minor key on a chord's root, for the key a passing group speaks in. */
const keyOn = (root: Note, minor: boolean): Key => ({ tonic: root, mode: minor ? 'minor' : 'major' })

const relatedTwo: ReadingRule = (place, key, { school }) => {
  if (place.kind !== 'minor' && place.kind !== 'half-diminished') return null
  const dominant = fallsTo(place, 7)
  if (!dominant || dominant.kind !== 'dominant') return null
  if (isBackdoor(place, dominant)) return null
  const goal = fallsTo(dominant, 7)
  const minor = goal ? isMinorKind(goal.kind) : place.kind === 'half-diminished'
  const tonic = goal?.chord.root ?? fifthBelow(dominant.chord.root)
  const sameAsHome = pitchClass(tonic) === pitchClass(key.tonic)
  if (sameAsHome)
    return place.kind === 'half-diminished' && key.mode === 'major'
      ? {
          function: 'borrowed',
          role: 'half-diminished',
          reason: `${name(place)} is the ii of the parallel minor before ${name(dominant)}.`,
        }
      : null
  const target = targetName(tonic, minor, key.tonic)
  return {
    function: 'related ii',
    role: roleByKind(place.kind, 'ii minor'),
    key: keyOn(tonic, minor),
    roman: numeralOver('II', place.chord, target, school),
    reason: `${name(place)} is the ii before ${name(dominant)}, a ii-V pointing at ${noteName(tonic)}${minor ? ' minor' : ''}${goal ? '' : ', which does not come'}.`,
  }
}

/** iv and bVII7 on the way home are borrowed together; they do not point at the key of bIII. */
export const isBackdoor = (two: Place, dominant: Place): boolean =>
  two.rel === 5 && dominant.rel === 10 && dominant.next?.rel === 0

/** The note a perfect fifth below, spelled by its letter. */
export function fifthBelow(root: Note): Note {
  return itemAt(scaleNotes({ tonic: root, mode: 'major' }), 3)
}

/** The V of a ii-V whose I does not come: it still names its key. */
const dominantOfTwo: ReadingRule = (place, key, { school }) => {
  const two = place.previous
  if (
    place.kind !== 'dominant' ||
    !two ||
    !isMinorKind(two.kind) ||
    two.kind === 'diminished' ||
    place.rel === 7
  )
    return null
  if (modulo(two.root - place.root, 12) !== 7 || fallsTo(place, 7) || isBackdoor(two, place)) return null
  const tonic = fifthBelow(place.chord.root)
  const minor = two.kind === 'half-diminished'
  if (pitchClass(tonic) === pitchClass(key.tonic)) return null
  return {
    function: 'secondary dominant',
    role: minor ? 'dominant to minor' : 'dominant to major',
    key: keyOn(tonic, minor),
    roman: numeralOver('V', place.chord, targetName(tonic, minor, key.tonic), school),
    reason: `${name(place)} is the V after ${name(two)}, a ii-V pointing at ${noteName(tonic)}${minor ? ' minor' : ''}, which does not come.`,
  }
}

const secondaryDominant: ReadingRule = (place, key, { school }) => {
  const target = fallsTo(place, 7)
  if (!target || !canPush(place.kind) || target.rel === 0 || target.kind === 'diminished') return null
  // A plain triad only pushes into a chord of the key: Eb to Ab in C is two borrowed chords, D to G
  // is V of V.
  if (
    place.kind !== 'dominant' &&
    (insideKey(place, key) || place.kind === 'suspended' || !isInside(target, key))
  )
    return null
  const minor = isMinorKind(target.kind)
  return {
    function: 'secondary dominant',
    role: roleOfPush(target),
    key: keyOn(target.chord.root, minor),
    roman: numeralOver('V', place.chord, targetName(target.chord.root, minor, key.tonic), school),
    reason: `${name(place)} is the V of ${name(target)}, which follows.`,
  }
}

const insideKey = (place: Place, key: Key) =>
  isInside(place, key) && INSIDE[key.mode][place.rel] !== undefined

/**
 * A V of a minor chord of the key that goes up a half step instead: III7 to IV is V7/vi, deceptive.
 */
const deceptiveDominant: ReadingRule = (place, key, { school }) => {
  const next = place.wraps ? null : place.next
  if (
    place.kind !== 'dominant' ||
    !next ||
    next.kind === 'dominant' ||
    modulo(next.root - place.root, 12) !== 1
  )
    return null
  const goal = fifthBelow(place.chord.root)
  const step = modulo(pitchClass(goal) - pitchClass(key.tonic), 12)
  if (key.mode !== 'major' || ![2, 4, 9].includes(step)) return null
  return {
    function: 'secondary dominant',
    role: 'dominant to minor',
    key: keyOn(goal, true),
    roman: numeralOver('V', place.chord, targetName(goal, true, key.tonic), school),
    reason: `${name(place)} is the V of ${noteName(goal)} minor and goes up a half step to ${name(next)} instead: deceptive.`,
  }
}

const substituteDominant: ReadingRule = (place, key, { school }) => {
  const target = fallsTo(place, 1)
  if (!target || place.kind !== 'dominant') return null
  const minor = isMinorKind(target.kind)
  const home = target.rel === 0
  return {
    function: 'substitute dominant',
    role: 'dominant at rest',
    key: home ? key : keyOn(target.chord.root, minor),
    roman: home
      ? numeralAs('bII', place.chord, school)
      : numeralOver('bII', place.chord, targetName(target.chord.root, minor, key.tonic), school),
    reason: `${name(place)} falls a half step to ${name(target)}: it has the third and seventh of its V, swapped.`,
  }
}

const bluesSeventh: ReadingRule = (place, key) => {
  if (place.kind !== 'dominant' || (place.rel !== 0 && place.rel !== 5)) return null
  // Going to IV it is also the V of that chord.
  if (place.rel === 0 && fallsTo(place, 7))
    return {
      function: 'blues',
      role: 'blues I into IV',
      reason: `${name(place)} is the I of ${keyName(key)} with the flat seventh of the blues, and the V of ${name(place.next!)}, which follows.`,
    }
  return {
    function: 'blues',
    role: 'dominant at rest',
    reason: `${name(place)} is the ${place.rel === 0 ? 'I' : 'IV'} of ${keyName(key)} with the flat seventh of the blues.`,
  }
}

const borrowedChord: ReadingRule = (place, key) => {
  if (key.mode === 'minor') {
    if (place.rel === 5 && (place.kind === 'major' || place.kind === 'dominant'))
      return {
        function: 'borrowed',
        role: 'dominant at rest',
        reason: `${name(place)} is the IV of the parallel major, with the raised sixth of the minor scale.`,
      }
    if (place.rel === 0 && place.kind === 'major')
      return {
        function: 'borrowed',
        role: 'I major',
        reason: `${name(place)} is home in major, a brighter ending.`,
      }
    if (place.rel === 1 && place.kind === 'major')
      return {
        function: 'borrowed',
        role: 'borrowed major',
        reason: `${name(place)} is the flat II, a half step above home (Neapolitan): it goes to the V or home.`,
      }
    if (place.rel === 2 && place.kind === 'minor')
      return {
        function: 'borrowed',
        role: 'ii minor',
        reason: `${name(place)} is the ii of the parallel major, as in Dorian.`,
      }
    return null
  }
  const entry = BORROWED[place.rel]
  if (!entry || !entry.kinds.includes(place.kind)) return null
  return {
    function: 'borrowed',
    role: entry.role(place.kind),
    reason: `${name(place)} is borrowed from ${keyName({ tonic: key.tonic, mode: 'minor' })}: ${entry.says}.`,
  }
}

const BORROWED: Partial<Record<number, { kinds: Kind[]; role: (kind: Kind) => Role; says: string }>> = {
  0: { kinds: ['minor'], role: () => 'tonic minor', says: 'home turned minor' },
  1: { kinds: ['major'], role: () => 'borrowed major', says: 'the flat II, a half step above home' },
  2: { kinds: ['half-diminished'], role: () => 'half-diminished', says: 'the ii of a minor ii-V' },
  3: { kinds: ['major'], role: () => 'relative major', says: 'the relative major of the parallel minor' },
  5: { kinds: ['minor'], role: () => 'iv minor', says: 'the minor iv, whose flat sixth falls to the fifth' },
  7: { kinds: ['minor'], role: () => 'ii minor', says: 'the minor v, without the leading note' },
  8: {
    kinds: ['major', 'dominant'],
    role: (kind) => (kind === 'dominant' ? 'dominant at rest' : 'borrowed major'),
    says: 'the flat VI',
  },
  10: {
    kinds: ['major', 'dominant'],
    role: (kind) => (kind === 'dominant' ? 'dominant at rest' : 'borrowed major'),
    says: 'the flat VII, which can come home from behind',
  },
}

/** A standing chord with one tone on its way to the next: C C+ C6, Cm Cm(maj7) Cm7. */
const lineChord: ReadingRule = (place) => {
  const sameRoot = (other: Place | null) => other !== null && other.root === place.root
  if (place.kind === 'dominant' || (!sameRoot(place.previous) && !(sameRoot(place.next) && !place.wraps)))
    return null
  const other = sameRoot(place.previous) ? place.previous! : place.next!
  return {
    function: 'line chord',
    role: roleByKind(place.kind, 'I major'),
    reason: `${name(place)} is ${name(other)} standing on while one of its tones moves.`,
  }
}

const diminishedChord: ReadingRule = (place, key, { school }) => {
  if (place.kind !== 'diminished' && !(place.kind === 'half-diminished' && !isInside(place, key))) return null
  const next = place.next && !place.wraps ? place.next : null
  if (!next) return null
  const bassOf = ({ chord }: Place) => pitchClass(chord.bass ?? chord.root)
  // By its own bass and the bass it goes to: #IV°7 leads to I over 5.
  const byBass = modulo(bassOf(next) - bassOf(place), 12)
  if (place.kind === 'diminished' && next.chord.bass && (byBass === 1 || byBass === 11))
    return {
      function: 'passing diminished',
      role: 'diminished',
      reason: `The bass of ${name(place)} goes ${byBass === 1 ? 'up' : 'down'} a half step to that of ${name(next)}.`,
    }
  const rise = modulo(next.root - place.root, 12)
  const from = place.previous ? modulo(place.root - place.previous.root, 12) : null
  if (place.kind === 'diminished' && place.rel === 6 && next.rel === 0)
    return {
      function: 'passing diminished',
      role: 'diminished',
      reason: `${name(place)} is the #IV°, on its way from the IV to the fifth of ${name(next)}.`,
    }
  if (rise === 0 && place.kind === 'diminished')
    return {
      function: 'common-tone diminished',
      role: 'diminished',
      reason: `${name(place)} shares its root with ${name(next)}, which follows.`,
    }
  if (place.kind === 'diminished' && ((rise === 1 && from === 1) || (rise === 11 && from === 11)))
    return {
      function: 'passing diminished',
      role: 'diminished',
      reason: `${name(place)} fills the whole step between ${name(place.previous!)} and ${name(next)}.`,
    }
  if (rise === 1) {
    const minor = isMinorKind(next.kind)
    return {
      function: 'leading diminished',
      role: roleByKind(place.kind, 'half-diminished'),
      key: keyOn(next.chord.root, minor),
      ...(next.rel === 0
        ? {}
        : { roman: numeralOver('VII', place.chord, targetName(next.chord.root, minor, key.tonic), school) }),
      reason: `${name(place)} leads up a half step into ${name(next)}: the V7b9 of it without its root.`,
    }
  }
  if (rise === 11)
    return {
      function: 'passing diminished',
      role: 'diminished',
      reason: `${name(place)} steps down a half step into ${name(next)}.`,
    }
  return null
}

const qualityFlip: ReadingRule = (place, key) => {
  if (key.mode !== 'major' || (place.kind !== 'major' && place.kind !== 'dominant')) return null
  if (![2, 4, 9].includes(place.rel)) return null
  return {
    function: 'quality flip',
    role: 'dominant at rest',
    reason: `${name(place)} is the ${stepName(place.chord.root, key.tonic)} of ${keyName(key)} made major: brighter, pushing on.`,
  }
}

const chromaticApproach: ReadingRule = (place) => {
  if (!place.next || place.wraps || place.next.kind !== place.kind) return null
  const rise = modulo(place.next.root - place.root, 12)
  if (rise !== 1 && rise !== 11) return null
  return {
    function: 'chromatic approach',
    role: roleByKind(place.kind, 'ii minor'),
    reason: `${name(place)} is the shape of ${name(place.next)} from a half step ${rise === 1 ? 'below' : 'above'}.`,
  }
}

/** A chord over the bass of V does the work of V. */
const overFive: ReadingRule = (place, key) => {
  if (!place.overFive) return null
  const home = fallsTo(place, 7)
  const what = `${name(place)} is the V of ${keyName(key)} without its third, a ${place.overFive}`
  return {
    function: 'dominant',
    role: home?.rel === 0 ? roleOfPush(home) : 'home dominant at rest',
    roman: place.overFive,
    reason: home?.rel === 0 ? `${what}, and goes home to ${name(home)}.` : `${what}.`,
  }
}

/** Home with its raised fourth. */
const lydianTonic: ReadingRule = (place, key) =>
  key.mode === 'major' && place.rel === 0 && place.kind === 'major' && hasDegree(place.chord, '#11', 'b5')
    ? {
        function: 'tonic',
        role: 'I major',
        reason: `${name(place)} is home in ${keyName(key)} with its raised fourth: a Lydian tonic.`,
      }
    : null

/** Home in Mixolydian takes the flat seventh of its mode. */
const mixolydianTonic: ReadingRule = (place, key, { mixolydian }) =>
  mixolydian && key.mode === 'major' && place.rel === 0 && ['major', 'dominant'].includes(place.kind)
    ? {
        function: 'tonic',
        role: 'Mixolydian tonic',
        reason: `${name(place)} is home in ${noteName(key.tonic)} Mixolydian: the tune has the flat seventh and no leading note.`,
      }
    : null

/** In the order in which a player would try them. */
const OUTSIDE_RULES: readonly ReadingRule[] = [
  lydianTonic,
  relatedTwo,
  secondaryDominant,
  deceptiveDominant,
  substituteDominant,
  dominantOfTwo,
  bluesSeventh,
  borrowedChord,
  diminishedChord,
  lineChord,
  qualityFlip,
  chromaticApproach,
]

/**
 * Every rule that explains a chord in its key, the first explanation first; the last resort where
 * there is none.
 */
export function findingsOf(place: Place, manner: Manner): [Finding, ...Finding[]] {
  const { key } = place
  const rules = manner.blues ? [bluesSeventh, ...OUTSIDE_RULES] : OUTSIDE_RULES
  const [first, ...rest] = [
    overFive(place, key, manner),
    mixolydianTonic(place, key, manner),
    isInside(place, key) ? insideRule(place, key) : null,
    ...rules.map((rule) => rule(place, key, manner)),
  ].filter((finding) => finding !== null)
  return first ? [first, ...rest] : [lastResort(place, key)]
}

/** A suspended chord outside the key takes what its step takes. */
const SUSPENDED: Record<Key['mode'], Partial<Record<number, Role>>> = {
  major: {
    0: 'I major',
    1: 'borrowed major',
    2: 'ii minor',
    3: 'borrowed major',
    5: 'IV major',
    7: 'suspended',
    8: 'borrowed major',
    9: 'vi minor',
    10: 'borrowed major',
  },
  minor: {
    0: 'tonic minor',
    3: 'borrowed major',
    5: 'iv minor',
    7: 'suspended',
    8: 'borrowed major',
    10: 'dominant at rest',
  },
}

function lastResort(place: Place, key: Key): Finding {
  const pushes = place.kind === 'dominant' || hasDegree(place.chord, 'b7')
  const home = fallsTo(place, 7)
  if (pushes && home?.rel === 0)
    return {
      function: 'dominant',
      role: roleOfPush(home),
      reason: `${name(place)} is the V of ${keyName(key)} with altered tones and goes home to ${name(home)}.`,
    }
  if (place.rel === 7 && canPush(place.kind))
    return {
      function: 'dominant',
      role: place.key.mode === 'minor' ? 'dominant to minor' : 'home dominant at rest',
      reason: `${name(place)} stands on the V of ${keyName(key)}.`,
    }
  const plain = place.kind === 'dominant' ? 'dominant at rest' : roleByKind(place.kind, 'ii minor')
  const role = place.kind === 'suspended' ? (SUSPENDED[key.mode][place.rel] ?? 'power') : plain
  return {
    function: 'outside',
    role,
    reason: `${name(place)} is outside ${keyName(key)} and does not lead to the chord after it by a usual way.`,
  }
}
