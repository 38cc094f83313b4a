import type { z } from 'zod'
import { refusalInWords } from '../refusal'
import { newDocument, tuneDocument, type TuneDocument } from './document'

/**
 * The form in which documents are written now. A change of form, or of the grammar of symbols and
 * pitches that stand in them, raises it and adds a reader for the form before. Version 0 is
 * everything written before forms were numbered.
 */
export const DOCUMENT_VERSION = 2

/** By version: what makes a document of that form one of the next. */
const READERS: readonly ((document: Record<string, unknown>) => Record<string, unknown>)[] = [
  // Choices of one chord in place of one and settings that came later are read by the schema's own
  // defaults.
  (document) => document,
  // Words came with version 2.
  (document) => ({ lyrics: [], ...document }),
]

export interface OpenedDocument {
  document: TuneDocument
  /**
   * What this version could not read, in words; empty where all was read. What is left out here
   * stays in the history.
   */
  unread: string[]
}

const isObject = (value: unknown): value is Record<string, unknown> =>
  value !== null && typeof value === 'object' && !Array.isArray(value)

/** Records of which each entry stands by itself. */
const BY_ENTRY = ['choices', 'fixed', 'grips', 'phrases'] as const
const LISTS = ['melody', 'lyrics', 'versions', 'conditions', 'others'] as const

/**
 * A document as it was stored, in any form. Never fails: what cannot be read is left out piece by
 * piece and said, so that a tune always opens, at the least as its title and chart text.
 */
export function openDocument(stored: unknown, version: number = DOCUMENT_VERSION): OpenedDocument {
  const given = isObject(stored)
    ? READERS.slice(version).reduce((document, reader) => reader(document), stored)
    : {}
  const whole = tuneDocument.safeParse(given)
  if (whole.success) return { document: whole.data, unread: [] }
  const unread: string[] = []
  const shape = tuneDocument.shape as Readonly<Record<string, z.ZodType>>
  const plain = newDocument(
    typeof given.title === 'string' && given.title.trim() ? given.title.trim().slice(0, 120) : 'Untitled',
  )
  const parts: Record<string, unknown> = { ...plain }
  const leave = (name: string, error: z.ZodError, value: unknown) =>
    unread.push(
      refusalInWords(
        {
          ...error,
          issues: error.issues.map((issue) => ({ ...issue, path: [name, ...issue.path] })),
        } as z.ZodError,
        { [name]: value },
      ),
    )
  for (const name of Object.keys(shape)) {
    const value = given[name]
    if (value === undefined) continue
    const part = shape[name]!.safeParse(value)
    if (part.success) {
      parts[name] = part.data
      continue
    }
    if ((BY_ENTRY as readonly string[]).includes(name) && isObject(value)) {
      parts[name] = Object.fromEntries(
        Object.entries(value).filter(([key, one]) => {
          const read = shape[name]!.safeParse({ [key]: one })
          if (!read.success) leave(name, read.error, { [key]: one })
          return read.success
        }),
      )
    } else if ((LISTS as readonly string[]).includes(name) && Array.isArray(value)) {
      parts[name] = value.filter((one) => {
        const read = shape[name]!.safeParse([one])
        if (!read.success) leave(name, read.error, [one])
        return read.success
      })
    } else leave(name, part.error, value)
  }
  const pieces = tuneDocument.safeParse(parts)
  if (pieces.success) return { document: pieces.data, unread }
  const text = typeof given.text === 'string' ? given.text.slice(0, 100_000) : ''
  return {
    document: { ...plain, text },
    unread: [...unread, 'Only the title and the chart text could be read.'],
  }
}
