import { keyName } from '../pitch/key'
import type { Bar, Chart } from './chart'

/** Bars on a line of text. */
const BARS_A_LINE = 4
/** The most signs a bar is written with. */
const MOST_SIGNS = 64

/**
 * A chart as text. Reading the answer gives the same settings, sections, bars and chords (a property test holds this);
 * the layout is the usual one of four bars a line, a new line for each section.
 */
export function printChart(chart: Chart): string {
  const lines: string[] = []
  if (chart.title !== null) lines.push(`title: ${chart.title}`)
  if (chart.key) lines.push(`key: ${keyName(chart.key)}`)
  lines.push(`meter: ${chart.meter.beats}/${chart.meter.unit}`)
  if (chart.tempo !== null) lines.push(`tempo: ${chart.tempo}`)
  let cells: string[] = []
  let mark = ''
  const closeLine = () => {
    if (cells.length > 0) lines.push(`${mark}| ${cells.join(' | ')} |`)
    cells = []
    mark = ''
  }
  for (const bar of chart.bars) {
    if (bar.opensSection || cells.length === BARS_A_LINE) closeLine()
    if (bar.opensSection && bar.section !== null) mark = `[${bar.section}] `
    cells.push(bar.repeats ? '%' : printBar(bar, chart.meter.beats))
  }
  closeLine()
  return lines.join('\n')
}

/** The chords of a bar: side by side when they share it equally, else with a dot for every sign a chord is held. */
function printBar(bar: Bar, beats: number): string {
  for (let signs = bar.slots.length; signs <= MOST_SIGNS; signs += 1) {
    const lengths = bar.slots.map((slot) => (slot.beats * signs) / beats)
    if (lengths.some((length) => Math.abs(length - Math.round(length)) > 1e-6)) continue
    return bar.slots.map((slot, at) => slot.text + ' .'.repeat(Math.round(lengths[at]!) - 1)).join(' ')
  }
  return bar.slots.map((slot) => slot.text).join(' ')
}
