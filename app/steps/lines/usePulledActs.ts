import { constrained } from '../../../core/leading/constraints'
import type { OnTheWay } from '../../../core/leading/onTheWay'
import { slotKey } from '../../../core/chart/chart'
import type { ChordSymbol } from '../../../core/chord/symbol'
import { soundAt } from '../../../core/neck/instrument'
import { leastMotion } from '../../../core/pitch/motion'
import type { Voicing } from '../../../core/voicing/voicing'
import { limitsFor, type PlayerBody } from '../../../core/player/playerLimits'
import type { LineChord } from '../../../core/tune/decisions'
import type { Bass } from '../../../core/tune/document'
import { madeChord } from '../../../core/tune/tuneReading'
import type { NotePulling } from './usePulling'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

interface PulledOf {
  pulling: NotePulling
  voicings: ReadonlyMap<string, Voicing>
  line: readonly LineChord[]
  next: LineChord | undefined
  bass: Bass
  capo: number
  body: PlayerBody
  onEdit: (edit: TuneEdit) => void
}

/** What the player decides of a pulled note, and of a beat between two chords. */
export function usePulledActs({ pulling, voicings, line, next, bass, capo, body, onEdit }: PulledOf) {
  const { shown } = pulling

  /** The grip is kept; the rest of the line stays as it is, or is led anew around it. */
  const keep = (rest: 'leads' | 'stays') => {
    if (!shown?.voicing) return
    onEdit({
      kind: 'fix-many',
      grips: { [shown.chord.key]: shown.frets },
      ...(rest === 'leads' ? { anew: true } : {}),
      did: `note pulled in bar ${shown.chord.slot.bar}`,
    })
    pulling.letGo()
  }

  /** The chord takes the name that the pulled note made. */
  const name = (chord: ChordSymbol) => {
    if (!shown?.chord.decision) return
    onEdit({
      kind: 'extra-beat',
      slot: shown.chord.decision.key,
      grips: { [shown.chord.key]: shown.frets },
      did: `${chord.canonical} by a pulled note in bar ${shown.chord.slot.bar}`,
      choice: {
        chords: [{ symbol: chord.canonical, beats: shown.chord.slot.beats }],
        span: 1,
        rule: 'pulled',
        at: Date.now(),
      },
    })
    pulling.letGo()
  }

  /**
   * The pulled note goes on sounding in the next chord: the nearest grip of it that has the pitch.
   */
  const carry = () => {
    const sound = shown && soundAt(limitsFor(body, capo, 'any').instrument, shown.string, shown.fret)
    if (!shown?.voicing || !next || sound === null) return
    const [nearest] = constrained(madeChord(next)!, limitsFor(body, capo, bass), [
      { kind: 'sounds', midi: sound, from: 0, to: 0 },
    ]).sort(
      (a, b) =>
        leastMotion(shown.midis, a.midis) +
        a.fingering.difficulty -
        leastMotion(shown.midis, b.midis) -
        b.fingering.difficulty,
    )
    onEdit({
      kind: 'fix-many',
      grips: { [shown.chord.key]: shown.frets, ...(nearest ? { [next.key]: [...nearest.frets] } : {}) },
      did: `note carried from bar ${shown.chord.slot.bar}`,
    })
    pulling.letGo()
  }

  /** A beat between a chord and the next gets a grip of its own; both neighbours keep theirs. */
  const stopOnTheWay = (from: LineChord, stop: OnTheWay) => {
    const host = stop.takes === 'end of first' ? from : next
    if (!host?.decision || !next || !hasRoom(host, line)) return
    const { decision } = host
    const { slot } = host
    const own = { symbol: madeChord(host)!.canonical, beats: slot.beats - EXTRA_BEAT }
    const extra = { symbol: stop.chord.canonical, beats: EXTRA_BEAT }
    const first = stop.takes === 'beginning of second'
    const at = putIndex(host, line)
    const chords = decision.puts.flatMap(({ chord, beats }, index) => {
      if (index !== at) return [{ symbol: chord.canonical, beats }]
      if (first) return [extra, own]
      return [own, extra]
    })
    const gripOf = (chord: LineChord) => voicings.get(chord.key)?.frets
    const kept = Object.fromEntries(
      [from, next, ...line.filter((one) => one.fixed && one.decision === decision)].flatMap((chord) => {
        const frets = gripOf(chord)
        return frets ? [[chord.key, [...frets]]] : []
      }),
    )
    const extraKey = slotKey({ bar: slot.bar, beat: first ? slot.beat : slot.beat + slot.beats - EXTRA_BEAT })
    const moved = first ? { [slotKey({ bar: slot.bar, beat: slot.beat + EXTRA_BEAT })]: kept[host.key]! } : {}
    onEdit({
      kind: 'extra-beat',
      slot: decision.key,
      did: `${stop.kind} in bar ${slot.bar}`,
      grips: { ...kept, ...moved, [extraKey]: [...stop.voicing.frets] },
      choice: { chords, span: decision.span, rule: stop.kind, at: Date.now() },
    })
  }
  return { keep, name, carry, stopOnTheWay }
}

/** How long an extra grip stands, in beats. */
const EXTRA_BEAT = 1

/**
 * A chord gives a beat away when it has two, and is not part of one that sounds over a bar line.
 */
export const hasRoom = (chord: LineChord, line: readonly LineChord[]): boolean =>
  chord.decision !== null &&
  !chord.slot.held &&
  !line[chord.index + 1]?.slot.held &&
  chord.slot.beats >= 2 * EXTRA_BEAT &&
  chord.decision.puts.length === line.filter((one) => one.decision === chord.decision).length

/** Its place among the chords of its decision. */
const putIndex = (chord: LineChord, line: readonly LineChord[]): number =>
  line.filter((one) => one.decision === chord.decision).indexOf(chord)
export type PulledActs = ReturnType<typeof usePulledActs>
