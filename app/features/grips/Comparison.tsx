import { engraved } from '../../../core/chord/engraved'
import { leastMotion } from '../../../core/pitch/motion'
import type { Voicing } from '../../../core/voicing/voicing'
import { GripDiagram } from '../../services/notation/GripDiagram'

/** Two grips beside one another: what they share, and how far their voices lie apart. */
export function Comparison({ first, symbol, second }: { first: Voicing; symbol: string; second: Voicing }) {
  const soundsOf = (one: Voicing) => new Set(one.midis.map((midi) => midi % 12))
  const shared = [...soundsOf(first)].filter((sound) => soundsOf(second).has(sound)).length
  const held = first.midis.filter((midi) => second.midis.includes(midi)).length
  const motion = leastMotion(first.midis, second.midis)
  return (
    <div className="present-grip" role="group" aria-label="Comparison">
      <GripDiagram voicing={first} scale={1.2} />
      <p>
        With {engraved(symbol)}: {shared} {shared === 1 ? 'tone' : 'tones'} in common, {held} at the same
        pitch; {motion} {motion === 1 ? 'semitone' : 'semitones'} of motion between them.
      </p>
    </div>
  )
}
