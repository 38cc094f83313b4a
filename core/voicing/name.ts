import { parseChord } from '../chord/parse'
import type { ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import { signatureOf, type Key } from '../pitch/key'
import { noteName, pitchClass, plainSpelling, type Note } from '../pitch/note'
import { must } from '../result'
import { requirementOf } from './requirement'
import { ToneNames } from './voicing'

/** A chord that a set of sounding notes can be called. */
export interface ChordName {
  chord: ChordSymbol
  /** For each sounding note as given. */
  degrees: Degree[]
  rootless: boolean
  /** Tones of the chord that do not sound, and sounds that sound more than once, by degree. */
  missing: Degree[]
  doubled: Degree[]
  /** Lower is the likelier name; 0 is a plain triad in root position. */
  score: number
}

/**
 * Every suffix a grip may be called by, the plainest first. The place in the list is part of the score: of two names
 * that fit equally the plainer one is likelier.
 */
const SUFFIXES = [
  '', 'm', '7', 'maj7', 'm7', '6', 'm6', 'dim', 'dim7', 'm7b5', 'aug', 'sus4', 'sus2', '7sus4', '5',
  '9', 'maj9', 'm9', '6/9', 'm6/9', 'add9', 'madd9', 'm(maj7)', '7b9', '7#9', '7#5', '7b5', '13', '9sus4', 'm11', 'maj7#11', '11',
  'maj7#5', '9#11', '7#11', '7b13', '13sus4', '13b9', 'maj13', 'm13', '7b9b13', '7#9b13', '7b5b9', '7#5#9', '7b5#9', '9#5', '9b5',
  'm(maj9)', '13#11', 'maj9#11', 'm7add11', 'm7b5add11', 'm9b5', 'add11', 'madd11', 'maj7b5', 'dim(maj7)', '7sus4b9', '7add11', '(b5)', 'maj7sus4', 'sus2sus4', 'm#5',
] as const

/** Price of what makes a name less likely, in places of the list above. Common practice, no source. */
const PRICE = { missing: 6, slash: 9, foreignBass: 16, rootless: 24, rootlessGiven: 6 }

/**
 * The names a set of sounding notes can have, likeliest first.
 * @param midis sounding notes; the lowest is the bass
 * @param over a root to read the notes against, sounding or not; only names on it are given
 * @param key decides flats or sharps for roots
 */
export function namesOf(midis: readonly number[], options: { over?: Note; key?: Key } = {}): ChordName[] {
  if (midis.length === 0) return []
  const sounds = midis.reduce((bits, midi) => bits | (1 << (midi % 12)), 0)
  const bass = Math.min(...midis) % 12
  const sharps = options.key ? signatureOf(options.key) > 0 : false
  const spelled = (pc: number): Note => (options.over && pitchClass(options.over) === pc ? options.over : plainSpelling(pc, sharps))
  const roots = options.over ? [options.over] : Array.from({ length: 12 }, (_, pc) => spelled(pc))

  const names: ChordName[] = []
  for (const root of roots)
    SUFFIXES.forEach((suffix, plainness) => {
      const onBass = bass === pitchClass(root)
      const sounding = (sounds & (1 << pitchClass(root))) !== 0
      const plain = must(parseChord(noteName(root) + suffix))
      const tones = plain.tones.reduce((bits, tone) => bits | (1 << pitchClass(tone.note)), 0)
      const bassIsTone = (tones & (1 << bass)) !== 0
      // A bass outside the chord is a slash chord, provided nothing else is outside it.
      if ((sounds & ~tones & ~(1 << bass)) !== 0 || (!bassIsTone && !sounding)) return
      const { required, oneOf } = requirementOf(plain, { bass: 'any', omit: [] })
      if ((required & ~sounds) !== 0 || oneOf.some((set) => (set & sounds) === 0)) return

      const chord = onBass || !sounding ? plain : must(parseChord(`${plain.canonical}/${noteName(spelled(bass))}`))
      const missing = plain.tones.filter((tone) => (sounds & (1 << pitchClass(tone.note))) === 0)
      let score = plainness + PRICE.missing * missing.filter((tone) => tone.need !== 'root').length
      if (!sounding) score += options.over ? PRICE.rootlessGiven : PRICE.rootless
      else if (!onBass) score += bassIsTone ? PRICE.slash : PRICE.foreignBass
      const toneNames = new ToneNames(chord)
      const degrees = midis.map((midi) => toneNames.of(midi)[0])
      names.push({
        chord, score, rootless: !sounding, degrees, missing: missing.map((tone) => tone.degree),
        doubled: [...new Set(degrees.filter((degree, at) => degrees.indexOf(degree) !== at))],
      })
    })
  names.sort((a, b) => a.score - b.score || a.chord.canonical.localeCompare(b.chord.canonical, 'en'))
  return names
}
