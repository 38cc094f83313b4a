import { createContext, useContext, useDeferredValue, useMemo, type ReactNode } from 'react'
import type { PlayerBody } from '../../../core/player/playerLimits'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { TuneReading } from '../../../core/tune/tuneReading'
import { onInstrument, stringingOf } from '../../../core/tune/sounding'
import type { TuneState } from '../../../db/tunes'
import { usePlayerSettings } from '../player/PlayerContext'
import { useStableCallback } from '../words/stable'
import type { SessionView, TuneSession } from './session'
import { useTune } from './useTune'
import { useTuneReading } from './useTuneReading'

/**
 * The tune that is worked on: the one document, what is read from it, and the one way to change it.
 */
export interface KnownTune extends SessionView {
  id: string
  session: TuneSession
  /** The document as far as it has been read: behind the newest letters of a long chart. */
  settled: TuneDocument
  reading: TuneReading
  body: PlayerBody
  /** Open strings and capo, as grips remember them. */
  stringing: string
  /** Every edit goes this way: grips say for which instrument they are. */
  edit: (edit: TuneEdit) => void
  /** What of the tune could not be read from its row. */
  unread: TuneState['unread']
}

/** Letters of a chart that is read within a key press: about 100 bars. */
const READ_AT_ONCE = 2_000

const TuneContext = createContext<KnownTune | null>(null)

export function TuneProvider({ state, children }: { state: TuneState; children: ReactNode }) {
  const { session, view } = useTune(state)
  const { document } = view
  // In a long chart what is typed shows at once, and what is read from it follows as soon as the
  // page has time; a short one is read quicker than that.
  const deferred = useDeferredValue(document)
  const settled = document.text.length > READ_AT_ONCE && document.text !== deferred.text ? deferred : document
  const {
    settings: { instrument, hand },
  } = usePlayerSettings()
  const body = useMemo((): PlayerBody => ({ instrument, hand }), [instrument, hand])
  const reading = useTuneReading(settled, body)
  const stringing = useMemo(() => stringingOf(body, reading.chart.capo), [body, reading.chart.capo])
  const edit = useStableCallback((one: TuneEdit) => session.edit(onInstrument(one, stringing)))
  const { id, unread } = state
  const known = useMemo(
    () => ({ ...view, id, session, settled, reading, body, stringing, edit, unread }),
    [view, id, session, settled, reading, body, stringing, edit, unread],
  )
  return <TuneContext.Provider value={known}>{children}</TuneContext.Provider>
}

export function useKnownTune(): KnownTune {
  const tune = useContext(TuneContext)
  if (!tune) throw new Error('There is no tune around this part of the page.')
  return tune
}
