import { firstOf, itemAt } from '../../core/lists'
import { analyse } from '../../core/analysis/analyse'
import { parseChart } from '../../core/chart/parseChart'
import { slotsOf } from '../../core/chart/chart'
import { itemsOf } from '../../core/practice/items'
import { planOf } from '../../core/practice/plan'
import { utcDay } from '../../core/practice/recall'
import { recordsOf } from '../../core/practice/record'
import { must } from '../../core/result'
import { handTempo } from '../../core/rhythm/handTempo'
import { bassLine } from '../../core/rhythm/bassLine'
import { figureNamed } from '../../core/rhythm/figures'
import { layFigure } from '../../core/rhythm/lay'
import { accompanied } from '../../core/tune/accompaniment'
import { newDocument } from '../../core/tune/document'
import { readTuneDocument } from '../../core/tune/tuneReading'
import { PLAIN_RHYTHM } from '../../core/tune/rhythmSchema'
import { chord } from '../../core/chord/parseChord'
import { bestLines } from '../../core/leading/lead'
import { weightsFrom } from '../../core/leading/weights'
import { choicesUnder, harmonise } from '../../core/melody/harmonise'
import { parsePitch } from '../../core/pitch/note'
import { TUNE_LIMITS } from '../../core/voicing/gripLimits'
import type { Limits } from '../../core/voicing/gripLimits'
import { time, row, ms, TUNE } from './measured'

/** A chord melody at full density: the whole tune weighed together, against each note by itself. */
export function melodies(): void {
  const limits: Limits = { ...TUNE_LIMITS, frets: [0, 17] }
  const scale = ['E4', 'F4', 'G4', 'A4', 'B4', 'C5', 'D5', 'E5'].map((name) => {
    const pitch = parsePitch(name)
    if (!pitch.ok) throw new Error(name)
    return pitch.value
  })
  const tuneOf = (bars: number) =>
    parseChart(
      `key: C\n| ${Array.from({ length: bars }, (_, at) => itemAt(TUNE, at % TUNE.length).canonical).join(' | ')} |`,
    )
  // Four notes a bar, walking up and down the scale by a fixed rule.
  const melodyOf = (bars: number) =>
    Array.from({ length: bars * 4 }, (_, at) => ({
      bar: Math.floor(at / 4) + 1,
      beat: (at % 4) + 1,
      beats: 1,
      note: itemAt(scale, Math.abs(((at * 5 + Math.floor(at / 7)) % 14) - 7) % 8),
    }))
  const run = (bars: number, count: number) => {
    const found = harmonise({ chart: tuneOf(bars), melody: melodyOf(bars), limits, density: 'note', count })
    if (!found.ok) throw new Error(found.fault.message)
    return found.value
  }
  run(4, 1)
  const [one, five, doubled] = [
    time(() => run(32, 1), 2),
    time(() => run(32, 5), 2),
    time(() => run(64, 5), 1),
  ]
  row(
    'chord melody, 32 bars, 128 notes: five results : one',
    five.ms / one.ms,
    'times',
    `${ms(five.ms)} and ${ms(one.ms)}`,
  )
  row('the same of 64 bars : 32 bars, time for each note', doubled.ms / five.ms / 2, 'times', ms(doubled.ms))
  const alone = time(
    () =>
      melodyOf(32).forEach((_, at) =>
        choicesUnder(
          { chart: tuneOf(32), melody: melodyOf(32), limits, density: 'note' },
          { bar: Math.floor(at / 4) + 1, beat: (at % 4) + 1 },
          null,
          null,
        ),
      ),
    1,
  )
  row('chord melody of the whole tune : each note by itself', five.ms / alone.ms, 'times', ms(alone.ms))
}

/** The band: a walking line against reading the chart it is made for. */
export function band() {
  const text = `key: C\n${Array.from({ length: 16 }, () => '| Cmaj7 A7 | Dm7 G7 | Em7 | Bbmaj7 Eb7 |').join('\n')}`
  const chart = parseChart(text)
  const analysis = analyse(chart)
  bassLine(chart, analysis, 'walking')
  const [line, read] = [time(() => bassLine(chart, analysis, 'walking'), 5), time(() => parseChart(text), 5)]
  row('walking bass, 64 bars : reading the chart', line.ms / read.ms, 'times', ms(line.ms))
  const figure = figureNamed('sixteenths with dead strokes')!
  const laid = time(() => layFigure(chart, figure, { seed: 1, density: 0.8 }), 5)
  row('a figure laid on 64 bars : reading the chart', laid.ms / read.ms, 'times', ms(laid.ms))
  const document = {
    ...newDocument('Bench', text),
    rhythm: {
      ...PLAIN_RHYTHM,
      figure: 'four to the bar',
      bass: 'walking' as const,
      time: 'brushes' as const,
    },
  }
  const reading = readTuneDocument(document)
  const whole = time(() => accompanied({ reading, document, which: 'new', grips: new Map() }), 5)
  row('a whole band, 64 bars : reading the chart', whole.ms / read.ms, 'times', ms(whole.ms))
}

/**
 * Practice: a plan for a tune of 64 bars with a long log, against reading what the log says of it.
 */
export function practiceBench() {
  const text = `key: C\n${Array.from({ length: 16 }, () => '| Cmaj7 A7 | Dm7 G7 | Em7 | Bbmaj7 Eb7 |').join('\n')}`
  const chart = parseChart(text)
  const slots = slotsOf(chart)
  const line = firstOf(
    must(
      bestLines({
        chords: slots.map((slot) => chord(slot.text)),
        limits: TUNE_LIMITS,
        weights: weightsFrom('smooth'),
        count: 1,
      }),
    ),
  )
  const grips = new Map(slots.map((slot, at) => [slot, itemAt(line.voicings, at)]))
  const whole = () =>
    itemsOf({
      chart,
      analysis: analyse(chart),
      grips,
      hand: handTempo({ chart, grips, figure: null, limits: TUNE_LIMITS, help: false }),
      goal: 140,
    })
  const items = whole()
  const grades = ['clean', 'nearly', 'failed'] as const
  const log = Array.from({ length: 100_000 }, (_, at) => ({
    kind: itemAt(items, at % items.length).kind,
    item: itemAt(items, at % items.length).item,
    at: at * 900_000,
    tempo: 80,
    grade: itemAt(grades, at % 3),
  }))
  const rows = JSON.stringify(log)
  const read = time(() => JSON.parse(rows) as unknown)
  const records = time(() => recordsOf(log, utcDay), 1)
  row('what 100,000 passes say, all at once : reading them', records.ms / read.ms, 'times', ms(records.ms))
  const plan = time(() =>
    planOf({ items: whole(), records: records.value, goal: 140, minutes: 30, today: 1_050 }),
  )
  row('a plan from what they say : reading them', plan.ms / read.ms, 'times', ms(plan.ms))
}
