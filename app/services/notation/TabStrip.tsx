import { itemAt } from '../../../core/lists'
import { memo } from 'react'
import type { ChordSymbol } from '../../../core/chord/symbol'
import { ChordName } from './ChordName'
import type { EventShown } from './melodyShown'

interface Props {
  events: readonly EventShown[]
  /** The event before the first of these, in the system above. */
  before: EventShown | undefined
  strings: number
  /** With a capo frets are counted from it, as the hand finds them. */
  capo: number
  width: number
  left: number
  edges: readonly number[]
  at: (event: EventShown) => number
  selected: string | null
  sounding: string | null
  onSelect: (key: string) => void
}

const GAP = 11
const TOP = 8
/** Width of a figure. */
const DIGIT = 6

/**
 * The chord melody as tablature, the highest string on top, with the chords above: what is struck
 * stands as its fret; what is held on does not stand again.
 */
export const TabStrip = memo(function TabStrip({
  events,
  before,
  strings,
  capo,
  width,
  left,
  edges,
  at,
  selected,
  sounding,
  onSelect,
}: Props) {
  const height = TOP * 2 + (strings - 1) * GAP
  const y = (string: number) => TOP + (strings - 1 - string) * GAP
  const named = (index: number): ChordSymbol | null => {
    const { chord } = itemAt(events, index).made
    const last = (events[index - 1] ?? before)?.made.chord
    return chord && chord.tones.length > 0 && chord.canonical !== last?.canonical ? chord : null
  }
  return (
    <div className="tab-strip">
      <div className="tab-chords">
        {events.map((event, index) => {
          const chord = named(index)
          return (
            chord && (
              <span key={event.key} style={{ left: at(event) - 4 }}>
                <ChordName chord={chord} />
                {event.fixed && <span className="by-hand">by hand</span>}
              </span>
            )
          )
        })}
      </div>
      <svg width={width} height={height} role="group" aria-label="Tablature of the chord melody">
        {Array.from({ length: strings }, (_, string) => (
          <line key={string} className="tab-line" x1={left} x2={edges.at(-1)} y1={y(string)} y2={y(string)} />
        ))}
        {edges.map((edge) => (
          <line key={edge} className="tab-line" x1={edge} x2={edge} y1={y(strings - 1)} y2={y(0)} />
        ))}
        {events.map((event) => {
          const { voicing, under, note } = event.made
          const highest = voicing.midis.at(-1)
          const sung = note ? voicing.strings.find(({ midi }) => midi === highest) : undefined
          const fretOn = (string: number) => Math.max(0, (voicing.frets[string] ?? 0) - capo)
          const struck = voicing.strings.filter(({ midi }) => {
            if (under === 'held') return midi === highest
            if (under === 'line') return midi !== highest
            return true
          })
          return (
            <g
              key={event.key}
              className={`tab-event${event.key === selected ? ' selected' : ''}${event.key === sounding ? ' sounding' : ''}`}
              aria-current={event.key === sounding || undefined}
              onClick={() => onSelect(event.key)}
            >
              <rect x={at(event) - 8} width={22} y={0} height={height}>
                <title>{tabInWords(event)}</title>
              </rect>
              {struck.map(({ string }) => (
                <text
                  key={string}
                  className={string === sung?.string ? 'tab-fret melody' : 'tab-fret'}
                  x={at(event)}
                  y={y(string) + 4}
                >
                  {fretOn(string)}
                </text>
              ))}
              {sung && under !== 'line' && (
                <path
                  className="tab-melody"
                  d={`M${at(event)} ${y(sung.string) + 5.5}h${DIGIT * String(fretOn(sung.string)).length}`}
                />
              )}
            </g>
          )
        })}
      </svg>
    </div>
  )
})

const tabInWords = ({ made: { chord, kind, voicing } }: EventShown): string =>
  `${chord && chord.tones.length > 0 ? chord.canonical : 'alone'}, ${kind}; frets from the lowest string: ${voicing.frets.map((fret) => fret ?? 'x').join(' ')}`
