/** Typing that pauses this long begins a new step of undo. */
const PAUSE_MS = 1_500

/** Text typed last, and how. */
export interface Typed {
  text: string
  at: number
  kind: 'word' | 'between' | 'deleting' | 'other'
}

/**
 * How one text became another: a letter of a word put in, a sign between words put in, something
 * taken out, or anything larger (a paste, a replaced stretch).
 */
function kindOf(before: string, after: string): Typed['kind'] {
  let from = 0
  while (from < before.length && from < after.length && before[from] === after[from]) from += 1
  let same = 0
  while (
    same < before.length - from &&
    same < after.length - from &&
    before.at(-1 - same) === after.at(-1 - same)
  )
    same += 1
  const [out, put] = [before.length - from - same, after.slice(from, after.length - same)]
  if (out > 0 && put === '') return out <= 2 ? 'deleting' : 'other'
  if (out > 0 || put.length > 2 || put === '') return 'other'
  return /^[\s|:[\]]+$/.test(put) ? 'between' : 'word'
}

/**
 * One more text typed; `joins` where it goes on with the word, or the deleting, before it and is no
 * step of its own for undo.
 */
export function typedOn(
  last: Typed | null,
  before: string,
  after: string,
  now: number,
): Typed & { joins: boolean } {
  const kind = kindOf(before, after)
  // A sign behind a word belongs to it: "Dm7 " is one step, and the next letter begins another.
  const goesOn = kind !== 'other' && (last?.kind === kind || (kind === 'between' && last?.kind === 'word'))
  return {
    text: after,
    at: now,
    kind,
    joins: last !== null && last.text === before && now - last.at < PAUSE_MS && goesOn,
  }
}
