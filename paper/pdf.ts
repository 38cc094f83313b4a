import PDFDocument from 'pdfkit'
import { FEATURES, fontFile } from './fonts'
import type { Mark, Shade } from './marks'
import type { Page } from './pages'

/** Shades in print: those of the Morning theme, or black alone. */
export const SHADES: Readonly<Record<'two tones' | 'black', Readonly<Record<Shade, string>>>> = {
  'two tones': { ink: '#1e2b2e', soft: '#56656a', mist: '#c9d3cf', paper: '#ffffff' },
  black: { ink: '#000000', soft: '#000000', mist: '#000000', paper: '#ffffff' },
}

export interface PdfAsked {
  title: string
  sheets: readonly { pages: readonly Page[]; black: boolean; title?: string }[]
  /** Told after each page, with how many sheets are whole. */
  onPage?: (sheets: number) => void
}

/**
 * Pages as a PDF: paths and embedded fonts, with a bookmark for each sheet where there are several.
 * @returns the bytes
 */
export async function toPdf({ title, sheets, onPage }: PdfAsked): Promise<Buffer> {
  const document = new PDFDocument({
    autoFirstPage: false,
    info: { Title: title, Creator: 'Yellow Heron', Producer: 'Yellow Heron' },
    lang: 'en',
  })
  const parts: Buffer[] = []
  document.on('data', (part: Buffer) => parts.push(part))
  const ended = new Promise<void>((resolve, reject) => {
    document.on('end', resolve)
    document.on('error', reject)
  })
  for (const [done, { pages, black, title: name }] of sheets.entries()) {
    const shades = SHADES[black ? 'black' : 'two tones']
    for (const [index, page] of pages.entries()) {
      document.addPage({ size: [page.width, page.height], margin: 0 })
      if (index === 0 && name !== undefined) document.outline.addItem(name)
      for (const mark of page.marks) print(document, mark, shades)
      onPage?.(index + 1 < pages.length ? done : done + 1)
    }
  }
  document.end()
  await ended
  return Buffer.concat(parts)
}

function print(document: PDFKit.PDFDocument, mark: Mark, shades: Readonly<Record<Shade, string>>): void {
  switch (mark.kind) {
    case 'group':
      for (const one of mark.marks) print(document, one, shades)
      return
    case 'text': {
      // A font is embedded once, under the name of its file.
      const first = !isKnown(document, mark.file)
      if (first) document.registerFont(mark.file, fontFile(mark.file).bytes)
      document.font(mark.file)
      if (first) remembersLayout(document)
      document.fontSize(mark.size).fillColor(shades[mark.shade])
      document.text(mark.text, mark.x, mark.y, {
        lineBreak: false,
        baseline: 'alphabetic',
        features: FEATURES,
      })
      return
    }
    case 'path':
      document.path(mark.d)
      if (mark.fill) document.fill(shades[mark.fill])
      else document.lineWidth(mark.width ?? 0.6).stroke(shades[mark.stroke ?? 'ink'])
  }
}

const known = new WeakMap<PDFKit.PDFDocument, Set<string>>()
function isKnown(document: PDFKit.PDFDocument, file: string): boolean {
  const files = known.get(document) ?? new Set()
  known.set(document, files)
  if (files.has(file)) return true
  files.add(file)
  return false
}

/**
 * pdfkit (0.20) lays a text out anew, and more than once, whenever features are asked for: two
 * thirds of the time of a long sheet. The font that is set now does it once for each text. Where a
 * later pdfkit is made otherwise, nothing changes.
 */
function remembersLayout(document: PDFKit.PDFDocument): void {
  const { _font: font } = document as unknown as {
    _font?: { layoutRun?: (text: string, features?: unknown) => unknown }
  }
  const layoutRun = font?.layoutRun?.bind(font)
  if (!font || !layoutRun) return
  const runs = new Map<string, unknown>()
  font.layoutRun = (text, features) => {
    // All texts of a sheet ask for the same features.
    if (features !== FEATURES) return layoutRun(text, features)
    const run = runs.get(text) ?? layoutRun(text, features)
    runs.set(text, run)
    return run
  }
}
