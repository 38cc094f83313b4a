import { firstOf } from '../lists'
import { parseSymbol } from '../chord/parseChord'
import { keyName, parseKey, signatureOf, type Key } from '../pitch/key'
import { modulo, noteName, parseNote, pitchClass, plainSpelling, type Note } from '../pitch/note'
import { readTokens } from './tokens'

/** More accidentals than this on a root are respelled: nobody wants to read an F triple sharp. */
const MOST_ACCIDENTALS = 1

const MOST_IN_SIGNATURE = 7

/** A note moved as the tonic moves from one key to another, spelled for the new key. */
export function moveNote(note: Note, from: Note, to: Note): Note {
  const letter = modulo(note.letter + to.letter - from.letter, 7)
  const sound = modulo(pitchClass(note) + pitchClass(to) - pitchClass(from), 12)
  const alter = modulo(sound - pitchClass({ letter, alter: 0 }) + 6, 12) - 6
  return Math.abs(alter) <= MOST_ACCIDENTALS ? { letter, alter } : plainSpelling(sound, alter > 0)
}

/**
 * A key some semitones higher, spelled with the fewest accidentals; flats where both spellings have
 * as many.
 */
export function keyAbove(key: Key, semitones: number): Key {
  const sound = pitchClass(key.tonic) + semitones
  const spellings = [plainSpelling(sound), plainSpelling(sound, true)].map((tonic): Key => ({
    tonic,
    mode: key.mode,
  }))
  return firstOf(spellings.sort((a, b) => Math.abs(signatureOf(a)) - Math.abs(signatureOf(b))))
}

/**
 * A key moved as the home key moves: the new home key itself, or another one as far from it as
 * before.
 */
export function moveKey(key: Key, from: Key, to: Key): Key {
  const tonic = moveNote(key.tonic, from.tonic, to.tonic)
  const moved: Key = { tonic, mode: key.mode }
  return Math.abs(signatureOf(moved)) <= MOST_IN_SIGNATURE
    ? moved
    : keyAbove(key, modulo(pitchClass(to.tonic) - pitchClass(from.tonic), 12))
}

/**
 * A chart text in another key. Only roots, basses and the key line change; everything else, also
 * what could not be read, stays letter for letter.
 */
export function transposeText(text: string, from: Key, to: Key): string {
  const lines = text.split(/(\r\n|\r|\n)/)
  const replaced = new Map<number, { at: number; length: number; by: string }[]>()
  const put = (line: number, at: number, length: number, by: string) =>
    replaced.set(line, [...(replaced.get(line) ?? []), { at, length, by }])
  for (const token of readTokens(text)) {
    if (token.kind === 'setting' && token.name === 'key') {
      const key = parseKey(token.text)
      if (key.ok) put(token.line, token.column - 1, token.text.length, keyName(moveKey(key.value, from, to)))
    }
    if (token.kind !== 'cell') continue
    put(
      token.line,
      token.column - 1,
      token.text.length,
      token.text
        .split('_')
        .map((part) => transposeSymbol(part, from, to))
        .join('_'),
    )
  }
  return lines
    .map((content, index) => {
      if (index % 2 === 1) return content
      const changes = replaced.get(index / 2 + 1) ?? []
      return changes
        .sort((a, b) => b.at - a.at)
        .reduce((line, { at, length, by }) => line.slice(0, at) + by + line.slice(at + length), content)
    })
    .join('')
}

const ROOT = /^[A-G](?:bb|##|♭♭|♯♯|𝄫|𝄪|[b#♭♯x])?/u

/** One symbol in another key; what is no chord stays as it is. */
export function transposeSymbol(symbol: string, from: Key, to: Key): string {
  const read = parseSymbol(symbol)
  if (!read.ok || read.value.kind !== 'chord') return symbol
  const hasBass = read.value.chord.bass !== null
  const move = (name: string) => {
    const note = parseNote(name)
    return note.ok ? noteName(moveNote(note.value, from.tonic, to.tonic)) : name
  }
  const root = ROOT.exec(symbol)![0]
  const rest = symbol.slice(root.length)
  const slash = hasBass ? rest.lastIndexOf('/') : -1
  return move(root) + (slash < 0 ? rest : `${rest.slice(0, slash + 1)}${move(rest.slice(slash + 1))}`)
}
