import { INTENTS } from '../../../core/reharm/change'
import { readTuneDocument } from '../workspace/useTuneReading'
import { offeredFor } from './offered'
import { reasonsOf } from './reasons'

const read = (text: string, choices = {}) => readTuneDocument({ text, colour: 0, choices, fixed: {} })
const offered = (text: string, index: number) => { const { chart, analysis, chords } = read(text); return offeredFor(chords[index]!, chart, analysis) }

describe('what the drawer offers for one chord', () => {
  const text = 'key: C\n| Dm7 | G7 | Cmaj7 |'
  test('the plain chord first, then by intent; within an intent the nearest to home first', () => {
    const list = offered(text, 1)
    expect(list[0]).toMatchObject({ name: 'as it is', distance: null })
    const intents = list.map((one) => INTENTS.indexOf(one.intent))
    expect(intents).toEqual([...intents].sort((a, b) => a - b))
    const swaps = list.filter((one) => one.intent === 'swap').map((one) => one.distance!.total)
    expect(swaps).toEqual([...swaps].sort((a, b) => a - b))
    expect(new Set(list.map((one) => one.option.chord.canonical)).size).toBe(list.length)
  })
  test('only what takes no time from another chord', () => {
    expect(offered(text, 0).some((one) => one.name.includes('ii-V from a half step'))).toBe(false)
    expect(offered(text, 1).map((one) => one.option.chord.canonical)).toContain('Db7')
  })
  test('a swap chosen is kept with its reason; when its place has another job the choice stays, and that is said', () => {
    const choices = { '2:1': { symbol: 'Db7', rule: 'b1' } }
    const [, made] = read(text, choices).chords
    expect([made!.made!.chord.canonical, made!.byHand, made!.chosen]).toEqual(['Db7', true, true])
    expect(made!.made!.why).toContain('has the third and seventh of G7, swapped')
    expect(made!.made!.added).toEqual(['1', '5'])
    const [, moved] = read('key: C\n| Dm7 | G7 | F |', choices).chords
    expect([moved!.made!.chord.canonical, moved!.made!.why]).toEqual(['Db7', 'Chosen by hand when this chord stood elsewhere or had another job.'])
  })
  test('what a way through the tune put there is chosen, but not by hand', () => {
    const [, made] = read(text, { '2:1': { symbol: 'Db7', rule: 'b1', by: 'tune' } }).chords
    expect([made!.byHand, made!.chosen]).toEqual([false, true])
  })
})

test('the page of reasons: every chord changed, how, by whom and how far', () => {
  const choices = { '2:1': { symbol: 'Db7', rule: 'b1' }, '3:1': { symbol: 'Em7', rule: 'b2', by: 'tune' as const } }
  const reading = readTuneDocument({ text: 'key: C\n| Dm7 | G7 | Cmaj7 | N.C. |', colour: 2, choices, fixed: {} })
  expect(reasonsOf(reading, { choices }).map(({ chord, made, how, distance, byWhom }) => [chord.slot.text, made.chord.canonical, how, distance?.toFixed(2), byWhom])).toEqual([
    ['Dm7', 'Dm9', 'colour', '0.10', ''], ['G7', 'Db7', 'tritone substitution', '0.60', 'by hand'], ['Cmaj7', 'Em7', 'shared tones: iii for I', '0.20', 'with the whole tune'],
  ])
  expect(reasonsOf(readTuneDocument({ text: '| C |', colour: 0, choices: {}, fixed: {} }), { choices: {} })).toEqual([])
})
