import type { Voicing } from '../voicing/voicing'

/**
 * Thick strings sound dull far up the neck, and a hand that goes there has to come back: price for
 * each fret from here on, in the line's own units (common practice, no source).
 */
const DULL_FROM = 8
const DULL = 0.25
const FAR_FROM = 7
const FAR = 0.1

/**
 * What a grip pays for lying high on strings that sound better low; 0 for grips near the nut and
 * for the two highest strings up to about the tenth fret.
 */
export function highUpPrice({ frets }: Pick<Voicing, 'frets'>): number {
  const thick = Math.ceil(frets.length / 2)
  let [price, highest] = [0, 0]
  frets.forEach((fret, string) => {
    if (fret === null) return
    if (string < thick) price += Math.max(0, fret - DULL_FROM) * DULL
    highest = Math.max(highest, fret)
  })
  return price + Math.max(0, highest - FAR_FROM) * FAR
}
