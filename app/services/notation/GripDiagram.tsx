import { firstOf, lastOf } from '../../../core/lists'
import { usePlayerSettings } from '../player/PlayerContext'
import { engraved } from '../../../core/chord/engraved'
import { gripInWords } from '../../../core/voicing/inWords'
import type { Voicing } from '../../../core/voicing/voicing'

const STRING_GAP = 11
const FRET_GAP = 14
const TOP = 18
const LEFT = 20
/** At least this many frets are drawn. */
const FEWEST_FRETS = 4
/** Reach is written beside a grip from this share of the hand's limit on. */
const NEAR_LIMIT = 0.85

/**
 * A grip drawn upright: nut or first fret, fingers on the strings, open and muted strings above,
 * degrees below; mirrored for a left-handed player.
 */
export function GripDiagram({
  voicing,
  degrees = true,
  scale = 1,
  capo = 0,
}: {
  voicing: Voicing
  degrees?: boolean
  scale?: number
  capo?: number
}) {
  const { fingering } = voicing
  const {
    settings: { hand, leftHanded },
  } = usePlayerSettings()
  // With a capo frets are counted from it, as the hand finds them.
  const frets = voicing.frets.map((fret) => (fret === null || fret === 0 ? fret : fret - capo))
  const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
  const highest = Math.max(FEWEST_FRETS, ...held)
  const first = highest <= FEWEST_FRETS ? 1 : Math.min(...held)
  const rows = Math.max(FEWEST_FRETS, highest - first + 1)
  const strings = frets.length
  const width = LEFT + (strings - 1) * STRING_GAP + 12
  const bottom = TOP + rows * FRET_GAP
  const nearLimit = fingering.reachMm >= NEAR_LIMIT * hand.reachMm
  const height = bottom + (degrees ? 13 : 3) + (nearLimit ? 11 : 0)
  const x = (string: number) => LEFT + (leftHanded ? strings - 1 - string : string) * STRING_GAP
  const y = (fret: number) => TOP + (fret - first + 0.5) * FRET_GAP
  const degreeOf = (string: number) => voicing.strings.find((sounding) => sounding.string === string)?.degree

  return (
    <svg
      className="grip"
      width={width * scale}
      height={height * scale}
      viewBox={`0 0 ${width} ${height}`}
      role="img"
      aria-label={gripInWords(voicing, capo)}
    >
      {Array.from({ length: rows + 1 }, (_, row) => (
        <line
          key={`f${row}`}
          x1={x(0)}
          x2={x(strings - 1)}
          y1={TOP + row * FRET_GAP}
          y2={TOP + row * FRET_GAP}
          className={row === 0 && first === 1 ? 'grip-nut' : 'grip-wire'}
        />
      ))}
      {frets.map((_, string) => (
        <line key={`s${string}`} x1={x(string)} x2={x(string)} y1={TOP} y2={bottom} className="grip-wire" />
      ))}
      {first > 1 && (
        <text x={LEFT - 6} y={y(first) + 3.5} className="grip-fret">
          {first}
        </text>
      )}
      {capo > 0 && first === 1 && (
        <text x={LEFT - 9} y={TOP + 3} className="grip-fret" aria-label={`capo at fret ${capo}`}>
          c{capo}
        </text>
      )}
      {fingering.presses
        .filter((press) => press.strings.length > 1)
        .map((press) => (
          <line
            key={`b${press.finger}`}
            x1={x(firstOf(press.strings))}
            x2={x(lastOf(press.strings))}
            y1={y(press.fret - capo)}
            y2={y(press.fret - capo)}
            className="grip-barre"
          />
        ))}
      {frets.map((fret, string) => {
        if (fret === null)
          return <path key={string} d={`M${x(string) - 3} ${TOP - 9}l6 6m0 -6l-6 6`} className="grip-mute" />
        if (fret === 0) return <circle key={string} cx={x(string)} cy={TOP - 6} r={3} className="grip-open" />
        return (
          <g key={string}>
            <circle cx={x(string)} cy={y(fret)} r={5.2} className="grip-dot" />
            <text x={x(string)} y={y(fret) + 2.8} className="grip-finger">
              {fingering.fingers[string]}
            </text>
          </g>
        )
      })}
      {degrees &&
        frets.map(
          (fret, string) =>
            fret !== null && (
              <text key={`d${string}`} x={x(string)} y={bottom + 10} className="grip-degree">
                {engraved(degreeOf(string) ?? '')}
              </text>
            ),
        )}
      {nearLimit && (
        <text x={x((strings - 1) / 2)} y={height - 1} className="grip-reach">
          {Math.round(fingering.reachMm)} mm
        </text>
      )}
    </svg>
  )
}
