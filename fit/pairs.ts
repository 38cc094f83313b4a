/** Two passages over the same chords, of which players take the first. */
export interface Pair {
  id: string
  symbols: readonly string[]
  bass: 'root' | 'any' | 'none'
  better: readonly string[]
  worse: readonly string[]
  why: string
}

const pair = (
  id: string,
  symbols: string,
  bass: Pair['bass'],
  better: string,
  worse: string,
  why: string,
): Pair => ({
  id,
  symbols: symbols.split(' '),
  bass,
  better: better.split(' / '),
  worse: worse.split(' / '),
  why,
})

/** Pairs of passages, the preferred one first. Common practice, no source. */
// prettier-ignore
export const PAIRS: readonly Pair[] = [
  pair('shells-C', 'Dm7 G7 Cmaj7', 'root', 'x 5 3 5 x x / 3 x 3 4 x x / x 3 2 4 x x', 'x x 0 x 1 1 / x x x 0 0 1 / x 3 x 0 0 0', 'shells with the roots on the two low strings, the upper pair moving by step, before scattered grips whose roots lie in the middle'),
  pair('shells-G', 'Am7 D7 Gmaj7', 'root', '5 x 5 5 x x / x 5 4 5 x x / 3 x 4 4 x x', 'x 0 10 12 x x / 10 x 10 11 x x / x 10 9 11 x x', 'an open bass string does not go with the twelfth fret'),
  pair('shells-F-high', 'Gm7 C7 Fmaj7', 'root', 'x 10 8 10 x x / 8 x 8 9 x x / x 8 7 9 x x', 'x x 5 7 6 6 / x 3 2 3 1 0 / 1 x 2 2 x x', 'one kind of grip through a cadence'),
  pair('drop-middle', 'Cmaj7 Am7 Dm7 G7', 'root', 'x 3 5 4 5 x / 5 x 5 5 5 x / x 5 7 5 6 x / 3 x 3 4 3 x', '8 x 9 9 8 x / x 0 2 0 1 0 / 10 x 10 10 10 x / 3 2 0 0 0 1', 'the hand stays, the register stays'),
  pair('campfire-C', 'C Am F G', 'root', 'x 3 2 0 1 0 / x 0 2 2 1 0 / 1 3 3 2 1 1 / 3 2 0 0 0 3', 'x x x 5 5 0 / x x 7 5 5 x / x 8 7 5 x x / x x 5 0 0 x', 'plain triads of a plain song ring in open position'),
  pair('campfire-G', 'G Em C D', 'root', '3 2 0 0 0 3 / 0 2 2 0 0 0 / x 3 2 0 1 0 / x x 0 2 3 2', 'x 10 9 7 x x / x 7 5 4 x x / x 3 2 0 x x / x 5 4 2 x x', 'plain triads ring in open position, full'),
  pair('minor-cadence', 'Dm7b5 G7b9 Cm6', 'root', 'x 5 6 5 6 x / 3 x 3 4 3 4 / x 3 x 2 4 3', '10 x 10 10 9 x / 3 x 3 4 3 4 / 8 x 7 8 8 x', 'the hand does not jump seven frets and back'),
  pair('top-line', 'Cmaj7 Am7 Dm7 G7', 'any', 'x x 5 5 5 7 / x x 5 5 5 5 / x x 3 5 3 5 / x x 3 4 3 3', 'x x 5 5 5 7 / x x 10 12 10 12 / x x 3 5 3 5 / x x 9 10 8 10', 'the top voice is heard as a melody'),
  pair('four-voices', 'Dm7 G7 Cmaj7', 'any', 'x x 10 10 10 10 / x x 9 10 8 10 / x x 9 9 8 8', 'x x 10 10 10 10 / x x x 10 8 7 / x 3 2 0 0 0', 'four voices stay four'),
  pair('chromatic-bass', 'Cmaj7 C#dim7 Dm7 Ebdim7', 'root', 'x 3 5 4 5 x / x 4 5 3 5 x / x 5 7 5 6 x / x 6 7 5 7 x', '8 x 9 9 8 x / x 4 5 3 5 x / 10 x 10 10 10 x / x 6 7 5 7 x', 'a bass that climbs by half steps climbs on one string'),

  pair('shells-Bb', 'Cm7 F7 Bbmaj7', 'root', 'x 3 1 3 x x / 1 x 1 2 x x / x 1 0 2 x x', 'x 3 1 3 x x / x 8 7 8 x x / 6 x 7 7 x x', 'the roots alternate between two strings, the hand hardly moves'),
  pair('shells-Eb', 'Fm7 Bb7 Ebmaj7', 'root', 'x 8 6 8 x x / 6 x 6 7 x x / x 6 5 7 x x', '1 x 1 1 x x / 6 x 6 7 x x / 11 x 12 12 x x', 'alternating strings keeps the hand still through fifths'),
  pair('shells-D', 'Em7 A7 Dmaj7', 'root', 'x 7 5 7 x x / 5 x 5 6 x x / x 5 4 6 x x', '12 x 12 12 x x / 5 x 5 6 x x / 10 x 11 11 x x', 'the hand stays in one place'),
  pair('shells-A', 'Bm7 E7 Amaj7', 'root', '7 x 7 7 x x / x 7 6 7 x x / 5 x 6 6 x x', 'x x 9 x 10 10 / x x 2 4 3 x / x x x 2 2 4', 'the roots lie low'),
  pair('shells-Ab', 'Bbm7 Eb7 Abmaj7', 'root', '6 x 6 6 x x / x 6 5 6 x x / 4 x 5 5 x x', '6 x 6 6 x x / x x x 6 4 3 / 4 x 5 5 x x', 'one chord does not leave the register of the others'),
  pair('shells-four', 'Em7 A7 Dm7 G7', 'root', 'x 7 5 7 x x / 5 x 5 6 x x / x 5 3 5 x x / 3 x 3 4 x x', 'x 7 5 7 x x / x 12 11 12 x x / x 5 3 5 x x / x 10 9 10 x x', 'a chain of fifths steps down the neck, it does not jump'),
  pair('shells-not-full', 'Dm7 G7 Cmaj7', 'root', 'x 5 3 5 x x / 3 x 3 4 x x / x 3 2 4 x x', 'x 5 3 5 x x / 3 5 3 4 3 3 / x 3 2 4 x x', 'three voices stay three'),
  pair('colour-C', 'Dm9 G13 Cmaj9', 'root', 'x 5 3 5 5 x / 3 x 3 4 5 x / x 3 2 4 3 x', 'x 5 3 5 5 x / 3 0 2 0 0 1 / 8 x 9 9 8 10', 'shells with one colour on top, in one place'),
  pair('colour-F', 'Gm9 C13 Fmaj9', 'root', 'x 10 8 10 10 x / 8 x 8 9 10 x / x 8 7 9 8 x', '3 x 3 3 3 5 / x 3 x 3 5 5 / x 8 7 9 8 x', 'the register holds'),
  pair('colour-Bb', 'Cm9 F13 Bbmaj9', 'root', 'x 3 1 3 3 x / 1 x 1 2 3 x / x 1 0 2 1 x', '8 x 8 8 8 10 / 1 x 1 2 3 x / 6 5 7 5 x x', 'a cadence in one place'),
  pair('drop3-G', 'Am7 D7 Gmaj7', 'root', '5 x 5 5 5 x / x 5 x 5 7 5 / 3 x 4 4 3 x', '5 x 5 5 5 x / x x 0 2 1 2 / 3 2 0 0 0 2', 'one layout through the cadence'),
  pair('drop2-middle-F', 'Gm7 C7 Fmaj7', 'root', 'x 10 12 10 11 x / 8 x 8 9 8 x / x 8 10 9 10 x', 'x 10 12 10 11 x / x 3 5 3 5 x / 1 x 2 2 1 x', 'the hand does not run down the neck for each chord'),
  pair('drop2-blues', 'C7 F7 C7 G7', 'root', 'x 3 5 3 5 x / 1 x 1 2 1 x / x 3 5 3 5 x / 3 x 3 4 3 x', 'x 3 5 3 5 x / x 8 10 8 10 x / x 3 5 3 5 x / x 10 12 10 12 x', 'near grips of a blues'),
  pair('top4-line', 'Dm7 G7 Cmaj7', 'any', 'x x 3 5 3 5 / x x 3 4 3 3 / x x 2 4 1 3', 'x x 3 5 3 5 / x x 9 10 8 10 / x x 2 4 1 3', 'the nearest inversion'),
  pair('top4-A', 'Bm7 E7 Amaj7', 'any', 'x x 7 7 7 7 / x x 6 7 5 7 / x x 6 6 5 5', 'x x 7 7 7 7 / x x 2 4 3 4 / x x 6 6 5 5', 'the top voice moves by step'),
  pair('top4-Eb', 'Fm7 Bb7 Ebmaj7', 'any', 'x x 3 5 4 4 / x x 3 3 3 4 / x x 1 3 3 3', 'x x 3 5 4 4 / x x 8 10 9 10 / x x 1 3 3 3', 'the top voice is a melody, not a leap and back'),
  pair('middle4-any', 'Cmaj7 Fmaj7 Dm7 G7', 'any', 'x 3 5 4 5 x / x 3 3 2 5 x / x 3 3 2 3 x / x 2 3 0 3 x', 'x 3 5 4 5 x / x 8 10 9 10 x / x 5 7 5 6 x / x 10 12 10 12 x', 'inversions near at hand where the bass is free'),
  pair('rootless-C', 'Dm9 G13 Cmaj9', 'none', 'x x 3 5 5 5 / x x 3 4 5 5 / x x 2 4 3 3', 'x x 3 5 5 5 / x 2 3 2 5 x / x 7 9 7 8 x', 'four voices without the root, on one set of strings'),
  pair('rootless-voices', 'Dm9 G13 Cmaj9', 'none', 'x x 3 5 5 5 / x x 3 4 5 5 / x x 2 4 3 3', 'x x 3 5 5 5 / x x 3 4 5 x / x x 2 4 5 3', 'four voices stay four'),
  pair('rootless-high', 'Gm9 C13 Fmaj9', 'none', 'x x 8 10 10 10 / x x 8 9 10 10 / x x 7 9 8 8', 'x x 8 10 10 10 / 6 7 8 7 x x / x x 7 9 8 8', 'the guitar leaves the low register to the bass'),
  pair('campfire-D', 'D A G D', 'root', 'x x 0 2 3 2 / x 0 2 2 2 0 / 3 2 0 0 0 3 / x x 0 2 3 2', 'x 5 4 2 x x / x 7 7 6 x x / x 10 9 7 x x / x 5 4 2 x x', 'open chords of a plain song'),
  pair('campfire-E', 'E A E D', 'root', '0 2 2 1 0 0 / x 0 2 2 2 0 / 0 2 2 1 0 0 / x x 0 2 3 2', 'x 7 9 9 9 7 / 5 7 7 6 5 5 / x 7 9 9 9 7 / 10 12 12 11 10 10', 'open chords before barre chords'),
  pair('campfire-Am', 'Am Dm Em Am', 'root', 'x 0 2 2 1 0 / x x 0 2 3 1 / 0 2 2 0 0 0 / x 0 2 2 1 0', '5 7 7 5 5 5 / x 5 7 7 6 5 / x 7 9 9 8 7 / 5 7 7 5 5 5', 'open chords before barre chords'),
  pair('campfire-known', 'C G Am F', 'root', 'x 3 2 0 1 0 / 3 2 0 0 0 3 / x 0 2 2 1 0 / 1 3 3 2 1 1', 'x 3 2 0 1 3 / 3 5 5 0 0 3 / x 0 7 5 5 0 / 1 0 3 2 1 1', 'known shapes before unknown ones'),
  pair('barre-F', 'F Bb C F', 'root', '1 3 3 2 1 1 / x 1 3 3 3 1 / x 3 2 0 1 0 / 1 3 3 2 1 1', 'x 8 7 5 6 5 / 6 5 3 3 3 6 / 8 7 5 5 5 8 / x 8 7 5 6 5', 'usual chords near the nut'),
  pair('open-far', 'Am7 D7 Gmaj7', 'root', '5 x 5 5 5 x / x 5 4 5 3 x / 3 x 4 4 3 x', 'x 0 7 9 8 0 / x 5 4 5 3 x / 3 x 4 4 3 x', 'open strings stand apart from the seventh fret'),
  pair('open-high', 'Em7 A7 Dmaj7', 'root', 'x 7 9 7 8 x / 5 x 5 6 5 x / x 5 7 6 7 x', '0 x 9 9 8 0 / 5 x 5 6 5 x / x 5 7 6 7 0', 'an open string beside the ninth fret is a sound chosen on purpose'),
  pair('mud', 'Gmaj7 Am7 D7 Gmaj7', 'root', '3 x 4 4 3 x / 5 x 5 5 5 x / x 5 4 5 3 x / 3 x 4 4 3 x', '3 2 4 0 x x / 5 3 5 0 x x / x 5 4 5 3 x / 3 2 4 0 x x', 'no third in the low register'),
  pair('tripled', 'C F G C', 'any', 'x x 5 5 5 x / x x 3 5 6 x / x x 5 4 3 x / x x 5 5 5 x', '8 x 10 9 x 8 / 1 x 3 2 x 1 / 3 x 5 4 x 3 / 8 x 10 9 x 8', 'three voices, not one tone three times'),
  pair('triads-set', 'C Am F G', 'any', 'x x 5 5 5 x / x x 7 5 5 x / x x 7 5 6 x / x x 5 7 8 x', 'x x 5 5 5 x / x x x 5 5 5 / x 3 3 2 x x / x x x 7 8 7', 'triads on one set of strings'),
  pair('triads-near', 'G C D G', 'any', 'x x x 4 3 3 / x x x 5 5 3 / x x x 7 7 5 / x x x 4 3 3', 'x x x 4 3 3 / x x x 12 13 12 / x x x 7 7 5 / x x x 12 12 10', 'the nearest inversions'),
  pair('guide-tones', 'Dm7 G7 Cmaj7', 'any', 'x x 10 10 x x / x x 9 10 x x / x x 9 9 x x', 'x x 10 10 x x / x x x 10 6 x / x x 2 4 x x', 'guide tones move by half steps'),
  pair('minor-shells', 'Bm7b5 E7 Am7', 'root', '7 x 7 7 6 x / x 7 6 7 5 x / 5 x 5 5 5 x', '7 x 7 7 6 x / 0 2 0 1 0 0 / 5 x 5 5 5 x', 'the hand does not jump to the nut and back'),
  pair('minor-line', 'Am7b5 D7b9 Gm7', 'root', '5 x 5 5 4 x / x 5 4 5 4 x / 3 x 3 3 3 x', 'x 12 13 12 13 x / x 5 4 5 4 x / x 10 12 10 11 x', 'the register stays'),
  pair('dim-passing', 'Gmaj7 G#dim7 Am7 D7', 'root', '3 x 4 4 3 x / 4 x 3 4 3 x / 5 x 5 5 5 x / x 5 4 5 3 x', '3 x 4 4 3 x / x 11 12 10 12 x / 5 x 5 5 5 x / 10 x 10 11 10 x', 'a bass that climbs by half steps stays on its string'),
  pair('sixths', 'C6 Am7 Dm7 G7', 'root', '8 x 7 9 8 x / 5 x 5 5 5 x / x 5 7 5 6 x / 3 x 3 4 3 x', '8 x 7 9 8 x / x 0 2 0 1 x / 10 x 10 10 10 x / x 10 12 10 12 x', 'down the neck with the roots, in one register'),
  pair('seventh-falls', 'Dm7 G7 Cmaj7', 'root', 'x 5 3 5 x x / 3 x 3 4 x x / x 3 2 4 x x', 'x 5 x 5 6 x / 3 x 3 4 x x / x 3 x 4 5 x', 'the seventh falls to the third in its own voice'),
  pair('third-doubled', 'C F G C', 'root', 'x 3 5 5 5 3 / 1 3 3 2 1 1 / 3 5 5 4 3 3 / x 3 5 5 5 3', 'x 3 2 5 5 x / x 8 7 5 x 5 / 3 2 0 4 3 x / x 3 2 5 5 x', 'a doubled third is worse than a doubled root or fifth'),
  pair('turnaround', 'Cmaj7 A7 Dm7 G7', 'root', 'x 3 2 4 x x / 5 x 5 6 x x / x 5 3 5 x x / 3 x 3 4 x x', 'x 3 2 4 x x / x 12 11 12 x x / x 5 3 5 x x / x 10 9 10 x x', 'a turnaround in one place'),
  pair('no-bare-middle', 'Fmaj7 Dm7 Gm7 C7', 'root', '1 x 2 2 1 x / x 5 3 5 x x / 3 x 3 3 x x / x 3 2 3 x x', 'x x 3 2 x 0 / x x 0 x 1 1 / x x 5 x 6 6 / x 3 x 3 x 0', 'roots on the low strings, no gaps between the strings'),
  pair('stay-kind', 'Dm7 Em7 Fmaj7 Em7', 'root', 'x 5 7 5 6 x / x 7 9 7 8 x / x 8 10 9 10 x / x 7 9 7 8 x', 'x 5 7 5 6 x / 0 2 2 0 3 0 / 1 x 2 2 1 0 / x 7 9 7 8 x', 'one shape moved along'),
]
