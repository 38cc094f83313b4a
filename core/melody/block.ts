import { itemAt } from '../lists'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { constrained } from '../leading/constraints'
import { bestPaths } from '../leading/search'
import type { Layer } from '../leading/searchStage'
import { weightsFrom } from '../leading/weights'
import { fretFor } from '../neck/instrument'
import { scaleNotes, type Key } from '../pitch/key'
import {
  midiOf,
  modulo,
  noteName,
  pitchAt,
  pitchClass,
  pitchName,
  plainSpelling,
  type Note,
  type Pitch,
} from '../pitch/note'
import { bad, good, must, type Result } from '../result'
import type { Family } from '../voicing/family'
import type { Limits } from '../voicing/gripLimits'
import { namesOf } from '../voicing/possibleNames'
import { chordsOfKey } from '../voicing/related'
import { voicingOf, type Voicing } from '../voicing/voicing'
import { highUpPrice } from './highUp'
import { SILENT, type NoteKind } from './melodyLine'
import { sixthDiminishedScale } from './sixthDiminished'

/** What the chords under the notes of a scale or a fragment are made of. */
export type Block =
  /**
   * The sevenths of the key, the melody always the same tone of its chord; in one family of
   * voicings.
   */
  | { kind: 'sevenths'; key: Key; tone: 1 | 3 | 5 | 7; family: Family | null }
  /** The sixth-diminished scale of a major or minor chord (common practice). */
  | { kind: 'sixth-diminished'; chord: ChordSymbol; family: Family | null }
  /** Three notes in fourths of the key under each note. */
  | { kind: 'fourths'; key: Key }

export interface BlockNote {
  note: Pitch
  chord: ChordSymbol
  kind: NoteKind
  voicing: Voicing
}

/** The chord a note gets, and which notes sound where that is more than the chord says. */
interface BlockWanted {
  chord: ChordSymbol
  kind: NoteKind
  exact: number[] | null
}

/**
 * Every note of a fragment with a block under it, the note on top, led as smoothly as the hand
 * allows. Common practice, no source.
 */
export function blockHarmonised(notes: readonly Pitch[], block: Block, limits: Limits): Result<BlockNote[]> {
  const wanted: BlockWanted[] = []
  for (const note of notes) {
    const one = blockUnder(note, block)
    if (!one.ok) return one
    wanted.push(one.value)
  }
  const family = block.kind === 'fourths' ? null : block.family
  const layers: Layer[] = []
  for (const [at, { chord, exact }] of wanted.entries()) {
    const voicings = exact
      ? gripsOf(exact, chord, limits)
      : blocksOf(chord, midiOf(itemAt(notes, at)), family, limits)
    if (voicings.length === 0)
      return bad({
        code: 'no-grip',
        message: `No hand holds ${chord.canonical} under ${pitchName(itemAt(notes, at))} within these limits.`,
        accepted: 'another octave, another family, or wider limits',
        text: 'limits',
        at,
      })
    layers.push({ chord, voicings, only: `${at}`, extra: voicings.map(highUpPrice) })
  }
  const [path] = bestPaths(layers, weightsFrom('smooth'), limits.instrument, 1) ?? []
  return good(
    path
      ? path.indexes.map((index, at): BlockNote => ({
          note: itemAt(notes, at),
          chord: itemAt(wanted, at).chord,
          kind: itemAt(wanted, at).kind,
          voicing: itemAt(itemAt(layers, at).voicings, index),
        }))
      : [],
  )
}

/**
 * The same on one set of neighbouring strings, the highest set first, where the whole passage lies
 * on one; as it comes where it does not.
 */
export function blocksOnOneSet(notes: readonly Pitch[], block: Block, limits: Limits): Result<BlockNote[]> {
  const voices = block.kind === 'fourths' ? 3 : 4
  const { length } = limits.instrument.tuning
  for (let from = length - voices; from >= 0 && limits.strings === null; from -= 1) {
    const set = blockHarmonised(notes, block, {
      ...limits,
      strings: Array.from({ length: voices }, (_, at) => from + at),
    })
    if (set.ok && set.value.every(({ voicing }) => voicing.midis.length === voices)) return set
  }
  return blockHarmonised(notes, block, limits)
}

/**
 * Four voices in a family with a note on top; in any family where the hand has none of that one.
 */
function blocksOf(chord: ChordSymbol, top: number, family: Family | null, limits: Limits): Voicing[] {
  // One shape after another along the neck: an open string among them would ring otherwise.
  const four: Limits = {
    ...limits,
    bass: 'any',
    notes: [4, 4],
    open: false,
    families: family ? [family] : null,
  }
  const asked = [{ from: 0, to: 0, kind: 'top' as const, midi: top }]
  const found = constrained(chord, four, asked)
  return found.length > 0 || !family
    ? found
    : constrained(chord, { ...four, notes: [3, 4], families: null }, asked)
}

const STEPS_BELOW = { 1: 0, 3: 2, 5: 4, 7: 6 } as const

/**
 * The seventh of the key that has the note as the wanted tone; between the steps of the scale the
 * shape of the step below, a half step higher.
 */
function seventhUnder(note: Note, key: Key, tone: 1 | 3 | 5 | 7): Result<BlockWanted> {
  const steps = scaleNotes(key).map(pitchClass)
  const step = steps.indexOf(pitchClass(note))
  if (step >= 0)
    return good({
      chord: itemAt(chordsOfKey(key, true), modulo(step - STEPS_BELOW[tone], 7)),
      kind: 'step of the scale',
      exact: null,
    })
  const below = steps.indexOf(modulo(pitchClass(note) - 1, 12))
  const shape = itemAt(
    chordsOfKey(key, true),
    modulo((below >= 0 ? below : steps.indexOf(modulo(pitchClass(note) - 2, 12))) - STEPS_BELOW[tone], 7),
  )
  const root = plainSpelling(modulo(pitchClass(shape.root) + (below >= 0 ? 1 : 2), 12))
  return good({
    chord: must(parseChord(noteName(root) + shape.suffix)),
    kind: 'half step approach',
    exact: null,
  })
}

/**
 * The sixth chord or the diminished seventh of the scale; between its steps the diminished seventh
 * that has the note.
 */
function sixthDiminishedUnder(note: Note, chord: ChordSymbol): Result<BlockWanted> {
  const scale = sixthDiminishedScale(chord)
  if (!scale.ok) return scale
  const step = scale.value.find((one) => pitchClass(one.note) === pitchClass(note))
  if (step) return good({ chord: step.chord, kind: 'sixth-diminished step', exact: null })
  return good({
    chord: must(parseChord(`${noteName(plainSpelling(pitchClass(note)))}dim7`)),
    kind: 'passing diminished',
    exact: null,
  })
}

function blockUnder(note: Pitch, block: Block): Result<BlockWanted> {
  if (block.kind === 'sevenths') return seventhUnder(note, block.key, block.tone)
  if (block.kind === 'fourths') return good(fourthsUnder(note, block.key))
  return sixthDiminishedUnder(note, block.chord)
}

/**
 * The note and the notes three and six steps of the scale below it; a note between the steps takes
 * the shape of the step below, a half step higher.
 */
function fourthsUnder(note: Pitch, key: Key): BlockWanted {
  const steps = scaleNotes(key).map(pitchClass)
  const top = midiOf(note)
  const inScale = steps.includes(modulo(top, 12))
  const below = steps.includes(modulo(top - 1, 12)) ? top - 1 : top - 2
  const from = inScale ? top : below
  const down = (start: number, count: number) => {
    let [at, left] = [start, count]
    while (left > 0) {
      at -= 1
      if (steps.includes(modulo(at, 12))) left -= 1
    }
    return at
  }
  const exact = [down(from, 6), down(from, 3), from].map((midi) => midi + top - from)
  const [name] = namesOf(exact, { key })
  return {
    chord: name?.chord ?? { ...SILENT, root: plainSpelling(modulo(top, 12)) },
    kind: inScale ? 'stacked fourths' : 'half step approach',
    exact,
  }
}

/** Every way a hand holds just these pitches, one to a string, the lowest on the lowest. */
function gripsOf(midis: readonly number[], chord: ChordSymbol, limits: Limits): Voicing[] {
  const {
    instrument,
    frets: [low, high],
    open,
    strings,
  } = limits
  const found: Voicing[] = []
  const grip = Array<number | null>(instrument.tuning.length).fill(null)
  const place = (voice: number, from: number) => {
    if (voice === midis.length) {
      const voicing = voicingOf([...grip], chord, limits)
      if (voicing) found.push(voicing)
      return
    }
    for (let string = from; string < grip.length; string += 1) {
      const fret = fretFor(instrument, string, itemAt(midis, voice))
      if (
        fret === null ||
        (strings && !strings.includes(string)) ||
        (fret === 0 ? !open : fret < low || fret > high)
      )
        continue
      grip[string] = fret
      place(voice + 1, string + 1)
      grip[string] = null
    }
  }
  place(0, 0)
  return found
}

/** The notes of one octave of a key going up, from a pitch: a scale to be harmonised. */
export function scaleFrom(notes: readonly Note[], octave: number): Pitch[] {
  let last = -Infinity
  return notes.map((note) => {
    let pitch: Pitch = { ...note, octave }
    while (midiOf(pitch) <= last) pitch = { ...pitch, octave: pitch.octave + 1 }
    last = midiOf(pitch)
    return pitchAt(last, note)
  })
}
