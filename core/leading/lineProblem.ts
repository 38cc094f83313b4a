import type { ChordSymbol } from '../chord/symbol'
import type { Frets } from '../neck/instrument'
import type { Limits } from '../voicing/gripLimits'
import type { Constraint } from './constraints'
import type { Contour } from './contour'
import { textureOf } from './texture'
import type { TextureName } from './textureNames'
import { withBassPlayer, type Weights } from './weights'

/** What lines are asked for. */
export interface LeadProblem {
  chords: readonly ChordSymbol[]
  limits: Limits
  weights: Weights
  /**
   * Grips the player has fixed, by index of the chord. They need not be within the limits, only
   * holdable.
   */
  fixed?: ReadonlyMap<number, Frets>
  /** What some chords have to keep to beyond the limits. */
  constraints?: readonly Constraint[]
  /**
   * The time the hand has to get to each chord, in ms; null where it has all it wants. The first is
   * that of the way back in a loop.
   */
  times?: readonly (number | null)[]
  /**
   * The kind of grip; any where it is not said. Where a chord has none of the kind the nearest
   * stand in.
   */
  texture?: TextureName
  /**
   * What each chord may become inside the line, itself first; only itself where nothing is said.
   */
  colours?: readonly (readonly ChordSymbol[])[]
  /** Grips have to keep the root somewhere, whatever is lowest; a written bass stays lowest. */
  inversions?: boolean
  /**
   * Where a chord has grips that players take, others are not looked at; conditions on a chord open
   * the whole neck.
   */
  usual?: boolean
  /**
   * What each grip pays, in changes of texture, because this kind of grip is not the first choice
   * here.
   */
  aside?: number
  /** The form repeats: the last chord leads back to the first, and that step counts. */
  loop?: boolean
  /** The shape the top voice should have over the whole line. */
  contour?: Contour | null
  /** How many lines, 1 or more. */
  count: number
  /** Called as the search goes on; returning false stops it. */
  onProgress?: (done: number, of: number) => boolean
}

/** The weights of a problem with what its texture makes of them. */
export function weightsOf({
  weights,
  texture = 'as it comes',
  limits,
}: Pick<LeadProblem, 'weights' | 'texture'> & { limits: Pick<Limits, 'bass'> }): Weights {
  const { prices, rootless, noBass } = textureOf(texture, limits)
  const own = (rootless || noBass) && weights.upper > 0 ? withBassPlayer(weights) : weights
  return prices ? prices(own) : own
}
