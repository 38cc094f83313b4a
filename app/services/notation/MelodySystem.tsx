import { itemAt, lastOf } from '../../../core/lists'
import { NEAR } from '../../../core/chart/beats'
import { memo, useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { Pitch } from '../../../core/pitch/note'
import { signatureOf, type Key } from '../../../core/pitch/key'
import { SILENT } from '../../../core/melody/melodyLine'
import { Threads, type ThreadChord } from './Threads'
import { across, unitsOf, type System } from './systemLayout'
import { Staff } from './Staff'
import { TabStrip } from './TabStrip'
import type { MelodyDrawn } from './melodyShown'
import type { EventShown } from './melodyShown'

/** What the systems of the Melody step show and do; the same object while nothing of it changes. */
export interface MelodyShown {
  view: MelodyDrawn
  songKey: Key
  strings: number
  capo: number
  sounding: string | null
  writing: boolean
  grid: number
  caret: { bar: number; beat: number } | null
  threads: boolean
  onSelect: (key: string) => void
  onPut: (place: { bar: number; share: number }, pitch: Pitch) => void
}

/**
 * Room for the clef and the signature in front of the first bar; every row of the step keeps it
 * free.
 */
export const gutterFor = (key: Key): number => 84 + 9 * Math.abs(signatureOf(key))
/** A note stands so far behind the left edge of its beat. */
const INSET = 10
const NOTHING_DRAGGED = () => {}
/**
 * How wide the system measured last was, in px: the next one is drawn at once, and anew only if it
 * is of another width.
 */
let lastWidth = 0

/**
 * The melody of one system: staff, threads of the chord melody, tablature, each beat under the bar
 * it belongs to.
 */
export const MelodySystem = memo(function MelodySystem({
  system,
  first,
  range,
  shown,
}: {
  system: System
  first: boolean
  range: readonly [number, number]
  shown: MelodyShown
}) {
  const {
    view: { pieces, events, over, phrases, selected, clock },
    songKey,
    strings,
    capo,
    sounding,
    writing,
    grid,
    caret,
    threads,
    onSelect,
    onPut,
  } = shown
  const { frame, width, gutter, inner, edges, x } = useGeometry(system, songKey)
  const put = useCallback(
    (bar: number, share: number, pitch: Pitch) =>
      onPut({ bar: itemAt(system.bars, bar).number, share: Math.max(0, Math.min(1, share)) }, pitch),
    [system, onPut],
  )
  const at = useCallback(
    ({ made: { bar, beat } }: EventShown) =>
      x(
        system.bars.findIndex(({ number }) => number === bar),
        beat,
      ),
    [system, x],
  )
  // What stands in this system is the same object while nothing of it changes, so that a note gone
  // to in another system does not draw this one again.
  const inHere = useMemo(() => {
    const numbers = new Set(system.bars.map(({ number }) => number))
    return ({ bar }: { bar: number }) => numbers.has(bar)
  }, [system])
  const piecesHere = useMemo(() => pieces.filter(inHere), [pieces, inHere])
  const inside = useMemo(() => events.filter(({ made }) => inHere(made)), [events, inHere])
  const starts = useMemo(() => startsOf(phrases.filter(({ from }) => inHere(from))), [phrases, inHere])
  const chords = useMemo(
    () => threadsIn(system, clock, inside, at, { right: lastOf(edges), gutter, inner }),
    [system, clock, edges, gutter, inner, inside, at],
  )
  const isHere = (key: string | null) => key !== null && inHere({ bar: Number(key.split(':')[0]) })
  const selectedHere = isHere(selected) ? selected : null
  const soundingHere = isHere(sounding) ? sounding : null
  const caretHere =
    caret && inHere(caret)
      ? x(
          system.bars.findIndex(({ number }) => number === caret.bar),
          caret.beat,
        )
      : null
  return (
    <div ref={frame} className="melody-system">
      {width > 0 && (
        <>
          <Staff
            bars={system.bars}
            pieces={piecesHere}
            songKey={songKey}
            width={width}
            edges={edges}
            x={x}
            showMeter={first}
            over={over}
            phraseStarts={starts}
            selected={selectedHere}
            sounding={soundingHere}
            caret={caretHere}
            writing={writing}
            grid={grid}
            onSelect={onSelect}
            onPut={put}
          />
          {threads && chords.length > 0 && (
            <div style={{ paddingLeft: gutter }}>
              <Threads
                chords={chords}
                wide={unitsOf(system)}
                onward={null}
                range={range}
                selected={selectedHere}
                taken={null}
                onSelect={onSelect}
                onTake={onSelect}
                onDrag={NOTHING_DRAGGED}
              />
            </div>
          )}
          {inside.length > 0 && (
            <TabStrip
              events={inside}
              before={events[(inside[0]?.index ?? 0) - 1]}
              strings={strings}
              capo={capo}
              width={width}
              left={gutter}
              edges={edges}
              at={at}
              selected={selectedHere}
              sounding={soundingHere}
              onSelect={onSelect}
            />
          )}
        </>
      )}
    </div>
  )
})

/** How wide a system is, and where its bars and beats stand. */
function useGeometry(system: System, songKey: Key) {
  const frame = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(lastWidth)
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => {
      lastWidth = Math.floor(entry!.contentRect.width)
      setWidth(lastWidth)
    })
    watch.observe(frame.current!)
    return () => watch.disconnect()
  }, [])
  const gutter = gutterFor(songKey)
  const inner = width - gutter
  const edges = useMemo(() => system.edges.map((edge) => gutter + edge * inner), [system, gutter, inner])
  const x = useCallback(
    (bar: number, beat: number) => {
      const [left, right] = [
        gutter + across(system, bar, itemAt(system.bars, bar).from) * inner,
        gutter + (system.edges[bar + 1] ?? 1) * inner,
      ]
      const share = (beat - itemAt(system.bars, bar).from) / (itemAt(system.bars, bar).beats || 1)
      return left + INSET + share * (right - left - INSET)
    },
    [system, gutter, inner],
  )
  return { frame, width, gutter, inner, edges, x }
}

/**
 * The grips of a system as its threads draw them: from each event to the next, the last one as long
 * as it lasts.
 */
function threadsIn(
  system: System,
  clock: MelodyShown['view']['clock'],
  inside: readonly EventShown[],
  at: (event: EventShown) => number,
  { right, gutter, inner }: { right: number; gutter: number; inner: number },
): ThreadChord[] {
  const last = lastOf(system.bars)
  const end = clock.at({ bar: last.number, beat: last.from }) + clock.lasts(last.number, last.beats)
  const share = (px: number) => (px - gutter) / Math.max(1, inner)
  const until = (event: EventShown) => {
    const part = (event.to - event.from) / Math.max(NEAR, end - event.from)
    return event.to >= end - NEAR ? right : Math.min(right, at(event) + part * (right - at(event)))
  }
  return inside.map((event, index) => {
    const next = inside[index + 1]
    return {
      key: event.key,
      from: share(at(event) - INSET),
      to: share(next ? at(next) - INSET : until(event)),
      chord: event.made.chord ?? SILENT,
      voicing: event.made.voicing,
      ...(event.made.note ? { melody: true } : {}),
    }
  })
}

/** Where phrases begin, as notes are known. */
const startsOf = (phrases: MelodyShown['view']['phrases']): Set<string> =>
  new Set(phrases.map(({ from }) => `${from.bar}:${Math.round(from.beat * 1000) / 1000}`))
