import { bad, good, type Result } from '../../result'
import { noteName, parseNote, pitchClass } from '../../pitch/note'
import { byEar } from './byEar'
import { chordJob } from './chordJob'
import { gripName } from './gripName'
import { guideTones } from './guideTones'
import { nextGrip } from './nextGrip'
import { nextInversion } from './nextInversion'
import type { Asks, QuestionMaterial, Question, QuestionKind } from './question'
import { spelling } from './spelling'
import { thirdPlace } from './thirdPlace'
import { topTone } from './topTone'

interface QuestionMaker {
  asks: Asks
  /** What the material needs. */
  needs: string
}

/** What can be asked. Another kind of question is another row. */
const KINDS: Readonly<Record<QuestionKind, QuestionMaker>> = {
  top: { asks: topTone, needs: 'a chord with a grip' },
  third: { asks: thirdPlace, needs: 'a chord with a third' },
  inversion: {
    asks: nextInversion,
    needs: 'a grip of three or more different tones with room above it on its strings',
  },
  'guide tones': { asks: guideTones, needs: 'two chords in a row with a third and a seventh' },
  spelling: { asks: spelling, needs: 'a chord' },
  'next grip': { asks: nextGrip, needs: 'two chords in a row with grips' },
  function: { asks: chordJob, needs: 'a chord in a key' },
  name: { asks: gripName, needs: 'a grip' },
  ear: { asks: byEar, needs: 'two different grips in a row' },
}

/** A question of one kind, always the same for the same material and seed. */
export function questionOf(kind: QuestionKind, material: QuestionMaterial): Result<Question> {
  const { asks, needs } = KINDS[kind]
  const question = asks(material)
  if (question) return good(question)
  return bad({
    code: 'nothing-to-ask',
    message: `These chords have nothing for a question of the kind "${kind}".`,
    accepted: needs,
    text: 'symbols',
  })
}

/**
 * Whether an answer is one of the right ones: notes in any order, frets with `x` or `-`, capitals
 * or not.
 */
export function isRight(question: Pick<Question, 'kind' | 'accepts'>, answer: string): boolean {
  const tidy = (text: string) => (question.kind === 'spelling' ? sounds(text) : plain(text))
  return question.accepts.some((accepted) => tidy(accepted) === tidy(answer))
}

const plain = (text: string): string =>
  text
    .trim()
    .toLowerCase()
    .replace(/[♭]/g, 'b')
    .replace(/[♯]/g, '#')
    .replace(/[-,\s]+/g, ' ')

/**
 * The sounds of notes by name, in order; what is no note stays as it is, and is then no right
 * answer.
 */
const sounds = (text: string): string =>
  text
    .trim()
    .split(/[\s,]+/)
    .map((word) => {
      const note = parseNote(word.slice(0, 1).toUpperCase() + word.slice(1))
      return note.ok ? `${noteName(note.value)}` : `?${word}`
    })
    .sort((a, b) => order(a) - order(b) || a.localeCompare(b))
    .join(' ')
const order = (name: string): number => {
  const note = parseNote(name)
  return note.ok ? pitchClass(note.value) : 99
}
