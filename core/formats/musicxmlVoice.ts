import { itemAt, lastOf } from '../lists'
import type { Bar, Meter } from '../chart/chart'
import type { Lyric } from '../melody/lyrics'
import { scaleNotes, type Key } from '../pitch/key'
import type { Pitch } from '../pitch/note'
import { NOTE_NAMES, writeHarmony, writeNoChord, type WrittenChord } from './musicxmlHarmony'
import { DIVISIONS, noteValues, type NoteValue } from './noteValues'
import type { XmlElement } from './xml'

/** A note with its place on the neck, where that is known. */
export interface WrittenNote {
  pitch: Pitch
  /** As players count: 1 is the highest. */
  string?: number
  /** From the nut; 0 is open, at the capo. */
  fret?: number
}

/** Notes that sound together for a time inside one bar, in divisions from its beginning. */
export interface SoundingChord {
  at: number
  length: number
  notes: readonly WrittenNote[]
  slash?: boolean
  accent?: boolean
  short?: boolean
  tiedFrom: boolean
  tiedOn: boolean
}
/** A symbol at a place of a bar; without a chord it is N.C. */
export interface HarmonyAt {
  at: number
  written: WrittenChord | null
}
/** Words at a place of a bar. @see Lyric */
export interface LyricAt extends Pick<Lyric, 'text' | 'joins'> {
  at: number
  /** The word began before. */
  goesOn: boolean
}

export const lengthOf = (beats: number, { unit }: Meter): number => Math.round((beats * 4 * DIVISIONS) / unit)

/** One note value of a voice: sounding or silent, with what stands over and under it. */
interface WrittenValue {
  at: number
  value: NoteValue
  /** Null for a rest. */
  sounding: SoundingChord | null
  ties: { from: boolean; on: boolean }
  /** It begins what sounds, and is not tied on inside the bar. */
  first: boolean
  symbols: HarmonyAt[]
  lyric: LyricAt | null
}

/** What a voice of a bar is written with. */
export interface Voice {
  bar: Pick<Bar, 'beats' | 'meter'>
  /** The key in force. */
  key: Key
  name: string
  soundings: readonly SoundingChord[]
  symbols?: readonly HarmonyAt[]
  lyrics?: readonly LyricAt[]
  /** The fret it lies on; 0 for none. */
  capo?: number
  /** Number of the staff it stands on, where there are two. */
  staff?: number | null
}

/**
 * One voice of a bar, with rests where nothing sounds; a symbol that comes while a note sounds on
 * is put behind its beginning.
 */
export function writeVoice(measure: XmlElement, voice: Voice): void {
  const all = valuesOf(voice)
  const beams = beamsOf(all, voice.bar)
  const triplets = new Triplets()
  const signs = new Accidentals(voice.key)
  all.forEach((one, index) => {
    for (const { at, written } of one.symbols)
      if (written) writeHarmony(measure, written, at - one.at)
      else writeNoChord(measure, at - one.at)
    const tuplet = triplets.take(one.value)
    if (one.sounding)
      writeNotes(measure, one, one.sounding, { voice, tuplet, beams: beams.get(index) ?? [], signs })
    else writeRest(measure, one, voice, tuplet)
  })
}

/** The same voice as tablature: what has a place on the neck, and nothing where it has none. */
export function writeTab(measure: XmlElement, voice: Voice): void {
  const staff = String(voice.staff ?? 1)
  for (const { value, sounding, ties } of valuesOf({ ...voice, symbols: [], lyrics: [] })) {
    const notes = sounding?.notes.filter(({ string }) => string !== undefined) ?? []
    if (notes.length === 0) {
      const forward = measure.ele('forward')
      forward.ele('duration').txt(String(value.length))
      forward.ele('voice').txt(voice.name)
      forward.ele('staff').txt(staff)
    }
    notes.forEach(({ pitch, string, fret }, order) => {
      const note = measure.ele('note')
      if (order > 0) note.ele('chord')
      writePitch(note, pitch)
      writeValue(note, value, ties, voice.name)
      closeValue(note, value)
      note.ele('stem').txt('none')
      note.ele('staff').txt(staff)
      const notations = note.ele('notations')
      if (ties.from) notations.ele('tied', { type: 'stop' })
      if (ties.on) notations.ele('tied', { type: 'start' })
      writePlace(notations, string!, fret!, voice.capo ?? 0)
    })
  }
}

/** The values of a voice from the beginning of the bar to its end. */
function valuesOf({ bar, soundings, symbols = [], lyrics = [] }: Voice): WrittenValue[] {
  const end = lengthOf(bar.beats, bar.meter)
  const waiting = [...symbols]
  const sung = [...lyrics]
  const all: WrittenValue[] = []
  let at = 0
  const symbolsBefore = (until: number): HarmonyAt[] => {
    const upTo = waiting.findIndex((one) => one.at >= until)
    return waiting.splice(0, upTo < 0 ? waiting.length : upTo)
  }
  const lyricAt = (place: number): LyricAt | null => (sung[0] && sung[0].at <= place ? sung.shift()! : null)
  const put = (length: number, sounding: SoundingChord | null) => {
    const values = noteValues(length)
    values.forEach((value, order) => {
      all.push({
        at,
        value,
        sounding,
        ties: {
          from: sounding !== null && (sounding.tiedFrom || order > 0),
          on: sounding !== null && (sounding.tiedOn || order < values.length - 1),
        },
        first: order === 0,
        symbols: order === 0 ? symbolsBefore(at + length) : [],
        lyric: order === 0 ? lyricAt(at) : null,
      })
      at += value.length
    })
  }
  const restTo = (until: number) => {
    // Rests part where a symbol or words stand, so that they stand over one.
    const places = [...waiting, ...sung].map((one) => one.at).filter((place) => place > at && place < until)
    for (const place of [...new Set(places)].sort((a, b) => a - b).concat(until))
      if (place > at) put(place - at, null)
  }
  for (const sounding of cutAtWords(soundings, lyrics)) {
    const length = Math.min(sounding.length, end - sounding.at)
    if (sounding.at < at || length <= 0) continue
    restTo(sounding.at)
    put(length, sounding)
  }
  restTo(end)
  return all
}

/** Notes in order, tied where words begin while they sound. */
function cutAtWords(soundings: readonly SoundingChord[], lyrics: readonly LyricAt[]): SoundingChord[] {
  return [...soundings]
    .sort((a, b) => a.at - b.at)
    .flatMap((one) => {
      const end = one.at + one.length
      const cuts = [one.at, ...lyrics.map(({ at }) => at).filter((at) => at > one.at && at < end), end]
      return cuts.slice(0, -1).map((at, index) => ({
        ...one,
        at,
        length: itemAt(cuts, index + 1) - at,
        tiedFrom: one.tiedFrom || index > 0,
        tiedOn: one.tiedOn || index < cuts.length - 2,
        ...(index > 0 ? { accent: false } : {}),
      }))
    })
}

/**
 * The notes of three in the time of two that are being written: how long they are together so far,
 * and the shortest of them as it is written, in divisions.
 */
interface Triplet {
  length: number
  shortest: number
}

/**
 * Where groups of triplets begin and end: a group is over where it fills two of its shortest notes'
 * written length, or a multiple.
 */
class Triplets {
  private open: Triplet | null = null

  /** Takes the next value of the voice. @returns what the note says of its group */
  take(value: NoteValue): 'start' | 'stop' | null {
    if (!value.triplet) {
      this.open = null
      return null
    }
    const written = (value.length * 3) / 2
    const begun = this.open
    const now: Triplet = begun
      ? { length: begun.length + value.length, shortest: Math.min(begun.shortest, written) }
      : { length: value.length, shortest: written }
    this.open = now.length % (2 * now.shortest) === 0 ? null : now
    if (!begun) return 'start'
    return this.open ? null : 'stop'
  }
}

const SIGN_NAMES: Readonly<Record<number, string>> = {
  [-2]: 'flat-flat',
  [-1]: 'flat',
  0: 'natural',
  1: 'sharp',
  2: 'double-sharp',
}

/**
 * Signs that a bar needs: where a note is altered otherwise than the key, or than the note of its
 * place before it in the bar.
 */
class Accidentals {
  private readonly inForce = new Map<string, number>()
  private readonly inKey: ReadonlyMap<number, number>

  constructor(key: Key) {
    this.inKey = new Map(scaleNotes(key).map(({ letter, alter }) => [letter, alter]))
  }

  /** The sign of the next note, by its name; null where it needs none. */
  take({ letter, alter, octave }: Pitch): string | null {
    const place = `${letter}:${octave}`
    const before = this.inForce.get(place) ?? this.inKey.get(letter) ?? 0
    this.inForce.set(place, alter)
    return before === alter ? null : SIGN_NAMES[alter]!
  }
}

type Beam = 'begin' | 'continue' | 'end' | 'forward hook' | 'backward hook'
const BEAMS_OF: Readonly<Record<string, number>> = { eighth: 1, '16th': 2, '32nd': 3, '64th': 4 }

/**
 * Beams, by the index of the value: neighbours with flags that begin in the same beat; in eighths
 * that go by threes, in the same dotted quarter.
 */
function beamsOf(all: readonly WrittenValue[], { meter }: Voice['bar']): Map<number, Beam[]> {
  const beat = (4 * DIVISIONS) / meter.unit
  const span = meter.unit >= 8 && meter.beats % 3 === 0 ? 3 * beat : Math.max(beat, DIVISIONS)
  const groups: number[][] = []
  all.forEach((one, index) => {
    if (!one.sounding || !one.value.type || !BEAMS_OF[one.value.type]) return
    const last = groups.at(-1)
    const before = last && itemAt(all, lastOf(last))
    if (before && last.at(-1) === index - 1 && Math.floor(before.at / span) === Math.floor(one.at / span))
      last.push(index)
    else groups.push([index])
  })
  const beams = new Map<number, Beam[]>()
  for (const group of groups.filter(({ length }) => length > 1))
    group.forEach((index, at) => {
      const levels = BEAMS_OF[itemAt(all, index).value.type!]!
      const has = (other: number | undefined, level: number) =>
        other !== undefined && BEAMS_OF[itemAt(all, other).value.type!]! >= level
      beams.set(
        index,
        Array.from({ length: levels }, (_, order): Beam => {
          const [before, after] = [has(group[at - 1], order + 1), has(group[at + 1], order + 1)]
          if (before && after) return 'continue'
          if (after) return 'begin'
          if (before) return 'end'
          return at > 0 ? 'backward hook' : 'forward hook'
        }),
      )
    })
  return beams
}

function writeRest(
  measure: XmlElement,
  { value, lyric }: WrittenValue,
  voice: Voice,
  tuplet: 'start' | 'stop' | null,
): void {
  const note = measure.ele('note')
  note.ele('rest')
  writeValue(note, value, { from: false, on: false }, voice.name)
  closeValue(note, value)
  if (voice.staff) note.ele('staff').txt(String(voice.staff))
  if (tuplet) note.ele('notations').ele('tuplet', { type: tuplet })
  if (lyric) writeLyric(note, lyric)
}

/** `voice` stands between duration and type; that is the order of the schema. */
function writeValue(
  note: XmlElement,
  value: NoteValue,
  ties: { from: boolean; on: boolean },
  voice: string,
): void {
  note.ele('duration').txt(String(value.length))
  if (ties.from) note.ele('tie', { type: 'stop' })
  if (ties.on) note.ele('tie', { type: 'start' })
  note.ele('voice').txt(voice)
  if (value.type) note.ele('type').txt(value.type)
  for (let dot = 0; dot < value.dots; dot += 1) note.ele('dot')
}

/** What comes behind the sign: three in the time of two. */
function closeValue(note: XmlElement, value: NoteValue): void {
  if (!value.triplet) return
  const modification = note.ele('time-modification')
  modification.ele('actual-notes').txt('3')
  modification.ele('normal-notes').txt('2')
}

function writePitch(note: XmlElement, { letter, alter, octave }: Pitch): void {
  const pitch = note.ele('pitch')
  pitch.ele('step').txt(itemAt(NOTE_NAMES, letter))
  if (alter !== 0) pitch.ele('alter').txt(String(alter))
  pitch.ele('octave').txt(String(octave))
}

/** String and fret; with a capo frets count from it (MusicXML 4.0, `staff-details`, `capo`). */
function writePlace(notations: XmlElement, string: number, fret: number, capo: number): void {
  const technical = notations.ele('technical')
  technical.ele('string').txt(String(string))
  technical.ele('fret').txt(String(fret === 0 ? 0 : fret - capo))
}

/** MusicXML 4.0, `syllabic`: whether a word is whole, begins here, goes on or ends. */
function writeLyric(note: XmlElement, { text, joins, goesOn }: LyricAt): void {
  const lyric = note.ele('lyric', { number: '1' })
  const [joined, ended] = goesOn ? ['middle', 'end'] : ['begin', 'single']
  const syllabic = joins ? joined! : ended!
  lyric.ele('syllabic').txt(syllabic)
  lyric.ele('text').txt(text)
}

/** Notes together; where their strings are known, with the marks of tablature. */
function writeNotes(
  measure: XmlElement,
  { value, ties, first, lyric }: WrittenValue,
  sounding: SoundingChord,
  {
    voice,
    tuplet,
    beams,
    signs,
  }: { voice: Voice; tuplet: 'start' | 'stop' | null; beams: readonly Beam[]; signs: Accidentals },
): void {
  const { notes, slash = false } = sounding
  const [accent, short] = [first && sounding.accent === true, first && sounding.short === true]
  notes.forEach(({ pitch, string, fret }, order) => {
    const note = measure.ele('note')
    if (order > 0) note.ele('chord')
    writePitch(note, pitch)
    writeValue(note, value, ties, voice.name)
    const sign = slash || ties.from ? null : signs.take(pitch)
    if (sign) note.ele('accidental').txt(sign)
    closeValue(note, value)
    if (slash) note.ele('notehead').txt('slash')
    if (voice.staff) note.ele('staff').txt(String(voice.staff))
    if (order === 0) beams.forEach((beam, level) => note.ele('beam', { number: String(level + 1) }).txt(beam))
    const grouped = order === 0 ? tuplet : null
    if (ties.from || ties.on || string !== undefined || accent || short || grouped) {
      const notations = note.ele('notations')
      if (ties.from) notations.ele('tied', { type: 'stop' })
      if (ties.on) notations.ele('tied', { type: 'start' })
      if (grouped) notations.ele('tuplet', { type: grouped })
      if (string !== undefined) writePlace(notations, string, fret!, voice.capo ?? 0)
      if (accent || short) {
        const articulations = notations.ele('articulations')
        if (accent) articulations.ele('accent')
        if (short) articulations.ele('staccato')
      }
    }
    if (lyric && order === 0) writeLyric(note, lyric)
  })
}

/** Words of a bar at their places, each knowing whether its word began before. */
export function lyricsByBar(
  lyrics: readonly Lyric[],
  bars: readonly Bar[],
): ReadonlyMap<number, readonly LyricAt[]> {
  const found = new Map<number, LyricAt[]>()
  const known = new Map(bars.map((bar) => [bar.number, bar]))
  let goesOn = false
  for (const one of lyrics) {
    const bar = known.get(one.bar)
    if (!bar || one.beat < bar.from || one.beat >= bar.from + bar.beats) continue
    const here = { at: lengthOf(one.beat - bar.from, bar.meter), text: one.text, goesOn }
    goesOn = one.joins === true
    found.set(one.bar, [...(found.get(one.bar) ?? []), goesOn ? { ...here, joins: true } : here])
  }
  return found
}
