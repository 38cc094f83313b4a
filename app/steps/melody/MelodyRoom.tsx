import { useMemo } from 'react'
import type { ImportedTune } from '../../../core/formats/readTune'
import { Neck, marksOfGrip } from '../../services/notation/Neck'
import { gutterFor, MelodySystem, type MelodyShown } from '../../services/notation/MelodySystem'
import { useGrips } from '../../services/grips/GripsContext'
import { RoomFrame } from '../../services/room/RoomFrame'
import { Music } from '../../services/systems/Music'
import type { RowProps } from '../../services/room/room'
import { rowsTold } from '../../services/room/rowsContext'
import { useSelection } from '../../services/selection/SelectionContext'
import { sequenceOf } from '../../services/sound/sequence'
import { useSound, useSoundingIn } from '../../services/sound/SoundContext'
import { SOUND } from '../../services/sound/soundStore'
import { useKnownTune } from '../../services/tune/TuneContext'
import { countInBeats } from '../../services/words/placeWords'
import { placeName } from '../../../core/chart/chart'
import { midiOf, parsePitch, pitchName, plainPitchName, type Pitch } from '../../../core/pitch/note'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { PlayerBody } from '../../../core/player/playerLimits'
import { BringInDialog } from './BringInDialog'
import { MelodyBar } from './MelodyBar'
import { MelodyDrawer } from './MelodyDrawer'
import { melodySchedule } from './melodySchedule'
import { melodyKeys } from './melodyKeys'
import { useMelodyStep, type MelodyStepState } from './useMelodyStep'
import { PlayingBar, WritingBar } from './WritingBar'

const { tell, useTold } = rowsTold<{ shown: MelodyShown; range: readonly [number, number] }>()

/** Staff, threads and tablature of one system. */
function MelodyRow({ system, first }: RowProps) {
  const here = useTold()
  return here && <MelodySystem system={system} first={first} range={here.range} shown={here.shown} />
}

/** What the guitar reaches, and where the melody leaves it. */
function rangeInWords({ tuning, frets }: PlayerBody['instrument'], notes: readonly Pitch[]): string {
  const open = tuning.flatMap((name) => {
    const read = parsePitch(name)
    return read.ok ? [midiOf(read.value)] : []
  })
  const [lowest, highest] = [Math.min(...open), Math.max(...open) + frets]
  const beyond = notes.filter((note) => midiOf(note) < lowest || midiOf(note) > highest)
  const outside = beyond.length === 0 ? '' : `; beyond it: ${[...new Set(beyond.map(pitchName))].join(', ')}`
  return `${plainPitchName(lowest)} to ${plainPitchName(highest)}${outside}`
}

/** A melody, and a chord melody made under it. */
export function MelodyRoom() {
  const { document, reading, body, edit } = useKnownTune()
  const { chart, chords, analysis } = reading
  const { plainSounds } = useGrips()
  const { selection, select } = useSelection()
  const { heardTempo, playPart } = useSound()
  const sequence = useMemo(() => sequenceOf(reading, selection), [reading, selection])
  const onHear = (midis: readonly number[]) => void SOUND.strumNow(midis)
  const melody = useMelodyStep({
    document,
    reading,
    songKey: analysis.key,
    body,
    tempo: heardTempo,
    sounding: useSoundingIn('new'),
    accompaniment: () => {
      const countIn = countInBeats(chart, sequence.home[0])
      return {
        countIn,
        schedule: melodySchedule({
          chart,
          home: sequence.home,
          plain: plainSounds,
          melody: [],
          made: [],
          version: 'plain',
          countIn,
          barBeats: chart.meter.beats,
        }),
      }
    },
    onEdit: edit,
    onHear,
    onPlay: playPart,
    onStop: SOUND.stop,
    onHome: (index) => select(index, false),
  })
  const { view } = melody
  const { notes, events, selected } = view
  const made = useMemo(() => events.map((one) => one.made), [events])
  const score = useMemo(
    () =>
      notes.length === 0
        ? null
        : ({ version, countIn }: { version: 'plain' | 'new' | 'both'; countIn: number }) =>
            melodySchedule({
              chart,
              home: sequence.home,
              plain: plainSounds,
              melody: notes,
              made,
              version,
              countIn,
              barBeats: chart.meter.beats,
            }),
    [notes, chart, sequence, plainSounds, made],
  )
  const range = useMemo((): readonly [number, number] => {
    const midis = made.flatMap(({ voicing }) => voicing.midis)
    return midis.length > 0 ? [Math.min(...midis) - 1, Math.max(...midis) + 1] : [40, 64]
  }, [made])
  const { shown } = melody
  const rows = useMemo(() => tell({ shown, range }), [shown, range])

  const event = events.find(({ key }) => key === selected)
  const bringIn = ({ text, melody: read, lyrics }: ImportedTune, withChords: boolean) =>
    edit(
      withChords
        ? { kind: 'bring-in', text, melody: read, lyrics, did: 'tune brought in' }
        : { kind: 'melody', melody: read, did: `${read.length} notes brought in` },
    )

  return (
    <RoomFrame
      bar={<BarNow melody={melody} onEdit={edit} onHear={onHear} />}
      head={<HeadNow melody={melody} onBringIn={bringIn} />}
      drawer={{
        name: event ? `${event.made.chord?.canonical ?? 'Note'}, ${placeName(event.made)}` : 'Note',
        content: (
          <MelodyDrawer
            key={selected ?? ''}
            view={view}
            capo={chart.capo}
            cursor={melody.cursor}
            slotKeys={chords.map(({ key }) => key)}
            phrases={document.phrases}
            onEdit={edit}
            onHear={onHear}
            onTake={melody.take}
          />
        ),
      }}
      keys={melodyKeys(melody)}
      cursor={null}
      plays={{ score }}
    >
      <Music reading={reading} newLine="none" Row={MelodyRow} rows={rows} gutter={gutterFor(analysis.key)} />
    </RoomFrame>
  )
}

/** What stands in the bar: the settings, or what writing or playing in needs. */
function BarNow({
  melody,
  onEdit,
  onHear,
}: {
  melody: MelodyStepState
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
}) {
  const { document, reading, body } = useKnownTune()
  const { instrument } = body
  const { view, writing, playing } = melody
  if (playing.on) return <PlayingBar playing={playing} begin={writing.begin} tuning={instrument.tuning} />
  if (writing.pen.on)
    return (
      <WritingBar
        writing={writing}
        neck={melody.neck}
        onNeck={melody.setNeck}
        range={rangeInWords(
          instrument,
          view.notes.map(({ note }) => note),
        )}
      />
    )
  return (
    <MelodyBar
      state={melody}
      document={document}
      songKey={reading.analysis.key}
      capo={reading.chart.capo}
      body={body}
      onEdit={onEdit}
      onHear={onHear}
    />
  )
}

/** Over the music: the neck, and what brings a melody in. */
function HeadNow({
  melody,
  onBringIn,
}: {
  melody: MelodyStepState
  onBringIn: (tune: ImportedTune, withChords: boolean) => void
}) {
  const { document, reading, body } = useKnownTune()
  const { instrument } = body
  const { view } = melody
  const event = view.events.find(({ key }) => key === view.selected)
  return (
    <>
      {melody.neck && (
        <Neck
          strings={instrument.tuning.length}
          frets={instrument.frets}
          marks={
            event
              ? marksOfGrip(
                  event.made.voicing.frets,
                  (string) => event.made.voicing.strings.find((one) => one.string === string)?.degree ?? '',
                )
              : []
          }
          onTouch={melody.putFret}
          label="Touch the neck to put a note in"
        />
      )}
      {melody.bringIn && (
        <BringInDialog
          onClose={() => melody.setBringIn(false)}
          onBringIn={onBringIn}
          title={document.title}
          chart={view.chart}
          notes={view.notes}
          lyrics={document.lyrics}
          songKey={reading.analysis.key}
          tempo={document.tempo}
        />
      )}
    </>
  )
}
