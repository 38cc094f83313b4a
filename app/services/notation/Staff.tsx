import { itemAt, theOne } from '../../../core/lists'
import { memo, useEffect, useLayoutEffect, useRef } from 'react'
import { placeKey } from '../../../core/melody/melodyLine'
import { pitchName, type Pitch } from '../../../core/pitch/note'
import type { Key } from '../../../core/pitch/key'
import { scaleNotes } from '../../../core/pitch/key'
import { beatInWords } from '../../../core/chart/beats'
import type { Bar } from '../../../core/chart/chart'
import type { NoteReading } from '../../../core/melody/melodyReading'
import type { Piece } from '../../../core/melody/clock'
import { engraved } from '../../../core/chord/engraved'
import { drawStaff, LINE_GAP, noteId, STAFF_HEIGHT, TOP_LINE } from './drawStaff'
import { DrawnBefore } from './drawnBefore'
import type { Over } from './melodyShown'

interface Props {
  bars: readonly Bar[]
  pieces: readonly Piece[]
  songKey: Key
  width: number
  edges: readonly number[]
  x: (bar: number, beat: number) => number
  showMeter: boolean
  over: Over
  phraseStarts: ReadonlySet<string>
  selected: string | null
  sounding: string | null
  /**
   * Where the next note comes, in pixels, while notes are put in; null where it is not in this
   * system.
   */
  caret: number | null
  writing: boolean
  /** Parts of a beat that notes go to, shown while they are put in. */
  grid: number
  onSelect: (key: string) => void
  /** A place on the staff was touched while notes are put in. */
  onPut: (barIndex: number, share: number, pitch: Pitch) => void
}

/** F5 is written on the highest line; a guitar sounds it an octave lower. */
const TOP_LINE_STEP = 5 * 7 + 3 - 7
/** Heard over a chord so, a note fights it. */
const FIGHTS: readonly string[] = ['avoid', 'sour']

/** Engraving a system takes some 8 ms: whoever comes back to the step sees its staves at once. */
const DRAWN = new DrawnBefore<HTMLElement>()

/**
 * The melody on a staff under its bars: notes to touch, what each is over the new chord, where
 * phrases begin, and the caret.
 */
export const Staff = memo(function Staff({
  bars,
  pieces,
  songKey,
  width,
  edges,
  x,
  showMeter,
  over,
  phraseStarts,
  selected,
  sounding,
  caret,
  writing,
  grid,
  onSelect,
  onPut,
}: Props) {
  const drawing = useDrawing({ bars, pieces, key: songKey, edges, x, width, showMeter }, selected, sounding)

  const place = (event: React.MouseEvent<SVGSVGElement>) => {
    if (!writing) return
    const box = event.currentTarget.getBoundingClientRect()
    const [px, py] = [event.clientX - box.left, event.clientY - box.top]
    const at = bars.findIndex((_, index) => px >= itemAt(edges, index) && px < itemAt(edges, index + 1))
    if (at < 0) return
    const step = TOP_LINE_STEP - Math.round((py - TOP_LINE) / (LINE_GAP / 2))
    const note = theOne(scaleNotes(songKey), ({ letter }) => letter === ((step % 7) + 7) % 7)
    onPut(
      at,
      (px - x(at, itemAt(bars, at).from)) /
        (x(at, itemAt(bars, at).from + itemAt(bars, at).beats) - x(at, itemAt(bars, at).from)),
      { ...note, octave: Math.floor(step / 7) },
    )
  }
  const heads = pieces.filter(({ tiedFrom }) => !tiedFrom)
  return (
    <div className={writing ? 'staff writing' : 'staff'} style={{ height: STAFF_HEIGHT }}>
      <div ref={drawing} className="staff-drawing" aria-hidden />
      <svg
        className="staff-over"
        width={width}
        height={STAFF_HEIGHT}
        role="group"
        aria-label={staffInWords(heads)}
        onClick={place}
      >
        {writing &&
          bars.map((bar, at) =>
            Array.from({ length: Math.round(bar.beats * grid) }, (_, part) => (
              <path
                key={`${bar.number}:${part}`}
                className="staff-grid"
                d={`M${x(at, bar.from + part / grid) + 6} ${TOP_LINE + 4 * LINE_GAP + 4}v${part % grid === 0 ? 8 : 4}`}
              />
            )),
          )}
        {caret !== null && (
          <path className="staff-caret" d={`M${caret} ${TOP_LINE - 14}v${4 * LINE_GAP + 28}m-5 5l5 -6l5 6`} />
        )}
        {heads.map((piece) => {
          const key = placeKey(piece)
          return (
            <StaffNote
              key={key}
              piece={piece}
              x={x(
                bars.findIndex(({ number }) => number === piece.bar),
                piece.beat,
              )}
              heard={over.get(key)?.made ?? null}
              begins={phraseStarts.has(key)}
              selected={key === selected}
              onSelect={() => onSelect(key)}
            />
          )
        })}
      </svg>
    </div>
  )
})

/**
 * Has the staff drawn where it is returned, anew only when its picture is another, and marks the
 * notes that are selected and sound.
 */
function useDrawing(
  drawn: Parameters<typeof drawStaff>[1],
  selected: string | null,
  sounding: string | null,
) {
  const { bars, pieces, edges, width, showMeter } = drawn
  const drawing = useRef<HTMLDivElement>(null)
  const picture = JSON.stringify([
    bars.map(({ slots: _, source: __, ...bar }) => bar),
    pieces,
    drawn.key,
    edges,
    width,
    showMeter,
  ])
  const drawnPicture = useRef<string | null>(null)
  useLayoutEffect(() => {
    const before = DRAWN.take(picture)
    if (!before) return
    drawing.current!.replaceChildren(before)
    drawnPicture.current = picture
  }, [picture])
  useEffect(() => {
    if (drawnPicture.current === picture) return
    let left = false
    const element = drawing.current!
    // Drawn aside and put in when it stands, so that no half of a picture is seen.
    const aside = document.createElement('div')
    aside.className = 'staff-drawn'
    aside.style.position = 'absolute'
    element.append(aside)
    void drawStaff(aside, drawn).then(() => {
      if (left) return
      element.replaceChildren(aside)
      drawnPicture.current = picture
      DRAWN.keep(picture, aside)
    })
    return () => {
      left = true
      if (element.childElementCount > 1) aside.remove()
    }
    // oxlint-disable-next-line react/exhaustive-deps -- everything drawn is in the picture
  }, [picture])
  useEffect(() => {
    const mark = () =>
      drawing.current?.querySelectorAll('.vf-stavenote').forEach((note) => {
        note.classList.toggle('selected', selected !== null && note.id === `vf-${noteId(selected)}`)
        note.classList.toggle('sounding', sounding !== null && note.id === `vf-${noteId(sounding)}`)
      })
    mark()
    const watch = new MutationObserver(mark)
    watch.observe(drawing.current!, { childList: true, subtree: true })
    return () => watch.disconnect()
  }, [selected, sounding])
  return drawing
}

interface StaffNoteProps {
  piece: Piece
  x: number
  /** What it is over the new chord; null before that is read. */
  heard: NoteReading | null
  /** A phrase begins here. */
  begins: boolean
  selected: boolean
  onSelect: () => void
}

/** A note to touch, with what it is over its chord. */
function StaffNote({ piece, x, heard, begins, selected, onSelect }: StaffNoteProps) {
  const fights = FIGHTS.includes(heard?.heard ?? '')
  const y =
    TOP_LINE + (TOP_LINE_STEP - (piece.note.note.octave * 7 + piece.note.note.letter)) * (LINE_GAP / 2)
  return (
    <g className={`staff-note${selected ? ' selected' : ''}`}>
      {begins && <path className="phrase-mark" d={`M${x - 3} 8v-5h14`} />}
      <rect
        x={x - 6}
        width={24}
        y={y - 12}
        height={24}
        onClick={(event) => {
          event.stopPropagation()
          onSelect()
        }}
      >
        <title>{`${pitchName(piece.note.note)}${heard?.degree ? `, ${heard.degree} of ${heard.chord!.canonical}, ${heard.heard}` : ''}`}</title>
      </rect>
      {heard?.degree && (
        <text className={fights ? 'staff-degree fights' : 'staff-degree'} x={x + 6} y={STAFF_HEIGHT - 4}>
          {engraved(heard.degree)}
          {fights && heard!.remedies[0]?.kind !== 'passing note' ? '!' : ''}
        </text>
      )}
    </g>
  )
}

const staffInWords = (pieces: readonly Piece[]): string =>
  pieces.length === 0
    ? 'Melody: rests'
    : `Melody: ${pieces.map(({ note: { note }, bar, beat }) => `${pitchName(note)} on bar ${bar} ${beatInWords(beat)}`).join('; ')}`
