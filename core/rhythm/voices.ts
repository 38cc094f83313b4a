import type { Voicing } from '../voicing/voicing'
import type { Part, RightHand } from './figures'
import type { LaidHit } from './hit'

/** What one hit sounds of a grip: indexes into its sounding notes, lowest pitch first. */
export interface HitVoices {
  voices: readonly number[]
  /** Where the grip has not what the figure asks for: what is played instead. */
  gaveWay: string | null
}

/** Degrees an alternating thumb goes to beside the lowest note, the best first. Common practice. */
const SECOND_BASS = ['5', 'b5', '#5', '1', '3', 'b3', '6', 'b7', '7']
/**
 * Strings a thumb plays, counted from the lowest: on six strings the three lowest and the fourth in
 * need.
 */
const THUMB_STRINGS = 4

/**
 * What each hit of a figure sounds of its grip. Voices played in turn (`inner`, `single`) go on
 * from hit to hit and begin again with each chord: inner ones upwards, single ones up and down
 * again.
 * @param gripOf the grip of a hit's chord; null where it has none, and then nothing sounds
 */
export function voicesOf(
  hits: readonly LaidHit[],
  gripOf: (hit: LaidHit) => Pick<Voicing, 'midis' | 'strings'> | null,
): HitVoices[] {
  let chord: LaidHit['slot'] | null = null
  let turns = { inner: 0, single: 0 }
  return hits.map((hit) => {
    const grip = gripOf(hit)
    if (chord !== hit.slot) {
      chord = hit.slot
      turns = { inner: 0, single: 0 }
    }
    if (!grip) return { voices: [], gaveWay: null }
    const count = grip.midis.length
    const all = Array.from({ length: count }, (_, at) => at)
    switch (hit.part) {
      case 'all':
        return { voices: all, gaveWay: null }
      case 'bass':
        return { voices: [0], gaveWay: null }
      case 'top':
        return { voices: [count - 1], gaveWay: null }
      case 'upper':
        return count > 1
          ? { voices: all.slice(1), gaveWay: null }
          : { voices: all, gaveWay: 'the grip has one voice only' }
      case 'fifth': {
        const second = secondBass(grip)
        return second === null
          ? {
              voices: [0],
              gaveWay: 'the thumb stays on the lowest note: no other chord tone lies on a low string',
            }
          : { voices: [second], gaveWay: null }
      }
      case 'inner': {
        if (count < 3) return { voices: [0], gaveWay: 'the grip has no inner voice' }
        const inner = 1 + (turns.inner % (count - 2))
        turns.inner += 1
        return { voices: [inner], gaveWay: null }
      }
      case 'single': {
        // Up to the top and down again, neither end twice.
        const round = Math.max(1, 2 * (count - 1))
        const at = turns.single % round
        turns.single += 1
        return { voices: [at < count ? at : round - at], gaveWay: null }
      }
    }
  })
}

/**
 * The other low note of a grip for the thumb: on a low string, not the lowest note, the fifth
 * before others.
 */
function secondBass({ midis, strings }: Pick<Voicing, 'midis' | 'strings'>): number | null {
  const low = strings.filter(({ string, midi }) => string < THUMB_STRINGS && midi !== midis[0])
  const rank = (degree: string) => {
    const at = SECOND_BASS.indexOf(degree)
    return at < 0 ? SECOND_BASS.length : at
  }
  const best = low.sort((a, b) => rank(a.degree) - rank(b.degree) || a.midi - b.midi)[0]
  // The highest voice is not the thumb's: it would be the same as the chord's top.
  if (!best || best.midi === midis.at(-1)) return null
  return midis.indexOf(best.midi)
}

const LOW_PARTS: readonly Part[] = ['bass', 'fifth']
/**
 * What a right hand asks of a grip for a figure: a low string for the thumb, neighbouring strings
 * for a pick that sweeps without the left hand's mutes.
 */
export interface GripNeeds {
  thumb: boolean
  neighbours: boolean
}
export const needsOf = ({
  hits,
  hand,
}: {
  hits: readonly { part: Part }[]
  hand?: RightHand
}): GripNeeds => ({
  thumb: hits.some(({ part }) => LOW_PARTS.includes(part)),
  neighbours: hand === 'pick',
})

/** Whether a grip gives what is asked, and if not why, in words. */
export function lacks(
  { frets, strings }: Pick<Voicing, 'frets' | 'strings'>,
  needs: GripNeeds,
): string | null {
  if (needs.thumb && (strings[0]?.string ?? 0) >= THUMB_STRINGS - 1)
    return 'its lowest note is too high up for the thumb'
  const first = frets.findIndex((fret) => fret !== null)
  const last = frets.findLastIndex((fret) => fret !== null)
  if (needs.neighbours && frets.slice(first, last + 1).includes(null))
    return 'a string inside it has to be muted for the pick'
  return null
}
