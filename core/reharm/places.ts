import type { FormPlaceName } from '../analysis/formPlaces'
import type { Idiom } from '../chart/chart'
import { hasDegree } from '../chord/symbol'
import { endsForm, hasSeventh, type Spot } from './spot'

/** What players try first at one kind of place. Common practice, no source. */
export interface FirstResources {
  /** The kind of place, in words. */
  at: string
  /** Styles it holds in; all where none are named. */
  idioms?: readonly Idiom[]
  /** Places in the form; all where none are named. */
  places?: readonly FormPlaceName[]
  on: (spot: Spot) => boolean
  /**
   * What stands in the chord's place, first things first, and why. Chords are written by the degree
   * of their root above the chord's own: `5|m7 1|7` is its ii and itself as a dominant, `b7|/1` a
   * major chord on its flat seventh over its root, `=` the chord as it is written.
   */
  tries: readonly (readonly [puts: string, why: string])[]
}

const SONGS: readonly Idiom[] = ['song', 'gospel']
const JAZZ: readonly Idiom[] = ['jazz', 'waltz', 'bossa']
const BLUES: readonly Idiom[] = ['blues', 'minor blues']

const inMajor = ({ key }: Spot) => key.mode === 'major'
const rises = ({ rootRise }: Spot, by: number) => rootRise === by
/** Goes down a fifth next, to a chord of either mode. */
const pushes = (spot: Spot) => rises(spot, 5) && spot.stands <= spot.beats
const isMajorish = ({ kind }: Spot) => kind === 'major' || kind === 'dominant' || kind === 'suspended'
const isDominant = ({ kind }: Spot) => kind === 'dominant' || kind === 'augmented'
const isOne = (spot: Spot) => spot.rel === 0 && inMajor(spot) && spot.kind !== 'minor'
const isMinorHome = (spot: Spot) => spot.rel === 0 && !inMajor(spot) && spot.kind === 'minor'
const isMixolydian = ({ role }: Spot) => role === 'Mixolydian tonic'
const toMinor = ({ role }: Spot) => role === 'dominant to minor'
const isFive = (spot: Spot) => spot.rel === 7 && (isMajorish(spot) || spot.kind === 'augmented')
const lasts = ({ stands, beats }: Spot) => stands > beats * 1.9
const hasBass = ({ chord }: Spot) => chord.bass !== null
const isLast = (spot: Spot) => spot.place === 'arrival' && endsForm(spot)

/** The table, first rows first: all rows that hold give their tries, one after the other. */
// prettier-ignore
export const FIRST_RESOURCES: readonly FirstResources[] = [
  {
    at: 'a written bass under a minor chord',
    on: (spot) => hasBass(spot) && spot.kind === 'minor',
    tries: [
      ['1|m7/=', 'The written bass stays; the seventh colours what is above it.'],
      ['1|m9/=', 'The written bass stays under a fuller chord.'],
      ['b3|/=', 'Over the written bass the relative major is a fuller form of %.'],
      ['1|madd9/=', 'The written bass stays under an added ninth.'],
      ['b3|6/=', 'Over the written bass the relative major with its sixth has all of %.'],
      ['1|m7add11/=', 'The written bass stays under an added eleventh.'],
      ['b7|/=', 'The major chord on the written bass.'],
    ],
  },
  {
    at: 'a written bass under a major chord',
    on: (spot) => hasBass(spot) && spot.kind === 'major',
    tries: [
      ['1|add9/=', 'The written bass stays under an added ninth.'],
      ['1|maj7/=', 'The written bass stays; the seventh colours what is above it.'],
      ['1|6/=', 'The written bass stays under an added sixth.'],
      ['1|maj9/=', 'The written bass stays under seventh and ninth.'],
      ['6|m7/=', 'Over the written bass the relative minor with its seventh has all of %.'],
      ['1|sus4/= 1|/=', 'The fourth holds the third back over the written bass.'],
      ['1|sus2/=', 'The second stands for the third over the written bass.'],
    ],
  },
  {
    at: 'a written bass under a dominant',
    on: (spot) => hasBass(spot) && spot.kind === 'dominant',
    tries: [
      ['1|9/=', 'The written bass stays under a ninth.'],
      ['1|13/=', 'The written bass stays under a thirteenth.'],
      ['1|7sus4/= 1|7/=', 'The fourth holds the third back over the written bass.'],
    ],
  },
  {
    at: 'the last bar',
    idioms: JAZZ,
    on: (spot) => isLast(spot) && isOne(spot),
    tries: [
      ['1|6/9', 'Sixth and ninth close without a pull.'],
      ['1|maj9', 'The ninth opens the last chord.'],
      ['= 5|7', 'Home, and the V that leads to the top again.'],
      ['= 2|m7', 'Home, and the ii that turns back to the top.'],
      ['1|maj7 1|6', 'The seventh falls to the sixth while home rings.'],
      ['1|6', 'The sixth rests.'],
    ],
  },
  {
    at: 'the last bar in minor',
    idioms: JAZZ,
    on: (spot) => isLast(spot) && isMinorHome(spot),
    tries: [
      ['1|m6/9', 'Sixth and ninth close in minor without a pull.'],
      ['1|m6', 'The natural sixth rests on a minor home.'],
      ['1|m(maj7)', 'The leading note held over home: a last chord that glows.'],
      ['1|m(maj7) 1|m6', 'The seventh falls to the sixth while home rings.'],
      ['1|madd9', 'The ninth leaves the triad plain.'],
      ['1|m9', 'The ninth over the flat seventh.'],
      ['= 5|7', 'Home, and the V that leads to the top again.'],
    ],
  },
  {
    at: 'home before the IV',
    idioms: ['gospel'],
    on: (spot) => isOne(spot) && pushes(spot),
    tries: [
      ['1|7', '% with its flat seventh is the V of >, which follows.'],
      ['1|7/3', 'The third in the bass climbs a half step to >.'],
      ['1|/3', 'The bass steps up through the third to >.'],
      ['1|9', '% as the V of >, with its ninth.'],
      ['5|m7 1|7', 'The ii and the V of >.'],
      ['= 1|7/3', 'Home, then the third in the bass under the flat seventh, a half step below >.'],
      ['1|/b7', 'The bass falls through the flat seventh.'],
      ['1|add9', 'The ninth leaves the triad plain.'],
    ],
  },
  {
    at: 'home before the IV',
    idioms: ['song'],
    places: ['way', 'standing', 'turnaround'],
    on: (spot) => isOne(spot) && pushes(spot) && spot.kind === 'major' && !hasSeventh(spot.chord) && !isMixolydian(spot),
    tries: [
      ['1|add9', 'The ninth leaves the triad plain.'],
      ['1|/3', 'The bass steps up through the third to >.'],
      ['1|7', '% with its flat seventh is the V of >, which follows.'],
      ['1|7/3', 'The third in the bass under the flat seventh, a half step below >.'],
      ['= 1|7/3', 'Home, then the third in the bass under the flat seventh, a half step below >.'],
      ['1|sus4 1|', 'The fourth holds the third back and comes home to it.'],
      ['5|m7 1|7', 'The ii and the V of >.'],
      ['1|6', 'The sixth rests.'],
      ['1|maj7', 'The seventh opens the chord.'],
      ['1|aug', 'The raised fifth climbs to the third of >.'],
    ],
  },
  {
    at: 'home of a song',
    idioms: SONGS,
    on: (spot) => isOne(spot) && !isMixolydian(spot) && spot.kind !== 'dominant',
    tries: [
      ['1|add9', 'The ninth leaves the triad plain.'],
      ['1|sus4 1|', 'The fourth holds the third back and comes home to it.'],
      ['1|sus2 1|', 'The second stands for the third and comes home to it.'],
      ['1|6', 'The sixth rests.'],
      ['1|maj7', 'The seventh opens the chord.'],
    ],
  },
  {
    at: 'home on the way',
    idioms: SONGS,
    places: ['way', 'standing', 'turnaround'],
    on: (spot) => isOne(spot) && !isMixolydian(spot) && spot.kind !== 'dominant',
    tries: [
      ['1|/3', 'The third in the bass keeps a home on the way from closing.'],
      ['6|m7', 'The relative minor with its seventh has all of %.'],
      ['= 1|maj7 1|7 1|6', 'A line falls inside %: 8 7 b7 6.'],
    ],
  },
  {
    at: 'home in Mixolydian',
    on: (spot) => isMixolydian(spot),
    tries: [
      ['1|add9', 'The ninth leaves the triad plain.'],
      ['1|7sus4', 'Fourth and flat seventh both lie in the mode.'],
      ['1|7', 'The flat seventh belongs to the mode.'],
      ['1|sus4 1|', 'The fourth holds the third back and comes home to it.'],
      ['b7|/1', 'The bVII over the bass of home.'],
      ['5|m7/1', 'The minor v over the bass of home.'],
      ['1|/3', 'The third in the bass.'],
      ['1|9', 'b7 and 9 lie in the mode.'],
    ],
  },
  {
    at: 'home of a blues before the IV',
    idioms: BLUES,
    on: (spot) => isOne(spot) && pushes(spot) && spot.place !== 'arrival',
    tries: [
      ['5|m7 1|7', 'The ii and the V of >, where the blues goes to its IV.'],
      ['1|7alt', 'Every altered tone falls into >.'],
      ['b5|7', 'The substitute a half step above >.'],
      ['1|9', 'The ninth of the blues.'],
      ['1|7#5', 'The raised fifth climbs to the third of >.'],
      ['5|m7 b5|7', 'The ii of >, and the substitute for its V.'],
      ['1|7b9', 'The b9 falls to the fifth of >.'],
      ['1|13', 'The thirteenth of the blues.'],
    ],
  },
  {
    at: 'home of a blues',
    idioms: BLUES,
    on: (spot) => isOne(spot),
    tries: [
      ['1|13', 'The thirteenth of the blues.'],
      ['1|9', 'The ninth of the blues.'],
      ['1|7#9', 'The blue third beside the major one.'],
      ['1|13 1|9', 'The thirteenth falls to the fifth over a ninth.'],
      ['1|7 4|7 1|7', 'A quick turn to the IV and back.'],
    ],
  },
  {
    at: 'home of jazz standing',
    idioms: JAZZ,
    places: ['standing', 'turnaround'],
    on: (spot) => isOne(spot) && spot.kind === 'major',
    tries: [
      ['6|m7', 'The second half of a home that lasts goes to its vi.'],
      ['6|7', 'VI7, the V of ii.'],
      ['3|m7', 'iii for a later home.'],
      ['1|6/9', 'Sixth and ninth after the seventh.'],
    ],
  },
  {
    at: 'home of jazz',
    idioms: JAZZ,
    on: (spot) => isOne(spot) && spot.kind === 'major',
    tries: [
      ['1|maj9', 'The ninth over the seventh: home opened.'],
      ['1|6/9', 'Sixth and ninth rest without a pull.'],
      ['1|maj7', 'The seventh opens home.'],
      ['1|6', 'The sixth rests.'],
    ],
  },
  {
    at: 'a later home of jazz',
    idioms: JAZZ,
    places: ['way', 'standing', 'turnaround'],
    on: (spot) => isOne(spot) && spot.kind === 'major',
    tries: [
      ['3|m7', 'iii stands for a home that does not close.'],
      ['1|maj7/3', 'The third in the bass keeps home from closing.'],
      ['6|m7', 'vi stands for a home that does not close.'],
    ],
  },
  {
    at: 'a minor home of a mode',
    idioms: ['modal'],
    on: (spot) => isMinorHome(spot),
    tries: [
      ['1|m9', 'The ninth of the mode.'],
      ['1|m11', 'Ninth and eleventh of the mode.'],
      ['1|m6', 'The natural sixth of the mode.'],
      ['5|m7/1', 'The minor v over the bass of home: the mode, open.'],
      ['1|m7 2|m7', 'The shape goes up a step inside the mode.'],
      ['1|m6/9', 'Sixth and ninth of the mode.'],
      ['1|m7', 'The flat seventh of the mode.'],
    ],
  },
  {
    at: 'a minor home with its seventh written',
    on: (spot) => isMinorHome(spot) && hasDegree(spot.chord, 'b7'),
    tries: [
      ['1|m9', 'The flat seventh is written: the ninth comes first.'],
      ['1|m11', 'Ninth and eleventh over the written seventh.'],
      ['1|m7/b3', 'The third in the bass.'],
      ['= 1|m6', 'The seventh falls to the sixth.'],
      ['1|m6', 'The natural sixth rests.'],
      ['1|m7add11', 'The eleventh over the written seventh.'],
    ],
  },
  {
    at: 'a minor home of a song',
    idioms: SONGS,
    on: (spot) => isMinorHome(spot) && !lasts(spot),
    tries: [
      ['1|madd9', 'The ninth leaves the triad plain.'],
      ['1|m7', 'The flat seventh of natural minor.'],
      ['1|sus2 1|m', 'The second stands for the third and comes home to it.'],
      ['= 1|m/b7', 'The bass steps down under the chord.'],
      ['1|m9', 'Seventh and ninth of natural minor.'],
    ],
  },
  {
    at: 'a minor home',
    on: (spot) => isMinorHome(spot) && !hasDegree(spot.chord, 'b7'),
    tries: [
      ['1|m6', 'The natural sixth rests on a minor home.'],
      ['1|madd9', 'The ninth leaves the triad plain.'],
      ['1|m(maj7)', 'The leading note held over home.'],
      ['= 1|m(maj7)', 'The root moves down to the leading note.'],
      ['1|m6/9', 'Sixth and ninth on a minor home.'],
      ['1|m9', 'The flat seventh and the ninth: softer.'],
      ['1|m7', 'The flat seventh: softer.'],
      ['= 1|m(maj7) 1|m7 1|m6', 'A line falls inside %: 8 7 b7 6.'],
    ],
  },
  {
    at: 'the IV of a blues',
    idioms: BLUES,
    on: (spot) => spot.rel === 5 && isDominant(spot),
    tries: [
      ['1|9', 'The ninth of the blues.'],
      ['1|13', 'The thirteenth of the blues.'],
      ['= b2|dim7', 'The #IV°7 on the way to home over its fifth.'],
      ['5|m7 1|7', 'The ii of % before it.'],
      ['1|9#11', 'It does not fall a fifth: the #11 is free.'],
      ['5|m7 1|9', 'The ii of % before it, and the ninth.'],
      ['1|9sus4 1|9', 'The fourth holds the third back.'],
    ],
  },
  {
    at: 'the IV as a seventh chord at rest',
    idioms: ['song', 'gospel', 'jazz', 'waltz', 'bossa', 'modal'],
    on: (spot) => spot.rel === 5 && inMajor(spot) && spot.kind === 'dominant',
    tries: [
      ['1|13', 'It does not fall a fifth: the natural thirteenth is free.'],
      ['1|9', 'It does not fall a fifth: the natural ninth is free.'],
      ['1|9#11', 'The #11 is its own colour on a IV7.'],
      ['1|maj7 1|7', 'The seventh of the key falls to the flat seventh.'],
      ['1|7#11', 'The #11 is its own colour on a IV7.'],
      ['1|m6', 'The minor iv with its sixth has the same pull home.'],
      ['5|m7 1|7', 'The ii of % before it.'],
    ],
  },
  {
    at: 'the IV of a song',
    idioms: SONGS,
    on: (spot) => spot.rel === 5 && spot.kind === 'major',
    tries: [
      ['1|add9', 'The ninth leaves the triad plain.'],
      ['1|maj7', 'The seventh of a IV lies in the key.'],
      ['6|m7', 'The ii with its seventh has all of %.'],
      ['= 1|m', 'The minor iv on the way back home.'],
      ['1|/3', 'The third in the bass.'],
      ['= 1|/2', 'The IV over the bass of V.'],
      ['1|6', 'The sixth rests.'],
    ],
  },
  {
    at: 'the IV of a song on its way home',
    idioms: SONGS,
    on: (spot) => spot.rel === 5 && inMajor(spot) && spot.kind === 'major' && spot.next?.rel === 0,
    tries: [
      ['4|7', 'The bVII7, the way home from behind.'],
      ['1|m6', 'The minor iv with its sixth on the way home.'],
      ['= #4|dim7', 'The #IV°7 on the way to home over its fifth.'],
    ],
  },
  {
    at: 'the IV of jazz',
    idioms: JAZZ,
    on: (spot) => spot.rel === 5 && spot.kind === 'major',
    tries: [
      ['1|maj9', 'Seventh and ninth of a IV lie in the key.'],
      ['1|6', 'The sixth rests.'],
      ['1|maj7#11', 'The #11 of a IV is the leading note of the key.'],
      ['= 1|m6', 'The minor iv on the way back home.'],
      ['1|m7 4|7', 'iv and bVII7, the way home from behind.'],
      ['= #4|dim7', 'The #IV°7 on the way to home over its fifth.'],
      ['1|maj7', 'The seventh of a IV lies in the key.'],
    ],
  },
  {
    at: 'the minor iv',
    idioms: JAZZ,
    on: (spot) => spot.rel === 5 && inMajor(spot) && spot.kind === 'minor',
    tries: [
      ['1|m6', 'The sixth of a minor iv is the second of the key.'],
      ['4|7', 'The bVII7 has the same pull home from behind.'],
      ['1|m7 4|7', 'iv and bVII7, the way home from behind.'],
      ['1|m9', 'Seventh and ninth are free.'],
      ['4|9', 'The bVII9, home from behind.'],
      ['4|13', 'The bVII13, home from behind.'],
      ['1|m(maj7)', 'The major seventh is the third of the key.'],
    ],
  },
  {
    at: 'the minor iv of a song',
    on: (spot) => spot.rel === 5 && spot.kind === 'minor' && inMajor(spot),
    tries: [
      ['1|m6', 'The sixth of a minor iv is the second of the key.'],
      ['1|m7', 'The flat seventh darkens it.'],
      ['1|madd9', 'The ninth leaves the triad plain.'],
      ['4|7', 'The bVII7 has the same pull home from behind.'],
      ['1|m/b3', 'The third in the bass.'],
    ],
  },
  {
    at: 'the minor iv of minor',
    on: (spot) => spot.rel === 5 && spot.kind === 'minor' && !inMajor(spot),
    tries: [
      ['1|m7', 'The flat seventh lies in the key.'],
      ['1|m9', 'Seventh and ninth are free.'],
      ['1|m6', 'The sixth of iv is the second of the key.'],
      ['1|madd9', 'The ninth leaves the triad plain.'],
      ['1|m/b3', 'The third in the bass.'],
    ],
  },
  {
    at: 'the bVII of a song',
    idioms: SONGS,
    on: (spot) => spot.rel === 10 && inMajor(spot) && spot.kind === 'major',
    tries: [
      ['1|add9', 'The ninth leaves the triad plain.'],
      ['6|m7', 'The v with its seventh has all of %.'],
      ['1|/3', 'The third in the bass.'],
      ['1|6', 'The sixth rests.'],
      ['1|maj7', 'The seventh opens the chord.'],
      ['1|/2', '% over the bass of home.'],
    ],
  },
  {
    at: 'the bVII of a song in minor',
    idioms: SONGS,
    on: (spot) => spot.rel === 10 && !inMajor(spot) && isMajorish(spot),
    tries: [
      ['1|add9', 'The ninth leaves the triad plain.'],
      ['1|7', 'The flat seventh of bVII lies in the key.'],
      ['1|/3', 'The third in the bass.'],
      ['1|sus4 1|', 'The fourth holds the third back and falls to it.'],
      ['1|sus2', 'The second stands for the third.'],
    ],
  },
  {
    at: 'the bVII of minor',
    idioms: [...JAZZ, ...BLUES, 'modal'],
    on: (spot) => spot.rel === 10 && !inMajor(spot) && isMajorish(spot),
    tries: [
      ['1|7', 'The flat seventh of bVII lies in the key.'],
      ['1|add9', 'The ninth leaves the triad plain.'],
      ['1|9', 'Flat seventh and ninth lie in the key.'],
      ['1|13', 'Flat seventh, ninth and thirteenth.'],
      ['1|/3', 'The third in the bass.'],
      ['5|m7 1|7', 'The ii of the relative major before it.'],
    ],
  },
  {
    at: 'the bVI of jazz',
    on: (spot) => spot.rel === 8 && spot.kind === 'major' && hasSeventh(spot.chord),
    tries: [
      ['1|maj9', 'Seventh and ninth are free.'],
      ['1|6/9', 'Sixth and ninth rest.'],
      ['1|maj7#11', 'Away from home the #11 is free.'],
      ['1|6', 'The sixth rests.'],
      ['6|m7', 'The iv with its seventh has all of %.'],
      ['= 4|7', '%, and the bII7 that falls home.'],
      ['1|maj13', 'Seventh, ninth and thirteenth.'],
    ],
  },
  {
    at: 'the bVI7 of a blues',
    on: (spot) => spot.rel === 8 && spot.kind === 'dominant',
    tries: [
      ['1|13', 'It falls a half step to V: the natural thirteenth is free.'],
      ['1|9', 'It falls a half step to V: the natural ninth is free.'],
      ['#4|m7b5', 'The ii of minor before V.'],
      ['1|9#11', 'The #11 is its own colour on a substitute.'],
      ['5|m7 1|7', 'The ii of % before it.'],
      ['1|13 1|9', 'The thirteenth falls to the fifth.'],
    ],
  },
  {
    at: 'the bII of a mode',
    on: (spot) => spot.rel === 1 && spot.kind === 'major',
    tries: [
      ['1|maj7', 'The seventh of bII is the tonic.'],
      ['1|maj7#11', 'Tonic and fifth of the key inside the bII.'],
      ['1|6', 'The sixth rests.'],
      ['1|/7', 'The bII over the bass of home.'],
      ['1|maj9', 'Seventh and ninth.'],
      ['1|/3', 'The third in the bass.'],
    ],
  },
  {
    at: 'an augmented V',
    on: (spot) => spot.kind === 'augmented',
    tries: [
      ['1|7#5', 'The flat seventh makes the augmented chord a dominant.'],
      ['1|7', 'The plain V7.'],
      ['1|9#5', 'Whole tones over the raised fifth.'],
      ['1|7sus4 1|7', 'The fourth holds the third back.'],
      ['b5|9', 'The substitute, a half step above >.'],
      ['5|m7 1|7', 'The ii before V.'],
      ['1|7b9', 'The b9 falls to the fifth of >.'],
    ],
  },
  {
    at: 'V of minor going elsewhere',
    on: (spot) => isFive(spot) && !inMajor(spot) && !pushes(spot),
    tries: [
      ['1|7b9', 'The b9 lies in the key, wherever % goes.'],
      ['1|7sus4 1|7', 'The fourth holds the third back.'],
      ['1|7/3', 'The leading note in the bass.'],
      ['1|7b13', 'The b13 is the third of the key.'],
      ['1|7#9', 'The #9 is the flat seventh of the key.'],
      ['3|dim7', 'V7b9 without its root.'],
    ],
  },
  {
    at: 'V to a minor chord in a song',
    idioms: SONGS,
    on: (spot) => toMinor(spot) && isMajorish(spot) && pushes(spot),
    tries: [
      ['1|7b9', 'The b9 lies in the key of > and falls to its fifth.'],
      ['1|7sus4 1|7', 'The fourth holds the third back and falls to it.'],
      ['1|7', 'The flat seventh pushes on.'],
      ['1|7/3', 'The leading note in the bass.'],
      ['5|m7b5 1|7', 'The ii of minor before V.'],
      ['1|sus4 1|', 'The fourth holds the third back and falls to it.'],
      ['3|dim7', 'V7b9 without its root.'],
      ['1|7b13', 'The b13 is the third of >.'],
    ],
  },
  {
    at: 'home as the V of IV in a song',
    idioms: SONGS,
    on: (spot) => spot.rel === 0 && inMajor(spot) && spot.kind === 'dominant' && pushes(spot),
    tries: [
      ['1|9', 'The ninth before a major chord.'],
      ['1|7/3', 'The third in the bass, a half step below >.'],
      ['1|7sus4 1|7', 'The fourth holds the third back and falls to it.'],
      ['5|m7 1|7', 'The ii of > before its V.'],
      ['1|13', 'Ninth and thirteenth before a major chord.'],
    ],
  },
  {
    at: 'V to a minor chord',
    idioms: [...JAZZ, ...BLUES, 'modal'],
    on: (spot) => toMinor(spot) && isMajorish(spot) && pushes(spot),
    tries: [
      ['1|7b9', 'The b9 lies in the key of > and falls to its fifth.'],
      ['5|m7b5 1|7', 'The ii of minor before V.'],
      ['1|7#9', 'The #9 is the flat seventh of that key.'],
      ['b5|7', 'The substitute, a half step above >.'],
      ['1|7alt', 'Every altered tone falls into >.'],
      ['1|7#5', 'The raised fifth is the third of >.'],
      ['1|7b13', 'The b13 is the third of >.'],
      ['1|7sus4 1|7', 'The fourth holds the third back.'],
    ],
  },
  {
    at: 'V to a minor chord of the key',
    idioms: JAZZ.concat('blues'),
    on: (spot) => toMinor(spot) && isMajorish(spot) && pushes(spot) && inMajor(spot) && spot.rel === 9,
    tries: [
      ['1|9', 'The ninth of V of ii lies in the key.'],
      ['5|m7 1|7', 'The iii of the key stands as its ii.'],
    ],
  },
  {
    at: 'a deceptive V',
    on: (spot) => isFive(spot) && inMajor(spot) && (rises(spot, 2) || rises(spot, 1)),
    tries: [
      ['1|7sus4 1|7', 'The fourth holds the third back; either goal may follow.'],
      ['1|9', 'The ninth fits home and > alike.'],
      ['1|/3', 'The leading note in the bass.'],
      ['1|9sus4', 'V held back: what follows stays open.'],
      ['1|7/3', 'The leading note in the bass under the seventh.'],
      ['= #1|dim7', 'The bass climbs by half steps into >.'],
      ['1|13', 'The thirteenth fits home and > alike.'],
    ],
  },
  {
    at: 'V of a song',
    idioms: SONGS,
    on: (spot) => isFive(spot) && inMajor(spot) && !lasts(spot),
    tries: [
      ['1|sus4 1|', 'The fourth holds the third back and falls to it.'],
      ['1|7', 'The flat seventh pushes home.'],
      ['b7|/1', 'The IV over the bass of V.'],
      ['1|/3', 'The leading note in the bass.'],
      ['5|m7 1|', 'The ii before V.'],
      ['1|7sus4 1|7', 'The fourth holds the third back and falls to it.'],
      ['5|m7/1', 'The ii over the bass of V.'],
    ],
  },
  {
    at: 'a V that lasts',
    on: (spot) => isFive(spot) && inMajor(spot) && (lasts(spot) || spot.place === 'standing'),
    tries: [
      ['1|9sus4', 'V held back while it lasts.'],
      ['5|m7/1', 'The ii over the bass of V.'],
      ['1|9', 'The ninth lies in the key.'],
      ['1|13', 'Ninth and thirteenth lie in the key.'],
      ['b7|/1', 'The IV over the bass of V.'],
      ['1|7sus4 1|7', 'The fourth holds the third back and falls to it.'],
      ['5|m7 1|7', 'The ii before V.'],
    ],
  },
  {
    at: 'V to home',
    idioms: [...JAZZ, ...BLUES, 'modal'],
    on: (spot) => isFive(spot) && inMajor(spot) && pushes(spot) && !lasts(spot) && spot.place !== 'standing',
    tries: [
      ['1|13', 'Ninth and thirteenth are free before a major home.'],
      ['1|7b9', 'The b9 falls to the fifth of >.'],
      ['5|m7/1', 'The ii over the bass of V.'],
      ['1|9sus4', 'The fourth held back.'],
      ['b5|7', 'The substitute, a half step above >.'],
      ['1|9', 'The ninth lies in the key.'],
      ['5|m7 1|7', 'The ii before V.'],
      ['1|13 1|7b13', 'The thirteenth falls to the b13, and on to the ninth of >.'],
      ['1|13b9', 'The b9 falls to the fifth of >, the 13 to its ninth.'],
      ['1|7alt', 'Every altered tone falls into >.'],
    ],
  },
  {
    at: 'V of another chord in a song',
    idioms: SONGS,
    on: (spot) =>
      spot.rel !== 7 && spot.rel !== 0 && spot.kind === 'dominant' && pushes(spot) && !toMinor(spot),
    tries: [
      ['1|9', 'The ninth before a major chord.'],
      ['1|7sus4 1|7', 'The fourth holds the third back and falls to it.'],
      ['1|7/3', 'The third in the bass, a half step below >.'],
      ['5|m7 1|7', 'The ii of > before its V.'],
    ],
  },
  {
    at: 'V of another chord',
    idioms: [...JAZZ, ...BLUES, 'modal'],
    on: (spot) => spot.rel !== 7 && spot.rel !== 0 && isDominant(spot) && pushes(spot) && !toMinor(spot),
    tries: [
      ['1|9', 'The ninth before a major chord.'],
      ['1|13', 'Ninth and thirteenth before a major chord.'],
      ['5|m7 1|7', 'The ii of > before its V.'],
      ['1|7b9', 'The b9 falls to the fifth of >.'],
      ['b5|7', 'The substitute, a half step above >.'],
      ['1|7sus4 1|7', 'The fourth holds the third back.'],
    ],
  },
  {
    at: 'ii of jazz',
    idioms: JAZZ.concat('blues'),
    on: (spot) => spot.rel === 2 && inMajor(spot) && spot.kind === 'minor',
    tries: [
      ['1|m9', 'The ninth of a ii is free.'],
      ['1|m11', 'Ninth and eleventh of a ii are free.'],
      ['1|m7/4', 'The ii over the bass of V.'],
      ['1|9', 'II9, the V of V.'],
      ['1|m7 4|7', 'The ii, and its V with it.'],
      ['b3|maj7', 'The IV has all of the ii but its root.'],
      ['1|m7add11', 'The eleventh of a ii is free.'],
    ],
  },
  {
    at: 'ii of a song',
    idioms: SONGS,
    on: (spot) => spot.rel === 2 && inMajor(spot) && spot.kind === 'minor',
    tries: [
      ['1|m7', 'The flat seventh lies in the key.'],
      ['b3|', 'The IV has two tones of the ii.'],
      ['1|m/b3', 'The third in the bass.'],
      ['1|madd9', 'The ninth leaves the triad plain.'],
      ['1|m9', 'Seventh and ninth.'],
      ['1|m7/b7', 'The bass steps down under the chord.'],
      ['1|m7 b3|', 'The ii, then the IV over its third.'],
    ],
  },
  {
    at: 'iii of a song',
    idioms: SONGS,
    on: (spot) => spot.rel === 4 && inMajor(spot) && spot.kind === 'minor',
    tries: [
      ['1|m7', 'The flat seventh lies in the key.'],
      ['b6|/1', 'Home over its third, on the same bass.'],
      ['b6|/b3', 'Home over its fifth.'],
      ['b3|/5', 'The V over its third.'],
      ['1|m7add11', 'The eleventh lies in the key.'],
      ['b3|6', 'The V with its sixth has all of %.'],
    ],
  },
  {
    at: 'vi of a song',
    idioms: SONGS,
    on: (spot) => spot.rel === 9 && inMajor(spot) && spot.kind === 'minor',
    tries: [
      ['1|m7', 'The flat seventh lies in the key.'],
      ['1|madd9', 'The ninth leaves the triad plain.'],
      ['= 1|m/b7', 'The bass steps down under the chord.'],
      ['b3|/5', 'Home over its third.'],
      ['1|m7/b7', 'The bass steps down under the chord.'],
      ['1|m9', 'Seventh and ninth lie in the key.'],
      ['b6|maj7', 'The IV with its seventh has all of %.'],
    ],
  },
  {
    at: 'vi of jazz before ii',
    idioms: JAZZ.concat('blues'),
    on: (spot) => spot.rel === 9 && inMajor(spot) && spot.kind === 'minor' && pushes(spot),
    tries: [
      ['1|7b9', 'VI7, the V of ii, with its b9.'],
      ['1|7', 'VI7, the V of ii.'],
      ['5|m7 1|7', 'The ii and the V of >.'],
      ['b5|7', 'The substitute, a half step above >.'],
      ['1|m9', 'The ninth of vi is free.'],
      ['1|7#5', 'The raised fifth is the third of >.'],
      ['1|7alt', 'Every altered tone falls into >.'],
      ['1|m11', 'Ninth and eleventh of vi are free.'],
    ],
  },
  {
    at: 'iii of jazz before vi',
    idioms: JAZZ.concat('blues'),
    on: (spot) => spot.rel === 4 && inMajor(spot) && spot.kind === 'minor' && pushes(spot),
    tries: [
      ['1|7b9', 'III7, the V of vi, with its b9.'],
      ['1|7', 'III7, the V of vi.'],
      ['1|m7add11', 'The eleventh lies in the key.'],
      ['b5|7', 'The substitute, a half step above >.'],
      ['1|7alt', 'Every altered tone falls into >.'],
      ['5|m7b5 1|7', 'The ii and the V of >.'],
      ['b6|6/9', 'Home, whose third % stands on.'],
    ],
  },
  {
    at: 'iii on the way down to ii',
    idioms: JAZZ.concat('blues'),
    on: (spot) => spot.rel === 4 && inMajor(spot) && spot.kind === 'minor' && rises(spot, 10),
    tries: [
      ['= 7|dim7', 'The bass steps down through bIII°7 to the ii.'],
      ['= 7|m7', 'The shape slides down by half steps to the ii.'],
      ['= 4|7', 'VI7, the V of ii, behind the iii.'],
      ['1|m7add11', 'The eleventh lies in the key.'],
      ['b6|maj7/1', 'Home over its third, on the same bass.'],
    ],
  },
  {
    at: 'vi or iii of jazz',
    idioms: JAZZ,
    on: (spot) => (spot.rel === 9 || spot.rel === 4) && inMajor(spot) && spot.kind === 'minor',
    tries: [
      ['1|m7', 'The flat seventh lies in the key.'],
      ['1|m7add11', 'The eleventh lies in the key.'],
    ],
  },
  {
    at: 'the minor v of a song',
    on: (spot) => spot.rel === 7 && inMajor(spot) && spot.kind === 'minor',
    tries: [
      ['1|m7', 'The flat seventh of a minor v.'],
      ['b3|', 'The bVII has two tones of the minor v.'],
      ['1|m7 4|7', 'The ii and the V of the IV.'],
      ['4|7/1', 'Home with its flat seventh, over its fifth.'],
      ['1|m/b3', 'The third in the bass.'],
      ['1|madd9', 'The ninth leaves the triad plain.'],
      ['1|m9', 'Seventh and ninth.'],
    ],
  },
  {
    at: 'a suspended seventh of a mode',
    on: (spot) => spot.kind === 'dominant' && hasDegree(spot.chord, '4') && !hasDegree(spot.chord, '3') && !pushes(spot),
    tries: [
      ['1|9sus4', 'The ninth: the suspended chord opened.'],
      ['5|m7/1', 'The same sound as a minor seventh over the bass.'],
      ['1|13sus4', 'Ninth and thirteenth.'],
      ['b7|/1', 'The same sound as a triad over the bass.'],
      ['1|m11', 'The minor third with the fourth above it.'],
      ['1|9sus4 1|13sus4', 'The thirteenth comes in above.'],
    ],
  },
  {
    at: 'a diminished seventh on the way down',
    on: (spot) => spot.kind === 'diminished' && rises(spot, 11),
    tries: [
      ['1|7', 'The substitute of V of >, on the same bass.'],
      ['1|m7', 'The minor seventh slides down a half step.'],
      ['b5|7b9', 'The V of >, with % in it as its b9.'],
      ['b5|7', 'The V of >.'],
      ['1|m7 4|7', 'A ii-V a half step above.'],
      ['b2|m7b5 b5|7', 'The ii and the V of >.'],
      ['1|9', 'The substitute with its ninth.'],
    ],
  },
  {
    at: 'a diminished seventh on the way up',
    on: (spot) => spot.kind === 'diminished' && rises(spot, 1),
    tries: [
      ['b6|7/1', 'The V of > over its third, on the same bass.'],
      ['b6|7b9/1', 'The V of > with its b9 over its third: % with a root under it.'],
      ['b6|7', 'The V of >.'],
      ['b3|m7b5 b6|7', 'The ii and the V of >.'],
    ],
  },
  {
    at: 'a major chord of minor',
    on: (spot) => !hasSeventh(spot.chord) && !inMajor(spot) && spot.kind === 'major' && (spot.rel === 3 || spot.rel === 8),
    tries: [
      ['1|maj7', 'The seventh lies in the key.'],
      ['1|add9', 'The ninth leaves the triad plain.'],
      ['1|6', 'The sixth lies in the key.'],
      ['1|/3', 'The third in the bass.'],
      ['1|maj9', 'Seventh and ninth are free.'],
      ['6|m7', 'The minor chord a third below, with its seventh has all of %.'],
    ],
  },
  {
    at: 'a half-diminished ii',
    on: (spot) => spot.kind === 'half-diminished',
    tries: [
      ['1|m7b5add11', 'The eleventh is free.'],
      ['b3|m6', 'The same sound as the minor iv with its sixth.'],
      ['1|m7b5/b3', 'The third in the bass.'],
    ],
  },
]
