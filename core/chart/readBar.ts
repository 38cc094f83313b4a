import { firstOf } from '../lists'
import { nearSymbols } from '../chord/near'
import { parseSymbol } from '../chord/parseChord'
import type { ChartSymbol } from '../chord/symbol'
import { barName, type Bar, type Chart, type Slot } from './chart'
import { problem } from './chartProblem'
import type { Token } from './tokens'

/** Signs of one bar that are read; what is beyond them stays in the text and is said. */
export const MOST_SIGNS = 32
/**
 * Letters of one sign, and parts of one beat, that are read; what is beyond them stays in the text
 * and is said.
 */
const MOST_LETTERS = 400
const MOST_PARTS = 48

/**
 * A sign of a bar. Crowded: it stands for all signs that have no room in the bar, or has itself no
 * room in a beat.
 */
export type Cell = Extract<Token, { kind: 'cell' }> & { crowded?: 'bar' | 'beat' }

const isHold = (text: string) => text === '.' || text === '/' || text === ''
/** Between the parts of a beat; what stands in brackets is one piece. */
export const SPLIT = /_(?![^(]*\))/
/** A word that is one beat: a hold, or a beat in parts. */
const isBeat = (cell: Cell) => !cell.crowded && (isHold(cell.text) || SPLIT.test(cell.text))

interface BarFrame {
  number: number
  from: number
  due: number
}

/**
 * The chords of a bar from its signs, each with its beat and length; what is wrong with them goes
 * into the problems of the chart.
 */
export function readBar(
  cells: Cell[],
  { number, from, due }: BarFrame,
  chart: Chart,
): Pick<Bar, 'repeats' | 'slots' | 'beats'> {
  const before = chart.bars.at(-1)
  const note = (token: Token, beat: number, code: string, message: string, accepted: string) =>
    chart.problems.push({ ...problem(token, code, message, accepted), bar: number, beat })
  const wrongBeats = (written: number) =>
    note(
      firstOf(cells),
      from,
      'wrong-beats',
      `${capital(barName(number))} has ${written} ${written === 1 ? 'beat' : 'beats'}; it should have ${due}.`,
      `${due} signs: chords, and . for each beat a chord is held`,
    )

  if (cells.length === 1 && firstOf(cells).text === '%') {
    if (before && before.beats !== due) wrongBeats(before.beats)
    if (!before)
      note(
        firstOf(cells),
        from,
        'nothing-to-repeat',
        'There is no bar before this one to repeat.',
        'a chord in the first bar',
      )
    return repeated(before, { number, from, due })
  }

  // With holds every word is one beat, in equal parts where it has _; without, the chords share the
  // bar equally.
  const marked = cells.some(isBeat)
  const beats = marked ? cells.length : due
  if (beats !== due) wrongBeats(beats)
  const length = beats / cells.length

  const slots: Slot[] = []
  cells.forEach((cell, index) => {
    const parts = partsOf(cell)
    let column = cell.column
    parts.forEach((text, part) => {
      const beat = from + (index + part / parts.length) * length
      const partLength = length / parts.length
      const last = slots.at(-1)
      if (isHold(text)) {
        const held = last ?? before?.slots.at(-1)
        if (last) last.beats += partLength
        else if (held)
          slots.push({
            bar: number,
            beat,
            beats: partLength,
            text: held.text,
            symbol: held.symbol,
            held: true,
          })
        else
          note(
            cell,
            beat,
            'nothing-to-hold',
            'There is no chord before this beat to hold.',
            'a chord, or N.C. for silence',
          )
      } else
        slots.push({
          bar: number,
          beat,
          beats: partLength,
          text,
          symbol: cell.crowded
            ? crowded(cell, number, beat, chart)
            : readCell({ ...cell, text, column }, number, beat, chart),
          held: false,
        })
      column += text.length + 1
    })
  })
  return { repeats: false, slots, beats }
}

/** The parts of a beat, where it is split. */
function partsOf({ text, crowded: tight }: Cell): string[] {
  if (text === '_') return ['']
  return tight ? [text] : text.split(SPLIT)
}

/** The bar before once more; a silent one where there is none. */
function repeated(
  before: Bar | undefined,
  { number, from, due }: BarFrame,
): Pick<Bar, 'repeats' | 'slots' | 'beats'> {
  return {
    repeats: true,
    beats: before?.beats ?? due,
    slots: (before?.slots ?? []).map((slot) => ({
      ...slot,
      bar: number,
      beat: slot.beat - before!.from + from,
      held: false,
    })),
  }
}

/** A sign is short enough to be read. */
export const fitsABeat = (text: string): boolean =>
  text.length <= MOST_LETTERS && (text.match(/_/g)?.length ?? 0) < MOST_PARTS

const capital = (text: string) => firstOf(text).toUpperCase() + text.slice(1)

function crowded(cell: Cell, bar: number, beat: number, chart: Chart): null {
  const told =
    cell.crowded === 'beat'
      ? problem(
          cell,
          'crowded-beat',
          `A sign in ${barName(bar)} has ${cell.text.length} letters: it is kept as text and not read.`,
          `at most ${MOST_LETTERS} letters and ${MOST_PARTS} parts of a beat`,
        )
      : problem(
          cell,
          'crowded-bar',
          `${capital(barName(bar))} has more than ${MOST_SIGNS} signs: what stands from here on is kept as text and not read.`,
          `at most ${MOST_SIGNS} chords and holds in a bar`,
        )
  chart.problems.push({ ...told, text: cell.text.slice(0, 40), bar, beat })
  return null
}

function readCell(cell: Cell, bar: number, beat: number, chart: Chart): ChartSymbol | null {
  if (cell.text === '%') {
    chart.problems.push({
      ...problem(
        cell,
        'bad-repeat',
        '% repeats a whole bar and stands alone in it.',
        'a chord, or / to hold the chord',
      ),
      bar,
      beat,
    })
    return null
  }
  const symbol = parseSymbol(cell.text)
  if (symbol.ok) return symbol.value
  const { code, message, accepted } = symbol.fault
  // The whole word: what is typed over it takes its place.
  const near = nearSymbols(cell.text)
  chart.problems.push({
    ...problem(cell, code, message, accepted!),
    bar,
    beat,
    ...(near.length > 0 ? { near } : {}),
  })
  return null
}
