import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { Form, Link } from 'react-router'
import { keyInWords } from '../../../core/chord/engraved'
import type { SongbookRow } from './entries'

/** A tune of the songbook with what can be done with it. */
export function TuneRow({
  row,
  renaming,
  onRename,
  chosen,
  onChoose,
}: {
  row: SongbookRow
  renaming: boolean
  onRename: (id: string | null) => void
  /** Among those that something is done with at once. */
  chosen: boolean
  onChoose: (id: string, chosen: boolean, stretch: boolean) => void
}) {
  return (
    <tr className={chosen ? 'chosen' : undefined}>
      <td className="row-choice">
        <label>
          <input
            type="checkbox"
            checked={chosen}
            aria-label={`Choose ${row.title}`}
            onChange={() => {}}
            onClick={(event) => onChoose(row.id, event.currentTarget.checked, event.shiftKey)}
          />
        </label>
      </td>
      <th scope="row">
        {renaming ? (
          <Form method="post" className="rename">
            <input type="hidden" name="intent" value="rename" />
            <input type="hidden" name="id" value={row.id} />
            <TextField
              name="title"
              defaultValue={row.title}
              autoFocus
              required
              size="small"
              slotProps={{ htmlInput: { maxLength: 120, 'aria-label': 'New title' } }}
              onKeyDown={(event) => event.key === 'Escape' && onRename(null)}
            />
            <Button type="submit">Rename</Button>
          </Form>
        ) : (
          <Link to={`/tunes/${row.id}/${row.step}`}>{row.title}</Link>
        )}
        {(row.tags.length > 0 || row.twin) && !renaming && (
          <span className="row-says">
            {row.tags.map((tag) => (
              <Link key={tag} to={`/?${new URLSearchParams({ tag }).toString()}`}>
                {tag}
              </Link>
            ))}
            {row.twin && (
              <span>
                {row.twin.equal === 'title' ? 'title stands twice' : `same changes as ${row.twin.title}`}
              </span>
            )}
          </span>
        )}
      </th>
      <td className="not-phone">{row.key ? keyInWords(row.key) : '–'}</td>
      <td className="not-narrow">{row.meter}</td>
      <td className="not-phone">{row.bars}</td>
      <td>
        {row.due === null ? row.far : `${row.far}, in practice`}
        {row.due ? (
          <>
            {' '}
            <Link to={`/tunes/${row.id}/practice`} className="due">
              {row.due} due{row.demo && ' (demo)'}
            </Link>
          </>
        ) : null}
      </td>
      <td>{row.touched}</td>
      <td className="row-tools">
        <details className="row-menu" name="row-menu">
          <summary aria-label={`More for ${row.title}`}>More</summary>
          <div
            onClick={(event) => {
              event.currentTarget.closest('details')!.open = false
            }}
          >
            <Button size="small" onClick={() => onRename(renaming ? null : row.id)}>
              {renaming ? 'Cancel' : 'Rename'}
            </Button>
            <RowButton intent="duplicate" id={row.id}>
              Duplicate
            </RowButton>
            <RowButton intent="delete" id={row.id}>
              Delete
            </RowButton>
          </div>
        </details>
      </td>
    </tr>
  )
}

function RowButton({
  intent,
  id,
  children,
}: {
  intent: 'duplicate' | 'delete'
  id: string
  children: string
}) {
  return (
    <Form method="post">
      <input type="hidden" name="id" value={id} />
      <Button size="small" type="submit" name="intent" value={intent}>
        {children}
      </Button>
    </Form>
  )
}
