/**
 * A plucked string by the Karplus-Strong model: a burst of noise runs round a delay line as long as
 * one period and loses its brightness at each turn (Karplus & Strong, "Digital Synthesis of
 * Plucked-String and Drum Timbres", Computer Music Journal 7:2, 1983; tuned as in Jaffe & Smith,
 * "Extensions of the Karplus-Strong Plucked-String Algorithm", same issue; both from memory).
 */

import { itemAt } from '../../../core/lists'
export type StringKind = 'guitar' | 'bass'
interface Model {
  /**
   * Where the pick or finger meets the string, as a share of its length: the harmonics with a node
   * there are weak.
   */
  pickPlace: number
  /** How much of the neighbouring sample the loop averages in: the string's loss of brightness. */
  damping: number
  /** Brightness of the pick's noise, 0 dull to 1 bright, plucked softly, as usual, and hard. */
  brightness: readonly [number, number, number]
  /**
   * Time in seconds for a string to fall by 60 dB at `lowestHz`; an octave up it is shorter by
   * `shorter`.
   */
  ringSeconds: number
  shorter: number
  lowestHz: number
}
/** Sizes by ear; common practice, no source. */
const MODELS: Readonly<Record<StringKind, Model>> = {
  guitar: {
    pickPlace: 0.17,
    damping: 0.42,
    brightness: [0.3, 0.55, 0.75],
    ringSeconds: 5.5,
    shorter: 0.72,
    lowestHz: 82.4,
  },
  bass: {
    pickPlace: 0.28,
    damping: 0.46,
    brightness: [0.1, 0.16, 0.24],
    ringSeconds: 3.2,
    shorter: 0.8,
    lowestHz: 41.2,
  },
}
/** The middle one of the three. */
const AS_USUAL = 1

export const frequencyOf = (midi: number): number => 440 * 2 ** ((midi - 69) / 12)

/** Repeatable noise: the same string always sounds the same (mulberry32). */
export function noiseFrom(seed: number): () => number {
  let state = seed >>> 0
  return () => {
    state = (state + 0x6d2b79f5) >>> 0
    let mixed = Math.imul(state ^ (state >>> 15), state | 1)
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61)
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 2147483648 - 1
  }
}

/**
 * Samples of one plucked note, peak about 0.9.
 * @param midi MIDI number, 28 to 100
 * @param sampleRate samples a second
 * @param seconds length of the sound
 * @param layer 0 soft, 1 as usual, 2 hard
 */
export function pluckedString(
  midi: number,
  sampleRate: number,
  seconds: number,
  kind: StringKind = 'guitar',
  layer = AS_USUAL,
): Float32Array<ArrayBuffer> {
  const { pickPlace, damping, brightness, ringSeconds: rings, shorter, lowestHz } = MODELS[kind]
  const hz = frequencyOf(midi)
  const period = sampleRate / hz
  // The averaging filter delays by damping samples; what is left of the period is a whole delay and
  // an allpass fraction.
  const whole = Math.floor(period - damping - 0.3)
  const fraction = period - damping - whole
  const allpass = allpassFor(fraction, hz, sampleRate)
  const ringSeconds = rings * shorter ** Math.log2(hz / lowestHz)
  const loss = 10 ** (-3 / (hz * ringSeconds))

  const line = excitation(whole, midi, itemAt(brightness, layer), pickPlace)
  const samples = new Float32Array(Math.ceil(seconds * sampleRate))
  let at = 0
  let lastRead = 0
  let lastFiltered = 0
  let lastAllpass = 0
  for (let i = 0; i < samples.length; i += 1) {
    const read = line[at]!
    samples[i] = read
    const filtered = loss * ((1 - damping) * read + damping * lastRead)
    lastRead = read
    const delayed = allpass * (filtered - lastAllpass) + lastFiltered
    lastFiltered = filtered
    lastAllpass = delayed
    line[at] = delayed
    at = at + 1 === whole ? 0 : at + 1
  }
  return levelled(samples)
}

/** Coefficient of a first-order allpass whose phase delay at `hz` is `fraction` samples. */
function allpassFor(fraction: number, hz: number, sampleRate: number): number {
  const w = (2 * Math.PI * hz) / sampleRate
  return Math.sin((w * (1 - fraction)) / 2) / Math.sin((w * (1 + fraction)) / 2)
}

/** One period of noise, dulled by the pick and combed by the place where it plucks. */
function excitation(length: number, seed: number, brightness: number, pickPlace: number): Float64Array {
  const noise = noiseFrom(seed * 2654435761)
  const burst = new Float64Array(length)
  let smooth = 0
  for (let i = 0; i < length; i += 1) {
    smooth += brightness * (noise() - smooth)
    burst[i] = smooth
  }
  const gap = Math.max(1, Math.round(pickPlace * length))
  const plucked = burst.map((value, i) => value - burst[(i - gap + length) % length]!)
  const mean = plucked.reduce((sum, value) => sum + value, 0) / length
  return plucked.map((value) => value - mean)
}

function levelled(samples: Float32Array<ArrayBuffer>): Float32Array<ArrayBuffer> {
  let peak = 0
  for (const sample of samples) peak = Math.max(peak, Math.abs(sample))
  const gain = peak > 0 ? 0.9 / peak : 0
  for (let i = 0; i < samples.length; i += 1) samples[i]! *= gain
  return samples
}
