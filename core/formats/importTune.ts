import type { Result } from '../result'
import { importAbc } from './importAbc'
import { importMidi } from './importMidi'
import { importMusicXml } from './importMusicXml'
import type { ImportedTune } from './readTune'

/** Files that hold a melody, with or without chords. */
export const TUNE_FORMATS = ['midi', 'musicxml', 'abc'] as const
export type TuneFormat = (typeof TUNE_FORMATS)[number]

/**
 * A tune from a file of notes.
 * @param content MIDI in base64, MusicXML and ABC as text
 * @param part which of several parts has the melody, from 1 as `parts` names them; else the one that is called so, or the first (of MIDI the highest)
 */
export function importTune(content: string, format: TuneFormat, part?: number): Result<ImportedTune> {
  switch (format) {
    case 'midi':
      return importMidi(content, part)
    case 'musicxml':
      return importMusicXml(content, part)
    case 'abc':
      return importAbc(content, part)
  }
}
