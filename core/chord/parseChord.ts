import { firstOf, itemAt } from '../lists'
import { spellDegree } from '../pitch/degree'
import { noteName, parseNote, plainAccidentals, type Note } from '../pitch/note'
import { bad, good, must, type Result } from '../result'
import { canonicalSuffix } from './canonical'
import { readDescriptor } from './descriptor'
import type { ChordSymbol, ChartSymbol } from './symbol'
import { degreesOf } from './tones'

/** The longest symbol read; anything longer is not a chord. */
const LONGEST_SYMBOL = 60

/**
 * Signs that differ between keyboards and fonts but mean one thing. Lengths are kept so that
 * offsets stay true.
 */
const plainSigns = (text: string): string =>
  plainAccidentals(text)
    .replace(/[△∆]/g, 'Δ')
    .replace(/[−–‐]/g, '-')
    .replace(/[º˚]/g, '°')
    .replace(/[Øϕφ]/g, 'ø')

/**
 * Symbols read before: a chart is read again at every key press, and its symbols are mostly the
 * same. Emptied when full.
 */
const KNOWN = new Map<string, Result<ChartSymbol>>()
const MOST_KNOWN = 5_000

/**
 * Reads one chord symbol. The same text gives the same chord, to be read and not changed.
 * Accidentals directly behind the root letter belong to the root as far as they can: `Cb5` is a C
 * flat power chord, and a C with a lowered fifth is written `C(b5)`.
 * @returns the chord or silence; or a fault with the offset and text of what could not be read
 */
export function parseSymbol(text: string): Result<ChartSymbol> {
  let known = KNOWN.get(text)
  if (!known) {
    known = readSymbol(text)
    if (KNOWN.size >= MOST_KNOWN) KNOWN.clear()
    KNOWN.set(text, known)
  }
  return known
}

function readSymbol(text: string): Result<ChartSymbol> {
  const symbol = plainSigns(text.trim())
  if (/^n\.?c\.?$/i.test(symbol)) return good({ kind: 'silence', text, canonical: 'N.C.' })
  if (symbol === '')
    return bad({
      code: 'bad-chord',
      message: 'There is no chord symbol here.',
      accepted: 'a root A to G, such as C, Am7, F#m7b5',
      at: 0,
      text,
    })
  if (symbol.length > LONGEST_SYMBOL)
    return bad({
      code: 'bad-chord',
      message: `A chord symbol has at most ${LONGEST_SYMBOL} signs.`,
      accepted: 'one chord, such as Am7',
      at: 0,
      text: text.slice(0, LONGEST_SYMBOL),
    })

  const root = /^[A-G](?:bb|##|b|#|x)?/.exec(symbol)
  if (!root) {
    const lower = /^[a-g]/.test(symbol)
    return bad({
      code: 'bad-chord',
      message: lower
        ? `"${text}" begins with a small letter.`
        : `"${text}" does not begin with a chord root.`,
      accepted: lower
        ? `${firstOf(symbol).toUpperCase()}${symbol.slice(1)} (roots are capitals; minor is m)`
        : 'a root A to G in capitals, with up to two of b or #',
      at: 0,
      text,
    })
  }
  const slash = /\/(?!9)([^/]*)$/.exec(symbol)
  const bassless = slash && !/^(?:maj|ma|M)/.test(itemAt(slash, 1)) ? symbol.slice(0, slash.index) : symbol
  let bass: Note | null = null
  if (bassless !== symbol) {
    const note = parseNote(itemAt(slash!, 1))
    if (!note.ok)
      return bad({
        code: 'bad-chord',
        message: `"${itemAt(slash!, 1)}" is not a bass note.`,
        accepted: 'a note name after the slash, such as C/E or Am/F#',
        at: slash!.index,
        text: slash![0],
      })
    bass = note.value
  }
  const descriptor = readDescriptor(bassless.slice(root[0].length), root[0].length)
  if (!descriptor.ok) return descriptor
  return good({ kind: 'chord', chord: build(text, must(parseNote(root[0])), bass, descriptor.value) })
}

function build(
  text: string,
  root: Note,
  bass: Note | null,
  descriptor: Parameters<typeof degreesOf>[0],
): ChordSymbol {
  const needs = degreesOf(descriptor)
  const suffix = canonicalSuffix(descriptor, needs)
  return {
    text,
    root,
    bass,
    suffix,
    canonical: noteName(root) + suffix + (bass ? `/${noteName(bass)}` : ''),
    tones: [...needs].map(([degree, need]) => ({ degree, need, note: spellDegree(root, degree) })),
  }
}

/** Reads a symbol that must be a chord, not a silence. */
export function parseChord(text: string): Result<ChordSymbol> {
  const symbol = parseSymbol(text)
  if (!symbol.ok) return symbol
  if (symbol.value.kind === 'silence')
    return bad({
      code: 'no-chord',
      message: 'N.C. means that no chord sounds here.',
      accepted: 'a chord symbol such as C or Am7',
      at: 0,
      text,
    })
  return good(symbol.value.chord)
}

/** The chord a symbol written by the program itself stands for. */
export const chord = (text: string): ChordSymbol => must(parseChord(text))
