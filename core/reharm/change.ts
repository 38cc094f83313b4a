import type { ChordSymbol } from '../chord/symbol'
import type { School } from './schools'

/** What a change is for, in the player's words. */
export const INTENTS = ['colour', 'swap', 'insert', 'borrow', 'bass and texture', 'simplify'] as const
export type Intent = (typeof INTENTS)[number]

/** A chord put in place, with its length. */
export interface Put {
  chord: ChordSymbol
  beats: number
}

/**
 * One thing that can be put in the place of one or several neighbouring chords of the plain chart.
 */
export interface Change {
  /** Of the catalogue: `b1`. */
  rule: string
  /** In trade words. */
  name: string
  intent: Intent
  /** First slot it takes the place of, and how many. */
  index: number
  span: number
  /** As long together as what they replace. */
  puts: readonly Put[]
  /** One sentence, using the actual chords. */
  why: string
  mood: string
  /** The manner of playing it belongs to. */
  school: School
  /** Rules applied on top of one another: 1 for a plain application. */
  depth: number
  /**
   * Pitch class of the root that has to follow for the reason to hold; null where nothing has to.
   */
  landsOn: number | null
  /**
   * Its order among what players try first at this place, from 0; missing where it is none of that.
   */
  usual?: number
  /** Nobody who plays in this style would try it first at this place. */
  outOfPlace?: boolean
}

/** Equal exactly when the same chords stand for the same time in the same place. */
export const putsKey = ({ index, span, puts }: Pick<Change, 'index' | 'span' | 'puts'>): string =>
  `${index}+${span}:${puts.map(({ chord, beats }) => `${chord.canonical}*${Math.round(beats * 1000) / 1000}`).join(' ')}`
