import { firstOf } from '../lists'
import { strToU8, zipSync } from 'fflate'
import { importFile } from './importFile'
import { must } from '../result'

const tunes = (name: string, content: string | Uint8Array) =>
  must(importFile(name, typeof content === 'string' ? strToU8(content) : content))

const SCORE = `<?xml version="1.0"?><score-partwise version="4.0"><work><work-title>Small</work-title></work><part-list><score-part id="P1"><part-name>x</part-name></score-part></part-list><part id="P1"><measure number="1"><attributes><divisions>1</divisions><key><fifths>0</fifths></key><time><beats>4</beats><beat-type>4</beat-type></time></attributes><harmony><root><root-step>C</root-step></root><kind>major-seventh</kind></harmony><note><pitch><step>E</step><octave>4</octave></pitch><duration>4</duration><type>whole</type></note></measure></part></score-partwise>`

test('two songs of ChordPro are two tunes, and so are two of ABC', () => {
  const two = '{title: One}\n[C]la [G]la\n{new_song}\n{title: Two}\n[F]la [C7]la\n'
  expect(tunes('both.cho', two).tunes.map(({ title }) => title)).toEqual(['One', 'Two'])
  const abc = 'X:1\nT:First\nM:4/4\nL:1/4\nK:C\n"C"CDEF|\n\nX:2\nT:Second\nM:3/4\nL:1/4\nK:G\n"G"GAB|\n'
  const read = tunes('pair.abc', abc)
  expect(read.tunes.map(({ title }) => title)).toEqual(['First', 'Second'])
  expect(read.tunes.map(({ melody }) => melody.length)).toEqual([4, 3])
})

test('compressed MusicXML is read by the score its container names', () => {
  const mxl = zipSync({
    'META-INF/container.xml': strToU8(
      '<container><rootfiles><rootfile full-path="inner/score.xml"/></rootfiles></container>',
    ),
    'inner/score.xml': strToU8(SCORE),
    'other.xml': strToU8('<nothing/>'),
  })
  const [tune] = tunes('small.mxl', mxl).tunes
  expect(tune).toMatchObject({ title: 'Small', melody: [{ bar: 1, beat: 1, beats: 4, note: 'E4' }] })
  expect(tune!.text).toContain('| Cmaj7 |')
  expect(importFile('broken.mxl', strToU8('no zip'))).toMatchObject({
    ok: false,
    fault: { code: 'bad-file' },
  })
  expect(importFile('empty.mxl', zipSync({ 'readme.md': strToU8('x') }))).toMatchObject({ ok: false })
})

test('a tune without a title has the name of its file; what is of no kind that is read says what is', () => {
  expect(firstOf(tunes('My Chart.txt', '| C | F | G7 | C |').tunes).title).toBe('My Chart')
  const refused = importFile('picture.png', new Uint8Array([1, 2]))
  expect(refused).toMatchObject({
    ok: false,
    fault: { accepted: expect.stringContaining('.musicxml') as unknown },
  })
  expect(importFile('words.txt', strToU8('nothing here'))).toMatchObject({ ok: false })
})

test('of several tunes those that cannot be read are named, and the others are taken', () => {
  const read = tunes('some.cho', '{title: Good}\n[C]la\n{new_song}\njust words\n')
  expect(read.tunes.map(({ title }) => title)).toEqual(['Good'])
  expect(read.refused).toEqual([expect.stringMatching(/^some 2: /)])
})
