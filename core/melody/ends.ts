import { itemAt } from '../lists'
import type { Chart } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { spellDegree, type Degree } from '../pitch/degree'
import type { Key, Mode } from '../pitch/key'
import { noteName } from '../pitch/note'

/** Bars before a tune or after it. */
export interface End {
  name: string
  where: 'before' | 'after'
  why: string
  /** Chord symbols bar by bar, as chart text. */
  bars: string[]
}

/** A chord as the degree of its root, its suffix, and the degree of another bass. */
type EndingRow = readonly [name: string, where: End['where'], mode: Mode, bars: string, why: string]

/**
 * Introductions and endings from a key: `1maj7` is the tonic as a major seventh, `b2` a half step
 * above, `5` behind a stroke the bass. Turnarounds, the pedal and the falling line as players use
 * them; common practice, no source.
 */
// prettier-ignore
const ENDS: readonly EndingRow[] = [
  ['turnaround', 'before', 'major', '1maj7 67 | 2m7 57', 'Once round I VI ii V, so that the tune begins on a chord that is waited for.'],
  ['turnaround', 'before', 'minor', '1m6 6m7b5 | 2m7b5 57b9', 'Once round i vi ii V in minor, so that the tune begins on a chord that is waited for.'],
  ['long turnaround', 'before', 'major', '3m7 67b9 | 2m7 57 | 3m7 67b9 | 2m7 57', 'iii in the place of I: it does not rest before the tune does.'],
  ['turnaround by half steps', 'before', 'major', '3m7 b37 | 2m7 b27', 'iii bIII ii bII: the bass falls by half steps, each dominant a tritone substitute.'],
  ['far turnaround', 'before', 'major', '1maj7 b3maj7 | b6maj7 b2maj7', 'I bIII bVI bII, all major sevenths: from bIII on the roots fall by fifths, and home lies a half step below the last.'],
  ['dominant pedal', 'before', 'major', '2m7/5 | 57 | 2m7/5 | 57', 'One bass note, the fifth, under ii and V: everything waits.'],
  ['dominant pedal', 'before', 'minor', '2m7b5/5 | 57b9 | 2m7b5/5 | 57b9', 'One bass note, the fifth, under ii and V: everything waits.'],
  ['tonic pedal', 'before', 'major', '1 | b7/1 | 4/1 | 1', 'Chords move over the tonic, which stays.'],
  ['tonic pedal', 'before', 'minor', '1m | b7/1 | 4m/1 | 1m', 'Chords move over the tonic, which stays.'],
  ['line', 'before', 'minor', '1m 1m(maj7) | 1m7 1m6', 'One voice falls 8 7 b7 6 while the chord stands.'],
  ['tag', 'after', 'major', '3m7 67b9 | 2m7 57 | 3m7 67b9 | 2m7 57 | 16/9', 'The last turn twice more, through iii instead of I, before it comes to rest.'],
  ['tag', 'after', 'minor', '1m6 6m7b5 | 2m7b5 57b9 | 1m6 6m7b5 | 2m7b5 57b9 | 1m6/9', 'The last turn twice more before it comes to rest.'],
  ['from a half step above', 'after', 'major', 'b2maj7 | 1maj7', 'The last chord is reached from a half step above, with one bright chord in its way.'],
  ['from a half step above', 'after', 'minor', 'b2maj7 | 1m6', 'The last chord is reached from a half step above, with one bright chord in its way.'],
  ['backdoor', 'after', 'major', '4m7 b77 | 1maj9', 'iv and bVII lead home from behind.'],
  ['plagal, minor on the way', 'after', 'major', '4 4m6 | 16', 'IV turns to minor and falls home: an amen with an ache.'],
  ['tonic pedal', 'after', 'major', '1 | b7/1 | 4/1 | 1', 'Chords move over the tonic, which stays to the end.'],
  ['tonic pedal', 'after', 'minor', '1m | b7/1 | 4m/1 | 1m', 'Chords move over the tonic, which stays to the end.'],
  ['diminished delay', 'after', 'major', '1dim7 | 1maj9', 'The diminished chord on the tonic holds the last chord up.'],
  ['picardy', 'after', 'minor', '57b9 | 1', 'Major at the very end.'],
  ['line', 'after', 'minor', '1m 1m(maj7) | 1m7 1m6 | 1m6/9', 'One voice falls 8 7 b7 6 while the chord stands.'],
]

/** The introductions and endings a tune's key gives. */
export const endsOf = (key: Key): End[] =>
  ENDS.filter(([, , mode]) => mode === key.mode).map(([name, where, , bars, why]): End => ({
    name,
    where,
    why,
    bars: bars.split(' | ').map((bar) =>
      bar
        .split(' ')
        .map((chord) => symbolIn(chord, key))
        .join(' '),
    ),
  }))

function symbolIn(chord: string, key: Key): string {
  const [, degree, suffix = '', bass] =
    /^(b?\d)((?:m7b5|m\(maj7\)|m6\/9|6\/9|maj7|maj9|m7|m6|m|dim7|7b9|7|6)?)(?:\/(b?\d))?$/.exec(chord)!
  const root = (name: string) => noteName(spellDegree(key.tonic, DEGREES[name]!))
  return `${root(degree!)}${suffix}${bass ? `/${root(bass)}` : ''}`
}
const DEGREES: Readonly<Record<string, Degree>> = {
  '1': '1',
  b2: 'b9',
  '2': '9',
  b3: 'b3',
  '3': '3',
  '4': '4',
  '5': '5',
  b6: 'b13',
  '6': '6',
  b7: 'b7',
}

/**
 * A chart text with an introduction or an ending. An introduction stands before everything, an
 * upbeat too, so that null comes back where the tune begins with one.
 */
export function withEnd(text: string, { where, bars }: Pick<End, 'where' | 'bars'>): string | null {
  const chart: Chart = parseChart(text)
  const signs = `| ${bars.join(' | ')} |`
  if (where === 'after') return `${text.trimEnd()}\n[Ending] ${signs}`
  const first = chart.bars[0]
  if (!first) return `${text.trimEnd()}\n${signs}`
  if (chart.pickup > 0) return null
  const lines = text.split('\n')
  // Without a section of its own the tune would belong to the introduction.
  const line = itemAt(lines, first.source.line - 1)
  return [
    ...lines.slice(0, first.source.line - 1),
    `[Intro] ${signs}`,
    first.opensSection ? line : `[A] ${line.trimStart()}`,
    ...lines.slice(first.source.line),
  ].join('\n')
}
