import { fontRunsOf, runWidth, type Face } from './fonts'

/** How dark something is printed. */
export type Shade = 'ink' | 'soft' | 'mist' | 'paper'

/**
 * Letters of one font at their place: x is the left edge, y the baseline, both in points from the
 * top left corner.
 */
export interface TextMark {
  kind: 'text'
  x: number
  y: number
  text: string
  face: Face
  file: string
  size: number
  shade: Shade
}
/** A line or a filled shape, as SVG path data in points from its place. */
export interface PathMark {
  kind: 'path'
  d: string
  /** How far it was moved since it was drawn; nothing on a page that is finished. */
  shifted?: readonly [dx: number, dy: number]
  fill?: Shade
  stroke?: Shade
  width?: number
  round?: boolean
}
/** Marks that are one thing for those who listen to the page. */
export interface GroupMark {
  kind: 'group'
  label: string
  role: 'img' | 'group'
  marks: Mark[]
}
export type Mark = TextMark | PathMark | GroupMark

/**
 * Marks around an origin of their own, and the room they take: right of it, above it and below it.
 */
export interface Box {
  marks: Mark[]
  width: number
  above: number
  below: number
}
export const EMPTY: Box = { marks: [], width: 0, above: 0, below: 0 }

/** Numbers as they stand in path data: hundredths of a point. */
const hundredths = (value: number): number => Math.round(value * 100) / 100
const short = (value: number): string => String(hundredths(value))
export const at = (x: number, y: number): string => `${short(x)} ${short(y)}`

export const line = (
  x1: number,
  y1: number,
  x2: number,
  y2: number,
  width = 0.6,
  shade: Shade = 'ink',
): PathMark => ({
  kind: 'path',
  d: `M${at(x1, y1)}L${at(x2, y2)}`,
  stroke: shade,
  width,
})
export const box = (x: number, y: number, width: number, height: number, fill: Shade): PathMark => ({
  kind: 'path',
  d: `M${at(x, y)}h${short(width)}v${short(height)}h${short(-width)}Z`,
  fill,
})
export const frame = (x: number, y: number, width: number, height: number, thick = 0.6): PathMark => ({
  kind: 'path',
  d: `M${at(x, y)}h${short(width)}v${short(height)}h${short(-width)}Z`,
  stroke: 'ink',
  width: thick,
})
export const circlePath = (x: number, y: number, radius: number): string =>
  `M${at(x - radius, y)}a${short(radius)} ${short(radius)} 0 1 0 ${short(2 * radius)} 0a${short(radius)} ${short(radius)} 0 1 0 ${short(-2 * radius)} 0Z`

/**
 * Accidentals and signs of the form are set in the font of music, at a size and height that match
 * letters.
 */
const SIGNS: Readonly<Record<string, { size: number; lift: number; gap: number }>> = {
  '♭': { size: 1.16, lift: 0, gap: 0.03 },
  '♯': { size: 0.84, lift: 0.1, gap: 0.04 },
  '♮': { size: 0.84, lift: 0.1, gap: 0.04 },
  '𝄫': { size: 0.9, lift: 0, gap: 0.02 },
  '𝄪': { size: 0.9, lift: 0, gap: 0.02 },
  '𝄋': { size: 1, lift: 0, gap: 0 },
  '𝄌': { size: 1, lift: 0, gap: 0 },
}

interface TextSaid {
  size: number
  face: Face
  shade?: Shade
}

/** A word from its left edge on the baseline. */
export function said(text: string, { size, face, shade = 'ink' }: TextSaid): Box {
  const marks: TextMark[] = []
  let x = 0
  let above = 0
  for (const part of text.split(/([♭♯♮𝄫𝄪𝄋𝄌])/u)) {
    const sign = SIGNS[part]
    const [setIn, setAt] = sign ? (['music', size * sign.size] as const) : ([face, size] as const)
    if (sign) x += sign.gap * size
    for (const run of fontRunsOf(part, setIn)) {
      marks.push({
        kind: 'text',
        x,
        y: sign ? -sign.lift * size : 0,
        text: run.text,
        face: setIn,
        file: run.file,
        size: setAt,
        shade,
      })
      x += runWidth(run) * setAt
    }
    above = Math.max(above, size * CAPITALS)
  }
  return { marks, width: x, above, below: size * DESCENT }
}
/** Height of capitals and depth of tails, in sizes of the type. */
const CAPITALS = 0.72
const DESCENT = 0.22

/** Boxes one after another on one baseline. */
export function inARow(boxes: readonly Box[], gap = 0): Box {
  let x = 0
  const marks = boxes.flatMap((one, index) => {
    const placed = moved(one.marks, x, 0)
    x += one.width + (index < boxes.length - 1 ? gap : 0)
    return placed
  })
  return {
    marks,
    width: x,
    above: Math.max(0, ...boxes.map(({ above }) => above)),
    below: Math.max(0, ...boxes.map(({ below }) => below)),
  }
}

/** Marks at another place. */
export const moved = (marks: readonly Mark[], dx: number, dy: number): Mark[] =>
  marks.map((mark): Mark => {
    switch (mark.kind) {
      case 'text':
        return { ...mark, x: mark.x + dx, y: mark.y + dy }
      case 'path':
        return { ...mark, shifted: [(mark.shifted?.[0] ?? 0) + dx, (mark.shifted?.[1] ?? 0) + dy] }
      case 'group':
        return { ...mark, marks: moved(mark.marks, dx, dy) }
    }
  })

/** Marks where they stand, as they are printed. */
export const settled = (marks: readonly Mark[]): Mark[] =>
  marks.map((mark): Mark => {
    if (mark.kind === 'group') return { ...mark, marks: settled(mark.marks) }
    if (mark.kind === 'text') return { ...mark, x: hundredths(mark.x), y: hundredths(mark.y) }
    const { shifted: by, ...rest } = mark
    return by ? { ...rest, d: movedPath(mark.d, ...by) } : mark
  })

/** Only capital commands carry places; small ones carry ways from there. */
const movedPath = (d: string, dx: number, dy: number): string =>
  d.replace(/([MLCQ])([^A-Za-z]*)/g, (_, command: string, numbers: string) => {
    const values = numbers
      .trim()
      .split(/[\s,]+/)
      .map(Number)
    return command + values.map((value, index) => short(value + (index % 2 === 0 ? dx : dy))).join(' ')
  })

/** A box made smaller, from its origin. */
export function shrunk(one: Box, share: number): Box {
  if (share >= 1) return one
  return {
    marks: shrunkMarks(one.marks, share),
    width: one.width * share,
    above: one.above * share,
    below: one.below * share,
  }
}
const shrunkMarks = (marks: readonly Mark[], share: number): Mark[] =>
  settled(marks).map((mark): Mark => {
    switch (mark.kind) {
      case 'text':
        return { ...mark, x: mark.x * share, y: mark.y * share, size: mark.size * share }
      case 'path':
        return {
          ...mark,
          // The flags of arcs (0 and 1) stay: they follow the radii and the turn of `a`.
          d: mark.d.replace(
            /a(-?[\d.]+) (-?[\d.]+) 0 1 0 (-?[\d.]+) 0|-?\d+(?:\.\d+)?/g,
            (all: string, rx?: string, ry?: string, dx?: string) =>
              rx === undefined
                ? short(Number(all) * share)
                : `a${short(Number(rx) * share)} ${short(Number(ry) * share)} 0 1 0 ${short(Number(dx) * share)} 0`,
          ),
          ...(mark.width === undefined ? {} : { width: mark.width * share }),
        }
      case 'group':
        return { ...mark, marks: shrunkMarks(mark.marks, share) }
    }
  })

export const labelled = (label: string, marks: Mark[], role: GroupMark['role'] = 'img'): GroupMark => ({
  kind: 'group',
  label,
  role,
  marks,
})

/** Words broken into lines of a width. */
export function inLines(text: string, width: number, how: TextSaid): Box[] {
  const lines: string[] = []
  for (const word of text.split(/\s+/)) {
    const last = lines.at(-1)
    if (last !== undefined && said(`${last} ${word}`, how).width <= width)
      lines[lines.length - 1] = `${last} ${word}`
    else lines.push(word)
  }
  return lines.map((one) => said(one, how))
}
