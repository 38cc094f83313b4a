import { firstOf } from '../../../core/lists'
import type { Voicing } from '../../../core/voicing/voicing'
import { BarWord } from '../../services/controls/ControlBar'
import { holdInWords } from '../../services/words/handWords'
import type { HardSpotShown } from './useHardSpots'

interface Props {
  spots: readonly HardSpotShown[]
  onSpot: (line: number) => void
  onEasier: (line: number, voicing: Voicing) => void
}

/** The places of the line that are hardest to hold, each with a way out. */
export function HardestWord({ spots, onSpot, onEasier }: Props) {
  return (
    <BarWord name="Hardest" term="easy" says={firstOf(spots).place}>
      <ul className="plain-list">
        {spots.map(({ place, effort, line, easier }) => (
          <li key={line}>
            <button type="button" className="plain-button" onClick={() => onSpot(line)}>
              {place}
            </button>{' '}
            ({holdInWords(effort)})
            {easier && (
              <>
                {' '}
                (
                <button
                  type="button"
                  className="plain-button"
                  title={`${easier.easing}${easier.lost ? `, loses ${easier.lost}` : ''}`}
                  onClick={() => onEasier(line, easier.voicing)}
                >
                  take an easier grip
                </button>
                )
              </>
            )}
          </li>
        ))}
      </ul>
    </BarWord>
  )
}
