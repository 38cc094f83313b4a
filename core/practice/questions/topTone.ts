import { itemAt } from '../../lists'
import { pitchName, pitchAt, noteName } from '../../pitch/note'
import { writtenFrets } from '../../neck/instrument'
import { choicesOf, drawnBelow, type Asks } from './question'

/** Which chord tone is on top of a grip. */
export const topTone: Asks = ({ chords, voicings, seed }) => {
  if (voicings.length === 0) return null
  const at = drawnBelow(seed, voicings.length, 1)
  const [chord, voicing] = [itemAt(chords, at), itemAt(voicings, at)]
  const top = voicing.strings.reduce((highest, one) => (one.midi > highest.midi ? one : highest))
  const others = [...chord.tones.map(({ degree }) => degree), '9', '13', '11', '5']
  return {
    kind: 'top',
    item: `${chord.canonical} (${writtenFrets(voicing.frets)})`,
    ask: `Which tone of ${chord.canonical} is on top of ${writtenFrets(voicing.frets)}?`,
    accepts: [top.degree, noteName(top.note)],
    choices: choicesOf(
      top.degree,
      others.filter((degree) => degree !== top.degree),
      seed,
    ),
    by: 'choice',
    explain: `The highest note is ${pitchName(pitchAt(top.midi, top.note))}: the ${top.degree} of ${chord.canonical}.`,
    shows: [voicing],
    answers: [voicing],
    moves: [],
    sounds: [voicing.midis],
  }
}
