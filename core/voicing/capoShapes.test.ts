import { parseChord } from '../chord/parseChord'
import { parseKey } from '../pitch/key'
import { pitchClass } from '../pitch/note'
import { must } from '../result'
import { capoPlaces, HIGHEST_CAPO } from './capoShapes'

const places = (symbols: string, key: string) =>
  capoPlaces(
    symbols.split(' ').map((symbol) => must(parseChord(symbol))),
    must(parseKey(key)),
  )

describe('where a capo makes a tune easy', () => {
  // Common practice, no source.
  test.each([
    ['Bb Gm Eb F', 'Bb', 3, 'G Em C D'],
    ['B E F#', 'B', 2, 'A D E'],
    ['Fm Db Ab Eb', 'Fm', 1, 'Em C G D'],
    ['G Em C D', 'G', 0, 'G Em C D'],
  ])('%s in %s: fret %i, played as %s', (symbols, key, capo, shapes) => {
    const [first] = places(symbols, key)
    expect(first!.capo).toBe(capo)
    expect(first!.open).toBe(symbols.split(' ').length)
    expect(first!.shapes.map(({ shape }) => shape.canonical).join(' ')).toBe(shapes)
  })

  test('what is fingered sounds the chord at every fret, most open chords first', () => {
    const all = places('Cm7 F7 Bbmaj7 Ebmaj7 Am7b5 D7 Gm Gm/F', 'Bb')
    expect(all).toHaveLength(HIGHEST_CAPO + 1)
    for (const { capo, shapes } of all)
      for (const { chord, shape } of shapes) {
        expect((pitchClass(shape.root) + capo) % 12).toBe(pitchClass(chord.root))
        expect(shape.tones.map(({ degree }) => degree)).toEqual(chord.tones.map(({ degree }) => degree))
      }
    const open = all.map((place) => place.open)
    expect(open).toEqual([...open].sort((a, b) => b - a))
  })

  test('a chord counts as often as it comes', () => {
    expect(places('G G G Cm', 'G').find(({ capo }) => capo === 0)!.open).toBe(3)
  })
})
