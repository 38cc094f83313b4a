import { lastOf } from '../lists'
import { beginsBar, meterName, slotKey, type Bar, type Chart } from '../chart/chart'
import { homeKey } from '../analysis/analyse'
import { beatWords } from '../chart/print'
import type { ChordSymbol } from '../chord/symbol'
import { lyricInWords, type Lyric } from '../melody/lyrics'
import { keyName } from '../pitch/key'
import { textLinesOf } from './textLines'
import type { Voicing } from '../voicing/voicing'
import { MARK, PART_IN_WORDS } from './chordProWords'

const BARS_A_LINE = 4

/** A bar that says something between the lines begins or ends its own. */
const begins = (bar: Bar): boolean =>
  bar.remarks.length > 0 ||
  bar.opensSection ||
  bar.newKey !== null ||
  bar.newMeter ||
  bar.marks.some(beginsBar)
const ends = (bar: Bar): boolean => bar.played > 2 || bar.marks.some((mark) => !beginsBar(mark))

function gridLines({ bars }: Chart): Bar[][] {
  const lines: Bar[][] = []
  for (const bar of bars) {
    const last = lines.at(-1)
    if (!last || begins(bar) || last.length === BARS_A_LINE || ends(lastOf(last))) lines.push([bar])
    else last.push(bar)
  }
  return lines
}

/** One cell a beat; the parts of a beat side by side, `.` for what is held. */
const cells = (bar: Bar): string =>
  bar.repeats
    ? '%'
    : beatWords(bar)
        .map((word) =>
          word.includes('_')
            ? word
                .split('_')
                .map((part) => part || '.')
                .join('~')
            : word,
        )
        .join(' ')

/** A remark; in quotes where a reader would take it for a sign or the name of a part. */
const asComment = (remark: string): string =>
  MARK.test(remark) || PART_IN_WORDS.test(remark) ? `"${remark}"` : remark

/** A line of a grid: `|1` begins an ending, `x3` behind it says how often its repeat is played. */
function gridLine(bars: readonly Bar[]): string {
  const written = bars.map((bar, at) => {
    const before = bars[at - 1]
    const opens = `${before && before.played > 0 ? ':' : ''}|${bar.opensRepeat ? ':' : ''}`
    return `${opens}${bar.ending.length > 0 ? bar.ending.join(',') : ''} ${cells(bar)} `
  })
  const last = lastOf(bars)
  const close = last.played > 0 ? `:|${last.played > 2 ? ` x${last.played}` : ''}` : '|'
  return written.join('') + close
}

/** The first grip of each chord, as other programs draw it (ChordPro, directive `define`). */
function defined(chords: Iterable<{ chord: ChordSymbol; voicing: Voicing | null }>, capo: number): string[] {
  const grips = new Map<string, string>()
  for (const { chord, voicing } of chords) {
    if (!voicing || grips.has(chord.canonical)) continue
    const frets = voicing.frets.map((fret) => (fret === null || fret === 0 ? fret : fret - capo))
    const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
    const base = Math.max(...held, 0) <= HIGHEST_AT_NUT ? 1 : Math.min(...held)
    const from = frets.map((fret) => {
      if (fret === null) return 'x'
      return String(fret === 0 ? 0 : fret - base + 1)
    })
    grips.set(chord.canonical, `{define: ${chord.canonical} base-fret ${base} frets ${from.join(' ')}}`)
  }
  return [...grips.values()]
}
/** Grips up to this fret are drawn from the nut. */
const HIGHEST_AT_NUT = 4

/**
 * Words with the chords over them, as other programs show them, in a verse behind the grids. Each
 * place is said before it by a directive of our own, `x_lyric`, and the verse is marked by
 * `x_words`: who reads the places passes it over.
 */
function sung(chart: Chart, lyrics: readonly Lyric[]): string[] {
  if (lyrics.length === 0) return []
  const plain = (text: string) => text.replace(/[{[]/g, '(').replace(/[}\]]/g, ')')
  const lines = textLinesOf(chart).flatMap((bars) => {
    const line = bars.map((bar) => {
      const chords = bar.slots
        .filter(({ held }) => !held)
        .map(({ beat, text }) => ({ beat, shown: `[${text}]` }))
      const words = lyrics
        .filter((one) => one.bar === bar.number)
        .map(({ beat, text, joins }) => ({ beat, shown: `${plain(text)}${joins ? '' : ' '}` }))
      return [...chords, ...words]
        .sort((a, b) => a.beat - b.beat)
        .map(({ shown }) => shown)
        .join('')
    })
    return bars.some(({ number }) => lyrics.some(({ bar }) => bar === number))
      ? [line.join('').trimEnd()]
      : []
  })
  return [
    ...lyrics.map((one) => `{x_lyric: ${slotKey(one)} ${plain(lyricInWords(one))}}`),
    '{x_words}',
    '{start_of_verse: Words}',
    ...lines,
    '{end_of_verse}',
  ]
}

/**
 * A chart in ChordPro (the open format of chordpro.org, version 6): settings as directives, bars as
 * grids, form signs as comments between them.
 */
export function toChordPro(
  chart: Chart,
  chords: Iterable<{ chord: ChordSymbol; voicing: Voicing | null }> = [],
  lyrics: readonly Lyric[] = [],
): string {
  const lines = [
    `{title: ${chart.title ?? 'Untitled'}}`,
    `{key: ${keyName(chart.key ?? homeKey(chart))}}`,
    `{time: ${meterName(chart.meter)}}`,
    ...(chart.tempo ? [`{tempo: ${chart.tempo}}`] : []),
    ...(chart.capo > 0 ? [`{capo: ${chart.capo}}`] : []),
    ...(chart.pickup > 0 ? [`{x_pickup: ${chart.pickup}}`] : []),
    ...defined(chords, chart.capo),
    '',
  ]
  let open = false
  const close = () => {
    if (open) lines.push('{end_of_grid}')
    open = false
  }
  for (const bars of gridLines(chart)) {
    const [first] = bars
    if (first!.newKey) {
      close()
      lines.push(`{key: ${keyName(first!.newKey)}}`)
    }
    if (first!.newMeter && first !== chart.bars[0]) {
      close()
      lines.push(`{time: ${meterName(first!.meter)}}`)
    }
    for (const comment of [...first!.remarks.map(asComment), ...first!.marks.filter(beginsBar)]) {
      close()
      lines.push(`{comment: ${comment}}`)
    }
    if (!open || first!.opensSection) {
      close()
      lines.push(
        first!.opensSection && first!.section
          ? `{start_of_grid label="${first!.section.replaceAll('"', "'")}"}`
          : '{start_of_grid}',
      )
      open = true
    }
    lines.push(gridLine(bars))
    for (const mark of lastOf(bars).marks.filter((one) => !beginsBar(one))) {
      close()
      lines.push(`{comment: ${mark}}`)
    }
  }
  close()
  lines.push(...sung(chart, lyrics))
  return `${lines.join('\n')}\n`
}
