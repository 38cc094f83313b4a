/**
 * A plucked string by the Karplus-Strong model: a burst of noise runs round a delay line as long as one period and
 * loses its brightness at each turn (Karplus & Strong, "Digital Synthesis of Plucked-String and Drum Timbres",
 * Computer Music Journal 7:2, 1983; tuned as in Jaffe & Smith, "Extensions of the Karplus-Strong Plucked-String
 * Algorithm", same issue; both from memory).
 */

/** Where the pick meets the string, as a share of its length: the harmonics with a node there are weak. */
const PICK_PLACE = 0.17
/** How much of the neighbouring sample the loop averages in: the string's loss of brightness. */
const DAMPING = 0.42
/** Brightness of the pick's noise, 0 dull to 1 bright. */
const PICK_BRIGHTNESS = 0.55
/** Time in seconds for a string to fall by 60 dB at E2; an octave up it is shorter by SHORTER. */
const RING_SECONDS = 5.5
const SHORTER = 0.72
const LOWEST_HZ = 82.4

export const frequencyOf = (midi: number): number => 440 * 2 ** ((midi - 69) / 12)

/** Repeatable noise: the same string always sounds the same (mulberry32). */
function noiseFrom(seed: number): () => number {
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
 */
export function pluckedString(midi: number, sampleRate: number, seconds: number): Float32Array<ArrayBuffer> {
  const hz = frequencyOf(midi)
  const period = sampleRate / hz
  // The averaging filter delays by DAMPING samples; what is left of the period is a whole delay and an allpass fraction.
  const whole = Math.floor(period - DAMPING - 0.3)
  const fraction = period - DAMPING - whole
  const allpass = allpassFor(fraction, hz, sampleRate)
  const ringSeconds = RING_SECONDS * SHORTER ** Math.log2(hz / LOWEST_HZ)
  const loss = 10 ** (-3 / (hz * ringSeconds))

  const line = excitation(whole, midi)
  const samples = new Float32Array(Math.ceil(seconds * sampleRate))
  let at = 0
  let lastRead = 0
  let lastFiltered = 0
  let lastAllpass = 0
  for (let i = 0; i < samples.length; i += 1) {
    const read = line[at]!
    samples[i] = read
    const filtered = loss * ((1 - DAMPING) * read + DAMPING * lastRead)
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
function excitation(length: number, seed: number): Float64Array {
  const noise = noiseFrom(seed * 2654435761)
  const burst = new Float64Array(length)
  let smooth = 0
  for (let i = 0; i < length; i += 1) {
    smooth += PICK_BRIGHTNESS * (noise() - smooth)
    burst[i] = smooth
  }
  const gap = Math.max(1, Math.round(PICK_PLACE * length))
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
