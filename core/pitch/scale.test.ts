import fc from 'fast-check'
import { Scale as TonalScale } from 'tonal'
import { must } from '../result'
import { noteName, parseNote, pitchClass } from './note'
import { keyOfScale, parseScale, SCALE_KINDS, scaleName, scaleOn } from './scale'

const ROOTS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
/** What the dictionary calls a scale of ours by another name. */
const IN_THE_DICTIONARY: Readonly<Record<string, string>> = {
  'mixolydian b6': 'mixolydian b6',
  'locrian #2': 'locrian #2',
  blues: 'minor blues',
  diminished: 'diminished',
}
const soundsIn = (notes: readonly string[]) =>
  notes.map((note) => pitchClass(must(parseNote(note)))).sort((a, b) => a - b)

describe('scales', () => {
  test.each(SCALE_KINDS)('%s sounds as in a general scale dictionary (tonal 6.4.3)', (kind) => {
    for (const root of ROOTS) {
      const theirs = TonalScale.get(`${root} ${IN_THE_DICTIONARY[kind] ?? kind}`)
      expect(theirs.empty).toBe(false)
      const ours = scaleOn(must(parseNote(root)), kind).notes.map(noteName)
      // Its spelling of far keys has three accidentals; sounds decide.
      expect(soundsIn(ours)).toEqual(
        theirs.intervals
          .map((_, at) => TonalScale.degrees(`C ${IN_THE_DICTIONARY[kind] ?? kind}`)(at + 1))
          .map((note) => (pitchClass(must(parseNote(note))) + pitchClass(must(parseNote(root)))) % 12)
          .sort((a, b) => a - b),
      )
    }
  })

  test('a scale of seven notes has each letter once', () => {
    fc.assert(
      fc.property(fc.constantFrom(...ROOTS), fc.constantFrom(...SCALE_KINDS), (root, kind) => {
        const { notes } = scaleOn(must(parseNote(root)), kind)
        if (notes.length === 7) expect(new Set(notes.map(({ letter }) => letter)).size).toBe(7)
      }),
    )
  })

  test('a name is read as it is written, in other words too', () => {
    for (const kind of SCALE_KINDS) {
      const scale = scaleOn(must(parseNote('Eb')), kind)
      expect(must(parseScale(scaleName(scale)))).toEqual(scale)
    }
    expect(scaleName(must(parseScale('D Dorian')))).toBe('D dorian')
    expect(scaleName(must(parseScale('Am')))).toBe('A minor')
    expect(scaleName(must(parseScale('G')))).toBe('G major')
    expect(scaleName(must(parseScale('Bb jazz minor scale')))).toBe('Bb melodic minor')
  })

  test('what is no scale is refused with those there are', () => {
    for (const text of ['D sideways', 'H major', '', 'dorian']) {
      const read = parseScale(text)
      expect(read.ok).toBe(false)
      if (!read.ok) expect(read.fault.accepted).toContain('harmonic minor')
    }
  })

  test('the modes of a major scale are named by its key', () => {
    const tonicOf = (text: string) => {
      const key = keyOfScale(must(parseScale(text)))
      return key && noteName(key.tonic)
    }
    expect(tonicOf('D dorian')).toBe('C')
    expect(tonicOf('D mixolydian')).toBe('G')
    expect(tonicOf('E locrian')).toBe('F')
    expect(tonicOf('C melodic minor')).toBeNull()
  })
})
