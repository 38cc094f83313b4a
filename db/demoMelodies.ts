import { firstOf } from '../core/lists'
import { keepEvent } from '../core/tune/keptNotes'
import { melodyLimits } from '../core/player/melodyLimits'
import { PLAIN_CHORD_MELODY, type ChordMelody } from '../core/tune/melodySchema'
import { DEFAULT_PLAYER } from '../core/player/playerSettings'
import type { TuneDocument } from '../core/tune/document'
import { readTuneDocument, madeChord } from '../core/tune/tuneReading'
import { importAbc } from '../core/formats/importAbc'
import { harmonise } from '../core/melody/harmonise'
import { read } from '../core/tune/applyMelody'
import { must } from '../core/result'

/**
 * Melodies of the demo book and the words of one, invented for it, in ABC; the chords are those of
 * the tune.
 */
export const LANTERN = `X:1
M:4/4
L:1/8
K:G
B3 d B2 G2 | E4 z2 G2 | A3 c A2 E2 | F4 z2 D2 | D2 F2 ^G2 B2 | c3 B A2 F2 | G6 A2 | B2 A2 z2 D2 |
B3 d B2 G2 | E4 z2 G2 | A3 c A2 E2 | F4 z2 D2 | _e4 =f2 _d2 | e3 d c2 A2 | B6 z2 | z2 d2 =f2 d2 |
e4 g4 | _e6 d2 | d4 f4 | d3 B ^G2 E2 | A4 c4 | ^c6 B2 | =c4 A4 | F2 A2 c2 d2 |
B3 d B2 G2 | E4 z2 G2 | A3 c A2 E2 | F4 z2 D2 | D2 F2 ^G2 B2 | c3 B A2 F2 | G8 | z8 |`

export const HALYARD = `X:1
M:3/4
L:1/4
K:F
A2 c | d c A | B2 d | c2 G | c2 e | ^f e d | d2 B | (3G/A/B/ c2 |
w: Pull on the hal-yard and hoist up the morn-ing, the wind has for-got-ten to keep us
A2 c | _e2 c | d3 | _d3 | c2 A | B G E | F3- | F2 z |
w: here by the grey sea wall, where the boats all lie still.
d2 f | _d2 f | c2 f | ^f2 d | g3 | e2 c | _e2 c | d c A |
w: Far is the har-bour and dim is its lan-tern, slow-ly the wa-ter
B2 d | _d2 B | c2 e | ^f e d | d3/ c/ B | G A B | c2 A | F2 z |
w: turns and the tide car-ries all of us home a-gain, all of us home to sleep.`

/**
 * A tune of the book with its melody, and a chord melody made under it as the page would make it.
 */
export function withChordMelody(
  document: TuneDocument,
  abc: string,
  settings: Partial<ChordMelody>,
): TuneDocument {
  const { melody, lyrics } = must(importAbc(abc))
  const chordMelody: ChordMelody = { ...PLAIN_CHORD_MELODY, ...settings }
  const { chart, line } = readTuneDocument(document)
  const found = must(
    harmonise({
      chart,
      melody: melody.map(read),
      limits: melodyLimits(
        DEFAULT_PLAYER,
        chart.capo,
        document.bass,
        chordMelody.window,
        chordMelody.topString,
      ),
      style: document.style,
      density: chordMelody.density,
      texture: chordMelody.texture,
      fills: chordMelody.fills,
      tempo: document.tempo,
      count: 1,
      places: line.map((one) => ({
        chord: madeChord(one),
        bar: one.slot.bar,
        beat: one.slot.beat,
        beats: one.slot.beats,
      })),
    }),
  )
  return {
    ...document,
    melody,
    lyrics,
    chordMelody: { ...chordMelody, kept: firstOf(found).notes.map(keepEvent) },
  }
}
