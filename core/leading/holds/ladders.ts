import { hasDegree, type ChordSymbol } from '../../chord/symbol'
import { firstOf, itemAt, lastOf } from '../../lists'
import type { Voicing } from '../../voicing/voicing'
import { goesThatWay, topsOf, type HoldWay } from './hold'
import {
  gripsOn,
  soundsWithin,
  ladderCost,
  onlyChord,
  placeScale,
  searchedLadder,
  stringSets,
  highestOf,
  usualGrips,
  type HeldRun,
} from './heldRun'
import { easiestFirst, onRungs, type Ladder, type LadderIdea } from './rungs'
import { movingVoices, rootedGrips } from './movingVoice'
import { sideSteps, upOrDown, withChordAbove, withDominant } from './neighbourChords'
import { inFourths, inversions, planed } from './planing'

/**
 * Ways to keep a chord alive, unlike one another: first the one whose top goes all the way as it
 * was asked for and whose grips are easiest, then other ideas.
 */
export function laddersOf(run: HeldRun, count: number): Ladder[] {
  const chord = onlyChord(run)
  const found = chord ? ofOneChord(run, chord) : ofVamp(run)
  return unlike(run, found, count)
}

/** Two chords in turn: the search has both, and the top goes one way through them. */
function ofVamp(run: HeldRun): Ladder[] {
  const chords = [...run.chords]
  const tops = topsOf(run.hold.how, chords.length)
  const onSets = stringSets(run).flatMap((set) => {
    const ladder = searchedLadder(run, chords, (chord) => gripsOn(set, chord, run), tops)
    return ladder ? [ladder] : []
  })
  const ladders = easiestFirst(
    run,
    onSets.map((ladder): Ladder => ({
      ...ladder,
      chords,
      idea: 'inversions',
      whole: true,
      rungs: chords.length,
      says: says(run.hold.how),
    })),
  )
  if (ladders.length > 0) return ladders
  if (run.hold.how === 'stays') return asItIs(run)
  const middle = Math.ceil(chords.length / 2)
  if (middle < 2) return [...asItIs(run)]
  // Too many steps for one way: each half goes its own.
  const halves = [chords.slice(0, middle), chords.slice(middle)].map((half, at) =>
    ofVamp({ ...run, chords: half, roles: run.roles.slice(at * middle, at * middle + half.length) }),
  )
  const [before, after] = [firstOf(halves), itemAt(halves, 1)]
  return before.slice(0, after.length).map((ladder, at) => {
    const voicings = [...ladder.voicings, ...itemAt(after, at).voicings]
    return { ...ladder, voicings, chords, whole: false, cost: ladderCost(run, voicings, chords) }
  })
}

const says = (how: HoldWay): string =>
  how === 'stays' ? 'one grip, held' : 'the inversions on one set of strings, the top going one way'

function ofOneChord(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const { how, tones } = run.hold
  if (tones === 'diminished' || tones === 'dominant') {
    const inTurn = how === 'stays' ? [] : withDominant(run, chord, tones)
    return inTurn.length > 0 ? inTurn : asItIs(run)
  }
  const ofTones = how === 'stays' ? asItIs(run) : goingOneWay(run, chord)
  if (tones === 'chord') return ofTones
  const scale = placeScale(chord, run.roles[0])
  const free = [
    ...movingVoices(run, chord),
    ...(how === 'stays'
      ? []
      : [...planed(run, chord), ...inFourths(run, chord), ...withChordAbove(run, chord)]),
    ...(how === 'returns' || how === 'stays' ? sideSteps(run, chord) : []),
    ...(isSixth(chord) && how !== 'stays' ? withDominant(run, chord, 'diminished') : []),
  ]
  const inPlace = ({ idea, voicings }: Ladder) =>
    LEAVES_THE_SCALE.includes(idea) ||
    voicings.every((voicing) => soundsWithin(voicing, scale, run.hold.drone))
  return [...ofTones, ...free.filter(inPlace)]
}
/** Ideas whose point is a note from outside for a moment. */
const LEAVES_THE_SCALE: readonly LadderIdea[] = [
  'inner line',
  'side step',
  'diminished neighbour',
  'dominant neighbour',
]

const isSixth = (chord: ChordSymbol): boolean => /^m?6/.test(chord.suffix)

/** The inversions on one set of strings, and across them where none has enough. */
function goingOneWay(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const onSets = inversions(run, chord)
  if (onSets[0] && run.hold.how === 'returns') return onSets
  return easiestFirst(run, [...onSets, ...(needsMore(onSets[0], run) ? changingStrings(run, chord) : [])])
}

/** Whether the inversions of one set begin again on the way, or lie on low strings alone. */
const needsMore = (ladder: Ladder | undefined, { limits }: HeldRun): boolean =>
  !ladder?.whole ||
  ladder.voicings.every(({ strings }) => lastOf(strings).string < limits.instrument.tuning.length - 2)

/** Grips of the chord on whatever strings, the top going one way: where no set has enough. */
function changingStrings(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const found = onRungs(run, (wanted) => {
    const chords = Array.from({ length: wanted }, () => chord)
    const searched = searchedLadder(run, chords, (one) => usualGrips(one, run), upOrDown(run, wanted))
    return searched && { voicings: searched.voicings, chords }
  })
  return found ? [{ ...found, idea: 'inversions', says: 'grips of the chord, the top going one way' }] : []
}

/** One grip all the time, for each of two chords one. */
function asItIs(run: HeldRun): Ladder[] {
  const known = new Map<string, Voicing | undefined>()
  for (const chord of run.chords)
    if (!known.has(chord.canonical)) known.set(chord.canonical, easiestGrip(run, chord))
  const voicings = run.chords.flatMap(({ canonical }) => known.get(canonical) ?? [])
  return voicings.length === run.chords.length ? [heldStill(run, voicings, [...run.chords])] : []
}

const heldStill = (run: HeldRun, voicings: Voicing[], chords: ChordSymbol[]): Ladder => ({
  idea: 'as it is',
  voicings,
  chords,
  cost: ladderCost(run, voicings, chords, 'own bass'),
  whole: true,
  rungs: 1,
  says: says('stays'),
})

const easiestGrip = (run: HeldRun, chord: ChordSymbol): Voicing | undefined =>
  easiestFirst(
    run,
    rootedGrips(chord, run).map((grip) => heldStill(run, [grip], [chord])),
  )[0]?.voicings[0]

/**
 * The order in which ideas are offered for a kind of chord, best first; an idea that is named again
 * has its next ladder there. Common practice, no source.
 */
function ideaOrder({ hold, chords }: HeldRun): readonly LadderIdea[] {
  const chord = firstOf(chords)
  const seventh = hasDegree(chord, '7', 'b7')
  const home: LadderIdea[] = isSixth(chord) ? ['diminished neighbour'] : []
  switch (hold.how) {
    case 'stays':
      return ['as it is', 'suspension', 'inner line', 'side step']
    case 'returns':
      return seventh
        ? [
            'inversions',
            'planing',
            'top line',
            'side step',
            'top line',
            'inversions',
            'inner line',
            'chord above',
          ]
        : [
            'inversions',
            ...home,
            'suspension',
            'inner line',
            'inner line',
            'top line',
            'inversions',
            'planing',
          ]
    default:
      if (hold.drone !== undefined) return ['inversions', 'planing', 'inner line', 'top line', 'inversions']
      if (seventh && hasDegree(chord, '3') && hasDegree(chord, 'b7'))
        return ['inversions', 'inner line', 'inner line', 'planing', 'fourths', 'inversions']
      return seventh
        ? ['inversions', 'inner line', 'fourths', 'planing', 'inversions', 'chord above', 'top line']
        : [
            'inversions',
            ...home,
            'inner line',
            'inner line',
            'inner line',
            'planing',
            'inversions',
            'top line',
          ]
  }
}

/** Ladders by the order of ideas, then whatever is left; none twice. */
function unlike(run: HeldRun, found: readonly Ladder[], count: number): Ladder[] {
  const left = new Map<LadderIdea, Ladder[]>()
  for (const ladder of found) left.set(ladder.idea, [...(left.get(ladder.idea) ?? []), ladder])
  const goesWhole = ({ whole, voicings }: Ladder) =>
    whole && goesThatWay(run.hold.how, voicings.map(highestOf))
  const order = ideaOrder(run)
  const placeOf = ({ idea }: Ladder) => (order.includes(idea) ? order.indexOf(idea) : order.length)
  const first = found
    .filter((ladder) => goesWhole(ladder) && !LEAVES_THE_SCALE.includes(ladder.idea))
    .sort((a, b) => placeOf(a) - placeOf(b))
  const chosen: Ladder[] = []
  const sounds = new Set<string>()
  const take = (ladder: Ladder | undefined): void => {
    if (!ladder || chosen.length >= count) return
    const id = ladder.voicings.map(({ frets }) => frets.join()).join(' ')
    if (!sounds.has(id)) chosen.push(ladder)
    sounds.add(id)
  }
  take(first[0])
  if (chosen.length === 1)
    left.set(
      firstOf(chosen).idea,
      left.get(firstOf(chosen).idea)!.filter((one) => one !== chosen[0]),
    )
  const from = order.filter((idea, at) => !(at === 0 && chosen[0]?.idea === idea))
  for (const idea of from) take(left.get(idea)?.shift())
  for (const ladder of [...left.values()].flat()) take(ladder)
  return chosen
}
