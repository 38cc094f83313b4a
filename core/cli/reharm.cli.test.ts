import { firstOf, itemAt } from '../lists'
import { answer, answerLine } from './answerRequest'

const good = (request: object) => {
  const reply = answer(request)
  if (!reply.ok) throw new Error(`${reply.error.code}: ${reply.error.message}`)
  return reply as unknown as Record<string, never>
}
const refused = (request: object) => {
  const reply = answer(request)
  return reply.ok ? null : { code: reply.error.code, where: reply.error.where }
}

describe('chart and analyse tell the form', () => {
  const text =
    'key: C\npickup: 1\ncapo: 2\n[A] | G7 |: C | F |1. G7 :|x2 |2. C Fine |\nkey: Eb\nmeter: 3/4\n[B] | Eb . Bb7 |'
  test('chart: bars with their numbers, signs, changes and the order in which they are played', () => {
    const chart = good({ do: 'chart', text }) as unknown as {
      capo: number
      pickup: number
      order: number[]
      text: string
      bars: Record<string, unknown>[]
    }
    expect([chart.capo, chart.pickup, chart.order]).toEqual([2, 1, [0, 1, 2, 3, 1, 2, 4, 5]])
    expect(
      chart.bars.map((bar) => [
        bar.number,
        bar.section,
        bar.meter,
        bar.key,
        bar.opensRepeat,
        bar.played,
        bar.ending,
        bar.marks,
      ]),
    ).toEqual([
      [0, 'A', '4/4', null, false, 0, [], []],
      [1, 'A', '4/4', null, true, 0, [], []],
      [2, 'A', '4/4', null, false, 0, [], []],
      [3, 'A', '4/4', null, false, 2, [1], []],
      [4, 'A', '4/4', null, false, 0, [2], ['Fine']],
      [5, 'B', '3/4', 'Eb', false, 0, [], []],
    ])
    expect(chart.bars.map((bar) => bar.chords)).toEqual([
      [{ symbol: 'G7', beat: 4, beats: 1 }],
      [{ symbol: 'C', beat: 1, beats: 4 }],
      [{ symbol: 'F', beat: 1, beats: 4 }],
      [{ symbol: 'G7', beat: 1, beats: 4 }],
      [{ symbol: 'C', beat: 1, beats: 4 }],
      [
        { symbol: 'Eb', beat: 1, beats: 2 },
        { symbol: 'Bb7', beat: 3, beats: 1 },
      ],
    ])
    expect((good({ do: 'chart', text: chart.text }) as unknown as typeof chart).bars).toEqual(chart.bars)
  })
  test('analyse: confidence, rivals, regions, the form, scales and reasons', () => {
    const found = good({ do: 'analyse', text: '| C | Am7 | Dm7 | G7 |' }) as unknown as {
      key: string
      keyGuessed: boolean
      confidence: number
      otherKeys: { key: string; confidence: number }[]
      form: string
      regions: unknown[]
      chords: { scale: { name: string; notes: string[] }; why: Record<string, string> }[]
    }
    expect([found.key, found.keyGuessed]).toEqual(['C', true])
    expect(found.confidence).toBeGreaterThan(firstOf(found.otherKeys).confidence)
    expect(found.regions).toEqual([{ key: 'C', from: { bar: 1, beat: 1 }, to: { bar: 4, beat: 1 } }])
    expect(found.form).toBe('4 bars; home C, found')
    expect(found.chords.map((one) => one.scale.name)).toEqual(['Ionian', 'Aeolian', 'Dorian', 'Mixolydian'])
    expect(itemAt(found.chords, 2).scale.notes).toEqual(['D', 'E', 'F', 'G', 'A', 'B', 'C'])
    expect(Object.keys(firstOf(found.chords).why)).toEqual(['roman', 'key', 'diatonic', 'scale'])
  })
})

describe('options', () => {
  const text = 'title: Kept\nkey: C\n| Dm7 | G7 | Cmaj7 |'
  interface Option {
    rule: string
    family: string
    intent: string
    symbols: string[]
    beats: number[]
    text: string
    why: string
    distance: number
    distanceParts: { tones: number; root: number }
    mood: string
    melody: { heard: string }[]
    also: unknown[]
    into: number
    out: number
    kept: string[]
    lost: string[]
    added: string[]
  }
  const options = (more: object = {}) =>
    (good({ do: 'options', text, bar: 2, beat: 1, ...more }) as unknown as { options: Option[] }).options
  test('each has what the contract names, and its text is the whole chart after it', () => {
    const [tritone] = options({ rules: ['b1'] })
    expect(tritone).toMatchObject({
      rule: 'tritone-substitution',
      family: 'b1',
      intent: 'swap',
      symbols: ['Db7'],
      beats: [4],
      text: 'title: Kept\nkey: C\n| Dm7 | Db7 | Cmaj7 |',
      distance: 0.6,
      distanceParts: { tones: 2, root: 5 },
      melody: [],
      kept: ['B', 'F'],
      lost: ['G', 'D'],
      added: ['Db', 'Ab'],
    })
    // Dm7 to Db7 and Db7 to Cmaj7, as sets: D C falls to Db Cb and so on (by hand).
    expect([tritone!.into, tritone!.out]).toEqual([3, 3])
    for (const option of options()) {
      expect(option.why).not.toBe('')
      expect(option.mood).not.toBe('')
      expect(option.symbols.length).toBe(option.beats.length)
      expect(option.text.startsWith('title: Kept\nkey: C\n|')).toBe(true)
    }
  })
  test('inside a chord that lasts only the rest of it is replaced; the style asked for decides what comes first', () => {
    const [first] = options({ beat: 3 })
    expect(first!.text).toContain('| G7 G13 |')
    expect(first!.text).not.toContain('idiom')
    const song = options({ idiom: 'song' })
    expect(firstOf(song).symbols).not.toEqual(firstOf(options({ idiom: 'jazz' })).symbols)
    expect(firstOf(song).text).not.toContain('idiom')
  })
  test('a letter names a family of rules, a melody is judged, depth goes further', () => {
    expect(new Set(options({ rules: ['b'] }).map((option) => option.family[0]))).toEqual(new Set(['b']))
    expect(
      firstOf(options({ rules: ['b1'], melody: [{ bar: 2, beat: 1, beats: 4, note: 'G4' }] })).melody,
    ).toMatchObject([{ heard: 'tension' }])
    expect(options({ depth: 2 }).length).toBeGreaterThan(options().length)
  })
  test.each([
    [{ bar: 2, beat: 2.5 }, 'no-chord', 'bar, beat'],
    [{ bar: 9, beat: 1 }, 'no-chord', 'bar, beat'],
    [{ rules: ['q9'] }, 'bad-field', 'rules'],
    [{ rules: [] }, 'bad-field', 'rules'],
    [{ depth: 9 }, 'bad-field', 'depth'],
    [{ melody: [{ bar: 1, beat: 1, beats: 1, note: 'H' }] }, 'bad-field', 'melody.0.note'],
    [{ louder: 1 }, 'unknown-field', 'louder'],
  ])('%j is refused with %s at %s', (more, code, where) =>
    expect(refused({ do: 'options', text, bar: 2, beat: 1, ...more })).toEqual({ code, where }),
  )
  test('a silence cannot be changed', () =>
    expect(refused({ do: 'options', text: '| N.C. |', bar: 1, beat: 1 })).toEqual({
      code: 'no-chord',
      where: 'bar, beat',
    }))
})

describe('reharmonise', () => {
  test('a chart without chords has nothing to change', () =>
    expect(refused({ do: 'reharmonise', text: '| N.C. |', distance: 0.5 })).toEqual({
      code: 'no-chord',
      where: 'text',
    }))
  const text = 'key: C\n| Cmaj7 | A7 | Dm7 | G7 | Cmaj7 | % |'
  interface Result {
    text: string
    distance: number
    choices: { bar: number; beat: number; rule: string; family: string; why: string; symbols: string[] }[]
  }
  const results = (more: object = {}) =>
    (good({ do: 'reharmonise', text, distance: 0.4, ...more }) as unknown as { results: Result[] }).results
  test('distance 0 is the plain chart; otherwise as many different ones as asked for, each choice with its place, rule and reason', () => {
    expect(results({ distance: 0, count: 3 })).toEqual([
      { text, distance: 0, reached: true, says: 'as it is', idea: 'as it is', faults: [], choices: [] },
    ])
    const three = results({ count: 3 })
    expect(new Set(three.map((result) => result.text)).size).toBe(3)
    for (const { choices, distance } of three) {
      expect(Math.abs(distance - 0.4)).toBeLessThan(0.1)
      expect(choices.length).toBeGreaterThan(0)
      for (const choice of choices) {
        expect(choice.family).toMatch(/^[a-fp]\d(\+[a-fp]\d)*$/)
        expect(choice.rule).toMatch(/^[a-z0-9]+(-[a-z0-9+]+)+$/)
        expect(choice.why).toMatch(/\.$/)
        expect(choice.beat).toBe(1)
      }
    }
  })
  test('every answer is deterministic, line by line', () => {
    const line = JSON.stringify({ do: 'reharmonise', text, distance: 0.7, count: 2, seed: 5 })
    expect(answerLine(line)).toEqual(answerLine(line))
  })
  test.each([
    [{ distance: 2 }, 'distance'],
    [{ distance: undefined }, 'distance'],
    [{ count: 0 }, 'count'],
    [{ seed: 1.5 }, 'seed'],
  ])('%j is refused', (more, where) =>
    expect(refused({ do: 'reharmonise', text, distance: 0.5, ...more })).toEqual({
      code: 'bad-field',
      where,
    }),
  )
})
