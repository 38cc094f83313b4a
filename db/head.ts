import { and, eq, inArray } from 'drizzle-orm'
import type { Frets } from '../core/neck/instrument'
import { chartsOf } from '../core/tune/edits/chartEdits'
import type { TuneDocument } from '../core/tune/document'
import { DOCUMENT_VERSION } from '../core/tune/stored'
import type { Tx } from './connect'
import { gripUses, tunes } from './schema'
import { summaryOf } from './summary'

/**
 * What the book keeps of a tune beside its history: the document of its head, and what is found by
 * it.
 */

/** A grip as it is looked up. */
export const fretsKey = (frets: Frets): string => JSON.stringify(frets)

/**
 * What the songbook searches: the text of the chart shown and the words sung over it, a line each.
 */
const wordsOf = ({ text, lyrics }: TuneDocument): string =>
  [text, ...lyrics.map((sung) => sung.text)].join('\n')

/** Shapes of the lines that are worked on, in all charts of the tune. */
const shapesIn = (document: TuneDocument): Set<string> =>
  new Set(
    chartsOf(document).flatMap(({ grips, fixed }) => Object.values({ ...grips, ...fixed }).map(fretsKey)),
  )

/**
 * Writes the head of a tune. @param before what it said, where that is known: what is found by it
 * is written where it changed
 */
export function writeHead(
  tx: Tx,
  id: string,
  document: TuneDocument,
  before: TuneDocument | null = null,
): void {
  const sought = before?.text === document.text ? summaryIn(tx, id)?.sought : undefined
  tx.update(tunes)
    .set({
      title: document.title,
      summary: summaryOf(document, sought),
      words: wordsOf(document),
      document,
      version: DOCUMENT_VERSION,
    })
    .where(eq(tunes.id, id))
    .run()
  const [was, is] = [before ? shapesIn(before) : shapesKept(tx, id), shapesIn(document)]
  const gone = [...was].filter((shape) => !is.has(shape))
  if (gone.length > 0)
    tx.delete(gripUses)
      .where(and(eq(gripUses.tuneId, id), inArray(gripUses.shape, gone)))
      .run()
  const added = [...is].filter((shape) => !was.has(shape))
  if (added.length > 0)
    tx.insert(gripUses)
      .values(added.map((shape) => ({ tuneId: id, shape })))
      .run()
}

/** What a tune is found by stays while its chart does: it takes a reading of all chords. */
const summaryIn = (tx: Tx, id: string) =>
  tx.select({ summary: tunes.summary }).from(tunes).where(eq(tunes.id, id)).get()?.summary

const shapesKept = (tx: Tx, id: string): Set<string> =>
  new Set(
    tx
      .select({ shape: gripUses.shape })
      .from(gripUses)
      .where(eq(gripUses.tuneId, id))
      .all()
      .map(({ shape }) => shape),
  )
