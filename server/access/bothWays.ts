import { createServer as createPlain } from 'node:http'
import type { Server as Secure } from 'node:https'
import { createServer, type Server, type Socket } from 'node:net'

/** The first byte of a TLS connection (RFC 8446, a handshake record). */
const HANDSHAKE = 22
const SILENT_MS = 10_000

/** One port for both: TLS goes to the application, and who asks without it is sent to the same address with it. */
export function securePort(secure: Secure, isOurs: (host: string | undefined) => boolean): Server {
  const plain = createPlain((request, response) => {
    const { host } = request.headers
    if (!isOurs(host))
      return void response
        .writeHead(421, { 'Content-Type': 'text/plain' })
        .end('This is another address than asked for.\n')
    response.writeHead(308, {
      Location: `https://${host}${request.url ?? '/'}`,
      'Content-Type': 'text/plain',
    })
    response.end('Here everything is secured: ask with https://.\n')
  })
  return createServer((socket: Socket) => {
    socket.setTimeout(SILENT_MS, () => socket.destroy())
    socket.on('error', () => socket.destroy())
    socket.once('data', (first: Buffer) => {
      socket.setTimeout(0)
      socket.pause()
      socket.unshift(first)
      ;(first[0] === HANDSHAKE ? secure : plain).emit('connection', socket)
      process.nextTick(() => socket.resume())
    })
  })
}
