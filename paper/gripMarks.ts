import { firstOf, lastOf } from '../core/lists'
import { engraved } from '../core/chord/engraved'
import { gripInWords } from '../core/voicing/inWords'
import type { Voicing } from '../core/voicing/voicing'
import { at, circlePath, labelled, line, moved, said, type Box, type Mark } from './marks'

/** At least this many frets are drawn. */
const FEWEST_FRETS = 4
/**
 * Distances in points at the usual size: between strings, between frets, above the nut, and left
 * for the number of the first fret.
 */
const STRING_GAP = 6.4
const FRET_GAP = 8
const HEAD = 8
const LEFT = 11

export interface GripStyle {
  scale: number
  capo: number
  leftHanded: boolean
}

/**
 * A grip drawn upright from its top left corner: nut or number of the first fret, fingers on the
 * strings, degrees below.
 */
export function gripBox(voicing: Voicing, { scale, capo, leftHanded }: GripStyle): Box {
  const { fingering } = voicing
  const frets = voicing.frets.map((fret) => (fret === null || fret === 0 ? fret : fret - capo))
  const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
  const highest = Math.max(FEWEST_FRETS, ...held)
  const first = highest <= FEWEST_FRETS ? 1 : Math.min(...held)
  const rows = Math.max(FEWEST_FRETS, highest - first + 1)
  const strings = frets.length
  const [gap, tall, left, top] = [STRING_GAP, FRET_GAP, LEFT, HEAD].map((one) => one * scale) as [
    number,
    number,
    number,
    number,
  ]
  const x = (string: number) => left + (leftHanded ? strings - 1 - string : string) * gap
  const y = (fret: number) => top + (fret - first + 0.5) * tall
  const bottom = top + rows * tall
  const [begin, end] = [left, left + (strings - 1) * gap]
  const words = (
    text: string,
    size: number,
    centre: number,
    baseline: number,
    shade: 'ink' | 'soft' | 'paper' = 'ink',
  ) => {
    const word = said(text, { size: size * scale, face: 'sans', shade })
    return moved(word.marks, centre - word.width / 2, baseline)
  }
  /** Left of the strings, clear of a finger on the lowest. */
  const beside = (text: string, baseline: number) => {
    const word = said(text, { size: 6.4 * scale, face: 'sans' })
    return moved(word.marks, left - 4 * scale - word.width, baseline)
  }
  const marks: Mark[] = [
    ...Array.from({ length: rows + 1 }, (_, row) =>
      line(
        begin,
        top + row * tall,
        end,
        top + row * tall,
        row === 0 && first === 1 ? 1.6 * scale : 0.45 * scale,
      ),
    ),
    ...frets.map((_, string) => line(x(string), top, x(string), bottom, 0.45 * scale)),
    ...(first > 1 ? beside(String(first), y(first) + 2.2 * scale) : []),
    ...(capo > 0 && first === 1 ? beside(`c${capo}`, top + 2 * scale) : []),
    ...fingering.presses
      .filter(({ strings: over }) => over.length > 1)
      .map((press) =>
        line(
          x(firstOf(press.strings)),
          y(press.fret - capo),
          x(lastOf(press.strings)),
          y(press.fret - capo),
          4.4 * scale,
        ),
      ),
    ...frets.flatMap((fret, string): Mark[] => {
      const radius = 2.9 * scale
      if (fret === null) {
        const r = 1.7 * scale
        const middle = top - 4 * scale
        return [
          {
            kind: 'path',
            d: `M${at(x(string) - r, middle - r)}L${at(x(string) + r, middle + r)}M${at(x(string) + r, middle - r)}L${at(x(string) - r, middle + r)}`,
            stroke: 'ink',
            width: 0.6 * scale,
          },
        ]
      }
      if (fret === 0)
        return [
          {
            kind: 'path',
            d: circlePath(x(string), top - 4 * scale, 1.8 * scale),
            stroke: 'ink',
            width: 0.6 * scale,
          },
        ]
      const finger = fingering.fingers[string]
      return [
        { kind: 'path', d: circlePath(x(string), y(fret), radius), fill: 'ink' },
        ...(finger ? words(String(finger), 4.8, x(string), y(fret) + 1.65 * scale, 'paper') : []),
      ]
    }),
    ...voicing.strings.flatMap(({ string, degree }) =>
      words(engraved(degree), 4.9, x(string), bottom + 6 * scale, 'soft'),
    ),
  ]
  return {
    marks: [labelled(gripInWords(voicing, capo), marks)],
    width: end + 4 * scale,
    above: 0,
    below: bottom + 8 * scale,
  }
}
