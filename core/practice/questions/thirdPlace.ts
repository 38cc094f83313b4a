import { itemAt } from '../../lists'
import type { ChordSymbol } from '../../chord/symbol'
import { soundAt, stringNumber, writtenFrets, type Instrument } from '../../neck/instrument'
import { noteName, pitchClass } from '../../pitch/note'
import { drawnBelow, type Asks } from './question'

/** The third of a chord, or what stands in its place. */
export const thirdOf = ({ tones }: ChordSymbol) =>
  tones.find(({ degree }) => degree === '3' || degree === 'b3')

/** Places are looked for up to here where no grip is given: from there on the neck repeats. */
const OCTAVE = 12

/** Every place of a sound on a neck, lowest string first, as `string:fret`. */
export function neckPlacesOf(pc: number, instrument: Instrument, low: number, high: number): string[] {
  return instrument.tuning.flatMap((_, string) =>
    Array.from({ length: high - low + 1 }, (_, at) => low + at)
      .filter((fret) => soundAt(instrument, string, fret) % 12 === pc)
      .map((fret) => `${stringNumber(string, instrument.tuning.length)}:${fret}`),
  )
}

/** Where the third is: in a grip where one is given that has it, else anywhere on the neck. */
export const thirdPlace: Asks = ({ chords, voicings, limits: { instrument }, seed }) => {
  const withThird = chords.flatMap((chord, at) => (thirdOf(chord) ? [at] : []))
  if (withThird.length === 0) return null
  const at = itemAt(withThird, drawnBelow(seed, withThird.length, 2))
  const [chord, voicing] = [itemAt(chords, at), voicings[at]]
  const third = thirdOf(chord)!
  const inGrip =
    voicing?.strings
      .filter(({ degree }) => degree === third.degree)
      .map(({ string }) => `${stringNumber(string, instrument.tuning.length)}:${voicing.frets[string]}`) ?? []
  const whole = inGrip.length === 0 || !voicing
  const accepts = whole ? neckPlacesOf(pitchClass(third.note), instrument, instrument.capo, OCTAVE) : inGrip
  const name = `${chord.canonical}${whole ? '' : ` (${writtenFrets(voicing.frets)})`}`
  return {
    kind: 'third',
    item: `the third of ${name}`,
    ask: whole
      ? `Where is the third of ${chord.canonical}, anywhere up to fret ${OCTAVE}?`
      : `Where is the third in ${writtenFrets(voicing.frets)}, ${chord.canonical}?`,
    accepts,
    by: 'place',
    explain: `The third of ${chord.canonical} is ${noteName(third.note)}: ${accepts.map(placeInWords).join('; ')}.`,
    shows: voicing ? [voicing] : [],
    answers: voicing ? [voicing] : [],
    moves: [],
    sounds: voicing ? [voicing.midis] : [],
  }
}

const placeInWords = (place: string): string => {
  const [string, fret] = place.split(':')
  return `string ${string}, ${fret === '0' ? 'open' : `fret ${fret}`}`
}
