/**
 * How much each feature of a grip speaks for it (above 0) or against it, in natural logarithms of how often such grips are written down. Made by
 * `npm run fit` from @tombatossals/chords-db 0.5.1, keys C D E F G A B, and the trade's grips by their definitions; not changed by hand.
 */
export const IDIOM_WEIGHTS: Readonly<Record<string, number>> = {
  '3 notes': -1.265, // 3 notes sound
  '4 notes': -0.831, // 4 notes sound
  '5 notes': 0.216, // 5 notes sound
  '6 notes': 1.216, // 6 notes sound
  'bass fifth': -0.07, // the lowest note is the fifth
  'bass pitch': 0.729, // octaves of the lowest note above A2
  'bass pitch squared': -0.188, // the same of the lowest note, squared: far off in either direction
  'bass root': 0.264, // the lowest note is the root
  'bass seventh': -0.061, // the lowest note is the seventh
  'bass tension': -0.441, // the lowest note is a tension
  'bass third': 0.192, // the lowest note is the third
  close: 0.712, // the layout is close
  crossing: -0.613, // a higher string sounds a lower note
  'doubled fifth': 0.325, // the fifth sounds twice
  'doubled root': 0.593, // the root sounds twice
  'doubled seventh': -0.137, // the seventh sounds twice
  'doubled tension': -0.481, // the tension sounds twice
  'doubled third': 0.21, // the third sounds twice
  'drop 2': 0.821, // the layout is drop 2
  'drop 2 and 4': 0.186, // the layout is drop 2 and 4
  'drop 3': 1.646, // the layout is drop 3
  'fingers 0': -0.527, // 0 fingers are down
  'fingers 1': -0.154, // 1 fingers are down
  'fingers 2': -0.072, // 2 fingers are down
  'fingers 3': 0.156, // 3 fingers are down
  'fingers 4': 0.294, // 4 fingers are down
  'gap over an octave': -0.798, // neighbouring voices more than an octave apart
  'half step': 0.129, // neighbouring voices a half step apart
  'highest string 1': -0.204, // the highest sounding string is the first
  'highest string 2': -0.307, // the highest sounding string is the second
  'highest string 3': 0.856, // the highest sounding string is the third
  'highest string 4': -0.29, // the highest sounding string is the fourth
  'index barre 2': -0.122, // the index finger lies across 2 strings
  'index barre 3': -0.273, // the index finger lies across 3 strings
  'index barre 4': -0.567, // the index finger lies across 4 strings
  'index barre 5': -0.737, // the index finger lies across 5 strings
  'index barre 6': -0.965, // the index finger lies across 6 strings
  'lowest string 3': 0.1, // the lowest note lies on the third string
  'lowest string 4': 0.598, // the lowest note lies on the fourth string
  'lowest string 5': 0.388, // the lowest note lies on the fifth string
  'lowest string 6': -0.567, // the lowest note lies on the sixth string
  'missing fifth': -0.876, // the fifth is left out
  'missing root': -1.566, // the root is left out
  'missing tension': -1.315, // the tension is left out
  movable: 0.239, // no open string: the shape can be moved
  mud: -0.1, // an interval under a fourth below D3
  'open bass': 0.486, // an open string is the lowest
  'open far': -0.223, // for each open string, frets by which the hand is beyond the second
  'open inside': 0.214, // an open string is between others
  'open position 0': -0.527, // open strings, and nothing is held
  'open position 1': 0.836, // beside open strings the hand is at fret 1
  'open position 2': 0.242, // beside open strings the hand is at fret 2
  'open position 3': -0.102, // beside open strings the hand is at fret 3
  'open position 4': -1.194, // beside open strings the hand is at fret 4
  'open position 5': -0.624, // beside open strings the hand is at fret 5
  'open position 6': -0.255, // beside open strings the hand is at fret 6
  'open position 7': 0.269, // beside open strings the hand is at fret 7
  'open position 8': -0.114, // beside open strings the hand is at fret 8
  'open position 9': 0.215, // beside open strings the hand is at fret 9
  'open position 10': -0.341, // beside open strings the hand is at fret 10
  'open position 11': -0.064, // beside open strings the hand is at fret 11
  'open position 12': -0.076, // beside open strings the hand is at fret 12 or above
  'open strings 1': -0.303, // 1 strings ring open
  'open strings 2': -0.323, // 2 strings ring open
  'open strings 3': 0.166, // 3 strings ring open
  'open strings 4': 0.321, // 4 strings ring open
  'open strings 5': 0.651, // 5 strings ring open
  'open strings 6': -0.241, // 6 strings ring open
  'open top': 0.106, // an open string is the highest
  'other barre 2': -0.804, // another finger lies across 2 strings
  'other barre 3': -0.67, // another finger lies across 3 strings
  'other barre 4': -1.464, // another finger lies across 4 strings
  placement: -0.612, // for each point the fingers are off one finger a fret
  'position 1': 0.481, // without open strings the hand is at fret 1
  'position 2': 0.595, // without open strings the hand is at fret 2
  'position 3': 0.138, // without open strings the hand is at fret 3
  'position 4': -0.136, // without open strings the hand is at fret 4
  'position 5': 0.027, // without open strings the hand is at fret 5
  'position 6': -0.067, // without open strings the hand is at fret 6
  'position 7': -0.198, // without open strings the hand is at fret 7
  'position 8': -0.1, // without open strings the hand is at fret 8
  'position 9': -0.386, // without open strings the hand is at fret 9
  'position 10': -0.185, // without open strings the hand is at fret 10
  'position 11': -0.252, // without open strings the hand is at fret 11
  'position 12': 0.33, // without open strings the hand is at fret 12 or above
  quartal: -0.473, // the layout is quartal
  'rootless 3 notes': -0.871, // without the root, 3 notes sound
  'rootless 4 notes': 1.214, // without the root, 4 notes sound
  'rootless 5 notes': -1.36, // without the root, 5 notes sound
  'rootless 6 notes': -0.909, // without the root, 6 notes sound
  'rootless low': -1.679, // without the root, octaves of the lowest note below D3
  'rootless open': -1.633, // without the root, for each open string
  'second note 0': -0.64, // the second note lies in unison with the lowest
  'second note 1': -0.36, // the second note lies a half step above the lowest
  'second note 2': -0.011, // the second note lies a whole step above the lowest
  'second note 3': -0.228, // the second note lies a minor third above the lowest
  'second note 4': -0.322, // the second note lies a major third above the lowest
  'second note 5': -0.246, // the second note lies a fourth above the lowest
  'second note 6': -0.325, // the second note lies a tritone above the lowest
  'second note 7': -0.012, // the second note lies a fifth above the lowest
  'second note 8': -0.076, // the second note lies a minor sixth above the lowest
  'second note 9': 0.798, // the second note lies a sixth above the lowest
  'second note 10': 0.678, // the second note lies a minor seventh above the lowest
  'second note 11': -0.154, // the second note lies a major seventh above the lowest
  'second note 12': -0.008, // the second note lies an octave above the lowest
  'second note 13': -0.284, // the second note lies a minor ninth above the lowest
  'second note 14': 1.27, // the second note lies a ninth above the lowest
  'second note 15': 0.807, // the second note lies a minor tenth above the lowest
  'second note 16': 0.197, // the second note lies a tenth above the lowest
  'second note 17': -0.298, // the second note lies an eleventh or more above the lowest
  shell: 0.202, // the layout is shell
  'silent strings inside 1': -0.781, // 1 strings between sounding ones are muted
  'silent strings inside 2': -1.67, // 2 strings between sounding ones are muted
  'silent strings inside 3': -0.378, // 3 or more strings between sounding ones are muted
  'span 0': 1.298, // all held notes lie at one fret, or none is held
  'span 1': 0.852, // from the lowest held fret to the highest it is 1
  'span 2': 0.317, // from the lowest held fret to the highest it is 2
  'span 3': -0.391, // from the lowest held fret to the highest it is 3
  'span 4': -1.754, // from the lowest held fret to the highest it is 4
  stretch: -0.06, // for each point of stretch in the difficulty
  'three times fifth': 0.131, // the fifth sounds three times or more
  'three times root': 0.871, // the root sounds three times or more
  'three times seventh': 0.101, // the seventh sounds three times or more
  'three times tension': -0.158, // the tension sounds three times or more
  'three times third': -0.292, // the third sounds three times or more
  'top fifth': -0.264, // the highest note is the fifth
  'top pitch': 0.176, // octaves of the highest note above E4
  'top pitch squared': -1.311, // the same of the highest note, squared: far off in either direction
  'top root': 0.056, // the highest note is the root
  'top seventh': 0.108, // the highest note is the seventh
  'top tension': 0.021, // the highest note is a tension
  'top third': -0.004, // the highest note is the third
  triad: -0.321, // the layout is triad
  unison: -0.525, // a pitch sounds on two strings
  'usual form': 1.297, // players learn this form first
  'whole step': -0.041, // neighbouring voices a whole step apart
  'wide gap': -0.242, // neighbouring voices a sixth to an octave apart
  written: 0.537, // people write this shape for this kind of chord in another key
  'written often': 0.215, // for each key it is written in, up to three
}

/** Half of the grips written down have more than this. */
export const USUAL_IDIOM = 1.61
