import { midi } from '../pitch/note'
import { DEFAULT_LIMITS, tuneLimits, type BassRule, type Limits } from '../voicing/gripLimits'
import type { PlayerSettings } from './playerSettings'

/** The player's instrument and hand, in the form in which they go to the search. */
export type PlayerBody = Pick<PlayerSettings, 'instrument' | 'hand'>

/** What the grips of a tune keep to, for this player. */
export const limitsFor = ({ instrument, hand }: PlayerBody, capo: number, bass: BassRule): Limits =>
  tuneLimits(
    capo,
    bass,
    { tuning: instrument.tuning.map(midi), scaleLengthMm: instrument.scaleLengthMm },
    hand,
    instrument.cutaway,
  )

/**
 * What grips in general keep to, for this player: any number of notes, any chord tone lowest, all
 * over the neck.
 */
export const wholeNeck = ({ instrument, hand }: PlayerBody): Limits => ({
  ...DEFAULT_LIMITS,
  bass: 'any',
  notes: [2, instrument.tuning.length],
  hand,
  frets: [0, instrument.cutaway],
  instrument: { tuning: instrument.tuning.map(midi), scaleLengthMm: instrument.scaleLengthMm, capo: 0 },
})
