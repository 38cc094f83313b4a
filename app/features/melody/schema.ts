import { z } from 'zod'
import { parseChord } from '../../../core/chord/parse'
import { MOST_NOTES_READ } from '../../../core/formats/readTune'
import { DENSITIES, type NoteKind } from '../../../core/melody/line'
import { parseStringing } from '../../../core/neck/otherInstrument'
import { TEXTURE_NAMES } from '../../../core/melody/textures'
import { parsePitch } from '../../../core/pitch/note'

/** What a tune keeps of its melody and of the chord melody that is made under it. */
const place = z.string().regex(/^\d+:\d+(\.\d+)?$/, 'a place such as 3:1 (bar:beat)').max(16)
const frets = z.array(z.int().min(0).max(36).nullable()).min(4).max(8)
const symbol = z.string().max(80).refine((text) => parseChord(text).ok, 'a chord symbol such as Am9')
const pitch = z.string().max(6).refine((text) => parsePitch(text).ok, 'a pitch such as Eb4')

export const melodyNote = z.strictObject({ bar: z.int().min(0).max(100_000), beat: z.number().min(1).max(100), beats: z.number().positive().max(10_000), note: pitch })
export type KeptNote = z.infer<typeof melodyNote>
export const melody = z.array(melodyNote).max(MOST_NOTES_READ, `a melody of at most ${MOST_NOTES_READ} notes`)
/** Places where a phrase begins, or does not, whatever is found. */
export const phrases = z.record(place, z.boolean())

/** Open strings and capo that frets are meant for: `E2 A2 D3 G3 B3 E4 capo 0`. Frets without it were kept before it was written down. */
export const stringing = z.string().max(80).refine((text) => parseStringing(text).ok, 'open strings and a capo such as E2 A2 D3 G3 B3 E4 capo 0')

/** A grip the player put under a note; with no symbol it is the chord that stands there. */
const under = z.strictObject({ frets, symbol: symbol.nullable(), on: stringing.optional() })
/** One event of the chord melody that is kept. */
const event = z.strictObject({
  bar: z.int().min(0), beat: z.number(), beats: z.number(), again: z.boolean(), frets, symbol: symbol.nullable(), on: stringing.optional(),
  /** Null where the melody rests. */
  note: pitch.nullable(),
  under: z.enum(['chord', 'held', 'single', 'line']), kind: z.string().max(40).transform((kind) => kind as NoteKind),
})
export type KeptEvent = z.infer<typeof event>

const fret = z.int().min(0).max(36)
export const chordMelodySettings = z.strictObject({
  density: z.enum(DENSITIES), texture: z.enum(TEXTURE_NAMES),
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
  kept: z.array(event).max(3 * MOST_NOTES_READ),
})
export type ChordMelody = z.infer<typeof chordMelody>
export const PLAIN_CHORD_MELODY: ChordMelody = { density: 'chord', texture: 'full', fills: false, window: null, topString: 1, line: 0, fixed: {}, kept: [] }

const did = z.string().min(1).max(80)
/** What the player does to a melody. */
export const melodyEdits = [
  z.strictObject({ kind: z.literal('melody'), melody, did }),
  z.strictObject({ kind: z.literal('phrases'), phrases }),
  z.strictObject({ kind: z.literal('chord-melody'), settings: chordMelodySettings }),
  z.strictObject({ kind: z.literal('melody-line'), line: z.int().min(0).max(19) }),
  /** Grips under notes, by place; null sets one free. */
  z.strictObject({ kind: z.literal('melody-fix'), fixed: z.record(place, under.nullable()), did }),
  /** What the search found for the present state: no step of its own for undo. */
  z.strictObject({ kind: z.literal('melody-kept'), kept: z.array(event).max(3 * MOST_NOTES_READ) }),
] as const
