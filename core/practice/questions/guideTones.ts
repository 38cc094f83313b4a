import { firstOf, itemAt } from '../../lists'
import type { ChordSymbol } from '../../chord/symbol'
import { modulo, noteName, pitchClass, type Note } from '../../pitch/note'
import { thirdOf } from './thirdPlace'
import { choicesOf, drawnBelow, shuffled, type Asks } from './question'

const SEVENTHS = ['7', 'b7', 'bb7', '6'] as const

/**
 * Third and seventh of a chord; a sixth stands where there is no seventh. Null where one of them is
 * missing.
 */
export function guidesOf(chord: ChordSymbol): [Note, Note] | null {
  const third = thirdOf(chord)
  const seventh = SEVENTHS.flatMap((degree) => chord.tones.find((tone) => tone.degree === degree) ?? [])[0]
  return third && seventh ? [third.note, seventh.note] : null
}

const apart = (a: Note, b: Note): number => {
  const up = modulo(pitchClass(b) - pitchClass(a), 12)
  return Math.min(up, 12 - up)
}

/** The guide tones a tone goes to by the shortest way: both where they are equally near. */
const nearest = (from: Note, into: readonly Note[]): Note[] => {
  const least = Math.min(...into.map((one) => apart(from, one)))
  return into.filter((one) => apart(from, one) === least)
}

const inWords = (from: readonly Note[], to: readonly Note[]): string =>
  from.map((note, at) => `${noteName(note)} to ${noteName(itemAt(to, at))}`).join(', ')

/** Where third and seventh go at a change. */
export const guideTones: Asks = ({ chords, voicings, seed }) => {
  const possible = chords.slice(0, -1).flatMap((chord, at) => {
    const [from, into] = [guidesOf(chord), guidesOf(itemAt(chords, at + 1))]
    return from && into ? [{ at, from, into }] : []
  })
  if (possible.length === 0) return null
  const { at, from, into } = itemAt(possible, drawnBelow(seed, possible.length, 4))
  const [chord, next] = [itemAt(chords, at), itemAt(chords, at + 1)]
  const all = from.map((note) => nearest(note, into))
  const accepts = firstOf(all).flatMap((third) =>
    itemAt(all, 1).map((seventh) => inWords(from, [third, seventh])),
  )
  const wrong = [
    ...into.flatMap((third) => into.map((seventh) => inWords(from, [third, seventh]))),
    ...next.tones.flatMap(({ note }) => [inWords(from, [note, into[0]]), inWords(from, [into[1], note])]),
  ].filter((one) => !accepts.includes(one))
  const grips = voicings.length > 0 ? [itemAt(voicings, at), itemAt(voicings, at + 1)] : []
  return {
    kind: 'guide tones',
    item: `${chord.canonical} to ${next.canonical}`,
    ask: `${chord.canonical} goes to ${next.canonical}. Where do its third and its seventh go?`,
    accepts,
    choices: choicesOf(firstOf(accepts), shuffled(wrong, seed + 1), seed),
    by: 'choice',
    explain: `Third and seventh of ${chord.canonical} are ${from.map(noteName).join(' and ')}, those of ${next.canonical} ${into.map(noteName).join(' and ')}: by the shortest way ${accepts.join(', or ')}.`,
    shows: grips,
    answers: grips,
    moves: grips.map((voicing, step) => ({ chord: step === 0 ? chord : next, voicing })),
    sounds: grips.map(({ midis }) => midis),
  }
}
