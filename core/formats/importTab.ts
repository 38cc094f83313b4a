import { firstOf, itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import { MARKS, type Slot } from '../chart/chart'
import { printLine, type PrintedBar } from '../chart/print'
import { parseSymbol } from '../chord/parseChord'
import { STANDARD_TUNING } from '../neck/instrument'
import { midi } from '../pitch/note'
import { namesOf } from '../voicing/possibleNames'
import type { ChartDraft } from './chartDraft'

/** A line of tablature: the name of a string, and bars with frets. */
const STRING = /^\s*([A-Ga-g][#b]?)?\s*(:?\|{1,2}:?(?=.*[-\d]).*)$/
const ONLY_TAB = /^[-\d|:xXhpbrst/\\~()<>^*.=\s]*$/
/** Strings that make a tablature. */
const FEWEST = 4
const MOST = 8

/**
 * Share of a line of tablature that is dashes, at the least: where many notes stand the rest are
 * digits. Common practice, no source.
 */
const LEAST_DASHES = 0.3

/** The line is one of a tablature: dashes and frets between bar lines. */
export function isTabLine(line: string): boolean {
  const found = STRING.exec(line)
  return (
    found !== null &&
    ONLY_TAB.test(itemAt(found, 2)) &&
    (itemAt(found, 2).match(/-/g) ?? []).length > LEAST_DASHES * itemAt(found, 2).trim().length
  )
}

/** How many lines from here on are one tablature; 0 where none begins. */
export function tabAt(lines: readonly string[], from: number): number {
  let end = from
  while (end < lines.length && end - from < MOST && isTabLine(itemAt(lines, end))) end += 1
  return end - from >= FEWEST ? end - from : 0
}

/** Every word of the line is a chord, or N.C. */
export const isSymbolLine = (line: string): boolean => {
  const words = line.trim().split(/\s+/)
  return line.trim() !== '' && words.every((word) => parseSymbol(word).ok)
}
const SIGN =
  /^(?:\d{1,2}(?:[,-]\d{1,2})*\.|key:[A-G][#b]?m?|meter:\d{1,2}\/\d{1,2}|Segno|Coda|To Coda|Fine|D\.[CS]\.(?: al (?:Fine|Coda))?|x\d{1,2})$/
/** Every word of the line is a sign of the form, as tablature is written here. */
export const isSignLine = (line: string): boolean =>
  line.trim() !== '' &&
  line
    .trim()
    .split(/\s{2,}/)
    .every((word) => SIGN.test(word))

interface TabSystem {
  /** The highest string first. */
  strings: readonly string[]
  symbols: string | null
  signs: string | null
  /** Line of the first string, from 1. */
  line: number
}

interface TabBar {
  column: number
  width: number
  opens: boolean
  closes: boolean
}

/**
 * A system of tablature as bars of the draft: symbols at their beats, or, where none stand above,
 * chords named by the frets struck together.
 */
export function readTab({ strings, symbols, signs, line: at }: TabSystem, draft: ChartDraft): void {
  const bars = barsOf(firstOf(strings))
  const struck = columnsStruck(strings)
  const named = symbols === null
  const open = tuningOf(strings)
  if (named)
    draft.sayOnce(
      at,
      'tab',
      'No chords stand above the tablature: they were named by the frets that are struck together.',
    )
  const places = named
    ? chordsStruck(struck, open, draft.capo)
    : [...symbols.matchAll(/\S+/g)].map((match) => ({ column: match.index, text: match[0] }))
  if (named && places.length < struck.size)
    draft.sayOnce(at, 'tab notes', 'Single notes of the tablature were left out.')
  let line: PrintedBar[] = []
  const close = () => {
    if (line.length > 0) draft.bars(printLine(line))
    line = []
  }
  const signsAbove = signs === null ? [] : signWords(signs)
  for (const bar of bars) {
    const inBar = ({ column }: { column: number }) => column >= bar.column && column < bar.column + bar.width
    const words = signsAbove.filter(inBar).map(({ text }) => text)
    for (const word of words) {
      const change = /^(key|meter):(.+)$/.exec(word)
      if (!change) continue
      // A change of key or metre begins a line of its own.
      close()
      draft.set(itemAt(change, 1), itemAt(change, 2), at)
    }
    const beats = draft.beatsOfNextBar(line.length === 0)
    const here = places.filter(inBar)
    for (const { column, text } of here) {
      const frets = struck.get(column)
      if (frets) draft.drawn.push({ symbol: text, frets })
    }
    const times = Number(/^x(\d+)$/m.exec(words.join('\n'))?.[1] ?? 2)
    line.push({
      section: null,
      opensSection: false,
      repeats: false,
      slots: slotsIn(bar, here, beats, draft.begun || line.length > 0 ? HELD : 'N.C.'),
      from: 1,
      beats,
      due: beats,
      opensRepeat: bar.opens,
      played: bar.closes ? times : 0,
      ending: (/^(\d[\d,]*)\.$/m.exec(words.join('\n'))?.[1] ?? '').split(',').filter(Boolean).map(Number),
      marks: MARKS.filter((mark) => words.includes(mark)),
      remarks: [],
    })
  }
  close()
}

/** Bars of a line of a string, by its bar lines. */
function barsOf(string: string): TabBar[] {
  const lines = [...string.matchAll(/:?\|{1,2}:?/g)]
  return lines.slice(0, -1).flatMap((sign, at) => {
    const [column, end] = [sign.index + sign[0].length, itemAt(lines, at + 1).index]
    return end > column
      ? [
          {
            column,
            width: end - column,
            opens: sign[0].endsWith(':'),
            closes: itemAt(lines, at + 1)[0].startsWith(':'),
          },
        ]
      : []
  })
}

/** Frets by the column they begin in, from the lowest string. */
function columnsStruck(strings: readonly string[]): Map<number, (number | null)[]> {
  const found = new Map<number, (number | null)[]>()
  const count = strings.length
  strings.forEach((string, row) => {
    for (const match of string.matchAll(/\d{1,2}/g)) {
      const frets = found.get(match.index) ?? Array<number | null>(count).fill(null)
      frets[count - 1 - row] = Number(match[0])
      found.set(match.index, frets)
    }
  })
  return found
}

/**
 * Open strings from the lowest: standard ones, each moved to the nearest note that its line is
 * named by.
 */
function tuningOf(strings: readonly string[]): number[] {
  const standard = STANDARD_TUNING.map(midi)
  return [...strings].reverse().map((line, at) => {
    const usual = standard[at + standard.length - strings.length] ?? standard[at] ?? firstOf(standard)
    const name = /^\s*([A-Ga-g])([#b]?)/.exec(line)
    if (!name) return usual
    const pitchClass = midi(`${itemAt(name, 1).toUpperCase()}${itemAt(name, 2)}4`) % 12
    const up = (pitchClass - (usual % 12) + 12) % 12
    return usual + (up > 6 ? up - 12 : up)
  })
}

/** Chords by the frets that are struck at once: three or more different notes. */
function chordsStruck(
  struck: ReadonlyMap<number, readonly (number | null)[]>,
  open: readonly number[],
  capo: number,
): { column: number; text: string }[] {
  return [...struck]
    .flatMap(([column, frets]) => {
      const midis = frets.flatMap((fret, string) =>
        fret === null ? [] : [itemAt(open, string) + capo + fret],
      )
      if (new Set(midis.map((one) => one % 12)).size < 3) return []
      const [best] = namesOf([...midis].sort((a, b) => a - b))
      return best ? [{ column, text: best.chord.canonical }] : []
    })
    .sort((a, b) => a.column - b.column)
}

const signWords = (signs: string): { column: number; text: string }[] =>
  [...signs.matchAll(/\S+(?: \S+)*/g)].map((match) => ({ column: match.index, text: match[0] }))

/**
 * Parts of a beat that places are taken to be on where they are so exactly; else the nearest half.
 */
const EXACT = 12
function slotsIn(
  bar: TabBar,
  places: readonly { column: number; text: string }[],
  beats: number,
  /** What stands before the first of them. */
  first: string,
): Slot[] {
  const beatOf = (column: number) => {
    const place = ((column - bar.column) / bar.width) * beats
    const exact = Math.round(place * EXACT) / EXACT
    return 1 + (Math.abs(place - exact) < NEAR ? exact : Math.round(place * 2) / 2)
  }
  const inTurn = places
    .map(({ column, text }) => ({ beat: beatOf(column), text }))
    .filter(({ beat }, at, all) => beat < 1 + beats && beat !== all[at - 1]?.beat)
  if (inTurn[0]?.beat !== 1) inTurn.unshift({ beat: 1, text: first })
  return inTurn.map(({ beat, text }, at): Slot => ({
    bar: 1,
    beat,
    beats: (inTurn[at + 1]?.beat ?? 1 + beats) - beat,
    text,
    symbol: null,
    held: text === HELD,
  }))
}
const HELD = '.'
