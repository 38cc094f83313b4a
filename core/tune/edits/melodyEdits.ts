import { z } from 'zod'
import { barName } from '../../chart/chart'
import { MOST_NOTES_READ } from '../../formats/readTune'
import { lyricsInOrder } from '../../melody/lyrics'
import { withFixed, withMelody } from '../applyMelody'
import { chordMelodySettings, keptEvent, lyricsSchema, melodySchema, phrases, under } from '../melodySchema'
import { did, place } from '../slotPlaces'
import { area } from './area'

/** The melody and what is made under it. */
export const melodyEdits = area(
  [
    z.strictObject({ kind: z.literal('melody'), melody: melodySchema, did }),
    z.strictObject({ kind: z.literal('phrases'), phrases }),
    /** The words of one bar, in place of those it has. */
    z.strictObject({ kind: z.literal('lyrics'), bar: z.int().min(0).max(100_000), lyrics: lyricsSchema }),
    z.strictObject({ kind: z.literal('chord-melody'), settings: chordMelodySettings }),
    z.strictObject({ kind: z.literal('melody-line'), line: z.int().min(0).max(19) }),
    /** Grips under notes, by place; null sets one free. */
    z.strictObject({ kind: z.literal('melody-fix'), fixed: z.record(place, under.nullable()), did }),
    /** What the search found for the present state: no step of its own for undo. */
    z.strictObject({ kind: z.literal('melody-kept'), kept: z.array(keptEvent).max(3 * MOST_NOTES_READ) }),
  ],
  {
    melody: (document, edit) => withMelody(document, edit.melody),
    phrases: (document, edit) => ({ ...document, phrases: edit.phrases }),
    lyrics: (document, edit) => ({
      ...document,
      lyrics: lyricsInOrder([
        ...document.lyrics.filter(({ bar }) => bar !== edit.bar),
        ...edit.lyrics.filter(({ bar }) => bar === edit.bar),
      ]),
    }),
    'chord-melody': (document, edit) => ({
      ...document,
      chordMelody: { ...document.chordMelody, ...edit.settings, line: 0 },
    }),
    'melody-line': (document, edit) => ({
      ...document,
      chordMelody: { ...document.chordMelody, line: edit.line },
    }),
    'melody-fix': (document, edit) => ({
      ...document,
      chordMelody: withFixed(document.chordMelody, edit.fixed),
    }),
    'melody-kept': (document, edit) => ({
      ...document,
      chordMelody: { ...document.chordMelody, kept: edit.kept },
    }),
  },
  {
    melody: (edit) => edit.did,
    phrases: () => 'phrases',
    lyrics: (edit) => `words in ${barName(edit.bar)}`,
    'chord-melody': (edit) =>
      `chord melody: ${edit.settings.texture}, a chord with each ${edit.settings.density}`,
    'melody-line': (edit) => `way ${edit.line + 1} of the chord melody`,
    'melody-fix': (edit) => edit.did,
    'melody-kept': () => 'chord melody',
  },
)
