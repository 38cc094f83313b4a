import { blob, index, integer, primaryKey, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { GRADES, ITEM_KINDS } from '../core/practice/grade'
import type { Sought } from '../core/analysis/sought'
import type { ItemRecord } from '../core/practice/record'
import type { SheetLayout } from '../core/sheet/sheetLayout'

/** Times are milliseconds since 1970. Ids are UUIDs. */
const id = () => text('id').primaryKey()
const time = (name: string) => integer(name, { mode: 'number' })

/**
 * Key by name (null where there are no chords), metre, the number of bars, and how far the tune is;
 * summaries of earlier versions do not say that.
 */
export interface TuneSummary {
  key: string | null
  meter: string
  bars: number
  far?: HowFarATune
  /**
   * What its changes are found by; null without chords, missing in summaries of earlier versions.
   */
  sought?: Sought | null
}

/** Where a player last was in a tune. */
export interface TunePlace {
  /** Name of the step. */
  step: string
  /** The chord that was selected: `bar:beat` of the home line, both from 1. */
  slot: string | null
}

/** How far the work on a tune is: the last thing that was done with it. */
export type HowFarATune = 'empty' | 'typed' | 'coloured' | 'led' | 'with melody' | 'with rhythm'

/**
 * A tune of the songbook. Deleting sets `deletedAt`; it is erased only when the list of deleted
 * tunes is emptied by hand.
 */
export const tunes = sqliteTable(
  'tunes',
  {
    id: id(),
    title: text('title').notNull(),
    createdAt: time('created_at').notNull(),
    /** When something in it was last changed. */
    touchedAt: time('touched_at').notNull(),
    deletedAt: time('deleted_at'),
    /** The revision it stands at. Undo and redo move it. */
    head: text('head').notNull(),
    /**
     * What the songbook says of the chart shown, so that it lists tunes without reading their
     * charts; null until it is written.
     */
    summary: text('summary', { mode: 'json' }).$type<TuneSummary>(),
    /**
     * Words the player sorts tunes by. They are the book's, not the document's: no step of undo.
     */
    tags: text('tags', { mode: 'json' }).$type<string[]>().notNull().default([]),
    /** Where it was left; null before it was opened. */
    place: text('place', { mode: 'json' }).$type<TunePlace>(),
    /**
     * What the songbook searches beside title and tags: the text of the chart shown and the words
     * sung over it, a line each.
     */
    words: text('words').notNull().default(''),
    /**
     * What its head revision says, in the form of `version`; see `openDocument`. Title, summary,
     * words and uses of grips are read off it.
     */
    document: text('document', { mode: 'json' }).$type<unknown>().notNull().default({}),
    version: integer('version').notNull().default(0),
  },
  (table) => [index('tunes_by_touch').on(table.deletedAt, table.touchedAt)],
)

/**
 * Shapes of grips that a tune's lines have now, as `shapeOf` writes them: read off its document, so
 * that the grip book finds what a grip is used in.
 */
export const gripUses = sqliteTable(
  'grip_uses',
  {
    tuneId: text('tune_id')
      .notNull()
      .references(() => tunes.id, { onDelete: 'cascade' }),
    shape: text('shape').notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.tuneId, table.shape] }),
    index('grip_uses_by_shape').on(table.shape),
  ],
)

/**
 * Every state a tune has been in. Undo goes to the parent, redo to the newest child; none is
 * erased.
 */
export const revisions = sqliteTable(
  'revisions',
  {
    id: id(),
    tuneId: text('tune_id')
      .notNull()
      .references(() => tunes.id, { onDelete: 'cascade' }),
    parentId: text('parent_id'),
    /** Order of making within the tune. */
    sequence: integer('sequence').notNull(),
    /** What was done, in words. */
    label: text('label').notNull(),
    /** The whole document, in books of before states were packed; see `history.ts`. */
    snapshot: text('snapshot', { mode: 'json' }).$type<unknown>(),
    /** What it says, deflated: the whole document, or what changed since its basis. */
    packed: blob('packed', { mode: 'buffer' }),
    basisId: text('basis_id'),
    /** How many bases stand before it; a whole one has none. */
    depth: integer('depth').notNull().default(0),
    /** The form in which the snapshot is written; see `openDocument`. */
    version: integer('version').notNull().default(0),
    createdAt: time('created_at').notNull(),
  },
  (table) => [
    index('revisions_of_tune').on(table.tuneId, table.sequence),
    index('revisions_by_parent').on(table.parentId),
    index('revisions_by_basis').on(table.basisId),
  ],
)

/**
 * Writes that were done, by the id their tab gave them: one whose answer was lost is sent again,
 * known here, and not done twice.
 */
export const writes = sqliteTable(
  'writes',
  {
    id: id(),
    tuneId: text('tune_id')
      .notNull()
      .references(() => tunes.id, { onDelete: 'cascade' }),
    /** The revision it made, or for a copy the new tune. */
    made: text('made').notNull(),
    at: time('at').notNull(),
  },
  (table) => [index('writes_by_time').on(table.at)],
)

/** What a player sets once for all tunes, by name: taste, instrument, hand. */
export const settings = sqliteTable('settings', {
  name: text('name').primaryKey(),
  value: text('value', { mode: 'json' }).notNull(),
})

/** How often a change of each rule was kept by hand. */
export const likings = sqliteTable('likings', {
  rule: text('rule').primaryKey(),
  times: integer('times').notNull(),
  lastAt: time('last_at').notNull(),
})

/** A grip of the player's own vocabulary. Letting one go sets `deletedAt`; nothing is erased. */
export const grips = sqliteTable('grips', {
  id: id(),
  /** From the lowest string: fret, 0 open, null not played. */
  frets: text('frets', { mode: 'json' }).$type<(number | null)[]>().notNull(),
  /** The chord it is kept for. */
  symbol: text('symbol').notNull(),
  tags: text('tags', { mode: 'json' }).$type<string[]>().notNull(),
  note: text('note').notNull(),
  /** Open strings it was kept for; null for a grip kept before that was written down. */
  instrument: text('instrument'),
  createdAt: time('created_at').notNull(),
  deletedAt: time('deleted_at'),
})

/**
 * Passes of what is practised. They belong to no document and to no undo of a tune; taking one out
 * sets `deletedAt`.
 */
export const passes = sqliteTable(
  'passes',
  {
    /** Given by the page that played it: sent twice it counts once. */
    id: id(),
    tuneId: text('tune_id').references(() => tunes.id, { onDelete: 'set null' }),
    /** The tune's title then. */
    title: text('title').notNull(),
    kind: text('kind', { enum: ITEM_KINDS }).notNull(),
    item: text('item').notNull(),
    fromBar: integer('from_bar'),
    toBar: integer('to_bar'),
    key: text('key'),
    /** Beats a minute. */
    tempo: real('tempo'),
    goal: real('goal'),
    grade: text('grade', { enum: GRADES }).notNull(),
    seconds: real('seconds').notNull(),
    at: time('at').notNull(),
    /** The player's day, in days since 1970, and the zone it was counted in. */
    day: integer('day').notNull(),
    zone: text('zone').notNull(),
    note: text('note').notNull().default(''),
    hurt: integer('hurt', { mode: 'boolean' }).notNull().default(false),
    deletedAt: time('deleted_at'),
  },
  (table) => [
    index('passes_by_day').on(table.deletedAt, table.day, table.at),
    index('passes_of_item').on(table.tuneId, table.kind, table.item, table.at),
  ],
)

/**
 * What the passes of one item say now, written with each of them, so that a plan and the songbook
 * need not read the log.
 */
export const practised = sqliteTable(
  'practised',
  {
    /** The tune, or empty for what belongs to none. */
    tuneId: text('tune_id').notNull(),
    kind: text('kind', { enum: ITEM_KINDS }).notNull(),
    item: text('item').notNull(),
    /** The day it is due, in days since 1970. */
    due: integer('due').notNull(),
    record: text('record', { mode: 'json' }).$type<ItemRecord>().notNull(),
  },
  (table) => [
    primaryKey({ columns: [table.tuneId, table.kind, table.item] }),
    index('practised_by_due').on(table.due),
  ],
)

/** What a player wants of something that can be practised. */
export const goals = sqliteTable(
  'goals',
  {
    tuneId: text('tune_id')
      .notNull()
      .references(() => tunes.id, { onDelete: 'cascade' }),
    kind: text('kind', { enum: ITEM_KINDS }).notNull(),
    item: text('item').notNull(),
    /** Beats a minute; null where only that it is wanted is said. */
    tempo: real('tempo'),
    wanted: integer('wanted', { mode: 'boolean' }).notNull(),
    madeAt: time('made_at').notNull(),
  },
  (table) => [primaryKey({ columns: [table.tuneId, table.kind, table.item] })],
)

/** Layouts of its sheet that a tune keeps under a name. Letting one go sets `deletedAt`. */
export const layouts = sqliteTable(
  'layouts',
  {
    id: id(),
    tuneId: text('tune_id')
      .notNull()
      .references(() => tunes.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    layout: text('layout', { mode: 'json' }).$type<SheetLayout>().notNull(),
    createdAt: time('created_at').notNull(),
    deletedAt: time('deleted_at'),
  },
  (table) => [index('layouts_of_tune').on(table.tuneId, table.deletedAt)],
)

/** Orders of tunes for an evening. Deleting sets `deletedAt`. */
export const sets = sqliteTable('sets', {
  id: id(),
  name: text('name').notNull(),
  note: text('note').notNull().default(''),
  createdAt: time('created_at').notNull(),
  touchedAt: time('touched_at').notNull(),
  deletedAt: time('deleted_at'),
})

/** A tune in its place of a set, and how it is played there. */
export const setTunes = sqliteTable(
  'set_tunes',
  {
    id: id(),
    setId: text('set_id')
      .notNull()
      .references(() => sets.id, { onDelete: 'cascade' }),
    /** Null once the tune is erased for good. */
    tuneId: text('tune_id').references(() => tunes.id, { onDelete: 'set null' }),
    /** The tune's title when it was put in. */
    title: text('title').notNull(),
    /** Order in the set, from 0. */
    place: integer('place').notNull(),
    /** By name; null for the key the tune is written in. */
    key: text('key'),
    /** Beats a minute; null for the tune's own. */
    tempo: integer('tempo'),
    /** A version by its name; null for what is worked on. */
    version: text('version'),
    note: text('note').notNull().default(''),
    deletedAt: time('deleted_at'),
  },
  (table) => [index('tunes_of_set').on(table.setId, table.place)],
)
