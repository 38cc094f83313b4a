import { useEffect, useMemo, useState } from 'react'
import type { Chart } from '../../../core/chart/chart'
import { Clock, NEAR, notatedPieces } from '../../../core/melody/clock'
import {
  placeKey,
  chordPlacesInTime,
  type HarmonisedLine,
  type NotPlayed,
} from '../../../core/melody/melodyLine'
import { handEffort } from '../../../core/melody/move'
import { phrasesOf } from '../../../core/melody/phrases'
import { troubles, type NoteReading, type Trouble } from '../../../core/melody/melodyReading'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import type { NoteChoice } from '../../../core/melody/harmonise'
import type { MelodyAsked, UnderAsked } from '../../../workers/melodyQuestions'
import type { PlayerBody } from '../../../core/player/playerLimits'
import type { TuneDocument } from '../../../core/tune/document'
import { madeChord, type TuneReading } from '../../../core/tune/tuneReading'
import { melodyOf } from '../../../core/tune/applyMelody'
import { stringingOf } from '../../../core/tune/sounding'
import { fixedHere, keepEvent, keptNotes } from '../../../core/tune/keptNotes'
import { melodyLimits } from '../../../core/player/melodyLimits'
import type { ChordMelodySettings, KeptEvent } from '../../../core/tune/melodySchema'
import type { EventShown, MelodyDrawn } from '../../services/notation/melodyShown'
import { useAnswer, type AskedState } from '../../services/workers/useAnswer'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

/** Ways looked for through the whole tune. */
export const HARMONISATIONS_WANTED = 3
const PAUSE_MS = 250
const WRITING_PAUSE_MS = 900

interface MelodyOf {
  document: TuneDocument
  reading: TuneReading
  body: PlayerBody
  /** Notes are being put in: searches wait longer. */
  writing: boolean
  onEdit: (edit: TuneEdit) => void
}

export interface MelodyView extends MelodyDrawn {
  chart: Chart
  notes: MelodyNote[]
  /** Notes that stand beyond the bars of the chart; they are kept. */
  beyond: number
  lines: readonly HarmonisedLine[]
  efforts: readonly number[]
  chosen: number
  /** Notes of the way chosen that cannot be played within the limits. */
  leftOut: readonly NotPlayed[]
  state: AskedState
  stop: () => void
  again: () => void
  troubles: Trouble[]
  select: (key: string | null) => void
  choices: NoteChoice[] | null
  /** Other chords that take the selected note and were not tried; `askAll` tries them. */
  choicesLeft: number
  askAll: () => void
  asked: UnderAsked | null
}

/**
 * The chord melody of a tune: found in a worker whenever what it is made from changes, kept with
 * the tune, and read.
 */
export function useMelody({ document, reading, body, writing, onEdit }: MelodyOf): MelodyView {
  const { chart } = reading
  const { chordMelody, melody, bass, tempo } = document
  const notes = useMemo(() => melodyOf({ melody }), [melody])
  const clock = useMemo(() => new Clock(chart), [chart])
  const pieces = useMemo(() => notatedPieces(chart, notes), [chart, notes])
  const [picked, select] = useState<string | null>(null)
  const [allFor, setAllFor] = useState<string | null>(null)

  const asked = useAsked(document, reading, body, pieces.length > 0)
  const search = useAnswer(
    'melody',
    'lines',
    useMemo(() => (asked ? { asked, count: HARMONISATIONS_WANTED } : null), [asked]),
    { pauseMs: writing ? WRITING_PAUSE_MS : PAUSE_MS },
  )
  const lines = useMemo(() => search.answer ?? [], [search.answer])
  const chosen = Math.min(chordMelody.line, Math.max(0, lines.length - 1))
  useKeepEvents(
    search.current ? lines[chosen] : undefined,
    chordMelody.kept,
    stringingOf(body, chart.capo),
    (kept) => onEdit({ kind: 'melody-kept', kept }),
  )

  const fixedNow = useMemo(
    () => new Set(fixedHere(chordMelody.fixed, chart.capo, body).map(([place]) => place)),
    [chordMelody.fixed, chart.capo, body],
  )
  const made = useMemo(
    () => keptNotes({ chordMelody, melody }, chart, body),
    [chordMelody, melody, chart, body],
  )
  const shown = search.current && lines[chosen] ? lines[chosen].notes : made
  const events = useMemo(
    () =>
      shown.map((one, index): EventShown => {
        const from = clock.at(one)
        return {
          key: placeKey(one),
          index,
          from,
          to: from + one.beats,
          made: one,
          fixed: fixedNow.has(placeKey(one)),
          elsewhere: placeKey(one) in chordMelody.fixed && !fixedNow.has(placeKey(one)),
        }
      }),
    [shown, clock, chordMelody.fixed, fixedNow],
  )
  const selected =
    picked !== null &&
    (events.some(({ key }) => key === picked) || notes.some((note) => placeKey(note) === picked))
      ? picked
      : (events[0]?.key ?? (notes[0] ? placeKey(notes[0]) : null))

  const limits = useMemo(() => melodyLimits(body, chart.capo, bass), [body, chart.capo, bass])
  const efforts = useMemo(() => lines.map((one) => handEffort(one.notes, limits)), [lines, limits])
  const found = useMemo(() => troubles(shown, tempo, limits), [shown, tempo, limits])

  const over = useReadings(document, chart, asked)
  const at = events.findIndex(({ key }) => key === selected)
  const under = useAnswer(
    'melody',
    'under',
    useMemo(() => {
      const event = events[at]
      if (!asked || !event || writing) return null
      const around = (one: EventShown | undefined) => (one ? [...one.made.voicing.midis] : null)
      return {
        asked,
        place: { bar: event.made.bar, beat: event.made.beat },
        before: around(events[at - 1]),
        after: around(events[at + 1]),
        all: allFor === selected,
      }
    }, [asked, events, at, writing, allFor, selected]),
    { pauseMs: PAUSE_MS, inBackground: true },
  )

  return {
    chart,
    clock,
    notes,
    pieces,
    beyond: notes.filter((note) => Number.isNaN(clock.at(note)) || clock.at(note) >= clock.end - NEAR).length,
    over,
    phrases: useMemo(() => phrasesOf(chart, notes, document.phrases), [chart, notes, document.phrases]),
    events,
    lines,
    efforts,
    chosen,
    leftOut: (search.current && lines[chosen]?.leftOut) || NONE_LEFT_OUT,
    state: search.state,
    stop: search.stop,
    again: search.again,
    troubles: found,
    selected,
    select,
    choices: useMemo(() => under.now && withPresent(under.now.choices, events[at]), [under.now, events, at]),
    choicesLeft: under.answer?.left ?? 0,
    askAll: () => setAllFor(selected),
    asked,
  }
}

/** Everything the chord melody is made from. @param any whether there are notes */
function useAsked(
  { chordMelody, melody, text, style, leading, bass, tempo }: TuneDocument,
  { chart, line }: TuneReading,
  body: PlayerBody,
  any: boolean,
): UnderAsked | null {
  return useMemo((): UnderAsked | null => {
    const { line: _, fixed, kept: __, ...settings } = chordMelody
    if (!any) return null
    return {
      text,
      melody,
      settings,
      style,
      weights: leading.own?.weights ?? null,
      bass,
      body,
      tempo,
      places: line.map((one) => ({
        symbol: madeChord(one)?.canonical ?? null,
        bar: one.slot.bar,
        beat: one.slot.beat,
        beats: one.slot.beats,
      })),
      fixed: fixedHere(fixed, chart.capo, body),
    }
  }, [chordMelody, any, text, melody, style, leading, bass, body, tempo, line, chart.capo])
}

/** What each note is over the plain chord and over the new one. */
function useReadings(
  { text, melody }: Pick<TuneDocument, 'text' | 'melody'>,
  chart: Chart,
  asked: UnderAsked | null,
) {
  const any = asked !== null
  const plain = useAnswer(
    'melody',
    'reading',
    useMemo(
      () => (any ? { asked: { text, melody, places: plainPlaces(chart) } } : null),
      [text, melody, chart, any],
    ),
    { pauseMs: PAUSE_MS, inBackground: true },
  )
  const over = useAnswer(
    'melody',
    'reading',
    useMemo(() => (asked ? { asked: { text, melody, places: asked.places } } : null), [asked, text, melody]),
    { pauseMs: PAUSE_MS, inBackground: true },
  )
  return useMemo(() => {
    const all = new Map<string, { plain: NoteReading | null; made: NoteReading | null }>()
    for (const one of plain.answer ?? []) all.set(placeKey(one.note), { plain: one, made: null })
    for (const one of over.answer ?? [])
      all.set(placeKey(one.note), { plain: all.get(placeKey(one.note))?.plain ?? null, made: one })
    return all
  }, [plain.answer, over.answer])
}

const NONE_LEFT_OUT: readonly NotPlayed[] = []

/**
 * What could be under a note, with the grip that was put there by hand among it: other grips around
 * it can leave it out of the nearest ones.
 */
function withPresent(choices: NoteChoice[], event: EventShown | undefined): NoteChoice[] {
  const isPresent = ({ note }: NoteChoice) => note.voicing.frets.join() === event?.made.voicing.frets.join()
  return !event?.fixed || choices.some(isPresent) ? choices : [{ note: event.made, motion: 0 }, ...choices]
}

const plainPlaces = (chart: Chart): MelodyAsked['places'] =>
  chordPlacesInTime(chart).map(({ chord, ...place }) => ({ ...place, symbol: chord?.canonical ?? null }))

/** Keeps the way that is chosen as soon as it is found. */
function useKeepEvents(
  line: HarmonisedLine | undefined,
  kept: readonly KeptEvent[],
  on: string,
  keep: (kept: KeptEvent[]) => void,
): void {
  useEffect(() => {
    if (!line) return
    const next = line.notes.map(keepEvent)
    if (
      JSON.stringify(next) !== JSON.stringify(kept.map(({ on: _, ...one }) => one)) ||
      kept.some((one) => one.on !== undefined && one.on !== on)
    )
      keep(next)
    // oxlint-disable-next-line react/exhaustive-deps -- `keep` is new on every render and does not matter
  }, [line, kept, on])
}

/** The settings alone, of everything kept about a chord melody. */
export const settingsOf = ({
  density,
  texture,
  fills,
  window,
  topString,
}: ChordMelodySettings): ChordMelodySettings => ({ density, texture, fills, window, topString })
