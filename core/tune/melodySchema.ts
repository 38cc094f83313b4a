import { z } from 'zod'
import { MOST_NOTES_READ } from '../formats/readTune'
import { DENSITIES, type NoteKind } from '../melody/melodyLine'
import { MOST_LYRIC, MOST_LYRICS } from '../melody/lyrics'
import { parsePitch } from '../pitch/note'
import { frets, HIGHEST_FRET, place, stringing, symbol } from './slotPlaces'
import { MELODY_TEXTURE_NAMES } from '../melody/melodyTextures'

/** What a tune keeps of its melody and of the chord melody that is made under it. */
const pitch = z
  .string()
  .max(6)
  .refine((text) => parsePitch(text).ok, 'a pitch such as Eb4')

export const melodyNote = z.strictObject({
  bar: z.int().min(0).max(100_000),
  beat: z.number().min(1).max(100),
  beats: z.number().positive().max(10_000),
  note: pitch,
})
export type KeptNote = z.infer<typeof melodyNote>
export const melodySchema = z
  .array(melodyNote)
  .max(MOST_NOTES_READ, `a melody of at most ${MOST_NOTES_READ} notes`)
/** Words sung over the chart, in order. */
export const lyricsSchema = z
  .array(
    z.strictObject({
      bar: z.int().min(0).max(100_000),
      beat: z.number().min(1).max(100),
      text: z
        .string()
        .max(MOST_LYRIC)
        .refine((text) => text.trim() !== '', 'words'),
      joins: z.literal(true).optional(),
    }),
  )
  .max(MOST_LYRICS, `words at no more than ${MOST_LYRICS} places`)
/** Places where a phrase begins, or does not, whatever is found. */
export const phrases = z.record(place, z.boolean())

/** A grip the player put under a note; with no symbol it is the chord that stands there. */
export const under = z.strictObject({ frets, symbol: symbol.nullable(), on: stringing.optional() })
/** One event of the chord melody that is kept. */
export const keptEvent = z.strictObject({
  bar: z.int().min(0),
  beat: z.number(),
  beats: z.number(),
  again: z.boolean(),
  frets,
  symbol: symbol.nullable(),
  on: stringing.optional(),
  /** Null where the melody rests. */
  note: pitch.nullable(),
  under: z.enum(['chord', 'held', 'single', 'line']),
  kind: z
    .string()
    .max(40)
    .transform((kind) => kind as NoteKind),
})
export type KeptEvent = z.infer<typeof keptEvent>

const fret = z.int().min(0).max(HIGHEST_FRET)
export const chordMelodySettings = z.strictObject({
  density: z.enum(DENSITIES),
  texture: z.enum(MELODY_TEXTURE_NAMES),
  /** Chords that begin under a long note or in a rest are struck too. */
  fills: z.boolean(),
  /** Frets the hand stays in; null for the whole neck. */
  window: z.tuple([fret, fret]).nullable(),
  /** The highest string the melody may use, counted from 1; 1 for all. */
  topString: z.int().min(1).max(6),
})
export type ChordMelodySettings = z.infer<typeof chordMelodySettings>
export const chordMelody = z.strictObject({
  ...chordMelodySettings.shape,
  /** Which of the ways found is kept. */
  line: z.int().min(0).max(19),
  fixed: z.record(place, under),
  kept: z.array(keptEvent).max(3 * MOST_NOTES_READ),
})
export type ChordMelody = z.infer<typeof chordMelody>
export const PLAIN_CHORD_MELODY: ChordMelody = {
  density: 'chord',
  texture: 'full',
  fills: false,
  window: null,
  topString: 1,
  line: 0,
  fixed: {},
  kept: [],
}
