import { createHash, randomBytes, scrypt, timingSafeEqual } from 'node:crypto'
import { existsSync, mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { dirname, join, resolve } from 'node:path'
import { z } from 'zod'

/**
 * Who may come in from the home network. Kept beside the book and not in it, so that no backup
 * carries it; this user alone may read it.
 */
const access = z.strictObject({
  /** By scrypt, RFC 7914. */
  passphrase: z.strictObject({ salt: z.string(), hash: z.string() }),
  /**
   * Devices that have signed in, by the SHA-256 of what they hold, and when that ends, in ms since
   * 1970.
   */
  sessions: z.record(z.string(), z.number()),
})
type Access = z.infer<typeof access>

export const SHORTEST_PASSPHRASE = 8
export const LONGEST_PASSPHRASE = 200
/** A device that signed in stays so for this long. */
export const SIGNED_IN_MS = 30 * 86_400_000
const MOST_SESSIONS = 50

/** N 2^15, r 8: about a tenth of a second and 32 MB a try, so that guessing is slow. */
const COST = { N: 2 ** 15, r: 8, p: 1, maxmem: 64 * 1024 * 1024 }
const HASH_BYTES = 32

const hashOf = (passphrase: string, salt: string): Promise<Buffer> =>
  new Promise((resolveHash, reject) =>
    scrypt(passphrase.normalize('NFKC'), Buffer.from(salt, 'base64'), HASH_BYTES, COST, (error, hash) =>
      error ? reject(error) : resolveHash(hash),
    ),
  )
const digest = (token: string): string => createHash('sha256').update(token).digest('base64url')

export class AccessStore {
  constructor(private readonly file: string) {}

  /** The one that belongs to a book. */
  static beside(book: string): AccessStore {
    return new AccessStore(join(dirname(resolve(book)), 'access.json'))
  }

  private read(): Access | null {
    if (!existsSync(this.file)) return null
    return access.parse(JSON.parse(readFileSync(this.file, 'utf8')))
  }

  private write(all: Access): void {
    mkdirSync(dirname(this.file), { recursive: true })
    const unfinished = `${this.file}.unfinished`
    writeFileSync(unfinished, JSON.stringify(all), { mode: 0o600 })
    renameSync(unfinished, this.file)
  }

  hasPassphrase(): boolean {
    return this.read() !== null
  }

  /** A new passphrase; every device signs in anew. */
  async setPassphrase(passphrase: string): Promise<void> {
    const salt = randomBytes(16).toString('base64')
    const hash = (await hashOf(passphrase, salt)).toString('base64')
    this.write({ passphrase: { salt, hash }, sessions: {} })
  }

  async isPassphrase(passphrase: string): Promise<boolean> {
    const known = this.read()?.passphrase
    if (!known || passphrase.length > LONGEST_PASSPHRASE) return false
    return timingSafeEqual(await hashOf(passphrase, known.salt), Buffer.from(known.hash, 'base64'))
  }

  /** @returns what the device holds from now on */
  begin(now = Date.now()): string {
    const all = this.read()!
    const token = randomBytes(32).toString('base64url')
    const open = Object.entries(all.sessions)
      .filter(([, ends]) => ends > now)
      .sort((a, b) => b[1] - a[1])
      .slice(0, MOST_SESSIONS - 1)
    this.write({ ...all, sessions: Object.fromEntries([[digest(token), now + SIGNED_IN_MS], ...open]) })
    return token
  }

  isOpen(token: string, now = Date.now()): boolean {
    const ends = this.read()?.sessions[digest(token)]
    return ends !== undefined && ends > now
  }

  end(token: string): void {
    const all = this.read()
    if (!all) return
    const { [digest(token)]: _, ...sessions } = all.sessions
    this.write({ ...all, sessions })
  }

  endAll(): void {
    const all = this.read()
    if (all) this.write({ ...all, sessions: {} })
  }
}
