import { firstOf } from '../../core/lists'
import { useCallback } from 'react'
import { data, redirect } from 'react-router'
import { placeInSongbook } from '../../db/songbook'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { keptHere, pagesAddress, windowAsked } from '../features/stand/standAddress'
import { useStepAskedFor } from '../services/offline/useKept'
import { ROOMS, roomNamed } from '../steps/rooms'
import { Workspace } from '../workspace/Workspace'
import type { Route } from './+types/tune'

export function loader({ params }: Route.LoaderArgs) {
  const state = readTune(database(), params.tuneId)
  if (!state) throw data('This tune is not in the songbook.', 404)
  const place = placeInSongbook(database(), params.tuneId)
  if (!roomNamed(params.step))
    throw redirect(`/tunes/${params.tuneId}/${roomNamed(place?.step)?.name ?? firstOf(ROOMS).name}`)
  return { state, at: place?.slot ?? null }
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

/**
 * Where a tune is read away from the workspace: practised, printed and on the stand, as large as
 * this window has it.
 */
function readAway(tune: string): string[] {
  const stand = { tune, title: '', key: null, tempo: null, version: null, note: '' }
  const window = windowAsked({ width: innerWidth, height: innerHeight - STRIP_PX }, keptHere(), null)
  return [
    `/tunes/${tune}/practice`,
    `/tunes/${tune}/sheet`,
    `/stand?tune=${tune}`,
    ...(window ? [pagesAddress(stand, window)] : []),
  ]
}
/** The strip at the foot of the stand. */
const STRIP_PX = 52

export default function TunePage({ loaderData, params }: Route.ComponentProps) {
  const { state, at } = loaderData
  useStepAskedFor()
  // One and the same for as long as the tune is: nothing around the room is drawn anew for it.
  const kept = useCallback(() => readAway(state.id), [state.id])
  return (
    <Workspace
      key={state.id}
      state={state}
      at={at}
      room={roomNamed(params.step) ?? firstOf(ROOMS)}
      rooms={ROOMS}
      kept={kept}
    />
  )
}
