import { itemAt } from '../../../core/lists'
import { ownNameOf } from '../paper/ownLayouts'
import { isShown } from './shown'

/** A tune of the stand, and how it is played there. */
export interface StandTune {
  tune: string
  title: string
  key: string | null
  tempo: number | null
  version: string | null
  note: string
}

export interface StandWindow {
  /** One of `SHOWN`, or a layout of the tune's own. */
  shown: string
  /** In points. */
  width: number
  height: number
}

/** Where the pages of a tune for a window are had. */
export function pagesAddress(
  { tune, key, tempo, version, note }: StandTune,
  { shown, width, height }: StandWindow,
): string {
  const asked = new URLSearchParams({ tune, shown, width: width.toFixed(1), height: height.toFixed(1), note })
  if (key !== null) asked.set('key', key)
  if (tempo !== null) asked.set('tempo', String(tempo))
  if (version !== null) asked.set('version', version)
  return `/stand/pages?${asked}`
}

/**
 * Pixels to a point: a root is 17 points. On a tablet of 1024 px and 20 cm that is a capital of 7
 * mm, which is read at 2 m (10 minutes of arc are 5.8 mm there; the usual limit of sight is 5).
 */
const scaleFor = (width: number, height: number): number =>
  Math.max(1.9, Math.min(3.4, width / 350, height / 230))
/** Steps of the size, as shares of what is usual. */
export const SIZES = [0.7, 0.85, 1, 1.2, 1.45, 1.75] as const
const USUAL_SIZE = 2

/** How the stand is set. */
export interface StandKept {
  shown: string
  size: number
  light: boolean
}
export const USUAL: StandKept = { shown: 'grips', size: USUAL_SIZE, light: false }
const PLACE = 'heron-stand'

/** How the stand was set last in this browser. */
export function keptHere(): StandKept {
  try {
    const { shown, size, light } = {
      ...USUAL,
      ...(JSON.parse(localStorage.getItem(PLACE) ?? '{}') as Partial<StandKept>),
    }
    return {
      shown: isShown(shown) || ownNameOf(shown) !== null ? shown : USUAL.shown,
      size: SIZES[size] === undefined ? USUAL_SIZE : size,
      light: light === true,
    }
  } catch {
    return USUAL
  }
}

/** Keeps in this browser how the stand is set. */
export function keepHere(set: StandKept): void {
  try {
    localStorage.setItem(PLACE, JSON.stringify(set))
  } catch {
    // Where nothing can be kept, it is set anew next time.
  }
}

/** What is asked for a window: nothing new where it was only turned by a quarter. */
export function windowAsked(
  window: { width: number; height: number } | null,
  { shown, size }: StandKept,
  before: StandWindow | null,
): StandWindow | null {
  if (!window) return null
  const { width, height } = window
  const scale = scaleFor(Math.max(width, height), Math.min(width, height)) * itemAt(SIZES, size)
  const [wide, high] = [width / scale, height / scale]
  const near = (a: number, b: number) => Math.abs(a - b) < TURN_SLACK * b
  if (before && before.shown === shown && near(before.width, high) && near(before.height, wide)) return before
  return { shown, width: wide, height: high }
}
/** The strip at the foot takes from the height, whichever side that is. */
const TURN_SLACK = 0.16
