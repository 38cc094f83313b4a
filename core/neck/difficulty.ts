import { firstOf, itemAt, lastOf } from '../lists'
import { pairReachMm, type Finger, type Hand } from './hand'
import { reachMm, type Frets, type Instrument } from './instrument'
import type { Press } from './press'

/**
 * What makes a grip hard, each part in the same arbitrary unit (about: one finger set down at ease
 * is 0.4).
 */
export interface DifficultyParts {
  /** Fingers to set down. */
  fingers: number
  /**
   * Share of the hand's reach that is used, squared: easy until it is near the limit, and steep
   * from four fifths of it on.
   */
  stretch: number
  /** Fingers away from one-finger-a-fret. */
  placement: number
  barre: number
  mutes: number
  thumb: number
}

/**
 * Common practice, no source: sizes chosen so that the usual open chords stay below 4 and a full
 * barre is about 5.
 */
const WEIGHT = {
  /** Each finger or thumb set down. */
  finger: 0.4,
  /** Each finger set down that tires. */
  weak: 0.7,
  /** Whole reach at its limit. */
  wholeReach: 3,
  /**
   * What the last fifth of the reach costs beside it, at the limit, squared: 80 to 100 mm for the
   * usual hand, more than any barre.
   */
  lastFifth: 4,
  /** Each neighbouring pair of fingers at its limit. */
  pairReach: 0.6,
  /** Each fret that a neighbouring pair is off from one finger a fret. */
  offPlace: 0.2,
  /** Two fingers at one fret with a barre held higher between them: one would lie across. */
  overBarre: 1,
  /** A finger set down beside a barre at its fret, where the barre could be longer. */
  besideBarre: 0.5,
  /** The tip of the index over two neighbouring strings, as a share of a barre. */
  smallBarre: 0.4,
  /** Any index barre, and each string it covers beyond two. */
  indexBarre: 0.7,
  indexString: 0.15,
  /** Near the nut the string fights back more: added at fret 1, fading to none at fret 12. */
  lowBarre: 0.5,
  /** A barre with another finger bends a joint backwards. */
  otherBarre: 0.9,
  otherString: 0.3,
  /** The middle finger bends back least: the ring finger takes the barre. */
  middleBarre: 0.6,
  /** Nobody lays another finger across where the index is free and nothing else is held. */
  loneBarre: 0.2,
  /** A string just above a barre that must ring lower or open makes the barre a hinge. */
  hinge: 0.4,
  /** Each silent string between sounding ones. */
  innerMute: 0.4,
  /** Thumb over the neck. */
  thumb: 0.9,
} as const

export function difficultyOf(
  presses: readonly Press[],
  frets: Frets,
  reach: number,
  instrument: Instrument,
  hand: Hand,
): DifficultyParts {
  const fingers = presses.filter((press) => press.finger !== 'T')
  const parts: DifficultyParts = {
    fingers:
      WEIGHT.finger * presses.length +
      WEIGHT.weak * fingers.filter(({ finger }) => hand.weak.includes(finger as Finger)).length,
    stretch: WEIGHT.wholeReach * (reach / hand.reachMm) ** 2 + lastFifth(reach / hand.reachMm),
    placement: 0,
    barre: 0,
    mutes: hand.plucked ? 0 : WEIGHT.innerMute * innerMutes(frets),
    thumb: presses.length > fingers.length ? WEIGHT.thumb : 0,
  }
  for (let index = 1; index < fingers.length; index += 1) {
    const [a, b] = [itemAt(fingers, index - 1), itemAt(fingers, index)]
    const [from, to] = [a.finger as Finger, b.finger as Finger]
    const mm = reachMm(a.fret, b.fret, instrument.scaleLengthMm)
    parts.stretch += WEIGHT.pairReach * (mm / pairReachMm(hand, from, to)) ** 2
    parts.placement += WEIGHT.offPlace * Math.abs(to - from - (b.fret - a.fret))
    if (a.fret === b.fret && fingers.some((one) => isBarreBetween(one, a, b)))
      parts.placement += WEIGHT.overBarre
    if (
      a.fret === b.fret &&
      a.strings.length + b.strings.length > 2 &&
      lastOf(a.strings) + 1 === b.strings[0]
    )
      parts.placement += WEIGHT.besideBarre
  }
  for (const press of fingers) if (press.strings.length > 1) parts.barre += barreEffort(press, frets)
  if (fingers.length === 1 && firstOf(fingers).finger !== 1 && firstOf(fingers).strings.length > 1)
    parts.barre += WEIGHT.loneBarre
  return parts
}

/** Where the last fifth of the reach begins. */
const STEEP_FROM = 0.8
const lastFifth = (share: number): number =>
  WEIGHT.lastFifth * (Math.max(0, share - STEEP_FROM) / (1 - STEEP_FROM)) ** 2

/** Whether a finger lies across strings between two others, above their fret. */
const isBarreBetween = ({ fret, strings }: Press, a: Press, b: Press): boolean =>
  strings.length > 1 &&
  fret > a.fret &&
  firstOf(strings) > lastOf(a.strings) &&
  lastOf(strings) < firstOf(b.strings)

function barreEffort(press: Press, frets: Frets): number {
  const top = lastOf(press.strings)
  const covered = top - firstOf(press.strings) + 1
  const above = frets[top + 1]
  const hinge = above !== undefined && above !== null && above < press.fret ? WEIGHT.hinge : 0
  if (press.finger !== 1)
    return (
      WEIGHT.otherBarre +
      WEIGHT.otherString * (covered - 2) +
      (press.finger === 2 ? WEIGHT.middleBarre : 0) +
      hinge
    )
  const nearNut = WEIGHT.lowBarre * Math.max(0, (12 - press.fret) / 11)
  if (covered === 2) return WEIGHT.smallBarre * (WEIGHT.indexBarre + nearNut) + hinge
  return WEIGHT.indexBarre + WEIGHT.indexString * (covered - 2) + nearNut + hinge
}

function innerMutes(frets: Frets): number {
  const first = frets.findIndex((fret) => fret !== null)
  const last = frets.findLastIndex((fret) => fret !== null)
  let silent = 0
  for (let string = first + 1; string < last; string += 1) if (frets[string] === null) silent += 1
  return silent
}
