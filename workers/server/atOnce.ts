import { JOBS } from './jobs'

/** Stands for the pool of workers where routes are tested: the same jobs, in the same thread. */
export class WorkEnded extends Error {}
export const inWorker = async (kind: keyof typeof JOBS, question: never): Promise<unknown> =>
  (JOBS[kind] as (question: never, tell: () => void) => unknown)(question, () => {})
export const endWorkers = async (): Promise<void> => {}
