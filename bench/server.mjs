import { CHROMIUM } from '../scripts/chromium.mjs'
import { spawn } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { createRequire } from 'node:module'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { chromium } from 'playwright-core'

/**
 * The built application on a database of its own, with a browser beside it; `fill` may put more
 * into the database before it is served.
 */
export async function benchApplication(fill = () => {}) {
  const folder = mkdtempSync(join(tmpdir(), 'heron-bench-'))
  const file = join(folder, 'bench.sqlite')
  const begin = async () => {
    const server = spawn('node', ['build/serve.mjs'], {
      env: { ...process.env, NODE_ENV: 'production', PORT: '0', HERON_DB: file },
    })
    const base = await new Promise((resolve) =>
      server.stdout.on('data', (text) => resolve(/http:\S+/.exec(text)[0])),
    )
    return { server, base }
  }
  const first = await begin()
  const ended = new Promise((resolve) => first.server.once('exit', resolve))
  first.server.kill('SIGTERM')
  await ended
  const Database = createRequire(import.meta.url)('better-sqlite3')
  const db = new Database(file)
  fill(db)
  db.close()
  const { server, base } = await begin()
  const browser = await chromium.launch({
    executablePath: CHROMIUM,
    args: ['--no-sandbox', '--disable-gpu', '--no-first-run', '--autoplay-policy=no-user-gesture-required'],
  })
  const end = async () => {
    await browser.close()
    server.kill('SIGKILL')
    rmSync(folder, { recursive: true, force: true })
  }
  return { base, browser, end }
}

/** One line of a benchmark: what was measured, as a ratio to what was measured beside it. */
export const row = (what, ratio, detail) =>
  console.log(`${what.padEnd(58)} ${ratio.toFixed(2).padStart(9)} times      ${detail}`)

/** The middle one of several numbers. */
export const middleOf = (numbers) => [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)]
