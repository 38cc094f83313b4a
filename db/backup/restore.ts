import { count, eq } from 'drizzle-orm'
import { createHash } from 'node:crypto'
import { isDeepStrictEqual } from 'node:util'
import { DEFAULT_PLAYER, playerSettings } from '../../core/player/playerSettings'
import { itemKey } from '../../core/practice/grade'
import { MOST_TITLE, type TuneDocument } from '../../core/tune/document'
import { DOCUMENT_VERSION, openDocument } from '../../core/tune/stored'
import type { Db, Tx } from '../connect'
import { demoHere, eraseDemo, isUntouched } from '../demoHere'
import { refresh, type ItemOf } from '../practice'
import { keepWritten, type Basis } from '../history'
import { writeHead } from '../head'
import { goals, grips, layouts, likings, passes, sets, setTunes, settings, tunes } from '../schema'
import { readTuneAnyhow } from '../tunes'
import {
  GRIPS,
  gripsKept,
  PASSES,
  passKept,
  PLAYER,
  playerSchema,
  revisionKept,
  SETS,
  setsKept,
  tuneFile,
  tuneHistory,
  tuneKept,
  type PassKept,
  type RevisionKept,
  type SetKept,
  type TuneKept,
} from '../../core/backup/format'
import { openBackup, type Backup } from './read'

export interface RestoreAsked {
  /**
   * A tune or set that is in both and not the same: brought in beside the other under a name of its
   * own, or left out.
   */
  different: 'beside' | 'leave'
  /** Settings of the player, where this book has its own: kept, or taken from the backup. */
  player: 'keep' | 'take'
  onDone?: (done: number, of: number) => void
  signal?: AbortSignal
}

/** What came of a restore. */
export interface Restored {
  made: string
  /** Tunes that were not in the book. */
  brought: number
  /** Tunes that were in it, and the same. */
  same: number
  /**
   * Titles of those that are the same, but deleted in this book: they wait in its list of deleted
   * tunes.
   */
  deleted: string[]
  /** Titles of those brought in beside a tune that has become another since. */
  beside: string[]
  /** Titles of those that differ and were left out. */
  left: string[]
  grips: number
  sets: number
  passes: number
  player: boolean
  /** What of a tune could not be read, in words. */
  unread: string[]
}

/**
 * Brings a backup into a book. Nothing that is in the book is changed or taken away, but for the
 * player's settings where that is asked; brought in again, it is known and changes nothing.
 * @throws {BackupFault} where the file is not whole, before anything is changed
 */
export async function restoreBackup(db: Db, file: string, asked: RestoreAsked): Promise<Restored> {
  const { onDone, signal } = asked
  await readableBackup(file, (done, of) => {
    signal?.throwIfAborted()
    onDone?.(done, 2 * of)
  })
  return bringIn(db, file, asked)
}

/**
 * Looks a backup through to its last byte: half of the way.
 * @throws {BackupFault} where it is not whole, or something in it cannot be read
 */
export async function readableBackup(
  file: string,
  onDone?: (done: number, of: number) => void,
): Promise<void> {
  const backup = await openBackup(file, { onDone })
  try {
    await everythingReads(backup)
  } finally {
    backup.close()
  }
}

/**
 * The other half: brings a backup that was looked through into a book. Others have their turn
 * between two tunes.
 */
export async function bringIn(db: Db, file: string, asked: RestoreAsked): Promise<Restored> {
  const backup = await openBackup(file, { isKnown: true })
  try {
    return await brought(db, backup, asked)
  } finally {
    backup.close()
  }
}

/**
 * Every file is read once before the first is brought in: what cannot be read is found out while
 * nothing is changed.
 */
async function everythingReads(backup: Backup): Promise<void> {
  for (const id of backup.manifest.tunes) {
    await backup.json(tuneFile(id), tuneKept)
    if (backup.has(tuneHistory(id)))
      for await (const _ of backup.lines(tuneHistory(id), revisionKept)) continue
  }
  if (backup.has(GRIPS)) await backup.json(GRIPS, gripsKept)
  if (backup.has(PLAYER)) await backup.json(PLAYER, playerSchema)
  if (backup.has(SETS)) await backup.json(SETS, setsKept)
  if (backup.has(PASSES)) for await (const _ of backup.lines(PASSES, passKept)) continue
}

async function brought(db: Db, backup: Backup, asked: RestoreAsked): Promise<Restored> {
  const { manifest } = backup
  const said: Restored = {
    made: manifest.made,
    brought: 0,
    same: 0,
    deleted: [],
    beside: [],
    left: [],
    grips: 0,
    sets: 0,
    passes: 0,
    player: false,
    unread: [],
  }
  // Of a book that nobody has used the backup takes the place, with its player.
  const isFresh = backup.has(PLAYER) && isUntouched(db)
  if (isFresh) eraseDemo(db)
  const demo = isFresh ? [] : (demoHere(db)?.untouched ?? [])
  const known = new Set<string>()
  for (const [at, id] of manifest.tunes.entries()) {
    asked.signal?.throwIfAborted()
    const kept = await backup.json(tuneFile(id), tuneKept)
    if (isSameDemo(db, kept, demo)) {
      known.add(id)
      said.same += 1
      continue
    }
    const history: RevisionKept[] = []
    if (backup.has(tuneHistory(id)))
      for await (const one of backup.lines(tuneHistory(id), revisionKept)) history.push(one)
    bringTune(db, kept, history, manifest.made, asked.different, said)
    asked.onDone?.(manifest.tunes.length + at + 1, 2 * manifest.tunes.length)
    await new Promise((goOn) => setImmediate(goOn))
  }
  if (backup.has(GRIPS)) said.grips = bringGrips(db, await backup.json(GRIPS, gripsKept))
  if (backup.has(SETS))
    for (const set of await backup.json(SETS, setsKept))
      // The set of a demo that is here too.
      if (!set.tunes.some((one) => one.tuneId !== null && known.has(one.tuneId)))
        said.sets += bringSet(db, set, manifest.made, asked.different)
  if (backup.has(PLAYER))
    said.player = bringPlayer(db, await backup.json(PLAYER, playerSchema), isFresh ? 'take' : asked.player)
  if (backup.has(PASSES)) said.passes = await bringPasses(db, backup, known)
  return said
}

/** An id that is the same each time it is made of the same: a version 8 UUID (RFC 9562). */
export function idOf(...parts: unknown[]): string {
  const hash = createHash('sha256').update(JSON.stringify(parts)).digest()
  hash[6] = (hash[6]! & 0x0f) | 0x80
  hash[8] = (hash[8]! & 0x3f) | 0x80
  const hex = hash.toString('hex')
  return [hex.slice(0, 8), hex.slice(8, 12), hex.slice(12, 16), hex.slice(16, 20), hex.slice(20, 32)].join(
    '-',
  )
}

/** A tune of the demo that nobody has changed, here under another id and nothing else. */
function isSameDemo(db: Db, kept: TuneKept, demo: readonly { id: string; title: string }[]): boolean {
  const here = demo.find(({ id, title }) => title === kept.title && id !== kept.id)
  const state = here && !readTuneAnyhow(db, kept.id) ? readTuneAnyhow(db, here.id) : null
  return state !== null && sameDocument(state.document, openDocument(kept.document, kept.version).document)
}

const besideName = (name: string, made: string, most: number): string => {
  const from = ` (backup of ${made.slice(0, 10)})`
  return name.slice(0, most - from.length) + from
}

/** What two documents say, whatever the order it is written in. */
const sameDocument = (a: TuneDocument, b: TuneDocument): boolean => isDeepStrictEqual(plain(a), plain(b))
const plain = (document: TuneDocument): unknown => JSON.parse(JSON.stringify(document))

function bringTune(
  db: Db,
  kept: TuneKept,
  history: readonly RevisionKept[],
  made: string,
  different: RestoreAsked['different'],
  said: Restored,
): void {
  const { document, unread } = openDocument(kept.document, kept.version)
  said.unread.push(...unread.map((words) => `${kept.title}: ${words}`))
  db.transaction(
    (tx) => {
      const there = readTuneAnyhow(tx, kept.id)
      if (!there) {
        insertTune(tx, kept, document, history)
        said.brought += 1
        return
      }
      if (sameDocument(there.document, document)) {
        said.same += 1
        if (kept.deletedAt === null && isDeleted(tx, kept.id)) said.deleted.push(kept.title)
        addLayouts(tx, kept.id, kept.layouts)
        addGoals(tx, kept)
        addTags(tx, kept)
        return
      }
      if (different === 'leave') {
        said.left.push(kept.title)
        return
      }
      const id = idOf('beside', kept.id, document)
      if (tx.select({ id: tunes.id }).from(tunes).where(eq(tunes.id, id)).get()) {
        said.same += 1
        return
      }
      const title = besideName(document.title, made, MOST_TITLE)
      // Its steps have ids of their own; the last of them is where it stands, under its new name.
      const own = (step: string) => idOf(id, step)
      const steps = history.map((one) => ({
        ...one,
        id: own(one.id),
        parentId: one.parentId && own(one.parentId),
      }))
      const last = Math.max(-1, ...steps.map(({ sequence }) => sequence))
      const head = own('beside')
      const renamed = { ...document, title }
      insertTune(
        tx,
        { ...kept, id, title, head, layouts: kept.layouts.map((one) => ({ ...one, id: own(one.id) })) },
        renamed,
        [
          ...steps,
          {
            id: head,
            parentId: steps.length > 0 ? own(kept.head) : null,
            sequence: last + 1,
            label: 'brought in from a backup',
            createdAt: kept.touchedAt,
            version: DOCUMENT_VERSION,
            document: renamed,
          },
        ],
      )
      said.beside.push(title)
    },
    { behavior: 'immediate' },
  )
}

const isDeleted = (tx: Tx, id: string): boolean =>
  (tx.select({ at: tunes.deletedAt }).from(tunes).where(eq(tunes.id, id)).get()?.at ?? null) !== null

function insertTune(tx: Tx, kept: TuneKept, document: TuneDocument, history: readonly RevisionKept[]): void {
  const { id, createdAt, touchedAt, deletedAt, head, tags, place } = kept
  tx.insert(tunes)
    .values({ id, title: document.title, createdAt, touchedAt, deletedAt, head, tags, place })
    .run()
  const steps = history.some((one) => one.id === head)
    ? history
    : [
        {
          id: head,
          parentId: null,
          sequence: 0,
          label: 'brought in from a backup',
          createdAt: touchedAt,
          version: DOCUMENT_VERSION,
          document,
        },
      ]
  steps.reduce<Basis | null>(
    (before, { document: written, ...one }) => keepWritten(tx, { ...one, tuneId: id }, written, before),
    null,
  )
  writeHead(tx, id, document)
  addLayouts(tx, id, kept.layouts)
  addGoals(tx, kept)
}

function addLayouts(tx: Tx, tuneId: string, all: TuneKept['layouts']): void {
  for (const one of all)
    tx.insert(layouts)
      .values({ ...one, tuneId })
      .onConflictDoNothing()
      .run()
}

function addGoals(tx: Tx, { id, goals: all }: TuneKept): void {
  for (const one of all)
    tx.insert(goals)
      .values({ ...one, tuneId: id })
      .onConflictDoNothing()
      .run()
}

function addTags(tx: Tx, { id, tags }: TuneKept): void {
  const there = tx.select({ tags: tunes.tags }).from(tunes).where(eq(tunes.id, id)).get()!.tags
  const both = [...new Set([...there, ...tags])].sort()
  if (both.length > there.length) tx.update(tunes).set({ tags: both }).where(eq(tunes.id, id)).run()
}

/** @returns how many were not in the book: known by their id, or by what they are */
function bringGrips(db: Db, all: (typeof gripsKept)['_output']): number {
  return db.transaction(
    (tx) => {
      let brought = 0
      const shape = ({ frets, symbol, instrument }: (typeof all)[number]) =>
        JSON.stringify([frets, symbol, instrument])
      const there = tx.select().from(grips).all()
      const ids = new Set(there.map(({ id }) => id))
      const shapes = new Set(there.map(shape))
      for (const one of all) {
        if (ids.has(one.id) || shapes.has(shape(one))) continue
        tx.insert(grips).values(one).run()
        shapes.add(shape(one))
        brought += 1
      }
      return brought
    },
    { behavior: 'immediate' },
  )
}

/** @returns 1 where it was brought in */
function bringSet(db: Db, set: SetKept, made: string, different: RestoreAsked['different']): number {
  return db.transaction(
    (tx) => {
      const known = new Set(
        tx
          .select({ id: tunes.id })
          .from(tunes)
          .all()
          .map(({ id }) => id),
      )
      const { tunes: rows, ...head } = set
      const there = tx.select().from(sets).where(eq(sets.id, set.id)).get()
      if (there) {
        const held = tx
          .select()
          .from(setTunes)
          .where(eq(setTunes.setId, set.id))
          .orderBy(setTunes.place)
          .all()
          .map(({ setId: _, ...one }) => one)
        const isSame =
          there.name === set.name && there.note === set.note && JSON.stringify(held) === JSON.stringify(rows)
        if (isSame || different === 'leave') return 0
      }
      const id = there ? idOf('beside', set) : set.id
      if (there && tx.select({ id: sets.id }).from(sets).where(eq(sets.id, id)).get()) return 0
      tx.insert(sets)
        .values({ ...head, id, name: there ? besideName(set.name, made, MOST_SET_NAME) : set.name })
        .run()
      for (const one of rows)
        tx.insert(setTunes)
          .values({
            ...one,
            id: there ? idOf(id, one.id) : one.id,
            setId: id,
            tuneId: one.tuneId !== null && known.has(one.tuneId) ? one.tuneId : null,
          })
          .run()
      return 1
    },
    { behavior: 'immediate' },
  )
}
const MOST_SET_NAME = 80

/**
 * Settings and what was counted of likings. @returns whether the settings of the backup are in
 * force
 */
function bringPlayer(
  db: Db,
  kept: (typeof playerSchema)['_output'],
  player: RestoreAsked['player'],
): boolean {
  return db.transaction(
    (tx) => {
      const isNew = tx.select({ rows: count() }).from(settings).get()!.rows === 0
      const counted = tx.select({ rows: count() }).from(likings).get()!.rows
      if (counted === 0) for (const one of kept.likings) tx.insert(likings).values(one).run()
      if (!isNew && player === 'keep') return false
      // A setting this version does not understand is read as the usual one, as everywhere; it is
      // kept all the same.
      const understood = playerSettings.safeParse({ ...DEFAULT_PLAYER, ...kept.settings })
      for (const [name, value] of Object.entries(understood.success ? kept.settings : {}))
        tx.insert(settings)
          .values({ name, value })
          .onConflictDoUpdate({ target: settings.name, set: { value } })
          .run()
      return understood.success
    },
    { behavior: 'immediate' },
  )
}

/** Passes written with one transaction. */
const PASSES_AT_ONCE = 2_000

/** @param demo tunes whose passes are here under another id */
async function bringPasses(db: Db, backup: Backup, demo: ReadonlySet<string>): Promise<number> {
  const known = new Set(
    db
      .select({ id: tunes.id })
      .from(tunes)
      .all()
      .map(({ id }) => id),
  )
  let brought = 0
  const changed = new Map<string, ItemOf>()
  let waiting: PassKept[] = []
  const write = () => {
    db.transaction(
      (tx) => {
        for (const pass of waiting) {
          const row = { ...pass, tuneId: pass.tuneId !== null && known.has(pass.tuneId) ? pass.tuneId : null }
          if (tx.insert(passes).values(row).onConflictDoNothing().run().changes === 0) continue
          brought += 1
          changed.set(`${row.tuneId} ${itemKey(row)}`, row)
        }
      },
      { behavior: 'immediate' },
    )
    waiting = []
  }
  for await (const pass of backup.lines(PASSES, passKept)) {
    if (pass.tuneId !== null && demo.has(pass.tuneId)) continue
    waiting.push(pass)
    if (waiting.length >= PASSES_AT_ONCE) write()
  }
  write()
  db.transaction((tx) => refresh(tx, [...changed.values()]), { behavior: 'immediate' })
  return brought
}
