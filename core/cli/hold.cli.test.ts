import { answer } from './answerRequest'

interface Held {
  lines: {
    voicings: {
      frets: (number | null)[]
      symbol: string
      chord: string
      of: number
      bar: number
      beat: number
      beats: number
    }[]
    holds: { from: number; to: number; idea: string; says: string }[]
  }[]
  says: string[]
}
const lead = (request: Record<string, unknown>) => answer({ do: 'lead', ...request })
const held = (request: Record<string, unknown>): Held => {
  const reply = lead(request)
  if (!reply.ok) throw new Error(reply.error.message)
  return reply as unknown as Held
}
const refused = (request: Record<string, unknown>) => {
  const reply = lead(request)
  return reply.ok ? null : reply.error
}

describe('lead with a chord that lasts', () => {
  test('a grip for each step, with its place and the chord it is of', () => {
    const { lines } = held({
      text: '| Amaj7 | % | D7 | E7 |',
      hold: { how: 'climbs', every: 'half', drone: 5 },
    })
    const [line] = lines
    expect(line!.voicings.map(({ of, bar, beat }) => `${of}:${bar}.${beat}`)).toEqual([
      '0:1.1',
      '0:1.3',
      '1:2.1',
      '1:2.3',
      '2:3.1',
      '2:3.3',
      '3:4.1',
      '3:4.3',
    ])
    expect(line!.holds[0]).toMatchObject({ from: 0, to: 3 })
    for (const { frets } of line!.voicings.slice(0, 4)) expect(frets[1]).toBe(0)
  })

  test.each([[5], ['A'], ['A2'], [true], [{ string: 5 }]])('a drone may be said as %j', (drone) => {
    const { lines } = held({ text: '| A | % |', hold: { how: 'climbs', every: 'bar', drone } })
    for (const { frets } of lines[0]!.voicings) expect(frets[1]).toBe(0)
  })

  test('symbols alone stand for a bar each, and five answers are unlike one another', () => {
    const { lines } = held({ symbols: ['Gm7', 'Gm7', 'Gm7'], count: 5, hold: { how: 'falls', every: 'bar' } })
    expect(lines).toHaveLength(5)
    expect(
      new Set(lines.map(({ voicings }) => JSON.stringify(voicings.map(({ frets }) => frets)))).size,
    ).toBe(5)
  })

  test('what cannot be is said with its place', () => {
    const hold = { how: 'climbs', every: 'bar' }
    const text = '| C | % |'
    expect(refused({ text, hold: { ...hold, every: 'week' } })?.where).toBe('hold.every')
    expect(refused({ text, hold: { ...hold, strings: [7, 2] } })).toMatchObject({ where: 'hold.strings' })
    expect(refused({ text, hold: { ...hold, drone: 'F#' } })).toMatchObject({ where: 'hold.drone' })
    expect(refused({ text, hold: { ...hold, drone: 8 } })).toMatchObject({ where: 'hold.drone' })
    expect(refused({ text, hold, melody: [{ bar: 1, beat: 1, beats: 4, note: 'E4' }] })?.where).toBe('hold')
  })
})
