import { firstOf, itemAt } from './lists'
import type { z } from 'zod'

/** Names of what is checked, as a player would call it, by the last word of its path. */
// prettier-ignore
const NAMES: Readonly<Record<string, string>> = {
  title: 'the title', text: 'the chart', tempo: 'the tempo', colour: 'the colour', slot: 'the place', symbol: 'the chord', chords: 'the chords', beats: 'the length in beats', beat: 'the beat',
  bar: 'the bar', note: 'the note', melody: 'the melody', frets: 'the frets', name: 'the name', line: 'the line', weights: 'the weights', midi: 'the pitch', low: 'the lower end', high: 'the upper end',
  tuning: 'the open strings', scaleLengthMm: 'the scale length in mm', cutaway: 'the highest fret at ease', reachMm: 'the reach in mm', tags: 'the tags', span: 'the number of chords', did: 'what was done',
  choices: 'the chosen chords', fixed: 'the grips by hand', grips: 'the grips', kept: 'the chord melody', phrases: 'the phrases', versions: 'the versions', conditions: 'the conditions', to: 'the key', base: 'the state it was made on',
  depth: 'how many rules are put on one another', leftHanded: 'the left-handed mirror',
}

/** Kinds of values in plain words. */
const KINDS: Readonly<Record<string, string>> = {
  int: 'a whole number',
  array: 'a list',
  string: 'text',
  object: 'an object with fields',
  boolean: 'true or false',
}
/** What is counted of a text or a list: one, and several. */
const COUNTED: Readonly<Record<string, readonly [one: string, several: string]>> = {
  string: [' letter', ' letters'],
  array: [' entry', ' entries'],
}

/**
 * What an input is called by its path: `the length in beats of note 5 of the melody (bar 3, beat
 * 1)`.
 */
function nameOf(path: readonly PropertyKey[], given: unknown): string {
  const words: string[] = []
  let value = given
  path.forEach((step, at) => {
    value =
      value !== null && typeof value === 'object' ? (value as Record<PropertyKey, unknown>)[step] : undefined
    if (typeof step === 'number') {
      const list = words.pop() ?? 'the list'
      const place =
        value !== null && typeof value === 'object' && 'bar' in value && 'beat' in value
          ? ` (bar ${String(value.bar)}, beat ${String(value.beat)})`
          : ''
      words.push(`${list === 'the melody' ? 'note' : 'entry'} ${step + 1} of ${list}${place}`)
    } else if (/^\d+:\d/.test(String(step)))
      words.push(
        `the entry at bar ${firstOf(String(step).split(':'))}, beat ${itemAt(String(step).split(':'), 1)}`,
      )
    else if (at > 0 || step in NAMES) words.push(NAMES[String(step)] ?? `“${String(step)}”`)
  })
  const [last, before] = [words.at(-1), words.at(-2)]
  if (!last) return 'this'
  return before?.includes('(bar') ? `${last} of ${before}` : last
}

/**
 * Where a schema has words of its own for what it accepts, they are used; those of the schema
 * library are no player's words.
 */
const OWN_WORDS = /^(?!Too |Invalid|Unrecognized|Expected)/

const valueAt = (path: readonly PropertyKey[], given: unknown): unknown =>
  path.reduce<unknown>(
    (value, step) =>
      value !== null && typeof value === 'object' ? (value as Record<PropertyKey, unknown>)[step] : undefined,
    given,
  )

const shown = (value: unknown): string => {
  if (typeof value === 'string') return ` is “${value.length > 40 ? `${value.slice(0, 40)}…` : value}”`
  return typeof value === 'number' ? ` is ${value}` : ''
}

/** What an input is called in a sentence. */
type Naming = (path: readonly PropertyKey[], given: unknown) => string

/** The sentence for one issue: what is wrong, where, and what is accepted. */
function sentence(issue: z.core.$ZodIssue, given: unknown, named: Naming = nameOf): string {
  const name = named(issue.path, given)
  const value = valueAt(issue.path, given)
  const says = `${name}${shown(value)}`
  switch (issue.code) {
    case 'too_small':
    case 'too_big': {
      if (OWN_WORDS.test(issue.message)) return `${name}: accepted is ${issue.message}`
      const least = issue.code === 'too_small'
      const limit = least ? issue.minimum : issue.maximum
      const counted = COUNTED[issue.origin]?.[Number(limit) === 1 ? 0 : 1] ?? ''
      const [open, closed] = least ? ['more than', 'at least'] : ['less than', 'at most']
      const bound = issue.inclusive === false ? open : closed
      return `${counted ? name : says}; accepted is ${bound} ${String(limit)}${counted}`
    }
    case 'invalid_type':
      return value === undefined
        ? `${name} is missing`
        : `${says}, which is not ${KINDS[issue.expected] ?? `a ${issue.expected}`}`
    case 'invalid_value':
      return `${says}; accepted is ${issue.values.map(String).join(', ')}`
    case 'unrecognized_keys':
      return `it holds ${issue.keys.map((key) => `“${key}”`).join(', ')}, which this version does not know`
    case 'invalid_union': {
      const inner = issue.errors?.find((one) => one.length > 0)?.[0]
      return inner
        ? sentence({ ...inner, path: [...issue.path, ...inner.path] }, given, named)
        : `${says}, which is not known here`
    }
    case 'invalid_key':
    case 'invalid_element':
      return `${name} has an entry that could not be read`
    default:
      return OWN_WORDS.test(issue.message)
        ? `${says}; accepted is ${issue.message}`
        : `${says} could not be read`
  }
}

/**
 * A refused input in a player's words: what is wrong, where, and what is accepted. The first of
 * several troubles.
 * @param given what was checked, for the values and places that are named
 */
export function refusalInWords(error: z.ZodError, given: unknown): string {
  const issue = error.issues[0]
  if (!issue) return 'This could not be read.'
  const words = sentence(issue, given)
  return `${firstOf(words).toUpperCase()}${words.slice(1)}.`
}

/**
 * A refused field of a request to the command line, named by its path: the same sentence as pages
 * say, but where the field has words of its own for what it accepts.
 */
export function fieldRefusal(issue: z.core.$ZodIssue, given: unknown): string {
  const path = issue.path.join('.')
  if (OWN_WORDS.test(issue.message)) return path ? `${path}: ${issue.message}` : issue.message
  return `${sentence(issue, given, (steps) => steps.join('.') || 'The request')}.`
}
