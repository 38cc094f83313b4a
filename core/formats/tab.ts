import { itemAt, lastOf } from '../lists'
import { homeKey } from '../analysis/analyse'
import { meterName, slotKey, type Bar, type Chart, type Slot } from '../chart/chart'
import { NEAR } from '../chart/beats'
import { printRemark } from '../chart/remark'
import type { ChordSymbol } from '../chord/symbol'
import { keyName } from '../pitch/key'
import type { Limits } from '../voicing/gripLimits'
import type { Voicing } from '../voicing/voicing'
import { textLinesOf } from './textLines'

type Chords = ReadonlyMap<string, { chord: ChordSymbol; voicing: Voicing | null }>

/** Letters to a beat that are tried: they divide by halves, thirds and quarters. */
const BEAT_WIDTHS = [4, 6, 8, 12, 16, 24]
/** Letters in front of the first bar: the name of a string. */
const MARGIN = 3

/**
 * Tablature as text, the highest string first: frets count from the capo and stand at their beats;
 * above them the symbols, and above those endings, signs of the form and changes. `importChart`
 * reads it back.
 */
export function toTab(chart: Chart, chords: Chords, { instrument }: Limits): string {
  const names = instrument.tuning.map((open) =>
    itemAt(['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B'], open % 12).padEnd(MARGIN - 1),
  )
  const head = [
    ...(chart.title ? [`title: ${chart.title}`] : []),
    `key: ${keyName(chart.key ?? homeKey(chart))}`,
    `meter: ${meterName(chart.meter)}`,
    ...(chart.tempo ? [`tempo: ${chart.tempo}`] : []),
    ...(chart.capo > 0 ? [`capo: ${chart.capo}`] : []),
    ...(chart.pickup > 0 ? [`pickup: ${chart.pickup}`] : []),
  ]
  const systems = textLinesOf(chart, ({ remarks }) => remarks.length > 0).map((bars) => {
    const drawn = bars.map((bar) => drawBar(bar, chords, chart.capo, names.length))
    const [first] = bars
    const columns = columnsOf(bars, drawn)
    const signs = aboveBars(bars.map(signsOf), columns)
    return [
      ...(first!.opensSection && first!.section ? [`[${first!.section}]`] : []),
      ...first!.remarks.map(printRemark),
      ...(signs.trim() === '' ? [] : [signs]),
      aboveBars(
        drawn.map(({ symbols }) => symbols),
        columns,
      ),
      // The highest string stands on top.
      ...names.map((name, string) => `${name}${joinBars(bars, drawn, string)}`).reverse(),
    ].join('\n')
  })
  return `${[head.join('\n'), ...systems].join('\n\n')}\n`
}

interface DrawnBar {
  width: number
  symbols: string
  /** From the lowest string. */
  rows: string[]
}

function drawBar(bar: Bar, chords: Chords, capo: number, strings: number): DrawnBar {
  const struck = bar.slots.filter(({ held }) => !held)
  const letters = widthOfBeat(bar, struck)
  const width = Math.max(1, Math.round(bar.beats * letters))
  const symbols = Array<string>(width).fill(' ')
  const rows = Array.from({ length: strings }, () => Array<string>(width).fill('-'))
  const put = (row: string[], at: number, text: string) =>
    [...text].forEach((letter, place) => {
      if (at + place < row.length) row[at + place] = letter
    })
  for (const slot of struck) {
    const at = Math.round((slot.beat - bar.from) * letters)
    put(symbols, at, slot.text)
    chords.get(slotKey(slot))?.voicing?.frets.forEach((fret, string) => {
      if (fret !== null) put(itemAt(rows, string), at, String(fret === 0 ? 0 : fret - capo))
    })
  }
  return { width, symbols: symbols.join(''), rows: rows.map((row) => row.join('')) }
}

/**
 * Letters to a beat so that every chord stands at its beat, with room for its symbol and a blank.
 */
function widthOfBeat(bar: Bar, slots: readonly Slot[]): number {
  const fits = (letters: number) =>
    bar.beats * letters > signsOf(bar).length &&
    slots.every((slot, at) => {
      const place = (slot.beat - bar.from) * letters
      const room = ((slots[at + 1]?.beat ?? bar.from + bar.beats) - slot.beat) * letters
      return Math.abs(place - Math.round(place)) < NEAR && room > slot.text.length
    })
  return BEAT_WIDTHS.find(fits) ?? lastOf(BEAT_WIDTHS)
}

/**
 * Signs of a bar in words, two blanks between them: those that stand before it and those behind.
 */
const signsOf = ({ ending, marks, played, newKey, newMeter, meter }: Bar): string =>
  [
    ...(ending.length > 0 ? [`${ending.join(',')}.`] : []),
    ...(newKey ? [`key:${keyName(newKey)}`] : []),
    ...(newMeter ? [`meter:${meterName(meter)}`] : []),
    ...marks,
    ...(played > 2 ? [`x${played}`] : []),
  ].join('  ')

const lineBefore = (bar: Bar, before: Bar | undefined): string =>
  `${before && before.played > 0 ? ':' : ''}|${bar.opensRepeat ? ':' : ''}`

/** Where the first beat of each bar stands, in letters from the left. */
function columnsOf(bars: readonly Bar[], drawn: readonly DrawnBar[]): number[] {
  let end = MARGIN - 1
  return bars.map((bar, at) => {
    const column = end + lineBefore(bar, bars[at - 1]).length
    end = column + itemAt(drawn, at).width
    return column
  })
}

/** Something over each bar, where it begins. */
const aboveBars = (texts: readonly string[], columns: readonly number[]): string =>
  texts.reduce((line, text, at) => line.padEnd(itemAt(columns, at)) + text, '').trimEnd()

function joinBars(bars: readonly Bar[], drawn: readonly DrawnBar[], string: number): string {
  const cells = bars.map(
    (bar, at) => `${lineBefore(bar, bars[at - 1])}${itemAt(itemAt(drawn, at).rows, string)}`,
  )
  return `${cells.join('')}${lastOf(bars).played > 0 ? ':' : ''}|`
}
