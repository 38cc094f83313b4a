import { theOne } from '../lists'
import { strFromU8, strToU8, unzipSync, zipSync } from 'fflate'
import { answerLine } from './answerRequest'

const ask = (request: object) => answerLine(JSON.stringify(request)) as unknown as Record<string, unknown>
const good = <Answer>(request: object): Answer => {
  const reply = ask(request)
  expect(reply['ok']).toBe(true)
  return reply as Answer
}
interface File {
  content: string
}
interface Tune {
  text: string
  melody: unknown[]
  lyrics: unknown[]
  parts?: { names: string[]; taken: number }
  warnings: string[]
}
const TEXT = 'title: Low Tide\nkey: C\nmeter: 4/4\n| C | Am7 |'
const melody = [{ bar: 1, beat: 1, beats: 4, note: 'E4' }]
const lyrics = [
  { bar: 1, beat: 1, text: 'home', joins: true },
  { bar: 2, beat: 3, text: 'wards' },
]

describe('a tune as a backup (docs/backup.md)', () => {
  const { content } = good<File>({ do: 'export', format: 'backup', text: TEXT, melody, lyrics })
  const changed = (change: (files: Record<string, Uint8Array>) => void): string => {
    const files = unzipSync(Buffer.from(content, 'base64'))
    change(files)
    return Buffer.from(zipSync(files)).toString('base64')
  }
  test('comes back whole', () => {
    expect(good<Tune>({ do: 'import', format: 'backup', content })).toMatchObject({
      text: TEXT,
      melody,
      lyrics,
      warnings: [],
    })
  })
  test.each<[string, (files: Record<string, Uint8Array>) => void, RegExp]>([
    [
      'a changed file',
      (files) => {
        const name = theOne(Object.keys(files), (one) => one.endsWith('.txt'))
        files[name] = strToU8('| D |')
      },
      /is damaged/,
    ],
    [
      'no manifest',
      (files) => {
        delete files['manifest.json']
      },
      /no manifest\.json/,
    ],
    [
      'a later version',
      (files) => {
        const manifest = JSON.parse(strFromU8(files['manifest.json']!)) as Record<string, unknown>
        files['manifest.json'] = strToU8(JSON.stringify({ ...manifest, version: 99 }))
      },
      /later version/,
    ],
  ])('%s is refused with a sentence', (_, change, says) => {
    const reply = ask({ do: 'import', format: 'backup', content: changed(change) })
    expect(reply).toMatchObject({ ok: false, error: { code: 'bad-file' } })
    expect((reply['error'] as { message: string }).message).toMatch(says)
  })
  test('what is no zip is refused too, and grips that do not fit the chords', () => {
    expect(ask({ do: 'import', format: 'backup', content: 'abcd' })).toMatchObject({
      ok: false,
      error: { code: 'bad-file' },
    })
    expect(
      ask({ do: 'export', format: 'backup', text: TEXT, voicings: [[null, 3, 2, 0, 1, 0]] }),
    ).toMatchObject({
      ok: false,
      error: { where: 'voicings' },
    })
  })
})

test('words go out and come back in every format that holds them', () => {
  for (const format of ['musicxml', 'chordpro'] as const) {
    const { content } = good<File>({ do: 'export', format, text: TEXT, lyrics, melody })
    expect(good<Tune>({ do: 'import', format, content }).lyrics).toEqual(lyrics)
  }
  // ABC has words under notes only: the others stand behind the tune.
  const { content } = good<File>({ do: 'export', format: 'abc', text: TEXT, lyrics, melody })
  expect(content).toContain('\nw: home- *\nW: wards\n'.replace(' *', ''))
  expect(good<Tune>({ do: 'import', format: 'abc', content }).lyrics).toEqual([lyrics[0]])
})

const score = (parts: readonly (readonly [name: string, step: string])[]) =>
  `<score-partwise><part-list>${parts.map(([name], at) => `<score-part id="P${at}"><part-name>${name}</part-name></score-part>`).join('')}</part-list>${parts
    .map(
      ([, step], at) =>
        `<part id="P${at}"><measure number="1"><attributes><divisions>1</divisions></attributes><note><pitch><step>${step}</step><octave>4</octave></pitch><duration>4</duration></note></measure></part>`,
    )
    .join('')}</score-partwise>`

test('of several parts the melody can be chosen, in MusicXML and in ABC; one that is not there is refused', () => {
  const content = score([
    ['Alto', 'C'],
    ['Tenor', 'E'],
  ])
  const read = (part?: number) =>
    good<Tune>({ do: 'import', format: 'musicxml', content, ...(part ? { part } : {}) })
  expect(read().parts).toEqual({ names: ['Alto', 'Tenor'], taken: 1 })
  expect(read(2)).toMatchObject({ parts: { taken: 2 }, melody: [{ note: 'E4' }] })
  expect(ask({ do: 'import', format: 'musicxml', content, part: 3 })).toMatchObject({
    ok: false,
    error: { code: 'bad-field', where: 'part' },
  })
  const abc = 'X:1\nM:4/4\nL:1/4\nK:C\nV:high\nC4|\nV:low\nE4|\n'
  expect(good<Tune>({ do: 'import', format: 'abc', content: abc, part: 2 })).toMatchObject({
    parts: { names: ['high', 'low'], taken: 2 },
    melody: [{ note: 'E4' }],
  })
})

test('a compressed score is read out of base64', () => {
  const zip = zipSync({
    'META-INF/container.xml': strToU8(
      '<container><rootfiles><rootfile full-path="score.xml"/></rootfiles></container>',
    ),
    'score.xml': strToU8(score([['Melody', 'G']])),
  })
  const content = Buffer.from(zip).toString('base64')
  expect(good<Tune>({ do: 'import', format: 'musicxml', encoding: 'base64', content }).melody).toHaveLength(1)
  expect(ask({ do: 'import', format: 'musicxml', encoding: 'base64', content: 'UEsDBA==' })).toMatchObject({
    ok: false,
    error: { code: 'bad-file' },
  })
})
