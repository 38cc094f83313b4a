import { NEAR_WRITTEN } from '../../../core/chart/beats'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { HarmonisedLine } from '../../../core/melody/melodyLine'
import { pitchNear } from '../../../core/melody/entry'
import { soundAt } from '../../../core/neck/instrument'
import type { Key } from '../../../core/pitch/key'
import { excerptQuestion } from '../../../core/tune/questions'
import type { PlayerBody } from '../../../core/player/playerLimits'
import { excerptOf, type Schedule } from '../../services/sound/schedule'
import type { TuneDocument } from '../../../core/tune/document'
import { WORKER_POOLS } from '../../services/workers/workerPool'
import { faultsOnly } from '../../services/workers/workerFault'
import { useStableCallback } from '../../services/words/stable'
import type { TuneReading } from '../../../core/tune/tuneReading'
import { melodyLimits } from '../../../core/player/melodyLimits'
import { useKeptState } from '../../services/selection/SelectionContext'
import { lineSchedule } from './melodySchedule'
import { placeOfKey } from './placeAt'
import { useMelody } from './useMelody'
import { useMelodyKey } from './useMelodyKey'
import { useMelodyShown } from './useMelodyShown'
import { usePlayingIn } from './usePlayingIn'
import { useTriedUnder } from './useTriedUnder'
import { useWriting } from './useWriting'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

interface MelodyStepOf {
  document: TuneDocument
  reading: TuneReading
  songKey: Key
  body: PlayerBody
  /** Beats a minute at which it is heard. */
  tempo: number
  /** The event that sounds, by its index; null while none does. */
  sounding: number | null
  /** The plain chords from a place on, to play a melody in over. */
  accompaniment: () => { schedule: Schedule; countIn: number }
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
  /**
   * Resolves when it has begun, with the time (of performance.now) at which its first beat is
   * heard.
   */
  onPlay: (schedule: Schedule) => Promise<number | null>
  onStop: () => void
  /** A chord of the home line is under what was selected. */
  onHome: (index: number) => void
}

/** Beats each chord of an introduction or ending is heard for. */
const HEARD_BEATS = 2

/** Everything the Melody step knows and does. */
export function useMelodyStep({
  document,
  reading,
  songKey,
  body,
  tempo,
  sounding,
  accompaniment,
  onEdit,
  onHear,
  onPlay,
  onStop,
  onHome,
}: MelodyStepOf) {
  const [threads, setThreads] = useKeptState('melody.threads', true)
  const [neck, setNeck] = useKeptState('melody.neck', false)
  const [bringIn, setBringIn] = useState(false)
  const { chart } = reading
  const [writingNow, setWritingNow] = useState(false)
  const view = useMelody({ document, reading, body, writing: writingNow, onEdit })
  const writing = useWriting({
    chart,
    clock: view.clock,
    notes: view.notes,
    songKey,
    onEdit,
    onHear,
    onSelect: view.select,
  })
  if (writingNow !== writing.pen.on) setWritingNow(writing.pen.on)
  const limits = useMemo(() => melodyLimits(body, chart.capo, 'any'), [body, chart.capo])

  const playing = usePlayingIn({
    chart,
    notes: view.notes,
    place: writing.begin,
    songKey,
    grid: writing.pen.grid,
    tempo,
    onHear,
    onStop,
    open: body.instrument.tuning.map((_, string) => soundAt(limits.instrument, string, 0)),
    frets: body.instrument.cutaway - chart.capo,
    onStart: async () => {
      const { schedule, countIn } = accompaniment()
      const heard = await onPlay(schedule)
      return (heard ?? performance.now()) + (countIn * 60_000) / tempo
    },
    onPlayed: (melody, count) => {
      writing.write(melody, `${count} notes played in`)
    },
  })

  const tried = useTriedUnder(view, onEdit, onHear)
  const select = useStableCallback((key: string) => {
    view.select(key)
    tried.leave()
    const { bar, beat } = placeOfKey(key)
    const home = reading.chords.findLastIndex(
      ({ slot }) => slot.bar === bar && slot.beat <= beat + NEAR_WRITTEN,
    )
    if (home >= 0) onHome(home)
    if (writing.pen.on) writing.change({ caret: view.clock.at({ bar, beat }) })
  })
  const { put, putFret } = usePutting(chart, limits, writing, songKey, onHear)

  const takeUpPen = () => writing.takeUp(view.selected === null ? null : placeOfKey(view.selected))
  const onKey = useMelodyKey({
    view,
    writing,
    tried,
    fixed: document.chordMelody.fixed,
    onSelect: select,
    onEdit,
    onHear,
    onPen: takeUpPen,
    onThreads: () => setThreads(!threads),
  })
  const shown = useMelodyShown({
    view,
    songKey,
    sounding,
    writing,
    playing,
    strings: body.instrument.tuning.length,
    capo: chart.capo,
    threads,
    onSelect: select,
    onPut: put,
  })

  const hearChords = useHearChords(document, chart.capo, body, onPlay)
  return {
    takeUpPen,
    threads,
    setThreads,
    neck,
    setNeck,
    bringIn,
    setBringIn,
    cursor: tried.at,
    view,
    writing,
    playing,
    limits,
    shown,
    onKey,
    take: tried.take,
    select,
    putFret,
    hearChords,
    hearLine: (line: HarmonisedLine) => void onPlay(lineSchedule(chart, line.notes)),
  }
}
export type MelodyStepState = ReturnType<typeof useMelodyStep>

/**
 * Notes put in by a touch: on the staff, or on the neck, where one that is not written is heard.
 */
function usePutting(
  chart: TuneReading['chart'],
  limits: ReturnType<typeof melodyLimits>,
  writing: ReturnType<typeof useWriting>,
  songKey: Key,
  onHear: (midis: readonly number[]) => void,
) {
  const put = useStableCallback(
    ({ bar, share }: { bar: number; share: number }, pitch: Parameters<typeof writing.put>[0]) => {
      const here = chart.bars.find(({ number }) => number === bar)
      if (!here) return
      const beat = Math.min(
        here.from + here.beats - 1 / writing.pen.grid,
        here.from + Math.floor(share * here.beats * writing.pen.grid + 0.35) / writing.pen.grid,
      )
      writing.put(pitch, { bar, beat })
    },
  )
  const putFret = (string: number, fret: number) => {
    if (fret > 0 && fret <= chart.capo) return
    const midi = soundAt(limits.instrument, string, fret <= chart.capo ? 0 : fret)
    if (writing.pen.on) writing.put(pitchNear(midi, songKey, true))
    else onHear([midi])
  }
  return { put, putFret }
}

/** A few chords heard in grips of their own. */
function useHearChords(
  { bass, style }: Pick<TuneDocument, 'bass' | 'style'>,
  capo: number,
  body: PlayerBody,
  play: (schedule: Schedule) => Promise<unknown>,
) {
  const asking = useRef<AbortController | null>(null)
  useEffect(() => () => asking.current?.abort(), [])
  return (symbols: string[]) => {
    asking.current?.abort()
    const here = (asking.current = new AbortController())
    WORKER_POOLS.search
      .ask('lines', excerptQuestion(symbols, [], { bass, style }, capo, body), here.signal)
      .then(({ lines: [line] }) => {
        if (!line || here.signal.aborted) return
        void play(excerptOf(line.voicings.map(({ midis }) => ({ beats: HEARD_BEATS, midis }))))
      }, faultsOnly)
  }
}
