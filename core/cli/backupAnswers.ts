import { itemAt } from '../lists'
import { createHash, randomUUID } from 'node:crypto'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  MANIFEST,
  manifest,
  tuneFile,
  tuneKept,
  tuneText,
  type TuneKept,
} from '../backup/format'
import { slotKey, type Chart } from '../chart/chart'
import { chordsFor } from '../formats/exportChart'
import type { Lyric } from '../melody/lyrics'
import { keep } from '../tune/applyMelody'
import { newDocument, tuneDocument } from '../tune/document'
import { DOCUMENT_VERSION, openDocument } from '../tune/stored'
import type { MelodyNote } from '../reharm/melodyFit'
import { bad, good, type Result } from '../result'

/** The most that is unpacked of a backup in one answer, in bytes. */
const MOST_UNPACKED = 50_000_000
const ACCEPTED = 'a backup of Yellow Heron (docs/backup.md) in base64'

interface OneTune {
  text: string
  chart: Chart
  frets: readonly (readonly (number | null)[])[]
  melody: readonly MelodyNote[]
  lyrics: readonly Lyric[]
}

/** One tune as a backup file (docs/backup.md), in base64. */
export function tuneAsBackup({
  text,
  chart,
  frets,
  melody,
  lyrics,
}: OneTune): Result<{ content: string; encoding: 'base64' }> {
  const sounding = chordsFor(chart, frets)
  if (!sounding.ok) return sounding
  const document = tuneDocument.safeParse({
    ...newDocument(chart.title?.trim() || 'Untitled', text),
    melody: melody.map(keep),
    lyrics,
    grips: Object.fromEntries(frets.map((grip, at) => [slotKey(itemAt(sounding.value, at).slot), grip])),
  })
  if (!document.success)
    return bad({
      code: 'bad-field',
      message: `This tune cannot be kept: ${document.error.issues[0]?.message ?? ''}`,
      accepted: 'a chart of at most 100,000 letters with a title of at most 120',
      text: document.error.issues[0]?.path.join('.') ?? 'text',
    })
  const now = Date.now()
  const [id, head] = [randomUUID(), randomUUID()]
  const tune: TuneKept = {
    id,
    title: document.data.title,
    createdAt: now,
    touchedAt: now,
    deletedAt: null,
    head,
    version: DOCUMENT_VERSION,
    document: document.data,
    tags: [],
    place: null,
    layouts: [],
    goals: [],
  }
  const files: Record<string, Uint8Array> = {
    [tuneFile(id)]: strToU8(JSON.stringify(tune)),
    [tuneText(id)]: strToU8(text),
  }
  const named = {
    format: BACKUP_FORMAT,
    version: BACKUP_VERSION,
    made: new Date(now).toISOString(),
    history: false,
    tunes: [id],
    files: Object.fromEntries(
      Object.entries(files).map(([name, bytes]) => [name, { bytes: bytes.length, sha256: sha256(bytes) }]),
    ),
  }
  const zip = zipSync({ ...files, [MANIFEST]: strToU8(JSON.stringify(named)) })
  return good({ content: Buffer.from(zip).toString('base64'), encoding: 'base64' })
}

/**
 * The tunes of a backup; the first of them as the answer's own. Nothing is read of a file that is
 * not what its manifest says.
 */
export function tunesOfBackup(content: string): Result<Record<string, unknown>> {
  const refuse = (message: string) => bad({ code: 'bad-file', message, accepted: ACCEPTED, text: 'content' })
  let files: Record<string, Uint8Array>
  let tooLarge = false
  try {
    let unpacked = 0
    files = unzipSync(Buffer.from(content, 'base64'), {
      filter: ({ originalSize }) => {
        unpacked += originalSize
        tooLarge ||= unpacked > MOST_UNPACKED
        return !tooLarge
      },
    })
  } catch (error) {
    return refuse(`The file cannot be unpacked (${error instanceof Error ? error.message : String(error)}).`)
  }
  if (tooLarge)
    return bad({
      code: 'too-large',
      message: 'The backup is larger than one answer holds.',
      accepted: `at most ${MOST_UNPACKED} bytes unpacked; ./heron restore takes any`,
      text: 'content',
    })
  const kept = files[MANIFEST] && manifest.safeParse(jsonOf(files[MANIFEST]))
  if (!kept?.success) return refuse(`The zip has no ${MANIFEST} of this program.`)
  if (kept.data.version > BACKUP_VERSION)
    return refuse(`The backup was made by a later version (its form is ${kept.data.version}).`)
  const wrong = Object.entries(kept.data.files).find(
    ([name, { bytes, sha256: digest }]) => files[name]?.length !== bytes || sha256(files[name]) !== digest,
  )
  if (wrong) return refuse(`${wrong[0]} is damaged: it is not what ${MANIFEST} says.`)
  const tunes = kept.data.tunes.map((id) => {
    const read = tuneKept.safeParse(jsonOf(files[tuneFile(id)]))
    if (!read.success) return null
    const { document, unread } = openDocument(read.data.document, read.data.version)
    const { title, text, melody, lyrics } = document
    return { title, text, melody, lyrics, warnings: unread }
  })
  const whole = tunes.filter((one) => one !== null)
  const [first] = whole
  if (!first || whole.length < tunes.length) return refuse('A tune of the backup cannot be read.')
  return good({ ...first, tunes: whole })
}

const sha256 = (bytes: Uint8Array): string => createHash('sha256').update(bytes).digest('hex')
const jsonOf = (bytes: Uint8Array | undefined): unknown => {
  try {
    return bytes && JSON.parse(strFromU8(bytes))
  } catch {
    return undefined
  }
}
