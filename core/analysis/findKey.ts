import type { Slot } from '../chart/chart'
import type { ChordSymbol } from '../chord/symbol'
import { keyName, scaleSounds, signatureOf, type Key, type Mode } from '../pitch/key'
import { modulo, pitchClass, plainSpelling, type Note } from '../pitch/note'
import { kindOf } from './kind'

/**
 * What speaks for a key, in beats of a fitting chord. A tune usually begins and almost always ends at home, and a V
 * going to its I says more than any single chord. Common practice, no source.
 */
const BEGINS_AT_HOME = 3
const ENDS_AT_HOME = 5
const FIFTH_FALLS_HOME = 2
/** A beat of a chord with tones outside the key. */
const OUTSIDE_BEAT = -1

/** The home key of a progression that names none: every key is scored and the best kept. C major for no chords. */
export function findKey(slots: readonly Slot[]): Key {
  const chords = slots.flatMap((slot) => (slot.symbol?.kind === 'chord' ? [{ chord: slot.symbol.chord, beats: slot.beats }] : []))
  let best: { key: Key; score: number } = { key: { tonic: { letter: 0, alter: 0 }, mode: 'major' }, score: -Infinity }
  for (let pc = 0; pc < 12; pc += 1)
    for (const mode of ['major', 'minor'] as const) {
      const key = spelledKey(pc, mode, chords.map(({ chord }) => chord.root))
      const score = scoreOf(key, chords)
      if (score > best.score) best = { key, score }
    }
  return best.key
}

function scoreOf(key: Key, chords: { chord: ChordSymbol; beats: number }[]): number {
  const sounds = scaleSounds(key)
  const tonic = pitchClass(key.tonic)
  if (key.mode === 'minor') sounds.add(modulo(tonic - 1, 12))
  const isHome = (chord: ChordSymbol | undefined) =>
    chord !== undefined && pitchClass(chord.root) === tonic && (kindOf(chord) === 'minor') === (key.mode === 'minor')
  let score = 0
  chords.forEach(({ chord, beats }, at) => {
    score += chord.tones.every((tone) => sounds.has(pitchClass(tone.note))) ? beats : OUTSIDE_BEAT * beats
    const next = chords[at + 1]?.chord
    if (isHome(next) && modulo(pitchClass(chord.root) - tonic, 12) === 7 && kindOf(chord) !== 'minor') score += FIFTH_FALLS_HOME
  })
  if (isHome(chords[0]?.chord)) score += BEGINS_AT_HOME
  if (isHome(chords.at(-1)?.chord)) score += ENDS_AT_HOME
  return score
}

/** A key on a sound, spelled as the chart spells that root, else with fewest accidentals. */
function spelledKey(pc: number, mode: Mode, roots: Note[]): Key {
  const fits = (key: Key) => Math.abs(signatureOf(key)) <= 7
  const written = roots.find((root) => pitchClass(root) === pc && fits({ tonic: root, mode }))
  if (written) return { tonic: written, mode }
  const spellings = [plainSpelling(pc), plainSpelling(pc, true)].map((tonic): Key => ({ tonic, mode })).filter(fits)
  spellings.sort((a, b) => Math.abs(signatureOf(a)) - Math.abs(signatureOf(b)) || keyName(a).length - keyName(b).length)
  return spellings[0]!
}
