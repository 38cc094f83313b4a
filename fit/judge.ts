import { firstOf } from '../core/lists'
import { readFileSync, writeFileSync } from 'node:fs'
import { z } from 'zod'
import { analyse } from '../core/analysis/analyse'
import { idiomNamed } from '../core/analysis/tuneIdiom'
import { parseChart } from '../core/chart/parseChart'
import { parsePitch } from '../core/pitch/note'
import { must } from '../core/result'
import { amountsOf } from '../core/reharm/judging/judge'
import { JUDGED_TERMS } from '../core/reharm/judging/terms'
import type { MelodyNote } from '../core/reharm/melodyFit'

// What players prefer among versions of one tune. Written from common practice, every passage
// invented; no source.
const melody = z
  .array(z.object({ bar: z.number(), beat: z.number(), beats: z.number(), note: z.string() }))
  .optional()
const tune = z.object({ id: z.string(), idiom: z.string(), text: z.string(), melody })
const pairs = z.array(tune.extend({ better: z.string(), worse: z.string() }))
const rankings = z.array(tune.extend({ versions: z.array(z.object({ new: z.string(), rank: z.number() })) }))
const read = (name: string): unknown => JSON.parse(readFileSync(`fit/versions/${name}.json`, 'utf8'))

/** One judgement of a player: this version before that one. */
interface Preferred {
  id: string
  /** What the better version has more of than the worse one, term by term. */
  more: number[]
}

const notes = (given: z.infer<typeof melody>): MelodyNote[] =>
  (given ?? []).map((one) => ({ ...one, note: must(parsePitch(one.note)) }))

export function preferences(): Preferred[] {
  const amounts = ({ text, melody: given, idiom }: z.infer<typeof tune>, version: string) =>
    amountsOf(
      parseChart(text),
      parseChart(version),
      notes(given),
      idiomNamed(idiom, analyse(parseChart(text)).idiom.idiom),
    ).map(({ amount }) => amount)
  const less = (a: readonly number[], b: readonly number[]) => a.map((amount, at) => amount - b[at]!)
  return [
    // Preferred by players; and what a search found that had no pair to warn of it, beside what was
    // wanted in its place.
    ...[...pairs.parse(read('pairs')), ...pairs.parse(read('found'))].map((one) => ({
      id: one.id,
      more: less(amounts(one, one.better), amounts(one, one.worse)),
    })),
    ...rankings.parse(read('ranked')).flatMap((one) => {
      const judged = one.versions.map((version) => ({
        rank: version.rank,
        amounts: amounts(one, version.new),
      }))
      return judged.flatMap((a) =>
        judged
          .filter((b) => a.rank < b.rank && !(a.rank === 1 && b.rank === 2))
          .map((b) => ({ id: `${one.id} ${a.rank}<${b.rank}`, more: less(a.amounts, b.amounts) })),
      )
    }),
  ]
}

/**
 * What a term costs where nothing speaks, or is worth below 0: most as much as one another, some of
 * taste little.
 */
const PLAIN: Readonly<Record<string, number>> = {
  'bass that walks': -0.4,
  'usual here': -0.15,
  'cadence dressed': -0.4,
  'moved from inside': -0.4,
  'bass direction': 0.2,
  idiom: 0.6,
  'density at the phrase end': 0.5,
  'melody clash': 1.4,
}
const PRIOR = JUDGED_TERMS.map(({ name }) => PLAIN[name] ?? 1)
const [ROUNDS, STEP, RIDGE] = [600, 0.05, 0.02]

/**
 * Prices under which what is preferred is cheaper (logistic, Bradley & Terry 1952, from memory),
 * drawn to plain ones where nothing speaks.
 */
export function fittedPrices(preferred: readonly Preferred[]): number[] {
  const prices = [...PRIOR]
  for (let round = 0; round < ROUNDS; round += 1) {
    const slope = prices.map((price, at) => RIDGE * (price - PRIOR[at]!))
    for (const { more } of preferred) {
      const cost = more.reduce((sum, amount, at) => sum + amount * prices[at]!, 0)
      const wrong = 1 / (1 + Math.exp(-cost))
      more.forEach((amount, at) => (slope[at]! += (wrong * amount) / preferred.length))
    }
    prices.forEach((price, at) => {
      const next = price - STEP * 4 * slope[at]!
      prices[at] = PRIOR[at]! < 0 ? Math.min(0, next) : Math.max(0.05, next)
    })
  }
  return prices
}

const agreement = (preferred: readonly Preferred[], prices: readonly number[]) =>
  preferred.filter(({ more }) => more.reduce((sum, amount, at) => sum + amount * prices[at]!, 0) < 0).length /
  preferred.length

/**
 * Prints how often the prices agree, fitted on each half and tried on the other, and writes those
 * fitted on all.
 */
export function fitJudge(): void {
  const all = preferences()
  const names = [...new Set(all.map(({ id }) => firstOf(id.split(' '))))]
  const halves = [0, 1].map((half) =>
    all.filter(({ id }) => names.indexOf(firstOf(id.split(' '))) % 2 === half),
  )
  const percent = (share: number) => `${(100 * share).toFixed(1)}%`
  halves.forEach((half, at) => {
    const prices = fittedPrices(half)
    console.log(
      `judge, half ${at + 1}: on itself ${percent(agreement(half, prices))}, on the other ${percent(agreement(halves[1 - at]!, prices))}`,
    )
  })
  const prices = fittedPrices(all)
  console.log(
    `judge, all: ${percent(agreement(all, prices))} of ${all.length}; at plain prices ${percent(agreement(all, PRIOR))}`,
  )
  if (process.argv.includes('-v'))
    for (const { id, more } of all) {
      const cost = more.reduce((sum, amount, at) => sum + amount * prices[at]!, 0)
      if (cost >= 0)
        console.log(
          `  ${id} ${cost.toFixed(2)}: ${more.flatMap((amount, at) => (Math.abs(amount) > 0.01 ? [`${JUDGED_TERMS[at]!.name} ${amount.toFixed(2)}`] : [])).join('; ')}`,
        )
    }
  writeFileSync(
    'core/reharm/judging/prices.ts',
    `/** What each term costs, or is worth where it is below 0; fitted on pairs of versions of which players prefer one (\`npm run fit\`). */\nexport const JUDGE_PRICES: Readonly<Record<string, number>> = {\n${JUDGED_TERMS.map(({ name }, at) => `  ${/^\w+$/.test(name) ? name : `'${name}'`}: ${Number(prices[at]!.toFixed(2))},`).join('\n')}\n}\n`,
  )
}
