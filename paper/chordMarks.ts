import { engraved, engravedChord } from '../core/chord/engraved'
import type { ChordSymbol } from '../core/chord/symbol'
import { EMPTY, inARow, labelled, moved, said, type Box, type Shade } from './marks'

/** Sizes of the parts of a symbol, as shares of the size of its root. */
const QUALITY = 0.74
const RAISED = 0.6
const LIFT = 0.36
const BASS = 0.78

/**
 * A chord symbol from the left edge of its root on the baseline: root large, quality smaller,
 * tensions raised.
 */
export function chordBox(chord: ChordSymbol, size: number, shade: Shade = 'ink'): Box {
  const { root, quality, raised, bass } = engravedChord(chord)
  const part = (text: string, share: number, face: 'serif' | 'serif-bold' = 'serif') =>
    text === '' ? EMPTY : said(text, { size: size * share, face, shade })
  const high = part(raised, RAISED)
  const row = inARow(
    [
      part(root, 1, 'serif-bold'),
      part(quality, QUALITY),
      { ...high, marks: moved(high.marks, 0, -size * LIFT), above: high.above + size * LIFT },
      part(bass, BASS),
    ],
    size * 0.03,
  )
  return { ...row, marks: [labelled(chord.canonical, row.marks)] }
}

export const numeralBox = (numeral: string, size: number, shade: Shade = 'soft'): Box =>
  said(engraved(numeral), { size, face: 'serif', shade })
