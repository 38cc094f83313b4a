import Button from '@mui/material/Button'
import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import { keyName } from '../../../core/pitch/key'
import { itemKey, type Grade } from '../../../core/practice/grade'
import { AREAS, gripName, type Item } from '../../../core/practice/items'
import { topNoteOf } from '../../../core/practice/walk'
import { madeChord } from '../../../core/tune/reading'
import { limitsFor } from '../../../core/player/limits'
import type { Voicing } from '../../../core/voicing/voicing'
import { useGrips } from '../../services/grips/GripsContext'
import type { KeyRow } from '../../services/keys/keys'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { usePracticeLog } from '../../services/practice/usePracticeLog'
import type { RoomView } from '../../services/room/room'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { useSoundingIn } from '../../services/sound/SoundContext'
import { SOUND } from '../../services/sound/store'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useSteady } from '../../services/words/steady'
import { GoalField } from './GoalField'
import { passSchedule } from './passSchedule'
import { MODES, PracticeBar, type Mode, type Practised } from './PracticeBar'
import { PracticeDrawer } from './PracticeDrawer'
import { Stage } from './Stage'
import type { Staged } from './stage'
import { useEasier } from './useEasier'
import { usePlan } from './usePlan'
import { useRound } from './useRound'
import { useStaged } from './useStaged'
import { useVisit } from './useVisit'
import { useWalk } from './useWalk'

const AS_USUAL: Practised = {
  mode: 'ladder',
  minutes: 20,
  guitar: 'silent',
  order: 'fourths',
  into: 'same shapes',
  area: 0,
}
/** Steps of the tempo by key, in beats a minute. */
const TEMPO_STEP = 2
/** Grips come back by themselves so long after they were hidden, in ms, for a hand that waits in vain. */
const SHOWN_AFTER_MS = 30_000

/** Until it needs no thought: small pieces, slowly, then joined, on one key. */
export function usePracticeRoom(): RoomView {
  const { id, document, reading, body, edit } = useKnownTune()
  const { chart, line, analysis } = reading
  const { voicings, search } = useGrips()
  const { selectLineRange, lineSelection } = useSelection()
  const {
    settings: { hand },
  } = usePlayerSettings()
  const log = usePracticeLog(id, document.title)
  const [set, setSet] = useKeptState<Practised>('practice.set', AS_USUAL)
  const { items, plan } = usePlan(log, set.minutes)
  const [picked, setPicked] = useKeptState<string | null>('practice.item', null)
  const [keyAt, setKeyAt] = useKeptState('practice.key', 0)
  const [shownAgain, setShownAgain] = useState(false)
  const [hurt, setHurt] = useState<Staged | null>(null)
  const walk = useWalk()
  const home = keyName(analysis.key)

  const { parts, item, stage, elsewhere, memory } = useStaged({
    items,
    plan,
    picked,
    set,
    keyAt,
    walk,
    reading,
    voicings,
  })

  const asked = stage ? log.goals.get(itemKey(stage))?.tempo : null
  const goal = asked ?? document.tempo
  const staging = useMemo(
    () => (stage?.chords ?? []).flatMap(({ voicing }): Voicing[] => (voicing ? [voicing] : [])),
    [stage],
  )
  const visit = useVisit(stage, goal, log.records, staging, hand.reachMm)
  const { tempo } = visit.rung
  const hasTime = set.mode !== 'walk' && stage?.kind !== 'grip'

  const record = (of: Staged, grade: Grade, seconds: number, more: { note?: string; hurt?: boolean } = {}) =>
    log.grade({
      kind: of.kind,
      item: of.item,
      grade,
      seconds,
      fromBar: of.from,
      toBar: of.to,
      key: of.key,
      ...(hasTime ? { tempo, goal } : {}),
      ...more,
    })
  const graded = (grade: Grade, seconds: number) => {
    if (!stage) return
    record(stage, grade, seconds, set.mode === 'loop' ? { note: 'looped with the band' } : {})
    visit.add(grade, seconds)
    if (set.mode === 'walk') walk.again()
    if (set.mode === 'keys' && grade === 'clean') setKeyAt(keyAt + 1)
    // A slip shows what was forgotten.
    setShownAgain(grade !== 'clean')
  }
  const round = useRound({
    schedule: () =>
      stage && passSchedule({ staged: stage, reading, document, voicings, guitar: set.guitar, tempo }),
    tempo,
    loop: set.mode === 'loop',
    onGrade: graded,
  })
  const press = () => {
    // What is begun stays on the stage, whatever the plan says after it.
    if (item) setPicked(itemKey(item))
    visit.begin()
    if (round.round.at !== 'ready') return round.press()
    // What was shown is hidden again for the next pass from memory.
    setShownAgain(false)
    if (set.mode !== 'walk') return round.press()
    if (walk.last) round.ask()
    else walk.next()
  }

  /** Doubt at a chord: the change into it becomes an exercise. */
  const doubt = () => {
    const at = line.findIndex(({ index }) => index === lineSelection.focus)
    const into = line[at]
    const from = line[at - 1]
    const names = [from, into].map((one) => {
      const voicing = one && voicings.get(one.key)
      const chord = one && madeChord(one)
      return voicing && chord ? gripName({ text: chord.canonical }, voicing) : null
    })
    if (!into || !names[1]) return
    walk.doubt(into.key)
    log.grade({
      kind: names[0] ? 'change' : 'grip',
      item: names[0] ? `${names[0]} to ${names[1]}` : names[1],
      grade: 'failed',
      fromBar: from?.slot.bar ?? into.slot.bar,
      toBar: into.slot.bar,
      key: home,
      note: 'doubtful on a rubato walk',
    })
  }

  // The stretch on the stage is the one selected in the music.
  const span = stage?.chords.filter(({ index }) => index >= 0)
  const [from, to] = [span?.[0]?.index ?? -1, span?.at(-1)?.index ?? -1]
  useEffect(() => {
    if (from < 0) return
    selectLineRange(from, to)
    // Once the selection is drawn, its system comes under the stage; where the stage does not stay in sight, it is the stage that matters.
    if (!matchMedia('(min-width: 901px)').matches) return
    const drawn = requestAnimationFrame(() =>
      window.document
        .querySelector(`.bank-new [data-slot='${from}']`)
        ?.closest('.system')
        ?.scrollIntoView({ block: 'start' }),
    )
    return () => cancelAnimationFrame(drawn)
  }, [from, to, selectLineRange])
  useEffect(() => setShownAgain(false), [stage?.item, set.mode])
  const hidden = memory && !shownAgain
  useEffect(() => {
    if (!hidden || round.round.at !== 'playing') return
    const late = setTimeout(() => setShownAgain(true), SHOWN_AFTER_MS)
    return () => clearTimeout(late)
  }, [hidden, round.round.at])

  const sounding = useSoundingIn('new')
  const playedNow = stage?.chords.findIndex(({ index }) => index >= 0 && index === sounding) ?? -1
  const isWalk = set.mode === 'walk'
  const onward = walk.last ? 'The walk is over' : 'Go on'
  const nowAt = isWalk ? (stage?.chords.length ?? 1) - 1 : Math.max(0, playedNow)
  const now = stage?.chords[nowAt] ?? null
  const following = walk.phrases[walk.at + 1]
  const next = isWalk
    ? nextOfWalk(following?.from, reading.line, voicings)
    : (stage?.chords[nowAt + 1] ?? (stage && stage.chords.length > 1 ? stage.chords[0]! : null))

  const easier = useEasier(hurt, chart.capo, document.bass, body)

  const change = (more: Partial<Practised>) => {
    round.leave()
    setSet({ ...set, ...more })
  }
  const choose = ({ kind, item: name }: Pick<Item, 'kind' | 'item'>) => {
    round.leave()
    setHurt(null)
    setPicked(itemKey({ kind, item: name }))
    const mode = MODE_OF[kind] ?? set.mode
    const area = AREA.exec(name)
    if (kind === 'cadence') setSet({ ...set, mode, area: area ? AREA_STARTS.indexOf(Number(area[1])) : 0 })
    else if (kind === 'keys') {
      const wanted = items.filter((one) => one.kind === 'keys').findIndex((one) => one.item === name)
      setSet({ ...set, mode, order: 'fourths' })
      setKeyAt(wanted + 1)
    } else if (set.mode === 'areas' || set.mode === 'keys' || set.mode === 'walk')
      setSet({ ...set, mode: 'ladder' })
  }
  const hurts = () => {
    if (!stage) return
    round.leave()
    SOUND.stop()
    setHurt(stage)
    record(stage, 'failed', 0, { hurt: true, note: 'it hurt' })
  }

  const hold = useSteady((key: string) => {
    const held = line.find((one) => one.key === key)
    if (held) selectLineRange(held.index, held.index)
  })
  const threads = useMemo(() => ({ taken: null, onTake: hold, onDrag: () => {} }), [hold])

  const keys: KeyRow[] = [
    {
      on: ['Space', 'Enter', 'PageDown'],
      shown: 'Space',
      says: 'The one key: begins, ends, and says how it was (once clean, twice nearly, three times failed). Enter, Page Down and a foot switch that types one of them do the same',
      act: (_, event) => {
        if (!event.repeat) press()
      },
    },
    ...(['clean', 'nearly', 'failed'] as const).map((grade, at): KeyRow => ({
      on: [String(at + 1)],
      shown: String(at + 1),
      says: `It was ${grade}`,
      act: () => {
        if (round.round.at !== 'asked') return false
        round.grade(grade)
      },
    })),
    {
      on: ['r'],
      shown: 'R',
      says: 'From memory: show the grips',
      act: () => {
        if (!memory) return false
        setShownAgain(!shownAgain)
      },
    },
    {
      on: ['d'],
      shown: 'D',
      says: 'Doubtful: the change into the selected chord becomes an exercise',
      act: doubt,
    },
    {
      on: ['-', '−', '+', '='],
      shown: '− +',
      says: 'Slower, faster',
      act: (pressed) => visit.shift(pressed === '+' || pressed === '=' ? TEMPO_STEP : -TEMPO_STEP),
    },
    {
      on: ['ArrowUp', 'ArrowDown'],
      shown: '↑ ↓',
      says: 'What comes before and after in the plan; on a rubato walk the phrase before and after',
      act: (pressed) => {
        const by = pressed === 'ArrowDown' ? 1 : -1
        if (isWalk) return by > 0 ? walk.next() : walk.back()
        const at = parts.findIndex((one) => item && itemKey(one) === itemKey(item))
        const other = parts[(at + by + parts.length) % parts.length]
        if (!other) return false
        choose(other)
      },
    },
    {
      on: ['m'],
      shown: 'M',
      says: 'The next mode',
      act: () => change({ mode: MODES[(MODES.indexOf(set.mode) + 1) % MODES.length]! }),
    },
  ]

  const says = () => {
    if (elsewhere?.says) return elsewhere.says
    if (isWalk && now?.voicing) return walkInWords(now.voicing, walk.at, walk.phrases.length)
    if (visit.marks.length > 0) return visit.rung.why
    return stage ? `${stage.why}.` : ''
  }
  const topNote = (held: Voicing) =>
    topNoteOf(held, analysis.key, limitsFor(body, chart.capo, 'any').instrument, body.instrument.cutaway)
  function walkInWords(held: Voicing, at: number, of: number): string {
    const { name, degree, string, above, below } = topNote(held)
    const steps = [
      above && `${above.name} at fret ${above.fret} above`,
      below && `${below.name} at fret ${below.fret} below`,
    ]
    return `Phrase ${at + 1} of ${of}. On top ${name}, the ${degree}, on string ${string}; ${steps.filter(Boolean).join(', ')}. Stay, fill, go on when you like.`
  }

  return {
    bar: <PracticeBar set={set} keyNow={elsewhere?.staged?.key ?? home} onSet={change} />,
    lead: stage ? (
      <Stage
        shown={{
          title: set.mode === 'keys' ? `${passageName(stage)} in ${stage.key}` : titleOf(stage),
          says: says(),
          now,
          next,
          hidden,
          tempo: hasTime ? { now: tempo, goal } : null,
          marks: visit.marks,
          round: round.round,
          capo: chart.capo,
        }}
        walk={isWalk ? onward : null}
        onPress={press}
        onGrade={round.grade}
        onHurt={hurts}
      >
        {visit.rest && (
          <p className="rest-due" role="status">
            {Math.round(visit.played)} minutes without a rest: put the hands down for one.{' '}
            <Button size="small" onClick={visit.rested}>
              Rested
            </Button>
          </p>
        )}
        {log.trouble && (
          <p className="notice" role="alert">
            {log.trouble}
          </p>
        )}
        {hasTime && (
          <GoalField goal={goal} onGoal={(next_) => log.setGoal(goalOf(stage, next_, log.goals))} />
        )}
      </Stage>
    ) : (
      line.length > 0 && (
        <p className="empty">
          What can be practised comes from the grips of your line.{' '}
          {search.state.kind === 'fault' ? search.state.message : 'They are being looked for.'}{' '}
          <Link to={`/tunes/${id}/lines`}>To the Lines step</Link>
        </p>
      )
    ),
    music: { reading, newLine: hidden ? 'reasons' : 'grips', voicings, threads: hidden ? null : threads },
    drawer: {
      name: 'Practice',
      content: (
        <PracticeDrawer
          trainer={`/trainer?from=${id}`}
          plan={plan}
          items={items}
          records={log.records}
          today={log.today}
          chosen={item && itemKey(item)}
          onChoose={choose}
          hurt={hurt !== null}
          easier={easier}
          onEasier={({ key, easier: one }) => edit({ kind: 'fix', slot: key, frets: [...one.voicing.frets] })}
          wanted={new Set([...log.goals.values()].filter(({ wanted }) => wanted).map(itemKey))}
          onWant={(one) => {
            const known = log.goals.get(itemKey(one))
            log.setGoal({
              kind: one.kind,
              item: one.item,
              tempo: known?.tempo ?? null,
              wanted: !known?.wanted,
            })
          }}
        />
      ),
    },
    keys,
    cursor: 'line',
  }
}

/** What is practised in a mode of its own. */
const MODE_OF: Readonly<Partial<Record<Item['kind'], Mode>>> = { cadence: 'areas', keys: 'keys' }

const AREA = /frets (\d+) to/
const AREA_STARTS = AREAS.map(([low]): number => low)

const titleOf = ({ item }: Staged): string => item[0]!.toUpperCase() + item.slice(1)
const passageName = ({ from, to }: Staged): string => (from === to ? `Bar ${from}` : `Bars ${from} to ${to}`)

const goalOf = ({ kind, item }: Staged, tempo: number, goals: ReadonlyMap<string, { wanted: boolean }>) => ({
  kind,
  item,
  tempo,
  wanted: goals.get(itemKey({ kind, item }))?.wanted ?? false,
})

/** The first chord of the next phrase. */
function nextOfWalk(
  index: number | undefined,
  line: ReturnType<typeof useKnownTune>['reading']['line'],
  voicings: ReadonlyMap<string, Voicing>,
) {
  const found = index === undefined ? undefined : line.find((one) => one.index === index)
  const chord = found && madeChord(found)
  return found && chord
    ? {
        key: found.key,
        index: found.index,
        chord,
        voicing: voicings.get(found.key) ?? null,
        beats: found.lasts,
      }
    : null
}
