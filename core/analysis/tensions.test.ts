import { itemAt } from '../lists'
import { parseChart } from '../chart/parseChart'
import { COLOURS } from '../reharm/catalogue'
import { chord } from '../chord/parseChord'
import { hasDegree } from '../chord/symbol'
import { semitonesOf, type Degree } from '../pitch/degree'
import { analyse } from './analyse'
import { availableTensions, whyTension } from './tensions'
import type { Role } from './role'

describe('available tensions by function (Nettles & Graf; Levine; from memory)', () => {
  const at = (text: string, index: number) => {
    const reading = itemAt(analyse(parseChart(text)).readings, index)
    if (reading.slot.symbol?.kind !== 'chord') throw new Error('a reading has a chord')
    return availableTensions(reading.slot.symbol.chord, reading.role)
  }
  test.each([
    ['key: C\n| C | F |', 0, '6 7 9 13', '#11', '11'],
    ['key: C\n| Dm7 | F |', 0, '9 11', '13 6', ''],
    ['key: C\n| Em7 | F |', 0, '11', '9', 'b9 b13'],
    ['key: C\n| Fmaj7 | C |', 0, '6 9 #11 13', '', ''],
    ['key: C\n| G7 | C |', 0, '9 13 4', 'b9 #9 #11 b5 b13 #5', '11'],
    ['key: Am\n| E7 | Am |', 0, 'b9 b13 #9', '9 13', '11'],
    ['key: C\n| Am7 | F |', 0, '9 11', '', 'b13'],
    ['key: C\n| Bm7b5 | F |', 0, '11 b13', '9', 'b9'],
    ['key: Am\n| Am | Dm |', 0, '6 9 11 7', 'b7', 'b13'],
    ['key: C\n| Fm | C |', 0, '6 b7 9 13', '', ''],
    ['key: C\n| Bb7 | C |', 0, '9 #11 13', '', 'b9 #9 b13'],
  ])('%j chord %i: free %s; special %s; avoid %s', (text, index, free, special, avoid) => {
    const tensions = at(text, index)
    expect([tensions.free.join(' '), tensions.special.join(' '), tensions.avoid.join(' ')]).toEqual([
      free,
      special,
      avoid,
    ])
  })
  test('a tone the chord already has is not offered again', () => {
    expect(availableTensions(chord('Dm9'), 'ii minor').free).toEqual(['11'])
  })
  test('no colour of the catalogue has a tone its role avoids', () => {
    for (const [role, rows] of Object.entries(COLOURS))
      for (const colour of rows) {
        const made = chord(`C${colour.suffix}`)
        for (const degree of availableTensions(chord('C5'), role as Role).avoid) {
          // A natural 11 is avoided with the third; a sus chord has none.
          if (degree === '11' && !hasDegree(made, '3')) continue
          expect([role, colour.suffix, hasDegree(made, degree)]).toEqual([role, colour.suffix, false])
        }
      }
  })
})

describe('why a tension is free, special or to be avoided', () => {
  test.each([
    ['Cmaj7', 'I major', '9', 'a whole step above the 1'],
    ['Cmaj7', 'I major', '11', 'a half step above the 3, a minor ninth'],
    ['Cmaj7', 'I major', '#11', 'a colour on purpose'],
    ['E7', 'dominant to minor', 'b9', 'the one minor ninth that is welcome'],
    ['Am7', 'vi minor', 'b13', 'a half step above the 5'],
    ['Bb7', 'dominant at rest', 'b9', 'a half step above the 1'],
  ] as const)('%s as %s, %s: %s', (symbol, role, degree, words) =>
    expect(whyTension(chord(symbol), role, degree)).toContain(words),
  )
  test('every tension of every role has its reason', () => {
    for (const role of [
      'I major',
      'ii minor',
      'iii minor',
      'IV major',
      'dominant to major',
      'dominant to minor',
      'vi minor',
      'half-diminished',
      'tonic minor',
      'iv minor',
      'dominant at rest',
      'diminished',
    ] as const) {
      const { free, special, avoid } = availableTensions(chord('C5'), role)
      for (const degree of [...free, ...special, ...avoid])
        expect(whyTension(chord('C5'), role, degree)).toMatch(new RegExp(`^${degree}: .+\\.$`))
    }
  })
})

test('a chord that has a tone is not told of it under another name', () => {
  for (const symbol of ['C', 'Csus4', 'C7sus4', 'C6', 'Cadd9', 'C2', 'C7b5', 'Cm7b5', 'Cm6', 'C13'])
    for (const role of Object.keys(COLOURS) as Role[]) {
      const { tones } = chord(symbol)
      const { free, special, avoid } = availableTensions(chord(symbol), role)
      const sound = (degree: Degree) => semitonesOf(degree) % 12
      const own = tones.map(({ degree }) => sound(degree))
      for (const degree of [...free, ...special, ...avoid]) expect(own).not.toContain(sound(degree))
    }
})
