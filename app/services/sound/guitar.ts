import * as Tone from 'tone'
import { pluckedString } from './pluckedString'
import { placeIn, ringingAt, struck, type Schedule, type Strike } from './schedule'

/** A rendered string rings this long at most, in seconds. */
const RING_SECONDS = 4
/** The pick crosses from one string to the next in this time. */
const STRUM_SECONDS = 0.014
/** A chord is damped this fast when the next one comes, and at once on stop. */
const DAMP_SECONDS = 0.07
const STOP_SECONDS = 0.012
/** A grip that is touched rings this long, in seconds. */
const TOUCH_SECONDS = 2
/** Level of one string, so that six together stay clear of clipping. */
const STRING_LEVEL = 0.42

type Context = Tone.BaseContext

/** The simulated guitar: rendered strings through a wooden body, on one audio context. */
export class Guitar {
  private readonly buffers = new Map<number, Tone.ToneAudioBuffer>()
  private readonly body: Tone.Filter[]
  private readonly output: Tone.Gain
  private readonly ringing = new Set<{ source: Tone.ToneBufferSource; gain: Tone.Gain }>()

  constructor(private readonly context: Context) {
    const filter = (type: BiquadFilterType, frequency: number, gain: number, Q: number) =>
      new Tone.Filter({ context, type, frequency, gain, Q })
    // Air and top-plate resonances of a wooden body, and the loss of the highest partials. Common practice.
    this.body = [
      filter('peaking', 105, 4, 1.4),
      filter('peaking', 205, 3, 1.6),
      filter('peaking', 2400, -3, 0.8),
      filter('lowpass', 6500, 0, 0.6),
    ]
    this.output = new Tone.Gain({ context, gain: 1 })
    this.body.reduce((from, to) => (from.connect(to), to))
    this.body.at(-1)!.chain(this.output, this.context.destination)
  }

  /** Renders the strings a schedule needs, so that none is late. */
  prepare(midis: Iterable<number>): void {
    for (const midi of midis) if (!this.buffers.has(midi)) this.buffers.set(midi, this.render(midi))
  }

  private render(midi: number): Tone.ToneAudioBuffer {
    const samples = pluckedString(midi, this.context.sampleRate, RING_SECONDS)
    const buffer = this.context.createBuffer(1, samples.length, this.context.sampleRate)
    buffer.copyToChannel(samples, 0)
    return new Tone.ToneAudioBuffer(buffer)
  }

  /** Strums a chord, a down stroke from its lowest note and an up stroke from its highest. Times in seconds of the context. */
  strum(
    { midis, levels, velocity, stroke }: Pick<Strike, 'midis' | 'levels' | 'velocity' | 'stroke'>,
    time: number,
    seconds: number,
  ): void {
    this.prepare(midis)
    midis.forEach((midi, order) => {
      const level = STRING_LEVEL * velocity * (levels?.[order] ?? 1)
      if (level === 0) return
      const start = time + (stroke === 'down' ? order : midis.length - 1 - order) * STRUM_SECONDS
      const gain = new Tone.Gain({ context: this.context, gain: level }).connect(this.body[0]!)
      const source = new Tone.ToneBufferSource({
        context: this.context,
        url: this.buffers.get(midi)!,
      }).connect(gain)
      const end = Math.min(time + seconds, start + RING_SECONDS - DAMP_SECONDS)
      gain.gain.setValueAtTime(level, end)
      gain.gain.linearRampToValueAtTime(0, end + DAMP_SECONDS)
      source.start(start).stop(end + DAMP_SECONDS)
      // Offline the library's clock runs ahead of the sound: nothing may be taken apart before it is rendered.
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

  /** A short click for the count-in. */
  click(strong: boolean, time: number): void {
    const oscillator = new Tone.Oscillator({
      context: this.context,
      type: 'triangle',
      frequency: strong ? 1560 : 1040,
    })
    const gain = new Tone.Gain({ context: this.context, gain: 0 }).connect(this.output)
    gain.gain.setValueAtTime(strong ? 0.4 : 0.25, time)
    gain.gain.exponentialRampToValueAtTime(0.001, time + 0.05)
    oscillator
      .connect(gain)
      .start(time)
      .stop(time + 0.06)
    if (this.context.isOffline) return
    oscillator.onstop = () => {
      oscillator.dispose()
      gain.dispose()
    }
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

  dispose(): void {
    this.output.dispose()
    this.body.forEach((filter) => filter.dispose())
    this.buffers.forEach((buffer) => buffer.dispose())
  }
}

/** The first beat comes so long after it is asked for; and so long is left to change what comes. */
const START_SECONDS = 0.05
const SWAP_SECONDS = 0.03

const ticks = (beats: number): string => `${Math.round(beats * Tone.getTransport().PPQ)}i`

const neededBy = (schedule: Schedule) => new Set(schedule.strikes.flatMap((strike) => strike.midis))

/** Lets the page draw and take keys before work goes on. */
const pageHasItsTurn = (): Promise<void> => new Promise((go) => setTimeout(go))

/** Plays schedules on the computer's sound output, with the audio library's clock. */
export class Player {
  private guitar: Guitar | null = null

  /** Counts what was asked to play, so that what is overtaken while its strings are rendered never begins. */
  private asked = 0

  /**
   * @param onStrike called when a chord is heard (null at the end)
   * @returns when its first beat is heard, on the clock of performance.now(): the library schedules ahead, and the sound takes its time to the ear. Null where
   *   it was stopped, or something else was asked for, before it began
   */
  async play(
    schedule: Schedule,
    beatsPerMinute: number,
    loop: boolean,
    onStrike: (strike: Strike | null) => void,
  ): Promise<number | null> {
    await Tone.start()
    this.stop()
    const asked = this.asked
    const guitar = (this.guitar ??= new Guitar(Tone.getContext()))
    for (const midi of neededBy(schedule)) {
      guitar.prepare([midi])
      await pageHasItsTurn()
      if (this.asked !== asked) return null
    }
    guitar.open()
    const transport = Tone.getTransport()
    transport.bpm.value = beatsPerMinute
    this.now = { schedule, shift: 0, onStrike }
    this.lay(guitar, schedule, 0, loop, onStrike)
    const start = Tone.now() + START_SECONDS
    transport.start(start, 0)
    const context = Tone.getContext().rawContext as AudioContext
    const toTheEar = context.outputLatency || context.baseLatency || 0
    return performance.now() + (start - context.currentTime + toTheEar) * 1000
  }

  /** What is played now, and by how many beats its places are later on the transport than in its schedule. */
  private now: { schedule: Schedule; shift: number; onStrike: (strike: Strike | null) => void } | null = null

  /** Puts a schedule on the transport, so many beats later than it says. */
  private lay(
    guitar: Guitar,
    schedule: Schedule,
    shift: number,
    loop: boolean,
    onStrike: (strike: Strike | null) => void,
  ): void {
    const transport = Tone.getTransport()
    const draw = Tone.getDraw()
    // A page that is busy, or behind another, shows late what sounded; it never forgets that the playing has ended.
    draw.expiration = Infinity
    for (const click of schedule.clicks)
      transport.schedule((time) => guitar.click(click.strong, time), ticks(click.beat + shift))
    for (const strike of schedule.strikes)
      transport.schedule((time) => this.strike(guitar, strike, time, onStrike), ticks(strike.beat + shift))
    transport.loop = loop
    transport.setLoopPoints(ticks(schedule.countIn + shift), ticks(schedule.length + shift))
    if (!loop)
      transport.schedule(
        (time) =>
          draw.schedule(() => {
            this.stop()
            onStrike(null)
          }, time),
        ticks(schedule.length + shift),
      )
  }

  private strike(
    guitar: Guitar,
    strike: Strike,
    time: number,
    onStrike: (strike: Strike | null) => void,
  ): void {
    guitar.strum(strike, time, (strike.beats * 60) / Tone.getTransport().bpm.value)
    Tone.getDraw().schedule(() => onStrike(strike), time)
  }

  /**
   * While something is played: another schedule at the same place of the music.
   * @param everyBeats it begins at the next multiple of so many beats of the music: 1 for the next beat, a bar's for the next bar
   */
  swap(schedule: Schedule, loop: boolean, everyBeats = 1): void {
    const transport = Tone.getTransport()
    const { guitar, now } = this
    if (!guitar || !now || transport.state !== 'started') return
    guitar.prepare(neededBy(schedule))
    // What falls into the time the library has already scheduled cannot be taken back: the beat behind that.
    const ahead = ((Tone.getContext().lookAhead + SWAP_SECONDS) * transport.bpm.value) / 60
    const soonest = Math.ceil(transport.ticks / transport.PPQ + ahead)
    // Counted from where the music begins, so that a bar's beats fall on its bar lines.
    const begin = now.shift + now.schedule.countIn
    const beat = soonest <= begin ? soonest : begin + Math.ceil((soonest - begin) / everyBeats) * everyBeats
    const there = placeIn(schedule, now.schedule, beat - now.shift)
    const shift = beat - there
    transport.cancel(0)
    this.now = { ...now, schedule, shift }
    const ringing = ringingAt(schedule, there)
    // Before what is struck there: only what rang until then is damped.
    transport.scheduleOnce((time) => {
      guitar.damp(time)
      if (ringing) this.strike(guitar, ringing, time, now.onStrike)
    }, ticks(beat))
    this.lay(guitar, schedule, shift, loop, now.onStrike)
  }

  /** A change of tempo is heard from the next beat on. */
  setTempo(beatsPerMinute: number): void {
    Tone.getTransport().bpm.value = beatsPerMinute
  }

  /** One chord at once, as when a grip is touched. */
  async strumNow(midis: readonly number[]): Promise<void> {
    await Tone.start()
    const guitar = (this.guitar ??= new Guitar(Tone.getContext()))
    guitar.open()
    guitar.strum(
      struck({ beat: 0, beats: 1, midis, index: -1, version: 'new' }),
      Tone.getContext().currentTime + 0.01,
      TOUCH_SECONDS,
    )
  }

  stop(): void {
    this.asked += 1
    this.now = null
    const transport = Tone.getTransport()
    transport.stop()
    transport.cancel(0)
    Tone.getDraw().cancel(0)
    this.guitar?.silence()
  }
}

/** Renders a schedule faster than it sounds, through the offline audio context. */
export async function renderSchedule(schedule: Schedule, beatsPerMinute: number): Promise<AudioBuffer> {
  const secondsPerBeat = 60 / beatsPerMinute
  const rendered = await Tone.Offline(
    (context) => {
      const guitar = new Guitar(context)
      for (const click of schedule.clicks) guitar.click(click.strong, click.beat * secondsPerBeat)
      for (const strike of schedule.strikes)
        guitar.strum(strike, strike.beat * secondsPerBeat, strike.beats * secondsPerBeat)
    },
    schedule.length * secondsPerBeat + 0.3,
    1,
    44100,
  )
  return rendered.get()!
}
