import { firstOf, lastOf } from '../lists'
import { NEAR } from './beats'
import { keyName } from '../pitch/key'
import { beginsBar, meterName, type Bar, type Chart, type Slot } from './chart'
import { SPLIT } from './readBar'
import { printRemark } from './remark'

/** Bars on a line of text. */
export const BARS_A_TEXT_LINE = 4
/** The finest part of a beat that is looked for. */
const FINEST_PART = 48

/**
 * A chart as text. Reading the answer gives the same settings, sections, form, bars and chords (a
 * property test holds this), and so do lines that could not be used; the layout is the usual one of
 * four bars a line, a new line for each section.
 */
export function printChart(chart: Chart): string {
  const lines: string[] = []
  if (chart.title !== null) lines.push(`title: ${chart.title}`)
  if (chart.key) lines.push(`key: ${keyName(chart.key)}`)
  lines.push(`meter: ${meterName(chart.meter)}`)
  if (chart.tempo !== null) lines.push(`tempo: ${chart.tempo}`)
  if (chart.capo > 0) lines.push(`capo: ${chart.capo}`)
  if (chart.idiom) lines.push(`idiom: ${chart.idiom}`)
  if (chart.pickup > 0) lines.push(`pickup: ${chart.pickup}`)

  let line: Bar[] = []
  let full = 0
  const closeLine = () => {
    if (line.length > 0) lines.push(printLine(line))
    line = []
    full = 0
  }
  const looseBefore = (index: number) =>
    chart.loose.filter((one) => one.before === index).map((one) => one.text)
  chart.bars.forEach((bar, index) => {
    const loose = looseBefore(index)
    if (bar.opensSection || bar.newKey || bar.newMeter || loose.length > 0 || full === BARS_A_TEXT_LINE)
      closeLine()
    if (bar.newKey) lines.push(`key: ${keyName(bar.newKey)}`)
    if (bar.newMeter) lines.push(`meter: ${meterName(bar.meter)}`)
    // Behind what counts: a second key line was refused, and would be the first here.
    lines.push(...loose)
    line.push(bar)
    if (bar.number > 0) full += 1
  })
  closeLine()
  lines.push(...looseBefore(chart.bars.length))
  return lines.join('\n')
}

/** What is printed of a bar in a line. */
export type PrintedBar = Pick<
  Bar,
  | 'section'
  | 'opensSection'
  | 'repeats'
  | 'slots'
  | 'from'
  | 'beats'
  | 'due'
  | 'opensRepeat'
  | 'played'
  | 'ending'
  | 'marks'
  | 'remarks'
>

/** Bars on one line of text, with their section mark, repeat signs, endings and marks. */
export function printLine(bars: readonly PrintedBar[]): string {
  const first = firstOf(bars)
  let text = first.opensSection && first.section !== null ? `[${first.section}] ` : ''
  bars.forEach((bar, at) => {
    text += barlineBetween(bars[at - 1], bar) + (bar.ending.length > 0 ? `${bar.ending.join(',')}. ` : ' ')
    text +=
      [
        ...bar.remarks.map(printRemark),
        ...bar.marks.filter(beginsBar),
        printBar(bar),
        ...bar.marks.filter((mark) => !beginsBar(mark)),
      ].join(' ') + ' '
  })
  return text + closing(lastOf(bars))
}

const closing = (bar: PrintedBar): string =>
  bar.played > 0 ? `:|${bar.played === 2 ? '' : `x${bar.played}`}` : '|'

function barlineBetween(before: PrintedBar | undefined, bar: PrintedBar): string {
  if (!before) return bar.opensRepeat ? '|:' : '|'
  // An ending right behind `x3` would be read with it.
  if (before.played > 0) {
    const apart = before.played > 2 && bar.ending.length > 0 ? ' |' : ''
    return closing(before) + (bar.opensRepeat ? ' |:' : apart)
  }
  return bar.opensRepeat ? '|:' : '|'
}

/**
 * The signs of a bar: `%`, its chords side by side when they share it equally, else one word for
 * each beat.
 */
export function printBar(bar: Pick<Bar, 'repeats' | 'slots' | 'from' | 'beats' | 'due'>): string {
  if (bar.repeats) return '%'
  const equal =
    bar.slots.length > 0 &&
    bar.slots.every((slot) => Math.abs(slot.beats * bar.slots.length - bar.beats) < NEAR && !slot.held)
  // A lone % that was not read as a repeat must not become one.
  const misread = bar.slots.length === 1 && firstOf(bar.slots).text === '%'
  if (equal && bar.beats === bar.due && !misread) return bar.slots.map((slot) => slot.text).join(' ')
  const words = beatWords(bar)
  // Too many or too few chords, each a beat long: one sign has to say that they are beats and do
  // not share the bar.
  if (words.every((word) => word !== '.' && !SPLIT.test(word))) words[0] += '_'
  return words.join(' ')
}

/**
 * One word for each beat of a bar: a chord, `.` where it is held, `C_G7` where the beat is in
 * parts.
 */
export function beatWords({ slots, from, beats }: Pick<Bar, 'slots' | 'from' | 'beats'>): string[] {
  return Array.from({ length: beats }, (_, index) => {
    const beat = from + index
    const here = slots.filter((slot) => slot.beat > beat - NEAR && slot.beat < beat + 1 - NEAR)
    const parts = partsOfBeat(here, beat)
    return Array.from({ length: parts }, (__, part) => {
      const slot = here.find((one) => Math.abs(one.beat - beat - part / parts) < NEAR)
      if (slot && !slot.held) return slot.text
      if (parts === 1) return '.'
      return ''
    }).join('_')
  })
}

/** How many equal parts a beat needs so that every chord in it begins on one. */
function partsOfBeat(here: readonly Slot[], beat: number): number {
  for (let parts = 1; parts < FINEST_PART; parts += 1)
    if (
      here.every((slot) => {
        const place = (slot.beat - beat) * parts
        return Math.abs(place - Math.round(place)) < NEAR * parts
      })
    )
      return parts
  return FINEST_PART
}
