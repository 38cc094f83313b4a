/**
 * How much each feature of a grip speaks for it (above 0) or against it, in natural logarithms of
 * how often such grips are written down. Made by `npm run fit` from @tombatossals/chords-db 0.5.1,
 * keys C D E F G A B, and the trade's grips by their definitions; not changed by hand.
 */
export const IDIOM_WEIGHTS: Readonly<Record<string, number>> = {
  '3 notes': -1.267, // 3 notes sound
  '4 notes': -0.827, // 4 notes sound
  '5 notes': 0.223, // 5 notes sound
  '6 notes': 1.221, // 6 notes sound
  'bass fifth': -0.075, // the lowest note is the fifth
  'bass pitch': 0.729, // octaves of the lowest note above A2
  'bass pitch squared': -0.192, // the same of the lowest note, squared: far off in either direction
  'bass root': 0.261, // the lowest note is the root
  'bass seventh': -0.048, // the lowest note is the seventh
  'bass tension': -0.437, // the lowest note is a tension
  'bass third': 0.189, // the lowest note is the third
  close: 0.718, // the layout is close
  crossing: -0.61, // a higher string sounds a lower note
  'doubled fifth': 0.332, // the fifth sounds twice
  'doubled root': 0.591, // the root sounds twice
  'doubled seventh': -0.142, // the seventh sounds twice
  'doubled tension': -0.482, // the tension sounds twice
  'doubled third': 0.206, // the third sounds twice
  'drop 2': 0.821, // the layout is drop 2
  'drop 2 and 4': 0.185, // the layout is drop 2 and 4
  'drop 3': 1.631, // the layout is drop 3
  'fingers 0': -0.531, // 0 fingers are down
  'fingers 1': -0.152, // 1 fingers are down
  'fingers 2': -0.07, // 2 fingers are down
  'fingers 3': 0.162, // 3 fingers are down
  'fingers 4': 0.298, // 4 fingers are down
  'gap over an octave': -0.8, // neighbouring voices more than an octave apart
  'half step': 0.127, // neighbouring voices a half step apart
  'highest string 1': -0.209, // the highest sounding string is the first
  'highest string 2': -0.309, // the highest sounding string is the second
  'highest string 3': 0.856, // the highest sounding string is the third
  'highest string 4': -0.29, // the highest sounding string is the fourth
  'index barre 2': -0.128, // the index finger lies across 2 strings
  'index barre 3': -0.274, // the index finger lies across 3 strings
  'index barre 4': -0.57, // the index finger lies across 4 strings
  'index barre 5': -0.743, // the index finger lies across 5 strings
  'index barre 6': -0.972, // the index finger lies across 6 strings
  'lowest string 3': 0.106, // the lowest note lies on the third string
  'lowest string 4': 0.599, // the lowest note lies on the fourth string
  'lowest string 5': 0.387, // the lowest note lies on the fifth string
  'lowest string 6': -0.569, // the lowest note lies on the sixth string
  'missing fifth': -0.875, // the fifth is left out
  'missing root': -1.567, // the root is left out
  'missing tension': -1.308, // the tension is left out
  movable: 0.241, // no open string: the shape can be moved
  mud: -0.096, // an interval under a fourth below D3
  'open bass': 0.485, // an open string is the lowest
  'open far': -0.223, // for each open string, frets by which the hand is beyond the second
  'open inside': 0.216, // an open string is between others
  'open position 0': -0.531, // open strings, and nothing is held
  'open position 1': 0.838, // beside open strings the hand is at fret 1
  'open position 2': 0.243, // beside open strings the hand is at fret 2
  'open position 3': -0.101, // beside open strings the hand is at fret 3
  'open position 4': -1.196, // beside open strings the hand is at fret 4
  'open position 5': -0.623, // beside open strings the hand is at fret 5
  'open position 6': -0.255, // beside open strings the hand is at fret 6
  'open position 7': 0.267, // beside open strings the hand is at fret 7
  'open position 8': -0.115, // beside open strings the hand is at fret 8
  'open position 9': 0.216, // beside open strings the hand is at fret 9
  'open position 10': -0.341, // beside open strings the hand is at fret 10
  'open position 11': -0.063, // beside open strings the hand is at fret 11
  'open position 12': -0.077, // beside open strings the hand is at fret 12 or above
  'open strings 1': -0.306, // 1 strings ring open
  'open strings 2': -0.323, // 2 strings ring open
  'open strings 3': 0.163, // 3 strings ring open
  'open strings 4': 0.317, // 4 strings ring open
  'open strings 5': 0.648, // 5 strings ring open
  'open strings 6': -0.239, // 6 strings ring open
  'open top': 0.107, // an open string is the highest
  'other barre 2': -0.794, // another finger lies across 2 strings
  'other barre 3': -0.656, // another finger lies across 3 strings
  'other barre 4': -1.495, // another finger lies across 4 strings
  placement: -0.628, // for each point the fingers are off one finger a fret
  'position 1': 0.482, // without open strings the hand is at fret 1
  'position 2': 0.598, // without open strings the hand is at fret 2
  'position 3': 0.136, // without open strings the hand is at fret 3
  'position 4': -0.135, // without open strings the hand is at fret 4
  'position 5': 0.026, // without open strings the hand is at fret 5
  'position 6': -0.06, // without open strings the hand is at fret 6
  'position 7': -0.199, // without open strings the hand is at fret 7
  'position 8': -0.105, // without open strings the hand is at fret 8
  'position 9': -0.384, // without open strings the hand is at fret 9
  'position 10': -0.191, // without open strings the hand is at fret 10
  'position 11': -0.252, // without open strings the hand is at fret 11
  'position 12': 0.325, // without open strings the hand is at fret 12 or above
  quartal: -0.47, // the layout is quartal
  'rootless 3 notes': -0.874, // without the root, 3 notes sound
  'rootless 4 notes': 1.214, // without the root, 4 notes sound
  'rootless 5 notes': -1.363, // without the root, 5 notes sound
  'rootless 6 notes': -0.909, // without the root, 6 notes sound
  'rootless low': -1.678, // without the root, octaves of the lowest note below D3
  'rootless open': -1.63, // without the root, for each open string
  'second note 0': -0.639, // the second note lies in unison with the lowest
  'second note 1': -0.366, // the second note lies a half step above the lowest
  'second note 2': -0.018, // the second note lies a whole step above the lowest
  'second note 3': -0.229, // the second note lies a minor third above the lowest
  'second note 4': -0.325, // the second note lies a major third above the lowest
  'second note 5': -0.253, // the second note lies a fourth above the lowest
  'second note 6': -0.327, // the second note lies a tritone above the lowest
  'second note 7': -0.016, // the second note lies a fifth above the lowest
  'second note 8': -0.079, // the second note lies a minor sixth above the lowest
  'second note 9': 0.824, // the second note lies a sixth above the lowest
  'second note 10': 0.689, // the second note lies a minor seventh above the lowest
  'second note 11': -0.14, // the second note lies a major seventh above the lowest
  'second note 12': -0.008, // the second note lies an octave above the lowest
  'second note 13': -0.284, // the second note lies a minor ninth above the lowest
  'second note 14': 1.27, // the second note lies a ninth above the lowest
  'second note 15': 0.806, // the second note lies a minor tenth above the lowest
  'second note 16': 0.196, // the second note lies a tenth above the lowest
  'second note 17': -0.298, // the second note lies an eleventh or more above the lowest
  shell: 0.197, // the layout is shell
  'silent strings inside 1': -0.781, // 1 strings between sounding ones are muted
  'silent strings inside 2': -1.674, // 2 strings between sounding ones are muted
  'silent strings inside 3': -0.379, // 3 or more strings between sounding ones are muted
  'span 0': 1.298, // all held notes lie at one fret, or none is held
  'span 1': 0.854, // from the lowest held fret to the highest it is 1
  'span 2': 0.314, // from the lowest held fret to the highest it is 2
  'span 3': -0.398, // from the lowest held fret to the highest it is 3
  'span 4': -1.729, // from the lowest held fret to the highest it is 4
  stretch: -0.059, // for each point of stretch in the difficulty
  'three times fifth': 0.141, // the fifth sounds three times or more
  'three times root': 0.873, // the root sounds three times or more
  'three times seventh': 0.098, // the seventh sounds three times or more
  'three times tension': -0.158, // the tension sounds three times or more
  'three times third': -0.291, // the third sounds three times or more
  'top fifth': -0.268, // the highest note is the fifth
  'top pitch': 0.187, // octaves of the highest note above E4
  'top pitch squared': -1.306, // the same of the highest note, squared: far off in either direction
  'top root': 0.058, // the highest note is the root
  'top seventh': 0.108, // the highest note is the seventh
  'top tension': 0.023, // the highest note is a tension
  'top third': -0.004, // the highest note is the third
  triad: -0.324, // the layout is triad
  unison: -0.529, // a pitch sounds on two strings
  'usual form': 1.291, // players learn this form first
  'whole step': -0.041, // neighbouring voices a whole step apart
  'wide gap': -0.246, // neighbouring voices a sixth to an octave apart
  written: 0.538, // people write this shape for this kind of chord in another key
  'written often': 0.215, // for each key it is written in, up to three
}

/** Half of the grips written down have more than this. */
export const USUAL_IDIOM = 1.602
