import { firstOf, lastOf } from '../core/lists'
import { barName, meterName } from '../core/chart/chart'
import { engravedNote, engravedWords, keyInWords } from '../core/chord/engraved'
import { legendOf, type SheetContent } from '../core/sheet/content'
import { PAPERS, SHEET_PARTS, type PaperName, type SheetLayout } from '../core/sheet/sheetLayout'
import { chordBox } from './chordMarks'
import { unprintable } from './fonts'
import { gripBox } from './gripMarks'
import { linesOn, sizesOf, type SheetSetting } from './lineBreaks'
import { inLines, labelled, line, moved, said, settled, type Mark } from './marks'
import { lineRows } from './sheetRows'

/** One page of paper with everything that is printed on it. Lengths in points. */
export interface Page {
  paper: PaperName | 'window'
  width: number
  height: number
  marks: Mark[]
}

/** Pages of a sheet, and what could not be printed of it. */
export interface Pages {
  title: string
  pages: Page[]
  /** Printed in black alone. */
  black: boolean
  /** Letters that no font of the application has. */
  missing: string[]
}

/** Half an inch stays white around the page: every printer reaches that far. */
export const MARGIN = 36
const COLUMN_GAP = 24
/** Room at the foot for the number of the page. */
const FOOT = 14

/** Something that is never cut: a line of bars, a row of grips, a footnote. */
interface Uncut {
  marks: Mark[]
  height: number
  /** White below it, where something follows. */
  after: number
}

/**
 * What the pages are made for: a sheet of paper, or a window on the stand, where the title is
 * small.
 */
export interface Format {
  paper: PaperName | 'window'
  width: number
  height: number
  margin: number
}
export const paperFormatOf = ({ paper }: Pick<SheetLayout, 'paper'>): Format => ({
  paper,
  width: PAPERS[paper].width,
  height: PAPERS[paper].height,
  margin: MARGIN,
})
/** White around a page in a window, in points. */
export const WINDOW_MARGIN = 9

/** A sheet on pages: lines are never cut, and a page turns at the end of one. */
export function pagesOf(
  content: SheetContent,
  layout: SheetLayout,
  leftHanded = false,
  format: Format = paperFormatOf(layout),
): Pages {
  const { width, height, margin } = format
  const sizes = sizesOf(layout)
  const setting: SheetSetting = { content, layout, leftHanded, sizes }
  const inner = width - 2 * margin
  const column = layout.columns === 2 ? (inner - COLUMN_GAP) / 2 : inner
  const isWindow = format.paper === 'window'
  const head = isWindow ? smallHead(setting, inner) : headBlock(setting, inner)
  const blocks = [
    ...linesOn(setting, column).map((one): Uncut => ({ ...lineRows(one, setting), after: 10 * sizes.unit })),
    ...(layout.grips === 'legend' && layout.part === 'concert' ? legendBlocks(setting, column) : []),
    ...(layout.reasons ? reasonBlocks(setting, column) : []),
  ]
  const marks: Mark[][] = [[...moved(head.marks, margin, margin)]]
  const bottom = height - margin - (isWindow ? 0 : FOOT)
  let [top, y, at] = [margin + head.height, margin + head.height, 0]
  for (const block of blocks) {
    const isFirst = y === top
    if (!isFirst && y + block.height > bottom) {
      at += 1
      if (at >= layout.columns) {
        marks.push([])
        at = 0
        top = margin
      }
      y = top
    }
    const x = margin + at * (column + COLUMN_GAP)
    lastOf(marks).push(...moved(block.marks, x, y))
    y += block.height + block.after
  }
  return {
    title: content.title,
    black: layout.black,
    missing: missingIn(content),
    pages: marks.map((on, index): Page => {
      const foot = isWindow ? [] : footMarks(setting, format, index, marks.length)
      return { paper: format.paper, width, height, marks: settled([...on, ...foot]) }
    }),
  }
}

/** Letters of a player's own words that no font of the application has. */
const missingIn = ({ title, note, lyrics, chart: { bars } }: SheetContent): string[] =>
  unprintable(
    [
      title,
      note,
      ...lyrics.map(({ text }) => text),
      ...bars.flatMap(({ section, remarks }) => [section ?? '', ...remarks]),
    ].join(' '),
    'serif-bold',
  ).filter((letter) => letter.trim() !== '')

/**
 * What is said on paper of such letters, which can be named there but not printed; empty where
 * there are none.
 */
function missingInWords(content: SheetContent): string {
  const { length } = missingIn(content)
  return length === 0
    ? ''
    : `${length} ${length === 1 ? 'letter' : 'different letters'} of its words ${length === 1 ? 'is' : 'are'} in no font of this program and ${length === 1 ? 'is' : 'are'} not printed.`
}

/** The title and the number of the page at its foot. */
function footMarks({ content, layout }: SheetSetting, format: Format, index: number, of: number): Mark[] {
  const parts = [
    content.title,
    ...(layout.part === 'concert' ? [] : [SHEET_PARTS[layout.part]]),
    ...(of > 1 ? [`${index + 1} of ${of}`] : []),
  ]
  const words = said(parts.join(' · '), { size: FOOT_SIZE, face: 'sans', shade: 'soft' })
  return moved(words.marks, (format.width - words.width) / 2, format.height - format.margin + 2)
}
const FOOT_SIZE = 7.6

/** Title and words on one line where they fit, for a window. */
function smallHead(setting: SheetSetting, width: number): Uncut {
  const titles = inLines(setting.content.title, width, { size: 11, face: 'serif-bold' })
  const words = inLines(wordsOf(setting), width, { size: 6.6, face: 'sans', shade: 'soft' })
  const [title, word] = [firstOf(titles), firstOf(words)]
  if (titles.length === 1 && words.length === 1 && title.width + word.width + 8 <= width)
    return {
      marks: [...moved(title.marks, 0, 9), ...moved(word.marks, width - word.width, 9)],
      height: 15,
      after: 0,
    }
  return {
    marks: [
      ...titles.flatMap((one, at) => moved(one.marks, 0, 9 + at * 12)),
      ...words.flatMap((one, at) => moved(one.marks, 0, titles.length * 12 + 5.5 + at * 8)),
    ],
    height: titles.length * 12 + words.length * 8 + 4,
    after: 0,
  }
}

/** Key, metre, tempo, figure, capo and strings. */
function wordsOf({
  content: { key, chart, tempo, figure, fingered, strings, part, note },
}: SheetSetting): string {
  return [
    ...(part === 'concert' ? [] : [`${SHEET_PARTS[part]} part`]),
    keyInWords(key),
    meterName(chart.meter),
    `${tempo} beats a minute`,
    ...(figure ? [figure] : []),
    ...(fingered ? [`capo ${chart.capo}, played in ${keyInWords(fingered)}`] : []),
    ...(strings ? [`strings ${strings.map(engravedNote).join(' ')}, from the lowest`] : []),
    ...(note === '' ? [] : [note]),
  ].join(' · ')
}

/** Title in the middle, and under it key, metre, tempo, figure, capo and strings. */
function headBlock(setting: SheetSetting, width: number): Uncut {
  const {
    content,
    sizes: { unit },
  } = setting
  const { chart } = content
  const middle = (one: { marks: Mark[]; width: number }, y: number) =>
    moved(one.marks, (width - one.width) / 2, y)
  const titles = inLines(content.title, width, { size: 23 * unit, face: 'serif-bold' })
  const small = { size: 9.4 * unit, face: 'sans', shade: 'soft' } as const
  const unsaid = missingInWords(content)
  const under = [
    ...inLines(wordsOf(setting), width, small),
    ...(unsaid === '' ? [] : inLines(unsaid, width, small)),
  ]
  const ofTitle = 26 * unit
  const ofWords = 12.5 * unit
  const marks = [
    labelled(
      content.title,
      titles.flatMap((one, at) => middle(one, (at + 0.8) * ofTitle)),
      'group',
    ),
    ...under.flatMap((one, at) => middle(one, titles.length * ofTitle + (at + 0.75) * ofWords)),
  ]
  const height = titles.length * ofTitle + under.length * ofWords + 10 * unit
  return chart.bars.length > 0
    ? { marks, height, after: 0 }
    : {
        marks: [
          ...marks,
          ...middle(
            said('There are no bars yet. Type a chart first.', { size: 11 * unit, face: 'sans' }),
            height + 20 * unit,
          ),
        ],
        height: height + 30 * unit,
        after: 0,
      }
}

/** Every grip once under its symbol, in rows. */
function legendBlocks({ content, leftHanded, sizes }: SheetSetting, width: number): Uncut[] {
  const { unit } = sizes
  const all = legendOf(content.chords).map(({ chord, voicing }) => {
    const name = chordBox(chord, sizes.symbol * 0.8)
    const grip = gripBox(voicing, { scale: sizes.unit, capo: content.chart.capo, leftHanded })
    const nameHeight = sizes.symbol * 0.95
    return {
      marks: [...moved(name.marks, 5 * unit, sizes.symbol * 0.8), ...moved(grip.marks, 0, nameHeight)],
      width: Math.max(name.width + 5 * unit, grip.width) + 10 * unit,
      height: nameHeight + grip.below,
    }
  })
  const rows: (typeof all)[] = []
  for (const one of all) {
    const row = rows.at(-1)
    const used = row?.reduce((sum, each) => sum + each.width, 0) ?? Infinity
    if (row && used + one.width <= width) row.push(one)
    else rows.push([one])
  }
  return rows.map((row): Uncut => {
    let x = 0
    const marks = row.flatMap((one) => {
      const here = moved(one.marks, x, 0)
      x += one.width
      return here
    })
    return { marks, height: Math.max(...row.map(({ height }) => height)), after: 6 * unit }
  })
}

/** Each change with its number, its place and why, as footnotes under a line. */
function reasonBlocks({ content, sizes: { unit } }: SheetSetting, width: number): Uncut[] {
  const size = 8.6 * unit
  const step = 11.4 * unit
  const indent = 20 * unit
  return content.reasons.map(({ decision, homes }, index): Uncut => {
    const { because, puts } = decision
    const place = firstOf(homes).slot
    const symbols = puts.map(({ chord }) => chord.canonical).join(' ')
    const from = homes.map(({ slot }) => slot.text).join(' ')
    const text = engravedWords(
      `${barName(place.bar)}: ${from} becomes ${symbols}. ${because.name}. ${because.why}`,
    )
    const lines = inLines(text, width - indent, { size, face: 'sans' })
    const above = index === 0 ? 6 * unit : 0
    return {
      marks: [
        ...(index === 0 ? [line(0, 0, width * 0.3, 0, 0.5, 'soft')] : []),
        ...moved(
          said(String(index + 1), { size, face: 'sans-bold', shade: 'soft' }).marks,
          4 * unit,
          above + size,
        ),
        ...lines.flatMap((one, at) => moved(one.marks, indent, above + size + at * step)),
      ],
      height: above + lines.length * step,
      after: 1.5 * unit,
    }
  })
}
