import { XMLParser } from 'fast-xml-parser'
import { MARKS, type Mark, type Meter } from '../chart/chart'
import { parseChord } from '../chord/parse'
import { parseKey, scaleNotes, signatureOf, type Key, type Mode } from '../pitch/key'
import { midiOf, noteName, pitchAt, plainSpelling, type Pitch } from '../pitch/note'
import { bad, type Result } from '../result'
import { chordOfNumeral } from './numerals'
import {
  emptyBar,
  LONGEST_FILE,
  noSuchPart,
  partsFrom,
  tuneOf,
  type ImportedTune,
  type ReadBar,
} from './readTune'

/** Elements inside one another at most: a score needs about ten. */
const DEEPEST = 40

/** An element as the XML reader gives it with its order kept: its name with its children, and its attributes. */
type XmlNode = Record<string, unknown>
const ATTRIBUTES = ':@'

const nameOf = (node: XmlNode): string => Object.keys(node).find((key) => key !== ATTRIBUTES) ?? ''
const childrenOf = (node: XmlNode): XmlNode[] => {
  const inside = node[nameOf(node)]
  return Array.isArray(inside) ? (inside as XmlNode[]) : []
}
const all = (nodes: readonly XmlNode[], name: string): XmlNode[] =>
  nodes.filter((node) => nameOf(node) === name)
const find = (nodes: readonly XmlNode[], name: string): XmlNode | undefined =>
  nodes.find((node) => nameOf(node) === name)
const attribute = (node: XmlNode | undefined, name: string): string | null => {
  const value = (node?.[ATTRIBUTES] as Record<string, unknown> | undefined)?.[name]
  return value === undefined ? null : plain(String(value))
}
/** What the XML library says: "Closing tag expected.:12:5", with line and column from 1 where it knows them. */
function faultOfXml(message: string): string {
  const [, words, line] = /^([^]*?)\.?(?::(\d+|undefined))?(?::(?:\d+|undefined))?$/.exec(
    message.slice(0, 120),
  )!
  return line && line !== 'undefined' ? `${words!} (line ${line}).` : `${words!}.`
}

const textOf = (node: XmlNode | undefined): string =>
  node
    ? plain(
        all(childrenOf(node), '#text')
          .map((one) => String(one['#text']))
          .join('')
          .trim(),
      )
    : ''
const textIn = (nodes: readonly XmlNode[], name: string): string => textOf(find(nodes, name))
const numberIn = (nodes: readonly XmlNode[], name: string): number | null => {
  const text = textIn(nodes, name)
  const value = Number(text)
  return text === '' || !Number.isFinite(value) ? null : value
}

/** The five entities of XML and characters by number; others do not occur, since no document type is read. */
const plain = (text: string): string =>
  text.replace(/&(lt|gt|amp|quot|apos|#\d{1,7}|#x[\da-f]{1,6});/gi, (whole, name: string) => {
    if (name.startsWith('#')) {
      const code = name.startsWith('#x') ? Number.parseInt(name.slice(2), 16) : Number(name.slice(1))
      return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : whole
    }
    return { lt: '<', gt: '>', amp: '&', quot: '"', apos: "'" }[name.toLowerCase()] ?? whole
  })

/**
 * A tune in MusicXML (W3C Community Group, 4.0 and earlier, partwise, not compressed): the melody of one part, its first voice and the highest note of those
 * together, with chord symbols, repeats, endings, marks, and changes of key and metre.
 * @param content the text, of at most LONGEST_FILE letters
 */
export function importMusicXml(content: string, part?: number): Result<ImportedTune> {
  const accepted = `an uncompressed MusicXML file (score-partwise) of at most ${LONGEST_FILE} letters, without entities of its own`
  const refuse = (message: string, code = 'bad-file') => bad({ code, message, accepted, text: 'content' })
  if (content.length > LONGEST_FILE) return refuse(`The file has ${content.length} letters.`, 'too-large')
  if (content.startsWith('PK')) return refuse('This is a compressed file.')
  if (/<!ENTITY|<!DOCTYPE[^>]*\[/i.test(content))
    return refuse('The file declares entities, which no score needs.')
  const deep = depthOf(content)
  if (deep > DEEPEST) return refuse(`The file has elements ${deep} deep inside one another.`)
  let root: XmlNode[]
  try {
    root = new XMLParser({
      preserveOrder: true,
      ignoreAttributes: false,
      attributeNamePrefix: '',
      processEntities: false,
      parseTagValue: false,
      parseAttributeValue: false,
      trimValues: true,
    }).parse(content, true) as XmlNode[]
  } catch (error) {
    return refuse(`The file is no well-formed XML: ${faultOfXml((error as Error).message)}`)
  }
  const score = find(root, 'score-partwise')
  if (!score)
    return refuse(
      find(root, 'score-timewise') ? 'The score is written time by time.' : 'This is no MusicXML score.',
    )
  const top = childrenOf(score)
  const parts = all(top, 'part')
  const names = new Map(
    all(childrenOf(find(top, 'part-list') ?? {}), 'score-part').map((one) => [
      attribute(one, 'id'),
      textIn(childrenOf(one), 'part-name'),
    ]),
  )
  const named = parts.map((part) => ({
    part,
    name: names.get(attribute(part, 'id')) || attribute(part, 'id') || 'unnamed',
    notes: countIn(part, 'note', (one) => isSung(childrenOf(one))),
    chords: countIn(part, 'harmony'),
  }))
  if (!named.some(({ notes, chords }) => notes + chords > 0))
    return refuse('The score has no notes and no chord symbols.')
  const warnings: string[] = []
  const withNotes = named.filter(({ notes }) => notes > 0)
  if (part !== undefined && !withNotes[part - 1]) return noSuchPart(part, withNotes.length)
  const sung =
    withNotes[(part ?? 0) - 1] ??
    withNotes.find(({ name }) => MELODIC.test(name)) ??
    withNotes[0] ??
    named[0]!
  // Symbols may stand over another part than the melody's.
  const symbols =
    sung.chords > 0 ? sung : named.reduce((most, one) => (one.chords > most.chords ? one : most))
  if (withNotes.length > 1)
    warnings.push(
      `The melody was taken from the part "${sung.name}"; ${withNotes.length - 1} other ${withNotes.length === 2 ? 'part was' : 'parts were'} left out.`,
    )
  if (symbols.chords === 0)
    warnings.push('The score names no chords: the bars are silent until you type them.')

  const reader = new PartReader(warnings)
  const bars = all(childrenOf(sung.part), 'measure').map((measure) => reader.read(measure))
  if (symbols !== sung) {
    const other = new PartReader([])
    all(childrenOf(symbols.part), 'measure').forEach((measure, at) => {
      const { chords, length } = other.read(measure)
      const bar = bars[at]
      if (bar) {
        bar.chords = chords
        bar.length = Math.max(bar.length, length)
      }
    })
  }
  const title =
    textIn(childrenOf(find(top, 'work') ?? {}), 'work-title') || textIn(top, 'movement-title') || null
  return tuneOf(
    {
      title: title?.replace(/\s+/g, ' ') ?? null,
      key: reader.firstKey,
      meter: reader.firstMeter,
      tempo: reader.tempo,
      capo: Math.max(0, ...named.map((one) => capoIn(one.part))),
    },
    bars,
    warnings,
    partsFrom(
      withNotes.map(({ name }) => name),
      withNotes.indexOf(sung),
    ),
  )
}

/** The fret the first measure of a part has a capo on; 0 for none. */
function capoIn(part: XmlNode): number {
  const attributes = all(childrenOf(find(childrenOf(part), 'measure') ?? {}), 'attributes')
  const details = attributes.flatMap((one) => all(childrenOf(one), 'staff-details'))
  return Math.max(0, ...details.map((one) => numberIn(childrenOf(one), 'capo') ?? 0))
}

const MELODIC = /melod|voice|voc|lead|sopran|flute|violin/i

const countIn = (part: XmlNode, name: string, test: (node: XmlNode) => boolean = () => true): number =>
  all(childrenOf(part), 'measure').reduce(
    (sum, measure) => sum + all(childrenOf(measure), name).filter(test).length,
    0,
  )

function accidentalOf(alter: number): string {
  if (alter < 0) return 'b'
  return alter > 0 ? '#' : ''
}

/** What stands between pointed brackets, and what ends it. */
const CLOSED_BY = [
  ['<!--', '-->'],
  ['<![CDATA[', ']]>'],
  ['<', '>'],
] as const

/** How deep elements stand inside one another, by their tags alone; read once from left to right, so that no content can hold it up. */
function depthOf(content: string): number {
  let [depth, deepest] = [0, 0]
  for (let at = content.indexOf('<'); at >= 0; at = content.indexOf('<', at)) {
    const [, close] = CLOSED_BY.find(([open]) => content.startsWith(open, at))!
    const end = content.indexOf(close, at)
    if (end < 0) break
    if (content[at + 1] === '/') depth -= 1
    else if (content[at + 1] !== '!' && content[at + 1] !== '?' && content[end - 1] !== '/')
      deepest = Math.max(deepest, (depth += 1))
    at = end + close.length
  }
  return deepest
}

class PartReader {
  private divisions = 1
  private transpose = 0
  private begun = false
  private voice: string | null = null
  firstKey: Key | null = null
  firstMeter: Meter = { beats: 4, unit: 4 }
  tempo: number | null = null

  private key: Key | null = null

  constructor(private readonly warnings: string[]) {}

  /** The key in force; C major where none is written. */
  private get keyNow(): Key {
    return this.key ?? { tonic: { letter: 0, alter: 0 }, mode: 'major' }
  }

  private readonly said = new Set<string>()
  private sayOnce(what: string): void {
    if (this.said.has(what)) return
    this.said.add(what)
    this.warnings.push(`${what[0]!.toUpperCase()}${what.slice(1)}.`)
  }

  read(measure: XmlNode): ReadBar {
    const bar = emptyBar()
    let at = 0
    let last = 0
    for (const node of childrenOf(measure)) {
      const inside = childrenOf(node)
      const lasts = Math.max(0, numberIn(inside, 'duration') ?? 0) / this.divisions
      switch (nameOf(node)) {
        case 'attributes':
          this.readAttributes(inside, bar)
          break
        case 'backup':
          at = Math.max(0, at - lasts)
          break
        case 'forward':
          at += lasts
          break
        case 'harmony': {
          const symbol = chordIn(inside, this.keyNow, (what) => this.sayOnce(what))
          if (symbol) bar.chords.push({ at: at + (numberIn(inside, 'offset') ?? 0) / this.divisions, symbol })
          break
        }
        case 'note': {
          if (find(inside, 'grace') || find(inside, 'cue')) break
          const together = find(inside, 'chord') !== undefined
          if (!together) {
            last = at
            at += lasts
          }
          this.readNote(inside, bar, last, lasts, together)
          break
        }
        case 'direction':
        case 'sound':
          this.readDirection(node, bar)
          break
        case 'barline':
          readBarline(node, bar)
          break
      }
      bar.length = Math.max(bar.length, at)
    }
    this.begun = true
    bar.notes.sort((a, b) => a.at - b.at)
    return bar
  }

  private readNote(
    inside: readonly XmlNode[],
    bar: ReadBar,
    at: number,
    lasts: number,
    together: boolean,
  ): void {
    const pitch = find(inside, 'pitch')
    const voice = textIn(inside, 'voice') || '1'
    // Words may stand under a rest or a slash too, where there is no note for them.
    if (!together && voice === (this.voice ?? voice)) this.readLyrics(all(inside, 'lyric'), bar, at)
    if (!pitch || !isSung(inside) || lasts <= 0) return
    this.voice ??= voice
    if (voice !== this.voice) return
    const written = pitchIn(childrenOf(pitch))
    if (!written) return
    const sounding = this.transpose === 0 ? written : moved(written, this.transpose)
    const tied = all(inside, 'tie').some((tie) => attribute(tie, 'type') === 'start')
    const before = bar.notes.at(-1)
    if (together && before && before.at === at) {
      if (midiOf(sounding) > midiOf(before.pitch)) {
        before.pitch = sounding
        before.tied = tied
      }
      return
    }
    bar.notes.push({ at, lasts, pitch: sounding, tied })
  }

  /** The first verse; a syllable that begins a word or is inside it has a hyphen behind. */
  private readLyrics(lyrics: readonly XmlNode[], bar: ReadBar, at: number): void {
    const [first, ...verses] = [...lyrics].sort((a, b) => verseOf(a) - verseOf(b))
    if (verses.length > 0) this.sayOnce('the first verse was taken, the words of the others were left out')
    if (!first) return
    const inside = childrenOf(first)
    const goesOn = /^(?:begin|middle)$/.test(textOf(all(inside, 'syllabic').at(-1)))
    const text = all(inside, 'text').map(textOf).join(' ')
    if (text.trim() !== '') bar.lyrics.push({ at, text: goesOn ? `${text}-` : text })
  }

  private readAttributes(inside: readonly XmlNode[], bar: ReadBar): void {
    const divisions = numberIn(inside, 'divisions')
    if (divisions && divisions > 0) this.divisions = divisions
    const key = find(inside, 'key')
    if (key) {
      const read = keyIn(childrenOf(key))
      if (read) this.key = read
      if (!this.begun) this.firstKey = read
      else bar.newKey = read
    }
    const time = find(inside, 'time')
    if (time) {
      const [beats, unit] = [numberIn(childrenOf(time), 'beats'), numberIn(childrenOf(time), 'beat-type')]
      if (beats && unit && Number.isInteger(beats) && beats <= 16 && [2, 4, 8, 16].includes(unit)) {
        if (!this.begun) this.firstMeter = { beats, unit }
        else bar.newMeter = { beats, unit }
      } else
        this.warnings.push(
          `A metre of ${textIn(childrenOf(time), 'beats')}/${textIn(childrenOf(time), 'beat-type')} was left out.`,
        )
    }
    const transpose = find(inside, 'transpose')
    if (transpose)
      this.transpose =
        (numberIn(childrenOf(transpose), 'chromatic') ?? 0) +
        12 * (numberIn(childrenOf(transpose), 'octave-change') ?? 0)
  }

  private readDirection(node: XmlNode, bar: ReadBar): void {
    const sound = nameOf(node) === 'sound' ? node : find(childrenOf(node), 'sound')
    const tempo = Number(attribute(sound, 'tempo'))
    if (tempo > 0) this.tempo ??= tempo
    for (const type of all(childrenOf(node), 'direction-type')) {
      const inside = childrenOf(type)
      const rehearsal = textIn(inside, 'rehearsal')
        .replace(/[[\]|\n]/g, ' ')
        .trim()
        .slice(0, 24)
      if (rehearsal) bar.section = rehearsal
      if (find(inside, 'segno')) bar.marks.push('Segno')
      if (find(inside, 'coda')) bar.marks.push('Coda')
      const words = all(inside, 'words').map(textOf).join(' ').trim()
      const mark = MARKS.find((one) => one.toLowerCase() === words.toLowerCase())
      if (mark) bar.marks.push(mark as Mark)
      // What says that eighths swing is told by its ratio.
      else if (words && !(sound && find(childrenOf(sound), 'swing'))) bar.remarks.push(words)
    }
  }
}

/** A note with a pitch that is meant: a slash stands for a rhythm, not for a note of a melody. */
const isSung = (inside: readonly XmlNode[]): boolean =>
  find(inside, 'pitch') !== undefined && textIn(inside, 'notehead') !== 'slash'

/** Verses are numbered from 1; one without a number, or with a name for it, is the first. */
const verseOf = (lyric: XmlNode): number => Number(attribute(lyric, 'number')) || 1

function readBarline(node: XmlNode, bar: ReadBar): void {
  const inside = childrenOf(node)
  const repeat = find(inside, 'repeat')
  if (attribute(repeat, 'direction') === 'forward') bar.opensRepeat = true
  if (attribute(repeat, 'direction') === 'backward')
    bar.played = Math.min(16, Math.max(2, Math.round(Number(attribute(repeat, 'times')) || 2)))
  const ending = find(inside, 'ending')
  if (attribute(ending, 'type') === 'start')
    bar.ending = (attribute(ending, 'number') ?? '')
      .split(/[,\s]+/)
      .map(Number)
      .filter((pass) => Number.isInteger(pass) && pass >= 1 && pass <= 16)
}

const pitchIn = (inside: readonly XmlNode[]): Pitch | null => {
  const letter = 'CDEFGAB'.indexOf(textIn(inside, 'step'))
  const octave = numberIn(inside, 'octave')
  const alter = Math.round(numberIn(inside, 'alter') ?? 0)
  return letter < 0 ||
    textIn(inside, 'step') === '' ||
    octave === null ||
    octave < 0 ||
    octave > 9 ||
    Math.abs(alter) > 2
    ? null
    : { letter, octave, alter }
}

function moved(pitch: Pitch, semitones: number): Pitch {
  if (semitones % 12 === 0) return { ...pitch, octave: pitch.octave + semitones / 12 }
  const midi = midiOf(pitch) + semitones
  return pitchAt(midi, plainSpelling(midi % 12, pitch.alter > 0))
}

const KEYS = [
  'C',
  'G',
  'D',
  'A',
  'E',
  'B',
  'F#',
  'C#',
  'F',
  'Bb',
  'Eb',
  'Ab',
  'Db',
  'Gb',
  'Cb',
  'Am',
  'Em',
  'Bm',
  'F#m',
  'C#m',
  'G#m',
  'D#m',
  'A#m',
  'Dm',
  'Gm',
  'Cm',
  'Fm',
  'Bbm',
  'Ebm',
  'Abm',
]
const keyIn = (inside: readonly XmlNode[]): Key | null =>
  keyOfFifths(numberIn(inside, 'fifths'), textIn(inside, 'mode') === 'minor' ? 'minor' : 'major')

function keyOfFifths(fifths: number | null, mode: Mode): Key | null {
  for (const name of KEYS) {
    const key = parseKey(name)
    if (key.ok && key.value.mode === mode && signatureOf(key.value) === fifths) return key.value
  }
  return null
}

/** Kinds of MusicXML as suffixes of chord symbols. */
// prettier-ignore
const SUFFIXES: Readonly<Record<string, string>> = {
  major: '', minor: 'm', augmented: 'aug', diminished: 'dim', dominant: '7', 'major-seventh': 'maj7', 'minor-seventh': 'm7', 'diminished-seventh': 'dim7', 'augmented-seventh': '7#5',
  'half-diminished': 'm7b5', 'major-minor': 'm(maj7)', 'major-sixth': '6', 'minor-sixth': 'm6', 'dominant-ninth': '9', 'major-ninth': 'maj9', 'minor-ninth': 'm9', 'dominant-11th': '11',
  'major-11th': 'maj11', 'minor-11th': 'm11', 'dominant-13th': '13', 'major-13th': 'maj13', 'minor-13th': 'm13', 'suspended-second': 'sus2', 'suspended-fourth': 'sus4', power: '5',
}

/** Kinds that name a chord by its place in a key, as the root they give sounds (MusicXML 4.0, `kind-value`). */
const BY_PLACE: Readonly<Record<string, { suffix: string; said: string }>> = {
  Neapolitan: { suffix: '', said: 'a Neapolitan chord was read as the major triad' },
  Italian: { suffix: '7no5', said: 'an Italian sixth was read as a seventh chord without its fifth' },
  French: { suffix: '7b5', said: 'a French sixth was read as a seventh chord with a lowered fifth' },
  German: { suffix: '7', said: 'a German sixth was read as a seventh chord' },
  Tristan: { suffix: 'm7b5', said: 'a Tristan chord was read as a half-diminished chord' },
  pedal: { suffix: '5', said: 'a pedal point was read as its root and fifth' },
}

/** The root of a harmony that gives a step of a key in place of one: `numeral`, or `function` as scores of the version before have it. */
function rootByPlace(inside: readonly XmlNode[], key: Key): string | null {
  const numeral = childrenOf(find(inside, 'numeral') ?? {})
  const home = numeralKey(numeral) ?? key
  const step = numberIn(numeral, 'numeral-root')
  if (step !== null && step >= 1 && step <= 7) {
    const note = scaleNotes(home)[step - 1]!
    return noteName({ ...note, alter: note.alter + Math.round(numberIn(numeral, 'numeral-alter') ?? 0) })
  }
  const read = chordOfNumeral(textIn(inside, 'function').trim(), key)
  const chord = read.ok ? parseChord(read.value) : null
  return chord?.ok ? noteName(chord.value.root) : null
}

function numeralKey(numeral: readonly XmlNode[]): Key | null {
  const given = childrenOf(find(numeral, 'numeral-key') ?? {})
  const fifths = numberIn(given, 'numeral-fifths')
  return fifths === null
    ? null
    : keyOfFifths(fifths, /minor/.test(textIn(given, 'numeral-mode')) ? 'minor' : 'major')
}

/** The chord symbol of a harmony: as its text says where that holds its degrees, else by its kind and degrees. @param say told what was taken for something else */
function chordIn(inside: readonly XmlNode[], key: Key, say: (what: string) => void): string | null {
  const note = (name: 'root' | 'bass'): string | null => {
    const children = childrenOf(find(inside, name) ?? {})
    const step = textIn(children, `${name}-step`)
    const alter = Math.round(numberIn(children, `${name}-alter`) ?? 0)
    return /^[A-G]$/.test(step)
      ? step + (alter < 0 ? 'b'.repeat(Math.min(2, -alter)) : '#'.repeat(Math.min(2, alter)))
      : null
  }
  const kind = find(inside, 'kind')
  if (textOf(kind) === 'none') return 'N.C.'
  const root = note('root') ?? rootByPlace(inside, key)
  if (!root) {
    say('a chord symbol without a root was left out')
    return null
  }
  const place = BY_PLACE[textOf(kind)]
  if (place) say(place.said)
  const bass = note('bass')
  const onBass = bass && bass !== root ? `/${bass}` : ''
  const degrees = all(inside, 'degree').map((one) => {
    const children = childrenOf(one)
    const alter = Math.round(numberIn(children, 'degree-alter') ?? 0)
    return { value: numberIn(children, 'degree-value') ?? 0, alter, type: textIn(children, 'degree-type') }
  })
  const said = attribute(kind, 'text')
  if (said !== null) {
    const whole = parseChord(`${root}${said}`)
    const has = ({ value, alter }: (typeof degrees)[number]) =>
      whole.ok &&
      whole.value.tones.some(
        ({ degree }) =>
          Number(degree.replace(/\D/g, '')) % 7 === value % 7 &&
          (alter === 0 || degree.startsWith(alter < 0 ? 'b' : '#') || value === 7),
      )
    if (whole.ok && degrees.every((degree) => degree.type === 'subtract' || has(degree)))
      return whole.value.bass ? `${root}${said}` : `${root}${said}${onBass}`
  }
  // A seventh over a suspended chord is a part of its name; it counts from a dominant chord.
  const suspended = textOf(kind).startsWith('suspended')
  const seventh = suspended ? degrees.find(({ value, type }) => value === 7 && type === 'add') : undefined
  const seventhNamed = seventh && seventh.alter > 0 ? 'maj7' : '7'
  const base = `${root}${seventh ? seventhNamed : ''}${place?.suffix ?? SUFFIXES[textOf(kind)] ?? ''}`
  const signed = ({ value, alter }: (typeof degrees)[number]) => `${accidentalOf(alter)}${value}`
  const inBrackets = degrees
    .filter((one) => one.type !== 'subtract' && one.value > 0 && one !== seventh)
    .map((degree) => (degree.alter === 0 && !/7|9|11|13/.test(base) ? `add${degree.value}` : signed(degree)))
  const without = degrees.filter(({ type }) => type === 'subtract').map(({ value }) => `no${value}`)
  const bracketed = inBrackets.length > 0 ? `(${inBrackets.join(',')})` : ''
  const added = inBrackets.some((one) => one.startsWith('add')) ? inBrackets.join('') : bracketed
  const full = `${base}${added}${without.join('')}${onBass}`
  // A symbol the grammar does not have goes on as it is, and is told with its bar.
  return full
}
