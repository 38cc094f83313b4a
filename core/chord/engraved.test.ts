import { engraved, engravedWords } from './engraved'

test('flats and sharps of notes, degrees and numerals, inside a sentence', () => {
  const said: readonly (readonly [typed: string, engraved: string])[] = [
    ['Bb7 to Ebm', 'B♭7 to E♭m'],
    ['F#m7 has a b7 and a #11', 'F♯m7 has a ♭7 and a ♯11'],
    ['No: bII9/IV.', 'No: ♭II9/IV.'],
    ['bVImaj7, then #iv', '♭VImaj7, then ♯iv'],
    ['V7/bVI', 'V7/♭VI'],
    ['the bvii of it', 'the ♭vii of it'],
  ]
  for (const [typed, words] of said) expect(engravedWords(typed)).toBe(words)
})

test('words with a b stay words', () => {
  for (const words of ['a big bass behind Bill', 'above, vibrato, bit by bit', 'subvi', 'A bar of B'])
    expect(engravedWords(words)).toBe(words)
})

test('a symbol by itself', () => {
  expect(engraved('bII')).toBe('♭II')
  expect(engraved('Bb7#9')).toBe('B♭7♯9')
})
