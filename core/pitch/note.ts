import { itemAt } from '../lists'
import { bad, good, must, type Result } from '../result'

/** A spelled note without an octave: F sharp and G flat are different notes that sound the same. */
export interface Note {
  /** 0 = C, 1 = D, … 6 = B. */
  letter: number
  /** Semitones away from the natural letter: -1 flat, +1 sharp. */
  alter: number
}

/** A spelled note at a height; octave 4 begins at middle C (scientific pitch, ISO 16 tuning). */
export interface Pitch extends Note {
  octave: number
}

const LETTERS = 'CDEFGAB'
/** Semitones of the natural letters above C. */
const NATURAL = [0, 2, 4, 5, 7, 9, 11] as const

export const modulo = (value: number, size: number): number => ((value % size) + size) % size

/** The sound of a note, 0 (C) to 11 (B). */
export const pitchClass = (note: Note): number => modulo(itemAt(NATURAL, note.letter) + note.alter, 12)

/** MIDI number: 60 is C4, 69 is A4. */
export const midiOf = (pitch: Pitch): number =>
  12 * (pitch.octave + 1) + itemAt(NATURAL, pitch.letter) + pitch.alter

/** Plain-text name such as `Bb` or `F##`. */
export const noteName = (note: Note): string =>
  itemAt(LETTERS, note.letter) + (note.alter < 0 ? 'b'.repeat(-note.alter) : '#'.repeat(note.alter))

/** Scientific pitch such as `Db4`. */
export const pitchName = (pitch: Pitch): string => noteName(pitch) + String(pitch.octave)

/**
 * Musicians type flats and sharps in several scripts; the core reads one. Lengths are kept so
 * offsets stay true.
 */
export const plainAccidentals = (text: string): string =>
  text.replace(/♭/g, 'b').replace(/♯/g, '#').replace(/𝄫/gu, 'bb').replace(/𝄪/gu, '##')

const ALTERS: Readonly<Record<string, number>> = { b: -1, '#': 1, x: 2 }
const alterOf = (accidentals: string): number =>
  [...accidentals].reduce((sum, sign) => sum + ALTERS[sign]!, 0)

const NOTE_HELP = 'a letter A to G in capitals, with up to two of b or # (Bb, F#, Ebb)'

/** Reads `Bb`, `F♯`, `C##`. Up to two accidentals, not mixed. */
export function parseNote(text: string): Result<Note> {
  const match = /^([A-G])(bb|##|b|#|x)?$/.exec(plainAccidentals(text.trim()))
  if (!match)
    return bad({ code: 'bad-note', message: `"${text}" is not a note name.`, accepted: NOTE_HELP, text })
  return good({ letter: LETTERS.indexOf(itemAt(match, 1)), alter: alterOf(match[2] ?? '') })
}

/** Reads scientific pitch `Db4`, octaves -1 to 9. */
export function parsePitch(text: string): Result<Pitch> {
  const match = /^([A-G])(b{1,3}|#{1,3}|x)?(-1|\d)$/.exec(plainAccidentals(text.trim()))
  if (!match)
    return bad({
      code: 'bad-pitch',
      message: `"${text}" is not a pitch.`,
      accepted: `${NOTE_HELP}, then an octave number -1 to 9 (Db4)`,
      text,
    })
  return good({
    letter: LETTERS.indexOf(itemAt(match, 1)),
    alter: alterOf(match[2] ?? ''),
    octave: Number(match[3]),
  })
}

/** The pitch that spells `midi` as `note`; the note must have that sound. */
export const pitchAt = (midi: number, note: Note): Pitch => ({
  ...note,
  octave: Math.floor((midi - note.alter - itemAt(NATURAL, note.letter)) / 12) - 1,
})

export const midi = (name: string): number => midiOf(must(parsePitch(name)))

const SHARP_SPELLING = ['C', 'C#', 'D', 'D#', 'E', 'F', 'F#', 'G', 'G#', 'A', 'A#', 'B']
const FLAT_SPELLING = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B']

/** The name of a MIDI number where no key spells it: black keys as flats (60 is C4). */
export const plainPitchName = (midi: number): string => pitchName(pitchAt(midi, plainSpelling(midi)))

/** A single-accidental spelling of a sound, flats unless `sharps`. */
export const plainSpelling = (pc: number, sharps = false): Note =>
  must(parseNote(itemAt(sharps ? SHARP_SPELLING : FLAT_SPELLING, modulo(pc, 12))))
