import type { Chart } from '../chart/chart'
import { parseChord } from '../chord/parseChord'
import { Clock, NEAR } from '../melody/clock'
import { placeKey, SILENT, type HarmonisedNote } from '../melody/melodyLine'
import { midiOf, modulo, parsePitch, pitchName, plainSpelling } from '../pitch/note'
import { must } from '../result'
import { voicingOf } from '../voicing/voicing'
import type { PlayerBody } from '../player/playerLimits'
import type { TuneDocument } from './document'
import { fretsHere } from './sounding'
import { melodyOf } from './applyMelody'
import { melodyLimits } from '../player/melodyLimits'
import type { KeptEvent } from './melodySchema'

/** An event as the tune keeps it. */
export const keepEvent = ({
  note,
  again,
  bar,
  beat,
  beats,
  chord,
  under,
  kind,
  voicing,
}: HarmonisedNote): KeptEvent => ({
  bar,
  beat,
  beats,
  again,
  frets: [...voicing.frets],
  symbol: chord && chord !== SILENT && chord.tones.length > 0 ? chord.canonical : null,
  note: note && pitchName(note.note),
  under,
  kind,
})

/** Fingerings take time: what was read is known as long as nothing of it changes. */
const KNOWN = new WeakMap<readonly KeptEvent[], { from: readonly unknown[]; notes: HarmonisedNote[] }>()

/**
 * The chord melody kept with a tune, as the core has it, on the instrument at hand: grips made for
 * other open strings are moved to the same pitches. Events whose note is another by now, and grips
 * that cannot be had on this instrument, are left out until the search has found others.
 */
export function keptNotes(
  { chordMelody: { kept }, melody }: Pick<TuneDocument, 'chordMelody' | 'melody'>,
  chart: Chart,
  body: PlayerBody,
): HarmonisedNote[] {
  const from = [melody, chart, body]
  const known = KNOWN.get(kept)
  if (known?.from.every((one, at) => one === from[at])) return known.notes
  const notes = readKept(kept, melody, chart, body)
  KNOWN.set(kept, { from, notes })
  return notes
}

function readKept(
  kept: readonly KeptEvent[],
  melody: TuneDocument['melody'],
  chart: Chart,
  body: PlayerBody,
): HarmonisedNote[] {
  const limits = melodyLimits(body, chart.capo, 'any')
  const clock = new Clock(chart)
  const notes = melodyOf({ melody })
  const byPlace = new Map(notes.map((note) => [placeKey(note), note]))
  const sounding = (time: number) =>
    notes.find(
      (note) =>
        clock.at(note) <= time + NEAR && clock.at(note) + clock.lasts(note.bar, note.beats) > time + NEAR,
    )
  return kept.flatMap((one): HarmonisedNote[] => {
    const note = one.note === null ? null : (byPlace.get(placeKey(one)) ?? sounding(clock.at(one)))
    if (note === undefined || (note && pitchName(note.note) !== one.note)) return []
    const symbol = one.symbol === null ? null : parseChord(one.symbol)
    const chord = symbol?.ok ? symbol.value : null
    const named = chord ?? {
      ...SILENT,
      root: plainSpelling(modulo(note ? midiOf(must(parsePitch(one.note!))) : 0, 12)),
    }
    const here = fretsHere(one.frets, one.on, named, { ...limits, frets: [0, limits.frets[1]] })
    const voicing =
      here && voicingOf(here.frets, named, { ...limits, hand: { ...limits.hand, plucked: true } })
    return voicing
      ? [
          {
            note,
            again: one.again,
            bar: one.bar,
            beat: one.beat,
            beats: one.beats,
            chord,
            under: one.under,
            kind: one.kind,
            voicing,
          },
        ]
      : []
  })
}

/**
 * Grips by hand under notes, on the instrument at hand; those that cannot be had on it are left to
 * the search until the player tunes back.
 */
export function fixedHere(
  fixed: TuneDocument['chordMelody']['fixed'],
  capo: number,
  body: PlayerBody,
): [string, { frets: (number | null)[]; symbol: string | null }][] {
  const limits = melodyLimits(body, capo, 'any')
  return Object.entries(fixed).flatMap(([place, { frets, symbol, on }]) => {
    const read = symbol === null ? null : parseChord(symbol)
    const here = fretsHere(frets, on, read?.ok ? read.value : SILENT, {
      ...limits,
      frets: [0, limits.frets[1]],
    })
    return here ? [[place, { frets: [...here.frets], symbol }]] : []
  })
}
