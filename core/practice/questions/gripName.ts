import { firstOf, itemAt } from '../../lists'
import { writtenFrets } from '../../neck/instrument'
import { scaleNotes } from '../../pitch/key'
import { noteName, pitchClass } from '../../pitch/note'
import { namesOf } from '../../voicing/possibleNames'
import { choicesOf, drawnBelow, shuffled, type Asks } from './question'

/** Kinds of chord that a wrong answer may be of. */
const OTHERS = [
  'maj7',
  '7',
  'm7',
  'm7b5',
  '6',
  'm6',
  '7b9',
  '7sus4',
  'maj9',
  'm9',
  '13',
  '7#9',
  'add9',
] as const

/** What a grip is over a root: its own, or another one of the key. */
export const gripName: Asks = ({ chords, voicings, key, seed }) => {
  if (voicings.length === 0) return null
  const at = drawnBelow(seed, voicings.length, 8)
  const voicing = itemAt(voicings, at)
  const roots = [itemAt(chords, at).root, ...scaleNotes(key)]
  // Roots over which what sounds has a usual name, all of it.
  const readable = roots
    .map((root) => ({
      root,
      names: namesOf(voicing.midis, { over: root, key }).filter(({ outside }) => outside === 0),
    }))
    .filter(({ names }) => names.length > 0)
  if (readable.length === 0) return null
  const { root, names } = itemAt(readable, drawnBelow(seed, readable.length, 9))
  const accepts = [...new Set(names.map(({ chord }) => chord.canonical))]
  const wrong = OTHERS.map((suffix) => noteName(root) + suffix).filter((one) => !accepts.includes(one))
  const sounding = firstOf(names).chord.tones.some(({ note }) => pitchClass(note) === pitchClass(root))
  return {
    kind: 'name',
    item: `${writtenFrets(voicing.frets)} over ${noteName(root)}`,
    ask: `What is ${writtenFrets(voicing.frets)} over ${noteName(root)}?`,
    accepts,
    choices: choicesOf(firstOf(accepts), shuffled(wrong, seed + 1), seed),
    by: 'choice',
    explain: `From the lowest string it sounds ${firstOf(names).degrees.join(' ')} of ${noteName(root)}${sounding ? '' : ' (the root is left to the bass)'}: ${accepts.slice(0, 3).join(', or ')}.`,
    shows: [voicing],
    answers: [voicing],
    moves: [],
    sounds: [voicing.midis],
  }
}
