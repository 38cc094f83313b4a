import { firstOf } from '../lists'
import fc from 'fast-check'
import { midiOf } from '../pitch/note'
import { DEFAULT_PLAYER } from '../player/playerSettings'
import { newDocument } from '../tune/document'
import { withEveryGrip } from '../tune/searchQuestion'
import { readTuneDocument } from '../tune/tuneReading'
import { legendOf, sheetContent } from './content'
import { layoutAddress, layoutFrom, sheetLayout, TEMPLATES, type SheetLayout } from './sheetLayout'

const layouts: fc.Arbitrary<SheetLayout> = fc.record({
  symbols: fc.constantFrom('new', 'plain', 'both'),
  grips: fc.constantFrom('none', 'each', 'legend'),
  tab: fc.constantFrom('none', 'comping', 'chord-melody'),
  numerals: fc.boolean(),
  staff: fc.boolean(),
  lyrics: fc.boolean(),
  rhythm: fc.boolean(),
  bass: fc.boolean(),
  reasons: fc.boolean(),
  bars: fc.oneof(fc.constant('width' as const), fc.integer({ min: 1, max: 8 })),
  sections: fc.boolean(),
  columns: fc.constantFrom(1, 2),
  paper: fc.constantFrom('a4', 'letter'),
  black: fc.boolean(),
  large: fc.boolean(),
  part: fc.constantFrom('concert', 'b-flat', 'e-flat', 'bass'),
})

test('a layout comes back out of its address, whatever it began from', () => {
  fc.assert(
    fc.property(layouts, layouts, (layout, from) => {
      expect(layoutFrom(new URLSearchParams(layoutAddress(layout).toString()), from)).toEqual(layout)
    }),
  )
})

test('an address that says nothing, or what is not understood, changes nothing', () => {
  const { layout } = TEMPLATES.lead
  expect(layoutFrom(new URLSearchParams('layout=lead&out=x'), layout)).toEqual(layout)
  expect(layoutFrom(new URLSearchParams('bars=9&paper=a0&columns=3&part=oboe&grips='), layout)).toEqual(
    layout,
  )
  expect(layoutFrom(new URLSearchParams('bars=3&paper=letter'), layout)).toEqual({
    ...layout,
    bars: 3,
    paper: 'letter',
  })
})

test('every template is a layout', () => {
  for (const { layout } of Object.values(TEMPLATES)) expect(sheetLayout.parse(layout)).toEqual(layout)
})

const TEXT = 'key: Bb\n| Bbmaj7 | G7 | Cm7 | F7 | Bbmaj7 | F7 |'
const withMelody = () => ({
  ...newDocument('Tried', TEXT),
  melody: [{ bar: 1, beat: 1, beats: 2, note: 'D4' }],
})

test('a part for B flat is a whole step above what sounds, one for E flat a major sixth: key, symbols and melody', () => {
  const written = (part: SheetLayout['part']) => {
    const { key, chords, melody, written } = sheetContent(withMelody(), DEFAULT_PLAYER, {
      ...TEMPLATES.lead.layout,
      part,
    })
    return {
      signature: key.tonic,
      first: firstOf(chords).chord!.canonical,
      // Written above the sounding D4.
      note: midiOf(written(firstOf(melody).note.note)),
    }
  }
  expect(written('concert')).toMatchObject({ first: 'Bbmaj7', note: 62 + 12 })
  expect(written('b-flat')).toMatchObject({
    first: 'Cmaj7',
    signature: { letter: 0, alter: 0 },
    note: 62 + 2,
  })
  expect(written('e-flat')).toMatchObject({
    first: 'Gmaj7',
    signature: { letter: 4, alter: 0 },
    note: 62 + 9,
  })
})

test('a part that would lie below its instrument goes an octave up', () => {
  const low = { ...withMelody(), melody: [{ bar: 1, beat: 1, beats: 2, note: 'E3' }] }
  const { melody, written } = sheetContent(low, DEFAULT_PLAYER, TEMPLATES['part-b-flat'].layout)
  expect(midiOf(written(firstOf(melody).note.note))).toBe(52 + 2 + 12)
})

test('the legend has each grip once, and the plain chart has no grips', () => {
  const plain = newDocument('Tried', TEXT)
  const document = withEveryGrip(plain, readTuneDocument(plain, 'case', DEFAULT_PLAYER), DEFAULT_PLAYER)
  const { chords } = sheetContent(document, DEFAULT_PLAYER, TEMPLATES.comping.layout)
  expect(chords.every(({ voicing }) => voicing !== null)).toBe(true)
  const shapes = chords.map(({ chord, voicing }) => `${chord!.canonical} ${voicing!.frets.join()}`)
  expect(legendOf(chords)).toHaveLength(new Set(shapes).size)
  const home = sheetContent(document, DEFAULT_PLAYER, { ...TEMPLATES.comping.layout, symbols: 'plain' })
  expect(home.chords.map(({ voicing }) => voicing)).toEqual(Array(6).fill(null))
  expect(home.chords.map(({ numeral }) => numeral)).toEqual(['Imaj7', 'V7/ii', 'ii7', 'V7', 'Imaj7', 'V7'])
})

test('changed chords carry the numbers of their footnotes in the order of the tune', () => {
  const document = { ...newDocument('Tried', TEXT), colour: 2 as const }
  const { chords, reasons } = sheetContent(document, DEFAULT_PLAYER, TEMPLATES.teaching.layout)
  expect(reasons.length).toBeGreaterThan(2)
  expect(chords.flatMap(({ notes }) => notes)).toEqual(reasons.map((_, at) => at + 1))
})
