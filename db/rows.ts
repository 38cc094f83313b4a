import { and, eq, getTableColumns, inArray, sql } from 'drizzle-orm'
import { isDeepStrictEqual } from 'node:util'
import type { OtherChart, TuneDocument, VersionKept } from '../core/tune/document'
import { chartsOf } from '../core/tune/edits/chart'
import { groupedBy } from '../core/grouped'
import { openDocument, type OpenedDocument } from '../core/tune/stored'
import type { Db, Tx } from './connect'
import { preparedOn } from './prepared'
import { arrangements, charts, choices, tunes, voicings } from './schema'
import { summaryOf } from './summary'

/** The tables of a tune and its document: each read from the other, and only what is another is written. */

const newId = () => crypto.randomUUID()

/** What a tune's document is read by. */
const reads = preparedOn((db) => {
  const tune = sql.placeholder('tune')
  const ofTune = eq(arrangements.tuneId, tune)
  return {
    // The arrangement that is worked on has no version, and comes first.
    made: db
      .select()
      .from(charts)
      .innerJoin(arrangements, eq(arrangements.chartId, charts.id))
      // By the tune of both: there is no index from a chart to its arrangements.
      .where(and(eq(charts.tuneId, tune), ofTune))
      .orderBy(charts.place, arrangements.version)
      .prepare(),
    choices: db
      .select(getTableColumns(choices))
      .from(choices)
      .innerJoin(arrangements, eq(choices.arrangementId, arrangements.id))
      .where(ofTune)
      .orderBy(choices.slot)
      .prepare(),
    voicings: db
      .select(getTableColumns(voicings))
      .from(voicings)
      .innerJoin(arrangements, eq(voicings.arrangementId, arrangements.id))
      .where(ofTune)
      .orderBy(voicings.slot)
      .prepare(),
  }
})

/** The document that the rows of a tune make, and what of it this version could not read. */
export function documentIn(
  db: Db | Tx,
  { id, title }: Pick<typeof tunes.$inferSelect, 'id' | 'title'>,
): OpenedDocument {
  const asked = reads(db)
  const chosen = groupedBy(asked.choices.all({ tune: id }), (row) => row.arrangementId)
  const held = groupedBy(asked.voicings.all({ tune: id }), (row) => row.arrangementId)
  const madeOf = (made: ArrangementRead) =>
    contentOf(made, chosen.get(made.id) ?? [], held.get(made.id) ?? [])
  const byChart = groupedBy(asked.made.all({ tune: id }), (row) => row.charts.id)
  const all = [...byChart.values()].map((rows) => {
    const { charts: chart, arrangements: now } = rows[0]!
    const versions = rows
      .slice(1)
      .map(({ arrangements: one }) => ({ name: one.name, at: one.keptAt, ...madeOf(one) }))
    const { name, text, melody, phrases, lyrics } = chart
    return {
      shown: chart.shown,
      tempo: now.tempo,
      content: { name, text, melody, phrases, lyrics, ...madeOf(now), versions },
    }
  })
  const at = Math.max(
    0,
    all.findIndex((one) => one.shown),
  )
  const { name, ...shown } = all[at]!.content
  return openDocument({
    title,
    tempo: all[at]!.tempo,
    ...shown,
    chart: name,
    at,
    others: all.filter((_, index) => index !== at).map((one) => one.content),
  })
}
type ArrangementRead = typeof arrangements.$inferSelect

/** What a row of an arrangement and the document have alike. */
type Settings = Pick<
  typeof arrangements.$inferInsert,
  'colour' | 'bass' | 'style' | 'line' | 'conditions' | 'leading' | 'chordMelody' | 'rhythm'
>
const settingsOf = ({ colour, bass, style, line, conditions, leading, chordMelody, rhythm }: Settings) => ({
  colour,
  bass,
  style,
  line,
  conditions,
  leading,
  chordMelody,
  rhythm,
})

/** What was made of a chart: an arrangement with its choices and its grips. */
function contentOf(
  made: ArrangementRead,
  chosen: readonly (typeof choices.$inferSelect)[],
  held: readonly (typeof voicings.$inferSelect)[],
) {
  const fretsBySlot = (rows: typeof held) => Object.fromEntries(rows.map((row) => [row.slot, row.frets]))
  return {
    ...settingsOf(made),
    choices: Object.fromEntries(
      chosen.map(({ slot, chords, span, rule, madeAt, by, why }) => [
        slot,
        { chords, span, rule, at: madeAt, ...(by ? { by } : {}), ...(why === null ? {} : { why }) },
      ]),
    ),
    fixed: fretsBySlot(held.filter((row) => row.fixed)),
    grips: fretsBySlot(held),
    gripsOn: Object.fromEntries(
      held.flatMap(({ slot, instrument }) => (instrument === null ? [] : [[slot, instrument]])),
    ),
    called: Object.fromEntries(held.flatMap(({ slot, called }) => (called === null ? [] : [[slot, called]]))),
  }
}

/** A chart's own row, and each arrangement of it: the one worked on, then the versions kept. */
type ChartRow = Omit<typeof charts.$inferInsert, 'id' | 'tuneId'>
type ArrangementRow = Omit<typeof arrangements.$inferInsert, 'id' | 'tuneId' | 'chartId'>
interface KeptArrangement {
  row: ArrangementRow
  choices: Omit<typeof choices.$inferInsert, 'arrangementId'>[]
  voicings: Omit<typeof voicings.$inferInsert, 'arrangementId'>[]
}
interface ChartRows {
  row: ChartRow
  arrangements: KeptArrangement[]
}

const rowsOf = (document: TuneDocument): ChartRows[] =>
  chartsOf(document).map(({ name, text, melody, phrases, lyrics, versions, ...made }: OtherChart, place) => ({
    row: { name, text, melody, phrases, lyrics, place, shown: place === document.at },
    arrangements: [
      arrangementOf(made, { name: 'New line', version: null, keptAt: 0, tempo: document.tempo }),
      ...versions.map(({ name: kept, at, ...one }, version) =>
        arrangementOf(one, { name: kept, version, keptAt: at, tempo: document.tempo }),
      ),
    ],
  }))

/** One arrangement with its choices and grips. */
function arrangementOf(
  made: Omit<VersionKept, 'name' | 'at'>,
  of: Pick<ArrangementRow, 'name' | 'version' | 'keptAt' | 'tempo'>,
): KeptArrangement {
  return {
    row: { ...of, ...settingsOf(made) },
    choices: Object.entries(made.choices).map(([slot, { chords, span, rule, at, by, why }]) => ({
      slot,
      chords,
      span,
      rule,
      madeAt: at,
      by: by ?? null,
      why: why ?? null,
    })),
    voicings: Object.entries({ ...made.grips, ...made.fixed }).map(([slot, frets]) => ({
      slot,
      frets,
      fixed: slot in made.fixed,
      instrument: made.gripsOn[slot] ?? null,
      called: made.called[slot] ?? null,
    })),
  }
}

/** What a tune is found by stays while its chart does: it takes a reading of all chords. */
function soughtBefore(tx: Tx, id: string, { text }: TuneDocument, before: TuneDocument | null) {
  if (before?.text !== text) return undefined
  return tx.select({ summary: tunes.summary }).from(tunes).where(eq(tunes.id, id)).get()?.summary?.sought
}

/**
 * Makes the rows of a tune agree with a document.
 * @param before what its rows say now, where that is known: what is the same in both is left as it is
 */
export function writeRows(
  tx: Tx,
  id: string,
  document: TuneDocument,
  before: TuneDocument | null = null,
): void {
  tx.update(tunes)
    .set({ title: document.title, summary: summaryOf(document, soughtBefore(tx, id, document, before)) })
    .where(eq(tunes.id, id))
    .run()
  const there = tx
    .select({ id: charts.id })
    .from(charts)
    .where(eq(charts.tuneId, id))
    .orderBy(charts.place)
    .all()
  const was = before ? rowsOf(before) : []
  const known = was.length === there.length ? was : []
  const now = rowsOf(document)
  // What hangs on a chart goes with it.
  const gone = there.slice(Math.min(known.length, now.length)).map((one) => one.id)
  if (gone.length > 0) tx.delete(charts).where(inArray(charts.id, gone)).run()
  now.forEach((chart, place) => {
    const old = known[place]
    if (!old || !changeChart(tx, there[place]!.id, old, chart)) {
      if (old) tx.delete(charts).where(eq(charts.id, there[place]!.id)).run()
      insertChart(tx, id, chart)
    }
  })
}

function insertChart(tx: Tx, tuneId: string, { row, arrangements: all }: ChartRows): void {
  const chartId = newId()
  tx.insert(charts)
    .values({ id: chartId, tuneId, ...row })
    .run()
  all.forEach((one) => insertArrangement(tx, tuneId, chartId, one))
}

function insertArrangement(tx: Tx, tuneId: string, chartId: string, one: KeptArrangement): void {
  const arrangementId = newId()
  tx.insert(arrangements)
    .values({ id: arrangementId, tuneId, chartId, ...one.row })
    .run()
  writeSlots(tx, arrangementId, choices, [], one.choices)
  writeSlots(tx, arrangementId, voicings, [], one.voicings)
}

/** False where the arrangements of the chart in the book are not those it is said to have. */
function changeChart(tx: Tx, chartId: string, before: ChartRows, after: ChartRows): boolean {
  if (isDeepStrictEqual(before, after)) return true
  const there = tx
    .select({ id: arrangements.id, tuneId: arrangements.tuneId })
    .from(arrangements)
    .where(eq(arrangements.chartId, chartId))
    // The one that is worked on has no number and comes first.
    .orderBy(arrangements.version)
    .all()
  if (there.length !== before.arrangements.length) return false
  if (!isDeepStrictEqual(before.row, after.row))
    tx.update(charts).set(after.row).where(eq(charts.id, chartId)).run()
  const gone = there.slice(after.arrangements.length).map(({ id }) => id)
  if (gone.length > 0) tx.delete(arrangements).where(inArray(arrangements.id, gone)).run()
  after.arrangements.forEach((one, at) => {
    const [kept, old] = [there[at], before.arrangements[at]]
    if (!kept || !old) return insertArrangement(tx, there[0]!.tuneId, chartId, one)
    if (!isDeepStrictEqual(old.row, one.row))
      tx.update(arrangements).set(one.row).where(eq(arrangements.id, kept.id)).run()
    writeSlots(tx, kept.id, choices, old.choices, one.choices)
    writeSlots(tx, kept.id, voicings, old.voicings, one.voicings)
  })
  return true
}

/** The rows of an arrangement by slot: those that are gone or others are taken out, those that are new or others put in. */
function writeSlots(
  tx: Tx,
  arrangementId: string,
  table: typeof choices | typeof voicings,
  before: readonly { slot: string }[],
  after: readonly { slot: string }[],
): void {
  const [was, is] = [bySlot(before), bySlot(after)]
  const changed = after.filter((one) => !isDeepStrictEqual(was.get(one.slot), one))
  const stale = [
    ...before.filter(({ slot }) => !is.has(slot)),
    ...changed.filter(({ slot }) => was.has(slot)),
  ].map(({ slot }) => slot)
  if (stale.length > 0)
    tx.delete(table)
      .where(and(eq(table.arrangementId, arrangementId), inArray(table.slot, stale)))
      .run()
  const rows = changed.map((one) => ({ arrangementId, ...one }))
  if (rows.length > 0)
    tx.insert(table)
      .values(rows as never)
      .run()
}

const bySlot = <T extends { slot: string }>(rows: readonly T[]) => new Map(rows.map((row) => [row.slot, row]))
