import { parseChart } from '../chart/parseChart'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/gripLimits'
import { toAbc } from './abc'
import { toChordPro } from './chordpro'
import { importAbc } from './importAbc'
import { guessFormat, importChart } from './importChart'
import { importMidi } from './importMidi'
import { importMusicXml } from './importMusicXml'
import { toMidi } from './midi'
import { toMusicXml, type Score } from './musicxml'
import type { FormatName, NotesFormat, PastedFormat, SavedFormat } from './names'
import type { ImportedTune } from './readTune'
import { toTab } from './tab'

/** A tune out of what a file says. @param part which of several parts has the melody, from 1 */
export type TuneReader = (content: string, part?: number) => Result<ImportedTune>
/**
 * What is made of a tune as a file says it, or as bytes in base64. @param limits the hand and the
 * neck its grips are for
 */
export type TuneWriter = (score: Score, limits: Limits) => string

/** Chords without notes; where the format can be told by the text itself, by that. */
const chordsIn =
  (format: PastedFormat, isGuessed = false): TuneReader =>
  (content) => {
    const { text, lyrics, grips, warnings } = importChart(content, isGuessed ? guessFormat(content) : format)
    return parseChart(text).bars.length > 0
      ? good({ text, melody: [], lyrics, grips, warnings: warnings.map((one) => one.message) })
      : bad({
          code: 'bad-file',
          message: 'No chord was found.',
          accepted: 'chords in bars or over words',
          text: 'content',
        })
  }

/** How each format is read from a file. */
export const READERS: Readonly<Record<NotesFormat | PastedFormat, TuneReader>> = {
  musicxml: importMusicXml,
  midi: importMidi,
  abc: importAbc,
  chordpro: chordsIn('chordpro'),
  text: chordsIn('text', true),
  tab: chordsIn('tab', true),
  numerals: chordsIn('numerals'),
} satisfies Record<FormatName, TuneReader>

/** How each is written; the text of a chart is the player's own. */
export const WRITERS: Readonly<Record<Exclude<SavedFormat, 'text'>, TuneWriter>> = {
  musicxml: toMusicXml,
  midi: toMidi,
  abc: toAbc,
  chordpro: ({ chart, chords, lyrics = [] }) => toChordPro(chart, chords.values(), lyrics),
  tab: ({ chart, chords }, limits) => toTab(chart, chords, limits),
}

/** Several tunes in one file, each with what stands before the first of them for all. */
const PIECES: Partial<Record<FormatName, (content: string) => string[]>> = {
  chordpro: (content) =>
    content.split(/^[ \t]*\{(?:new_song|ns)\}[ \t]*$/im).filter((song) => song.trim() !== ''),
  abc(content) {
    const [head = '', ...tunes] = content.split(/^(?=X:)/m)
    if (head.startsWith('X:')) return [head, ...tunes]
    return tunes.length === 0 ? [content] : tunes.map((tune) => head + tune)
  },
}
export const tunesInText = (content: string, format: FormatName): string[] =>
  PIECES[format]?.(content) ?? [content]
