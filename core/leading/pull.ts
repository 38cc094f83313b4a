import type { ChordSymbol } from '../chord/symbol'
import { fingeringsOf, type FingeringAnswer } from '../neck/fingering'
import { soundAt, type Frets } from '../neck/instrument'
import { onAnyStrings } from '../neck/otherInstrument'
import type { Degree } from '../pitch/degree'
import type { Key } from '../pitch/key'
import { parseNote, pitchClass } from '../pitch/note'
import { must } from '../result'
import { soursIn, type Clash } from '../voicing/clashes'
import type { Limits } from '../voicing/gripLimits'
import { namesOf, type PossibleName } from '../voicing/possibleNames'

/** A grip after one of its notes was moved. */
export interface Pulled {
  frets: (number | null)[]
  /** Sounding notes, lowest first. */
  midis: number[]
  /** What it is now called, the likeliest first. */
  names: PossibleName[]
  playable: boolean
  fingering: FingeringAnswer
  /** The other notes had to go to other strings so that a hand can hold it. */
  moved: boolean
  /** Degrees of the chord it stood for that no longer sound. */
  lost: Degree[]
  sour: Clash[]
}

/**
 * Takes hold of the note on one string and puts it at another fret. Where no hand holds the grip
 * with the other notes where they are, the same sounds are looked for on other strings; where none
 * does that either, the grip stays as it was asked for, with the reason.
 * @param chord the chord the grip stood for
 */
export function pulled(
  frets: Frets,
  string: number,
  fret: number,
  chord: ChordSymbol,
  limits: Limits,
  key?: Key,
): Pulled {
  const asked = frets.map((now, at) => (at === string ? fret : now))
  const { instrument, hand } = limits
  const direct = fingeringsOf(asked, instrument, hand)
  const midisOf = (grip: Frets) =>
    grip.flatMap((one, at) => (one === null ? [] : [soundAt(instrument, at, one)])).sort((a, b) => a - b)
  const midis = midisOf(asked)
  const other = direct.playable ? null : onAnyStrings(midis, instrument, hand, limits.frets[1])
  const grip = other?.frets ?? asked
  const sounds = new Set(midis.map((midi) => midi % 12))
  return {
    frets: grip,
    midis,
    names: namesOf(midis, { key: spelledLike(chord, key), chord }),
    playable: direct.playable || other !== null,
    fingering: other?.fingering ?? direct,
    moved: other !== null,
    lost: chord.tones
      .filter((tone) => tone.need !== 'free' && !sounds.has(pitchClass(tone.note)))
      .map((tone) => tone.degree),
    sour: soursIn(midis, chord),
  }
}

/**
 * Names are spelled with flats where the chord is, with sharps where it is, else as the key does.
 */
function spelledLike({ root }: ChordSymbol, key?: Key): Key {
  const tonic = (name: string): Key => ({ tonic: must(parseNote(name)), mode: 'major' })
  if (root.alter < 0) return tonic('F')
  if (root.alter > 0) return tonic('G')
  return key ?? tonic('C')
}
