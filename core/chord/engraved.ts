import { firstOf } from '../lists'
import type { Key } from '../pitch/key'
import { noteName, type Note } from '../pitch/note'
import type { ChordSymbol } from './symbol'

/** Flats and sharps as musicians write them. */
export const engraved = (text: string): string =>
  text.replace(/b(?=b?[\dIViv]|$|\/)/g, '♭').replace(/#/g, '♯')

/** The same inside a sentence, where only what is surely a note or a degree may change. */
export const engravedWords = (text: string): string =>
  text
    .replace(/\b([A-G])b(?=$|[^a-z]|m|dim|sus|add|aug|alt)/g, '$1♭')
    .replace(/\b([A-G])#/g, '$1♯')
    .replace(/b(?=\d)/g, '♭')
    .replace(/#(?=\d)/g, '♯')
    // Numerals: capitals are no word behind a b, small ones only where no letter follows.
    .replace(/(?<![A-Za-z])b(?=[IV]|(?:vii|vi|iv|v|iii|ii|i)(?![a-z]))/g, '♭')
    .replace(/(?<![A-Za-z])#(?=[IV]|(?:vii|vi|iv|v|iii|ii|i)(?![a-z]))/g, '♯')

export const engravedNote = (note: Note): string => {
  const name = noteName(note)
  return firstOf(name) + name.slice(1).replaceAll('b', '♭').replaceAll('#', '♯')
}

/** `B♭ major`, `A minor`. */
export const keyInWords = (key: Key): string => `${engravedNote(key.tonic)} ${key.mode}`

/**
 * A symbol in the parts in which it is set: the words of a quality stay on the line; numbers,
 * alterations and additions are raised.
 */
export interface EngravedChord {
  root: string
  quality: string
  raised: string
  /** With its stroke; empty where there is none. */
  bass: string
}

export function engravedChord({ root, suffix, bass }: ChordSymbol): EngravedChord {
  const match = /^(m(?!aj)|maj|dim|aug)?(.*)$/.exec(suffix)!
  const word = match[1] ?? ''
  const rest = match[2] ?? ''
  const isHalfDiminished = word === 'm' && /^\d+b5/.test(rest)
  return {
    root: engravedNote(root),
    quality: isHalfDiminished ? 'ø' : (QUALITY_SIGNS[word] ?? word),
    raised: engraved(isHalfDiminished ? rest.replace('b5', '') : rest),
    bass: bass ? `/${engravedNote(bass)}` : '',
  }
}
const QUALITY_SIGNS: Readonly<Record<string, string>> = { dim: '°', aug: '+' }
