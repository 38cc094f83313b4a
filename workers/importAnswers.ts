import { importTune } from '../core/formats/importTune'
import type { NotesFormat } from '../core/formats/names'
import type { ImportedTune } from '../core/formats/readTune'
import { bad, type Result } from '../core/result'

/** A file of notes to be read, off the page's thread. */
export interface ImportQuestion {
  content: string
  format: NotesFormat
  /** Which part has the melody, from 1; null for the likeliest. */
  part: number | null
}

/** A file that a reader trips over is refused like any other. */
function tune({ content, format, part }: ImportQuestion): Result<ImportedTune> {
  try {
    return importTune(content, format, part ?? undefined)
  } catch (error) {
    return bad({
      code: 'bad-file',
      message: `The file could not be read: ${error instanceof Error ? error.message : String(error)}.`,
      accepted: 'a file as other programs write it',
      text: 'content',
    })
  }
}

export const importAnswers = { tune }
export type ImportAnswers = typeof importAnswers
