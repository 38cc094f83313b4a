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
 */
export function importTune(content: string, format: TuneFormat): Result<ImportedTune> {
  switch (format) {
    case 'midi':
      return importMidi(content)
    case 'musicxml':
      return importMusicXml(content)
    case 'abc':
      return importAbc(content)
  }
}
