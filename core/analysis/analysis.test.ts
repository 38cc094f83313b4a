import { firstOf, itemAt } from '../lists'
import fc from 'fast-check'
import { Key as TonalKey } from 'tonal'
import { parseChart } from '../chart/parseChart'
import { keyName, parseKey } from '../pitch/key'
import { must } from '../result'
import { analyse } from './analyse'
import { numeralOf } from './numeral'
import { chord } from '../chord/parseChord'

const read = (text: string, school?: 'case' | 'capitals') => analyse(parseChart(text), school)
const numerals = (text: string, school?: 'case' | 'capitals') =>
  read(text, school)
    .readings.map((reading) => reading.roman)
    .join(' ')

describe('numerals', () => {
  test('the diatonic sevenths of all twelve major keys, as a general theory library has them (tonal 6.4.3)', () => {
    for (const tonic of ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'Db', 'Ab', 'Eb', 'Bb', 'F']) {
      const key = must(parseKey(tonic))
      const chords = TonalKey.majorKey(tonic).chords
      expect(chords.map((symbol) => numeralOf(chord(symbol), key, 'case'))).toEqual([
        'Imaj7',
        'ii7',
        'iii7',
        'IVmaj7',
        'V7',
        'vi7',
        'viiø7',
      ])
      expect(chords.map((symbol) => numeralOf(chord(symbol), key, 'capitals'))).toEqual([
        'Imaj7',
        'IIm7',
        'IIIm7',
        'IVmaj7',
        'V7',
        'VIm7',
        'VIIm7b5',
      ])
      const chart = `key: ${tonic}\n| ${chords.join(' | ')} |`
      expect(read(chart).readings.every((reading) => reading.diatonic)).toBe(true)
    }
  })
  test('the natural minor sevenths (tonal 6.4.3), measured against the major scale as in a chart', () => {
    for (const tonic of ['A', 'E', 'D', 'C', 'F#', 'Bb']) {
      const chords = TonalKey.minorKey(tonic).natural.chords
      const key = must(parseKey(`${tonic}m`))
      expect(chords.map((symbol) => numeralOf(chord(symbol), key, 'case'))).toEqual([
        'i7',
        'iiø7',
        'bIIImaj7',
        'iv7',
        'v7',
        'bVImaj7',
        'bVII7',
      ])
    }
  })
})

describe('readings of usual progressions (common practice, no source)', () => {
  test.each([
    ['key: C\n| C | A7 | Dm7 | G7 |', 'I V7/ii ii7 V7'],
    ['key: C\n| Cmaj7 | Gm7 C7 | Fmaj7 | Fm6 | Cmaj7 |', 'Imaj7 ii7/IV V7/IV IVmaj7 iv6 Imaj7'],
    ['key: C\n| C | Db7 | C |', 'I bII7 I'],
    ['key: C\n| C | Fm7 Bb7 | C |', 'I iv7 bVII7 I'],
    ['key: C\n| C | C#dim7 | Dm7 | G7 |', 'I #i°7 ii7 V7'],
    ['key: Am\n| Am | Bm7b5 E7 | Am |', 'i iiø7 V7 i'],
  ])('%j', (text, expected) => expect(numerals(text)).toBe(expected))
  test('a ii-V from a half step above home names its own key, though its I never comes', () => {
    const { readings, groups } = read('key: G\n| G | Abm7 Db7 | Am7 D7 | G |')
    expect(keyName(itemAt(readings, 1).key)).toBe('Gb')
    expect(itemAt(readings, 1).function).toBe('related ii')
    expect(groups[0]).toMatchObject({ kind: 'ii-V', resolves: false })
  })
  test('inside and outside, with the cause', () => {
    const { readings } = read('key: C\n| C | D7 | G7 | Fm | C | Eb | Ab | Bb7 | C |')
    expect(readings.map((reading) => [reading.slot.text, reading.diatonic, reading.function])).toEqual([
      ['C', true, 'tonic'],
      ['D7', false, 'secondary dominant'],
      ['G7', true, 'dominant'],
      ['Fm', false, 'borrowed'],
      ['C', true, 'tonic'],
      ['Eb', false, 'borrowed'],
      ['Ab', false, 'borrowed'],
      ['Bb7', false, 'borrowed'],
      ['C', true, 'tonic'],
    ])
  })
  test('a iii-VI7 is also a ii-V of ii: the second reading is kept', () => {
    const [, em] = read('key: C\n| C | Em7 A7 | Dm7 G7 |').readings
    expect(em!.roman).toBe('iii7')
    expect(firstOf(em!.alternatives).roman).toBe('ii7/ii')
  })
  test('ii-V groups say their key and whether they land', () => {
    const { groups } = read('key: C\n| Dm7 G7 | C | Ebm7 Ab7 | Bm7b5 E7 | Am |')
    expect(groups.map(({ kind, key, resolves }) => [kind, keyName(key), resolves])).toEqual([
      ['ii-V-I', 'C', true],
      ['ii-V', 'Db', false],
      ['minor ii-V', 'Am', true],
    ])
  })
  test('a turnaround is found', () => {
    expect(read('key: C\n| C | Am7 | Dm7 | G7 | C |').groups.map((group) => group.kind)).toContain(
      'turnaround',
    )
  })
  test('the reason uses the chords that are there', () => {
    for (const { reason, slot } of read('key: F\n| F | D7 | Gm7 | C7 | F | Bbm | F |').readings)
      expect(reason).toContain(slot.text)
  })
})

describe('finding the key', () => {
  test.each([
    ['| G | Em | Am | D7 | G |', 'G'],
    ['| Am | Dm | E7 | Am |', 'Am'],
    ['| Dm7 | G7 | Cmaj7 |', 'C'],
    ['| Bb7 | Eb |', 'Eb'],
    ['| F#m | D | A | E | F#m |', 'F#m'],
    ['| Em7 | A7 | Dm7 | G7 |', 'C'],
    ['| C7 | F7 | C7 | % | F7 | % | C7 | % | G7 | F7 | C7 | G7 |', 'C'],
    ['| Dm | C | Bb | A7 |', 'Dm'],
    ['| Am7 | D7 | Gmaj7 | Cmaj7 | F#m7b5 | B7 | Em |', 'Em'],
    ['| Fmaj7 | Em7 | Dm7 | Cmaj7 |', 'C'],
  ])('%s is in %s', (text, key) => {
    expect(keyName(read(text).key)).toBe(key)
    expect(read(text).keyGuessed).toBe(true)
  })
})

test('every readable chord of any progression gets one reading with a numeral and a reason', () => {
  const symbols = fc.array(
    fc.constantFrom(
      'C',
      'Am7',
      'Dm7',
      'G7',
      'E7',
      'F#m7b5',
      'B°7',
      'Ebmaj7',
      'Ab7',
      'Gsus4',
      'C+',
      'D5',
      'Bbm6',
      'N.C.',
      'zz',
    ),
    { maxLength: 20 },
  )
  fc.assert(
    fc.property(symbols, fc.constantFrom('C', 'Am', 'F#', 'Ebm'), (list, key) => {
      const { readings } = read(`key: ${key}\n| ${list.join(' | ')} |`)
      expect(readings.length).toBe(list.filter((symbol) => symbol !== 'N.C.' && symbol !== 'zz').length)
      for (const reading of readings) {
        expect(reading.roman).not.toBe('')
        expect(reading.reason).not.toBe('')
      }
    }),
  )
})
