import { analyse } from '../core/analysis/analyse'
import { slotsOf } from '../core/chart/chart'
import { parseChart } from '../core/chart/parse'
import { chord } from '../core/chord/parse'
import { blockHarmonised, type Block } from '../core/melody/block'
import { choicesUnder, harmonise } from '../core/melody/harmonise'
import type { HarmoniseProblem, Place } from '../core/melody/line'
import { elsewhere, keysRanked } from '../core/melody/move'
import { melodyReading } from '../core/melody/reading'
import { parseKey } from '../core/pitch/key'
import type { ChordSymbol } from '../core/chord/symbol'
import { parsePitch, pitchClass } from '../core/pitch/note'
import { heardOver } from '../core/reharm/melodyFit'
import { optionsOf } from '../core/reharm/options'
import { spotsOf } from '../core/reharm/spot'
import { must, type Result } from '../core/result'
import { read } from '../core/tune/applyMelody'
import { melodyLimits } from '../core/player/melodyLimits'
import type { BlockAsked, MelodyAsked, MelodyReply, MelodyRequest, UnderAsked } from './melodyMessages'

const reply = (message: MelodyReply) => self.postMessage(message)

/** At most this often is progress told, in ms. */
const PROGRESS_EVERY_MS = 60
let told = 0
const onProgress = (done: number, of: number): boolean => {
  if (performance.now() - told > PROGRESS_EVERY_MS) {
    told = performance.now()
    reply({ kind: 'progress', done, of })
  }
  return true
}

self.onmessage = ({ data }: MessageEvent<MelodyRequest>) => { reply(answerTo(data)) }

function answerTo(request: MelodyRequest): MelodyReply {
  switch (request.kind) {
    case 'lines': return orFault(harmonise({ ...problemOf(request.asked), count: request.count }), (lines) => ({ kind: 'lines', lines }))
    case 'under': {
      const others = othersAt(request.asked, request.place)
      const tried = request.all ? others : others.slice(0, OTHERS)
      return { kind: 'under', choices: choicesUnder(problemOf(request.asked), request.place, request.before, request.after, tried), left: others.length - tried.length }
    }
    case 'elsewhere': return orFault(elsewhere(problemOf(request.asked)), (moved) => ({ kind: 'elsewhere', moved }))
    case 'keys': return orFault(keysRanked(problemOf(request.asked)), (keys) => ({ kind: 'keys', keys }))
    case 'blocks': return orFault(blockHarmonised(request.notes.map((name) => must(parsePitch(name))), blockOf(request.block), melodyLimits(request.asked.body, parseChart(request.asked.text).capo, 'any')), (blocks) => ({ kind: 'blocks', blocks }))
    case 'reading': {
      const chart = parseChart(request.asked.text)
      return { kind: 'reading', notes: melodyReading(chart, analyse(chart), placesOf(request.asked), request.asked.melody.map(read)) }
    }
  }
}

/** Colours of the chord that stands at a place and chords that can take its place, those that take the melody note, nearest to home first. */
function othersAt({ text, melody }: UnderAsked, { bar, beat }: { bar: number; beat: number }): ChordSymbol[] {
  const note = melody.find((one) => one.bar === bar && Math.abs(one.beat - beat) < 1e-3)
  if (!note) return []
  const sound = pitchClass(must(parsePitch(note.note)))
  const chart = parseChart(text)
  const index = slotsOf(chart).findLastIndex((slot) => slot.bar < bar || (slot.bar === bar && slot.beat <= beat + 1e-3))
  const spots = spotsOf(chart, analyse(chart))
  const chords = optionsOf(chart, spots, index, { depth: 1 }).filter(({ span, puts }) => span === 1 && puts.length === 1).sort((a, b) => a.distance.total - b.distance.total).map(({ puts }) => puts[0]!.chord)
  const takes = (one: ChordSymbol) => { const heard = heardOver(sound, one); return heard === 'chord tone' || heard === 'tension' }
  const seen = new Set<string>()
  return chords.filter((one) => takes(one) && !seen.has(one.canonical) && seen.add(one.canonical))
}
/** Other chords tried under one note at first; the player can ask for the rest. */
const OTHERS = 14

const orFault = <T>(result: Result<T>, answer: (value: T) => MelodyReply): MelodyReply =>
  (result.ok ? answer(result.value) : { kind: 'fault', message: `${result.fault.message} Accepted: ${result.fault.accepted ?? 'another melody'}.` })

const placesOf = ({ places }: MelodyAsked): Place[] => places.map(({ symbol, ...place }) => ({ ...place, chord: symbol === null ? null : chord(symbol) }))

function problemOf(asked: UnderAsked): HarmoniseProblem {
  const { text, melody, settings: { density, texture, fills, window, topString }, style, weights, bass, body, tempo, fixed } = asked
  const chart = parseChart(text)
  return {
    chart, places: placesOf(asked), melody: melody.map(read), limits: melodyLimits(body, chart.capo, bass, window, topString), style, density, texture, fills, tempo, onProgress,
    limitNames: { frets: window ? `the position, frets ${window[0]} to ${window[1]}, whose highest` : 'the highest fret at ease (Player page)', strings: `the melody is kept on string ${topString} and lower` },
    ...(weights ? { weights } : {}), fixed: new Map(fixed.map(([place, { frets, symbol }]) => [place, { frets, chord: symbol === null ? null : chord(symbol) }])),
  }
}

const blockOf = (block: BlockAsked): Block =>
  (block.kind === 'sixth-diminished' ? { ...block, chord: chord(block.chord) } : { ...block, key: must(parseKey(block.key)) })
