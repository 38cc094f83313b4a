import type { ChordSymbol, Need } from '../chord/symbol'
import { pitchClass } from '../pitch/note'
import type { Limits } from './gripLimits'

/**
 * Which sounds a grip of a chord may, must and must not contain, as sets of pitch classes in 12-bit
 * masks.
 */
export interface Requirement {
  /** Sounds allowed anywhere. */
  allowed: number
  /** Sounds that must all be there. */
  required: number
  /** Of each of these sets at least one sound must be there. */
  oneOf: readonly number[]
  /** Sounds the lowest note may have. */
  bass: number
}

const bit = (pc: number) => 1 << pc
const ALL_SOUNDS = 0xfff

/**
 * Tones from which on a chord over its fifth may leave its root out: the fingers hold the ninth
 * chord while the bass alternates.
 */
const NINTH = 5
const standsOnItsFifth = ({ root, bass, tones }: ChordSymbol): boolean =>
  bass !== null && tones.length >= NINTH && (pitchClass(bass) - pitchClass(root) + 12) % 12 === 7

/**
 * What the symbol and the bass rule ask of a grip. The third, the seventh and every named tone
 * stay; the natural fifth and what a higher tension only implies may go; the root goes when a bass
 * plays it (common practice).
 */
export function requirementOf(chord: ChordSymbol, limits: Pick<Limits, 'bass' | 'omit'>): Requirement {
  const bitsOf = (...needs: Need[]) =>
    chord.tones
      .filter((tone) => needs.includes(tone.need) && !limits.omit.includes(tone.degree))
      .reduce((bits, tone) => bits | bit(pitchClass(tone.note)), 0)
  const all = chord.tones.reduce((bits, tone) => bits | bit(pitchClass(tone.note)), 0)
  const root = chord.tones.some((tone) => tone.degree === '1') ? bit(pitchClass(chord.root)) : 0
  const shared = {
    required: bitsOf('named'),
    oneOf: [bitsOf('one-ninth'), bitsOf('one-fifth')].filter((set) => set !== 0),
  }

  switch (limits.bass) {
    case 'chord': {
      const bass = bit(pitchClass(chord.bass ?? chord.root))
      const rootless = limits.omit.includes('1') || standsOnItsFifth(chord) ? 0 : root
      return { ...shared, allowed: all | bass, required: shared.required | rootless | bass, bass }
    }
    case 'root': {
      const bass = bit(pitchClass(chord.root))
      return { ...shared, allowed: all | bass, required: shared.required | bass, bass }
    }
    case 'any':
      return { ...shared, allowed: all, bass: all }
    case 'none':
      return { ...shared, allowed: all & ~root, required: shared.required & ~root, bass: ALL_SOUNDS }
  }
}
