import { firstOf } from '../lists'
import fc from 'fast-check'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { scaleSounds } from '../pitch/key'
import { pitchClass } from '../pitch/note'
import { COLOURS } from './catalogue'
import { COLOUR_SETTINGS, colourAt, coloursOf } from './colour'

const options = (text: string) => analyse(parseChart(text)).readings.map(coloursOf)
const at = (text: string, setting: 0 | 1 | 2 | 3 | 4) =>
  options(text)
    .map((list) => colourAt(list, setting).chord.canonical)
    .join(' ')

describe('colour by function (availability: Nettles & Graf; Levine; from memory)', () => {
  const plain = 'key: C\n| C | Am | Dm | G | C | Em | F | G | C |'
  test.each([
    [0, 'C Am Dm G C Em F G C'],
    [1, 'Cmaj7 Am7 Dm7 G7 Cmaj7 Em7 Fmaj7 G7 Cmaj7'],
    [2, 'C6/9 Am9 Dm9 G9 C6/9 Em7add11 Fmaj9 G9 C6/9'],
    [3, 'Cmaj13 Am11 Dm11 G13 Cmaj13 Em7add11 Fmaj7#11 G13 Cmaj13'],
    [4, 'Cmaj13 Am11 Dm11 G13b9 Cmaj13 Em7add11 Fmaj9#11 G13b9 Cmaj13'],
  ] as const)('at %i four plain chords become %s', (setting, expected) =>
    expect(at(plain, setting)).toBe(expected),
  )
  test('a V is only altered where it resolves', () => {
    expect(at('key: C\n| C | G | F | G | C |', 4).split(' ')).toEqual([
      'Cmaj13',
      'G13',
      'Fmaj9#11',
      'G13b9',
      'Cmaj13',
    ])
    expect(at('key: C\n| C | Bb7 | C |', 4)).toContain('Bb9#11')
  })
  test('a V to minor takes b9 and b13, a V to major takes 9 and 13', () => {
    expect(at('key: Am\n| Am | E7 | Am |', 3)).toBe('Am(maj9) E7b9b13 Am(maj9)')
    expect(at('key: C\n| C | A7 | Dm | G | C |', 3)).toContain('A7b9b13')
  })
  test('the plain sixth on ii is there to take, but not by itself; on vi it is not there', () => {
    const [, , , ii] = options('key: C\n| C | Am | F | Dm | G | C |')
    const [, vi] = options('key: C\n| C | Am | F | Dm | G | C |')
    expect(ii!.find((option) => option.chord.canonical === 'Dm6')?.special).toBe(true)
    expect(vi!.some((option) => option.chord.canonical === 'Am6')).toBe(false)
  })
  test('what the control takes by itself on a diatonic chord that is no dominant stays in the key', () => {
    for (const key of ['C', 'Eb', 'A', 'F#'])
      for (const reading of analyse(parseChart(`key: ${key}\n| I |`.replace('I', key))).readings) {
        const sounds = scaleSounds(reading.key)
        for (const setting of COLOUR_SETTINGS)
          for (const tone of colourAt(coloursOf(reading), setting).chord.tones)
            expect(sounds.has(pitchClass(tone.note))).toBe(true)
      }
  })
})

describe('properties', () => {
  const tune = fc
    .tuple(
      fc.constantFrom('C', 'Am', 'Eb', 'F#m'),
      fc.array(
        fc.constantFrom(
          'C',
          'Am',
          'Dm7',
          'G7',
          'E7',
          'Fm',
          'Bb7',
          'Bm7b5',
          'C#dim',
          'Eb',
          'D',
          'Gsus4',
          'C+',
          'C6',
          'Dm9',
          'G7b9',
          'F/A',
          'A5',
          'Am(maj7)',
        ),
        { minLength: 1, maxLength: 10 },
      ),
    )
    .map(([key, chords]) => `key: ${key}\n| ${chords.join(' | ')} |`)
  test('the plain chord is always first, at 0 nothing changes, and every colour keeps root, bass and what the symbol names', () => {
    fc.assert(
      fc.property(tune, (text) => {
        for (const reading of analyse(parseChart(text)).readings) {
          if (reading.slot.symbol?.kind !== 'chord') throw new Error('a reading has a chord')
          const plain = reading.slot.symbol.chord
          const list = coloursOf(reading)
          expect(firstOf(list).chord).toEqual(plain)
          expect(colourAt(list, 0).chord).toEqual(plain)
          expect(new Set(list.map((option) => option.chord.canonical)).size).toBe(list.length)
          for (const option of list) {
            const { root, bass } = option.chord
            expect({ root, bass }).toEqual({ root: plain.root, bass: plain.bass })
            expect(option.why).not.toContain('%')
            const sounds = new Set(option.chord.tones.map((tone) => pitchClass(tone.note)))
            const named = plain.tones.filter(
              ({ need, degree }) => need !== 'free' && !['6', '7'].includes(degree),
            )
            expect(named.filter(({ note }) => !sounds.has(pitchClass(note)))).toEqual([])
          }
        }
      }),
    )
  })
  test('a higher setting never takes a poorer colour', () => {
    fc.assert(
      fc.property(tune, (text) => {
        for (const list of options(text)) {
          const levels = COLOUR_SETTINGS.map((setting) => colourAt(list, setting).level)
          expect(levels).toEqual([...levels].sort((a, b) => a - b))
        }
      }),
    )
  })
  test('every role of the catalogue has a free colour or none at all, and every row a reason and a mood', () => {
    for (const rows of Object.values(COLOURS)) {
      expect(rows.some((row) => !row.special)).toBe(true)
      for (const row of rows) {
        expect(row.why.length).toBeGreaterThan(20)
        expect(row.mood).not.toBe('')
      }
    }
  })
})
