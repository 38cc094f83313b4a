import { itemAt, lastOf } from '../core/lists'
import { PAPERS, type PaperName, type SheetLayout } from '../core/sheet/sheetLayout'
import { inLines, line, moved, said, settled, type Mark } from './marks'
import { MARGIN, type Page, type Pages } from './pages'
import type { PdfAsked } from './pdf'

/** A tune of a set as its contents list it. */
interface Listed {
  title: string
  /** Key, tempo, version, note: what is to be known before it begins. */
  words: string
  /** The page it begins on. */
  page: number
}

const TITLE = 26
const SIZE = 12
const STEP = 17
const WORD_STEP = 12
const NUMBER_WIDTH = 24

/** The contents of a set: each tune with its number, how it is played there, and its page. */
function contentsPages(name: string, note: string, listed: readonly Listed[], paper: PaperName): Page[] {
  const { width, height } = PAPERS[paper]
  const right = width - MARGIN
  const marks: Mark[][] = [[]]
  let y = MARGIN
  const put = (all: Mark[]) => lastOf(marks).push(...all)
  const room = (needed: number) => {
    if (y + needed <= height - MARGIN) return
    marks.push([])
    y = MARGIN
  }
  const words = (text: string, size: number, step: number, face: 'serif-bold' | 'sans', left: number) => {
    for (const one of inLines(text, right - left - 3 * NUMBER_WIDTH, {
      size,
      face,
      shade: face === 'sans' ? 'soft' : 'ink',
    })) {
      room(step)
      put(moved(one.marks, left, y + step * 0.75))
      y += step
    }
  }
  words(name, TITLE, TITLE * 1.15, 'serif-bold', MARGIN)
  if (note !== '') words(note, 10, 13, 'sans', MARGIN)
  y += 8
  listed.forEach(({ title, words: how, page }, at) => {
    room(STEP + (how === '' ? 0 : WORD_STEP))
    put([line(MARGIN, y, right, y, 0.4, 'mist')])
    const baseline = y + STEP * 0.8
    const [number, onPage] = [String(at + 1), String(page)].map((text) =>
      said(text, { size: SIZE, face: 'sans', shade: 'soft' }),
    )
    put(moved(number!.marks, MARGIN + NUMBER_WIDTH - 8 - number!.width, baseline))
    put(moved(onPage!.marks, right - onPage!.width, baseline))
    words(title, SIZE + 1, STEP, 'serif-bold', MARGIN + NUMBER_WIDTH)
    if (how !== '') words(how, 9, WORD_STEP, 'sans', MARGIN + NUMBER_WIDTH)
    y += 3
  })
  return marks.map((on): Page => ({ paper, width, height, marks: settled(on) }))
}

/** Pages with their number in the whole, at the outer corner of the foot. */
const numbered = (pages: readonly Page[], from: number): Page[] =>
  pages.map((page, at) => {
    const number = said(String(from + at), { size: 9, face: 'sans', shade: 'soft' })
    const x = page.width - MARGIN - number.width
    return { ...page, marks: [...page.marks, ...settled(moved(number.marks, x, page.height - MARGIN + 2))] }
  })

/** A set to be printed: each of its tunes as it is played there, with its pages. */
export interface SetOnPaper {
  name: string
  note: string
  layout: Pick<SheetLayout, 'paper' | 'black'>
  tunes: readonly { title: string; words: string; pages: Pages }[]
}

/** A set as one print: its contents, then its sheets with the numbers of their pages. */
export function printOf({ name, note, layout, tunes }: SetOnPaper): Omit<PdfAsked, 'onPage'> {
  const listed = (from: number): Listed[] => {
    let page = from
    return tunes.map(({ title, words, pages }) => {
      const first = page
      page += pages.pages.length
      return { title, words, page: first }
    })
  }
  // The contents tell pages that come after them: their own number is counted first.
  const own = contentsPages(name, note, listed(1), layout.paper).length
  const begins = listed(own + 1)
  return {
    title: name,
    sheets: [
      { pages: contentsPages(name, note, begins, layout.paper), black: layout.black, title: 'Contents' },
      ...tunes.map(({ title, pages }, at) => ({
        ...pages,
        pages: numbered(pages.pages, itemAt(begins, at).page),
        title,
      })),
    ],
  }
}
