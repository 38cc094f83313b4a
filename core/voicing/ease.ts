import { theOne } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { leastMotion } from '../pitch/motion'
import { voicingsOf } from './enumerate'
import type { Limits } from './gripLimits'
import { voicingOf, type Voicing } from './voicing'

/** How a grip can be made easier. */
export const EASINGS = [
  'without the double',
  'without a barre',
  'without the thumb',
  'top strings only',
  'another position',
] as const
export type Easing = (typeof EASINGS)[number]

export interface Easier {
  easing: Easing
  voicing: Voicing
  /** What is lost, in words; empty where nothing is. */
  lost: string
  /** How much easier, in points of difficulty. */
  easierBy: number
}

/** Strings of the top set. */
const TOP = 4
/** Frets the hand goes at least for another position. */
const AWAY = 3

/**
 * The nearest easier grip of each kind that keeps the colour of a chord: what the symbol names
 * still sounds. The nearest is the one with the least motion among those clearly easier. @returns
 * in the order of EASINGS, those there are
 */
export function easierThan(voicing: Voicing, chord: ChordSymbol, limits: Limits): Easier[] {
  const all = voicingsOf(chord, { ...limits, bass: limits.bass === 'root' ? 'chord' : limits.bass })
  const strings = voicing.frets.length
  const free = {
    ...limits,
    bass: 'any' as const,
    strings: Array.from({ length: Math.min(TOP, strings) }, (_, at) => strings - 1 - at),
  }
  const heldLow = (one: Voicing) =>
    Math.min(...one.frets.filter((fret): fret is number => fret !== null && fret > 0))
  const candidates: Readonly<Record<Easing, () => Voicing[]>> = {
    'without the double': () => withoutDouble(voicing, chord, limits),
    'without a barre': () =>
      voicing.fingering.barres.length > 0 ? all.filter((one) => one.fingering.barres.length === 0) : [],
    'without the thumb': () => (voicing.fingering.thumb ? all.filter((one) => !one.fingering.thumb) : []),
    'top strings only': () =>
      voicing.frets.slice(0, strings - TOP).some((fret) => fret !== null) ? voicingsOf(chord, free) : [],
    'another position': () => all.filter((one) => Math.abs(heldLow(one) - heldLow(voicing)) >= AWAY),
  }
  return EASINGS.flatMap((easing): Easier[] => {
    const easier = candidates[easing]().filter(
      (one) => one.fingering.difficulty < voicing.fingering.difficulty - 0.05,
    )
    if (easier.length === 0) return []
    const price = (one: Voicing) => leastMotion(voicing.midis, one.midis) + 2 * one.fingering.difficulty
    const nearest = easier.reduce((best, one) => (price(one) < price(best) ? one : best))
    return [
      {
        easing,
        voicing: nearest,
        lost: lostIn(voicing, nearest),
        easierBy: voicing.fingering.difficulty - nearest.fingering.difficulty,
      },
    ]
  })
}

/** The grip with one string of a doubled sound let go; the lowest note stays. */
function withoutDouble(voicing: Voicing, chord: ChordSymbol, limits: Limits): Voicing[] {
  return voicing.strings
    .filter(({ midi }) => midi !== voicing.midis[0])
    .filter(({ midi }) => voicing.midis.filter((other) => other % 12 === midi % 12).length > 1)
    .flatMap(
      ({ string }) =>
        voicingOf(
          voicing.frets.map((fret, at) => (at === string ? null : fret)),
          chord,
          limits,
        ) ?? [],
    )
}

/** What one grip sounds that another does not, in words. */
export function lostIn(from: Voicing, to: Voicing): string {
  const degrees = (one: Voicing) => new Set(one.strings.map(({ degree }) => degree))
  const kept = degrees(to)
  const gone = [...degrees(from)].filter((degree) => !kept.has(degree))
  const bassOf = (one: Voicing) => theOne(one.strings, ({ midi }) => midi === one.midis[0]).degree
  const words = [
    ...(gone.length > 0 ? [`the ${gone.join(' and the ')}`] : []),
    ...(bassOf(from) !== bassOf(to) ? [`the ${bassOf(from)} as its lowest note`] : []),
    ...(gone.length === 0 && to.midis.length < from.midis.length ? ['a doubled note'] : []),
  ]
  return words.join(', ')
}
