import { itemAt } from '../lists'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { stringNumber } from '../neck/instrument'
import type { Degree } from '../pitch/degree'
import type { Note } from '../pitch/note'
import type { Voicing } from '../voicing/voicing'
import type { XmlElement } from './xml'

/**
 * One slot of the tune as it goes on paper: the chord that stands there and the grip, if one is
 * kept.
 */
export interface WrittenChord {
  chord: ChordSymbol
  voicing: Voicing | null
}

export const NOTE_NAMES = 'CDEFGAB'

/**
 * The kinds of MusicXML 4.0 (W3C Community Group) by the degrees they mean above the root: those
 * that a chord must have to be of the kind, and, behind them, a fifth that is meant too. The first
 * whose degrees are all in the chord is taken.
 */
// prettier-ignore
const KINDS: readonly (readonly [kind: string, has: readonly Degree[], fifth: Degree | null])[] = [
  ['major-minor', ['b3', '7'], '5'], ['major-seventh', ['3', '7'], '5'],
  ['half-diminished', ['b3', 'b5', 'b7'], null], ['diminished-seventh', ['b3', 'b5', 'bb7'], null], ['augmented-seventh', ['3', '#5', 'b7'], null],
  ['minor-seventh', ['b3', 'b7'], '5'], ['dominant', ['3', 'b7'], '5'],
  ['minor-sixth', ['b3', '6'], '5'], ['major-sixth', ['3', '6'], '5'],
  ['diminished', ['b3', 'b5'], null], ['augmented', ['3', '#5'], null],
  ['minor', ['b3'], '5'], ['major', ['3'], '5'],
  ['suspended-fourth', ['4'], '5'], ['suspended-second', ['2'], '5'],
  ['dominant', ['b7'], '5'], ['major-seventh', ['7'], '5'], ['power', ['5'], null],
]
/**
 * Degrees that a kind means beside those a chord has to have for it: where the chord is without,
 * they are taken away.
 */
const THIRD_OF: Readonly<Record<string, Degree>> = { dominant: '3', 'major-seventh': '3' }

interface DegreeWritten {
  value: string
  alter: number
  type: 'add' | 'alter' | 'subtract'
}

/**
 * What a chord has over its kind, has otherwise, and is without. Added degrees count from a
 * dominant chord: its seventh is the minor one.
 */
function degreesOver(chord: ChordSymbol, has: readonly Degree[], meant: readonly Degree[]): DegreeWritten[] {
  const written: DegreeWritten[] = []
  let fifth = meant.includes('5') && !hasDegree(chord, '5')
  for (const { degree } of chord.tones) {
    if (degree === '1' || has.includes(degree) || meant.includes(degree)) continue
    const [, accidentals, value] = /^([b#]*)(\d+)$/.exec(degree)!
    const sign = [...accidentals!].reduce((sum, one) => sum + (one === 'b' ? -1 : 1), 0)
    // The fifth of the kind is altered once; another altered fifth stands beside it.
    const alters = value === '5' && fifth
    if (alters) fifth = false
    written.push({
      value: value!,
      alter: sign + (value === '7' ? 1 : 0),
      type: alters ? 'alter' : 'add',
    })
  }
  const without = meant.filter((degree) => (degree === '5' ? fifth : !hasDegree(chord, degree)))
  return [
    ...written,
    ...without.map((degree) => ({ value: degree.replace(/\D/g, ''), alter: 0, type: 'subtract' as const })),
  ]
}

/**
 * A chord symbol, with the frame of its grip where one is given.
 * @param offset divisions behind the place where it is written
 */
export function writeHarmony(measure: XmlElement, { chord, voicing }: WrittenChord, offset = 0): void {
  const harmony = measure.ele('harmony')
  const writeNote = (name: 'root' | 'bass', note: Note) => {
    const element = harmony.ele(name)
    element.ele(`${name}-step`).txt(itemAt(NOTE_NAMES, note.letter))
    if (note.alter !== 0) element.ele(`${name}-alter`).txt(String(note.alter))
  }
  writeNote('root', chord.root)
  const [kind, has, fifth] = KINDS.find(([, degrees]) =>
    degrees.every((degree) => hasDegree(chord, degree)),
  ) ?? ['other', [], null]
  const third = THIRD_OF[kind]
  const meant = [...(third ? [third] : []), ...(fifth ? [fifth] : [])].filter(
    (degree) => !has.includes(degree),
  )
  harmony.ele('kind', { text: chord.suffix }).txt(kind)
  if (chord.bass) writeNote('bass', chord.bass)
  for (const { value, alter, type } of degreesOver(chord, has, meant)) {
    // The text of the kind says it already (MusicXML 4.0, `degree`, `print-object`).
    const element = harmony.ele('degree', { 'print-object': 'no' })
    element.ele('degree-value').txt(value)
    element.ele('degree-alter').txt(String(alter))
    element.ele('degree-type').txt(type)
  }
  if (voicing) writeFrame(harmony, voicing)
  if (offset !== 0) harmony.ele('offset').txt(String(offset))
}

/** Where no chord is to sound. */
export function writeNoChord(measure: XmlElement, offset = 0): void {
  const harmony = measure.ele('harmony')
  harmony.ele('root').ele('root-step', { text: '' }).txt('C')
  harmony.ele('kind', { text: 'N.C.' }).txt('none')
  if (offset !== 0) harmony.ele('offset').txt(String(offset))
}

/**
 * A chord frame needs at least the frets held; open and muted strings are said by their notes or
 * left out.
 */
function writeFrame(harmony: XmlElement, { frets, fingering }: Voicing): void {
  const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
  const highest = Math.max(4, ...held)
  const first = highest <= 4 ? 1 : Math.min(...held)
  const frame = harmony.ele('frame')
  frame.ele('frame-strings').txt(String(frets.length))
  frame.ele('frame-frets').txt(String(Math.max(4, highest - first + 1)))
  if (first > 1) frame.ele('first-fret').txt(String(first))
  frets.forEach((fret, string) => {
    if (fret === null) return
    const note = frame.ele('frame-note')
    note.ele('string').txt(String(stringNumber(string, frets.length)))
    note.ele('fret').txt(String(fret))
    const finger = fingering.fingers[string]
    if (finger) note.ele('fingering').txt(String(finger))
    const number = stringNumber(string, frets.length)
    for (const { from, to } of fingering.barres)
      if (number === from || number === to) note.ele('barre', { type: number === from ? 'start' : 'stop' })
  })
}
