import express from 'express'
import { request as ask, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import {
  bodyInTime,
  bodyLimit,
  contentSecurityPolicy,
  knownMethods,
  loopbackOnly,
  MOST_BODY_BYTES,
  MOST_EDITS_BYTES,
  plainFaults,
  readableAddress,
  sameSiteWrites,
  securityHeaders,
} from './guard'

/** A body has so long here. */
const SLOW_MS = 300
let server: Server
let port: number
/** What reached the application behind the guard, by method and path. */
let reached: string[]
let faults: unknown[] = []

beforeAll(
  () =>
    new Promise<void>((ready) => {
      const app = express()
      app.use(
        loopbackOnly,
        securityHeaders,
        knownMethods,
        readableAddress,
        sameSiteWrites,
        bodyInTime(SLOW_MS),
        bodyLimit,
      )
      app.use('/broken', () => {
        throw new Error('inside of the program')
      })
      app.use((request, response) => {
        reached.push(`${request.method} ${request.path}`)
        let size = 0
        request.on('data', (chunk: Buffer) => {
          size += chunk.length
        })
        request.resume()
        request.on('end', () => response.json({ size, nonce: response.locals.nonce as string }))
      })
      app.use(plainFaults((error) => faults.push(error)))
      server = app.listen(0, '127.0.0.1', () => {
        port = (server.address() as AddressInfo).port
        ready()
      })
    }),
)
afterAll(() => new Promise((done) => server.close(done)))
beforeEach(() => {
  reached = []
})

interface Asked {
  method?: string
  path?: string
  headers?: Record<string, string>
  body?: string
}

interface Answer {
  status: number
  text: string
  headers: Record<string, unknown>
}

/**
 * Asks and reads the answer as soon as it comes, whether or not all was sent; a connection that is
 * cut is an answer with status 0.
 */
const answer = ({ method = 'GET', path = '/', headers = {}, body }: Asked, send = true) =>
  new Promise<Answer>((resolve) => {
    const sent = ask({ port, host: '127.0.0.1', method, path, headers, agent: false }, (response) => {
      let text = ''
      const done = () => {
        resolve({ status: response.statusCode!, text, headers: response.headers as Record<string, unknown> })
        sent.destroy()
      }
      response.on('data', (chunk: Buffer) => {
        text += chunk.toString()
      })
      response.on('end', done)
      response.on('error', done)
    })
    sent.on('error', () => resolve({ status: 0, text: '', headers: {} }))
    if (send) sent.end(body)
    else sent.flushHeaders()
  })

describe('who is served', () => {
  test.each(['localhost', 'localhost:5180', '127.0.0.1:80', '127.1.2.3', '[::1]:5180'])('%s', async (host) =>
    expect((await answer({ headers: { host } })).status).toBe(200),
  )
  test.each(['heron.example', 'localhost.heron.example', '127.0.0.1.heron.example', '10.0.0.4:5180'])(
    'not "%s": a foreign name that points here reads nothing',
    async (host) => {
      const { status, text } = await answer({ headers: { host } })
      expect([status, reached]).toEqual([421, []])
      expect(text).toContain(`not to "${host}"`)
    },
  )
})

describe('what is asked with', () => {
  test.each(['TRACE', 'PUT', 'DELETE', 'PATCH', 'PROPFIND'])(
    'not %s: said with what is accepted',
    async (method) => {
      const { status, text, headers } = await answer({ method, headers: { host: 'localhost' } })
      expect([status, reached]).toEqual([405, []])
      expect(text).toContain('Accepted: GET, HEAD, OPTIONS, POST')
      expect(headers.allow).toBe('GET, HEAD, OPTIONS, POST')
    },
  )
  test.each(['/%', '/tunes/%ff'])('not the address %s, which nobody can read', async (path) => {
    const { status, text } = await answer({ path, headers: { host: 'localhost' } })
    expect([status, reached]).toEqual([400, []])
    expect(text).toContain('cannot be read')
  })
  test('what is thrown inside is told without its inside', async () => {
    faults = []
    const { status, text } = await answer({ path: '/broken', headers: { host: 'localhost' } })
    expect(status).toBe(500)
    expect(text).not.toMatch(/inside of the program|guard\.test/)
    expect(faults).toEqual([new Error('inside of the program')])
  })
})

describe('who may write', () => {
  const from = (headers: Record<string, string>) =>
    answer({ method: 'POST', headers: { host: `127.0.0.1:${port}`, ...headers }, body: '{}' })
  test('our own pages, by the browser or by their address', async () => {
    expect((await from({ 'sec-fetch-site': 'same-origin' })).status).toBe(200)
    expect((await from({ 'sec-fetch-site': 'none' })).status).toBe(200)
    expect((await from({ origin: `http://127.0.0.1:${port}` })).status).toBe(200)
    expect((await from({})).status).toBe(200)
  })
  test.each([
    { 'sec-fetch-site': 'cross-site' },
    { 'sec-fetch-site': 'same-site' },
    { origin: 'http://heron.example' },
    { origin: 'null' },
    { origin: 'http://127.0.0.1:1' },
  ])('not another site: %p', async (headers) => {
    const { status, text } = await from(headers as unknown as Record<string, string>)
    expect(status).toBe(403)
    expect(text).toContain('Nothing was changed')
    expect(reached).toEqual([])
  })
  test('another site may still link to a page', async () =>
    expect((await answer({ headers: { 'sec-fetch-site': 'cross-site' } })).status).toBe(200))
})

describe('how much is taken', () => {
  const post = (path: string, bytes: number) =>
    answer({ method: 'POST', path, body: 'x'.repeat(bytes), headers: { 'content-length': String(bytes) } })
  /** Only says how much would come. */
  const announce = (path: string, bytes: number) =>
    answer({ method: 'POST', path, headers: { 'content-length': String(bytes) } }, false)
  const edits = '/tunes/5f0c8a52-93c3-4f7e-9a55-4f2f6f0a8b11/edits'
  test('up to the limit, and of the edits of a tune more', async () => {
    expect(JSON.parse((await post('/', MOST_BODY_BYTES)).text)).toMatchObject({ size: MOST_BODY_BYTES })
    expect((await post(edits, MOST_BODY_BYTES + 1)).status).toBe(200)
  })
  test('over it nothing reaches the application, and nothing has to be sent to be told so', async () => {
    const { status, text } = await announce('/', MOST_BODY_BYTES + 1)
    expect([status, reached]).toEqual([413, []])
    expect(text).toContain('2 MB')
    expect((await announce(edits, MOST_EDITS_BYTES + 1)).text).toContain('16 MB')
  })
  test('what does not say how long it is, is cut off when it has grown too large', async () => {
    const headers = { 'transfer-encoding': 'chunked' }
    const sent = await answer({ method: 'POST', headers, body: 'x'.repeat(MOST_BODY_BYTES * 2) })
    expect([0, 413]).toContain(sent.status)
    const small = await answer({ method: 'POST', headers, body: 'x'.repeat(1_000) })
    expect(JSON.parse(small.text)).toMatchObject({ size: 1_000 })
  })
  test('a path that only looks like that of edits has the smaller limit', async () =>
    expect((await announce('/tunes/a/b/edits', MOST_BODY_BYTES + 1)).status).toBe(413))
})

test('a body that stops on its way is ended in words; one that comes is taken', async () => {
  const slow = await new Promise<{ status: number; text: string }>((resolve, reject) => {
    const sent = ask(
      { port, method: 'POST', path: '/slow', headers: { 'Content-Length': '1000' } },
      (response) => {
        let text = ''
        response.on('data', (chunk: Buffer) => (text += chunk.toString()))
        response.on('end', () => resolve({ status: response.statusCode!, text }))
      },
    )
    sent.on('error', reject)
    sent.write('the first words')
  })
  expect(slow).toEqual({ status: 408, text: expect.stringContaining('did not come whole') as unknown })
  const whole = await fetch(`http://127.0.0.1:${port}/whole`, { method: 'POST', body: 'x'.repeat(100_000) })
  expect(await whole.json()).toMatchObject({ size: 100_000 })
})

describe('what a page may do', () => {
  test('run scripts of ours by a nonce that is new each time, and be framed nowhere', async () => {
    const [first, second] = [await answer({}), await answer({})]
    const nonceOf = ({ text }: { text: string }) => (JSON.parse(text) as { nonce: string }).nonce
    expect(nonceOf(first)).not.toBe(nonceOf(second))
    expect(first.headers['content-security-policy']).toBe(contentSecurityPolicy(nonceOf(first)))
    expect(first.headers).toMatchObject({
      'x-content-type-options': 'nosniff',
      'cross-origin-resource-policy': 'same-origin',
    })
    const policy = contentSecurityPolicy('n')
    for (const rule of ["script-src 'self' 'nonce-n'", "frame-ancestors 'none'", "connect-src 'self'"])
      expect(policy).toContain(rule)
    expect(policy).not.toContain('unsafe-eval')
  })
})
