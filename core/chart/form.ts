import { firstOf, itemAt, lastOf } from '../lists'
import { barName, type Bar, type Chart, type ChartProblem, type ChartMark } from './chart'

/**
 * The bars of a chart in the order in which they are played, as indexes into `chart.bars`: repeats,
 * endings, D.C., D.S., Fine and Coda followed as players do (after a D.C. or D.S. repeats are not
 * taken and the last ending is). Common practice.
 */
export function playOrder(chart: Chart): number[] {
  const { bars } = chart
  const order: number[] = []
  const has = (index: number, mark: ChartMark) => itemAt(bars, index).marks.includes(mark)
  /** Where a repeat goes back to, and which time through it is. */
  let start = 0
  let pass = 1
  /** Endings mean something only where a passage is repeated. */
  const repeated = bars.some((bar) => bar.played > 0)
  let goingTo: Jump['until'] | null = null
  let at = 0
  while (at < bars.length) {
    const bar = itemAt(bars, at)
    if (bar.opensRepeat && start !== at) {
      start = at
      pass = 1
    }
    if (repeated && bar.ending.length > 0 && goingTo === null && !bar.ending.includes(pass)) {
      at = afterEnding(bars, at)
      continue
    }
    if (repeated && bar.ending.length > 0 && goingTo !== null && !isLastEnding(bars, at)) {
      at = afterEnding(bars, at)
      continue
    }
    order.push(at)
    if (goingTo !== null && has(at, 'Fine')) return order
    if (goingTo === 'Coda' && has(at, 'To Coda')) {
      at = bars.findIndex((_, index) => has(index, 'Coda'))
      goingTo = 'end'
      continue
    }
    if (bar.played > 0 && goingTo === null) {
      if (pass < timesThrough(bars, start, at)) {
        pass += 1
        at = start
        continue
      }
      start = at + 1
      pass = 1
    }
    const jump: Jump | null = goingTo === null ? jumpOf(chart, bar) : null
    if (jump) {
      at = jump.to
      goingTo = jump.until
      continue
    }
    at += 1
  }
  return order
}

/**
 * How often the passage that begins at `start` and is closed at `close` is played: as its endings
 * ask, else as its sign says.
 */
function timesThrough(bars: readonly Bar[], start: number, close: number): number {
  const passes = endingsFrom(bars, start).flatMap((index) => itemAt(bars, index).ending)
  // A sign inside the last ending does not send the players back to where the first time is over.
  return passes.length > 0 ? Math.max(...passes) : itemAt(bars, close).played
}

/**
 * Where the endings of the passage that begins at `start` begin: one after another, none past the
 * next passage.
 */
function endingsFrom(bars: readonly Bar[], start: number): number[] {
  const found: number[] = []
  let highest = 0
  for (let at = start; at < bars.length && !(at > start && itemAt(bars, at).opensRepeat); at += 1) {
    const { ending } = itemAt(bars, at)
    if (ending.length === 0) continue
    if (firstOf(ending) <= highest) break
    highest = lastOf(ending)
    found.push(at)
  }
  return found
}

/** The first bar behind the ending that begins at `at`. */
function afterEnding(bars: readonly Bar[], at: number): number {
  for (let index = at; index < bars.length; index += 1) {
    if (index > at && itemAt(bars, index).ending.length > 0) return index
    if (itemAt(bars, index).played > 0) return index + 1
  }
  return bars.length
}

function isLastEnding(bars: readonly Bar[], at: number): boolean {
  const next = bars[afterEnding(bars, at)]
  return !next || next.ending.length === 0 || firstOf(next.ending) <= lastOf(itemAt(bars, at).ending)
}

interface Jump {
  to: number
  until: 'end' | 'Fine' | 'Coda'
}

/** Where a D.C. or D.S. of a bar leads, or null where there is none or its goal is missing. */
function jumpOf(chart: Chart, bar: Bar): Jump | null {
  const mark = bar.marks.find((one) => one.startsWith('D.'))
  if (!mark || missingFor(chart, mark).length > 0) return null
  const to = mark.startsWith('D.S.') ? chart.bars.findIndex((one) => one.marks.includes('Segno')) : 0
  const until = (['Coda', 'Fine'] as const).find((place) => mark.endsWith(place)) ?? 'end'
  return { to, until }
}

function missingFor(chart: Chart, mark: ChartMark): ChartMark[] {
  const needs: ChartMark[] = [
    ...(mark.startsWith('D.S.') ? ['Segno' as const] : []),
    ...(mark.endsWith('Coda') ? ['To Coda' as const, 'Coda' as const] : []),
    ...(mark.endsWith('Fine') ? ['Fine' as const] : []),
  ]
  return needs.filter((need) => !chart.bars.some((bar) => bar.marks.includes(need)))
}

/** Signs of the form that lead nowhere. */
export function formProblems(chart: Chart): ChartProblem[] {
  const problems: ChartProblem[] = []
  const repeated = chart.bars.some((bar) => bar.played > 0)
  for (const bar of chart.bars) {
    const at = { line: bar.source.line, column: bar.source.column, bar: bar.number, beat: bar.from }
    for (const mark of bar.marks) {
      const missing = mark.startsWith('D.') ? missingFor(chart, mark) : []
      if (missing.length > 0)
        problems.push({
          ...at,
          code: 'nowhere-to-go',
          text: mark,
          message: `${mark} in ${barName(bar.number)} has no ${missing.join(' and no ')} to go to.`,
          accepted: `${missing.join(' and ')} in the bar meant`,
        })
    }
    if (bar.ending.length > 0 && !repeated)
      problems.push({
        ...at,
        code: 'ending-without-repeat',
        text: `${bar.ending.join(',')}.`,
        message: `An ending begins in ${barName(bar.number)}, but nothing is repeated.`,
        accepted: '|: before the passage and :| behind its first ending',
      })
  }
  return problems
}
