import { parseSymbol } from '../chord/parse'
import type { Symbol } from '../chord/symbol'
import { parseKey } from '../pitch/key'
import { readTokens, type Token } from './tokens'
import type { Bar, Chart, ChartProblem, Meter, Slot } from './chart'

/** Beats a minute a chart may name. */
export const TEMPO_RANGE = [20, 400] as const
const DEFAULT_METER: Meter = { beats: 4, unit: 4 }

/**
 * Reads a chart text (see docs/chart-text.md). Never fails: what cannot be read is listed in `problems` with line and
 * column, and the rest of the chart stands.
 */
export function parseChart(text: string): Chart {
  const chart: Chart = { title: null, key: null, meter: DEFAULT_METER, tempo: null, bars: [], problems: [] }
  const pending: Token[] = []
  let section: string | null = null
  let opens = false

  const closeBar = () => {
    if (pending.length === 0) return
    const number = chart.bars.length + 1
    chart.bars.push({ number, section, opensSection: opens, ...readBar(pending, number, chart) })
    opens = false
    pending.length = 0
  }

  for (const token of readTokens(text)) {
    switch (token.kind) {
      case 'setting':
        closeBar()
        applySetting(chart, token)
        break
      case 'section':
        closeBar()
        section = token.text
        opens = true
        break
      case 'barline':
        closeBar()
        break
      case 'unsupported':
        chart.problems.push(problem(token, 'bad-barline', `"${token.text}" is not read yet.`, 'write repeated bars out, or % for one bar again'))
        closeBar()
        break
      case 'cell':
        pending.push(token)
    }
  }
  closeBar()
  return chart
}

const problem = (token: Token, code: string, message: string, accepted: string): ChartProblem => ({
  code, message, accepted, line: token.line, column: token.column, text: token.text,
})

function applySetting(chart: Chart, token: Token): void {
  const value = token.text.trim()
  const refuse = (message: string, accepted: string) => chart.problems.push(problem(token, `bad-${token.name!}`, message, accepted))
  switch (token.name) {
    case 'title':
      chart.title = value
      return
    case 'key': {
      const key = parseKey(value)
      if (key.ok) chart.key = key.value
      else refuse(key.fault.message, key.fault.accepted!)
      return
    }
    case 'meter': {
      const match = /^(\d{1,2})\/(\d{1,2})$/.exec(value)
      const [beats, unit] = [Number(match?.[1]), Number(match?.[2])]
      if (match && beats >= 1 && beats <= 16 && [2, 4, 8, 16].includes(unit)) chart.meter = { beats, unit }
      else refuse(`"${value}" is not a metre.`, '1 to 16 beats over 2, 4, 8 or 16: 4/4, 3/4, 6/8')
      return
    }
    case 'tempo': {
      const tempo = /^\d{1,4}(\.\d+)?$/.test(value) ? Number(value) : NaN
      if (tempo >= TEMPO_RANGE[0] && tempo <= TEMPO_RANGE[1]) chart.tempo = tempo
      else refuse(`"${value}" is not a tempo.`, `${TEMPO_RANGE[0]} to ${TEMPO_RANGE[1]} beats a minute`)
      return
    }
    default:
      refuse(`"${token.name!}:" is not a setting.`, 'title:, key:, meter: or tempo: at the beginning of a line')
  }
}

const isHold = (token: Token) => token.text === '.' || token.text === '/'

function readBar(cells: Token[], number: number, chart: Chart): Pick<Bar, 'repeats' | 'slots'> {
  const before = chart.bars.at(-1)
  const note = (token: Token, beat: number, code: string, message: string, accepted: string) =>
    chart.problems.push({ ...problem(token, code, message, accepted), bar: number, beat })

  if (cells.length === 1 && cells[0]!.text === '%') {
    if (before) return { repeats: true, slots: before.slots.map((slot) => ({ ...slot, bar: number })) }
    note(cells[0]!, 1, 'nothing-to-repeat', 'There is no bar before this one to repeat.', 'a chord in the first bar')
    return { repeats: false, slots: [] }
  }

  // With holds every cell is one beat; without, the chords share the bar equally.
  const marked = cells.some(isHold)
  const beats = chart.meter.beats
  if (marked && cells.length !== beats)
    note(cells[0]!, 1, 'wrong-beats', `Bar ${number} marks ${cells.length} beats; the metre has ${beats}.`, `${beats} signs: chords, and . for each beat a chord is held`)
  const length = beats / cells.length

  const slots: Slot[] = []
  cells.forEach((cell, index) => {
    const beat = 1 + index * length
    const last = slots.at(-1)
    if (isHold(cell)) {
      const held = last ?? before?.slots.at(-1)
      if (last) last.beats += length
      else if (held) slots.push({ bar: number, beat, beats: length, text: held.text, symbol: held.symbol })
      else note(cell, beat, 'nothing-to-hold', 'There is no chord before this beat to hold.', 'a chord')
      return
    }
    slots.push({ bar: number, beat, beats: length, text: cell.text, symbol: readCell(cell, number, beat, chart) })
  })
  return { repeats: false, slots }
}

function readCell(cell: Token, bar: number, beat: number, chart: Chart): Symbol | null {
  if (cell.text === '%') {
    chart.problems.push({ ...problem(cell, 'bad-repeat', '% repeats a whole bar and stands alone in it.', 'a chord, or / to hold the chord'), bar, beat })
    return null
  }
  const symbol = parseSymbol(cell.text)
  if (symbol.ok) return symbol.value
  const { code, message, accepted, at, text } = symbol.fault
  chart.problems.push({ code, message, accepted: accepted!, line: cell.line, column: cell.column + (at ?? 0), text: text ?? cell.text, bar, beat })
  return null
}
