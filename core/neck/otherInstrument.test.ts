import fc from 'fast-check'
import { midi } from '../pitch/note'
import { fingeringsOf } from './fingering'
import { DEFAULT_HAND } from './hand'
import { soundAt, STANDARD_GUITAR, type Frets, type Instrument } from './instrument'
import { INSTRUMENTS, instrumentOf } from './instruments'
import { isStandard, movedTo, parseStringing, stringingName } from './otherInstrument'

const dropD = instrumentOf(INSTRUMENTS.dropD!, 0)
const sounding = (frets: Frets, on: Instrument) =>
  frets.flatMap((fret, string) => (fret === null ? [] : [soundAt(on, string, fret)])).sort((a, b) => a - b)
const move = (frets: Frets, from: Instrument, to: Instrument) => movedTo(frets, from, to, DEFAULT_HAND, 15)

test('an instrument is written and read back, with its capo', () => {
  for (const one of Object.values(INSTRUMENTS))
    for (const capo of [0, 3]) {
      const { tuning } = instrumentOf(one, capo)
      expect(parseStringing(stringingName({ tuning, capo }))).toEqual({ ok: true, value: { tuning, capo } })
    }
  expect(stringingName(STANDARD_GUITAR)).toBe('E2 A2 D3 G3 B3 E4 capo 0')
  expect(parseStringing('six strings')).toMatchObject({
    ok: false,
    fault: { accepted: 'E2 A2 D3 G3 B3 E4 capo 0' },
  })
  expect(isStandard(STANDARD_GUITAR.tuning)).toBe(true)
  expect(isStandard(dropD.tuning)).toBe(false)
})

test('in drop D a grip with its root on string 6 goes two frets up there, and back again', () => {
  expect(move([3, null, 3, 4, null, null], STANDARD_GUITAR, dropD)).toEqual([5, null, 3, 4, null, null])
  expect(move([5, null, 3, 4, null, null], dropD, STANDARD_GUITAR)).toEqual([3, null, 3, 4, null, null])
  expect(move([null, 3, 2, 0, 1, 0], STANDARD_GUITAR, dropD)).toEqual([null, 3, 2, 0, 1, 0])
  // The open low D of drop D is not on a standard guitar.
  expect(move([0, 0, 0, 2, 3, 2], dropD, STANDARD_GUITAR)).toBeNull()
})

test('under a capo open strings are gone; the same pitches are found on other strings, or it says that they cannot be', () => {
  const capo: Instrument = { ...STANDARD_GUITAR, capo: 2 }
  expect(move([null, 5, 4, 4, null, null], STANDARD_GUITAR, capo)).toEqual([null, 5, 4, 4, null, null])
  expect(move([0, 2, 2, 1, 0, 0], STANDARD_GUITAR, capo)).toBeNull()
})

test('what is moved sounds exactly what it sounded, and a hand holds it', () => {
  const fret = fc.option(fc.integer({ min: 0, max: 9 }), { nil: null })
  const instruments = Object.values(INSTRUMENTS)
    .map((one) => instrumentOf(one, 0))
    .filter(({ tuning }) => tuning.length === 6)
  fc.assert(
    fc.property(
      fc.tuple(fret, fret, fret, fret, fret, fret),
      fc.constantFrom(...instruments),
      fc.constantFrom(...instruments),
      (frets, from, to) => {
        const moved = move(frets, from, to)
        if (!moved || frets.every((one) => one === null)) return
        expect(sounding(moved, to)).toEqual(sounding(frets, from))
        if (stringingName(from) !== stringingName(to))
          expect(fingeringsOf(moved, to, DEFAULT_HAND).playable).toBe(true)
      },
    ),
    { numRuns: 60 },
  )
  expect(sounding([0, null, null, null, null, null], dropD)).toEqual([midi('D2')])
})
