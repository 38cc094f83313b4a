import { firstOf, itemAt, lastOf } from '../lists'
import fc from 'fast-check'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { chord } from '../chord/parseChord'
import { colourAt, coloursOf, type ColourSetting } from './colour'
import {
  farInFull,
  farInWords,
  farthestPassage,
  howFar,
  offDial,
  onDial,
  tuneFar,
  tuneFarInWords,
} from './howFar'
import { optionsAt } from './options'
import { reharmonise } from './reharmonise'
import { spotsOf } from './spot'
import { DEFAULT_TASTE, rankedByTaste } from './taste'

const TEXT = 'key: C\n| Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 | G7 |'
const read = (text: string) => {
  const chart = parseChart(text)
  const analysis = analyse(chart)
  return { chart, analysis, spots: spotsOf(chart, analysis) }
}

describe('one measure of how far', () => {
  test.each([
    [0, 'as it is'],
    [0.1, 'near home'],
    [0.4, 'a little way out'],
    [0.5, 'half way'],
    [0.75, 'well out'],
    [1, 'far out'],
  ])('%d is %s', (share, words) => {
    expect(farInWords(share)).toBe(words)
    expect(farInFull(share)).toBe(share === 0 ? words : `${words} (${Math.round(share * 100)} of 100)`)
  })
  test('a way that was asked for at some distance measures so, whoever measures it', () => {
    const { chart, spots } = read(TEXT)
    for (const distance of [0.2, 0.5, 0.8, 1])
      for (const way of reharmonise(TEXT, { distance, count: 3 }))
        // At the very end nothing may go all the way: home and its arrivals stay.
        expect(Math.abs(tuneFar(chart, spots, way.changes) - distance)).toBeLessThan(
          distance < 1 ? 0.15 : 0.25,
        )
  })
  test('the control of a tune has its own scale, which goes one way and comes back', () => {
    fc.assert(
      fc.property(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.double({ min: 0, max: 1, noNaN: true }),
        (a, b) => {
          expect(onDial(offDial(a))).toBeCloseTo(a, 9)
          if (a < b) expect(offDial(a)).toBeLessThanOrEqual(offDial(b))
        },
      ),
    )
    expect([0, 0.2, 0.4, 0.5, 0.7, 1].map(tuneFarInWords)).toEqual([
      'as it is',
      'near home',
      'a little way out',
      'half way',
      'well out',
      'far out',
    ])
  })
  test('the passage that goes farthest is where the changes are', () => {
    const { chart, spots } = read(`${TEXT}\n| Cmaj7 | Am7 | Dm7 | G7 |`)
    const changed = [5, 6].map((index) => ({ index, span: 1, puts: [{ chord: chord('Eb7'), beats: 4 }] }))
    const passage = farthestPassage(chart, spots, changed)!
    expect(passage.from).toBeLessThanOrEqual(6)
    expect(passage.to).toBeGreaterThanOrEqual(7)
    expect(passage.far).toBeGreaterThan(tuneFar(chart, spots, changed))
    expect(farthestPassage(read('| C | F | G | C |').chart, spots, [])).toBeNull()
  })
  test('nothing changed is 0, more changed is never less, and a change alone is measured at its own place', () => {
    const { chart, spots } = read(TEXT)
    expect(howFar(chart, spots, [])).toBe(0)
    const options = [0, 2, 5].map((index) => optionsAt(TEXT, index).filter(({ span }) => span === 1))
    fc.assert(
      fc.property(fc.nat(50), fc.nat(50), fc.nat(50), (a, b, c) => {
        const picked = [a, b, c].map((at, place) =>
          itemAt(itemAt(options, place), at % itemAt(options, place).length),
        )
        const [one, two, three] = [1, 2, 3].map((count) => howFar(chart, spots, picked.slice(0, count)))
        expect(one! <= two! && two! <= three! && three! <= 1).toBe(true)
        expect(howFar(chart, spots, [itemAt(picked, 1)], 2, 2)).toBeGreaterThan(
          howFar(chart, spots, [itemAt(picked, 1)]),
        )
      }),
    )
  })
})

describe('the first things offered', () => {
  test('far out there are several ways, unlike each other', () => {
    const ways = reharmonise(TEXT, { distance: 1, count: 3 })
    expect(ways).toHaveLength(3)
    const chordsOf = (text: string) =>
      parseChart(text).bars.map((bar) => bar.slots.map((slot) => slot.text).join(' '))
    for (let a = 0; a < ways.length; a += 1)
      for (let b = a + 1; b < ways.length; b += 1)
        expect(
          chordsOf(itemAt(ways, a).text).filter((bar, at) => bar !== chordsOf(itemAt(ways, b).text)[at])
            .length,
        ).toBeGreaterThanOrEqual(3)
  })
  test('the first colour of a home chord is no special one', () => {
    for (const symbol of ['C', 'Cmaj7', 'C6']) {
      const colours = rankedByTaste(
        optionsAt(`key: C\n| ${symbol} | Dm7 | G7 | C |`, 0),
        DEFAULT_TASTE,
        {},
        () => ({
          before: null,
          behind: 2,
        }),
      ).filter(({ option }) => option.intent === 'colour')
      expect(firstOf(colours).option.name).not.toBe('special colour')
      expect(firstOf(firstOf(colours).option.puts).chord.canonical).not.toContain('#11')
    }
  })
})

describe('the colour of the whole tune', () => {
  const at = (symbol: string, setting: ColourSetting, before = '') => {
    const { analysis } = read(`key: C\n| ${before}${symbol} |`)
    return colourAt(coloursOf(lastOf(analysis.readings)), setting).chord.canonical
  }
  test.each([
    ['Cmaj7', 1, 'Cmaj7'],
    ['C6', 1, 'C6'],
    ['C', 1, 'Cmaj7'],
    ['C6/9', 2, 'C6/9'],
    ['Cmaj9', 2, 'Cmaj9'],
    ['Cmaj9', 1, 'Cmaj9'],
    ['Cmaj7', 2, 'Cmaj9'],
    ['C', 0, 'C'],
  ] as const)('%s at level %d is %s', (symbol, setting, made) =>
    expect(at(symbol, setting)).toBe(chord(made).canonical),
  )
  test('at no level does a chord that has a colour lose a tone it names', () => {
    for (const symbol of ['Cmaj7', 'C6', 'Dm7', 'G7', 'Fmaj7', 'Am7', 'G9', 'Dm9'])
      for (const setting of [1, 2, 3, 4] as const) {
        const made = chord(at(symbol, setting, 'C | '))
        for (const { degree, need } of chord(symbol).tones)
          if (need !== 'free' && !['6', '7'].includes(degree))
            expect(made.tones.map((tone) => tone.degree)).toContain(degree)
      }
  })
})
