import { firstOf } from '../../core/lists'
import express from 'express'
import { X509Certificate } from 'node:crypto'
import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { request as ask } from 'node:https'
import { connect as plainSocket, type AddressInfo, type Socket } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { connect } from 'node:tls'
import { generate } from 'selfsigned'
import { knownMethods, ownHostsOnly, sameSiteWrites, securityHeaders } from '../guard'
import { securePort, type SecurePort } from './bothWays'
import { gate } from './gate'
import { certificateBeside, isOurs, type Certificates, type Network } from './network'
import { Slowdown } from './slowdown'
import { AccessStore, SIGNED_IN_MS } from './accessStore'

const NETWORK: Network = { addresses: ['192.168.7.20'], names: ['workroom', 'workroom.local'] }
/** What is not finished is ended here after so long. */
const SILENT_MS = 400
const PASSPHRASE = 'quiet water by the lock'
let folder: string
let book: string
beforeEach(() => {
  folder = mkdtempSync(join(tmpdir(), 'heron-'))
  book = join(folder, 'book.sqlite')
})
afterEach(() => rmSync(folder, { recursive: true, force: true }))

describe('what is kept', () => {
  test('the passphrase stands nowhere, and only this user reads what it became', async () => {
    const store = AccessStore.beside(book)
    expect(store.hasPassphrase()).toBe(false)
    await store.setPassphrase(PASSPHRASE)
    expect([await store.isPassphrase(PASSPHRASE), await store.isPassphrase(`${PASSPHRASE} `)]).toEqual([
      true,
      false,
    ])
    // Letters that look the same are the same: as one sign or as two.
    await store.setPassphrase('Flöte am Kanal')
    expect(await store.isPassphrase('Flo\u0308te am Kanal')).toBe(true)
    const file = join(folder, 'access.json')
    expect(readFileSync(file, 'utf8')).not.toContain('Kanal')
    expect(statSync(file).mode & 0o077).toBe(0)
  })
  test('sessions end by themselves, one by one, all at once, and with a new passphrase', async () => {
    const store = AccessStore.beside(book)
    await store.setPassphrase(PASSPHRASE)
    const [one, two] = [store.begin(0), store.begin(0)]
    expect([
      store.isOpen(one, SIGNED_IN_MS - 1),
      store.isOpen(one, SIGNED_IN_MS),
      store.isOpen('', 0),
    ]).toEqual([true, false, false])
    store.end(one)
    expect([store.isOpen(one, 1), store.isOpen(two, 1)]).toEqual([false, true])
    store.endAll()
    expect(store.isOpen(two, 1)).toBe(false)
    const three = store.begin(0)
    await store.setPassphrase(PASSPHRASE)
    expect(store.isOpen(three, 1)).toBe(false)
    expect(readFileSync(join(folder, 'access.json'), 'utf8')).not.toContain(three)
  })
})

test('wrong tries wait, longer each time, each address for itself, and a right one ends it', () => {
  const slow = new Slowdown()
  const waits = Array.from({ length: 6 }, () => {
    slow.wrong('a', 0)
    return slow.waitOf('a', 0)
  })
  expect(waits).toEqual([0, 0, 1_000, 2_000, 4_000, 8_000])
  expect([slow.waitOf('a', 7_000), slow.waitOf('b', 0)]).toEqual([1_000, 0])
  slow.right('a')
  expect(slow.waitOf('a', 0)).toBe(0)
  for (let at = 0; at < 5_000; at += 1) slow.wrong(String(at), 1)
  expect((slow as unknown as { tries: Map<string, unknown> }).tries.size).toBeLessThan(1_100)
})

test('many addresses together wait too, and what is right counts no more', () => {
  const slow = new Slowdown()
  let looked = 0
  for (let address = 0; address < 240; address += 1)
    for (let tries = 0; tries < 3; tries += 1)
      if (slow.waitOf(String(address), 0) === 0) {
        looked += 1
        slow.wrong(String(address), 0)
      }
  expect(looked).toBeLessThan(20)
  // In an hour of trying without a pause no more than one a minute is looked at.
  for (let second = 1; second <= 3_600; second += 1) {
    const address = `later ${second}`
    if (slow.waitOf(address, second * 1_000) > 0) continue
    looked += 1
    slow.wrong(address, second * 1_000)
  }
  expect(looked).toBeLessThan(90)
  // A device of the house waits a minute at the most.
  expect(slow.waitOf('of the house', 3_600_000)).toBeLessThanOrEqual(60_000)
  expect(slow.waitOf('of the house', 8_000_000)).toBe(0)
})

describe('the certificate', () => {
  test('names every address of the machine, is kept, and is made anew for another address or when it ends soon', async () => {
    const first = await certificateBeside(book, NETWORK, Date.now())
    const read = new X509Certificate(first.cert)
    expect(read.checkIP('192.168.7.20')).toBeTruthy()
    expect(read.checkHost('workroom.local')).toBeTruthy()
    expect(read.checkHost('heron.example')).toBeUndefined()
    expect(await certificateBeside(book, NETWORK)).toEqual(first)
    expect((await certificateBeside(book, NETWORK, Date.now() + 380 * 86_400_000)).cert).not.toBe(first.cert)
    const moved = await certificateBeside(book, { ...NETWORK, addresses: ['10.0.0.4'] })
    expect(new X509Certificate(moved.cert).checkIP('10.0.0.4')).toBeTruthy()
    writeFileSync(join(folder, 'lan.cert.pem'), 'cut off')
    expect((await certificateBeside(book, NETWORK)).cert).toContain('BEGIN CERTIFICATE')
    for (const name of ['lan.key.pem', 'lan.authority.key.pem'])
      expect(statSync(join(folder, name)).mode & 0o077).toBe(0)
    // A device trusts the authority once: it stays, whatever becomes of the server's own.
    expect(moved.authority).toBe(first.authority)
    const authority = new X509Certificate(first.authority)
    expect(authority.ca).toBe(true)
    expect(new X509Certificate(moved.cert).verify(authority.publicKey)).toBe(true)
    expect(Date.parse(authority.validTo)).toBeGreaterThan(Date.now() + 3_000 * 86_400_000)
  })
  test('of a version before, signed by itself, gives way to one that devices can trust', async () => {
    const { cert } = await generate(undefined, { extensions: [{ name: 'basicConstraints', cA: false }] })
    writeFileSync(join(folder, 'lan.cert.pem'), cert)
    writeFileSync(join(folder, 'lan.key.pem'), 'its key')
    const made = await certificateBeside(book, NETWORK)
    expect(new X509Certificate(made.cert).verify(new X509Certificate(made.authority).publicKey)).toBe(true)
  })
  test('names that are ours, and others', () => {
    for (const host of ['192.168.7.20:5181', 'workroom', 'WORKROOM.local:5181', 'localhost'])
      expect(isOurs(host, NETWORK)).toBe(true)
    for (const host of [
      'heron.example',
      '192.168.7.20.heron.example',
      'workroom.heron.example',
      '',
      undefined,
    ])
      expect(isOurs(host, NETWORK)).toBe(false)
  })
})

describe('the way in', () => {
  let server: SecurePort
  let port: number
  let store: AccessStore
  let certificates: Certificates
  beforeEach(async () => {
    store = AccessStore.beside(book)
    await store.setPassphrase(PASSPHRASE)
    certificates = await certificateBeside(book, NETWORK)
    const app = express()
    app.use(
      ownHostsOnly((host) => isOurs(host, NETWORK)),
      securityHeaders,
      knownMethods,
      sameSiteWrites,
      gate(store, certificates.authority),
    )
    app.use((request, response) => response.send(`inside ${request.path}`))
    server = securePort(certificates, (host) => isOurs(host, NETWORK), app, SILENT_MS)
    await new Promise<void>((ready) => server.port.listen(0, '127.0.0.1', ready))
    port = (server.port.address() as AddressInfo).port
  })
  afterEach(() => {
    const ended = new Promise((done) => server.port.once('close', done))
    server.end()
    return ended
  })

  interface Answer {
    status: number
    text: string
    location: string | undefined
    cookie: string | undefined
    control: string | undefined
  }
  const answer = (
    path: string,
    {
      body,
      cookie,
      headers = {},
    }: { body?: string; cookie?: string | undefined; headers?: Record<string, string> } = {},
  ) =>
    new Promise<Answer>((resolve, reject) => {
      const sent = ask(
        {
          port,
          host: '127.0.0.1',
          path,
          method: body === undefined ? 'GET' : 'POST',
          rejectUnauthorized: false,
          agent: false,
          headers: {
            host: 'workroom.local',
            accept: 'text/html',
            ...(body === undefined ? {} : { 'content-type': 'application/x-www-form-urlencoded' }),
            ...(cookie ? { cookie } : {}),
            ...headers,
          },
        },
        (response) => {
          let text = ''
          response.on('data', (chunk: Buffer) => (text += chunk.toString()))
          response.on('end', () =>
            resolve({
              status: response.statusCode!,
              text,
              location: response.headers.location,
              cookie: response.headers['set-cookie']?.[0],
              control: response.headers['cache-control'],
            }),
          )
        },
      )
      sent.on('error', reject)
      sent.end(body)
    })
  const signIn = (passphrase: string) =>
    answer('/sign-in', { body: new URLSearchParams({ passphrase }).toString() })

  test('who has not signed in reads a page that asks, and nothing else', async () => {
    expect(await answer('/tunes')).toMatchObject({ status: 303, location: '/sign-in' })
    const data = await answer('/tunes/1/edits', { headers: { accept: 'application/json' } })
    expect([data.status, data.text]).toEqual([401, expect.stringContaining('/sign-in')])
    expect((await answer('/tunes/1/edits', { body: 'x=1' })).status).toBe(401)
    expect((await answer('/sign-out-everywhere', { body: '' })).status).toBe(401)
    const page = await answer('/sign-in')
    expect(page.text).toContain('Passphrase')
    // But for the fonts of that page.
    const fonts = [...page.text.matchAll(/url\((\/sign-in\/[a-z-]+\.woff2)\)/g)].map(([, path]) => path!)
    expect(fonts).toHaveLength(3)
    for (const font of fonts)
      expect(await answer(font)).toMatchObject({ status: 200, text: expect.stringMatching(/^wOF2/) })
    expect(await answer('/sign-in/other.woff2')).toMatchObject({ status: 303, location: '/sign-in' })
    expect((await answer('/sign-in', { headers: { host: 'heron.example' } })).status).toBe(421)
  })
  test('who trusts the authority is sure of the server, by each of its addresses; others are warned', async () => {
    const reach = (ca?: string) =>
      new Promise<string>((resolve) => {
        const socket = connect({ port, host: '127.0.0.1', ...(ca === undefined ? {} : { ca }) }, () => {
          resolve('sure')
          socket.end()
        })
        socket.on('error', ({ message }) => resolve(message))
      })
    expect(await reach(certificates.authority)).toBe('sure')
    expect(await reach()).toMatch(/unable to (verify|get)|self.signed/)
  })
  test('the certificate of the authority is told to everyone, and nothing of its key', async () => {
    const { status, text } = await answer('/certificate')
    expect([status, text]).toEqual([200, certificates.authority])
    expect(text).not.toContain('PRIVATE')
  })
  test('who asks without TLS is sent to the same address with it, and reads nothing', async () => {
    const asked = (host: string) =>
      fetch(`http://127.0.0.1:${port}/sets?sort=title`, { redirect: 'manual', headers: { host } })
    const sent = await asked(`127.0.0.1:${port}`)
    expect([sent.status, sent.headers.get('location')]).toEqual([
      308,
      `https://127.0.0.1:${port}/sets?sort=title`,
    ])
  })
  test('with the passphrase a device comes in until it signs out, or all do', async () => {
    const wrong = await signIn('something else')
    expect([wrong.status, wrong.cookie]).toEqual([401, undefined])
    expect(wrong.text).toContain('That is not the passphrase.')
    const { status, cookie } = await signIn(PASSPHRASE)
    expect(status).toBe(303)
    expect(cookie).toMatch(/HttpOnly; Secure; SameSite=Lax/)
    const held = firstOf(cookie!.split(';'))
    expect((await answer('/tunes', { cookie: held })).text).toBe('inside /tunes')
    const other = firstOf((await signIn(PASSPHRASE)).cookie!.split(';'))
    await answer('/sign-out', { body: '', cookie: held })
    expect((await answer('/tunes', { cookie: held })).status).toBe(303)
    expect((await answer('/tunes', { cookie: other })).status).toBe(200)
    await answer('/sign-out-everywhere', { body: '', cookie: other })
    expect((await answer('/tunes', { cookie: other })).status).toBe(303)
  })
  test('after some wrong tries the right one has to wait too; another site cannot sign a device in', async () => {
    for (let at = 0; at < 3; at += 1) expect((await signIn('wrong again')).status).toBe(401)
    const told = await signIn(PASSPHRASE)
    expect([told.status, told.text]).toEqual([
      429,
      expect.stringContaining('Too many wrong tries: wait 1 second.'),
    ])
    const foreign = await answer('/sign-in', {
      body: 'passphrase=x',
      headers: { 'sec-fetch-site': 'cross-site' },
    })
    expect(foreign.status).toBe(403)
  })
  test('what is not finished is ended: a connection that is silent, a handshake, headers that do not end', async () => {
    const ended = (socket: Socket) =>
      new Promise((end) =>
        socket
          .resume()
          .on('error', () => null)
          .once('close', end),
      )
    const silent = plainSocket(port)
    const shaking = plainSocket({ port }, () => shaking.write(Buffer.from([22, 3, 1])))
    const plain = plainSocket({ port }, () =>
      plain.write('GET / HTTP/1.1\r\nHost: workroom.local\r\nX-Slow: '),
    )
    const inside = connect({ port, host: '127.0.0.1', ca: certificates.authority }, () =>
      inside.write('POST /sign-in HTTP/1.1\r\nHost: workroom.local\r\nX-Slow: '),
    )
    await Promise.all([silent, shaking, plain, inside].map(ended))
    expect((await answer('/sign-in')).status).toBe(200)
  })
  test('one address has so many connections at most; what it has open goes on', async () => {
    const first = plainSocket(port)
    await new Promise((open) => first.once('connect', open))
    const more = Array.from({ length: 80 }, () => plainSocket(port).on('error', () => null))
    const refused = await Promise.race(
      more.map((one) => new Promise((end) => one.once('close', () => end(true)))),
    )
    expect(refused).toBe(true)
    expect(first.destroyed).toBe(false)
    for (const one of [first, ...more]) one.destroy()
  })
  test('suites without authenticated encryption are refused, and so is a change from a page without TLS', async () => {
    const reach = (ciphers: string) =>
      new Promise<string>((resolve) => {
        const socket = connect(
          { port, host: '127.0.0.1', rejectUnauthorized: false, maxVersion: 'TLSv1.2', ciphers },
          () => {
            resolve(socket.getCipher().name)
            socket.end()
          },
        )
        socket.on('error', ({ message }) => resolve(message))
      })
    expect(await reach('ECDHE-ECDSA-AES128-SHA256')).toMatch(/handshake failure/)
    expect(await reach('ECDHE-ECDSA-AES128-GCM-SHA256')).toBe('ECDHE-ECDSA-AES128-GCM-SHA256')
    const from = (origin: string) => answer('/sign-in', { body: 'passphrase=x', headers: { origin } })
    expect((await from('http://workroom.local')).status).toBe(403)
    expect((await from('https://workroom.local')).status).toBe(401)
  })
  test('nothing of the book is kept by a cache on the way', async () => {
    const { cookie } = await signIn(PASSPHRASE)
    const { control } = await answer('/tunes', { cookie: firstOf(cookie!.split(';')) })
    expect(control).toBe('private, no-store')
  })
})
