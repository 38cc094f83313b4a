import * as Tone from 'tone'
import { noiseFrom } from './pluckedString'
import type { Context } from './plucked'

/** A brush on a drum head: noise that swells and fades. Lengths in seconds, band in Hz. */
const BRUSHES = {
  sweep: { seconds: 0.34, rise: 0.12, band: 2600, level: 0.16 },
  tap: { seconds: 0.16, rise: 0.004, band: 3400, level: 0.42 },
} as const
type Brush = keyof typeof BRUSHES
const STOP_SECONDS = 0.012

/** What marks the time: clicks and brushes, made here from a tone and from noise. */
export class Timekeeper {
  private readonly output: Tone.Gain
  readonly level: Tone.Gain
  /** Past the level: what counts in. */
  private readonly counted: Tone.Gain
  private readonly noises = new Map<Brush, Tone.ToneAudioBuffer>()

  constructor(
    private readonly context: Context,
    destination: Tone.InputNode,
  ) {
    this.output = new Tone.Gain({ context, gain: 1 })
    this.level = new Tone.Gain({ context, gain: 1 })
    this.counted = new Tone.Gain({ context, gain: 1 })
    this.output.chain(this.level, destination)
    this.counted.connect(destination)
  }

  /** A short click. A count-in does not go through the level: it is heard in any case. */
  click(strong: boolean, time: number, counts = false): void {
    const { context } = this
    const oscillator = new Tone.Oscillator({ context, type: 'triangle', frequency: strong ? 1560 : 1040 })
    const gain = new Tone.Gain({ context, gain: 0 })
    gain.connect(counts ? this.counted : this.output)
    gain.gain.setValueAtTime(strong ? 0.4 : 0.25, time)
    gain.gain.exponentialRampToValueAtTime(0.001, time + 0.05)
    oscillator
      .connect(gain)
      .start(time)
      .stop(time + 0.06)
    if (context.isOffline) return
    oscillator.onstop = () => {
      oscillator.dispose()
      gain.dispose()
    }
  }

  brush(which: Brush, time: number): void {
    const { context } = this
    const { band, level } = BRUSHES[which]
    const filter = new Tone.Filter({ context, type: 'bandpass', frequency: band, Q: 0.6 })
    const gain = new Tone.Gain({ context, gain: level })
    const source = new Tone.ToneBufferSource({ context, url: this.noiseOf(which) })
    source.chain(filter, gain, this.output)
    source.start(time)
    if (context.isOffline) return
    source.onended = () => {
      source.dispose()
      filter.dispose()
      gain.dispose()
    }
  }

  private noiseOf(which: Brush): Tone.ToneAudioBuffer {
    const known = this.noises.get(which)
    if (known) return known
    const { seconds, rise } = BRUSHES[which]
    const rate = this.context.sampleRate
    const noise = noiseFrom(which === 'tap' ? 7 : 3)
    const samples = new Float32Array(Math.ceil(seconds * rate))
    for (let at = 0; at < samples.length; at += 1) {
      const time = at / rate
      const shape = time < rise ? time / rise : (1 - (time - rise) / (seconds - rise)) ** 2
      samples[at] = noise() * shape
    }
    const buffer = this.context.createBuffer(1, samples.length, rate)
    buffer.copyToChannel(samples, 0)
    const made = new Tone.ToneAudioBuffer(buffer)
    this.noises.set(which, made)
    return made
  }

  silence(): void {
    const now = this.context.currentTime
    for (const { gain } of [this.output, this.counted]) {
      gain.cancelScheduledValues(now)
      gain.setValueAtTime(1, now)
      gain.linearRampToValueAtTime(0, now + STOP_SECONDS)
    }
  }

  open(): void {
    const now = this.context.currentTime
    for (const { gain } of [this.output, this.counted]) {
      gain.cancelScheduledValues(now)
      gain.setValueAtTime(1, now)
    }
  }
}
