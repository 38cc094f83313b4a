import { Readable, Transform, Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { WritableStream } from 'node:stream/web'
import { createHash } from 'node:crypto'
import { ZipFile } from 'yazl'
import type { NumeralSchool } from '../../core/analysis/numeral'
import { BackupFault } from '../../core/backup/format'
import { exportScore, type Exported, type ExportFormat } from '../../core/formats/exportChart'
import { fileNameFrom } from '../../core/formats/fileName'
import { importFile, type TuneInFile } from '../../core/formats/importFile'
import { limitsFor, type PlayerBody } from '../../core/player/playerLimits'
import type { PlayerSettings } from '../../core/player/playerSettings'
import type { Result } from '../../core/result'
import { sheetContent } from '../../core/sheet/content'
import type { SheetLayout } from '../../core/sheet/sheetLayout'
import type { TuneDocument } from '../../core/tune/document'
import { withEveryGrip } from '../../core/tune/searchQuestion'
import { readTuneDocument } from '../../core/tune/tuneReading'
import { scoreOf } from '../../core/tune/score'
import { readableBackup } from '../../db/backup/restore'
import { writeBackup, type BackupAsked } from '../../db/backup/write'
import { bookToRead, type Db } from '../../db/connect'
import { readPlayer } from '../../db/player'
import { listTunes } from '../../db/songbook'
import { readTune } from '../../db/tunes'
import type { SetOnPaper } from '../../paper/contents'
import type { Pages } from '../../paper/pages'
import type { PdfAsked } from '../../paper/pdf'

/** Told on the way: how far it is. */
export type OnJobProgress = (done: number, of: number) => void

export interface PagesAsked {
  document: TuneDocument
  player: Pick<PlayerSettings, 'instrument' | 'hand' | 'leftHanded'>
  layout: SheetLayout
  school: NumeralSchool
  note: string
  /** A window on the stand, in points, in place of paper. */
  window?: { width: number; height: number } | undefined
}
export interface TuneFileAsked {
  document: TuneDocument
  player: PlayerSettings
  format: ExportFormat
  swung: boolean
  comping: 'slashes' | 'voices'
}

/**
 * What the server has worked out beside itself, each in a worker of its own pool: reading of
 * foreign files, and making of pages, PDFs and files. Questions and answers are plain data; what is
 * long is written to a stream that is handed over.
 */
export const JOBS = {
  /** The tunes in a file from elsewhere. */
  tunesIn: ({
    name,
    bytes,
  }: {
    name: string
    bytes: Uint8Array
  }): Result<{
    tunes: TuneInFile[]
    refused: string[]
  }> => importFile(name, bytes),

  /** The tune with a grip for each of its chords. */
  everyGrip: ({ document, body }: { document: TuneDocument; body: PlayerBody }): TuneDocument =>
    withEveryGrip(document, readTuneDocument(document, 'case', body), body),

  async pages({ document, player, layout, school, note, window }: PagesAsked): Promise<Pages> {
    const { pagesOf, WINDOW_MARGIN } = await import('../../paper/pages')
    const { instrument, hand, leftHanded } = player
    const content = { ...sheetContent(document, { instrument, hand }, layout, school), note }
    return window
      ? pagesOf(content, layout, leftHanded, { paper: 'window', margin: WINDOW_MARGIN, ...window })
      : pagesOf(content, layout, leftHanded)
  },

  /** A set as one PDF: its contents, then the sheet of each tune. */
  async setPdf(set: SetOnPaper, tell: OnJobProgress): Promise<Uint8Array> {
    const { printOf } = await import('../../paper/contents')
    return JOBS.pdf(printOf(set), tell)
  },

  async pdf(asked: Omit<PdfAsked, 'onPage'>, tell: OnJobProgress): Promise<Uint8Array> {
    const { toPdf } = await import('../../paper/pdf')
    const of = asked.sheets.length
    let pages = 0
    // Of one sheet each page is told, of several each sheet.
    const onPage = (sheets: number) => tell(of === 1 ? (pages += 1) : sheets, of)
    return new Uint8Array(await toPdf({ ...asked, onPage }))
  },

  /** A tune in an open format, with a grip for each chord. */
  file({ document, player, format, swung, comping }: TuneFileAsked): Exported {
    const whole = withEveryGrip(document, readTuneDocument(document, 'case', player), player)
    return written(whole, player, format, { swung, comping })
  },

  /**
   * Every tune of a book as a file of its own, in one zip. Grips that were not found yet are left
   * out.
   */
  async songbook({ book, format, ending, tunes, out }: SongbookAsked): Promise<null> {
    await reading(book, async (db) => {
      const player = readPlayer(db)
      const zip = new ZipFile()
      const names = new Set<string>()
      const wanted = tunes && new Set(tunes)
      for (const { id, title } of listTunes(db, { sort: 'title' }).entries) {
        if (wanted && !wanted.has(id)) continue
        const plain = fileNameFrom(title)
        const name = names.has(plain)
          ? `${plain} ${createHash('sha256').update(id).digest('hex').slice(0, 6)}`
          : plain
        names.add(name)
        zip.addReadStreamLazy(`${name}.${ending}`, { compress: true }, (done) => {
          const state = readTune(db, id)
          const { content, encoding } = state
            ? written(state.document, player, format)
            : { content: '', encoding: 'utf-8' as const }
          done(null, Readable.from([Buffer.from(content, encoding === 'base64' ? 'base64' : 'utf8')]))
        })
      }
      zip.end()
      await pipeline(zip.outputStream, gathered(), Writable.fromWeb(out))
    })
    return null
  },

  /** All of a book, or a tune of it, as a backup. */
  async backup({ book, asked, out }: BackupToWrite): Promise<null> {
    await reading(book, async (db) => {
      const parts = gathered()
      const sent = pipeline(parts, Writable.fromWeb(out))
      await Promise.all([writeBackup(db, parts, asked), sent])
    })
    return null
  },

  /** Whether a backup is whole and everything in it can be read; else why not. */
  async lookThrough({ file }: { file: string }, tell: OnJobProgress): Promise<{ fault: string | null }> {
    try {
      await readableBackup(file, tell)
      return { fault: null }
    } catch (error) {
      if (error instanceof BackupFault) return { fault: error.message }
      throw error
    }
  },
}

/**
 * What goes from thread to thread at once, in bytes: a zip of small files is written in very small
 * parts, and each would be a message.
 */
const PART_BYTES = 128 * 1024
function gathered(): Transform {
  let waiting: Buffer[] = []
  let bytes = 0
  const all = () => {
    const part = Buffer.concat(waiting)
    waiting = []
    bytes = 0
    return part
  }
  return new Transform({
    transform(part: Buffer, _, done) {
      waiting.push(part)
      bytes += part.length
      if (bytes < PART_BYTES) done()
      else done(null, all())
    },
    flush: (done) => done(null, bytes > 0 ? all() : undefined),
  })
}

interface SongbookAsked {
  book: string
  format: ExportFormat
  ending: string
  /** These alone. */
  tunes?: readonly string[] | undefined
  out: WritableStream
}
interface BackupToWrite {
  book: string
  asked: Pick<BackupAsked, 'history' | 'tunes'>
  out: WritableStream
}

const written = (
  document: TuneDocument,
  player: PlayerSettings,
  format: ExportFormat,
  how?: Pick<TuneFileAsked, 'swung' | 'comping'>,
): Exported => {
  const score = scoreOf(document, player, 'case', how)
  const titled = { ...score, chart: { ...score.chart, title: score.title } }
  return exportScore(titled, format, limitsFor(player, score.chart.capo, 'chord'))
}

async function reading<Answer>(book: string, act: (db: Db) => Promise<Answer>): Promise<Answer> {
  const db = bookToRead(book)
  try {
    return await act(db)
  } finally {
    db.$client.close()
  }
}
