import { itemAt } from '../core/lists'
import { rowOfBoxes } from './chordRows'
import type { SheetLine, SheetSetting } from './lineBreaks'
import { moved, said } from './marks'
import { EMPTY_ROW, type Row } from './row'
import { wordsBox, WORDS_GAP, WORDS_SIZE } from './paperWords'

/** Remarks over the bars they begin in. */
export function remarksRow(sheet: SheetLine, { sizes: { unit } }: SheetSetting): Row {
  const remarks = sheet.bars.flatMap((bar, index) =>
    bar.remarks.map((text) => ({
      at: itemAt(sheet.edges, index) + 2 * unit,
      box: said(text, { size: REMARK_SIZE * unit, face: 'serif' }),
    })),
  )
  if (remarks.length === 0) return EMPTY_ROW
  const size = REMARK_SIZE * unit
  return {
    marks: rowOfBoxes(sheet, remarks, 2 * WORDS_GAP * unit).flatMap(({ box, x }) =>
      moved(box.marks, x, size),
    ),
    height: size * 1.35,
  }
}
const REMARK_SIZE = 9

/** Words under their beats; smaller where they do not all fit into the line. */
export function wordsRow(sheet: SheetLine, { content, sizes: { unit } }: SheetSetting): Row {
  const words = sheet.bars.flatMap((bar, index) =>
    content.lyrics
      .filter((one) => one.bar === bar.number && one.beat < bar.from + bar.beats)
      .map((one) => ({ at: sheet.x(index, one.beat), box: wordsBox(one, unit) })),
  )
  if (words.length === 0) return EMPTY_ROW
  const size = WORDS_SIZE * unit
  return {
    marks: rowOfBoxes(sheet, words, WORDS_GAP * unit).flatMap(({ box, x }) => moved(box.marks, x, size)),
    height: size * 1.35,
  }
}
