import { firstOf, itemAt } from '../core/lists'
import express from 'express'
import {
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import type { AddressInfo } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { faultTold, logAnswers, openLog, pageFaults } from './log'

let folder: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'heron-'))
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))
const written = () =>
  readdirSync(join(folder, 'log'))
    .map((name) => readFileSync(join(folder, 'log', name), 'utf8'))
    .join('')

test('a fault is told by its kind and its places, without its words', () => {
  const told = faultTold(Object.assign(new TypeError('| Cmaj7 | of my own song'), { code: 'SQLITE_FULL' }))
  expect(told).toMatchObject({ name: 'TypeError', code: 'SQLITE_FULL' })
  expect(told.at[0]).toMatch(/log\.test\.ts:\d+:\d+$/)
  expect(JSON.stringify(told)).not.toMatch(/Cmaj7|song|\//)
  expect(faultTold('words')).toEqual({ name: 'string', at: [] })
})

test('failed answers and faults of pages are written down without what was typed; a page that fails in a circle does not fill the log', async () => {
  const log = await openLog(join(folder, 'book.sqlite'))
  const app = express()
  app.use(logAnswers(log))
  app.post('/faults', express.json({ limit: '16kb' }), pageFaults(log))
  app.use((_request, response) => response.status(500).end())
  const server = app.listen(0, '127.0.0.1')
  await new Promise((ready) => server.once('listening', ready))
  const at = `http://127.0.0.1:${(server.address() as AddressInfo).port}`
  await fetch(`${at}/tunes/1?words=my+secret+title`)
  const tell = (body: object) =>
    fetch(`${at}/faults`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
    })
  const fault = {
    name: 'Error',
    stack: 'Error: my own words\n    at draw (http://127.0.0.1:1/assets/root-1.js:1:22)',
    page: '/tunes/1?x=hidden',
  }
  for (let times = 0; times < 30; times += 1) expect((await tell(fault)).status).toBe(204)
  expect((await tell({ ...fault, more: 1 })).status).toBe(400)
  await new Promise((done) => server.close(done))
  const lines = written().trim().split('\n')
  expect(lines).toHaveLength(21)
  expect(JSON.parse(firstOf(lines))).toMatchObject({
    method: 'GET',
    path: '/tunes/1',
    status: 500,
    msg: 'failed',
  })
  expect(JSON.parse(itemAt(lines, 1))).toMatchObject({
    fault: { name: 'Error', at: ['draw root-1.js:1:22'] },
    page: '/tunes/1',
  })
  expect(written()).not.toMatch(/secret|my own words|hidden/)
})

test('a folder that cannot be written leaves the server without a log, and says so', async () => {
  writeFileSync(join(folder, 'log'), 'a file in its way')
  const said = jest.spyOn(process.stderr, 'write').mockReturnValue(true)
  const log = await openLog(join(folder, 'book.sqlite'))
  log.error('nothing')
  expect(said).toHaveBeenCalledWith(expect.stringContaining('There is no log'))
  said.mockRestore()
})

test('a disk that is full takes nothing of the log, which is said once and harms nothing', async () => {
  mkdirSync(join(folder, 'log'))
  // A file of the system that every write fails on as on a full disk.
  symlinkSync('/dev/full', join(folder, 'log', 'heron.1.log'))
  symlinkSync('/dev/full', join(folder, 'log', 'heron.1'))
  const said = jest.spyOn(process.stderr, 'write').mockReturnValue(true)
  const log = await openLog(join(folder, 'book.sqlite'))
  for (let times = 0; times < 2_000; times += 1) log.error({ path: 'x'.repeat(200) }, 'failed')
  await new Promise((goOn) => setImmediate(goOn))
  const told = said.mock.calls.filter(([words]) => String(words).includes('ENOSPC'))
  said.mockRestore()
  expect(told).toHaveLength(1)
})
