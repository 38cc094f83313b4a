import { answer } from './answer'

const asked = (request: unknown) => answer(request) as unknown as Record<string, never> & { ok: boolean }

describe('bassline', () => {
  const text = 'key: C\n| Dm7 | G7 | Cmaj7 | % |'
  interface Note {
    bar: number
    beat: number
    beats: number
    note: string
    degree: string
    why: string
  }
  test('has what the contract names, a note for each beat of a walking line', () => {
    const { ok, notes } = asked({ do: 'bassline', text, kind: 'walking' }) as unknown as {
      ok: boolean
      notes: Note[]
    }
    expect(ok).toBe(true)
    expect(notes.map(({ bar, beat }) => `${bar}:${beat}`)).toEqual(
      [1, 2, 3, 4].flatMap((bar) => [1, 2, 3, 4].map((beat) => `${bar}:${beat}`)),
    )
    expect(notes[0]).toEqual({ bar: 1, beat: 1, beats: 1, note: 'D2', degree: '1', why: 'the root of Dm7' })
  })
  test('a seed gives another line, and the same one each time', () => {
    const line = (seed: number) => JSON.stringify(asked({ do: 'bassline', text, kind: 'walking', seed }))
    expect(line(3)).toBe(line(3))
    expect(new Set([0, 1, 2, 3, 4, 5].map(line)).size).toBeGreaterThan(1)
  })
  test.each([
    [{ kind: 'slap' }, 'bad-field', 'kind'],
    [{ kind: 'roots', seed: -1 }, 'bad-field', 'seed'],
    [{ kind: 'roots', swing: 2 }, 'unknown-field', 'swing'],
    [{ kind: 'roots', text: '| N.C. |' }, 'no-chord', 'text'],
  ])('%j is refused', (more, code, where) =>
    expect(asked({ do: 'bassline', text, ...more })).toMatchObject({ ok: false, error: { code, where } }),
  )
  test('a chart with a bar that cannot be read has a line for the rest, and says so', () => {
    const { notes, problems } = asked({
      do: 'bassline',
      text: '| C | Qx | F |',
      kind: 'roots',
    }) as unknown as {
      notes: Note[]
      problems: unknown[]
    }
    expect(notes.map(({ bar }) => bar)).toEqual([1, 3])
    expect(problems).toHaveLength(1)
  })
})
