import { entryOf, firstOf, itemAt, theOne } from '../../../core/lists'
import { newDocument } from '../../../core/tune/document'
import { analyse } from '../../../core/analysis/analyse'
import { DEFAULT_PLAYER } from '../../../core/player/playerSettings'
import { limitsFor } from '../../../core/player/playerLimits'
import { itemsOf } from '../../../core/practice/items'
import { handTempo } from '../../../core/rhythm/handTempo'
import { chartOfLine } from '../../../core/tune/accompaniment'
import { keptVoicings } from '../../../core/tune/keptGrips'
import { withEveryGrip } from '../../../core/tune/searchQuestion'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import { passSchedule } from './passSchedule'
import { staged } from './stagedGrips'

const plain = newDocument(
  'Ferry',
  'key: C\ntempo: 120\n| Dm7 | G7 | Cmaj7 | A7 |\n| Dm7 G7 | Cmaj7 | F | C |',
)
const document = withEveryGrip(plain, readTuneDocument(plain), DEFAULT_PLAYER)
const reading = readTuneDocument(document)
const voicings = keptVoicings(document, reading.line, 0, DEFAULT_PLAYER)
const { chart, chordOf } = chartOfLine(reading, 'new')
const grips = new Map([...chordOf].map(([slot, { key }]) => [slot, entryOf(voicings, key)]))
const items = itemsOf({
  chart,
  analysis: analyse(chart),
  grips,
  hand: handTempo({ chart, grips, figure: null, limits: limitsFor(DEFAULT_PLAYER, 0, document.bass) }),
  goal: 120,
})
const of = (kind: string, at = 0) =>
  staged(
    itemAt(
      items.filter((item) => item.kind === kind),
      at,
    ),
    reading,
    voicings,
    'C',
  )
const schedule = (stage: ReturnType<typeof of>, guitar: 'silent' | 'soft' | 'heard' = 'silent') =>
  passSchedule({ staged: stage, reading, document, voicings, guitar, tempo: 90 })

test('what is staged: the chords of a passage, the two of a change, the one of a grip, each with its grip', () => {
  expect(of('passage').chords.map(({ index }) => index)).toEqual([0, 1, 2, 3])
  expect(of('passage', 1).chords.map(({ index }) => index)).toEqual([4, 5, 6, 7, 8])
  for (const at of items.filter(({ kind }) => kind === 'change').keys()) {
    const { chords, item, alone } = of('change', at)
    expect(alone).toBe(true)
    expect(chords).toHaveLength(2)
    expect(item.startsWith(firstOf(chords).chord.canonical)).toBe(true)
    expect(chords.every(({ voicing }) => voicing !== null)).toBe(true)
  }
  const grip = items.filter(({ kind }) => kind === 'grip')
  grip.forEach((_, at) => expect(of('grip', at).chords).toHaveLength(1))
})

test('a pass: a bar counted in, the passage alone, somebody keeps time, the guitar as loud as asked', () => {
  const passage = schedule(of('passage', 1))
  expect(passage.countIn).toBe(4)
  expect(passage.length).toBe(20)
  expect(passage.beats!.length).toBeGreaterThan(0)
  const guitar = passage.strikes.filter(({ part }) => part === 'guitar')
  expect(guitar.map(({ index }) => index)).toEqual([4, 5, 6, 7, 8])
  expect(guitar.every(({ levels }) => levels!.every((level) => level === 0))).toBe(true)
  expect(passage.strikes.some(({ part }) => part === 'bass')).toBe(true)
  expect(
    passage.strikes.filter(({ part }) => part === 'bass').every(({ levels }) => levels === undefined),
  ).toBe(true)
  const heard = theOne(schedule(of('passage', 1), 'heard').strikes, ({ part }) => part === 'guitar')
  const soft = theOne(schedule(of('passage', 1), 'soft').strikes, ({ part }) => part === 'guitar')
  expect(soft.levels![0]).toBeLessThan(firstOf(heard.levels!))
})

test('grips by themselves: a bar each, with a click on every beat', () => {
  const change = schedule(of('change'), 'heard')
  expect(change.strikes.map(({ beat, beats }) => [beat, beats])).toEqual([
    [4, 4],
    [8, 4],
  ])
  expect(change.beats!.map(({ beat }) => beat)).toEqual([4, 5, 6, 7, 8, 9, 10, 11])
})
