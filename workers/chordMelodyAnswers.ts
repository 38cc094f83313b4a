import { firstOf } from '../core/lists'
import { NEAR_WRITTEN } from '../core/chart/beats'
import { analyse } from '../core/analysis/analyse'
import { slotsOf } from '../core/chart/chart'
import { parseChart } from '../core/chart/parseChart'
import { chord } from '../core/chord/parseChord'
import { blockHarmonised, type Block } from '../core/melody/block'
import { choicesUnder, harmonise } from '../core/melody/harmonise'
import type { HarmoniseProblem, LinePlace } from '../core/melody/melodyLine'
import { elsewhere, keysRanked } from '../core/melody/move'
import { melodyReading } from '../core/melody/melodyReading'
import { parseKey } from '../core/pitch/key'
import type { ChordSymbol } from '../core/chord/symbol'
import { parsePitch, pitchClass } from '../core/pitch/note'
import { heardOver } from '../core/reharm/melodyFit'
import { optionsOf } from '../core/reharm/options'
import { spotsOf } from '../core/reharm/spot'
import { must, type Result } from '../core/result'
import { read } from '../core/tune/applyMelody'
import { melodyLimits } from '../core/player/melodyLimits'
import { progressTo, type Progress } from './answering'
import type { BlockAsked, MelodyAsked, UnderAsked } from './melodyQuestions'

type Tell = (told: Progress) => void

/** What was found, or the reason why nothing was, with what is accepted. */
function orFault<Found>(result: Result<Found>): Found {
  if (!result.ok)
    throw new Error(`${result.fault.message} Accepted: ${result.fault.accepted ?? 'another setting'}.`)
  return result.value
}

/** Everything the melody worker can be asked. */
export const melodyAnswers = {
  lines: ({ asked, count }: { asked: UnderAsked; count: number }, tell: Tell) =>
    orFault(harmonise({ ...problemOf(asked, tell), count })),
  /**
   * What one note could have under it; the sounds of the grips around it as MIDI numbers. `left`:
   * other chords that take the note and were not tried.
   */
  under: (
    {
      asked,
      place,
      before,
      after,
      all,
    }: {
      asked: UnderAsked
      place: { bar: number; beat: number }
      before: number[] | null
      after: number[] | null
      all: boolean
    },
    tell: Tell,
  ) => {
    const others = othersAt(asked, place)
    const tried = all ? others : others.slice(0, OTHERS)
    return {
      choices: choicesUnder(problemOf(asked, tell), place, before, after, tried),
      left: others.length - tried.length,
    }
  },
  elsewhere: ({ asked }: { asked: UnderAsked }, tell: Tell) => orFault(elsewhere(problemOf(asked, tell))),
  keys: ({ asked }: { asked: UnderAsked }, tell: Tell) => orFault(keysRanked(problemOf(asked, tell))),
  blocks: ({
    asked,
    notes,
    block,
  }: {
    asked: Pick<UnderAsked, 'body' | 'text'>
    notes: string[]
    block: BlockAsked
  }) =>
    orFault(
      blockHarmonised(
        notes.map((name) => must(parsePitch(name))),
        blockOf(block),
        melodyLimits(asked.body, parseChart(asked.text).capo, 'any'),
      ),
    ),
  reading: ({ asked }: { asked: MelodyAsked }) => {
    const chart = parseChart(asked.text)
    return melodyReading(chart, analyse(chart), placesOf(asked), asked.melody.map(read))
  },
}
export type MelodyAnswers = typeof melodyAnswers

/**
 * Colours of the chord that stands at a place and chords that can take its place, those that take
 * the melody note, nearest to home first.
 */
function othersAt({ text, melody }: UnderAsked, { bar, beat }: { bar: number; beat: number }): ChordSymbol[] {
  const note = melody.find((one) => one.bar === bar && Math.abs(one.beat - beat) < NEAR_WRITTEN)
  if (!note) return []
  const sound = pitchClass(must(parsePitch(note.note)))
  const chart = parseChart(text)
  const index = slotsOf(chart).findLastIndex(
    (slot) => slot.bar < bar || (slot.bar === bar && slot.beat <= beat + NEAR_WRITTEN),
  )
  const spots = spotsOf(chart, analyse(chart))
  const chords = optionsOf(chart, spots, index, { depth: 1 })
    .filter(({ span, puts }) => span === 1 && puts.length === 1)
    .sort((a, b) => a.distance.total - b.distance.total)
    .map(({ puts }) => firstOf(puts).chord)
  const takes = (one: ChordSymbol) => {
    const heard = heardOver(sound, one)
    return heard === 'chord tone' || heard === 'tension'
  }
  const seen = new Set<string>()
  return chords.filter((one) => takes(one) && !seen.has(one.canonical) && seen.add(one.canonical))
}
/** Other chords tried under one note at first; the player can ask for the rest. */
const OTHERS = 14

const placesOf = ({ places }: MelodyAsked): LinePlace[] =>
  places.map(({ symbol, ...place }) => ({ ...place, chord: symbol === null ? null : chord(symbol) }))

function problemOf(asked: UnderAsked, tell: Tell = () => undefined): HarmoniseProblem {
  const {
    text,
    melody,
    settings: { density, texture, fills, window, topString },
    style,
    weights,
    bass,
    body,
    tempo,
    fixed,
  } = asked
  const chart = parseChart(text)
  return {
    chart,
    places: placesOf(asked),
    melody: melody.map(read),
    limits: melodyLimits(body, chart.capo, bass, window, topString),
    style,
    density,
    texture,
    fills,
    tempo,
    onProgress: progressTo(tell),
    limitNames: {
      frets: window
        ? `the position, frets ${window[0]} to ${window[1]}, whose highest`
        : 'the highest fret at ease (Player page)',
      strings: `the melody is kept on string ${topString} and lower`,
    },
    ...(weights ? { weights } : {}),
    fixed: new Map(
      fixed.map(([place, { frets, symbol }]) => [
        place,
        { frets, chord: symbol === null ? null : chord(symbol) },
      ]),
    ),
  }
}

const blockOf = (block: BlockAsked): Block =>
  block.kind === 'sixth-diminished'
    ? { ...block, chord: chord(block.chord) }
    : { ...block, key: must(parseKey(block.key)) }
