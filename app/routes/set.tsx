import { firstOf } from '../../core/lists'
import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { data, Form, Link, redirect } from 'react-router'
import { z } from 'zod'
import { refusalInWords } from '../../core/refusal'
import { TEMPLATE_NAMES, TEMPLATES } from '../../core/sheet/sheetLayout'
import type { Db } from '../../db/connect'
import { layoutNamesOf } from '../../db/layouts'
import {
  addToSet,
  changeInSet,
  changeSet,
  moveInSet,
  putBackInSet,
  readSet,
  takeFromSet,
} from '../../db/sets'
import { readTune } from '../../db/tunes'
import { listTunes } from '../../db/songbook'
import { database, withBook } from '../database.server'
import { ownChoice } from '../features/paper/ownLayouts'
import { SetOrder } from '../features/sets/SetOrder'
import { howInSet, setName, setNote } from '../features/sets/setForms'
import { usePrinted } from '../features/paper/usePrinted'
import { searchWordsOf } from '../features/songbook/entries'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { Refused, WayBack, Working } from '../services/forms/Notices'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/set'
import { fieldsOf } from '../services/forms/formFields'

/** Tunes offered to be put in, at a time. */
const OFFERED = 12

export function loader({ params, request }: Route.LoaderArgs) {
  const db = database()
  const set = readSet(db, params.setId)
  if (!set) throw data('This set is not there any more.', 404)
  const asked = new URL(request.url).searchParams
  const q = (asked.get('q') ?? '').slice(0, 200)
  return {
    set: {
      ...set,
      tunes: set.tunes.map((one) => {
        const state = one.deleted ? null : readTune(db, one.tuneId!)
        return {
          ...one,
          versions: state?.document.versions.map(({ name }) => name) ?? [],
          own: state ? { tempo: state.document.tempo } : null,
        }
      }),
    },
    layouts: layoutNamesOf(
      db,
      set.tunes.flatMap(({ tuneId, deleted }) => (tuneId === null || deleted ? [] : [tuneId])),
    ),
    q,
    offered: listTunes(db, {
      words: searchWordsOf(q),
      most: OFFERED,
      sort: q ? 'title' : 'touched',
    }).entries.map(({ id, title }) => ({ id, title })),
    out: z.uuid().nullable().catch(null).parse(asked.get('out')),
  }
}

const row = { row: z.uuid() }
const intents = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('say'), name: setName, note: setNote }),
  z.object({ intent: z.literal('add'), tune: z.uuid() }),
  z.object({ intent: z.literal('move'), ...row, to: z.coerce.number().int().min(0).max(10_000) }),
  z.object({ intent: z.literal('change'), ...row, ...howInSet.shape }),
  z.object({ intent: z.literal('take-out'), ...row }),
  z.object({ intent: z.literal('put-back'), ...row }),
])

export async function action({ request, params: { setId } }: Route.ActionArgs) {
  const form = await fieldsOf(request)
  const wanted = intents.safeParse(form)
  if (!wanted.success) return data({ message: refusalInWords(wanted.error, form) }, 400)
  return withBook((db) => done(db, setId, wanted.data))
}

function done(db: Db, setId: string, asked: z.infer<typeof intents>) {
  const gone = () => data({ message: 'That is not in this set any more.' }, 404)
  switch (asked.intent) {
    case 'say':
      return changeSet(db, setId, { name: asked.name, note: asked.note }) ? null : gone()
    case 'add': {
      const refused = addToSet(db, setId, asked.tune)
      return refused === null ? null : data({ message: refused }, 400)
    }
    case 'move':
      return moveInSet(db, setId, asked.row, asked.to) ? null : gone()
    case 'change': {
      const { key, tempo, version, note } = asked
      return changeInSet(db, setId, asked.row, { key, tempo, version, note }) ? null : gone()
    }
    case 'take-out':
      return takeFromSet(db, setId, asked.row) ? redirect(`/sets/${setId}?out=${asked.row}`) : gone()
    case 'put-back':
      return putBackInSet(db, setId, asked.row) ? redirect(`/sets/${setId}`) : gone()
  }
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => unlessUnreachable(serverAction)
export const shouldRevalidate = revalidatesWhenAnswered
export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.set.name ?? 'Set'} · Yellow Heron` },
]

/** A set: its tunes in order, how each is played, and what is done with the whole of it. */
export default function SetPage({
  loaderData: { set, layouts, offered, q, out },
  actionData,
}: Route.ComponentProps) {
  return (
    <main className="page songbook">
      <PageHead title={set.name} />
      <Refused said={actionData} />
      {out && (
        <WayBack intent="put-back" field={['row', out]} act="Put it back">
          The tune was taken out of the set.
        </WayBack>
      )}
      <div className="set-whole">
        {set.tunes.length > 0 && (
          <Button component={Link} to={`/stand?set=${set.id}`} variant="contained" color="primary">
            On the stand
          </Button>
        )}
        {set.tunes.length > 0 && <PrintSet id={set.id} layouts={layouts} />}
      </div>
      {set.tunes.length === 0 ? (
        <p className="empty">Nothing is in this set yet. Put in the first tune below.</p>
      ) : (
        <SetOrder tunes={set.tunes} />
      )}
      <section aria-labelledby="set-add">
        <h2 id="set-add">Put a tune in</h2>
        <Form method="get" role="search" className="set-search" preventScrollReset>
          <TextField name="q" label="Search the songbook" defaultValue={q} key={q} size="small" />
          <Button type="submit">Search</Button>
        </Form>
        {offered.length === 0 && <p className="quiet">No tune has “{q}” in its title or chords.</p>}
        <Form method="post" className="set-offered" preventScrollReset>
          <input type="hidden" name="intent" value="add" />
          {offered.map(({ id, title }) => (
            <Button key={id} type="submit" name="tune" value={id}>
              {title}
            </Button>
          ))}
        </Form>
      </section>
      <section aria-labelledby="set-say">
        <h2 id="set-say">Name and note</h2>
        <Form method="post" className="set-say" preventScrollReset>
          <input type="hidden" name="intent" value="say" />
          <TextField
            name="name"
            label="Name"
            defaultValue={set.name}
            key={`n ${set.name}`}
            required
            size="small"
            slotProps={{ htmlInput: { maxLength: 80 } }}
          />
          <TextField
            name="note"
            label="Note: place, time, who plays"
            defaultValue={set.note}
            key={`t ${set.note}`}
            size="small"
            multiline
            slotProps={{ htmlInput: { maxLength: 2000 } }}
          />
          <Button type="submit">Keep</Button>
        </Form>
      </section>
      <p>
        <Link to="/sets">All sets</Link>
      </p>
    </main>
  )
}

/** The whole set as one PDF, with what it takes shown and a way to stop. */
function PrintSet({ id, layouts }: { id: string; layouts: readonly string[] }) {
  const { state, make, stop } = usePrinted()
  const [layout, setLayout] = useState<string>(firstOf(TEMPLATE_NAMES))
  return (
    <>
      <label className="set-layout">
        Sheets{' '}
        <select value={layout} onChange={(event) => setLayout(event.target.value)}>
          {TEMPLATE_NAMES.map((name) => (
            <option key={name} value={name}>
              {TEMPLATES[name].label}
            </option>
          ))}
          {layouts.map((own) => (
            <option key={own} value={ownChoice(own)}>
              {own}
            </option>
          ))}
        </select>
      </label>
      {state.kind === 'working' ? (
        <Working label="Printing the set" at={state} onStop={stop} />
      ) : (
        <Button onClick={() => void make(`/sets/${id}/set.pdf`, new URLSearchParams({ layout }))}>
          PDF of the set
        </Button>
      )}
      {state.kind === 'fault' && (
        <span className="fault" role="alert">
          {state.message}
        </span>
      )}
    </>
  )
}
