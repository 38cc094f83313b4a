import * as Tone from 'tone'
import { Plucked } from './plucked'
import { Timekeeper } from './timekeeper'
import { placeIn, ringingAt, struck, type Schedule, type Strike } from './schedule'

/** A grip that is touched rings this long, in seconds. */
const TOUCH_SECONDS = 2

/** How loud each of the band is, 0 silent to 1. */
export interface Levels {
  guitar: number
  bass: number
  time: number
}
export const ALL_LOUD: Levels = { guitar: 1, bass: 1, time: 1 }
/** A level that is moved is followed in this time, in seconds, so that nothing clicks. */
const LEVEL_SECONDS = 0.02

/**
 * Below this the sum of the band passes as it is; above it is bent, and never reaches full scale.
 */
const STRAIGHT_TO = 0.75
const BENT = 0.24
/** Loudest sum that is bent and not cut. */
const LOUDEST = 4
const bent = (sum: number): number => {
  const size = Math.abs(sum)
  return size <= STRAIGHT_TO
    ? sum
    : Math.sign(sum) * (STRAIGHT_TO + BENT * Math.tanh((size - STRAIGHT_TO) / BENT))
}

/** All that sounds on one audio context. */
class Band {
  readonly guitar: Plucked
  readonly bass: Plucked
  readonly time: Timekeeper

  constructor(context: Tone.BaseContext) {
    const into = new Tone.Gain({ context, gain: 1 / LOUDEST })
    const limit = new Tone.WaveShaper({ context, mapping: (value) => bent(value * LOUDEST), length: 8192 })
    into.chain(limit, context.destination)
    this.guitar = new Plucked(context, into, 'guitar')
    this.bass = new Plucked(context, into, 'bass')
    this.time = new Timekeeper(context, into)
  }

  setLevels({ guitar, bass, time }: Levels, seconds = LEVEL_SECONDS): void {
    this.guitar.level.gain.rampTo(guitar, seconds)
    this.bass.level.gain.rampTo(bass, seconds)
    this.time.level.gain.rampTo(time, seconds)
  }

  of({ part }: Strike): Plucked {
    return part === 'bass' ? this.bass : this.guitar
  }

  all(act: (part: Plucked | Timekeeper) => void): void {
    for (const part of [this.guitar, this.bass, this.time]) act(part)
  }
}

/** The first beat comes so long after it is asked for; and so long is left to change what comes. */
const START_SECONDS = 0.05
const SWAP_SECONDS = 0.03

const ticks = (beats: number): string => `${Math.round(beats * Tone.getTransport().PPQ)}i`

/** Lets the page draw and take keys before work goes on. */
const pageHasItsTurn = (): Promise<void> => new Promise((go) => setTimeout(go))

/** Plays schedules on the computer's sound output, with the audio library's clock. */
export class Player {
  private band: Band | null = null
  private levels: Levels = ALL_LOUD

  private get ready(): Band {
    if (!this.band) {
      this.band = new Band(Tone.getContext())
      this.band.setLevels(this.levels, 0)
    }
    return this.band
  }

  setLevels(levels: Levels): void {
    this.levels = levels
    this.band?.setLevels(levels)
  }

  /**
   * Counts what was asked to play, so that what is overtaken while its strings are rendered never
   * begins.
   */
  private asked = 0

  /**
   * @param onStrike called when a chord is heard (null at the end)
   * @returns when its first beat is heard, on the clock of performance.now(): the library schedules
   *   ahead, and the sound takes its time to the ear. Null where it was stopped, or something else
   *   was asked for, before it began
   */
  async play(
    schedule: Schedule,
    beatsPerMinute: number,
    loop: boolean,
    onStrike: (strike: Strike | null) => void,
  ): Promise<number | null> {
    const wanted = (this.asked += 1)
    await Tone.start()
    if (this.asked !== wanted) return null
    this.stop()
    const asked = this.asked
    const band = this.ready
    for (const strike of schedule.strikes) {
      if (band.of(strike).prepare(strike)) await pageHasItsTurn()
      if (this.asked !== asked) return null
    }
    band.all((part) => part.open())
    const transport = Tone.getTransport()
    transport.bpm.value = beatsPerMinute
    this.now = { schedule, shift: 0, onStrike }
    this.lay(band, schedule, 0, loop, onStrike)
    const start = Tone.now() + START_SECONDS
    transport.start(start, 0)
    const context = Tone.getContext().rawContext as AudioContext
    const toTheEar = context.outputLatency || context.baseLatency || 0
    return performance.now() + (start - context.currentTime + toTheEar) * 1000
  }

  /**
   * What is played now, and by how many beats its places are later on the transport than in its
   * schedule.
   */
  private now: { schedule: Schedule; shift: number; onStrike: (strike: Strike | null) => void } | null = null

  /** Puts a schedule on the transport, so many beats later than it says. */
  private lay(
    band: Band,
    schedule: Schedule,
    shift: number,
    loop: boolean,
    onStrike: (strike: Strike | null) => void,
  ): void {
    const transport = Tone.getTransport()
    const draw = Tone.getDraw()
    // A page that is busy, or behind another, shows late what sounded; it never forgets that the
    // playing has ended.
    draw.expiration = Infinity
    for (const click of schedule.clicks)
      transport.schedule((time) => band.time.click(click.strong, time, true), ticks(click.beat + shift))
    for (const { beat, strong, brush } of schedule.beats ?? [])
      transport.schedule(
        (time) => (brush ? band.time.brush(brush, time) : band.time.click(strong, time)),
        ticks(beat + shift),
      )
    for (const strike of schedule.strikes)
      transport.schedule((time) => this.strike(band, strike, time, onStrike), ticks(strike.beat + shift))
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

  private strike(band: Band, strike: Strike, time: number, onStrike: (strike: Strike | null) => void): void {
    band.of(strike).strum(strike, time, (strike.beats * 60) / Tone.getTransport().bpm.value)
    if (strike.part === 'bass') return
    Tone.getDraw().schedule(() => onStrike(strike), time)
  }

  /**
   * While something is played: another schedule at the same place of the music.
   * @param everyBeats it begins at the next multiple of so many beats of the music: 1 for the next
   *   beat, a bar's for the next bar
   */
  swap(schedule: Schedule, loop: boolean, everyBeats = 1): void {
    const transport = Tone.getTransport()
    const { band, now } = this
    if (!band || !now || transport.state !== 'started') return
    for (const strike of schedule.strikes) band.of(strike).prepare(strike)
    // What falls into the time the library has already scheduled cannot be taken back: the beat
    // behind that.
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
      band.guitar.damp(time)
      band.bass.damp(time)
      if (ringing) this.strike(band, ringing, time, now.onStrike)
    }, ticks(beat))
    this.lay(band, schedule, shift, loop, now.onStrike)
  }

  /** A change of tempo is heard from the next beat on. */
  setTempo(beatsPerMinute: number): void {
    Tone.getTransport().bpm.value = beatsPerMinute
  }

  /** One chord at once, as when a grip is touched. */
  async strumNow(midis: readonly number[]): Promise<void> {
    await Tone.start()
    const { guitar } = this.ready
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
    this.band?.all((part) => part.silence())
  }
}

/** Renders a schedule faster than it sounds, through the offline audio context. */
export async function renderSchedule(
  schedule: Schedule,
  beatsPerMinute: number,
  levels: Levels = ALL_LOUD,
): Promise<AudioBuffer> {
  const secondsPerBeat = 60 / beatsPerMinute
  const rendered = await Tone.Offline(
    (context) => {
      const band = new Band(context)
      band.setLevels(levels, 0)
      for (const { beat, strong } of schedule.clicks) band.time.click(strong, beat * secondsPerBeat, true)
      for (const { beat, strong, brush } of schedule.beats ?? [])
        if (brush) band.time.brush(brush, beat * secondsPerBeat)
        else band.time.click(strong, beat * secondsPerBeat)
      for (const strike of schedule.strikes)
        band.of(strike).strum(strike, strike.beat * secondsPerBeat, strike.beats * secondsPerBeat)
    },
    schedule.length * secondsPerBeat + 0.3,
    1,
    44100,
  )
  return rendered.get()!
}
