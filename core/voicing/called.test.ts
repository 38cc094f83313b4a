import { soundAt, STANDARD_GUITAR, type Frets } from '../neck/instrument'
import { chord } from '../chord/parseChord'
import { parseKey } from '../pitch/key'
import { must } from '../result'
import { calledOf } from './called'

const midis = (frets: Frets) =>
  frets.flatMap((fret, string) => (fret === null ? [] : [soundAt(STANDARD_GUITAR, string, fret)]))
const called = (frets: Frets, symbol: string, key = 'C') => {
  const { sounds, foreign, missing } = calledOf(midis(frets), chord(symbol), must(parseKey(key)))
  return [sounds?.canonical ?? null, foreign, missing]
}

test('a grip of the chord is the chord, also without its fifth or its root', () => {
  expect(called([3, null, 3, 4, null, null], 'G7')).toEqual(['G7', [], []])
  expect(called([null, null, 3, 4, null, null], 'G7')).toEqual(['G7', [], []])
  expect(called([null, 3, 2, 0, 1, 0], 'C')).toEqual(['C', [], []])
})
test('a pulled note makes another chord: the symbol follows what sounds', () => {
  // The seventh of Db7 pulled up from Cb to C.
  expect(called([null, 4, 6, 4, 6, null], 'Db7', 'Db')).toEqual(['Db7', [], []])
  expect(called([null, 4, 6, 5, 6, null], 'Db7', 'Db')).toEqual(['Dbmaj7', ['7'], ['b7']])
  // The third of C pulled up to the fourth, down to the flat third.
  expect(called([null, 3, 3, 0, 1, null], 'C')[0]).toBe('Csus4')
  expect(called([null, 3, 1, 0, 1, null], 'C')[0]).toBe('Cm')
})
test('the root that was meant is kept where it gives a name', () => {
  const [name] = called([5, null, 5, 5, 3, null], 'Am7')
  expect(name).toMatch(/^Am/)
})
test('what has no usual name says so, with what is foreign', () => {
  const { sounds, foreign } = calledOf([48, 49, 50, 51], chord('C'))
  expect(sounds).toBeNull()
  expect(foreign.length).toBe(3)
})
