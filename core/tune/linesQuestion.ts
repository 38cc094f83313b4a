import type { Constraint } from '../leading/constraints'
import type { Contour } from '../leading/contour'
import type { StyleName, Weights } from '../leading/weights'
import type { Frets } from '../neck/instrument'
import type { PlayerBody } from '../player/playerLimits'
import type { TextureName } from '../leading/textureNames'

/**
 * What is asked about lines, as plain data. Chords go as symbols: whoever answers reads them with
 * the same core.
 */
export interface LinesQuestion {
  symbols: string[]
  /** The home line, where the symbols are a new one. */
  home?: string[]
  fixed: [number, Frets][]
  /** The time the hand has to get to each chord, in ms; null where it has all it wants. */
  times?: (number | null)[]
  bass: 'chord' | 'any'
  capo: number
  style: StyleName
  leading: LeadingAsked
  count: number
  body: PlayerBody
  constraints: Constraint[]
}

/** How lines are led beyond the style's name. */
export interface LeadingAsked {
  /** Of a style of the player's own. */
  weights: Weights | null
  loop: boolean
  window: [number, number] | null
  drone: { string: number } | { midi: number } | null
  contour: Contour | null
  /** The kind of grip; null for what the chart suggests. */
  texture: TextureName | null
}
