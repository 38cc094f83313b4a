import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { chord } from '../chord/parseChord'
import type { Change } from './change'
import { directionInWords } from './direction'

/** What sounds along a chart, of which the chords at some places are new. */
const along = (text: string, changed: readonly number[]) =>
  slotsOf(parseChart(text)).map((slot, at) => ({
    slot,
    put: { chord: chord(slot.text), beats: slot.beats },
    changed: changed.includes(at),
  }))
const change = (rule: string, intent: Change['intent'], symbols: readonly string[]): Change => ({
  rule,
  intent,
  name: rule,
  index: 0,
  span: 1,
  puts: symbols.map((symbol) => ({ chord: chord(symbol), beats: 4 })),
  why: '',
  mood: '',
  school: 'functional',
  depth: 1,
  landsOn: null,
})

describe('what a way does, in words', () => {
  test('a bass that steps four times walks; where nothing of it is new, nothing is said of it', () => {
    const text = '| C | G/B | Am | F/G | F |'
    expect(directionInWords(along(text, [1]), [])).toBe('the bass walks down from C to F in bars 1 to 5')
    expect(directionInWords(along(text, []), [])).toBe('the chords take colour and stay where they are')
    expect(directionInWords(along('| C | G/B | Am | C |', [1]), [])).not.toMatch(/walks/)
  })
  test('dominants that fall by fifths or half steps are a chain, to where they lead', () => {
    expect(directionInWords(along('| C | B7 | E7 | A7 | Dm7 |', [1]), [])).toMatch(
      /a chain of dominants leads to Dm7 in bars 2 to 5/,
    )
    expect(directionInWords(along('| C | A7 | Ab7 | G7 | C |', [2]), [])).toMatch(/leads to C in bars 2 to 5/)
  })
  test('what is borrowed and what is swapped is said', () => {
    expect(directionInWords(along('| C | F |', []), [change('d2', 'borrow', ['Fm6'])])).toBe('borrows Fm6')
    expect(
      directionInWords(along('| C | Dm7 | G7 |', []), [change('d3', 'borrow', ['Ebm7', 'Ab7', 'Dm7', 'G7'])]),
    ).toBe('borrows Ebm7, Ab7')
    expect(directionInWords(along('| C | F |', []), [change('b2', 'swap', ['Em7'])])).toBe(
      'one chord is another with the same job',
    )
  })
})
