import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { Form, Link } from 'react-router'
import type { Frets } from '../../../core/neck/instrument'
import type { BookGrip } from '../../../db/grips'

/** Tags and a note, and keeping or letting go. */
export function KeepForm({
  symbol,
  frets,
  instrument,
  present,
}: {
  symbol: string
  frets: Frets
  instrument: string
  present: BookGrip | undefined
}) {
  return (
    <Form method="post" className="keep-grip" preventScrollReset>
      <input type="hidden" name="symbol" value={symbol} />
      <input type="hidden" name="frets" value={JSON.stringify(frets)} />
      <input type="hidden" name="instrument" value={instrument} />
      <TextField
        size="small"
        name="tags"
        label="Tags, with commas"
        defaultValue={present?.tags.join(', ') ?? ''}
        slotProps={{ htmlInput: { maxLength: 200 } }}
      />
      <TextField
        size="small"
        name="note"
        label="Note"
        defaultValue={present?.note ?? ''}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      <Button type="submit" name="intent" value="keep">
        {present ? 'Keep the changes' : 'Keep in the book'}
      </Button>
      {present && (
        <>
          <input type="hidden" name="id" value={present.id} />
          <Button type="submit" name="intent" value="let-go">
            Take it out of the book
          </Button>
        </>
      )}
      {present && (
        <p className="quiet">
          {present.usedIn.length > 0 ? (
            <>
              Used in{' '}
              {present.usedIn.map((tune, at) => (
                <span key={tune.id}>
                  {at > 0 && ', '}
                  <Link to={`/tunes/${tune.id}/lines`}>{tune.title}</Link>
                </span>
              ))}
            </>
          ) : (
            'No tune uses it now.'
          )}
        </p>
      )}
    </Form>
  )
}
