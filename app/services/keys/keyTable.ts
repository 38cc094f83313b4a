/** One thing a key does: the same row is listened to and listed under `?`. */
export interface KeyRow {
  /**
   * Names of key presses, as `pressOf` gives them; none where the row only says what another part
   * listens to.
   */
  on: readonly string[]
  /** The keys as the list shows them. */
  shown: string
  says: string
  /** False where it has nothing to do now: the next row that listens to the key has its turn. */
  act: (press: string, event: KeyboardEvent) => boolean | void
}

/**
 * The name of a key press: `Ctrl+Shift+z`, `Alt+i`, `Shift+ArrowUp`, `Shift+1`, `Space`, `g`, `?`.
 * Letters are small whatever Shift is, but for Ctrl and Alt; with Alt, and for digits with Shift,
 * the place of the key counts, since layouts give other signs there.
 */
export function pressOf(
  event: Pick<KeyboardEvent, 'key' | 'code' | 'ctrlKey' | 'metaKey' | 'altKey' | 'shiftKey'>,
): string {
  const { key, code, altKey, shiftKey } = event
  const control = event.ctrlKey || event.metaKey
  const digit = /^Digit(\d)$/.exec(code)?.[1]
  const letter = altKey ? /^Key([A-Z])$/.exec(code)?.[1]?.toLowerCase() : undefined
  const sign = letter ?? ((altKey || shiftKey) && digit ? digit : signOf(key))
  const shifts = shiftKey && (control || altKey || sign.length > 1 || digit !== undefined)
  return [control && 'Ctrl', altKey && 'Alt', shifts && 'Shift', sign].filter(Boolean).join('+')
}
function signOf(key: string): string {
  if (key === ' ') return 'Space'
  return /^[a-z]$/i.test(key) ? key.toLowerCase() : key
}

/** Does what the first row that listens to a press has to do; true when one did. */
export function actOn(rows: readonly KeyRow[], event: KeyboardEvent): boolean {
  const press = pressOf(event)
  return rows.some((row) => row.on.includes(press) && row.act(press, event) !== false)
}

/** The ten digits, alone and with Shift. */
export const DIGITS: readonly string[] = Array.from({ length: 10 }, (_, digit) => String(digit))
export const SHIFT_DIGITS: readonly string[] = DIGITS.map((digit) => `Shift+${digit}`)
