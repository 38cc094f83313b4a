import { firstOf, lastOf } from '../core/lists'
import { DEFAULT_PLAYER } from '../core/player/playerSettings'
import type { LinesQuestion } from '../core/tune/linesQuestion'
import { countingProgress, progressTo } from './answering'
import { importAnswers } from './importAnswers'
import { searchAnswers } from './searchAnswers'
import type { VersionsProgress } from './searchQuestions'

const { lines, first, ways, grips, book, related, easier, between } = searchAnswers
const body = { instrument: DEFAULT_PLAYER.instrument, hand: DEFAULT_PLAYER.hand }
const question: LinesQuestion = {
  symbols: ['Dm7', 'G7', 'Cmaj7'],
  fixed: [],
  bass: 'chord',
  capo: 0,
  style: 'smooth',
  count: 3,
  body,
  constraints: [],
  leading: { weights: null, loop: false, window: null, drone: null, contour: null, texture: null },
}

test('lines are led from plain data, and the first of them is the one that is told at once', () => {
  const found = lines(question, () => undefined)
  expect(found.lines).toHaveLength(3)
  expect(found.lines.every(({ voicings }) => voicings.length === 3)).toBe(true)
  // What it works out afterwards for the next question is not waited for.
  jest.useFakeTimers()
  const alone = first(question)!
  jest.clearAllTimers()
  jest.useRealTimers()
  expect(alone.voicings.map(({ frets }) => frets)).toEqual(
    firstOf(found.lines).voicings.map(({ frets }) => frets),
  )
})
test('where no line can be led the reason is what is thrown, with what is accepted', () => {
  expect(() => lines({ ...question, fixed: [[1, [15, 2, 15, 2, 15, 2]]] }, () => undefined)).toThrow(
    /Accepted: .+/,
  )
})
test('grips of a chord lie between their neighbours; those of the whole neck begin with a usual one', () => {
  const near = grips({ symbol: 'G7', bass: 'chord', capo: 0, before: [48, 53, 57, 60], after: null, body })
  expect(near.length).toBeGreaterThan(20)
  expect(firstOf(near).motion).toBeLessThan(lastOf(near).motion)
  expect(
    book({ symbol: 'C', body })
      .slice(0, 5)
      .map(({ frets }) => frets.join()),
  ).toContain(',3,2,0,1,0')
})
test('what belongs to a grip, an easier one, and ways on from it', () => {
  const frets = [null, 3, 5, 4, 5, null]
  const found = related({ symbol: 'Cmaj7', frets, capo: 0, bass: 'chord', key: 'C', body })
  expect(found.inversions.length).toBeGreaterThan(1)
  expect(new Set(found.scale.map(({ symbol }) => symbol))).toEqual(
    new Set(['Cmaj7', 'Dm7', 'Em7', 'Fmaj7', 'G7', 'Am7', 'Bm7b5']),
  )
  expect(
    related({
      symbol: 'Cmaj7',
      frets: [null, null, null, null, null, 9],
      capo: 0,
      bass: 'chord',
      key: null,
      body,
    }),
  ).toEqual({ easier: [], otherStrings: [], inversions: [], scale: [] })
  expect(
    firstOf(easier({ grips: [{ symbol: 'F', frets: [1, 3, 3, 2, 1, 1] }], capo: 0, bass: 'any', body }))!
      .easing,
  ).not.toBe('')
  const on = between({
    symbol: 'Cmaj7',
    frets,
    next: { symbol: 'Fmaj7', frets: null },
    capo: 0,
    bass: 'chord',
    body,
  })
  expect(firstOf(on.ways).motion).toBeLessThanOrEqual(lastOf(on.ways).motion)
  expect(on.ways.every(({ words }) => words.length > 0)).toBe(true)
})
test('ways through a tune are told one by one; together with grips that no hand has, the reason comes', () => {
  const told: VersionsProgress[] = []
  const asked = {
    text: '| Cmaj7 | Am7 | Dm7 | G7 |',
    distances: [0.5],
    keep: [],
    count: 2,
    taste: DEFAULT_PLAYER.taste,
    liking: {},
    melody: [],
    guards: {},
    joint: null,
  }
  expect(ways(asked, (one) => told.push(one))).toEqual({ none: null })
  const found = told.flatMap((one) => ('way' in one ? [one.way] : []))
  expect(found.length).toBeGreaterThan(0)
  expect(firstOf(found).changes.length).toBeGreaterThan(0)
  const noHand = {
    ...body,
    hand: { ...body.hand, missing: [1, 2, 3] as (1 | 2 | 3)[], barre: false, reachMm: 60 },
  }
  const none = ways(
    { ...asked, text: '| C13(#11,b9) |', joint: { style: 'smooth', bass: 'chord', capo: 0, body: noHand } },
    () => undefined,
  ).none
  expect(none).toMatch(/Accepted: .+/)
})
test('an answer says how often something was told before it, through a port', async () => {
  const { port1, port2 } = new MessageChannel()
  const heard: unknown[] = []
  port1.onmessage = ({ data }) => heard.push(data)
  const answers = countingProgress({
    count: (to: number, tell: (told: number) => void) => {
      for (let at = 0; at < to; at += 1) tell(at)
      return 'done'
    },
  })
  expect(await answers.count!(3, port2)).toEqual({ answer: 'done', sent: 3 })
  for (let tries = 0; tries < 100 && heard.length < 3; tries += 1)
    await new Promise((resolve) => setTimeout(resolve, 20))
  expect(heard).toEqual([0, 1, 2])
  port1.close()
})
test('progress is told no oftener than a page can draw it, and never asks a search to stop', () => {
  const told: number[] = []
  const tell = progressTo(({ done }) => told.push(done))
  for (let at = 0; at < 10_000; at += 1) expect(tell(at, 10_000)).toBe(true)
  expect(told.length).toBeLessThan(100)
})
test('a file that cannot be read says why', () => {
  const read = importAnswers.tune({ content: 'no tune', format: 'abc', part: null })
  expect(read.ok ? null : read.fault.accepted).toBeTruthy()
})
