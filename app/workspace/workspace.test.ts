import { firstOf, itemAt } from '../../core/lists'
import { newDocument } from '../../core/tune/document'
import fc from 'fast-check'
import { parseChart } from '../../core/chart/parseChart'
import { systemsOf } from '../services/notation/systemLayout'
import { inHome, inLine, moveFocus, rangeOf } from '../services/selection/selection'
import { madeChord, readTuneDocument } from '../../core/tune/tuneReading'
import { DEFAULT_PLAYER } from '../../core/player/playerSettings'
import { keptVoicings } from '../../core/tune/keptGrips'
import { summaryOf } from '../../db/summary'
import { rowOf, searchWordsOf } from '../features/songbook/entries'

describe('a document read for the screen', () => {
  const read = (text: string, more: object = {}) =>
    readTuneDocument({ text, colour: 2, choices: {}, fixed: {}, ...more })
  const one = (symbol: string, rule: string) => ({ chords: [{ symbol, beats: 4 }], span: 1, rule, at: 0 })
  const made = (text: string, more: object = {}) =>
    read(text, more).line.map((chord) => madeChord(chord)?.canonical ?? null)
  test('a chord chosen by hand stays whatever the control says, and one that cannot be read leaves the rest', () => {
    const text = 'key: C\n| C | Qx | G |'
    const more = { colour: 4, choices: { '1:1': one('C6', 'major-colour') } }
    expect(made(text, more)).toEqual(['C6', null, 'G13b9'])
    expect(read(text, more).chords.map((chord) => chord.decision?.by)).toEqual(['hand', undefined, 'control'])
  })
  test('a choice that its chord no longer offers is kept as chosen', () => {
    const reading = read('key: C\n| C | F | C |', { choices: { '2:1': one('G7alt', 'altered-dominant') } })
    expect(madeChord(itemAt(reading.line, 1))!.canonical).toBe('G7alt')
    expect(itemAt(reading.decisions, 1).because).toMatchObject({ name: 'as chosen', distance: null })
  })
  test('chords put in share the time of what they stand for, whatever its length is by now', () => {
    const choices = {
      '2:1': {
        chords: [
          { symbol: 'Dm7', beats: 3 },
          { symbol: 'Db7', beats: 1 },
        ],
        span: 1,
        rule: 'secondary-dominant',
        at: 0,
      },
    }
    const places = (text: string) =>
      read(text, { colour: 0, choices }).line.map(({ key, slot }) => `${key} ${slot.text} ${slot.beats}`)
    expect(places('| C | G | C |')).toEqual(['1:1 C 4', '2:1 Dm7 3', '2:4 Db7 1', '3:1 C 4'])
    expect(places('| C | G F | C |')).toEqual([
      '1:1 C 4',
      '2:1 Dm7 1.5',
      '2:2.5 Db7 0.5',
      '2:3 F 2',
      '3:1 C 4',
    ])
  })
  test('a choice that reaches beyond what can be read waits, and the control decides meanwhile', () => {
    const choices = { '2:1': { ...one('Dm7', 'cycle-of-major-thirds'), span: 3 } }
    expect(made('| C | G | Qx | C |', { colour: 0, choices })).toEqual(['C', 'G', null, 'C'])
  })
  test('no text breaks it', () => {
    fc.assert(
      fc.property(fc.string(), (text) => {
        expect(read(text).chords.length).toBeGreaterThanOrEqual(0)
      }),
    )
  })
})

describe('grips kept with a tune', () => {
  const document = {
    bass: 'chord' as const,
    fixed: {},
    grips: { '1:1': [null, 3, 2, 0, 0, 0], '2:1': [null, 0, 2, 0, 1, 0] },
  }
  const chordsFor = (colour: 0 | 1) =>
    readTuneDocument({ text: 'key: C\n| C | Am |', colour, choices: {}, fixed: {} }).line
  test('are shown for the chords they sound, and left out when the chord has changed', () => {
    expect([...keptVoicings(document, chordsFor(1), 0, DEFAULT_PLAYER).keys()]).toEqual(['1:1', '2:1'])
    expect([...keptVoicings(document, chordsFor(0), 0, DEFAULT_PLAYER).keys()]).toEqual([])
  })
  test('a grip fixed by hand always stays', () => {
    expect([
      ...keptVoicings(
        { ...document, fixed: { '1:1': [null, 3, 2, 0, 0, 0] } },
        chordsFor(0),
        0,
        DEFAULT_PLAYER,
      ).keys(),
    ]).toEqual(['1:1'])
  })
})

test('with a capo open strings sound at it, and the shape is named as if the nut were there', () => {
  const { chords, line } = readTuneDocument({
    text: 'key: D\ncapo: 2\n| D | Bm7 |',
    colour: 0,
    choices: {},
    fixed: {},
  })
  expect(chords.map((chord) => chord.played?.canonical)).toEqual(['C', 'Am7'])
  const document = { bass: 'chord' as const, fixed: {}, grips: { '1:1': [null, 5, 4, 0, 3, 0] } }
  expect(firstOf([...keptVoicings(document, line, 2, DEFAULT_PLAYER).values()]).midis).toEqual([
    50, 54, 57, 62, 66,
  ])
  expect([...keptVoicings(document, line, 0, DEFAULT_PLAYER).keys()]).toEqual([])
})

describe('the systems', () => {
  const layout = (text: string, room?: number) =>
    systemsOf(parseChart(text).bars, room).map(({ bars, edges }) => [
      bars.map((bar) => bar.number).join(' '),
      edges.map((edge) => Number(edge.toFixed(2))).join(' '),
    ])
  test('four bars each, a section begins a new one', () =>
    expect(layout('[A] | C | D | E | F | G |\n[B] | A |')).toEqual([
      ['1 2 3 4', '0 0.25 0.5 0.75 1'],
      ['5', '0 0.25'],
      ['6', '0 0.25'],
    ]))
  test('a pickup stands before the first bar', () =>
    expect(layout('pickup: 1\n| G | C | D | E | F | G |')).toEqual([
      ['0 1 2 3 4', '0 0.12 0.34 0.56 0.78 1'],
      ['5', '0 0.25'],
    ]))
  test('of two bars, the pickup has as much of a bar', () =>
    expect(layout('pickup: 1\n| G | C | D | E |', 2)).toEqual([
      ['0 1 2', '0 0.24 0.62 1'],
      ['3', '0 0.5'],
    ]))
})

test('the selection stays within the tune and stretches from its anchor', () => {
  expect(moveFocus({ anchor: 2, focus: 2 }, -5, false, 4)).toEqual({ anchor: 0, focus: 0 })
  expect(rangeOf(moveFocus({ anchor: 2, focus: 2 }, -1, true, 4))).toEqual([1, 2])
  expect(moveFocus({ anchor: 0, focus: 3 }, 1, true, 4)).toEqual({ anchor: 0, focus: 3 })
})

test('a selection goes from line to line: what stands for a chord, and the chord something stands for', () => {
  // Two chords for the first, one for the second and third together, one for the fourth.
  const line = [{ home: 0 }, { home: 0 }, { home: 1 }, { home: 3 }]
  const focusOf = (home: number) => inLine({ anchor: home, focus: home }, line).focus
  expect([0, 1, 2, 3].map(focusOf)).toEqual([0, 2, 2, 3])
  expect(inLine({ anchor: 0, focus: 2 }, line)).toEqual({ anchor: 0, focus: 2 })
  expect(inLine({ anchor: 3, focus: 0 }, line)).toEqual({ anchor: 3, focus: 0 })
  expect(inHome({ anchor: 1, focus: 3 }, line)).toEqual({ anchor: 0, focus: 3 })
})

describe('the songbook page', () => {
  const now = new Date(2026, 4, 20, 15).getTime()
  const entry = (title: string, text: string, touchedAt = now) => ({
    id: title,
    title,
    summary: summaryOf(newDocument(title, text)),
    tags: [],
    place: null,
    touchedAt,
  })
  test('a search is its words', () => expect(searchWordsOf('  water  D9 ')).toEqual(['water', 'D9']))
  test('a row says key (found where none is given), metre, bars and when', () => {
    expect(rowOf(entry('A', 'meter: 3/4\n| Am | E7 | Am |'), now)).toMatchObject({
      key: { mode: 'minor', tonic: { letter: 5, alter: 0 } },
      meter: '3/4',
      bars: 3,
      far: 'typed',
      touched: 'today',
    })
    expect(rowOf(entry('B', '', now - 16 * 3_600_000), now)).toMatchObject({
      key: null,
      bars: 0,
      far: 'empty',
      touched: 'yesterday',
    })
    expect(rowOf(entry('C', '| C |', now - 3 * 86_400_000), now).touched).toBe('3 days ago')
  })
})
