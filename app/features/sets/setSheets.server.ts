import type { NumeralSchool } from '../../../core/analysis/numeral'
import { engravedWords } from '../../../core/chord/engraved'
import type { PlayerSettings } from '../../../core/player/playerSettings'
import type { SheetLayout } from '../../../core/sheet/sheetLayout'
import type { Db } from '../../../db/connect'
import { layoutsOf } from '../../../db/layouts'
import { readSet, type SetTune } from '../../../db/sets'
import { readTune } from '../../../db/tunes'
import type { SetOnPaper } from '../../../paper/contents'
import { runJob } from '../../services/workers/pool.server'
import { tooMuchToDraw, TooMuch } from '../paper/bound.server'
import { sheetPages, tuneAsked } from '../paper/sheetPages.server'

interface SetPrinted {
  /** Of tunes that keep none of the name that is asked for. */
  layout: SheetLayout
  /** Name of a layout that tunes keep. */
  own?: string | null
  player: PlayerSettings
  school: NumeralSchool
  /** Told how much of the whole is done. @throws to stop */
  onDone?: (done: number, of: number) => void
  signal?: AbortSignal
}

/** How a tune is played in a set, in words. */
export const howInWords = ({ key, tempo, version, note }: SetTune): string =>
  [
    ...(key ? [`in ${engravedWords(key)}`] : []),
    ...(tempo === null ? [] : [`${tempo} beats a minute`]),
    ...(version ? [version] : []),
    ...(note ? [note] : []),
  ].join(' · ')

/** A tune's own layout of a name, on the paper of the whole; the usual one where it keeps none. */
function ownLayout(db: Db, tuneId: string, name: string | null, usual: SheetLayout): SheetLayout {
  const kept = name === null ? undefined : layoutsOf(db, tuneId).find((one) => one.name === name)
  return kept ? { ...kept.layout, paper: usual.paper } : usual
}

/**
 * A set as one PDF: its contents, then the sheet of each tune. Tunes that are not in the songbook
 * any more are left out of it.
 * @throws {TooMuch} with the tune that is too long for a sheet
 */
export async function setPdf(
  db: Db,
  id: string,
  { layout, own: wanted = null, player, school, onDone, signal }: SetPrinted,
): Promise<{ pdf: Uint8Array; name: string } | null> {
  const set = readSet(db, id)
  if (!set) return null
  const tunes: SetOnPaper['tunes'][number][] = []
  const steps = 2 * set.tunes.length
  for (const tune of set.tunes) {
    const state = tune.deleted ? null : readTune(db, tune.tuneId!)
    // A version that is not kept any more gives way to what is worked on.
    const document =
      state && (tuneAsked(state.document, tune) ?? tuneAsked(state.document, { ...tune, version: null }))
    const tooLong = document && tooMuchToDraw(document)
    if (tooLong) throw new TooMuch(tooLong)
    if (document)
      tunes.push({
        title: tune.title,
        words: howInWords(tune),
        pages: await sheetPages(document, {
          layout: ownLayout(db, tune.tuneId!, wanted, layout),
          player,
          school,
          fill: true,
          note: tune.note,
          signal,
        }),
      })
    onDone?.(tunes.length, steps)
  }
  const { name, note } = set
  const pdf = await runJob(
    'setPdf',
    { name, note, layout, tunes },
    // The contents are the first sheet of all.
    { signal, onProgress: (done) => onDone?.(tunes.length + Math.max(0, done - 1), steps), mostMs: MOST_MS },
  )
  return { pdf, name }
}
/** A set of a hundred long tunes may be printed for so long, in ms. */
const MOST_MS = 5 * 60_000
