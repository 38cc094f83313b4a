import Button from '@mui/material/Button'
import { engravedWords } from '../../../core/chord/engraved'
import { chord } from '../../../core/chord/parseChord'
import { tuneFarInFull, tuneFarInWords } from '../../../core/reharm/howFar'
import { isColour } from '../../../core/reharm/ruleNames'
import type { FoundVersion } from '../../../workers/searchQuestions'
import { ChordName } from '../../services/notation/ChordName'

/** A passage is named that goes so much farther than the whole. */
const MUCH_FARTHER = 0.15
/** Changes named on a card; the new line shows them all. */
const NAMED = 3
const clashesOf = ({ faults }: FoundVersion): number =>
  faults.filter(({ what }) => what === 'melody clash').length

interface Props {
  way: FoundVersion
  name: string
  /** How far the tune goes once it is taken. */
  far: number
  taken: boolean
  /** It stands beside the new line. */
  beside: boolean
  onTake: () => void
  onBeside: () => void
}

/** A way through the tune: how far it goes, what it does, and its first changes. */
export function WayCard({ way, name, far, taken, beside, onTake, onBeside }: Props) {
  return (
    <div className="way-card">
      <button type="button" role="radio" aria-checked={taken} className="line-card" onClick={onTake}>
        <b>{name}</b>
        <span>{tuneFarInFull(far)}</span>
        {way.idea && <span className="way-idea">{way.idea}</span>}
        <span>{engravedWords(way.says)}</span>
        {!way.reached && <span>as far as the rules reach here</span>}
        {way.farthest && way.farthest.far > way.distance + MUCH_FARTHER && (
          <span>
            {tuneFarInWords(way.farthest.far)} in bars {way.farthest.from} to {way.farthest.to}
          </span>
        )}
        {clashesOf(way) > 0 && (
          <span className="fault">
            {clashesOf(way) === 1 ? 'one place clashes' : `${clashesOf(way)} places clash`} with the melody
          </span>
        )}
        <span>
          {way.changes.length} {way.changes.length === 1 ? 'change' : 'changes'}
        </span>
        <span className="way-chords">
          {way.changes
            .filter((one) => !isColour(one.rule))
            .slice(0, NAMED)
            .map((one) => (
              <span key={one.index}>
                {one.chords.slice(0, 2).map(({ symbol }, place) => (
                  <ChordName key={place} chord={chord(symbol)} />
                ))}{' '}
                <small>{engravedWords(one.name)}</small>
              </span>
            ))}
        </span>
      </button>
      <Button size="small" aria-pressed={beside} onClick={onBeside}>
        {beside ? 'Hide' : 'Show beside and hear'}
      </Button>
    </div>
  )
}
