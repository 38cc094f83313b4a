import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { Form } from 'react-router'
import { FORMATS, SONGBOOK_FORMATS } from '../../../core/formats/names'

const MOST_TAG = 40

/** What can be done with several tunes at once. */
export function Several({
  ids,
  tags,
  sets,
  onNone,
}: {
  ids: readonly string[]
  /** Tags in use, offered. */
  tags: readonly string[]
  sets: readonly { id: string; name: string }[]
  onNone: () => void
}) {
  const [set, setSet] = useState(sets[0]?.id ?? 'new')
  const [format, setFormat] = useState<string>('backup')
  const which = <input type="hidden" name="ids" value={ids.join(' ')} />
  return (
    <section className="several" aria-label="What to do with the tunes chosen">
      <p role="status">
        {ids.length} {ids.length === 1 ? 'tune' : 'tunes'} chosen{' '}
        <Button size="small" onClick={onNone}>
          Choose none
        </Button>
      </p>
      <Form method="post">
        {which}
        <TextField
          name="tag"
          label="Tag"
          required
          size="small"
          slotProps={{ htmlInput: { maxLength: MOST_TAG, list: 'tags-in-use', autoComplete: 'off' } }}
        />
        <datalist id="tags-in-use">
          {tags.map((tag) => (
            <option key={tag} value={tag} />
          ))}
        </datalist>
        <Button type="submit" name="intent" value="tag">
          Add
        </Button>
        <Button type="submit" name="intent" value="untag">
          Take off
        </Button>
      </Form>
      <Form method="post">
        {which}
        <TextField
          select
          name="set"
          label="Set"
          size="small"
          value={set}
          onChange={(event) => setSet(event.target.value)}
          slotProps={{ select: { native: true } }}
        >
          {sets.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
          <option value="new">A new set</option>
        </TextField>
        <Button type="submit" name="intent" value="intoSet">
          Put in
        </Button>
      </Form>
      <form method="post" action={`/files/songbook/${format}`}>
        {which}
        <TextField
          select
          label="File"
          size="small"
          value={format}
          onChange={(event) => setFormat(event.target.value)}
          slotProps={{ select: { native: true } }}
        >
          <option value="backup">Backup</option>
          {SONGBOOK_FORMATS.map((one) => (
            <option key={one} value={one}>
              {FORMATS[one].label}
            </option>
          ))}
        </TextField>
        <Button type="submit">Save</Button>
      </form>
      <Form method="post">
        {which}
        <Button type="submit" name="intent" value="deleteAll" color="error">
          Delete
        </Button>
      </Form>
    </section>
  )
}
