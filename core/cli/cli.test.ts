import { firstOf, itemAt } from '../lists'
import { midi } from '../pitch/note'
import { answer, answerLine, type Reply } from './answerRequest'

const good = (request: unknown) => {
  const reply = answer(request)
  if (!reply.ok) throw new Error(reply.error.message)
  return reply as Record<string, never> & { ok: true }
}
const refused = (reply: Reply) => (reply.ok ? null : reply.error)

describe('the command line keeps its contract', () => {
  test('parse', () => {
    expect(good({ do: 'parse', symbol: 'A7b9/C#' })).toEqual({
      ok: true,
      root: 'A',
      bass: 'C#',
      canonical: 'A7b9/C#',
      tones: [
        { degree: '1', note: 'A' },
        { degree: '3', note: 'C#' },
        { degree: '5', note: 'E' },
        { degree: 'b7', note: 'G' },
        { degree: 'b9', note: 'Bb' },
      ],
    })
    expect(good({ do: 'parse', symbol: 'C' }).bass).toBeNull()
  })
  test('chart', () => {
    expect(good({ do: 'chart', text: 'key: C\nmeter: 4/4\n[A] | C | Am . . Dm | G |' })).toMatchObject({
      key: 'C',
      meter: '4/4',
      problems: [],
      bars: [
        { section: 'A', chords: [{ symbol: 'C', beat: 1, beats: 4 }] },
        {
          section: 'A',
          chords: [
            { symbol: 'Am', beat: 1, beats: 3 },
            { symbol: 'Dm', beat: 4, beats: 1 },
          ],
        },
        { section: 'A', chords: [{ symbol: 'G' }] },
      ],
    })
  })
  test('analyse, in both schools', () => {
    const text = 'key: C\n| C | Dm7 G7 | C |'
    const reply = good({ do: 'analyse', text }) as unknown as {
      chords: { roman: string }[]
      groups: unknown[]
    }
    expect(reply.chords.map((one) => one.roman)).toEqual(['I', 'ii7', 'V7', 'I'])
    expect(reply.groups).toMatchObject([
      { kind: 'ii-V-I', key: 'C', from: { bar: 2, beat: 1 }, to: { bar: 3, beat: 1 }, resolves: true },
    ])
    expect(
      itemAt((good({ do: 'analyse', text, numerals: 'capitals' }) as unknown as typeof reply).chords, 1)
        .roman,
    ).toBe('IIm7')
  })
  test('voicings: total counts all, count cuts the list, the order is the one asked for', () => {
    const ask = (more: object) =>
      good({ do: 'voicings', symbol: 'G7', limits: { notes: [4, 4] }, ...more }) as unknown as {
        total: number
        voicings: {
          frets: unknown[]
          notes: string[]
          degrees: string[]
          difficulty: number
          reachMm: number
          fingers: unknown[]
          family: string
        }[]
      }
    const all = ask({})
    expect(all.voicings).toHaveLength(all.total)
    expect(ask({ count: 3 }).voicings).toEqual(all.voicings.slice(0, 3))
    // Known shapes first, by whatever name they are asked for; low and high by pitch.
    for (const sort of ['easy', 'reach']) expect(ask({ sort }).voicings).toEqual(all.voicings)
    expect(
      ask({ limits: {} })
        .voicings.slice(0, 2)
        .map(({ frets }) => frets.map((fret) => fret ?? 'x').join(' '))
        .sort(),
    ).toEqual(['3 2 0 0 0 1', '3 5 3 4 3 3'])
    const lows = ask({ sort: 'low' }).voicings.map(({ notes }) => Math.min(...notes.map(midi)))
    expect(lows).toEqual([...lows].sort((a, b) => a - b))
    for (const voicing of all.voicings) {
      expect(voicing.notes).toHaveLength(4)
      expect(voicing.degrees).toHaveLength(4)
      expect(voicing.frets).toHaveLength(6)
      expect(voicing.family).toBeTruthy()
    }
  })
  test('motion with pitches and with sounds', () => {
    expect(good({ do: 'motion', from: ['D3', 'F3', 'A3', 'C4'], to: ['D3', 'F3', 'G3', 'B3'] })).toEqual({
      ok: true,
      total: 3,
      held: 2,
      pairs: [
        ['D3', 'D3', 0],
        ['F3', 'F3', 0],
        ['A3', 'G3', -2],
        ['C4', 'B3', -1],
      ],
    })
    expect(good({ do: 'motion', from: ['C', 'E', 'G'], to: ['A', 'C', 'E'] }).total).toBe(2)
  })
  test('lead: one voicing a chord, one step fewer, fixed grips kept, best first', () => {
    const reply = good({
      do: 'lead',
      text: '| Dm7 | G7 | C |',
      count: 2,
      limits: { notes: [3, 4], frets: [0, 5] },
      fixed: { 1: [3, null, 3, 4, 3, null] },
    }) as unknown as {
      lines: {
        cost: number
        parts: Record<string, number>
        voicings: { symbol: string; frets: unknown[]; fingers: unknown[] }[]
        steps: unknown[]
      }[]
    }
    expect(reply.lines).toHaveLength(2)
    expect(firstOf(reply.lines).cost).toBeLessThanOrEqual(itemAt(reply.lines, 1).cost)
    for (const line of reply.lines) {
      expect(line.voicings.map((voicing) => voicing.symbol)).toEqual(['Dm7', 'G7', 'C'])
      expect(itemAt(line.voicings, 1).frets).toEqual([3, null, 3, 4, 3, null])
      expect(line.steps).toHaveLength(2)
      expect(Object.values(line.parts).reduce((sum, part) => sum + part, 0)).toBeCloseTo(line.cost, 2)
    }
  })
  test('finger and name', () => {
    expect(good({ do: 'finger', frets: [null, 3, 2, 0, 1, 0] })).toMatchObject({
      playable: true,
      fingerings: expect.arrayContaining([
        expect.objectContaining({ fingers: [null, 3, 2, 0, 1, 0], barres: [], thumb: false }),
      ]),
    })
    expect(good({ do: 'finger', frets: [1, 2, 3, 4, 5, 6] })).toMatchObject({
      playable: false,
      why: 'needs six fingers',
    })
    expect(good({ do: 'name', frets: [null, 3, 2, 0, 1, 0] })).toMatchObject({
      names: expect.arrayContaining([
        expect.objectContaining({ symbol: 'C', degrees: ['1', '3', '5', '1', '3'], rootless: false }),
      ]),
    })
  })
  test('limits: capo and tuning are heard', () => {
    const open = (limits: object) =>
      (
        good({ do: 'voicings', symbol: 'E', limits: { ...limits, frets: [0, 4] } }) as unknown as {
          voicings: { frets: (number | null)[] }[]
        }
      ).voicings.map((voicing) => voicing.frets.join())
    expect(open({})).toContain('0,2,2,1,0,0')
    const capo = good({ do: 'voicings', symbol: 'F', limits: { capo: 1, frets: [0, 5] } }) as unknown as {
      voicings: { frets: (number | null)[] }[]
    }
    expect(capo.voicings.map((voicing) => voicing.frets.join())).toContain('0,3,3,2,0,0')
    const dropD = good({
      do: 'voicings',
      symbol: 'D5',
      limits: { tuning: ['D2', 'A2', 'D3', 'G3', 'B3', 'E4'], frets: [0, 4] },
    }) as unknown as { voicings: { frets: (number | null)[] }[] }
    expect(dropD.voicings.map((voicing) => voicing.frets.join())).toContain('0,0,0,,,')
  })
  test('a range of frets above 0 leaves open strings out unless they are asked for', () => {
    const opens = (limits: object) =>
      (
        good({ do: 'voicings', symbol: 'Em7', limits }) as unknown as {
          voicings: { frets: (number | null)[] }[]
        }
      ).voicings.some((voicing) => voicing.frets.includes(0))
    expect([
      opens({}),
      opens({ frets: [5, 9] }),
      opens({ frets: [5, 9], open: true }),
      opens({ open: false }),
    ]).toEqual([true, false, true, false])
  })
  test.each([
    ['{', 'bad-json', 'line'],
    ['[]', 'bad-request', 'do'],
    ['{"do":"fly"}', 'unknown-do', 'do'],
    ['{"do":"import","content":"","format":"abc"}', 'bad-file', 'content'],
    ['{"do":"parse"}', 'bad-field', 'symbol'],
    ['{"do":"parse","symbol":"C","loud":1}', 'unknown-field', 'loud'],
    ['{"do":"parse","symbol":"H7"}', 'bad-chord', { at: 0, text: 'H7' }],
    ['{"do":"voicings","symbol":"C","limits":{"reach":"far"}}', 'bad-field', 'limits.reach'],
    ['{"do":"voicings","symbol":"C","limits":{"frets":[9,2]}}', 'bad-field', 'limits.frets'],
    ['{"do":"voicings","symbol":"C","limits":{"strings":[7]}}', 'bad-limits', 'limits.strings'],
    ['{"do":"voicings","symbol":"C","limits":{"x":1}}', 'unknown-field', 'limits.x'],
    ['{"do":"lead","symbols":["C"],"text":"| C |"}', 'bad-field', 'request'],
    ['{"do":"lead","symbols":["C"],"melody":[]}', 'bad-field', 'melody'],
    ['{"do":"lead","text":"| C | Q |"}', 'bad-chord', 'Q'],
    ['{"do":"finger","frets":[0,0,0,0]}', 'bad-field', 'frets'],
    ['{"do":"motion","from":["C4"],"to":["D"]}', 'bad-field', 'from, to'],
    ['{"do":"name"}', 'bad-field', 'request'],
  ])('%s is refused with %s', (line, code, where) => {
    const error = refused(answerLine(line))
    expect(error).toMatchObject({ code, where })
    expect(error!.message).not.toBe('')
  })
  test.each([
    ['{"do":"lead","symbols":3}', 'symbols is 3, which is not a list.'],
    ['{"do":"lead","symbols":["C"],"count":2.5}', 'count is 2.5, which is not a whole number.'],
    ['{"do":"reharmonise","text":"| C |","distance":7}', 'distance is 7; accepted is at most 1.'],
    ['{"do":"parse"}', 'symbol is missing.'],
    ['{"do":"lead","symbols":["C"],"style":"wobbly"}', /^style is “wobbly”; accepted is smooth, contrary/],
    ['{"do":"harmonise","text":"| C |","melody":[]}', 'melody; accepted is at least 1 entry.'],
    ['{"do":"lead"}', 'give either text or symbols'],
  ])('%s is refused in words, not in those of a library', (line, message) => {
    const { message: said } = answerLine(line).error as { message: string }
    if (typeof message === 'string') expect(said).toBe(message)
    else expect(said).toMatch(message)
    expect(said).not.toMatch(/Invalid|Too (big|small)|expected/)
  })
  test('the same request always has the same answer', () => {
    const line =
      '{"do":"lead","symbols":["Am7","D9","Gmaj7"],"count":3,"limits":{"notes":[3,4],"bass":"any","frets":[0,7]}}'
    expect(answerLine(line)).toEqual(answerLine(line))
  })
})
