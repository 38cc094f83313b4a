import { entryOf, itemAt } from '../lists'
import { Midi, type Track } from '@tonejs/midi'
import { meterName, slotKey, type Meter, type Slot } from '../chart/chart'
import { keysInForce } from '../chart/keyChanges'
import { playOrder } from '../chart/form'
import { Clock, NEAR } from '../melody/clock'
import type { Lyric } from '../melody/lyrics'
import { ringingLayers, type Layered } from '../melody/ringing'
import { lyricInWords } from '../melody/lyrics'
import { keyName, signatureOf } from '../pitch/key'
import { midiOf, pitchClass } from '../pitch/note'
import { asByteLetters } from './letters'
import type { BandNote, BandScore, Score } from './musicxml'

/**
 * Programs of General MIDI, from 0, and its channel for drums (MIDI Association, General MIDI 1).
 */
const PROGRAMS = { melody: 0, guitar: 25, bass: 32 } as const
const DRUMS = 9
/**
 * Keys of its drum channel: side stick for clicks; snare, played with brushes, for taps and sweeps.
 */
const KEYS = { click: 37, tap: 38, sweep: 40 } as const
/** How long a stroke of the drum channel is written, in beats. */
const STROKE_BEATS = 0.25

/**
 * Standard MIDI file, type 1, in the order in which the tune is played: melody, guitar, and where
 * they are a chord melody, the bass and what marks the time; each on a track and a channel of its
 * own. Tempo is in quarters, whatever a beat is; metre changes are written where they are played.
 */
export function toMidi({
  title,
  chart,
  key,
  tempo,
  chords,
  melody = [],
  lyrics = [],
  chordMelody = [],
  band,
}: Score): string {
  const file = new Midi()
  file.header.name = asByteLetters(title)
  file.header.setTempo((tempo * 4) / chart.meter.unit)
  const add = (name: string, program: number, channel: number) => {
    const track = file.addTrack()
    track.name = name
    track.channel = channel
    track.instrument.number = program
    return track
  }
  const tune = add('Melody', PROGRAMS.melody, 0)
  const grips = add('Guitar', PROGRAMS.guitar, 1)
  const ticks = (beats: number, unit: number) => Math.round((beats * 4 * file.header.ppq) / unit)
  const clock = new Clock(chart)
  const { upper, lower } = ringingLayers(chart, chordMelody)
  const alone = chordMelody.length > 0 ? add('Chord melody', PROGRAMS.guitar, 2) : null
  let begins = 0
  let metre = ''
  let signature = ''
  const keys = keysInForce(chart.bars, key)
  for (const index of playOrder(chart)) {
    const bar = itemAt(chart.bars, index)
    // A pickup is a bar of its own metre: the bars behind it keep their lines.
    const counted: Meter = bar.number === 0 ? { beats: bar.beats, unit: bar.meter.unit } : bar.meter
    if (meterName(counted) !== metre) {
      metre = meterName(counted)
      file.header.timeSignatures.push({ ticks: begins, timeSignature: [counted.beats, counted.unit] })
    }
    const keyHere = entryOf(keys, bar.number)
    if (keyName(keyHere) !== signature) {
      signature = keyName(keyHere)
      // The library names a signature by its major key, in minor too.
      file.header.keySignatures.push({
        ticks: begins,
        key: itemAt(SIGNATURES, signatureOf(keyHere) + MOST_IN_SIGNATURE),
        scale: keyHere.mode,
      })
    }
    const at = (beat: number) => begins + ticks(beat - bar.from, bar.meter.unit)
    for (const slot of band ? [] : bar.slots) {
      const durationTicks = ticks(slot.beats, bar.meter.unit)
      for (const midi of soundsOf(slot, chords))
        grips.addNote({ midi, ticks: at(slot.beat), durationTicks, velocity: 0.6 })
    }
    for (const one of melody) {
      if (one.bar !== bar.number || one.beat >= bar.from + bar.beats) continue
      // No note sounds on when the tune is over.
      const lasts = Math.min(one.beats, clock.beatsIn(bar.number, clock.end - clock.at(one)))
      const durationTicks = ticks(lasts, bar.meter.unit)
      tune.addNote({ midi: midiOf(one.note), ticks: at(one.beat), durationTicks, velocity: 0.8 })
    }
    writeWords(
      file,
      lyrics.filter((lyric) => lyric.bar === bar.number),
      at,
    )
    const from = clock.at({ bar: bar.number, beat: bar.from })
    const to = from + clock.lasts(bar.number, bar.beats)
    if (alone)
      writeStruck(alone, [...lower, ...upper], { from, to, begins }, (beats) =>
        ticks(beats, chart.meter.unit),
      )
    begins += ticks(bar.beats, bar.meter.unit)
  }
  if (band) writeBand(band, grips, (beats) => ticks(beats, chart.meter.unit), add)
  for (const track of file.tracks) withoutOverlaps(track)
  return base64Of(withSignaturesRight(file.toArray()))
}

/** @param at the tick of a beat */
function writeWords(file: Midi, lyrics: readonly Lyric[], at: (beat: number) => number): void {
  for (const one of lyrics)
    file.header.meta.push({
      type: 'lyrics',
      text: asByteLetters(one.joins ? lyricInWords(one) : `${one.text} `),
      ticks: at(one.beat),
    })
}

/**
 * What is struck of a chord melody in a bar. @param bar its beats, and the tick at which it begins
 */
function writeStruck(
  track: Track,
  struck: readonly Layered[],
  { from, to, begins }: { from: number; to: number; begins: number },
  ticks: (beats: number) => number,
): void {
  for (const one of struck)
    if (one.from >= from - NEAR && one.from < to - NEAR)
      for (const string of one.struck)
        track.addNote({
          midi: itemAt(one.voicing.strings, string).midi,
          ticks: begins + ticks(one.from - from),
          durationTicks: ticks(one.to - one.from),
          velocity: 0.7,
        })
}

const base64Of = (bytes: Uint8Array): string =>
  btoa([...bytes].map((byte) => String.fromCharCode(byte)).join(''))

/** Major keys by their signatures, from seven flats to seven sharps, as the library has them. */
export const SIGNATURES: readonly string[] = [
  'Cb',
  'Gb',
  'Db',
  'Ab',
  'Eb',
  'Bb',
  'F',
  'C',
  'G',
  'D',
  'A',
  'E',
  'B',
  'F#',
  'C#',
]
export const MOST_IN_SIGNATURE = 7

/**
 * The library (@tonejs/midi 2.0.28) writes signatures of key fourteen fifths too high: its names
 * count from 0, and it adds 7 where 7 is to be taken away. `FF 59 02` stands nowhere else in a file
 * that it writes: notes and text have no byte FF, and it writes every status.
 */
function withSignaturesRight(bytes: Uint8Array): Uint8Array {
  const right = bytes.slice()
  for (let at = 0; at + 4 < right.length; at += 1)
    if (right[at] === 0xff && right[at + 1] === 0x59 && right[at + 2] === 0x02)
      right[at + 3] = (right[at + 3]! - 2 * MOST_IN_SIGNATURE) & 0xff
  return right
}

/** A note that is struck again ends there: two of one pitch at once would end each other. */
function withoutOverlaps({ notes }: Track): void {
  const next = new Map<number, number>()
  for (const note of [...notes].sort((a, b) => b.ticks - a.ticks)) {
    const until = Math.min(note.ticks + note.durationTicks, next.get(note.midi) ?? Infinity)
    note.durationTicks = Math.max(1, until - note.ticks)
    next.set(note.midi, note.ticks)
  }
}

function writeBand(
  { guitar, bass, time }: BandScore,
  grips: Track,
  ticks: (beats: number) => number,
  add: (name: string, program: number, channel: number) => Track,
): void {
  const write = (track: Track, notes: readonly BandNote[]) => {
    for (const { from, lasts, midi, velocity } of notes)
      track.addNote({ midi, ticks: ticks(from), durationTicks: ticks(lasts), velocity })
  }
  write(grips, guitar)
  if (bass.length > 0) write(add('Bass', PROGRAMS.bass, 3), bass)
  if (time.length > 0)
    write(
      add('Brushes', 0, DRUMS),
      time.map(({ from, strong, brush }) => ({
        from,
        lasts: STROKE_BEATS,
        midi: brush ? KEYS[brush] : KEYS.click,
        velocity: strong ? 0.7 : 0.5,
      })),
    )
}

/** The octave in which a chord without a grip is written: its root from C3. */
const PLAIN_FROM = 48

/**
 * What a slot sounds: its grip, or where none is kept the chord's own tones from its root (or its
 * bass) up.
 */
function soundsOf(slot: Slot, chords: Score['chords']): readonly number[] {
  const written = chords.get(slotKey(slot))
  if (!written) return []
  if (written.voicing) return written.voicing.midis
  const { root, bass, tones } = written.chord
  const lowest = PLAIN_FROM + pitchClass(bass ?? root)
  const above = tones.map(({ note }) => lowest + ((pitchClass(note) - lowest + 144) % 12))
  return [...new Set([lowest, ...above])].sort((a, b) => a - b)
}
