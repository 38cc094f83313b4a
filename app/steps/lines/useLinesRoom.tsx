import { useEffect, useMemo } from 'react'
import { placeName } from '../../../core/chart/chart'
import { hardestSpots } from '../../../core/leading/words'
import { keyName } from '../../../core/pitch/key'
import type { LineChord } from '../../../core/tune/decisions'
import { STAYS } from '../../../core/tune/document'
import { nearQuestion } from '../../../core/tune/questions'
import { madeChord } from '../../../core/tune/reading'
import type { Voicing } from '../../../core/voicing/voicing'
import { useBook } from '../../services/grips/book'
import { useGrips } from '../../services/grips/GripsContext'
import { DIGITS, SHIFT_DIGITS, type KeyRow } from '../../services/keys/keys'
import type { RoomView } from '../../services/room/room'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { rangeOf } from '../../services/selection/selection'
import { playedBehind } from '../../services/sound/sequence'
import { useSound } from '../../services/sound/SoundContext'
import { SOUND } from '../../services/sound/store'
import type { VoiceHeard } from '../../services/sound/voiceHeard'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useSteady } from '../../services/words/steady'
import { useAnswer } from '../../services/workers/useAnswer'
import { LinesBar, type HardSpotShown } from './LinesBar'
import { LinesDrawer } from './LinesDrawer'
import { NeckView } from './NeckView'
import { usePulledActs } from './usePulledActs'
import { usePulling } from './usePulling'

/** Hard places of a line that are named. */
const HARD_SPOTS = 4

/** Grips for every chord of the new line, led from one to the next. */
export function useLinesRoom(): RoomView {
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
  const { bass } = document
  const { capo } = chart
  const { lines: found, current } = search
  const stays = document.line === STAYS

  const focus = line[lineSelection.focus]
  const symbol = focus && madeChord(focus)
  const grip = focus && voicings.get(focus.key)
  const next = useMemo(() => focus && playedBehind(chart, sounding, focus), [chart, sounding, focus])
  const near = useAnswer(
    'search',
    'grips',
    focus && symbol ? nearQuestion(focus, sounding, voicings, bass, capo, body) : null,
    { quiet: true },
  )
  const related = useAnswer(
    'search',
    'related',
    grip && symbol
      ? { symbol: symbol.canonical, frets: [...grip.frets], capo, bass, key: keyName(analysis.key), body }
      : null,
    { quiet: true },
  )
  const between = useAnswer(
    'search',
    'between',
    grip && symbol && next
      ? {
          symbol: symbol.canonical,
          frets: [...grip.frets],
          next: { symbol: madeChord(next)!.canonical, frets: voicings.get(next.key)?.frets ?? null },
          capo,
          bass,
          body,
        }
      : null,
    { quiet: true },
  )

  const pulling = usePulling({
    voicings,
    focus,
    bass,
    capo,
    body,
    songKey: analysis.key,
    onHear: (midis) => void SOUND.strumNow(midis),
  })
  const acts = usePulledActs({ pulling, voicings, line, next, bass, capo, body, onEdit: edit })
  const onTake = useSteady((key: string, string: number) => {
    const at = line.findIndex((one) => one.key === key)
    if (at >= 0) selectLine(at, false)
    pulling.take(key, string)
  })
  const onDrag = useSteady(pulling.pullTo)
  const takenKey = pulling.taken ? `${pulling.taken.key}/${pulling.taken.string}` : ''
  // oxlint-disable-next-line react/exhaustive-deps -- the note taken is told by its key
  const threads = useMemo(() => ({ taken: pulling.taken, onTake, onDrag }), [takenKey])

  const fix = (chord: LineChord, voicing: Voicing | null, anew = false) => {
    edit({ kind: 'fix', slot: chord.key, frets: voicing && [...voicing.frets], ...(anew ? { anew } : {}) })
    if (voicing) void SOUND.strumNow(voicing.midis)
  }
  const hold = useSteady((held: boolean) => edit({ kind: 'line', line: held ? STAYS : 0 }))
  const hearLine = useSteady((at: number) => {
    if (at === chosen) return play()
    playWhenChanged()
    edit({ kind: 'line', line: at })
  })
  const goTo = useSteady((at: number) => selectLine(at, false))
  const holdEasier = useSteady((at: number, voicing: Voicing) => {
    const chord = line[at]
    if (chord) fix(chord, voicing)
  })

  const taken = found[chosen]
  const spots = useMemo(
    () =>
      taken && current
        ? hardestSpots(
            taken,
            sounding.map((one) => madeChord(one)!),
            HARD_SPOTS,
          )
        : [],
    [taken, current, sounding],
  )
  const spotGrips = spots.flatMap(({ index, chord }) => {
    const voicing = taken?.voicings[index]
    return voicing ? [{ symbol: chord.canonical, frets: [...voicing.frets] }] : []
  })
  const easier = useAnswer(
    'search',
    'easier',
    spotGrips.length > 0 ? { grips: spotGrips, capo, bass, body } : null,
    { quiet: true },
  ).now
  const hardSpots = useMemo(
    () =>
      spots.map(({ index, effort }, at): HardSpotShown => ({
        place: placeName(sounding[index]!.slot),
        effort,
        line: sounding[index]!.index,
        easier: easier?.[at] ?? null,
      })),
    [spots, sounding, easier],
  )

  const other = besideLine !== null && besideLine !== chosen && current ? found[besideLine] : undefined
  const beside = useMemo(
    () =>
      other
        ? {
            name: `line ${besideLine! + 1}`,
            reading,
            midis: new Map(other.voicings.map((voicing, at) => [sounding[at]?.key ?? '', voicing.midis])),
          }
        : null,
    [other, besideLine, reading, sounding],
  )
  const book = useBook(true, stringing)

  const keys: KeyRow[] = [
    {
      on: ['ArrowUp', 'ArrowDown'],
      shown: '↑ ↓',
      says: 'Take hold of the top or lowest note; then pull it',
      act: (press) => pulling.onKey(press, false),
    },
    {
      on: ['Shift+ArrowUp', 'Shift+ArrowDown'],
      shown: 'Shift ↑ ↓',
      says: 'Hold the next voice',
      act: (press) => pulling.onKey(press.replace('Shift+', ''), true),
    },
    {
      on: ['Enter', 'Shift+Enter'],
      shown: 'Enter',
      says: 'Keep what was pulled; the other grips stay. With Shift the rest is led anew around it',
      act: (press) => {
        if (!pulling.shown) return false
        acts.keep(press === 'Enter' ? 'stays' : 'leads')
      },
    },
    {
      on: ['Escape'],
      shown: 'Escape',
      says: 'Put the pulled note back',
      act: () => {
        if (!pulling.taken) return false
        pulling.letGo()
      },
    },
    {
      on: [...DIGITS.slice(1), ...SHIFT_DIGITS.slice(1)],
      shown: '1 to 9',
      says: 'Take that grip. With Shift the rest is led anew around it',
      act: (press) => {
        const one = near.now?.[Number(press.at(-1)) - 1]
        if (!one || !focus) return false
        fix(focus, one.voicing, press.startsWith('Shift'))
      },
    },
    {
      on: ['Backspace'],
      shown: 'Backspace',
      says: 'The grip is left to the search again',
      act: () => {
        if (focus?.fixed) fix(focus, null)
      },
    },
    {
      on: ['r', 'Alt+r'],
      shown: 'R',
      says: 'Lead the rest anew, or hold every grip as it is',
      act: () => hold(!stays),
    },
    { on: ['k', 'Alt+k'], shown: 'K', says: 'The neck shown or hidden', act: () => setNeck(!neck) },
  ]

  return {
    bar: (
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
        spots={hardSpots}
        onEasier={holdEasier}
      />
    ),
    head: neck && symbol && <NeckView chord={symbol} voicing={grip} capo={capo} />,
    music: { reading, newLine: 'grips', voicings: pulling.voicings, threads, onSelectLine: selectLine },
    drawer: {
      name: symbol ? `${symbol.canonical}, ${placeName(focus.slot)}` : 'Grip',
      content: focus && (
        <LinesDrawer
          document={document}
          line={line}
          focus={focus}
          next={next}
          range={rangeOf(lineSelection)}
          voicings={voicings}
          near={near.now}
          related={related.now}
          between={between.now}
          pulling={pulling}
          acts={acts}
          capo={capo}
          strings={body.instrument.tuning.length}
          book={book}
          songKey={analysis.key}
          onEdit={edit}
          onFix={(voicing) => fix(focus, voicing)}
          onHear={(midis) => void SOUND.strumNow(midis)}
        />
      ),
    },
    keys,
    cursor: 'line',
    played: { beside, voice },
  }
}
