import { asc, desc, eq, isNotNull, sql } from 'drizzle-orm'
import { create, type Delta } from 'jsondiffpatch'
import { deflateRawSync, inflateRawSync } from 'node:zlib'
import type { TuneDocument } from '../core/tune/document'
import { DOCUMENT_VERSION, openDocument, type OpenedDocument } from '../core/tune/stored'
import type { Db, Tx } from './connect'
import { preparedOn } from './prepared'
import { revisions } from './schema'

/**
 * Every state a tune has been in, at a bounded price: most are kept as what changed since the state
 * they were made of, and every so often one is kept whole, so that none is far from a whole one.
 * All of it is deflated JSON.
 */

type RevisionRow = typeof revisions.$inferSelect
/** A document as it was written, in whatever form that was. */
type Stored = Record<string, unknown>

/** States between two whole ones. */
const MOST_STEPS = 32
/** A change that takes more than this share of a whole document is no saving. */
const WORTH_IT = 0.5
/**
 * In longer lists what changed is told place by place: looking for what moved takes their product.
 */
const LONGEST_COMPARED = 400

const options = { omitRemovedValues: true, arrays: { detectMove: false } }
/**
 * Charts and versions are known by their names, so that what changed inside them is told; notes and
 * words by all they are.
 */
const identity = (item: object): string =>
  'choices' in item && 'name' in item ? String(item.name) : JSON.stringify(item)
const byContent = create({ ...options, objectHash: identity })
const byPlace = create({ ...options, objectHash: (_item, index) => String(index) })

const pack = (value: unknown): Buffer => deflateRawSync(JSON.stringify(value ?? null))
const unpack = (packed: Buffer): unknown => JSON.parse(inflateRawSync(packed).toString('utf8'))
/** As it is read again. */
const plain = (document: unknown): Stored => JSON.parse(JSON.stringify(document)) as Stored

const longestList = (document: Stored): number =>
  Math.max(0, ...Object.values(document).map((value) => (Array.isArray(value) ? value.length : 0)))

const changeBetween = (before: Stored, after: Stored): Delta => {
  const isLong = Math.max(longestList(before), longestList(after)) > LONGEST_COMPARED
  return (isLong ? byPlace : byContent).diff(before, after)
}

type Packed = Pick<RevisionRow, 'packed' | 'basisId' | 'depth'>
const whole = (document: Stored): Packed => ({ packed: pack(document), basisId: null, depth: 0 })

/** A state that another can be told by. */
export interface Basis {
  id: string
  depth: number
  version: number
  document: Stored
}

/**
 * A document as what changed since its basis, or whole where that is far from a whole one, in
 * another form, or no saving.
 */
function packedOn(basis: Basis | null, document: Stored, version: number): Packed {
  if (!basis || basis.version !== version || basis.depth + 1 >= MOST_STEPS) return whole(document)
  const change = changeBetween(basis.document, document)
  return JSON.stringify(change ?? null).length < JSON.stringify(document).length * WORTH_IT
    ? { packed: pack(change), basisId: basis.id, depth: basis.depth + 1 }
    : whole(document)
}

const columns = {
  id: revisions.id,
  version: revisions.version,
  depth: revisions.depth,
  basisId: revisions.basisId,
  packed: revisions.packed,
  snapshot: revisions.snapshot,
}
type KeptRow = Pick<RevisionRow, keyof typeof columns>

const reads = preparedOn((db) => ({
  kept: db
    .select(columns)
    .from(revisions)
    .where(eq(revisions.id, sql.placeholder('id')))
    .prepare(),
  newestChild: db
    .select({ id: revisions.id, label: revisions.label })
    .from(revisions)
    .where(eq(revisions.parentId, sql.placeholder('parent')))
    .orderBy(desc(revisions.sequence))
    .limit(1)
    .prepare(),
  ofTune: db
    .select({
      id: revisions.id,
      parentId: revisions.parentId,
      sequence: revisions.sequence,
      label: revisions.label,
      version: revisions.version,
      createdAt: revisions.createdAt,
    })
    .from(revisions)
    .where(eq(revisions.tuneId, sql.placeholder('tune')))
    .orderBy(asc(revisions.sequence))
    .prepare(),
}))
const keptAs = (db: Db | Tx, id: string): KeptRow | undefined => reads(db).kept.get({ id })

/** The document of a state as it was written: the whole one before it, and every change since. */
function storedOf(db: Db | Tx, kept: KeptRow): Stored {
  const begun = (one: Pick<KeptRow, 'packed' | 'snapshot'>) =>
    (one.packed ? unpack(one.packed) : one.snapshot) as Stored
  if (kept.basisId === null) return begun(kept)
  const [first, ...later] = db.all<{ packed: Buffer | null; snapshot: string | null; depth: number }>(sql`
    WITH RECURSIVE chain(id, basis_id, packed, snapshot, depth) AS (
      SELECT id, basis_id, packed, snapshot, depth FROM revisions WHERE id = ${kept.id}
      UNION ALL
      SELECT one.id, one.basis_id, one.packed, one.snapshot, one.depth
      FROM revisions AS one JOIN chain ON one.id = chain.basis_id
    )
    SELECT packed, snapshot, depth FROM chain ORDER BY depth`)
  if (first?.depth !== 0) throw new Error(`A state that the history of ${kept.id} stands on is missing.`)
  return later.reduce(
    (document, { packed }) => changed(document, unpack(packed!) as Delta),
    begun({ packed: first.packed, snapshot: first.snapshot === null ? null : JSON.parse(first.snapshot) }),
  )
}

/** The document itself, with a change carried out on it. */
const changed = (document: Stored, change: Delta): Stored =>
  change ? (byContent.patch(document, change) as Stored) : document

/** A state of a tune, read in whatever form it was written; undefined where there is none. */
export function stateAt(db: Db | Tx, id: string): OpenedDocument | undefined {
  const kept = keptAs(db, id)
  return kept && openDocument(storedOf(db, kept), kept.version)
}

/** Keeps a new state of a tune, made of another one (null for its first). */
export function keepState(
  tx: Tx,
  row: Pick<RevisionRow, 'id' | 'tuneId' | 'parentId' | 'sequence' | 'label' | 'createdAt'>,
  document: TuneDocument,
  madeOf: string | null,
): void {
  keepWritten(tx, { ...row, version: DOCUMENT_VERSION }, plain(document), basisAt(tx, madeOf))
}

/**
 * Keeps a state as it was written elsewhere, in the form it is in. @returns it, for the next one to
 * be told by
 */
export function keepWritten(
  tx: Tx,
  row: Pick<RevisionRow, 'id' | 'tuneId' | 'parentId' | 'sequence' | 'label' | 'createdAt' | 'version'>,
  document: Stored,
  basis: Basis | null,
): Basis {
  const packed = packedOn(basis, document, row.version)
  tx.insert(revisions)
    .values({ ...row, ...packed })
    .run()
  return { id: row.id, depth: packed.depth, version: row.version, document }
}

function basisAt(tx: Tx, id: string | null): Basis | null {
  const kept = id === null ? undefined : keptAs(tx, id)
  return kept ? { ...kept, document: storedOf(tx, kept) } : null
}

/**
 * Says anew what a state is: what a search found belongs to it. States that were kept as changes of
 * it become whole first.
 */
export function replaceState(tx: Tx, id: string, document: TuneDocument): void {
  for (const one of tx.select(columns).from(revisions).where(eq(revisions.basisId, id)).all())
    tx.update(revisions)
      .set(whole(storedOf(tx, one)))
      .where(eq(revisions.id, one.id))
      .run()
  const { basisId } = keptAs(tx, id)!
  tx.update(revisions)
    .set({
      snapshot: null,
      version: DOCUMENT_VERSION,
      ...packedOn(basisAt(tx, basisId), plain(document), DOCUMENT_VERSION),
    })
    .where(eq(revisions.id, id))
    .run()
}

/** States that are packed in one transaction, when a book of an earlier version is opened. */
const AT_ONCE = 200

/**
 * Packs states that an earlier version kept whole. It may be broken off at any time and goes on the
 * next time; what it frees is given back to the disk at its end.
 * @returns how many it packed
 */
export function packHistory(db: Db, onDone: (done: number, of: number) => void = () => {}): number {
  const all = db
    .select({ id: revisions.id, tuneId: revisions.tuneId })
    .from(revisions)
    .where(isNotNull(revisions.snapshot))
    .orderBy(revisions.tuneId, revisions.sequence)
    .all()
  let before: (Basis & { tuneId: string }) | null = null
  for (let from = 0; from < all.length; from += AT_ONCE) {
    db.transaction(
      (tx) => {
        for (const { id, tuneId } of all.slice(from, from + AT_ONCE)) {
          const { version, snapshot } = keptAs(tx, id)!
          const document = snapshot as Stored
          const packed = packedOn(before?.tuneId === tuneId ? before : null, document, version)
          tx.update(revisions)
            .set({ snapshot: null, ...packed })
            .where(eq(revisions.id, id))
            .run()
          before = { id, tuneId, version, depth: packed.depth, document }
        }
      },
      { behavior: 'immediate' },
    )
    onDone(Math.min(all.length, from + AT_ONCE), all.length)
  }
  if (all.length > AT_ONCE) db.$client.exec('VACUUM')
  return all.length
}

/** Every state of a tune in the order of making, as it was written. */
export function* statesOf(
  db: Db,
  tuneId: string,
): Generator<Omit<RevisionRow, keyof Packed | 'snapshot' | 'tuneId'> & { document: Stored }> {
  const rows = reads(db).ofTune.all({ tune: tuneId })
  let before: { id: string; document: Stored } | null = null
  for (const row of rows) {
    const kept = keptAs(db, row.id)!
    const document: Stored =
      before && kept.basisId === before.id
        ? changed(structuredClone(before.document), unpack(kept.packed!) as Delta)
        : storedOf(db, kept)
    yield { ...row, document }
    before = { id: row.id, document }
  }
}

/** The state that redo goes to: the newest that was made of this one. */
export const newestChild = (db: Db | Tx, parent: string): Pick<RevisionRow, 'id' | 'label'> | undefined =>
  reads(db).newestChild.get({ parent })
