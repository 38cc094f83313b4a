import { semitonesOf, type Degree } from '../pitch/degree'

/**
 * The forms that players learn first, string by string from the lowest: what is sounded on each,
 * `x` where nothing is. A form is the same on every fret, and the same whatever its chord calls its
 * tones: `1 x b7 3 13 x` is a thirteenth wherever its root lies. Common practice, no source.
 */
// prettier-ignore
const FORMS: Readonly<Record<string, readonly string[]>> = {
  major: ['x 1 3 5 1 3', 'x 1 3 5 1 5', 'x 1 5 1 3 5', 'x 1 5 1 3 x', '1 5 1 3 5 1', 'x x 1 3 5 1', 'x x 1 5 1 3', '1 3 5 1 3 1', '1 3 5 1 5 1'],
  minor: ['x 1 5 1 b3 5', 'x 1 5 1 b3 x', '1 5 1 b3 5 1', '1 5 1 b3 x x', 'x x 1 5 1 b3', 'x x 1 b3 5 1', 'x 1 b3 5 1 x'],
  'triads on three strings': ['x x x 5 1 3', 'x x x 1 3 5', 'x x x 3 5 1', 'x x 5 1 3 x', 'x x 1 3 5 x', 'x x 3 5 1 x', 'x x x 5 1 b3', 'x x x 1 b3 5', 'x x x b3 5 1', 'x x 5 1 b3 x', 'x x 1 b3 5 x', 'x x b3 5 1 x'],
  diminished: ['x 1 b5 1 b3 x', 'x x 1 b5 1 b3', '1 b5 1 b3 x x', 'x x x 1 b3 b5', 'x x 1 b3 b5 x'],
  augmented: ['x 1 3 #5 1 3', 'x 1 3 #5 1 x', 'x x 1 3 #5 1', '1 x 1 3 #5 1', '1 #5 1 3 x x', 'x 1 #5 1 3 #5', '1 #5 1 3 #5 1', 'x x 1 #5 1 3'],
  fifth: ['1 5 1 x x x', 'x 1 5 1 x x', '1 5 9 x x x', 'x 1 5 9 x x'],
  sus4: ['x 1 5 1 4 5', '1 5 1 4 5 1', '1 4 1 4 5 1', 'x x 1 5 1 4', 'x x 1 4 5 1', 'x 1 4 1 4 5', 'x 1 4 5 1 4', 'x 1 4 5 1 5', '1 4 5 1 4 1', '1 x 5 1 4 1'],
  sus2: ['x 1 5 1 2 5', 'x 1 5 1 2 x', 'x x 1 5 1 2', 'x x 1 2 5 2', 'x 1 2 5 1 5', 'x 1 2 5 2 5', '1 2 5 1 5 1', '1 5 2 5 5 1'],
  add9: ['x 1 3 5 9 3', 'x 1 3 5 9 5', 'x 1 3 5 9 x', 'x 1 5 9 3 5', '1 5 9 3 5 1', '1 5 1 3 5 9', '1 x 5 9 3 1', '1 9 5 9 3 1', '1 9 5 1 3 1', 'x x 1 3 5 9', '1 x 1 3 5 9'],
  'minor add9': ['x 1 5 9 b3 5', '1 5 9 b3 5 1', 'x 1 b3 5 9 x', 'x x 1 b3 5 9', '1 5 1 b3 5 9'],
  sixth: ['1 x 6 3 5 x', 'x 1 5 1 3 6', 'x 1 3 6 1 x', 'x 1 3 6 1 3', 'x x 1 5 6 3', 'x 1 5 6 3 x', '1 5 1 3 6 1', '1 3 5 1 3 6', 'x x 5 1 3 6', 'x x 6 3 5 1', 'x x 3 6 1 5'],
  'minor sixth': ['1 x 6 b3 5 x', 'x 1 x 6 b3 5', 'x 1 5 1 b3 6', 'x 1 b3 6 1 5', 'x x 1 5 6 b3', '1 5 1 b3 6 1', 'x 1 5 6 b3 x', 'x x 6 b3 5 1', 'x x b3 6 1 5', 'x x 5 1 b3 6'],
  '6/9': ['x 1 3 6 9 5', 'x 1 3 6 9 x', '1 3 6 9 5 1', '1 3 6 9 5 x', 'x x 1 3 6 9', '1 x 6 9 3 x', 'x 1 5 9 3 6', '1 5 1 3 6 9'],
  'minor 6/9': ['x 1 b3 6 9 5', 'x 1 b3 6 9 x', '1 b3 6 9 5 x', '1 x 6 b3 5 9', 'x x 1 b3 6 9'],
  seventh: ['1 5 b7 3 5 1', '1 x b7 3 5 x', 'x 1 x b7 3 5', 'x 1 5 b7 3 5', 'x 1 5 b7 3 x', 'x 1 3 b7 1 x', 'x 1 3 b7 1 3', 'x x 1 5 b7 3', '1 5 b7 3 b7 1', 'x 1 5 1 3 b7', '1 3 5 1 3 b7', 'x 1 3 b7 1 5', 'x x b7 3 5 1', 'x x 3 b7 1 5', 'x x 5 1 3 b7', '1 x b7 3 x x', 'x 1 3 b7 x x'],
  'minor seventh': ['1 5 b7 b3 5 1', '1 x b7 b3 5 x', 'x 1 x b7 b3 5', 'x 1 5 b7 b3 5', 'x 1 5 b7 b3 x', 'x x 1 5 b7 b3', '1 5 b7 b3 b7 1', 'x 1 5 b7 b3 b7', '1 5 1 b3 b7 1', '1 5 1 b3 b7 b3', 'x x b7 b3 5 1', 'x x b3 b7 1 5', 'x x 5 1 b3 b7', '1 x b7 b3 x x', 'x 1 b3 b7 x x'],
  'major seventh': ['x 1 3 5 7 3', 'x 1 5 7 3 5', 'x 1 5 7 3 x', 'x 1 x 7 3 5', '1 x 7 3 5 x', '1 5 7 3 5 1', 'x x 1 5 7 3', 'x x 1 3 5 7', '1 x 1 3 5 7', '1 x 7 3 5 7', '1 3 5 1 3 7', '1 x 5 1 3 7', 'x x 7 3 5 1', 'x x 3 7 1 5', 'x x 5 1 3 7', '1 x 7 3 x x', 'x 1 3 7 x x'],
  'half-diminished': ['x 1 b5 b7 b3 x', '1 x b7 b3 b5 b7', '1 x b7 b3 b5 x', 'x 1 x b7 b3 b5', 'x x 1 b5 b7 b3', '1 b5 b7 b3 x x', 'x 1 b3 b7 1 b5', 'x x b3 b7 1 b5', 'x x b5 1 b3 b7', 'x x b7 b3 b5 1', 'x 1 b3 b7 9 b5'],
  'diminished seventh': ['1 x bb7 b3 b5 x', 'x 1 b5 bb7 b3 x', 'x x 1 b5 bb7 b3', '1 b5 bb7 b3 b5 x', 'x x b3 bb7 1 b5', 'x x b5 1 b3 bb7', 'x x bb7 b3 b5 1'],
  'minor with major seventh': ['x 1 5 7 b3 x', 'x 1 5 7 b3 5', '1 x 7 b3 5 x', '1 5 7 b3 5 1', 'x x 1 5 7 b3', 'x 1 b3 7 x x', '1 x 7 b3 x x', 'x 1 b3 7 9 x', 'x 1 b3 7 9 5'],
  ninth: ['x 1 3 b7 9 5', 'x 1 3 b7 9 x', 'x 1 3 b7 9 3', '1 5 b7 3 5 9', '1 x b7 3 5 9', '1 3 b7 9 5 x', 'x x 1 3 b7 9', 'x x b7 3 5 9', 'x x 3 b7 9 5'],
  'minor ninth': ['x 1 b3 b7 9 5', 'x 1 b3 b7 9 x', '1 5 b7 b3 5 9', '1 x b7 b3 5 9', '1 5 9 b3 b7 9', '1 5 b7 b3 b7 9', '1 b3 b7 9 x x', '1 b3 b7 9 5 x', 'x x 1 b3 b7 9', 'x 1 5 9 b3 b7', 'x x b3 b7 9 5', 'x x b7 b3 5 9'],
  'major ninth': ['x 1 3 7 9 x', 'x 1 3 7 9 5', '1 x 7 3 5 9', '1 3 7 9 5 x', '1 3 7 9 x x', 'x 1 5 7 3 9', 'x 1 9 5 7 3', 'x 1 3 7 9 3', '1 9 5 1 3 7', 'x x 1 9 5 7', '1 5 7 3 5 9', 'x 1 5 9 3 7', 'x x 3 7 9 5', 'x x 7 3 5 9'],
  thirteenth: ['1 x b7 3 13 x', '1 x b7 3 13 9', '1 5 b7 3 13 1', 'x 1 3 b7 9 13', 'x 1 5 b7 3 13', '1 x b7 3 3 13', '1 x b7 9 3 13', '1 5 b7 3 13 9', 'x x b7 3 13 9', 'x x 3 b7 9 13'],
  '13sus4': ['1 x b7 4 13 x', '1 5 b7 4 13 1', 'x 1 4 b7 9 13'],
  '7sus4': ['x 1 5 b7 4 5', 'x 1 5 b7 4 x', 'x 1 5 b7 4 b7', '1 5 b7 4 5 1', '1 x b7 4 5 x', '1 5 b7 4 b7 1', 'x x 1 5 b7 4', 'x 1 4 b7 1 x', 'x 1 5 1 4 b7', '1 4 5 1 4 b7', 'x 1 4 b7 1 4', '1 x b7 4 x x', 'x 1 4 b7 x x'],
  '9sus4': ['1 x b7 9 4 x', '1 x b7 9 4 b7', 'x 1 4 b7 9 x', 'x 1 4 b7 9 5', '1 4 b7 9 4 b7', 'x x 1 4 b7 9', '1 x 5 9 4 b7', '1 5 b7 4 5 9'],
  '7susb9': ['x 1 4 b7 b9 x', 'x 1 4 b7 b9 5', '1 x b7 b9 4 x', '1 5 b7 4 5 b9', '1 x b7 4 5 b9'],
  '7b9': ['x 1 3 b7 b9 x', 'x 1 3 b7 b9 5', '1 x b7 3 5 b9', '1 5 b7 3 5 b9', 'x x 1 3 b7 b9', '1 3 b7 b9 5 x', 'x 1 5 b9 3 b7', 'x x 3 b7 b9 5', 'x x b7 3 5 b9', 'x x 5 b9 3 b7', 'x x b9 5 b7 3'],
  '7#9': ['x 1 3 b7 #9 x', 'x 1 3 b7 #9 5', '1 5 b7 3 b7 #9', '1 5 1 3 b7 #9', 'x x 1 3 b7 #9', '1 3 b7 #9 x x'],
  '7b5 and 7#11': ['1 x b7 3 b5 x', 'x 1 b5 b7 3 x', 'x x 1 b5 b7 3', 'x 1 3 b7 9 #11', '1 x b7 3 #11 9'],
  '7#5 and 7b13': ['1 x b7 3 #5 x', 'x 1 #5 b7 3 x', 'x x 1 #5 b7 3', 'x 1 3 b7 1 b13', '1 5 b7 3 b13 1', 'x 1 #5 b7 3 #5', 'x 1 5 b7 3 b13', 'x 1 3 b7 9 b13', '1 x b7 3 b13 9'],
  altered: ['1 x b7 3 b13 b9', '1 b9 b7 3 b13 b9', 'x 1 3 b7 #9 b13', 'x 1 3 b7 b9 b13', 'x 1 3 b7 b9 b5', 'x 1 3 b7 #9 b5', '1 x b7 3 b5 b9', 'x x b7 3 b13 b9', 'x x b7 3 b13 #9', 'x x 3 b7 b9 b13', 'x x 3 b7 #9 b13', 'x x 3 b7 b9 b5', 'x x 3 b7 #9 b5'],
  '13b9': ['1 x b7 3 13 b9', 'x 1 3 b7 b9 13', 'x x b7 3 13 b9', 'x x 3 b7 b9 13'],
  'maj7#11': ['1 x 7 3 #11 x', '1 x 7 3 #11 7', 'x x 1 3 #11 7', '1 x 1 3 #11 7', 'x 1 #11 7 3 x', '1 5 7 3 #11 7', 'x x 1 #11 7 3', 'x 1 3 7 9 #11'],
  'maj7#5': ['x 1 #5 7 3 x', '1 x 7 3 #5 x', 'x x 1 #5 7 3'],
  maj13: ['1 x 7 3 13 x', 'x 1 3 7 9 13', '1 x 7 3 13 9', 'x 1 5 7 3 13'],
  m11: ['1 x b7 b3 11 x', '1 x b7 b3 11 b7', 'x 1 11 b7 b3 5', 'x 1 11 b7 b3 x', 'x 1 b3 b7 9 11', 'x x 1 11 b7 b3', 'x 1 11 b7 b3 b7', '1 11 b7 b3 5 1'],
  m13: ['1 x b7 b3 13 x', 'x 1 b3 b7 9 13', 'x 1 5 b7 b3 13'],
  'major over its third': ['3 x 1 5 1 3', '3 5 1 5 1 3', '3 x 1 5 1 x', '3 5 1 5 1 x', 'x 3 5 1 3 x', 'x 3 5 1 3 1', 'x x 3 5 1 3', 'x 3 x 1 5 1', '3 1 3 5 1 3', '3 5 1 3 5 1', 'x 3 5 1 5 1', 'x 3 1 3 5 1'],
  'major over its fifth': ['5 1 3 5 1 3', '5 x 3 5 1 3', 'x 5 1 3 5 1', 'x 5 1 5 1 3', '5 1 5 1 3 5', 'x x 5 1 3 1', 'x x 5 1 3 5'],
  'major over its seventh': ['x b7 3 5 1 3', 'x b7 1 5 1 3', 'b7 x 5 1 3 x', 'x x b7 3 5 1', 'b7 x 5 1 3 5', 'x 7 3 5 1 3', 'x 7 3 5 1 x', 'x x 7 3 5 1'],
  'minor over its third': ['x b3 5 1 b3 5', 'x b3 5 1 b3 x', 'b3 x 1 5 1 b3', 'b3 x 1 5 1 x', 'x x b3 5 1 b3', 'b3 5 1 b3 5 1', 'x b3 x 1 5 1'],
  'minor over its fifth': ['5 1 5 1 b3 5', 'x 5 1 5 1 b3', 'x 5 1 b3 5 1', 'x x 5 1 b3 5'],
  'minor over its seventh': ['b7 x 5 1 b3 5', 'b7 x 5 1 b3 x', 'b7 1 5 1 b3 5', 'x b7 b3 5 1 x', 'x x b7 b3 5 1', 'x b7 1 5 1 b3', 'x 7 b3 5 1 b3', '7 x 5 1 b3 5', '7 x 5 1 b3 x', 'x b7 5 1 b3 5', 'b7 5 1 b3 5 1', 'b7 x 5 b3 5 1'],
  'a triad over the tone above it': ['9 x 1 3 5 1', '9 x 1 3 5 x', '9 5 1 3 5 1', 'x 9 5 1 3 x', 'x 9 5 1 3 5', 'x x 9 5 1 3'],
  'a triad over its fourth': ['x 4 1 3 5 1', 'x 4 5 1 3 1', '4 x 3 5 1 3'],
  'seventh over its third': ['3 x 1 5 b7 3', '3 x 1 5 b7 x', 'x 3 b7 1 5 x', 'x x 3 b7 1 5', 'x 3 5 1 3 b7', '3 x 1 5 7 3', 'b3 x 1 5 b7 x', 'x b3 b7 1 5 x'],
  'seventh over its fifth': ['x 5 1 3 b7 x', 'x 5 1 b3 b7 x', 'x 5 1 3 7 x', '5 x 3 b7 1 x', '5 x b3 b7 1 x', '5 x 3 7 1 x', '5 x b3 b7 9 x', '5 x 3 b7 9 x', 'x 5 b7 3 13 x'],
  'seventh over its seventh': ['x b7 1 5 b7 b3', 'x b7 3 5 1 x', 'x b7 b3 5 1 x', 'x x b7 3 5 1'],
}

/** A silent string, where others say semitones above the root. */
const SILENT = 12

/**
 * What the strings sound as one number, so that whole necks can be asked about: 6 and 13, b5 and
 * #11, #9 and b3 are one.
 */
const numbered = (above: readonly (number | null)[]): number =>
  above.reduce<number>((sum, semitones) => sum * (SILENT + 1) + (semitones ?? SILENT), 0)

const USUAL: ReadonlySet<number> = new Set(
  Object.values(FORMS)
    .flat()
    .map((form) =>
      numbered(form.split(' ').map((tone) => (tone === 'x' ? null : semitonesOf(tone as Degree) % 12))),
    ),
)

/**
 * Whether what six strings sound, in semitones above the root from the lowest string (null:
 * silent), is a form players learn first.
 */
export const isUsualForm = (above: readonly (number | null)[]): boolean => USUAL.has(numbered(above))
