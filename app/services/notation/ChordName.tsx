import { engravedChord } from '../../../core/chord/engraved'
import type { ChordSymbol } from '../../../core/chord/symbol'

/** A chord symbol as it is engraved: root large, quality smaller, tensions raised. */
export function ChordName({ chord }: { chord: ChordSymbol }) {
  const { root, quality, raised, bass } = engravedChord(chord)
  return (
    <span className="chord-name" aria-label={chord.canonical} role="img">
      <span className="chord-root">{root}</span>
      {quality && <span className="chord-quality">{quality}</span>}
      {raised && <sup className="chord-raised">{raised}</sup>}
      {bass && <span className="chord-bass">{bass}</span>}
    </span>
  )
}
