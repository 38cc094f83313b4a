import { firstOf, itemAt } from '../core/lists'
import { NEAR_WRITTEN } from '../core/chart/beats'
import type { Bar } from '../core/chart/chart'
import { DIVISIONS, noteValues } from '../core/formats/noteValues'
import { keyName, type Key } from '../core/pitch/key'
import type { Pitch } from '../core/pitch/note'
import type { RenderContext, StaveNote } from 'vexflow'

type VexFlow = typeof import('vexflow')

/**
 * The notation library's own units: the distance of two lines, and from the top of a stave to its
 * highest line.
 */
export const LINE_GAP = 10
export const HEADROOM = 40

/**
 * Clefs of the sheets: guitar is written an octave above what sounds, rhythm stands on one line.
 */
export type StaffClef = 'guitar' | 'treble' | 'bass' | 'rhythm'

/** Something written inside one bar: a note, a chord, or a slash where it has no pitch. */
export interface StaffItem {
  bar: number
  beat: number
  beats: number
  /** As written. */
  pitches: readonly Pitch[]
  tiedFrom: boolean
  tiedOn: boolean
  accent?: boolean
  short?: boolean
  /** Given to the note that is drawn, so that it can be found again. */
  id?: string
}

export interface StaffPicture {
  bars: readonly Bar[]
  items: readonly StaffItem[]
  /** The key in force at the first bar. */
  key: Key
  clef: StaffClef
  /** A bar's left and right edge, and a beat's place, in the library's units. */
  edges: readonly number[]
  x: (bar: number, beat: number) => number
  /** Where the highest line lies. */
  topLine: number
  /** The signature of time is drawn in front of the first bar. */
  showMeter: boolean
  /** Changes of key and metre are drawn in front of their bars, for which `x` leaves room. */
  changes?: boolean
  /** The number of the bar that ends the tune. */
  lastBar?: number | null
  /** Where the staff begins; its clef and signature stand from there to the first bar. */
  left?: number
}

const DURATIONS: Readonly<Record<string, string>> = {
  whole: 'w',
  half: 'h',
  quarter: 'q',
  eighth: '8',
  '16th': '16',
  '32nd': '32',
  '64th': '64',
}
const LETTERS = 'cdefgab'
const ACCIDENTALS: Readonly<Record<string, string>> = { '-2': 'bb', '-1': 'b', '0': '', '1': '#', '2': '##' }
const CLEFS = {
  guitar: { name: 'treble', annotation: '8vb', rest: 'b/4', bar: 'd/5' },
  treble: { name: 'treble', annotation: undefined, rest: 'b/4', bar: 'd/5' },
  bass: { name: 'bass', annotation: undefined, rest: 'd/3', bar: 'f/3' },
  rhythm: { name: 'treble', annotation: undefined, rest: 'b/4', bar: 'd/5' },
} as const
/** The library's numbers of bar lines. */
const BAR_LINES = { single: 1, end: 3, opens: 4, closes: 5, none: 7 } as const

interface PlacedOnStaff {
  note: StaveNote
  beat: number
  rest: boolean
  triplet: number
}

/** Draws one line of a staff with a notation library, every note over its beat. */
export function engraveStaff(
  {
    Accidental,
    Articulation,
    Beam,
    Dot,
    Formatter,
    Fraction,
    Stave,
    StaveNote: Note,
    StaveTie,
    Tuplet,
    Voice,
  }: VexFlow,
  context: RenderContext,
  {
    bars,
    items,
    key,
    clef,
    edges,
    x,
    topLine,
    showMeter,
    changes = false,
    lastBar = null,
    left = 0,
  }: StaffPicture,
): void {
  const top = topLine - HEADROOM
  const kind = CLEFS[clef]
  const isRhythm = clef === 'rhythm'
  const stave = (from: number, to: number) => {
    const one = new Stave(from, top, to - from)
    if (isRhythm)
      [0, 1, 3, 4].forEach((row) => {
        one.setConfigForLine(row, { visible: false })
      })
    return one
  }
  let signature = keyName(key)
  if (firstOf(edges) > left && !isRhythm) {
    const head = stave(left, firstOf(edges))
    head.addClef(kind.name, 'default', kind.annotation)
    head.addKeySignature(signature)
    const first = bars[0]
    if (showMeter && first) head.addTimeSignature(`${first.meter.beats}/${first.meter.unit}`)
    head.setEndBarType(BAR_LINES.single)
    head.setContext(context).draw()
  }
  // A tie may lead on from the bar before.
  let tiedFrom: StaveNote | null = null
  bars.forEach((bar, index) => {
    const own = stave(itemAt(edges, index), itemAt(edges, index + 1))
    own.setBegBarType(bar.opensRepeat && !isRhythm ? BAR_LINES.opens : BAR_LINES.none)
    own.setEndBarType(isRhythm ? BAR_LINES.none : endOf(bar, lastBar))
    if (changes && bar.newKey && !isRhythm) {
      if (index > 0) own.addKeySignature(keyName(bar.newKey), signature)
      signature = keyName(bar.newKey)
    }
    if (changes && bar.newMeter && index > 0 && !isRhythm)
      own.addTimeSignature(`${bar.meter.beats}/${bar.meter.unit}`)
    own.setContext(context).draw()
    const here = items.filter((item) => item.bar === bar.number).sort((a, b) => a.beat - b.beat)
    const inBar: PlacedOnStaff[] = []
    const ties: [StaveNote | null, StaveNote | null][] = []
    const quarters = (beats: number) => Math.round((beats * 4 * DIVISIONS) / bar.meter.unit)
    const add = (beat: number, beats: number, item: StaffItem | null) => {
      let at = beat
      const values = noteValues(quarters(beats)).filter(({ type }) => type !== null)
      values.forEach((value, order) => {
        const slash = item && item.pitches.length === 0 ? 's' : ''
        const note = new Note({
          keys: keysOf(item, kind.rest),
          duration: `${DURATIONS[value.type!]!}${item ? slash : 'r'}`,
          dots: value.dots,
          clef: kind.name,
          ...(isRhythm ? { stem_direction: 1 } : { auto_stem: true }),
        })
        const begins = item && order === 0 && !item.tiedFrom
        if (begins && item.id) note.setAttribute('id', item.id)
        if (begins && item.accent) note.addModifier(new Articulation('a>').setPosition(3), 0)
        if (begins && item.short) note.addModifier(new Articulation('a.').setPosition(isRhythm ? 4 : 3), 0)
        for (let dot = 0; dot < value.dots; dot += 1) Dot.buildAndAttach([note], { all: true })
        note.setStave(own)
        inBar.push({ note, beat: at, rest: item === null, triplet: value.triplet ? value.length : 0 })
        if (item && (order > 0 || item.tiedFrom)) ties.push([order > 0 ? inBar.at(-2)!.note : tiedFrom, note])
        at += (value.length * bar.meter.unit) / (4 * DIVISIONS)
      })
      if (item) tiedFrom = item.tiedOn ? (inBar.at(-1)?.note ?? null) : null
    }
    let beat = bar.from
    for (const item of here) {
      if (item.beat > beat + NEAR_WRITTEN) add(beat, item.beat - beat, null)
      add(item.beat, item.beats, item)
      beat = item.beat + item.beats
    }
    if (here.length > 0 && beat < bar.from + bar.beats - NEAR_WRITTEN)
      add(beat, bar.from + bar.beats - beat, null)
    if (here.length === 0) {
      const rest = new Note({ keys: [kind.bar], duration: 'wr', clef: kind.name })
      rest.setStave(own)
      inBar.push({ note: rest, beat: bar.from, rest: true, triplet: 0 })
    }
    const notes = inBar.map(({ note }) => note)
    const voice = new Voice({ num_beats: bar.beats, beat_value: bar.meter.unit })
      .setStrict(false)
      .addTickables(notes)
    if (!isRhythm) Accidental.applyAccidentals([voice], signature)
    // Brackets first: they change how long the notes are, and beams go by that.
    const tuplets = tripletsIn(inBar).map(
      (group) => new Tuplet(group, { num_notes: 3, notes_occupied: 2, location: 1 }),
    )
    const beams = Beam.generateBeams(
      notes.filter((_, at) => !itemAt(inBar, at).rest),
      {
        groups:
          bar.meter.unit === 8 && bar.meter.beats % 3 === 0 ? [new Fraction(3, 8)] : [new Fraction(1, 4)],
        ...(isRhythm ? { stem_direction: 1 } : {}),
      },
    )
    new Formatter()
      .joinVoices([voice])
      .format([voice], Math.max(10, itemAt(edges, index + 1) - itemAt(edges, index) - 20))
    inBar.forEach(({ note, beat: place, rest }) => {
      const tick = note.getTickContext()
      const offset = note.getAbsoluteX() - tick.getX()
      const middle = rest && here.length === 0
      tick.setX(
        (middle ? (itemAt(edges, index) + itemAt(edges, index + 1)) / 2 - 8 : x(index, place)) - offset,
      )
    })
    voice.draw(context, own)
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

function endOf(bar: Bar, lastBar: number | null): number {
  if (bar.played > 0) return BAR_LINES.closes
  return bar.number === lastBar ? BAR_LINES.end : BAR_LINES.single
}

const keysOf = (item: StaffItem | null, rest: string): string[] =>
  item && item.pitches.length > 0
    ? item.pitches.map(
        ({ letter, alter, octave }) =>
          `${itemAt(LETTERS, letter)}${ACCIDENTALS[String(alter)] ?? ''}/${octave}`,
      )
    : [rest]

/** Notes of triplets in brackets that fill a beat, or two. */
function tripletsIn(notes: readonly PlacedOnStaff[]): StaveNote[][] {
  const groups: StaveNote[][] = []
  let open: StaveNote[] = []
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
