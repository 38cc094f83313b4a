import { firstOf, itemAt, lastOf } from '../core/lists'
import { barLinesOf, headRow } from './barRows'
import { gripRow, symbolRow } from './chordRows'
import type { SheetLine, SheetSetting } from './lineBreaks'
import { labelled, moved } from './marks'
import { EMPTY_ROW, type Row } from './row'
import { bassRow, melodyRow, rhythmRow, tabRow } from './staffRows'
import { remarksRow, wordsRow } from './wordsRow'

/**
 * One line of a sheet, every row of it under the others: its marks from its top left corner, and
 * its height.
 */
export function lineRows(sheet: SheetLine, setting: SheetSetting): Row {
  const { layout, content, sizes } = setting
  const isConcert = layout.part === 'concert'
  const words = layout.lyrics ? wordsRow(sheet, setting) : EMPTY_ROW
  const above = stacked([remarksRow(sheet, setting), headRow(sheet, setting)], 0)
  const rows = [
    above,
    symbolRow(sheet, setting),
    gripRow(sheet, setting),
    layout.rhythm ? rhythmRow(sheet, setting) : EMPTY_ROW,
    layout.staff && content.melody.length > 0 ? EMPTY_ROW : words,
  ]
  const staves = [
    layout.staff && content.melody.length > 0 ? melodyRow(sheet, setting) : EMPTY_ROW,
    // Where there is a melody words stand under its staff.
    layout.staff && content.melody.length > 0 ? words : EMPTY_ROW,
    layout.tab !== 'none' && isConcert
      ? tabRow(sheet, setting, layout.tab === 'comping' ? content.comping : content.chordMelody)
      : EMPTY_ROW,
    layout.bass ? bassRow(sheet, setting) : EMPTY_ROW,
  ]
  const head = stacked(rows, 0)
  // A staff has bar lines of its own; the line of the rhythm has not.
  const standAlone = staves.every(({ height }) => height === 0)
  const from = standAlone ? above.height : head.height - itemAt(rows, 3).height - itemAt(rows, 4).height
  const bars = from < head.height ? barLinesOf(sheet, setting, from, head.height) : []
  const whole = stacked([head, ...staves], 3 * sizes.unit)
  const [first, last] = [firstOf(sheet.bars).number, lastOf(sheet.bars).number]
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
