import Papa from 'papaparse'
import { refusalInWords } from '../refusal'
import { loggedPass, type LoggedPass } from './passSchema'

/**
 * The columns of a log as CSV (RFC 4180), in order: those of a pass. Moments are written as ISO
 * 8601 in UTC.
 */
const COLUMNS = [
  'at',
  'zone',
  'title',
  'kind',
  'item',
  'fromBar',
  'toBar',
  'key',
  'tempo',
  'goal',
  'grade',
  'seconds',
  'note',
  'hurt',
  'tuneId',
  'id',
] as const satisfies readonly (keyof LoggedPass)[]

/** Rows that one file can bring in. */
const MOST_ROWS = 200_000

/**
 * A cell that a spreadsheet would take for a formula is kept text by a quote before it, and read
 * back without.
 */
const FORMULA = /^[=+@\t\r-]/
const safe = (text: string): string => (FORMULA.test(text) ? `'${text}` : text)
const plain = (text: string): string => (/^'[=+@\t\r-]/.test(text) ? text.slice(1) : text)

export const toCsv = (all: readonly LoggedPass[]): string =>
  `${Papa.unparse(
    {
      fields: [...COLUMNS],
      data: all.map((pass) =>
        COLUMNS.map((column) => {
          if (column === 'at') return new Date(pass.at).toISOString()
          const value = pass[column]
          return typeof value === 'string' ? safe(value) : (value ?? '')
        }),
      ),
    },
    { newline: '\n' },
  )}\n`

export interface ReadLog {
  passes: LoggedPass[]
  /** What could not be read: which line and why. */
  problems: string[]
}

/**
 * A log from CSV, by the names of its columns in any order; what cannot be read is said line by
 * line, the rest is taken.
 * @param firstLine the line of the file that its first pass stands in, where the text is a piece of
 *   a longer one
 */
export function fromCsv(text: string, newId: () => string, firstLine = 2): ReadLog {
  const read = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
  })
  const missing = NEEDED.filter((column) => !read.meta.fields?.includes(column))
  if (missing.length > 0)
    return {
      passes: [],
      problems: [
        `The columns ${missing.join(', ')} are missing. Accepted: a first line with ${COLUMNS.join(', ')}.`,
      ],
    }
  if (read.data.length > MOST_ROWS)
    return {
      passes: [],
      problems: [`The file has ${read.data.length} lines. Accepted: at most ${MOST_ROWS}.`],
    }
  const passes: LoggedPass[] = []
  const problems: string[] = []
  read.data.forEach((row, at) => {
    const given = passFrom(row, newId)
    const pass = loggedPass.safeParse(given)
    if (pass.success) passes.push(pass.data)
    else
      problems.push(
        `Line ${at + firstLine}, ${String(pass.error.issues[0]?.path[0] ?? 'pass')}: ${refusalInWords(pass.error, given)}`,
      )
  })
  return { passes, problems }
}
const NEEDED = ['at', 'kind', 'item', 'grade'] as const

function passFrom(row: Record<string, string>, newId: () => string): unknown {
  const cell = (column: string) => plain((row[column] ?? '').trim())
  const number = (column: string) => (cell(column) === '' ? null : Number(cell(column)))
  return {
    id: cell('id') || newId(),
    tuneId: cell('tuneId') || null,
    title: cell('title'),
    kind: cell('kind'),
    item: cell('item'),
    fromBar: number('fromBar'),
    toBar: number('toBar'),
    key: cell('key') || null,
    tempo: number('tempo'),
    goal: number('goal'),
    grade: cell('grade'),
    seconds: number('seconds') ?? 0,
    at: Date.parse(cell('at')),
    zone: cell('zone') || 'UTC',
    note: cell('note'),
    hurt: ['true', 'yes', '1'].includes(cell('hurt').toLowerCase()),
  }
}

/** Lines of a log that are sent at a time: well under what one request may carry. */
const LINES_IN_A_PIECE = 2_000

/** A long log in pieces that are logs of their own, each with the line its first pass stands in. */
export function inPieces(text: string): { csv: string; firstLine: number }[] {
  const { data, meta } = Papa.parse<Record<string, string>>(text.replace(/^\uFEFF/, ''), {
    header: true,
    skipEmptyLines: 'greedy',
  })
  const fields = meta.fields ?? []
  const pieces: { csv: string; firstLine: number }[] = []
  for (let from = 0; from < Math.max(1, data.length); from += LINES_IN_A_PIECE)
    pieces.push({
      csv: Papa.unparse(
        {
          fields,
          data: data
            .slice(from, from + LINES_IN_A_PIECE)
            .map((row) => fields.map((field) => row[field] ?? '')),
        },
        { newline: '\n' },
      ),
      firstLine: from + 2,
    })
  return pieces
}
