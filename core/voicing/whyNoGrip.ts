import type { ChordSymbol } from '../chord/symbol'
import { voicingsOf } from './enumerate'
import { DEFAULT_LIMITS, type Limits } from './gripLimits'

/** A limit that leaves nothing, and what to make of it. */
export interface TooTight {
  limit:
    | 'frets'
    | 'reach'
    | 'strings'
    | 'notes'
    | 'range'
    | 'open'
    | 'barre'
    | 'innerMutes'
    | 'thumb'
    | 'bass'
    | 'omit'
    | 'families'
    | 'top'
    | 'openAtLeast'
  loosen: string
}

const WIDE_REACH_MM = 200

/** Each limit loosened by itself, with the words for it. */
const LOOSENED: readonly {
  limit: TooTight['limit']
  loosen: string
  isTight: (limits: Limits) => boolean
  with: (limits: Limits) => Limits
}[] = [
  {
    limit: 'families',
    loosen: 'ask for other families, or none',
    isTight: ({ families }) => families !== null,
    with: (limits) => ({ ...limits, families: null }),
  },
  {
    limit: 'top',
    loosen: 'let another note be on top: one the chord has',
    isTight: ({ top }) => top !== null,
    with: (limits) => ({ ...limits, top: null }),
  },
  {
    limit: 'range',
    loosen: 'widen the range of pitches',
    isTight: ({ range }) => range !== null,
    with: (limits) => ({ ...limits, range: null }),
  },
  {
    limit: 'strings',
    loosen: 'allow more strings',
    isTight: ({ strings }) => strings !== null,
    with: (limits) => ({ ...limits, strings: null }),
  },
  {
    limit: 'notes',
    loosen: 'allow fewer or more notes',
    isTight: () => true,
    with: (limits) => ({ ...limits, notes: [1, limits.instrument.tuning.length] }),
  },
  {
    limit: 'frets',
    loosen: 'allow more frets',
    isTight: () => true,
    with: (limits) => ({ ...limits, frets: [0, Math.max(limits.frets[1], 15 + limits.instrument.capo)] }),
  },
  {
    limit: 'open',
    loosen: 'allow open strings',
    isTight: ({ open }) => !open,
    with: (limits) => ({ ...limits, open: true }),
  },
  {
    limit: 'openAtLeast',
    loosen: 'let fewer strings ring open',
    isTight: ({ openAtLeast = 0 }) => openAtLeast > 0,
    with: (limits) => ({ ...limits, openAtLeast: 0, open: true }),
  },
  {
    limit: 'bass',
    loosen: 'let any chord tone be lowest (bass "any")',
    isTight: ({ bass }) => bass !== 'any',
    with: (limits) => ({ ...limits, bass: 'any' }),
  },
  {
    limit: 'barre',
    loosen: 'allow a barre',
    isTight: ({ hand }) => !hand.barre,
    with: (limits) => ({ ...limits, hand: { ...limits.hand, barre: true } }),
  },
  {
    limit: 'innerMutes',
    loosen: 'allow muted strings between sounding ones',
    isTight: ({ hand }) => !hand.innerMutes,
    with: (limits) => ({ ...limits, hand: { ...limits.hand, innerMutes: true } }),
  },
  {
    limit: 'thumb',
    loosen: 'allow the thumb over the neck',
    isTight: ({ hand }) => !hand.thumb,
    with: (limits) => ({ ...limits, hand: { ...limits.hand, thumb: true } }),
  },
  {
    limit: 'reach',
    loosen: 'allow a wider reach',
    isTight: ({ hand }) => hand.reachMm < WIDE_REACH_MM,
    with: (limits) => ({ ...limits, hand: { ...limits.hand, reachMm: WIDE_REACH_MM } }),
  },
  {
    limit: 'omit',
    loosen: 'leave out the fifth, the third or the root',
    isTight: () => true,
    with: (limits) => ({ ...limits, omit: ['1', '3', 'b3', '5', 'b5', '#5'] }),
  },
]

/**
 * Which limits leave a chord without any grip. @returns each limit that alone, loosened, brings
 * grips back; where none does alone, all that are tighter than usual, since they act together.
 * Empty when there are grips.
 */
export function whyNone(chord: ChordSymbol, limits: Limits): TooTight[] {
  if (voicingsOf(chord, limits).length > 0) return []
  const tight = LOOSENED.filter(({ isTight }) => isTight(limits))
  const alone = tight.filter((one) => voicingsOf(chord, one.with(limits)).length > 0)
  const together = tight.filter(({ limit }) => limit !== 'omit' && differs(limits, limit))
  return (alone.length > 0 ? alone : together).map(({ limit, loosen }) => ({ limit, loosen }))
}

/** What would bring grips of a chord back, in words, by the limits that leave none. */
export function whyNoGrip(chord: ChordSymbol, limits: Limits): string {
  const tight = whyNone(chord, limits)
  return tight.length > 0
    ? tight.map(({ loosen }) => loosen).join(', or ')
    : 'another chord, or another instrument or hand'
}

/** The limit is other than the usual one. */
function differs(limits: Limits, limit: TooTight['limit']): boolean {
  const usual = DEFAULT_LIMITS
  switch (limit) {
    case 'barre':
    case 'thumb':
    case 'innerMutes':
      return limits.hand[limit] !== usual.hand[limit]
    case 'reach':
      return limits.hand.reachMm < usual.hand.reachMm
    default:
      return JSON.stringify(limits[limit]) !== JSON.stringify(usual[limit])
  }
}
