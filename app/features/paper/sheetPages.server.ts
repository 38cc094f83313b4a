import { createHash } from 'node:crypto'
import { homeKey } from '../../../core/analysis/analyse'
import type { NumeralSchool } from '../../../core/analysis/numeral'
import { parseChart } from '../../../core/chart/parseChart'
import { keyName } from '../../../core/pitch/key'
import type { PlayerSettings } from '../../../core/player/playerSettings'
import { showsGrips, type SheetLayout } from '../../../core/sheet/sheetLayout'
import type { TuneDocument } from '../../../core/tune/document'
import { applyEdit } from '../../../core/tune/tuneEdit'
import { asVersion } from '../../../core/tune/versions'
import type { Pages } from '../../../paper/pages'
import { runJob } from '../../services/workers/pool.server'

/** How a tune is wanted on paper or on the stand, where it is not as it is worked on. */
export interface TuneAsked {
  version: string | null
  /** A key by name. */
  key: string | null
  /** Beats a minute. */
  tempo: number | null
}
export const AS_IT_IS: TuneAsked = { version: null, key: null, tempo: null }

/** The tune as it was asked for; null where the version is not kept any more. */
export function tuneAsked(document: TuneDocument, { version, key, tempo }: TuneAsked): TuneDocument | null {
  const kept = version === null ? document : asVersion(document, version)
  if (!kept) return null
  const home = keyName(homeKey(parseChart(kept.text)))
  const inKey = key === null || key === home ? kept : applyEdit(kept, { kind: 'transpose', to: key })
  return tempo === null ? inKey : { ...inKey, tempo }
}

interface SheetAsked {
  layout: SheetLayout
  player: PlayerSettings
  school: NumeralSchool
  /** Grips the tune lacks are looked for, which takes seconds for a long one. */
  fill: boolean
  /** What a set says of the tune. */
  note?: string
  /** A window on the stand, in points, in place of paper. */
  window?: { width: number; height: number }
  /** Aborted where nobody waits any more. */
  signal?: AbortSignal | undefined
}

/**
 * Things worked out lately, by what they were worked out of: turning a page or asking for the PDF
 * does not lead the tune anew.
 */
class Lately<Value> {
  private readonly kept = new Map<string, Value>()
  constructor(private readonly most: number) {}

  async of(parts: readonly unknown[], make: () => Promise<Value>): Promise<Value> {
    const key = createHash('sha1').update(JSON.stringify(parts)).digest('base64')
    const known = this.kept.get(key)
    if (known !== undefined) return known
    const value = await make()
    this.kept.set(key, value)
    if (this.kept.size > this.most) this.kept.delete(this.kept.keys().next().value!)
    return value
  }
}
const pagesLately = new Lately<Pages>(60)
const gripsLately = new Lately<TuneDocument>(200)

/**
 * The tune with a grip for each of its chords; those it lacks are looked for, which takes seconds
 * for a long one. @throws where nobody waits for it
 */
export const withGrips = (
  document: TuneDocument,
  { instrument, hand }: PlayerSettings,
  signal: AbortSignal | undefined,
): Promise<TuneDocument> =>
  gripsLately.of([document, instrument, hand], () =>
    runJob('everyGrip', { document, body: { instrument, hand } }, { signal }),
  )

/** The pages of a tune's sheet. @throws where nobody waits for them */
export async function sheetPages(document: TuneDocument, asked: SheetAsked): Promise<Pages> {
  const { layout, player, school, fill, note = '', window, signal } = asked
  const { instrument, hand, leftHanded } = player
  return pagesLately.of(
    [document, layout, instrument, hand, leftHanded, school, fill, note, window],
    async () => {
      const whole = fill && showsGrips(layout) ? await withGrips(document, player, signal) : document
      return runJob(
        'pages',
        { document: whole, player: { instrument, hand, leftHanded }, layout, school, note, window },
        { signal },
      )
    },
  )
}
