import { itemAt } from '../../lists'
import { noteName } from '../../pitch/note'
import { drawnBelow, type Asks } from './question'

/** A chord spelled out, in any order. */
export const spelling: Asks = ({ chords, seed }) => {
  if (chords.length === 0) return null
  const chord = itemAt(chords, drawnBelow(seed, chords.length, 5))
  const notes = chord.tones.map(({ note }) => noteName(note))
  return {
    kind: 'spelling',
    item: chord.canonical,
    ask: `Spell ${chord.canonical}: its notes, in any order.`,
    accepts: [notes.join(' ')],
    by: 'words',
    explain: `${chord.canonical} is ${chord.tones.map(({ degree, note }) => `${noteName(note)} (${degree})`).join(', ')}.`,
    shows: [],
    answers: [],
    moves: [],
    sounds: [],
  }
}
