import type { ChordSymbol } from '../chord/symbol'
import { semitonesOf, type Degree } from '../pitch/degree'
import type { Role } from './role'

/** What can be added to a chord where it stands. */
export interface Tensions {
  free: readonly Degree[]
  /** Only as a colour on purpose; schools may differ. */
  special: readonly Degree[]
  avoid: readonly Degree[]
}

const row = (free: string, special = '', avoid = ''): Tensions => {
  const list = (text: string) => text.split(' ').filter(Boolean) as Degree[]
  return { free: list(free), special: list(special), avoid: list(avoid) }
}

/**
 * Availability by function (Nettles & Graf, "The Chord Scale Theory and Jazz Harmony"; Levine, "The
 * Jazz Theory Book"; both from memory). The degrees of a dominant are given against its unaltered
 * form; 11 on a dominant is avoided with the third.
 */
// prettier-ignore
const TENSIONS: Readonly<Record<Role, Tensions>> = {
  //                          free               special                            avoid
  'I major':            row('6 7 9 13',         '#11',                             '11'),
  'ii minor':           row('9 11',             '13 6'),
  'iii minor':          row('11',               '9',                               'b9 b13'),
  'IV major':           row('6 7 9 #11 13'),
  'borrowed major':     row('6 7 9 #11 13'),
  'relative major':     row('6 7 9 13',         '',                                '11'),
  'dominant to major':  row('9 13 4',           'b9 #9 #11 b5 b13 #5',             '11'),
  'home dominant at rest': row('9 13 4',        '',                                '11'),
  'dominant to minor':  row('b9 b13 #9',        '9 13',                            '11'),
  'vi minor':           row('9 11',             '',                                'b13'),
  'half-diminished':    row('11 b13',           '9',                               'b9'),
  'tonic minor':        row('6 9 11 7',         'b7',                              'b13'),
  'iv minor':           row('6 b7 9 13'),
  'dominant at rest':   row('9 #11 13',         '',                                'b9 #9 b13'),
  'blues I into IV':          row('9 13',           '#9 b9 #5 b5 b13',                 '11'),
  // Any tone a whole step above a chord tone.
  diminished:           row('9 11 b13 7'),
  augmented:            row('9 b7'),
  suspended:            row('b7 9 13'),
  'Mixolydian tonic':   row('b7 9 13 4 6',          '',                                '7'),
  power:                row('9'),
}

const soundOf = (degree: Degree): number => semitonesOf(degree) % 12

/** The tensions of a chord in its role, without the tones that it already has by that name. */
export function availableTensions(chord: ChordSymbol, role: Role): Tensions {
  // By sound: a chord with a 4 is not told of its 11.
  const sounds = (degrees: readonly Degree[]) => new Set(degrees.map(soundOf))
  const without = (list: readonly Degree[], heard: ReadonlySet<number>) =>
    list.filter((degree) => !heard.has(soundOf(degree)))
  const has = sounds(chord.tones.map(({ degree }) => degree))
  const { free, special, avoid } = TENSIONS[role]
  return { free: without(free, has), special: without(special, has), avoid: without(avoid, has) }
}

/**
 * Why a tension is free, special or to be avoided on a chord in its role: by the chord tone it lies
 * against, then by the job.
 */
export function whyTension(chord: ChordSymbol, role: Role, degree: Degree): string {
  const { free, special } = TENSIONS[role]
  const sound = semitonesOf(degree)
  const against = (semitones: number) =>
    chord.tones.find((tone) => (semitonesOf(tone.degree) + semitones) % 12 === sound)?.degree
  const [half, whole] = [against(1), against(2)]
  const clash = half ? `a half step above the ${half}, a minor ninth with it when it lies higher` : null
  const stands = whole ? `a whole step above the ${whole}` : 'it lies no half step above a chord tone'
  if (free.includes(degree)) {
    if (clash && degree !== 'b9') return `${degree}: ${clash}, but it belongs to this job (${role}).`
    if (degree === 'b9')
      return `b9: the one minor ninth that is welcome, over the root of a dominant that falls a fifth.`
    return `${degree}: ${stands}, and it belongs to this job (${role}).`
  }
  if (special.includes(degree))
    return `${degree}: ${clash ?? stands}; a colour on purpose, not by habit, for this job (${role}).`
  return `${degree}: ${clash ?? `not of the scale of this job (${role})`}.`
}
