/** After so many wrong tries each further one has to wait, twice as long each time. */
const FREE_TRIES = 3
const FIRST_WAIT_MS = 1_000
const LONGEST_WAIT_MS = 5 * 60_000
/** Forgotten after an hour without a try. */
const FORGOTTEN_MS = 3_600_000
const MOST_REMEMBERED = 1_000

interface Tries {
  wrong: number
  last: number
}

/** How long an address has to wait after wrong tries; a bounded number of addresses is remembered. */
export class Slowdown {
  private readonly tries = new Map<string, Tries>()

  /** Milliseconds until the address may try again; 0 where it may now. */
  waitOf(address: string, now = Date.now()): number {
    const known = this.tries.get(address)
    if (!known || known.wrong < FREE_TRIES) return 0
    const wait = Math.min(LONGEST_WAIT_MS, FIRST_WAIT_MS * 2 ** (known.wrong - FREE_TRIES))
    return Math.max(0, known.last + wait - now)
  }

  wrong(address: string, now = Date.now()): void {
    for (const [one, { last }] of this.tries)
      if (now - last > FORGOTTEN_MS || this.tries.size > MOST_REMEMBERED) this.tries.delete(one)
    const wrong = (this.tries.get(address)?.wrong ?? 0) + 1
    this.tries.delete(address)
    this.tries.set(address, { wrong, last: now })
  }

  right(address: string): void {
    this.tries.delete(address)
  }
}
