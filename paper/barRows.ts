import { itemAt } from '../core/lists'
import { beginsBar, meterName, type Bar } from '../core/chart/chart'
import { engravedWords } from '../core/chord/engraved'
import { keyName } from '../core/pitch/key'
import { hasStaff, type SheetLine, type SheetSetting } from './lineBreaks'
import { box, circlePath, frame, line, moved, said, type Box, type Mark } from './marks'
import type { Row } from './row'

/** Section letters, endings, signs, changes and the number of the line's first bar. */
export function headRow({ bars, edges, first }: SheetLine, setting: SheetSetting): Row {
  const { unit } = setting.sizes
  const endings = underEndings(setting.content.chart.bars)
  const height = bars.some((bar) => hasSigns(bar) || endings.has(bar.number)) ? 15 * unit : 7 * unit
  const base = height - 4 * unit
  const marks: Mark[] = []
  const put = (one: Box, x: number, y = base) => marks.push(...moved(one.marks, x, y))
  const words = (text: string, size = 8.4, face: 'sans' | 'sans-bold' | 'serif-bold' | 'music' = 'sans') =>
    said(text, { size: size * unit, face })
  bars.forEach((bar, index) => {
    const [left, right] = [itemAt(edges, index), itemAt(edges, index + 1)]
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

/**
 * Bars under the bracket of an ending: from where it begins to where it closes, or to what comes
 * after.
 */
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

/** Bar lines of a line that has no staff. */
export function barLinesOf(
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
    const [left, right] = [itemAt(edges, index), itemAt(edges, index + 1)]
    const isEnd = last && index === bars.length - 1
    const closes = bar.played > 0
    return [
      ...(bar.opensRepeat
        ? [
            box(left, top, thick, bottom - top, 'ink'),
            thin(left + thick + 1.4 * unit),
            ...dots(left + thick + 4 * unit),
          ]
        : []),
      ...(index === 0 && !bar.opensRepeat ? [thin(left)] : []),
      ...(closes || isEnd
        ? [thin(right - thick - 1.4 * unit), box(right - thick, top, thick, bottom - top, 'ink')]
        : [thin(right)]),
      ...(closes ? dots(right - thick - 4 * unit) : []),
    ]
  })
}
