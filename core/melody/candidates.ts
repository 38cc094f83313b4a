import { firstOf, lastOf, theOne } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { constrained, withTone } from '../leading/constraints'
import { handPlace, handTravelMm, type HandPlace } from '../leading/measures'
import { easiestFingering } from '../neck/fingering'
import { fretFor, reachMm, soundAt, type Frets, type Instrument } from '../neck/instrument'
import type { Degree } from '../pitch/degree'
import { modulo, pitchClass, plainSpelling } from '../pitch/note'
import { voicingsOf } from '../voicing/enumerate'
import type { Limits } from '../voicing/gripLimits'
import { isPlayedByPlayers } from '../voicing/gripIdiom'
import { namesOf } from '../voicing/possibleNames'
import { soundingOf, ToneNames, voicingOf, type Voicing } from '../voicing/voicing'
import { NEAR } from './clock'
import { happeningHead, type CandidateGroup, type Happening } from './happenings'
import { placeKey, SILENT, type FixedUnder, type HarmonisedNote } from './melodyLine'
import { MELODY_TEXTURES, twoVoicePrice, type MelodyTexture } from './melodyTextures'
import { chordsUnder } from './underNote'

/** What things cost beside the line's own cost, in its units (common practice, no source). */
// prettier-ignore
const PRICE = {
  /**
   * A melody note that moves over a held grip, one for which a finger of it has to be lifted, one
   * between chords that stands alone, and one that should have had a chord.
   */
  held: 0.4, lifted: 0.8, between: 1.2, single: 6,
  'own chord': 0, tension: 0.3, 'avoid note': 2, 'half step approach': 0.8, 'passing diminished': 0.9, 'sixth-diminished step': 0.6, 'secondary dominant': 1, planing: 0.8, another: 1,
  /** A grip outside the texture asked for. */
  otherTexture: 3,
  /**
   * The melody note again below itself; a major seventh under its root on top; a grip that is no
   * form players know.
   */
  doubled: 1.5, overSeventh: 2.5, unplayed: 1.5,
  /** Fewer than four sounds of a chord that has them; a triad that rings in open position. */
  thin: 1.5, ringing: -1,
} as const
/** Colours that a chord is still itself without. */
const COLOURS: readonly Degree[] = ['9', '11', '13', '6', '#11']
/** Kinds under which the chord of the place itself sounds. */
const OF_THE_CHORD: readonly HarmonisedNote['kind'][] = ['own chord', 'tension', 'avoid note']
/** There is time for a bass note in so many seconds (common practice, no source). */
const TIME_FOR_BASS_S = 0.4
/**
 * A finger is lifted from a held grip in no less than so many seconds, and another one moves over
 * it in so many.
 */
const TIME_TO_LIFT_S = 0.3
const TIME_TO_MOVE_S = 0.1
/**
 * Grips of the next note that are tried as planing shapes, and how far they are moved, in
 * semitones.
 */
const PLANED = 10
const PLANED_BY = 4
/**
 * Price of a millimetre of the hand's way to a note between chords: that of the smooth style, for
 * there is little time.
 */
const WAY = 0.03
export interface Candidate {
  voicing: Voicing
  chord: ChordSymbol | null
  kind: HarmonisedNote['kind']
  /** Made when it is chosen. */ rest: (() => HarmonisedNote)[]
  extra: number
}

/** Candidates of groups, those that come again found once. */
export class CandidateBook {
  private readonly known = new Map<string, Voicing[]>()
  private readonly holds = new WeakMap<Voicing, Map<number, HeldGrip | null>>()
  private readonly places = new Map<number, { frets: Frets; hand: HandPlace }[]>()
  private readonly bassless: Limits

  constructor(
    private readonly within: Limits,
    private readonly plain: Limits,
    private readonly texture: MelodyTexture,
    private readonly coloursOf: (chord: ChordSymbol) => readonly ChordSymbol[] = () => [],
  ) {
    this.bassless = {
      ...within,
      bass: within.bass === 'none' ? 'none' : 'any',
      notes: [Math.min(within.notes[0], 3), Math.min(within.notes[1], 4)],
    }
  }

  /** @param withAlone the note by itself is a candidate too, where it has a chord as well */
  of(
    { anchor, rest, seconds, next, heardToo }: CandidateGroup,
    fixed: ReadonlyMap<string, FixedUnder>,
    withAlone = false,
  ): Candidate[] {
    const { chord, midi } = anchor
    const byHand = fixed.get(placeKey(anchor.place))
    let first: Omit<Candidate, 'rest'>[]
    if (byHand) first = this.byHand(byHand, anchor)
    else if (!chord) first = midi === null ? [] : this.alone(midi, null)
    else if (midi === null)
      first = this.grips(chord, null, seconds).map((voicing) => ({
        voicing,
        chord,
        kind: 'chord in a rest',
        extra: 0,
      }))
    else {
      first = chordsUnder(
        midi % 12,
        chord,
        next?.chord ?? null,
        next?.midi === null || next === null ? null : next.midi! - midi,
      )
        .filter(({ kind }) => heardToo || withAlone || OF_THE_CHORD.includes(kind))
        .flatMap(({ chord: one, kind }) =>
          this.inTexture(one, chord, midi, seconds).map(({ voicing, as }) => ({
            voicing,
            chord: as,
            kind,
            extra: PRICE[kind] + this.texturePrice(voicing) + this.underPrice(voicing, as),
          })),
        )
      if (next?.anchor && (heardToo || withAlone)) first.push(...this.planed(anchor, next))
      if (first.length === 0 || withAlone) first.push(...this.alone(midi, chord))
    }
    return first.flatMap((one) => {
      const after = this.after(one, rest, fixed, seconds / Math.max(NEAR, anchor.to - anchor.from))
      return after ? [after] : []
    })
  }

  /** Whether a note can be had anywhere on the neck within the limits. */
  has(midi: number): boolean {
    return aloneOn(midi, null, this.plain).length > 0
  }

  /** Grips of another chord with the note on top. */
  another({ anchor: { midi }, seconds }: CandidateGroup, chord: ChordSymbol): Candidate[] {
    return midi === null
      ? []
      : this.grips(withTone(chord, midi % 12), midi, seconds).map((voicing) => ({
          voicing,
          chord,
          kind: 'another chord',
          extra: PRICE.another,
          rest: [],
        }))
  }

  private byHand(
    { frets, chord }: FixedUnder,
    { chord: stands, midi }: Happening,
  ): Omit<Candidate, 'rest'>[] {
    const voicing = voicingOf(frets, chord ?? stands ?? named(midi ?? 0), this.plain)
    return voicing ? [{ voicing, chord: chord ?? stands, kind: 'by hand', extra: 0 }] : []
  }

  /** Grips with the note on top: those of the texture, or where it has none any other. */
  private grips(chord: ChordSymbol, top: number | null, seconds: number): Voicing[] {
    const key = `${chord.canonical} ${chord.tones.length} ${top} ${seconds < TIME_FOR_BASS_S}`
    const known = this.known.get(key)
    if (known) return known
    const ofLimits = (limits: Limits) =>
      top === null
        ? voicingsOf(chord, limits)
        : constrained(chord, limits, [{ from: 0, to: 0, kind: 'top', midi: top }])
    let found = seconds < TIME_FOR_BASS_S ? [] : ofLimits(this.within)
    if (found.length === 0) found = ofLimits(this.bassless)
    // Where no form that players know has all the colours and the note on top, some of the colours
    // go.
    if (
      top !== null &&
      this.texture === 'full' &&
      !found.some((voicing) => isPlayedByPlayers(voicing, chord, this.plain.instrument))
    ) {
      const seen = new Set(found.map(({ frets }) => frets.join()))
      const freer = (limits: Limits): Limits => ({ ...limits, omit: [...limits.omit, ...COLOURS] })
      const more = seconds < TIME_FOR_BASS_S ? [] : ofLimits(freer(this.within))
      const known = (more.length > 0 ? more : ofLimits(freer(this.bassless))).filter(
        (voicing) =>
          !seen.has(voicing.frets.join()) && isPlayedByPlayers(voicing, chord, this.plain.instrument),
      )
      found = [...found, ...known]
    }
    if (found.length === 0 && this.texture !== 'full') found = ofLimits({ ...this.plain, bass: 'any' })
    this.known.set(key, found)
    return found
  }

  /**
   * Grips of a chord; where it has none in the layout asked for but would with a free tension of
   * its role, those.
   */
  private inTexture(
    chord: ChordSymbol,
    stands: ChordSymbol,
    top: number,
    seconds: number,
  ): { voicing: Voicing; as: ChordSymbol }[] {
    const plain = this.grips(chord, top, seconds).map((voicing) => ({ voicing, as: chord }))
    const { families } = MELODY_TEXTURES[this.texture]
    const belongs = ({ voicing }: { voicing: Voicing }) =>
      families!.some((family) => voicing.families.includes(family))
    if (!families || plain.some(belongs)) return plain
    const coloured = this.coloursOf(stands)
      .flatMap((as) => this.grips(withTone(as, top % 12), top, seconds).map((voicing) => ({ voicing, as })))
      .filter(belongs)
    return coloured.length > 0 ? coloured : plain
  }

  private texturePrice(voicing: Voicing): number {
    if (this.texture === 'two voices') return twoVoicePrice(voicing)
    const { families } = MELODY_TEXTURES[this.texture]
    return families && !families.some((family) => voicing.families.includes(family)) ? PRICE.otherTexture : 0
  }

  /** What speaks against a full grip under a melody, by what stands below the note. */
  private underPrice(voicing: Voicing, chord: ChordSymbol): number {
    if (this.texture !== 'full' && this.texture !== 'drop 2') return 0
    const top = lastOf(voicing.midis)
    const below = voicing.midis.slice(0, -1)
    const [doubled, overSeventh] = [
      below.some((midi) => midi % 12 === top % 12),
      top % 12 === pitchClass(chord.root) && below.some((midi) => (midi + 1 - top) % 12 === 0),
    ]
    return (
      (doubled ? PRICE.doubled : 0) +
      (overSeventh ? PRICE.overSeventh : 0) +
      (isPlayedByPlayers(voicing, chord, this.plain.instrument) ? 0 : PRICE.unplayed) +
      (isThin(voicing, chord) ? PRICE.thin : 0) +
      (chord.tones.length <= 3 && ringsInOpenPosition(voicing, this.plain.instrument) ? PRICE.ringing : 0)
    )
  }

  /** A note by itself, on each string that has it, the easiest first. */
  private alone(midi: number, chord: ChordSymbol | null): Omit<Candidate, 'rest'>[] {
    return aloneOn(midi, chord, this.plain).map((voicing) => ({
      voicing,
      chord,
      kind: 'single note',
      extra: chord ? PRICE.single : 0,
    }))
  }

  /** The shapes of the next chord, moved as the melody moves (common practice). */
  private planed(anchor: Happening, next: Happening): Omit<Candidate, 'rest'>[] {
    if (
      !next.chord ||
      next.midi === null ||
      !anchor.chord ||
      anchor.chord.tones.some(({ note }) => pitchClass(note) === anchor.midi! % 12)
    )
      return []
    const by = anchor.midi! - next.midi
    if (by === 0 || Math.abs(by) > PLANED_BY) return []
    const shapes = this.grips(withTone(next.chord, next.midi % 12), next.midi, Infinity)
      .filter(({ frets }) => !frets.includes(0))
      .sort((a, b) => a.fingering.difficulty - b.fingering.difficulty)
      .slice(0, PLANED)
    return shapes.flatMap(({ frets, midis }): Omit<Candidate, 'rest'>[] => {
      const moved = frets.map((fret) => (fret === null ? null : fret + by))
      if (
        moved.some(
          (fret) =>
            fret !== null &&
            (fret <= this.plain.instrument.capo || fret > this.plain.frets[1] || fret < this.plain.frets[0]),
        )
      )
        return []
      const name = namesOf(midis.map((midi) => midi + by))[0]
      const voicing = name && voicingOf(moved, name.chord, this.plain)
      return voicing
        ? [{ voicing, chord: name.chord, kind: 'planing', extra: PRICE.planing + this.texturePrice(voicing) }]
        : []
    })
  }

  /**
   * The way of the hand to a note by itself and back, in the line's own units, on the string where
   * it is shortest.
   */
  private nearest(midi: number, from: HandPlace): { frets: Frets; way: number } | null {
    const known =
      this.places.get(midi) ??
      aloneOn(midi, null, this.plain).map(({ frets, fingering }) => ({
        frets,
        hand: handPlace({ fingering }, this.plain.instrument),
      }))
    this.places.set(midi, known)
    let best: { frets: Frets; way: number } | null = null
    for (const { frets, hand } of known) {
      const way = 2 * WAY * handTravelMm(from, hand)
      if (!best || way < best.way) best = { frets, way }
    }
    return best
  }

  private held(voicing: Voicing, midi: number): HeldGrip | null {
    const known = this.holds.get(voicing) ?? new Map<number, HeldGrip | null>()
    this.holds.set(voicing, known)
    const found = known.get(midi)
    if (found !== undefined) return found
    const held = voicing.midis.length < 2 ? null : heldUnder(voicing, midi, this.plain)
    known.set(midi, held)
    return held
  }

  /**
   * What the notes that follow become over a grip; null where one of them cannot be played at all.
   * Most candidates are left: their notes are only priced here, and made when they are chosen.
   */
  private after(
    { voicing, extra, ...first }: Omit<Candidate, 'rest'>,
    notes: readonly Happening[],
    fixed: ReadonlyMap<string, FixedUnder>,
    beatSeconds: number,
  ): Candidate | null {
    let price = extra
    const rest: Candidate['rest'] = []
    const hand = notes.length > 0 ? handPlace(voicing, this.plain.instrument) : null
    for (const one of notes) {
      const byHand = fixed.get(placeKey(one.place))
      const chosen = byHand && this.byHand(byHand, one)[0]?.voicing
      const time = (one.to - one.from) * beatSeconds
      const kept = byHand || time < TIME_TO_MOVE_S ? null : this.held(voicing, one.midi!)
      const held = kept && (kept.whole || time >= TIME_TO_LIFT_S) ? kept : null
      const alone = byHand || held ? null : this.nearest(one.midi!, hand!)
      if (!chosen && !held && !alone) return null
      if (held) price += held.whole ? PRICE.held : PRICE.lifted
      else if (alone) price += PRICE.between + alone.way
      const kind = held ? 'held grip' : 'note between'
      rest.push(() => {
        const under = chosen ?? voicingOf((held ?? alone)!.frets, one.chord ?? named(one.midi!), this.plain)!
        return {
          ...happeningHead(one),
          chord: one.chord,
          under: under.midis.length === 1 ? 'single' : 'held',
          kind: byHand ? 'by hand' : kind,
          voicing: under,
        }
      })
    }
    return { ...first, voicing, rest, extra: price }
  }
}

/** Whether a chord of four tones and more sounds like less. */
const isThin = ({ midis }: Voicing, { tones }: ChordSymbol): boolean =>
  new Set(midis.map((midi) => midi % 12)).size < Math.min(4, tones.length)

/** Up to this fret a hand is in open position. */
const OPEN_POSITION = 4
const ringsInOpenPosition = ({ frets }: Voicing, { capo }: Instrument): boolean =>
  frets.includes(0) && frets.every((fret) => fret === null || fret === 0 || fret - capo <= OPEN_POSITION)

/** A grip with another note on top. */
interface HeldGrip {
  frets: Frets
  /** No finger had to be lifted. */ whole: boolean
}

/**
 * A grip kept down while its highest voice goes to another note, on its own string or a higher one;
 * where the hand cannot, with one of its fingers lifted; null where it cannot at all.
 */
function heldUnder(voicing: Voicing, midi: number, limits: Limits): HeldGrip | null {
  const lower = voicing.strings.filter((one) => one.midi !== voicing.midis.at(-1)).map(({ string }) => string)
  for (const lifted of [null, ...(lower.length > 1 ? lower : [])]) {
    const frets = heldWithout(voicing, lifted, midi, limits)
    if (frets) return { frets, whole: lifted === null }
  }
  return null
}

function heldWithout(voicing: Voicing, lifted: number | null, midi: number, limits: Limits): Frets | null {
  const { instrument, hand } = limits
  const topString = theOne(voicing.strings, (one) => one.midi === voicing.midis.at(-1)).string
  if (voicing.strings.some((one) => one.string !== topString && one.string !== lifted && one.midi >= midi))
    return null
  for (let string = topString; string < instrument.tuning.length; string += 1) {
    const fret = fretWithin(midi, string, limits)
    if (fret === null) continue
    const frets = voicing.frets.map((now, at) => {
      if (at === string) return fret
      if (at === topString || at === lifted) return null
      return now
    })
    if (frets.some((one, at) => one !== null && soundAt(instrument, at, one) > midi)) continue
    const held = frets.filter((one): one is number => one !== null && one > 0)
    // Further apart than the whole hand reaches: no need to look for fingers.
    if (
      held.length > 1 &&
      reachMm(Math.min(...held), Math.max(...held), instrument.scaleLengthMm) > hand.reachMm
    )
      continue
    if (easiestFingering(frets, instrument, hand)) return frets
  }
  return null
}

function aloneOn(midi: number, chord: ChordSymbol | null, limits: Limits): Voicing[] {
  const { instrument, hand } = limits
  return instrument.tuning
    .flatMap((_, string): Voicing[] => {
      const fret = fretWithin(midi, string, limits)
      if (fret === null) return []
      const frets = instrument.tuning.map((__, at) => (at === string ? fret : null))
      const fingering = easiestFingering(frets, instrument, hand)
      return fingering
        ? [{ frets, fingering, ...soundingOf(frets, new ToneNames(chord ?? named(midi)), instrument) }]
        : []
    })
    .sort(
      (a, b) =>
        a.fingering.difficulty - b.fingering.difficulty ||
        firstOf(b.strings).string - firstOf(a.strings).string,
    )
}

/** A chord of one note, so that a note where nobody plays has a name. */
const named = (midi: number): ChordSymbol => ({ ...SILENT, root: plainSpelling(modulo(midi, 12)) })

function fretWithin(
  midi: number,
  string: number,
  { instrument, frets, strings, open }: Limits,
): number | null {
  if (strings && !strings.includes(string)) return null
  const fret = fretFor(instrument, string, midi)
  if (fret === null || fret === 0) return open ? fret : null
  return fret >= frets[0] && fret <= frets[1] ? fret : null
}
