import { voiceSteps } from '../../../core/pitch/motion'
import type { Line } from '../../../core/leading/line'

const WIDTH = 200
const HEIGHT = 34

/** A whole line at a glance: each voice a thread from chord to chord, lowest darkest. */
export function SmallThreads({ line, range: [low, high] }: { line: Line; range: readonly [number, number] }) {
  const step = WIDTH / Math.max(1, line.voicings.length)
  const y = (midi: number) => HEIGHT - 2 - ((midi - low) / Math.max(1, high - low)) * (HEIGHT - 4)
  return (
    <svg className="small-threads" viewBox={`0 0 ${WIDTH} ${HEIGHT}`} preserveAspectRatio="none" aria-hidden>
      {line.voicings.map(({ midis }, at) => {
        const next = line.voicings[at + 1]
        const x = at * step
        const tone = (voice: number) =>
          `tone${midis.length <= 1 ? 0 : Math.round((voice * 5) / (midis.length - 1))}`
        return (
          <g key={at}>
            {midis.map((midi, voice) => (
              <path key={voice} className={`thread ${tone(voice)}`} d={`M${x} ${y(midi)}h${step * 0.7}`} />
            ))}
            {next &&
              voiceSteps(midis, next.midis).map(({ from, to }, move) => (
                <path
                  key={`m${move}`}
                  className={`thread-move ${tone(midis.indexOf(from))}`}
                  d={`M${x + step * 0.7} ${y(from)}L${x + step} ${y(to)}`}
                />
              ))}
          </g>
        )
      })}
    </svg>
  )
}
