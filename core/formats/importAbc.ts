import { firstOf } from '../lists'
import abc from 'abcjs'
import type { ChartMark, Meter } from '../chart/chart'
import { parseKey, scaleNotes, signatureOf, type Key } from '../pitch/key'
import { modulo, type Pitch } from '../pitch/note'
import { bad, good, type Result, faultWords } from '../result'
import {
  emptyBar,
  MOST_BARS_READ,
  noSuchPart,
  partsFrom,
  tuneFromNotes,
  type ImportedTune,
  type ReadBar,
} from './readTune'

/**
 * What the reader of the notation library gives for something in a voice; only what is used here.
 */
interface AbcElement {
  el_type: string
  startChar?: number
  pitches?: { pitch: number; accidental?: string; startTie?: object; endTie?: boolean }[]
  rest?: { type: string; text?: number }
  duration?: number
  decoration?: string[]
  chord?: { name: string; position: string }[]
  lyric?: { syllable: string; divider: string }[]
  startTriplet?: number
  tripletMultiplier?: number
  endTriplet?: boolean
  type?: string
  value?: { num: string; den: string }[]
  startEnding?: string
  endEnding?: boolean
  title?: string
  accidentals?: { acc: string; note: string }[]
  root?: string
  acc?: string
  mode?: string
}
interface AbcStaff {
  key?: AbcElement
  meter?: AbcElement
  voices?: AbcElement[][]
}
interface AbcTune {
  lines: { staff?: AbcStaff[] }[]
  metaText: { title?: string; partOrder?: string; tempo?: { duration?: number[]; bpm?: number } }
  warnings?: string[]
}

const ALTERS: Readonly<Record<string, number>> = { dblflat: -2, flat: -1, natural: 0, sharp: 1, dblsharp: 2 }

/** The longest text taken, in letters: about a thousand bars. */
export const LONGEST_ABC = 50_000

/** The longest line: the notation library takes quadratic time over faults in one line. */
export const LONGEST_ABC_LINE = 2_000

/** Placements of a text in quotation marks that is no chord symbol. */
const REMARKS = ['above', 'below', 'left', 'right']

/**
 * A tune in ABC notation (standard 2.1), read by a notation library: the first voice of the first
 * tune, the highest note of those together, with its chord symbols, repeats, endings, parts, and
 * changes of key and metre.
 * @param content the text, of at most LONGEST_ABC letters
 */
export function importAbc(content: string, part?: number): Result<ImportedTune> {
  const accepted = `ABC notation of one tune, such as X:1 K:C "C"CDEF|, of at most ${LONGEST_ABC} letters`
  if (content.length > LONGEST_ABC)
    return bad({
      code: 'too-large',
      message: `The text has ${content.length} letters.`,
      accepted,
      text: 'content',
    })
  const long = content.split('\n').findIndex((line) => line.length > LONGEST_ABC_LINE)
  if (long >= 0)
    return bad({
      code: 'too-large',
      message: `Line ${long + 1} has more than ${LONGEST_ABC_LINE} letters.`,
      accepted: `lines of at most ${LONGEST_ABC_LINE} letters`,
      text: 'content',
    })
  const names = voicesOf(content)
  if (part !== undefined && part > Math.max(1, names.length)) return noSuchPart(part, names.length || 1)
  const voice = oneVoice(content, part === undefined ? undefined : names[part - 1])
  const parsed = tunesIn(voice.content, accepted)
  if (!parsed.ok) return parsed
  const { tune, staves, count } = parsed.value
  const warnings = (tune.warnings ?? []).slice(0, MOST_TOLD).map(plainWarning)
  if ((tune.warnings?.length ?? 0) > MOST_TOLD)
    warnings.push(`${tune.warnings!.length - MOST_TOLD} more such places.`)
  if (count > 1) warnings.push(`The text has ${count} tunes; the first one was taken.`)
  if (
    voice.others ||
    tune.lines.some(({ staff }) => (staff?.length ?? 0) > 1 || (staff?.[0]?.voices?.length ?? 0) > 1)
  )
    warnings.push(part === undefined ? 'Only the first voice was taken.' : `Only voice ${part} was taken.`)

  const reader = new AbcReader(firstOf(staves).key, firstOf(staves).meter, warnings)
  for (const [at, { meter, voices }] of staves.entries()) {
    // A metre between two lines of music stands with the second of them.
    if (at > 0 && meter) reader.take({ ...meter, el_type: 'meter' })
    for (const element of voices?.[0] ?? []) reader.take(element)
  }
  if (reader.verses) warnings.push('The first verse was taken; the words of the others were left out.')
  if (/^W:/m.test(voice.content))
    warnings.push('Words behind the tune (W:) have no notes to stand under and were left out.')
  if (tune.metaText.partOrder)
    warnings.push(
      `The order of the parts, ${tune.metaText.partOrder.slice(0, 40)}, was left out: each part stands once, as it is written.`,
    )
  const { duration, bpm } = tune.metaText.tempo ?? {}
  const tempo = bpm ? bpm * 4 * (duration?.[0] ?? 0.25) : null
  return tuneFromNotes(
    {
      title: tune.metaText.title?.trim() || null,
      key: reader.firstKey,
      meter: reader.firstMeter,
      tempo,
      capo: Number(/^N:\s*capo\s+(\d{1,2})\s*$/im.exec(voice.content)?.[1] ?? 0),
    },
    reader.finish(),
    warnings,
    partsFrom(names, part === undefined ? 0 : part - 1),
  )
}

/** The first tune with notes, its lines of music, and how many tunes there are. */
function tunesIn(
  content: string,
  accepted: string,
): Result<{ tune: AbcTune; staves: AbcStaff[]; count: number }> {
  let tunes: AbcTune[]
  try {
    tunes = abc.parseOnly(forLibrary(content)) as unknown as AbcTune[]
  } catch (error) {
    return bad({
      code: 'bad-file',
      message: `The text could not be read as ABC: ${faultWords(error)}`,
      accepted,
      text: 'content',
    })
  }
  const tune = tunes[0]
  const staves = (tune?.lines ?? []).flatMap(({ staff }) => staff?.slice(0, 1) ?? [])
  if (
    !tune ||
    !/^K:/m.test(content) ||
    !staves.some(({ voices }) => voices?.[0]?.some(({ el_type }) => el_type === 'note'))
  )
    return bad({
      code: 'bad-file',
      message: 'No ABC tune with notes was found: it needs a K: line and notes behind it.',
      accepted,
      text: 'content',
    })
  return good({ tune, staves, count: tunes.length })
}

/** A voice that begins in the body: `V:2`, `[V:2]`. */
const VOICE = /^(?:V:\s*|\[V:\s*)([^\s\]]+)/

/** Names of the voices that have music, in the order in which they come. */
function voicesOf(content: string): string[] {
  const body = content.slice(Math.max(0, content.search(/^K:/m)))
  return [...new Set(body.split('\n').flatMap((line) => VOICE.exec(line)?.[1] ?? []))]
}

/**
 * The text without the lines of other voices than one, the first where none is asked for: the
 * notation library would put a voice by itself behind the first one.
 */
function oneVoice(content: string, asked?: string): { content: string; others: boolean } {
  let [first, now]: (string | null)[] = [asked ?? null, null]
  let [inBody, music, others] = [false, false, false]
  const kept = content.split('\n').filter((line) => {
    if (/^X:/.test(line)) [first, now, inBody, music] = [asked ?? null, null, false, false]
    if (/^K:/.test(line)) inBody = true
    const name = inBody ? VOICE.exec(line)?.[1] : undefined
    if (name !== undefined) {
      if (!music && first === null) first = name
      now = name
    }
    music ||= inBody && !/^[A-Za-z]:|^%|^\s*$/.test(line)
    // What stands before any voice (the key) is for all of them.
    const other = inBody && now !== first && !(now === null && asked !== undefined)
    others ||= other
    return !other
  })
  return { content: kept.join('\n'), others }
}

/** Warnings of the library that are told one by one. */
const MOST_TOLD = 12
const plainWarning = (warning: string): string =>
  warning
    .replace(/<[^>]*>/g, '')
    .replace(/&lt;/g, '<')
    .replace(/&gt;/g, '>')
    .replace(/&amp;/g, '&')
    .replace(/^Music Line:(\d+):(\d+): /, 'Line $1, column $2: ')
    .slice(0, 200)

class AbcReader {
  private readonly bars: ReadBar[] = []
  private bar = emptyBar()
  private signature: Map<number, number>
  /**
   * Accidentals written in this bar: they hold for the letter in every octave until the bar line.
   */
  private readonly inBar = new Map<number, number>()
  private tuplet = 1
  /** More than one line of words stands under the notes. */
  verses = false
  /** How often the passage that is being read is played, where it is repeated. */
  private times = 2
  private meter: Meter
  readonly firstKey: Key | null
  readonly firstMeter: Meter

  constructor(
    key: AbcElement | undefined,
    meter: AbcElement | undefined,
    private readonly warnings: string[],
  ) {
    this.signature = signatureIn(key)
    this.firstKey = key ? keyOf(key) : null
    this.meter = this.firstMeter = meterOf(meter) ?? { beats: 4, unit: 4 }
  }

  take(element: AbcElement): void {
    switch (element.el_type) {
      case 'note':
        return this.takeNote(element)
      case 'bar':
        return this.takeBarLine(element)
      case 'key': {
        this.signature = signatureIn(element)
        this.bar.newKey = keyOf(element)
        return
      }
      case 'meter': {
        const meter = meterOf(element)
        if (meter) this.meter = this.bar.newMeter = meter
        return
      }
      case 'part':
        this.bar.section =
          (element.title ?? '')
            .replace(/[[\]|\n]/g, ' ')
            .trim()
            .slice(0, 24) || null
    }
  }

  private takeNote(element: AbcElement): void {
    const { bar } = this
    if (element.startTriplet) this.tuplet = element.tripletMultiplier ?? 1
    for (const decoration of element.decoration ?? []) {
      const mark = SIGNS[decoration.toLowerCase()]
      if (mark && !bar.marks.includes(mark)) bar.marks.push(mark)
    }
    for (const { name, position } of element.chord ?? [])
      if (REMARKS.includes(position)) this.takeRemark(name)
      else bar.chords.push({ at: bar.length, symbol: name.replace(/♭/g, 'b').replace(/♯/g, '#') })
    // A rest of several bars stands for so many silent ones.
    if (element.rest?.type === 'multimeasure') {
      for (let more = 1; more < Math.min(element.rest.text ?? 1, MOST_REST); more += 1) {
        bar.length = this.barLength
        this.close()
      }
      this.bar.length = this.barLength
      return
    }
    const lasts = (element.duration ?? 0) * 4 * this.tuplet
    const read = (element.pitches ?? []).map((one) => ({ ...one, sounding: this.pitchOf(one) }))
    if (read.length > 0) {
      const highest = read.reduce((top, one) => (one.pitch > top.pitch ? one : top))
      bar.notes.push({ at: bar.length, lasts, pitch: highest.sounding, tied: highest.startTie !== undefined })
    }
    const [first, ...verses] = element.lyric ?? []
    if (first && first.syllable.trim() !== BLANK) bar.lyrics.push({ at: bar.length, text: sungWord(first) })
    if (verses.some(({ syllable }) => syllable.trim() !== '')) this.verses = true
    bar.length += lasts
    if (element.endTriplet) this.tuplet = 1
  }

  /**
   * Words over a bar, several of them in lines: what is no sign of the form is left to the players.
   */
  private takeRemark(words: string): void {
    for (const line of words.split('\n')) {
      const times = /^x(\d+)$/.exec(line.trim())
      if (times) this.times = Math.min(16, Math.max(2, Number(times[1])))
      else if (!/^to coda$/i.test(line.trim())) this.bar.remarks.push(line)
      else if (!this.bar.marks.includes('To Coda')) this.bar.marks.push('To Coda')
    }
  }

  private pitchOf({ pitch, accidental }: { pitch: number; accidental?: string }): Pitch {
    const letter = modulo(pitch, 7)
    if (accidental && accidental in ALTERS) this.inBar.set(letter, ALTERS[accidental]!)
    return {
      letter,
      octave: 4 + Math.floor(pitch / 7),
      alter: this.inBar.get(letter) ?? this.signature.get(letter) ?? 0,
    }
  }

  private takeBarLine({ type = '', startEnding }: AbcElement): void {
    const closes = /right_repeat|dbl_repeat/.test(type)
    const opens = /left_repeat|dbl_repeat/.test(type)
    const last = this.bars.at(-1)
    if (this.bar.length > 0) {
      if (closes) this.bar.played = this.times
      this.close()
    } else if (closes && last) last.played = this.times
    if (closes) this.times = 2
    if (opens) this.bar.opensRepeat = true
    if (startEnding) this.bar.ending = passesIn(startEnding)
  }

  private get barLength(): number {
    return (this.meter.beats * 4) / this.meter.unit
  }

  private close(): void {
    this.bars.push(this.bar)
    this.bar = emptyBar()
    this.inBar.clear()
  }

  finish(): ReadBar[] {
    if (this.bar.length > 0) this.close()
    if (this.bars.every(({ chords }) => chords.length === 0))
      this.warnings.push('The tune names no chords: the bars are silent until you type them.')
    return this.bars
  }
}

/** Stands for a note without a word, among words. */
const BLANK = '\u{e000}'
/**
 * What the notation library (abcjs 6) does not read as ABC 2.1 has it: `:|:` for the end of a
 * repeat and the beginning of another, blanks inside a repeat sign, a line that goes on behind its
 * words, and `*`, `_` and a second hyphen among words, which it lets rests take.
 */
const forLibrary = (content: string): string =>
  withoutCopies(content)
    .replace(/^(?![A-Za-z]:|%).*$/gm, (line) =>
      line.replace(/(?<=\|) +(?=:[^|:\s])|(?<=[^|:\s]:) +(?=\|)/g, '').replace(/:\|{1,2}:/g, '::'),
    )
    .replace(/\\[ \t]*\n(?=w:)/g, '\n')
    .replace(/^w:.*$/gm, (line) =>
      line.replace(/(?<!\\)[*_]/g, ` ${BLANK} `).replace(/(?<=[-\s])-/g, `- ${BLANK} `),
    )

/**
 * What our writer has written out of a passage that is played three times and more goes; its repeat
 * says so, where the reader finds it.
 */
const withoutCopies = (content: string): string =>
  content.replace(
    /^(.*):\|([^|\n]*)\n((?:w:.*\n)?)%again x(\d{1,2})\n[^]*?^%end again\n?/gm,
    (_, music: string, behind: string, words: string, times: string) => {
      // A repeat that ends where the next begins has one sign for both, without a bar line.
      const last = Math.max(music.lastIndexOf('|') + 1, music.lastIndexOf('::') + 2)
      const signs = /^:?(?:\s|\[[A-Za-z]:[^\]]*\]|\[\d[\d,-]*|"\^[^"]*"|![^!]*!)*/.exec(music.slice(last))![0]
      const begins = last + signs.length
      return `${music.slice(0, begins)}"^x${times}" ${music.slice(begins)}:|${behind}\n${words}`
    },
  )

/** A syllable with a hyphen where its word goes on; `_` holds the one before. */
const sungWord = ({ syllable, divider }: { syllable: string; divider: string }): string =>
  divider === '-' ? `${syllable.trim()}-` : syllable.trim()

/** Decorations of ABC 2.1 that are signs of the form. */
const SIGNS: Readonly<Record<string, ChartMark>> = {
  segno: 'Segno',
  coda: 'Coda',
  fine: 'Fine',
  dacapo: 'D.C.',
  'd.c.': 'D.C.',
  'd.c.alfine': 'D.C. al Fine',
  'd.c.alcoda': 'D.C. al Coda',
  'd.s.': 'D.S.',
  'd.s.alfine': 'D.S. al Fine',
  'd.s.alcoda': 'D.S. al Coda',
}

/** A rest of more bars than are read makes the tune too long, which is said. */
const MOST_REST = MOST_BARS_READ + 1

/** `1`, `2`, `1,3` and `1-3` as passes. */
const passesIn = (text: string): number[] =>
  text.split(',').flatMap((part) => {
    const [from, to] = part.split('-').map((number) => Number.parseInt(number, 10))
    if (!from || from > 16) return []
    return Array.from({ length: Math.max(1, Math.min(16, to || from) - from + 1) }, (_, at) => from + at)
  })

const signatureIn = (key: AbcElement | undefined): Map<number, number> =>
  new Map(
    (key?.accidentals ?? []).map(
      ({ acc, note }) => ['cdefgab'.indexOf(note.toLowerCase()), ALTERS[acc] ?? 0] as const,
    ),
  )

const ACCIDENTALS: Readonly<Record<string, string>> = { b: 'b', flat: 'b', '#': '#', sharp: '#' }

/**
 * The major or minor key with the signature of a key or a mode; the mode itself where it is one of
 * the two.
 */
function keyOf({ root = '', acc = '', mode = '', ...element }: AbcElement): Key | null {
  const tonic = `${root}${ACCIDENTALS[acc] ?? ''}`
  if (mode === '' || mode === 'm') {
    const key = parseKey(`${tonic}${mode}`)
    return key.ok ? key.value : null
  }
  const signs = [...signatureIn(element as AbcElement).values()].reduce((sum, alter) => sum + alter, 0)
  return (
    RELATIVES.find(
      (key) => signatureOf(key) === signs && scaleNotes(key).some(({ letter }) => 'CDEFGAB'[letter] === root),
    ) ?? null
  )
}
const RELATIVES = ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'Gb', 'Cb'].map(
  (name) => {
    const key = parseKey(name)
    if (!key.ok) throw new Error(name)
    return key.value
  },
)

function meterOf(meter: AbcElement | undefined): Meter | null {
  if (meter?.type === 'common_time') return { beats: 4, unit: 4 }
  if (meter?.type === 'cut_time') return { beats: 2, unit: 2 }
  const [value] = meter?.value ?? []
  const [beats, unit] = [Number(value?.num), Number(value?.den)]
  return beats >= 1 && beats <= 16 && [2, 4, 8, 16].includes(unit) ? { beats, unit } : null
}
