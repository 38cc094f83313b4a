import { lastOf } from '../core/lists'
import { chordBox } from './chordMarks'
import type { DrawnChord, SheetLine, SheetSetting, Sizes } from './lineBreaks'
import { inARow, moved, said, shrunk, type Box, type Mark } from './marks'
import { EMPTY_ROW, type Row } from './row'

/**
 * Places of things over their beats: each at its beat, after its neighbour where that is longer
 * than its beats, and none beyond the end of the line.
 */
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
export function rowOfBoxes(
  sheet: SheetLine,
  all: readonly { at: number; box: Box }[],
  gap: number,
): { box: Box; x: number }[] {
  const first = all[0]
  if (!first) return []
  const end = lastOf(sheet.edges)
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

/**
 * Symbols over their beats, with the shapes of a capo, and the plain chords and numerals, under
 * them.
 */
export function symbolRow(sheet: SheetLine, { sizes, layout }: SheetSetting): Row {
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
export function gripRow(sheet: SheetLine, { sizes: { unit } }: SheetSetting): Row {
  const grips = chordsOfLine(sheet).flatMap(({ chord: { grip }, at }) =>
    grip ? [{ at: at - 4 * unit, box: grip }] : [],
  )
  if (grips.length === 0) return EMPTY_ROW
  const row = rowOfBoxes(sheet, grips, 2 * unit)
  return {
    marks: row.flatMap(({ box: one, x }) => moved(one.marks, x, unit)),
    height: Math.max(...row.map(({ box: { below } }) => below)) + 3 * unit,
  }
}
