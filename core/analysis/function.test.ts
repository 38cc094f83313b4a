import { parseChart } from '../chart/parseChart'
import { analyse } from './analyse'

const read = (text: string) =>
  analyse(parseChart(text)).readings.map(({ slot, roman }) => `${slot.text} ${roman}`)
const rolesOf = (text: string) => analyse(parseChart(text)).readings.map(({ role }) => role)

describe('numerals come from function first, spelling after (common practice, no source)', () => {
  test.each([
    [
      'substitutes, however they are spelled',
      'key: C\n| F#7 | F | B13 | Bb | C#7 | C |',
      ['F#7 bII7/IV', 'F IV', 'B13 bII13/bVII', 'Bb bVII', 'C#7 bII7', 'C I'],
    ],
    [
      'borrowed chords written with sharps',
      'key: C\n| C | D#maj7 | G#maj7 | A#7 | C |',
      ['C I', 'D#maj7 bIIImaj7', 'G#maj7 bVImaj7', 'A#7 bVII7', 'C I'],
    ],
    ['and in a flat key', 'key: Bb\n| Bb | F#maj7 | Bb |', ['Bb I', 'F#maj7 bVImaj7', 'Bb I']],
    [
      'a diminished chord by the bass it goes to',
      'key: C\n| F | F#dim7 | C/G | G7 | C |',
      ['F IV', 'F#dim7 #iv°7', 'C/G I/5', 'G7 V7', 'C I'],
    ],
    [
      'written flat, it still leads up',
      'key: C\n| F | Gbdim7 | C/G | G7 | C |',
      ['F IV', 'Gbdim7 #iv°7', 'C/G I/5', 'G7 V7', 'C I'],
    ],
    ['a deceptive V', 'key: C\n| C | E7 | F | G7 | C |', ['C I', 'E7 V7/vi', 'F IV', 'G7 V7', 'C I']],
    ['the flat II in minor', 'key: Am\n| Am | Bb | E7 | Am |', ['Am i', 'Bb bII', 'E7 V7', 'Am i']],
    ['the Dorian ii', 'key: Am\n| Am | Bm7 | D7 | Am |', ['Am i', 'Bm7 ii7', 'D7 IV7', 'Am i']],
  ])('%s', (_, text, expected) => expect(read(text)).toEqual(expected))
  test('the deceptive V takes the tensions of a V to minor; the I of a blues into IV may be altered', () => {
    expect(rolesOf('key: C\n| C | E7 | F | G7 | C |')[1]).toBe('dominant to minor')
    expect(rolesOf('key: F\n| F7 | Bb7 | F7 | C7 | F7 |')[0]).toBe('blues I into IV')
    expect(rolesOf('key: F\n| F7 | Bb7 | F7 | C7 | F7 |')[1]).toBe('dominant at rest')
  })
})
