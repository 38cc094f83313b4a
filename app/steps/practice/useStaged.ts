import { itemAt } from '../../../core/lists'
import { useMemo } from 'react'
import { keyName } from '../../../core/pitch/key'
import { itemKey } from '../../../core/practice/grade'
import type { Item } from '../../../core/practice/items'
import { keySteps } from '../../../core/practice/keysPractised'
import { isPlayedPart, type Planned } from '../../../core/practice/plan'
import { useGrips } from '../../services/grips/GripsContext'
import { useKnownTune } from '../../services/tune/TuneContext'
import type { Practised } from './PracticeBar'
import { staged as stagedFrom, type Staged } from './stagedGrips'
import { cadenceOf, useElsewhere } from './useElsewhere'
import type { useWalk } from './useWalk'

interface StagedAsked {
  items: readonly Item[]
  plan: readonly Planned[]
  /** What was picked by hand, by its key. */
  picked: string | null
  set: Practised
  /** How many keys on the way through the keys has come. */
  keyAt: number
  walk: ReturnType<typeof useWalk>
}

/**
 * What comes on the stage: of the plan or picked, in the mode that is set, here or elsewhere on the
 * neck.
 */
export function useStaged({ items, plan, picked, set, keyAt, walk }: StagedAsked) {
  const { reading } = useKnownTune()
  const { voicings } = useGrips()
  const home = keyName(reading.analysis.key)
  const parts = plan.filter(isPlayedPart).filter(({ kind }) => kind !== 'warm-up' && kind !== 'question')
  const [first] = parts
  const item =
    items.find((one) => itemKey(one) === picked) ??
    items.find((one) => first && itemKey(one) === itemKey(first)) ??
    items[0] ??
    null
  const here = useMemo(
    () => (item ? stagedFrom(item, reading, voicings, home) : null),
    [item, reading, voicings, home],
  )
  // What goes through the keys is a passage; what is asked about areas is the tune's cadence.
  const passage = useMemo(() => {
    if (set.mode === 'areas') {
      const cadence = cadenceOf(items)
      return cadence ? stagedFrom(cadence, reading, voicings, home) : null
    }
    if (here && !here.alone && here.kind !== 'keys' && here.kind !== 'cadence') return here
    const four = items.find(({ kind }) => kind === 'passage')
    return four ? stagedFrom(four, reading, voicings, home) : null
  }, [set.mode, here, items, reading, voicings, home])
  const isElsewhere = set.mode === 'keys' || set.mode === 'areas'
  const steps = useMemo(() => keySteps(set.order), [set.order])
  const semitones = itemAt(steps, keyAt % steps.length)
  const elsewhere = useElsewhere(
    useMemo(
      () =>
        isElsewhere
          ? {
              from: passage,
              semitones: set.mode === 'keys' ? semitones : null,
              into: set.into,
              area: set.area,
              items,
            }
          : null,
      [isElsewhere, set.mode, passage, semitones, set.into, set.area, items],
    ),
  )
  const walked = useMemo((): Staged | null => {
    const whole = items.find(({ kind }) => kind === 'tune')
    if (!whole || !walk.now) return null
    const all = stagedFrom(whole, reading, voicings, home)
    const inPhrase = (index: number) => index >= walk.now!.from && index <= walk.now!.to
    return { ...all, item: 'rubato walk', chords: all.chords.filter(({ index }) => inPhrase(index)) }
  }, [items, walk.now, reading, voicings, home])
  const memory = set.mode === 'memory'
  const stage = useMemo((): Staged | null => {
    if (set.mode === 'walk') return walked
    const plain = isElsewhere ? elsewhere.staged : here
    return plain && memory ? { ...plain, item: `${plain.item}, from memory` } : plain
  }, [set.mode, walked, isElsewhere, elsewhere.staged, here, memory])
  return { parts, item, stage, elsewhere: isElsewhere ? elsewhere : null, memory }
}
