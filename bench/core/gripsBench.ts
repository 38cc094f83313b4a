import { firstOf, itemAt } from '../../core/lists'
import { chord } from '../../core/chord/parseChord'
import type { ChordSymbol } from '../../core/chord/symbol'
import { easiestFingering } from '../../core/neck/fingering'
import { voicingsOf } from '../../core/voicing/enumerate'
import { soundsLike } from '../../core/voicing/fits'
import { DEFAULT_LIMITS } from '../../core/voicing/gripLimits'
import type { Limits } from '../../core/voicing/gripLimits'
import { time, row, ms, TUNE } from './measured'

/** Every combination of frets on every string, each tried against the definition. */
function everyGrip(target: ChordSymbol, limits: Limits): number {
  const { tuning } = limits.instrument
  const choices = [null, ...Array.from({ length: limits.frets[1] + 1 }, (_, fret) => fret)]
  const grip: (number | null)[] = []
  let found = 0
  const place = (string: number, lowest: number, highest: number) => {
    if (string === tuning.length) {
      const sounding = grip.filter((fret) => fret !== null).length
      if (
        sounding >= limits.notes[0] &&
        sounding <= limits.notes[1] &&
        soundsLike(grip, target, limits) &&
        easiestFingering(grip, limits.instrument, limits.hand)
      )
        found += 1
      return
    }
    for (const fret of choices) {
      // Even the plain way may leave out what spans more than six frets.
      const low = fret ? Math.min(lowest, fret) : lowest
      const high = fret ? Math.max(highest, fret) : highest
      if (high - low > 6) continue
      grip.push(fret)
      place(string + 1, low, high)
      grip.pop()
    }
  }
  place(0, Infinity, -Infinity)
  return found
}

/**
 * All grips with their fingering, on the whole neck. The plain filter takes most of a minute a
 * chord, so the tune's chords are sampled for it.
 */
export function gripsBench(): void {
  const limits: Limits = { ...DEFAULT_LIMITS, frets: [0, 17] }
  const target = chord('Cmaj9')
  const ours = time(() => voicingsOf(target, limits).length)
  const plain = time(() => everyGrip(target, limits), 1)
  if (ours.value !== plain.value) throw new Error(`found ${ours.value} grips, the plain way ${plain.value}`)
  row(
    'grips of Cmaj9, frets 0 to 17, plain filter : ours',
    plain.ms / ours.ms,
    'times',
    `${ours.value} grips in ${ms(ours.ms)}`,
  )
  const tune = [...TUNE, ...TUNE]
  const all = time(() => tune.reduce((sum, one) => sum + voicingsOf(one, limits).length, 0), 1)
  const sample = [firstOf(TUNE), itemAt(TUNE, 9)]
  const [some, filtered] = [
    time(() => sample.reduce((sum, one) => sum + voicingsOf(one, limits).length, 0)),
    time(() => sample.reduce((sum, one) => sum + everyGrip(one, limits), 0), 1),
  ]
  if (some.value !== filtered.value)
    throw new Error(`found ${some.value} grips, the plain way ${filtered.value}`)
  row(
    'grips of 48 chords, plain filter : ours (two sampled)',
    filtered.ms / some.ms,
    'times',
    `${all.value} grips of all 48 in ${ms(all.ms)}`,
  )
}
