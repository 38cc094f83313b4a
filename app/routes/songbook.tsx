import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { data, Form, Link, useNavigation } from 'react-router'
import { z } from 'zod'
import {
  countTwice,
  listDeleted,
  listTags,
  listTunes,
  nearTitles,
  SONGBOOK_SORTS,
  tuneTitled,
  twinsOf,
  type SongbookSort,
} from '../../db/songbook'
import { listSets } from '../../db/sets'
import { numeralsAsked } from '../../core/analysis/sought'
import { daysIn } from '../../core/practice/days'
import { dueByTune, tunesInPractice } from '../../db/practice'
import { demoHere } from '../../db/demoHere'
import { FIRST_TUNE } from '../../db/demo'
import { FirstSteps, type FirstHeard } from '../features/first/FirstSteps'
import { database, withBook } from '../database.server'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { Refused, WayBack } from '../services/forms/Notices'
import { MOST_ROWS, ROWS_A_PAGE, rowOf, searchWordsOf } from '../features/songbook/entries'
import { doneInBook, songbookIntents } from '../features/songbook/done.server'
import { TuneRow } from '../features/songbook/TuneRow'
import { Several } from '../features/songbook/Several'
import { TagLine } from '../features/songbook/TagLine'
import { useChoice } from '../features/songbook/useChoice'
import { refusalInWords } from '../../core/refusal'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/songbook'
import { fieldsOf } from '../services/forms/formFields'
import { useOnChange } from '../services/words/stable'

/** What is latest and what is furthest comes first; the rest goes by letters and numbers. */
const directionOf = (by: SongbookSort): 'ascending' | 'descending' =>
  by === 'touched' || by === 'far' ? 'descending' : 'ascending'
const COLUMNS: readonly { label: string; by: SongbookSort | null; from?: 'not-phone' | 'not-narrow' }[] = [
  { label: 'Tune', by: 'title' },
  { label: 'Key', by: 'key', from: 'not-phone' },
  { label: 'Metre', by: null, from: 'not-narrow' },
  { label: 'Bars', by: 'bars', from: 'not-phone' },
  { label: 'How far', by: 'far' },
  { label: 'Last touched', by: 'touched' },
]

const view = z.object({
  q: z.string().max(200).catch(''),
  sort: z.enum(SONGBOOK_SORTS).catch('touched'),
  rows: z.coerce.number().int().min(ROWS_A_PAGE).max(MOST_ROWS).catch(ROWS_A_PAGE),
  from: z.coerce.number().int().min(0).max(1_000_000).catch(0),
  deleted: z.uuid().nullable().catch(null),
  /** The moment at which several were deleted. */
  deletedAt: z.coerce.number().int().positive().nullable().catch(null),
  said: z.string().max(300).nullable().catch(null),
  tag: z.string().max(60).nullable().catch(null),
  twice: z.literal('yes').nullable().catch(null),
})

export function loader({ request }: Route.LoaderArgs) {
  const { q, rows, from, sort, deleted, deletedAt, said, tag, twice } = view.parse(
    Object.fromEntries(new URL(request.url).searchParams),
  )
  const { entries, found, total } = listTunes(database(), {
    words: searchWordsOf(q),
    numerals: numeralsAsked(q),
    tag,
    twice: twice !== null,
    most: rows,
    from,
    sort,
  })
  const twins = twinsOf(
    database(),
    entries.map(({ id }) => id),
  )
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
    deletedAt,
    said,
    tag,
    twice: twice !== null,
    total,
    found,
    near: found === 0 && q ? nearTitles(database(), q) : [],
    tags: listTags(database()),
    doubled: countTwice(database()),
    sets: listSets(database()).map(({ id, name }) => ({ id, name })),
    rows: entries.map((entry) =>
      rowOf(entry, now, {
        due: practised.has(entry.id) ? (due.get(entry.id) ?? 0) : null,
        demo: ofDemo.has(entry.id),
        twin: twins.get(entry.id) ?? null,
      }),
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

export async function action({ request }: Route.ActionArgs) {
  const form = await fieldsOf(request)
  const wanted = songbookIntents.safeParse(form)
  if (!wanted.success) return data({ message: refusalInWords(wanted.error, form) }, 400)
  const back = new URL(request.url).searchParams
  for (const name of ['deleted', 'deletedAt', 'said', 'index']) back.delete(name)
  return withBook((db) => doneInBook(db, wanted.data, back))
}

/** Without an answer the page stays with what was typed. */
export const clientAction = ({ serverAction }: Route.ClientActionArgs) => unlessUnreachable(serverAction)
export const shouldRevalidate = revalidatesWhenAnswered

export const meta: Route.MetaFunction = () => [{ title: 'Songbook · Yellow Heron' }]

export default function SongbookPage({
  loaderData: {
    q,
    from,
    sort,
    deleted,
    deletedAt,
    said,
    tag,
    twice,
    total,
    found,
    near,
    tags,
    doubled,
    sets,
    rows,
    gone: deletedCount,
    heard,
    demo,
  },
  actionData,
}: Route.ComponentProps) {
  const { chosen, choose, chooseAll, chooseNone } = useChoice(rows.map(({ id }) => id))
  /** The address of the same tunes, seen otherwise. */
  const viewed = (more: Record<string, string>) =>
    `/?${new URLSearchParams({
      ...(q ? { q } : {}),
      ...(tag === null ? {} : { tag }),
      ...(twice ? { twice: 'yes' } : {}),
      ...more,
    }).toString()}`
  return (
    <main className="page songbook">
      <PageHead title="Songbook" />
      <FirstSteps heard={heard} />
      <Tools q={q} tag={tag} />
      <Refused said={actionData} />
      {deleted && (
        <WayBack intent="restore" field={['id', deleted]} act="Undo the deletion">
          The tune was deleted.
        </WayBack>
      )}
      {deletedAt !== null && (
        <WayBack intent="restoreAll" field={['at', String(deletedAt)]} act="Undo the deletion">
          The tunes were deleted.
        </WayBack>
      )}
      {said && (
        <p className="notice" role="status">
          {said}
        </p>
      )}
      <TagLine tags={tags} tag={tag} doubled={doubled} twice={twice} />
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
      {total > 0 && found === 0 && <NoneFound q={q} tag={tag} total={total} near={near} />}
      {chosen.length > 0 && (
        <Several ids={chosen} tags={tags.map((one) => one.tag)} sets={sets} onNone={chooseNone} />
      )}
      {found > 0 && (
        <TunesTable
          rows={rows}
          caption={
            found < total ? `${found} of ${total} tunes` : `${total} ${total === 1 ? 'tune' : 'tunes'}`
          }
          sort={sort}
          viewed={viewed}
          choice={{ chosen, choose, chooseAll, chooseNone }}
          done={actionData}
        />
      )}
      {deletedCount > 0 && (
        <p>
          <Link to="/deleted">Deleted tunes ({deletedCount})</Link>
        </p>
      )}
      {demo && demo.tunes + demo.passes > 0 && <DemoNote {...demo} />}
      <MoreTunes from={from} shown={rows.length} found={found} sort={sort} viewed={viewed} />
    </main>
  )
}

type BookShown = Route.ComponentProps['loaderData']

/** What is searched for, and a new tune. */
function Tools({ q, tag }: Pick<BookShown, 'q' | 'tag'>) {
  return (
    <div className="songbook-tools">
      <Form method="get" role="search">
        <TextField
          name="q"
          label="Search the songbook"
          placeholder="words, chords, ii V I, walking up"
          slotProps={{ inputLabel: { shrink: true } }}
          defaultValue={q}
          key={q}
          size="small"
        />
        {tag !== null && <input type="hidden" name="tag" value={tag} />}
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
  )
}

interface TableProps extends Pick<BookShown, 'rows' | 'sort'> {
  caption: string
  /** The address of the same tunes, seen otherwise. */
  viewed: (more: Record<string, string>) => string
  choice: ReturnType<typeof useChoice>
  done: Route.ComponentProps['actionData']
}

/** The tunes, in the order that is asked for. */
function TunesTable({
  rows,
  caption,
  sort,
  viewed,
  choice: { chosen, choose, chooseAll, chooseNone },
  done,
}: TableProps) {
  const [renaming, setRenaming] = useState<string | null>(null)
  const busy = useNavigation().state !== 'idle'
  // The field closes when the new title is there, and stays with what was typed when it could not
  // be sent.
  const closes = () => {
    if (!done) setRenaming(null)
  }
  useOnChange(rows, closes)
  useOnChange(done, closes)
  return (
    <table className="songbook-table of-tunes" aria-busy={busy}>
      <caption>{caption}</caption>
      <thead>
        <tr>
          <th scope="col" className="row-choice">
            <label>
              <input
                type="checkbox"
                aria-label="Choose all tunes shown"
                checked={chosen.length === rows.length}
                onChange={(event) => (event.currentTarget.checked ? chooseAll() : chooseNone())}
              />
            </label>
          </th>
          {COLUMNS.map(({ by, label, from: shownFrom }) => (
            <th
              key={label}
              scope="col"
              className={shownFrom}
              aria-sort={by === sort ? directionOf(by) : undefined}
            >
              {by ? (
                <Link to={viewed({ sort: by })} preventScrollReset>
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
          <TuneRow
            key={row.id}
            row={row}
            renaming={renaming === row.id}
            onRename={setRenaming}
            chosen={chosen.includes(row.id)}
            onChoose={choose}
          />
        ))}
      </tbody>
    </table>
  )
}

/** Nothing has what was asked for: what is near it, and the way back to all. */
function NoneFound({ q, tag, total, near }: Pick<BookShown, 'q' | 'tag' | 'total' | 'near'>) {
  return (
    <p className="empty">
      {noneFound(q, tag)} <Link to="/">Show all {total}</Link>
      {near.length > 0 && (
        <>
          {' '}
          Near it:{' '}
          {near.map(({ id, title: nearTitle }, at) => (
            <span key={id}>
              {at > 0 && ', '}
              <Link to={`/tunes/${id}`}>{nearTitle}</Link>
            </span>
          ))}
        </>
      )}
    </p>
  )
}

/** What of the book is the demo's, and how to begin without it. */
function DemoNote(demo: NonNullable<BookShown['demo']>) {
  return (
    <Form method="post" className="demo-note">
      <p>
        {demo.tunes > 0 &&
          `${demo.tunes} ${demo.tunes === 1 ? 'tune is' : 'tunes are'} the demo’s${demo.passes > 0 ? ', and' : '.'} `}
        {demo.passes > 0 && `${demo.passes} passes in the log are its invented player’s.`} Tunes of it that
        you have changed are yours.
      </p>
      <Button type="submit" name="intent" value="own">
        Begin my own book
      </Button>
    </Form>
  )
}

/** Where there are more than are shown. */
function MoreTunes({
  from,
  shown,
  found,
  sort,
  viewed,
}: Pick<BookShown, 'from' | 'found' | 'sort'> & Pick<TableProps, 'viewed'> & { shown: number }) {
  return (
    <>
      {from + shown < found && shown >= MOST_ROWS && (
        <p>
          <Link to={viewed({ sort, rows: String(MOST_ROWS), from: String(from + shown) })}>
            The next {Math.min(MOST_ROWS, found - from - shown)} of {found}
          </Link>
        </p>
      )}
      {from + shown < found && shown < MOST_ROWS && (
        <p>
          <Link
            to={viewed({
              sort,
              ...(from > 0 ? { from: String(from) } : {}),
              rows: String(Math.min(MOST_ROWS, shown + ROWS_A_PAGE)),
            })}
            preventScrollReset
          >
            Show more ({found - from - shown} left)
          </Link>
        </p>
      )}
    </>
  )
}

function noneFound(q: string, tag: string | null): string {
  if (q) return `No tune has “${q}” in its title, tags, words or chords.`
  return tag === null ? 'No tune stands in the book twice.' : `No tune has the tag “${tag}”.`
}
