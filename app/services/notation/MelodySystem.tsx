import { NEAR } from '../../../core/chart/beats'
import { memo, useCallback, useEffect, useRef, useState } from 'react'
import type { Pitch } from '../../../core/pitch/note'
import { signatureOf, type Key } from '../../../core/pitch/key'
import { SILENT } from '../../../core/melody/line'
import { Threads, type ThreadChord } from './Threads'
import { across, type System } from './layout'
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

/** Room for the clef and the signature in front of the first bar; every row of the step keeps it free. */
export const gutterFor = (key: Key): number => 84 + 9 * Math.abs(signatureOf(key))
/** A note stands so far behind the left edge of its beat. */
const INSET = 10

/** The melody of one system: staff, threads of the chord melody, tablature, each beat under the bar it belongs to. */
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
  const frame = useRef<HTMLDivElement>(null)
  const [width, setWidth] = useState(0)
  useEffect(() => {
    const watch = new ResizeObserver(([entry]) => setWidth(Math.floor(entry!.contentRect.width)))
    watch.observe(frame.current!)
    return () => watch.disconnect()
  }, [])
  const gutter = gutterFor(songKey)
  const inner = width - gutter
  const edges = system.edges.map((edge) => gutter + edge * inner)
  const x = useCallback(
    (bar: number, beat: number) => {
      const [left, right] = [
        gutter + across(system, bar, system.bars[bar]!.from) * inner,
        gutter + (system.edges[bar + 1] ?? 1) * inner,
      ]
      const share = (beat - system.bars[bar]!.from) / (system.bars[bar]!.beats || 1)
      return left + INSET + share * (right - left - INSET)
    },
    [system, gutter, inner],
  )
  const put = useCallback(
    (bar: number, share: number, pitch: Pitch) =>
      onPut({ bar: system.bars[bar]!.number, share: Math.max(0, Math.min(1, share)) }, pitch),
    [system, onPut],
  )
  const numbers = new Set(system.bars.map(({ number }) => number))
  const inside = events.filter(({ made }) => numbers.has(made.bar))
  const before = events[(inside[0]?.index ?? 0) - 1]
  const barOf = (number: number) => system.bars.findIndex((bar) => bar.number === number)
  const at = (event: EventShown) => x(barOf(event.made.bar), event.made.beat)
  const starts = new Set(phrases.map(({ from }) => `${from.bar}:${Math.round(from.beat * 1000) / 1000}`))
  const caretHere = caret && numbers.has(caret.bar) ? x(barOf(caret.bar), caret.beat) : null
  const end =
    clock.at({ bar: system.bars.at(-1)!.number, beat: system.bars.at(-1)!.from }) +
    clock.lasts(system.bars.at(-1)!.number, system.bars.at(-1)!.beats)
  const share = (px: number) => (px - gutter) / Math.max(1, inner)
  const chords = inside.map((event, index): ThreadChord => {
    const next = inside[index + 1]
    const chord = event.made.chord
    return {
      key: event.key,
      from: share(at(event) - INSET),
      to: next
        ? share(at(next) - INSET)
        : share(
            event.to >= end - NEAR
              ? edges.at(-1)!
              : Math.min(
                  edges.at(-1)!,
                  at(event) +
                    ((event.to - event.from) / Math.max(NEAR, end - event.from)) *
                      (edges.at(-1)! - at(event)),
                ),
          ),
      chord: chord ?? SILENT,
      voicing: event.made.voicing,
      ...(event.made.note ? { melody: true } : {}),
    }
  })
  return (
    <div ref={frame} className="melody-system">
      {width > 0 && (
        <>
          <Staff
            bars={system.bars}
            pieces={pieces.filter(({ bar }) => numbers.has(bar))}
            songKey={songKey}
            width={width}
            edges={edges}
            x={x}
            showMeter={first}
            over={over}
            phraseStarts={starts}
            selected={selected}
            sounding={sounding}
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
                onward={null}
                range={range}
                selected={selected}
                taken={null}
                onSelect={onSelect}
                onTake={onSelect}
                onDrag={() => {}}
              />
            </div>
          )}
          {inside.length > 0 && (
            <TabStrip
              events={inside}
              before={before}
              strings={strings}
              capo={capo}
              width={width}
              left={gutter}
              edges={edges}
              at={at}
              selected={selected}
              sounding={sounding}
              onSelect={onSelect}
            />
          )}
        </>
      )}
    </div>
  )
})
