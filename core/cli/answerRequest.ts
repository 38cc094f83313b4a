import { firstOf } from '../lists'
import { fieldRefusal } from '../refusal'
import { faultWords } from '../result'
import type { z } from 'zod'
import type { Fault, Result } from '../result'
import { CHART_ANSWERS } from './chartAnswers'
import { FILE_ANSWERS } from './fileAnswers'
import { GRIP_ANSWERS } from './gripAnswers'
import { LINE_ANSWERS } from './lineAnswers'
import { MELODY_ANSWERS } from './melodyAnswers'
import { PRACTICE_ANSWERS } from './practiceAnswers'
import { REHARM_ANSWERS } from './reharmAnswers'
import { requestSchemas } from './requests'
import { RHYTHM_ANSWERS } from './rhythmAnswers'
import { SHAPE_ANSWERS } from './shapeAnswers'
import type { Answer, AnswersTo, OnProgress } from './answersTo'

export type Reply =
  ({ ok: true } & Answer) | { ok: false; error: { code: string; message: string; where: unknown } }

/** One line of input to one line of output. Never throws on what a player sends. */
export function answerLine(line: string, onProgress?: OnProgress): Reply {
  let request: unknown
  try {
    request = JSON.parse(line)
  } catch (error) {
    return refuse('bad-json', `This line is not JSON: ${faultWords(error)}`, 'line')
  }
  return answer(request, onProgress)
}

export const refuse = (code: string, message: string, where: unknown): Reply => ({
  ok: false,
  error: { code, message, where },
})

export function answer(request: unknown, onProgress: OnProgress = () => true): Reply {
  const wanted = typeof request === 'object' && request !== null && 'do' in request ? request.do : undefined
  if (typeof wanted !== 'string')
    return refuse('bad-request', 'A request is a JSON object with a "do".', 'do')
  if (!Object.hasOwn(HANDLERS, wanted))
    return refuse('unknown-do', `There is no "${wanted}". Known: ${Object.keys(HANDLERS).join(', ')}.`, 'do')
  const name = wanted as keyof typeof HANDLERS
  const checked = requestSchemas[name].safeParse(request)
  if (!checked.success) return refuseIssue(firstOf(checked.error.issues), request)
  const result = (HANDLERS[name] as (request: never, onProgress: OnProgress) => Result<Answer>)(
    checked.data as never,
    onProgress,
  )
  return result.ok
    ? { ok: true, ...result.value }
    : refuse(result.fault.code, messageOf(result.fault), whereOf(result.fault))
}

const messageOf = (fault: Fault) =>
  fault.accepted ? `${fault.message} Accepted: ${fault.accepted}.` : fault.message
/** A place in a text as offset and text; a place in the request as the path of the field. */
const whereOf = ({ at, text }: Fault) => (at === undefined ? (text ?? null) : { at, text })

function refuseIssue(issue: z.core.$ZodIssue, given: unknown): Reply {
  const path = issue.path.join('.')
  if (issue.code === 'unrecognized_keys') {
    const where = [...issue.path, firstOf(issue.keys)].join('.')
    return refuse(
      'unknown-field',
      `Unknown field ${issue.keys.map((field) => `"${field}"`).join(', ')}.`,
      where,
    )
  }
  return refuse('bad-field', fieldRefusal(issue, given), path || 'request')
}

const HANDLERS: AnswersTo<keyof typeof requestSchemas> = {
  ...CHART_ANSWERS,
  ...GRIP_ANSWERS,
  ...REHARM_ANSWERS,
  ...LINE_ANSWERS,
  ...FILE_ANSWERS,
  ...MELODY_ANSWERS,
  ...RHYTHM_ANSWERS,
  ...PRACTICE_ANSWERS,
  ...SHAPE_ANSWERS,
}
