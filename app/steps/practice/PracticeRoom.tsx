import { itemAt } from '../../../core/lists'
import { useMemo } from 'react'
import { keyName } from '../../../core/pitch/key'
import { itemKey } from '../../../core/practice/grade'
import { useGrips } from '../../services/grips/GripsContext'
import { usePracticeLog } from '../../services/practice/usePracticeLog'
import { RoomFrame } from '../../services/room/RoomFrame'
import { Music } from '../../services/systems/Music'
import { useKeptState, useSelection } from '../../services/selection/SelectionContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import { useStableCallback } from '../../services/words/stable'
import { practiceKeys } from './practiceKeys'
import { passSchedule } from './passSchedule'
import { PRACTICE_MODES, PracticeBar, type Practised } from './PracticeBar'
import { PracticeDrawer } from './PracticeDrawer'
import { NothingStaged, PracticeStage } from './PracticeStage'
import { useChoosing } from './useChoosing'
import { useDoubt } from './useDoubt'
import { useEasier } from './useEasier'
import { usePlan } from './usePlan'
import { useInSight } from './useInSight'
import { usePasses } from './usePasses'
import { useNowAndNext, useTopNote } from './useNowAndNext'
import { useStaged } from './useStaged'
import { useWalk } from './useWalk'
import { walkInWords } from './walkInWords'

const AS_USUAL: Practised = {
  mode: 'ladder',
  minutes: 20,
  guitar: 'silent',
  order: 'fourths',
  into: 'same shapes',
  area: 0,
}

/** What the one key says on a walk. */
const ONWARD = { over: 'The walk is over', on: 'Go on' } as const

/** Until it needs no thought: small pieces, slowly, then joined, on one key. */
export function PracticeRoom() {
  const { id, document, reading, body, edit } = useKnownTune()
  const { chart, analysis } = reading
  const { voicings } = useGrips()
  const log = usePracticeLog(id, document.title)
  const [set, setSet] = useKeptState<Practised>('practice.set', AS_USUAL)
  const { items, plan } = usePlan(log, set.minutes)
  const [picked, setPicked] = useKeptState<string | null>('practice.item', null)
  const [keyAt, setKeyAt] = useKeptState('practice.key', 0)
  const walk = useWalk()
  const home = keyName(analysis.key)

  const { parts, item, stage, elsewhere, memory } = useStaged({ items, plan, picked, set, keyAt, walk })

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
  const { visit, hurt, hidden } = passes
  useInSight(stage)

  const doubt = useDoubt(walk, log)
  const isWalk = set.mode === 'walk'
  const { now, next } = useNowAndNext(stage, isWalk ? walk : null)
  const easier = useEasier(hurt, chart.capo, document.bass, body)

  const { change, choose } = useChoosing({
    items,
    set,
    onSet: setSet,
    passes,
    onPick: setPicked,
    onKey: setKeyAt,
  })

  const threads = useThreadsThatSelect()

  const keys = practiceKeys({
    passes,
    memory,
    walk: isWalk ? walk : null,
    parts,
    item,
    onDoubt: doubt,
    onChoose: choose,
    onNextMode: () =>
      change({
        mode: itemAt(PRACTICE_MODES, (PRACTICE_MODES.indexOf(set.mode) + 1) % PRACTICE_MODES.length),
      }),
  })

  const topNote = useTopNote()
  const says = () => {
    if (elsewhere?.says) return elsewhere.says
    if (isWalk && now?.voicing) return walkInWords(topNote(now.voicing), walk)
    if (visit.marks.length > 0) return visit.rung.why
    return stage ? `${stage.why}.` : ''
  }
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
            walk={isWalk ? ONWARD[walk.last ? 'over' : 'on'] : null}
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
            log={log}
            chosen={item && itemKey(item)}
            onChoose={choose}
            hurt={hurt !== null}
            easier={easier}
            onEasier={({ key, easier: one }) =>
              edit({ kind: 'fix', slot: key, frets: [...one.voicing.frets] })
            }
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

/** The voices between the grips: none is pulled here, a touch selects its chord. */
function useThreadsThatSelect() {
  const { line } = useKnownTune().reading
  const { selectLineRange } = useSelection()
  const hold = useStableCallback((key: string) => {
    const held = line.find((one) => one.key === key)
    if (held) selectLineRange(held.index, held.index)
  })
  return useMemo(() => ({ taken: null, onTake: hold, onDrag: () => {} }), [hold])
}
