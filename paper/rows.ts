import * as vexflow from 'vexflow'
import { beginsBar, meterName, type Bar } from '../core/chart/chart'
import { engravedWords } from '../core/chord/engraved'
import type { TabStroke } from '../core/sheet/content'
import type { PartName } from '../core/sheet/layout'
import { keyName } from '../core/pitch/key'
import { pitchAt } from '../core/pitch/note'
import {
  box,
  circlePath,
  frame,
  inARow,
  labelled,
  line,
  moved,
  said,
  shrunk,
  type Box,
  type Mark,
} from './marks'
import type { DrawnChord, SheetLine, SheetSetting, Sizes } from './lines'
import { hasStaff } from './lines'
import { chordBox } from './chordMarks'
import { Recorder } from './recorder'
import { engraveStaff, type StaffClef, type StaffItem } from './staff'

/** Marks of one row from its own top edge, and its height. */
interface Row {
  marks: Mark[]
  height: number
}
const NOTHING: Row = { marks: [], height: 0 }

/** One line of a sheet, every row of it under the others: its marks from its top left corner, and its height. */
export function lineRows(sheet: SheetLine, setting: SheetSetting): Row {
  const { layout, content, sizes } = setting
  const isConcert = layout.part === 'concert'
  const rows = [
    headRow(sheet, setting),
    symbolRow(sheet, setting),
    gripRow(sheet, setting),
    layout.rhythm ? rhythmRow(sheet, setting) : NOTHING,
  ]
  const staves = [
    layout.staff && content.melody.length > 0 ? melodyRow(sheet, setting) : NOTHING,
    layout.tab !== 'none' && isConcert
      ? tabRow(sheet, setting, layout.tab === 'comping' ? content.comping : content.chordMelody)
      : NOTHING,
    layout.bass ? bassRow(sheet, setting) : NOTHING,
  ]
  const head = stacked(rows, 0)
  // A staff has bar lines of its own; the line of the rhythm has not.
  const standAlone = staves.every(({ height }) => height === 0)
  const from = standAlone ? rows[0]!.height : head.height - rows[3]!.height
  const bars = from < head.height ? barLinesOf(sheet, setting, from, head.height) : []
  const whole = stacked([head, ...staves], 3 * sizes.unit)
  const [first, last] = [sheet.bars[0]!.number, sheet.bars.at(-1)!.number]
  return {
    marks: [
      labelled(
        first === last ? `Bar ${first}` : `Bars ${first} to ${last}`,
        [...bars, ...whole.marks],
        'group',
      ),
    ],
    height: whole.height,
  }
}

function stacked(rows: readonly Row[], gap: number): Row {
  let y = 0
  const marks = rows.flatMap((row) => {
    if (row.height === 0) return []
    const placed = moved(row.marks, 0, y)
    y += row.height + gap
    return placed
  })
  return { marks, height: y === 0 ? 0 : y - gap }
}

/** Section letters, endings, signs, changes and the number of the line's first bar. */
function headRow({ bars, edges, first }: SheetLine, setting: SheetSetting): Row {
  const { unit } = setting.sizes
  const endings = underEndings(setting.content.chart.bars)
  const height = bars.some((bar) => hasSigns(bar) || endings.has(bar.number)) ? 15 * unit : 7 * unit
  const base = height - 4 * unit
  const marks: Mark[] = []
  const put = (one: Box, x: number, y = base) => marks.push(...moved(one.marks, x, y))
  const words = (text: string, size = 8.4, face: 'sans' | 'sans-bold' | 'serif-bold' | 'music' = 'sans') =>
    said(text, { size: size * unit, face })
  bars.forEach((bar, index) => {
    const [left, right] = [edges[index]!, edges[index + 1]!]
    let x = left + 2 * unit
    const next = (one: Box) => {
      put(one, x)
      x += one.width + 4 * unit
    }
    if (endings.has(bar.number)) {
      marks.push(line(left + 1, 1.5, right - 1, 1.5))
      if (bar.ending.length > 0) {
        marks.push(line(left + 1, 1.5, left + 1, height - 1))
        next(words(`${bar.ending.join(', ')}.`, 8.4, 'sans-bold'))
      }
      if (bar.played > 0) marks.push(line(right - 1, 1.5, right - 1, height - 1))
    }
    if (bar.opensSection && bar.section) {
      const letter = words(bar.section, 9.4, 'serif-bold')
      const pad = 3 * unit
      marks.push(frame(x, base - 8.6 * unit, letter.width + 2 * pad, 11.4 * unit))
      put(letter, x + pad)
      x += letter.width + 2 * pad + 5 * unit
    } else if (index === 0 && bar.number > 1) next(words(String(bar.number), 6.4))
    if (bar.number === 0) next(words('pickup', 6.4))
    for (const mark of bar.marks.filter(beginsBar)) next(words(SIGNS[mark] ?? mark, 15, 'music'))
    const staff = hasStaff(setting)
    if (bar.newKey && !staff) next(words(engravedWords(keyName(bar.newKey)), 8.4, 'sans-bold'))
    if (bar.newMeter && !staff && !(first && index === 0)) next(words(meterName(bar.meter), 8.4, 'sans-bold'))
    const ends = [
      ...bar.marks.filter((mark) => !beginsBar(mark)),
      ...(bar.played > 2 ? [`×${bar.played}`] : []),
    ]
    if (ends.length > 0) {
      const end = words(ends.join('  '), 8.4, 'sans-bold')
      put(end, Math.max(x > left + 2 * unit ? x : 0, right - end.width - 3 * unit))
    }
  })
  return { marks, height }
}
const SIGNS: Readonly<Record<string, string>> = { Segno: '𝄋', Coda: '𝄌' }

const hasSigns = (bar: Bar): boolean =>
  bar.opensSection ||
  bar.ending.length > 0 ||
  bar.marks.length > 0 ||
  bar.played > 2 ||
  bar.newKey !== null ||
  bar.newMeter

/** Bars under the bracket of an ending: from where it begins to where it closes, or to what comes after. */
function underEndings(bars: readonly Bar[]): Set<number> {
  const under = new Set<number>()
  let open = false
  for (const bar of bars) {
    if (bar.ending.length > 0) open = true
    else if (bar.opensSection || bar.opensRepeat) open = false
    if (open) under.add(bar.number)
    if (bar.played > 0) open = false
  }
  return under
}

/** Places of things over their beats: each at its beat, after its neighbour where that is longer than its beats, and none beyond the end of the line. */
function placed<One>(
  all: readonly One[],
  wanted: (one: One) => number,
  width: (one: One) => number,
  gap: number,
  end: number,
): { one: One; x: number }[] {
  let free = -Infinity
  const after = all.map((one) => {
    const x = Math.max(wanted(one), free)
    free = x + width(one) + gap
    return { one, x }
  })
  let limit = end
  return after
    .reverse()
    .map(({ one, x }) => {
      const back = Math.min(x, limit - width(one))
      limit = back - gap
      return { one, x: back }
    })
    .reverse()
}

/** How much smaller things must be so that all of them stand in a line; 1 where they do. */
function shareThatFits(widths: readonly number[], gap: number, room: number): number {
  const sum = widths.reduce((all, width) => all + width, 0)
  const gaps = gap * Math.max(0, widths.length - 1)
  return sum + gaps <= room ? 1 : Math.max(0.1, (room - gaps) / sum)
}

const chordsOfLine = ({ bars, chords, x }: SheetLine): { chord: DrawnChord; at: number }[] =>
  bars.flatMap((bar, index) =>
    (chords.get(bar.number) ?? []).map((chord) => ({ chord, at: x(index, chord.beat) })),
  )

/** Boxes over their beats in one row, smaller where they do not all fit into the line. */
function rowOfBoxes(
  sheet: SheetLine,
  all: readonly { at: number; box: Box }[],
  gap: number,
): { box: Box; x: number }[] {
  const first = all[0]
  if (!first) return []
  const end = sheet.edges.at(-1)!
  const share = shareThatFits(
    all.map(({ box: { width } }) => width),
    gap,
    end - first.at,
  )
  const fitting = all.map(({ at, box: one }) => ({ at, box: shrunk(one, share) }))
  return placed(
    fitting,
    ({ at }) => at,
    ({ box: { width } }) => width,
    gap,
    end,
  ).map(({ one, x }) => ({ box: one.box, x }))
}

/** Symbols over their beats, with the shapes of a capo, and the plain chords and numerals, under them. */
function symbolRow(sheet: SheetLine, { sizes, layout }: SheetSetting): Row {
  const { unit, symbol, home } = sizes
  const all = chordsOfLine(sheet)
  const gap = 3 * unit
  const marks: Mark[] = []
  let height = symbol * 0.95
  const put = (boxes: readonly { at: number; box: Box }[], baseline: number) =>
    marks.push(...rowOfBoxes(sheet, boxes, gap).flatMap(({ box: one, x }) => moved(one.marks, x, baseline)))
  put(
    all.map(({ chord, at }) => ({ at, box: withNotes(chord, layout.reasons, sizes) })),
    height,
  )
  height += 4 * unit
  const shapes = all.flatMap(({ chord: { shape }, at }) =>
    shape
      ? [
          {
            at,
            box: inARow([
              said('as ', { size: 7 * unit, face: 'sans', shade: 'soft' }),
              chordBox(shape, home, 'soft'),
            ]),
          },
        ]
      : [],
  )
  if (shapes.length > 0) {
    put(shapes, height + home * 0.8)
    height += home * 1.15
  }
  const under = all.filter(({ chord }) => chord.under.length > 0)
  if (under.length > 0) {
    put(
      under.map(({ chord, at }) => ({ at, box: inARow(chord.under, gap) })),
      height + home * 0.86,
    )
    height += home * 1.3
  }
  return { marks, height }
}

/** A symbol, or what stands in its place, with the numbers of its footnotes. */
function withNotes(
  { symbol, text, notes }: DrawnChord,
  reasons: boolean,
  { unit, home, symbol: size }: Sizes,
): Box {
  const drawn = symbol ?? said(text, { size: home, face: 'sans', shade: 'soft' })
  if (notes.length === 0 || !reasons) return drawn
  const numbers = said(notes.join(','), { size: 6.2 * unit, face: 'sans', shade: 'soft' })
  return inARow([drawn, { ...numbers, marks: moved(numbers.marks, 0, -size * 0.62) }], unit)
}

/** A grip under each chord that has one, its lowest string under the chord's beat. */
function gripRow(sheet: SheetLine, { sizes: { unit } }: SheetSetting): Row {
  const grips = chordsOfLine(sheet).flatMap(({ chord: { grip }, at }) =>
    grip ? [{ at: at - 4 * unit, box: grip }] : [],
  )
  if (grips.length === 0) return NOTHING
  const row = rowOfBoxes(sheet, grips, 2 * unit)
  return {
    marks: row.flatMap(({ box: one, x }) => moved(one.marks, x, unit)),
    height: Math.max(...row.map(({ box: { below } }) => below)) + 3 * unit,
  }
}

/** Bar lines of a line that has no staff. */
function barLinesOf(
  { bars, edges, last }: SheetLine,
  { sizes: { unit } }: SheetSetting,
  top: number,
  bottom: number,
): Mark[] {
  const thick = 2.2 * unit
  const dots = (x: number): Mark[] =>
    [-3, 3].map((off): Mark => ({
      kind: 'path',
      d: circlePath(x, (top + bottom) / 2 + off * unit, 1.1 * unit),
      fill: 'ink',
    }))
  const thin = (x: number) => line(x, top, x, bottom, 0.7 * unit)
  return bars.flatMap((bar, index): Mark[] => {
    const [left, right] = [edges[index]!, edges[index + 1]!]
    const isEnd = last && index === bars.length - 1
    const closes = bar.played > 0
    return [
      ...(bar.opensRepeat
        ? [
            box(left, top, thick, bottom - top, 'ink'),
            thin(left + thick + 1.4 * unit),
            ...dots(left + thick + 4 * unit),
          ]
        : index === 0
          ? [thin(left)]
          : []),
      ...(closes || isEnd
        ? [thin(right - thick - 1.4 * unit), box(right - thick, top, thick, bottom - top, 'ink')]
        : [thin(right)]),
      ...(closes ? dots(right - thick - 4 * unit) : []),
    ]
  })
}

/** A staff drawn by the notation library, as high as what is drawn. */
function staffRow(
  sheet: SheetLine,
  { sizes, content }: SheetSetting,
  clef: StaffClef,
  items: readonly StaffItem[],
): Row {
  const units = (points: number) => points / sizes.staff
  const recorder = new Recorder(sizes.staff)
  engraveStaff(vexflow, recorder, {
    bars: sheet.bars,
    items: items.filter(({ bar }) => sheet.bars.some(({ number }) => number === bar)),
    key: sheet.key,
    clef,
    edges: sheet.edges.map(units),
    x: (bar, beat) => units(sheet.x(bar, beat)),
    topLine: 0,
    showMeter: sheet.first,
    changes: true,
    lastBar: content.chart.bars.at(-1)?.number ?? null,
  })
  const height = recorder.bottom - recorder.top
  return { marks: moved(recorder.marks, 0, -recorder.top), height }
}

const melodyRow = (sheet: SheetLine, setting: SheetSetting): Row => {
  const { content } = setting
  return staffRow(
    sheet,
    setting,
    MELODY_CLEFS[content.part],
    content.melody.map((piece) => ({ ...piece, pitches: [content.written(piece.note.note)] })),
  )
}

const MELODY_CLEFS: Readonly<Record<PartName, StaffClef>> = {
  concert: 'guitar',
  'b-flat': 'treble',
  'e-flat': 'treble',
  bass: 'bass',
}

const rhythmRow = (sheet: SheetLine, setting: SheetSetting): Row =>
  setting.content.rhythm.length === 0
    ? NOTHING
    : staffRow(
        sheet,
        setting,
        'rhythm',
        setting.content.rhythm.map((piece) => ({ ...piece, pitches: [] })),
      )

/** The bass is written an octave above what sounds, as the guitar is. */
const bassRow = (sheet: SheetLine, setting: SheetSetting): Row =>
  staffRow(
    sheet,
    setting,
    'bass',
    setting.content.bass.map(({ bar, beat, beats, note, midi }) => {
      const sounding = pitchAt(midi, note)
      return {
        bar,
        beat,
        beats,
        pitches: [{ ...sounding, octave: sounding.octave + 1 }],
        tiedFrom: false,
        tiedOn: false,
      }
    }),
  )

/** Tablature, the highest string on top: what is struck stands as its fret. */
function tabRow(sheet: SheetLine, { sizes, content }: SheetSetting, strokes: readonly TabStroke[]): Row {
  const { unit, tabGap } = sizes
  const strings = content.instrumentStrings
  const y = (string: number) => 3 * unit + (strings - 1 - string) * tabGap
  const [top, bottom] = [y(strings - 1), y(0)]
  const [left, right] = [0, sheet.edges.at(-1)!]
  const marks: Mark[] = [
    ...Array.from({ length: strings }, (_, string) => line(left, y(string), right, y(string), 0.4, 'soft')),
    ...[left, ...sheet.edges.slice(sheet.edges[0]! > 0 ? 0 : 1)].map((x) => line(x, top, x, bottom, 0.6)),
  ]
  const middle = (top + bottom) / 2
  ;['T', 'A', 'B'].forEach((letter, index) => {
    const word = said(letter, { size: 8.4 * unit, face: 'sans-bold' })
    if (sheet.edges[0]! > 0)
      marks.push(...moved(word.marks, 4 * unit, middle + (index - 1) * 8.6 * unit + 3 * unit))
  })
  sheet.bars.forEach((bar, index) => {
    const here = strokes.filter((stroke) => stroke.bar === bar.number)
    for (const { beat, notes } of here)
      for (const { string, fret } of notes) {
        const number = said(String(fret), { size: 7.6 * unit, face: 'sans-bold' })
        const x = sheet.x(index, beat)
        marks.push(box(x - 0.6 * unit, y(string) - tabGap / 2, number.width + 1.2 * unit, tabGap, 'paper'))
        marks.push(...moved(number.marks, x, y(string) + 2.7 * unit))
      }
  })
  return { marks: [labelled('Tablature', marks, 'group')], height: bottom + 5 * unit }
}
