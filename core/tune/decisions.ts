import { entryOf, itemAt } from '../lists'
import { NEAR } from '../chart/beats'
import { slotKey, slotsOf, type Chart, type Slot } from '../chart/chart'
import type { Analysis, Reading } from '../analysis/chordReading'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import { laidOut, stretched } from '../reharm/apply'
import { putsKey, type Intent, type Put } from '../reharm/change'
import { colourAt, coloursOf, type ColourOption } from '../reharm/colour'
import { farthestPassage, howFar, onDial } from '../reharm/howFar'
import type { Distance } from '../reharm/distance'
import { optionsOf, type ChangeOption } from '../reharm/options'
import type { MelodyNote } from '../reharm/melodyFit'
import { spotsOf, type Spot } from '../reharm/spot'
import type { Choice, TuneDocument } from './document'

/** Why something stands in the new line. */
export interface Because {
  /** The change in trade words. */
  name: string
  intent: Intent
  why: string
  mood: string
  /** Degrees the plain chord does not have, where one chord stands for one. */
  added: readonly Degree[]
  /** Null for the plain chord, and where no rule gives the change any more. */
  distance: Distance | null
}

/**
 * What stands in the new line for some neighbouring chords of the home line, and who decided it.
 */
export interface Decision {
  /** Place of the first chord of the home line that it stands for. */
  key: string
  index: number
  span: number
  puts: readonly Put[]
  /** `plain` where nothing is changed. */
  rule: string
  by: 'control' | 'hand' | 'tune'
  /**
   * When it was chosen, in milliseconds since 1970; 0 where the control gives it, or where that is
   * not known.
   */
  at: number
  readonly because: Because
}

/** What a grip by hand sounds, where that is not the chord it was put in for. */
export interface SoundsAs {
  /** The chord the grip was put in for. */
  meant: ChordSymbol
  /** What it is called by what sounds; null where that has no usual name. */
  named: ChordSymbol | null
  foreign: readonly Degree[]
  missing: readonly Degree[]
  /** The player keeps another name knowingly. */
  byPlayer: boolean
}

/** A chord of the new line in its place. */
export interface LineChord {
  key: string
  /** Place in the order of the new line, from 0. */
  index: number
  slot: Slot
  /** The chord of the home line that stands at its beginning, by index. */
  home: number
  /** Null where nothing sounds, or the home line could not be read. */
  decision: Decision | null
  /** The first chord of its decision. */
  first: boolean
  fixed: boolean
  /** Where a grip by hand sounds something else than the chord it was put in for. */
  sounding?: SoundsAs
  /**
   * The stringing its grip by hand was made for, where it cannot be played on the instrument at
   * hand.
   */
  elsewhere?: string
  /** With a capo: the chord whose shape is fingered. */
  played?: ChordSymbol | null
  /** How long it sounds, in beats of the metre the tune begins with. */
  lasts: number
}

type MadeChoices = Pick<TuneDocument, 'colour' | 'choices' | 'fixed'>

/**
 * What was decided for every readable chord of a chart: by hand, by a way through the tune, or by
 * the one control.
 */
export function decisionsOf(
  chart: Chart,
  analysis: Analysis,
  { colour, choices }: Pick<MadeChoices, 'colour' | 'choices'>,
): Decision[] {
  const readings = new Map(analysis.readings.map((reading) => [slotKey(reading.slot), reading]))
  const slots = slotsOf(chart)
  const decisions: Decision[] = []
  for (let index = 0; index < slots.length; index += 1) {
    const key = slotKey(itemAt(slots, index))
    const made = choices[key]
    const replaced = made && slots.slice(index, index + made.span)
    if (
      made &&
      replaced &&
      replaced.length === made.span &&
      replaced.every((slot) => readings.has(slotKey(slot)))
    ) {
      decisions.push(chosenDecision(key, index, made, replaced, entryOf(readings, key), chart, analysis))
      index += made.span - 1
    } else if (readings.has(key)) decisions.push(controlled(key, index, entryOf(readings, key), colour))
  }
  return decisions
}

function controlled(key: string, index: number, reading: Reading, colour: MadeChoices['colour']): Decision {
  const option = colourAt(coloursOf(reading), colour)
  return {
    key,
    index,
    span: 1,
    puts: [{ chord: option.chord, beats: reading.slot.beats }],
    rule: option.rule,
    by: 'control',
    at: 0,
    because: {
      name: option.rule === 'plain' ? 'as it is' : 'colour',
      intent: 'colour',
      why: option.why,
      mood: option.mood,
      added: option.added,
      distance: null,
    },
  }
}

function chosenDecision(
  key: string,
  index: number,
  made: Choice,
  replaced: readonly Slot[],
  reading: Reading,
  chart: Chart,
  analysis: Analysis,
): Decision {
  const puts = stretched(
    made.chords.map(({ symbol, beats }) => ({ chord: chordOf(symbol), beats })),
    replaced.reduce((sum, slot) => sum + slot.beats, 0),
  )
  let known: Because | null = null
  return {
    key,
    index,
    span: made.span,
    puts,
    rule: made.rule,
    by: made.by ?? 'hand',
    at: made.at,
    get because() {
      return (known ??= becauseOf(index, made, puts, reading, chart, analysis))
    },
  }
}

const chordOf = (symbol: string) => {
  const chord = parseChord(symbol)
  if (!chord.ok) throw new Error(chord.fault.message)
  return chord.value
}

/** The reason of a choice, when a rule still gives it where it stands. */
function becauseOf(
  index: number,
  { span, rule, why: kept }: Choice,
  puts: readonly Put[],
  reading: Reading,
  chart: Chart,
  analysis: Analysis,
): Because {
  const [one] = puts
  const colour =
    span === 1 && puts.length === 1
      ? coloursOf(reading).find((option) => option.chord.canonical === one!.chord.canonical)
      : undefined
  if (colour) return becauseOfColour(colour)
  const key = putsKey({ index, span, puts })
  const option = optionsAtSpot(chart, analysis, index, depthOf(rule)).find((other) => putsKey(other) === key)
  if (option) return becauseOfOption(option)
  if (rule === 'pulled')
    return {
      name: 'a note pulled',
      intent: 'swap',
      why: `A note of the grip was pulled, and ${one!.chord.canonical} is what it made.`,
      mood: '',
      added: [],
      distance: null,
    }
  const way = ON_THE_WAY[rule]
  if (way) return { name: rule, intent: 'insert', why: way, mood: '', added: [], distance: null }
  return {
    name: 'as chosen',
    intent: 'swap',
    why: kept ?? 'Chosen when this chord stood elsewhere or had another job.',
    mood: '',
    added: [],
    distance: null,
  }
}

/** Grips on a beat between two chords. */
const ON_THE_WAY: Readonly<Record<string, string>> = {
  'late resolution': 'A voice of the chord before stays and resolves a beat later.',
  'early arrival': 'A voice of the next chord is there a beat before it.',
  'half step approach': 'The next grip slides in from a half step off.',
  'passing diminished': 'The diminished chord on the note between two roots leads from one to the other.',
}

const nameOfColour = (special: ColourOption['special']) => (special ? 'special colour' : 'colour')
const becauseOfColour = ({ rule, special, why, mood, added }: ColourOption): Because => ({
  name: rule === 'plain' ? 'as it is' : nameOfColour(special),
  intent: 'colour',
  why,
  mood,
  added,
  distance: null,
})

export const becauseOfOption = ({ name, intent, why, mood, distance }: ChangeOption): Because => ({
  name,
  intent,
  why,
  mood,
  added: [],
  distance,
})

/** Rules put on top of one another are written with `+`. */
const depthOf = (rule: string): number => rule.split('+').length

/**
 * Spots and options of the chart read last: the drawer, the line and the reasons ask for many of
 * one chart.
 */
let last: {
  chart: Chart
  melody: readonly MelodyNote[]
  spots: (Spot | null)[]
  options: Map<string, ChangeOption[]>
} | null = null

const NO_MELODY: readonly MelodyNote[] = []

/**
 * Everything one chord of the home line can become by the rules, to a depth, with how the melody's
 * notes are heard over it.
 */
export function optionsAtSpot(
  chart: Chart,
  analysis: Analysis,
  index: number,
  depth: number,
  melody: readonly MelodyNote[] = NO_MELODY,
): ChangeOption[] {
  if (last?.chart !== chart || last.melody !== melody)
    last = {
      chart,
      melody,
      spots: last?.chart === chart ? last.spots : spotsOf(chart, analysis),
      options: new Map(),
    }
  const asked = `${index}:${depth}`
  const options = last.options.get(asked) ?? optionsOf(chart, last.spots, index, { depth, melody })
  last.options.set(asked, options)
  return options
}

/**
 * How far some decisions go, over the slots from one to another, by what changes there: 0 plain to
 * 1 far out.
 */
export function howFarGone(
  chart: Chart,
  analysis: Analysis,
  decisions: readonly Pick<Decision, 'index' | 'span' | 'puts'>[],
  from?: number,
  to?: number,
): number {
  return howFar(chart, spotsKnown(chart, analysis), decisions, from, to)
}

function spotsKnown(chart: Chart, analysis: Analysis): readonly (Spot | null)[] {
  if (last?.chart !== chart)
    last = { chart, melody: NO_MELODY, spots: spotsOf(chart, analysis), options: new Map() }
  return last.spots
}

/**
 * The same of a whole tune or a stretch, on the scale of its control: one measure for a way and a
 * version.
 */
export const tuneFarGone = (...asked: Parameters<typeof howFarGone>): number => onDial(howFarGone(...asked))

/** The passage that goes farthest; null in a tune of one passage. */
export function farthestGone(
  chart: Chart,
  analysis: Analysis,
  decisions: readonly Pick<Decision, 'index' | 'span' | 'puts'>[],
): ReturnType<typeof farthestPassage> {
  return farthestPassage(chart, spotsKnown(chart, analysis), decisions)
}

/**
 * The chords of the new line: what was decided, laid out over the bars; one that goes on over a bar
 * line is held there.
 */
export function newLineOf(
  chart: Chart,
  decisions: readonly Decision[],
  fixed: MadeChoices['fixed'],
): LineChord[] {
  const slots = slotsOf(chart)
  const units = new Map(chart.bars.map((bar) => [bar.number, bar.meter.unit]))
  const byIndex = new Map(decisions.map((decision) => [decision.index, decision]))
  const line: LineChord[] = []
  const add = (slot: Slot, home: number, decision: Decision | null, first: boolean) => {
    const key = slotKey(slot)
    line.push({
      key,
      index: line.length,
      slot,
      home,
      decision,
      first,
      fixed: key in fixed,
      lasts: (slot.beats * chart.meter.unit) / (units.get(slot.bar) ?? chart.meter.unit),
    })
  }
  for (let index = 0; index < slots.length; index += 1) {
    const decision = byIndex.get(index)
    if (!decision) {
      add(itemAt(slots, index), index, null, true)
      continue
    }
    const replaced = slots.slice(index, index + decision.span)
    const placed = laidOut(decision.puts, replaced)
    placed.forEach((slot, at) => {
      const under = replaced.findIndex(
        (home) => home.bar === slot.bar && slot.beat < home.beat + home.beats - NEAR,
      )
      add(slot, index + Math.max(0, under), decision, at === 0)
    })
    index += decision.span - 1
  }
  return line
}

/**
 * Where a chord of the home line begins in the new line: the first chord there, or the one that
 * sounds on through it.
 */
export const lineChordUnder = (line: readonly LineChord[], home: number): LineChord | undefined =>
  line.find((one) => one.home === home) ?? line.findLast((one) => one.home < home)
