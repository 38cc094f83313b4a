import { Midi } from '@tonejs/midi'
import { slotKey } from '../chart/chart'
import { playOrder } from '../chart/form'
import { Clock, NEAR } from '../melody/clock'
import { layersOf } from '../melody/layers'
import { midiOf } from '../pitch/note'
import type { Score } from './musicxml'

/** Standard MIDI file, type 1: the melody on the first track, the grips on the second, a chord melody on the third, in the order in which they are played. */
export function toMidi({ title, chart, tempo, chords, melody = [], chordMelody = [] }: Score): string {
  const file = new Midi()
  file.header.name = title
  file.header.setTempo(tempo)
  file.header.timeSignatures.push({ ticks: 0, timeSignature: [chart.meter.beats, chart.meter.unit] })
  const [tune, grips] = [file.addTrack(), file.addTrack()]
  tune.name = 'Melody'
  grips.name = 'Guitar'
  grips.instrument.number = 25
  const ticks = (beats: number, unit: number) => Math.round((beats * 4 * file.header.ppq) / unit)
  const clock = new Clock(chart)
  const { upper, lower } = layersOf(chart, chordMelody)
  const alone = chordMelody.length > 0 ? file.addTrack() : null
  if (alone) {
    alone.name = 'Chord melody'
    alone.instrument.number = 25
  }
  let begins = 0
  for (const index of playOrder(chart)) {
    const bar = chart.bars[index]!
    const at = (beat: number) => begins + ticks(beat - bar.from, bar.meter.unit)
    for (const slot of bar.slots)
      for (const midi of chords.get(slotKey(slot))?.voicing?.midis ?? [])
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
  let binary = ''
  for (const byte of file.toArray()) binary += String.fromCharCode(byte)
  return btoa(binary)
}
