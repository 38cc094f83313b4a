import { firstOf, itemAt, lastOf } from '../lists'
import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { analyse } from '../analysis/analyse'
import { slotKey, slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { bestLines } from '../leading/lead'
import { weightsFrom } from '../leading/weights'
import { harmonise } from '../melody/harmonise'
import { ringingLayers } from '../melody/ringing'
import { midiOf, parsePitch, pitchClass } from '../pitch/note'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { voicingOf } from '../voicing/voicing'
import { parseChord } from '../chord/parseChord'
import { toMusicXml } from './musicxml'
import { DIVISIONS, noteValues } from './noteValues'
import type { WrittenChord } from './musicxmlHarmony'

interface XmlNote {
  pitch?: { step: string; alter?: number; octave: number }
  duration: number
  chord?: unknown
  rest?: unknown
  tie?: unknown
}
const list = <T>(value: T | T[] | undefined): T[] => {
  if (value === undefined) return []
  if (Array.isArray(value)) return value
  return [value]
}

function written(text: string) {
  const chart = parseChart(text)
  const slots = slotsOf(chart).filter((slot) => slot.symbol?.kind === 'chord')
  const chords = slots.map((slot) => (slot.symbol?.kind === 'chord' ? slot.symbol.chord : never()))
  const line = firstOf(
    must(bestLines({ chords, limits: TUNE_LIMITS, weights: weightsFrom('smooth'), count: 1 })),
  )
  const map = new Map(
    slots.map((slot, at): [string, WrittenChord] => [
      slotKey(slot),
      { chord: itemAt(chords, at), voicing: itemAt(line.voicings, at) },
    ]),
  )
  const xml = toMusicXml({ title: 'A & B <test>', chart, key: analyse(chart).key, tempo: 100, chords: map })
  const read = new XMLParser({ ignoreAttributes: false, parseTagValue: true }).parse(xml)
  return { xml, line, measures: list(read['score-partwise'].part.measure), read }
}
const never = (): never => {
  throw new Error('every slot here has a chord')
}

describe('MusicXML (W3C MusicXML 4.0), read back by a general XML reader', () => {
  test('is well formed, keeps title, key and metre', () => {
    const { xml, measures, read } = written('key: Bb\nmeter: 3/4\n[A] | Bbmaj7 | F7/A | Gm9 |')
    expect(XMLValidator.validate(xml)).toBe(true)
    expect(read['score-partwise'].work['work-title']).toBe(
      'A &amp; B &lt;test&gt;'.replaceAll('&amp;', '&').replaceAll('&lt;', '<').replaceAll('&gt;', '>'),
    )
    expect(measures).toHaveLength(3)
    expect(measures[0].attributes).toMatchObject({
      divisions: DIVISIONS,
      key: { fifths: -2, mode: 'major' },
      time: { beats: 3, 'beat-type': 4 },
    })
  })
  test.each([
    'key: C\n| C | Am7 D9 | G13 . . Db7 | C |',
    'key: Am\nmeter: 6/8\n| Am | E7 . . Dm . . |',
    'key: C\n| C Am F | N.C. | G7 |',
  ])('bars are full and notes are those of the grips: %j', (text) => {
    const { measures, line } = written(text)
    const chart = parseChart(text)
    const full = (chart.meter.beats * 4 * DIVISIONS) / chart.meter.unit
    const sounds: number[][] = []
    for (const measure of measures) {
      const notes = list<XmlNote>(measure.note)
      expect(
        notes.filter((note) => note.chord === undefined).reduce((sum, note) => sum + note.duration, 0),
      ).toBe(full)
      for (const note of notes) {
        if (!note.pitch) continue
        const midi = midiOf({
          letter: 'CDEFGAB'.indexOf(note.pitch.step),
          alter: note.pitch.alter ?? 0,
          octave: note.pitch.octave,
        })
        if (note.chord === undefined) sounds.push([midi])
        else lastOf(sounds).push(midi)
      }
    }
    const grips = line.voicings.map((voicing) => voicing.strings.map((string) => string.midi).join())
    expect([...new Set(sounds.map((one) => one.join()))].sort()).toEqual([...new Set(grips)].sort())
  })
  test('the form: pickup, repeats, endings, jumps, and changes of key and metre', () => {
    const { xml, measures } = written(
      'key: C\npickup: 1\n| G7 |: C | Segno F |1. G7 :|x3 |2. C To Coda |\nkey: Eb\nmeter: 3/4\n| Eb | Bb7 D.S. al Coda | Coda Eb |',
    )
    expect(XMLValidator.validate(xml)).toBe(true)
    expect([measures[0]['@_number'], measures[0]['@_implicit']]).toEqual(['0', 'yes'])
    const barlines = measures.map((measure) =>
      list<{ repeat?: Record<string, string>; ending?: Record<string, string> }>(measure.barline)
        .map((line) =>
          [
            line.repeat?.['@_direction'],
            line.repeat?.['@_times'],
            line.ending?.['@_number'],
            line.ending?.['@_type'],
          ]
            .filter(Boolean)
            .join(' '),
        )
        .filter(Boolean),
    )
    expect(barlines).toEqual([
      [],
      ['forward'],
      [],
      ['1 start', 'backward 3 1 stop'],
      ['2 start', '2 discontinue'],
      [],
      [],
      [],
    ])
    expect(measures[5].attributes).toMatchObject({ key: { fifths: -3 }, time: { beats: 3, 'beat-type': 4 } })
    const sounds = measures.map((measure) =>
      list<{ sound?: Record<string, string> }>(measure.direction)
        .flatMap((direction) => Object.keys(direction.sound ?? {}))
        .filter((name) => name !== '@_tempo')
        .join(),
    )
    expect(sounds).toEqual(['', '', '@_segno', '', '@_tocoda', '', '@_dalsegno', '@_coda'])
  })
  test('off-beat chords get their own values', () => {
    const { measures } = written('key: C\n| C . _G7 . |')
    expect(
      list<XmlNote>(measures[0].note)
        .filter((note) => note.chord === undefined)
        .map((note) => note.duration),
    ).toEqual([96, 24, 72])
  })
  test('chord symbols carry root, kind, bass and added degrees', () => {
    const { measures } = written('key: C\n| Ab13 | F#m7b5 | C7b9 | C/E |')
    expect(
      measures.map((measure) => [
        measure.harmony.root['root-step'],
        measure.harmony.root['root-alter'] ?? 0,
        measure.harmony.kind['#text'],
      ]),
    ).toEqual([
      ['A', -1, 'dominant'],
      ['F', 1, 'half-diminished'],
      ['C', 0, 'dominant'],
      ['C', 0, 'major'],
    ])
    expect(measures[2].harmony.degree).toEqual({
      '@_print-object': 'no',
      'degree-value': 9,
      'degree-alter': -1,
      'degree-type': 'add',
    })
    expect(measures[3].harmony.bass['bass-step']).toBe('E')
  })
  test('frames name strings from the highest and absolute frets', () => {
    const { measures, line } = written('key: C\n| C |')
    const frame = measures[0].harmony.frame
    const expected = firstOf(line.voicings).frets.flatMap((fret, at) =>
      fret === null ? [] : [`${6 - at}:${fret}`],
    )
    expect(
      list<{ string: number; fret: number }>(frame['frame-note']).map(
        (note) => `${note.string}:${note.fret}`,
      ),
    ).toEqual(expected)
  })
  test.each([
    [192, ['whole']],
    [144, ['half']],
    [120, ['half', 'eighth']],
    [64, ['half']],
    [16, ['eighth']],
    [168, ['half', 'eighth']],
    [6, ['32nd']],
    [8, ['16th']],
  ])('%i parts of a quarter are %j', (length, types) => {
    const values = noteValues(length)
    expect(values.map((value) => value.type)).toEqual(types)
    expect(values.reduce((sum, value) => sum + value.length, 0)).toBe(length)
  })
  test('a tune without bars is one bar of rest, and what cannot be read is a rest', () => {
    for (const [text, bars] of [
      ['', 1],
      ['| zz | N.C. |', 2],
    ] as const) {
      const chart = parseChart(text)
      const xml = toMusicXml({ title: 'Empty', chart, key: analyse(chart).key, tempo: 90, chords: new Map() })
      expect(XMLValidator.validate(xml)).toBe(true)
      expect(xml.match(/<measure /g)).toHaveLength(bars)
      expect(xml.match(/<rest\/>/g)).toHaveLength(bars)
    }
  })
  test('a barre is drawn in the frame, from its lowest string to its highest', () => {
    const voicing = voicingOf([1, 3, 3, 2, 1, 1], must(parseChord('F')), TUNE_LIMITS)!
    const chart = parseChart('| F |')
    const slot = firstOf(slotsOf(chart))
    const xml = toMusicXml({
      title: 'Barre',
      chart,
      key: analyse(chart).key,
      tempo: 90,
      chords: new Map([[slotKey(slot), { chord: must(parseChord('F')), voicing }]]),
    })
    const read = new XMLParser({ ignoreAttributes: false }).parse(xml) as {
      'score-partwise': {
        part: {
          measure: {
            harmony: { frame: { 'frame-note': { string: number; barre?: { '@_type': string } }[] } }
          }
        }
      }
    }
    const notes = read['score-partwise'].part.measure.harmony.frame['frame-note']
    expect(notes.flatMap(({ string, barre }) => (barre ? [`${string} ${barre['@_type']}`] : []))).toEqual([
      '6 start',
      '1 stop',
    ])
  })
  test('every tone stays spelled for its chord', () => {
    const { line } = written('key: C\n| Abm7 | Db7 |')
    for (const voicing of line.voicings)
      for (const { midi, note } of voicing.strings) expect(midi % 12).toBe(pitchClass(note))
  })
})

describe('a melody and a chord melody, as parts of their own', () => {
  const chart = parseChart('key: C\n| C | Am | F G7 | C |')
  const melody = [
    ['E4', 1, 1, 2],
    ['F4', 1, 3, 1],
    ['G4', 1, 4, 3],
    ['A4', 2, 3, 2],
    ['A4', 3, 1, 1],
    ['B4', 3, 3, 2],
    ['C5', 4, 1, 4],
  ].map(([name, bar, beat, beats]) => ({
    bar: bar as number,
    beat: beat as number,
    beats: beats as number,
    note: must(parsePitch(name as string)),
  }))
  const chordMelody = firstOf(
    must(
      harmonise({ chart, melody, limits: { ...TUNE_LIMITS, notes: [2, 5], frets: [0, 17] }, density: 'bar' }),
    ),
  ).notes
  const xml = toMusicXml({
    title: 'Sung',
    chart,
    key: analyse(chart).key,
    tempo: 100,
    chords: new Map(),
    melody,
    chordMelody,
  })
  const parts = list<{
    measure: { note: (XmlNote & { voice: string; notations?: { technical?: unknown } })[] }[]
  }>(
    new XMLParser({
      ignoreAttributes: false,
      parseTagValue: true,
      isArray: (name) => ['note', 'measure', 'part'].includes(name),
    }).parse(xml)['score-partwise'].part,
  )
  test('three parts; every voice of every bar is full', () => {
    expect(XMLValidator.validate(xml)).toBe(true)
    expect(xml.match(/<part-name>(.*?)<\/part-name>/g)).toEqual(
      ['Melody', 'Guitar', 'Chord melody'].map((name) => `<part-name>${name}</part-name>`),
    )
    for (const part of parts)
      for (const measure of part.measure)
        for (const voice of new Set(measure.note.map((one) => one.voice)))
          expect(
            measure.note
              .filter((one) => one.voice === voice && one.chord === undefined)
              .reduce((sum, one) => sum + one.duration, 0),
          ).toBe(4 * DIVISIONS)
  })
  test('the melody is the same in both, with tablature in the chord melody, and what rings is tied over the bar line, not struck again', () => {
    const sounding = (part: (typeof parts)[number], voice: string) =>
      part.measure
        .flatMap(({ note }) => note.filter((one) => one.pitch && String(one.voice) === voice))
        .map(({ pitch, duration }) => `${pitch!.step}${pitch!.octave} ${duration}`)
    expect(sounding(itemAt(parts, 2), '1')).toEqual(sounding(firstOf(parts), '1'))
    const frets = itemAt(parts, 2).measure.flatMap(({ note }) => note.filter((one) => one.pitch))
    for (const one of frets) expect(one.notations?.technical).toBeDefined()
    const struck = frets.filter(
      (one) =>
        String(one.voice) === '2' &&
        !list<Record<string, string>>(one.tie as never).some((tie) => tie['@_type'] === 'stop'),
    )
    expect(struck.length).toBe(
      ringingLayers(chart, chordMelody).lower.reduce((sum, one) => sum + one.struck.length, 0),
    )
  })
})
