import { firstOf, itemAt, lastOf } from '../lists'
import type { Chart } from '../chart/chart'
import { keyName, scaleNotes, type Key } from '../pitch/key'
import { modulo, noteName, pitchClass } from '../pitch/note'
import { sameKey } from './localKeys'
import { distinctPlaces, type Place } from './chordPlaces'
import type { Group, GroupKind } from './chordReading'
import { isBackdoor } from './functionRules'

/** A group before it has its place in the chart: the runs it is made of and what it points at. */
interface FoundGroup {
  kind: GroupKind
  key: Key
  chords: readonly Place[]
  resolves: boolean
  atTop?: boolean | undefined
  why: string
}

/**
 * What belongs together in a progression, in the order of the chart. Common practice, no source.
 */
export function groupsOf(places: readonly Place[], chart: Chart): Group[] {
  const runs = distinctPlaces(places)
  const pairs = runs.flatMap((_, at) => [...twoFive(runs, at), ...substitutedTwoFive(runs, at)])
  const found = [
    ...pairs,
    ...twoFiveChains(runs, pairs),
    ...runs.flatMap((_, at) => [
      ...turnaround(runs, at),
      ...backdoor(runs, at),
      ...deceptiveCadence(runs, at),
      ...passingDiminished(runs, at),
    ]),
    ...dominantChains(runs),
    ...lineCliches(runs),
    ...sectionCadences(runs, chart, pairs),
    ...bluesForm(places, chart),
  ]
  const seen = new Set<string>()
  return found
    .flatMap((one) => placed(one))
    .filter((group) => {
      // On another time through it may go on otherwise: the first time counts.
      const name = `${group.kind.includes('ii-V') && group.kind !== 'ii-V chain' ? 'ii-V' : group.kind}${group.from.bar}:${group.from.beat}`
      return !seen.has(name) && seen.add(name)
    })
    .sort((a, b) => a.from.bar - b.from.bar || a.from.beat - b.from.beat)
}

const at = (place: Place) => ({ bar: place.slot.bar, beat: place.slot.beat })
const before = (a: Place, b: Place) =>
  a.slot.bar < b.slot.bar || (a.slot.bar === b.slot.bar && a.slot.beat < b.slot.beat)

/**
 * A group stands in the chart as far as its chords follow one another there; what comes after a
 * repeat sign is left to its own place.
 */
function placed({ chords, kind, key, resolves, atTop = false, why }: FoundGroup): Group[] {
  let last = firstOf(chords)
  for (const chord of chords.slice(1)) {
    if (!before(last, chord)) break
    last = chord
  }
  if (last === chords[0] && chords.length > 1) return []
  return [{ kind, key, from: at(firstOf(chords)), to: at(last), resolves, atTop, why }]
}

const root = (place: Place) => place.root
const falls = (a: Place, b: Place) => modulo(root(a) - root(b), 12)
const fallsFifth = (a: Place | undefined, b: Place | undefined) =>
  a !== undefined && b !== undefined && falls(a, b) === 7
const names = (chords: readonly Place[]) => chords.map((place) => place.chord.canonical).join(' ')
const isTwo = (place: Place) => place.kind === 'minor' || place.kind === 'half-diminished'
const isOne = (place: Place) =>
  place.kind === 'major' || place.kind === 'minor' || (place.kind === 'dominant' && place.rel === 0)

/**
 * A minor or half-diminished chord and a dominant a fourth above; a plain major V only counts in
 * the home key.
 */
function twoFive(runs: readonly Place[], index: number): FoundGroup[] {
  const [two, five, one] = [itemAt(runs, index), runs[index + 1], runs[index + 2]]
  if (!five || !isTwo(two) || !fallsFifth(two, five)) return []
  if (
    five.kind !== 'dominant' &&
    !(five.kind === 'major' && five.rel === 7 && two.rel === 2 && two.key.mode === 'major')
  )
    return []
  if (isBackdoor(two, five)) return []
  const lands = one !== undefined && fallsFifth(five, one) && isOne(one)
  const top = !one && runs[0] && fallsFifth(five, runs[0]) && isOne(runs[0]) ? runs[0] : null
  const goal = lands ? one : top
  const minor = goal ? goal.kind === 'minor' : two.kind === 'half-diminished'
  const tonic = goal ? goal.chord.root : itemAt(scaleNotes({ tonic: five.chord.root, mode: 'major' }), 3)
  const key: Key = { tonic, mode: minor ? 'minor' : 'major' }
  const chords = lands ? [two, five, one] : [two, five]
  const major = lands ? 'ii-V-I' : 'ii-V'
  const atTheTop = top ? ', which comes at the top of the form' : ', which does not come'
  return [
    {
      kind: minor ? 'minor ii-V' : major,
      key,
      chords,
      resolves: lands,
      atTop: top !== null,
      why: `${two.chord.canonical} and ${five.chord.canonical} are the ii and V of ${keyName(key)}${lands ? `, and ${one.chord.canonical} is where they point` : atTheTop}.`,
    },
  ]
}

/** The ii of a key with the substitute of its V: both go a half step down, ii to bII to I. */
function substitutedTwoFive(runs: readonly Place[], index: number): FoundGroup[] {
  const [two, five, one] = [itemAt(runs, index), runs[index + 1], runs[index + 2]]
  if (!five || !isTwo(two) || five.kind !== 'dominant' || falls(two, five) !== 1) return []
  const lands = one !== undefined && falls(five, one) === 1 && isOne(one)
  // Without its I only the half step down tells; then the ii has to be the ii of the key.
  if (!lands && two.rel !== 2) return []
  const tonic = lands ? one.chord.root : two.key.tonic
  const modeOfOne = one?.kind === 'minor' ? 'minor' : 'major'
  const key: Key = { tonic, mode: lands ? modeOfOne : two.key.mode }
  return [
    {
      kind: 'substituted ii-V',
      key,
      chords: lands ? [two, five, one] : [two, five],
      resolves: lands,
      why: `${two.chord.canonical} is the ii of ${keyName(key)}; ${five.chord.canonical} stands for its V with the same third and seventh${lands ? ` and falls a half step to ${one.chord.canonical}` : ''}.`,
    },
  ]
}

/**
 * A chain goes on by step or by fifth: keys a half step, a whole step, a fourth or a fifth apart.
 */
const CHAIN_STEPS = [1, 2, 5, 7, 10, 11]

/** Two or more ii-V's, one right behind the other. */
function twoFiveChains(runs: readonly Place[], pairs: readonly FoundGroup[]): FoundGroup[] {
  const chains: FoundGroup[][] = []
  for (const pair of pairs.filter((one) => one.kind !== 'substituted ii-V')) {
    const last = chains.at(-1)?.at(-1)
    const apart = last ? modulo(pitchClass(pair.key.tonic) - pitchClass(last.key.tonic), 12) : 0
    if (
      last &&
      CHAIN_STEPS.includes(apart) &&
      runs.indexOf(firstOf(pair.chords)) === runs.indexOf(itemAt(last.chords, 1)) + 1
    )
      lastOf(chains).push(pair)
    else chains.push([pair])
  }
  return chains
    .filter((chain) => chain.length > 1)
    .map((chain): FoundGroup => {
      const last = lastOf(chain)
      return {
        kind: 'ii-V chain',
        key: last.key,
        chords: [...chain.slice(0, -1).flatMap((pair) => pair.chords.slice(0, 2)), ...last.chords],
        resolves: last.resolves,
        atTop: last.atTop,
        why: `${chain.length} ii-V's in a row, pointing at ${chain.map((pair) => keyName(pair.key)).join(', ')}.`,
      }
    })
}

/** The usual four-chord turnarounds by the steps of their roots. */
const TURNAROUNDS: readonly (readonly number[])[] = [
  [0, 9, 2, 7],
  [4, 9, 2, 7],
  [4, 3, 2, 1],
  [0, 3, 8, 1],
  [0, 3, 2, 1],
  [0, 1, 2, 7],
  [0, 9, 2, 1],
  [0, 9, 5, 7],
  [0, 3, 8, 7],
]

function turnaround(runs: readonly Place[], index: number): FoundGroup[] {
  const four = runs.slice(index, index + 4)
  const [first] = four
  const tonic = pitchClass(first!.key.tonic)
  if (
    four.length < 4 ||
    !TURNAROUNDS.some((steps) =>
      steps.every((step, place) => modulo(root(itemAt(four, place)) - tonic, 12) === step),
    )
  )
    return []
  if (first!.kind === 'dominant' && first!.rel !== 0) return []
  const one = runs[index + 4]
  const lands = one?.rel === 0
  const top = !one && runs[0]?.rel === 0
  return [
    {
      kind: 'turnaround',
      key: first!.key,
      chords: four,
      resolves: lands || top,
      atTop: top,
      why: `${names(four)} goes round from ${first!.rel === 0 ? 'home' : 'the iii, which stands for home,'} back to where ${keyName(first!.key)} begins again.`,
    },
  ]
}

/** iv and bVII7, or bVII7 alone, coming home from behind. */
function backdoor(runs: readonly Place[], index: number): FoundGroup[] {
  const [first, second, third] = [itemAt(runs, index), runs[index + 1], runs[index + 2]]
  if (second && isBackdoor(first, second) && third?.rel === 0)
    return [
      {
        kind: 'backdoor',
        key: first.key,
        chords: [first, second, third],
        resolves: true,
        why: `${first.chord.canonical} and ${second.chord.canonical}, borrowed from the minor, come home to ${third.chord.canonical} from a whole step below.`,
      },
    ]
  if (
    first.rel === 10 &&
    first.kind === 'dominant' &&
    first.key.mode === 'major' &&
    second?.rel === 0 &&
    !(runs[index - 1] && isBackdoor(itemAt(runs, index - 1), first))
  )
    return [
      {
        kind: 'backdoor',
        key: first.key,
        chords: [first, second],
        resolves: true,
        why: `${first.chord.canonical} comes home to ${second.chord.canonical} from a whole step below.`,
      },
    ]
  return []
}

/** V of the key going to vi (or bVI) where home was expected. */
function deceptiveCadence(runs: readonly Place[], index: number): FoundGroup[] {
  const [five, goal] = [itemAt(runs, index), runs[index + 1]]
  if (!goal || five.rel !== 7 || five.kind !== 'dominant' || !sameKey(five.key, goal.key)) return []
  const isGoal =
    five.key.mode === 'major'
      ? (goal.rel === 9 && goal.kind === 'minor') || (goal.rel === 8 && goal.kind === 'major')
      : goal.rel === 8 && goal.kind === 'major'
  if (!isGoal) return []
  return [
    {
      kind: 'deceptive cadence',
      key: five.key,
      chords: [five, goal],
      resolves: false,
      why: `${five.chord.canonical} points home to ${keyName(five.key)}, and ${goal.chord.canonical} comes in its place.`,
    },
  ]
}

function passingDiminished(runs: readonly Place[], index: number): FoundGroup[] {
  const [from, through, to] = [itemAt(runs, index), runs[index + 1], runs[index + 2]]
  if (!through || !to || through.kind !== 'diminished') return []
  const [first, second] = [falls(through, from), falls(to, through)]
  if (!((first === 1 && second === 1) || (first === 11 && second === 11))) return []
  return [
    {
      kind: 'passing diminished',
      key: from.key,
      chords: [from, through, to],
      resolves: true,
      why: `${through.chord.canonical} fills the whole step between ${from.chord.canonical} and ${to.chord.canonical}.`,
    },
  ]
}

const CHAIN_FROM = 3

/**
 * Dominants that fall into one another by fifths or half steps, each the V (or its substitute) of
 * the next.
 */
function dominantChains(runs: readonly Place[]): FoundGroup[] {
  const chains: FoundGroup[] = []
  for (let begin = 0; begin < runs.length;) {
    let end = begin + 1
    while (
      end < runs.length &&
      itemAt(runs, end - 1).kind === 'dominant' &&
      itemAt(runs, end).kind === 'dominant' &&
      [7, 1].includes(falls(itemAt(runs, end - 1), itemAt(runs, end)))
    )
      end += 1
    const chain = runs.slice(begin, end)
    if (chain.length >= CHAIN_FROM) {
      const goal = runs[end]
      const last = lastOf(chain)
      const lands = goal !== undefined && [7, 1].includes(falls(last, goal))
      chains.push({
        kind: 'dominant chain',
        key: last.key,
        chords: lands ? [...chain, goal] : chain,
        resolves: lands,
        why: `${names(chain)}: each is the dominant of the next${lands ? `, and the last lands on ${goal.chord.canonical}` : ''}.`,
      })
    }
    begin = end
  }
  return chains
}

const CLICHE_FROM = 3

/** A standing chord with one tone walking by half steps through three or more of its forms. */
function lineCliches(runs: readonly Place[]): FoundGroup[] {
  const groups: FoundGroup[] = []
  for (let begin = 0; begin < runs.length;) {
    let end = begin + 1
    while (end < runs.length && root(itemAt(runs, end)) === root(itemAt(runs, begin))) end += 1
    const line = end - begin >= CLICHE_FROM ? walkingTones(runs.slice(begin, end)) : null
    if (line)
      groups.push({
        kind: 'line cliché',
        key: itemAt(runs, begin).key,
        chords: runs.slice(begin, end),
        resolves: true,
        why: `${noteName(itemAt(runs, begin).chord.root)} stands while one voice walks ${line.join(' ')}.`,
      })
    begin = end
  }
  return groups
}

/**
 * Tones that can walk, by semitones above the root: the upper line 8 7 b7 6 and the inner line 5 #5
 * 6 b7.
 */
const LINES: readonly Readonly<Record<string, number>>[] = [
  { '7': 11, b7: 10, '6': 9, '13': 9, b13: 8, '': 12 },
  { '#5': 8, b13: 8, '6': 9, '13': 9, b7: 10, '': 7 },
]
const WALKER_NAMES: Readonly<Record<number, string>> = { 12: '8', 11: '7', 10: 'b7', 9: '6', 8: 'b6', 7: '5' }

function walkingTones(chords: readonly Place[]): string[] | null {
  const basses = chords.map(
    ({ chord }) => modulo(pitchClass(chord.bass ?? chord.root) - pitchClass(chord.root), 12) || 12,
  )
  const lines = [
    basses,
    ...LINES.map((line) =>
      chords.map(({ chord }) => {
        const degree = Object.keys(line).find(
          (one) => one !== '' && chord.tones.some((tone) => tone.degree === one),
        )
        return line[degree ?? '']!
      }),
    ),
  ]
  const walks = (line: readonly number[]) => {
    const moves = line.slice(1).map((tone, index) => tone - itemAt(line, index))
    return (
      moves.every((move) => move === -1) ||
      moves.every((move) => move === 1) ||
      (moves.every((move) => move === -1 || move === -2) && moves.includes(-1))
    )
  }
  const line = lines.find(walks)
  return line ? line.map((tone) => WALKER_NAMES[tone] ?? String(tone)) : null
}

/** How sections end, where no ii-V-I, backdoor or turnaround says it already. */
function sectionCadences(runs: readonly Place[], chart: Chart, pairs: readonly FoundGroup[]): FoundGroup[] {
  const lastBars = new Set(
    chart.bars
      .filter((_, index) => index === chart.bars.length - 1 || itemAt(chart.bars, index + 1).opensSection)
      .map((bar) => bar.number),
  )
  const isLast = (index: number) =>
    lastBars.has(itemAt(runs, index).slot.bar) && runs[index + 1]?.slot.bar !== itemAt(runs, index).slot.bar
  const named = new Set(pairs.flatMap((pair) => pair.chords))
  return runs.flatMap((last, index): FoundGroup[] => {
    const first = runs[index - 1]
    // The I of an ending may stand on for some bars: it counts where it is still sounding in the
    // section's last bar.
    const ends =
      isLast(index) ||
      index === runs.length - 1 ||
      (runs[index + 1] !== undefined && lastBars.has(itemAt(runs, index + 1).slot.bar - 1))
    if (!first || !ends) return []
    const { key } = last
    if (
      last.rel === 0 &&
      first.rel === 7 &&
      (first.kind === 'major' || first.kind === 'dominant' || first.kind === 'suspended') &&
      !named.has(first)
    )
      return [
        {
          kind: 'authentic cadence',
          key,
          chords: [first, last],
          resolves: true,
          why: `${first.chord.canonical} goes home to ${last.chord.canonical} at the end of the section.`,
        },
      ]
    if (last.rel === 0 && first.rel === 5)
      return [
        {
          kind: 'plagal cadence',
          key,
          chords: [first, last],
          resolves: true,
          why: `${first.chord.canonical} comes home to ${last.chord.canonical} without a V.`,
        },
      ]
    if (
      last.rel === 7 &&
      isLast(index) &&
      (last.kind === 'major' || last.kind === 'dominant') &&
      !named.has(last)
    )
      return [
        {
          kind: 'half cadence',
          key,
          chords: [first, last],
          resolves: false,
          atTop: index === runs.length - 1 && firstOf(runs).rel === 0,
          why: `The section stops on ${last.chord.canonical}, the V of ${keyName(key)}, and leaves the question open.`,
        },
      ]
    return []
  })
}

const BLUES_BARS = 12

/**
 * Twelve bars with I, IV in the fifth, I in the seventh, and V or ii on the way home in the ninth
 * or tenth.
 */
function bluesForm(places: readonly Place[], chart: Chart): FoundGroup[] {
  const bars = chart.bars.filter((bar) => bar.number > 0)
  const openings = bars.filter((bar, index) => index === 0 || bar.opensSection).map((bar) => bar.number)
  return openings.flatMap((first, index): FoundGroup[] => {
    const end = openings[index + 1] ?? lastOf(bars).number + 1
    const inBar = (number: number) => places.filter((place) => place.slot.bar === first + number - 1)
    const begins = (number: number, rel: number) => inBar(number)[0]?.rel === rel
    const dominates = [9, 10].some((number) =>
      inBar(number).some((place) => place.rel === 7 || place.rel === 8),
    )
    if (
      end - first !== BLUES_BARS ||
      !begins(1, 0) ||
      !begins(5, 5) ||
      !(begins(7, 0) || begins(7, 4)) ||
      !dominates
    )
      return []
    const chords = places.filter((place) => place.slot.bar >= first && place.slot.bar < end)
    const { key } = firstOf(chords)
    return [
      {
        kind: 'blues form',
        key,
        chords: [firstOf(chords), lastOf(chords)],
        resolves: true,
        why: `Twelve bars with the I first, the IV in bar 5, the I again in bar 7 and the V in bar 9 or 10: a ${key.mode === 'minor' ? 'minor ' : ''}blues.`,
      },
    ]
  })
}
