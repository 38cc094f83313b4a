import { firstOf, lastOf } from '../core/lists'
import * as vexflow from 'vexflow'
import type { TabStroke } from '../core/sheet/content'
import type { PartName } from '../core/sheet/sheetLayout'
import { pitchAt } from '../core/pitch/note'
import type { SheetLine, SheetSetting } from './lineBreaks'
import { box, labelled, line, moved, said, type Mark } from './marks'
import { Recorder } from './recorder'
import { EMPTY_ROW, type Row } from './row'
import { engraveStaff, type StaffClef, type StaffItem } from './staff'

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

export const melodyRow = (sheet: SheetLine, setting: SheetSetting): Row => {
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

export const rhythmRow = (sheet: SheetLine, setting: SheetSetting): Row =>
  setting.content.rhythm.length === 0
    ? EMPTY_ROW
    : staffRow(
        sheet,
        setting,
        'rhythm',
        setting.content.rhythm.map((piece) => ({ ...piece, pitches: [] })),
      )

/** The bass is written an octave above what sounds, as the guitar is. */
export const bassRow = (sheet: SheetLine, setting: SheetSetting): Row =>
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
export function tabRow(
  sheet: SheetLine,
  { sizes, content }: SheetSetting,
  strokes: readonly TabStroke[],
): Row {
  const { unit, tabGap } = sizes
  const strings = content.instrumentStrings
  const y = (string: number) => 3 * unit + (strings - 1 - string) * tabGap
  const [top, bottom] = [y(strings - 1), y(0)]
  const [left, right] = [0, lastOf(sheet.edges)]
  const marks: Mark[] = [
    ...Array.from({ length: strings }, (_, string) => line(left, y(string), right, y(string), 0.4, 'soft')),
    ...[left, ...sheet.edges.slice(firstOf(sheet.edges) > 0 ? 0 : 1)].map((x) =>
      line(x, top, x, bottom, 0.6),
    ),
  ]
  const middle = (top + bottom) / 2
  ;['T', 'A', 'B'].forEach((letter, index) => {
    const word = said(letter, { size: 8.4 * unit, face: 'sans-bold' })
    if (firstOf(sheet.edges) > 0)
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
