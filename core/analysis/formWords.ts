import { firstOf, itemAt, lastOf } from '../lists'
import { sameBeat } from '../chart/beats'
import { barName, meterName, type Bar, type Chart } from '../chart/chart'
import { playOrder } from '../chart/form'
import { keyName, scaleSounds, type Key } from '../pitch/key'
import { modulo, pitchClass, type Note } from '../pitch/note'
import { stepName } from './numeral'
import { sameKey } from './localKeys'
import type { Analysis, Group, Reading } from './chordReading'

/** Something said of the form, with what it was worked out from. */
export interface FormWords {
  says: string
  why: string
}

/**
 * What a player would say of the tune before playing it: length, form, keys, and what is unusual.
 * In the order in which it is said.
 */
export function formInWords(chart: Chart, analysis: Analysis): FormWords[] {
  if (chart.bars.length === 0) return []
  const parts = partsOf(chart)
  return [
    ...lengthInWords(chart, parts),
    ...keyInForm(analysis),
    ...movesInWords(analysis, parts),
    ...restingSteps(analysis, parts),
    ...visits(analysis, parts),
  ]
}

/** As one sentence: "32 bars, A A B A; home G; bars 13 to 14 …". */
export const formSentence = (words: readonly FormWords[]): string => words.map(({ says }) => says).join('; ')

interface FormPart {
  name: string
  bars: Bar[]
  /** The player named it; otherwise it was found by comparing bars. */
  written: boolean
}

const full = (bars: readonly Bar[]) => bars.filter((bar) => bar.number > 0)

/**
 * The parts of the form as written; of a chart without section marks its eight-bar stretches, alike
 * ones by one letter.
 */
function partsOf(chart: Chart): FormPart[] {
  const bars = full(chart.bars)
  const first = bars[0]
  if (!first) return []
  if (chart.bars.some((bar) => bar.opensSection)) {
    const parts: FormPart[] = []
    for (const bar of bars) {
      if (bar.opensSection || parts.length === 0)
        parts.push({ name: bar.section ?? 'intro', bars: [bar], written: true })
      else lastOf(parts).bars.push(bar)
    }
    return parts
  }
  const EIGHT = 8
  if (bars.length < 2 * EIGHT || bars.length % EIGHT !== 0) return [{ name: '', bars, written: false }]
  const opening = (part: readonly Bar[]) =>
    part
      .slice(0, 4)
      .map((bar) => bar.slots.map((slot) => slot.text).join(' '))
      .join('|')
  const seen: string[] = []
  const parts = Array.from({ length: bars.length / EIGHT }, (_, at) => {
    const part = bars.slice(at * EIGHT, (at + 1) * EIGHT)
    const begins = opening(part)
    if (!seen.includes(begins)) seen.push(begins)
    return { name: String.fromCharCode(65 + (seen.indexOf(begins) % 26)), bars: part, written: false }
  })
  // Where nothing comes again, letters would say nothing.
  return seen.length < parts.length ? parts : [{ name: '', bars, written: false }]
}

const SMALL = ['no', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine']
const count = (number: number, thing: string) => `${number} ${thing}${number === 1 ? '' : 's'}`
const countInWords = (number: number, thing: string) =>
  `${SMALL[number] ?? number} ${thing}${number === 1 ? '' : 's'}`

function lengthInWords(chart: Chart, parts: readonly FormPart[]): FormWords[] {
  const written = full(chart.bars).length
  const order = playOrder(chart).map((index) => itemAt(chart.bars, index))
  const playedBars = full(order).length
  const names = playedNames(order, parts)
  const bars =
    playedBars === written ? count(written, 'bar') : `${count(written, 'bar')} written, ${playedBars} played`
  const meters = [...new Set(chart.bars.map((bar) => meterName(bar.meter)))]
  const found = parts.length > 1 && !firstOf(parts).written
  const words: FormWords[] = [
    {
      says: [
        bars,
        names && (found ? `it reads as ${names}` : names),
        chart.pickup > 0 && `a pickup of ${countInWords(chart.pickup, 'beat')}`,
      ]
        .filter(Boolean)
        .join(', '),
      why: found
        ? 'The chart names no sections: stretches of eight bars that begin alike have one letter.'
        : 'Counted as written, sections in the order in which they are played, the pickup left out.',
    },
  ]
  if (meters.length > 1 || meters[0] !== '4/4') {
    const changes = chart.bars
      .filter((bar) => bar.newMeter)
      .map((bar) => `${meterName(bar.meter)} from ${barName(bar.number)}`)
    words.push({ says: [`in ${meterName(chart.meter)}`, ...changes].join(', '), why: 'As the chart says.' })
  }
  return words
}

/** Section names as played, a section again when its first bar comes again. */
function playedNames(order: readonly Bar[], parts: readonly FormPart[]): string {
  if (parts.length < 2 && !parts[0]?.written) return ''
  const opens = new Map(parts.map((part) => [firstOf(part.bars), part.name]))
  return order.flatMap((bar) => opens.get(bar) ?? []).join(' ')
}

function keyInForm({ key, keyGuessed, confidence, otherKeys, groups }: Analysis): FormWords[] {
  const percent = (share: number) => `${Math.min(99, Math.round(share * 100))}%`
  const rivals = otherKeys.map((other) => `${keyName(other.key)} ${percent(other.confidence)}`)
  const blues = groups.find((group) => group.kind === 'blues form')
  return [
    keyGuessed
      ? {
          says: `home ${keyName(key)}, found`,
          why: `${keyName(key)} has ${percent(confidence)} of the evidence${rivals.length > 0 ? `, before ${rivals.join(', ')}` : ''}: every key was scored on all chords, with how the tune begins and ends. A key: line settles it.`,
        }
      : { says: `home ${keyName(key)}`, why: 'The chart says so.' },
    ...(blues
      ? [{ says: blues.key.mode === 'minor' ? 'a 12-bar minor blues' : 'a 12-bar blues', why: blues.why }]
      : []),
  ]
}

const spanInWords = (from: number, to: number) => (from === to ? barName(from) : `bars ${from} to ${to}`)

/** The part that a stretch of bars fills, or nearly. */
function partFilled(from: number, to: number, parts: readonly FormPart[]): FormPart | undefined {
  const ENOUGH = 0.75
  const inside = (part: FormPart) => part.bars.filter((bar) => bar.number >= from && bar.number <= to).length
  const found = parts.filter(
    (part) =>
      part.name !== '' &&
      inside(part) >= ENOUGH * part.bars.length &&
      inside(part) >= ENOUGH * (to - from + 1),
  )
  return found.length === 1 ? found[0] : undefined
}

const called = ({ name }: FormPart) => (name.length === 1 ? name : name.toLowerCase())

function movesInWords(analysis: Analysis, parts: readonly FormPart[]): FormWords[] {
  return analysis.regions
    .filter((region) => !sameKey(region.key, analysis.key))
    .map((region) => {
      const part = partFilled(region.from.bar, region.to.bar, parts)
      const where = part ? called(part) : spanInWords(region.from.bar, region.to.bar)
      const single = part || region.from.bar === region.to.bar
      return {
        says: `${where} ${single ? 'is' : 'are'} in ${keyName(region.key)}`,
        why: `The chords of ${spanInWords(region.from.bar, region.to.bar)} fit ${keyName(region.key)} better than ${keyName(analysis.key)}, and its own I sounds there.`,
      }
    })
}

/** The tune is in its home key in this bar. */
const isHomeAt = ({ regions, key }: Analysis, bar: number): boolean =>
  sameKey(regions.filter((region) => region.from.bar <= bar).at(-1)?.key ?? key, key)

/** Parts that stand on a chord other than home for half of their time, or begin on one. */
function restingSteps(analysis: Analysis, parts: readonly FormPart[]): FormWords[] {
  const { readings, key } = analysis
  const said = new Set<string>()
  return parts.flatMap((part): FormWords[] => {
    if (part.name === '' || said.has(part.name) || !isHomeAt(analysis, firstOf(part.bars).number)) return []
    const inside = readings.filter((reading) => part.bars.some((bar) => bar.number === reading.slot.bar))
    const beats = inside.reduce((sum, reading) => sum + reading.slot.beats, 0)
    const steps = new Map<string, { beats: number; reading: Reading }>()
    for (const reading of inside) {
      if (reading.slot.symbol?.kind !== 'chord') continue
      const { root } = reading.slot.symbol.chord
      const step = stepName(root, key.tonic)
      steps.set(step, {
        beats: (steps.get(step)?.beats ?? 0) + reading.slot.beats,
        reading: steps.get(step)?.reading ?? reading,
      })
    }
    const first = inside[0]
    said.add(part.name)
    const [most] = [...steps.values()].sort((a, b) => b.beats - a.beats)
    if (!most || !first || most.reading.slot.symbol?.kind !== 'chord' || first.slot.symbol?.kind !== 'chord')
      return []
    const { chord } = most.reading.slot.symbol
    const isHome = (root: Note) => pitchClass(root) === pitchClass(key.tonic)
    if (most.beats * 2 >= beats && !isHome(chord.root))
      return [
        {
          says: `${called(part)} sits on ${stepAlone(most.reading)}`,
          why: `${chord.canonical} and its like stand for ${most.beats} of its ${beats} beats.`,
        },
      ]
    if (part.name === firstOf(parts).name || isHome(first.slot.symbol.chord.root)) return []
    return [
      {
        says: `${called(part)} begins on ${first.roman}`,
        why: `${first.slot.symbol.chord.canonical} is its first chord: ${first.reason}`,
      },
    ]
  })
}

/** The step of a numeral without its extensions. */
const stepAlone = (reading: Reading): string => /^[b#]*[IViv]+/.exec(reading.roman)?.[0] ?? reading.roman

/** How far a key lies from home, in a player's words. */
function distanceInWords(key: Key, home: Key): string {
  const semitones = modulo(pitchClass(key.tonic) - pitchClass(home.tonic), 12)
  const words: Readonly<Record<number, string>> = {
    1: 'steps up a half step',
    2: 'steps up a whole step',
    10: 'steps down a whole step',
    11: 'steps down a half step',
  }
  return words[semitones] ?? `looks towards ${keyName(key)}`
}

const triadOf = ({ tonic, mode }: Key) =>
  [0, mode === 'major' ? 4 : 3, 7].map((step) => modulo(pitchClass(tonic) + step, 12))

/** ii-V's of keys whose I is no chord of the home scale: the surprises. */
function visits(analysis: Analysis, parts: readonly FormPart[]): FormWords[] {
  const home = scaleSounds(analysis.key)
  const away = (group: Group) => {
    const inside = analysis.readings.find(
      (reading) => reading.slot.bar === group.from.bar && sameBeat(reading.slot.beat, group.from.beat),
    )
    return (
      ['ii-V', 'ii-V-I', 'minor ii-V'].includes(group.kind) &&
      inside &&
      sameKey(inside.key, group.key) &&
      isHomeAt(analysis, group.from.bar) &&
      !triadOf(group.key).every((sound) => home.has(sound))
    )
  }
  const visited = analysis.groups.filter(away).map((group) => {
    const bars = group.to.bar - group.from.bar + (group.resolves ? 0 : 1)
    const part = parts.find(
      (one) => one.name !== '' && parts.length > 1 && one.bars.some((bar) => bar.number === group.from.bar),
    )
    const where = part ? `${halfOf(part, group.from.bar)}${called(part)}` : barName(group.from.bar)
    const far = distanceInWords(group.key, analysis.key)
    return {
      says: `${where} ${far} for ${countInWords(Math.max(1, bars), 'bar')}${group.resolves ? '' : ' and does not land'}`,
      why: `${spanInWords(group.from.bar, group.to.bar)}: ${group.why}`,
    }
  })
  return visited.filter((one, at) => visited.findIndex((other) => other.says === one.says) === at)
}

function halfOf(part: FormPart, bar: number): string {
  const index = part.bars.findIndex((one) => one.number === bar)
  return index * 2 >= part.bars.length ? 'the second half of ' : ''
}
