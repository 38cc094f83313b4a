import { openDB, type DBSchema, type IDBPDatabase } from 'idb'
import { z } from 'zod'

/** What a tab has not yet on disk, and the revision it was made on. */
export interface Draft {
  key: string
  tune: string
  tab: string
  base: string
  /** As they were made; read with care, since a later version may know them otherwise. */
  writes: unknown[]
}

/** What could not be taken: kept until the player lets it go, and to be taken out as a file. */
export interface SetAside {
  id: string
  tune: string
  /** What was done, in words, and why it was not taken. */
  what: string
  message: string
  at: number
  edits: unknown[]
}

interface DraftsKept extends DBSchema {
  drafts: { key: string; value: Draft; indexes: { tune: string } }
  aside: { key: string; value: SetAside; indexes: { tune: string } }
  /** Settings of the player that wait for the server, by field. */
  waiting: { key: string; value: { key: string; change: unknown } }
}

const NAME = 'yellow-heron'
/**
 * A write to this store is on disk when it is answered, and not some seconds later: a browser that
 * is killed loses nothing.
 */
const DURABLE = { durability: 'strict' } as const

let opened: Promise<IDBPDatabase<DraftsKept>> | null = null

/**
 * The browser's store of what is not on the server's disk. Rejects where the browser has none, or
 * no room.
 */
function store(): Promise<IDBPDatabase<DraftsKept>> {
  opened ??= openDB<DraftsKept>(NAME, 1, {
    upgrade(db) {
      for (const name of ['drafts', 'aside'] as const)
        db.createObjectStore(name, { keyPath: name === 'drafts' ? 'key' : 'id' }).createIndex('tune', 'tune')
      db.createObjectStore('waiting', { keyPath: 'key' })
    },
  }).catch((error: unknown) => {
    opened = null
    throw error
  })
  return opened
}

async function durably<Name extends 'drafts' | 'aside' | 'waiting'>(
  name: Name,
  value: DraftsKept[Name]['value'] | string,
): Promise<void> {
  const transaction = (await store()).transaction(name, 'readwrite', DURABLE)
  const change = typeof value === 'string' ? transaction.store.delete(value) : transaction.store.put(value)
  await Promise.all([change, transaction.done])
}

export const keepDraft = (draft: Draft): Promise<void> => durably('drafts', draft)
export const dropDraft = (key: string): Promise<void> => durably('drafts', key)
export const draftsOf = async (tune: string): Promise<Draft[]> =>
  (await store()).getAllFromIndex('drafts', 'tune', tune)

export const keepAside = (one: SetAside): Promise<void> => durably('aside', one)
export const dropAside = (id: string): Promise<void> => durably('aside', id)
export const asideOf = async (tune: string): Promise<SetAside[]> =>
  (await (await store()).getAllFromIndex('aside', 'tune', tune)).sort((a, b) => a.at - b.at)

export const keepWaiting = (key: string, change: unknown): Promise<void> =>
  durably('waiting', { key, change })
export const dropWaiting = (key: string): Promise<void> => durably('waiting', key)
export const waitingFor = async (key: string): Promise<unknown> =>
  (await (await store()).get('waiting', key))?.change

/**
 * What waits, kept in the browser's synchronous store as soon as it is made, until the durable one
 * has it: a tab that dies in the same moment loses no key. That one is written some milliseconds
 * later, and survives a power cut.
 */
const AT_ONCE = 'heron-now:'
const draftAtOnce = z.object({ base: z.string(), writes: z.array(z.unknown()) })

export function keepAtOnce(key: string, draft: Pick<Draft, 'base' | 'writes'>): void {
  try {
    localStorage.setItem(AT_ONCE + key, JSON.stringify(draft))
  } catch {
    // No room there, or no such store: the durable one is on its way.
  }
}
export function dropAtOnce(key: string): void {
  try {
    localStorage.removeItem(AT_ONCE + key)
  } catch {
    // Nothing was kept there.
  }
}

/**
 * Moves what tabs of a tune that are open no more kept at once into the durable store: it is newer
 * than what that has of them.
 */
export async function takeOverAtOnce(tune: string, isOpen: (tab: string) => boolean): Promise<void> {
  const prefix = `${AT_ONCE}${tune}:`
  for (const name of Object.keys(localStorage).filter((one) => one.startsWith(prefix))) {
    const tab = name.slice(prefix.length)
    if (isOpen(tab)) continue
    const read = draftAtOnce.safeParse(readJson(localStorage.getItem(name)))
    if (read.success && read.data.writes.length > 0)
      await keepDraft({ key: `${tune}:${tab}`, tune, tab, ...read.data })
    localStorage.removeItem(name)
  }
}

/**
 * Drafts of versions before this store, in the browser's older one: `heron-draft:<tune>:<tab>` with
 * edits that had no ids.
 */
const BEFORE = 'heron-draft:'
const oldDraft = z.object({ base: z.string(), edits: z.array(z.unknown()) })

/** Moves a tune's drafts of an earlier version into the store. */
export async function takeOver(tune: string): Promise<void> {
  const prefix = `${BEFORE}${tune}:`
  for (const key of Object.keys(localStorage).filter((name) => name.startsWith(prefix))) {
    const read = oldDraft.safeParse(readJson(localStorage.getItem(key)))
    if (read.success && read.data.edits.length > 0)
      await keepDraft({
        key: `${tune}:${key.slice(prefix.length)}`,
        tune,
        tab: key.slice(prefix.length),
        base: read.data.base,
        writes: read.data.edits.map((edit) => ({ id: crypto.randomUUID(), edit })),
      })
    localStorage.removeItem(key)
  }
}

function readJson(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null')
  } catch {
    return null
  }
}
