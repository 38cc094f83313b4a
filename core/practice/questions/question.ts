import type { ChordSymbol } from '../../chord/symbol'
import type { Key } from '../../pitch/key'
import { scattered } from '../../rhythm/scattered'
import type { Limits } from '../../voicing/gripLimits'
import type { Voicing } from '../../voicing/voicing'

export const QUESTION_KINDS = [
  'top',
  'third',
  'inversion',
  'guide tones',
  'spelling',
  'next grip',
  'function',
  'name',
  'ear',
] as const
export type QuestionKind = (typeof QUESTION_KINDS)[number]

/** What a question is made from: chords in a row with a grip for each, in a key. */
export interface QuestionMaterial {
  chords: readonly ChordSymbol[]
  voicings: readonly Voicing[]
  key: Key
  limits: Limits
  seed: number
}

/**
 * Something asked, with every right answer. Grips are answered as frets from the lowest string (`x
 * 5 7 5 6 x`), places on the neck as `string:fret`.
 */
export interface Question {
  kind: QuestionKind
  /** What is recalled by it, for the log. */
  item: string
  ask: string
  /** All right answers, the plainest first. */
  accepts: string[]
  /** Answers to choose from, where it is answered by choosing; at least one of them is right. */
  choices?: string[]
  /** How it is answered where there are no choices. */
  by: 'choice' | 'place' | 'grip' | 'words'
  explain: string
  /** Grips to be seen with the question, and with its explanation. */
  shows: readonly Voicing[]
  answers: readonly Voicing[]
  /**
   * Chords that follow one another with their grips, where the explanation is how the voices go.
   */
  moves: readonly { chord: ChordSymbol; voicing: Voicing }[]
  /** What sounds, one chord after the other: MIDI numbers. */
  sounds: readonly (readonly number[])[]
}

/** What makes a question; null where the material has nothing for it. */
export type Asks = (material: QuestionMaterial) => Question | null

/** A whole number below a count, always the same for a seed and a purpose. */
export const drawnBelow = (seed: number, count: number, purpose: number): number =>
  Math.floor(scattered(seed, purpose, 901) * count)

/** The same things in another order, always the same for a seed. */
export function shuffled<One>(all: readonly One[], seed: number): One[] {
  const order = all.map((one, at) => ({ one, by: scattered(seed, at, 907) }))
  return order.sort((a, b) => a.by - b.by).map(({ one }) => one)
}

/** One right answer among wrong ones, each once. */
export const choicesOf = (right: string, wrong: readonly string[], seed: number, count = 4): string[] =>
  shuffled([right, ...[...new Set(wrong)].filter((one) => one !== right).slice(0, count - 1)], seed)
