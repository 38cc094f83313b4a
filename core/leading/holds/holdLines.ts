import type { Role } from '../../analysis/role'
import type { ChordSymbol } from '../../chord/symbol'
import { itemAt } from '../../lists'
import type { Frets } from '../../neck/instrument'
import type { Key } from '../../pitch/key'
import { bad, good, type Result } from '../../result'
import { styledLines, type StyledLines, type StyledProblem } from '../inStyle'
import { STOPPED } from '../lead'
import { holdRuns, type Hold, type HoldRun, type HoldStep } from './hold'
import type { HeldRun } from './heldRun'
import type { Ladder } from './rungs'
import { laddersOf } from './ladders'

/** A line of a tune whose chords that last are kept alive. */
export interface HoldLine {
  /** A grip for each step; `chords` of it are what sounds there. */
  line: StyledLines['lines'][number]
  /** How each chord that lasts goes, by index of its first step. */
  ladders: ReadonlyMap<number, Ladder>
}

/** Lines, and what was decided on the way. */
export type HoldLines = Pick<StyledLines, 'texture' | 'says'> & { lines: HoldLine[] }

/** What lines with chords that last are asked for: everything is said of steps. */
export interface HoldProblem extends StyledProblem {
  roles: readonly Role[]
  steps: readonly HoldStep[]
  hold: Hold
  key: Key | null
}

/**
 * Lines in which a chord that lasts has a grip for each step, and the grips between lead from one
 * to the next. The second line has the second way of each chord, and so on.
 */
export function holdLines(problem: HoldProblem): Result<HoldLines> {
  const { steps, hold, count, fixed, key, onProgress, ...styled } = problem
  const runs = holdRuns(steps).filter(({ from, to }) => !isFixed(fixed, from, to))
  const found: [HoldRun, Ladder[]][] = []
  for (const run of runs) {
    if (onProgress?.(run.from, steps.length) === false) return STOPPED_FAULT
    const held: HeldRun = {
      chords: steps.slice(run.from, run.to + 1).map(({ chord }) => chord),
      roles: problem.roles.slice(run.from, run.to + 1),
      hold,
      limits: problem.limits,
      key,
    }
    found.push([run, laddersOf(held, count)])
  }
  const none = found.filter(([, ladders]) => ladders.length === 0)
  const says = none.map(([{ from, to }]) => noWay(steps.slice(from, to + 1), hold))
  const most = Math.max(1, ...found.map(([, ladders]) => ladders.length))
  const lines: HoldLine[] = []
  let texture: StyledLines['texture'] = 'as it comes'
  for (let at = 0; at < most; at += 1) {
    const ladders = new Map(
      found.flatMap(([{ from }, ways]) =>
        ways.length > 0 ? [[from, itemAt(ways, at % ways.length)] as const] : [],
      ),
    )
    const chords: ChordSymbol[] = steps.map(({ chord }) => chord)
    const grips = new Map<number, Frets>(fixed)
    for (const [from, ladder] of ladders)
      ladder.voicings.forEach(({ frets }, step) => {
        grips.set(from + step, frets)
        chords[from + step] = itemAt(ladder.chords, step)
      })
    const led = styledLines({
      ...styled,
      ...(onProgress ? { onProgress } : {}),
      chords,
      count: 1,
      fixed: grips,
    })
    if (!led.ok) return led
    const [line] = led.value.lines
    if (line) lines.push({ line, ladders })
    if (at === 0) says.push(...led.value.says)
    if (at === 0) ({ texture } = led.value)
  }
  return good({ lines, says, texture })
}
const STOPPED_FAULT = bad({ code: STOPPED, message: 'The search was stopped.' })

const isFixed = (fixed: StyledProblem['fixed'], from: number, to: number): boolean =>
  Array.from({ length: to - from + 1 }, (_, at) => from + at).some((at) => fixed?.has(at))

const noWay = (steps: readonly HoldStep[], { drone }: Hold): string => {
  const names = [...new Set(steps.map(({ chord }) => chord.canonical))].join(' and ')
  return `No hand holds ${names} ${drone === undefined ? 'on those strings' : 'with that string open'}: it stays as it is.`
}
