import { Voicing as Voicings } from 'tonal'
import { hasDegree } from '../core/chord/symbol'
import { analyse } from '../core/analysis/analyse'
import { parseChart } from '../core/chart/parse'
import { slotsOf } from '../core/chart/chart'
import { itemsOf } from '../core/practice/items'
import { planOf } from '../core/practice/plan'
import { utcDay } from '../core/practice/recall'
import { recordsOf } from '../core/practice/record'
import { must } from '../core/result'
import { handTempo } from '../core/rhythm/handTempo'
import { bassLine } from '../core/rhythm/bassLine'
import { figureNamed } from '../core/rhythm/figures'
import { layFigure } from '../core/rhythm/lay'
import { accompanied } from '../core/tune/accompaniment'
import { newDocument } from '../core/tune/document'
import { readTuneDocument } from '../core/tune/reading'
import { PLAIN_RHYTHM } from '../core/tune/rhythmSchema'
import { chord } from '../core/chord/parse'
import type { ChordSymbol } from '../core/chord/symbol'
import { KeptSearch } from '../core/leading/kept'
import { styledLines, type StyledProblem } from '../core/leading/inStyle'
import { bestLines, layersOf, lineOf } from '../core/leading/lead'
import { fingersAnew, handTravelMm } from '../core/leading/measures'
import { bestPaths } from '../core/leading/search'
import { openStage, PriceBook, type Layer } from '../core/leading/stage'
import { leastMotion } from '../core/pitch/motion'
import { STYLE_NAMES, weightsFrom, type Weights } from '../core/leading/weights'
import { reachOf } from '../core/reharm/distance'
import { changesAt } from '../core/reharm/options'
import { reharmonise } from '../core/reharm/reharmonise'
import { spotsOf } from '../core/reharm/spot'
import { choicesUnder, harmonise } from '../core/melody/harmonise'
import { midi, parsePitch } from '../core/pitch/note'
import { easiestFingering } from '../core/neck/fingering'
import { voicingsOf } from '../core/voicing/enumerate'
import { soundsLike } from '../core/voicing/fits'
import { DEFAULT_LIMITS, TUNE_LIMITS, type Limits } from '../core/voicing/limits'
import type { Voicing } from '../core/voicing/voicing'
import { TEXTURE_NAMES } from '../core/leading/textureNames'

/**
 * Speed as ratios against a baseline measured in the same run: a ratio means the same on any machine. Milliseconds are
 * printed only to give an idea.
 */
function time<T>(run: () => T, rounds = 3): { ms: number; value: T } {
  let best = Infinity
  let value!: T
  for (let round = 0; round < rounds; round += 1) {
    const begun = performance.now()
    value = run()
    best = Math.min(best, performance.now() - begun)
  }
  return { ms: best, value }
}

const row = (what: string, ratio: number, unit: string, detail: string) =>
  console.log(`${what.padEnd(58)} ${ratio.toFixed(2).padStart(9)} ${unit.padEnd(10)} ${detail}`)
const ms = (value: number) => `${value.toFixed(value < 10 ? 1 : 0)} ms`

/** Every combination of frets on every string, each tried against the definition. */
function everyGrip(target: ChordSymbol, limits: Limits): number {
  const { tuning } = limits.instrument
  const choices = [null, ...Array.from({ length: limits.frets[1] + 1 }, (_, fret) => fret)]
  const grip: (number | null)[] = []
  let found = 0
  const place = (string: number, lowest: number, highest: number) => {
    if (string === tuning.length) {
      const sounding = grip.filter((fret) => fret !== null).length
      if (
        sounding >= limits.notes[0] &&
        sounding <= limits.notes[1] &&
        soundsLike(grip, target, limits) &&
        easiestFingering(grip, limits.instrument, limits.hand)
      )
        found += 1
      return
    }
    for (const fret of choices) {
      // Even the plain way may leave out what spans more than six frets.
      const low = fret ? Math.min(lowest, fret) : lowest
      const high = fret ? Math.max(highest, fret) : highest
      if (high - low > 6) continue
      grip.push(fret)
      place(string + 1, low, high)
      grip.pop()
    }
  }
  place(0, Infinity, -Infinity)
  return found
}

const TUNE =
  'Cmaj7 A7b9 Dm9 G13 Em7 A7 Dm9 G7alt Cmaj9 C9 Fmaj7 Bb9 Em7 A7b9 Dm9 G13 Fm6 Bb13 Ebmaj9 Ab9 Dm7 G7b9 Cmaj7 Gm9'
    .split(' ')
    .map(chord)

/** All grips with their fingering, on the whole neck. The plain filter takes most of a minute a chord, so the tune's chords are sampled for it. */
function grips(): void {
  const limits: Limits = { ...DEFAULT_LIMITS, frets: [0, 17] }
  const target = chord('Cmaj9')
  const ours = time(() => voicingsOf(target, limits).length)
  const plain = time(() => everyGrip(target, limits), 1)
  if (ours.value !== plain.value) throw new Error(`found ${ours.value} grips, the plain way ${plain.value}`)
  row(
    'grips of Cmaj9, frets 0 to 17, plain filter : ours',
    plain.ms / ours.ms,
    'times',
    `${ours.value} grips in ${ms(ours.ms)}`,
  )
  const tune = [...TUNE, ...TUNE]
  const all = time(() => tune.reduce((sum, one) => sum + voicingsOf(one, limits).length, 0), 1)
  const sample = [TUNE[0]!, TUNE[9]!]
  const [some, filtered] = [
    time(() => sample.reduce((sum, one) => sum + voicingsOf(one, limits).length, 0)),
    time(() => sample.reduce((sum, one) => sum + everyGrip(one, limits), 0), 1),
  ]
  if (some.value !== filtered.value)
    throw new Error(`found ${some.value} grips, the plain way ${filtered.value}`)
  row(
    'grips of 48 chords, plain filter : ours (two sampled)',
    filtered.ms / some.ms,
    'times',
    `${all.value} grips of all 48 in ${ms(all.ms)}`,
  )
}

/** The seventh chord that a general library knows in its place. */
function plainSeventh(chord: ChordSymbol): 'm7' | 'maj7' | '7' {
  if (hasDegree(chord, 'b3')) return 'm7'
  return hasDegree(chord, '7') ? 'maj7' : '7'
}

/** The nearest grip by cost, chord after chord. */
function greedy(chords: readonly ChordSymbol[], limits: Limits, weights = weightsFrom('smooth')) {
  const chosen: Voicing[] = []
  chords.forEach((one, at) => {
    const costs = voicingsOf(one, limits).map((voicing) => {
      const pair = [...chosen.slice(-1), voicing]
      return {
        voicing,
        cost: lineOf(pair, { chords: chords.slice(Math.max(0, at - 1), at + 1), weights, limits }).cost,
      }
    })
    chosen.push(costs.reduce((best, other) => (other.cost < best.cost ? other : best)).voicing)
  })
  return lineOf(chosen, { chords, weights, limits })
}

function lines(): void {
  const limits: Limits = { ...TUNE_LIMITS }
  const weights = weightsFrom('smooth')
  const lead = (chords: readonly ChordSymbol[], bass: Limits['bass'], count = 1) => {
    const found = bestLines({ chords, limits: { ...limits, bass }, weights, count })
    if (!found.ok) throw new Error(found.fault.message)
    return found.value[0]!
  }
  const [half, whole] = [time(() => lead(TUNE, 'chord')), time(() => lead([...TUNE, ...TUNE], 'chord'))]
  row('line search, 48 chords : 24 chords', whole.ms / half.ms, 'times', `${ms(half.ms)} and ${ms(whole.ms)}`)
  const near = time(() => greedy(TUNE, limits), 1)
  row('line search : greedy nearest grip, time', half.ms / near.ms, 'times', `greedy ${ms(near.ms)}`)
  row(
    'greedy nearest grip : line search, cost',
    near.value.cost / half.value.cost,
    'times',
    `${near.value.cost.toFixed(0)} against ${half.value.cost.toFixed(0)}`,
  )
  const rootless = time(() => lead(TUNE, 'any'), 1)
  const count = (bass: Limits['bass']) =>
    TUNE.reduce((sum, one) => sum + voicingsOf(one, { ...limits, bass }).length, 0)
  row(
    'line search without roots : with roots',
    rootless.ms / half.ms,
    'times',
    `${ms(rootless.ms)}; ${count('any')} grips against ${count('chord')}`,
  )
}

/** The best lines of a whole tune with every grip there is, against simpler ways to choose grips. */
function wholeTune(): void {
  const weights = weightsFrom('smooth')
  const tune = [...TUNE, ...TUNE]
  const best = (chords: readonly ChordSymbol[], count: number) => {
    const found = bestLines({ chords, limits: TUNE_LIMITS, weights, count })
    if (!found.ok) throw new Error(found.fault.message)
    return found.value
  }
  const [five, ninetySix] = [time(() => best(tune, 5), 1), time(() => best([...tune, ...tune], 5), 1)]
  row(
    'exact 5-best lines, 96 chords : 48 chords',
    ninetySix.ms / five.ms,
    'times',
    `${ms(five.ms)} and ${ms(ninetySix.ms)}`,
  )
  const kept = new KeptSearch()
  kept.best({ chords: tune, limits: TUNE_LIMITS, weights })
  while (kept.settle());
  const fixed = new Map([
    [20, five.value[0]!.voicings[20]!.frets.map((fret) => (fret === null ? null : fret))],
  ])
  const [again, whole] = [
    time(() => kept.best({ chords: tune, limits: TUNE_LIMITS, weights, fixed }), 1),
    time(() => bestLines({ chords: tune, limits: TUNE_LIMITS, weights, fixed, count: 1 }), 1),
  ]
  row(
    'one grip fixed in 48 chords, whole search : what changed',
    whole.ms / again.ms,
    'times',
    `${ms(whole.ms)} and ${ms(again.ms)}`,
  )
  const round = time(() => bestLines({ chords: TUNE, limits: TUNE_LIMITS, weights, count: 1, loop: true }), 1)
  row('loop of 24 chords : 5-best lines of 48', round.ms / five.ms, 'times', ms(round.ms))
  const near = greedy(tune, TUNE_LIMITS)
  const [line] = five.value
  if (near.cost < line!.cost - 1e-6) throw new Error('greedy found a cheaper line than the exact search')
  const motionOnly = weightsFrom('smooth', { motion: 1 })
  const least = bestLines({ chords: tune, limits: TUNE_LIMITS, weights: motionOnly, count: 1 })
  if (!least.ok) throw new Error(least.fault.message)
  row(
    'greedy : exact, total cost',
    near.cost / line!.cost,
    'times',
    `${near.cost.toFixed(0)} against ${line!.cost.toFixed(0)}`,
  )
  row(
    'greedy : exact, total motion',
    greedy(tune, TUNE_LIMITS, motionOnly).measures.motion / least.value[0]!.measures.motion,
    'times',
    `exact ${least.value[0]!.measures.motion} semitones`,
  )
  // A general theory library (tonal 6.4.3): the nearest top note chord after chord, from its own dictionary of voicings. It knows the plain sevenths.
  const sevenths = tune.map((one) =>
    chord(`${one.canonical.replace(/^([A-G][b#]?).*$/, '$1')}${plainSeventh(one)}`),
  )
  const theirs = Voicings.sequence(
    sevenths.map((one) => one.canonical),
    ['E3', 'E5'],
  ).map((notes) => notes.map((note) => midi(note)))
  const theirMotion = theirs.slice(1).reduce((sum, notes, at) => sum + leastMotion(theirs[at]!, notes), 0)
  const ours = bestLines({
    chords: sevenths,
    limits: { ...TUNE_LIMITS, bass: 'any', notes: [4, 4], range: [midi('E3'), midi('E5')] },
    weights: motionOnly,
    count: 1,
  })
  if (!ours.ok) throw new Error(ours.fault.message)
  row(
    'voicings of a theory library : exact, total motion',
    theirMotion / ours.value[0]!.measures.motion,
    'times',
    `${theirMotion} semitones against ${ours.value[0]!.measures.motion}`,
  )
  const long = Array.from({ length: 200 }, (_, at) => TUNE[(at * 7) % TUNE.length]!)
  const before = process.memoryUsage().rss
  best(long, 5)
  row(
    'peak memory, 200 chords : before',
    process.memoryUsage().rss / before,
    'times',
    `${(process.memoryUsage().rss / 2 ** 20).toFixed(0)} MB in all`,
  )
}

/** The plain dynamic programme: every grip of a layer after every grip of the one before, each step priced in full. */
function plainProgramme(layers: readonly Layer[], weights: Weights): number {
  const stages = layers.map((layer) => openStage(layer, weights, TUNE_LIMITS.instrument))
  let costs = [...stages[0]!.own]
  for (let at = 1; at < stages.length; at += 1) {
    const [before, stage] = [stages[at - 1]!, stages[at]!]
    // A book of its own for every step, so that nothing is known from another: each pair is priced as if it were the first.
    const prices = new PriceBook(weights).pricesOf(before, stage)
    costs = stage.own.map((own, node) => {
      let least = Infinity
      for (let other = 0; other < before.own.length; other += 1) {
        const [a, b] = [before.soundOf[other]!, stage.soundOf[node]!]
        const cost =
          costs[other]! +
          prices.outline(a, b) +
          prices.inner(a, b) +
          weights.hand * handTravelMm(before.hands[other]!, stage.hands[node]!) +
          weights.fingers * fingersAnew(before.hands[other]!, stage.hands[node]!)
        if (cost < least) least = cost
      }
      return least + own
    })
  }
  return Math.min(...costs)
}

/** First lines and five lines of 48 chords, for every style, texture and bass rule, as ratios to the plain programme on its own layers. */
function firstLines(): void {
  const tune = [...TUNE, ...TUNE]
  const weights = weightsFrom('smooth', {}, 'any')
  const any: Limits = { ...TUNE_LIMITS, bass: 'any' }
  const layersFor = (chords: readonly ChordSymbol[]) => {
    const found = layersOf({ chords, limits: any })
    if (!found.ok) throw new Error(found.fault.message)
    return found.value
  }
  // The plain way takes minutes for 48 chords: eight of them are enough for the ratio.
  const few = layersFor(tune.slice(0, 8))
  const plain = time(() => plainProgramme(few, weights), 1)
  const ours = time(() => bestPaths(few, weights, any.instrument, 1)![0]!.cost, 3)
  if (Math.abs(plain.value - ours.value) > 1e-6)
    throw new Error(`found ${ours.value}, the plain programme ${plain.value}`)
  row(
    'bass player has it, any grip, plain programme : search',
    plain.ms / ours.ms,
    'times',
    `8 chords: ${ms(plain.ms)} and ${ms(ours.ms)}`,
  )
  const each = plain.ms / 7
  const [half, whole] = [
    time(() => bestPaths(layersFor(tune), weights, any.instrument, 1), 2),
    time(() => bestPaths(layersFor([...tune, ...tune]), weights, any.instrument, 1), 1),
  ]
  row(
    'the same search, 96 chords : 48 chords',
    whole.ms / half.ms,
    'times',
    `${ms(half.ms)} and ${ms(whole.ms)}`,
  )
  const lead = (more: Partial<StyledProblem>, count: number) => {
    const found = styledLines({
      chords: tune,
      limits: TUNE_LIMITS,
      style: 'smooth',
      count,
      different: count > 1,
      ...more,
    })
    if (!found.ok) throw new Error(found.fault.message)
  }
  const say = (name: string, more: Partial<StyledProblem>) => {
    const cold = time(() => lead(more, 1), 1)
    const [first, five] = [time(() => lead(more, 1), 2), time(() => lead(more, 5), 1)]
    row(
      `${name}: plain programme of 48 chords, any grip : first`,
      (each * 47) / first.ms,
      'times',
      `first ${ms(first.ms)} (${ms(cold.ms)} with its grips), five ${ms(five.ms)}`,
    )
  }
  for (const style of STYLE_NAMES) say(style, { style })
  for (const texture of TEXTURE_NAMES) say(texture, { texture })
  say('bass player has it', { limits: any })
  say('bass player, no roots', { limits: { ...TUNE_LIMITS, bass: 'none' } })
}

function motion(): void {
  const grids = voicingsOf(chord('G13'), { ...TUNE_LIMITS, bass: 'any' }).map((voicing) => voicing.midis)
  let sum = 0
  const ours = time(() => {
    for (const a of grids) for (const b of grids) sum += leastMotion(a, b)
  })
  const baseline = time(() => {
    for (const a of grids)
      for (const b of grids) for (let i = 0; i < a.length; i += 1) sum += Math.abs(a[i]! - (b[i] ?? 0))
  })
  row(
    'least motion : pairing in order',
    ours.ms / baseline.ms,
    'times',
    `${((ours.ms * 1e6) / grids.length ** 2).toFixed(0)} ns a pair${sum < 0 ? ' ' : ''}`,
  )
}

function reading(): void {
  const bars = (count: number) =>
    `key: C\n${Array.from({ length: count }, (_, at) => `| ${TUNE[at % TUNE.length]!.canonical} ${TUNE[(at + 5) % TUNE.length]!.canonical} `).join('')}|`
  const [short, long] = [
    time(() => analyse(parseChart(bars(64))), 5),
    time(() => analyse(parseChart(bars(256))), 5),
  ]
  row('reading a chart, 256 bars : 64 bars', long.ms / short.ms, 'times', `64 bars in ${ms(short.ms)}`)
}

/** Chord by chord: at each the change whose reach lies nearest to the wanted one, with the reading taken once. */
function greedyChanges(text: string, wanted: number): number {
  const chart = parseChart(text)
  const spots = spotsOf(chart, analyse(chart))
  let taken = 0
  for (let at = 0; at < spots.length; at += 1) {
    const spot = spots[at]
    if (!spot) continue
    const plain = [{ chord: spot.chord, beats: spot.beats }]
    const best = changesAt(spot)
      .filter((change) => change.span === 1)
      .map((change) => Math.abs(reachOf(plain, change.puts, spot.key) - wanted))
      .sort((a, b) => a - b)[0]
    if (best !== undefined) taken += 1
  }
  return taken
}

function reharmonising(): void {
  const text = `key: C\n| ${Array.from({ length: 32 }, (_, at) => TUNE[at % TUNE.length]!.canonical).join(' | ')} |`
  const greedy = time(() => greedyChanges(text, 0.4), 5)
  const whole = time(() => reharmonise(text, { distance: 0.4, count: 5 }), 3)
  row(
    'reharmonising 32 bars, 5 results : greedy pass',
    whole.ms / greedy.ms,
    'times',
    `${ms(whole.ms)} and ${ms(greedy.ms)}`,
  )
}

/** A chord melody at full density: the whole tune weighed together, against each note by itself. */
function melodies(): void {
  const limits: Limits = { ...TUNE_LIMITS, frets: [0, 17] }
  const scale = ['E4', 'F4', 'G4', 'A4', 'B4', 'C5', 'D5', 'E5'].map((name) => {
    const pitch = parsePitch(name)
    if (!pitch.ok) throw new Error(name)
    return pitch.value
  })
  const tuneOf = (bars: number) =>
    parseChart(
      `key: C\n| ${Array.from({ length: bars }, (_, at) => TUNE[at % TUNE.length]!.canonical).join(' | ')} |`,
    )
  // Four notes a bar, walking up and down the scale by a fixed rule.
  const melodyOf = (bars: number) =>
    Array.from({ length: bars * 4 }, (_, at) => ({
      bar: Math.floor(at / 4) + 1,
      beat: (at % 4) + 1,
      beats: 1,
      note: scale[Math.abs(((at * 5 + Math.floor(at / 7)) % 14) - 7) % 8]!,
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
function band() {
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

/** Practice: a plan for a tune of 64 bars with a long log, against reading what the log says of it. */
function practice() {
  const text = `key: C\n${Array.from({ length: 16 }, () => '| Cmaj7 A7 | Dm7 G7 | Em7 | Bbmaj7 Eb7 |').join('\n')}`
  const chart = parseChart(text)
  const slots = slotsOf(chart)
  const line = must(
    bestLines({
      chords: slots.map((slot) => chord(slot.text)),
      limits: TUNE_LIMITS,
      weights: weightsFrom('smooth'),
      count: 1,
    }),
  )[0]!
  const grips = new Map(slots.map((slot, at) => [slot, line.voicings[at]!]))
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
    kind: items[at % items.length]!.kind,
    item: items[at % items.length]!.item,
    at: at * 900_000,
    tempo: 80,
    grade: grades[at % 3]!,
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

grips()
lines()
wholeTune()
firstLines()
motion()
reading()
reharmonising()
melodies()
band()
practice()
