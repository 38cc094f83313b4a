import type { Voicing } from './voicing'

/** What a grip is, in words, for those who listen to the page. */
export function gripInWords({ frets }: Pick<Voicing, 'frets'>): string {
  return `Grip, lowest string first: ${frets
    .map((fret) => {
      if (fret === null) return 'muted'
      if (fret === 0) return 'open'
      return fret
    })
    .join(', ')}`
}
