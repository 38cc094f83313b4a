import { firstOf } from '../core/lists'
import { HALYARD, LANTERN, withChordMelody } from './demoMelodies'
import { PLAIN_RHYTHM, type Rhythm } from '../core/tune/rhythmSchema'
import { chartsOf } from '../core/tune/edits/chartEdits'
import { newDocument, type TuneDocument } from '../core/tune/document'
import { DEFAULT_PLAYER } from '../core/player/playerSettings'
import { withEveryGrip } from '../core/tune/searchQuestion'
import { readTuneDocument } from '../core/tune/tuneReading'

/**
 * The demo book: tunes invented for this product, as played by a small trio on a river ferry.
 * Dates are days before the first start, so that the songbook has a yesterday and a last month.
 */
export interface DemoTune {
  document: TuneDocument
  touchedDaysAgo: number
}

const tune = (
  touchedDaysAgo: number,
  title: string,
  lines: string[],
  made: Partial<TuneDocument> = {},
): DemoTune => ({
  touchedDaysAgo,
  document: { ...newDocument(title, lines.join('\n')), ...made },
})

/** A tune with a finished chord melody. */
const sung = (
  { document, ...tune }: DemoTune,
  abc: string,
  settings: Parameters<typeof withChordMelody>[2],
): DemoTune => ({ ...tune, document: withChordMelody(document, abc, settings) })

/** A tune with its accompaniment. */
const accompanied = ({ document, ...tune }: DemoTune, rhythm: Partial<Rhythm>): DemoTune => ({
  ...tune,
  document: { ...document, rhythm: { ...PLAIN_RHYTHM, ...rhythm } },
})

/** The tune that is heard first, plain and new. */
export const FIRST_TUNE = 'Lantern on the Rail'

/** Tunes whose lines are kept already: those that the demo's player practises. */
const LED: readonly string[] = [FIRST_TUNE, 'Four Planks', 'Warm Current']
const led = ({ document, ...tune }: DemoTune): DemoTune => ({
  ...tune,
  document: LED.includes(document.title)
    ? withEveryGrip(document, readTuneDocument(document, 'case', DEFAULT_PLAYER), DEFAULT_PLAYER)
    : document,
})

let made: DemoTune[] | null = null
/** The book, made when it is first asked for: its chord melodies are searched for. */
export const demoBook = (): readonly DemoTune[] => (made ??= demoTunes().map(led))

const demoTunes = (): DemoTune[] => [
  accompanied(
    sung(
      tune(
        0,
        FIRST_TUNE,
        [
          'key: G',
          'meter: 4/4',
          'tempo: 112',
          '[A] | G | Em7 | Am7 | D7 |',
          '| Bm7 E7 | Am7 D7 | G | Am7 D7 |',
          '[A] | G | Em7 | Am7 | D7 |',
          '| Abm7 Db7 | Am7 D7 | G | Dm7 G7 |',
          '[B] | C | Cm | Bm7 | E7 |',
          '| Am7 | A7 | Am7 | D7 |',
          '[A] | G | Em7 | Am7 | D7 |',
          '| Bm7 E7 | Am7 D7 | G | Am7 D7 |',
        ],
        {
          colour: 2,
          others: [
            firstOf(
              chartsOf({
                ...newDocument('With an ending'),
                chart: 'With an ending',
                colour: 1,
                bass: 'any',
                text: [
                  'key: G',
                  'meter: 4/4',
                  'tempo: 112',
                  '[A] |: G | Em7 | Am7 | D7 |',
                  '| Bm7 E7 | Am7 D7 |1. G | Am7 D7 :|2. G | Dm7 G7 |',
                  '[B] | C | Cm6 F9 | Bm7 | E7 |',
                  '| Am7 | A7 | Am7 | D7sus D7 |',
                  '[A] | G | Em7 | Am7 | D7 |',
                  '| Bm7 Bb°7 | Am7 . D7_D7b9 . | G | % |',
                ].join('\n'),
              }),
            ),
          ],
        },
      ),
      LANTERN,
      { density: 'chord' },
    ),
    { figure: 'pushes on the and of four', sections: { B: 'half notes' }, bass: 'walking', time: 'brushes' },
  ),
  accompanied(
    tune(
      1,
      'Four Planks',
      ['key: C', 'meter: 4/4', 'tempo: 92', '[A] | C | Am | Dm | G |', '| C | Am | F | G |'],
      {
        colour: 3,
        choices: {
          '4:1': { chords: [{ symbol: 'G13b9', beats: 4 }], span: 1, rule: 'altered-dominant', at: 0 },
        },
      },
    ),
    { figure: 'alternating thumb' },
  ),
  accompanied(
    tune(
      2,
      'Low Water Blues',
      [
        'key: Cm',
        'meter: 4/4',
        'tempo: 84',
        '[A] | Cm | Fm | Cm | C7 |',
        '| Fm | % | Cm | % |',
        '| Ab7 | G7 | Cm Ab7 | Dm7b5 G7 |',
      ],
      { colour: 2, bass: 'any' },
    ),
    { figure: 'dotted quarter and eighth', bass: 'two', time: 'two and four', feel: 'shuffle' },
  ),
  accompanied(
    sung(
      tune(5, 'Halyard Waltz', [
        'key: F',
        'meter: 3/4',
        'tempo: 126',
        '[A] | F | F | Gm7 | C7 |',
        '| Am7 | D7 | Gm7 | C7 |',
        '| F | F7 | Bb | Bbm |',
        '| F | Gm7 C7 . | F | F |',
        '[B] | Bb | Bbm6 | F | D7 |',
        '| Gm7 | C7 | Am7b5 | D7 |',
        '| Gm7 | Bbm6 | Am7 | D7 |',
        '| Gm7 | C7 | F | F |',
      ]),
      HALYARD,
      { density: 'chord', texture: 'full' },
    ),
    { figure: 'jazz waltz', sections: { B: 'waltz' }, bass: 'roots', time: 'brushes' },
  ),
  accompanied(
    tune(
      9,
      'Warm Current',
      [
        'key: D',
        'meter: 4/4',
        'tempo: 132',
        '[A] | Dmaj7 | % | Em7 | A7 |',
        '| Em7 | A7 | Dmaj7 | B7 |',
        '[B] | Em7 | Gm6 | F#m7 | B7 |',
        '| E7 | Em7 A7 | Dmaj7 | Em7 A7 |',
      ],
      { colour: 3, bass: 'any' },
    ),
    { figure: 'bossa in two bars', bass: 'fifths' },
  ),
  accompanied(
    tune(16, 'Fog at the Second Bell', [
      'key: Am',
      'meter: 4/4',
      'tempo: 72',
      '[A] | Am | Dm | Bm7b5 E7 | Am |',
      '| F | Dm | Bm7b5 | E7 |',
      '[B] | C | G | F | E7 |',
      '| Am G | F E7 | Am | % |',
    ]),
    { figure: 'five over four', restart: 'tune' },
  ),
  accompanied(
    tune(24, 'Coil of Rope', [
      'key: Bb',
      'meter: 4/4',
      'tempo: 168',
      '[A] | Bb G7 | Cm7 F7 | Bb G7 | Cm7 F7 |',
      '| Fm7 Bb7 | Eb Ab7 | Dm7 G7 | Cm7 F7 |',
      '[B] | D7 | % | G7 | % |',
      '| C7 | % | F7 | % |',
      '[A] | Bb G7 | Cm7 F7 | Bb G7 | Cm7 F7 |',
      '| Fm7 Bb7 | Eb Ebm | Bb F7 | Bb |',
    ]),
    { figure: 'four to the bar', bass: 'walking', time: 'two and four' },
  ),
  accompanied(
    tune(31, 'Ferryman, Wait', [
      'key: E',
      'meter: 6/8',
      'tempo: 144',
      'pickup: 2',
      '[A] | B7 |: E | C#m | A | B |',
      '|1. E | G#m | F#m | B7 :|',
      '|2. E | C#7 | F#m B7 | E Fine |',
      '[B] | A | Am | E | C#7 |',
      '| F#m | B7 | A . . A . Am | B7 D.C. al Fine |',
    ]),
    { figure: 'six-eight, bass and chords' },
  ),
]
