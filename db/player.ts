import { eq, sql } from 'drizzle-orm'
import type { z } from 'zod'
import { rulesIn } from '../core/reharm/families'
import type { Liking } from '../core/reharm/taste'
import {
  changedBy,
  DEFAULT_PLAYER,
  playerSettings,
  type PlayerChange,
  type PlayerSettings,
} from '../core/player/playerSettings'
import { refusalInWords } from '../core/refusal'
import type { Db } from './connect'
import { likings, settings } from './schema'

/**
 * What the player set once for all tunes. A setting that is missing or no longer understood is the
 * usual one.
 */
export function readPlayer(db: Db): PlayerSettings {
  const rows = new Map(
    db
      .select()
      .from(settings)
      .all()
      .map(({ name, value }) => [name, value]),
  )
  const read = Object.entries(playerSettings.shape).map(([name, schema]) => {
    const value = (schema as z.ZodType).safeParse(rows.get(name))
    return [name, value.success ? value.data : DEFAULT_PLAYER[name as keyof PlayerSettings]]
  })
  return Object.fromEntries(read) as PlayerSettings
}

/**
 * Puts a change on top of what is kept now, whoever kept it; nothing is written where the whole
 * would not be understood.
 */
export function changePlayer(db: Db, change: PlayerChange): { kept: PlayerSettings } | { refused: string } {
  return db.transaction(
    (tx) => {
      const before = readPlayer(tx as unknown as Db)
      const next = playerSettings.safeParse(changedBy(before, change))
      if (!next.success) return { refused: refusalInWords(next.error, changedBy(before, change)) }
      for (const [name, value] of Object.entries(next.data))
        if (JSON.stringify(value) !== JSON.stringify(before[name as keyof PlayerSettings]))
          tx.insert(settings)
            .values({ name, value })
            .onConflictDoUpdate({ target: settings.name, set: { value } })
            .run()
      return { kept: next.data }
    },
    { behavior: 'immediate' },
  )
}

export const readLiking = (db: Db): Liking =>
  Object.fromEntries(
    db
      .select()
      .from(likings)
      .all()
      .map(({ rule, times }) => [rule, times]),
  )

/** Counts a change kept by hand for its rule, or for each of those put on top of one another. */
export function countLiking(db: Db, rule: string, now = Date.now()): void {
  for (const one of rulesIn(rule))
    db.insert(likings)
      .values({ rule: one, times: 1, lastAt: now })
      .onConflictDoUpdate({ target: likings.rule, set: { times: sql`${likings.times} + 1`, lastAt: now } })
      .run()
}

/** Forgets what was counted: for one rule, or for all. */
export const forgetLiking = (db: Db, rule?: string): void =>
  void (rule ? db.delete(likings).where(eq(likings.rule, rule)) : db.delete(likings)).run()
