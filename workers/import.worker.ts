import { importTune, type TuneFormat } from '../core/formats/importTune'
import type { ImportedTune } from '../core/formats/readTune'
import type { Result } from '../core/result'

/** A file of notes to be read, off the page's thread. */
export interface ImportRequest { content: string; format: TuneFormat }
export type ImportReply = Result<ImportedTune>

self.onmessage = ({ data: { content, format } }: MessageEvent<ImportRequest>) => { self.postMessage(importTune(content, format) satisfies ImportReply) }
