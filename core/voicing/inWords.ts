import type { Voicing } from './voicing'

/**
 * What a grip is, in words, for those who listen to the page. Frets count from the capo, as they
 * are drawn and as the hand finds them.
 */
export function gripInWords({ frets }: Pick<Voicing, 'frets'>, capo = 0): string {
  return `Grip, lowest string first${capo > 0 ? `, frets from the capo at ${capo}` : ''}: ${frets
    .map((fret) => {
      if (fret === null) return 'muted'
      if (fret === 0) return 'open'
      return fret - capo
    })
    .join(', ')}`
}
