import { itemAt } from '../../../core/lists'
import type { Chart } from '../../../core/chart/chart'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { Rhythm } from '../../../core/tune/rhythmSchema'
import type { KeyRow } from '../../services/keys/keyTable'
import { changeHit, givenBack, leftOut, moveHit, putIn } from './handHits'
import type { FigureTried } from './useFigureTried'
import type { Hits } from './useHits'
import type { useTapping } from './useTapping'

interface RhythmKeysOf {
  chart: Chart
  /** As it is kept. */
  rhythm: Rhythm
  figure: FigureTried
  hits: Hits
  tapping: ReturnType<typeof useTapping>
  onKeep: (figure: Rhythm['figure']) => void
  onSet: (set: Extract<TuneEdit, { kind: 'rhythm' }>['set'], did: string) => void
  onEdit: (edit: TuneEdit) => void
  /** False where nothing helps. */
  onHelp: () => boolean
}

export const rhythmKeys = (of: RhythmKeysOf): KeyRow[] => [
  ...keysOfFigures(of),
  ...keysOfHits(of),
  ...keysOfTune(of),
]

function keysOfFigures({ rhythm, figure, tapping, onKeep }: RhythmKeysOf): KeyRow[] {
  const { figures, tried } = figure
  return [
    {
      on: ['Space', 'Enter'],
      shown: 'Space',
      says: 'While a figure is tapped in: tap. A foot switch that types it does too',
      act: (_, event) => {
        if (!tapping.on) return false
        if (!event.repeat) tapping.tap()

        return true
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
        figure.hear((now + (press === 'ArrowDown' ? 1 : -1) + figures.length) % figures.length)

        return true
      },
    },
    {
      on: ['Enter'],
      shown: 'Enter',
      says: 'Keep the figure that is tried',
      act: () => {
        if (tried === null) return false
        onKeep(itemAt(figures, tried).name)

        return true
      },
    },
    {
      on: ['Escape'],
      shown: 'Escape',
      says: 'Leave the figure that is tried; stop tapping',
      act: () => {
        if (tapping.on) return tapping.stop()
        if (tried === null) return false
        figure.leave()
      },
    },
  ]
}

function keysOfHits({
  chart,
  rhythm,
  hits: { here, hits, places, grid, take, put },
  onEdit,
}: RhythmKeysOf): KeyRow[] {
  const [hit] = hits
  const act = (what: Parameters<typeof changeHit>[1]) => () => {
    if (!hit) return false
    onEdit(changeHit(hits, what))

    return true
  }
  return [
    {
      on: ['ArrowLeft', 'ArrowRight'],
      shown: '← →',
      says: 'Hit before, hit after',
      act: (press) => {
        const at = here === null ? -1 : places.indexOf(here)
        const next = places[at + (press === 'ArrowLeft' ? -1 : 1)]
        if (next !== undefined) take(next)
      },
    },
    {
      on: ['Shift+ArrowLeft', 'Shift+ArrowRight'],
      shown: 'Shift ← →',
      says: 'Move the hit half a beat earlier or later',
      act: (press) => {
        if (!hit) return false
        put(moveHit(chart, hits, press.endsWith('Left') ? -grid : grid))

        return true
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
        const made = hit ? putIn(chart, hit, new Set(places), grid) : null
        if (!made) return false
        put(made)

        return true
      },
    },
    {
      on: ['Delete', 'x'],
      shown: 'Delete, X',
      says: 'Leave the hit out',
      act: () => {
        if (here === null) return false
        onEdit(leftOut(here))

        return true
      },
    },
    {
      on: ['Backspace'],
      shown: 'Backspace',
      says: 'Give the hit back to the figure',
      act: () => {
        if (here === null || !(here in rhythm.byHand)) return false
        onEdit(givenBack(here))

        return true
      },
    },
  ]
}

const keysOfTune = ({ rhythm, onSet, onHelp }: RhythmKeysOf): KeyRow[] => [
  {
    on: ['h'],
    shown: 'H',
    says: 'Help for the change that is latest: what gains most',
    act: () => {
      if (!onHelp()) return false

      return true
    },
  },
  {
    on: ['o'],
    shown: 'O',
    says: 'Another variation like it',
    act: () => {
      if (rhythm.seed === 0) return false
      onSet({ seed: rhythm.seed + 1 }, 'another variation')

      return true
    },
  },
]
