import { parseChord } from '../../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../../chord/symbol'
import { itemAt } from '../../lists'
import { spellDegree, type Degree } from '../../pitch/degree'
import { noteName, pitchClass, plainSpelling } from '../../pitch/note'
import { must } from '../../result'
import { namesOf } from '../../voicing/possibleNames'
import { voicingOf, type Voicing } from '../../voicing/voicing'
import { gripsOn, placeScale, ladderCost, searchedLadder, stringSets, type HeldRun } from './heldRun'
import { rootedGrips } from './movingVoice'
import { easiestFirst, onRungs, type Ladder, type LadderIdea, type Rungs } from './rungs'

/** A chord that comes between, and what the chord that lasts is called beside it. */
interface Neighbour {
  idea: LadderIdea
  home: ChordSymbol
  other: ChordSymbol
  says: string
}

const chordOn = (chord: ChordSymbol, degree: Degree, suffix: string): ChordSymbol =>
  must(parseChord(noteName(spellDegree(chord.root, degree)) + suffix))

/** The chord that lasts as it alternates: a triad takes its sixth, so that four voices move. */
function atHome(chord: ChordSymbol): ChordSymbol {
  if (chord.tones.length > 3 || !hasDegree(chord, '5')) return chord
  if (hasDegree(chord, '3')) return chordOn(chord, '1', '6')
  return hasDegree(chord, 'b3') ? chordOn(chord, '1', 'm6') : chord
}

/**
 * The diminished seventh below the root, which is V7b9 without its root, takes every scale step
 * that the chord leaves out. Named on the second step of a minor chord, on the seventh of another.
 */
function dominantNeighbour(chord: ChordSymbol, as: 'diminished' | 'dominant'): Neighbour {
  const home = atHome(chord)
  const dim = chordOn(chord, hasDegree(chord, 'b3') ? '9' : '7', 'dim7')
  const five = chordOn(chord, '5', '7b9')
  const both = `${home.canonical} ${dim.canonical}, which is ${home.canonical} ${five.canonical}`
  return {
    idea: `${as} neighbour`,
    home,
    other: as === 'diminished' ? dim : five,
    says: `the chord and its neighbour in turn: ${both}`,
  }
}

/** The seventh chord one step above in the scale of the place; null where that has no name. */
function chordAbove(run: HeldRun, chord: ChordSymbol): Neighbour | null {
  const scale = placeScale(chord, run.roles[0])
  if (scale.length !== 7) return null
  const root = pitchClass(chord.root)
  const order = [...scale].sort(
    (a, b) => ((pitchClass(a) - root + 12) % 12) - ((pitchClass(b) - root + 12) % 12),
  )
  const [first, ...rest] = [1, 3, 5, 7].map((step) => itemAt(order, step % 7))
  const midis = [first!, ...rest].map(
    (note) => 60 + ((pitchClass(note) - pitchClass(first!) + 12) % 12) + pitchClass(first!),
  )
  const [name] = namesOf(midis, { over: first! })
  return name && name.outside === 0
    ? {
        idea: 'chord above',
        home: chord,
        other: name.chord,
        says: `${name.chord.canonical}, one step above in the scale, comes between`,
      }
    : null
}

/** Ladders in which a chord and a neighbour take turns on one set of strings, on each set. */
function inTurn(run: HeldRun, { home, other, idea, says }: Neighbour): Ladder[] {
  const four = run.hold.drone === undefined && !run.hold.strings ? 4 : undefined
  const found = stringSets({ ...run, chords: [home, other] }, four).flatMap((set) => {
    const ladder = onRungs(run, (wanted): Rungs | null => {
      const chords = Array.from({ length: wanted }, (_, at) => (at % 2 === 0 ? home : other))
      const led = searchedLadder(run, chords, (one) => gripsOn(set, one, run), upOrDown(run, wanted))
      return led && { voicings: led.voicings, chords }
    })
    return ladder ? [{ ...ladder, idea, says }] : []
  })
  return easiestFirst(run, found)
}

/** Where the top goes from rung to rung. */
export const upOrDown = ({ hold }: HeldRun, rungs: number) =>
  Array.from({ length: rungs }, (_, at) => {
    if (at === 0) return null
    return hold.how === 'falls' ? ('down' as const) : ('up' as const)
  })

export const withDominant = (run: HeldRun, chord: ChordSymbol, as: 'diminished' | 'dominant'): Ladder[] =>
  inTurn(run, dominantNeighbour(chord, as))

export function withChordAbove(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const above = chordAbove(run, chord)
  return above ? inTurn(run, above) : []
}

/** The same grip a fret higher for a moment: it comes back, or it is no side step. */
export function sideSteps(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const steps = run.chords.length
  if (steps < 3 || run.hold.drone !== undefined) return []
  const aside = Array.from({ length: steps }, (_, at) => at % 2 === 1 && at < steps - 1)
  const found = rootedGrips(chord, run).flatMap((home) => {
    if (home.frets.includes(0)) return []
    const other = besideOf(home, chord, run)
    if (!other) return []
    const voicings = aside.map((isAside) => (isAside ? other.voicing : home))
    const chords = aside.map((isAside) => (isAside ? other.chord : chord))
    return [
      {
        idea: 'side step' as const,
        voicings,
        chords,
        cost: ladderCost(run, voicings, chords, 'own bass'),
        whole: steps === 3,
        rungs: 2,
        says: 'the same grip a fret higher for a moment, and back',
      },
    ]
  })
  return easiestFirst(run, found)
}

function besideOf(
  home: Voicing,
  chord: ChordSymbol,
  run: HeldRun,
): { voicing: Voicing; chord: ChordSymbol } | null {
  const frets = home.frets.map((fret) => (fret === null ? null : fret + 1))
  const above = must(parseChord(noteName(plainSpelling((pitchClass(chord.root) + 1) % 12)) + chord.suffix))
  const beyond = frets.some((fret) => fret !== null && fret > run.limits.frets[1])
  const voicing = beyond ? null : voicingOf(frets, above, run.limits)
  return voicing && { voicing, chord: above }
}
