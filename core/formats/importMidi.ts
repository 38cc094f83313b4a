import { entryOf, firstOf, itemAt } from '../lists'
import { Midi } from '@tonejs/midi'
import { keyName, parseKey, type Key } from '../pitch/key'
import { plainPitchName } from '../pitch/note'
import { bad, good, type Result, faultWords } from '../result'
import { namesOf } from '../voicing/possibleNames'
import { SIGNATURES } from './midi'
import { lyricsInOrder, lyricAt, type Lyric } from '../melody/lyrics'
import { ofByteLetters } from './letters'
import { inBounds, type SungInFile } from './midiBounds'
import { TEMPO_RANGE } from '../chart/parseChart'
import { moveNote } from '../chart/transpose'
import {
  LONGEST_BAR_READ,
  MOST_BARS_READ,
  MOST_NOTES_READ,
  noSuchPart,
  partsFrom,
  type ImportedTune,
  type NamedMelodyNote,
} from './readTune'

/** A Standard MIDI file of at most so many bytes: hours of music. */
export const MOST_MIDI_BYTES = 2_000_000

/** Notes of all tracks that are listened to: an hour of a full band. */
const MOST_SOUNDED = 100_000

/** Parts of a beat that notes are put on: quarters of it and thirds. */
const GRIDS = [4, 3] as const

/**
 * The melody of a Standard MIDI file: of the track that lies highest, one note at a time, put on
 * the nearest quarter or third of a beat.
 * @param content the file in base64
 */
export function importMidi(content: string, part?: number): Result<ImportedTune> {
  const opened = openMidi(content)
  if (!opened.ok) return opened
  const { file, words, warnings } = opened.value
  const tracks = file.tracks.filter(({ notes, channel }) => notes.length > 0 && channel !== DRUMS)
  if (tracks.length === 0)
    return bad({
      code: 'bad-file',
      message: 'No track of the file has notes.',
      accepted: ACCEPTED,
      text: 'content',
    })
  if (part !== undefined && !tracks[part - 1]) return noSuchPart(part, tracks.length)
  const track = tracks[(part ?? 0) - 1] ?? tuneOf(tracks)
  const others = tracks.filter((one) => one !== track)
  if (others.length > 0) warnings.push(takenFrom(track, others.length, part !== undefined))
  const count = tracks.reduce((sum, { notes }) => sum + notes.length, 0)
  if (count > MOST_SOUNDED)
    return tooLarge(`The file has ${count} notes.`, `at most ${MOST_SOUNDED} notes in all its tracks`)
  if (file.header.tempos.length > 1) warnings.push('The tempo changes in the file; the first one was taken.')
  const last = tracks.reduce(
    (sum, { notes }) => notes.reduce((most, { ticks }) => Math.max(most, ticks), sum),
    0,
  )
  const bars = barsOf(file, last)
  if (bars.length > MOST_BARS_READ)
    return tooLarge(`The last note stands in bar ${bars.length}.`, `at most ${MOST_BARS_READ} bars`)
  // Chords and nothing else are no tune: their highest notes would be a melody nobody wrote.
  const placed = placedIn(bars, isChordal(track, 1) ? [] : track.notes)
  const voices = oneAtATime(placed)
  if (voices.length < placed.length)
    warnings.push(`${placed.length - voices.length} notes that sounded under others were left out.`)
  if (voices.length > MOST_NOTES_READ)
    return tooLarge(`The melody has ${voices.length} notes.`, `at most ${MOST_NOTES_READ} notes`)
  const pickup = pickupOf(bars)
  const numberOf = (index: number) => (pickup > 0 ? index : index + 1)
  /** The longest note, in beats of its bar. */
  const longest = (beatTicks: number) => (LONGEST_BAR_READ * file.header.ppq) / beatTicks
  const melody = voices.map(({ midi, bar, beat, beats, beatTicks }): NamedMelodyNote => ({
    bar: numberOf(bar),
    beat: beat + (pickup > 0 && bar === 0 ? itemAt(bars, 1).beats - pickup : 0),
    beats: Math.min(beats, longest(beatTicks)),
    note: plainPitchName(midi),
  }))
  const grids = new Set(placed.map(({ grid }) => (grid === 3 ? 'thirds' : 'quarters')))
  const endless = voices.find(({ beats, beatTicks }) => beats > longest(beatTicks))
  if (endless)
    warnings.push(
      `A note in bar ${numberOf(endless.bar)} that lasts over ${LONGEST_BAR_READ} quarter notes was cut there.`,
    )
  const key = keyOf(file)
  const harmony = others.length > 0 ? others : tracks.filter((one) => isChordal(one))
  const chords = harmonyOf(
    bars,
    harmony.flatMap(({ notes }) => notes),
    key,
  )
  warnings.push(
    `${grids.size > 0 ? `Notes were put on ${[...grids].sort().join(' and ')} of a beat.` : 'It has chords and no melody.'} ${
      chords.some((words) => words !== 'N.C.')
        ? 'The file names no chords: they were named by what sounds under the melody.'
        : 'The file names no chords: the bars are silent until you type them.'
    }`,
  )
  const lines = chartLinesOf(file, bars, chords, pickup, key)
  const lyrics = wordsOn(voices, melody, words)
  const unsung = words.filter(({ text }) => text.trim() !== '').length - lyrics.length
  if (unsung > 0) warnings.push(`${unsung} words that stand under no note of the melody were left out.`)
  const parts = partsFrom(
    tracks.map((one, at) => ofByteLetters(one.name) || `Track ${at + 1}`),
    tracks.indexOf(track),
  )
  return good({ text: lines.join('\n'), melody, lyrics, warnings, ...(parts ? { parts } : {}) })
}

const tooLarge = (message: string, accepted: string) =>
  bad({ code: 'too-large', message, accepted, text: 'content' })

/** @param chosen by the player, not by its name or height */
function takenFrom(track: Track, others: number, chosen: boolean): string {
  const found = LEADS.test(track.name) ? 'is called so' : 'lies highest'
  return `The melody was taken from the track that ${chosen ? 'was chosen' : found}${track.name ? `, "${ofByteLetters(track.name)}"` : ''}; ${others} other ${others === 1 ? 'track' : 'tracks'} left out as notes.`
}

const ACCEPTED = `a Standard MIDI file (type 0 or 1) in base64, of at most ${MOST_MIDI_BYTES} bytes`

/** The file itself, with the words sung in it and what of it was mended. */
function openMidi(content: string): Result<{ file: Midi; words: SungInFile[]; warnings: string[] }> {
  const bytes = bytesOf(content)
  if (!bytes)
    return bad({
      code: 'bad-file',
      message: 'The content is not base64.',
      accepted: ACCEPTED,
      text: 'content',
    })
  if (bytes.length > MOST_MIDI_BYTES)
    return bad({
      code: 'too-large',
      message: `The file has ${bytes.length} bytes.`,
      accepted: ACCEPTED,
      text: 'content',
    })
  const header = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 14 || header.getUint32(0) !== 0x4d546864)
    return bad({
      code: 'bad-file',
      message: 'This is no MIDI file: it does not begin with MThd.',
      accepted: ACCEPTED,
      text: 'content',
    })
  if (header.getUint16(8) === 2)
    return bad({
      code: 'bad-file',
      message: 'This is a MIDI file of type 2, a row of unrelated patterns.',
      accepted: ACCEPTED,
      text: 'content',
    })
  if (header.getUint16(10) === 0)
    return bad({ code: 'bad-file', message: 'The file has no tracks.', accepted: ACCEPTED, text: 'content' })
  const warnings: string[] = []
  const words: SungInFile[] = []
  const sound = inBounds(bytes, warnings, words)
  if (!sound.ok) return bad({ ...sound.fault, accepted: ACCEPTED, text: 'content' })
  try {
    return good({ file: new Midi(sound.value), words, warnings })
  } catch (error) {
    return bad({
      code: 'bad-file',
      message: `The file breaks off or is damaged: ${faultWords(error)}`,
      accepted: ACCEPTED,
      text: 'content',
    })
  }
}

/** The text of the chart: what is said of the tune, and its bars, a line for each metre. */
function chartLinesOf(
  file: Midi,
  bars: readonly MidiBar[],
  chords: readonly string[],
  pickup: number,
  key: Key | null,
): string[] {
  const name = ofByteLetters(file.header.name)
    .replace(/[\s\p{C}]+/gu, ' ')
    .trim()
  const first = itemAt(bars, pickup > 0 ? 1 : 0)
  const tempo = file.header.tempos[0]
  const lines = [
    ...(name ? [`title: ${name}`] : []),
    ...(key ? [`key: ${keyName(key)}`] : []),
    `meter: ${first.beats}/${first.unit}`,
    ...(tempo
      ? [
          `tempo: ${Math.min(TEMPO_RANGE[1], Math.max(TEMPO_RANGE[0], Math.round((tempo.bpm * first.unit) / 4)))}`,
        ]
      : []),
    ...(pickup > 0 ? [`pickup: ${pickup}`] : []),
  ]
  let line: string[] = []
  const close = () => {
    if (line.length > 0) lines.push(`| ${line.join(' | ')} |`)
    line = []
  }
  bars.forEach((bar, index) => {
    const before = index > (pickup > 0 ? 1 : 0) ? bars[index - 1] : undefined
    if (before && (before.beats !== bar.beats || before.unit !== bar.unit)) {
      close()
      lines.push(`meter: ${bar.beats}/${bar.unit}`)
    }
    line.push(itemAt(chords, index))
  })
  close()
  return lines
}

/**
 * Words with the notes of the melody that begin where they are sung, within half a beat of it. A
 * word that goes on ends in a hyphen.
 */
function wordsOn(
  voices: readonly PlacedNote[],
  melody: readonly NamedMelodyNote[],
  words: readonly SungInFile[],
): Lyric[] {
  const found: Lyric[] = []
  let at = 0
  for (const { ticks, text } of [...words].sort((a, b) => a.ticks - b.ticks)) {
    const apart = (index: number) => Math.abs((voices[index]?.ticks ?? Infinity) - ticks)
    while (at + 1 < voices.length && apart(at + 1) < apart(at)) at += 1
    const voice = voices[at]
    // Files for singing along begin their lines with a stroke.
    const lyric =
      voice && apart(at) < voice.beatTicks / 2
        ? lyricAt(itemAt(melody, at), text.replace(/^[\\/]/, ''))
        : null
    if (lyric) found.push(lyric)
  }
  return lyricsInOrder(found)
}

type Track = Midi['tracks'][number]

/** Names that say a track is the tune. */
const LEADS = /\b(?:melody|tune|lead|vocals?|voice|solo)\b/i

/** The track that is called the melody, else the one that lies highest. */
function tuneOf(tracks: readonly Track[]): Track {
  const mean = ({ notes }: Track) => notes.reduce((sum, { midi }) => sum + midi, 0) / notes.length
  const highest = (all: readonly Track[]) => all.reduce((best, one) => (mean(one) > mean(best) ? one : best))
  const called = tracks.filter(({ name }) => LEADS.test(name))
  return highest(called.length > 0 ? called : tracks)
}

/** More than a share of what it strikes (all of it for 1) are chords of three notes and more. */
function isChordal({ notes }: Track, share = 0.5): boolean {
  const struck = new Map<number, number>()
  for (const { ticks } of notes) struck.set(ticks, (struck.get(ticks) ?? 0) + 1)
  const counts = [...struck.values()]
  const chords = counts.filter((count) => count >= CHORD_NOTES).length
  return share === 1 ? chords === counts.length : chords > share * counts.length
}
const CHORD_NOTES = 3

/** A bar of the file: where it begins, and how it is counted. */
interface MidiBar {
  ticks: number
  beats: number
  unit: number
  /** Ticks of one beat. */
  beat: number
}

/** Bars by the signatures of time; one that comes inside a bar ends it there. */
function barsOf({ header: { ppq, timeSignatures } }: Midi, last: number): MidiBar[] {
  const changes = [...timeSignatures]
    .sort((a, b) => a.ticks - b.ticks)
    .map(({ ticks, timeSignature: [beats, unit] }) => ({ ticks, beats: beats!, unit: unit! }))
  if (changes.length === 0 || firstOf(changes).ticks > 0) changes.unshift({ ticks: 0, beats: 4, unit: 4 })
  const bars: MidiBar[] = []
  changes.forEach(({ ticks: from, beats, unit }, at) => {
    const to = changes[at + 1]?.ticks ?? Math.max(last + 1, from)
    const beat = (ppq * 4) / unit
    for (let ticks = from; ticks < to && bars.length <= MOST_BARS_READ; ticks += beat * beats) {
      const left = Math.min(beats, Math.max(1, Math.round((to - ticks) / beat)))
      bars.push({ ticks, beats: at + 1 < changes.length ? left : beats, unit, beat })
    }
  })
  return bars
}

/** Beats of an upbeat: a first bar that is shorter than those behind it. */
const pickupOf = ([first, second]: readonly MidiBar[]): number =>
  first && second && first.unit === second.unit && first.beats < second.beats ? first.beats : 0

interface PlacedNote {
  midi: number
  /** Index of its bar, its beat there from 1, and its length in beats of that bar. */
  bar: number
  beat: number
  beats: number
  grid: number
  /** Where it stands on its grid, and a beat of its bar, in ticks. */
  ticks: number
  beatTicks: number
}

/** Notes on quarters of a beat, or on thirds in bars where that is nearer. */
function placedIn(bars: readonly MidiBar[], notes: Track['notes']): PlacedNote[] {
  const inBars = new Map<number, Track['notes']>()
  let at = 0
  for (const note of [...notes].sort((a, b) => a.ticks - b.ticks)) {
    while (at + 1 < bars.length && itemAt(bars, at + 1).ticks <= note.ticks) at += 1
    const inside = inBars.get(at)
    if (inside) inside.push(note)
    else inBars.set(at, [note])
  }
  return [...inBars].flatMap(([index, inside]) => {
    const bar = itemAt(bars, index)
    const from = inside.map(({ ticks }) => ({ ticks: ticks - bar.ticks }))
    const grid = GRIDS.reduce(
      (best, one) => (offGrid(from, bar.beat / one) < offGrid(from, bar.beat / best) * 0.8 ? one : best),
      GRIDS[0] as number,
    )
    return inside.map(({ midi, ticks, durationTicks }): PlacedNote => {
      const begins = Math.round(((ticks - bar.ticks) / bar.beat) * grid)
      const ends = Math.max(begins + 1, Math.round(((ticks + durationTicks - bar.ticks) / bar.beat) * grid))
      const overBar = begins >= bar.beats * grid && index + 1 < bars.length
      return {
        midi,
        bar: overBar ? index + 1 : index,
        beat: (overBar ? 0 : begins / grid) + 1,
        beats: (ends - begins) / grid,
        grid,
        ticks: bar.ticks + (begins / grid) * bar.beat,
        beatTicks: bar.beat,
      }
    })
  })
}

const C_MAJOR_TONIC = { letter: 0, alter: 0 }
const A_MINOR_TONIC = { letter: 5, alter: 0 }

/**
 * The key of the first signature, which the library names by its major key in minor too; null where
 * there is none.
 */
function keyOf({ header: { keySignatures } }: Midi): Key | null {
  const [first] = keySignatures
  // A signature of more than seven has no name there.
  const major = first && SIGNATURES.includes(first.key) ? parseKey(first.key) : null
  if (!major?.ok) return null
  return first!.scale === 'minor'
    ? { tonic: moveNote(major.value.tonic, C_MAJOR_TONIC, A_MINOR_TONIC), mode: 'minor' }
    : major.value
}

/**
 * What sounds under the melody, named beat by beat, as the words of each bar; a bar in which
 * nothing sounds is silent.
 */
function harmonyOf(bars: readonly MidiBar[], notes: Track['notes'], key: Key | null): string[] {
  const ordered = [...notes].sort((a, b) => a.ticks - b.ticks)
  const names = new Map<string, string | null>()
  const named = (midis: readonly number[]): string | null => {
    const known = midis.join()
    if (!names.has(known))
      names.set(
        known,
        new Set(midis.map((midi) => midi % 12)).size < CHORD_NOTES
          ? null
          : (namesOf(midis, key ? { key } : {})[0]?.chord.canonical ?? null),
      )
    return entryOf(names, known)
  }
  let first = 0
  let sounding: string | null = null
  let begun = false
  return bars.map(({ ticks, beats, beat }) => {
    const end = ticks + beats * beat
    while (first < ordered.length && itemAt(ordered, first).ticks + LONGEST_HELD * beat < ticks) first += 1
    const here: typeof ordered = []
    for (let at = first; at < ordered.length && itemAt(ordered, at).ticks < end; at += 1)
      if (itemAt(ordered, at).ticks + itemAt(ordered, at).durationTicks > ticks)
        here.push(itemAt(ordered, at))
    if (here.length === 0) {
      sounding = null
      return 'N.C.'
    }
    const words = Array.from({ length: beats }, (_, at) => {
      const [from, to] = [ticks + at * beat, ticks + (at + 1) * beat]
      const midis = here
        .filter(
          (note) => Math.min(to, note.ticks + note.durationTicks) - Math.max(from, note.ticks) >= beat / 2,
        )
        .map(({ midi }) => midi)
      const name = named([...new Set(midis)].sort((a, b) => a - b))
      const isNew = name !== null && (name !== sounding || at === 0)
      sounding = name ?? sounding
      return isNew ? name : '.'
    })
    // Before the first chord of the tune there is none to hold.
    if (!begun && words[0] === '.' && sounding !== null) words[0] = 'N.C.'
    begun ||= sounding !== null
    if (sounding === null) return 'N.C.'
    return words.slice(1).every((word) => word === '.') && words[0] !== '.' ? firstOf(words) : words.join(' ')
  })
}
/** Notes held for longer than this, in beats, are looked for no more. */
const LONGEST_HELD = 64

/** MIDI channel 10, counted from 0. */
const DRUMS = 9

function bytesOf(content: string): Uint8Array | null {
  try {
    const binary = atob(content.replace(/\s+/g, ''))
    return Uint8Array.from(binary, (letter) => letter.charCodeAt(0))
  } catch {
    return null
  }
}

/** How far notes begin from the lines of a grid, in ticks together. */
const offGrid = (notes: readonly { ticks: number }[], ticks: number): number =>
  notes.reduce((sum, note) => sum + Math.abs(note.ticks - Math.round(note.ticks / ticks) * ticks), 0)

/** Of notes that begin together the highest; each ends at the latest where the next begins. */
function oneAtATime(notes: readonly PlacedNote[]): PlacedNote[] {
  const highest = new Map<string, PlacedNote>()
  for (const note of notes) {
    const place = `${note.bar}:${note.beat}`
    if (!highest.has(place) || entryOf(highest, place).midi < note.midi) highest.set(place, note)
  }
  const inOrder = [...highest.values()].sort((a, b) => a.ticks - b.ticks)
  return inOrder.map((note, at) => {
    const next = inOrder[at + 1]
    const room = next ? (next.ticks - note.ticks) / note.beatTicks : Infinity
    return { ...note, beats: Math.max(Math.min(note.beats, room), 1 / (2 * note.grid)) }
  })
}
