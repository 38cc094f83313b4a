import Button from '@mui/material/Button'
import { randomUUID } from 'node:crypto'
import { useEffect } from 'react'
import { data, Form, Link, redirect, useRevalidator, useSubmit } from 'react-router'
import { z } from 'zod'
import { analyse } from '../../core/analysis/analyse'
import { parseChart, TEMPO_RANGE } from '../../core/chart/parseChart'
import { keyAbove } from '../../core/chart/transpose'
import { keyName } from '../../core/pitch/key'
import { fromCsv } from '../../core/practice/csv'
import { dateOf, dayOfDate, daysIn } from '../../core/practice/days'
import { GRADES, itemKey } from '../../core/practice/grade'
import { keySteps } from '../../core/practice/keysPractised'
import { refusalInWords } from '../../core/refusal'
import type { Db } from '../../db/connect'
import {
  climbedIn,
  correctPass,
  doubtsByBar,
  keepPasses,
  keysPlayed,
  logDays,
  logInShort,
  minutesByDay,
  putPassBack,
  takePassOut,
  tempoOf,
  tunesInLog,
} from '../../db/practice'
import { readTune } from '../../db/tunes'
import { database, withBook } from '../database.server'
import { BringIn } from '../features/log/BringIn'
import { DoubtChart, KeysChart, MinutesChart, TempoChart } from '../features/log/LogCharts'
import { logDayInWords, LogDays } from '../features/log/LogDays'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { Refused, WayBack } from '../services/forms/Notices'
import { isWaiting, sendWaiting } from '../services/practice/passOutbox'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/log'
import { fieldsOf } from '../services/forms/formFields'

/** Days of the chart of minutes. */
const CHART_DAYS = 90
/** Largest file that is read, in letters. */
const MOST_LETTERS = 2_000_000

const view = z.object({
  before: z
    .string()
    .regex(/^\d{4}-\d\d-\d\d$/)
    .nullable()
    .catch(null),
  tune: z.uuid().nullable().catch(null),
  item: z.string().max(400).nullable().catch(null),
  out: z.uuid().nullable().catch(null),
  brought: z.coerce.number().int().min(0).nullable().catch(null),
})

/** Today where this program runs. */
const todayHere = (): number => daysIn(Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC')(Date.now())

export function loader({ request }: Route.LoaderArgs) {
  const db = database()
  const asked = view.parse(Object.fromEntries(new URL(request.url).searchParams))
  const tunes = tunesInLog(db)
  const tuneId = asked.tune ?? tunes[0]?.id ?? null
  const today = todayHere()
  return {
    inShort: logInShort(db),
    minutes: minutesByDay(db, today - CHART_DAYS, today),
    tunes,
    ...(tuneId ? ofTune(db, tuneId, asked.item, today) : NO_TUNE),
    tuneId,
    ...logDays(db, asked.before === null ? null : dayOfDate(asked.before)),
    before: asked.before,
    takenOut: asked.out,
    brought: asked.brought,
  }
}
const NO_TUNE = { climbed: [], item: null, tempo: [], doubts: [], keys: [] }

/** What the charts show of one tune. */
function ofTune(db: Db, tuneId: string, wanted: string | null, today: number) {
  const climbed = climbedIn(db, tuneId)
  const item = climbed.find((one) => itemKey(one) === wanted) ?? climbed[0] ?? null
  const played = new Map(keysPlayed(db, tuneId).map(({ key, day }) => [key, today - day]))
  const text = readTune(db, tuneId)?.document.text ?? ''
  const home = analyse(parseChart(text)).key
  return {
    climbed,
    item: item && itemKey(item),
    tempo: item ? tempoOf(db, { tuneId, kind: item.kind, item: item.item }) : [],
    doubts: [...doubtsByBar(db, tuneId)]
      .sort(([a], [b]) => a - b)
      .map(([bar, { passes, doubt }]) => ({ bar, passes, share: passes > 0 ? doubt / passes : 0 })),
    keys: keySteps('fourths').map((semitones) => {
      const key = keyName(semitones === 0 ? home : keyAbove(home, semitones))
      return { key, ago: played.get(key) ?? null }
    }),
  }
}

const tempo = z.preprocess(
  (value) => (value === '' ? null : Number(value)),
  z.number().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1]).nullable(),
)
const intents = z.discriminatedUnion('intent', [
  z.object({
    intent: z.literal('correct'),
    id: z.uuid(),
    grade: z.enum(GRADES),
    tempo,
    note: z.string().max(2_000),
  }),
  z.object({ intent: z.literal('take-out'), id: z.uuid() }),
  z.object({ intent: z.literal('put-back'), id: z.uuid() }),
  z.object({ intent: z.literal('bring'), file: z.instanceof(File) }),
])

export async function action({ request }: Route.ActionArgs) {
  const form = await fieldsOf(request)
  const wanted = intents.safeParse(form)
  if (!wanted.success) return data({ message: refusalInWords(wanted.error, form) }, 400)
  if (wanted.data.intent !== 'bring') {
    const change = wanted.data
    return withBook((db) => changed(db, change))
  }
  const { file } = wanted.data
  if (file.size > MOST_LETTERS)
    return data({ message: `The file has ${file.size} letters. Accepted: at most ${MOST_LETTERS}.` }, 400)
  const { passes, problems } = fromCsv(await file.text(), randomUUID)
  if (passes.length === 0)
    return data({ message: problems.slice(0, TOLD).join(' ') || 'There is no pass in this file.' }, 400)
  return withBook((db) => {
    const kept = keepPasses(db, passes)
    return problems.length > 0
      ? data(
          {
            message: `${kept} of ${passes.length} passes were new and are in the log. ${problems.length} lines could not be read: ${problems.slice(0, TOLD).join(' ')}`,
          },
          200,
        )
      : redirect(`/log?brought=${kept}`)
  })
}
/** Lines that could not be read are told up to here. */
const TOLD = 5

function changed(db: Db, form: Exclude<z.infer<typeof intents>, { intent: 'bring' }>) {
  const gone = () => data({ message: 'This pass is not in the log any more.' }, 404)
  switch (form.intent) {
    case 'correct': {
      const { grade, tempo: beats, note } = form
      return correctPass(db, form.id, { grade, tempo: beats, note }) ? null : gone()
    }
    case 'take-out':
      return takePassOut(db, form.id) ? redirect(`/log?out=${form.id}`) : gone()
    case 'put-back':
      return putPassBack(db, form.id) ? redirect('/log') : gone()
  }
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => unlessUnreachable(serverAction)
export const shouldRevalidate = revalidatesWhenAnswered
export const meta: Route.MetaFunction = () => [{ title: 'Practice log · Yellow Heron' }]

export default function LogPage({ loaderData, actionData }: Route.ComponentProps) {
  const { inShort, minutes, tunes, tuneId, climbed, item, tempo: climbs, doubts, keys } = loaderData
  const { days, more, before, takenOut, brought } = loaderData
  const submit = useSubmit()
  const { revalidate } = useRevalidator()
  // What could not be sent where it was played is sent from here.
  useEffect(() => {
    if (isWaiting()) void sendWaiting().then((fault) => (fault === null ? revalidate() : undefined))
  }, [revalidate])
  const oldest = days.at(-1)?.day
  return (
    <main className="page log">
      <PageHead title="Practice log" />
      <Refused said={actionData} />
      {takenOut && (
        <WayBack intent="put-back" field={['id', takenOut]} act="Put it back">
          The pass was taken out.
        </WayBack>
      )}
      {brought !== null && (
        <p className="notice" role="status">
          {brought} {brought === 1 ? 'pass was' : 'passes were'} new and brought in.
        </p>
      )}
      {inShort.passes === 0 ? (
        <p className="empty">
          Nothing has been practised yet. Open a tune from the <Link to="/">songbook</Link>, go to its
          Practice step, and press Space: every pass is written down here.
        </p>
      ) : (
        <>
          <p>
            {inShort.passes} passes, {Math.round(inShort.minutes)} minutes
            {inShort.first !== null && `, since ${logDayInWords(inShort.first)}`}.
          </p>
          <Form
            method="get"
            className="songbook-tools log-tools"
            onChange={(event) => void submit(event.currentTarget, { preventScrollReset: true })}
          >
            <label>
              Tune{' '}
              <select name="tune" defaultValue={tuneId ?? ''} key={tuneId}>
                {tunes.map(({ id, title }) => (
                  <option key={id} value={id}>
                    {title}
                  </option>
                ))}
              </select>
            </label>
            <label>
              Tempo of{' '}
              <select name="item" defaultValue={item ?? ''} key={`${tuneId} ${item}`}>
                {climbed.map((one) => (
                  <option key={itemKey(one)} value={itemKey(one)}>
                    {one.item} ({one.passes})
                  </option>
                ))}
              </select>
            </label>
            <noscript>
              <button type="submit">Show</button>
            </noscript>
          </Form>
          <div className="log-charts">
            <section aria-labelledby="log-tempo">
              <h2 id="log-tempo">Tempo</h2>
              {climbs.length > 0 ? (
                <TempoChart passes={climbs} name={climbed.find((one) => itemKey(one) === item)?.item ?? ''} />
              ) : (
                <p className="quiet">Nothing of this tune was played at a tempo yet.</p>
              )}
            </section>
            <section aria-labelledby="log-minutes">
              <h2 id="log-minutes">Minutes a day</h2>
              <MinutesChart days={minutes} />
            </section>
            <section aria-labelledby="log-doubt">
              <h2 id="log-doubt">Doubt, bar by bar</h2>
              {doubts.length > 0 && <DoubtChart bars={doubts} />}
            </section>
            <section aria-labelledby="log-keys">
              <h2 id="log-keys">Keys by when they were last played</h2>
              <KeysChart keys={keys} />
            </section>
          </div>
          <h2>Day by day</h2>
          {before && (
            <p>
              <Link to="/log">The latest days</Link>
            </p>
          )}
          <LogDays days={days} />
          {more && oldest !== undefined && (
            <p>
              <Link to={`/log?before=${dateOf(oldest)}`}>Earlier days</Link>
            </p>
          )}
        </>
      )}
      <section aria-labelledby="log-files" className="log-files">
        <h2 id="log-files">In and out</h2>
        <Button component="a" href="/log/file" download>
          Save as CSV
        </Button>
        <BringIn />
        <p className="quiet">A pass that is in the log already counts once.</p>
      </section>
    </main>
  )
}
