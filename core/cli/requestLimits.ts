import { bad, good, type Result } from '../result'
import { DEFAULT_LIMITS, type Limits } from '../voicing/gripLimits'
import type { LimitsInput } from './requestFields'

/** Frets that a melody on top may go up to. */
export const MELODY_FRETS = 17

/** The limits of a request over the defaults. */
export function limitsFrom(input: LimitsInput = {}): Result<Limits> {
  const d = DEFAULT_LIMITS
  const tuning = input.tuning ?? d.instrument.tuning
  const beyond = input.strings?.find((string) => string > tuning.length)
  if (beyond !== undefined)
    return bad({
      code: 'bad-limits',
      message: `There is no string ${beyond} on ${tuning.length} strings.`,
      accepted: `1 to ${tuning.length}`,
      text: 'limits.strings',
    })
  const capo = input.capo ?? d.instrument.capo
  const frets = input.frets ?? (capo > d.frets[0] ? ([0, Math.max(d.frets[1], capo + 12)] as const) : d.frets)
  return good({
    instrument: { tuning, capo, scaleLengthMm: input.scaleLength ?? d.instrument.scaleLengthMm },
    hand: {
      reachMm: input.reach ?? d.hand.reachMm,
      thumb: input.thumb ?? d.hand.thumb,
      barre: input.barre ?? d.hand.barre,
      innerMutes: input.innerMutes ?? d.hand.innerMutes,
      missing: d.hand.missing,
      weak: d.hand.weak,
    },
    frets,
    strings: input.strings?.map((string) => tuning.length - string) ?? null,
    notes: input.notes ?? d.notes,
    range: input.range ?? null,
    // A range of frets that leaves out 0 leaves out open strings, unless they are asked for.
    open: input.open ?? frets[0] === 0,
    bass: input.bass ?? d.bass,
    omit: input.omit ?? [],
    families: input.families ?? null,
    top: input.top ?? null,
    ...(input.openAtLeast ? { openAtLeast: input.openAtLeast } : {}),
  })
}
