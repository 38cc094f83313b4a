import { firstOf, theOne } from '../lists'
import type { Reading } from '../analysis/chordReading'
import { parseChord } from '../chord/parseChord'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import type { Degree } from '../pitch/degree'
import { noteName, pitchClass } from '../pitch/note'
import { must } from '../result'
import { COLOURS, type ColourLevel } from './catalogue'
import type { Role } from '../analysis/role'

/** Where the one control stands: 0 leaves every chord as typed. */
export type ColourSetting = 0 | ColourLevel
export const COLOUR_SETTINGS: readonly ColourSetting[] = [0, 1, 2, 3, 4]

/** One thing a chord can become without changing its job. */
export interface ColourOption {
  chord: ChordSymbol
  rule: string
  level: ColourSetting
  special: boolean
  why: string
  mood: string
  /** Degrees the plain chord does not have. */
  added: Degree[]
}

/** The plain chord as an option, so that putting back is choosing. */
const plainOption = (chord: ChordSymbol): ColourOption => ({
  chord,
  rule: 'plain',
  level: 0,
  special: false,
  why: 'As the band plays it.',
  mood: 'plain',
  added: [],
})

/**
 * Everything a chord can be coloured to where it stands: the plain chord first, then by the
 * catalogue. A colour keeps every tone that the plain symbol names; only the sixth and the major
 * seventh stand for each other.
 */
export function coloursOf(reading: Pick<Reading, 'slot' | 'role'>): ColourOption[] {
  if (reading.slot.symbol?.kind !== 'chord') return []
  const { chord } = reading.slot.symbol
  const byRole = KNOWN.get(chord) ?? new Map<Role, ColourOption[]>()
  KNOWN.set(chord, byRole)
  const known = byRole.get(reading.role) ?? coloursIn(chord, reading.role)
  byRole.set(reading.role, known)
  return known
}

/** A fourth held back over the third in the bass has nothing to fall to. */
const holdsOverThird = ({ tones, root, bass }: ChordSymbol): boolean =>
  bass !== null &&
  tones.some(({ degree }) => degree === '4' || degree === '11') &&
  [3, 4].includes((pitchClass(bass) - pitchClass(root) + 12) % 12)

/** Colours found before: they hang on the chord and its job alone. */
const KNOWN = new WeakMap<ChordSymbol, Map<Role, ColourOption[]>>()

function coloursIn(plain: ChordSymbol, role: Role): ColourOption[] {
  const options = COLOURS[role].flatMap((colour): ColourOption[] => {
    const symbol = noteName(plain.root) + colour.suffix + (plain.bass ? `/${noteName(plain.bass)}` : '')
    const chord = must(parseChord(symbol))
    if (chord.canonical === plain.canonical || !keepsWhatIsNamed(plain, chord) || holdsOverThird(chord))
      return []
    return [
      {
        chord,
        rule: colour.rule,
        level: colour.level,
        // Where the flat seventh is written it is the tune's own.
        special: (colour.special ?? false) && !(role === 'tonic minor' && hasDegree(plain, 'b7')),
        mood: colour.mood,
        why: colour.why.replaceAll('%', plain.canonical),
        added: chord.tones
          .map((tone) => tone.degree)
          .filter((degree) => !plain.tones.some((tone) => tone.degree === degree)),
      },
    ]
  })
  return [plainOption(plain), ...options]
}

/**
 * The one control: for a setting, the option each chord takes, which is the richest free one up to
 * that level; of those that keep every tone the chord names, where there are any. At 0, where
 * nothing fits, and where the chord has colour of that level already, the plain chord.
 */
export function colourAt(options: readonly ColourOption[], setting: ColourSetting): ColourOption {
  const plain = firstOf(options)
  const own = levelOf(plain.chord)
  const free = options.filter(
    (option) => option === plain || (!option.special && option.level <= setting && option.level > own),
  )
  const keeping = free.filter(({ chord }) =>
    plain.chord.tones.every(
      ({ degree, need }) => need === 'free' || chord.tones.some((tone) => tone.degree === degree),
    ),
  )
  const richest = Math.max(...keeping.map((option) => option.level))
  const found = theOne(keeping, (option) => option.level === richest)
  return found === plain
    ? theOne(free, (option) => option.level === Math.max(...free.map(({ level }) => level)))
    : found
}

/** The level of colour a chord has as it is written. */
function levelOf({ tones }: ChordSymbol): ColourSetting {
  const has = (...degrees: Degree[]) =>
    tones.some(({ degree, need }) => need !== 'free' && degrees.includes(degree))
  if (!has('6', '7', 'b7', 'bb7')) return 0
  if (has('11', '#11', 'b13') || (has('13') && has('b7', '7'))) return 3
  if (has('9', 'b9', '#9')) return 2
  return 1
}

const SIXTH_OR_SEVENTH: readonly Degree[] = ['6', '7']

function keepsWhatIsNamed(plain: ChordSymbol, colour: ChordSymbol): boolean {
  const sounds = new Set(colour.tones.map((tone) => pitchClass(tone.note)))
  return plain.tones.every((tone) => {
    if (tone.need === 'free' || sounds.has(pitchClass(tone.note))) return true
    return (
      SIXTH_OR_SEVENTH.includes(tone.degree) &&
      colour.tones.some((other) => SIXTH_OR_SEVENTH.includes(other.degree))
    )
  })
}
