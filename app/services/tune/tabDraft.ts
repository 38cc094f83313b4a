import {
  draftsOf,
  dropAtOnce,
  dropDraft,
  keepAtOnce,
  keepDraft,
  takeOver,
  takeOverAtOnce,
  type Draft,
} from './drafts'

/** A tab that is open holds a lock of its name, so that no other takes up its draft. */
const TABS = 'heron-tab:'

/**
 * What one tab has in the browser's store of the work on a tune that is not on the server's disk,
 * and the lock that says that the tab is open.
 */
export class TabDraft {
  private readonly tab = crypto.randomUUID()
  private readonly key: string
  /** Ends this tab's lock. */
  private release: (() => void) | null = null
  private turn: Promise<void> = Promise.resolve()
  private due = false

  constructor(private readonly tune: string) {
    this.key = `${tune}:${this.tab}`
  }

  /** From here on other tabs know this one as open. */
  async hold(): Promise<void> {
    await new Promise<void>((held) => {
      void navigator.locks.request(TABS + this.tab, () => {
        held()
        return new Promise<void>((release) => {
          this.release = release
        })
      })
    })
  }

  letGo(): void {
    this.release?.()
    this.release = null
  }

  /**
   * Writes the latest of what waits, at once and then durably, in turn; nothing is kept where
   * nothing waits.
   * @param onKept whether the browser took it
   */
  keep(waiting: () => Pick<Draft, 'base' | 'writes'>, onKept: (kept: boolean) => void): Promise<void> {
    const now = waiting()
    if (now.writes.length === 0) dropAtOnce(this.key)
    else keepAtOnce(this.key, now)
    if (this.due) return this.turn
    this.due = true
    this.turn = this.turn.then(async () => {
      this.due = false
      const { base, writes } = waiting()
      try {
        if (writes.length === 0) await dropDraft(this.key)
        else await keepDraft({ key: this.key, tune: this.tune, tab: this.tab, base, writes })
        if (!this.due) dropAtOnce(this.key)
        onKept(true)
      } catch {
        onKept(false)
      }
    })
    return this.turn
  }

  /** The draft of a tab of this tune that is open no more. */
  async orphan(): Promise<Draft | null> {
    await takeOver(this.tune)
    const open = new Set((await navigator.locks.query()).held?.map((lock) => lock.name))
    await takeOverAtOnce(this.tune, (tab) => tab === this.tab || open.has(TABS + tab))
    return (
      (await draftsOf(this.tune)).find(({ key, tab }) => key !== this.key && !open.has(TABS + tab)) ?? null
    )
  }
}
