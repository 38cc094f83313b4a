import type { ChordSymbol } from '../chord/symbol'
import { soundAt, STANDARD_GUITAR, type Frets } from '../neck/instrument'
import {
  movedTo,
  parseStringing,
  sameStringing,
  stringingName,
  type Stringing,
} from '../neck/otherInstrument'
import type { Key } from '../pitch/key'
import { parseChord } from '../chord/parseChord'
import { good } from '../result'
import { calledOf } from '../voicing/called'
import { soundsLike } from '../voicing/fits'
import type { Limits } from '../voicing/gripLimits'
import { limitsFor, type PlayerBody } from '../player/playerLimits'
import type { LineChord } from './decisions'
import type { TuneDocument } from './document'
import type { TuneEdit } from './tuneEdit'

/** The stringing of the player's instrument under a tune's capo, as grips remember it. */
export const stringingOf = (body: PlayerBody, capo: number): string =>
  stringingName(limitsFor(body, capo, 'any').instrument)

/** An edit that puts grips in says for which instrument. */
export function onInstrument(edit: TuneEdit, on: string): TuneEdit {
  switch (edit.kind) {
    case 'fix':
      return edit.frets ? { ...edit, on } : edit
    case 'fix-many':
    case 'extra-beat':
    case 'grips':
      return { ...edit, on }
    case 'melody-fix':
      return {
        ...edit,
        fixed: Object.fromEntries(
          Object.entries(edit.fixed).map(([place, under]) => [place, under && { ...under, on }]),
        ),
      }
    case 'melody-kept':
      return { ...edit, kept: edit.kept.map((one) => ({ ...one, on })) }
    default:
      return edit
  }
}

/**
 * The frets of a grip on the instrument at hand: as made, or moved to the same pitches; null where
 * they cannot be had on it.
 */
export function fretsHere(
  frets: Frets,
  madeOn: string | undefined,
  chord: ChordSymbol,
  limits: Limits,
): { frets: Frets; moved: boolean } | null {
  const { instrument, hand } = limits
  const strings = instrument.tuning.length
  const from = madeOn === undefined ? supposed(frets, chord, limits) : parseStringing(madeOn)
  const read = 'ok' in from ? from : good(from)
  const made: Stringing = read.ok ? read.value : instrument
  if (sameStringing(made, instrument)) return frets.length === strings ? { frets, moved: false } : null
  const moved = movedTo(frets, made, instrument, hand, limits.frets[1])
  return moved && { frets: moved, moved: true }
}

/**
 * A grip kept before instruments were written down is taken for the one on which it is its chord:
 * this one, else a guitar in standard tuning.
 */
function supposed(frets: Frets, chord: ChordSymbol, { instrument, ...limits }: Limits): Stringing {
  const fits = (one: Stringing) =>
    frets.length === one.tuning.length &&
    soundsLike(frets, chord, { ...limits, bass: 'any', instrument: { ...instrument, ...one } })
  const standard = { tuning: STANDARD_GUITAR.tuning, capo: instrument.capo }
  return !fits(instrument) && fits(standard) ? standard : instrument
}

type MadeGrips = Pick<TuneDocument, 'fixed'> & Partial<Pick<TuneDocument, 'gripsOn' | 'called'>>

/** The new line with its chords named by what grips by hand sound, on the instrument at hand. */
export function namedBySound(
  line: readonly LineChord[],
  made: MadeGrips,
  capo: number,
  songKey: Key,
  body: PlayerBody,
): LineChord[] {
  if (Object.keys(made.fixed).length === 0) return [...line]
  const limits = limitsFor(body, capo, 'any')
  return line.map((one) => {
    const frets = made.fixed[one.key]
    const meant = one.slot.symbol?.kind === 'chord' && one.decision ? one.slot.symbol.chord : null
    if (!frets || !meant) return one
    const madeOn = made.gripsOn?.[one.key]
    const here = fretsHere(frets, madeOn, meant, limits)
    if (!here) return { ...one, fixed: false, elsewhere: madeOn ?? stringingName(STANDARD_GUITAR) }
    const midis = here.frets.flatMap((fret, string) =>
      fret === null ? [] : [soundAt(limits.instrument, string, fret)],
    )
    const { sounds, foreign, missing } =
      midis.length > 0 ? calledOf(midis, meant, songKey) : { sounds: meant, foreign: [], missing: [] }
    if (sounds === meant) return one
    const kept = made.called?.[one.key]
    const own = kept === undefined ? null : parseChord(kept)
    const shown = own?.ok ? own.value : (sounds ?? meant)
    return {
      ...one,
      slot: { ...one.slot, text: shown.canonical, symbol: { kind: 'chord', chord: shown } },
      sounding: { meant, named: sounds, foreign, missing, byPlayer: own?.ok ?? false },
    }
  })
}
