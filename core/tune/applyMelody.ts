import { placeKey } from '../melody/melodyLine'
import { lyricInWords, lyricAt, MOST_LYRIC } from '../melody/lyrics'
import { melodyInKey } from '../melody/melody'
import type { Key } from '../pitch/key'
import { modulo, parsePitch, pitchClass, pitchName } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { must } from '../result'
import type { TuneDocument } from './document'
import type { ChordMelody, KeptNote } from './melodySchema'

export const read = ({ note, ...place }: KeptNote): MelodyNote => ({ ...place, note: must(parsePitch(note)) })
export const keep = ({ bar, beat, beats, note }: MelodyNote): KeptNote => ({
  bar,
  beat,
  beats,
  note: pitchName(note),
})

const readBefore = new WeakMap<readonly KeptNote[], MelodyNote[]>()
/** The notes of a tune as the core reads them; the same list for the same melody. */
export function melodyOf({ melody }: Pick<TuneDocument, 'melody'>): MelodyNote[] {
  const known = readBefore.get(melody) ?? melody.map(read)
  readBefore.set(melody, known)
  return known
}

/** Another melody: grips stay under notes that are what they were, and the others are let go. */
export function withMelody(document: TuneDocument, melody: KeptNote[]): TuneDocument {
  const before = new Map(document.melody.map((one) => [placeKey(one), one.note]))
  const after = new Map(melody.map((one) => [placeKey(one), one.note]))
  const stays = (place: string) => before.get(place) === after.get(place)
  const { chordMelody } = document
  return {
    ...document,
    melody,
    chordMelody: {
      ...chordMelody,
      line: 0,
      fixed: Object.fromEntries(Object.entries(chordMelody.fixed).filter(([place]) => stays(place))),
    },
  }
}

/** Grips put under notes, or set free. */
export function withFixed(
  chordMelody: ChordMelody,
  changed: Readonly<Record<string, ChordMelody['fixed'][string] | null>>,
): ChordMelody {
  const fixed = { ...chordMelody.fixed }
  for (const [place, under] of Object.entries(changed)) {
    if (under) fixed[place] = under
    else delete fixed[place]
  }
  return { ...chordMelody, line: 0, fixed }
}

/** The melody with the tune in another key, by the shorter way; grips belong to the old key. */
export function transposedMelody(
  { melody, chordMelody }: Pick<TuneDocument, 'melody' | 'chordMelody'>,
  from: Key,
  to: Key,
): Pick<TuneDocument, 'melody' | 'chordMelody'> {
  const up = modulo(pitchClass(to.tonic) - pitchClass(from.tonic), 12)
  const [shorter, other] = [up > 6 ? up - 12 : up, up > 6 ? up : up - 12].map((semitones) =>
    melodyInKey(melody.map(read), from, to, semitones),
  )
  // A melody at the very edge of what can be written goes the longer way.
  const goes = shorter!.every(({ note }) => parsePitch(pitchName(note)).ok) ? shorter! : other!
  return { melody: goes.map(keep), chordMelody: withoutGrips(chordMelody) }
}

export const withoutGrips = (chordMelody: ChordMelody): ChordMelody => ({
  ...chordMelody,
  line: 0,
  fixed: {},
  kept: [],
})

/**
 * Notes, words, phrases and grips follow the chords they stand over when bars are put in, taken out
 * or moved along. What stands over nothing that is left keeps its distance from what stood before
 * it, so that no note is lost.
 * @param move the new place of an old one
 */
export function followed<Made extends Pick<TuneDocument, 'melody' | 'phrases' | 'lyrics'>>(
  made: Made,
  move: (place: { bar: number; beat: number }) => { bar: number; beat: number },
): Pick<TuneDocument, 'melody' | 'phrases' | 'lyrics'> {
  return {
    melody: made.melody.map((one) => ({ ...one, ...move(one) })),
    lyrics: gathered(made.lyrics.map((one) => ({ ...one, ...move(one) }))),
    phrases: Object.fromEntries(
      Object.entries(made.phrases).map(([key, begins]) => [movedKey(key, move), begins]),
    ),
  }
}

/**
 * Words in order; what has come to stand at one place is sung there in turn, so that none is lost.
 */
function gathered(lyrics: TuneDocument['lyrics']): TuneDocument['lyrics'] {
  const together: TuneDocument['lyrics'] = []
  for (const one of [...lyrics].sort((a, b) => a.bar - b.bar || a.beat - b.beat)) {
    const last = together.at(-1)
    const both =
      last && placeKey(last) === placeKey(one) ? `${lyricInWords(last)} ${lyricInWords(one)}` : null
    const joined = both === null || both.length > MOST_LYRIC ? null : lyricAt(one, both)
    if (joined) together[together.length - 1] = joined
    else together.push(one)
  }
  return together
}

export function movedKey(
  key: string,
  move: (place: { bar: number; beat: number }) => { bar: number; beat: number },
): string {
  const [bar, beat] = key.split(':').map(Number)
  return placeKey(move({ bar: bar!, beat: beat! }))
}
