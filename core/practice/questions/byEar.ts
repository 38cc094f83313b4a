import { firstOf, itemAt } from '../../lists'
import { voiceSteps } from '../../pitch/motion'
import { drawnBelow, type Asks } from './question'

const VOICES: Readonly<Record<number, readonly string[]>> = {
  2: ['the lower', 'the upper'],
  3: ['the lowest', 'the middle', 'the top'],
  4: ['the lowest', 'the second from below', 'the third from below', 'the top'],
  5: ['the lowest', 'the second from below', 'the middle', 'the fourth from below', 'the top'],
  6: [
    'the lowest',
    'the second from below',
    'the third from below',
    'the fourth from below',
    'the fifth from below',
    'the top',
  ],
}

/** Which of two was played; or, where one voice alone moves between two grips, which. */
export const byEar: Asks = ({ chords, voicings, seed }) => {
  if (voicings.length < 2) return null
  const pairs = voicings.slice(0, -1).map((voicing, at) => {
    const next = itemAt(voicings, at + 1)
    const steps = voiceSteps(voicing.midis, next.midis)
    const moved = steps.flatMap((step, voice) => (step.semitones === 0 ? [] : [voice]))
    return { at, voicing, next, moved, same: voicing.midis.length === next.midis.length }
  })
  const alone = pairs.filter(({ moved, same }) => same && moved.length === 1)
  const differ = pairs.filter(({ moved }) => moved.length > 0)
  if (differ.length === 0) return null
  const pair = itemAt(
    alone.length > 0 && seed % 2 === 0 ? alone : differ,
    drawnBelow(seed, (alone.length > 0 && seed % 2 === 0 ? alone : differ).length, 10),
  )
  const { at, voicing, next, moved } = pair
  const [chord, into] = [itemAt(chords, at), itemAt(chords, at + 1)]
  const item = `${chord.canonical} and ${into.canonical} by ear`
  if (alone.includes(pair) && seed % 2 === 0) {
    const names = VOICES[voicing.midis.length]!
    const right = itemAt(names, firstOf(moved))
    return {
      kind: 'ear',
      item,
      ask: 'Two grips sound, and one voice moves. Which?',
      accepts: [right],
      choices: [...names],
      by: 'choice',
      explain: `${firstOf(right).toUpperCase()}${right.slice(1)} voice moves; the others of ${chord.canonical} stay in ${into.canonical}.`,
      shows: [],
      answers: [voicing, next],
      moves: [
        { chord, voicing },
        { chord: into, voicing: next },
      ],
      sounds: [voicing.midis, next.midis],
    }
  }
  const played = drawnBelow(seed, 2, 11)
  const names =
    chord.canonical === into.canonical ? ['the first', 'the second'] : [chord.canonical, into.canonical]
  const right = itemAt(names, played)
  return {
    kind: 'ear',
    item,
    ask: `Both sound, then one of them again. Which was it, ${names.join(' or ')}?`,
    accepts: [right],
    choices: names,
    by: 'choice',
    explain: `The ${played === 0 ? 'first' : 'second'} one sounded again.`,
    shows: [],
    answers: [voicing, next],
    moves: [
      { chord, voicing },
      { chord: into, voicing: next },
    ],
    sounds: [voicing.midis, next.midis, played === 0 ? voicing.midis : next.midis],
  }
}
