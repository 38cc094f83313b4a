import fc from 'fast-check'
import { inEnglish, nearSymbols, withCapitals } from './near'
import { parseSymbol } from './parseChord'

test.each([
  ['gsus', 'Gsus'],
  ['am7/g', 'Am7/G'],
  ['bb7', 'Bb7'],
  ['Am7', 'Am7'],
  ['nothing', 'nothing'],
  ['dog', 'dog'],
])('small roots are read: %s is %s', (typed, meant) => expect(withCapitals(typed)).toBe(meant))

test.each([
  ['CmC', 'Cm'],
  ['Cmaj77', 'Cmaj7'],
  ['Gsuss4', 'Gsus4'],
  ['Do', 'C'],
  ['Sol7', 'G7'],
  ['H7', 'B7'],
  ['Amn7', 'Am7'],
  ['cmja7', 'Cmaj7'],
  ['Ebm77', 'Ebm7'],
])('%s: %s is offered', (typed, meant) => expect(nearSymbols(typed)).toContain(meant))

test('whatever is offered can be read', () => {
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom(...'ABCDEFGHabcdefghmjsu7913#b/()-Do'), maxLength: 10 }),
      (text) => {
        for (const symbol of nearSymbols(text)) expect(parseSymbol(symbol).ok).toBe(true)
      },
    ),
  )
})

test.each([
  ['Bes7', 'Bb7'],
  ['Es', 'Eb'],
  ['As7/Es', 'Ab7/Eb'],
  ['Fis', 'F#'],
  ['His7', 'B#7'],
  ['Dis/Fis', 'D#/F#'],
  ['Cs', 'Cs'],
  ['Esus4', 'Esus4'],
  ['Hm7', 'Hm7'],
])('Dutch and German names: %s is %s', (typed, meant) => expect(inEnglish(typed)).toBe(meant))

test.each([
  ['ré7', 'D7'],
  ['so', 'G'],
  ['sol7', 'G7'],
  ['UT', 'C'],
])('syllables: %s is %s', (typed, meant) => expect(nearSymbols(typed)[0]).toBe(meant))
test('a syllable counts at the beginning only', () => expect(nearSymbols('xdo7')).not.toContain('C7'))
test('what can be read from the beginning on is offered as far as it goes', () =>
  expect(nearSymbols('Gmzzz')).toContain('Gm'))
