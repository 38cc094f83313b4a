import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useEffect, useState } from 'react'
import { data, Form, Link, redirect, useNavigation } from 'react-router'
import { z } from 'zod'
import { createTune, duplicateTune, editTune, newDocument, readTune } from '../../db/tunes'
import {
  deleteTune,
  listDeleted,
  listTunes,
  restoreTunes,
  SONGBOOK_SORTS,
  tuneTitled,
  type SongbookSort,
} from '../../db/songbook'
import { daysIn } from '../../core/practice/days'
import type { Db } from '../../db/connect'
import { dueByTune, tunesInPractice } from '../../db/practice'
import { beginOwnBook, demoHere } from '../../db/demoHere'
import { demoBook, FIRST_TUNE } from '../../db/demo'
import { FirstSteps, type FirstHeard } from '../features/first/FirstSteps'
import { database, withBook } from '../database.server'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { Refused, WayBack } from '../services/forms/Notices'
import { MOST_ROWS, ROWS_A_PAGE, rowOf, wordsOf, type SongbookRow } from '../features/songbook/entries'
import { refusalInWords } from '../../core/refusal'
import { PageHead } from '../theme/PageHead'
import { keyInWords } from '../../core/chord/engraved'
import type { Route } from './+types/songbook'
import { fieldsOf } from '../services/forms/fields'

/** What stands of each tune, and what it can be sorted by. */
/** What is latest and what is furthest comes first; the rest goes by letters and numbers. */
const directionOf = (by: SongbookSort): 'ascending' | 'descending' =>
  by === 'touched' || by === 'far' ? 'descending' : 'ascending'
const COLUMNS: readonly { label: string; by: SongbookSort | null }[] = [
  { label: 'Tune', by: 'title' },
  { label: 'Key', by: 'key' },
  { label: 'Metre', by: null },
  { label: 'Bars', by: 'bars' },
  { label: 'How far', by: 'far' },
  { label: 'Last touched', by: 'touched' },
]

const view = z.object({
  q: z.string().max(200).catch(''),
  sort: z.enum(SONGBOOK_SORTS).catch('touched'),
  rows: z.coerce.number().int().min(ROWS_A_PAGE).max(MOST_ROWS).catch(ROWS_A_PAGE),
  from: z.coerce.number().int().min(0).max(1_000_000).catch(0),
  deleted: z.uuid().nullable().catch(null),
})

export function loader({ request }: Route.LoaderArgs) {
  const { q, rows, from, sort, deleted } = view.parse(Object.fromEntries(new URL(request.url).searchParams))
  const { entries, found, total } = listTunes(database(), { words: wordsOf(q), most: rows, from, sort })
  const now = Date.now()
  const today = daysIn(Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC')(now)
  const [due, practised] = [dueByTune(database(), today), tunesInPractice(database())]
  const demo = demoHere(database())
  const ofDemo = new Set(demo?.untouched.map(({ id }) => id))
  return {
    q,
    from,
    sort,
    deleted,
    total,
    found,
    rows: entries.map((entry) =>
      rowOf(entry, now, practised.has(entry.id) ? (due.get(entry.id) ?? 0) : null, ofDemo.has(entry.id)),
    ),
    gone: listDeleted(database()).length,
    demo: demo && { tunes: demo.untouched.length, passes: demo.passes },
    heard: firstHeard(),
  }
}

/** The demo tune that shows what it is about; null where the player has deleted or renamed it. */
function firstHeard(): FirstHeard | null {
  const id = tuneTitled(database(), FIRST_TUNE)
  return id === null ? null : { id, title: FIRST_TUNE }
}

const title = z
  .string()
  .trim()
  .min(1, 'A title needs at least one letter.')
  .max(120, 'A title has at most 120 letters.')
const intents = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('new'), title }),
  z.object({ intent: z.literal('rename'), id: z.uuid(), title }),
  z.object({ intent: z.literal('duplicate'), id: z.uuid() }),
  z.object({ intent: z.literal('delete'), id: z.uuid() }),
  z.object({ intent: z.literal('restore'), id: z.uuid() }),
  z.object({ intent: z.literal('demo') }),
  z.object({ intent: z.literal('own') }),
])

export async function action({ request }: Route.ActionArgs) {
  const form = await fieldsOf(request)
  const wanted = intents.safeParse(form)
  if (!wanted.success) return data({ message: refusalInWords(wanted.error, form) }, 400)
  return withBook((db) => done(db, wanted.data))
}

function done(db: Db, form: z.infer<typeof intents>) {
  switch (form.intent) {
    case 'new':
      return redirect(`/tunes/${createTune(db, newDocument(form.title))}/chart`)
    case 'rename': {
      const state = readTune(db, form.id)
      if (!state) return gone()
      const outcome =
        form.title === state.document.title
          ? null
          : editTune(db, form.id, state.revision, { kind: 'title', title: form.title })
      return outcome?.kind === 'refused' ? data({ message: outcome.message }, 400) : redirect('/')
    }
    case 'duplicate':
      return duplicateTune(db, form.id) ? redirect('/') : gone()
    case 'delete':
      return deleteTune(db, form.id) ? redirect(`/?deleted=${form.id}`) : gone()
    case 'restore':
      restoreTunes(db, [form.id])
      return redirect('/')
    case 'own':
      beginOwnBook(db)
      return redirect('/')
    case 'demo':
      demoBook().forEach(({ document }) => createTune(db, document))
      return redirect('/')
  }
}

/** Without an answer the page stays with what was typed. */
export const clientAction = ({ serverAction }: Route.ClientActionArgs) => unlessUnreachable(serverAction)
export const shouldRevalidate = revalidatesWhenAnswered

const gone = () => data({ message: 'That tune is not in the songbook any more.' }, 404)

export const meta: Route.MetaFunction = () => [{ title: 'Songbook · Yellow Heron' }]

export default function SongbookPage({
  loaderData: { q, from, sort, deleted, total, found, rows, gone: deletedCount, heard, demo },
  actionData,
}: Route.ComponentProps) {
  const [renaming, setRenaming] = useState<string | null>(null)
  const navigation = useNavigation()
  const busy = navigation.state !== 'idle'
  // The field closes when the new title is there, and stays with what was typed when it could not be sent.
  useEffect(() => {
    if (!actionData) setRenaming(null)
  }, [rows, actionData])
  return (
    <main className="page songbook">
      <PageHead title="Songbook" />
      <FirstSteps heard={heard} />
      <div className="songbook-tools">
        <Form method="get" role="search">
          <TextField name="q" label="Search titles and chords" defaultValue={q} key={q} size="small" />
          <Button type="submit">Search</Button>
        </Form>
        <Form method="post">
          <input type="hidden" name="intent" value="new" />
          <TextField
            name="title"
            label="Title of a new tune"
            required
            size="small"
            slotProps={{ htmlInput: { maxLength: 120 } }}
          />
          <Button type="submit" variant="contained" color="primary">
            New tune
          </Button>
        </Form>
      </div>
      <Refused said={actionData} />
      {deleted && (
        <WayBack intent="restore" field={['id', deleted]} act="Undo the deletion">
          The tune was deleted.
        </WayBack>
      )}
      {total === 0 && (
        <Form method="post" className="empty">
          <p>
            The book is empty. Give a tune a title above and type its chords, or begin with the demo book.
          </p>
          <Button type="submit" name="intent" value="demo">
            Put the demo book in
          </Button>
        </Form>
      )}
      {total > 0 && found === 0 && (
        <p className="empty">
          No tune has “{q}” in its title or chords. <Link to="/">Show all {total}</Link>
        </p>
      )}
      {found > 0 && (
        <table className="songbook-table" aria-busy={busy}>
          <caption>{q ? `${found} of ${total} tunes` : `${total} ${total === 1 ? 'tune' : 'tunes'}`}</caption>
          <thead>
            <tr>
              {COLUMNS.map(({ by, label }) => (
                <th key={label} scope="col" aria-sort={by === sort ? directionOf(by) : undefined}>
                  {by ? (
                    <Link
                      to={`/?${new URLSearchParams({ ...(q ? { q } : {}), sort: by }).toString()}`}
                      preventScrollReset
                    >
                      {label}
                    </Link>
                  ) : (
                    label
                  )}
                </th>
              ))}
              <th scope="col">
                <span className="visually-hidden">What to do with it</span>
              </th>
            </tr>
          </thead>
          <tbody>
            {rows.map((row) => (
              <Row key={row.id} row={row} renaming={renaming === row.id} onRename={setRenaming} />
            ))}
          </tbody>
        </table>
      )}
      {deletedCount > 0 && (
        <p>
          <Link to="/deleted">Deleted tunes ({deletedCount})</Link>
        </p>
      )}
      {demo && demo.tunes + demo.passes > 0 && (
        <Form method="post" className="demo-note">
          <p>
            {demo.tunes > 0 &&
              `${demo.tunes} ${demo.tunes === 1 ? 'tune is' : 'tunes are'} the demo’s${demo.passes > 0 ? ', and' : '.'} `}
            {demo.passes > 0 && `${demo.passes} passes in the log are its invented player’s.`} Tunes of it
            that you have changed are yours.
          </p>
          <Button type="submit" name="intent" value="own">
            Begin my own book
          </Button>
        </Form>
      )}
      {from + rows.length < found && rows.length >= MOST_ROWS && (
        <p>
          <Link
            to={`/?${new URLSearchParams({ ...(q ? { q } : {}), ...(sort === 'touched' ? {} : { sort }), rows: String(MOST_ROWS), from: String(from + rows.length) }).toString()}`}
          >
            The next {Math.min(MOST_ROWS, found - from - rows.length)} of {found}
          </Link>
        </p>
      )}
      {from + rows.length < found && rows.length < MOST_ROWS && (
        <p>
          <Link
            to={`/?${new URLSearchParams({ ...(q ? { q } : {}), ...(sort === 'touched' ? {} : { sort }), ...(from > 0 ? { from: String(from) } : {}), rows: String(Math.min(MOST_ROWS, rows.length + ROWS_A_PAGE)) }).toString()}`}
            preventScrollReset
          >
            Show more ({found - from - rows.length} left)
          </Link>
        </p>
      )}
    </main>
  )
}

function Row({
  row,
  renaming,
  onRename,
}: {
  row: SongbookRow
  renaming: boolean
  onRename: (id: string | null) => void
}) {
  return (
    <tr>
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
          <Link to={`/tunes/${row.id}/chart`}>{row.title}</Link>
        )}
      </th>
      <td>{row.key ? keyInWords(row.key) : '–'}</td>
      <td>{row.meter}</td>
      <td>{row.bars}</td>
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
