import { useSyncExternalStore } from 'react'
import type { Progress } from '../../../workers/answering'

/**
 * How far one search is. It is told to what draws it and to nothing else: a page is not drawn anew
 * sixteen times a second while something is looked for.
 */
export class SearchProgressStore {
  private now = 0
  private readonly listeners = new Set<() => void>()

  tell({ done, of }: Progress): void {
    const share = of > 0 ? Math.min(1, Math.max(0, done / of)) : 0
    if (share === this.now) return
    this.now = share
    for (const listener of this.listeners) listener()
  }

  /** 0 to 1 */
  readonly share = (): number => this.now

  readonly listen = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => this.listeners.delete(listener)
  }
}

/** 0 to 1; what asks is drawn anew as it grows. */
export const useShare = (howFar: SearchProgressStore): number =>
  useSyncExternalStore(howFar.listen, howFar.share, howFar.share)
