import { itemAt, theOne } from '../../../core/lists'
import { memo, useRef, type ReactElement } from 'react'
import { tendenciesOf } from '../../../core/leading/measures'
import { voiceSteps } from '../../../core/pitch/motion'
import type { ChordSymbol } from '../../../core/chord/symbol'
import type { Degree } from '../../../core/pitch/degree'
import { pitchAt, pitchName } from '../../../core/pitch/note'
import type { Voicing } from '../../../core/voicing/voicing'
import { engraved } from '../../../core/chord/engraved'

/**
 * A chord on the threads: where it begins and ends across the picture (0 to 1), what it is and how
 * it is held.
 */
export interface ThreadChord {
  key: string
  from: number
  to: number
  chord: ChordSymbol
  voicing: Voicing
  /** The highest voice is the melody. */
  melody?: boolean
}

/**
 * A note that sounds from one place across the picture to another (0 to 1), as a voice of its grip,
 * counted from the lowest.
 */
export interface SoundedNote {
  from: number
  to: number
  midi: number
  voice: number
  voices: number
}

const PAD_TOP = 14
/** A voice that moves further than a whole step leaps. */
const STEP = 2
/** Height of one semitone. */
const SEMITONE = 5.4
/** Width kept free before the next chord for the thread to move in. */
const TURN = 26
const TONES = 6
/** Radius of the circle round a degree. */
const LABEL = 9

interface Props {
  chords: ThreadChord[]
  /** How wide the picture is, in its own units: a voice's label is 18 across. */
  wide: number
  /** What is struck, where threads show it: sounded time is drawn thick, the rest open. */
  sounded?: readonly SoundedNote[] | undefined
  /** The first chord of the next system, so that threads lead on over the edge. */
  onward: Pick<ThreadChord, 'voicing'> | null
  /** Lowest and highest MIDI number of the whole tune: every system has one scale. */
  range: readonly [number, number]
  selected: string | null
  /** The note that is taken hold of, by its string. */
  taken: { key: string; string: number } | null
  onSelect: (key: string) => void
  /** A note was touched: it is taken hold of. */
  onTake: (key: string, string: number) => void
  /** The note taken hold of is dragged so many semitones from where it was. */
  onDrag: (semitones: number) => void
}

/**
 * The voices of a line through time: pitch goes up, time goes right. Held tones stay unbroken,
 * leaps are dashed.
 */
export const Threads = memo(function Threads({
  chords,
  wide,
  sounded,
  onward,
  range,
  selected,
  taken,
  onSelect,
  onTake,
  onDrag,
}: Props) {
  const height = PAD_TOP * 2 + (range[1] - range[0]) * SEMITONE
  const y = (midi: number) => PAD_TOP + (range[1] - midi) * SEMITONE
  const marks: ReactElement[] = []
  const labels: ReactElement[] = []

  chords.forEach((here, index) => {
    const next = chords[index + 1] ?? onward
    const x0 = here.from * wide
    const x1 = here.to * wide
    const { midis } = here.voicing
    const steps = next ? stepsBetween(here, next.voicing.midis) : []
    const wants = chords[index + 1] ? tendenciesOf(here.chord, itemAt(chords, index + 1).chord) : []

    midis.forEach((midi, voice) => {
      const tone = here.melody && voice === midis.length - 1 ? 'melody-thread' : toneOf(voice, midis.length)
      const held = steps.some((step) => step.from === midi && step.semitones === 0)
      marks.push(
        <line
          key={`${here.key}n${voice}`}
          className={`thread ${tone}${sounded ? ' open' : ''}`}
          x1={x0 + 4}
          x2={held ? x1 + 4 : x1 - TURN}
          y1={y(midi)}
          y2={y(midi)}
        />,
      )
      const sounding = theOne(here.voicing.strings, (string) => string.midi === midi)
      labels.push(
        <VoiceLabel
          key={`${here.key}d${voice}`}
          x={x0 + LABEL * (1.2 + 2 * asideOf(midis, voice))}
          y={y(midi)}
          says={`${pitchName(pitchAt(midi, sounding.note))}, ${sounding.degree} of ${here.chord.canonical}`}
          degree={sounding.degree}
          selected={here.key === selected}
          taken={taken?.key === here.key && taken.string === sounding.string}
          onTake={() => onTake(here.key, sounding.string)}
          onDrag={onDrag}
        />,
      )
    })
    steps
      .filter((step) => step.semitones !== 0)
      .forEach((step, at) => {
        const leap = Math.abs(step.semitones) > STEP
        const tone =
          here.melody && step.from === midis.at(-1)
            ? 'melody-thread'
            : toneOf(midis.indexOf(step.from), midis.length)
        const resolves = wants[step.from % 12]?.includes(step.semitones) ?? false
        marks.push(
          <line
            key={`${here.key}s${at}`}
            className={`thread-move ${leap ? 'leap' : 'step'} ${tone}${sounded ? ' open' : ''}`}
            x1={x1 - TURN}
            y1={y(step.from)}
            x2={x1 + 4}
            y2={y(step.to)}
          />,
        )
        if (leap && (!here.melody || (x1 - x0 > ROOM_FOR_SIZE && step.from === midis.at(-1))))
          labels.push(
            <text
              key={`${here.key}l${at}`}
              className="thread-leap"
              x={x1 - TURN / 2}
              y={(y(step.from) + y(step.to)) / 2 - 3}
            >
              {Math.abs(step.semitones)}
            </text>,
          )
        if (resolves) marks.push(notch(`${here.key}r${at}`, tone, x1, y(step.to)))
      })
  })

  return (
    <svg className="threads" viewBox={`0 0 ${wide} ${height}`} role="img" aria-label={threadsInWords(chords)}>
      {chords.map((chord) => (
        <rect
          key={chord.key}
          className={`thread-column${chord.key === selected ? ' selected' : ''}`}
          x={chord.from * wide}
          width={(chord.to - chord.from) * wide}
          y={0}
          height={height}
          onClick={() => onSelect(chord.key)}
        />
      ))}
      {marks}
      {sounded?.map(({ from, to, midi, voice, voices }) => (
        <line
          key={`${from} ${midi}`}
          className={`thread sounded ${toneOf(voice, voices)}`}
          x1={from * wide + 2}
          x2={Math.max(from * wide + 5, to * wide - 3)}
          y1={y(midi)}
          y2={y(midi)}
        />
      ))}
      {labels}
    </svg>
  )
})

/** A voice that resolves as its chord wants. */
const notch = (key: string, tone: string, x: number, y: number) => (
  <path key={key} className={`thread-notch ${tone}`} d={`M${x - 3} ${y - 6}v12`} />
)

interface VoiceLabelProps {
  x: number
  y: number
  /** Its note, and what that is of the chord. */
  says: string
  degree: Degree
  selected: boolean
  taken: boolean
  onTake: () => void
  /** Dragged so many semitones from where it was. */
  onDrag: (semitones: number) => void
}

/** A note of the threads, to be taken hold of and dragged. */
function VoiceLabel({ x, y, says, degree, selected, taken, onTake, onDrag }: VoiceLabelProps) {
  const drag = useRef<{ y: number; scale: number } | null>(null)
  return (
    <g
      className={taken ? 'thread-label taken' : 'thread-label'}
      onPointerDown={(event) => {
        onTake()
        const svg = event.currentTarget.ownerSVGElement!
        drag.current = {
          y: event.clientY,
          scale: svg.getBoundingClientRect().height / svg.viewBox.baseVal.height,
        }
        event.currentTarget.setPointerCapture(event.pointerId)
      }}
      onPointerMove={(event) => {
        if (drag.current)
          onDrag(Math.round((drag.current.y - event.clientY) / (SEMITONE * drag.current.scale)))
      }}
      onPointerUp={() => {
        drag.current = null
      }}
    >
      <title>{says}</title>
      <circle cx={x} cy={y} r={LABEL} className={selected ? 'selected' : ''} />
      <text x={x} y={y + 4}>
        {engraved(degree)}
      </text>
    </g>
  )
}

/** Narrower chords have no room for the size of a leap. */
const ROOM_FOR_SIZE = 60

/** What each voice does; where a melody goes on without its grip, only the melody moves. */
function stepsBetween({ voicing: { midis }, melody }: ThreadChord, next: readonly number[]) {
  const alone = melody && midis.length !== next.length && (midis.length === 1 || next.length === 1)
  return alone ? voiceSteps(midis.slice(-1), next.slice(-1)) : voiceSteps(midis, next)
}

/**
 * One hue family, lowest voice darkest, highest next: spread over however many voices there are.
 */
const toneOf = (voice: number, voices: number): string =>
  `tone${voices <= 1 ? 0 : Math.round((voice * (TONES - 1)) / (voices - 1))}`

/**
 * Degrees of voices too close to stand above one another step aside: how many places to the right.
 */
function asideOf(midis: readonly number[], voice: number): number {
  let aside = 0
  for (let low = 1; low <= voice; low += 1)
    aside = (itemAt(midis, low) - itemAt(midis, low - 1)) * SEMITONE < 2 * LABEL ? (aside + 1) % 2 : 0
  return aside
}

const threadsInWords = (chords: ThreadChord[]): string =>
  `Threads: ${chords.map(({ chord, voicing }) => `${chord.canonical} ${voicing.strings.map(({ midi, note }) => pitchName(pitchAt(midi, note))).join(' ')}`).join('; ')}`
