import { data } from 'react-router'
import { z } from 'zod'
import { layoutNamesOf } from '../../db/layouts'
import { readSet } from '../../db/sets'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { Stand } from '../features/stand/Stand'
import type { StandTune } from '../features/stand/standAddress'
import type { Route } from './+types/stand'
import '../features/paper/paper.css'
import '../features/stand/stand.css'

const query = z.object({
  set: z.uuid().nullable().catch(null),
  tune: z.uuid().nullable().catch(null),
  version: z.string().max(40).nullable().catch(null),
  at: z.coerce.number().int().min(0).catch(0),
})

export function loader({ request }: Route.LoaderArgs) {
  const asked = query.parse(Object.fromEntries(new URL(request.url).searchParams))
  if (asked.set !== null) {
    const set = readSet(database(), asked.set)
    if (!set) throw data('This set is not there any more.', 404)
    const tunes = set.tunes.flatMap(({ tuneId, deleted, title, key, tempo, version, note }): StandTune[] =>
      tuneId === null || deleted ? [] : [{ tune: tuneId, title, key, tempo, version, note }],
    )
    const layouts = layoutNamesOf(
      database(),
      tunes.map(({ tune }) => tune),
    )
    return { name: set.name, tunes, at: asked.at, back: `/sets/${asked.set}`, layouts }
  }
  const state = asked.tune === null ? null : readTune(database(), asked.tune)
  if (!state) throw data('This tune is not in the songbook.', 404)
  const { title } = state.document
  const tune: StandTune = { tune: state.id, title, key: null, tempo: null, version: asked.version, note: '' }
  return {
    name: title,
    tunes: [tune],
    at: 0,
    back: `/tunes/${state.id}/lines`,
    layouts: layoutNamesOf(database(), [state.id]),
  }
}

/** Everything is there once it is loaded: nothing is asked for again while it stands. */
export const shouldRevalidate = () => false

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.name ?? 'Stand'} · stand` },
]

/** One tune in the whole window, to be read from where the player sits. */
export default function StandPage({ loaderData }: Route.ComponentProps) {
  return <Stand {...loaderData} />
}
