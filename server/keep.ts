import { firstOf } from '../core/lists'
import { createWriteStream, existsSync, renameSync, rmSync, statSync } from 'node:fs'
import { join } from 'node:path'
import { createInterface } from 'node:readline'
import { Writable } from 'node:stream'
import { restoreBackup, type RestoreAsked, type Restored } from '../db/backup/restore'
import { writeBackup } from '../db/backup/write'
import { bookFile, closeDatabase, openDatabase } from '../db/connect'
import { AccessStore, LONGEST_PASSPHRASE, SHORTEST_PASSPHRASE } from './access/accessStore'
import { examine, examinedInWords } from './doctor'

/**
 * `./heron backup`, `./heron restore`, `./heron doctor` and `./heron passphrase`: the book named by
 * HERON_DB, or the usual one.
 */
const USAGE = `Usage:
  ./heron backup FILE.zip [--without-history]
  ./heron restore FILE.zip [--leave-different] [--take-player]
  ./heron doctor
  ./heron passphrase`

class Refused extends Error {}

function readWords(words: readonly string[], known: readonly string[]): { file: string; on: Set<string> } {
  const on = new Set(words.filter((word) => word.startsWith('--')))
  const files = words.filter((word) => !word.startsWith('--'))
  const strange = [...on].find((word) => !known.includes(word))
  if (strange) throw new Refused(`There is no option ${strange}. Accepted: ${known.join(', ')}.\n${USAGE}`)
  if (files.length !== 1) throw new Refused(`One file is needed, ${files.length} were named.\n${USAGE}`)
  return { file: firstOf(files), on }
}

/** The program may be called from any folder. */
const migrations = () => join(process.env.HERON_HOME ?? '.', 'db/migrations')

const tell = (words: string) => process.stderr.isTTY && process.stderr.write(`\r${words}\u001b[K`)

async function backup(words: readonly string[]): Promise<string> {
  const { file, on } = readWords(words, ['--without-history'])
  if (existsSync(file))
    throw new Refused(`${file} is there already: name a new file, nothing is written over.`)
  if (!existsSync(bookFile()))
    throw new Refused(`There is no book at ${bookFile()}. Name another with HERON_DB, or run ./start once.`)
  const db = openDatabase(bookFile(), migrations())
  // Under another name until it is whole, so that a file that was cut short is never taken for a
  // backup.
  const unfinished = `${file}.unfinished`
  try {
    const { tunes } = await writeBackup(db, createWriteStream(unfinished, { flags: 'wx' }), {
      history: !on.has('--without-history'),
      onDone: (done, of) => tell(`${done} of ${of} tunes`),
    })
    renameSync(unfinished, file)
    return `${tunes.length === 1 ? '1 tune with all that belongs to it is' : `${tunes.length} tunes with all that belongs to them are`} in ${file} (${statSync(file).size} bytes).`
  } catch (error) {
    rmSync(unfinished, { force: true })
    throw error
  } finally {
    closeDatabase(db)
  }
}

async function restore(words: readonly string[]): Promise<string> {
  const { file, on } = readWords(words, ['--leave-different', '--take-player'])
  if (!existsSync(file)) throw new Refused(`There is no file ${file}.`)
  const db = openDatabase(bookFile(), migrations())
  const asked: RestoreAsked = {
    different: on.has('--leave-different') ? 'leave' : 'beside',
    player: on.has('--take-player') ? 'take' : 'keep',
    onDone: (done, of) => tell(`${Math.round((100 * done) / of)} %`),
  }
  try {
    return restoredInWords(await restoreBackup(db, file, asked))
  } finally {
    closeDatabase(db)
  }
}

/** What is wrong with the book, its disk and this machine, and what to do. */
function doctor(words: readonly string[]): string {
  if (words.length > 0) throw new Refused(`The doctor takes no more words.\n${USAGE}`)
  const findings = examine(bookFile(), migrations())
  if (findings.some(({ help }) => help !== null)) process.exitCode = 1
  return examinedInWords(findings)
}

/**
 * Asks for a passphrase twice, unseen, and keeps it; not on a console, the first line of the input
 * is taken.
 */
async function passphrase(words: readonly string[]): Promise<string> {
  if (words.length > 0) throw new Refused(`The passphrase is asked for, and stands in no command.\n${USAGE}`)
  const typed = await unseen('Passphrase for devices of the home network: ')
  if (typed.length < SHORTEST_PASSPHRASE || typed.length > LONGEST_PASSPHRASE)
    throw new Refused(
      `It has ${typed.length} letters; ${SHORTEST_PASSPHRASE} to ${LONGEST_PASSPHRASE} are accepted. Nothing was changed.`,
    )
  if (process.stdin.isTTY && (await unseen('Once more: ')) !== typed)
    throw new Refused('The two are not the same. Nothing was changed.')
  await AccessStore.beside(bookFile()).setPassphrase(typed)
  return 'The passphrase is set. Every device signs in anew. Serve the network with ./start --lan'
}

/** A line that is typed without being shown. */
async function unseen(question: string): Promise<string> {
  const quiet = new Writable({ write: (_chunk, _encoding, done) => done() })
  if (process.stdin.isTTY) process.stderr.write(question)
  const lines = createInterface({ input: process.stdin, output: quiet, terminal: process.stdin.isTTY })
  const line = await new Promise<string>((resolve) => {
    lines.once('line', resolve)
    lines.once('close', () => resolve(''))
  })
  lines.close()
  if (process.stdin.isTTY) process.stderr.write('\n')
  return line
}

export function restoredInWords(said: Restored): string {
  return [
    `The backup of ${said.made}: ${said.brought} ${said.brought === 1 ? 'tune' : 'tunes'} brought in, ${said.same} were there and the same.`,
    ...(said.deleted.length > 0
      ? [`Deleted in this book, to be brought back there: ${said.deleted.join('; ')}.`]
      : []),
    ...(said.beside.length > 0 ? [`Beside tunes that are others now: ${said.beside.join('; ')}.`] : []),
    ...(said.left.length > 0 ? [`Left out, because they are others now: ${said.left.join('; ')}.`] : []),
    `New: ${said.grips} grips, ${said.sets} sets, ${said.passes} passes of the log.`,
    said.player
      ? "The player's settings are those of the backup."
      : "The player's settings stay as they were.",
    ...(said.unread.length > 0 ? [`Not read: ${said.unread.join(' ')}`] : []),
  ].join('\n')
}

const [command, ...words] = process.argv.slice(2)
try {
  const commands = { backup, restore, doctor, passphrase }
  const said = await commands[command as keyof typeof commands](words)
  tell('')
  process.stdout.write(`${said}\n`)
} catch (error) {
  tell('')
  process.stderr.write(`${error instanceof Error ? error.message : String(error)}\n`)
  process.exitCode = 1
}
