import { SEEDED, Server } from './server'

/**
 * Before all browser tests: one book with the demo in it, of which each test's server has a copy.
 */
export default async function seeded(): Promise<() => Promise<void>> {
  const server = new Server()
  await server.start()
  await server.stop()
  process.env[SEEDED] = server.book
  return () => server.end()
}
