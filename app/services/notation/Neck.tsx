import { fretMm, reachMm, type Frets } from '../../../core/neck/instrument'
import { usePlayerSettings } from '../player/PlayerContext'
import { engraved } from '../../../core/chord/engraved'

/** Something marked on the neck. */
export interface NeckMark {
  string: number
  fret: number
  /** What stands in it: a degree, or nothing. */
  label: string
  /** Of the grip that is held, or only a chord tone. */
  kind: 'held' | 'tone'
}

interface Props {
  strings: number
  /** Frets drawn. */
  frets: number
  marks: readonly NeckMark[]
  /** Strings that are muted. */
  muted?: readonly number[]
  /** The lowest fret held: the reach from there is shaded. */
  reachFrom?: number | null
  /** A place of the neck was touched; absent where it only shows. */
  onTouch?: (string: number, fret: number) => void
  label: string
}

const WIDTH = 1000
const LEFT = 46
const RIGHT = 14
const TOP = 16
const GAP = 24
const INLAYS = [3, 5, 7, 9, 15, 17, 19, 21]

/**
 * The neck lying, lowest string at the bottom, frets as far apart as they are; mirrored for a
 * left-handed player.
 */
export function Neck({ strings, frets, marks, muted = [], reachFrom = null, onTouch, label }: Props) {
  const {
    settings: { instrument, hand, leftHanded },
  } = usePlayerSettings()
  const mmWide = fretMm(frets, instrument.scaleLengthMm)
  const along = (mm: number) => {
    const x = LEFT + (mm / mmWide) * (WIDTH - LEFT - RIGHT)
    return leftHanded ? WIDTH - x : x
  }
  const wire = (fret: number) => along(fretMm(fret, instrument.scaleLengthMm))
  const open = leftHanded ? WIDTH - LEFT + 20 : LEFT - 20
  const place = (fret: number) => (fret === 0 ? open : wire(fret - 1) * 0.42 + wire(fret) * 0.58)
  const y = (string: number) => TOP + (strings - 1 - string) * GAP
  const height = TOP * 2 + (strings - 1) * GAP + 14
  let reachTo = reachFrom ?? 0
  while (
    reachFrom !== null &&
    reachTo < frets &&
    reachMm(reachFrom, reachTo + 1, instrument.scaleLengthMm) <= hand.reachMm
  )
    reachTo += 1
  const shade =
    reachFrom !== null
      ? ([wire(reachFrom - 1), wire(reachTo)].sort((a, b) => a - b) as [number, number])
      : null
  return (
    <svg
      className="neck"
      viewBox={`0 0 ${WIDTH} ${height}`}
      role={onTouch ? 'group' : 'img'}
      aria-label={label}
    >
      {shade && (
        <g>
          <rect
            className="neck-reach"
            x={shade[0]}
            width={shade[1] - shade[0]}
            y={TOP - 9}
            height={(strings - 1) * GAP + 18}
          />
          <text className="neck-words" x={(shade[0] + shade[1]) / 2} y={height - 3}>
            within reach
          </text>
        </g>
      )}
      {INLAYS.filter((fret) => fret <= frets).map((fret) => (
        <text key={fret} className="neck-words" x={place(fret)} y={height - 3}>
          {fret}
        </text>
      ))}
      {frets >= 12 && (
        <text className="neck-words" x={place(12)} y={height - 3}>
          12
        </text>
      )}
      {Array.from({ length: frets + 1 }, (_, fret) => (
        <line
          key={fret}
          className={fret === 0 ? 'neck-nut' : 'neck-wire'}
          x1={wire(fret)}
          x2={wire(fret)}
          y1={y(strings - 1)}
          y2={y(0)}
        />
      ))}
      {Array.from({ length: strings }, (_, string) => (
        <line
          key={string}
          className="neck-string"
          x1={wire(0)}
          x2={wire(frets)}
          y1={y(string)}
          y2={y(string)}
          strokeWidth={2.2 - (1.4 * string) / Math.max(1, strings - 1)}
        />
      ))}
      {muted.map((string) => (
        <path key={string} className="grip-mute" d={`M${place(0) - 4} ${y(string) - 4}l8 8m0 -8l-8 8`} />
      ))}
      {marks.map(({ string, fret, label: words, kind }) => (
        <g key={`${string}:${fret}`} className={`neck-mark ${kind}`}>
          <circle cx={place(fret)} cy={y(string)} r={10} />
          <text x={place(fret)} y={y(string) + 4}>
            {engraved(words)}
          </text>
        </g>
      ))}
      {onTouch &&
        Array.from({ length: strings }, (_, string) =>
          Array.from({ length: frets + 1 }, (__, fret) => {
            const [from, to] =
              fret === 0
                ? [place(0) - 16, place(0) + 16]
                : ([wire(fret - 1), wire(fret)].sort((a, b) => a - b) as [number, number])
            return (
              <rect
                key={`${string}:${fret}`}
                className="neck-touch"
                x={from}
                width={to - from}
                y={y(string) - GAP / 2}
                height={GAP}
                onClick={() => onTouch(string, fret)}
              >
                <title>{`String ${strings - string}, ${fret === 0 ? 'open' : `fret ${fret}`}`}</title>
              </rect>
            )
          }),
        )}
    </svg>
  )
}

/** The marks of a grip: each held or open string with what it is. */
export const marksOfGrip = (frets: Frets, labelOf: (string: number) => string): NeckMark[] =>
  frets.flatMap((fret, string) =>
    fret === null ? [] : [{ string, fret, label: labelOf(string), kind: 'held' as const }],
  )
