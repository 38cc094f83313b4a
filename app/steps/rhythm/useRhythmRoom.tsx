import { useMemo, useState } from 'react'
import { slotKey } from '../../../core/chart/chart'
import { figuresFor } from '../../../core/rhythm/figures'
import { meterName, placeName } from '../../../core/chart/chart'
import type { Help } from '../../../core/rhythm/handTempo'
import { tapGrid } from '../../../core/rhythm/tapped'
import { accompanied } from '../../../core/tune/accompaniment'
import type { LineChord } from '../../../core/tune/decisions'
import { lateQuestion } from '../../../core/tune/lateHand'
import { madeChord } from '../../../core/tune/reading'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import { useGrips } from '../../services/grips/GripsContext'
import type { KeyRow } from '../../services/keys/keys'
import type { System } from '../../services/notation/layout'
import type { RoomView } from '../../services/room/room'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { rangeOf } from '../../services/selection/selection'
import { usePlaying, useSound } from '../../services/sound/SoundContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useSteady } from '../../services/words/steady'
import { useAnswer } from '../../services/workers/useAnswer'
import { asOne, changed, givenBack, leftOut, moved, putIn } from './handHits'
import { figureInWords, RhythmBar } from './RhythmBar'
import { RhythmDrawer } from './RhythmDrawer'
import { hitInWords, placeOfHit, RhythmRow, rhythmTold } from './RhythmRow'
import { soundedIn } from './soundedThreads'
import { useTapping } from './useTapping'

/** A change of a setting is waited for so long before the hand is asked again, in ms. */
const PAUSE_MS = 250

/** When to strike, how long, which voices, what to push, and where to be silent. */
export function useRhythmRoom(): RoomView {
  const { document, reading, body, edit } = useKnownTune()
  const { chart, line } = reading
  const { voicings } = useGrips()
  const { lineSelection, selectLine } = useSelection()
  const { heardTempo, playWhenChanged } = useSound()
  const { playing } = usePlaying()
  const [tried, setTried] = useState<number | null>(null)
  const [selected, setSelected] = useKeptState<string | null>('rhythm.hit', null)
  const figures = useMemo(() => figuresFor(meterName(chart.meter)), [chart.meter])
  const { rhythm, melody, bass } = document
  const asTried = useMemo(
    (): Rhythm => (tried !== null && figures[tried] ? { ...rhythm, figure: figures[tried].name } : rhythm),
    [tried, figures, rhythm],
  )
  const played = useMemo(
    () =>
      accompanied({
        reading,
        document: { rhythm: asTried, melody },
        which: 'new',
        grips: voicings,
        order: 'written',
      }),
    [reading, asTried, melody, voicings],
  )
  const [firstOf, lastOf] = rangeOf(lineSelection)
  const selectedBars = [line[firstOf]?.slot.bar ?? 1, line[lastOf]?.slot.bar ?? 1] as const
  const places = useMemo(() => [...new Set(played.hits.map(placeOfHit))], [played])
  const inLine = line[lineSelection.focus]
  // The hit taken hold of, else the first of the selected chord.
  const here =
    selected !== null && places.includes(selected)
      ? selected
      : (places[played.hits.findIndex(({ key }) => key === inLine?.key)] ?? places[0] ?? null)
  const hits = useMemo(() => played.hits.filter((hit) => placeOfHit(hit) === here), [played, here])
  const hit = hits[0] ?? null

  const question = useMemo(
    () => lateQuestion(reading, { rhythm: asTried, bass }, voicings, body),
    [reading, asTried, bass, voicings, body],
  )
  const late = useAnswer('search', 'late', question, { quiet: true, pauseMs: PAUSE_MS }).answer
  const grips = useMemo(() => line.filter((one) => madeChord(one) && voicings.has(one.key)), [line, voicings])

  const take = useSteady((place: string) => {
    setSelected(place)
    const one = played.hits.find((other) => placeOfHit(other) === place)
    if (one) selectLine(one.index, false)
  })
  const set = (changes: Partial<Omit<Rhythm, 'byHand' | 'sections' | 'bars'>>, did: string) =>
    edit({ kind: 'rhythm', set: changes, did })
  const keep = (figure: Rhythm['figure']) => {
    setTried(null)
    set({ figure }, figureInWords(figure, 'figure tapped in'))
  }
  const tryFigure = (at: number | null) => {
    setTried(at)
    if (!playing && at !== null) playWhenChanged()
  }
  const tapping = useTapping({ meter: chart.meter, tempo: heardTempo, onFigure: keep })
  const help = ({ kind, frets, figure, at }: Help, into: LineChord) => {
    if (kind === 'grip' && frets) return edit({ kind: 'fix', slot: into.key, frets: [...frets] })
    if (kind === 'figure' && figure) return keep(figure)
    const struck = at && played.hits.filter((one) => placeOfHit(one) === placeOfHit(at))
    if (!struck?.[0]) return
    if (kind === 'shorter') return edit(changed(struck, 'shorter'))
    if (kind === 'later') {
      const later = moved(chart, struck, 0.5)
      if (later) edit(later.edit)
      return
    }
    edit({
      kind: 'rhythm-hits',
      hits: { [placeOfHit(at!)]: null, [slotKey(into.slot)]: { ...asOne(struck), push: false } },
      free: [],
      did: 'struck on the beat',
    })
  }

  const grid = tapGrid(chart.meter)
  const act = (what: Parameters<typeof changed>[1]) => () => {
    if (hits.length === 0) return false
    edit(changed(hits, what))
  }
  const keys: KeyRow[] = [
    {
      on: ['Space', 'Enter'],
      shown: 'Space',
      says: 'While a figure is tapped in: tap. A foot switch that types it does too',
      act: (_, event) => {
        if (!tapping.on) return false
        if (!event.repeat) tapping.tap()
      },
    },
    {
      on: ['t'],
      shown: 'T',
      says: 'Tap a figure in: a bar counted in, two bars listened to',
      act: () => (tapping.on ? tapping.stop() : tapping.begin()),
    },
    {
      on: ['ArrowUp', 'ArrowDown'],
      shown: '↑ ↓',
      says: 'Hear another figure on this tune',
      act: (press) => {
        if (figures.length === 0) return false
        const now = tried ?? figures.findIndex(({ name }) => name === rhythm.figure)
        tryFigure((now + (press === 'ArrowDown' ? 1 : -1) + figures.length) % figures.length)
      },
    },
    {
      on: ['Enter'],
      shown: 'Enter',
      says: 'Keep the figure that is tried',
      act: () => {
        if (tried === null) return false
        keep(figures[tried]!.name)
      },
    },
    {
      on: ['Escape'],
      shown: 'Escape',
      says: 'Leave the figure that is tried; stop tapping',
      act: () => {
        if (tapping.on) return tapping.stop()
        if (tried === null) return false
        setTried(null)
      },
    },
    {
      on: ['ArrowLeft', 'ArrowRight'],
      shown: '← →',
      says: 'Hit before, hit after',
      act: (press) => {
        const at = here === null ? -1 : places.indexOf(here)
        const next = places[at + (press === 'ArrowLeft' ? -1 : 1)]
        if (next === undefined) return
        take(next)
      },
    },
    {
      on: ['Shift+ArrowLeft', 'Shift+ArrowRight'],
      shown: 'Shift ← →',
      says: 'Move the hit half a beat earlier or later',
      act: (press) => {
        if (hits.length === 0) return false
        const made = moved(chart, hits, press.endsWith('Left') ? -grid : grid)
        if (!made) return
        edit(made.edit)
        setSelected(made.to)
      },
    },
    { on: ['-', '−'], shown: '−', says: 'The hit shorter', act: act('shorter') },
    { on: ['+', '='], shown: '+', says: 'The hit longer', act: act('longer') },
    { on: ['a'], shown: 'A', says: 'Accent, ghost, plain', act: act('accent') },
    { on: ['u'], shown: 'U', says: 'Push: the hit takes the next chord, or its own again', act: act('push') },
    {
      on: ['i'],
      shown: 'I',
      says: 'Put a hit in behind this one',
      act: () => {
        const made = hit && putIn(chart, hit, new Set(places), grid)
        if (!made) return false
        edit(made.edit)
        setSelected(made.to)
      },
    },
    {
      on: ['Delete', 'x'],
      shown: 'Delete, X',
      says: 'Leave the hit out',
      act: () => {
        if (here === null) return false
        edit(leftOut(here))
      },
    },
    {
      on: ['Backspace'],
      shown: 'Backspace',
      says: 'Give the hit back to the figure',
      act: () => {
        if (here === null || !(here in rhythm.byHand)) return false
        edit(givenBack(here))
      },
    },
    {
      on: ['h'],
      shown: 'H',
      says: 'Help for the change that is latest: what gains most',
      act: () => {
        const [worst] = late?.changes ?? []
        const into = worst && grips[worst.to]
        const [best] = worst?.help ?? []
        if (!into || !best) return false
        help(best, into)
      },
    },
    {
      on: ['o'],
      shown: 'O',
      says: 'Another variation like it',
      act: () => {
        if (rhythm.seed === 0) return false
        set({ seed: rhythm.seed + 1 }, 'another variation')
      },
    },
  ]
  const onMove = useSteady((place: string, beats: number) => {
    const pulled = played.hits.filter((one) => placeOfHit(one) === place)
    const steps = Math.round(beats / grid) * grid
    const made = pulled.length > 0 && steps !== 0 && moved(chart, pulled, steps)
    if (!made) return
    edit(made.edit)
    setSelected(made.to)
  })
  const hold = useSteady((key: string) => {
    const first = played.hits.find((one) => one.key === key)
    if (first) take(placeOfHit(first))
  })
  // The voices as they are struck: none of them is pulled here, a touch takes hold of the chord's first hit.
  const threads = useMemo(
    () => ({
      taken: null,
      onTake: hold,
      onDrag: () => {},
      sounded: (system: System) => soundedIn(system, played, voicings),
    }),
    [played, voicings, hold],
  )
  const told = useMemo(
    () => rhythmTold.tell({ played, melody, selected: here, onSelect: take, onMove }),
    [played, melody, here, take, onMove],
  )
  return {
    bar: (
      <RhythmBar
        rhythm={rhythm}
        chart={chart}
        tempo={heardTempo}
        hasMelody={melody.length > 0}
        selectedBars={selectedBars}
        hand={{
          late,
          grips,
          onHelp: help,
          onGo: (chord) => {
            setSelected(null)
            selectLine(chord.index, false)
          },
        }}
        tapping={tapping.on}
        onTap={() => (tapping.on ? tapping.stop() : tapping.begin())}
        onSet={set}
        onEdit={edit}
      />
    ),
    head: tapping.on && (
      <p className="trying" role="status">
        Tap on <kbd>Space</kbd>: one bar is counted in, then two are listened to.{' '}
        {tapping.heard.length > 0 && `Heard on ${tapping.heard.map((beat) => beat + 1).join(', ')}.`}
      </p>
    ),
    music: { reading, newLine: 'reasons', voicings, threads, Between: RhythmRow, told },
    lead: (
      <p className="visually-hidden" aria-live="polite">
        {hit && hitInWords(hit)}
      </p>
    ),
    drawer: {
      name: hit ? `${hit.slot.text}, ${placeName(hit)}` : 'Rhythm',
      content: (
        <RhythmDrawer
          chart={chart}
          rhythm={rhythm}
          laid={played.laid}
          figures={figures}
          tried={tried}
          onTry={tryFigure}
          onKeep={keep}
          hit={hit}
          byHand={here !== null && here in rhythm.byHand}
        />
      ),
    },
    keys,
    cursor: null,
    played: { rhythm: tried === null ? null : asTried },
  }
}
