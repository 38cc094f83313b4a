import { firstOf, itemAt, lastOf } from '../../../core/lists'
import { accompanied } from '../../../core/tune/accompaniment'
import { newDocument } from '../../../core/tune/document'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import { PLAIN_RHYTHM, type Rhythm } from '../../../core/tune/rhythmSchema'
import { LOOSEST } from '../../../core/rhythm/loose'
import { bandSchedule, timeOf, type HandTouch } from './bandSchedule'
import { placeIn } from './schedule'

const band = (text: string, set: Partial<Rhythm>, order: 'played' | 'written' = 'played') => {
  const document = { ...newDocument('Ferry', text), rhythm: { ...PLAIN_RHYTHM, ...set } }
  const reading = readTuneDocument(document)
  const grips = new Map(reading.line.map(({ key }) => [key, { midis: [48, 52, 55], strings: [] }]))
  return accompanied({ reading, document, which: 'new', grips, order })
}
const whole = (played: ReturnType<typeof band>) => ({
  version: 'new' as const,
  played,
  from: 0,
  to: lastOf(played.bars).to,
})

test('everybody plays from behind the count-in, and pass after pass', () => {
  const played = band('| C | F |', { figure: 'half notes', bass: 'roots', time: 'two and four' })
  const schedule = bandSchedule([whole(played), { ...whole(played), version: 'beside' }], 1, 4, 4)
  expect(schedule.clicks).toHaveLength(4)
  expect(schedule.length).toBe(20)
  expect(schedule.pass).toBe(8)
  expect(schedule.strikes.filter(({ part }) => part === 'guitar').map(({ beat }) => beat)).toEqual([
    4, 6, 8, 10, 12, 14, 16, 18,
  ])
  expect(schedule.strikes.filter(({ part }) => part === 'bass').map(({ beat }) => beat)).toEqual([
    4, 8, 12, 16,
  ])
  expect(schedule.beats!.map(({ beat }) => beat)).toEqual([5, 7, 9, 11, 13, 15, 17, 19])
  expect(placeIn(schedule, schedule, 14)).toBe(6)
})
test('eighths are swung, beats are not, and nothing lasts past the next place', () => {
  const played = band('| C |', {
    figure: {
      cycle: 1,
      hits: [0, 0.5].map((at) => ({
        at,
        length: 'held',
        part: 'all',
        accent: 'plain',
        stroke: 'down',
        push: false,
      })),
    },
  })
  const { strikes } = bandSchedule([whole(played)], 2, 0, 4)
  expect(strikes.slice(0, 3).map(({ beat }) => Number(beat.toFixed(4)))).toEqual([0, 0.6667, 1])
  expect(firstOf(strikes).beats).toBeCloseTo(2 / 3)
  expect(itemAt(strikes, 1).beats).toBeCloseTo(1 / 3)
})
test('a stretch begins with its own chord, though the figure pushes it over the beginning, and leaves out what belongs behind it', () => {
  const played = band('| C | F | G |', { figure: 'pushes on the and of four' }, 'written')
  const from = timeOf(played, { bar: 2, beat: 1 })
  const { strikes, length } = bandSchedule([{ version: 'new', played, from, to: from + 4 }], 1, 0, 4)
  expect(length).toBe(4)
  expect(strikes.map(({ beat, index }) => [beat, index])).toEqual([
    [0, 1],
    [1.5, 1],
  ])
})
test('accents are louder than plain hits, ghosts softer', () => {
  const { strikes } = bandSchedule([whole(band('| C | F |', { figure: 'ballad: roll and answer' }))], 1, 0, 4)
  const [roll, ghost] = strikes
  expect(ghost!.velocity).toBeLessThan(roll!.velocity)
  expect(lastOf(strikes).velocity).toBeGreaterThan(roll!.velocity)
})
test('the guitar is laid back, and loose by the seed: within its bound, always alike, and nobody else', () => {
  const played = band('| C | F | G | C |', { figure: 'four to the bar', bass: 'roots' })
  const struckBy = (set: Partial<HandTouch>) =>
    bandSchedule([whole(played)], 1, 0, 4, { behindMs: 0, loose: 0, seed: 1, msPerBeat: 500, ...set }).strikes
  const beats = (strikes: ReturnType<typeof struckBy>, part: string) =>
    strikes.filter((one) => one.part === part).map(({ beat }) => beat)
  expect(beats(struckBy({ behindMs: 50 }), 'guitar')[1]).toBeCloseTo(1.1)
  const loose = struckBy({ loose: 1 })
  expect(loose).toEqual(struckBy({ loose: 1 }))
  expect(beats(loose, 'guitar')).not.toEqual(beats(struckBy({ loose: 1, seed: 2 }), 'guitar'))
  expect(beats(loose, 'bass')).toEqual([0, 4, 8, 12])
  const off = beats(loose, 'guitar').map((beat, at) => Math.abs(beat - at) * 500)
  expect(Math.max(...off)).toBeLessThanOrEqual(LOOSEST.ms)
  expect(Math.max(...off)).toBeGreaterThan(1)
})
