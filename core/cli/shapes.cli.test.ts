import { answer } from './answerRequest'

const asked = (request: Record<string, unknown>) => {
  const reply = answer(request)
  if (!reply.ok) throw new Error(reply.error.message)
  return reply as unknown as Record<string, Record<string, unknown>[]>
}
const refused = (request: Record<string, unknown>) => {
  const reply = answer(request)
  return reply.ok ? null : reply.error
}

describe('walk', () => {
  test('a grip stepped down its key: the first step is what was given', () => {
    const { steps } = asked({ do: 'walk', frets: [7, null, 7, 7, 5, null], by: 'scale', key: 'G', steps: -1 })
    expect(steps!.map(({ frets }) => frets)).toEqual([
      [7, null, 7, 7, 5, null],
      [5, null, 5, 5, 3, null],
    ])
    expect(steps![1]).toMatchObject({ playable: true, notes: ['A2', 'G3', 'C4', 'D4'] })
  })

  test('by shape along the roots of a scale, in half steps, and by inversions', () => {
    const sus = { do: 'walk', frets: [3, 5, 5, 5, 3, 3] }
    expect(asked({ ...sus, by: 'shape', scale: 'G minor pentatonic' }).steps).toHaveLength(5)
    expect(
      asked({ ...sus, by: 'shape', steps: 3 }).steps!.map(({ frets }) => (frets as number[])[0]),
    ).toEqual([3, 4, 5, 6])
    expect(
      asked({ do: 'walk', frets: [null, null, 3, 3, 3, 3], by: 'inversions', steps: 2 }).steps,
    ).toHaveLength(3)
  })

  test('what is missing or wrong is said with its place', () => {
    expect(refused({ do: 'walk', frets: [3, 5, 5, 5, 3, 3], by: 'scale' })).toMatchObject({ where: 'scale' })
    expect(refused({ do: 'walk', frets: [3, 5, 5, 5, 3], by: 'shape' })).toMatchObject({ where: 'frets' })
    expect(
      refused({ do: 'walk', frets: [3, 5, 5, 5, 3, 3], by: 'scale', scale: 'D sideways' })?.message,
    ).toContain('dorian')
    expect(refused({ do: 'walk', frets: [null, null, null, null, null, null], by: 'shape' })).toMatchObject({
      code: 'bad-field',
    })
  })
})

describe('ring and capo', () => {
  test('each string, and each pair, least change first', () => {
    const { strings, pairs } = asked({ do: 'ring', text: 'key: E\n| B | F# | E | G#m |' })
    expect(strings).toHaveLength(6)
    expect(pairs).toHaveLength(15)
    expect(strings![0]).toMatchObject({ string: 2 })
    expect(refused({ do: 'ring', text: '| C |', string: 7 })).toMatchObject({ where: 'string' })
    expect(asked({ do: 'ring', text: '| C |', string: 2 }).strings).toHaveLength(1)
  })

  test('the frets of a capo with the shapes', () => {
    const { frets } = asked({ do: 'capo', text: 'key: B\n| B | E | F# | B |' })
    expect(frets![0]).toMatchObject({ capo: 2, open: 4, of: 4, shapes: ['A', 'D', 'E'] })
    expect(refused({ do: 'capo', text: '' })).toMatchObject({ code: 'no-chord' })
  })
})
