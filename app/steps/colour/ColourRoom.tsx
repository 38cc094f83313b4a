import { useNavigate } from 'react-router'
import { placeName } from '../../../core/chart/chart'
import { plainChord } from '../../../core/tune/tuneReading'
import { useGrips } from '../../services/grips/GripsContext'
import { DIGITS, type KeyRow } from '../../services/keys/keyTable'
import { RoomFrame } from '../../services/room/RoomFrame'
import { Music } from '../../services/systems/Music'
import { useSelection } from '../../services/selection/SelectionContext'
import { inLine } from '../../services/selection/selection'
import { useSound } from '../../services/sound/SoundContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useStableCallback } from '../../services/words/stable'
import { ColourBar } from './ColourBar'
import { ColourDrawer } from './ColourDrawer'
import { useBeside } from './useBeside'
import { useHearInPlace } from './useHearInPlace'
import { useTrying } from './useTrying'

/** The plain chords taken further: coloured by their function, swapped, and put together anew. */
export function ColourRoom() {
  const { id, session, document, reading, body, edit } = useKnownTune()
  const { chart, chords, line } = reading
  const { voicings } = useGrips()
  const { selection, range, select } = useSelection()
  const { playPart } = useSound()
  const navigate = useNavigate()
  const beside = useBeside()
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
  const onSelectLine = useStableCallback((index: number, stretch: boolean) =>
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
  return (
    <RoomFrame
      bar={
        <ColourBar
          document={document}
          reading={reading}
          range={range}
          beside={beside.name}
          onBeside={beside.setName}
          onBesideWay={beside.setWay}
          onEdit={edit}
          joint={{ style: document.style, bass: document.bass, capo: chart.capo, body }}
          onLiftOut={({ key }) => edit({ kind: 'choose', slot: key, choice: null })}
          onSelect={(index) => select(index, false)}
          onReasons={onReasons}
        />
      }
      drawer={{
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
      }}
      keys={keys}
      cursor="home"
      plays={{ beside: beside.heard }}
    >
      <Music
        reading={trying.shown}
        newLine="reasons"
        beside={beside.shown}
        onSelectLine={onSelectLine}
        {...(trying.tried ? { lineSelection: inLine(selection, trying.shown.line) } : {})}
      />
    </RoomFrame>
  )
}
