import { importTune, type TuneFormat } from '../core/formats/importTune'
import type { ImportedTune } from '../core/formats/readTune'
import { bad, type Result } from '../core/result'

/** A file of notes to be read, off the page's thread. */
export interface ImportRequest { content: string; format: TuneFormat }
export type ImportReply = Result<ImportedTune>

self.onmessage = ({ data: { content, format } }: MessageEvent<ImportRequest>) => { self.postMessage(answerTo(content, format)) }

/** A file that a reader trips over is refused like any other. */
function answerTo(content: string, format: TuneFormat): ImportReply {
  try {
    return importTune(content, format)
  } catch (error) {
    return bad({ code: 'bad-file', message: `The file could not be read: ${error instanceof Error ? error.message : String(error)}.`, accepted: 'a file as other programs write it', text: 'content' })
  }
}
