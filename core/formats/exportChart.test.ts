import { firstOf, itemAt } from '../lists'
import { Midi } from '@tonejs/midi'
import { XMLParser } from 'fast-xml-parser'
import { parseChart } from '../chart/parseChart'
import { chord } from '../chord/parseChord'
import { bestLines } from '../leading/lead'
import { weightsFrom } from '../leading/weights'
import { parsePitch } from '../pitch/note'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { exportChart, EXPORT_FORMATS, type ExportFormat } from './exportChart'
import { importChart } from './importChart'

const TEXT = 'title: Out\nkey: Bb\nmeter: 3/4\ntempo: 120\n[A] |: Bbmaj7 | Gm7 C7 . :| F7 | Bb |'
const chart = parseChart(TEXT)
const symbols = ['Bbmaj7', 'Gm7', 'C7', 'F7', 'Bb']
const line = firstOf(
  must(
    bestLines({ chords: symbols.map(chord), limits: TUNE_LIMITS, weights: weightsFrom('smooth'), count: 1 }),
  ),
)
const frets = line.voicings.map((voicing) => voicing.frets)
const melody = [
  [1, 1, 2, 'D5'],
  [1, 3, 1, 'C5'],
  [2, 1, 0.5, 'Bb4'],
  [2, 1.5, 2.5, 'A4'],
  [4, 1, 3, 'F#5'],
].map(([bar, beat, beats, note]) => ({
  bar: bar as number,
  beat: beat as number,
  beats: beats as number,
  note: must(parsePitch(note as string)),
}))
const out = (format: ExportFormat, more: object = {}) =>
  must(exportChart({ chart, frets, melody: [], limits: TUNE_LIMITS, ...more }, format))

describe('files for elsewhere', () => {
  test('MIDI, read back by a general parser (@tonejs/midi): tempo, metre, every note of melody and grips in the order of the form', () => {
    const { content, encoding } = out('midi', { melody })
    expect(encoding).toBe('base64')
    const file = new Midi(Buffer.from(content, 'base64'))
    expect([
      Math.round(firstOf(file.header.tempos).bpm),
      firstOf(file.header.timeSignatures).timeSignature,
    ]).toEqual([120, [3, 4]])
    const beat = (ticks: number) => ticks / file.header.ppq
    const [tune, grips] = file.tracks
    // Bars 1 and 2 are played twice: 3 beats each.
    expect(
      tune!.notes.map(({ midi, ticks, durationTicks }) => [midi, beat(ticks), beat(durationTicks)]),
    ).toEqual([
      [74, 0, 2],
      [72, 2, 1],
      [70, 3, 0.5],
      [69, 3.5, 2.5],
      [74, 6, 2],
      [72, 8, 1],
      [70, 9, 0.5],
      [69, 9.5, 2.5],
      [78, 15, 3],
    ])
    const played = [0, 1, 2, 0, 1, 2, 3, 4]
    expect(grips!.notes.length).toBe(
      played.reduce((sum, at) => sum + itemAt(line.voicings, at).midis.length, 0),
    )
    expect(
      grips!.notes
        .filter(({ ticks }) => ticks === 0)
        .map(({ midi }) => midi)
        .sort((a, b) => a - b),
    ).toEqual(firstOf(line.voicings).midis)
  })
  test('ChordPro is read back as the same chords, bar by bar', () => {
    const { content } = out('chordpro')
    expect(content).toContain('{title: Out}')
    expect(content).toContain('|: Bbmaj7 . . | Gm7 C7 . :| F7 . . | Bb . . |')
    const back = parseChart(importChart(content, 'chordpro').text)
    expect(back.bars.map((bar) => bar.slots.map(({ text }) => text).join(' '))).toEqual([
      'Bbmaj7',
      'Gm7 C7',
      'F7',
      'Bb',
    ])
  })
  test('tablature: every fret on its string under its symbol', () => {
    const rows = out('tab').content.split('\n')
    const top = rows.findIndex((row) => row.startsWith('E |'))
    expect(rows[top - 1]).toContain('Bbmaj7')
    const strings = rows.slice(top, top + 6)
    expect(strings.map((row) => row.slice(0, 2).trim())).toEqual(['E', 'B', 'G', 'D', 'A', 'E'])
    expect(new Set(strings.map((row) => row.length)).size).toBe(1)
    const held = line.voicings.reduce(
      (sum, { frets: grip }) => sum + grip.filter((fret) => fret !== null).length,
      0,
    )
    expect(strings.join(' ').match(/\d+/g)).toHaveLength(held)
  })
  test('ABC: head, symbols, notes with their accidentals and lengths; every bar is full', () => {
    const { content } = out('abc', { melody })
    expect(content).toContain('M:3/4\nL:1/4\nQ:1/4=120\nK:Bb')
    expect(content).toContain('|: [P:A] "Bbmaj7"d2 c | "Gm7"B/2 A/2- "C7"A2 :| "F7"z3 | "Bb"^f3 |')
  })
  test('ABC: a change of metre and key is written, lengths stay in the unit of the head', () => {
    expect(
      out('abc', { chart: parseChart('| C |: D :|\nkey: G\nmeter: 6/8\n| G |1. D :|2. C |'), frets: [] })
        .content,
    ).toContain('| "C"z4 |: "D"z4 :| [M:6/8] [K:G] "G"z3 | [1 "D"z3 :|')
    expect(out('abc', { chart: parseChart('| C |\nmeter: 6/8\n| G |'), frets: [] }).content).toContain(
      '| "C"z4 | [M:6/8] "G"z3 |',
    )
  })
  test('MusicXML, read by a general XML reader: a measure for each bar, a harmony for each chord, a note for each string', () => {
    const xml = new XMLParser({
      ignoreAttributes: false,
      isArray: (name) => ['measure', 'harmony', 'note'].includes(name),
    }).parse(out('musicxml').content) as {
      'score-partwise': { part: { measure: { harmony?: unknown[] }[] } }
    }
    const { measure } = xml['score-partwise'].part
    expect(measure).toHaveLength(4)
    expect(measure.reduce((sum, { harmony }) => sum + (harmony?.length ?? 0), 0)).toBe(5)
  })
  test('an empty chart is a file in every format, and grips that do not fit are refused', () => {
    for (const format of EXPORT_FORMATS)
      expect(
        must(exportChart({ chart: parseChart(''), frets: [], melody: [], limits: TUNE_LIMITS }, format))
          .content.length,
      ).toBeGreaterThan(0)
    expect(
      exportChart({ chart, frets: frets.slice(1), melody: [], limits: TUNE_LIMITS }, 'tab'),
    ).toMatchObject({ ok: false, fault: { code: 'bad-field' } })
    expect(
      exportChart(
        { chart, frets: [[1, 2, 3, 4, 5, 6], ...frets.slice(1)], melody: [], limits: TUNE_LIMITS },
        'tab',
      ),
    ).toMatchObject({ ok: false, fault: { code: 'unplayable', at: 0 } })
  })
})

test('a note that is longer than any tune ends with it, in every format', () => {
  const chart = parseChart('| C | G |')
  const notes = [{ bar: 1, beat: 3, beats: 1e9, note: must(parsePitch('E4')) }]
  for (const format of ['midi', 'musicxml', 'abc'] as const) {
    const out = must(exportChart({ chart, frets: [], melody: notes, limits: TUNE_LIMITS }, format))
    expect(out.content.length).toBeLessThan(20_000)
  }
})
