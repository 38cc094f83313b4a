import { BORROWINGS } from './borrowings'
import { INSERTS } from './inserts'
import { REDUCTIONS } from './reductions'
import type { Rule } from './rule'
import { SWAPS } from './swaps'
import { TEXTURES } from './textures'

/** Every rule but the colours, in the order in which a player would look through them. */
export const RULES: readonly Rule[] = [...SWAPS, ...INSERTS, ...BORROWINGS, ...TEXTURES, ...REDUCTIONS]
