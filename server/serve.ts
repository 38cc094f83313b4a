import { createRequestHandler } from '@react-router/express'
import express from 'express'
import { compressedOverNetwork } from './compressed'
import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import { bookFile } from '../db/connect'
import { faultTold, logAnswers, openLog, pageFaults } from './log'
import { securePort } from './access/bothWays'
import { gate } from './access/gate'
import { certificateBeside, isOurs, networkHere } from './access/network'
import { AccessStore } from './access/accessStore'
import {
  bodyInTime,
  bodyLimit,
  knownMethods,
  ownHostsOnly,
  plainFaults,
  readableAddress,
  sameSiteWrites,
  securityHeaders,
} from './guard'

/**
 * Serves the built application on loopback. PORT is 5180 unless given; HERON_DB names the database
 * file. HOST=0.0.0.0, or an address of this machine, serves the home network too: over TLS on
 * LAN_PORT, the port behind PORT unless given, to devices that have signed in.
 */
const LOOPBACK_ADDRESS = '127.0.0.1'
const DEFAULT_PORT = 5180
const MOST_PORT = 65535
const LOOPBACK_HOSTS = ['127.0.0.1', 'localhost', '::1']
const EVERYWHERE = '0.0.0.0'
/** How long an answer under way may take when the server is told to end. */
const GRACE_MS = 1_000

async function main(): Promise<void> {
  const build = resolve('build/server/index.js')
  if (!existsSync(build))
    throw new Error('The application is not built: run ./start, which builds and serves it.')
  const port = portIn('PORT', DEFAULT_PORT)
  const lan = await homeNetwork(port)

  const { module: book } = (
    (await import(pathToFileURL(build).href)) as {
      entry: {
        module: {
          openBook: () => void
          closeBook: () => void
          servedAt: (address: string) => void
          tellFaults: (to: (error: unknown) => void) => void
        }
      }
    }
  ).entry
  // Told to end while it is still starting: what was begun in the file is finished there.
  let end: () => void = () => {
    book.closeBook()
    process.exit(0)
  }
  for (const signal of ['SIGINT', 'SIGTERM'] as const) process.on(signal, () => end())
  try {
    book.openBook()
  } catch (error) {
    process.stderr.write(
      `${error instanceof Error ? error.message : String(error)}\nUntil that is mended, the pages say the same and nothing can be kept.\n`,
    )
  }

  const log = await openLog(bookFile())
  const onFault = (error: unknown) => {
    log.error({ fault: faultTold(error) }, 'fault')
    process.stderr.write(`${error instanceof Error ? (error.stack ?? error.message) : String(error)}\n`)
  }
  book.tellFaults(onFault)

  const app = express()
  app.disable('x-powered-by')
  app.use(
    ownHostsOnly(lan?.isOurs ?? (() => false)),
    securityHeaders,
    knownMethods,
    readableAddress,
    sameSiteWrites,
    bodyInTime(),
    bodyLimit,
  )
  app.use(logAnswers(log))
  app.use(compressedOverNetwork())
  if (lan) app.use(gate(lan.store, lan.authority))
  app.post('/faults', express.json({ limit: '16kb' }), pageFaults(log))
  app.use('/assets', express.static('build/client/assets', { immutable: true, maxAge: '1y' }))
  // It names the files of this build: a later one must be seen at once.
  app.get('/service-worker.js', (_request, response) =>
    response.set('Cache-Control', 'no-cache').sendFile(resolve('build/client/service-worker.js')),
  )
  app.use(express.static('build/client', { maxAge: '1h' }))
  app.use('/guide-pictures', express.static('docs/screenshots', { maxAge: '1h' }))
  app.use(
    createRequestHandler({
      build: () => import(pathToFileURL(build).href),
      getLoadContext: (request, response) => ({
        nonce: response.locals.nonce as string,
        onNetwork: lan && { address: lan.address, qr: lan.qr, signedIn: 'encrypted' in request.socket },
      }),
    }),
  )

  app.use(plainFaults(onFault))

  const server = app.listen(port, LOOPBACK_ADDRESS, (error?: Error) => {
    if (error) {
      const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE'
      process.stderr.write(
        taken ? `Port ${port} is in use: choose another with PORT=5181 ./start\n` : `${error.message}\n`,
      )
      process.exit(1)
    }
    const { port: listening } = server.address() as { port: number }
    const address = `http://${LOOPBACK_ADDRESS}:${listening}`
    book.servedAt(address)
    process.stdout.write(`Yellow Heron is at ${address}\n`)
  })
  const endNetwork = lan && (await serveNetwork(app, lan))
  /**
   * What is being answered is answered; then everything goes into the one file, so that a copy of
   * it has all.
   */
  end = () => {
    server.close(() => {
      book.closeBook()
      process.exit(0)
    })
    server.closeIdleConnections()
    endNetwork?.()
    setTimeout(() => server.closeAllConnections(), GRACE_MS).unref()
  }
}

function portIn(name: string, otherwise: number): number {
  const given = process.env[name] ?? String(otherwise)
  const port = Number(given)
  if (!Number.isInteger(port) || port < 0 || port > MOST_PORT)
    throw new Error(`${name} is "${given}"; a number from 0 to ${MOST_PORT} is accepted.`)
  return port
}

interface HomeNetwork {
  store: AccessStore
  host: string
  port: number
  key: string
  cert: string
  authority: string
  address: string
  /** The address as a picture that a camera reads, SVG. */
  qr: string
  isOurs: (host: string | undefined) => boolean
}

/**
 * What serving the home network needs; null where only this machine is served.
 * @throws with what to do where there is no passphrase, or HOST is no address of this machine
 */
async function homeNetwork(port: number): Promise<HomeNetwork | null> {
  const host = process.env.HOST ?? LOOPBACK_ADDRESS
  if (LOOPBACK_HOSTS.includes(host)) return null
  const network = networkHere()
  if (host !== EVERYWHERE && !network.addresses.includes(host))
    throw new Error(
      `HOST is "${host}"; ${[LOOPBACK_ADDRESS, EVERYWHERE, ...network.addresses].join(', ')} are accepted.`,
    )
  const book = bookFile()
  const store = AccessStore.beside(book)
  if (!store.hasPassphrase())
    throw new Error(
      'The home network is served only with a passphrase, and none is set: run ./heron passphrase on this machine, then start again. Without HOST and --lan only this machine is served.',
    )
  const lanPort = portIn('LAN_PORT', port === 0 ? 0 : port + 1)
  const { key, cert, authority } = await certificateBeside(book, network)
  const name = host === EVERYWHERE ? (network.addresses[0] ?? LOOPBACK_ADDRESS) : host
  return {
    store,
    host,
    port: lanPort,
    key,
    cert,
    authority,
    address: `https://${name}`,
    qr: '',
    isOurs: (one) => isOurs(one, network),
  }
}

/** Serves the network, and says where. @returns what ends it */
async function serveNetwork(app: express.Express, lan: HomeNetwork): Promise<() => void> {
  const server = securePort(lan, lan.isOurs, app)
  await new Promise<void>((ready, reject) => {
    server.port.once('error', (error: NodeJS.ErrnoException) =>
      reject(
        error.code === 'EADDRINUSE'
          ? new Error(`Port ${lan.port} is in use: choose another for the network with LAN_PORT=5190.`)
          : error,
      ),
    )
    server.port.listen(lan.port, lan.host, ready)
  })
  const { default: QRCode } = await import('qrcode')
  const { port } = server.port.address() as { port: number }
  lan.address = `${lan.address}:${port}`
  lan.qr = await QRCode.toString(lan.address, { type: 'svg', margin: 2 })
  process.stdout.write(
    `On this network it is at ${lan.address}\nThe first time a browser warns of the certificate, which this machine made itself: go on, then sign in with the passphrase.\n${await QRCode.toString(lan.address, { type: 'terminal', small: true })}\n`,
  )
  return () => {
    server.end()
  }
}

main().catch((error: Error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
