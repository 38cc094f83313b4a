import { chord } from '../../core/chord/parseChord'

/**
 * Speed as ratios against a baseline measured in the same run: a ratio means the same on any
 * machine. Milliseconds are printed only to give an idea.
 */
export function time<T>(run: () => T, rounds = 3): { ms: number; value: T } {
  let best = Infinity
  let value!: T
  for (let round = 0; round < rounds; round += 1) {
    const begun = performance.now()
    value = run()
    best = Math.min(best, performance.now() - begun)
  }
  return { ms: best, value }
}

export const row = (what: string, ratio: number, unit: string, detail: string) =>
  console.log(`${what.padEnd(58)} ${ratio.toFixed(2).padStart(9)} ${unit.padEnd(10)} ${detail}`)
export const ms = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} ms`

/** Twenty-four chords of every kind. */
export const TUNE =
  'Cmaj7 A7b9 Dm9 G13 Em7 A7 Dm9 G7alt Cmaj9 C9 Fmaj7 Bb9 Em7 A7b9 Dm9 G13 Fm6 Bb13 Ebmaj9 Ab9 Dm7 G7b9 Cmaj7 Gm9'
    .split(' ')
    .map(chord)
