import { useEffect, useMemo } from 'react'
import { placeName } from '../../../core/chart/chart'
import type { LineChord } from '../../../core/tune/decisions'
import { STAYS } from '../../../core/tune/document'
import { madeChord } from '../../../core/tune/tuneReading'
import type { Voicing } from '../../../core/voicing/voicing'
import { useBook } from '../../services/grips/book'
import { useGrips } from '../../services/grips/GripsContext'
import { RoomFrame } from '../../services/room/RoomFrame'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { rangeOf } from '../../services/selection/selection'
import { playedBehind } from '../../services/sound/sequence'
import { useSound } from '../../services/sound/SoundContext'
import { SOUND } from '../../services/sound/soundStore'
import type { VoiceHeard } from '../../services/sound/voiceHeard'
import { Music } from '../../services/systems/Music'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useStableCallback } from '../../services/words/stable'
import { LinesBar } from './LinesBar'
import { LinesDrawer } from './LinesDrawer'
import { linesKeys } from './linesKeys'
import { NeckView } from './NeckView'
import { useGripAnswers } from './useGripAnswers'
import { useHardSpots } from './useHardSpots'
import { useLineBeside } from './useLineBeside'
import { usePulledThreads } from './usePulledThreads'

/** Grips for every chord of the new line, led from one to the next. */
export function LinesRoom() {
  const { document, reading, body, stringing, edit } = useKnownTune()
  const { chart, line, analysis } = reading
  const { sounding, search, chosen, voicings, hurry } = useGrips()
  const { lineSelection, selectLine } = useSelection()
  const { play, playWhenChanged } = useSound()
  const [neck, setNeck] = useKeptState('lines.neck', false)
  const [besideLine, setBesideLine] = useKeptState<number | null>('lines.beside', null)
  const [voice, setVoice] = useKeptState<VoiceHeard>('lines.voice', 'all')
  useEffect(() => {
    hurry(true)
    return () => hurry(false)
  }, [hurry])
  const { capo } = chart
  const stays = document.line === STAYS

  const focus = line[lineSelection.focus]
  const symbol = focus && madeChord(focus)
  const grip = focus && voicings.get(focus.key)
  const next = useMemo(() => focus && playedBehind(chart, sounding, focus), [chart, sounding, focus])
  const answers = useGripAnswers(focus, next)
  const hear = (midis: readonly number[]) => void SOUND.strumNow(midis)
  const { pulling, acts, threads } = usePulledThreads(focus, next, hear)

  const fix = (chord: LineChord, voicing: Voicing | null, leadRest = false) => {
    const frets = voicing && [...voicing.frets]
    edit({ kind: 'fix', slot: chord.key, frets, ...(leadRest && { anew: true }) })
    if (voicing) hear(voicing.midis)
  }
  const hold = useStableCallback((held: boolean) => edit({ kind: 'line', line: held ? STAYS : 0 }))
  const hearLine = useStableCallback((at: number) => {
    if (at === chosen) return play()
    playWhenChanged()
    edit({ kind: 'line', line: at })
  })
  const goTo = useStableCallback((at: number) => selectLine(at, false))
  const holdEasier = useStableCallback((at: number, voicing: Voicing) => {
    const chord = line[at]
    if (chord) fix(chord, voicing)
  })
  const spots = useHardSpots()
  const beside = useLineBeside(besideLine)
  const book = useBook(true, stringing)

  return (
    <RoomFrame
      bar={
        <LinesBar
          document={document}
          search={search}
          chosen={chosen}
          stays={stays}
          onStays={hold}
          songKey={analysis.key}
          onEdit={edit}
          onHearLine={hearLine}
          neck={neck}
          onNeck={setNeck}
          beside={besideLine}
          onBeside={setBesideLine}
          voice={voice}
          onVoice={setVoice}
          onSpot={goTo}
          spots={spots}
          onEasier={holdEasier}
        />
      }
      head={neck && symbol && <NeckView chord={symbol} voicing={grip} capo={capo} />}
      drawer={{
        name: symbol ? `${symbol.canonical}, ${placeName(focus.slot)}` : 'Grip',
        content: focus && (
          <LinesDrawer
            document={document}
            line={line}
            focus={focus}
            next={next}
            range={rangeOf(lineSelection)}
            voicings={voicings}
            {...answers}
            pulling={pulling}
            acts={acts}
            capo={capo}
            strings={body.instrument.tuning.length}
            book={book}
            songKey={analysis.key}
            onEdit={edit}
            onFix={(voicing) => fix(focus, voicing)}
            onHear={hear}
          />
        ),
      }}
      keys={linesKeys({
        pulling,
        acts,
        onNear: (at, anew) => {
          const one = answers.near?.[at]
          if (one && focus) fix(focus, one.voicing, anew)
          return one !== undefined && focus !== undefined
        },
        onLeave: () => {
          if (focus?.fixed) fix(focus, null)
        },
        onHold: () => hold(!stays),
        onNeck: () => setNeck(!neck),
      })}
      cursor="line"
      plays={{ beside, voice }}
    >
      <Music
        reading={reading}
        newLine="grips"
        voicings={pulling.voicings}
        threads={threads}
        onSelectLine={selectLine}
      />
    </RoomFrame>
  )
}
