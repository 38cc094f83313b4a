import { Midi, type Track } from '@tonejs/midi'
import { meterName, slotKey, type Slot } from '../chart/chart'
import { playOrder } from '../chart/form'
import { Clock, NEAR } from '../melody/clock'
import { layersOf } from '../melody/layers'
import { midiOf, pitchClass } from '../pitch/note'
import type { BandNote, BandScore, Score } from './musicxml'

/** Programs of General MIDI, from 0, and its channel for drums (MIDI Association, General MIDI 1). */
const PROGRAMS = { melody: 0, guitar: 25, bass: 32 } as const
const DRUMS = 9
/** Keys of its drum channel: side stick for clicks; snare, played with brushes, for taps and sweeps. */
const KEYS = { click: 37, tap: 38, sweep: 40 } as const
/** How long a stroke of the drum channel is written, in beats. */
const STROKE_BEATS = 0.25

/**
 * Standard MIDI file, type 1, in the order in which the tune is played: melody, guitar, and where they are a chord melody, the bass and what marks the time; each
 * on a track and a channel of its own. Tempo is in quarters, whatever a beat is; metre changes are written where they are played.
 */
export function toMidi({ title, chart, tempo, chords, melody = [], chordMelody = [], band }: Score): string {
  const file = new Midi()
  file.header.name = title
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
  const { upper, lower } = layersOf(chart, chordMelody)
  const alone = chordMelody.length > 0 ? add('Chord melody', PROGRAMS.guitar, 2) : null
  let begins = 0
  let metre = ''
  for (const index of playOrder(chart)) {
    const bar = chart.bars[index]!
    if (meterName(bar.meter) !== metre) {
      metre = meterName(bar.meter)
      file.header.timeSignatures.push({ ticks: begins, timeSignature: [bar.meter.beats, bar.meter.unit] })
    }
    const at = (beat: number) => begins + ticks(beat - bar.from, bar.meter.unit)
    for (const slot of band ? [] : bar.slots)
      for (const midi of soundsOf(slot, chords))
        grips.addNote({
          midi,
          ticks: at(slot.beat),
          durationTicks: ticks(slot.beats, bar.meter.unit),
          velocity: 0.6,
        })
    for (const one of melody.filter((note) => note.bar === bar.number))
      tune.addNote({
        midi: midiOf(one.note),
        ticks: at(one.beat),
        durationTicks: ticks(one.beats, bar.meter.unit),
        velocity: 0.8,
      })
    const from = clock.at({ bar: bar.number, beat: bar.from })
    const to = from + clock.lasts(bar.number, bar.beats)
    if (alone)
      for (const one of [...lower, ...upper])
        if (one.from >= from - NEAR && one.from < to - NEAR)
          for (const string of one.struck)
            alone.addNote({
              midi: one.voicing.strings[string]!.midi,
              ticks: begins + ticks(one.from - from, chart.meter.unit),
              durationTicks: ticks(one.to - one.from, chart.meter.unit),
              velocity: 0.7,
            })
    begins += ticks(bar.beats, bar.meter.unit)
  }
  if (band) writeBand(band, grips, (beats) => ticks(beats, chart.meter.unit), add)
  let binary = ''
  for (const byte of file.toArray()) binary += String.fromCharCode(byte)
  return btoa(binary)
}

function writeBand(
  { guitar, bass, time }: BandScore,
  grips: Track,
  ticks: (beats: number) => number,
  add: (name: string, program: number, channel: number) => Track,
): void {
  const write = (track: Track, notes: readonly BandNote[]) => {
    // A note that is struck again ends there: two of one pitch at once would end each other.
    const next = new Map<number, number>()
    for (const { from, lasts, midi, velocity } of [...notes].sort((a, b) => b.from - a.from)) {
      const until = Math.min(from + lasts, next.get(midi) ?? Infinity)
      next.set(midi, from)
      track.addNote({ midi, ticks: ticks(from), durationTicks: Math.max(1, ticks(until - from)), velocity })
    }
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

/** What a slot sounds: its grip, or where none is kept the chord's own tones from its root (or its bass) up. */
function soundsOf(slot: Slot, chords: Score['chords']): readonly number[] {
  const written = chords.get(slotKey(slot))
  if (!written) return []
  if (written.voicing) return written.voicing.midis
  const { root, bass, tones } = written.chord
  const lowest = PLAIN_FROM + pitchClass(bass ?? root)
  const above = tones.map(({ note }) => lowest + ((pitchClass(note) - lowest + 144) % 12))
  return [...new Set([lowest, ...above])].sort((a, b) => a - b)
}
