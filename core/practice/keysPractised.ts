import { itemAt } from '../lists'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { keyAbove, transposeText } from '../chart/transpose'
import { keyName, type Key } from '../pitch/key'
import { modulo } from '../pitch/note'
import { scattered } from '../rhythm/scattered'

/** Ways through the twelve keys, each with its step in semitones up. */
export const KEY_ORDERS = ['fourths', 'half steps', 'whole steps', 'thirds', 'random'] as const
export type KeyOrder = (typeof KEY_ORDERS)[number]

/**
 * The step of each way, and after how many of them it would be home too early and moves up by a
 * half step first.
 */
const STEPS: Readonly<Record<Exclude<KeyOrder, 'random'>, { step: number; round: number }>> = {
  fourths: { step: 5, round: 12 },
  'half steps': { step: 1, round: 12 },
  'whole steps': { step: 2, round: 6 },
  thirds: { step: 4, round: 3 },
}

/** All twelve keys as semitones above the first, in order: each once, home first. */
export function keySteps(order: KeyOrder, seed = 1): number[] {
  if (order !== 'random') {
    const { step, round } = STEPS[order]
    return Array.from({ length: 12 }, (_, at) => modulo((at % round) * step + Math.floor(at / round), 12))
  }
  const others = Array.from({ length: 11 }, (_, at) => at + 1)
  for (let at = others.length - 1; at > 0; at -= 1) {
    const with_ = Math.floor(scattered(seed, at, 77) * (at + 1))
    ;[others[at], others[with_]] = [itemAt(others, with_), itemAt(others, at)]
  }
  return [0, ...others]
}

/** A chart through all keys: its own first, spelled with the fewest accidentals. */
export function throughKeys(
  text: string,
  order: KeyOrder,
  seed?: number,
): { key: Key; semitones: number; text: string }[] {
  const home = analyse(parseChart(text)).key
  return keySteps(order, seed).map((semitones) => {
    const key = semitones === 0 ? home : keyAbove(home, semitones)
    return { key, semitones, text: semitones === 0 ? text : withKey(transposeText(text, home, key), key) }
  })
}

/** A chart without a key line gets one, so that it is read in the key it was moved to. */
const withKey = (text: string, key: Key): string =>
  parseChart(text).key ? text : `key: ${keyName(key)}\n${text}`
