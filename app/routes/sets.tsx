import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { data, Form, Link, redirect } from 'react-router'
import { z } from 'zod'
import { refusalInWords } from '../../core/refusal'
import { createSet, deleteSet, listSets, restoreSet } from '../../db/sets'
import { database, withBook } from '../database.server'
import { setName } from '../features/sets/setForms'
import { daysAgo } from '../features/songbook/entries'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { Refused, WayBack } from '../services/forms/Notices'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/sets'
import { fieldsOf } from '../services/forms/formFields'

export function loader({ request }: Route.LoaderArgs) {
  const now = Date.now()
  return {
    sets: listSets(database()).map((one) => ({ ...one, touched: daysAgo(one.touchedAt, now) })),
    deleted: z.uuid().nullable().catch(null).parse(new URL(request.url).searchParams.get('deleted')),
  }
}

const intents = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('new'), name: setName }),
  z.object({ intent: z.literal('delete'), id: z.uuid() }),
  z.object({ intent: z.literal('restore'), id: z.uuid() }),
])

export async function action({ request }: Route.ActionArgs) {
  const form = await fieldsOf(request)
  const wanted = intents.safeParse(form)
  if (!wanted.success) return data({ message: refusalInWords(wanted.error, form) }, 400)
  const asked = wanted.data
  return withBook((db) => {
    switch (asked.intent) {
      case 'new':
        return redirect(`/sets/${createSet(db, asked.name)}`)
      case 'delete':
        return deleteSet(db, asked.id)
          ? redirect(`/sets?deleted=${asked.id}`)
          : data({ message: 'That set is not there any more.' }, 404)
      case 'restore':
        restoreSet(db, asked.id)
        return redirect('/sets')
    }
  })
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => unlessUnreachable(serverAction)
export const shouldRevalidate = revalidatesWhenAnswered
export const meta: Route.MetaFunction = () => [{ title: 'Sets · Yellow Heron' }]

/** Orders of tunes for an evening. */
export default function SetsPage({ loaderData: { sets, deleted }, actionData }: Route.ComponentProps) {
  return (
    <main className="page songbook">
      <PageHead title="Sets" />
      <div className="songbook-tools">
        <Form method="post">
          <input type="hidden" name="intent" value="new" />
          <TextField
            name="name"
            label="Name of a new set"
            required
            size="small"
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
          <Button type="submit" variant="contained" color="primary">
            New set
          </Button>
        </Form>
      </div>
      <Refused said={actionData} />
      {deleted && (
        <WayBack intent="restore" field={['id', deleted]} act="Undo the deletion">
          The set was deleted.
        </WayBack>
      )}
      {sets.length === 0 ? (
        <p className="empty">
          No set yet. Give one a name above, then put tunes into it in the order of the evening.
        </p>
      ) : (
        <table className="songbook-table">
          <caption>
            {sets.length} {sets.length === 1 ? 'set' : 'sets'}
          </caption>
          <thead>
            <tr>
              <th scope="col">Set</th>
              <th scope="col">Tunes</th>
              <th scope="col">Last touched</th>
              <th scope="col">
                <span className="visually-hidden">What to do with it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {sets.map(({ id, name, tunes, touched }) => (
              <tr key={id}>
                <th scope="row">
                  <Link to={`/sets/${id}`}>{name}</Link>
                </th>
                <td>{tunes}</td>
                <td>{touched}</td>
                <td className="row-tools">
                  <Form method="post">
                    <input type="hidden" name="id" value={id} />
                    <Button
                      size="small"
                      type="submit"
                      name="intent"
                      value="delete"
                      aria-label={`Delete ${name}`}
                    >
                      Delete
                    </Button>
                  </Form>
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
    </main>
  )
}
