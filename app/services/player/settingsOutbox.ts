import { dropWaiting, keepWaiting, waitingFor } from '../tune/drafts'
import {
  bothChanges,
  playerChange,
  type PlayerChange,
  type PlayerSettings,
} from '../../../core/player/playerSettings'

export type KeepingState = 'saved' | 'saving' | 'waiting' | { refused: string }

const PLACE = 'player'
const RETRY_MS = 1_500
/** A slider that is moved is written when it has rested this long. */
const PAUSE_MS = 400

const isEmpty = (change: PlayerChange): boolean => Object.keys(change).length === 0

/**
 * The player's changes on their way to the database: kept in this browser until they are there,
 * sent again until they are taken.
 */
export class SettingsOutbox {
  private unsent: PlayerChange = {}
  private sending: PlayerChange | null = null
  private timer: ReturnType<typeof setTimeout> | undefined

  /**
   * @param onState what is said of the saving; @param onKept the settings as the database has them,
   *   where nothing of this tab waits
   */
  constructor(
    private readonly onState: (state: KeepingState) => void,
    private readonly onKept: (settings: PlayerSettings) => void,
  ) {}

  /** Takes up what an earlier visit could not send. */
  async resume(): Promise<PlayerChange> {
    const read = playerChange.safeParse(await waitingFor(PLACE).catch(() => null))
    if (!read.success || isEmpty(read.data)) return {}
    this.unsent = bothChanges(read.data, this.unsent)
    this.send()
    return read.data
  }

  add(change: PlayerChange): void {
    this.unsent = bothChanges(this.unsent, change)
    this.onState('saving')
    void this.keepHere()
    clearTimeout(this.timer)
    this.timer = setTimeout(() => this.send(), PAUSE_MS)
  }

  /** Sends at once what waits for a pause: the page is left. */
  readonly flush = (): void => {
    clearTimeout(this.timer)
    this.send()
  }

  private send(): void {
    if (this.sending || isEmpty(this.unsent)) return
    const change = this.unsent
    this.sending = change
    this.unsent = {}
    void post({ change }).then((answer) => {
      this.sending = null
      if (answer === null) {
        this.unsent = bothChanges(change, this.unsent)
        this.onState('waiting')
        clearTimeout(this.timer)
        this.timer = setTimeout(() => this.send(), RETRY_MS)
        return
      }
      if (isEmpty(this.unsent)) void dropWaiting(PLACE).catch(() => null)
      else void this.keepHere()
      if ('refused' in answer) return this.onState(answer)
      if (!isEmpty(this.unsent)) return this.send()
      this.onState('saved')
      this.onKept(answer.settings)
    })
  }

  private async keepHere(): Promise<void> {
    await keepWaiting(PLACE, bothChanges(this.sending ?? {}, this.unsent)).catch(() => null)
  }
}

/** Null where no answer says what became of it. */
async function post(body: unknown): Promise<{ settings: PlayerSettings } | { refused: string } | null> {
  try {
    const response = await fetch('/player/edits', {
      method: 'POST',
      headers: { 'Content-Type': 'application/json' },
      body: JSON.stringify(body),
      keepalive: true,
    })
    const answer = JSON.parse(await response.text()) as { settings?: PlayerSettings; message?: string }
    if (response.ok && answer.settings) return { settings: answer.settings }
    return response.status === 400 && answer.message ? { refused: answer.message } : null
  } catch {
    return null
  }
}

export const forgetOnServer = (rule: string | undefined): void =>
  void fetch('/player/edits', {
    method: 'POST',
    headers: { 'Content-Type': 'application/json' },
    body: JSON.stringify({ forget: rule ?? 'all' }),
    keepalive: true,
  }).catch(() => null)
