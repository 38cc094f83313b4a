import type { Slot } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import { kindOf } from '../analysis/kind'
import { modulo, pitchClass, pitchName, type Pitch } from '../pitch/note'
import type { Put } from './change'

/** A note of the tune's melody at its place; beats count from 1. */
export interface MelodyNote {
  bar: number
  beat: number
  beats: number
  note: Pitch
}

/** How a melody note is heard over a chord. */
export type Heard = 'chord tone' | 'tension' | 'avoid' | 'sour'

export interface MelodyFit {
  bar: number
  beat: number
  note: string
  over: string
  heard: Heard
}

/**
 * A note over a chord (theory: availability, the sour interval): one of its tones; a tension; a natural 11 over a major third, to
 * avoid; or a half step above another chord tone, a sour minor ninth, unless it is the b9 of a dominant.
 */
export function heardOver(sound: number, chord: ChordSymbol): Heard {
  const tones = chord.tones.map((tone) => pitchClass(tone.note))
  if (tones.includes(sound)) return 'chord tone'
  const kind = kindOf(chord)
  const above = modulo(sound - pitchClass(chord.root), 12)
  if (kind === 'dominant' && [1, 3, 8].includes(above)) return 'tension'
  if (above === 5 && chord.tones.some((tone) => tone.degree === '3')) return 'avoid'
  return tones.some((tone) => modulo(sound - tone, 12) === 1) ? 'sour' : 'tension'
}

/** Every melody note that begins over some chords in the place of some slots. */
export function fitOf(puts: readonly Put[], replaced: readonly Slot[], melody: readonly MelodyNote[]): MelodyFit[] {
  let offset = 0
  return replaced.flatMap((slot) => {
    const begins = offset
    offset += slot.beats
    return melody.filter((one) => one.bar === slot.bar && one.beat >= slot.beat - 1e-6 && one.beat < slot.beat + slot.beats - 1e-6).map((one): MelodyFit => {
      const chord = chordAt(puts, begins + one.beat - slot.beat)
      return { bar: one.bar, beat: one.beat, note: pitchName(one.note), over: chord.canonical, heard: heardOver(pitchClass(one.note), chord) }
    })
  })
}

function chordAt(puts: readonly Put[], beats: number): ChordSymbol {
  let end = 0
  for (const put of puts) {
    end += put.beats
    if (beats < end - 1e-6) return put.chord
  }
  return puts.at(-1)!.chord
}
