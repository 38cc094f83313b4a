import { goalsOf, practisedOf } from '../../db/practice'
import { database } from '../database.server'
import type { Route } from './+types/tune.practice'

/**
 * What the log says of a tune: a record and a goal for each thing that was practised or is wanted.
 */
export const loader = ({ params }: Route.LoaderArgs) => ({
  records: [...practisedOf(database(), params.tuneId).values()],
  goals: goalsOf(database(), params.tuneId),
})
