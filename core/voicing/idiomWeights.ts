/**
 * How much each feature of a grip speaks for it (above 0) or against it, in natural logarithms of how often such grips are written down. Made by
 * `npm run fit` from @tombatossals/chords-db 0.5.1, keys C D E F G A B, and the trade's grips by their definitions; not changed by hand.
 */
export const IDIOM_WEIGHTS: Readonly<Record<string, number>> = {
  '3 notes': -1.697, // 3 notes sound
  '4 notes': -0.913, // 4 notes sound
  '5 notes': 0.284, // 5 notes sound
  '6 notes': 1.276, // 6 notes sound
  'bass fifth': 0.005, // the lowest note is the fifth
  'bass pitch': 0.886, // octaves of the lowest note above A2
  'bass pitch squared': -0.249, // the same of the lowest note, squared: far off in either direction
  'bass root': -0.354, // the lowest note is the root
  'bass seventh': 0.194, // the lowest note is the seventh
  'bass tension': -0.234, // the lowest note is a tension
  'bass third': 0.388, // the lowest note is the third
  close: 0.902, // the layout is close
  crossing: -0.618, // a higher string sounds a lower note
  'doubled fifth': 0.388, // the fifth sounds twice
  'doubled root': 0.638, // the root sounds twice
  'doubled seventh': -0.236, // the seventh sounds twice
  'doubled tension': -0.268, // the tension sounds twice
  'doubled third': 0.292, // the third sounds twice
  'drop 2': 1.144, // the layout is drop 2
  'drop 2 and 4': 0.113, // the layout is drop 2 and 4
  'drop 3': 2.157, // the layout is drop 3
  'fingers 0': -0.348, // 0 fingers are down
  'fingers 1': -0.229, // 1 fingers are down
  'fingers 2': -0.136, // 2 fingers are down
  'fingers 3': 0.23, // 3 fingers are down
  'fingers 4': 0.307, // 4 fingers are down
  'gap over an octave': -0.709, // neighbouring voices more than an octave apart
  'half step': 0.058, // neighbouring voices a half step apart
  'highest string 1': -0.064, // the highest sounding string is the first
  'highest string 2': -0.273, // the highest sounding string is the second
  'highest string 3': 0.867, // the highest sounding string is the third
  'highest string 4': -0.442, // the highest sounding string is the fourth
  'index barre 2': -0.153, // the index finger lies across 2 strings
  'index barre 3': -0.351, // the index finger lies across 3 strings
  'index barre 4': -0.709, // the index finger lies across 4 strings
  'index barre 5': -0.897, // the index finger lies across 5 strings
  'index barre 6': -0.819, // the index finger lies across 6 strings
  'lowest string 3': 0.124, // the lowest note lies on the third string
  'lowest string 4': 0.667, // the lowest note lies on the fourth string
  'lowest string 5': 0.535, // the lowest note lies on the fifth string
  'lowest string 6': -0.714, // the lowest note lies on the sixth string
  'missing fifth': -1.041, // the fifth is left out
  'missing root': -1.923, // the root is left out
  'missing tension': -1.44, // the tension is left out
  movable: 0.194, // no open string: the shape can be moved
  mud: -0.196, // an interval under a fourth below D3
  'open bass': 0.668, // an open string is the lowest
  'open far': -0.239, // for each open string, frets by which the hand is beyond the second
  'open inside': 0.224, // an open string is between others
  'open position 0': -0.348, // open strings, and nothing is held
  'open position 1': 1.085, // beside open strings the hand is at fret 1
  'open position 2': 0.298, // beside open strings the hand is at fret 2
  'open position 3': -0.225, // beside open strings the hand is at fret 3
  'open position 4': -1.385, // beside open strings the hand is at fret 4
  'open position 5': -0.795, // beside open strings the hand is at fret 5
  'open position 6': -0.357, // beside open strings the hand is at fret 6
  'open position 7': 0.211, // beside open strings the hand is at fret 7
  'open position 8': -0.239, // beside open strings the hand is at fret 8
  'open position 9': 0.078, // beside open strings the hand is at fret 9
  'open position 10': -0.518, // beside open strings the hand is at fret 10
  'open position 11': -0.163, // beside open strings the hand is at fret 11
  'open position 12': -0.099, // beside open strings the hand is at fret 12 or above
  'open strings 1': -0.266, // 1 strings ring open
  'open strings 2': -0.329, // 2 strings ring open
  'open strings 3': 0.198, // 3 strings ring open
  'open strings 4': 0.526, // 4 strings ring open
  'open strings 5': 0.556, // 5 strings ring open
  'open strings 6': -0.188, // 6 strings ring open
  'open top': 0.217, // an open string is the highest
  'other barre 2': -0.872, // another finger lies across 2 strings
  'other barre 3': -0.782, // another finger lies across 3 strings
  'other barre 4': -1.663, // another finger lies across 4 strings
  placement: -0.712, // for each point the fingers are off one finger a fret
  'position 1': 0.692, // without open strings the hand is at fret 1
  'position 2': 0.813, // without open strings the hand is at fret 2
  'position 3': 0.163, // without open strings the hand is at fret 3
  'position 4': -0.073, // without open strings the hand is at fret 4
  'position 5': -0.046, // without open strings the hand is at fret 5
  'position 6': -0.064, // without open strings the hand is at fret 6
  'position 7': -0.319, // without open strings the hand is at fret 7
  'position 8': -0.438, // without open strings the hand is at fret 8
  'position 9': -0.511, // without open strings the hand is at fret 9
  'position 10': -0.252, // without open strings the hand is at fret 10
  'position 11': -0.184, // without open strings the hand is at fret 11
  'position 12': 0.393, // without open strings the hand is at fret 12 or above
  quartal: -0.523, // the layout is quartal
  'rootless 3 notes': -0.74, // without the root, 3 notes sound
  'rootless 4 notes': 1.117, // without the root, 4 notes sound
  'rootless 5 notes': -1.412, // without the root, 5 notes sound
  'rootless 6 notes': -0.949, // without the root, 6 notes sound
  'rootless low': -1.675, // without the root, octaves of the lowest note below D3
  'rootless open': -1.969, // without the root, for each open string
  'second note 0': -0.52, // the second note lies in unison with the lowest
  'second note 1': -0.238, // the second note lies a half step above the lowest
  'second note 2': 0.078, // the second note lies a whole step above the lowest
  'second note 3': -0.163, // the second note lies a minor third above the lowest
  'second note 4': -0.361, // the second note lies a major third above the lowest
  'second note 5': -0.176, // the second note lies a fourth above the lowest
  'second note 6': -0.345, // the second note lies a tritone above the lowest
  'second note 7': 0.213, // the second note lies a fifth above the lowest
  'second note 8': -0.045, // the second note lies a minor sixth above the lowest
  'second note 9': 0.638, // the second note lies a sixth above the lowest
  'second note 10': 0.472, // the second note lies a minor seventh above the lowest
  'second note 11': -0.627, // the second note lies a major seventh above the lowest
  'second note 12': -0.121, // the second note lies an octave above the lowest
  'second note 13': -0.287, // the second note lies a minor ninth above the lowest
  'second note 14': 1.249, // the second note lies a ninth above the lowest
  'second note 15': 0.826, // the second note lies a minor tenth above the lowest
  'second note 16': 0.246, // the second note lies a tenth above the lowest
  'second note 17': -0.272, // the second note lies an eleventh or more above the lowest
  shell: 0.159, // the layout is shell
  'silent strings inside 1': -1.124, // 1 strings between sounding ones are muted
  'silent strings inside 2': -1.727, // 2 strings between sounding ones are muted
  'silent strings inside 3': -0.331, // 3 or more strings between sounding ones are muted
  'span 0': 1.194, // all held notes lie at one fret, or none is held
  'span 1': 0.656, // from the lowest held fret to the highest it is 1
  'span 2': 0.204, // from the lowest held fret to the highest it is 2
  'span 3': -0.307, // from the lowest held fret to the highest it is 3
  'span 4': -1.459, // from the lowest held fret to the highest it is 4
  stretch: -0.398, // for each point of stretch in the difficulty
  'three times fifth': 0.081, // the fifth sounds three times or more
  'three times root': 0.912, // the root sounds three times or more
  'three times seventh': 0.196, // the seventh sounds three times or more
  'three times tension': -0.116, // the tension sounds three times or more
  'three times third': -0.231, // the third sounds three times or more
  'top fifth': -0.233, // the highest note is the fifth
  'top pitch': 0.123, // octaves of the highest note above E4
  'top pitch squared': -1.795, // the same of the highest note, squared: far off in either direction
  'top root': 0.037, // the highest note is the root
  'top seventh': 0.101, // the highest note is the seventh
  'top tension': 0.042, // the highest note is a tension
  'top third': 0.022, // the highest note is the third
  triad: -0.206, // the layout is triad
  unison: -0.661, // a pitch sounds on two strings
  'whole step': -0.075, // neighbouring voices a whole step apart
  'wide gap': -0.148, // neighbouring voices a sixth to an octave apart
  written: 0.722, // people write this shape for this kind of chord in another key
  'written often': 0.405, // for each key it is written in, up to three
}

/** Half of the grips written down have more than this. */
export const USUAL_IDIOM = 0.537
