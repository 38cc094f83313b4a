import { entryOf, itemAt } from '../lists'
import { type Chart, type Slot } from '../chart/chart'
import { playOrder } from '../chart/form'
import type { ChordSymbol } from '../chord/symbol'
import type { Key } from '../pitch/key'
import { modulo, pitchClass } from '../pitch/note'
import { kindOf, type Kind } from './kind'

/** A chord with its neighbours in playing, as the rules of reading see it. */
export interface Place {
  slot: Slot
  chord: ChordSymbol
  /** What it acts as: a chord over the bass of V is a dominant. */
  kind: Kind
  /** Pitch class of the root it acts on: that of V for a chord over its bass, else its own. */
  root: number
  /** The V it is, by its usual name; null for any other chord. */
  overFive: string | null
  /** Sounds of the chord, a bit for each pitch class. */
  sounds: number
  /** The key it is read in: home, or the one the tune has moved to. */
  key: Key
  /** Semitones above the tonic of that key. */
  rel: number
  /** The next different chord as it is played; after the last one the form begins again. */
  next: Place | null
  previous: Place | null
  /** `next` is reached by going back to the top. */
  wraps: boolean
}

/** A chord as it is played, before it has a key. */
export interface Sounding {
  slot: Slot
  chord: ChordSymbol
  kind: Kind
  sounds: number
}

const soundsOf = (chord: ChordSymbol): number =>
  chord.tones.reduce((bits, tone) => bits | (1 << pitchClass(tone.note)), 0)

/** Kind and sounds of chords seen before. */
const KNOWN = new WeakMap<ChordSymbol, Pick<Sounding, 'kind' | 'sounds'>>()

function natureOf(chord: ChordSymbol): Pick<Sounding, 'kind' | 'sounds'> {
  const nature = KNOWN.get(chord) ?? { kind: kindOf(chord), sounds: soundsOf(chord) }
  KNOWN.set(chord, nature)
  return nature
}

/**
 * The chords of a chart in the order in which they are played, each as often as it is played;
 * behind them those of bars the form never reaches.
 */
export function played(chart: Chart): Sounding[] {
  const known = new Map<Slot, Sounding>()
  const order = playOrder(chart)
  const reached = new Set(order)
  const missed = chart.bars.flatMap((_, index) => (reached.has(index) ? [] : [index]))
  return [...order, ...missed].flatMap((index) =>
    itemAt(chart.bars, index).slots.flatMap((slot): Sounding[] => {
      if (slot.symbol?.kind !== 'chord') return []
      const { chord } = slot.symbol
      if (!known.has(slot)) known.set(slot, { slot, chord, ...natureOf(chord) })
      return [entryOf(known, slot)]
    }),
  )
}

/** A chord over the bass of V is V: IV/5, ii/5 and iv/5 (common practice, no source). */
function fiveBelow(chord: ChordSymbol, kind: Kind, { tonic }: Key): string | null {
  if (!chord.bass || modulo(pitchClass(chord.bass) - pitchClass(tonic), 12) !== 7) return null
  const step = modulo(pitchClass(chord.root) - pitchClass(tonic), 12)
  if (step === 5 && kind === 'major') return 'V9sus'
  if (step === 2 && kind === 'minor') return 'V11'
  if ((step === 5 && kind === 'minor') || (step === 2 && kind === 'half-diminished')) return 'V7susb9'
  return null
}

const same = (a: Place, b: Place) => a.chord.canonical === b.chord.canonical

/** The chords in playing order with their keys and neighbours. */
export function placesOf(sounding: readonly Sounding[], keys: readonly Key[]): Place[] {
  const places = sounding.map(({ slot, chord, kind, sounds }, at): Place => {
    const key = itemAt(keys, at)
    const overFive = fiveBelow(chord, kind, key)
    const root = pitchClass(overFive ? chord.bass! : chord.root)
    return {
      slot,
      chord,
      kind: overFive ? 'dominant' : kind,
      root,
      overFive,
      sounds,
      key,
      rel: modulo(root - pitchClass(key.tonic), 12),
      next: null,
      previous: null,
      wraps: false,
    }
  })
  for (let at = 1; at < places.length; at += 1) {
    const [before, here] = [itemAt(places, at - 1), itemAt(places, at)]
    here.previous = same(before, here) ? before.previous : before
  }
  const top = places[0]
  for (let at = places.length - 1; at >= 0; at -= 1) {
    const [here, after] = [itemAt(places, at), places[at + 1]]
    if (after && !same(here, after)) here.next = after
    else if (after) {
      here.next = after.next
      here.wraps = after.wraps
    } else {
      here.next = top && !same(here, top) ? top : (places.find((other) => !same(here, other)) ?? null)
      here.wraps = here.next !== null
    }
  }
  return places
}

/** The same chord standing on counts once: where a new chord begins. */
export const distinctPlaces = (places: readonly Place[]): Place[] =>
  places.filter((place, at) => at === 0 || !same(place, itemAt(places, at - 1)))
