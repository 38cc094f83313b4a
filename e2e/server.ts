import { spawn, type ChildProcess } from 'node:child_process'
import { copyFileSync, mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'

/**
 * Names a book with the demo in it, of which each server has a copy: putting the demo together
 * takes longer than the start.
 */
export const SEEDED = 'HERON_SEEDED_BOOK'

/**
 * A test's server lives for seconds: V8 compiles for speed only what has run so many bytes of its
 * code (67584 by itself). Measured: a fifth less work.
 */
const SHORT_LIVED = '--interrupt-budget=400000'

/** The built application on a database of its own, which can be killed and started again. */
export class Server {
  private child: ChildProcess | null = null
  private readonly folder = mkdtempSync(join(tmpdir(), 'heron-e2e-'))
  readonly book = join(this.folder, 'heron.sqlite')
  url = ''
  /** Where it serves the home network, asked for from this machine; empty where it does not. */
  secure = ''

  /** @param env what else the server is told, such as HOST */
  constructor(private readonly env: Readonly<Record<string, string>> = {}) {
    const seeded = process.env[SEEDED]
    if (seeded) copyFileSync(seeded, this.book)
  }

  async start(port = 0): Promise<void> {
    const child = spawn('node', [SHORT_LIVED, 'build/serve.mjs'], {
      env: {
        ...process.env,
        NODE_ENV: 'production',
        PORT: String(port),
        HERON_DB: this.book,
        ...this.env,
      },
      stdio: ['ignore', 'pipe', 'inherit'],
    })
    this.child = child
    this.url = await new Promise<string>((resolve, reject) => {
      child.stdout!.on('data', (chunk: Buffer) => {
        const said = chunk.toString()
        const network = /https:\/\/\S+:(\d+)/.exec(said)
        if (network) this.secure = `https://127.0.0.1:${network[1]!}`
        const address = /http:\/\/\S+/.exec(said)
        if (address) resolve(address[0])
      })
      child.once('exit', (code) => reject(new Error(`the server ended with ${code}`)))
    })
  }

  /** As when the machine loses power: no chance to finish anything. */
  async kill(): Promise<void> {
    const child = this.child
    if (!child || child.exitCode !== null || child.signalCode !== null) return
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGKILL')
    await gone
  }

  /** Starts again on the same address and database. */
  async restart(): Promise<void> {
    await this.start(Number(new URL(this.url).port))
  }

  /** Told to end: all that it has is in its one file then. */
  async stop(): Promise<void> {
    const { child } = this
    if (!child) return
    const gone = new Promise((resolve) => child.once('exit', resolve))
    child.kill('SIGTERM')
    await gone
  }

  async end(): Promise<void> {
    await this.kill()
    rmSync(this.folder, { recursive: true, force: true })
  }
}
