import { firstOf, itemAt } from '../lists'
import { answer } from './answerRequest'

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

describe('figures', () => {
  test('are listed with what the contract names, all of them or those of a metre', () => {
    const { figures } = asked({ do: 'figures' }) as unknown as {
      figures: { name: string; cycle: number; hits: Record<string, unknown>[]; meters: string[] }[]
    }
    expect(figures.length).toBeGreaterThanOrEqual(24)
    for (const { hits } of figures)
      for (const hit of hits)
        expect(Object.keys(hit)).toEqual(
          expect.arrayContaining(['at', 'beats', 'part', 'accent', 'stroke', 'push']),
        )
    const waltzes = asked({ do: 'figures', meter: '3/4' }) as unknown as { figures: { meters: string[] }[] }
    expect(waltzes.figures.every(({ meters }) => meters.includes('3/4'))).toBe(true)
    expect(asked({ do: 'figures', meter: '7/16' })).toMatchObject({ ok: false, error: { code: 'no-figure' } })
  })
})

describe('rhythm', () => {
  const text = '| Dm7 | G7 | Cmaj7 | % |'
  const hitsOf = (more: Record<string, unknown>) =>
    asked({ do: 'rhythm', text, figure: 'pushes on the and of four', ...more }) as unknown as {
      hits: { bar: number; beat: number; symbol: string; pushed: boolean; ms?: number }[]
      swing?: number
    }
  test('hits in the order in which they sound, with the symbol that is pushed in', () => {
    expect(hitsOf({}).hits.slice(0, 3)).toMatchObject([
      { bar: 1, beat: 1, symbol: 'Dm7', pushed: false },
      { bar: 1, beat: 2.5, symbol: 'Dm7', pushed: false },
      { bar: 1, beat: 4.5, symbol: 'G7', pushed: true },
    ])
    expect(hitsOf({}).hits[0]).not.toHaveProperty('ms')
  })
  test('times in ms from 0, swung as asked or as the tempo and the figure have it', () => {
    const { hits, swing } = hitsOf({ times: { tempo: 120, swing: 2 } })
    expect(hits.map(({ ms }) => ms).slice(0, 3)).toEqual([0, 833.333, 1833.333])
    expect(swing).toBe(2)
    expect(itemAt(hitsOf({ times: { tempo: 120, swing: 'straight' } }).hits, 1).ms).toBe(750)
    expect(hitsOf({ times: { tempo: 240 } }).swing).toBeLessThan(1.4)
  })
  test('a figure of one’s own is a cycle of hits', () => {
    const own = {
      cycle: 1.5,
      hits: [{ at: 0, beats: 1, part: 'all', accent: 'plain', stroke: 'down', push: false }],
    }
    const { hits } = hitsOf({ figure: own, text: '| C | C |' })
    expect(hits.map(({ bar, beat }) => `${bar}:${beat}`)).toEqual([
      '1:1',
      '1:2.5',
      '1:4',
      '2:1.5',
      '2:3',
      '2:4.5',
    ])
  })
  test.each([
    [{ figure: 'five to the bar' }, 'no-figure', 'figure'],
    [{ figure: { cycle: 2, hits: [{ at: 2 }] } }, 'bad-field', 'figure'],
    [
      {
        text: `| ${'C | '.repeat(2000)}`,
        figure: { cycle: 0.25, hits: Array.from({ length: 256 }, (_, at) => ({ at: at / 1100 })) },
      },
      'too-long',
      'figure',
    ],
    [{ density: 1.5 }, 'bad-field', 'density'],
    [{ restart: 'line' }, 'bad-field', 'restart'],
    [{ times: { tempo: 5000 } }, 'bad-field', 'times.tempo'],
    [{ text: 'nothing' }, 'no-chord', 'text'],
  ])('%j is refused', (more, code, where) => {
    const reply = hitsOf(more) as unknown as { ok: boolean; error: { code: string; where: string } }
    expect(reply.ok).toBe(false)
    expect(reply.error.code).toBe(code)
    expect(reply.error.where).toContain(where)
  })
})

describe('tempo', () => {
  const symbols = ['C', 'Am', 'F']
  const voicings = [
    [null, 3, 2, 0, 1, 0],
    [null, 0, 2, 2, 1, 0],
    [1, 3, 3, 2, 1, 1],
  ]
  test('says how fast the hand gets there, the most limiting change first', () => {
    const { comfortable, changes } = asked({ do: 'tempo', symbols, voicings }) as unknown as {
      comfortable: number
      changes: { index: number; mm: number; fingers: number; comfortable: number; help: string[] }[]
    }
    expect(comfortable).toBe(firstOf(changes).comfortable)
    expect(changes.map(({ index }) => index)).toEqual([1, 0])
    expect(firstOf(changes).help.length).toBeGreaterThan(0)
  })
  test.each([
    [{ symbols, voicings: voicings.slice(1) }, 'bad-field', 'voicings'],
    [{ symbols, text: '| C |', voicings }, 'bad-field', ''],
    [{ symbols, voicings: [voicings[0], voicings[1], [1, 9, 3, 2, 1, 1]] }, 'not-playable', 'voicings'],
    [{ symbols, voicings, figure: 'none such' }, 'no-figure', 'figure'],
    [{ text: '| C | Am | Qx |', voicings }, 'unknown-symbol', ''],
  ])('%j is refused', (more, code, where) => {
    const reply = asked({ do: 'tempo', ...more }) as unknown as {
      ok: boolean
      error: { code: string; where: string }
    }
    expect(reply.ok).toBe(false)
    expect(code === 'unknown-symbol' || reply.error.code === code).toBe(true)
    expect(String(reply.error.where)).toContain(where)
  })
})
