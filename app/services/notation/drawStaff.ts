import type { Bar } from '../../../core/chart/chart'
import type { Piece } from '../../../core/melody/clock'
import { placeKey } from '../../../core/melody/melodyLine'
import type { Key } from '../../../core/pitch/key'
import { engraveStaff } from '../../../paper/staff'

export { LINE_GAP } from '../../../paper/staff'

/** Height of the staff's picture, and where its highest line lies. */
export const STAFF_HEIGHT = 128
export const TOP_LINE = 52

export interface MelodyStaff {
  bars: readonly Bar[]
  pieces: readonly Piece[]
  key: Key
  /** A bar's left and right edge, and a beat's place, in pixels. */
  edges: readonly number[]
  x: (bar: number, beat: number) => number
  width: number
  /** The signature of time is drawn in front of the first bar. */
  showMeter: boolean
}

/**
 * Draws the melody with a notation library: guitar pitch, an octave above what sounds. Every note
 * carries its place as an id, so that the page can mark it.
 * @returns once the picture stands; nothing is drawn when the element is gone by then
 */
export async function drawStaff(
  element: HTMLDivElement,
  { pieces, width, ...picture }: MelodyStaff,
): Promise<void> {
  const vexflow = await import('vexflow')
  if (!element.isConnected) return
  element.replaceChildren()
  const renderer = new vexflow.Renderer(element, vexflow.Renderer.Backends.SVG)
  renderer.resize(width, STAFF_HEIGHT)
  const items = pieces.map((piece) => ({
    ...piece,
    pitches: [{ ...piece.note.note, octave: piece.note.note.octave + 1 }],
    id: noteId(placeKey(piece)),
  }))
  engraveStaff(vexflow, renderer.getContext(), { ...picture, items, clef: 'guitar', topLine: TOP_LINE })
}

export const noteId = (key: string): string => `note-${key.replace(/[:.]/g, '-')}`
