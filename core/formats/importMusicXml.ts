import { firstOf } from '../lists'
import { XMLParser } from 'fast-xml-parser'
import { MARKS, type ChartMark, type Meter } from '../chart/chart'
import type { Key } from '../pitch/key'
import { midiOf, pitchAt, plainSpelling, type Pitch } from '../pitch/note'
import { bad, good, type Result, faultWords } from '../result'
import { chordIn, keyIn } from './importHarmony'
import {
  emptyBar,
  LONGEST_FILE,
  noSuchPart,
  partsFrom,
  tuneFromNotes,
  type ImportedTune,
  type ReadBar,
} from './readTune'
import {
  all,
  attribute,
  childrenOf,
  depthOf,
  faultOfXml,
  find,
  nameOf,
  numberIn,
  textIn,
  textOf,
  type XmlNode,
} from './xmlNodes'

/** Elements inside one another at most: a score needs about ten. */
const DEEPEST = 40

const ACCEPTED = `an uncompressed MusicXML file (score-partwise) of at most ${LONGEST_FILE} letters, without entities of its own`
const refuse = (message: string, code = 'bad-file') =>
  bad({ code, message, accepted: ACCEPTED, text: 'content' })

/** The elements of a file that is within the bounds of a score. */
function rootOf(content: string): Result<XmlNode[]> {
  if (content.length > LONGEST_FILE) return refuse(`The file has ${content.length} letters.`, 'too-large')
  if (content.startsWith('PK')) return refuse('This is a compressed file.')
  if (/<!ENTITY|<!DOCTYPE[^>]*\[/i.test(content))
    return refuse('The file declares entities, which no score needs.')
  const deep = depthOf(content)
  if (deep > DEEPEST) return refuse(`The file has elements ${deep} deep inside one another.`)
  try {
    return good(
      new XMLParser({
        preserveOrder: true,
        ignoreAttributes: false,
        attributeNamePrefix: '',
        processEntities: false,
        parseTagValue: false,
        parseAttributeValue: false,
        trimValues: true,
      }).parse(content, true) as XmlNode[],
    )
  } catch (error) {
    return refuse(`The file is no well-formed XML: ${faultOfXml(faultWords(error))}`)
  }
}

/**
 * A tune in MusicXML (W3C Community Group, 4.0 and earlier, partwise, not compressed): the melody
 * of one part, its first voice and the highest note of those together, with chord symbols, repeats,
 * endings, marks, and changes of key and metre.
 * @param content the text, of at most LONGEST_FILE letters
 */
export function importMusicXml(content: string, part?: number): Result<ImportedTune> {
  const read = rootOf(content)
  if (!read.ok) return read
  const root = read.value
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
    firstOf(named)
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
  return tuneFromNotes(
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
    this.warnings.push(`${firstOf(what).toUpperCase()}${what.slice(1)}.`)
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
      if (mark) bar.marks.push(mark as ChartMark)
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
  const passes = (attribute(ending, 'number') ?? '')
    .split(/[,\s]+/)
    .map(Number)
    .filter((pass) => Number.isInteger(pass) && pass >= 1 && pass <= 16)
  if (attribute(ending, 'type') === 'start') bar.ending = passes
  // An ending for two passes says itself that the passage is played three times.
  else if (passes.length > 1 && bar.played === passes.length + 1) bar.played = 2
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
