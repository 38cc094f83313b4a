import { NEAR_WRITTEN } from '../../../core/chart/beats'
import { DIVISIONS, noteValues } from '../../../core/formats/noteValues'
import type { Bar } from '../../../core/chart/chart'
import type { Piece } from '../../../core/melody/clock'
import { placeKey } from '../../../core/melody/line'
import { keyName, type Key } from '../../../core/pitch/key'

/** Height of the staff's picture, and where its highest line lies. */
export const STAFF_HEIGHT = 128
export const TOP_LINE = 52
/** Distance of two lines. */
export const LINE_GAP = 10
/** The library's own distance from the top of a stave to its highest line. */
const HEADROOM = 40

const DURATIONS: Readonly<Record<string, string>> = {
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: '8',
  '16th': '16',
}
const LETTERS = 'cdefgab'
const ACCIDENTALS: Readonly<Record<string, string>> = { '-2': 'bb', '-1': 'b', '0': '', '1': '#', '2': '##' }

export interface StaffPicture {
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
 * Draws the melody with a notation library: guitar pitch, an octave above what sounds. Every note carries its place as an id, so that the page can mark it.
 * @returns once the picture stands; nothing is drawn when the element is gone by then
 */
export async function drawStaff(
  element: HTMLDivElement,
  { bars, pieces, key, edges, x, width, showMeter }: StaffPicture,
): Promise<void> {
  const { Accidental, Beam, Dot, Formatter, Fraction, Renderer, Stave, StaveNote, StaveTie, Tuplet, Voice } =
    await import('vexflow')
  if (!element.isConnected) return
  element.replaceChildren()
  const renderer = new Renderer(element, Renderer.Backends.SVG)
  renderer.resize(width, STAFF_HEIGHT)
  const context = renderer.getContext()
  const top = TOP_LINE - HEADROOM
  const signature = keyName(key)
  const head = new Stave(0, top, edges[0]!).addClef('treble', 'default', '8vb').addKeySignature(signature)
  if (showMeter && bars[0]) head.addTimeSignature(`${bars[0].meter.beats}/${bars[0].meter.unit}`)
  head.setEndBarType(1)
  head.setContext(context).draw()
  // A tie may lead on from the bar before.
  let tiedFrom: InstanceType<typeof StaveNote> | null = null
  bars.forEach((bar, index) => {
    const stave = new Stave(edges[index]!, top, edges[index + 1]! - edges[index]!)
    stave.setBegBarType(bar.opensRepeat ? 4 : 7).setEndBarType(bar.played > 0 ? 5 : 1)
    stave.setContext(context).draw()
    const here = pieces.filter((piece) => piece.bar === bar.number).sort((a, b) => a.beat - b.beat)
    const inBar: { note: InstanceType<typeof StaveNote>; beat: number; rest: boolean; triplet: number }[] = []
    const ties: [InstanceType<typeof StaveNote> | null, InstanceType<typeof StaveNote> | null][] = []
    const quarters = (beats: number) => Math.round((beats * 4 * DIVISIONS) / bar.meter.unit)
    const add = (beat: number, beats: number, piece: Piece | null) => {
      let at = beat
      const values = noteValues(quarters(beats)).filter(({ type }) => type !== null)
      values.forEach((value, order) => {
        const note = new StaveNote({
          keys: [piece ? keyOf(piece) : 'b/4'],
          duration: `${DURATIONS[value.type!]!}${piece ? '' : 'r'}`,
          dots: value.dots,
          clef: 'treble',
          auto_stem: true,
        })
        if (piece && order === 0 && !piece.tiedFrom) note.setAttribute('id', noteId(placeKey(piece)))
        for (let dot = 0; dot < value.dots; dot += 1) Dot.buildAndAttach([note])
        note.setStave(stave)
        inBar.push({ note, beat: at, rest: piece === null, triplet: value.triplet ? value.length : 0 })
        if (piece && (order > 0 || piece.tiedFrom))
          ties.push([order > 0 ? inBar.at(-2)!.note : tiedFrom, note])
        at += (value.length * bar.meter.unit) / (4 * DIVISIONS)
      })
      if (piece) tiedFrom = piece.tiedOn ? (inBar.at(-1)?.note ?? null) : null
    }
    let beat = bar.from
    for (const piece of here) {
      if (piece.beat > beat + NEAR_WRITTEN) add(beat, piece.beat - beat, null)
      add(piece.beat, piece.beats, piece)
      beat = piece.beat + piece.beats
    }
    if (here.length > 0 && beat < bar.from + bar.beats - NEAR_WRITTEN)
      add(beat, bar.from + bar.beats - beat, null)
    if (here.length === 0) {
      const rest = new StaveNote({ keys: ['d/5'], duration: 'wr', clef: 'treble' })
      rest.setStave(stave)
      inBar.push({ note: rest, beat: bar.from, rest: true, triplet: 0 })
    }
    const notes = inBar.map(({ note }) => note)
    const voice = new Voice({ num_beats: bar.beats, beat_value: bar.meter.unit })
      .setStrict(false)
      .addTickables(notes)
    Accidental.applyAccidentals([voice], signature)
    // Brackets first: they change how long the notes are, and beams go by that.
    const tuplets = tripletsIn(inBar).map(
      (group) => new Tuplet(group, { num_notes: 3, notes_occupied: 2, location: 1 }),
    )
    const beams = Beam.generateBeams(
      notes.filter((_, at) => !inBar[at]!.rest),
      {
        groups:
          bar.meter.unit === 8 && bar.meter.beats % 3 === 0 ? [new Fraction(3, 8)] : [new Fraction(1, 4)],
      },
    )
    new Formatter().joinVoices([voice]).format([voice], Math.max(10, edges[index + 1]! - edges[index]! - 20))
    inBar.forEach(({ note, beat: place, rest }) => {
      const tick = note.getTickContext()
      const offset = note.getAbsoluteX() - tick.getX()
      const middle = rest && here.length === 0
      tick.setX((middle ? (edges[index]! + edges[index + 1]!) / 2 - 8 : x(index, place)) - offset)
    })
    voice.draw(context, stave)
    beams.forEach((beam) => beam.setContext(context).draw())
    tuplets.forEach((tuplet) => tuplet.setContext(context).draw())
    ties.forEach(([first, last]) =>
      new StaveTie({
        ...(first ? { first_note: first } : {}),
        ...(last ? { last_note: last } : {}),
        first_indices: [0],
        last_indices: [0],
      })
        .setContext(context)
        .draw(),
    )
  })
}

/** Guitar is written an octave above what sounds. */
const keyOf = ({
  note: {
    note: { letter, alter, octave },
  },
}: Piece): string => `${LETTERS[letter]!}${ACCIDENTALS[String(alter)] ?? ''}/${octave + 1}`

export const noteId = (key: string): string => `note-${key.replace(/[:.]/g, '-')}`

/** Notes of triplets in brackets that fill a beat, or two. */
function tripletsIn<Note>(notes: readonly { note: Note; triplet: number }[]): Note[][] {
  const groups: Note[][] = []
  let open: Note[] = []
  let length = 0
  for (const { note, triplet } of notes) {
    if (triplet === 0) {
      if (open.length > 1) groups.push(open)
      open = []
      length = 0
      continue
    }
    open.push(note)
    length += triplet
    if (length % DIVISIONS === 0) {
      groups.push(open)
      open = []
      length = 0
    }
  }
  return open.length > 1 ? [...groups, open] : groups
}
