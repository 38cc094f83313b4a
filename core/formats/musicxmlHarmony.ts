import type { XMLBuilder } from 'xmlbuilder2/lib/interfaces'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { stringNumber } from '../neck/instrument'
import type { Degree } from '../pitch/degree'
import type { Note } from '../pitch/note'
import type { Voicing } from '../voicing/voicing'

/** One slot of the tune as it goes on paper: the chord that stands there and the grip, if one is kept. */
export interface WrittenChord {
  chord: ChordSymbol
  voicing: Voicing | null
}

export const NOTE_NAMES = 'CDEFGAB'

/** The kinds of MusicXML by the degrees they mean; the first whose degrees are all in the chord is taken. */
// prettier-ignore
const KINDS: readonly (readonly [string, readonly Degree[]])[] = [
  ['major-minor', ['b3', '5', '7']], ['major-seventh', ['3', '5', '7']], ['major-seventh', ['3', '7']],
  ['half-diminished', ['b3', 'b5', 'b7']], ['diminished-seventh', ['b3', 'b5', 'bb7']], ['augmented-seventh', ['3', '#5', 'b7']],
  ['minor-seventh', ['b3', 'b7']], ['dominant', ['3', 'b7']],
  ['minor-sixth', ['b3', '6']], ['major-sixth', ['3', '6']],
  ['diminished', ['b3', 'b5']], ['augmented', ['3', '#5']],
  ['minor', ['b3']], ['major', ['3']],
  ['suspended-fourth', ['4']], ['suspended-second', ['2']], ['power', ['5']],
]
const ALTERED_FIFTHS: readonly Degree[] = ['b5', '#5']

/**
 * A chord symbol, with the frame of its grip where one is given.
 * @param offset divisions behind the place where it is written
 */
export function writeHarmony(measure: XMLBuilder, { chord, voicing }: WrittenChord, offset = 0): void {
  const harmony = measure.ele('harmony')
  const writeNote = (name: 'root' | 'bass', note: Note) => {
    const element = harmony.ele(name)
    element.ele(`${name}-step`).txt(NOTE_NAMES[note.letter]!)
    if (note.alter !== 0) element.ele(`${name}-alter`).txt(String(note.alter))
  }
  writeNote('root', chord.root)
  const [kind, meant] = KINDS.find(([, degrees]) => degrees.every((degree) => hasDegree(chord, degree))) ?? [
    'other',
    [],
  ]
  harmony.ele('kind', { text: chord.suffix }).txt(kind)
  if (chord.bass) writeNote('bass', chord.bass)
  for (const { degree } of chord.tones) {
    if (degree === '1' || degree === '5' || meant.includes(degree)) continue
    const [, accidentals, value] = /^([b#]*)(\d+)$/.exec(degree)!
    const element = harmony.ele('degree')
    element.ele('degree-value').txt(value!)
    element
      .ele('degree-alter')
      .txt(
        String(
          [...accidentals!].reduce((sum, sign) => sum + (sign === 'b' ? -1 : 1), 0) +
            (value === '7' && accidentals === '' ? 1 : 0),
        ),
      )
    element.ele('degree-type').txt(ALTERED_FIFTHS.includes(degree) ? 'alter' : 'add')
  }
  if (voicing) writeFrame(harmony, voicing)
  if (offset !== 0) harmony.ele('offset').txt(String(offset))
}

/** A chord frame needs at least the frets held; open and muted strings are said by their notes or left out. */
function writeFrame(harmony: XMLBuilder, { frets, fingering }: Voicing): void {
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
  })
}
