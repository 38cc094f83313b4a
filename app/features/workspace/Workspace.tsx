import Button from '@mui/material/Button'
import { useCallback, useDeferredValue, useEffect, useMemo, useRef, useState } from 'react'
import { useNavigate } from 'react-router'
import type { Group } from '../../../core/analysis/reading'
import { placeName, type Chart } from '../../../core/chart/chart'
import type { ColourOption } from '../../../core/reharm/colour'
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
import { ColourControl } from '../colour/ColourControl'
import { FarControl } from '../colour/FarControl'
import { ColourDrawer } from '../colour/ColourDrawer'
import { offeredFor } from '../colour/offered'
import { GripDrawer } from '../lines/GripDrawer'
import { gripsOfLine, keptVoicings } from '../lines/keptGrips'
import { LinesChooser } from '../lines/LinesChooser'
import { useLines, type LinesQuestion } from '../lines/useLines'
import { useNearGrips } from '../lines/useNearGrips'
import { useNumerals } from '../schools/numerals'
import { saveSound } from '../sound/saveSound'
import { scheduleOf } from '../sound/schedule'
import { sequenceOf, type Sequence } from '../sound/sequence'
import { Transport, type Hearing } from '../sound/Transport'
import { usePlayer } from '../sound/usePlayer'
import { useTune } from '../tune/useTune'
import { ConflictNotice } from './ConflictNotice'
import { Header } from './Header'
import { KeysDialog } from './KeysDialog'
import { moved, rangeOf, type Selection } from './selection'
import { STEPS, type Step } from './steps'
import { useSteady } from './steady'
import { Systems } from './Systems'
import { useKeys } from './useKeys'
import { madeChord, readTuneDocument, useTuneReading, type TuneChord } from './useTuneReading'

/** Searches wait until typing has paused this long, and less after any other change. */
const TYPING_PAUSE_MS = 600
const CHANGE_PAUSE_MS = 120
/** Letters of a chart that is read within a key press: about 100 bars. */
const READ_AT_ONCE = 2_000
/** How many lines are looked for. */
const LINES_WANTED = 3

/** The workspace of one tune: two banks, a drawer for the selected chord, a transport; the step moves the focus. */
export function Workspace({ state, step }: { state: TuneState; step: Step }) {
  const { document, undo, redo, status, session } = useTune(state)
  const navigate = useNavigate()
  // In a long chart what is typed shows at once, and what is read from it follows as soon as the page has time; a short one is read quicker than that.
  const deferred = useDeferredValue(document)
  const settled = step === 'chart' && document.text.length > READ_AT_ONCE ? deferred : document
  const reading = useTuneReading(settled)
  const { chords, chart } = reading
  const { school } = useNumerals()
  const [shown, setShown] = useState<Shown>(0)
  const skeleton = useMemo(
    () => (step === 'chart' && shown > 0 ? readTuneDocument({ text: printChart(skeletonOf(chart, shown as 1)), colour: 0, choices: {}, fixed: {} }, school) : null),
    [step, shown, chart, school])
  const [picked, setSelection] = useState<Selection>({ anchor: 0, focus: 0 })
  const selection = useMemo(() => moved(picked, 0, true, Math.max(1, chords.length)), [picked, chords.length])
  const select = useCallback((index: number, stretch: boolean) => setSelection((now) => ({ anchor: stretch ? now.anchor : index, focus: index })), [])
  const [hearing, setHearing] = useState<Hearing>({ version: 'both', loop: false, countIn: true })
  const [keysOpen, setKeysOpen] = useState(false)
  const [reasons, setReasons] = useState(false)
  const player = usePlayer()

  const sounding = useMemo(() => chords.filter((chord) => madeChord(chord)), [chords])
  const pause = step === 'chart' ? TYPING_PAUSE_MS : CHANGE_PAUSE_MS
  const search = useLines(useMemo(() => newQuestion(sounding, settled, chart.capo), [sounding, settled, chart.capo]), pause)
  const plain = useLines(useMemo(() => plainQuestion(sounding, chart.capo), [sounding, chart.capo]), pause)
  const voicings = useMemo(() => keptVoicings(settled, chords, chart.capo), [settled, chords, chart.capo])
  const chosen = Math.min(document.line, Math.max(0, search.lines.length - 1))
  useKeepLine(search, chosen, sounding, settled.grips, (grips) => session.edit({ kind: 'grips', grips }))

  const focus = (skeleton ?? reading).chords[selection.focus]
  const near = useNearGrips(step === 'lines' && focus?.made ? nearQuestion(focus, sounding, voicings, document.bass, chart.capo) : null)

  const offered = useMemo(() => (step === 'colour' && focus?.reading ? offeredFor(focus, chart, reading.analysis) : []), [step, focus, chart, reading.analysis])

  const sequence = useMemo(() => sequenceOf(reading, selection), [reading, selection])
  const countIn = hearing.countIn ? countInBeats(chart, sequence.chords[0]) : 0
  const schedule = useMemo(() => {
    const plainLine = plain.lines[0]
    const plainMidis = new Map(plainLine?.voicings.map((voicing, at) => [sounding[at]?.key ?? '', voicing.midis]) ?? [])
    const newMidis = new Map([...voicings].map(([key, voicing]) => [key, voicing.midis]))
    return scheduleOf(sequence.chords, hearing.version, countIn, { plain: plainMidis, new: newMidis })
  }, [sequence, hearing.version, countIn, plain.lines, voicings, sounding])
  const ready = schedule.strikes.length > 0
  const play = () => { if (ready) void player.play(schedule, document.tempo, hearing.loop) }

  const choose = (chord: TuneChord, option: ColourOption | null) =>
    session.edit({ kind: 'choose', slot: chord.key, choice: option && { symbol: option.chord.canonical, rule: option.rule } })
  const fix = (chord: TuneChord, voicing: Voicing | null) => {
    session.edit({ kind: 'fix', slot: chord.key, frets: voicing && [...voicing.frets] })
    if (voicing) void player.strumNow(voicing.midis)
  }

  const selectRange = useCallback((from: number, to: number) => setSelection({ anchor: from, focus: to }), [])
  const chartEditing = useChartEditing({
    can: step === 'chart' && shown === 0, text: document.text, chart, keyNow: reading.analysis.key, range: rangeOf(selection), onText: (text, did) => session.edit({ kind: 'bars', text, did: did.slice(0, 80) }), onSelect: selectRange,
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

  useKeys((event) => {
    if (event.ctrlKey || event.metaKey) {
      const key = event.key.toLowerCase()
      if (key !== 'z' && key !== 'y') return false
      void session.step(key === 'y' || event.shiftKey ? 'redo' : 'undo')
      return true
    }
    if (event.altKey) {
      const wanted = STEPS[Number(event.code.replace('Digit', '')) - 1]
      if (wanted) void navigate(`/tunes/${state.id}/${wanted}`, { preventScrollReset: true })
      return wanted !== undefined
    }
    switch (event.key) {
      case ' ': if (player.playing) player.stop(); else play(); return true
      case 'ArrowLeft': case 'ArrowRight':
        if (event.target instanceof HTMLInputElement) return false
        setSelection(moved(selection, event.key === 'ArrowLeft' ? -1 : 1, event.shiftKey, chords.length))
        return true
      case 'Escape': setSelection({ anchor: selection.focus, focus: selection.focus }); return true
      case 'Backspace':
        if (focus && step === 'colour' && focus.chosen) choose(focus, null)
        if (focus && step === 'lines' && focus.fixed) fix(focus, null)
        return true
      case '?': setKeysOpen(true); return true
    }
    if (step === 'chart' && shown === 0 && focus && isHere(event)) {
      const act = BAR_KEYS[event.key]
      if (act) { chartEditing.act(act); return true }
      if (event.key === 'Enter') { chartEditing.openAt(focus.slot.bar, Math.floor(focus.slot.beat + 1e-6)); return true }
      if (/^[A-G]$/.test(event.key)) { chartEditing.openAt(focus.slot.bar, Math.floor(focus.slot.beat + 1e-6), event.key); return true }
    }
    const letter = event.key.toLowerCase()
    if (event.key === 'g' && step === 'chart' && focus) { selectNextGroup(focus); return true }
    if (letter === 'w' && step === 'chart') { setReasons(!reasons); return true }
    if (letter in VERSION_KEYS) { setHearing({ ...hearing, version: VERSION_KEYS[letter as keyof typeof VERSION_KEYS] }); return true }
    if (letter === 'l') { setHearing({ ...hearing, loop: !hearing.loop }); return true }
    if (letter === 'c') { setHearing({ ...hearing, countIn: !hearing.countIn }); return true }
    if (/^\d$/.test(event.key) && focus) {
      const digit = Number(event.key)
      const option = offered[digit]?.option
      const grip = near?.[digit - 1]
      if (step === 'colour' && option) choose(focus, option)
      else if (step === 'lines' && grip) fix(focus, grip.voicing)
      else return false
      return true
    }
    return false
  })

  const onTitle = useSteady((title: string) => session.edit({ kind: 'title', title }))
  const onHistory = useSteady((direction: 'undo' | 'redo') => void session.step(direction))
  const onSheet = useSteady(() => void session.flush().then(() => navigate(`/tunes/${state.id}/sheet`)))
  const onKeys = useSteady(() => setKeysOpen(true))
  const onPlay = useSteady(play)
  const onTempo = useSteady((tempo: number) => { player.setTempo(tempo); session.edit({ kind: 'tempo', tempo }) })
  const onSave = useSteady(() => saveSound(schedule, document.tempo, document.title))

  return (
    <div className="workspace">
      <Header
        id={state.id} title={document.title} step={step} undo={undo} redo={redo} status={status.kind}
        onTitle={onTitle} onStep={onHistory} onSheet={onSheet} onKeys={onKeys}
      />
      <main className="banks">
        {status.kind === 'conflict' && <ConflictNotice onMine={session.putMineOnTop} onCopy={() => void session.keepMineAsCopy()} />}
        {status.kind === 'refused' && <p className="notice" role="alert">{status.message}</p>}
        <WhyContext.Provider value={reasons}>
          {step === 'chart' && <ChartStep document={document} session={session} reading={reading} editing={chartEditing} shown={shown} onShown={setShown} />}
        </WhyContext.Provider>
        {step === 'colour' && <ColourControl value={document.colour} byHand={chords.filter((chord) => chord.byHand).length} onChange={(colour) => session.edit({ kind: 'colour', colour })} />}
        {step === 'colour' && chords.length > 0 && <FarControl document={document} chords={chords} onEdit={session.edit} onReasons={() => void session.flush().then(() => navigate(`/tunes/${state.id}/why`))} />}
        {step === 'lines' && (
          <LinesChooser
            lines={search.lines} state={search.state} chosen={chosen} bass={document.bass} style={document.style}
            onLine={(line) => session.edit({ kind: 'line', line })} onBass={(bass) => session.edit({ kind: 'bass', bass })} onStyle={(style) => session.edit({ kind: 'style', style })}
            onStop={search.stop} onAgain={search.again}
          />
        )}
        {chords.length === 0 && step !== 'chart' && (
          <p className="empty">
            There are no chords yet: type them in the Chart step, or begin with four plain ones.{' '}
            <Button onClick={() => session.edit({ kind: 'text', text: FIRST_CHART })}>Put in four plain chords</Button>
          </p>
        )}
        <Systems
          step={step} reading={skeleton ?? reading} voicings={voicings} selection={selection} sounding={player.sounding}
          editing={chartEditing.editing} onSelect={select} onGroup={selectGroup} onBeat={step === 'chart' && shown === 0 ? chartEditing.openAt : undefined}
        />
      </main>
      <p className="visually-hidden" aria-live="polite">{focus && chordInWords(focus)}</p>
      <aside className="drawer" aria-label="Selected chord">
        {!focus && <p className="quiet">Select a chord to read about it.</p>}
        {focus && <p className="drawer-place">{placeName(focus.slot)}</p>}
        {focus && step === 'chart' && (
          <WhyContext.Provider value={reasons}>
            <ReadingDrawer key={focus.key} chord={focus} groups={(skeleton ?? reading).analysis.groups.filter((group) => isPartOf(focus, group))} />
          </WhyContext.Provider>
        )}
        {focus && step === 'colour' && <ColourDrawer chord={focus} offered={offered} onChoose={(option) => choose(focus, option)} />}
        {focus && step === 'lines' && (
          <GripDrawer key={focus.key} chord={focus} voicing={voicings.get(focus.key)} grips={near} capo={chart.capo} onFix={(voicing) => fix(focus, voicing)} onHear={(voicing) => void player.strumNow(voicing.midis)} />
        )}
      </aside>
      <Transport
        hearing={hearing} onHearing={setHearing} tempo={document.tempo} playing={player.playing} ready={ready} trouble={player.trouble}
        says={ready ? hearingInWords(sequence) : 'No grips to play yet.'} onTempo={onTempo} onPlay={onPlay} onStop={player.stop} onSave={onSave}
      />
      <KeysDialog open={keysOpen} onClose={() => setKeysOpen(false)} />
    </div>
  )
}

/** The selected chord for those who listen: place, plain chord, numeral, and what it has become. */
function chordInWords({ slot, reading, made }: TuneChord): string {
  const became = made && made.rule !== 'plain' ? `, now ${made.chord.canonical}` : ''
  return `${placeName(slot)}: ${slot.text}${reading ? `, ${reading.roman}` : ''}${became}`
}

const VERSION_KEYS = { p: 'plain', n: 'new', b: 'both' } as const

/** Keys for the selected bars on the Chart step. */
const BAR_KEYS: Readonly<Record<string, BarAct>> = { i: 'after', I: 'before', s: 'split', j: 'join', '[': 'earlier', ']': 'later', '-': 'down', '−': 'down', '+': 'up', x: 'remove' }

/** A key meant for the systems, and not for a button that has the focus. */
const isHere = ({ key, target }: KeyboardEvent): boolean =>
  key !== 'Enter' || !(target instanceof Element) || target === document.body || target.closest('.slot') !== null

const isPartOf = ({ slot }: TuneChord, { from, to }: Group): boolean => {
  const after = slot.bar > from.bar || (slot.bar === from.bar && slot.beat > from.beat - 1e-6)
  const before = slot.bar < to.bar || (slot.bar === to.bar && slot.beat < to.beat + 1e-6)
  return after && before
}

/** One bar clicked; before a pickup also the beats of its bar that stay silent. */
function countInBeats({ meter, pickup }: Chart, first: TuneChord | undefined): number {
  return meter.beats + (first?.slot.bar === 0 ? meter.beats - pickup : 0)
}

function hearingInWords({ chords, range }: Sequence): string {
  const [first, last] = [chords[0], chords.at(-1)]
  if (!first || !last || range === 'all') return 'The whole tune'
  return range === 'from' ? `From ${placeName(first.slot)} to the end` : `${placeName(first.slot)} to ${placeName(last.slot)}`
}

function newQuestion(sounding: readonly TuneChord[], document: TuneState['document'], capo: number): LinesQuestion | null {
  if (sounding.length === 0) return null
  const fixed = sounding.flatMap((chord, at): LinesQuestion['fixed'] => (document.fixed[chord.key] ? [[at, document.fixed[chord.key]!]] : []))
  return { symbols: sounding.map((chord) => madeChord(chord)!.canonical), fixed, bass: document.bass, capo, style: document.style, count: LINES_WANTED }
}

/** The plain version is heard in its own smooth grips, with the roots below. */
function plainQuestion(sounding: readonly TuneChord[], capo: number): LinesQuestion | null {
  if (sounding.length === 0) return null
  return { symbols: sounding.map((chord) => chord.options[0]!.chord.canonical), fixed: [], bass: 'chord', capo, style: 'smooth', count: 1 }
}

function nearQuestion(focus: TuneChord, sounding: readonly TuneChord[], voicings: ReadonlyMap<string, Voicing>, bass: 'chord' | 'any', capo: number) {
  const at = sounding.indexOf(focus)
  const midisOf = (chord: TuneChord | undefined) => {
    const voicing = chord && voicings.get(chord.key)
    return voicing ? [...voicing.midis] : null
  }
  return { symbol: madeChord(focus)!.canonical, bass, capo, before: midisOf(sounding[at - 1]), after: midisOf(sounding[at + 1]) }
}

/** Keeps the chosen line with the tune as soon as the search has answered for the present chords. */
function useKeepLine(
  { lines, current }: ReturnType<typeof useLines>, chosen: number, sounding: readonly TuneChord[], kept: TuneState['document']['grips'],
  keep: (grips: TuneState['document']['grips']) => void,
): void {
  useEffect(() => {
    const line = lines[chosen]
    if (!current || !line) return
    const grips = gripsOfLine(line, sounding)
    if (!sameGrips(grips, kept)) keep(grips)
    // eslint-disable-next-line react-hooks/exhaustive-deps -- `keep` is new on every render and does not matter
  }, [lines, current, chosen, sounding, kept])
}

function sameGrips(a: TuneState['document']['grips'], b: TuneState['document']['grips']): boolean {
  const keys = Object.keys(a)
  return keys.length === Object.keys(b).length && keys.every((key) => b[key]?.join() === a[key]!.join())
}
