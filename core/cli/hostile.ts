import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { exportChart } from '../formats/exportChart'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { hostileText } from './hostileText'

/** Requests that nobody means well: for the fuzz tests here and by hand (`npm run fuzz`). */

const TUNE = `title: A\nkey: Eb\nmeter: 3/4\npickup: 1\n| Bb7 |\n[A] |: "lightly" Ebmaj7 | Cm7 . F7 :|x3\nmeter: 6/8\n| Ab . _Db7 . . . |1. Eb :|2. Gm7 Fine |`
const FILES = (['musicxml', 'abc', 'midi', 'chordpro', 'tab'] as const).flatMap((format) => {
  const melody = [
    { bar: 1, beat: 1, beats: 2, note: { letter: 2, alter: -1, octave: 4 } },
    { bar: 2, beat: 1.5, beats: 1.5, note: { letter: 0, alter: 0, octave: 5 } },
  ]
  const lyrics = [{ bar: 1, beat: 1, text: 'la' }]
  const file = exportChart(
    { chart: parseChart(TUNE), frets: [], melody, lyrics, limits: TUNE_LIMITS },
    format,
  )
  return file.ok
    ? [{ format, bytes: Buffer.from(file.value.content, format === 'midi' ? 'base64' : 'utf8') }]
    : []
})

/** A file of ours with some bytes flipped, cut out, doubled or moved. */
const brokenFile = fc
  .tuple(
    fc.constantFrom(...FILES),
    fc.array(
      fc.tuple(
        fc.constantFrom('flip', 'cut', 'double', 'swap'),
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 0, max: 255 }),
      ),
      { minLength: 1, maxLength: 8 },
    ),
  )
  .map(([{ format, bytes }, changes]) => {
    const broken = changes.reduce((all, [kind, place, length, byte]) => {
      const at = Math.floor(place * all.length)
      const [before, here, behind] = [
        all.subarray(0, at),
        all.subarray(at, at + length),
        all.subarray(at + length),
      ]
      if (kind === 'flip') return Buffer.concat([before, Buffer.from([byte]), all.subarray(at + 1)])
      if (kind === 'cut') return Buffer.concat([before, behind])
      if (kind === 'double') return Buffer.concat([before, here, here, behind])
      return Buffer.concat([here, before, behind])
    }, bytes)
    return format === 'midi'
      ? { do: 'import', format, content: broken.toString('base64') }
      : { do: 'import', format, content: broken.toString('utf8') }
  })

const number = fc.oneof(
  fc.integer({ min: -3, max: 40 }),
  fc.constantFrom(1e9, -1e9, 1e308, 0.001, Number.MAX_SAFE_INTEGER, 128, 0.1 + 0.2),
)
const melody = fc.array(
  fc.record({
    bar: number,
    beat: number,
    beats: number,
    note: fc.constantFrom('C4', 'F#9', 'Cb-1', 'H4', ''),
  }),
  { maxLength: 6 },
)
const frets = fc.array(fc.array(fc.oneof(fc.constant(null), number), { maxLength: 9 }), { maxLength: 4 })

/** A request of the command line, of any kind that reads what a player may send. */
export const hostileRequest: fc.Arbitrary<unknown> = fc.oneof(
  hostileText.map((text) => ({ do: 'parse', symbol: text.slice(0, 200) })),
  hostileText.map((text) => ({ do: 'chart', text })),
  hostileText.map((text) => ({ do: 'analyse', text })),
  fc
    .tuple(hostileText, fc.constantFrom('text', 'chordpro', 'numerals', 'tab', 'abc', 'musicxml', 'midi'))
    .map(([content, format]) => ({ do: 'import', content, format })),
  brokenFile,
  brokenFile,
  fc
    .tuple(hostileText, melody, frets, fc.constantFrom('text', 'chordpro', 'tab', 'abc', 'musicxml', 'midi'))
    .map(([text, notes, grips, format]) => ({ do: 'export', text, melody: notes, frets: grips, format })),
  fc
    .tuple(hostileText, number, number)
    .map(([text, bar, beat]) => ({ do: 'options', text: text.slice(0, 400), bar, beat })),
  fc
    .tuple(frets, hostileText)
    .map(([[one = []], text]) => ({ do: 'name', frets: one, key: text.slice(0, 8) })),
  fc.anything(),
)
