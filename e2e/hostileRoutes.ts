import fc from 'fast-check'
import { randomUUID } from 'node:crypto'
import { request as ask } from 'node:http'
import { builtFile } from '../core/cli/builtFile'
import { hostileText } from '../core/cli/hostileText'

/** Requests to every route that nobody means well, and what came of them. */
export interface HostileRequest {
  method: string
  path: string
  type: string | null
  body: string | Uint8Array
}
export interface HostileAnswer {
  status: number
  text: string
  ms: number
}

/** Ids stand where `:` does; one of them is a tune of the book. */
const PATHS = [
  '/', '/deleted', '/tunes/:id', '/tunes/:id/chart', '/tunes/:id/nosuch', '/tunes/:id/edits', '/tunes/:id/sheet', '/tunes/:id/sheet.pdf', '/tunes/:id/why', '/tunes/:id/file/midi',
  '/tunes/:id/file/nosuch', '/tunes/:id/practice-log', '/sets', '/sets/:id', '/sets/:id/set.pdf', '/files', '/files/backup', '/files/restore', '/files/tunes?name=a.mid', '/files/tunes',
  '/files/songbook/nosuch', '/stand', '/stand/pages', '/practice/passes', '/log', '/log/file', '/trainer', '/grips', '/grips/kept', '/player', '/player/edits', '/nosuch', '/%', '/%ff%fe',
  '/tunes/%00/chart', '/assets/../../package.json', '/_root.data', '/tunes/:id/chart.data', '/sets.data?index',
] // prettier-ignore
const METHODS = ['GET', 'POST', 'POST', 'POST', 'HEAD', 'OPTIONS', 'PUT', 'DELETE', 'TRACE', 'PATCH']
const TYPES = ['application/json', 'application/x-www-form-urlencoded', 'multipart/form-data; boundary=x', 'multipart/form-data', 'text/plain', 'application/octet-stream', '', null] // prettier-ignore
const FIELDS = [
  'intent',
  'id',
  'ids',
  'name',
  'title',
  'text',
  'file',
  'note',
  'frets',
  'symbol',
  'tags',
  'layout',
  'place',
  '__proto__',
  'words',
  'sort',
  'most',
]
const INTENTS = [
  'new',
  'delete',
  'restore',
  'erase',
  'keep',
  'let-go',
  'bring',
  'say',
  'add',
  'move',
  'copy',
  'undo',
  'rename',
]

const edit = fc.oneof(
  hostileText.map((text) => ({ kind: 'text', text })),
  fc
    .constantFrom('| Qz '.repeat(9_000), '| C7b9#9 . _G_ . '.repeat(4_000), '[A] | C |\n'.repeat(9_000))
    .map((text) => ({ kind: 'text', text })),
  fc.record({
    kind: fc.constantFrom('tempo', 'fix', 'choose', 'grips', 'melody', 'version-keep', 'leading'),
    tempo: fc.anything(),
    slot: fc.anything(),
  }),
  fc.anything(),
)
const value = fc.oneof(
  hostileText.map((text) => text.slice(0, 300)),
  fc.constantFrom(...INTENTS),
  fc.uuid(),
)
const fields = fc.array(fc.tuple(fc.constantFrom(...FIELDS), value), { maxLength: 5 })
const body = fc.oneof(
  fields.map((pairs) => new URLSearchParams(pairs.map(([name, one]) => [name, one])).toString()),
  fields.map(
    (pairs) =>
      `${pairs.map(([name, one]) => `--x\r\nContent-Disposition: form-data; name="${name}"\r\n\r\n${one}\r\n`).join('')}--x--\r\n`,
  ),
  fc
    .tuple(edit, fc.boolean())
    .map(([one, known]) =>
      JSON.stringify({ id: randomUUID(), base: known ? ':revision' : randomUUID(), edit: one }),
    ),
  fc.anything().map((one) => JSON.stringify(one) ?? ''),
  hostileText,
)
const fileSent = builtFile.map(({ name, bytes }): HostileRequest => ({
  method: 'POST',
  path: `/files/tunes?name=${name}`,
  type: 'application/octet-stream',
  body: bytes,
}))
const anyRequest: fc.Arbitrary<HostileRequest> = fc.record({
  method: fc.constantFrom(...METHODS),
  path: fc.oneof(
    { weight: 4, arbitrary: fc.constantFrom(...PATHS) },
    { weight: 1, arbitrary: fc.constant('/tunes/:id/edits') },
  ),
  type: fc.constantFrom(...TYPES),
  body,
})
export const hostileRoute = fc.oneof({ weight: 5, arbitrary: anyRequest }, { weight: 1, arbitrary: fileSent })

/** Sends it to a server; `:id` and `:revision` are those of a tune that is there. */
export function sendHostile(
  url: string,
  { method, path, type, body: said }: HostileRequest,
  tune: { id: string; revision: string },
): Promise<HostileAnswer> {
  const from = performance.now()
  const { hostname, port } = new URL(url)
  return new Promise((resolve) => {
    const sent = ask(
      {
        hostname,
        port,
        method,
        path: path.replace(':id', tune.id),
        headers: type === null ? {} : { 'Content-Type': type },
        agent: false,
      },
      (answer) => {
        let text = ''
        answer.on('data', (chunk: Buffer) => (text += chunk.toString('latin1')))
        answer.on('end', () => resolve({ status: answer.statusCode!, text, ms: performance.now() - from }))
        answer.on('error', () => resolve({ status: answer.statusCode!, text, ms: performance.now() - from }))
      },
    )
    // An answer that comes before all was sent may cut the connection: the server has refused it.
    sent.on('error', () => resolve({ status: 0, text: '', ms: performance.now() - from }))
    const body = typeof said === 'string' ? said.replace(':revision', tune.revision) : said
    sent.end(['GET', 'HEAD', 'TRACE'].includes(method) ? undefined : body)
  })
}

/** What must never stand in an answer: a place in the program. */
export const STACK = /\bat [^\n]*\(?(?:file:|node:|\/)[^\s)]*:\d+:\d+/
