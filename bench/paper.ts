import { firstOf, itemAt } from '../core/lists'
import { createWriteStream, mkdtempSync, rmSync, statSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import PDFDocument from 'pdfkit'
import { DEFAULT_PLAYER } from '../core/player/playerSettings'
import { sheetContent } from '../core/sheet/content'
import { TEMPLATES } from '../core/sheet/sheetLayout'
import { newDocument } from '../core/tune/document'
import { withEveryGrip } from '../core/tune/searchQuestion'
import { readTuneDocument } from '../core/tune/tuneReading'
import { writeBackup } from '../db/backup/write'
import { closeDatabase, openDatabase } from '../db/connect'
import { demoBook } from '../db/demo'
import { createTune } from '../db/tunes'
import { pagesOf } from '../paper/pages'
import { toPdf } from '../paper/pdf'

/**
 * Sheets and backups: times as ratios to a plain piece of the same work in the same run, and what
 * they need of memory (npm run bench:paper).
 */
const row = (what: string, ratio: number, unit: string, detail: string) =>
  console.log(`${what.padEnd(58)} ${ratio.toFixed(2).padStart(9)} ${unit.padEnd(14)} ${detail}`)

async function best<T>(run: () => Promise<T> | T, rounds = 5): Promise<{ ms: number; value: T }> {
  let ms = Infinity
  let value!: T
  for (let round = 0; round < rounds; round += 1) {
    const begun = performance.now()
    value = await run()
    ms = Math.min(ms, performance.now() - begun)
  }
  return { ms, value }
}

/** A page with one word: what the PDF library takes for itself. */
const plainPage = () =>
  new Promise<number>((resolve) => {
    const document = new PDFDocument({ size: 'A4' })
    let bytes = 0
    document.on('data', (part: Buffer) => (bytes += part.length))
    document.on('end', () => resolve(bytes))
    document.text('heron')
    document.end()
  })

const filled = demoBook().map(({ document }) =>
  withEveryGrip(document, readTuneDocument(document, 'case', DEFAULT_PLAYER), DEFAULT_PLAYER),
)
const base = await best(plainPage)
for (const name of ['comping', 'lead', 'teaching'] as const) {
  const { layout } = TEMPLATES[name]
  const sheet = await best(async () =>
    toPdf({ title: 'x', sheets: [pagesOf(sheetContent(firstOf(filled), DEFAULT_PLAYER, layout), layout)] }),
  )
  row(
    `PDF of a 32-bar tune, ${TEMPLATES[name].label.toLowerCase()}`,
    sheet.ms / base.ms,
    'plain pages',
    `${sheet.ms.toFixed(0)} ms (goal 1,000)`,
  )
}
const { layout } = TEMPLATES.comping
const set = await best(
  async () =>
    toPdf({
      title: 'set',
      sheets: Array.from({ length: 30 }, (_, at) =>
        pagesOf(sheetContent(itemAt(filled, at % filled.length), DEFAULT_PLAYER, layout), layout),
      ),
    }),
  1,
)
row('PDF of a set of 30 tunes', set.ms / base.ms, 'plain pages', `${set.ms.toFixed(0)} ms (goal 10,000)`)

const TUNES = 5_000
const folder = mkdtempSync(join(tmpdir(), 'bench-backup-'))
const db = openDatabase(join(folder, 'book.sqlite'))
db.$client.pragma('synchronous = OFF')
for (let at = 0; at < TUNES; at += 1)
  createTune(db, newDocument(`Tune ${at}`, itemAt(filled, at % filled.length).text))
const file = join(folder, 'book.zip')
let most = 0
const watch = setInterval(() => (most = Math.max(most, process.memoryUsage().rss)), 20)
const before = process.memoryUsage().rss
const backup = await best(() => writeBackup(db, createWriteStream(file), { history: true }), 1)
clearInterval(watch)
const raw = Buffer.concat(Array.from({ length: TUNES }, () => Buffer.from(JSON.stringify(filled[0]))))
const plain = await best(() => gzipSync(raw), 1)
row(
  `backup of ${TUNES} tunes with history`,
  backup.ms / plain.ms,
  'gzip of as much',
  `${(backup.ms / 1000).toFixed(1)} s, ${(statSync(file).size / 1e6).toFixed(1)} MB, ${((most - before) / 1e6).toFixed(0)} MB more memory, ${(most / 1e6).toFixed(0)} MB in all (goal 300)`,
)
closeDatabase(db)
rmSync(folder, { recursive: true })
