import Button from '@mui/material/Button'
import type { ChordSymbol } from '../../../core/chord/symbol'
import { ChordName } from '../../services/notation/ChordName'
import { engraved } from '../../../core/chord/engraved'
import type { PullShown } from './usePulling'

/** Names offered. */
const NAMES = 4

interface Props {
  pulled: PullShown
  /** The chord can be called anew: it stands alone for one chord of the home line. */
  canName: boolean
  onKeep: (rest: 'leads' | 'stays') => void
  onName: (chord: ChordSymbol) => void
  onCarry: (() => void) | null
  onLetGo: () => void
}

/**
 * What a pulled note makes: the chord it is now, what is lost, whether a hand can hold it, and what
 * becomes of the rest.
 */
export function PulledPanel({
  pulled: { names, playable, moved, lost, sour, fingering },
  canName,
  onKeep,
  onName,
  onCarry,
  onLetGo,
}: Props) {
  return (
    <div className="pulled" role="status" aria-label="The pulled note">
      {playable ? (
        <p>
          <b>{moved ? 'The grip follows on other strings.' : 'A hand can hold it.'}</b>
        </p>
      ) : (
        <p className="fault">
          <b>No hand holds it:</b> {fingering.playable ? '' : fingering.why}.
        </p>
      )}
      {names.length > 0 && (
        <p>
          Now it is{' '}
          {names.slice(0, NAMES).map(({ chord }, at) => (
            <span key={chord.canonical}>
              {at > 0 && ', '}
              {canName && playable ? (
                <button
                  type="button"
                  className="plain-button"
                  title="Call it this"
                  onClick={() => onName(chord)}
                >
                  <ChordName chord={chord} />
                </button>
              ) : (
                <ChordName chord={chord} />
              )}
            </span>
          ))}
          .
        </p>
      )}
      {lost.length > 0 && <p>The {lost.map(engraved).join(', ')} of the chord is gone.</p>}
      {sour.length > 0 && <p className="fault">A minor ninth sounds between two of its notes.</p>}
      <div className="drawer-buttons">
        <Button size="small" disabled={!playable} onClick={() => onKeep('stays')}>
          Keep it, the other grips stay (Enter)
        </Button>
        <Button size="small" disabled={!playable} onClick={() => onKeep('leads')}>
          Keep it and lead the rest anew (Shift Enter)
        </Button>
        {onCarry && (
          <Button size="small" disabled={!playable} onClick={onCarry}>
            Let it sound on in the next chord
          </Button>
        )}
        <Button size="small" onClick={onLetGo}>
          Put the note back (Esc)
        </Button>
      </div>
    </div>
  )
}
