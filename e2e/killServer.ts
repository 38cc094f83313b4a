import Database from 'better-sqlite3'
import { randomUUID } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { Server } from './server'

export interface Kills {
  rounds: number
  /** Edits that were answered as done, in all. */
  acknowledged: number
  /** Of those, the ones that are not in the book afterwards. */
  lost: number
  /** What SQLite's own check said, where it was not "ok". */
  broken: string[]
  /** From the start of the process to its address, the longest, in ms. */
  slowestBackMs: number
}

/** The longest time of edits before the process is killed, in ms. */
const LONGEST_ROUND_MS = 700
const LONGEST_START_MS = 20_000

/**
 * Kills the server with SIGKILL at random moments under edits, starts it again on the same book,
 * and looks for every edit that it had answered as done.
 * @param random from 0 to 1, the moments
 */
export async function killRounds(
  rounds: number,
  random: () => number = Math.random,
  onRound: (done: Kills) => void = () => {},
): Promise<Kills> {
  const server = new Server()
  const said: Kills = { rounds: 0, acknowledged: 0, lost: 0, broken: [], slowestBackMs: 0 }
  const acknowledged: string[] = []
  try {
    await server.start()
    const tune = look(server.book, (db) => db.prepare('SELECT id FROM tunes LIMIT 1').pluck().get() as string)
    for (let round = 0; round < rounds; round += 1) {
      const killed = { yes: false }
      let answered: () => void = () => {}
      const first = new Promise<void>((resolve) => (answered = resolve))
      const edits = editing(`${server.url}/tunes/${tune}/edits`, killed, (revision) => {
        acknowledged.push(revision)
        answered()
      })
      // Every other round among edits that were answered, on a slow machine too; the others at any
      // moment from the start on.
      if (round % 2 === 0) await Promise.race([first, wait(LONGEST_START_MS)])
      await wait(random() * LONGEST_ROUND_MS)
      killed.yes = true
      await server.kill()
      await edits
      const begun = performance.now()
      await server.restart()
      said.slowestBackMs = Math.max(said.slowestBackMs, performance.now() - begun)
      look(server.book, (db) => {
        const check = db.pragma('integrity_check', { simple: true }) as string
        if (check !== 'ok') said.broken.push(check)
        const kept = db.prepare('SELECT id FROM revisions WHERE id = ?')
        said.lost += acknowledged.filter((one) => kept.get(one) === undefined).length
      })
      said.acknowledged += acknowledged.length
      said.rounds += 1
      acknowledged.length = 0
      onRound(said)
    }
    return said
  } finally {
    await server.end()
  }
}

/** Edits one after the other until the server is gone; each that is answered is told. */
async function editing(
  address: string,
  killed: { yes: boolean },
  onDone: (revision: string) => void,
): Promise<void> {
  let base: string | undefined
  for (let at = 0; ; at += 1) {
    try {
      base ??= ((await (await fetch(address)).json()) as { revision: string }).revision
      const answer = await fetch(address, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify({ id: randomUUID(), base, edit: { kind: 'tempo', tempo: 60 + (at % 200) } }),
      })
      if (!answer.ok) throw new Error(`an edit was answered ${answer.status}: ${await answer.text()}`)
      base = ((await answer.json()) as { revision: string }).revision
      onDone(base)
    } catch (error) {
      // The connection breaks off with the server, and only then.
      if (killed.yes) return
      throw error
    }
  }
}

function look<T>(book: string, at: (db: Database.Database) => T): T {
  const db = new Database(book, { readonly: true })
  try {
    return at(db)
  } finally {
    db.close()
  }
}
