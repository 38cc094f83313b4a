// Cuts the flats and sharps of the words out of a font of symbols (node scripts/accidentals.mjs,
// after a new version of it): three glyphs in four weights, each as tall as a capital and on the
// line of the letters. The font has them smaller and below it, as they stand on a staff. Source:
// Noto Sans Symbols, SIL Open Font License 1.1, whose text goes with the files.
import { createFont } from 'fonteditor-core'
import fontverter from 'fontverter'
import { copyFileSync, mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import subsetFont from 'subset-font'

const SOURCE = 'node_modules/@fontsource-variable/noto-sans-symbols'
const INTO = 'app/theme/fonts'
const WEIGHTS = [400, 500, 600, 700]
/**
 * Feet and heads of the signs, as shares of the em: capitals of the words are 0.66 (sans) and 0.7
 * (serif) tall. A flat's stem is taller than a capital, as engravers draw it.
 */
const SIGNS = { '♭': [-0.01, 0.76], '♮': [-0.05, 0.74], '♯': [-0.04, 0.72] }

const source = readFileSync(`${SOURCE}/files/noto-sans-symbols-symbols-wght-normal.woff2`)
mkdirSync(INTO, { recursive: true })
copyFileSync(`${SOURCE}/LICENSE`, `${INTO}/LICENSE`)
for (const weight of WEIGHTS) {
  const cut = await subsetFont(source, Object.keys(SIGNS).join(''), {
    targetFormat: 'truetype',
    variationAxes: { wght: weight },
  })
  const font = createFont(cut, { type: 'ttf' })
  const { glyf, head } = font.get()
  for (const [sign, [foot, top]] of Object.entries(SIGNS)) {
    const glyph = glyf.find(({ unicode }) => unicode?.includes(sign.codePointAt(0)))
    const points = glyph.contours.flat()
    const [low, high] = [Math.min(...points.map(({ y }) => y)), Math.max(...points.map(({ y }) => y))]
    const scale = ((top - foot) * head.unitsPerEm) / (high - low)
    for (const point of points) {
      point.x = Math.round(point.x * scale)
      point.y = Math.round(foot * head.unitsPerEm + (point.y - low) * scale)
    }
    glyph.advanceWidth = Math.round(glyph.advanceWidth * scale)
    glyph.leftSideBearing = Math.min(...points.map(({ x }) => x))
  }
  const ttf = Buffer.from(font.write({ type: 'ttf' }))
  writeFileSync(`${INTO}/accidentals-${weight}.woff2`, await fontverter.convert(ttf, 'woff2', 'truetype'))
}
