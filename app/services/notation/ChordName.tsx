import type { ChordSymbol } from '../../../core/chord/symbol'
import type { Key } from '../../../core/pitch/key'
import { noteName, type Note } from '../../../core/pitch/note'

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

export const engravedNote = (note: Note): string => {
  const name = noteName(note)
  return name[0]! + name.slice(1).replaceAll('b', '♭').replaceAll('#', '♯')
}

/** `B♭ major`, `A minor`. */
export const keyInWords = (key: Key): string => `${engravedNote(key.tonic)} ${key.mode}`

/** The words of a quality stay on the line; numbers, alterations and additions are raised. */
function partsOf(suffix: string): { quality: string; raised: string } {
  const match = /^(m(?!aj)|maj|dim|aug)?(.*)$/.exec(suffix)!
  const word = match[1] ?? ''
  const rest = match[2] ?? ''
  if (word === 'm' && /^\d+b5/.test(rest)) return { quality: 'ø', raised: engraved(rest.replace('b5', '')) }
  return { quality: word === 'dim' ? '°' : word === 'aug' ? '+' : word, raised: engraved(rest) }
}

/** A chord symbol as it is engraved: root large, quality smaller, tensions raised. */
export function ChordName({ chord }: { chord: ChordSymbol }) {
  const { quality, raised } = partsOf(chord.suffix)
  return (
    <span className="chord-name" aria-label={chord.canonical} role="img">
      <span className="chord-root">{engravedNote(chord.root)}</span>
      {quality && <span className="chord-quality">{quality}</span>}
      {raised && <sup className="chord-raised">{raised}</sup>}
      {chord.bass && <span className="chord-bass">/{engravedNote(chord.bass)}</span>}
    </span>
  )
}
