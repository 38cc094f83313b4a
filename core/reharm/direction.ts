import { firstOf, itemAt, lastOf } from '../lists'
import { kindOf } from '../analysis/kind'
import { barName, type Slot } from '../chart/chart'
import { modulo, noteName, pitchClass } from '../pitch/note'
import type { Change, Put } from './change'
import { familyOf } from './ruleNames'

/** A bass that steps so often in a row walks. */
const WALK = 4
const STEP = 2
/** Borrowed chords that are named. */
const NAMED = 3

interface SoundingPut {
  put: Put
  slot: Slot
  changed: boolean
}

/**
 * What a way does, in a few words: where its bass walks, where dominants make a chain, what it
 * borrows; "adds colour" where it does none of these.
 */
export function directionInWords(soundings: readonly SoundingPut[], changes: readonly Change[]): string {
  const words: string[] = []
  const walk = longestWalk(soundings)
  if (walk)
    words.push(
      `the bass walks ${walk.up ? 'up' : 'down'} from ${walk.from} to ${walk.to} in ${bars(walk.slots)}`,
    )
  const chain = longestChain(soundings)
  if (chain) words.push(`a chain of dominants leads to ${chain.to} in ${bars(chain.slots)}`)
  const turned = changes.find(({ rule }) => ['c6', 'b8'].includes(familyOf(rule) ?? ''))
  if (turned) words.push(`${turned.name} on the way`)
  // A chord the tune has itself is not borrowed, though it stands in a change that borrows.
  const own = new Set(
    soundings.flatMap(({ slot: { symbol } }) => (symbol?.kind === 'chord' ? [symbol.chord.canonical] : [])),
  )
  const borrowed = new Set(
    changes.flatMap(({ intent, puts }) =>
      intent === 'borrow'
        ? puts.map(({ chord }) => chord.canonical).filter((symbol) => !own.has(symbol))
        : [],
    ),
  )
  if (borrowed.size > 0) words.push(`borrows ${[...borrowed].slice(0, NAMED).join(', ')}`)
  const moved = changes.filter(({ intent }) => intent === 'swap').length
  if (words.length === 0 && moved > 0)
    words.push(
      moved === 1 ? 'one chord is another with the same job' : `${moved} chords are others with the same job`,
    )
  return words.length > 0 ? words.join('; ') : 'the chords take colour and stay where they are'
}

const bars = (slots: readonly Slot[]): string => {
  const [first, last] = [firstOf(slots).bar, lastOf(slots).bar]
  return first === last ? barName(first) : `bars ${first} to ${last}`
}

const bassOf = ({ put: { chord } }: SoundingPut) => chord.bass ?? chord.root

function longestWalk(
  soundings: readonly SoundingPut[],
): { up: boolean; from: string; to: string; slots: Slot[] } | null {
  let best: SoundingPut[] = []
  let up = false
  for (const direction of [1, -1])
    for (let at = 0; at < soundings.length; at += 1) {
      const run = [itemAt(soundings, at)]
      for (let next = at + 1; next < soundings.length; next += 1) {
        const step = modulo(
          direction * (pitchClass(bassOf(itemAt(soundings, next))) - pitchClass(bassOf(lastOf(run)))),
          12,
        )
        if (step < 1 || step > STEP) break
        run.push(itemAt(soundings, next))
      }
      if (run.length > best.length && run.some(({ changed }) => changed)) {
        best = run
        up = direction === 1
      }
    }
  return best.length >= WALK
    ? {
        up,
        from: noteName(bassOf(firstOf(best))),
        to: noteName(bassOf(lastOf(best))),
        slots: best.map(({ slot }) => slot),
      }
    : null
}

/** Dominants one after the other, each falling a fifth or a half step, at least one of them new. */
function longestChain(soundings: readonly SoundingPut[]): { to: string; slots: Slot[] } | null {
  let best: SoundingPut[] = []
  for (let at = 0; at < soundings.length; at += 1) {
    const run: SoundingPut[] = []
    for (let next = at; next < soundings.length; next += 1) {
      const here = itemAt(soundings, next)
      const before = run.at(-1)
      if (
        before &&
        ![7, 1].includes(modulo(pitchClass(before.put.chord.root) - pitchClass(here.put.chord.root), 12))
      )
        break
      run.push(here)
      if (kindOf(here.put.chord) !== 'dominant') break
    }
    if (run.length > best.length && run.slice(0, -1).some(({ changed }) => changed)) best = run
  }
  return best.length >= 3
    ? { to: lastOf(best).put.chord.canonical, slots: best.map(({ slot }) => slot) }
    : null
}
