import { itemAt } from '../../../core/lists'
import { excerptQuestion } from '../../../core/tune/questions'
import { WORKER_POOLS } from '../../services/workers/workerPool'
import { faultsOnly } from '../../services/workers/workerFault'
import { useCallback, useEffect, useRef } from 'react'
import type { Put } from '../../../core/reharm/change'
import type { Voicing } from '../../../core/voicing/voicing'
import type { PlayerBody } from '../../../core/player/playerLimits'
import { excerptOf, type Schedule } from '../../services/sound/schedule'
import type { TuneDocument } from '../../../core/tune/document'
import { madeChord, type TuneReading } from '../../../core/tune/tuneReading'
import { useLatest } from '../../services/words/stable'

/** Beats that the chord before and the one behind are heard. */
const AROUND_BEATS = 2
/** What is tried is heard at least and at most so long, in beats. */
const LEAST = 2
const MOST = 8

interface Surroundings {
  reading: Pick<TuneReading, 'line'>
  voicings: ReadonlyMap<string, Voicing>
  document: Pick<TuneDocument, 'bass' | 'style' | 'tempo'>
  capo: number
  body: PlayerBody
  play: (schedule: Schedule) => void
}

/**
 * Sounds chords where they would stand: the chord before, they, and the chord behind, led together
 * with the grips that are there.
 */
export function useHearInPlace({
  reading,
  voicings,
  document,
  capo,
  body,
  play,
}: Surroundings): (index: number, span: number, puts: readonly Put[]) => void {
  const asking = useRef<AbortController | null>(null)
  const latest = useLatest(play)
  const { bass, style } = document
  useEffect(() => () => asking.current?.abort(), [])
  return useCallback(
    (index, span, puts) => {
      const before = reading.line.findLast((one) => one.home < index && madeChord(one))
      const following = reading.line.find((one) => one.home >= index + span && madeChord(one))
      const whole = puts.reduce((sum, { beats }) => sum + beats, 0)
      const scale = Math.min(MOST, Math.max(LEAST, whole)) / whole
      const around = (one: typeof before) =>
        one
          ? [
              {
                symbol: madeChord(one)!.canonical,
                beats: AROUND_BEATS,
                grip: voicings.get(one.key)?.frets ?? null,
              },
            ]
          : []
      const chords = [
        ...around(before),
        ...puts.map(({ chord, beats }) => ({ symbol: chord.canonical, beats: beats * scale, grip: null })),
        ...around(following),
      ]
      const question = excerptQuestion(
        chords.map(({ symbol }) => symbol),
        chords.flatMap(({ grip }, at) => (grip ? [[at, grip] as const] : [])) as [
          number,
          (number | null)[],
        ][],
        { bass, style },
        capo,
        body,
      )
      asking.current?.abort()
      const here = (asking.current = new AbortController())
      WORKER_POOLS.search.ask('lines', question, here.signal).then(({ lines: [line] }) => {
        if (!line || here.signal.aborted) return
        latest.current(
          excerptOf(line.voicings.map(({ midis }, at) => ({ beats: itemAt(chords, at).beats, midis }))),
        )
      }, faultsOnly)
    },
    [reading.line, voicings, bass, style, capo, body, latest],
  )
}
