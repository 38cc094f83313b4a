import type { ChordSymbol } from '../../chord/symbol'
import { hasDegree } from '../../chord/symbol'
import { itemAt, lastOf } from '../../lists'
import { fretFor, soundAt, type Frets } from '../../neck/instrument'
import type { Key } from '../../pitch/key'
import { pitchClass, type Note } from '../../pitch/note'
import { namesOf } from '../../voicing/possibleNames'
import { oneStepOn } from '../../voicing/shapeWalk'
import { voicingOf, type Voicing } from '../../voicing/voicing'
import { gripsOn, soundsWithin, placeScale, stringSets, type HeldRun } from './heldRun'
import { easiestFirst, onRungs, type Ladder, type Rungs } from './rungs'

/** Scales with fewer notes leave holes where a grip should go step by step. */
const STEPS_OF_A_SCALE = 6

/** Every voice one step on in the scale of the place, from grips of the chord. */
export function planed(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const scale = placeScale(chord, run.roles[0])
  if (scale.length < STEPS_OF_A_SCALE) return []
  const starts = stringSets(run).flatMap((set) => gripsOn(set, chord, run))
  return along(run, chord, starts, scale).map((ladder) => ({
    ...ladder,
    idea: 'planing',
    says: 'every voice goes one step of the scale',
  }))
}

/** Fourths on one another, going through the scale of the place. */
export function inFourths(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const scale = placeScale(chord, run.roles[0])
  // On a major chord the fourth above the root is the tone to keep away from.
  if (scale.length !== 7 || (hasDegree(chord, '3') && !hasDegree(chord, 'b7'))) return []
  const stacks = stringSets(run, run.hold.drone === undefined ? 4 : 3).flatMap((set) =>
    scale.flatMap((note) => stackOn(set, note, scale, run)),
  )
  const voicings = stacks.flatMap((frets) => voicingOf(frets, chord, run.limits) ?? [])
  const ofChord = voicings.filter(({ strings }) =>
    strings.some(({ degree }) => degree === 'b3' || degree === '3'),
  )
  return along(run, chord, ofChord, scale).map((ladder) => ({
    ...ladder,
    idea: 'fourths',
    says: 'fourths on one another go through the scale',
  }))
}

/** A note on the lowest string of a set, and on each string above it the fourth in the scale. */
function stackOn(set: readonly number[], note: Note, scale: readonly Note[], run: HeldRun): Frets[] {
  const { instrument } = run.limits
  const frets: (number | null)[] = instrument.tuning.map(() => null)
  const moving = set.filter((string) => string !== run.hold.drone)
  if (run.hold.drone !== undefined) frets[run.hold.drone] = 0
  const from = scale.indexOf(note)
  let below = -1
  for (const [at, string] of moving.entries()) {
    const sound = pitchClass(itemAt(scale, (from + 3 * at) % scale.length))
    const open = soundAt(instrument, string, 0)
    let midi = open + ((((sound - open) % 12) + 12) % 12)
    while (midi <= below) midi += 12
    const fret = fretFor(instrument, string, midi)
    if (fret === null) return []
    // Beside what moves no string rings by chance.
    frets[string] = fret === 0 ? fret + 12 : fret
    below = fret === 0 ? midi + 12 : midi
  }
  return [frets]
}

/** Ladders from each of some grips through the notes of a scale, the easiest and lowest first. */
function along(
  run: HeldRun,
  chord: ChordSymbol,
  starts: readonly Voicing[],
  scale: readonly Note[],
): Omit<Ladder, 'idea' | 'says'>[] {
  const sounds = new Set(scale.map(pitchClass))
  return easiestFirst(
    run,
    starts
      .filter((start) => soundsWithin(start, scale, run.hold.drone))
      .flatMap((start) => onRungs(run, (wanted) => walked(run, chord, start, sounds, wanted)) ?? []),
    true,
  )
}

/** A chord's inversions, each voice going to the next of its tones, on each set of strings. */
export function inversions(run: HeldRun, chord: ChordSymbol): Ladder[] {
  const { drone } = run.hold
  const ladders = stringSets(run).flatMap((set) =>
    gripsOn(set, chord, run).flatMap((start) => {
      const moving = start.strings.filter(({ string }) => string !== drone)
      const sounds = new Set(moving.map(({ midi }) => midi % 12))
      const found = onRungs(run, (wanted) => {
        const rungs = walked(run, chord, start, sounds, wanted)
        return rungs && { ...rungs, chords: rungs.voicings.map(() => chord) }
      })
      return found ?? []
    }),
  )
  return easiestFirst(run, ladders).map((ladder) => ({
    ...ladder,
    idea: 'inversions',
    says: 'the inversions on one set of strings, the top going one way',
  }))
}

function walked(
  run: HeldRun,
  chord: ChordSymbol,
  start: Voicing,
  sounds: ReadonlySet<number>,
  wanted: number,
): Rungs | null {
  const { instrument, frets: within } = run.limits
  const { drone, how } = run.hold
  const ringing = drone === undefined ? [] : [drone]
  const voicings = [start]
  while (voicings.length < wanted) {
    const { frets, below } = oneStepOn(lastOf(voicings).frets, instrument, {
      sounds,
      down: how === 'falls',
      ringing,
    })
    const beyond = frets.some(
      (fret, string) => fret !== null && string !== drone && (fret > within[1] || fret === 0),
    )
    const next = below === null && !beyond ? voicingOf(frets, chord, run.limits) : null
    if (!next) return null
    voicings.push(next)
  }
  return {
    voicings,
    chords: voicings.map(({ midis }, at) => (at === 0 ? chord : heardAs(midis, chord, run.key))),
  }
}

/** What a grip of a walk is by itself, by its likeliest name. */
export function heardAs(midis: readonly number[], chord: ChordSymbol, key: Key | null): ChordSymbol {
  const [name] = namesOf(midis, key ? { key } : {})
  return name && name.outside === 0 ? name.chord : chord
}
