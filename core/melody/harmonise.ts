import { slotsOf, type Chart, type Slot } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import { constrained } from '../leading/constraints'
import { bestPaths } from '../leading/search'
import type { Layer } from '../leading/stage'
import { STYLES, weightsFrom, type StyleName } from '../leading/weights'
import { easiestFingering } from '../neck/fingering'
import { soundAt } from '../neck/instrument'
import { midiOf, pitchName } from '../pitch/note'
import type { MelodyNote } from '../reharm/melodyFit'
import { bad, good, type Result } from '../result'
import type { Limits } from '../voicing/limits'
import { ToneNames, voicingFrom, type Voicing } from '../voicing/voicing'

/** What stands under a melody note: a chord of its own, the chord's grip held while the melody moves, or the note alone. */
export type Under = 'chord' | 'held' | 'single'

export interface HarmonisedNote {
  note: MelodyNote
  chord: ChordSymbol | null
  under: Under
  voicing: Voicing
}

export interface HarmonisedLine {
  cost: number
  notes: HarmonisedNote[]
}

export interface HarmoniseProblem {
  chart: Chart
  melody: readonly MelodyNote[]
  limits: Limits
  style?: StyleName
  count?: number
}

/** What a melody note costs that moves over a held grip, and one that stands alone, in units of the line's cost (common practice, no source). */
const PRICE = { held: 0.4, single: 2.5 } as const

interface Group { slot: Slot; chord: ChordSymbol | null; notes: MelodyNote[] }

/**
 * A chord melody: the first note over each chord gets a grip with the note on top; the notes that follow move over that grip as long as a hand
 * can reach them with it held, and stand alone where it cannot. The whole tune is weighed together, the melody always the highest note.
 */
export function harmonise({ chart, melody, limits, style = 'smooth', count = 1 }: HarmoniseProblem): Result<HarmonisedLine[]> {
  const named = STYLES[style]
  const within = 'within' in named ? named.within(limits) : limits
  const groups = groupsOf(chart, melody)
  if (groups.length === 0) return bad({ code: 'no-melody', message: 'No melody note lies within the bars of the chart.', accepted: 'notes such as {"bar":1,"beat":1,"beats":1,"note":"E4"}', text: 'melody' })
  const known = new Map<string, { voicing: Voicing; rest: HarmonisedNote[]; extra: number }[]>()
  const candidates = groups.map((group) => {
    const key = `${group.chord?.canonical ?? '-'} ${group.notes.map(({ note }) => pitchName(note)).join(' ')}`
    const found = known.get(key) ?? candidatesOf(group, within)
    known.set(key, found)
    return found.map((one) => ({ ...one, rest: one.rest.map((rest, at) => ({ ...rest, note: group.notes[at + 1]! })) }))
  })
  const stuck = candidates.findIndex((list) => list.length === 0)
  if (stuck >= 0) {
    const { slot, notes } = groups[stuck]!
    return bad({ code: 'no-grip', message: `${pitchName(notes[0]!.note)} in bar ${slot.bar} cannot be played within these limits.`, accepted: 'the melody in another octave, or more frets', text: 'melody', at: stuck })
  }
  // A silence or a note alone has no chord to be led from: it is named by what stood before.
  const layers = candidates.map((list, at): Layer => ({
    chord: groups[at]!.chord ?? SILENT, voicings: list.map(({ voicing }) => voicing), extra: list.map(({ extra }) => extra), only: groups[at]!.notes.map(({ note }) => pitchName(note)).join(' '),
  }))
  const paths = bestPaths(layers, weightsFrom(style), within.instrument, count) ?? []
  return good(paths.map(({ cost, indexes }) => ({
    cost,
    notes: indexes.flatMap((index, at): HarmonisedNote[] => {
      const { voicing, rest } = candidates[at]![index]!
      const group = groups[at]!
      return [{ note: group.notes[0]!, chord: group.chord, under: voicing.midis.length > 1 ? 'chord' : 'single', voicing }, ...rest]
    }),
  })))
}

/** What stands in the place of a chord where nobody plays. */
export const SILENT: ChordSymbol = { text: 'N.C.', canonical: 'N.C.', root: { letter: 0, alter: 0 }, suffix: '', bass: null, tones: [] }

/** Melody notes by the chord over which they begin; a note that begins where nobody plays stands by itself. */
function groupsOf(chart: Chart, melody: readonly MelodyNote[]): Group[] {
  const inOrder = [...melody].sort((a, b) => a.bar - b.bar || a.beat - b.beat)
  return slotsOf(chart).flatMap((slot): Group[] => {
    const notes = inOrder.filter(({ bar, beat }) => bar === slot.bar && beat > slot.beat - 1e-6 && beat < slot.beat + slot.beats - 1e-6)
    if (notes.length === 0) return []
    if (slot.symbol?.kind !== 'chord') return notes.map((note) => ({ slot, chord: null, notes: [note] }))
    return [{ slot, chord: slot.symbol.chord, notes }]
  })
}

/** Grips for the first note of a group with what the others become over each, and what that costs. */
function candidatesOf({ chord, notes }: Group, limits: Limits): { voicing: Voicing; rest: HarmonisedNote[]; extra: number }[] {
  const top = midiOf(notes[0]!.note)
  const full = chord ? constrained(chord, limits, [{ from: 0, to: 0, kind: 'top', midi: top }]) : []
  const first = full.length > 0 ? full.map((voicing) => ({ voicing, extra: 0 })) : alone(top, chord, limits).map((voicing) => ({ voicing, extra: PRICE.single }))
  return first.flatMap(({ voicing, extra }) => {
    let price = extra
    const rest: HarmonisedNote[] = []
    for (const note of notes.slice(1)) {
      const midi = midiOf(note.note)
      const held = voicing.midis.length > 1 ? heldUnder(voicing, midi, chord!, limits) : null
      const single = held ? null : alone(midi, chord, limits)[0]
      const under = held ?? single
      if (!under) return []
      price += held ? PRICE.held : PRICE.single
      rest.push({ note, chord, under: held ? 'held' : 'single', voicing: under })
    }
    return [{ voicing, rest, extra: price }]
  })
}

/** A grip kept down while its highest voice goes to another note, on its own string or a higher one; null where the hand cannot. */
function heldUnder(voicing: Voicing, midi: number, chord: ChordSymbol, limits: Limits): Voicing | null {
  const { instrument, hand } = limits
  const topString = voicing.strings.find((one) => one.midi === voicing.midis.at(-1))!.string
  const below = voicing.midis.at(-2)
  if (below !== undefined && midi <= below) return null
  for (let string = topString; string < instrument.tuning.length; string += 1) {
    const fret = fretFor(midi, string, limits)
    if (fret === null) continue
    const frets = voicing.frets.map((now, at) => (at === string ? fret : at === topString ? null : now))
    if (frets.some((one, at) => one !== null && soundAt(instrument, at, one) > midi)) continue
    const fingering = easiestFingering(frets, instrument, hand)
    if (fingering) return voicingFrom(frets, fingering, new ToneNames(chord), instrument)
  }
  return null
}

/** A note by itself, on each string that has it, the easiest first. */
function alone(midi: number, chord: ChordSymbol | null, limits: Limits): Voicing[] {
  const { instrument, hand } = limits
  return instrument.tuning.flatMap((_, string): Voicing[] => {
    const fret = fretFor(midi, string, limits)
    if (fret === null) return []
    const frets = instrument.tuning.map((__, at) => (at === string ? fret : null))
    const fingering = easiestFingering(frets, instrument, hand)
    return fingering ? [voicingFrom(frets, fingering, new ToneNames(chord ?? named(midi)), instrument)] : []
  }).sort((a, b) => a.fingering.difficulty - b.fingering.difficulty || b.strings[0]!.string - a.strings[0]!.string)
}

/** A chord of one note, so that a note where nobody plays has a name. */
const named = (midi: number): ChordSymbol => ({ ...SILENT, root: ROOTS[midi % 12]! })
const ROOTS = [[0, 0], [1, -1], [1, 0], [2, -1], [2, 0], [3, 0], [3, 1], [4, 0], [5, -1], [5, 0], [6, -1], [6, 0]].map(([letter, alter]) => ({ letter: letter!, alter: alter! }))

function fretFor(midi: number, string: number, { instrument, frets, strings, open }: Limits): number | null {
  if (strings && !strings.includes(string)) return null
  const above = midi - instrument.tuning[string]!
  if (above === instrument.capo) return open ? 0 : null
  return above > instrument.capo && above >= frets[0] && above <= frets[1] ? above : null
}
