import Button from '@mui/material/Button'
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Group } from '../../../core/analysis/reading'
import { hardestSpots } from '../../../core/leading/words'
import { keyName } from '../../../core/pitch/key'
import { placeName } from '../../../core/chart/chart'
import type { Voicing } from '../../../core/voicing/voicing'
import type { TuneState } from '../../../db/tunes'
import { printChart } from '../../../core/chart/print'
import { skeletonOf } from '../../../core/analysis/skeleton'
import { FIRST_CHART } from '../chart/ChartEditor'
import { ChartStep } from '../chart/ChartStep'
import type { Shown } from '../chart/ChartTools'
import { ReadingDrawer } from '../chart/ReadingDrawer'
import { useChartEditing, type BarAct } from '../chart/useChartEditing'
import { WhyContext } from '../chart/Why'
import { ColourDrawer } from '../colour/ColourDrawer'
import { ColourStep } from '../colour/ColourStep'
import { useHearInPlace } from '../colour/useHearInPlace'
import { useTrying } from '../colour/useTrying'
import { useBook } from '../grips/book'
import { keptVoicings } from '../../../core/tune/keptGrips'
import { LinesChooser } from '../lines/LinesChooser'
import { LinesDrawer } from '../lines/LinesDrawer'
import { nearQuestion, newQuestion, plainQuestion } from '../../../core/tune/questions'
import { useKeepLine } from '../lines/useKeepLine'
import { useLines } from '../lines/useLines'
import { usePulledActs } from '../lines/usePulledActs'
import { usePulling } from '../lines/usePulling'
import { NeckView } from '../lines/NeckView'
import { MelodyDrawer } from '../melody/MelodyDrawer'
import { melodySchedule } from '../melody/melodySchedule'
import { MelodyStep } from '../melody/MelodyStep'
import { useMelodyStep } from '../melody/useMelodyStep'
import { useAsked } from '../lines/useAsked'
import type { Body } from '../../../core/player/limits'
import { usePlayerSettings } from '../player/PlayerContext'
import { useNumerals } from '../schools/numerals'
import { saveSound } from '../sound/saveSound'
import { scheduleOf, type Played, type Schedule } from '../sound/schedule'
import { playedBehind, sequenceOf } from '../sound/sequence'
import { Transport, type Hearing } from '../sound/Transport'
import { usePlayer } from '../sound/usePlayer'
import { levelsOf, type VoiceHeard } from '../sound/voiceHeard'
import type { LineChord } from '../../../core/tune/decisions'
import { STAYS } from '../../../core/tune/document'
import { onInstrument, stringingOf } from '../../../core/tune/sounding'
import { useTune } from '../tune/useTune'
import { useWorkerFault } from '../words/workerFault'
import { Header } from './Header'
import { KeepingNotices } from './KeepingNotices'
import { KeysDialog } from './KeysDialog'
import { inHome, inLine, moved, rangeOf, type Selection } from './selection'
import { STEPS, type Step } from './steps'
import { useSteady } from './steady'
import { Systems } from './Systems'
import { useKeys } from './useKeys'
import { chordInWords, countInBeats, hearingInWords, placeInWords } from './words'
import { madeChord, plainChord, readingWith, readTuneDocument, type TuneChord } from '../../../core/tune/reading'
import type { TuneEdit } from '../../../core/tune/edit'
import { useTuneReading } from './useTuneReading'

/** Searches wait until typing has paused this long, and less after any other change. */
const TYPING_PAUSE_MS = 600
const CHANGE_PAUSE_MS = 120
/** Letters of a chart that is read within a key press: about 100 bars. */
const READ_AT_ONCE = 2_000
/** Hard places of a line that are named. */
const HARD_SPOTS = 4

/** The workspace of one tune: two banks, a drawer for the selected chord, a transport; the step moves the focus. */
export function Workspace({ state, step }: { state: TuneState; step: Step }) {
  const { document, undo, redo, status, keptHere, aside, session } = useTune(state)
  const navigate = useNavigate()
  // In a long chart what is typed shows at once, and what is read from it follows as soon as the page has time; a short one is read quicker than that.
  const deferred = useDeferredValue(document)
  const settled = step === 'chart' && document.text.length > READ_AT_ONCE ? deferred : document
  const { school } = useNumerals()
  const { settings: { instrument, hand } } = usePlayerSettings()
  const body = useMemo((): Body => ({ instrument, hand }), [instrument, hand])
  const reading = useTuneReading(settled, body)
  const { chords, chart, line } = reading
  const stringing = useMemo(() => stringingOf(body, chart.capo), [body, chart.capo])
  /** Every edit goes this way: grips say for which instrument they are. */
  const edit = useSteady((one: TuneEdit) => session.edit(onInstrument(one, stringing)))
  const [shown, setShown] = useState<Shown>(0)
  const skeleton = useMemo(
    () => (step === 'chart' && shown > 0 ? readTuneDocument({ text: printChart(skeletonOf(chart, shown as 1)), colour: 0, choices: {}, fixed: {} }, school) : null),
    [step, shown, chart, school])
  const [picked, setSelection] = useState<Selection>({ anchor: 0, focus: 0 })
  const selection = useMemo(() => moved(picked, 0, true, Math.max(1, chords.length)), [picked, chords.length])
  // On the Lines step the chords of the new line are selected one by one; everywhere else what stands for the chord of the home line.
  const [pickedLine, setLineSelection] = useState<Selection | null>(null)
  const lineSelection = useMemo(() => (step === 'lines' && pickedLine ? moved(pickedLine, 0, true, Math.max(1, line.length)) : inLine(selection, line)), [step, pickedLine, selection, line])
  const select = useCallback((index: number, stretch: boolean) => { setLineSelection(null); setSelection((now) => ({ anchor: stretch ? now.anchor : index, focus: index })) }, [])
  const pickLine = useSteady((next: Selection) => { setLineSelection(next); setSelection(inHome(next, line)) })
  const selectLine = useSteady((index: number, stretch: boolean) => pickLine({ anchor: stretch ? lineSelection.anchor : index, focus: index }))
  const [besideName, setBeside] = useState<string | null>(null)
  const [hearing, setHearing] = useState<Hearing>({ version: 'both', loop: false, countIn: true })
  const [keysOpen, setKeysOpen] = useState(false)
  const [reasons, setReasons] = useState(false)
  const [neckShown, setNeckShown] = useState(false)
  const [besideLine, setBesideLine] = useState<number | null>(null)
  const [voice, setVoice] = useState<VoiceHeard>('all')
  const player = usePlayer()
  const [broken, putAwayBroken] = useWorkerFault()

  /** What is played is the tune, and not a part to try something: then other versions can be switched to. */
  const tunePlays = useRef(false)
  const playPart = (part: Schedule) => { tunePlays.current = false; return player.play(part, document.tempo, false) }

  const sounding = useMemo(() => line.filter((chord) => madeChord(chord)), [line])
  const soundingHome = useMemo(() => chords.filter((chord) => plainChord(chord)), [chords])
  const pause = step === 'chart' ? TYPING_PAUSE_MS : CHANGE_PAUSE_MS
  const search = useLines(useMemo(() => newQuestion(sounding, settled, chart.capo, body), [sounding, settled, chart.capo, body]), pause, step === 'lines')
  const plain = useLines(useMemo(() => plainQuestion(soundingHome, chart.capo, body), [soundingHome, chart.capo, body]), pause)
  const { lines: found, current: foundNow } = search
  const keptGrips = useMemo(() => keptVoicings(settled, line, chart.capo, body), [settled, line, chart.capo, body])
  const chosen = Math.max(0, Math.min(document.line, search.lines.length - 1))
  // Where a grip by hand cannot be had on these strings, what the search plays in its place is shown while it is theirs; it is not kept over the player's own.
  const voicings = useMemo(() => {
    const stand = foundNow ? found[chosen]?.voicings : undefined
    const elsewhere = stand ? sounding.flatMap((one, at) => (one.elsewhere && stand[at] ? [[one.key, stand[at]] as const] : [])) : []
    return elsewhere.length > 0 ? new Map([...keptGrips, ...elsewhere]) : keptGrips
  }, [keptGrips, foundNow, found, chosen, sounding])
  useKeepLine(search, chosen, sounding, settled, stringing, (grips) => edit({ kind: 'grips', grips }))

  // A kept version beside the new line, in grips of its own.
  const kept = step === 'colour' ? document.versions.find((version) => version.name === besideName) : undefined
  const besideReading = useMemo(() => (kept ? readingWith(reading, kept) : null), [kept, reading])
  const besideSounding = useMemo(() => besideReading?.line.filter((chord) => madeChord(chord)) ?? [], [besideReading])
  const besideLines = useLines(useMemo(() => (kept ? newQuestion(besideSounding, kept, chart.capo, body) : null), [besideSounding, kept, chart.capo, body]), pause)
  const beside = useMemo(() => (kept && besideReading ? { name: kept.name, line: besideReading.line } : null), [kept, besideReading])

  const focus = (skeleton ?? reading).chords[selection.focus]
  const focusLine = line[lineSelection.focus]
  const near = useAsked<'grips'>(step === 'lines' && focusLine && madeChord(focusLine) ? { kind: 'grips', ...nearQuestion(focusLine, sounding, voicings, document.bass, chart.capo, body) } : null)?.grips ?? null

  const presentGrip = focusLine && voicings.get(focusLine.key)
  const related = useAsked<'related'>(step === 'lines' && presentGrip && focusLine ? { kind: 'related', symbol: madeChord(focusLine)!.canonical, frets: [...presentGrip.frets], capo: chart.capo, bass: document.bass, key: keyName(reading.analysis.key), body } : null)?.related ?? null

  const nextLine = useMemo(() => focusLine && playedBehind(chart, sounding, focusLine), [chart, sounding, focusLine])
  const between = useAsked<'between'>(step === 'lines' && presentGrip && nextLine && focusLine ? { kind: 'between', symbol: madeChord(focusLine)!.canonical, frets: [...presentGrip.frets], next: { symbol: madeChord(nextLine)!.canonical, frets: voicings.get(nextLine.key)?.frets ?? null }, capo: chart.capo, bass: document.bass, body } : null)
  const pulling = usePulling({
    on: step === 'lines', voicings, focus: focusLine, bass: document.bass, capo: chart.capo, body, songKey: reading.analysis.key, onHear: (midis) => void player.strumNow(midis),
  })
  const other = step === 'lines' && besideLine !== null && besideLine !== chosen ? search.lines[besideLine] : undefined
  const otherMidis = useMemo(() => (other && foundNow ? new Map(other.voicings.map((voicing, at) => [sounding[at]?.key ?? '', voicing.midis])) : null), [other, foundNow, sounding])
  const besideInWords = kept?.name ?? (otherMidis ? `line ${besideLine! + 1}` : null)

  const version = hearing.version === 'turn' && !besideInWords ? 'new' : hearing.version
  const sequence = useMemo(() => sequenceOf(reading, selection), [reading, selection])
  const countIn = hearing.countIn ? countInBeats(chart, sequence.home[0]) : 0
  const schedule = useMemo(() => {
    const plainMidis = new Map(plain.lines[0]?.voicings.map((voicing, at) => [soundingHome[at]?.key ?? '', voicing.midis]) ?? [])
    const besideMidis = new Map(besideLines.lines[0]?.voicings.map((voicing, at) => [besideSounding[at]?.key ?? '', voicing.midis]) ?? [])
    const played = (one: TuneChord | LineChord, midis: readonly number[] | undefined): Played => ({ index: one.index, lasts: one.lasts, midis: midis ?? null })
    const heard = (one: LineChord, midis: readonly number[] | undefined): Played => ({ ...played(one, midis), ...(midis && step === 'lines' ? { levels: levelsOf(midis.length, voice) } : {}) })
    return scheduleOf({
      plain: sequence.home.map((one) => played(one, plainMidis.get(one.key))),
      new: sequence.line.map((one) => heard(one, voicings.get(one.key)?.midis)),
      beside: besideReading ? sequenceOf(besideReading, selection).line.map((one) => played(one, besideMidis.get(one.key))) : otherMidis ? sequence.line.map((one) => heard(one, otherMidis.get(one.key))) : [],
    }, version, countIn, chart.meter.beats)
  }, [sequence, selection, version, countIn, plain.lines, besideLines.lines, besideReading, besideSounding, voicings, soundingHome, otherMidis, voice, step, chart.meter.beats])
  const plainSounds = useMemo(() => new Map(plain.lines[0]?.voicings.map((voicing, at) => [soundingHome[at]?.key ?? '', voicing.midis] as const) ?? []), [plain.lines, soundingHome])
  const melody = useMelodyStep({
    on: step === 'melody', document, reading, songKey: reading.analysis.key, body, sounding: step === 'melody' && player.sounding?.version === 'new' ? player.sounding.index : null,
    accompaniment: () => {
      const bars = countInBeats(chart, sequence.home[0])
      return { countIn: bars, schedule: melodySchedule({ chart, home: sequence.home, plain: plainSounds, melody: [], made: [], version: 'plain', countIn: bars, barBeats: chart.meter.beats }) }
    },
    onEdit: edit, onHear: (midis) => void player.strumNow(midis), onPlay: (played) => playPart(played), onStop: player.stop, onHome: (index) => setSelection({ anchor: index, focus: index }),
  })
  const { notes: melodyNotes, events } = melody.view
  const melodyPlayed = useMemo(() => (step === 'melody' && melodyNotes.length > 0
    ? melodySchedule({ chart, home: sequence.home, plain: plainSounds, melody: melodyNotes, made: events.map(({ made }) => made), version, countIn, barBeats: chart.meter.beats }) : null),
  [step, melodyNotes, events, chart, sequence, plainSounds, version, countIn])
  const heardNow = melodyPlayed ?? schedule
  const ready = heardNow.strikes.length > 0
  // A line touched on the chart is heard as soon as its grips are there.
  const hearNext = useRef(false)
  const hearLine = (at: number) => {
    if (at === chosen) return play()
    hearNext.current = true
    edit({ kind: 'line', line: at })
  }
  useEffect(() => {
    if (!hearNext.current || !ready) return
    hearNext.current = false
    tunePlays.current = true
    void player.play(schedule, document.tempo, hearing.loop)
    // eslint-disable-next-line react-hooks/exhaustive-deps -- only other grips are waited for
  }, [voicings])
  const play = () => {
    if (!ready) return
    tunePlays.current = true
    void player.play(heardNow, document.tempo, hearing.loop)
  }
  // Plain, new, beside, and the loop are switched while it plays, at the next beat and the same place.
  useEffect(() => {
    if (player.playing && tunePlays.current && ready) player.swap(heardNow, hearing.loop)
    // eslint-disable-next-line react-hooks/exhaustive-deps -- other chords or grips are heard with the next play
  }, [version, hearing.loop, besideName])

  const hearInPlace = useHearInPlace({ reading, voicings, document, capo: chart.capo, body, play: (excerpt) => void playPart(excerpt) })
  const trying = useTrying({
    on: step === 'colour', document, reading, selection, onEdit: edit, onHear: ({ index, span, puts }) => hearInPlace(index, span, puts),
  })
  const fix = (chord: LineChord, voicing: Voicing | null, anew = false) => {
    edit({ kind: 'fix', slot: chord.key, frets: voicing && [...voicing.frets], ...(anew ? { anew } : {}) })
    if (voicing) void player.strumNow(voicing.midis)
  }

  const book = useBook(step === 'lines', stringing)
  const holdLine = (stays: boolean) => edit({ kind: 'line', line: stays ? STAYS : 0 })

  const acts = usePulledActs({ pulling, voicings, line, next: nextLine, bass: document.bass, capo: chart.capo, body, onEdit: edit })
  const onTakeNote = useSteady((key: string, string: number) => {
    const at = line.findIndex((one) => one.key === key)
    if (at >= 0) pickLine({ anchor: at, focus: at })
    pulling.take(key, string)
  })
  const onDragNote = useSteady(pulling.pullTo)
  const takenKey = pulling.taken ? `${pulling.taken.key}/${pulling.taken.string}` : ''
  // eslint-disable-next-line react-hooks/exhaustive-deps -- the note taken is told by its key
  const notePulling = useMemo(() => ({ taken: pulling.taken, onTake: onTakeNote, onDrag: onDragNote }), [takenKey])
  const spots = useMemo(() => { const line = found[chosen]; return step === 'lines' && line && foundNow ? hardestSpots(line, sounding.map((one) => madeChord(one)!), HARD_SPOTS) : [] }, [step, found, foundNow, chosen, sounding])

  const spotGrips = spots.flatMap(({ index, chord }) => { const voicing = found[chosen]?.voicings[index]; return voicing ? [{ symbol: chord.canonical, frets: [...voicing.frets] }] : [] })
  const easier = useAsked<'easier'>(spotGrips.length > 0 ? { kind: 'easier', grips: spotGrips, capo: chart.capo, bass: document.bass, body } : null)?.easier ?? null

  const selectRange = useCallback((from: number, to: number) => { setLineSelection(null); setSelection({ anchor: from, focus: to }) }, [])
  const chartEditing = useChartEditing({
    can: step === 'chart' && shown === 0, text: document.text, chart, keyNow: reading.analysis.key, range: rangeOf(selection), onText: (text, did) => edit({ kind: 'bars', text, did: did.slice(0, 80) }), onSelect: selectRange,
  })
  const groupSelected = useRef<Group | null>(null)
  const selectGroup = useSteady((group: Group, within?: number) => {
    const indexOf = ({ bar, beat }: Group['from']) => chords.findIndex((chord) => chord.slot.bar === bar && Math.abs(chord.slot.beat - beat) < 1e-6)
    const [from, to] = [Math.max(0, indexOf(group.from)), Math.max(0, indexOf(group.to))]
    // The chord the drawer speaks of stays at the end it is nearer to, so that the key can be pressed again.
    if (within !== undefined && to - within < within - from) selectRange(from, to)
    else selectRange(to, from)
  })

  /** The groups around a chord in turn, the smallest first: each press selects the next one. */
  const selectNextGroup = (chord: TuneChord) => {
    const chordsIn = (group: Group) => chords.filter((one) => isPartOf(one, group)).length
    const around = (skeleton ?? reading).analysis.groups.filter((group) => isPartOf(chord, group)).sort((a, b) => chordsIn(a) - chordsIn(b))
    const now = around.findIndex((group) => group === groupSelected.current)
    const next = around[(now + 1) % Math.max(1, around.length)]
    groupSelected.current = next ?? null
    if (next) selectGroup(next, chord.index)
  }

  /** Commands by a letter: plain, but for those that begin a chord on the Chart step, and everywhere with Alt. */
  const letterKey = (letter: string, shift?: boolean): boolean => {
    const act = shift === undefined ? undefined : BAR_LETTERS[`${shift ? 'Shift ' : ''}${letter}`]
    if (act && step === 'chart' && shown === 0 && focus) { chartEditing.act(act); return true }
    if (letter === 'g' && step === 'chart' && focus) { selectNextGroup(focus); return true }
    if (letter === 'w' && step === 'chart') { setReasons(!reasons); return true }
    if (letter === 'k' && step === 'lines') { setNeckShown(!neckShown); return true }
    if (letter === 'r' && step === 'lines') { holdLine(document.line !== STAYS); return true }
    if (letter in VERSION_KEYS) { setHearing({ ...hearing, version: VERSION_KEYS[letter as keyof typeof VERSION_KEYS] }); return true }
    if (letter === 'l') { setHearing({ ...hearing, loop: !hearing.loop }); return true }
    if (letter === 'c') { setHearing({ ...hearing, countIn: !hearing.countIn }); return true }
    return false
  }

  useKeys((event) => {
    if (event.ctrlKey || event.metaKey) {
      const key = event.key.toLowerCase()
      if (key !== 'z' && key !== 'y') return false
      void session.step(key === 'y' || event.shiftKey ? 'redo' : 'undo')
      return true
    }
    if (event.altKey) {
      const wanted = STEPS[Number(event.code.replace('Digit', '')) - 1]
      if (wanted) { void navigate(`/tunes/${state.id}/${wanted}`, { preventScrollReset: true }); return true }
      // By the place of the key: with Alt it gives other signs on some layouts.
      return letterKey(event.code.replace('Key', '').toLowerCase(), event.shiftKey)
    }
    if (step === 'lines') {
      if (pulling.onKey(event.key, event.shiftKey)) return true
      if (event.key === 'Enter' && pulling.shown) { acts.keep(event.shiftKey ? 'leads' : 'stays'); return true }
      if (event.key === 'Escape' && pulling.taken) { pulling.letGo(); return true }
    }
    if (step === 'melody' && melody.onKey(event)) return true
    if (trying.onKey(event.key)) return true
    switch (event.key) {
      case ' ': if (player.playing) player.stop(); else play(); return true
      case 'ArrowLeft': case 'ArrowRight':
        if (step === 'lines') pickLine(moved(lineSelection, event.key === 'ArrowLeft' ? -1 : 1, event.shiftKey, line.length))
        else setSelection(moved(selection, event.key === 'ArrowLeft' ? -1 : 1, event.shiftKey, chords.length))
        return true
      case 'Escape':
        if (step === 'lines') pickLine({ anchor: lineSelection.focus, focus: lineSelection.focus })
        else setSelection({ anchor: selection.focus, focus: selection.focus })
        return true
      case 'Backspace':
        if (focusLine && step === 'lines' && focusLine.fixed) fix(focusLine, null)
        return true
      case '?': setKeysOpen(true); return true
    }
    if (step === 'chart' && shown === 0 && focus) {
      const act = BAR_SIGNS[event.key]
      if (act) { chartEditing.act(act); return true }
      if (event.key === 'Enter') { chartEditing.openAt(focus.slot.bar, Math.floor(focus.slot.beat + 1e-6)); return true }
      if (BEGINS_A_CHORD.test(event.key)) { chartEditing.openAt(focus.slot.bar, Math.floor(focus.slot.beat + 1e-6), event.key); return true }
    }
    if (/^[a-z]$/i.test(event.key) && letterKey(event.key.toLowerCase())) return true
    // With Shift a digit key gives another sign.
    const digit = /^Digit[1-9]$/.exec(event.code)
    const grip = digit && step === 'lines' ? near?.[Number(event.code.at(-1)) - 1] : undefined
    if (grip && focusLine) { fix(focusLine, grip.voicing, event.shiftKey); return true }
    return false
  }, () => (step === 'melody' ? null : window.document.querySelector<HTMLElement>(`${step === 'lines' ? '.bank-new' : '.bank-home'} .slot[aria-pressed="true"]`)))

  const selectUnder = useSteady((index: number, stretch: boolean) => select((trying.shown.line[index] ?? line[index])?.home ?? 0, stretch))
  const onTitle = useSteady((title: string) => edit({ kind: 'title', title }))
  const onHistory = useSteady((direction: 'undo' | 'redo') => void session.step(direction))
  const onSheet = useSteady(() => void session.flush().then(() => navigate(`/tunes/${state.id}/sheet`)))
  const onKeys = useSteady(() => setKeysOpen(true))
  const onPlay = useSteady(play)
  const onTempo = useSteady((tempo: number) => { player.setTempo(tempo); edit({ kind: 'tempo', tempo }) })
  const onSave = useSteady(() => saveSound(heardNow, document.tempo, document.title))

  return (
    <div className="workspace">
      <Header
        id={state.id} title={document.title} step={step} undo={undo} redo={redo} status={status.kind} keptHere={keptHere}
        onTitle={onTitle} onStep={onHistory} onSheet={onSheet} onKeys={onKeys}
      />
      <main className="banks">
        {broken && <p className="notice" role="alert">{broken} What you made is kept; reload the page to try again. <Button size="small" onClick={putAwayBroken}>Close</Button></p>}
        <KeepingNotices view={{ status, keptHere, aside, title: document.title }} unread={state.unread} session={session} />
        <WhyContext.Provider value={reasons}>
          {step === 'chart' && <ChartStep document={document} session={session} reading={reading} editing={chartEditing} shown={shown} onShown={setShown} />}
        </WhyContext.Provider>
        {step === 'colour' && (
          <ColourStep
            document={document} reading={reading} selection={selection} beside={besideName} onBeside={setBeside} onEdit={edit}
            joint={{ style: document.style, bass: document.bass, capo: chart.capo, body }} onLiftOut={({ key }) => edit({ kind: 'choose', slot: key, choice: null })} onSelect={(index) => select(index, false)}
            onReasons={(name) => void session.flush().then(() => navigate(`/tunes/${state.id}/why${name ? `?version=${encodeURIComponent(name)}` : ''}`))}
          />
        )}
        {step === 'lines' && (
          <LinesChooser
            lines={search.lines} taken={search.taken} state={search.state} chosen={chosen} stays={document.line === STAYS} onStays={holdLine} bass={document.bass} style={document.style} songKey={reading.analysis.key} leading={document.leading} onLeading={(leading) => edit({ kind: 'leading', leading })}
            onLine={(line) => edit({ kind: 'line', line })} onBass={(bass) => edit({ kind: 'bass', bass })} onStyle={(style) => edit({ kind: 'style', style })}
            onHearLine={hearLine} onStop={search.stop} onAgain={search.again} neck={neckShown} onNeck={setNeckShown} beside={besideLine} onBeside={setBesideLine} voice={voice} onVoice={setVoice}
            spots={spots.map(({ index, effort }, at) => ({ place: placeName(sounding[index]!.slot), effort, line: sounding[index]!.index, easier: easier?.[at] ?? null }))} onEasier={(at, voicing) => { const chord = line[at]; if (chord) fix(chord, voicing) }}
            onSpot={(at) => pickLine({ anchor: at, focus: at })}
          />
        )}
        {step === 'melody' && <MelodyStep state={melody} document={document} songKey={reading.analysis.key} capo={chart.capo} onEdit={edit} onHear={(midis) => void player.strumNow(midis)} />}
        {step === 'lines' && neckShown && focusLine && madeChord(focusLine) && <NeckView chord={madeChord(focusLine)!} voicing={presentGrip} capo={chart.capo} />}
        {chords.length === 0 && step !== 'chart' && (
          <p className="empty">
            There are no chords yet: type them in the Chart step, or begin with four plain ones.{' '}
            <Button onClick={() => edit({ kind: 'text', text: FIRST_CHART })}>Put in four plain chords</Button>
          </p>
        )}
        <Systems
          step={step} reading={skeleton ?? trying.shown} voicings={pulling.voicings} pulling={step === 'lines' ? notePulling : null} selection={selection} lineSelection={trying.tried ? inLine(selection, trying.shown.line) : lineSelection} sounding={player.sounding} beside={beside}
          melody={melody.shown} editing={chartEditing.editing} onSelect={select} onSelectLine={step === 'lines' ? selectLine : selectUnder} onGroup={selectGroup} onBeat={step === 'chart' && shown === 0 ? chartEditing.openAt : undefined}
        />
      </main>
      <p className="visually-hidden" aria-live="polite">{focus && chordInWords(focus, reading)}</p>
      <aside className="drawer" aria-label="Selected chord">
        {!focus && step !== 'melody' && <p className="quiet">Select a chord to read about it.</p>}
        {focus && <p className="drawer-place">{placeInWords(chords, selection, step === 'lines' ? focusLine : undefined)}</p>}
        {focus && step === 'chart' && (
          <WhyContext.Provider value={reasons}>
            <ReadingDrawer key={focus.key} chord={focus} groups={(skeleton ?? reading).analysis.groups.filter((group) => isPartOf(focus, group))} />
          </WhyContext.Provider>
        )}
        {focus && step === 'colour' && (
          <ColourDrawer
            key={focus.key} chords={chords.slice(...rangeToSlice(selection))} offered={trying.offered} at={trying.at} tried={trying.tried}
            onHear={({ index, span, puts }) => hearInPlace(index, span, puts)} onKeep={trying.keep} onPutBack={trying.putBack}
          />
        )}
        {focusLine && step === 'lines' && (
          <LinesDrawer
            document={document} line={line} focus={focusLine} next={nextLine} range={rangeOf(lineSelection)} voicings={voicings} near={near} related={related} between={between} pulling={pulling} acts={acts}
            capo={chart.capo} strings={instrument.tuning.length} book={book} songKey={reading.analysis.key} onEdit={edit} onFix={(voicing) => fix(focusLine, voicing)} onHear={(midis) => void player.strumNow(midis)}
          />
        )}
        {step === 'melody' && (
          <MelodyDrawer
            key={melody.view.selected ?? ''} view={melody.view} capo={chart.capo} cursor={melody.cursor} slotKeys={chords.map(({ key }) => key)} phrases={document.phrases}
            onEdit={edit} onHear={(midis) => void player.strumNow(midis)} onTake={melody.take}
          />
        )}
      </aside>
      <Transport
        hearing={{ ...hearing, version }} beside={besideInWords} onHearing={setHearing} tempo={document.tempo} playing={player.playing} ready={ready} trouble={player.trouble}
        says={ready ? hearingInWords(sequence) : soundingHome.length === 0 ? 'There are no chords to play yet.' : search.state.kind === 'fault' || plain.state.kind === 'fault' ? 'No grip fits: the Lines step says why.' : 'Finding grips to play…'} onTempo={onTempo} onPlay={onPlay} onStop={player.stop} onSave={onSave}
      />
      <KeysDialog open={keysOpen} onClose={() => setKeysOpen(false)} />
    </div>
  )
}

const rangeToSlice = (selection: Selection): [number, number] => { const [from, to] = rangeOf(selection); return [from, to + 1] }

const VERSION_KEYS = { p: 'plain', n: 'new', b: 'both', v: 'turn' } as const

/** Keys for the selected bars on the Chart step: signs by themselves, letters with Alt, since a letter by itself types a chord. */
const BAR_SIGNS: Readonly<Record<string, BarAct>> = { '[': 'earlier', ']': 'later', '-': 'down', '−': 'down', '+': 'up', Delete: 'remove' }
const BAR_LETTERS: Readonly<Record<string, BarAct>> = { i: 'after', 'Shift i': 'before', s: 'split', j: 'join', x: 'remove' }
/** A letter that a chord symbol, or N.C., begins with: it is typed where the selection is. */
const BEGINS_A_CHORD = /^[a-gn]$/i

const isPartOf = ({ slot }: TuneChord, { from, to }: Group): boolean => {
  const after = slot.bar > from.bar || (slot.bar === from.bar && slot.beat > from.beat - 1e-6)
  const before = slot.bar < to.bar || (slot.bar === to.bar && slot.beat < to.beat + 1e-6)
  return after && before
}
