import { firstOf, itemAt } from '../../../core/lists'
import { parseChart } from '../../../core/chart/parseChart'
import { must } from '../../../core/result'
import { importAbc } from '../../../core/formats/importAbc'
import { withChordMelody } from '../../../db/demoMelodies'
import { DEFAULT_PLAYER } from '../../../core/player/playerSettings'
import { newDocument, tuneDocument, type TuneDocument } from '../../../core/tune/document'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import { onInstrument } from '../../../core/tune/sounding'
import { fixedHere, keptNotes } from '../../../core/tune/keptNotes'
import { lineSchedule, melodySchedule } from './melodySchedule'
import type { KeptNote } from '../../../core/tune/melodySchema'
import { applyEdit, type TuneEdit } from '../../../core/tune/tuneEdit'

const note = (bar: number, beat: number, name: string, beats = 1): KeptNote => ({
  bar,
  beat,
  beats,
  note: name,
})
const tune: TuneDocument = {
  ...newDocument('Test', 'key: C\n| C | Am | Dm | G7 |'),
  melody: [note(1, 1, 'E4', 2), note(2, 3, 'C5'), note(4, 1, 'B4', 4)],
}
const edited = (document: TuneDocument, ...edits: TuneEdit[]) => edits.reduce(applyEdit, document)
const places = ({ melody }: TuneDocument) =>
  melody.map(({ bar, beat, note: name }) => `${bar}:${beat} ${name}`)
const text = (next: string): TuneEdit => ({ kind: 'bars', text: next, did: 'test' })
const fix = (place: string): TuneEdit => ({
  kind: 'melody-fix',
  fixed: { [place]: { frets: [null, 3, 2, 0, 1, 0], symbol: 'C' } },
  did: 'test',
})

describe('the melody goes with its chords', () => {
  test.each([
    ['a bar put in front', 'key: C\n| F | C | Am | Dm | G7 |', ['2:1 E4', '3:3 C5', '5:1 B4']],
    ['a bar taken out', 'key: C\n| C | Am | G7 |', ['1:1 E4', '2:3 C5', '3:1 B4']],
    ['a chord changed', 'key: C\n| C | A7 | Dm | G7 |', ['1:1 E4', '2:3 C5', '4:1 B4']],
    ['everything gone', '', ['1:1 E4', '2:3 C5', '4:1 B4']],
  ])('%s', (_, next, expected) => expect(places(edited(tune, text(next)))).toEqual(expected))
  test('grips and phrases move with the notes', () => {
    const made = edited(
      tune,
      fix('2:3'),
      { kind: 'phrases', phrases: { '2:3': true } },
      text('key: C\n| F | C | Am | Dm | G7 |'),
    )
    expect(Object.keys(made.chordMelody.fixed)).toEqual(['3:3'])
    expect(made.phrases).toEqual({ '3:3': true })
  })
  test('another key takes the melody along by the shorter way, spelled for it; grips are let go', () => {
    const moved = edited(tune, fix('1:1'), { kind: 'transpose', to: 'Bb' })
    expect(places(moved)).toEqual(['1:1 D4', '2:3 Bb4', '4:1 A4'])
    expect(moved.chordMelody.fixed).toEqual({})
    expect(places(edited(moved, { kind: 'transpose', to: 'C' }))).toEqual(places(tune))
  })
})

describe('what is made under it', () => {
  test('a grip stays while its note is what it was, and goes when the note changes', () => {
    const fixed = edited(tune, fix('1:1'), fix('2:3'))
    const changed = edited(fixed, {
      kind: 'melody',
      melody: [note(1, 1, 'E4', 1), note(2, 3, 'D5')],
      did: 'test',
    })
    expect(Object.keys(changed.chordMelody.fixed)).toEqual(['1:1'])
    expect(
      Object.keys(
        edited(fixed, { kind: 'melody-fix', fixed: { '1:1': null }, did: 'free' }).chordMelody.fixed,
      ),
    ).toEqual(['2:3'])
  })
  test('a version keeps what is under the melody; the melody is the same for all', () => {
    const kept = edited(
      tune,
      fix('1:1'),
      { kind: 'version-keep', name: 'One', at: 1 },
      { kind: 'melody-fix', fixed: { '1:1': null }, did: 'free' },
      { kind: 'melody', melody: [note(1, 1, 'E4', 2)], did: 'test' },
    )
    const back = edited(kept, { kind: 'version-take', name: 'One' })
    expect(Object.keys(back.chordMelody.fixed)).toEqual(['1:1'])
    expect(places(back)).toEqual(['1:1 E4'])
  })
  test('a tune kept before there were melodies has an empty one', () => {
    const { melody: _, phrases: __, chordMelody: ___, ...old } = newDocument('Old', '| C |')
    expect(tuneDocument.parse(old)).toMatchObject({
      melody: [],
      phrases: {},
      lyrics: [],
      chordMelody: { density: 'chord', kept: [] },
    })
  })
  test.each([
    { bar: 1, beat: 1, beats: 1, note: 'H4' },
    { bar: 1, beat: 0, beats: 1, note: 'C4' },
    { bar: 1, beat: 1, beats: 0, note: 'C4' },
  ])('%j is no melody note', (wrong) => {
    expect(tuneDocument.safeParse({ ...tune, melody: [wrong] }).success).toBe(false)
  })
})

describe('kept and heard', () => {
  const made = withChordMelody(
    { ...newDocument('Heard', 'key: C\nmeter: 3/4\n|: C | Am :| F | G7 |') },
    'X:1\nM:3/4\nL:1/4\nK:C\nE2 F | G A B | c3 | B3 |',
    { density: 'chord' },
  )
  const chart = parseChart(made.text)
  const notes = keptNotes(made, chart, DEFAULT_PLAYER)
  test('what is kept is read back as it was found, and an event whose note has changed is left out', () => {
    expect(notes.map(({ voicing }) => voicing.frets)).toEqual(made.chordMelody.kept.map(({ frets }) => frets))
    const other = edited(made, {
      kind: 'melody',
      melody: made.melody.map((one) => (one.bar === 3 ? { ...one, note: 'D5' } : one)),
      did: 'test',
    })
    expect(keptNotes(other, chart, DEFAULT_PLAYER)).toHaveLength(
      notes.length - notes.filter(({ bar }) => bar === 3).length,
    )
  })
  test('the repeat is heard twice, each melody note once each time at its beat; held grips are not struck again', () => {
    const reading = readTuneDocument(made)
    const home = [0, 1, 0, 1, 2, 3].map((at) => itemAt(reading.chords, at))
    const melody = must(importAbc('X:1\nM:3/4\nL:1/4\nK:C\nE2 F | G A B | c3 | B3 |')).melody
    const schedule = melodySchedule({
      chart,
      home,
      plain: new Map(),
      melody: [],
      made: notes,
      version: 'new',
      countIn: 3,
    })
    expect(schedule.length).toBe(3 + 6 * 3)
    const tops = schedule.strikes.filter(({ midis }) => midis.length === 1 && firstOf(midis) >= 64)
    expect(tops.map(({ beat }) => beat).sort((a, b) => a - b)).toEqual([
      3, 5, 6, 7, 8, 9, 11, 12, 13, 14, 15, 18,
    ])
    expect(melody).toHaveLength(7)
    const whole = lineSchedule(chart, notes)
    expect(whole.strikes.filter(({ midis }) => midis.length > 1).length).toBe(
      notes.filter(({ under }) => under === 'chord').length,
    )
  })
  test('both in turn: the melody over the plain chords, then the chord melody', () => {
    const reading = readTuneDocument(made)
    const plain = new Map(reading.chords.map(({ key }) => [key, [48, 52, 55]]))
    const schedule = melodySchedule({
      chart,
      home: reading.chords,
      plain,
      melody: [],
      made: notes,
      version: 'both',
      countIn: 0,
    })
    expect(schedule.length).toBe(24)
    expect(schedule.strikes.filter(({ version }) => version === 'plain').every(({ beat }) => beat < 12)).toBe(
      true,
    )
    expect(schedule.strikes.filter(({ version }) => version === 'new').every(({ beat }) => beat >= 12)).toBe(
      true,
    )
  })
})

describe('a chord melody on other open strings', () => {
  const dropD = {
    ...DEFAULT_PLAYER,
    instrument: { ...DEFAULT_PLAYER.instrument, tuning: ['D2', 'A2', 'D3', 'G3', 'B3', 'E4'] },
  }
  const STANDARD = 'E2 A2 D3 G3 B3 E4 capo 0'
  const event = {
    bar: 1,
    beat: 1,
    beats: 4,
    again: false,
    frets: [3, null, 2, 4, 3, 3],
    symbol: 'G',
    note: 'G4',
    under: 'chord' as const,
    kind: 'own chord' as const,
  }
  const chart = parseChart('key: G\n| G |')
  const made = (on: string) =>
    edited(
      { ...newDocument('Tuned', 'key: G\n| G |'), melody: [note(1, 1, 'G4', 4)] },
      onInstrument({ kind: 'melody-kept', kept: [event] }, on),
      onInstrument(
        { kind: 'melody-fix', fixed: { '1:1': { frets: event.frets, symbol: 'G' } }, did: 'test' },
        on,
      ),
    )
  test('what is kept says for which strings it is', () => {
    expect(firstOf(made(STANDARD).chordMelody.kept).on).toBe(STANDARD)
    expect(made(STANDARD).chordMelody.fixed['1:1']!.on).toBe(STANDARD)
    expect(tuneDocument.safeParse(made(STANDARD)).success).toBe(true)
  })
  test('on others it is moved to the same pitches, never shown at the same frets', () => {
    const sounds = (body: typeof DEFAULT_PLAYER) =>
      keptNotes(made(STANDARD), chart, body).map(({ voicing }) => voicing.midis.join())
    expect(sounds(dropD)).toEqual(sounds(DEFAULT_PLAYER))
    expect(firstOf(keptNotes(made(STANDARD), chart, dropD)).voicing.frets[0]).toBe(5)
    expect(firstOf(fixedHere(made(STANDARD).chordMelody.fixed, 0, dropD))[1].frets).toEqual([
      5,
      null,
      2,
      4,
      3,
      3,
    ])
  })
  test('where no hand has it there it is left out, and is there again on its own strings', () => {
    const high = {
      ...dropD,
      instrument: { ...dropD.instrument, tuning: ['E4', 'E4', 'E4', 'E4', 'E4', 'E4'] },
    }
    expect(fixedHere(made(STANDARD).chordMelody.fixed, 0, high)).toEqual([])
    expect(keptNotes(made(STANDARD), chart, high)).toEqual([])
    expect(fixedHere(made(STANDARD).chordMelody.fixed, 0, DEFAULT_PLAYER)).toHaveLength(1)
  })
})
