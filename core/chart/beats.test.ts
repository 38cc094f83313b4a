import { beatInWords } from './beats'

test.each([
  [3, 'beat 3'],
  [1.5, 'the “and” of 1'],
  [3.667, 'the last triplet of 3'],
  [3.333, 'the second triplet of 3'],
  [2.25, 'the second sixteenth of 2'],
  [4.75, 'the last sixteenth of 4'],
  [3.999, 'beat 4'],
  [1.4, 'beat 1.4'],
])('%d is %s', (beat, words) => expect(beatInWords(beat)).toBe(words))
