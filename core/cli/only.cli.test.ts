import { answer } from './answerRequest'

const lead = (request: Record<string, unknown>) => answer({ do: 'lead', ...request })
const x = null
const SHAPES = [
  [5, x, 5, 5, 5, x],
  [x, 5, 7, 5, 7, x],
]

describe('lead held to known grips', () => {
  test('a chord none serves is silent, named, and what would help is said', () => {
    const reply = lead({ text: '| Dm7 | G7 | Cmaj7 |', only: SHAPES })
    expect(reply).toMatchObject({
      ok: true,
      holes: [{ index: 2, symbol: 'Cmaj7' }],
      wouldHelp: { symbol: 'Cmaj7', fills: [2] },
    })
    const [line] = (reply as unknown as { lines: { voicings: { frets: (number | null)[] }[] }[] }).lines
    expect(line!.voicings.map(({ frets }) => frets)).toEqual([
      [10, x, 10, 10, 10, x],
      [x, 10, 12, 10, 12, x],
      [x, x, x, x, x, x],
    ])
  })

  test('by a stage, and with new ones', () => {
    expect(lead({ text: '| Dm9 | G13 | C |', only: 'shells' })).toMatchObject({
      ok: true,
      holes: [],
      wouldHelp: null,
    })
    expect(lead({ text: '| Dm7 | G7 | Cmaj7 |', only: SHAPES, new: 1 })).toMatchObject({
      ok: true,
      holes: [],
      new: [{ symbol: 'Cmaj7', fills: [2] }],
    })
  })

  test('what cannot be is said with its place', () => {
    const refused = (request: Record<string, unknown>) => {
      const reply = lead({ text: '| C | F |', ...request })
      return reply.ok ? null : reply.error.where
    }
    expect(refused({ only: 'everything' })).toBe('only')
    expect(refused({ only: [[x, x, x, x, x, x]] })).toBe('only.0')
    expect(refused({ only: [[1, 2, 3, 4]] })).toBe('only.0')
    expect(refused({ new: 2 })).toBe('new')
    expect(refused({ only: SHAPES, hold: { how: 'climbs', every: 'bar' } })).toBe('hold')
    expect(refused({ only: SHAPES, loop: true })).toBe('loop')
  })
})
