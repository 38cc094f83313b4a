import { JOBS } from './jobs'

export { WorkEnded } from './workEnded'

/** Stands for the pool of workers where routes are tested: the same jobs, in the same thread. */
export const runJob = async (kind: keyof typeof JOBS, question: never): Promise<unknown> =>
  (JOBS[kind] as (question: never, tell: () => void) => unknown)(question, () => {})
