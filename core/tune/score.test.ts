import { firstOf, itemAt, theOne } from '../lists'
import { Midi } from '@tonejs/midi'
import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { toMidi } from '../formats/midi'
import abcjs from 'abcjs'
import { toAbc } from '../formats/abc'
import { importAbc } from '../formats/importAbc'
import { toMusicXml } from '../formats/musicxml'
import { DIVISIONS } from '../formats/noteValues'
import { DEFAULT_PLAYER } from '../player/playerSettings'
import { FIGURES } from '../rhythm/figures'
import { newDocument } from './document'
import { withEveryGrip } from './searchQuestion'
import { readTuneDocument } from './tuneReading'
import { PLAIN_RHYTHM, type Rhythm } from './rhythmSchema'
import { scoreOf } from './score'

/** The MIDI file of a tune with its band, read back by a general parser (@tonejs/midi). */
function readBack(text: string, set: Partial<Rhythm>, swung = false) {
  const document = { ...newDocument('Ferry', text), rhythm: { ...PLAIN_RHYTHM, ...set } }
  const whole = withEveryGrip(document, readTuneDocument(document, 'case', DEFAULT_PLAYER), DEFAULT_PLAYER)
  const bytes = Uint8Array.from(
    Buffer.from(toMidi(scoreOf(whole, DEFAULT_PLAYER, 'case', { swung })), 'base64'),
  )
  const file = new Midi(bytes)
  const beats = (name: string) =>
    theOne(file.tracks, (track) => track.name === name).notes.map(
      ({ ticks, midi }) => [Math.round((ticks / file.header.ppq) * 1000) / 1000, midi] as const,
    )
  return { file, beats }
}

test('guitar, bass and brushes each have a track and a channel of their own, and play what the band plays', () => {
  const { file, beats } = readBack('tempo: 120\n|: C | F :|', {
    figure: 'half notes',
    bass: 'roots',
    time: 'two and four',
  })
  expect(file.tracks.map(({ name, channel }) => [name, channel])).toEqual([
    ['Melody', 0],
    ['Guitar', 1],
    ['Bass', 3],
    ['Brushes', 9],
  ])
  expect([...new Set(beats('Guitar').map(([at]) => at))]).toEqual([0, 2, 4, 6, 8, 10, 12, 14])
  expect(beats('Bass').map(([at]) => at)).toEqual([0, 4, 8, 12])
  expect(beats('Brushes').map(([at]) => at)).toEqual([1, 3, 5, 7, 9, 11, 13, 15])
})
test('straight or swung, as asked', () => {
  const places = (swung: boolean) => [
    ...new Set(
      readBack('| C |', { figure: 'dotted quarter and eighth', feel: 'shuffle' }, swung)
        .beats('Guitar')
        .map(([at]) => at),
    ),
  ]
  expect(places(false)).toEqual([0, 1.5])
  expect(places(true)).toEqual([0, 1.667])
})
test('tempo counts quarters, whatever a beat is; metre changes stand where they are played', () => {
  const { file } = readBack('meter: 6/8\ntempo: 144\n| C | % |\nmeter: 4/4\n| F |', {
    figure: 'two dotted beats',
  })
  expect(firstOf(file.header.tempos).bpm).toBeCloseTo(72)
  expect(
    file.header.timeSignatures.map(({ ticks, timeSignature }) => [ticks / file.header.ppq, timeSignature]),
  ).toEqual([
    [0, [6, 8]],
    [6, [4, 4]],
  ])
})
test('a pitch struck again ends where it is struck: no two of one pitch at once', () => {
  const { file } = readBack('| C | % |', { figure: 'eighths through the voices' })
  const notes = theOne(file.tracks, ({ name }) => name === 'Guitar').notes
  for (const one of notes)
    for (const other of notes)
      if (other.midi === one.midi && other.ticks > one.ticks)
        expect(one.ticks + one.durationTicks).toBeLessThanOrEqual(other.ticks)
})

describe('the comping rhythm in MusicXML, read back by a general XML reader', () => {
  interface Read {
    name: string
    measures: Record<string, unknown>[]
  }
  const list = <T>(value: T | T[] | undefined): T[] => [value ?? []].flat() as T[]
  function parts(text: string, set: Partial<Rhythm>, comping: 'slashes' | 'voices' = 'slashes'): Read[] {
    const document = { ...newDocument('Ferry', text), rhythm: { ...PLAIN_RHYTHM, ...set } }
    const whole = withEveryGrip(document, readTuneDocument(document, 'case', DEFAULT_PLAYER), DEFAULT_PLAYER)
    const xml = toMusicXml(scoreOf(whole, DEFAULT_PLAYER, 'case', { comping }))
    expect(XMLValidator.validate(xml)).toBe(true)
    const score = new XMLParser({ ignoreAttributes: false }).parse(xml)['score-partwise']
    const names = list(score['part-list']['score-part']).map((part) =>
      String((part as Record<string, unknown>)['part-name']),
    )
    return list<Record<string, unknown>>(score.part).map((part, at) => ({
      name: itemAt(names, at),
      measures: list(part.measure as Record<string, unknown>[]),
    }))
  }
  interface Note {
    duration: number
    rest?: unknown
    chord?: unknown
    notehead?: string
    tie?: unknown
    pitch?: { step: string; octave: number }
    notations?: { articulations?: Record<string, unknown> }
  }
  const notesOf = (measure: Record<string, unknown>) => list(measure.note as Note[])
  const compingOf = (read: Read[], name = 'Comping rhythm') =>
    theOne(read, (part) => part.name === name).measures

  test('slashes on the middle line with rests between, accents and dots, a push tied over the bar line', () => {
    const [first, second] = compingOf(parts('| C | F |', { figure: 'pushes on the and of four' })) as [
      never,
      never,
    ]
    const short = (note: Note) => `${note.rest === undefined ? 'x' : 'z'}${note.duration}`
    expect(notesOf(first).map(short)).toEqual(['x72', 'x24', 'z72', 'x24'])
    expect(notesOf(second).map(short)).toEqual(['x72', 'x24', 'z72', 'x24'])
    const sounding = notesOf(first).filter(({ rest }) => rest === undefined)
    expect(sounding.map(({ notehead }) => notehead)).toEqual(['slash', 'slash', 'slash'])
    expect(sounding.map(({ pitch }) => `${pitch!.step}${pitch!.octave}`)).toEqual(['B3', 'B3', 'B3'])
    expect(itemAt(sounding, 1).notations!.articulations).toHaveProperty('staccato')
    expect(itemAt(sounding, 2).notations!.articulations).toHaveProperty('accent')
    expect(itemAt(sounding, 2).tie).toBeDefined()
    expect(firstOf(notesOf(second)).tie).toBeDefined()
  })
  test('as asked the voices that sound, with their places on the neck; the swing stands with the tempo', () => {
    const read = parts('tempo: 120\n| C |', { figure: 'bass, chord', feel: 'shuffle' }, 'voices')
    const [measure] = compingOf(read, 'Comping')
    const notes = notesOf(measure!)
    expect(notes.every(({ notehead }) => notehead === undefined)).toBe(true)
    expect(notes.some(({ chord }) => chord !== undefined)).toBe(true)
    const sound = list(firstOf(firstOf(read).measures).direction as Record<string, unknown>[]).map(
      ({ sound: one }) => one,
    )
    expect(JSON.stringify(sound)).toContain('"swing":{"first":20,"second":10,"swing-type":"eighth"}')
  })
  test('every bar is full, whatever the figure', () => {
    for (const figure of FIGURES) {
      const [meter] = figure.meters
      const [beats, unit] = meter!.split('/').map(Number) as [number, number]
      for (const measure of compingOf(
        parts(`meter: ${meter}\n| C | F G | Am |`, { figure: figure.name, seed: 3 }),
      )) {
        const full = notesOf(measure).reduce(
          (sum, note) => sum + (note.chord === undefined ? note.duration : 0),
          0,
        )
        expect([figure.name, full]).toEqual([figure.name, (beats * 4 * DIVISIONS) / unit])
      }
    }
  })
})

describe('the comping rhythm in ABC, read back by the notation library', () => {
  interface Element {
    el_type: string
    duration: number
    rest?: unknown
    pitches?: { pitch: number }[]
    decoration?: string[]
  }
  function voices(text: string, set: Partial<Rhythm>, comping: 'slashes' | 'voices' = 'slashes') {
    const document = { ...newDocument('Ferry', text), rhythm: { ...PLAIN_RHYTHM, ...set } }
    const whole = withEveryGrip(document, readTuneDocument(document, 'case', DEFAULT_PLAYER), DEFAULT_PLAYER)
    const abc = toAbc(scoreOf(whole, DEFAULT_PLAYER, 'case', { comping }))
    const [tune] = abcjs.parseOnly(abc) as unknown as [
      { warnings?: string[]; lines: { staff: { voices: Element[][] }[] }[] },
    ]
    return {
      abc,
      warnings: tune.warnings ?? [],
      played: tune.lines.flatMap(
        ({ staff }) => staff[1]?.voices[0]?.filter(({ el_type }) => el_type === 'note') ?? [],
      ),
    }
  }
  test('its rhythm as a second voice, or the voices that sound; the first voice is read in again as it was', () => {
    const { abc, warnings, played } = voices('| C | F |', { figure: 'pushes on the and of four' })
    expect(warnings).toEqual([])
    const short = ({ rest, duration }: Element) => `${rest === undefined ? 'x' : 'z'}${duration * 8}`
    expect(played.map(short)).toEqual(['x3', 'x1', 'z3', 'x1', 'x3', 'x1', 'z3', 'x1'])
    expect(itemAt(played, 1).decoration).toEqual(['staccato'])
    const back = importAbc(abc)
    expect(back.ok && back.value.text).toContain('| C | F |')
    const chords = voices('| C |', { figure: 'four to the bar' }, 'voices').played.filter(
      ({ pitches }) => pitches,
    )
    expect(chords).toHaveLength(4)
    for (const { pitches } of chords) expect(pitches!.length).toBeGreaterThanOrEqual(3)
  })
  test('every bar is full, whatever the figure', () => {
    for (const figure of FIGURES) {
      const [meter] = figure.meters
      const [beats, unit] = meter!.split('/').map(Number) as [number, number]
      const { warnings, played } = voices(`meter: ${meter}\n| C | F G | Am |`, {
        figure: figure.name,
        seed: 3,
      })
      expect([figure.name, warnings]).toEqual([figure.name, []])
      expect([figure.name, played.reduce((sum, { duration }) => sum + duration, 0)]).toEqual([
        figure.name,
        expect.closeTo((3 * beats) / unit, 6),
      ])
    }
  })
})
