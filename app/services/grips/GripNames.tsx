import { memo } from 'react'
import type { ChordSymbol } from '../../../core/chord/symbol'
import type { Key } from '../../../core/pitch/key'
import type { Note } from '../../../core/pitch/note'
import { namesOf } from '../../../core/voicing/possibleNames'
import { ChordName } from '../notation/ChordName'
import { engraved } from '../../../core/chord/engraved'

const SHOWN = 5

interface Props {
  /** Sounding notes, lowest string first. */
  midis: readonly number[]
  /** Read against this root, sounding or not. */
  over?: Note
  songKey?: Key
  onName?: (chord: ChordSymbol) => void
}

/** What a grip can be called, the likeliest first, with what is doubled, missing and rootless. */
export const GripNames = memo(function GripNames({ midis, over, songKey, onName }: Props) {
  const names = namesOf(midis, { ...(over ? { over } : {}), ...(songKey ? { key: songKey } : {}) }).slice(
    0,
    SHOWN,
  )
  if (names.length === 0)
    return <p className="quiet">No usual name fits these notes{over ? ' over this root' : ''}.</p>
  return (
    <ol className="grip-names">
      {names.map(({ chord, degrees, rootless, missing, doubled }) => (
        <li key={chord.canonical}>
          <button type="button" className="plain-button" onClick={() => onName?.(chord)}>
            <ChordName chord={chord} />
          </button>{' '}
          <span className="quiet">
            {degrees.map(engraved).join(' ')}
            {[
              rootless && 'rootless',
              doubled.length > 0 && `${doubled.map(engraved).join(', ')} doubled`,
              missing.filter((degree) => degree !== '1').length > 0 &&
                `without ${missing
                  .filter((degree) => degree !== '1')
                  .map(engraved)
                  .join(', ')}`,
            ]
              .filter(Boolean)
              .map((words) => `; ${words as string}`)
              .join('')}
          </span>
        </li>
      ))}
    </ol>
  )
})
