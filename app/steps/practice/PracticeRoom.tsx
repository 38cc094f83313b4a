import { useMemo } from 'react'
import { keyName } from '../../../core/pitch/key'
import { itemKey } from '../../../core/practice/grade'
import { AREAS, type Item } from '../../../core/practice/items'
import { topNoteOf } from '../../../core/practice/walk'
import { limitsFor } from '../../../core/player/limits'
import type { Voicing } from '../../../core/voicing/voicing'
import { useGrips } from '../../services/grips/GripsContext'
import { usePracticeLog } from '../../services/practice/usePracticeLog'
import { RoomFrame } from '../../services/room/RoomFrame'
import { Music } from '../../services/systems/Music'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { useSoundingIn } from '../../services/sound/SoundContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useSteady } from '../../services/words/steady'
import { keysOf } from './keysOf'
import { passSchedule } from './passSchedule'
import { MODES, PracticeBar, type PracticeMode, type Practised } from './PracticeBar'
import { PracticeDrawer } from './PracticeDrawer'
import { NothingStaged, PracticeStage } from './PracticeStage'
import { useDoubt } from './useDoubt'
import { useEasier } from './useEasier'
import { usePlan } from './usePlan'
import { useInSight } from './useInSight'
import { usePasses } from './usePasses'
import { useStaged } from './useStaged'
import { useWalk } from './useWalk'
import { nextOfWalk, walkInWords } from './walkInWords'

const AS_USUAL: Practised = {
  mode: 'ladder',
  minutes: 20,
  guitar: 'silent',
  order: 'fourths',
  into: 'same shapes',
  area: 0,
}

/** Until it needs no thought: small pieces, slowly, then joined, on one key. */
export function PracticeRoom() {
  const { id, document, reading, body, edit } = useKnownTune()
  const { chart, line, analysis } = reading
  const { voicings } = useGrips()
  const { selectLineRange } = useSelection()
  const log = usePracticeLog(id, document.title)
  const [set, setSet] = useKeptState<Practised>('practice.set', AS_USUAL)
  const { items, plan } = usePlan(log, set.minutes)
  const [picked, setPicked] = useKeptState<string | null>('practice.item', null)
  const [keyAt, setKeyAt] = useKeptState('practice.key', 0)
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

  const passes = usePasses({
    stage,
    mode: set.mode,
    usualGoal: document.tempo,
    log,
    walk,
    memory,
    schedule: (staged, tempo) =>
      passSchedule({ staged, reading, document, voicings, guitar: set.guitar, tempo }),
    // What is begun stays on the stage, whatever the plan says after it.
    onBegin: () => item && setPicked(itemKey(item)),
    onCleanKey: () => setKeyAt(keyAt + 1),
  })
  const { round, visit, hurt, hidden } = passes
  useInSight(stage)

  const doubt = useDoubt(walk, log)
  const sounding = useSoundingIn('new')
  const playedNow = stage?.chords.findIndex(({ index }) => index >= 0 && index === sounding) ?? -1
  const isWalk = set.mode === 'walk'
  const onward = walk.last ? 'The walk is over' : 'Go on'
  const nowAt = isWalk ? (stage?.chords.length ?? 1) - 1 : Math.max(0, playedNow)
  const now = stage?.chords[nowAt] ?? null
  const next = isWalk
    ? nextOfWalk(walk, reading.line, voicings)
    : (stage?.chords[nowAt + 1] ?? (stage && stage.chords.length > 1 ? stage.chords[0]! : null))

  const easier = useEasier(hurt, chart.capo, document.bass, body)

  const change = (more: Partial<Practised>) => {
    round.leave()
    setSet({ ...set, ...more })
  }
  const choose = ({ kind, item: name }: Pick<Item, 'kind' | 'item'>) => {
    round.leave()
    passes.unhurt()
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

  const hold = useSteady((key: string) => {
    const held = line.find((one) => one.key === key)
    if (held) selectLineRange(held.index, held.index)
  })
  const threads = useMemo(() => ({ taken: null, onTake: hold, onDrag: () => {} }), [hold])

  const keys = keysOf({
    press: passes.press,
    grade: (grade) => {
      if (round.round.at !== 'asked') return false
      round.grade(grade)
    },
    peek: () => {
      if (!memory) return false
      passes.peek()
    },
    doubt,
    shift: visit.shift,
    go: (by) => {
      if (isWalk) return by > 0 ? walk.next() : walk.back()
      const at = parts.findIndex((one) => item && itemKey(one) === itemKey(item))
      const other = parts[(at + by + parts.length) % parts.length]
      if (!other) return false
      choose(other)
    },
    nextMode: () => change({ mode: MODES[(MODES.indexOf(set.mode) + 1) % MODES.length]! }),
  })

  const says = () => {
    if (elsewhere?.says) return elsewhere.says
    if (isWalk && now?.voicing) return walkInWords(topNote(now.voicing), walk)
    if (visit.marks.length > 0) return visit.rung.why
    return stage ? `${stage.why}.` : ''
  }
  const topNote = (held: Voicing) =>
    topNoteOf(held, analysis.key, limitsFor(body, chart.capo, 'any').instrument, body.instrument.cutaway)

  return (
    <RoomFrame
      bar={<PracticeBar set={set} keyNow={elsewhere?.staged?.key ?? home} onSet={change} />}
      lead={
        stage ? (
          <PracticeStage
            stage={stage}
            mode={set.mode}
            passes={passes}
            log={log}
            says={says()}
            now={now}
            next={next}
            walk={isWalk ? onward : null}
          />
        ) : (
          <NothingStaged />
        )
      }
      drawer={{
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
            onEasier={({ key, easier: one }) =>
              edit({ kind: 'fix', slot: key, frets: [...one.voicing.frets] })
            }
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
      }}
      keys={keys}
      cursor="line"
    >
      <Music
        reading={reading}
        newLine={hidden ? 'reasons' : 'grips'}
        voicings={voicings}
        threads={hidden ? null : threads}
      />
    </RoomFrame>
  )
}

/** What is practised in a mode of its own. */
const MODE_OF: Readonly<Partial<Record<Item['kind'], PracticeMode>>> = { cadence: 'areas', keys: 'keys' }

const AREA = /frets (\d+) to/
const AREA_STARTS = AREAS.map(([low]): number => low)
