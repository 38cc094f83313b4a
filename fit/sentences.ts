const STRINGS: Readonly<Record<string, string>> = {
  '1': 'first',
  '2': 'second',
  '3': 'third',
  '4': 'fourth',
  '5': 'fifth',
  '6': 'sixth',
  '7': 'seventh',
  '8': 'eighth',
}
const OPEN_STRINGS: Readonly<Record<string, string>> = {
  bass: 'the lowest',
  top: 'the highest',
  inside: 'between others',
}
const INTERVALS = [
  'in unison with',
  'a half step above',
  'a whole step above',
  'a minor third above',
  'a major third above',
  'a fourth above',
  'a tritone above',
  'a fifth above',
  'a minor sixth above',
  'a sixth above',
  'a minor seventh above',
  'a major seventh above',
  'an octave above',
  'a minor ninth above',
  'a ninth above',
  'a minor tenth above',
  'a tenth above',
  'an eleventh or more above',
]

/** What a feature of idiom says of a grip, by its name. */
const SENTENCES: readonly [RegExp, (...parts: string[]) => string][] = [
  [/^(\d) notes$/, (count) => `${count} notes sound`],
  [/^lowest string (\d)$/, (string) => `the lowest note lies on the ${STRINGS[string!]} string`],
  [/^highest string (\d)$/, (string) => `the highest sounding string is the ${STRINGS[string!]}`],
  [
    /^silent strings inside (\d)$/,
    (count) => `${count === '3' ? '3 or more' : count} strings between sounding ones are muted`,
  ],
  [
    /^span (\d+)$/,
    (frets) =>
      frets === '0'
        ? 'all held notes lie at one fret, or none is held'
        : `from the lowest held fret to the highest it is ${frets}`,
  ],
  [/^stretch$/, () => 'for each point of stretch in the difficulty'],
  [/^placement$/, () => 'for each point the fingers are off one finger a fret'],
  [/^fingers (\d)$/, (count) => `${count} fingers are down`],
  [
    /^(index|other) barre (\d)$/,
    (finger, strings) =>
      `${finger === 'index' ? 'the index finger' : 'another finger'} lies across ${strings} strings`,
  ],
  [/^rootless (\d) notes$/, (count) => `without the root, ${count} notes sound`],
  [/^rootless open$/, () => 'without the root, for each open string'],
  [/^rootless low$/, () => 'without the root, octaves of the lowest note below D3'],
  [/^movable$/, () => 'no open string: the shape can be moved'],
  [
    /^position (\d+)$/,
    (fret) => `without open strings the hand is at fret ${fret}${fret === '12' ? ' or above' : ''}`,
  ],
  [/^open strings (\d)$/, (count) => `${count} strings ring open`],
  [
    /^open position (\d+)$/,
    (fret) =>
      fret === '0'
        ? 'open strings, and nothing is held'
        : `beside open strings the hand is at fret ${fret}${fret === '12' ? ' or above' : ''}`,
  ],
  [/^open far$/, () => 'for each open string, frets by which the hand is beyond the second'],
  [/^open (bass|top|inside)$/, (where) => `an open string is ${OPEN_STRINGS[where!]!}`],
  [/^doubled (\w+)$/, (tone) => `the ${tone} sounds twice`],
  [/^three times (\w+)$/, (tone) => `the ${tone} sounds three times or more`],
  [/^missing (\w+)$/, (tone) => `the ${tone} is left out`],
  [
    /^(bass|top) (root|third|fifth|seventh|tension)$/,
    (voice, tone) =>
      `the ${voice === 'bass' ? 'lowest' : 'highest'} note is ${tone === 'tension' ? 'a tension' : `the ${tone}`}`,
  ],
  [/^second note (\d+)$/, (gap) => `the second note lies ${INTERVALS[Number(gap)]} the lowest`],
  [/^unison$/, () => 'a pitch sounds on two strings'],
  [/^(half|whole) step$/, (size) => `neighbouring voices a ${size} step apart`],
  [/^wide gap$/, () => 'neighbouring voices a sixth to an octave apart'],
  [/^gap over an octave$/, () => 'neighbouring voices more than an octave apart'],
  [/^mud$/, () => 'an interval under a fourth below D3'],
  [
    /^(bass|top) pitch$/,
    (voice) => `octaves of the ${voice === 'bass' ? 'lowest note above A2' : 'highest note above E4'}`,
  ],
  [
    /^(bass|top) pitch squared$/,
    (voice) =>
      `the same of the ${voice === 'bass' ? 'lowest' : 'highest'} note, squared: far off in either direction`,
  ],
  [/^crossing$/, () => 'a higher string sounds a lower note'],
  [/^usual form$/, () => 'players learn this form first'],
  [/^written$/, () => 'people write this shape for this kind of chord in another key'],
  [/^written often$/, () => 'for each key it is written in, up to three'],
  [/^.*$/, (family) => `the layout is ${family}`],
]

export function sentenceOf(feature: string): string {
  for (const [pattern, say] of SENTENCES) {
    const found = pattern.exec(feature)
    if (found) return say(...(found.length > 1 ? found.slice(1) : [found[0]]))
  }
  return feature
}
