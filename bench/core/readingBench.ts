import { itemAt } from '../../core/lists'
import { analyse } from '../../core/analysis/analyse'
import { parseChart } from '../../core/chart/parseChart'
import { chord } from '../../core/chord/parseChord'
import { leastMotion } from '../../core/pitch/motion'
import { reachOf } from '../../core/reharm/distance'
import { changesAt } from '../../core/reharm/options'
import { reharmonise } from '../../core/reharm/reharmonise'
import { spotsOf } from '../../core/reharm/spot'
import { voicingsOf } from '../../core/voicing/enumerate'
import { TUNE_LIMITS } from '../../core/voicing/gripLimits'
import { time, row, ms, TUNE } from './measured'

export function motion(): void {
  const grids = voicingsOf(chord('G13'), { ...TUNE_LIMITS, bass: 'any' }).map((voicing) => voicing.midis)
  let sum = 0
  const ours = time(() => {
    for (const a of grids) for (const b of grids) sum += leastMotion(a, b)
  })
  const baseline = time(() => {
    for (const a of grids)
      for (const b of grids) for (let i = 0; i < a.length; i += 1) sum += Math.abs(itemAt(a, i) - (b[i] ?? 0))
  })
  row(
    'least motion : pairing in order',
    ours.ms / baseline.ms,
    'times',
    `${((ours.ms * 1e6) / grids.length ** 2).toFixed(0)} ns a pair${sum < 0 ? ' ' : ''}`,
  )
}

export function reading(): void {
  const bars = (count: number) =>
    `key: C\n${Array.from({ length: count }, (_, at) => `| ${itemAt(TUNE, at % TUNE.length).canonical} ${itemAt(TUNE, (at + 5) % TUNE.length).canonical} `).join('')}|`
  const [short, long] = [
    time(() => analyse(parseChart(bars(64))), 5),
    time(() => analyse(parseChart(bars(256))), 5),
  ]
  row('reading a chart, 256 bars : 64 bars', long.ms / short.ms, 'times', `64 bars in ${ms(short.ms)}`)
}

/**
 * Chord by chord: at each the change whose reach lies nearest to the wanted one, with the reading
 * taken once.
 */
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

export function reharmonising(): void {
  const text = `key: C\n| ${Array.from({ length: 32 }, (_, at) => itemAt(TUNE, at % TUNE.length).canonical).join(' | ')} |`
  const greedy = time(() => greedyChanges(text, 0.4), 5)
  const whole = time(() => reharmonise(text, { distance: 0.4, count: 5 }), 3)
  row(
    'reharmonising 32 bars, 5 results : greedy pass',
    whole.ms / greedy.ms,
    'times',
    `${ms(whole.ms)} and ${ms(greedy.ms)}`,
  )
}
