import { chord } from '../core/chord/parseChord'
import { voicingsOf } from '../core/voicing/enumerate'
import type { Family } from '../core/voicing/family'
import { DEFAULT_LIMITS } from '../core/voicing/gripLimits'
import type { Voicing } from '../core/voicing/voicing'
import type { Db } from './connect'
import { hasAnyGrip, keepGrip } from './grips'

/**
 * What the demo book of grips is made of: for each chord the easiest grip of a family on a string
 * set, found on the neck.
 */
// prettier-ignore
const WANTED: readonly { tag: string; family: Family; strings: string; symbols: readonly string[] }[] = [
  { tag: 'two and four', family: 'shell', strings: '643', symbols: ['Gmaj7', 'G7', 'Gm7', 'A7', 'Bbmaj7'] },
  { tag: 'two and four', family: 'shell', strings: '543', symbols: ['Cmaj7', 'C7', 'Cm7', 'D7', 'Ebmaj7'] },
  { tag: 'ballad', family: 'drop 2', strings: '5432', symbols: ['Cmaj7', 'C7', 'Cm7', 'Cm7b5', 'Cdim7', 'Eb6'] },
  { tag: 'on top', family: 'drop 2', strings: '4321', symbols: ['Fmaj7', 'F7', 'Fm7', 'Fm7b5', 'F6', 'Fm6'] },
  { tag: 'round', family: 'drop 3', strings: '6432', symbols: ['Gmaj7', 'G7', 'Gm7', 'Gm7b5', 'Gdim7', 'G6'] },
  { tag: 'round', family: 'drop 3', strings: '5321', symbols: ['Cmaj7', 'C7', 'Cm7', 'Cm7b5'] },
  { tag: 'with a bass player', family: 'rootless', strings: '5432', symbols: ['G9', 'G13', 'Dm9', 'Cmaj9', 'A7b9'] },
  { tag: 'with a bass player', family: 'rootless', strings: '4321', symbols: ['C13', 'Am9', 'Fmaj9', 'E7#9'] },
  { tag: 'open water', family: 'quartal', strings: '5432', symbols: ['Dm11', 'Am11'] },
  { tag: 'open water', family: 'open string', strings: '654321', symbols: ['Em9', 'Asus2', 'Cmaj9', 'Gadd9'] },
  { tag: 'two voices', family: 'tenth', strings: '63', symbols: ['G', 'Am', 'F'] },
]

/** Of two grips nearly as easy the lower one is taken. */
const HIGH_FRET_PRICE = 0.2

/** The demo grips, computed. @returns frets from the lowest string with the chord and a tag */
export function demoGrips(): { frets: (number | null)[]; symbol: string; tag: string }[] {
  return WANTED.flatMap(({ tag, family, strings, symbols }) =>
    symbols.flatMap((symbol) => {
      const set = [...strings].map((number) => 6 - Number(number))
      const exact = family === 'open string' ? ([4, 6] as const) : ([set.length, set.length] as const)
      const rootless = family === 'rootless' || family === 'quartal'
      const limits = {
        ...DEFAULT_LIMITS,
        frets: [0, 15] as const,
        strings: set,
        notes: exact,
        families: [family],
        bass: rootless ? ('any' as const) : ('chord' as const),
        open: family === 'open string',
        omit: family === 'tenth' || family === 'shell' ? ['5' as const, 'b5' as const] : [],
      }
      const lowest = ({ frets }: Voicing) =>
        Math.min(...frets.filter((fret): fret is number => fret !== null && fret > 0), 20)
      const price = (one: Voicing) => one.fingering.difficulty + HIGH_FRET_PRICE * lowest(one)
      const [easiest] = voicingsOf(chord(symbol), limits).sort((a, b) => price(a) - price(b))
      return easiest ? [{ frets: [...easiest.frets], symbol: chord(symbol).canonical, tag }] : []
    }),
  )
}

/** Puts the demo grips into a book that has never held one. */
export function seedDemoGrips(db: Db, now = Date.now()): boolean {
  if (hasAnyGrip(db)) return false
  demoGrips().forEach(({ frets, symbol, tag }, at) =>
    keepGrip(db, { frets, symbol, tags: [tag], note: '' }, now - at),
  )
  return true
}
