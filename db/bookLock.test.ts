import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join, resolve } from 'node:path'
import { BookFault } from './connect'
import { serveAlone } from './bookLock'

let folder: string
let book: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'heron-serving-'))
  book = join(folder, 'deeper', 'heron.sqlite')
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

test('a second server is refused, with where the first one is, until that one ends', () => {
  const first = serveAlone(book)
  expect(() => serveAlone(book)).toThrow(/^Another server already serves the book \(\S+\)\. Open that/)
  first.at('http://127.0.0.1:5180')
  expect(() => serveAlone(book)).toThrow(/, at http:\/\/127\.0\.0\.1:5180\. Open that/)
  expect(() => serveAlone(book)).toThrow(BookFault)
  first.end()
  const second = serveAlone(book)
  second.at('http://127.0.0.1:5181')
  second.end()
})

test('a server that is killed leaves nothing behind that keeps the next one off', async () => {
  serveAlone(book).end()
  const lock = `const D = require('better-sqlite3'); const d = new D(${JSON.stringify(`${book}.server`)}); d.exec('BEGIN IMMEDIATE'); console.log('held'); setInterval(() => {}, 1000)`
  const child = spawn('node', ['-e', lock], { cwd: resolve('.') })
  await new Promise((held) => child.stdout.once('data', held))
  expect(() => serveAlone(book)).toThrow(/^Another server/)
  const gone = new Promise((ended) => child.once('exit', ended))
  child.kill('SIGKILL')
  await gone
  serveAlone(book).end()
})

test('a folder that is a file is said in words', () => {
  serveAlone(join(folder, 'plain')).end()
  expect(() => serveAlone(join(folder, 'plain.server', 'heron.sqlite'))).toThrow(BookFault)
})
