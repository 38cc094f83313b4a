import { newDocument, type TuneDocument } from './document'
import { applyEdit } from './tuneEdit'
import { chartsOf } from './edits/chartEdits'
import { decidedByHand } from './edits/colourEdits'
import { readTuneDocument } from './tuneReading'
import { tryEdit } from './tryEdit'

const one = (symbol: string) => ({
  chords: [{ symbol, beats: 4 }],
  span: 1,
  rule: 'tritone-substitution',
  at: 1,
})
const tune = newDocument('Test', 'key: C\n| C | Am | Dm | G7 |')

describe('a way through the whole tune', () => {
  const choose = (slot: string, symbol: string) => ({ kind: 'choose', slot, choice: one(symbol) }) as const
  const way = (choices: Record<string, string>) =>
    ({
      kind: 'way',
      did: 'way 1',
      choices: Object.fromEntries(Object.entries(choices).map(([slot, symbol]) => [slot, one(symbol)])),
    }) as const
  const symbols = (document: typeof tune) =>
    Object.fromEntries(
      Object.entries(document.choices).map(([slot, choice]) => [
        slot,
        choice.chords.map((put) => put.symbol).join(' '),
      ]),
    )
  test('takes the place of the one before and leaves what was decided by hand: chords and grips', () => {
    const byHand = applyEdit(applyEdit(tune, choose('2:1', 'A7')), {
      kind: 'fix',
      slot: '3:1',
      frets: [null, 5, 7, 5, 6, null],
    })
    const first = applyEdit(byHand, way({ '1:1': 'Em7', '2:1': 'Cmaj7', '3:1': 'Fmaj7', '4:1': 'Db7' }))
    expect(symbols(first)).toEqual({ '1:1': 'Em7', '2:1': 'A7', '4:1': 'Db7' })
    expect([...decidedByHand(first)].sort()).toEqual([1, 2])
    expect(symbols(applyEdit(first, way({ '4:1': 'Bb7' })))).toEqual({ '2:1': 'A7', '4:1': 'Bb7' })
    expect(symbols(applyEdit(first, way({})))).toEqual({ '2:1': 'A7' })
  })
  test('one chord of it chosen anew is a choice by hand', () => {
    const changed = applyEdit(applyEdit(tune, way({ '4:1': 'Db7' })), choose('4:1', 'Bb7'))
    expect(decidedByHand(changed)).toEqual(new Set([3]))
  })
})

describe('several charts of a tune', () => {
  test('a new one is a copy behind the one shown; each keeps its own', () => {
    const two = applyEdit(applyEdit(tune, { kind: 'chart-add', name: 'Later' }), {
      kind: 'text',
      text: '| F |',
    })
    expect(chartsOf(two).map((chart) => [chart.name, chart.text])).toEqual([
      ['Plain', tune.text],
      ['Later', '| F |'],
    ])
    expect(applyEdit(two, { kind: 'chart-show', at: 0 })).toMatchObject({
      chart: 'Plain',
      text: tune.text,
      at: 0,
    })
    expect(chartsOf(applyEdit(two, { kind: 'chart-remove' })).map((chart) => chart.name)).toEqual(['Plain'])
    expect(applyEdit(tune, { kind: 'chart-remove' })).toBe(tune)
  })
})

describe('a choice that stands for several chords', () => {
  const long = {
    chords: [
      { symbol: 'Dm7', beats: 4 },
      { symbol: 'G7', beats: 4 },
    ],
    span: 2,
    rule: 'secondary-dominant',
    at: 1,
  }
  const places = (document: typeof tune) => Object.keys(document.choices).sort()
  const chosen = applyEdit(tune, { kind: 'choose', slot: '2:1', choice: long })
  test('takes the place of others on the same chords, and is given way to by them', () => {
    const before = applyEdit(applyEdit(tune, { kind: 'choose', slot: '3:1', choice: one('F') }), {
      kind: 'fix',
      slot: '3:1',
      frets: [null, 5, 7, 5, 6, null],
    })
    const after = applyEdit(before, { kind: 'choose', slot: '2:1', choice: long })
    expect([places(after), Object.keys(after.fixed)]).toEqual([['2:1'], []])
    expect(places(applyEdit(after, { kind: 'choose', slot: '3:1', choice: one('F') }))).toEqual(['3:1'])
    expect([...decidedByHand(after)]).toEqual([1, 2])
  })
  test('a way through the tune leaves it alone', () => {
    expect(
      places(
        applyEdit(chosen, {
          kind: 'way',
          did: 'way 1',
          choices: { '1:1': one('Em7'), '3:1': one('F'), '4:1': one('Db7') },
        }),
      ),
    ).toEqual(['1:1', '2:1', '4:1'])
  })
  test('follows its chords through the chart as long as all of them stand in a row', () => {
    expect(places(applyEdit(chosen, { kind: 'text', text: 'key: C\n| F | C | Am | Dm | G7 |' }))).toEqual([
      '3:1',
    ])
    expect(places(applyEdit(chosen, { kind: 'text', text: 'key: C\n| C | Am | F | Dm | G7 |' }))).toEqual([])
  })
  test('a grip inside keeps its distance from the chord it stands in', () => {
    const fixed = applyEdit(chosen, { kind: 'fix', slot: '2:3', frets: [null, 5, 7, 5, 6, null] })
    expect(
      Object.keys(applyEdit(fixed, { kind: 'text', text: 'key: C\n| F | C | Am | Dm | G7 |' }).fixed),
    ).toEqual(['3:3'])
  })
  test('goes along into another key, still as the way through the tune put it', () => {
    const byTune = applyEdit(tune, { kind: 'way', did: 'way 1', choices: { '2:1': long } })
    expect(applyEdit(byTune, { kind: 'transpose', to: 'D' }).choices['2:1']).toEqual({
      ...long,
      chords: [
        { symbol: 'Em7', beats: 4 },
        { symbol: 'A7', beats: 4 },
      ],
      by: 'tune',
    })
  })
  test('several places are put back as one step', () => {
    const two = applyEdit(chosen, { kind: 'choose', slot: '4:1', choice: one('Db7') })
    expect(
      places(applyEdit(two, { kind: 'choose-many', choices: { '2:1': null, '4:1': null }, did: 'back' })),
    ).toEqual([])
  })
})

test('what a search found takes no grip by hand’s place, on whatever instrument, and taking it twice changes nothing', () => {
  const made = applyEdit(newDocument('Fixed', '| C | G7 |'), {
    kind: 'fix',
    slot: '1:1',
    frets: [null, 3, 2, 0, 1, 0],
    on: 'E2 A2 D3 G3 B3 E4 capo 0',
  })
  const found = {
    kind: 'grips' as const,
    grips: { '1:1': [null, 5, 5, 5, 5, null], '2:1': [3, 2, 0, 0, 0, 1] },
    on: 'D2 A2 D3 G3 B3 E4 capo 0',
  }
  const kept = applyEdit(made, found)
  expect(kept.grips['1:1']).toEqual([null, 3, 2, 0, 1, 0])
  expect(kept.gripsOn).toEqual({ '1:1': 'E2 A2 D3 G3 B3 E4 capo 0', '2:1': 'D2 A2 D3 G3 B3 E4 capo 0' })
  expect(applyEdit(kept, found)).toEqual(kept)
})

describe('some bars of a version', () => {
  const choose = (slot: string, symbol: string) => ({ kind: 'choose', slot, choice: one(symbol) }) as const
  const bars = (from: number, to: number) =>
    ({ kind: 'version-bars', name: 'Sly', from, to, at: 5, did: 'bars of Sly' }) as const
  const lineOf = (document: typeof tune) =>
    readTuneDocument(document).line.map(({ slot }) =>
      slot.symbol?.kind === 'chord' ? slot.symbol.chord.canonical : slot.text,
    )
  const sly = [choose('2:1', 'A7'), choose('4:1', 'Db7')].reduce(applyEdit, tune)
  const kept = applyEdit(sly, { kind: 'version-keep', name: 'Sly', at: 1 })
  const now = [
    { kind: 'choose', slot: '2:1', choice: null } as const,
    { kind: 'choose', slot: '4:1', choice: null } as const,
    choose('1:1', 'Em7'),
    choose('3:1', 'D7'),
  ].reduce<typeof tune>(applyEdit, kept)
  test('take the place of those that stand there; the others stay as they are', () => {
    expect(lineOf(now)).toEqual(['Em7', 'Am', 'D7', 'G7'])
    expect(lineOf(applyEdit(now, bars(2, 3)))).toEqual(['Em7', 'Am', 'Dm', 'Db7'])
    expect(lineOf(applyEdit(now, bars(0, 1)))).toEqual(['C', 'A7', 'D7', 'G7'])
    expect(lineOf(applyEdit(now, bars(0, 3)))).toEqual(lineOf(sly))
    // Decided by hand from then on: a way through the tune leaves them.
    expect([...decidedByHand(applyEdit(now, bars(2, 3)))]).toContain(3)
  })
  test('sound as in the version though the colour of the tune is another; bring their grips', () => {
    const frets = [null, 4, 3, 4, 2, null]
    const fixed = applyEdit(applyEdit(kept, { kind: 'fix', slot: '4:1', frets }), {
      kind: 'version-keep',
      name: 'Sly',
      at: 2,
    })
    const coloured = applyEdit({ ...fixed, choices: {}, fixed: {} }, { kind: 'colour', colour: 2 })
    const taken = applyEdit(coloured, bars(0, 3))
    expect(lineOf(taken)).toEqual(lineOf(sly))
    expect(taken.fixed['4:1']).toEqual(frets)
  })
  test('a grip by hand stays with its chord when the colour control goes up and down; the other chords change', () => {
    const frets = [null, 3, 2, 4, 3, null]
    const held = applyEdit(applyEdit(tune, { kind: 'colour', colour: 1 }), {
      kind: 'fix',
      slot: '1:1',
      frets,
    })
    const [was] = lineOf(held)
    for (const colours of [[0], [2], [0, 1], [2, 0, 1]] as const) {
      const now = colours.reduce<TuneDocument>(
        (made, colour) => applyEdit(made, { kind: 'colour', colour }),
        held,
      )
      expect(now.fixed['1:1']).toEqual(frets)
      expect(lineOf(now)[0]).toBe(was)
    }
    const plain = applyEdit(held, { kind: 'colour', colour: 0 })
    expect(lineOf(plain).slice(1)).not.toEqual(lineOf(held).slice(1))
  })
  test('are refused where there is no such version any more', () => {
    expect(tryEdit(tune, bars(0, 1))).toMatchObject({ ok: false })
  })
})
