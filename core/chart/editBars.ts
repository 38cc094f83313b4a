import { firstOf, itemAt } from '../lists'
import type { Key } from '../pitch/key'
import type { Bar, Chart, Slot } from './chart'
import { parseChart } from './parseChart'
import { BARS_A_TEXT_LINE, beatWords, printBar } from './print'
import { readTokens } from './tokens'
import { keyAbove, transposeSymbol } from './transpose'

/**
 * Edits of a chart text by bar and beat. Only the signs of the bars meant are rewritten: settings,
 * layout, and whatever could not be read stay letter for letter. Bars are told by their index in
 * the chart, from 0.
 */

/**
 * The text with another word on a beat of a bar: a chord, `.` or nothing to hold, `C_G7` for parts
 * of the beat.
 */
export function withBeat(text: string, index: number, beat: number, word: string): string {
  const chart = parseChart(text)
  const bar = chart.bars[index]
  if (!bar) return text
  const words = beatWords(bar)
  const at = beat - bar.from
  if (at < 0 || at >= words.length) return text
  words[at] = word.trim().replace(/\s+/g, '_') || '.'
  return replaceBars(text, chart, [[index, tidyWords(words, bar)]])
}

/** Words of a bar in the shortest way of writing them. */
function tidyWords(words: readonly string[], bar: Bar): string {
  if (words.length === 1) return firstOf(words)
  const all = words.join(' ')
  // Read behind a chord, so that a hold on the first beat has something to hold.
  const [, read] = parseChart(`meter: ${bar.due}/4\n| C | ${all} |`).bars
  return read && read.beats === words.length ? printBar(read) : all
}

/**
 * Puts bars in before the one at `index`; behind the last where `index` is the number of bars. A
 * new bar is as given, or silent.
 */
export function insertBars(text: string, index: number, bars: readonly string[] = ['N.C.']): string {
  const chart = parseChart(text)
  const here = chart.bars[index]
  const inside = bars.join(' | ')
  if (here) {
    // What repeats the bar before goes on meaning what it means now.
    const free = here.repeats ? replaceBars(text, chart, [[index, spelledOut(here)]]) : text
    return splice(free, here.source.line, here.source.column, here.source.column, `${inside} | `)
  }
  const last = chart.bars.at(-1)
  if (!last) return `${text}${text === '' || text.endsWith('\n') ? '' : '\n'}| ${inside} |`
  const { line, end } = last.source
  const full = chart.bars.filter((bar) => bar.source.line === line).length >= BARS_A_TEXT_LINE
  if (full || last.played > 0) return `${text.trimEnd()}\n| ${inside} |`
  // Marks such as Fine stand behind the signs of a bar; what is put in after it goes behind them.
  const marks = /^[^|]*/.exec(itemAt(splitLines(text), line - 1).slice(end - 1))![0].trimEnd().length
  return splice(text, line, end + marks, end + marks, ` | ${inside}`)
}

/**
 * Takes bars out, from one index to another, both included. Signs of the form that stood at them
 * stay where they can.
 */
export function removeBars(text: string, from: number, to: number): string {
  let result = text
  for (let index = to; index >= from; index -= 1) result = removeBar(result, index)
  return result
}

function removeBar(text: string, index: number): string {
  const chart = parseChart(text)
  const bar = chart.bars[index]
  if (!bar) return text
  const after = chart.bars[index + 1]
  const free = after?.repeats ? replaceBars(text, chart, [[index + 1, spelledOut(after)]]) : text
  const { line, column, end } = bar.source
  const content = itemAt(splitLines(free), line - 1)
  const before = content.slice(0, column - 1)
  const behind = content.slice(end - 1)
  // With its bar line: the one behind it if that is plain, else the one before it, else the repeat
  // signs on both sides.
  const plainBehind = /^\s*\|{1,2}(?![\]:|])\s*(?=[^\s])/.exec(behind)
  const plainBefore = /(?<!:)\|\s*$/.exec(before)
  if (plainBehind) return setLine(free, line, before + behind.slice(plainBehind[0].length))
  if (plainBefore && chart.bars.some((other, at) => at !== index && other.source.line === line))
    return setLine(free, line, before.slice(0, plainBefore.index).trimEnd() + ' ' + behind.trimStart())
  const sections = after?.opensSection ? /\[[^\]]*\]\s*/ : /(?!)/
  const emptied = `${before}${behind}`
    .replace(/\|:\s*:\|(?:x\d+)?/, '|')
    .replace(/\|\s*\|/, '|')
    .replace(sections, '')
  return emptied.replace(/[\s|\]]/g, '') === '' ? dropLine(free, line) : setLine(free, line, emptied)
}

/** The signs of some bars, spelled out so that they mean the same elsewhere. */
export const barsAsText = (chart: Chart, from: number, to: number): string[] =>
  chart.bars.slice(from, to + 1).map(spelledOut)

const spelledOut = (bar: Bar): string =>
  printBar({
    ...bar,
    repeats: bar.repeats && bar.slots.length === 0,
    slots: bar.slots.map((slot, at) => (at === 0 ? { ...slot, held: false } : slot)),
  })

/**
 * Moves the bars from one index to another by some places; what they change places with moves the
 * other way. Signs of the form stay.
 */
export function moveBars(text: string, from: number, to: number, by: number): string {
  const chart = parseChart(text)
  const order = chart.bars.map((_, index) => index)
  if (from + by < 0 || to + by >= order.length) return text
  const block = order.splice(from, to - from + 1)
  order.splice(from + by, 0, ...block)
  return replaceBars(
    text,
    chart,
    order.flatMap((source, index) =>
      source === index && !itemAt(chart.bars, index).repeats
        ? []
        : [[index, wordsAt(chart, source, order[index - 1])]],
    ),
  )
}

/** A bar at its new place: a repeat stays one while it follows the bar it repeats. */
const wordsAt = (chart: Chart, source: number, before: number | undefined): string =>
  itemAt(chart.bars, source).repeats && before === source - 1 ? '%' : spelledOut(itemAt(chart.bars, source))

/** One bar becomes two: each half of it lasts a whole bar. */
export function splitBar(text: string, index: number): string {
  const chart = parseChart(text)
  const bar = chart.bars[index]
  if (!bar || bar.slots.length === 0) return text
  const middle = bar.from + bar.beats / 2
  const half = (from: number): string => {
    const slots = bar.slots.flatMap((slot): Slot[] => {
      const [begin, end] = [Math.max(slot.beat, from), Math.min(slot.beat + slot.beats, from + bar.beats / 2)]
      return begin < end
        ? [{ ...slot, beat: bar.from + (begin - from) * 2, beats: (end - begin) * 2, held: false }]
        : []
    })
    return printBar({ ...bar, repeats: false, slots })
  }
  const [first, second] = [half(bar.from), half(middle)]
  return replaceBars(spelledAfter(text, chart, index), chart, [
    [index, `${first} | ${first === second ? '%' : second}`],
  ])
}

/** A bar and the one behind it become one: each lasts half a bar. */
export function joinBars(text: string, index: number): string {
  const chart = parseChart(text)
  const [bar, next] = [chart.bars[index], chart.bars[index + 1]]
  if (!bar || !next || bar.slots.length === 0 || bar.due !== next.due) return text
  const squeezed = [bar, next].flatMap((one, at) =>
    one.slots.map((slot) => ({
      ...slot,
      beat: bar.from + at * (bar.due / 2) + (slot.beat - one.from) / 2,
      beats: slot.beats / 2,
    })),
  )
  const slots = squeezed.reduce<Slot[]>((all, slot) => {
    const last = all.at(-1)
    if (last && last.text === slot.text) last.beats += slot.beats
    else all.push({ ...slot, held: slot.held && all.length === 0 })
    return all
  }, [])
  const joined = printBar({ ...bar, repeats: false, slots, beats: bar.due })
  return replaceBars(removeBar(text, index + 1), parseChart(removeBar(text, index + 1)), [[index, joined]])
}

/** Some bars moved up or down by semitones, spelled as the key moved with them would be. */
export function transposeBars(text: string, from: number, to: number, semitones: number, key: Key): string {
  const chart = parseChart(text)
  const goal = keyAbove(key, semitones)
  const moved = (bar: Bar): string =>
    spelledOut({
      ...bar,
      repeats: false,
      slots: bar.slots.map((slot) => ({ ...slot, text: transposeSymbol(slot.text, key, goal) })),
    })
  const behind = chart.bars[to + 1]
  const words = chart.bars.flatMap((bar, index): [number, string][] => {
    if (index < from || index > to || bar.slots.length === 0) return []
    return [[index, bar.repeats && index > from ? '%' : moved(bar)]]
  })
  return replaceBars(text, chart, behind?.repeats ? [...words, [to + 1, spelledOut(behind)]] : words)
}

/**
 * The text with other chords in some bars, which keep their length. Bars that repeat one of them,
 * or hold its last chord, are spelled out and stay what they were.
 */
export function withBars(text: string, slotsByBar: ReadonlyMap<number, readonly Slot[]>): string {
  const chart = parseChart(text)
  const words = chart.bars.flatMap((bar, index): [number, string][] => {
    const slots = slotsByBar.get(index)
    if (slots) return [[index, printBar({ ...bar, repeats: false, slots: [...slots] })]]
    const leansOn = bar.repeats || bar.slots[0]?.held
    return leansOn && slotsByBar.has(index - 1) ? [[index, spelledOut(bar)]] : []
  })
  return replaceBars(text, chart, words)
}

/** The text with the bar behind `index` spelled out where it repeats that one. */
function spelledAfter(text: string, chart: Chart, index: number): string {
  const after = chart.bars[index + 1]
  return after?.repeats ? replaceBars(text, chart, [[index + 1, spelledOut(after)]]) : text
}

/** The text with other signs in some bars; from the last to the first, so that places stay true. */
function replaceBars(text: string, chart: Chart, words: readonly (readonly [number, string])[]): string {
  const all = pieces(text)
  for (const [index, signs] of [...words].sort((a, b) => b[0] - a[0])) {
    const { line, column, end } = itemAt(chart.bars, index).source
    all[(line - 1) * 2] = spliced(itemAt(all, (line - 1) * 2), column, end, signs)
  }
  return all.join('')
}

/** Lines and the line ends between them, alternately; lines are at the even places. */
const pieces = (text: string): string[] => text.split(/(\r\n|\r|\n)/)
const splitLines = (text: string): string[] => pieces(text).filter((_, at) => at % 2 === 0)

function setLine(text: string, line: number, content: string): string {
  const all = pieces(text)
  all[(line - 1) * 2] = content
  return all.join('')
}

function dropLine(text: string, line: number): string {
  const all = pieces(text)
  // With the line end before it; the first line goes with the one behind it.
  all.splice(line === 1 ? 0 : (line - 1) * 2 - 1, 2)
  return all.join('')
}

/** Columns from 1; `end` is behind the last letter replaced. */
function splice(text: string, line: number, column: number, end: number, by: string): string {
  return setLine(text, line, spliced(itemAt(pieces(text), (line - 1) * 2), column, end, by))
}

const spliced = (content: string, column: number, end: number, by: string): string =>
  content.slice(0, column - 1) + by + content.slice(end - 1)

/**
 * The text with a setting of its beginning put to a value, or taken out where the value is null.
 */
export function withSetting(
  text: string,
  name: 'capo' | 'pickup' | 'key' | 'meter' | 'idiom',
  value: string | null,
): string {
  const first = parseChart(text).bars[0]?.source.line ?? Infinity
  const tokens = [...readTokens(text)].filter((token) => token.kind === 'setting' && token.line < first)
  const there = tokens.find((token) => token.kind === 'setting' && token.name === name)
  if (there)
    return value === null ? dropLine(text, there.line) : setLine(text, there.line, `${name}: ${value}`)
  if (value === null) return text
  const after = tokens.at(-1)?.line ?? 0
  const all = pieces(text)
  if (after === 0) return `${name}: ${value}\n${text}`
  return [...all.slice(0, after * 2 - 1), '\n', `${name}: ${value}`, ...all.slice(after * 2 - 1)].join('')
}
