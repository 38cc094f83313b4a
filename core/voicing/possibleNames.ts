import { firstOf } from '../lists'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import { scaleNotes, signatureOf, type Key } from '../pitch/key'
import { noteName, pitchClass, plainSpelling, type Note } from '../pitch/note'
import { must } from '../result'
import { requirementOf } from './requirement'
import { ToneNames } from './voicing'

/** A chord that a set of sounding notes can be called. */
export interface PossibleName {
  chord: ChordSymbol
  /** For each sounding note as given. */
  degrees: Degree[]
  rootless: boolean
  /** Tones of the chord that do not sound, and sounds that sound more than once, by degree. */
  missing: Degree[]
  doubled: Degree[]
  /** Sounds that even this name does not hold: 0 for every usual name. */
  outside: number
  /** Lower is the likelier name; 0 is a plain triad in root position. */
  score: number
}

/**
 * Every suffix a grip may be called by, the plainest first. The place in the list is part of the
 * score: of two names that fit equally the plainer one is likelier.
 */
// prettier-ignore
const SUFFIXES = [
  '', 'm', '7', 'maj7', 'm7', '6', 'm6', 'dim', 'dim7', 'm7b5', 'aug', 'sus4', 'sus2', '7sus4', '5',
  '9', 'maj9', 'm9', '6/9', 'm6/9', 'add9', 'madd9', 'm(maj7)', '7b9', '7#9', '7#5', '7b5', '13', '9sus4', 'm11', 'maj7#11', '11',
  'maj7#5', '9#11', '7#11', '7b13', '13sus4', '13b9', 'maj13', 'm13', '7b9b13', '7#9b13', '7b5b9', '7#5#9', '7b5#9', '9#5', '9b5',
  'm(maj9)', '13#11', 'maj9#11', 'm7add11', 'm7b5add11', 'm9b5', 'add11', 'madd11', 'maj7b5', 'dim(maj7)', '7sus4b9', '7add11', '(b5)', 'maj7sus4', 'sus2sus4', 'm#5',
] as const

/**
 * Price of what makes a name less likely, in places of the list above. Common practice, no source.
 */
const PRICE = {
  missing: 6,
  slash: 9,
  /** A bass that is only a tension of it. */
  slashOnTension: 26,
  /** A bass that is a stranger to the chord: altered names and #11 names come before it. */
  foreignBass: 48,
  rootless: 24,
  rootlessGiven: 6,
  /** The lowest note as the root counts where its third or seventh sounds too. */
  onTheBass: -20,
  /**
   * A triad over the note a whole step above its root is how a suspended dominant is often written.
   */
  triadOverSus: 24,
  /** The chord that chart and bass have at that moment: what colours it is called by it. */
  ofTheMoment: -64,
  /** The root lies in the key; what stands next to it in the tune falls or rises a fifth to it. */
  inKey: -2,
  /** A dominant that falls a fifth to what follows. */
  goesOn: -10,
  /** A name put together tone by tone, and each sound that even it does not hold. */
  built: 70,
  outside: 20,
} as const

/** Where a grip stands, which decides between its names. */
export interface NamedWhere {
  /**
   * A root to read the notes against, sounding or not; only names on it are given, and there always
   * is one for two or more different notes.
   */
  over?: Note | undefined
  /** Decides flats or sharps for roots, and which of two names is likelier. */
  key?: Key | undefined
  /**
   * What chart and bass play at that moment: a reading of it stands before all others where its
   * third and seventh sound.
   */
  chord?: ChordSymbol | undefined
  /** What is played before and after it: a dominant that goes to what follows is likelier. */
  before?: ChordSymbol | undefined
  after?: ChordSymbol | undefined
}

/** Tones that stand above a chord. */
const ON_TOP: readonly Degree[] = ['9', 'b9', '#9', '11', '#11', '13', 'b13']

/** Chords of every root, spelled as they are usually read, by suffix. */
const KNOWN = new Map<string, ChordSymbol>()

/**
 * What a root is called under a suffix: without double signs, without names nobody reads; in a key
 * as the key has it.
 */
function usually(pc: number, suffix: string, key: Key | undefined): ChordSymbol {
  const id = `${pc} ${suffix} ${key ? `${signatureOf(key)}` : ''}`
  const known = KNOWN.get(id)
  if (known) return known
  const sharps = key ? signatureOf(key) > 0 : pc === F_SHARP
  const both = [plainSpelling(pc, sharps), plainSpelling(pc, !sharps)].map((root) =>
    must(parseChord(noteName(root) + suffix)),
  )
  const [first, second] = both.map((chord) => ({ chord, awkward: awkwardness(chord) }))
  const inKey = key !== undefined && signatureOf(key) !== 0 && suffix !== 'dim7'
  const chosen = first!.awkward <= second!.awkward + (inKey ? KEY_FIRST : 0) ? first!.chord : second!.chord
  KNOWN.set(id, chosen)
  return chosen
}
/** Names up to here in the list are told apart one by one; behind it they are all rare. */
const USUAL = 30
/** The one black key that is read with a sharp where nothing decides. */
const F_SHARP = 6
/** How much more awkward a name may be because the key has it. */
const KEY_FIRST = 2
const AWKWARD_NOTES: readonly string[] = ['Cb', 'Fb', 'E#', 'B#']
const DIM_ROOTS: readonly string[] = ['C#', 'Eb', 'F#', 'G#', 'Bb']
/** A diminished seventh is read by its root: its other tones are spelled freely. */
function awkwardness({ tones, root, suffix }: ChordSymbol): number {
  if (suffix !== 'dim7') return tones.reduce((sum, { note }) => sum + awkwardnessOf(note), 0)
  return root.alter === 0 || DIM_ROOTS.includes(noteName(root)) ? 0 : 1
}
function awkwardnessOf(note: Note): number {
  if (Math.abs(note.alter) > 1) return 5
  return AWKWARD_NOTES.includes(noteName(note)) ? 2 : Math.abs(note.alter)
}

/**
 * The names a set of sounding notes can have, likeliest first.
 * @param midis sounding notes; the lowest is the bass
 */
export function namesOf(midis: readonly number[], options: NamedWhere = {}): PossibleName[] {
  if (midis.length === 0) return []
  const sounds = midis.reduce((bits, midi) => bits | (1 << (midi % 12)), 0)
  const bass = Math.min(...midis) % 12
  const { over, key, chord: moment, before, after } = options
  const scale = key ? new Set(scaleNotes(key).map(pitchClass)) : null
  const sharps = key ? signatureOf(key) > 0 : false
  const roots = over ? [pitchClass(over)] : Array.from({ length: 12 }, (_, pc) => pc)
  const named = (pc: number, suffix: string) => (over ? overRoot(over, suffix) : usually(pc, suffix, key))

  const names: PossibleName[] = []
  const add = (plain: ChordSymbol, price: number, outside = 0) => {
    const pc = pitchClass(plain.root)
    const sounding = (sounds & (1 << pc)) !== 0
    const bassIsTone = plain.tones.some(({ note }) => pitchClass(note) === bass)
    const slash =
      bass !== pc && sounding
        ? (plain.tones.find(({ note }) => pitchClass(note) === bass)?.note ??
          plainSpelling(bass, sharps || plain.tones.some(({ note }) => note.alter > 0)))
        : null
    const chord = slash ? withBass(plain, slash, bass) : plain
    const missing = plain.tones.filter((tone) => (sounds & (1 << pitchClass(tone.note))) === 0)
    let score =
      price + PRICE.missing * missing.filter((tone) => tone.need !== 'root').length + PRICE.outside * outside
    if (!sounding) score += over ? PRICE.rootlessGiven : PRICE.rootless
    else if (bass !== pc) {
      const isSus = plain.tones.length === 3 && (bass - pc + 12) % 12 === 2
      const isTension =
        slash !== null &&
        plain.tones.some(({ note, degree }) => pitchClass(note) === bass && ON_TOP.includes(degree))
      if (bassIsTone) score += isTension ? PRICE.slashOnTension : PRICE.slash
      else score += isSus ? PRICE.triadOverSus : PRICE.foreignBass
    } else if (
      !over &&
      countBits(sounds) > 3 &&
      [3, 4, 10, 11].some((up) => sounds & (1 << ((pc + up) % 12)))
    )
      score += PRICE.onTheBass
    if (!over && scale?.has(pc)) score += PRICE.inKey
    if (moment && pc === pitchClass(moment.root) && isColourOf(plain, moment, sounds))
      score += PRICE.ofTheMoment
    if (after && pushesTo(plain, after, sounds)) score += PRICE.goesOn
    if (before && pc === pitchClass(before.root) && !moment) score += PRICE.inKey
    const toneNames = new ToneNames(chord)
    const degrees = midis.map((midi) => toneNames.of(midi)[0])
    names.push({
      chord,
      score,
      outside,
      rootless: !sounding,
      degrees,
      missing: missing.map((tone) => tone.degree),
      doubled: [...new Set(degrees.filter((degree, at) => degrees.indexOf(degree) !== at))],
    })
  }
  for (const root of roots)
    SUFFIXES.forEach((suffix, plainness) => {
      const plain = named(root, suffix)
      const sounding = (sounds & (1 << root)) !== 0
      const tones = plain.tones.reduce((bits, tone) => bits | (1 << pitchClass(tone.note)), 0)
      // A bass outside the chord is a slash chord, provided nothing else is outside it.
      if ((sounds & ~tones & ~(1 << bass)) !== 0 || ((tones & (1 << bass)) === 0 && !sounding)) return
      const { required, oneOf } = requirementOf(plain, { bass: 'any', omit: [] })
      if ((required & ~sounds) === 0 && oneOf.every((set) => (set & sounds) !== 0))
        add(plain, Math.min(plainness, USUAL) + Math.max(0, plainness - USUAL) / 2)
    })
  if ((over || names.length === 0) && countBits(sounds) >= 2) {
    const { chord, outside } = builtOver(over ?? plainSpelling(bass, sharps), sounds)
    add(chord, PRICE.built, outside)
  }
  names.sort((a, b) => a.score - b.score || a.chord.canonical.localeCompare(b.chord.canonical, 'en'))
  // Several readings can be spelled alike: the likeliest stands for them.
  const said = new Set<string>()
  const once = names.filter(({ chord }) => !said.has(chord.canonical) && said.add(chord.canonical))
  if (over || countBits(sounds) < 2) return once
  return withReadingsOn(once, [plainSpelling(bass, sharps), ...(moment ? [moment.root] : [])], (root) =>
    namesOf(midis, { over: root, key }),
  )
}

/** The chord over a bass note, plainly spelled where its own spelling is awkward. */
const withBass = (chord: ChordSymbol, note: Note, bass: number): ChordSymbol => {
  const isAwkward = AWKWARD_NOTES.includes(noteName(note)) || Math.abs(note.alter) > 1
  return must(parseChord(`${chord.canonical}/${noteName(isAwkward ? plainSpelling(bass) : note)}`))
}

/** Readings among which one over the lowest note and one of the chord of the moment always are. */
const FIRST = 3

function withReadingsOn(
  list: readonly PossibleName[],
  wanted: readonly Note[],
  readingsOn: (root: Note) => readonly PossibleName[],
): PossibleName[] {
  const isOn = (root: Note) => (one: PossibleName) => pitchClass(one.chord.root) === pitchClass(root)
  const first = list.slice(0, FIRST)
  for (const root of wanted) {
    if (first.some(isOn(root))) continue
    const reading = list.find(isOn(root)) ?? readingsOn(root)[0]
    if (!reading) continue
    const given = first.findLastIndex((one) => !wanted.some((other) => isOn(other)(one)))
    if (first.length < FIRST) first.push(reading)
    else first.splice(given, 1, reading)
  }
  // They stand no lower than what they stand before.
  const rest = list.filter((one) => !first.includes(one))
  const least = rest[0]?.score ?? Infinity
  return [
    ...first.map((one) => ({ ...one, score: Math.min(one.score, least) })).sort((a, b) => a.score - b.score),
    ...rest,
  ]
}

const overRoot = (root: Note, suffix: string): ChordSymbol => must(parseChord(noteName(root) + suffix))
const countBits = (bits: number): number => {
  let count = 0
  for (let rest = bits; rest; rest &= rest - 1) count += 1
  return count
}

/** A dominant whose third and seventh sound, and whose goal is what follows. */
const pushesTo = ({ tones, root }: ChordSymbol, after: ChordSymbol, sounds: number): boolean =>
  (pitchClass(after.root) - pitchClass(root) + 12) % 12 === 5 &&
  (['3', 'b7'] as const).every((wanted) =>
    tones.some(({ degree, note }) => degree === wanted && (sounds & (1 << pitchClass(note))) !== 0),
  )

/**
 * A name that keeps third and seventh of the chord that is played there, with both sounding as far
 * as it has them.
 */
function isColourOf(name: ChordSymbol, moment: ChordSymbol, sounds: number): boolean {
  const soundsOf = (degrees: readonly Degree[]) =>
    moment.tones.filter(({ degree }) => degrees.includes(degree)).map(({ note }) => pitchClass(note))
  const guides = soundsOf(['3', 'b3', '4', '7', 'b7', 'bb7'])
  return guides.every(
    (sound) => (sounds & (1 << sound)) !== 0 && name.tones.some(({ note }) => pitchClass(note) === sound),
  )
}

/** Tensions by the semitones they lie above the root, as they are written in brackets. */
const TENSIONS: Readonly<Record<number, string>> = {
  1: 'b9',
  2: '9',
  3: '#9',
  5: '11',
  6: '#11',
  8: 'b13',
  9: '13',
}

/**
 * What stands for the third and for the seventh of a chord, in half steps over its root: the first
 * that sounds.
 */
const THIRDS = [
  [4, '3'],
  [3, 'b3'],
  [5, '4'],
] as const
const SEVENTHS = [
  [10, 'b7'],
  [11, '7'],
] as const

/**
 * A name for any set of sounds over a root, put together from what sounds: third, seventh or sixth,
 * fifth, then the tensions in brackets, and what is left out by `no`. A seventh that does not sound
 * is implied where altered tensions ask for a dominant. Sounds that no one chord holds beside the
 * others (a b7 beside a 7) stay outside.
 */
function builtOver(root: Note, sounds: number): { chord: ChordSymbol; outside: number } {
  const has = (semitones: number) => (sounds & (1 << ((pitchClass(root) + semitones) % 12))) !== 0
  const third = THIRDS.find(([semitones]) => has(semitones))?.[1] ?? null
  const seventh = SEVENTHS.find(([semitones]) => has(semitones))?.[1] ?? null
  const left = new Set([1, 2, 3, 5, 6, 8, 9].filter(has))
  if (third === 'b3') left.delete(3)
  if (third === '4') left.delete(5)
  let base = third === 'b3' ? 'm' : ''
  const majorSeventh = base === 'm' ? '(maj7)' : 'maj7'
  if (seventh) base += seventh === 'b7' ? '7' : majorSeventh
  else if (left.has(1) || left.has(3) || left.has(8)) base += '7'
  else if (left.has(9)) {
    base += '6'
    left.delete(9)
  }
  if (third === '4') base += 'sus4'
  const omitted = [
    ...(third === null ? ['no3'] : []),
    ...(has(7) || left.has(6) || left.has(8) ? [] : ['no5']),
  ]
  const tensions = [...left].map((semitones) => TENSIONS[semitones]!)
  const tries = [
    `${base}${tensions.length > 0 ? `(${tensions.join(',')})` : ''}${omitted.join('')}`,
    `${base}${tensions.length > 0 ? `(${tensions.join(',')})` : ''}`,
    `${base}${omitted.join('')}`,
    base,
    '',
  ]
  const chord = firstOf(
    tries.flatMap((suffix) => {
      const read = parseChord(noteName(root) + suffix)
      return read.ok ? [read.value] : []
    }),
  )
  const held = chord.tones.reduce((bits, { note }) => bits | (1 << pitchClass(note)), 0)
  return { chord, outside: countBits(sounds & ~held) }
}
