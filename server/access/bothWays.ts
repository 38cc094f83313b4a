import { entryOf } from '../../core/lists'
import { createServer as createPlain, type RequestListener } from 'node:http'
import { createServer as createSecure } from 'node:https'
import { createServer, type Server, type Socket } from 'node:net'

/** The first byte of a TLS connection (RFC 8446, a handshake record). */
const HANDSHAKE = 22
/**
 * A connection that says nothing, and a handshake or headers that do not end, have so long, in ms.
 * Bodies have their own time (`bodyInTime`).
 */
const SILENT_MS = 30_000
const CHECKED_EVERY_MS = 2_000
/** Connections of one address, and of all: a browser opens six or so for a page. */
const MOST_OF_AN_ADDRESS = 48
const MOST_CONNECTIONS = 512
/**
 * Authenticated encryption alone: of TLS 1.2 the suites with GCM and ChaCha (RFC 5288, RFC 7905),
 * none with CBC (RFC 7457 lists why).
 */
const CIPHERS = [
  'TLS_AES_128_GCM_SHA256',
  'TLS_AES_256_GCM_SHA384',
  'TLS_CHACHA20_POLY1305_SHA256',
  'ECDHE-ECDSA-AES128-GCM-SHA256',
  'ECDHE-ECDSA-AES256-GCM-SHA384',
  'ECDHE-ECDSA-CHACHA20-POLY1305',
].join(':')

/** A port and what ends it. */
export interface SecurePort {
  port: Server
  end: () => void
}

/**
 * One port for both: TLS goes to the application, and who asks without it is sent to the same
 * address with it. @param silentMs how long nothing may come
 */
export function securePort(
  { key, cert }: { key: string; cert: string },
  isOurs: (host: string | undefined) => boolean,
  app: RequestListener,
  silentMs = SILENT_MS,
): SecurePort {
  const limits = {
    headersTimeout: silentMs,
    // Bodies are timed by what came of them.
    requestTimeout: 0,
    connectionsCheckingInterval: Math.min(CHECKED_EVERY_MS, silentMs),
  }
  const secure = createSecure(
    { key, cert, minVersion: 'TLSv1.2', ciphers: CIPHERS, handshakeTimeout: silentMs, ...limits },
    app,
  )
  const plain = createPlain(limits, (request, response) => {
    const { host } = request.headers
    if (!isOurs(host))
      return void response
        .writeHead(421, { 'Content-Type': 'text/plain' })
        .end('This is another address than asked for.\n')
    response.writeHead(308, {
      Location: `https://${host}${request.url ?? '/'}`,
      'Content-Type': 'text/plain',
      Connection: 'close',
    })
    response.end('Here everything is secured: ask with https://.\n')
  })
  // They get their connections from the port and never listen themselves; what times their requests
  // begins with this event.
  for (const server of [secure, plain]) server.emit('listening')
  const open = new Map<string, number>()
  const port = createServer((socket: Socket) => {
    const address = socket.remoteAddress ?? ''
    const ofAddress = (open.get(address) ?? 0) + 1
    if (ofAddress > MOST_OF_AN_ADDRESS) {
      socket.destroy()
      return
    }
    open.set(address, ofAddress)
    socket.once('close', () => {
      const left = entryOf(open, address) - 1
      if (left > 0) open.set(address, left)
      else open.delete(address)
    })
    socket.setTimeout(silentMs, () => socket.destroy())
    socket.on('error', () => socket.destroy())
    socket.once('data', (first: Buffer) => {
      socket.setTimeout(0)
      socket.pause()
      socket.unshift(first)
      ;(first[0] === HANDSHAKE ? secure : plain).emit('connection', socket)
      process.nextTick(() => socket.resume())
    })
  })
  port.maxConnections = MOST_CONNECTIONS
  return {
    port,
    end: () => {
      port.close()
      for (const server of [secure, plain]) {
        server.close()
        server.closeAllConnections()
      }
    },
  }
}
