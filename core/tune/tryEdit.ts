import { firstOf } from '../lists'
import type { z } from 'zod'
import { refusalInWords } from '../refusal'
import { MOST_CHARTS, MOST_CONDITIONS, MOST_VERSIONS, tuneDocument, type TuneDocument } from './document'
import { applyEdit, tuneEdit, type TuneEdit } from './tuneEdit'

export type Tried = { ok: true; document: TuneDocument } | { ok: false; message: string }

/** Where a tune holds no more of something: said, and not answered by doing nothing. */
function limitReached({ conditions, versions, others }: TuneDocument, edit: TuneEdit): string | null {
  switch (edit.kind) {
    case 'condition-add':
      return conditions.length >= MOST_CONDITIONS
        ? `There are ${MOST_CONDITIONS} conditions, as many as a chart can have: take one away first.`
        : null
    case 'version-keep':
      return versions.length >= MOST_VERSIONS && !versions.some(({ name }) => name === edit.name)
        ? `There are ${MOST_VERSIONS} versions, as many as a chart can keep: delete one first.`
        : null
    case 'version-take':
    case 'version-bars':
    case 'version-remove':
      return versions.some(({ name }) => name === edit.name)
        ? null
        : `There is no version “${edit.name}” any more.`
    case 'chart-add':
      return others.length + 1 >= MOST_CHARTS
        ? `There are ${MOST_CHARTS} charts, as many as a tune can have: take one out first.`
        : null
    case 'chart-remove':
      return others.length === 0 ? 'This is the only chart of the tune: it stays.' : null
    default:
      return null
  }
}

/**
 * What a document becomes by an edit, or why it cannot be. The same check serves the screen before
 * anything is sent and the database before anything is written, so that no edit is made that would
 * be refused, and no document is written that could not be read.
 * @param given an edit, also one of doubtful origin
 */
export function tryEdit(document: TuneDocument, given: unknown): Tried {
  const read = tuneEdit.safeParse(given)
  if (!read.success) return { ok: false, message: refusalInWords(read.error, given) }
  const limit = limitReached(document, read.data)
  if (limit) return { ok: false, message: limit }
  let next: TuneDocument
  try {
    next = applyEdit(document, read.data)
  } catch (error) {
    return {
      ok: false,
      message: `This cannot be done to the tune as it is: ${error instanceof Error ? error.message : String(error)}`,
    }
  }
  // Only what the edit changed can be wrong in what comes of it.
  const shape = tuneDocument.shape as Readonly<Record<string, z.ZodType>>
  for (const name of Object.keys(shape) as (keyof TuneDocument)[]) {
    if (next[name] === document[name]) continue
    const part = shape[name]!.safeParse(next[name])
    if (!part.success)
      return {
        ok: false,
        message: `It would leave what cannot be kept: ${lowered(refusalInWords(withPath(part.error, name), next))}`,
      }
  }
  return { ok: true, document: next }
}

const lowered = (words: string): string => firstOf(words).toLowerCase() + words.slice(1)

const withPath = (error: z.ZodError, name: string): z.ZodError =>
  ({
    ...error,
    issues: error.issues.map((issue) => ({ ...issue, path: [name, ...issue.path] })),
  }) as z.ZodError
