import { firstOf, lastOf } from '../../../core/lists'
import * as Tone from 'tone'
import { pluckedString, type StringKind } from './pluckedString'
import type { Strike } from './schedule'

/** A rendered string rings this long at most, in seconds. */
const RING_SECONDS = 4
/**
 * The pick crosses from one string to the next in this time; fingers pluck nearly together; a roll
 * is spread. In seconds.
 */
const SPREAD_SECONDS: Readonly<Record<Strike['stroke'], number>> = {
  down: 0.014,
  up: 0.012,
  fingers: 0.003,
  thumb: 0,
  roll: 0.045,
  dead: 0.008,
}
/**
 * A chord is damped this fast when the next one comes; a damped stroke sounds no longer than this;
 * and at once on stop.
 */
const DAMP_SECONDS = 0.07
const DEAD_SECONDS = 0.03
const STOP_SECONDS = 0.012
/** Level of one string, so that six together stay clear of clipping. */
const STRING_LEVEL = 0.42

export type Context = Tone.BaseContext

/** How bright a string is plucked at a strength: three renderings, soft to hard. */
const HARDNESS = [0.45, 0.8] as const
const layerOf = (velocity: number): number => HARDNESS.filter((edge) => velocity > edge).length

interface Resonance {
  type: BiquadFilterType
  frequency: number
  gain: number
  Q: number
}
/**
 * What the strings are on. The guitar: air and top-plate resonances of a wooden body, and the loss
 * of the highest partials; the bass: a dull pickup. Common practice.
 */
const BODIES: Readonly<Record<StringKind, readonly Resonance[]>> = {
  guitar: [
    { type: 'peaking', frequency: 105, gain: 4, Q: 1.4 },
    { type: 'peaking', frequency: 205, gain: 3, Q: 1.6 },
    { type: 'peaking', frequency: 2400, gain: -3, Q: 0.8 },
    { type: 'lowpass', frequency: 6500, gain: 0, Q: 0.6 },
  ],
  bass: [
    { type: 'peaking', frequency: 90, gain: 3, Q: 0.9 },
    { type: 'lowpass', frequency: 1800, gain: 0, Q: 0.5 },
  ],
}

/** A simulated plucked instrument: rendered strings through a body, on one audio context. */
export class Plucked {
  private readonly buffers = new Map<string, Tone.ToneAudioBuffer>()
  private readonly body: Tone.Filter[]
  private readonly output: Tone.Gain
  /** How loud the player has it. */
  readonly level: Tone.Gain
  private readonly ringing = new Set<{ source: Tone.ToneBufferSource; gain: Tone.Gain }>()

  constructor(
    private readonly context: Context,
    destination: Tone.InputNode,
    private readonly kind: StringKind,
  ) {
    this.body = BODIES[kind].map(
      ({ type, frequency, gain, Q }) => new Tone.Filter({ context, type, frequency, gain, Q }),
    )
    this.output = new Tone.Gain({ context, gain: 1 })
    this.level = new Tone.Gain({ context, gain: 1 })
    this.body.reduce((from, to) => (from.connect(to), to))
    lastOf(this.body).chain(this.output, this.level, destination)
  }

  /**
   * Renders the strings a strike needs, so that it is not late. @returns whether there was
   * something to render
   */
  prepare({ midis, velocity, stroke }: Pick<Strike, 'midis' | 'velocity' | 'stroke'>): boolean {
    const before = this.buffers.size
    for (const midi of midis) this.bufferOf(midi, stroke === 'dead' ? 0 : layerOf(velocity))
    return this.buffers.size > before
  }

  private bufferOf(midi: number, layer: number): Tone.ToneAudioBuffer {
    const name = `${midi}/${layer}`
    const known = this.buffers.get(name)
    if (known) return known
    const samples = pluckedString(midi, this.context.sampleRate, RING_SECONDS, this.kind, layer)
    const buffer = this.context.createBuffer(1, samples.length, this.context.sampleRate)
    buffer.copyToChannel(samples, 0)
    const made = new Tone.ToneAudioBuffer(buffer)
    this.buffers.set(name, made)
    return made
  }

  /**
   * Strikes a chord: a down stroke or a roll from its lowest note, an up stroke from its highest.
   * Times in seconds of the context.
   */
  strum(
    { midis, levels, velocity, stroke }: Pick<Strike, 'midis' | 'levels' | 'velocity' | 'stroke'>,
    time: number,
    seconds: number,
  ): void {
    const sounds = stroke === 'dead' ? Math.min(seconds, DEAD_SECONDS) : seconds
    midis.forEach((midi, order) => {
      const level = STRING_LEVEL * velocity * (levels?.[order] ?? 1)
      if (level === 0) return
      const start = time + (stroke === 'up' ? midis.length - 1 - order : order) * SPREAD_SECONDS[stroke]
      const gain = new Tone.Gain({ context: this.context, gain: level }).connect(firstOf(this.body))
      const source = new Tone.ToneBufferSource({
        context: this.context,
        url: this.bufferOf(midi, stroke === 'dead' ? 0 : layerOf(velocity)),
      }).connect(gain)
      const end = Math.max(start, Math.min(time + sounds, start + RING_SECONDS - DAMP_SECONDS))
      gain.gain.setValueAtTime(level, end)
      gain.gain.linearRampToValueAtTime(0, end + DAMP_SECONDS)
      source.start(start).stop(end + DAMP_SECONDS)
      // Offline the library's clock runs ahead of the sound: nothing may be taken apart before it
      // is rendered.
      if (this.context.isOffline) return
      const voice = { source, gain }
      this.ringing.add(voice)
      source.onended = () => {
        this.ringing.delete(voice)
        source.dispose()
        gain.dispose()
      }
    })
  }

  /** Everything that rings or waits to ring ends now. */
  silence(): void {
    const now = this.context.currentTime
    this.output.gain.cancelScheduledValues(now)
    this.output.gain.setValueAtTime(1, now)
    this.output.gain.linearRampToValueAtTime(0, now + STOP_SECONDS)
    for (const { source } of this.ringing) source.stop(now + STOP_SECONDS)
  }

  /** What rings is damped at a time, as by the hand that comes for the next chord. */
  damp(time: number): void {
    for (const { source, gain } of this.ringing) {
      gain.gain.cancelScheduledValues(time)
      gain.gain.setTargetAtTime(0, time, DAMP_SECONDS / 3)
      source.stop(time + 2 * DAMP_SECONDS)
    }
  }

  /** Opens the sound again after `silence`. */
  open(): void {
    const now = this.context.currentTime
    this.output.gain.cancelScheduledValues(now)
    this.output.gain.setValueAtTime(1, now)
  }
}
