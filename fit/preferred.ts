import { readFileSync } from 'node:fs'
import { parseChart } from '../core/chart/parseChart'
import { chord } from '../core/chord/parseChord'
import { styledLines } from '../core/leading/inStyle'
import type { TextureName } from '../core/leading/textureNames'
import { harmonise } from '../core/melody/harmonise'
import type { Density } from '../core/melody/melodyLine'
import { easiestFingering } from '../core/neck/fingering'
import { DEFAULT_HAND } from '../core/neck/hand'
import { STANDARD_GUITAR, type Frets } from '../core/neck/instrument'
import { parsePitch } from '../core/pitch/note'
import { must } from '../core/result'
import { voicingsOf } from '../core/voicing/enumerate'
import { usualFirst } from '../core/voicing/gripIdiom'
import { DEFAULT_LIMITS, type BassRule } from '../core/voicing/gripLimits'

/**
 * What players prefer, found or not: what the search gives first is held against it. Common
 * practice, no source.
 */
const read = <T>(name: string): readonly T[] =>
  JSON.parse(readFileSync(`fit/grips/${name}.json`, 'utf8')) as readonly T[]

/** How many of some cases hold, and which do not. */
export interface Held {
  held: number
  of: number
  not: string[]
}
const heldBy = <T>(cases: readonly T[], name: (one: T) => string, holds: (one: T) => boolean): Held => {
  const not = cases.filter((one) => !holds(one)).map(name)
  return { held: cases.length - not.length, of: cases.length, not }
}
const bassRule = (bass: 'root' | 'any'): BassRule => (bass === 'root' ? 'chord' : 'any')
const shown = (frets: Frets): string => frets.map((fret) => fret ?? 'x').join(' ')

/** Forms that are usual for a chord: three of them are wanted among the first six grips. */
export const formsHeld = (): Held =>
  heldBy(
    read<{ symbol: string; bass: 'root' | 'any'; usual: Frets[] }>('forms'),
    ({ symbol }) => symbol,
    ({ symbol, bass, usual }) => {
      const of = chord(symbol)
      const grips = voicingsOf(of, { ...DEFAULT_LIMITS, bass: bassRule(bass) })
      const first = usualFirst(grips, of, STANDARD_GUITAR)
        .slice(0, 6)
        .map(({ frets }) => shown(frets))
      return usual.filter((form) => first.includes(shown(form))).length >= 3
    },
  )

/** Fingerings that are taught: one of them is wanted first. */
export const fingersHeld = (): Held =>
  heldBy(
    read<{ frets: Frets; accept: (number | null)[][] }>('fingers'),
    ({ frets }) => shown(frets),
    ({ frets, accept }) => {
      const fingers = easiestFingering(frets, STANDARD_GUITAR, DEFAULT_HAND)?.fingers
      return accept.some((one) => one.join() === fingers?.join())
    },
  )

interface LinePair {
  id: string
  symbols: string[]
  bass: 'root' | 'any'
  texture?: TextureName
  better: Frets[]
  worse: Frets[]
}

/**
 * Lines of grips that are preferred: half of one is wanted in one of the first five lines, and none
 * nearer to what is not played.
 */
export function linesHeld(): { found: Held; notNearer: Held } {
  const cases = read<LinePair>('lines').map((pair) => {
    const { lines } = must(
      styledLines({
        chords: pair.symbols.map(chord),
        limits: { ...DEFAULT_LIMITS, bass: bassRule(pair.bass) },
        style: 'smooth',
        count: 5,
        different: true,
        ...(pair.texture ? { texture: pair.texture } : {}),
      }),
    )
    const nearness = (grips: readonly Frets[]) =>
      Math.max(
        ...lines.map(
          ({ voicings }) => voicings.filter(({ frets }, at) => shown(frets) === shown(grips[at]!)).length,
        ),
      )
    return { pair, better: nearness(pair.better), worse: nearness(pair.worse) }
  })
  const name = ({ pair }: (typeof cases)[number]) => pair.id
  return {
    found: heldBy(cases, name, ({ pair, better }) => better >= pair.symbols.length / 2),
    notNearer: heldBy(cases, name, ({ better, worse }) => better >= worse),
  }
}

interface Struck {
  bar: number
  beat: number
  frets: Frets
  held?: boolean
}
interface MelodyPair {
  id: string
  text: string
  melody: { bar: number; beat: number; beats: number; note: string }[]
  density: Density
  bass: 'root' | 'any'
  better: Struck[]
  worse: Struck[]
}

/**
 * Chord melodies that are preferred: half of what is struck in one is wanted in one of five
 * answers.
 */
export function melodiesHeld(): { found: Held; notNearer: Held } {
  const cases = read<MelodyPair>('chordmelody').map((pair) => {
    const lines = must(
      harmonise({
        chart: parseChart(pair.text),
        melody: pair.melody.map(({ note, ...place }) => ({ ...place, note: must(parsePitch(note)) })),
        limits: { ...DEFAULT_LIMITS, frets: [0, 17], bass: bassRule(pair.bass) },
        density: pair.density,
        count: 5,
      }),
    )
    const key = ({ bar, beat, frets }: Struck) => `${bar}:${beat} ${shown(frets)}`
    const given = lines.map(
      ({ notes }) =>
        new Set(
          notes
            .filter(({ under }) => under !== 'held')
            .map(({ bar, beat, voicing: { frets } }) => key({ bar, beat, frets })),
        ),
    )
    const nearness = (struck: readonly Struck[]) => {
      const of = struck.filter(({ held }) => !held)
      return Math.max(...given.map((one) => of.filter((place) => one.has(key(place))).length / of.length))
    }
    return { pair, better: nearness(pair.better), worse: nearness(pair.worse) }
  })
  const name = ({ pair }: (typeof cases)[number]) => pair.id
  return {
    found: heldBy(cases, name, ({ better }) => better >= 0.5),
    notNearer: heldBy(cases, name, ({ better, worse }) => better >= worse),
  }
}

/** Says how much of what players prefer is found. */
export function sayPreferred(): void {
  const say = (what: string, { held, of, not }: Held) =>
    console.log(`${what}: ${held} of ${of}${not.length > 0 ? `; not ${not.join(', ')}` : ''}`)
  say('usual forms, three among the first six', formsHeld())
  say('taught fingerings first', fingersHeld())
  const [lines, melodies] = [linesHeld(), melodiesHeld()]
  say('preferred lines found', lines.found)
  say('lines no nearer to what is not played', lines.notNearer)
  say('preferred chord melodies found', melodies.found)
  say('chord melodies no nearer to what is not played', melodies.notNearer)
}
