import { data, redirect } from 'react-router'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { ROOMS, roomNamed } from '../steps/rooms'
import { Workspace } from '../workspace/Workspace'
import type { Route } from './+types/tune'

export function loader({ params }: Route.LoaderArgs) {
  const state = readTune(database(), params.tuneId)
  if (!state) throw data('This tune is not in the songbook.', 404)
  if (!roomNamed(params.step)) throw redirect(`/tunes/${params.tuneId}/${ROOMS[0]!.name}`)
  return { state }
}

/** Going from step to step keeps the session of the tab; only another tune is read anew. */
export function shouldRevalidate({
  currentParams,
  nextParams,
}: {
  currentParams: Record<string, string | undefined>
  nextParams: Record<string, string | undefined>
}) {
  return currentParams.tuneId !== nextParams.tuneId
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.state.document.title ?? 'Tune'} · Yellow Heron` },
]

export default function TunePage({ loaderData, params }: Route.ComponentProps) {
  return (
    <Workspace
      key={loaderData.state.id}
      state={loaderData.state}
      room={roomNamed(params.step) ?? ROOMS[0]!}
      rooms={ROOMS}
    />
  )
}
