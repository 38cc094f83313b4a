import { createRequestHandler } from '@react-router/express'
import express from 'express'
import { existsSync } from 'node:fs'
import { resolve } from 'node:path'
import { pathToFileURL } from 'node:url'
import {
  bodyLimit,
  knownMethods,
  loopbackOnly,
  plainFaults,
  readableAddress,
  sameSiteWrites,
  securityHeaders,
} from './guard'

/** Serves the built application on loopback. PORT is 5180 unless given; HERON_DB names the database file. */
const LOOPBACK_ADDRESS = '127.0.0.1'
const DEFAULT_PORT = 5180
/** How long an answer under way may take when the server is told to end. */
const GRACE_MS = 1_000

async function main(): Promise<void> {
  const build = resolve('build/server/index.js')
  if (!existsSync(build))
    throw new Error('The application is not built: run ./start, which builds and serves it.')
  const port = Number(process.env.PORT ?? DEFAULT_PORT)
  if (!Number.isInteger(port) || port < 0 || port > 65535)
    throw new Error(`PORT is "${process.env.PORT}"; a number from 0 to 65535 is accepted.`)

  const { module: book } = (
    (await import(pathToFileURL(build).href)) as {
      entry: { module: { openBook: () => void; closeBook: () => void } }
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

  const app = express()
  app.disable('x-powered-by')
  // Nothing is compressed: it would cost both ends time and save none on loopback.
  app.use(loopbackOnly, securityHeaders, knownMethods, readableAddress, sameSiteWrites, bodyLimit)
  app.use('/assets', express.static('build/client/assets', { immutable: true, maxAge: '1y' }))
  app.use(express.static('build/client', { maxAge: '1h' }))
  app.use(
    createRequestHandler({
      build: () => import(pathToFileURL(build).href),
      getLoadContext: (_request, response) => ({ nonce: response.locals.nonce as string }),
    }),
  )

  app.use(plainFaults)

  const server = app.listen(port, LOOPBACK_ADDRESS, (error?: Error) => {
    if (error) {
      const taken = (error as NodeJS.ErrnoException).code === 'EADDRINUSE'
      process.stderr.write(
        taken ? `Port ${port} is in use: choose another with PORT=5181 ./start\n` : `${error.message}\n`,
      )
      process.exit(1)
    }
    const { port: listening } = server.address() as { port: number }
    process.stdout.write(`Yellow Heron is at http://${LOOPBACK_ADDRESS}:${listening}\n`)
  })
  /** What is being answered is answered; then everything goes into the one file, so that a copy of it has all. */
  end = () => {
    server.close(() => {
      book.closeBook()
      process.exit(0)
    })
    server.closeIdleConnections()
    setTimeout(() => server.closeAllConnections(), GRACE_MS).unref()
  }
}

main().catch((error: Error) => {
  process.stderr.write(`${error.message}\n`)
  process.exit(1)
})
