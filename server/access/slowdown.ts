/** After so many wrong tries each further one has to wait, twice as long each time. */
const FREE_TRIES = 3
const FIRST_WAIT_MS = 1_000
const LONGEST_WAIT_MS = 5 * 60_000
/**
 * Of all addresses together more are free, and the wait stays shorter: it meets a device of the
 * house too that signs in just then.
 */
const FREE_OF_ALL = 12
const LONGEST_OF_ALL_MS = 60_000
/** Forgotten after an hour without a try. */
const FORGOTTEN_MS = 3_600_000
const MOST_REMEMBERED = 1_000

interface Tries {
  wrong: number
  last: number
}

const waitAfter = ({ wrong, last }: Tries, free: number, longest: number, now: number): number =>
  wrong < free || now - last > FORGOTTEN_MS
    ? 0
    : Math.max(0, last + Math.min(longest, FIRST_WAIT_MS * 2 ** (wrong - free)) - now)

/**
 * How long a try has to wait after wrong ones: of its own address, and of all addresses together,
 * so that who has many gains nothing. A bounded number of addresses is remembered. Devices that
 * have signed in do not try.
 */
export class Slowdown {
  private readonly tries = new Map<string, Tries>()
  private all: Tries = { wrong: 0, last: 0 }

  /** Milliseconds until the address may try again; 0 where it may now. */
  waitOf(address: string, now = Date.now()): number {
    const known = this.tries.get(address)
    return Math.max(
      known ? waitAfter(known, FREE_TRIES, LONGEST_WAIT_MS, now) : 0,
      waitAfter(this.all, FREE_OF_ALL, LONGEST_OF_ALL_MS, now),
    )
  }

  wrong(address: string, now = Date.now()): void {
    for (const [one, { last }] of this.tries)
      if (now - last > FORGOTTEN_MS || this.tries.size > MOST_REMEMBERED) this.tries.delete(one)
    const wrong = (this.tries.get(address)?.wrong ?? 0) + 1
    this.tries.delete(address)
    this.tries.set(address, { wrong, last: now })
    this.all = { wrong: now - this.all.last > FORGOTTEN_MS ? 1 : this.all.wrong + 1, last: now }
  }

  /** The passphrase was right: it counts no longer, for its address and among all. */
  right(address: string): void {
    this.tries.delete(address)
    this.all = { ...this.all, wrong: Math.max(0, this.all.wrong - 1) }
  }
}
