import Button from '@mui/material/Button'
import { chord } from '../../../core/chord/parseChord'
import { endsOf, withEnd, type End } from '../../../core/melody/ends'
import type { Key } from '../../../core/pitch/key'
import { ChordName } from '../../services/notation/ChordName'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

interface Props {
  text: string
  songKey: Key
  onEdit: (edit: TuneEdit) => void
  onHear: (symbols: string[]) => void
}

/** Introductions and endings from the tune's own key, heard and put into the chart. */
export function EndsTab({ text, songKey, onEdit, onHear }: Props) {
  const ends = endsOf(songKey)
  return (
    <div className="ends-columns">
      {(['before', 'after'] as const).map((where) => (
        <section key={where} aria-label={where === 'before' ? 'Introductions' : 'Endings'}>
          <h3>{where === 'before' ? 'Introductions' : 'Endings'}</h3>
          <ul className="melody-list">
            {ends
              .filter((end) => end.where === where)
              .map((end) => (
                <EndRow key={end.name} end={end} made={withEnd(text, end)} onEdit={onEdit} onHear={onHear} />
              ))}
          </ul>
        </section>
      ))}
    </div>
  )
}

function EndRow({
  end: { name, why, where, bars },
  made,
  onEdit,
  onHear,
}: {
  end: End
  made: string | null
  onEdit: Props['onEdit']
  onHear: Props['onHear']
}) {
  const symbols = bars.map((bar) => bar.split(' '))
  return (
    <li>
      <b>{name}</b>
      <span className="end-chords">
        {symbols.map((bar, at) => (
          <span key={at}>
            {at > 0 && <i>|</i>}
            {bar.map((symbol, place) => (
              <ChordName key={place} chord={chord(symbol)} />
            ))}
          </span>
        ))}
      </span>
      <small>{why}</small>
      <span>
        <Button size="small" onClick={() => onHear(symbols.flat())}>
          Hear it
        </Button>
        <Button
          size="small"
          disabled={made === null}
          title={
            made === null
              ? 'The tune begins with an upbeat: put an introduction in front of it in the Chart step.'
              : undefined
          }
          onClick={() =>
            made !== null &&
            onEdit({
              kind: 'bars',
              text: made,
              did: `${name} ${where === 'before' ? 'in front' : 'at the end'}`,
            })
          }
        >
          Put it {where === 'before' ? 'in front' : 'at the end'}
        </Button>
      </span>
    </li>
  )
}
