import { faultWords } from '../../core/result'
import { createHash } from 'node:crypto'
import type { z } from 'zod'
import { openPromise, type Entry, type ZipFile } from 'yauzl'
import {
  BACKUP_FORMAT,
  BACKUP_VERSION,
  BackupFault,
  MANIFEST,
  manifest,
  type Manifest,
} from '../../core/backup/format'

/**
 * Bounds before work: files of a backup, bytes of one that is read whole, of a line, and of all
 * unpacked.
 */
const MOST_FILES = 3_000_000
const MOST_WHOLE = 64 * 1024 * 1024
const MOST_LINE = 16 * 1024 * 1024
const MOST_ALL = 64 * 1024 ** 3
/** Nothing of a backup shrinks more than this; deflate at its best does 1032 to 1. */
const MOST_RATIO = 400
const RATIO_FROM = 1024 * 1024

/**
 * A backup that was found whole: every file is there, as long and with the digest its manifest
 * says.
 */
export interface Backup {
  manifest: Manifest
  has: (name: string) => boolean
  json: <Schema extends z.ZodType>(name: string, schema: Schema) => Promise<z.infer<Schema>>
  /** The JSON lines of a file. */
  lines: <Schema extends z.ZodType>(name: string, schema: Schema) => AsyncGenerator<z.infer<Schema>>
  close: () => void
}

const damaged = (what: string) =>
  new BackupFault(`This backup is damaged: ${what}. Nothing was changed. Take another copy of the file.`)

interface Opening {
  onDone?: ((done: number, of: number) => void) | undefined
  /** It was looked through before: only its directory is read. */
  isKnown?: boolean
}

/**
 * Opens a backup and looks it through to its last byte.
 * @throws {BackupFault} where it is no backup, is cut short or changed, holds what it does not
 *   name, or is of a later version
 */
export async function openBackup(file: string, { onDone, isKnown = false }: Opening = {}): Promise<Backup> {
  let zip: ZipFile
  try {
    zip = await openPromise(file, {
      lazyEntries: true,
      autoClose: false,
      validateEntrySizes: true,
      strictFileNames: true,
    })
  } catch (error) {
    throw new BackupFault(
      `This is no backup of Yellow Heron, or it is cut short: it cannot be read as a zip file (${faultWords(error)}). Nothing was changed.`,
    )
  }
  try {
    const entries = await entriesOf(zip)
    const found = entries.get(MANIFEST)
    if (!found)
      throw new BackupFault(
        `This zip file is no backup of Yellow Heron: it has no ${MANIFEST}. Nothing was changed.`,
      )
    const kept = readManifest(await wholeOf(zip, found))
    const named = Object.keys(kept.files)
    const extra = [...entries.keys()].find((name) => name !== MANIFEST && !Object.hasOwn(kept.files, name))
    if (extra) throw damaged(`it holds ${extra}, which its manifest does not name`)
    for (const [at, name] of isKnown ? [] : named.entries()) {
      const entry = entries.get(name)
      if (!entry) throw damaged(`${name} is missing`)
      const { bytes, sha256 } = kept.files[name]!
      if ((await digestOf(zip, entry, bytes)) !== sha256) throw damaged(`${name} is not what it was`)
      onDone?.(at + 1, named.length)
    }
    const entryOf = (name: string): Entry => {
      const entry = entries.get(name)
      if (!entry) throw damaged(`${name} is missing`)
      return entry
    }
    return {
      manifest: kept,
      has: (name) => entries.has(name),
      json: async (name, schema) =>
        checked(name, (await wholeOf(zip, entryOf(name))).toString('utf8'), schema),
      lines: (name, schema) => linesOf(zip, entryOf(name), name, schema),
      close: () => zip.close(),
    }
  } catch (error) {
    zip.close()
    throw error
  }
}

function readManifest(bytes: Buffer): Manifest {
  let given: unknown
  try {
    given = JSON.parse(bytes.toString('utf8'))
  } catch {
    throw damaged(`${MANIFEST} is no JSON`)
  }
  const { format, version } = (given ?? {}) as { format?: unknown; version?: unknown }
  if (format !== BACKUP_FORMAT)
    throw new BackupFault(
      `This zip file is no backup of Yellow Heron: its ${MANIFEST} is another program's. Nothing was changed.`,
    )
  if (typeof version === 'number' && version > BACKUP_VERSION)
    throw new BackupFault(
      `This backup was made by a later version of Yellow Heron (its form is ${version}; this version reads up to ${BACKUP_VERSION}). Nothing was changed. Restore it with the later version.`,
    )
  const read = manifest.safeParse(given)
  if (!read.success) throw damaged(`${MANIFEST} is not as it should be`)
  return read.data
}

/** The directory of the zip. Names that climb out of it are refused by the reader itself. */
async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  if (zip.entryCount > MOST_FILES) throw damaged(`it says it has ${zip.entryCount} files`)
  const entries = new Map<string, Entry>()
  let all = 0
  try {
    for await (const entry of zip.eachEntry()) {
      const { fileName, uncompressedSize, compressedSize } = entry
      if (entries.has(fileName)) throw damaged(`${fileName} is in it twice`)
      all += uncompressedSize
      if (all > MOST_ALL) throw damaged('it would unpack to more than any songbook')
      if (uncompressedSize > RATIO_FROM && uncompressedSize > compressedSize * MOST_RATIO)
        throw damaged(`${fileName} would unpack to ${uncompressedSize} bytes out of ${compressedSize}`)
      entries.set(fileName, entry)
    }
  } catch (error) {
    throw error instanceof BackupFault ? error : damaged(faultWords(error))
  }
  return entries
}

async function* bytesOf(zip: ZipFile, entry: Entry): AsyncGenerator<Buffer> {
  try {
    for await (const part of await zip.openReadStreamPromise(entry)) yield part as Buffer
  } catch (error) {
    throw error instanceof BackupFault ? error : damaged(`${entry.fileName} cannot be unpacked`)
  }
}

async function wholeOf(zip: ZipFile, entry: Entry): Promise<Buffer> {
  if (entry.uncompressedSize > MOST_WHOLE) throw damaged(`${entry.fileName} is longer than it can be`)
  const parts: Buffer[] = []
  for await (const part of bytesOf(zip, entry)) parts.push(part)
  return Buffer.concat(parts)
}

async function digestOf(zip: ZipFile, entry: Entry, expected: number): Promise<string> {
  if (entry.uncompressedSize !== expected) throw damaged(`${entry.fileName} is not as long as it was`)
  const hash = createHash('sha256')
  for await (const part of bytesOf(zip, entry)) hash.update(part)
  return hash.digest('hex')
}

async function* linesOf<Schema extends z.ZodType>(
  zip: ZipFile,
  entry: Entry,
  name: string,
  schema: Schema,
): AsyncGenerator<z.infer<Schema>> {
  const letters = new TextDecoder()
  let rest = ''
  for await (const part of bytesOf(zip, entry)) {
    rest += letters.decode(part, { stream: true })
    if (rest.length > MOST_LINE && !rest.includes('\n'))
      throw damaged(`a line of ${name} is longer than it can be`)
    const lines = rest.split('\n')
    rest = lines.pop()!
    for (const line of lines) if (line !== '') yield checked(name, line, schema)
  }
  if (rest !== '') yield checked(name, rest, schema)
}

function checked<Schema extends z.ZodType>(name: string, text: string, schema: Schema): z.infer<Schema> {
  let given: unknown
  try {
    given = JSON.parse(text)
  } catch {
    throw damaged(`${name} is no JSON`)
  }
  const read = schema.safeParse(given)
  if (!read.success) {
    const [issue] = read.error.issues
    throw damaged(
      `${name} has something else at ${issue?.path.join('.') ?? 'its beginning'} than this version reads`,
    )
  }
  return read.data
}
