import type { Result } from '../result'
import type { NotesFormat } from './names'
import type { ImportedTune } from './readTune'
import { READERS } from './register'

/**
 * A tune from a file of notes.
 * @param content MIDI in base64, MusicXML and ABC as text
 * @param part which of several parts has the melody, from 1 as `parts` names them; else the one
 *   that is called so, or the first (of MIDI the highest)
 */
export const importTune = (content: string, format: NotesFormat, part?: number): Result<ImportedTune> =>
  READERS[format](content, part)
