import { itemAt } from '../lists'
import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { transposeBars } from '../chart/editBars'
import { must } from '../result'
import { parseKey } from '../pitch/key'
import { analyse } from './analyse'

/** Keys as players write them; F# and Gb both. */
const MAJOR = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B']
const MINOR = ['Cm', 'C#m', 'Dm', 'D#m', 'Ebm', 'Em', 'Fm', 'F#m', 'Gm', 'G#m', 'Am', 'Bbm', 'Bm']
const STEPS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
const QUALITIES = ['', 'm', '7', 'maj7', 'm7', 'm7b5', 'dim7', 'aug', '7sus4', '6', 'add9', '13', '7b9']

const semitones: Readonly<Record<string, number>> = Object.fromEntries(
  [...MAJOR, ...MINOR].map((key) => {
    const { tonic } = must(parseKey(key))
    return [key, (itemAt([0, 2, 4, 5, 7, 9, 11], tonic.letter) + tonic.alter + 12) % 12]
  }),
)

test('the same numerals are read alike in all keys: numerals, functions, places and groups, with no double flat', () => {
  const chord = fc
    .tuple(fc.constantFrom(...STEPS), fc.constantFrom(...QUALITIES))
    .map((parts) => parts.join(''))
  fc.assert(
    fc.property(
      fc.array(chord, { minLength: 2, maxLength: 12 }),
      fc.boolean(),
      fc.nat(12),
      (chords, minor, which) => {
        const [home, other] = minor
          ? (['Cm', itemAt(MINOR, which)] as const)
          : (['C', itemAt(MAJOR, which)] as const)
        const text = `key: ${home}\n| ${chords.join(' | ')} |`
        const moved = transposeBars(text, 0, chords.length - 1, semitones[other]!, must(parseKey(other)))
        const read = (of: string) => {
          const { readings, groups } = analyse(parseChart(of))
          return {
            chords: readings.map((one) => `${one.roman} ${one.function} ${one.role}`),
            groups: groups.map(({ kind, from, to }) => `${kind} ${from.bar}-${to.bar}`),
          }
        }
        const there = read(moved.replace(/^key: .*$/m, `key: ${other}`))
        expect(there).toEqual(read(text))
        expect(there.chords.join(' ')).not.toMatch(/bb[IViv]|##[IViv]/)
      },
    ),
    { numRuns: 400 },
  )
})
