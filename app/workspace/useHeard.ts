import { useDeferredValue, useEffect, useMemo, useState } from 'react'
import { accompanied, isAccompanied, swingOf, type Accompaniment } from '../../core/tune/accompaniment'
import type { LineChord } from '../../core/tune/decisions'
import type { TuneDocument } from '../../core/tune/document'
import type { TuneChord, TuneReading } from '../../core/tune/tuneReading'
import type { Voicing } from '../../core/voicing/voicing'
import { useGrips } from '../services/grips/GripsContext'
import type { RoomPlays } from '../services/room/room'
import { useSelection } from '../services/selection/SelectionContext'
import { bandSchedule, timeOf, type HeardPass } from '../services/sound/bandSchedule'
import {
  LINES_OF,
  scheduleOf,
  type HeardLine,
  type Played,
  type Schedule,
  type Version,
} from '../services/sound/schedule'
import { sequenceOf, type Sequence } from '../services/sound/sequence'
import { usePlaying, useSound } from '../services/sound/SoundContext'
import { levelsOf } from '../services/sound/voiceHeard'
import { useKnownTune } from '../services/tune/TuneContext'
import { countInBeats } from '../services/words/placeWords'

export interface HeardNow {
  schedule: Schedule
  sequence: Sequence
  version: Version
  /** There is something to hear. */
  ready: boolean
}

const NOTHING_HEARD: Schedule = { strikes: [], clicks: [], countIn: 0, length: 0, pass: 0 }

type Grips = ReadonlyMap<string, Pick<Voicing, 'midis' | 'strings'>>

/**
 * What Play plays: both lines from the selection on with their band, or what the room plays
 * instead; told to the sound, which takes it up while it plays.
 */
export function useHeard({ score, beside, voice = 'all', rhythm: tried }: RoomPlays = {}): HeardNow {
  const { document, reading } = useKnownTune()
  const { voicings, plain: plainSearch, plainSounds, soundingHome } = useGrips()
  const { selection } = useSelection()
  const { hearing, heardTempo, setHeard } = useSound()
  const { playing } = usePlaying()
  const { chart } = reading
  // What plays goes on where it is, wherever the player looks meanwhile.
  const [begun, setBegun] = useState(selection)
  if (!playing && begun !== selection) setBegun(selection)
  const from = playing ? begun : selection
  const version = hearing.version === 'turn' && !beside ? 'new' : hearing.version
  const sequence = useMemo(() => sequenceOf(reading, from), [reading, from])
  const countIn = countInBeats(chart, sequence.home[0], hearing.countIn)
  const rhythm = tried ?? document.rhythm
  const { melody } = document
  // One voice of the grips is listened to without the figure: each chord as long as it lasts.
  const withBand = isAccompanied(rhythm) && voice === 'all'
  const plainGrips = useMemo(
    (): Grips =>
      new Map(
        plainSearch.lines[0]?.voicings.map((voicing, at) => [soundingHome[at]?.key ?? '', voicing]) ?? [],
      ),
    [plainSearch.lines, soundingHome],
  )
  // What each line's band plays of the whole tune is worked out once, wherever the playing begins.
  const order = sequence.range === 'stretch' ? 'written' : 'played'
  const wanted = LINES_OF[version]
  // What a band plays takes longer to work out than anything else of a page, and nobody hears it
  // before the page listens.
  const opened = useDeferredValue(true, false)
  const plays = (line: HeardLine) => opened && withBand && !score && wanted.includes(line)
  const plain = usePlayed(plays('plain') ? reading : null, 'plain', rhythm, melody, plainGrips, order)
  const made = usePlayed(plays('new') ? reading : null, 'new', rhythm, melody, voicings, order)
  const besideGrips = useMemo(
    (): Grips =>
      new Map([...(beside?.midis ?? [])].map(([key, midis]) => [key, { midis, strings: [] }] as const)),
    [beside],
  )
  const other = usePlayed(
    plays('beside') ? (beside?.reading ?? null) : null,
    'new',
    rhythm,
    melody,
    besideGrips,
    order,
  )
  const schedule = useMemo(() => {
    if (score) return score({ version: version === 'turn' ? 'new' : version, countIn })
    const passes = [
      ...(plain ? [passOf('plain', plain, sequence)] : []),
      ...(made ? [passOf('new', made, sequence)] : []),
      ...(other ? [passOf('beside', other, sequence)] : []),
    ]
    if (!opened) return NOTHING_HEARD
    if (passes.length > 0)
      return bandSchedule(passes, swingOf(rhythm, heardTempo, chart.meter), countIn, chart.meter.beats, {
        behindMs: rhythm.behindMs,
        loose: rhythm.loose ?? 0,
        seed: rhythm.seed,
        msPerBeat: 60_000 / heardTempo,
      })
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
  }, [
    opened,
    score,
    plain,
    made,
    other,
    rhythm,
    heardTempo,
    sequence,
    from,
    version,
    countIn,
    plainSounds,
    voicings,
    beside,
    voice,
    chart.meter,
  ])
  useEffect(() => {
    if (opened) setHeard(schedule)
  }, [opened, schedule, setHeard])
  return { schedule, sequence, version, ready: schedule.strikes.length > 0 }
}

/** What the band plays of one line; null where nobody asks for it. */
function usePlayed(
  reading: TuneReading | null,
  which: 'plain' | 'new',
  rhythm: TuneDocument['rhythm'],
  melody: TuneDocument['melody'],
  grips: Grips,
  order: 'played' | 'written',
): Accompaniment | null {
  return useMemo(
    () =>
      reading &&
      accompanied({
        reading,
        // Under the plain chords the bass plays the plain chords too.
        document: { rhythm: which === 'plain' ? { ...rhythm, band: 'plain' } : rhythm, melody },
        which,
        grips,
        order,
      }),
    [reading, which, rhythm, melody, grips, order],
  )
}

/** The stretch of a sequence as a band plays it: from where it begins to where it ends. */
function passOf(version: HeardLine, played: Accompaniment, { home, range }: Sequence): HeardPass {
  const [first, last] = [home[0], home.at(-1)]
  const from = first && range !== 'all' ? timeOf(played, first.slot) : 0
  const end = played.bars.at(-1)?.to ?? 0
  const to = last && range === 'stretch' ? timeOf(played, last.slot) + last.lasts : end
  return { version, played, from, to }
}
