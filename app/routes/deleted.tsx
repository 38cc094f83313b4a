import Button from '@mui/material/Button'
import { useState } from 'react'
import { data, Form, Link, redirect } from 'react-router'
import { z } from 'zod'
import { eraseDeleted, listDeleted, restoreTunes } from '../../db/songbook'
import { database, withBook } from '../database.server'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { Refused } from '../services/forms/Notices'
import { daysAgo } from '../features/songbook/entries'
import { refusalInWords } from '../../core/refusal'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/deleted'
import { fieldsOf } from '../services/forms/formFields'

export function loader() {
  const now = Date.now()
  return {
    tunes: listDeleted(database()).map(({ id, title, deletedAt }) => ({
      id,
      title,
      when: daysAgo(deletedAt, now),
    })),
  }
}

const intents = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('restore'), id: z.uuid() }),
  z.object({ intent: z.literal('erase'), id: z.uuid() }),
  /** Only the tunes that were listed: one deleted meanwhile elsewhere stays. */
  z.object({
    intent: z.literal('empty'),
    ids: z
      .string()
      .transform((text) => text.split(','))
      .pipe(z.array(z.uuid()).max(100_000)),
  }),
])

export async function action({ request }: Route.ActionArgs) {
  const form = await fieldsOf(request)
  const wanted = intents.safeParse(form)
  if (!wanted.success) return data({ message: refusalInWords(wanted.error, form) }, 400)
  return withBook((db) => {
    const { data: asked } = wanted
    if (asked.intent === 'restore') {
      restoreTunes(db, [asked.id])
      return redirect(`/tunes/${asked.id}/chart`)
    }
    eraseDeleted(db, asked.intent === 'erase' ? [asked.id] : asked.ids)
    return redirect('/deleted')
  })
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => unlessUnreachable(serverAction)
export const shouldRevalidate = revalidatesWhenAnswered

export const meta: Route.MetaFunction = () => [{ title: 'Deleted tunes · Yellow Heron' }]

/** Deleted tunes: each can be brought back, until the list is emptied by hand. */
export default function DeletedPage({ loaderData: { tunes }, actionData }: Route.ComponentProps) {
  const [sure, setSure] = useState(false)
  return (
    <main className="page songbook">
      <PageHead title="Deleted tunes" />
      <Refused said={actionData} />
      {tunes.length === 0 && (
        <p className="empty">
          No tune is deleted. <Link to="/">Back to the songbook</Link>
        </p>
      )}
      {tunes.length > 0 && (
        <>
          <p>
            They are kept, with everything made of them and their whole history, until you erase them here.
          </p>
          <table className="songbook-table">
            <caption>
              {tunes.length} {tunes.length === 1 ? 'deleted tune' : 'deleted tunes'}
            </caption>
            <thead>
              <tr>
                <th scope="col">Tune</th>
                <th scope="col">Deleted</th>
                <th scope="col">
                  <span className="visually-hidden">What to do with it</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {tunes.map(({ id, title, when }) => (
                <tr key={id}>
                  <th scope="row">{title}</th>
                  <td>{when}</td>
                  <td className="row-tools">
                    <Form method="post">
                      <input type="hidden" name="id" value={id} />
                      <Button size="small" type="submit" name="intent" value="restore">
                        Bring it back
                      </Button>
                    </Form>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <Form method="post" className="notice" onSubmit={() => setSure(false)}>
            <input type="hidden" name="ids" value={tunes.map(({ id }) => id).join()} />
            {sure ? (
              <>
                This cannot be undone.{' '}
                <Button type="submit" name="intent" value="empty" color="secondary">
                  Erase {tunes.length === 1 ? 'this tune' : `these ${tunes.length} tunes`} for good
                </Button>{' '}
                <Button onClick={() => setSure(false)}>Keep them</Button>
              </>
            ) : (
              <Button onClick={() => setSure(true)}>Empty the list</Button>
            )}
          </Form>
        </>
      )}
    </main>
  )
}
