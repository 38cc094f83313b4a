import { parseChord } from '../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { kindOf } from '../analysis/kind'
import { withTone } from '../leading/constraints'
import { spellDegree } from '../pitch/degree'
import { noteName, pitchClass, plainSpelling, type Note } from '../pitch/note'
import { heardOver } from '../reharm/melodyFit'

/** What a chord under a melody note is, in trade words. */
export type UnderKind =
  | 'own chord'
  | 'tension'
  | 'avoid note'
  | 'half step approach'
  | 'passing diminished'
  | 'sixth-diminished step'
  | 'secondary dominant'
  | 'planing'

/** A chord that can stand under a melody note. */
export interface UnderNote {
  chord: ChordSymbol
  kind: UnderKind
}

/**
 * What can stand under a melody note (common practice; the sixth-diminished steps of common
 * practice): the chord of the place with the note as its own tone or tension; under its root a
 * sixth for a major seventh; and, under a note that is not one of its tones, chords that lead on to
 * what follows.
 * @param sound pitch class of the melody note
 * @param chord what stands at the place
 * @param next what stands where the next melody note begins; null at the end
 * @param step semitones from this melody note to the next; null at the end
 */
export function chordsUnder(
  sound: number,
  chord: ChordSymbol,
  next: ChordSymbol | null,
  step: number | null,
): UnderNote[] {
  const heard = heardOver(sound, chord)
  const outside = heard === 'tension' ? 'tension' : 'avoid note'
  const found: UnderNote[] = [
    { chord: withTone(chord, sound), kind: heard === 'chord tone' ? 'own chord' : outside },
  ]
  const add = (symbol: string, kind: UnderKind) => {
    const read = parseChord(symbol)
    if (read.ok && read.value.tones.some((tone) => pitchClass(tone.note) === sound))
      found.push({ chord: read.value, kind })
  }
  if (heard === 'chord tone') {
    // A major seventh under its root is a minor ninth: the sixth stands for it.
    if (sound === pitchClass(chord.root) && hasDegree(chord, '7') && chord.bass === null)
      add(`${noteName(chord.root)}${hasDegree(chord, 'b3') ? 'm6' : '6'}`, 'own chord')
    return found
  }
  const leads = (root: Note, degree: Parameters<typeof spellDegree>[1]) => simple(spellDegree(root, degree))
  const kind = kindOf(chord)
  if ((kind === 'major' && !hasDegree(chord, '#5')) || kind === 'minor')
    add(`${leads(chord.root, '7')}dim7`, 'sixth-diminished step')
  if (!next) return found
  if (step !== null && Math.abs(step) === 1)
    add(`${leads(next.root, step < 0 ? 'b9' : '7')}${next.suffix}`, 'half step approach')
  if (found.every(({ chord: one }) => one.canonical !== `${leads(next.root, '7')}dim7`))
    add(`${leads(next.root, '7')}dim7`, 'passing diminished')
  for (const suffix of ['7', '9', '7b9', '13', '7#5', '7sus4']) {
    const before = found.length
    add(`${leads(next.root, '5')}${suffix}`, 'secondary dominant')
    if (found.length > before) break
  }
  return found
}

/** Nobody reads a root with two accidentals. */
const simple = (root: Note): string =>
  noteName(Math.abs(root.alter) > 1 ? plainSpelling(pitchClass(root)) : root)
