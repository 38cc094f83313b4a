import { NEAR_WRITTEN } from '../../../core/chart/beats'
import { useEffect, useMemo, useRef, useState } from 'react'
import type { NoteChoice } from '../../../core/melody/harmonise'
import { placeKey, type HarmonisedLine } from '../../../core/melody/line'
import { pitchNear } from '../../../core/melody/entry'
import { soundAt } from '../../../core/neck/instrument'
import type { Key } from '../../../core/pitch/key'
import { excerptQuestion } from '../../../core/tune/questions'
import type { PlayerBody } from '../../../core/player/limits'
import { excerptOf, type Schedule } from '../../services/sound/schedule'
import type { TuneDocument } from '../../../core/tune/document'
import { OFFICES } from '../../services/workers/client'
import { faultsOnly } from '../../services/workers/workerFault'
import { useSteady } from '../../services/words/steady'
import type { TuneReading } from '../../../core/tune/reading'
import { melodyLimits } from '../../../core/player/melodyLimits'
import { useKeptState } from '../../services/selection/SelectionContext'
import type { MelodyShown } from '../../services/notation/MelodySystem'
import { lineSchedule } from './melodySchedule'
import { useMelody } from './useMelody'
import { usePlayingIn } from './usePlayingIn'
import { useWriting } from './useWriting'
import type { TuneEdit } from '../../../core/tune/edit'

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
  /** Resolves when it has begun, with the time (of performance.now) at which its first beat is heard. */
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
  const [cursor, setCursor] = useState<{ of: string; at: number } | null>(null)
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
  useEffect(() => setWritingNow(writing.pen.on), [writing.pen.on])
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

  const select = useSteady((key: string) => {
    view.select(key)
    setCursor(null)
    const [bar, beat] = key.split(':').map(Number)
    const home = reading.chords.findLastIndex(
      ({ slot }) => slot.bar === bar && slot.beat <= beat! + NEAR_WRITTEN,
    )
    if (home >= 0) onHome(home)
    if (writing.pen.on) writing.change({ caret: view.clock.at({ bar: bar!, beat: beat! }) })
  })
  const put = useSteady(
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

  const of = `${view.selected ?? ''}/${view.choices?.length ?? 0}`
  const at = cursor?.of === of ? cursor.at : null
  const take = (choice: NoteChoice) => {
    const { note } = choice
    const key = placeKey(note)
    onEdit({
      kind: 'melody-fix',
      did: `${note.under === 'single' ? 'note alone' : (note.chord?.canonical ?? 'grip')} in ${note.bar === 0 ? 'the upbeat' : `bar ${note.bar}`}`.slice(
        0,
        80,
      ),
      fixed: {
        [key]: {
          frets: [...note.voicing.frets],
          symbol:
            note.under === 'single' || !note.chord || note.chord.tones.length === 0
              ? null
              : note.chord.canonical,
        },
      },
    })
    onHear(note.voicing.midis)
  }
  const keysOfEvents = useMemo(
    () =>
      [...new Set([...view.events.map(({ key }) => key), ...view.notes.map(placeKey)])].sort(
        (a, b) => timeOf(a, view.clock) - timeOf(b, view.clock),
      ),
    [view.events, view.notes, view.clock],
  )

  const selectedPlace = view.selected === null ? null : placeOf(view.selected)

  /** Keys of the Melody step; true when one was used. */
  const onKey = (event: Pick<KeyboardEvent, 'key' | 'shiftKey' | 'target'>): boolean => {
    if (writing.onKey(event)) return true
    const { key } = event
    const { choices } = view
    switch (key) {
      case 'ArrowLeft':
      case 'ArrowRight': {
        const here = keysOfEvents.indexOf(view.selected ?? '')
        const next =
          keysOfEvents[Math.max(0, Math.min(keysOfEvents.length - 1, here + (key === 'ArrowLeft' ? -1 : 1)))]
        if (next) {
          select(next)
          const made = view.events.find((one) => one.key === next)
          if (made) onHear(made.made.voicing.midis)
        }
        return true
      }
      case 'ArrowUp':
      case 'ArrowDown': {
        if (!choices?.length) return false
        const next =
          at === null ? 0 : Math.max(0, Math.min(choices.length - 1, at + (key === 'ArrowDown' ? 1 : -1)))
        setCursor({ of, at: next })
        onHear(choices[next]!.note.voicing.midis)
        return true
      }
      case 'Enter':
        if (at === null || !choices?.[at]) return false
        take(choices[at])
        return true
      case 'Escape':
        setCursor(null)
        return at !== null
      case 'Backspace':
        if (view.selected && view.selected in document.chordMelody.fixed)
          onEdit({ kind: 'melody-fix', fixed: { [view.selected]: null }, did: 'grip left to the search' })
        return true
      case 'e':
      case 'E':
        writing.takeUp(selectedPlace)
        return true
      case 'k':
      case 'K':
        setThreads(!threads)
        return true
    }
    const choice = /^[1-9]$/.test(key) ? choices?.[Number(key) - 1] : undefined
    if (choice) {
      take(choice)
      return true
    }
    return false
  }

  const soundingKey = sounding === null ? null : (view.events[sounding]?.key ?? null)
  const caret = writing.pen.on || playing.on ? writing.place : null
  const strings = body.instrument.tuning.length
  const { pieces, events, over, phrases, selected, clock } = view
  const shown = useMemo(
    (): MelodyShown => ({
      view: { pieces, events, over, phrases, selected, clock },
      songKey,
      strings,
      capo: chart.capo,
      sounding: soundingKey,
      writing: writing.pen.on,
      grid: writing.pen.grid,
      caret,
      threads,
      onSelect: select,
      onPut: put,
    }),
    // oxlint-disable-next-line react/exhaustive-deps -- the caret is told by its place
    [
      pieces,
      events,
      over,
      phrases,
      selected,
      clock,
      songKey,
      strings,
      chart.capo,
      soundingKey,
      writing.pen.on,
      writing.pen.grid,
      caret?.bar,
      caret?.beat,
      threads,
      select,
      put,
    ],
  )

  const hearChords = useHearChords(document, chart.capo, body, onPlay)
  return {
    takeUpPen: () => writing.takeUp(selectedPlace),
    threads,
    setThreads,
    neck,
    setNeck,
    bringIn,
    setBringIn,
    cursor: at,
    view,
    writing,
    playing,
    limits,
    shown,
    onKey,
    take,
    select,
    putFret,
    hearChords,
    hearLine: (line: HarmonisedLine) => void onPlay(lineSchedule(chart, line.notes)),
  }
}
export type MelodyStepState = ReturnType<typeof useMelodyStep>

const placeOf = (key: string): { bar: number; beat: number } => {
  const [bar, beat] = key.split(':').map(Number)
  return { bar: bar!, beat: beat! }
}

const timeOf = (key: string, clock: ReturnType<typeof useMelody>['clock']): number => {
  const at = clock.at(placeOf(key))
  return Number.isNaN(at) ? Infinity : at
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
    OFFICES.search
      .ask('lines', excerptQuestion(symbols, [], { bass, style }, capo, body), here.signal)
      .then(({ lines: [line] }) => {
        if (!line || here.signal.aborted) return
        void play(excerptOf(line.voicings.map(({ midis }) => ({ beats: HEARD_BEATS, midis }))))
      }, faultsOnly)
  }
}
