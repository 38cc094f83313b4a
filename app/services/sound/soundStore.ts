import type { Levels, Player } from './soundPlayer'
import type { HeardLine, Schedule, Strike } from './schedule'

export interface PlayerView {
  playing: boolean
  /** Why no sound could be made, if so. */
  trouble: string | null
}

const SILENT: PlayerView = { playing: false, trouble: null }

/**
 * What sounds on this page: one player for all of it. What changes is told only to those that draw
 * it. The sound library is loaded when it is first needed, or soon to be.
 */
export class SoundStore {
  private player: Player | null = null
  private levels: Levels | null = null
  private view: PlayerView = SILENT
  private sounding: Pick<Strike, 'index' | 'version'> | null = null
  private readonly listeners = new Set<() => void>()
  /**
   * What is played is the tune, and not a part to try something: then other versions can be
   * switched to.
   */
  private tunePlays = false

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }

  readonly read = (): PlayerView => this.view

  /** The chord of one line that sounds now, by its index, where it lies between two; null else. */
  readonly soundingIn = (version: HeardLine, from = 0, to = Infinity): number | null =>
    this.sounding?.version === version && this.sounding.index >= from && this.sounding.index <= to
      ? this.sounding.index
      : null

  /**
   * Plays something once, from its beginning.
   * @returns when its first beat is heard, on the clock of performance.now(); null where no sound
   *   could be made
   */
  readonly play = (schedule: Schedule, beatsPerMinute: number): Promise<number | null> =>
    this.begin(schedule, beatsPerMinute, false, false)

  /** Plays the tune: what is heard of it can be changed on the way. */
  readonly playTune = (schedule: Schedule, beatsPerMinute: number, loop: boolean): Promise<number | null> =>
    this.begin(schedule, beatsPerMinute, loop, true)

  /**
   * Another schedule in place of the one that plays, at the same place of the music; nothing where
   * the tune does not play.
   * @param everyBeats it begins at the next multiple of so many beats
   */
  readonly swap = (schedule: Schedule, loop: boolean, everyBeats: number): void => {
    if (this.view.playing && this.tunePlays && schedule.strikes.length > 0)
      this.player?.swap(schedule, loop, everyBeats)
  }

  /** How loud each of the band is; kept until there is something that sounds. */
  readonly setLevels = (levels: Levels): void => {
    this.levels = levels
    this.player?.setLevels(levels)
  }

  readonly setTempo = (beatsPerMinute: number): void => this.player?.setTempo(beatsPerMinute)

  /** One chord at once, as when a grip is touched. */
  readonly strumNow = (midis: readonly number[]): Promise<unknown> =>
    this.withPlayer((player) => player.strumNow(midis))

  /**
   * Loads the sound library, so that the first thing heard need not wait for it, nor the next key
   * for what is heard. What fails is said when something is to be heard.
   */
  readonly getReady = (): void => void import('./soundPlayer').catch(() => undefined)

  readonly stop = (): void => {
    // What is still on its way to sounding does not begin.
    this.asked += 1
    this.player?.stop()
    this.sounding = null
    this.show(SILENT)
  }

  /** Counts what was asked for: to play, and to stop. */
  private asked = 0

  private begin(
    schedule: Schedule,
    beatsPerMinute: number,
    loop: boolean,
    tune: boolean,
  ): Promise<number | null> {
    this.tunePlays = tune
    const asked = (this.asked += 1)
    return this.withPlayer((player) => {
      if (this.asked !== asked) return Promise.resolve(null)
      this.sounding = null
      this.show({ playing: true, trouble: null })
      return player.play(schedule, beatsPerMinute, loop, (strike) => {
        this.sounding = strike && { index: strike.index, version: strike.version }
        this.show(strike ? this.view : SILENT)
      })
    })
  }

  private async withPlayer<Answer>(act: (player: Player) => Promise<Answer>): Promise<Answer | null> {
    try {
      if (!this.player) {
        this.player = new (await import('./soundPlayer')).Player()
        if (this.levels) this.player.setLevels(this.levels)
      }
      return await act(this.player)
    } catch (error) {
      this.show({
        playing: false,
        trouble: `The sound could not be started: ${error instanceof Error ? error.message : String(error)}`,
      })
      return null
    }
  }

  private show(view: PlayerView): void {
    this.view = view
    this.listeners.forEach((listener) => listener())
  }
}

export const SOUND = new SoundStore()
