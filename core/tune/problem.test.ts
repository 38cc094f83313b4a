import { entryOf } from '../lists'
import fc from 'fast-check'
import { DEFAULT_PLAYER } from '../player/playerSettings'
import { newDocument, type TuneDocument } from './document'
import { madeChord, readTuneDocument } from './tuneReading'
import { keptVoicings, standsAsKept } from './keptGrips'
import { missingGrips, withEveryGrip } from './searchQuestion'
import { applyEdit } from './tuneEdit'

const reading = (document: TuneDocument) => readTuneDocument(document, 'case', DEFAULT_PLAYER)
const gripped = (document: TuneDocument) => keptVoicings(document, reading(document).line, 0, DEFAULT_PLAYER)

describe('a grip for every chord', () => {
  const tune = newDocument('Four', 'key: Eb\n| Ebmaj7 | N.C. | Fm7 | Bb7 |')
  test('where none was made they are found; silence has none; then nothing is missing', () => {
    const whole = withEveryGrip(tune, reading(tune), DEFAULT_PLAYER)
    expect([...gripped(whole).keys()]).toEqual(['1:1', '3:1', '4:1'])
    expect(missingGrips(whole, reading(whole), DEFAULT_PLAYER)).toBeNull()
  })
  test('grips that are there stay, by hand or found', () => {
    const some = applyEdit(
      applyEdit(tune, { kind: 'grips', grips: { '4:1': [6, null, 6, 7, null, null] } }),
      { kind: 'fix', slot: '3:1', frets: [1, null, 1, 1, null, null] },
    )
    const whole = withEveryGrip(some, reading(some), DEFAULT_PLAYER)
    expect(whole.grips['4:1']).toEqual([6, null, 6, 7, null, null])
    expect(entryOf(gripped(whole), '3:1').frets).toEqual([1, null, 1, 1, null, null])
    expect(gripped(whole).has('1:1')).toBe(true)
  })
  test('whatever the chart suggests, what is found for it is kept as its own: plain sevenths among ninths take a colour', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.constantFrom('G6/9', 'Em9', 'Bb7', 'Am9', 'D9', 'C6', 'F7', 'Ebmaj7', 'G', 'Cm', 'A/C#'),
          {
            minLength: 2,
            maxLength: 6,
          },
        ),
        fc.constantFrom('chord' as const, 'any' as const),
        (symbols, bass) => {
          const mixed = { ...newDocument('Mixed', `key: G\n| ${symbols.join(' | ')} |`), bass }
          const whole = withEveryGrip(mixed, reading(mixed), DEFAULT_PLAYER)
          expect(gripped(whole).size).toBe(symbols.length)
          expect(missingGrips(whole, reading(whole), DEFAULT_PLAYER)).toBeNull()
        },
      ),
      { numRuns: 40 },
    )
  })
  test('where no line can be led the tune is as it was', () => {
    const none = newDocument('None', '| C7b9#9b13sus4add6 |')
    expect(withEveryGrip(none, reading(none), DEFAULT_PLAYER)).toBe(none)
  })
  test('an empty chart asks for nothing', () =>
    expect(missingGrips(newDocument('Empty'), reading(newDocument('Empty')), DEFAULT_PLAYER)).toBeNull())
  test('the chords asked for are those of the new line', () => {
    const asked = missingGrips(tune, reading(tune), DEFAULT_PLAYER)!
    expect(asked.question.symbols).toEqual(asked.sounding.map((one) => madeChord(one)!.canonical))
    expect(asked.question.count).toBe(1)
  })
})

describe('a kept line stands as it is', () => {
  const HERE = 'E2 A2 D3 G3 B3 E4 capo 0'
  const tune = newDocument('Four', 'key: Eb\n| Ebmaj7 | N.C. | Fm7 | Bb7 |')
  const whole = withEveryGrip(tune, reading(tune), DEFAULT_PLAYER)
  const stands = (document: TuneDocument, on = HERE) =>
    standsAsKept(
      document,
      reading(document).line.filter((one) => madeChord(one)),
      gripped(document),
      on,
    )
  test('when every chord that sounds has its grip', () => {
    expect(stands(whole)).toBe(true)
    expect(stands(tune)).toBe(false)
  })
  test('not when a chord is another by now than its grip was made for', () =>
    expect(stands(applyEdit(whole, { kind: 'text', text: 'key: Eb\n| Ebmaj7 | N.C. | Fm7 | E7 |' }))).toBe(
      false,
    ))
  test('not when it was found for another instrument; a grip by hand says for itself where it was made', () => {
    const elsewhere = { ...whole, gripsOn: { '1:1': 'D2 A2 D3 G3 B3 E4 capo 0' } }
    expect(stands(elsewhere)).toBe(false)
    expect(stands({ ...elsewhere, fixed: { '1:1': whole.grips['1:1']! } })).toBe(true)
  })
  test('not when a grip by hand cannot be had here: another plays in its place', () => {
    const sounding = reading(whole).line.filter((one) => madeChord(one))
    const away = sounding.map((one, at) => (at === 0 ? { ...one, elsewhere: 'D2 A2 D3 G3 B3 E4' } : one))
    expect(standsAsKept(whole, away, gripped(whole), HERE)).toBe(false)
  })
})
