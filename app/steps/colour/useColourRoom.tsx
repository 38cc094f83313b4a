import { useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import { placeName } from '../../../core/chart/chart'
import { newQuestion } from '../../../core/tune/questions'
import { madeChord, plainChord, readingWith } from '../../../core/tune/reading'
import { useGrips } from '../../services/grips/GripsContext'
import { DIGITS, type KeyRow } from '../../services/keys/keys'
import type { RoomView } from '../../services/room/room'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { inLine } from '../../services/selection/selection'
import { useSound } from '../../services/sound/SoundContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useSteady } from '../../services/words/steady'
import { useLines } from '../../services/workers/useLines'
import { ColourBar } from './ColourBar'
import type { WayBeside } from './FarControl'
import { ColourDrawer } from './ColourDrawer'
import { useHearInPlace } from './useHearInPlace'
import { useTrying } from './useTrying'

const PAUSE_MS = 120

/** The plain chords taken further: coloured by their function, swapped, and put together anew. */
export function useColourRoom(): RoomView {
  const { id, session, document, reading, body, edit } = useKnownTune()
  const { chart, chords, line } = reading
  const { voicings } = useGrips()
  const { selection, range, select } = useSelection()
  const { playPart } = useSound()
  const navigate = useNavigate()
  const [besideName, setBeside] = useKeptState<string | null>('colour.beside', null)

  // A kept version beside the new line, in grips of its own.
  const [wayBeside, setWayBeside] = useState<WayBeside | null>(null)
  const kept = useMemo(
    () =>
      wayBeside
        ? { ...document, ...wayBeside }
        : document.versions.find((version) => version.name === besideName),
    [wayBeside, document, besideName],
  )
  const besideReading = useMemo(() => (kept ? readingWith(reading, kept) : null), [kept, reading])
  const besideSounding = useMemo(
    () => besideReading?.line.filter((chord) => madeChord(chord)) ?? [],
    [besideReading],
  )
  const besideLines = useLines(
    useMemo(
      () => (kept ? newQuestion(besideSounding, kept, chart, body) : null),
      [besideSounding, kept, chart, body],
    ),
    { pauseMs: PAUSE_MS },
  )
  const shownBeside = useMemo(
    () =>
      kept && besideReading
        ? { name: kept.name, isKept: wayBeside === null, line: besideReading.line }
        : null,
    [kept, wayBeside, besideReading],
  )
  const besideLine = besideLines.lines[0]
  const beside = useMemo(
    () =>
      kept && besideReading
        ? {
            name: kept.name,
            reading: besideReading,
            midis: new Map(
              besideLine?.voicings.map((voicing, at) => [besideSounding[at]?.key ?? '', voicing.midis]),
            ),
          }
        : null,
    [kept, besideReading, besideLine, besideSounding],
  )

  const hearInPlace = useHearInPlace({
    reading,
    voicings,
    document,
    capo: chart.capo,
    body,
    play: (schedule) => void playPart(schedule),
  })
  const trying = useTrying({
    document,
    reading,
    selection,
    onEdit: edit,
    onHear: ({ index, span, puts }) => hearInPlace(index, span, puts),
  })
  const onSelectLine = useSteady((index: number, stretch: boolean) =>
    select((trying.shown.line[index] ?? line[index])?.home ?? 0, stretch),
  )
  const onReasons = (name?: string) =>
    void session
      .flush()
      .then(() => navigate(`/tunes/${id}/why${name ? `?version=${encodeURIComponent(name)}` : ''}`))

  // prettier-ignore
  const keys: KeyRow[] = [
    { on: DIGITS, shown: '0 to 9', says: 'Try that option, heard where it would stand', act: trying.onKey },
    { on: ['ArrowUp', 'ArrowDown'], shown: '↑ ↓', says: 'Hear the options one after the other', act: trying.onKey },
    { on: ['Enter'], shown: 'Enter', says: 'Keep what is tried or heard', act: trying.onKey },
    { on: ['Escape'], shown: 'Escape', says: 'Leave what is tried', act: trying.onKey },
    { on: ['Backspace'], shown: 'Backspace', says: 'The plain chord again', act: trying.onKey },
  ]
  const selected = chords.slice(range[0], range[1] + 1)
  const [first, last] = [selected[0], selected.at(-1)]
  return {
    bar: (
      <ColourBar
        document={document}
        reading={reading}
        range={range}
        beside={wayBeside?.name ?? besideName}
        onBeside={(name) => {
          setWayBeside(null)
          setBeside(name)
        }}
        onBesideWay={setWayBeside}
        onEdit={edit}
        joint={{ style: document.style, bass: document.bass, capo: chart.capo, body }}
        onLiftOut={({ key }) => edit({ kind: 'choose', slot: key, choice: null })}
        onSelect={(index) => select(index, false)}
        onReasons={onReasons}
      />
    ),
    music: {
      reading: trying.shown,
      newLine: 'reasons',
      beside: shownBeside,
      onSelectLine,
      ...(trying.tried ? { lineSelection: inLine(selection, trying.shown.line) } : {}),
    },
    drawer: {
      name:
        first && last
          ? `${selected.map((chord) => plainChord(chord)?.canonical ?? chord.slot.text).join(' ')}, ${placeName(first.slot)}${first === last ? '' : ` to ${placeName(last.slot)}`}`
          : 'Options',
      content: first && (
        <ColourDrawer
          key={first.key}
          chords={selected}
          offered={trying.offered}
          at={trying.at}
          tried={trying.tried}
          onHear={({ index, span, puts }) => hearInPlace(index, span, puts)}
          onKeep={trying.keep}
          onLeave={trying.leave}
          onPutBack={trying.putBack}
        />
      ),
    },
    keys,
    cursor: 'home',
    played: { beside },
  }
}
