import { data } from 'react-router'
import { slotsOf } from '../../../core/chart/chart'
import { parseChart } from '../../../core/chart/parseChart'
import type { TuneDocument } from '../../../core/tune/document'

/**
 * Chords of a chart of which pages, files and grips are still made while somebody waits: at most
 * two seconds of the server, which serves others too. Tunes have 20 to 300; what has more is
 * several tunes, or a text that was meant to be something else.
 */
export const MOST_CHORDS_MADE = 600

/** Why nothing is made of a tune here at once, and what to do; null where it is. */
export function tooMuch({
  title,
  text,
  choices,
}: Pick<TuneDocument, 'title' | 'text' | 'choices'>): string | null {
  const home = slotsOf(parseChart(text)).length
  const putIn = Object.values(choices).reduce((sum, one) => sum + one.chords.length - one.span, 0)
  const chords = home + Math.max(0, putIn)
  return chords <= MOST_CHORDS_MADE
    ? null
    : `“${title}” has ${chords} chords in this chart; pages, files and grips are made of up to ${MOST_CHORDS_MADE}. Put parts of it in charts of their own on the Chart step. Its text can be saved as it is.`
}

/**
 * Bars of a chart, as they are written, of which pages are drawn: a staff costs as much for a bar
 * with one chord as for one with four.
 */
export const MOST_BARS_DRAWN = 256

/** Why no pages are drawn of a tune, and what to do; null where they are. */
export function tooMuchToDraw(document: Pick<TuneDocument, 'title' | 'text' | 'choices'>): string | null {
  const bars = parseChart(document.text).bars.length
  return bars <= MOST_BARS_DRAWN
    ? tooMuch(document)
    : `“${document.title}” has ${bars} bars in this chart; pages are drawn of up to ${MOST_BARS_DRAWN}. Put parts of it in charts of their own on the Chart step, or write what comes again with |: :|. Its files and its text can be saved as it is.`
}

/** Something that is made of several tunes, of which one is too long. */
export class TooMuch extends Error {}

/** A page that is not shown for it. @throws a 422 answer in words */
export function refuseTooMuch(why: string | null): void {
  if (why !== null) throw data(why, { status: 422, statusText: 'More than is worked out here' })
}
