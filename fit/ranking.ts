/** The grips of one chord with their features, and which of them are written down. */
export interface RankedGroup {
  /** Features of each grip, side by side: names by number, amounts, and where each grip's begin. */
  names: Int32Array
  amounts: Float32Array
  begins: Int32Array
  written: readonly { at: number; weight: number }[]
}

/** Numbers for names, in the order in which they come. */
export class Names {
  private readonly known = new Map<string, number>()
  of(name: string): number {
    const at = this.known.get(name) ?? this.known.size
    this.known.set(name, at)
    return at
  }
  get all(): string[] {
    return [...this.known.keys()]
  }
}

export const gripScore = (
  { names, amounts, begins }: RankedGroup,
  weights: Float64Array,
  grip: number,
): number => {
  let sum = 0
  for (let at = begins[grip]!; at < begins[grip + 1]!; at += 1) sum += weights[names[at]!]! * amounts[at]!
  return sum
}

/** Grips of a group, the best first. */
export const gripsRanked = (group: RankedGroup, weights: Float64Array): number[] => {
  const scores = Array.from({ length: group.begins.length - 1 }, (_, grip) => gripScore(group, weights, grip))
  return scores.map((_, grip) => grip).sort((a, b) => scores[b]! - scores[a]! || a - b)
}

const ROUNDS = 160
/** Keeps weights of rare features small. */
const RIDGE = 0.003

/** How far the weights go in one round, until which share of the rounds. */
const STEPS = [
  [0.6, 0.1],
  [0.9, 0.03],
  [Infinity, 0.01],
] as const

/**
 * Weights under which the grips that are written down are the likeliest choices among all grips of
 * their chord (multinomial logit, McFadden 1974; minimised by Adam, Kingma & Ba 2015; both from
 * memory). Nothing is drawn by chance: the same groups give the same weights.
 */
export function fitted(
  groups: readonly RankedGroup[],
  features: number,
  onRound: (round: number, loss: number) => void = () => {},
): Float64Array {
  const [weights, mean, square] = [
    new Float64Array(features),
    new Float64Array(features),
    new Float64Array(features),
  ]
  const total = groups.reduce(
    (sum, { written }) => sum + written.reduce((all, one) => all + one.weight, 0),
    0,
  )
  for (let round = 1; round <= ROUNDS; round += 1) {
    const slope = new Float64Array(features)
    let loss = 0
    for (const group of groups) loss += addSlope(group, weights, slope)
    const [, step] = STEPS.find(([until]) => round < ROUNDS * until)!
    for (let at = 0; at < features; at += 1) {
      const down = (4 * slope[at]!) / total + RIDGE * weights[at]!
      mean[at] = 0.9 * mean[at]! + 0.1 * down
      square[at] = 0.99 * square[at]! + 0.01 * down * down
      weights[at]! -=
        (step * (mean[at]! / (1 - 0.9 ** round))) / (Math.sqrt(square[at]! / (1 - 0.99 ** round)) + 1e-8)
    }
    onRound(round, loss / total)
  }
  return weights
}

/** Adds how the loss of a group changes with each weight; gives the loss. */
function addSlope(group: RankedGroup, weights: Float64Array, slope: Float64Array): number {
  const { names, amounts, begins, written } = group
  const size = begins.length - 1
  const shares = new Float64Array(size)
  let highest = -Infinity
  for (let grip = 0; grip < size; grip += 1) {
    shares[grip] = gripScore(group, weights, grip)
    highest = Math.max(highest, shares[grip]!)
  }
  let whole = 0
  for (let grip = 0; grip < size; grip += 1) {
    shares[grip] = Math.exp(shares[grip]! - highest)
    whole += shares[grip]!
  }
  const wanted = written.reduce((sum, one) => sum + one.weight, 0)
  const add = (grip: number, amount: number) => {
    for (let at = begins[grip]!; at < begins[grip + 1]!; at += 1) slope[names[at]!]! += amount * amounts[at]!
  }
  let loss = 0
  for (const { at, weight } of written) {
    loss -= weight * Math.log(shares[at]! / whole)
    add(at, -weight)
  }
  for (let grip = 0; grip < size; grip += 1) {
    const share = (wanted * shares[grip]!) / whole
    if (share > 1e-9) add(grip, share)
  }
  return loss
}
