import { blob, index, integer, primaryKey, real, sqliteTable, text } from 'drizzle-orm/sqlite-core'
import { GRADES, ITEM_KINDS } from '../core/practice/grade'
import type { Sought } from '../core/analysis/sought'
import type { ItemRecord } from '../core/practice/record'
import type { SheetLayout } from '../core/sheet/layout'
import type { TuneDocument } from '../core/tune/document'
import { PLAIN_RHYTHM } from '../core/tune/rhythmSchema'

/** Times are milliseconds since 1970. Ids are UUIDs. */
const id = () => text('id').primaryKey()
const time = (name: string) => integer(name, { mode: 'number' })

/** Key by name (null where there are no chords), metre, the number of bars, and how far the tune is; summaries of earlier versions do not say that. */
export interface TuneSummary {
  key: string | null
  meter: string
  bars: number
  far?: HowFarATune
  /** What its changes are found by; null without chords, missing in summaries of earlier versions. */
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

/** A tune of the songbook. Deleting sets `deletedAt`; it is erased only when the list of deleted tunes is emptied by hand. */
export const tunes = sqliteTable(
  'tunes',
  {
    id: id(),
    title: text('title').notNull(),
    createdAt: time('created_at').notNull(),
    /** When something in it was last changed. */
    touchedAt: time('touched_at').notNull(),
    deletedAt: time('deleted_at'),
    /** The revision that the rows below agree with. Undo and redo move it. */
    head: text('head').notNull(),
    /** What the songbook says of the chart shown, so that it lists tunes without reading their charts; null until it is written. */
    summary: text('summary', { mode: 'json' }).$type<TuneSummary>(),
    /** Words the player sorts tunes by. They are the book's, not the document's: no step of undo. */
    tags: text('tags', { mode: 'json' }).$type<string[]>().notNull().default([]),
    /** Where it was left; null before it was opened. */
    place: text('place', { mode: 'json' }).$type<TunePlace>(),
  },
  (table) => [index('tunes_by_touch').on(table.deletedAt, table.touchedAt)],
)

/** A chart of a tune, as text. The one shown is the home line. */
export const charts = sqliteTable(
  'charts',
  {
    id: id(),
    tuneId: text('tune_id')
      .notNull()
      .references(() => tunes.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    text: text('text').notNull(),
    /** The tune's melody over it: bar, beat, length in beats, pitch by name. */
    melody: text('melody', { mode: 'json' }).$type<TuneDocument['melody']>().notNull().default([]),
    /** Words sung over it: bar, beat, text. */
    lyrics: text('lyrics', { mode: 'json' }).$type<TuneDocument['lyrics']>().notNull().default([]),
    /** Places where a phrase begins, or does not, by the player's hand. */
    phrases: text('phrases', { mode: 'json' }).$type<TuneDocument['phrases']>().notNull().default({}),
    /** Order among the tune's charts, from 0. */
    place: integer('place').notNull().default(0),
    /** The one that is worked on; each tune has one. */
    shown: integer('shown', { mode: 'boolean' }).notNull().default(true),
  },
  (table) => [index('charts_of_tune').on(table.tuneId)],
)

/** What is being made of a chart, and what was kept of it under a name. */
export const arrangements = sqliteTable(
  'arrangements',
  {
    id: id(),
    tuneId: text('tune_id')
      .notNull()
      .references(() => tunes.id, { onDelete: 'cascade' }),
    chartId: text('chart_id')
      .notNull()
      .references(() => charts.id, { onDelete: 'cascade' }),
    name: text('name').notNull(),
    /** Null for the one that is worked on; each chart has one. For a version kept under its name: its order, from 0. */
    version: integer('version'),
    keptAt: time('kept_at').notNull().default(0),
    /** Where the one colour control stands, 0 to 4. */
    colour: integer('colour').notNull(),
    bass: text('bass', { enum: ['chord', 'any'] }).notNull(),
    style: text('style').notNull(),
    /** Which of the lines found is kept, from 0. */
    line: integer('line').notNull(),
    /** What the lines have to keep to. */
    conditions: text('conditions', { mode: 'json' })
      .$type<TuneDocument['conditions']>()
      .notNull()
      .default([]),
    /** A style of the player's own, loop, position and drone. */
    leading: text('leading', { mode: 'json' })
      .$type<TuneDocument['leading']>()
      .notNull()
      .default({ own: null, loop: false, window: null, drone: null } as TuneDocument['leading']),
    /** The chord melody: how it is made, grips by hand, and the way that is kept. */
    chordMelody: text('chord_melody', { mode: 'json' })
      .$type<TuneDocument['chordMelody']>()
      .notNull()
      .default({
        density: 'chord',
        texture: 'full',
        fills: false,
        window: null,
        topString: 1,
        line: 0,
        fixed: {},
        kept: [],
      }),
    /** Figure, space, feel and band. */
    rhythm: text('rhythm', { mode: 'json' }).$type<TuneDocument['rhythm']>().notNull().default(PLAIN_RHYTHM),
    /** Beats a minute. */
    tempo: integer('tempo').notNull(),
  },
  (table) => [index('arrangements_of_tune').on(table.tuneId)],
)

/** Chords chosen in place of what the control gives. */
export const choices = sqliteTable(
  'choices',
  {
    arrangementId: text('arrangement_id')
      .notNull()
      .references(() => arrangements.id, { onDelete: 'cascade' }),
    /** `bar:beat` of the home line, both from 1. */
    slot: text('slot').notNull(),
    /** What stands there, in order, with lengths in proportion. */
    chords: text('chords', { mode: 'json' })
      .$type<{ symbol: string; beats: number }[]>()
      .notNull()
      .default([]),
    /** How many chords of the home line it takes the place of. */
    span: integer('span').notNull().default(1),
    madeAt: time('made_at').notNull().default(0),
    rule: text('rule').notNull(),
    /** Put there by a way through the whole tune; null for a choice by hand. */
    by: text('by', { enum: ['tune'] }),
    /** The reason it was chosen for; null where none was kept. */
    why: text('why'),
  },
  (table) => [primaryKey({ columns: [table.arrangementId, table.slot] })],
)

/** The grip kept for each chord. */
export const voicings = sqliteTable(
  'voicings',
  {
    arrangementId: text('arrangement_id')
      .notNull()
      .references(() => arrangements.id, { onDelete: 'cascade' }),
    slot: text('slot').notNull(),
    /** From the lowest string: fret, 0 open, null not played. */
    frets: text('frets', { mode: 'json' }).$type<(number | null)[]>().notNull(),
    /** Chosen by hand: the line is led around it. */
    fixed: integer('fixed', { mode: 'boolean' }).notNull(),
    /** Open strings and capo it was made for; null for a grip kept before that was written down. */
    instrument: text('instrument'),
    /** What the player calls it knowingly, where that is not what it sounds. */
    called: text('called'),
  },
  (table) => [primaryKey({ columns: [table.arrangementId, table.slot] })],
)

/** Every state a tune has been in. Undo goes to the parent, redo to the newest child; none is erased. */
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

/** Writes that were done, by the id their tab gave them: one whose answer was lost is sent again, known here, and not done twice. */
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

/** Passes of what is practised. They belong to no document and to no undo of a tune; taking one out sets `deletedAt`. */
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

/** What the passes of one item say now, written with each of them, so that a plan and the songbook need not read the log. */
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
