import type { Frets } from '../../../core/neck/instrument'
import type { Voicing } from '../../../core/voicing/voicing'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Form } from 'react-router'
import { engraved } from '../../../core/chord/engraved'
import { writtenFrets } from '../../../core/neck/instrument'
import { gripInWords } from '../../../core/voicing/inWords'
import type { BookGrip } from '../../../db/grips'
import { GripFilters, NO_FILTER, passesFilter, type GripFilter } from '../../services/grips/GripFilters'
import { ChordName } from '../../services/notation/ChordName'
import { GripDiagram } from '../../services/notation/GripDiagram'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { useAnswer } from '../../services/workers/useAnswer'
import type { PlayableGrip } from './usePlayable'
import type { GripRead } from './useGripRead'

/** Grips drawn at once. */
const AT_ONCE = 24

interface Props {
  grip: GripRead
  /** Grips of the book that can be played on these strings. */
  playable: readonly PlayableGrip[]
  /** How many the book has. */
  count: number
  present: BookGrip | undefined
  takenOut: readonly Pick<BookGrip, 'id' | 'symbol' | 'frets'>[]
}

/** The grips of the book, or all of the chord on the neck, by what is asked of them. */
export function GripsFound({ grip, playable, count, present, takenOut }: Props) {
  const { settings } = usePlayerSettings()
  const [where, setWhere] = useState<'book' | 'neck'>('book')
  const [filter, setFilter] = useState<GripFilter>(NO_FILTER)
  const [sought, setSought] = useState('')
  const [shown, setShown] = useState(AT_ONCE)
  const { chord } = grip
  const all = useAnswer(
    'search',
    'book',
    where === 'neck' && chord ? { symbol: chord.canonical, body: settings } : null,
    { inBackground: true },
  ).now
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean)
  const inBook = playable.filter(
    ({ kept, voicing }) =>
      passesFilter(voicing, filter) &&
      words.every((word) =>
        `${kept.symbol} ${kept.tags.join(' ')} ${kept.note}`.toLowerCase().includes(word),
      ),
  )
  const onNeck = (all ?? []).filter((one) => passesFilter(one, filter))
  return (
    <section aria-label="Grips found">
      <div className="panel-tabs">
        <Button size="small" aria-expanded={where === 'book'} onClick={() => setWhere('book')}>
          In the book ({count})
        </Button>
        <Button
          size="small"
          aria-expanded={where === 'neck'}
          disabled={!chord}
          onClick={() => setWhere('neck')}
        >
          On the neck{chord ? ` for ${engraved(chord.canonical)}` : ''}
        </Button>
      </div>
      {where === 'book' && (
        <TextField
          size="small"
          label="Search chords, tags, notes"
          value={sought}
          onChange={(event) => setSought(event.target.value)}
          fullWidth
        />
      )}
      <GripFilters
        grips={where === 'book' ? playable.map((one) => one.voicing) : (all ?? [])}
        filter={filter}
        onFilter={(next) => {
          setFilter(next)
          setShown(AT_ONCE)
        }}
      />
      {where === 'book' && count === 0 && (
        <Form method="post" className="empty">
          The book is empty. Fret a grip and keep it, or begin with the demo grips.{' '}
          <Button type="submit" name="intent" value="demo">
            Put the demo grips in
          </Button>
        </Form>
      )}
      {where === 'book' && (
        <ul className="book-list" aria-label="Grips of the book">
          {inBook.slice(0, shown).map(({ kept, chord: of, voicing, moved }) => (
            <li key={kept.id}>
              <button
                type="button"
                className="grip-choice"
                aria-pressed={present?.id === kept.id}
                aria-label={`${kept.symbol}: ${gripInWords(voicing)}`}
                onClick={() => grip.take(voicing.frets, kept.symbol)}
              >
                <ChordName chord={of} />
                <GripDiagram voicing={voicing} />
                <span>
                  {kept.tags.join(', ') || voicing.families[0]}
                  {moved ? ', moved to this tuning' : ''}
                </span>
              </button>
            </li>
          ))}
        </ul>
      )}
      {where === 'neck' && !all && <p className="quiet">Looking over the neck.</p>}
      {where === 'neck' && all && (
        <>
          <p className="quiet">
            {onNeck.length} of {all.length} grips, the usual ones first
          </p>
          <OnTheNeck
            grips={onNeck.slice(0, shown)}
            now={grip.frets}
            onTake={(frets) => grip.take(frets, chord!.canonical)}
          />
        </>
      )}
      {(where === 'book' ? inBook.length : onNeck.length) > shown && (
        <Button onClick={() => setShown(shown + AT_ONCE)}>Show more</Button>
      )}
      {where === 'book' && count > playable.length && (
        <p className="quiet">
          {count - playable.length} grips of the book cannot be played on these open strings, or by this hand;
          they are kept.
        </p>
      )}
      {where === 'book' && takenOut.length > 0 && <TakenOut grips={takenOut} />}
    </section>
  )
}

/** @param now the grip that is fretted */
function OnTheNeck({
  grips,
  now,
  onTake,
}: {
  grips: readonly Voicing[]
  now: Frets
  onTake: (frets: Frets) => void
}) {
  return (
    <ul className="book-list" aria-label="Grips on the neck">
      {grips.map((one) => (
        <li key={one.frets.join()}>
          <button
            type="button"
            className="grip-choice"
            aria-pressed={one.frets.join() === now.join()}
            aria-label={gripInWords(one)}
            onClick={() => onTake(one.frets)}
          >
            <GripDiagram voicing={one} />
            <span>{one.families[0]}</span>
          </button>
        </li>
      ))}
    </ul>
  )
}

function TakenOut({ grips }: { grips: Props['takenOut'] }) {
  return (
    <details>
      <summary>Taken out of the book ({grips.length})</summary>
      <ul className="taken-out">
        {grips.map(({ id, symbol, frets }) => (
          <li key={id}>
            <Form method="post" preventScrollReset>
              <input type="hidden" name="intent" value="take-back" />
              <input type="hidden" name="id" value={id} />
              {engraved(symbol)}: {writtenFrets(frets)}{' '}
              <Button size="small" type="submit">
                Put it back
              </Button>
            </Form>
          </li>
        ))}
      </ul>
    </details>
  )
}
