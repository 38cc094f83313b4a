import { firstOf, itemAt } from '../core/lists'
import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { sheetContent } from '../core/sheet/content'
import { PAPERS, TEMPLATES, type SheetLayout } from '../core/sheet/sheetLayout'
import { DEFAULT_PLAYER } from '../core/player/playerSettings'
import { newDocument, type TuneDocument } from '../core/tune/document'
import { withEveryGrip } from '../core/tune/searchQuestion'
import { readTuneDocument } from '../core/tune/tuneReading'
import { MARGIN, pagesOf, type Page } from './pages'
import type { Mark } from './marks'
import { toPdf } from './pdf'

const filled = (document: TuneDocument): TuneDocument =>
  withEveryGrip(document, readTuneDocument(document, 'case', DEFAULT_PLAYER), DEFAULT_PLAYER)
const composed = (document: TuneDocument, layout: SheetLayout) =>
  pagesOf(sheetContent(document, DEFAULT_PLAYER, layout), layout)

const SIGNS = `key: Eb
[Intro] |: Ebmaj7 | F#m7b5 B7(#9) | Dbmaj7 | Bb7sus4 Bb13(b9) |1. Ebmaj7 Cm7 | Fm7 Bb7 :|2. Ebmaj7 | Abm(maj7) |
[B] | "lightly, until the letter comes again" Gbmaj7 Ebm7/Bb Abm7 Db7 | "all" N.C. | Gb6/9 | Gb |`
const LONG = Array.from({ length: 16 }, (_, at) => `[S${at}] | Cmaj7 | Am7 D7 | Dm7 | G7 |`).join('\n')

/** Every place that path data or a letter touches, outlines by their points. */
function places(marks: readonly Mark[]): [x: number, y: number][] {
  return marks.flatMap((mark): [number, number][] => {
    if (mark.kind === 'group') return places(mark.marks)
    if (mark.kind === 'text') return [[mark.x, mark.y]]
    return [...mark.d.matchAll(/[ML](-?[\d.]+)[ ,](-?[\d.]+)/g)].map(([, x, y]) => [Number(x), Number(y)])
  })
}
const groupsIn = (marks: readonly Mark[]): string[] =>
  marks.flatMap((mark) => (mark.kind === 'group' ? [mark.label, ...groupsIn(mark.marks)] : []))
const lettersIn = (marks: readonly Mark[]): string => marks.map(lettersOfMark).join('')
function lettersOfMark(mark: Mark): string {
  if (mark.kind === 'group') return lettersIn(mark.marks)
  return mark.kind === 'text' ? mark.text : ''
}

/** What a general reader of PDF (pdfjs-dist) finds: pages, their size, letters, and fonts. */
function read(pdf: Buffer): {
  pages: { width: number; height: number; text: string; placed: unknown[] }[]
  fonts: string[]
  title: string
} {
  const file = join(mkdtempSync(join(tmpdir(), 'sheet-')), 'sheet.pdf')
  writeFileSync(file, pdf)
  const script = `
    import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs'
    import { readFileSync } from 'node:fs'
    const pdf = await getDocument({ data: new Uint8Array(readFileSync(process.argv[1])), verbosity: 0 }).promise
    const pages = [], fonts = new Set()
    for (let at = 1; at <= pdf.numPages; at += 1) {
      const page = await pdf.getPage(at)
      const { width, height } = page.getViewport({ scale: 1 })
      await page.getOperatorList()
      const { items } = await page.getTextContent()
      for (const { fontName } of items) if (fontName && page.commonObjs.has(fontName)) fonts.add(page.commonObjs.get(fontName).name)
      
      const placed = items.map(({ str, transform, width: wide }) => [str, ...transform, wide])
      pages.push({ width, height, placed, text: items.map(({ str }) => str).join(' ') })
    }
    const { info } = await pdf.getMetadata()
    console.log(JSON.stringify({ pages, fonts: [...fonts], title: info.Title }))`
  const told = execFileSync(process.execPath, ['--input-type=module', '-e', script, file], {
    encoding: 'utf8',
  })
  return JSON.parse(told) as ReturnType<typeof read>
}

test('the same page twice in a PDF has the same letters at the same places both times, and each is told', async () => {
  const sheet = composed(filled(newDocument('Twice', SIGNS)), TEMPLATES.comping.layout)
  const turns: number[] = []
  const pdf = await toPdf({
    title: 'Twice',
    sheets: [sheet, sheet],
    onPage: (done) => void turns.push(done),
  })
  const { pages } = read(pdf)
  const half = sheet.pages.length
  expect(pages.slice(half)).toEqual(pages.slice(0, half))
  expect(firstOf(pages).placed.length).toBeGreaterThan(20)
  expect(turns).toHaveLength(2 * half)
  expect([turns[0], turns.at(-1)]).toEqual([half > 1 ? 0 : 1, 2])
})
test('a PDF as another program reads it: pages of the paper, the title, symbols with their signs, and only embedded fonts of the application', async () => {
  const document = filled(newDocument('Odd Signs', SIGNS))
  const { layout } = TEMPLATES.comping
  for (const paper of ['a4', 'letter'] as const) {
    const sheet = composed(document, { ...layout, paper })
    const pdf = read(await toPdf({ title: document.title, sheets: [sheet] }))
    expect(pdf.title).toBe('Odd Signs')
    expect(pdf.pages).toHaveLength(sheet.pages.length)
    for (const { width, height } of pdf.pages) {
      expect(width).toBeCloseTo(PAPERS[paper].width, 1)
      expect(height).toBeCloseTo(PAPERS[paper].height, 1)
    }
    const text = pdf.pages
      .map((page) => page.text)
      .join(' ')
      .replace(/\s+/g, '')
    for (const word of ['OddSigns', 'Intro', 'E♭', 'F♯ø7', '13♭9', 'N.C.', '1.', '2.', 'E♭major'])
      expect(text).toContain(word)
    expect(pdf.fonts.length).toBeGreaterThan(1)
    for (const font of pdf.fonts) expect(font).toMatch(/^[A-Z]{6}\+(Vollkorn|SourceSans3|NotoMusic)/)
  }
})

test('words stand on the sheet under their beats, smaller where a line has no room, and not where they are not asked for', () => {
  const lyrics = [
    { bar: 1, beat: 1, text: 'sum', joins: true as const },
    { bar: 1, beat: 3, text: 'mer' },
    {
      bar: 2,
      beat: 1,
      text: 'a line of words that is far too long for the bar it stands in '.repeat(3).trim(),
    },
  ]
  const document = { ...newDocument('Sung', '| C | F | G7 | C |'), lyrics }
  const { layout } = TEMPLATES.lead
  const [page] = composed(document, layout).pages
  const text = lettersIn(page!.marks)
  expect(text).toContain('sum-mer')
  expect(text).toContain('far too long')
  for (const [x] of places(page!.marks)) expect(x).toBeLessThan(page!.width - MARGIN / 2)
  expect(lettersIn(firstOf(composed(document, { ...layout, lyrics: false }).pages).marks)).not.toContain(
    'sum-',
  )
})

test('remarks stand over the bars they begin in, every letter of them', () => {
  const [page] = composed(newDocument('Case', SIGNS), TEMPLATES.lead.layout).pages
  expect(lettersIn(page!.marks)).toContain('lightly, until the letter comes again')
})

test('everything that is drawn stays inside the white edge, on every page of every kind', () => {
  fc.assert(
    fc.property(
      fc.constantFrom(...Object.values(TEMPLATES).map(({ layout }) => layout)),
      fc.constantFrom(SIGNS, LONG, 'meter: 12/8\npickup: 3\n| G7 |\n| Cm | % | Fm G7 | Cm |', '| C |'),
      fc.constantFrom(1 as const, 2 as const),
      fc.boolean(),
      (from, text, columns, large) => {
        const layout = { ...from, columns, large }
        const edge = MARGIN / 2
        for (const { marks, width, height } of composed(newDocument('Long', text), layout).pages)
          expect(
            places(marks).filter(
              ([x, y]) => !(x > edge && x < width - edge && y > edge && y < height - edge),
            ),
          ).toEqual([])
      },
    ),
    {
      numRuns: 25,
      // Four long symbols in one bar of half a page, in large print.
      examples: [[{ ...TEMPLATES['part-bass'].layout }, SIGNS, 2, true]],
    },
  )
})

const barsOn = (pages: readonly Page[]): number[] =>
  pages.flatMap(({ marks }) =>
    groupsIn(marks).flatMap((label) => {
      const [, from, to] = /^Bars? (\d+)(?: to (\d+))?$/.exec(label) ?? []
      return from
        ? Array.from({ length: Number(to ?? from) - Number(from) + 1 }, (_, at) => Number(from) + at)
        : []
    }),
  )

test('a long tune is on several pages, every bar once and in order, and a page turns only at the end of a line', () => {
  const document = newDocument('Long', LONG)
  for (const layout of [
    TEMPLATES.comping.layout,
    { ...TEMPLATES.lead.layout, large: true },
    { ...TEMPLATES.comping.layout, columns: 2 as const },
    { ...TEMPLATES.comping.layout, bars: 3, sections: false },
  ]) {
    const { pages } = composed(document, layout)
    expect(barsOn(pages)).toEqual(Array.from({ length: 64 }, (_, at) => at + 1))
    if (pages.length > 1) expect(lettersIn(itemAt(pages, 1).marks)).toContain(`2 of ${pages.length}`)
  }
  expect(composed(document, { ...TEMPLATES.comping.layout, large: true }).pages.length).toBeGreaterThan(1)
})

test('bars to a line: the number that is asked for; four where nothing else is said, fewer where they do not fit', () => {
  const lines = (text: string, layout: Partial<SheetLayout>) =>
    composed(newDocument('Tried', text), { ...TEMPLATES.comping.layout, ...layout }).pages.flatMap(
      ({ marks }) => groupsIn(marks).filter((label) => label.startsWith('Bar')),
    )
  const eight = '| C | F | G | C | Am | Dm | G | C |'
  expect(lines(eight, {})).toEqual(['Bars 1 to 4', 'Bars 5 to 8'])
  expect(lines(eight, { bars: 3 })).toEqual(['Bars 1 to 3', 'Bars 4 to 6', 'Bars 7 to 8'])
  expect(lines(eight, { bars: 8 })).toEqual(['Bars 1 to 8'])
  const full = `| ${Array(4).fill('Ebmaj7(#11) F#m7(b5)').join(' | ')} |`
  expect(lines(full, {})).toEqual(['Bars 1 to 2', 'Bars 3 to 4'])
  expect(lines('[A] | C | F |\n[B] | G | C |', { sections: false })).toEqual(['Bars 1 to 4'])
  expect(lines('[A] | C | F |\n[B] | G | C |', {})).toEqual(['Bars 1 to 2', 'Bars 3 to 4'])
})

test('a grip stands at each change, once each in the legend, and not in the part of another instrument', () => {
  const document = filled(newDocument('Tried', '| Dm7 | G7 | Dm7 | G7 | Cmaj7 | % |'))
  const grips = (layout: SheetLayout) =>
    composed(document, layout)
      .pages.flatMap(({ marks }) => groupsIn(marks))
      .filter((label) => label.startsWith('Grip')).length
  const { layout } = TEMPLATES.comping
  const legend = grips({ ...layout, grips: 'legend' })
  expect(grips(layout)).toBeGreaterThan(legend)
  expect(legend).toBeGreaterThanOrEqual(3)
  expect(grips({ ...layout, grips: 'none' })).toBe(0)
  expect(grips({ ...layout, part: 'b-flat' })).toBe(0)
})

test('letters that no font has are named, and a title of Latin, Greek or Cyrillic letters is printed whole', () => {
  expect(composed(newDocument('Čeština Ωμέγα Волна', '| C |'), TEMPLATES.lead.layout).missing).toEqual([])
  expect(composed(newDocument('Boat 舟', '| C |'), TEMPLATES.lead.layout).missing).toEqual(['舟'])
})
