import type { ChordSymbol } from '../../chord/symbol'
import { hasDegree } from '../../chord/symbol'
import { firstOf, itemAt, lastOf } from '../../lists'
import { writtenFrets, type Frets } from '../../neck/instrument'
import { pitchClass } from '../../pitch/note'
import { calledOf } from '../../voicing/called'
import { namesOf } from '../../voicing/possibleNames'
import { voicingOf, type Voicing } from '../../voicing/voicing'
import type { HoldWay } from './hold'
import { ladderCost, placeScale, highestOf, usualGrips, type HeldRun } from './heldRun'
import { easiestFirst, type Ladder, type LadderIdea } from './rungs'

/** Kinds of chord that a line belongs to. */
type LineKind = 'minor' | 'major' | 'dominant'

/** A voice that moves while the others stay: where it goes, in semitones above the root. */
interface VoiceLine {
  kinds: readonly LineKind[]
  ways: readonly HoldWay[]
  line: readonly number[]
  idea: LadderIdea
  says: string
}

/** Common practice, no source. */
// prettier-ignore
const VOICE_LINES: readonly VoiceLine[] = [
  { kinds: ['minor'], ways: ['falls', 'returns', 'stays'], line: [12, 11, 10, 9], idea: 'inner line', says: '8 7 b7 6 falls by half steps while the rest stays' },
  { kinds: ['minor'], ways: ['climbs', 'returns', 'stays'], line: [7, 8, 9, 10], idea: 'inner line', says: '5 #5 6 b7 climbs by half steps while the rest stays' },
  { kinds: ['major'], ways: ['falls', 'returns', 'stays'], line: [12, 11, 9], idea: 'inner line', says: '8 7 6 falls while the rest stays' },
  { kinds: ['major'], ways: ['falls'], line: [12, 11, 10, 9], idea: 'inner line', says: '8 7 b7 6 falls by half steps while the rest stays' },
  { kinds: ['major'], ways: ['climbs', 'returns', 'stays'], line: [7, 8, 9, 10], idea: 'inner line', says: '5 #5 6 b7 climbs by half steps and pulls into IV' },
  { kinds: ['dominant'], ways: ['climbs', 'returns', 'stays'], line: [7, 8, 9, 10], idea: 'inner line', says: '5 b13 13 b7 climbs by half steps over the shell' },
  { kinds: ['major', 'dominant'], ways: ['returns', 'stays'], line: [4, 5, 4, 2], idea: 'suspension', says: 'the third goes to the 4, comes back, and to the 2' },
]

const kindOf = (chord: ChordSymbol): LineKind | null => {
  if (hasDegree(chord, 'b5', '#5')) return null
  if (hasDegree(chord, 'b3')) return 'minor'
  if (!hasDegree(chord, '3')) return null
  return hasDegree(chord, 'b7') ? 'dominant' : 'major'
}

/** Where a voice is at each step: one way, each place as long; or there and back. */
function alongLine({ line, idea }: VoiceLine, how: HoldWay, steps: number): number[] {
  if (idea === 'suspension')
    return Array.from({ length: steps }, (_, at) => itemAt(line, at === steps - 1 ? 0 : at % line.length))
  if (how === 'returns' || how === 'stays') {
    const peak = Math.min(line.length - 1, Math.floor(steps / 2))
    return Array.from({ length: steps }, (_, at) => {
      const turn = at % (2 * peak)
      return itemAt(line, turn <= peak ? turn : 2 * peak - turn)
    })
  }
  return Array.from({ length: steps }, (_, at) =>
    itemAt(line, steps <= line.length ? at : Math.floor((at * line.length) / steps)),
  )
}

/**
 * The easiest ladder between each two strings that bass and top may lie on: first one over each
 * string of the bass, then the others.
 */
function betweenEachTwo(run: HeldRun, ladders: readonly Ladder[]): Ladder[] {
  const seen = new Map<string, number>()
  const again = (key: string): number => {
    const times = seen.get(key) ?? 0
    seen.set(key, times + 1)
    return times
  }
  return easiestFirst(run, ladders)
    .filter(({ voicings }) => {
      const { strings } = firstOf(voicings)
      return again(`${firstOf(strings).string} ${lastOf(strings).string}`) === 0
    })
    .map((ladder) => ({ ladder, turn: again(`${firstOf(firstOf(ladder.voicings).strings).string}`) }))
    .sort((a, b) => a.turn - b.turn)
    .map(({ ladder }) => ladder)
}

/** A grip, and the same with one inner string silent where the chord is whole without it. */
function withRoom(grip: Voicing, chord: ChordSymbol, run: HeldRun): Voicing[] {
  const inner = grip.midis.length < 5 ? [] : grip.strings.slice(1, -1)
  const thinner = inner.flatMap(({ string }) => {
    const frets = grip.frets.map((fret, at) => (at === string ? null : fret))
    return voicingOf(frets, chord, run.limits) ?? []
  })
  return [
    grip,
    ...thinner.filter(({ midis }) => {
      const { foreign, missing } = calledOf(midis, chord)
      return foreign.length + missing.length === 0
    }),
  ]
}

/**
 * Grips with the root below, under which a moving voice is heard as one; any where the bass is
 * somebody else's or none has it.
 */
export function rootedGrips(chord: ChordSymbol, run: HeldRun): Voicing[] {
  const grips = usualGrips(chord, run)
  const rooted = grips.filter(({ midis }) => midis[0]! % 12 === pitchClass(chord.bass ?? chord.root))
  return run.limits.bass === 'none' || rooted.length === 0 ? grips : rooted
}

/** Ladders in which one voice moves on its string and the hand stays. */
export function movingVoices(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const kind = kindOf(chord)
  const grips = rootedGrips(chord, run).flatMap((grip) => withRoom(grip, chord, run))
  const steps = run.chords.length
  const { how } = run.hold
  const lines = VOICE_LINES.filter(({ kinds, ways }) => kind && kinds.includes(kind) && ways.includes(how))
  const inner = lines.flatMap((line) => {
    const way = alongLine(line, how, steps)
    if (way.every((place) => place === way[0])) return []
    const found = grips.flatMap((grip) => {
      const voices = grip.strings.filter(
        ({ midi, string }) =>
          (midi - pitchClass(chord.root) + 24) % 12 === itemAt(way, 0) % 12 &&
          string !== run.hold.drone &&
          !(how === 'stays' && midi === highestOf(grip)) &&
          // The bass stays where it is.
          midi !== grip.midis[0] &&
          // No other voice stays on the note that is left.
          grip.midis.every((other, at) => at === 0 || other === midi || other % 12 !== midi % 12),
      )
      return voices.flatMap(({ string }) => {
        const ladder = moved(
          run,
          chord,
          grip,
          string,
          way.map((place) => place - itemAt(way, 0)),
        )
        return ladder ? [{ ...ladder, idea: line.idea, says: line.says, whole: false, rungs: steps }] : []
      })
    })
    return betweenEachTwo(run, found)
  })
  return how === 'stays' ? inner : [...inner, ...topLines(run, chord, grips)]
}

/** The top walks through the scale of the place over a grip that stays. */
function topLines(run: HeldRun, chord: ChordSymbol, grips: readonly Voicing[]): Ladder[] {
  const { how } = run.hold
  const sounds = new Set(placeScale(chord, run.roles[0]).map(pitchClass))
  const steps = run.chords.length
  const peak = how === 'returns' ? Math.min(2, Math.floor(steps / 2)) : steps - 1
  const found = grips.flatMap((grip) => {
    const top = grip.strings.reduce((best, one) => (one.midi > best.midi ? one : best))
    const way = [0]
    for (let by = 1; way.length <= peak && by <= 12; by += 1)
      if (sounds.has((top.midi + (how === 'falls' ? -by : by) + 12) % 12))
        way.push(how === 'falls' ? -by : by)
    if (way.length <= peak || peak === 0) return []
    const places = Array.from({ length: steps }, (_, at) => {
      const turn = how === 'returns' ? at % (2 * peak) : at
      return itemAt(way, turn <= peak ? turn : 2 * peak - turn)
    })
    const ladder = moved(run, chord, grip, top.string, places)
    return ladder
      ? [
          {
            ...ladder,
            idea: 'top line' as const,
            whole: how !== 'returns',
            rungs: steps,
            says: 'the top walks through the scale over a grip that stays',
          },
        ]
      : []
  })
  return betweenEachTwo(run, found)
}

/** A grip with one string moved by so many frets at each step; null where no hand holds one. */
function moved(
  run: HeldRun,
  chord: ChordSymbol,
  grip: Voicing,
  string: number,
  by: readonly number[],
): Pick<Ladder, 'voicings' | 'chords' | 'cost'> | null {
  const { capo } = run.limits.instrument
  const voicings: Voicing[] = []
  const known = new Map<string, Voicing>()
  for (const frets of by) {
    const from = itemAt(grip.frets, string)!
    const fret = (from === 0 ? capo : from) + frets
    if (fret < capo || fret > run.limits.frets[1]) return null
    const moved: Frets = grip.frets.map((held, at) => {
      if (at !== string) return held
      return fret === capo ? 0 : fret
    })
    const key = writtenFrets(moved)
    const voicing = known.get(key) ?? voicingOf(moved, chord, run.limits)
    // A moving voice that crosses another is no line.
    if (!voicing || !staysInPlace(grip, voicing, string)) return null
    known.set(key, voicing)
    voicings.push(voicing)
  }
  const chords = voicings.map(({ midis }) => namedOver(midis, chord))
  return { voicings, chords, cost: ladderCost(run, voicings, chords, 'own bass') }
}

/** What sounds, by the root that stays. */
function namedOver(midis: readonly number[], chord: ChordSymbol): ChordSymbol {
  const { sounds, foreign } = calledOf(midis, chord)
  if (sounds && foreign.length === 0) return sounds
  const [name] = namesOf(midis, { over: chord.root })
  return name && name.outside <= 1 ? name.chord : (sounds ?? chord)
}

const staysInPlace = (grip: Voicing, other: Voicing, string: number): boolean => {
  const place = ({ strings }: Voicing) => {
    const own = strings.find((one) => one.string === string)!.midi
    return strings.filter((one) => one.midi < own).length
  }
  return place(grip) === place(other)
}
