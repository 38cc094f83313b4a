import { lastOf } from '../core/lists'
import { writeFileSync } from 'node:fs'
import type { ChordSymbol } from '../core/chord/symbol'
import { STANDARD_GUITAR } from '../core/neck/instrument'
import { pitchClass } from '../core/pitch/note'
import { voicingsOf } from '../core/voicing/enumerate'
import { idiomFeatures, movableShape } from '../core/voicing/gripIdiom'
import { DEFAULT_LIMITS } from '../core/voicing/gripLimits'
import type { Voicing } from '../core/voicing/voicing'
import { isFitted, WRITTEN, type Written } from './dataset'
import { fitted, Names, gripsRanked, gripScore, type RankedGroup } from './ranking'
import { sentenceOf } from './sentences'
import { gripsOfTrade, TRADE } from './tradeGrips'

/**
 * How much a shape counts by its place among those written for its chord: collections list the
 * usual one first, near the nut.
 */
const BY_PLACE = [2, 1, 0.7, 0.5]

/**
 * Movable shapes written for each kind of chord in the fitted keys, with those keys; and shapes
 * with open strings, by root.
 */
const movable = new Map<string, Map<string, Set<string>>>()
const open = new Map<string, Map<number, Set<string>>>()
for (const { key, chord, shapes } of WRITTEN.filter(isFitted)) {
  if (chord.bass) continue
  for (const shape of shapes) {
    if (shape.includes(0)) {
      const roots = open.get(chord.suffix) ?? new Map<number, Set<string>>()
      const root = pitchClass(chord.root)
      open.set(
        chord.suffix,
        roots.set(root, (roots.get(root) ?? new Set()).add(shape.map((fret) => fret ?? 'x').join(' '))),
      )
    } else {
      const all = movable.get(chord.suffix) ?? new Map<string, Set<string>>()
      const name = movableShape(shape)
      movable.set(chord.suffix, all.set(name, (all.get(name) ?? new Set()).add(key)))
    }
  }
}
/**
 * Keys other than its own in which a shape is written: while fitting, a shape must not be known by
 * itself.
 */
const knownElsewhere = (voicing: Voicing, chord: ChordSymbol, key: string): number =>
  chord.bass || voicing.frets.includes(0)
    ? 0
    : [...(movable.get(chord.suffix)?.get(movableShape(voicing.frets)) ?? [])].filter(
        (other) => other !== key,
      ).length

const names = new Names()
function groupOf(
  voicings: readonly Voicing[],
  chord: ChordSymbol,
  known: (voicing: Voicing) => number,
  written: RankedGroup['written'],
): RankedGroup {
  const [found, amounts, begins] = [[] as number[], [] as number[], [0]]
  for (const voicing of voicings) {
    idiomFeatures(voicing, chord, STANDARD_GUITAR, known(voicing), (feature, amount) => {
      found.push(names.of(feature))
      amounts.push(amount)
    })
    begins.push(found.length)
  }
  return {
    names: Int32Array.from(found),
    amounts: Float32Array.from(amounts),
    begins: Int32Array.from(begins),
    written,
  }
}

function datasetGroup({ chord, shapes, key }: Written): RankedGroup {
  const voicings = voicingsOf(chord, DEFAULT_LIMITS)
  const places = new Map(shapes.map((shape, place) => [shape.join(), place]))
  const written = voicings.flatMap((voicing, at) => {
    const place = places.get(voicing.frets.join())
    return place === undefined ? [] : [{ at, weight: BY_PLACE[place] ?? lastOf(BY_PLACE) }]
  })
  return groupOf(voicings, chord, (voicing) => knownElsewhere(voicing, chord, key), written)
}

/**
 * Chords with a shape among the first five, and shapes among the first five: of those we enumerate,
 * and of all there are.
 */
function agreement(groups: readonly RankedGroup[], weights: Float64Array, shapes: number): string {
  const counted = groups.filter(({ written }) => written.length > 0)
  const among = counted.map((group) => {
    const first = new Set(gripsRanked(group, weights).slice(0, 5))
    return group.written.filter(({ at }) => first.has(at)).length
  })
  const found = among.reduce((sum, one) => sum + one, 0)
  const percent = (part: number, whole: number) => `${((100 * part) / whole).toFixed(1)}%`
  return `a shape among the first five: ${percent(among.filter((one) => one > 0).length, counted.length)} of ${counted.length} chords with one in our enumeration (${percent(among.filter((one) => one > 0).length, groups.length)} of all ${groups.length}); shapes among the first five: ${percent(
    found,
    counted.reduce((sum, { written }) => sum + written.length, 0),
  )} of those enumerated (${percent(found, shapes)} of all ${shapes})`
}

/**
 * Fits the weights of idiom on the fitted keys, says how well they do on the unseen ones, and
 * writes the tables.
 */
export function fitIdiom(): void {
  const fittedOn = WRITTEN.filter(isFitted)
  const unseen = WRITTEN.filter((one) => !isFitted(one))
  const count = (list: readonly Written[]) =>
    list.reduce((sum, { shapes }) => sum + new Set(shapes.map((shape) => shape.join())).size, 0)
  const groups = fittedOn.map(datasetGroup)
  let grips = 0
  const trade = TRADE.map((one) => {
    const { all, grips: written } = gripsOfTrade(one)
    grips += written.length
    return groupOf(
      all,
      one.chord,
      (voicing) => knownElsewhere(voicing, one.chord, ''),
      written.map((at) => ({ at, weight: one.weight })),
    )
  })
  const tests = unseen.map(datasetGroup)
  const learned = [...groups, ...trade].filter(({ written }) => written.length > 0)
  console.log(
    `idiom: ${groups.length} chords of the dataset in seven keys, ${grips} grips of the trade over ${trade.length} chords, ${names.all.length} features`,
  )
  const weights = fitted(learned, names.all.length)
  console.log(`  fitted keys: ${agreement(groups, weights, count(fittedOn))}`)
  console.log(`  unseen keys: ${agreement(tests, weights, count(unseen))}`)
  // The middle of what is written down is called usual.
  const scores = learned
    .flatMap((group) => group.written.map(({ at }) => gripScore(group, weights, at)))
    .sort((a, b) => a - b)
  const usual = scores[Math.floor(scores.length / 2)]!
  console.log(
    `  idiom of what is written: median ${usual.toFixed(2)}, a tenth below ${scores[Math.floor(scores.length / 10)]!.toFixed(2)}`,
  )
  writeFileSync('core/voicing/idiomWeights.ts', weightTable(names.all, weights, usual))
  writeFileSync('core/voicing/writtenShapes.ts', shapeTable())
}

const rounded = (weight: number) => Number(weight.toFixed(3))

function weightTable(features: readonly string[], weights: Float64Array, usual: number): string {
  const numbers = (name: string) => name.replace(/\d+/g, (digits) => digits.padStart(2, '0'))
  const rows = features
    .map((name, at) => ({ name, weight: rounded(weights[at]!) }))
    .sort((a, b) => (numbers(a.name) < numbers(b.name) ? -1 : 1))
  return `/**
 * How much each feature of a grip speaks for it (above 0) or against it, in natural logarithms of how often such grips are written down. Made by
 * \`npm run fit\` from @tombatossals/chords-db 0.5.1, keys C D E F G A B, and the trade's grips by their definitions; not changed by hand.
 */
export const IDIOM_WEIGHTS: Readonly<Record<string, number>> = {
${rows.map(({ name, weight }) => `  '${name}': ${weight}, // ${sentenceOf(name)}`).join('\n')}
}

/** Half of the grips written down have more than this. */
export const USUAL_IDIOM = ${rounded(usual)}
`
}

function shapeTable(): string {
  const quoted = (text: string) => `'${text}'`
  const moved = [...movable].map(
    ([suffix, shapes]) =>
      `  ${quoted(suffix)}: { ${[...shapes].map(([shape, keys]) => `${quoted(shape)}: ${keys.size}`).join(', ')} },`,
  )
  const still = [...open].map(
    ([suffix, roots]) =>
      `  ${quoted(suffix)}: { ${[...roots].map(([root, shapes]) => `${root}: [${[...shapes].map(quoted).join(', ')}]`).join(', ')} },`,
  )
  return `// Shapes that people write down, from @tombatossals/chords-db 0.5.1 (MIT), keys C D E F G A B. Made by \`npm run fit\`; not changed by hand.

/** For each ending of a chord symbol the shapes without open strings, frets from the lowest held one, and in how many of the seven keys they are written. */
export const WRITTEN_MOVABLE: Readonly<Record<string, Readonly<Record<string, number>>>> = {
${moved.join('\n')}
}

/** For each ending and each root (0 is C) the shapes with open strings. */
export const WRITTEN_OPEN: Readonly<Record<string, Readonly<Record<number, readonly string[]>>>> = {
${still.join('\n')}
}
`
}
