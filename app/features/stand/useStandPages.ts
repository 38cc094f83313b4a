import { itemAt } from '../../../core/lists'
import { faultWords } from '../../../core/result'
import { useEffect, useState } from 'react'
import type { Page } from '../../../paper/pages'
import { keepForReading, readsThroughWorker } from '../../services/offline/offline'
import type { TuneHeard } from '../../services/sound/tuneHeard'
import { pagesAddress, type StandTune, type StandWindow } from './standAddress'
import { useLatest } from '../../services/words/stable'

/**
 * A tune that is loaded: its pages for the window as it is and turned by a quarter, and how it is
 * heard.
 */
export interface StandLoaded {
  pages: Page[]
  turned: Page[]
  heard: TuneHeard
}

/**
 * Loads the tunes of a stand, the one that is shown first, so that later nothing needs the network.
 * What was loaded for another window stays in sight until the new pages are there, or where they
 * cannot be had.
 */
export function useStandPages(tunes: readonly StandTune[], at: number, window: StandWindow | null) {
  const [loaded, setLoaded] = useState<ReadonlyMap<number, StandLoaded>>(new Map())
  const [fault, setFault] = useState<string | null>(null)
  const [waiting, setWaiting] = useState(tunes.length)
  const first = useLatest(at)
  const { shown, width, height } = window ?? { shown: 'grips', width: 0, height: 0 }
  useEffect(() => {
    if (width === 0) return
    const own = new AbortController()
    const load = async () => {
      const order = tunes.map((_, index) => (first.current + index) % tunes.length)
      setWaiting(order.length)
      for (const index of order) {
        try {
          const one = await fetched(itemAt(tunes, index), { shown, width, height }, own.signal)
          setLoaded((before) => new Map(before).set(index, one))
          setFault(null)
        } catch (error) {
          if (own.signal.aborted) return
          setFault(
            error instanceof TypeError
              ? 'The server does not answer: what was loaded stays.'
              : faultWords(error),
          )
        }
        setWaiting((left) => left - 1)
      }
    }
    void load()
    return () => own.abort()
  }, [tunes, shown, width, height, first])
  return { loaded, fault, waiting }
}

async function fetched(tune: StandTune, window: StandWindow, signal: AbortSignal): Promise<StandLoaded> {
  const address = pagesAddress(tune, window)
  const answer = await fetch(address, { signal })
  if (!answer.ok) throw new Error(await answer.text())
  const read = (await answer.json()) as StandLoaded
  if (!readsThroughWorker()) keepForReading([address])
  return read
}
