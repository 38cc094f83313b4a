import { useEffect, useMemo, useRef } from 'react'
import type { LineChord } from '../../core/tune/decisions'
import type { TuneChord } from '../../core/tune/reading'
import { useGrips } from '../services/grips/GripsContext'
import type { PlayedHere } from '../services/room/room'
import { useSelection } from '../services/selection/SelectionContext'
import { scheduleOf, type Played, type Schedule, type Version } from '../services/sound/schedule'
import { sequenceOf, type Sequence } from '../services/sound/sequence'
import { usePlaying, useSound } from '../services/sound/SoundContext'
import { levelsOf } from '../services/sound/voiceHeard'
import { useKnownTune } from '../services/tune/TuneContext'
import { countInBeats } from '../services/words/places'

export interface HeardNow {
  schedule: Schedule
  sequence: Sequence
  version: Version
  /** There is something to hear. */
  ready: boolean
}

/** What Play plays: both lines from the selection on, or what the room plays instead; told to the sound, which takes it up while it plays. */
export function useHeard({ score, beside, voice = 'all' }: PlayedHere = {}): HeardNow {
  const { reading } = useKnownTune()
  const { voicings, plainSounds } = useGrips()
  const { selection } = useSelection()
  const { hearing, setHeard } = useSound()
  const { playing } = usePlaying()
  const { chart } = reading
  // What plays goes on where it is, wherever the player looks meanwhile.
  const begun = useRef(selection)
  if (!playing) begun.current = selection
  const from = begun.current
  const version = hearing.version === 'turn' && !beside ? 'new' : hearing.version
  const sequence = useMemo(() => sequenceOf(reading, from), [reading, from])
  const countIn = hearing.countIn ? countInBeats(chart, sequence.home[0]) : 0
  const schedule = useMemo(() => {
    if (score) return score({ version: version === 'turn' ? 'new' : version, countIn })
    const played = (one: TuneChord | LineChord, midis: readonly number[] | undefined): Played => ({
      index: one.index,
      lasts: one.lasts,
      midis: midis ?? null,
    })
    const voiced = (one: LineChord, midis: readonly number[] | undefined): Played => ({
      ...played(one, midis),
      ...(midis && voice !== 'all' ? { levels: levelsOf(midis.length, voice) } : {}),
    })
    return scheduleOf(
      {
        plain: sequence.home.map((one) => played(one, plainSounds.get(one.key))),
        new: sequence.line.map((one) => voiced(one, voicings.get(one.key)?.midis)),
        beside: beside
          ? sequenceOf(beside.reading, from).line.map((one) => voiced(one, beside.midis.get(one.key)))
          : [],
      },
      version,
      countIn,
      chart.meter.beats,
    )
  }, [score, sequence, from, version, countIn, plainSounds, voicings, beside, voice, chart.meter.beats])
  useEffect(() => setHeard(schedule), [schedule, setHeard])
  return { schedule, sequence, version, ready: schedule.strikes.length > 0 }
}
