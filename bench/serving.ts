import { itemAt, lastOf } from '../core/lists'
import { Server } from '../e2e/server'

/**
 * `npm run bench:serving`: how soon the built server answers others while one client has it read a
 * hostile file, print, and write a backup of thousands of tunes; as ratios to the same answer with
 * nothing else going on. Aimed at on an idle machine: 100 ms.
 */
const TUNES = 2_000
const GOAL_MS = 100
const EVERY_MS = 15

const server = new Server()
await server.start()
const post = (path: string, body: BodyInit, headers: Record<string, string> = {}) =>
  fetch(`${server.url}${path}`, { method: 'POST', body, headers })

/**
 * Asks again and again until something else is done. @returns how long answers took, in ms, the
 * slowest last
 */
async function asking(until: Promise<unknown>): Promise<number[]> {
  let done = false
  void until.finally(() => (done = true)).catch(() => null)
  const took: number[] = []
  while (!done || took.length < 20) {
    const from = performance.now()
    await (await fetch(`${server.url}/guide`, { headers: { Connection: 'close' } })).text()
    took.push(performance.now() - from)
    await new Promise((resolve) => setTimeout(resolve, EVERY_MS))
  }
  return took.sort((a, b) => a - b)
}
const middle = (all: readonly number[]) => itemAt(all, Math.floor(all.length / 2))
const row = (what: string, took: readonly number[], base: number, more = '') =>
  console.log(
    `${what.padEnd(46)} ${(middle(took) / base).toFixed(1).padStart(6)} x  middle ${middle(took).toFixed(0)} ms, slowest ${lastOf(took).toFixed(0)} ms of ${took.length} (goal ${GOAL_MS}) ${more}`,
  )

/** A MIDI file whose ends of notes are of other pitches: 130,000 events. */
function hostileMidi(): Uint8Array<ArrayBuffer> {
  const body = [
    ...Array.from({ length: 65_000 }, () => [0, 0x90, 60, 90, 0, 0x80, 61, 0]).flat(),
    0, 0xff, 0x2f, 0,
  ] // prettier-ignore
  const four = (value: number) => [value >>> 24, (value >>> 16) & 255, (value >>> 8) & 255, value & 255]
  return Uint8Array.from([0x4d, 0x54, 0x68, 0x64, ...four(6), 0, 0, 0, 1, 1, 224, 0x4d, 0x54, 0x72, 0x6b, ...four(body.length), ...body]) // prettier-ignore
}

try {
  // The first answers are slower: what they need is compiled.
  await asking(Promise.resolve())
  const idle = await asking(new Promise((resolve) => setTimeout(resolve, 2_000)))
  const base = middle(idle)
  row('nothing else going on', idle, base)
  row('a hostile MIDI file is read', await asking(post('/files/tunes?name=a.mid', hostileMidi())), base)
  const book = await (await fetch(server.url)).text()
  const tune = /\/tunes\/[0-9a-f-]{36}/.exec(book)![0]
  const sheet = fetch(`${server.url}${tune}/sheet.pdf`).then((answer) => answer.arrayBuffer())
  row('a sheet is printed', await asking(sheet), base)
  const sets = await (await fetch(`${server.url}/sets`)).text()
  const set = /\/sets\/[0-9a-f-]{36}/.exec(sets)![0]
  row(
    'a set is printed',
    await asking(fetch(`${server.url}${set}/set.pdf`).then((answer) => answer.arrayBuffer())),
    base,
  )
  const songs = Array.from(
    { length: TUNES },
    (_, at) => `{title: Tune ${at}}\n| C | Am7 | Dm7 | G7 |\n| Em7 | A7 | Dm7 G7 | C |\n`,
  ).join('{new_song}\n')
  row(`${TUNES} tunes are brought in`, await asking(post('/files/tunes?name=a.cho', songs)), base)
  const from = performance.now()
  let seconds = 0
  const backup = fetch(`${server.url}/files/backup?history=yes`)
    .then((answer) => answer.arrayBuffer())
    .finally(() => (seconds = (performance.now() - from) / 1_000))
  const took = await asking(backup)
  row('a backup is written', took, base, `${Math.round(TUNES / seconds)} tunes a second (goal 500)`)
} finally {
  await server.end()
}
