import fc from 'fast-check'
import { Interval, Note as TonalNote } from 'tonal'
import { must } from '../result'
import { DEGREES, degreeBetween, semitonesOf, spellDegree } from './degree'
import { keyName, parseKey, scaleNotes, signatureOf } from './key'
import { midi, midiOf, noteName, parseNote, parsePitch, pitchAt, pitchClass, pitchName } from './note'

const note = (text: string) => must(parseNote(text))
const anyNote = fc
  .tuple(fc.constantFrom(...'CDEFGAB'), fc.constantFrom('', 'b', '#', 'bb', '##'))
  .map(([letter, sign]) => letter + sign)

describe('notes and pitches', () => {
  test('A4 is MIDI 69 and middle C is 60 (ISO 16 tuning note; MIDI 1.0 note numbers, from memory)', () => {
    expect(midi('A4')).toBe(69)
    expect(midi('C4')).toBe(60)
    expect(midi('Cb4')).toBe(59)
    expect(midi('B#3')).toBe(60)
  })
  test('every spelled pitch sounds as a general theory library says (tonal 6.4.3)', () => {
    fc.assert(
      fc.property(anyNote, fc.integer({ min: 0, max: 8 }), (name, octave) => {
        expect(midi(`${name}${octave}`)).toBe(TonalNote.midi(`${name}${octave}`))
        expect(pitchClass(note(name))).toBe(TonalNote.chroma(name))
      }),
    )
  })
  test('names read back, in any script of accidentals', () => {
    fc.assert(fc.property(anyNote, (name) => expect(noteName(note(name))).toBe(name)))
    expect(noteName(note('B♭'))).toBe('Bb')
    expect(noteName(note('F𝄪'))).toBe('F##')
  })
  test('a pitch spelled at a height keeps height and spelling', () => {
    fc.assert(
      fc.property(anyNote, fc.integer({ min: 1, max: 7 }), (name, octave) => {
        const pitch = must(parsePitch(`${name}${octave}`))
        expect(pitchName(pitchAt(midiOf(pitch), pitch))).toBe(`${name}${octave}`)
      }),
    )
  })
  test.each(['H', 'c', 'C###', 'Cb#', '', 'C4'])('"%s" is not a note, and the fault says what is', (text) => {
    const result = parseNote(text)
    expect(result.ok).toBe(false)
    expect(!result.ok && result.fault.accepted).toContain('A to G')
  })
})

describe('degrees', () => {
  test.each([
    ['A', 'b9', 'Bb'],
    ['C', '#9', 'D#'],
    ['C', 'bb7', 'Bbb'],
    ['Gb', 'b9', 'Abb'],
    ['F#', '3', 'A#'],
    ['C#', '#11', 'F##'],
  ] as const)('a tone is spelled by its degree: the %s %s is %s', (root, degree, spelled) => {
    expect(noteName(spellDegree(note(root), degree))).toBe(spelled)
  })
  test('degrees are spelled as the interval of a general theory library (tonal 6.4.3)', () => {
    const intervals: Record<string, string> = {
      '1': '1P',
      '2': '2M',
      b3: '3m',
      '3': '3M',
      '4': '4P',
      b5: '5d',
      '5': '5P',
      '#5': '5A',
      '6': '6M',
      bb7: '7d',
      b7: '7m',
      '7': '7M',
      b9: '9m',
      '9': '9M',
      '#9': '9A',
      '11': '11P',
      '#11': '11A',
      b13: '13m',
      '13': '13M',
    }
    expect(Object.keys(intervals).sort()).toEqual([...DEGREES].sort())
    for (const root of ['C', 'F#', 'Bb', 'E', 'Ab', 'C#', 'Gb'])
      for (const degree of DEGREES) {
        expect(noteName(spellDegree(note(root), degree))).toBe(TonalNote.transpose(root, intervals[degree]!))
        expect(semitonesOf(degree)).toBe(Interval.semitones(intervals[degree]!)! % 12)
      }
  })
  test('a note between root and itself is found again', () => {
    for (const degree of ['b9', '9', 'b3', '3', '11', '#11', '5', 'b13', '13', 'b7', '7'] as const)
      expect(degreeBetween(note('Eb'), spellDegree(note('Eb'), degree))).toBe(degree)
  })
})

describe('keys', () => {
  test.each([
    ['C', 0],
    ['Bb major', -2],
    ['F#m', 3],
    ['A minor', 0],
    ['Cb', -7],
    ['C#', 7],
    ['Abm', -7],
    ['d-', -1],
  ] as const)('%s has signature %i', (text, signature) => {
    expect(signatureOf(must(parseKey(text)))).toBe(signature)
  })
  test.each([
    ['Hmoll', 'Bm'],
    ['h-Moll', 'Bm'],
    ['B-Dur', 'Bb'],
    ['Es-Dur', 'Eb'],
    ['cis-moll', 'C#m'],
    ['As', 'Ab'],
    ['fis moll', 'F#m'],
    ['Hm', 'Bm'],
  ])('"%s" is %s', (german, name) => expect(keyName(must(parseKey(german)))).toBe(name))
  test.each(['G#', 'Fb', 'H', 'C dorian', ''])('"%s" is refused', (text) =>
    expect(parseKey(text).ok).toBe(false),
  )
  test('scales have seven letters and the signature’s accidentals', () => {
    for (const name of ['C', 'Gb', 'F#', 'Ebm', 'D#m', 'Am']) {
      const key = must(parseKey(name))
      const notes = scaleNotes(key)
      expect(new Set(notes.map((one) => one.letter)).size).toBe(7)
      expect(notes.reduce((sum, one) => sum + one.alter, 0)).toBe(signatureOf(key))
      expect(keyName(key)).toBe(name)
    }
  })
})
