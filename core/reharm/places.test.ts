import { itemAt } from '../lists'
import { readFileSync } from 'node:fs'
import fc from 'fast-check'
import { analyse } from '../analysis/analyse'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { parseChord } from '../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { pitchClass } from '../pitch/note'
import { must } from '../result'
import { firstAt, saysItTwice } from './atPlace'
import { reachOf } from './distance'
import { optionsAt } from './options'
import { parseKey } from '../pitch/key'
import { spotsOf } from './spot'

interface PlaceAsked {
  id: string
  text: string
  bar: number
  beat: number
  want: string[][]
  atLeast: number
  never: string[][]
}
// What players try first at a place, and what never; every tune invented. Common practice, no
// source.
const PLACES = JSON.parse(readFileSync('fit/versions/places.json', 'utf8')) as PlaceAsked[]

const chord = (symbol: string): ChordSymbol => must(parseChord(symbol))
const bassOf = (one: ChordSymbol) => pitchClass(one.bass ?? one.root)
const sounds = (one: ChordSymbol) =>
  [...new Set([...one.tones.map(({ note }) => pitchClass(note)), bassOf(one)])].sort((a, b) => a - b)
const key = (symbols: readonly string[]) =>
  symbols.map((symbol) => `${bassOf(chord(symbol))}:${sounds(chord(symbol)).join()}`).join(' ')
/** A plain seventh is also met by the same chord with a natural 9, 13 or #11. */
const meets = (want: readonly string[], offer: readonly string[]) =>
  key(want) === key(offer) ||
  (want.length === offer.length &&
    want.every((symbol, at) => {
      const [a, b] = [chord(symbol), chord(itemAt(offer, at))]
      const extra = sounds(b).filter((sound) => !sounds(a).includes(sound))
      return (
        pitchClass(a.root) === pitchClass(b.root) &&
        bassOf(a) === bassOf(b) &&
        hasDegree(a, '7', 'b7') &&
        sounds(a).every((sound) => sounds(b).includes(sound)) &&
        extra.every((sound) => [2, 6, 9].includes((sound - pitchClass(a.root) + 12) % 12))
      )
    }))

const offered = ({ text, bar, beat }: Pick<PlaceAsked, 'text' | 'bar' | 'beat'>) => {
  const index = slotsOf(parseChart(text)).findIndex((slot) => slot.bar === bar && slot.beat === beat)
  return optionsAt(text, index).map(({ puts }) => puts.map((put) => put.chord.canonical))
}

describe('what is offered first, by place', () => {
  test('what players try first is among the first eight, and what never is not among the first ten, at 95 of 100 places', () => {
    const judged = PLACES.map((place) => {
      const all = offered(place)
      const used = new Set<number>()
      for (const want of place.want) {
        const at = all.slice(0, 8).findIndex((offer, order) => !used.has(order) && meets(want, offer))
        if (at >= 0) used.add(at)
      }
      const never = place.never.filter((one) =>
        all.slice(0, 10).some((offer) => key(Array.isArray(one) ? one : [one]) === key(offer)),
      )
      return { wanted: used.size >= place.atLeast, clean: never.length === 0 }
    })
    const share = (of: (one: (typeof judged)[number]) => boolean) => judged.filter(of).length / judged.length
    expect(share(({ wanted }) => wanted)).toBeGreaterThanOrEqual(0.95)
    expect(share(({ clean }) => clean)).toBeGreaterThanOrEqual(0.95)
  })

  const symbol = fc
    .tuple(
      fc.constantFrom('C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'),
      fc.constantFrom(
        '',
        'm',
        '7',
        'maj7',
        'm7',
        'm7b5',
        'dim7',
        '6',
        'm6',
        'aug',
        '7sus4',
        'sus2',
        '/E',
        'm7/G',
      ),
    )
    .map((parts) => parts.join(''))
  test('every try of the table is a chord that can be read, in the time there is, and none says a chord twice', () => {
    fc.assert(
      fc.property(
        fc.array(symbol, { minLength: 2, maxLength: 9 }),
        fc.constantFrom('C', 'Am', 'F#', 'Ebm'),
        fc.constantFrom(
          '',
          'idiom: jazz\n',
          'idiom: song\n',
          'idiom: blues\n',
          'idiom: modal\n',
          'idiom: gospel\n',
        ),
        (chords, home, idiom) => {
          const text = `key: ${home}\n${idiom}| ${chords.join(' | ')} |`
          const chart = parseChart(text)
          for (const spot of spotsOf(chart, analyse(chart))) {
            for (const { puts, why } of spot ? firstAt(spot) : []) {
              expect(puts.every((put) => parseChord(put.chord.canonical).ok)).toBe(true)
              expect(puts.reduce((sum, { beats }) => sum + beats, 0)).toBeCloseTo(spot!.beats, 6)
              expect(why).toMatch(/[A-G]/)
              expect(saysItTwice(puts)).toBe(false)
            }
          }
        },
      ),
      { numRuns: 60 },
    )
  })
  test('the last V of a form is offered what it is before a written I', () => {
    const before = offered({ text: 'key: C\nidiom: jazz\n| Dm7 | G7 | Cmaj7 | Am7 |', bar: 2, beat: 1 })
    const atEnd = offered({ text: 'key: C\nidiom: jazz\n| Cmaj7 | Am7 | Dm7 | G7 |', bar: 4, beat: 1 })
    expect(atEnd.slice(0, 8)).toEqual(before.slice(0, 8))
  })
  test('a chord that lasts is offered as much in its second bar as in its first', () => {
    const text = 'key: C\nidiom: jazz\n| Cmaj7 | A7 | Dm7 | % | G7 | % | Cmaj7 | Am7 |'
    for (const bar of [3, 5])
      expect(offered({ text, bar: bar + 1, beat: 1 }).length).toBeGreaterThanOrEqual(
        offered({ text, bar, beat: 1 }).length * 0.8,
      )
  })
})

test('how far a change goes is heard in this order: colour, sus and bass, a chord of the key, a secondary dominant, borrowed, a substitute, a side step', () => {
  const reach = (from: string, to: string) => {
    const puts = (symbols: string) =>
      symbols.split(' ').map((one, _, all) => ({ chord: chord(one), beats: 4 / all.length }))
    return reachOf(puts(from), puts(to), must(parseKey('C')))
  }
  const rising = [
    ['C', 'Cmaj7'],
    ['C', 'Csus4 C'],
    ['C', 'Am7'],
    ['Am7', 'A7'],
    ['F', 'Fm'],
    ['G7', 'Db7'],
    ['Dm7', 'Ebm7 Ab7'],
  ].map(([from, to]) => reach(from!, to!))
  expect(rising).toEqual([...rising].sort((a, b) => a - b))
  expect(reach('Am', 'A')).toBeGreaterThan(reach('Am', 'Cmaj7'))
})
