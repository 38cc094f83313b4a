import { firstOf, itemAt, lastOf } from '../lists'
import { NEAR } from '../chart/beats'
import { meterName, type ChartMark, type Meter, type Slot } from '../chart/chart'
import { MOST_BARS, MOST_CAPO } from '../chart/parseChart'
import { printBar } from '../chart/print'
import { printRemark, remarkOf } from '../chart/remark'
import { parseSymbol } from '../chord/parseChord'
import { rounded } from '../melody/clock'
import { lyricsInOrder, lyricAt, type Lyric } from '../melody/lyrics'
import { keyName, type Key } from '../pitch/key'
import { midiOf, pitchName, type Pitch } from '../pitch/note'
import { bad, good, type Fault, type Result } from '../result'

/** Files are read up to this many bars and notes; a longer one is refused as it is. */
export const MOST_BARS_READ = MOST_BARS
export const MOST_NOTES_READ = 5_000
/**
 * The longest bar and the longest note that a file may have, in quarter notes: 16 halves, the
 * longest bar a chart has.
 */
export const LONGEST_BAR_READ = 32
/** The longest content taken, in letters. */
export const LONGEST_FILE = 2_000_000

/** A melody note as it is written down in answers: its pitch by name. */
export interface NamedMelodyNote {
  bar: number
  beat: number
  beats: number
  note: string
}

/** What a file of notes became: the chart with its chords, and the melody over it. */
export interface ImportedTune {
  text: string
  melody: NamedMelodyNote[]
  lyrics: Lyric[]
  /** Grips the file draws, by chord; frets from the lowest string. */
  grips?: { symbol: string; frets: (number | null)[] }[]
  /**
   * Parts of the file that could be the melody, in its order, and which was taken: counted from 1.
   * Not said where there is but one.
   */
  parts?: { names: string[]; taken: number }
  /** What was left out or changed, a sentence each. */
  warnings: string[]
}

/**
 * A bar of a file before it is a bar of a chart. Places and lengths in quarter notes from its
 * beginning.
 */
export interface ReadBar {
  notes: ReadNote[]
  chords: { at: number; symbol: string }[]
  /** Words, with a hyphen behind where they go on. */
  lyrics: { at: number; text: string }[]
  /** As long as what is written in it. */
  length: number
  newKey: Key | null
  newMeter: Meter | null
  section: string | null
  opensRepeat: boolean
  played: number
  ending: number[]
  marks: ChartMark[]
  /** Words to the players, as the file has them. */
  remarks: string[]
}

export interface ReadNote {
  at: number
  lasts: number
  pitch: Pitch
  /** Tied to the next note. */
  tied: boolean
}

export const emptyBar = (): ReadBar => ({
  notes: [],
  chords: [],
  lyrics: [],
  length: 0,
  newKey: null,
  newMeter: null,
  section: null,
  opensRepeat: false,
  played: 0,
  ending: [],
  marks: [],
  remarks: [],
})

/** Parts to choose from, where there are several. */
export const partsFrom = (names: readonly string[], taken: number): ImportedTune['parts'] =>
  names.length > 1 ? { names: [...names], taken: taken + 1 } : undefined

export const noSuchPart = (part: number, parts: number): Result<never> =>
  bad({
    code: 'bad-field',
    message: `There is no part ${part} with notes.`,
    accepted: parts > 0 ? `1 to ${parts}` : 'a file with notes',
    text: 'part',
  })

export interface ReadHead {
  title: string | null
  key: Key | null
  meter: Meter
  /** Quarter notes a minute. */
  tempo: number | null
  capo?: number
}

/** What is too much of a tune, or too little; null where it can be written down. */
function outOfBounds(bars: readonly ReadBar[]): Fault | null {
  const notes = bars.reduce((sum, bar) => sum + bar.notes.length, 0)
  if (bars.length === 0)
    return {
      code: 'bad-file',
      message: 'No bar was found.',
      accepted: 'a file with notes or chord symbols',
      text: 'content',
    }
  if (bars.length > MOST_BARS_READ || notes > MOST_NOTES_READ)
    return {
      code: 'too-large',
      message: `The tune has ${bars.length} bars and ${notes} notes.`,
      accepted: `at most ${MOST_BARS_READ} bars and ${MOST_NOTES_READ} notes`,
      text: 'content',
    }
  const endless = bars.findIndex(
    ({ length, notes: inside }) =>
      !(length <= LONGEST_BAR_READ) || inside.some(({ lasts }) => !(lasts <= LONGEST_BAR_READ)),
  )
  if (endless >= 0)
    return {
      code: 'too-large',
      message: `Bar ${endless + 1} of the file is longer than ${LONGEST_BAR_READ} quarter notes.`,
      accepted: `bars and notes of at most ${LONGEST_BAR_READ} quarter notes`,
      text: 'content',
    }
  return null
}

const inBeats = (quarters: number, { unit }: Meter) => (quarters * unit) / 4

/** A chart text and a melody from what a file's reader found. */
export function tuneFromNotes(
  { title, key, meter, tempo, capo = 0 }: ReadHead,
  bars: readonly ReadBar[],
  warnings: string[],
  parts?: ImportedTune['parts'],
): Result<ImportedTune> {
  const fault = outOfBounds(bars)
  if (fault) return bad(fault)
  const first = inBeats(firstOf(bars).length, firstOf(bars).newMeter ?? meter)
  const firstDue = (firstOf(bars).newMeter ?? meter).beats
  // An upbeat of half a beat is written as a whole one that begins with silence.
  const pickup = bars.length > 1 && first > NEAR && first < firstDue - NEAR ? Math.ceil(first - NEAR) : 0
  const head = [
    ...(title ? [`title: ${title}`] : []),
    ...(key ? [`key: ${keyName(key)}`] : []),
    `meter: ${meterName(meter)}`,
    ...(tempo ? [`tempo: ${Math.min(400, Math.max(20, Math.round((tempo * meter.unit) / 4)))}`] : []),
    ...(capo > 0 && capo <= MOST_CAPO ? [`capo: ${capo}`] : []),
    ...(pickup > 0 ? [`pickup: ${pickup}`] : []),
  ]
  const writer = new ChartWriter(bars, meter, warnings, { pickup, first })
  bars.forEach((bar, index) => writer.write(bar, index))
  const { lines, melody, lyrics } = writer.finish()
  return good({
    text: [...head, ...lines].join('\n'),
    melody,
    lyrics: lyricsInOrder(lyrics),
    warnings,
    ...(parts ? { parts } : {}),
  })
}

/** Where a bar of a file stands in the chart. */
interface BarPlace {
  number: number
  /** Its first beat, and how much later than that it begins. */
  from: number
  late: number
  /** Beats it has, and should have. */
  beats: number
  due: number
}

/** Bar after bar of a file written down: lines of a chart, notes, and words. */
class ChartWriter {
  private readonly lines: string[] = []
  private readonly melody: NamedMelodyNote[] = []
  private readonly lyrics: Lyric[] = []
  private tied: { note: NamedMelodyNote; midi: number } | null = null
  private line = ''
  private onLine = 0
  private before: Slot[] = []
  /** A chord sounds where the next bar begins. */
  private sounds = false
  private tooShort = 0

  /**
   * @param upbeat beats of the pickup that is written (0 for none), and those that the first bar of
   *   the file has
   */
  constructor(
    private readonly bars: readonly ReadBar[],
    private metre: Meter,
    private readonly warnings: string[],
    private readonly upbeat: { pickup: number; first: number },
  ) {}

  write(bar: ReadBar, index: number): void {
    if (bar.newMeter) this.metre = bar.newMeter
    const place = this.placeOf(bar, index)
    this.sing(bar, place)
    const slots = slotsOfBar(
      bar,
      { ...place, metre: this.metre, index, played: this.sounds },
      this.warnings,
      inBeats,
    )
    this.breakLine(bar, index)
    this.draw(bar, index, place, slots)
    // A chord sounds on over bars without a symbol, until another comes or nobody plays.
    if (!slots.every(({ held }) => held)) this.before = slots
    const last = slots.at(-1)
    if (last && !last.held) this.sounds = last.text !== 'N.C.'
  }

  finish(): { lines: string[]; melody: NamedMelodyNote[]; lyrics: Lyric[] } {
    const { lines, melody, lyrics, tooShort } = this
    if (this.line) this.closeLine(this.bars.length)
    if (tooShort > 0)
      this.warnings.push(
        `${tooShort} ${tooShort === 1 ? 'note has' : 'notes have'} no length that can be played and ${tooShort === 1 ? 'was' : 'were'} left out.`,
      )
    return { lines, melody, lyrics }
  }

  private placeOf(bar: ReadBar, index: number): BarPlace {
    const { metre, warnings } = this
    const { pickup, first } = this.upbeat
    const number = pickup > 0 ? index : index + 1
    const isPickup = pickup > 0 && index === 0
    const due = isPickup ? pickup : metre.beats
    const written = inBeats(bar.length, metre)
    // An upbeat inside the tune: the bars on both sides of the repeat sign make one.
    const isPart = !isPickup && written > NEAR && written < due - NEAR && isCutByRepeat(this.bars, index)
    if (isPart)
      warnings.push(
        `Bar ${number} has ${rounded(written)} beats before or behind a repeat sign: it is kept so.`,
      )
    if (written > due + NEAR)
      warnings.push(`Bar ${number} has ${rounded(written)} beats in ${meterName(metre)}: it is kept so.`)
    return {
      number,
      from: isPickup ? metre.beats - pickup + 1 : 1,
      late: isPickup ? pickup - first : 0,
      beats: isPart ? Math.ceil(written - NEAR) : Math.max(due, Math.ceil(written - NEAR)),
      due,
    }
  }

  /** Notes and words of a bar; a tied note is one with that before it. */
  private sing(bar: ReadBar, { number, from, late }: BarPlace): void {
    const { metre, melody } = this
    for (const { at, lasts, pitch, tied: goesOn } of bar.notes) {
      const midi = midiOf(pitch)
      const length = inBeats(lasts, metre)
      if (rounded(length) <= 0) {
        this.tooShort += 1
        continue
      }
      const { tied } = this
      if (tied && tied.midi === midi) tied.note.beats = rounded(tied.note.beats + length)
      else
        melody.push({
          bar: number,
          beat: rounded(from + late + inBeats(at, metre)),
          beats: rounded(length),
          note: pitchName(pitch),
        })
      const note = tied && tied.midi === midi ? tied.note : lastOf(melody)
      this.tied = goesOn ? { note, midi } : null
    }
    for (const { at, text } of bar.lyrics) {
      const lyric = lyricAt({ bar: number, beat: rounded(from + late + inBeats(at, metre)) }, text)
      if (lyric) this.lyrics.push(lyric)
    }
  }

  /** A new line before a change of key or metre, before a section, and after so many bars. */
  private breakLine(bar: ReadBar, index: number): void {
    if ((bar.newKey || bar.newMeter) && index > 0) {
      if (this.line) this.closeLine(index)
      if (bar.newKey) this.lines.push(`key: ${keyName(bar.newKey)}`)
      if (bar.newMeter) this.lines.push(`meter: ${meterName(bar.newMeter)}`)
    } else if (this.line && (this.onLine === BARS_A_LINE || bar.section !== null)) this.closeLine(index)
    if (this.line === '') {
      this.line = bar.section !== null ? `[${bar.section}] ` : ''
      this.onLine = 0
    }
  }

  /** @param index of the bar behind the line */
  private closeLine(index: number): void {
    this.lines.push(`${this.line}${itemAt(this.bars, index - 1).played > 0 ? '' : ' |'}`)
    this.line = ''
  }

  private draw(bar: ReadBar, index: number, { from, beats, due }: BarPlace, slots: Slot[]): void {
    const { before } = this
    const barline = barlineBetween(this.onLine > 0 ? itemAt(this.bars, index - 1) : null, bar)
    const again =
      before.length === 1 &&
      firstOf(before).text !== 'N.C.' &&
      slots.length === 1 &&
      firstOf(slots).held &&
      bar.opensRepeat === false &&
      beats === due
    const words = again ? '%' : printBar({ repeats: false, slots, from, beats, due })
    const [leading, behind] = [
      [...remarksOf(bar), ...bar.marks.filter((mark) => mark === 'Segno' || mark === 'Coda')],
      bar.marks.filter((mark) => mark !== 'Segno' && mark !== 'Coda'),
    ]
    this.line += `${barline}${bar.ending.length > 0 ? `${bar.ending.join(',')}.` : ''} ${[...leading, words, ...behind].join(' ')}${bar.played > 0 ? ` :|${bar.played > 2 ? `x${bar.played}` : ''}` : ''}`
    this.onLine += 1
  }
}

/** What stands between a bar and the one before it on a line of text. */
function barlineBetween(before: ReadBar | null, bar: ReadBar): string {
  if (!before || before.played === 0) return `${before ? ' ' : ''}|${bar.opensRepeat ? ':' : ''}`
  if (bar.opensRepeat) return ' |:'
  // An ending right behind `x3` would be read with it.
  return before.played > 2 && bar.ending.length > 0 ? ' |' : ''
}

/** Words to the players, once each; what reads as a chord is none. */
const remarksOf = ({ remarks }: ReadBar): string[] => [
  ...new Set(
    remarks.flatMap((words) => {
      const remark = remarkOf(words)
      return remark && !parseSymbol(remark).ok ? [printRemark(remark)] : []
    }),
  ),
]

const BARS_A_LINE = 4

/** A repeat sign stands at this bar, and not only at the end of the tune. */
function isCutByRepeat(bars: readonly ReadBar[], index: number): boolean {
  const [bar, next, before] = [itemAt(bars, index), bars[index + 1], bars[index - 1]]
  return bar.opensRepeat || bar.played > 0 || (next?.opensRepeat ?? false) || (before?.played ?? 0) > 0
}

interface FoundBar {
  number: number
  from: number
  late: number
  beats: number
  metre: Meter
  index: number
  played: boolean
}

/**
 * The chords of a bar in their time; what sounds at its beginning goes on from the bar before, or
 * nobody plays.
 */
function slotsOfBar(
  bar: ReadBar,
  { number, from, late, beats, metre, index, played }: FoundBar,
  warnings: string[],
  inBeats: (quarters: number, meter: Meter) => number,
): Slot[] {
  const read = bar.chords
    .flatMap(({ at, symbol }) => {
      // A chord in brackets may be left out by the players: it is written all the same.
      const text = symbol
        .trim()
        .replace(/\s+/g, '')
        .replace(/^\((.+)\)$/, '$1')
      if (parseSymbol(text).ok) return [{ beat: rounded(from + late + inBeats(at, metre)), text }]
      warnings.push(`"${symbol}" in bar ${number} is no chord symbol and was left out.`)
      return []
    })
    .filter(({ beat }) => beat < from + beats - NEAR)
  const inTurn = read.filter(
    ({ beat }, at) => !read.slice(at + 1).some((later) => Math.abs(later.beat - beat) < NEAR),
  )
  // Nobody plays until the first chord of the tune; behind it a bar that begins without one says so
  // by its beats.
  const silent = !played && (inTurn.length === 0 || index === 0)
  if (!inTurn[0] || inTurn[0].beat > from + NEAR) inTurn.unshift({ beat: from, text: silent ? 'N.C.' : HELD })
  return inTurn.map(({ beat, text }, at): Slot => ({
    bar: number,
    beat,
    beats: (inTurn[at + 1]?.beat ?? from + beats) - beat,
    text: text === HELD ? 'N.C.' : text,
    symbol: null,
    held: text === HELD,
  }))
}
const HELD = '.'
