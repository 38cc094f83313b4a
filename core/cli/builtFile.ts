import fc from 'fast-check'
import { strToU8, zipSync } from 'fflate'

/**
 * Files of every format, put together on purpose and not broken from good ones: each is as its
 * format has it, and asks for more than there is.
 */
export interface BuiltFile {
  name: string
  bytes: Uint8Array
}

const huge = fc.constantFrom(0, 1, 2, 7, 16, 33, 999, 65_535, 999_999, 999_999_999, 1e15, -1)

const note = fc
  .tuple(fc.constantFrom('C', 'F', 'z', 'Z', 'x', '[CEG]', '^g', '(3CDE', '{c}d', 'D-'), huge, fc.constantFrom('', '/', '/2', '//', '<', '>>>'))
  .map(([what, length, part]) => `${what}${length > 1 ? length : ''}${part}`) // prettier-ignore
const abc = fc
  .tuple(
    fc.constantFrom('4/4', '3/4', 'C|', '999/1', '0/0', 'none'),
    fc.constantFrom('1/8', '1/1', '1/999999', '99/1'),
    fc.constantFrom('C', 'Ebdor', 'F#', 'none', 'HP'),
    fc.array(fc.tuple(fc.constantFrom('"Am7"', '"x99"', '', '"^soft"'), note, fc.constantFrom('|', ' ', ':|', '|:', '|1,3 ', '|2-99 ', '::', '[M:9/16]', '[K:G]', '\n')), { maxLength: 30 }),
  )
  .map(([meter, unit, key, all]): BuiltFile => ({ name: 'a.abc', bytes: strToU8(`X:1\nM:${meter}\nL:${unit}\nK:${key}\n${all.flat().join('')}|\n`) })) // prettier-ignore

/** A number in seven bits a byte, as MIDI has its times. */
function seven(value: number): number[] {
  const bytes = [value & 0x7f]
  for (let left = value >>> 7; left > 0 && bytes.length < 4; left >>>= 7) bytes.unshift((left & 0x7f) | 0x80)
  return bytes
}
const midiEvent = fc.tuple(
  fc.constantFrom(0, 0, 1, 120, 480, 65_535, 0x0fffffff),
  fc.oneof(
    fc.tuple(fc.constantFrom(0x90, 0x80, 0x99, 0x9f), fc.integer({ min: 0, max: 127 }), fc.constantFrom(0, 1, 100)).map(([status, pitch, force]) => [status, pitch, force]),
    fc.constantFrom([0xff, 0x58, 4, 7, 2, 24, 8], [0xff, 0x58, 4, 0, 9, 0, 0], [0xff, 0x51, 3, 0, 0, 0], [0xff, 0x51, 3, 255, 255, 255], [0xff, 0x05, 2, 108, 97], [0xff, 0x59, 2, 99, 1], [0xc0, 5], [0xe0, 0, 64]),
  ),
) // prettier-ignore
const midi = fc
  .tuple(
    fc.constantFrom(0, 1, 2),
    fc.constantFrom(1, 96, 480, 32_767),
    fc.array(fc.tuple(fc.array(midiEvent, { maxLength: 60 }), fc.constantFrom(1, 1, 1, 50)), {
      minLength: 1,
      maxLength: 4,
    }),
  ) // prettier-ignore
  .map(([type, division, tracks]): BuiltFile => {
    const four = (value: number) => [value >>> 24, (value >>> 16) & 255, (value >>> 8) & 255, value & 255]
    const chunks = tracks.flatMap(([events, times]) => {
      const once = events.flatMap(([wait, event]) => [...seven(wait), ...event])
      const body = [...Array.from({ length: times }, () => once).flat(), 0, 0xff, 0x2f, 0]
      return [0x4d, 0x54, 0x72, 0x6b, ...four(body.length), ...body]
    })
    const head = [
      0x4d,
      0x54,
      0x68,
      0x64,
      ...four(6),
      0,
      type,
      0,
      tracks.length,
      division >> 8,
      division & 255,
    ]
    return { name: 'a.mid', bytes: Uint8Array.from([...head, ...chunks]) }
  })

const scoreNote = fc
  .tuple(fc.constantFrom('<rest/>', '<pitch><step>F</step><octave>4</octave></pitch>', '<pitch><step>H</step><octave>99</octave></pitch>', '<chord/><pitch><step>A</step><octave>4</octave></pitch>'), huge)
  .map(([what, length]) => `<note>${what}<duration>${length}</duration></note>`) // prettier-ignore
const scorePiece = fc.oneof(
  scoreNote,
  huge.map((length) => `<backup><duration>${length}</duration></backup>`),
  huge.map((length) => `<forward><duration>${length}</duration></forward>`),
  huge.map((divisions) => `<attributes><divisions>${divisions}</divisions></attributes>`),
  huge.map(
    (beats) => `<attributes><time><beats>${beats}</beats><beat-type>4</beat-type></time></attributes>`,
  ),
  huge.map((times) => `<barline><repeat direction="backward" times="${times}"/></barline>`),
  fc.constantFrom('<barline><ending number="1,2-9" type="start"/></barline>', '<harmony><root><root-step>C</root-step></root><kind>dominant</kind></harmony>', '<sound dacapo="yes"/>'), // prettier-ignore
)
const score = fc
  .array(fc.array(scorePiece, { maxLength: 10 }), { minLength: 1, maxLength: 8 })
  .map(
    (bars) =>
      `<score-partwise><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1">${bars.map((bar, at) => `<measure number="${at + 1}">${bar.join('')}</measure>`).join('')}</part></score-partwise>`,
  )
const musicxml = score.map((text): BuiltFile => ({ name: 'a.musicxml', bytes: strToU8(text) }))
const packed = fc
  .tuple(score, fc.constantFrom('a.xml', 'deep/a.musicxml', 'gone.xml'))
  .map(([text, named]): BuiltFile => ({
    name: 'a.mxl',
    bytes: zipSync({
      'META-INF/container.xml': strToU8(`<container><rootfiles><rootfile full-path="${named}"/></rootfiles></container>`),
      ...(named === 'gone.xml' ? {} : { [named]: strToU8(text) }),
    }),
  })) // prettier-ignore

const line = fc.tuple(
  fc.constantFrom('C', 'Am7 F', '| C | G7 |', '[C]la', '[Verse 1]', 'Chorus (x99)', '{define: C frets 9 9 9 9 9 9}', '{capo: 99}', 'e|--99--3--|', 'B|--0---x--|', 'I - VI', '1 - 4', '%', 'C . . . . . . .', 'C_G_C_G', ':|x16', 'key: H'), // prettier-ignore
  fc.constantFrom(' ', '\n', '\n', '\n\n', ' | '),
  fc.constantFrom(1, 1, 1, 3, 200),
)
const words = fc
  .tuple(fc.array(line, { maxLength: 30 }), fc.constantFrom('a.txt', 'a.cho', 'a.tab'))
  .map(([lines, name]): BuiltFile => ({
    name,
    bytes: strToU8(lines.map(([text, end, times]) => `${text}${end}`.repeat(times)).join('')),
  }))

export const builtFile: fc.Arbitrary<BuiltFile> = fc.oneof(abc, midi, musicxml, packed, words)
