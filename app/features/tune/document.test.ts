import { applyEdit, chartsOf, decidedByHand, newDocument } from './document'

const tune = newDocument('Test', 'key: C\n| C | Am | Dm | G7 |')

describe('a way through the whole tune', () => {
  const choose = (slot: string, symbol: string) => ({ kind: 'choose', slot, choice: { symbol, rule: 'b1' } }) as const
  const way = (choices: Record<string, string>) => ({ kind: 'way', did: 'way 1', choices: Object.fromEntries(Object.entries(choices).map(([slot, symbol]) => [slot, { symbol, rule: 'b1' }])) }) as const
  const symbols = (document: typeof tune) => Object.fromEntries(Object.entries(document.choices).map(([slot, choice]) => [slot, choice.symbol]))
  test('takes the place of the one before and leaves what was decided by hand: chords and grips', () => {
    const byHand = applyEdit(applyEdit(tune, choose('2:1', 'A7')), { kind: 'fix', slot: '3:1', frets: [null, 5, 7, 5, 6, null] })
    const first = applyEdit(byHand, way({ '1:1': 'Em7', '2:1': 'Cmaj7', '3:1': 'Fmaj7', '4:1': 'Db7' }))
    expect(symbols(first)).toEqual({ '1:1': 'Em7', '2:1': 'A7', '4:1': 'Db7' })
    expect([...decidedByHand(first)].sort()).toEqual(['2:1', '3:1'])
    expect(symbols(applyEdit(first, way({ '4:1': 'Bb7' })))).toEqual({ '2:1': 'A7', '4:1': 'Bb7' })
    expect(symbols(applyEdit(first, way({})))).toEqual({ '2:1': 'A7' })
  })
  test('one chord of it chosen anew is a choice by hand', () => {
    const changed = applyEdit(applyEdit(tune, way({ '4:1': 'Db7' })), choose('4:1', 'Bb7'))
    expect(decidedByHand(changed)).toEqual(new Set(['4:1']))
  })
})

describe('several charts of a tune', () => {
  test('a new one is a copy behind the one shown; each keeps its own', () => {
    const two = applyEdit(applyEdit(tune, { kind: 'chart-add', name: 'Later' }), { kind: 'text', text: '| F |' })
    expect(chartsOf(two).map((chart) => [chart.name, chart.text])).toEqual([['Plain', tune.text], ['Later', '| F |']])
    expect(applyEdit(two, { kind: 'chart-show', at: 0 })).toMatchObject({ chart: 'Plain', text: tune.text, at: 0 })
    expect(chartsOf(applyEdit(two, { kind: 'chart-remove' })).map((chart) => chart.name)).toEqual(['Plain'])
    expect(applyEdit(tune, { kind: 'chart-remove' })).toBe(tune)
  })
})
