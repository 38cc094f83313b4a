import type { z } from 'zod'
import type { Result } from '../result'
import type { requestSchemas } from './requests'

/** What is answered, as JSON. */
export type Answer = Record<string, unknown>

/** Told how far an answer is that takes long; it is worked out to its end if this returns true. */
export type OnProgress = (done: number, of: number) => boolean

/** How requests of these names are answered, once their fields are known to be right. */
export type AnswersTo<Name extends keyof typeof requestSchemas> = {
  [One in Name]: (request: z.output<(typeof requestSchemas)[One]>, onProgress: OnProgress) => Result<Answer>
}
