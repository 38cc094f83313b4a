import { z } from 'zod'
import { ruleNow } from '../reharm/families'
import { GRADES, ITEM_KINDS } from '../practice/grade'
import { loggedPass } from '../practice/passSchema'
import { sheetLayout, layoutName } from '../sheet/sheetLayout'
import { DOCUMENT_VERSION } from '../tune/stored'

/**
 * The backup: a zip (APPNOTE 6.3) of JSON (RFC 8259), JSON lines and chart text, told in
 * `docs/backup.md`. A change of it raises the version and adds a reader.
 */
export const BACKUP_FORMAT = 'yellow-heron-backup'
/** 2: tunes have tags and the place where they were left. */
export const BACKUP_VERSION = 2

export const MANIFEST = 'manifest.json'
export const GRIPS = 'grips.json'
export const PLAYER = 'player.json'
export const SETS = 'sets.json'
export const PASSES = 'practice/passes.ndjson'
export const tuneFile = (id: string) => `tunes/${id}.json`
export const tuneText = (id: string) => `tunes/${id}.txt`
export const tuneHistory = (id: string) => `tunes/${id}.history.ndjson`

const id = z.uuid()
const time = z.int().min(0).max(8.64e15)

export const manifest = z.object({
  format: z.literal(BACKUP_FORMAT),
  version: z.int().min(1),
  /** When it was made, ISO 8601. */
  made: z.iso.datetime(),
  /** Whether every step of every tune is in it, or only where each is now. */
  history: z.boolean(),
  tunes: z.array(id).max(1_000_000),
  files: z.record(
    z.string().max(300),
    z.object({ bytes: z.int().min(0), sha256: z.string().regex(/^[0-9a-f]{64}$/) }),
  ),
})
export type Manifest = z.infer<typeof manifest>

/** A document is read by `openDocument`, which knows every form there was. */
const stored = { version: z.int().min(0).max(DOCUMENT_VERSION), document: z.record(z.string(), z.unknown()) }

export const tuneKept = z.strictObject({
  id,
  title: z.string().max(200),
  createdAt: time,
  touchedAt: time,
  deletedAt: time.nullable(),
  head: id,
  /** Neither was in the first form. */
  tags: z.array(z.string().max(60)).max(200).default([]),
  place: z
    .strictObject({ step: z.string().max(40), slot: z.string().max(40).nullable() })
    .nullable()
    .default(null),
  ...stored,
  layouts: z.array(
    z.strictObject({
      id,
      name: layoutName,
      layout: sheetLayout,
      createdAt: time,
      deletedAt: time.nullable(),
    }),
  ),
  goals: z.array(
    z.strictObject({
      kind: z.enum(ITEM_KINDS),
      item: z.string().max(400),
      tempo: z.number().nullable(),
      wanted: z.boolean(),
      madeAt: time,
    }),
  ),
})
export type TuneKept = z.infer<typeof tuneKept>

export const revisionKept = z.strictObject({
  id,
  parentId: id.nullable(),
  sequence: z.int().min(0),
  label: z.string().max(1_000),
  createdAt: time,
  ...stored,
})
export type RevisionKept = z.infer<typeof revisionKept>

export const gripsKept = z.array(
  z.strictObject({
    id,
    frets: z.array(z.int().min(0).max(36).nullable()).min(1).max(12),
    symbol: z.string().max(60),
    tags: z.array(z.string().max(200)).max(100),
    note: z.string().max(10_000),
    instrument: z.string().max(400).nullable(),
    createdAt: time,
    deletedAt: time.nullable(),
  }),
)

export const playerSchema = z.strictObject({
  settings: z.record(z.string().max(60), z.unknown()),
  likings: z.array(
    z.strictObject({ rule: z.string().max(160).transform(ruleNow), times: z.int().min(0), lastAt: time }),
  ),
})

export const setsKept = z.array(
  z.strictObject({
    id,
    name: z.string().max(200),
    note: z.string().max(10_000),
    createdAt: time,
    touchedAt: time,
    deletedAt: time.nullable(),
    tunes: z.array(
      z.strictObject({
        id,
        tuneId: id.nullable(),
        title: z.string().max(200),
        place: z.int(),
        key: z.string().max(20).nullable(),
        tempo: z.int().nullable(),
        version: z.string().max(60).nullable(),
        note: z.string().max(2_000),
        deletedAt: time.nullable(),
      }),
    ),
  }),
)
export type SetKept = z.infer<typeof setsKept>[number]

export const passKept = loggedPass.extend({
  /** The player's day, in days since 1970. */
  day: z.int(),
  grade: z.enum(GRADES),
  deletedAt: time.nullable(),
})
export type PassKept = z.infer<typeof passKept>

/** A file that is no whole backup of this program, and why, in a player's words. */
export class BackupFault extends Error {
  override name = 'BackupFault'
}
