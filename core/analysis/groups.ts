import { modulo, pitchClass } from '../pitch/note'
import { scaleNotes, type Key } from '../pitch/key'
import type { Place } from './analyse'
import type { Group } from './reading'

const at = (place: Place) => ({ bar: place.slot.bar, beat: place.slot.beat })
const fallsFifth = (a: Place, b: Place) => modulo(pitchClass(a.chord.root) - pitchClass(b.chord.root), 12) === 7

/** The ii-V's, with or without their I, and the turnarounds of a progression, in order. */
export function groupsOf(places: readonly Place[], home: Key): Group[] {
  const runs = places.filter((place, index) => index === 0 || place.chord.canonical !== places[index - 1]!.chord.canonical)
  const groups: Group[] = []
  runs.forEach((two, index) => {
    const five = runs[index + 1]
    if (five && isTwoFive(two, five, home)) groups.push(twoFive(two, five, runs[index + 2]))
    const four = runs.slice(index, index + 4)
    if (four.length === 4 && isTurnaround(four)) groups.push({ kind: 'turnaround', key: home, from: at(four[0]!), to: at(four[3]!), resolves: runs[index + 4]?.rel === 0 || (runs[index + 4] === undefined && runs[0]?.rel === 0) })
  })
  return groups
}

/** A minor or half-diminished chord and a dominant a fourth above; a plain major V only counts in the home key. */
function isTwoFive(two: Place, five: Place, home: Key): boolean {
  if (two.kind !== 'minor' && two.kind !== 'half-diminished') return false
  if (!fallsFifth(two, five)) return false
  return five.kind === 'dominant' || (five.kind === 'major' && five.rel === 7 && two.rel === 2 && home.mode === 'major')
}

function twoFive(two: Place, five: Place, one: Place | undefined): Group {
  const lands = one !== undefined && fallsFifth(five, one) && (one.kind === 'major' || one.kind === 'minor' || (one.kind === 'dominant' && one.rel === 0))
  const minor = lands ? one.kind === 'minor' : two.kind === 'half-diminished'
  const tonic = lands ? one.chord.root : scaleNotes({ tonic: five.chord.root, mode: 'major' })[3]!
  return {
    kind: minor ? 'minor ii-V' : lands ? 'ii-V-I' : 'ii-V',
    key: { tonic, mode: minor ? 'minor' : 'major' },
    from: at(two), to: at(lands ? one : five), resolves: lands,
  }
}

/** The usual four-chord turnarounds by the steps of their roots (common practice). */
const TURNAROUNDS: readonly (readonly number[])[] = [
  [0, 9, 2, 7], [4, 9, 2, 7], [4, 3, 2, 1], [0, 3, 8, 1], [0, 3, 2, 1], [0, 1, 2, 7], [0, 9, 2, 1], [0, 9, 5, 7],
]
const isTurnaround = (four: readonly Place[]) =>
  TURNAROUNDS.some((steps) => steps.every((step, index) => four[index]!.rel === step)) && four[0]!.kind !== 'dominant'
