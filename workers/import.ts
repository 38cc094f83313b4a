import { importTune, type TuneFormat } from '../core/formats/importTune'
import type { ImportedTune } from '../core/formats/readTune'
import { bad, type Result } from '../core/result'

/** A file of notes to be read, off the page's thread. */
export interface ImportQuestion {
  content: string
  format: TuneFormat
}

/** A file that a reader trips over is refused like any other. */
function tune({ content, format }: ImportQuestion): Result<ImportedTune> {
  try {
    return importTune(content, format)
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
