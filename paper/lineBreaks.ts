import { entryOf, firstOf, itemAt, lastOf } from '../core/lists'
import type { Bar } from '../core/chart/chart'
import { keysInForce } from '../core/chart/keyChanges'
import { chordsByBar, type SheetChord, type SheetContent } from '../core/sheet/content'
import type { SheetLayout } from '../core/sheet/sheetLayout'
import { signatureOf, type Key } from '../core/pitch/key'
import { chordBox, numeralBox } from './chordMarks'
import { wordsBox, WORDS_GAP } from './paperWords'
import { gripBox } from './gripMarks'
import type { Box } from './marks'

/** How large things are on a sheet, in points. */
export interface Sizes {
  /** 1 at the usual size. */
  unit: number
  symbol: number
  home: number
  numeral: number
  /** Points to a unit of the notation library: a staff is 40 units high. */
  staff: number
  /** Distance of two lines of the tablature. */
  tabGap: number
}
/** Large print is read from a stand at arm's length and more. */
const LARGE = 1.35
export function sizesOf({ large }: Pick<SheetLayout, 'large'>): Sizes {
  const unit = large ? LARGE : 1
  return {
    unit,
    symbol: 17 * unit,
    home: 10 * unit,
    numeral: 8.4 * unit,
    staff: 0.52 * unit,
    tabGap: 6.2 * unit,
  }
}

/** What stands on the page besides the tune. */
export interface SheetSetting {
  content: SheetContent
  layout: SheetLayout
  leftHanded: boolean
  sizes: Sizes
}

/** A chord with what is drawn of it. */
export interface DrawnChord extends SheetChord {
  symbol: Box | null
  /** Plain chords and numerals under the symbol. */
  under: Box[]
  grip: Box | null
}

/** Some bars in a line: places in points from the left edge of the line. */
export interface SheetLine {
  bars: Bar[]
  /** Left edge of each bar, and the right edge of the last. */
  edges: number[]
  /** The key in force at its first bar. */
  key: Key
  chords: ReadonlyMap<number, readonly DrawnChord[]>
  first: boolean
  last: boolean
  /** Where a beat stands. */
  x: (bar: number, beat: number) => number
}

/** Bars in a line where nothing else is said: the trade's four. */
const USUAL_BARS = 4
/**
 * Room between a bar line and its first beat, and between neighbours, in points at the usual size.
 */
const INSET = 6
const GAP = 5
/** The least distance of two notes, numbers of the tab or slashes. */
const NOTE_ROOM = 12
/** A bar is at least so wide. */
const LEAST_WIDTH = 24

export const drawnChords = ({ content, layout, leftHanded, sizes }: SheetSetting): DrawnChord[] =>
  content.chords.map((one, index): DrawnChord => {
    const before = content.chords[index - 1]
    const isNew =
      !before || before.chord?.canonical !== one.chord?.canonical || before.voicing !== one.voicing
    return {
      ...one,
      symbol: one.chord && chordBox(one.chord, sizes.symbol),
      under: underChord(one, layout, sizes),
      grip:
        layout.grips === 'each' && layout.part === 'concert' && one.voicing && isNew
          ? gripBox(one.voicing, { scale: sizes.unit, capo: content.chart.capo, leftHanded })
          : null,
    }
  })

function underChord(one: SheetChord, layout: SheetLayout, sizes: Sizes): Box[] {
  if (layout.symbols === 'both')
    return one.homes.flatMap(({ chord, numeral }) => [
      chordBox(chord, sizes.home, 'soft'),
      ...(layout.numerals ? [numeralBox(numeral, sizes.numeral)] : []),
    ])
  return layout.numerals && one.numeral ? [numeralBox(one.numeral, sizes.numeral)] : []
}

/** Room of a signature of time, of two figures, in units of the notation library. */
const METER_ROOM = 34

/**
 * Room that a change of key or metre takes in front of the first beat, in units of the notation
 * library.
 */
const changeRoom = (bar: Bar, isFirst: boolean): number =>
  isFirst
    ? 0
    : (bar.newKey ? 12 + 10 * Math.max(1, Math.abs(signatureOf(bar.newKey))) : 0) +
      (bar.newMeter ? METER_ROOM : 0)

export const hasStaff = ({ content, layout }: SheetSetting): boolean =>
  (layout.staff && content.melody.length > 0) || layout.bass

/** The bars of a tune in lines of a width. */
export function linesOn(setting: SheetSetting, width: number): SheetLine[] {
  const { content, layout, sizes } = setting
  const { bars } = content.chart
  const chords = chordsByBar(drawnChords(setting)) as Map<number, DrawnChord[]>
  const needs = new Map(bars.map((bar) => [bar.number, needOf(bar, chords.get(bar.number) ?? [], setting)]))
  const keys = keysInForce(bars, content.key)
  const gutter = (bar: Bar, first: boolean) => gutterOf(setting, entryOf(keys, bar.number), first)
  const lines: Bar[][] = []
  const full = (line: readonly Bar[]) => line.filter(({ number }) => number > 0).length
  for (const bar of bars) {
    const line = lines.at(-1)
    const most = layout.bars === 'width' ? USUAL_BARS : layout.bars
    const begins = !line || (layout.sections && bar.opensSection && full(line) > 0) || full(line) >= most
    if (begins) lines.push([bar])
    else line.push(bar)
  }
  const broken =
    layout.bars === 'width' ? lines.flatMap((line) => inHalves(line, (part) => fits(part))) : lines
  function fits(line: readonly Bar[]): boolean {
    const room = width - gutter(firstOf(line), line[0] === bars[0])
    return line.reduce((sum, bar) => sum + entryOf(needs, bar.number), 0) <= room
  }
  const usual = Math.max(1, ...broken.map(full))
  return broken.map((line, at): SheetLine => {
    const left = gutter(firstOf(line), at === 0)
    const edges = edgesOf(line, needs, left, width, usual)
    const insets = line.map((bar, index) => insetOf(setting, bar, index === 0))
    return {
      bars: line,
      edges,
      key: entryOf(keys, firstOf(line).number),
      chords,
      first: at === 0,
      last: at === broken.length - 1,
      x: (index, beat) => {
        const bar = itemAt(line, index)
        const from = itemAt(edges, index) + itemAt(insets, index)
        const share = (beat - bar.from) / (bar.beats || 1)
        return from + share * (itemAt(edges, index + 1) - from - 2 * sizes.unit)
      },
    }
  })
}

const insetOf = (setting: SheetSetting, bar: Bar, isFirst: boolean): number =>
  INSET * setting.sizes.unit +
  (bar.opensRepeat ? 7 * setting.sizes.unit : 0) +
  (hasStaff(setting) ? changeRoom(bar, isFirst) * setting.sizes.staff : 0)

/** Room for clef and signatures in front of the first bar. */
function gutterOf(setting: SheetSetting, key: Key, first: boolean): number {
  const { layout, sizes } = setting
  if (hasStaff(setting))
    return (46 + 10 * Math.abs(signatureOf(key)) + (first ? METER_ROOM : 0)) * sizes.staff
  return layout.tab === 'none' ? 0 : 16 * sizes.unit
}

/** The least width of a bar, in points. */
function needOf(bar: Bar, chords: readonly DrawnChord[], setting: SheetSetting): number {
  const { content, layout, sizes } = setting
  const inset = insetOf(setting, bar, false)
  const widths = chords.map(({ symbol, under, grip, text, beats }) => ({
    beats,
    width:
      Math.max(
        symbol?.width ?? text.length * sizes.home * 0.5,
        under.reduce((sum, one) => sum + one.width + GAP * 0.6, 0),
        grip?.width ?? 0,
      ) +
      GAP * sizes.unit,
  }))
  const sum = widths.reduce((all, { width }) => all + width, 0)
  const inProportion = Math.max(0, ...widths.map(({ width, beats }) => (width * bar.beats) / (beats || 1)))
  const ofChords = Math.min(inProportion, 1.5 * sum)
  const onsets = [
    layout.staff ? content.melody : [],
    layout.rhythm ? content.rhythm : [],
    layout.tab === 'comping' ? content.comping : [],
    layout.tab === 'chord-melody' ? content.chordMelody : [],
    layout.bass ? content.bass : [],
  ].map((all) => all.filter((one) => one.bar === bar.number).map(({ beat }) => beat))
  const ofWords = layout.lyrics ? wordsNeed(bar, setting) : 0
  const ofNotes = Math.max(0, ...onsets.map((beats) => nearest(beats, bar) * NOTE_ROOM * sizes.unit))
  return Math.max(LEAST_WIDTH * sizes.unit, inset + Math.max(ofChords, ofNotes, ofWords))
}

/** Room for the words of a bar, side by side. */
function wordsNeed(bar: Bar, { content, sizes }: SheetSetting): number {
  return content.lyrics
    .filter((one) => one.bar === bar.number)
    .reduce((sum, one) => sum + wordsBox(one, sizes.unit).width + WORDS_GAP * sizes.unit, 0)
}

/** How many times the smallest distance of neighbouring onsets goes into the bar. */
function nearest(beats: readonly number[], bar: Bar): number {
  const sorted = [...new Set(beats)].sort((a, b) => a - b)
  if (sorted.length < 2) return sorted.length
  const gaps = sorted.slice(1).map((beat, at) => beat - itemAt(sorted, at))
  return bar.beats / Math.max(SMALLEST_GAP, Math.min(...gaps))
}
/** A grace note does not stretch its whole bar. */
const SMALLEST_GAP = 0.25

/** A line that is too full, cut in the middle until each piece fits. */
function inHalves(line: Bar[], fits: (part: readonly Bar[]) => boolean): Bar[][] {
  if (line.length === 1 || fits(line)) return [line]
  const middle = Math.ceil(line.length / 2)
  return [...inHalves(line.slice(0, middle), fits), ...inHalves(line.slice(middle), fits)]
}

/**
 * Bars of one width where each has the room it needs; else as wide as they need, in proportion. A
 * line with fewer bars than the others keeps their width.
 */
function edgesOf(
  line: readonly Bar[],
  needs: ReadonlyMap<number, number>,
  left: number,
  width: number,
  usual: number,
): number[] {
  const room = width - left
  const needed = line.map((bar) => entryOf(needs, bar.number))
  const isPickup = (bar: Bar) => bar.number === 0
  const ofPickup = line.some(isPickup) ? Math.min(firstOf(needed), room * 0.25) : 0
  const whole = line.filter((bar) => !isPickup(bar)).length
  const equal = (room - ofPickup) / Math.max(usual, whole, 1)
  const sum = needed.reduce((all, one) => all + one, 0)
  const widths = line.every((bar, at) => isPickup(bar) || itemAt(needed, at) <= equal)
    ? line.map((bar) => (isPickup(bar) ? ofPickup : equal))
    : needed.map((one) => (one / sum) * room)
  return widths.reduce((edges, one) => [...edges, lastOf(edges) + one], [left])
}
