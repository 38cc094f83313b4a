import { firstOf, itemAt, lastOf } from '../../lists'
import { writtenFrets } from '../../neck/instrument'
import { voicingsOf } from '../../voicing/enumerate'
import { drawnBelow, type Asks } from './question'

/**
 * The grip that comes next in the line, from memory; the same notes on other strings are as right.
 */
export const nextGrip: Asks = ({ chords, voicings, limits, seed }) => {
  if (voicings.length < 2) return null
  const at = drawnBelow(seed, voicings.length - 1, 6)
  const [voicing, next] = [itemAt(voicings, at), itemAt(voicings, at + 1)]
  const [chord, into] = [itemAt(chords, at), itemAt(chords, at + 1)]
  const sounds = next.midis.join()
  const others = voicingsOf(
    into,
    {
      ...limits,
      bass: 'any',
      families: null,
      strings: null,
      notes: [next.midis.length, next.midis.length],
      range: [firstOf(next.midis), lastOf(next.midis)],
    },
    ({ midis }) => midis.join() === sounds,
  )
  const accepts = [...new Set([writtenFrets(next.frets), ...others.map(({ frets }) => writtenFrets(frets))])]
  return {
    kind: 'next grip',
    item: `${chord.canonical} (${writtenFrets(voicing.frets)}) to ${into.canonical}`,
    ask: `After ${chord.canonical}, ${writtenFrets(voicing.frets)}, comes ${into.canonical}. What is its grip?`,
    accepts,
    by: 'grip',
    explain: `${into.canonical} is ${writtenFrets(next.frets)} here${accepts.length > 1 ? `; the same notes lie at ${accepts.slice(1).join(', ')}` : ''}.`,
    shows: [voicing],
    answers: [next],
    moves: [
      { chord, voicing },
      { chord: into, voicing: next },
    ],
    sounds: [voicing.midis, next.midis],
  }
}
