import { entryOf, firstOf, itemAt } from '../lists'
import { slotKey, type Chart } from '../chart/chart'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { modulo, pitchClass } from '../pitch/note'
import { analyse } from './analyse'
import { played } from './chordPlaces'

/** What a progression is found by among many: written once, and searched as text. */
export interface Sought {
  /**
   * Each chord as its step above the tonic of the key it is in: ` 2n 7j 0j `, `n` with a minor
   * third, `j` without.
   */
  inKey: string
  /**
   * The same without a key: `n5j5j`, the letter of a chord, then the half steps to the next (`a`
   * ten, `b` eleven).
   */
  steps: string
  /** What happens in it, by the trade's names: cadences, a bass that walks. */
  says: string[]
  /** Chords and lengths counted from the first root: equal for the same changes in any key. */
  changes: string
}

/** So many basses by step in one direction are a walk. */
const A_WALK = 4
/** So many chords over one bass are a pedal. */
const A_PEDAL = 3
/** Changes shorter than this stand in half the tunes of a book. */
const LEAST_CHANGES = 4

const third = (chord: ChordSymbol) => (hasDegree(chord, 'b3') && !hasDegree(chord, '3') ? 'n' : 'j')

/** What the changes of a chart are found by; null where it has no chords. */
export function soughtIn(chart: Chart): Sought | null {
  const sounding = played(chart)
  if (sounding.length === 0) return null
  const { readings, groups } = analyse(chart)
  const keys = new Map(readings.map(({ slot, key }) => [slotKey(slot), key]))
  const chords = sounding.map(({ slot, chord }) => ({
    letter: third(chord),
    root: pitchClass(chord.root),
    bass: pitchClass(chord.bass ?? chord.root),
    tonic: pitchClass(entryOf(keys, slotKey(slot)).tonic),
    name: chord.suffix,
    beats: slot.beats,
  }))
  const moving = chords.filter(
    ({ root, letter }, at) => root !== chords[at - 1]?.root || letter !== itemAt(chords, at - 1).letter,
  )
  const first = firstOf(chords)
  return {
    inKey: ` ${moving.map(({ root, tonic, letter }) => `${modulo(root - tonic, 12)}${letter}`).join(' ')} `,
    steps: moving
      .map(({ root, letter }, at) => {
        const next = moving[at + 1]
        return letter + (next ? modulo(next.root - root, 12).toString(12) : '')
      })
      .join(''),
    says: [...new Set([...groups.map(({ kind }) => kind), ...basses(chords)])],
    changes:
      moving.length < LEAST_CHANGES
        ? ''
        : chords
            .map(({ root, bass, name, beats }) =>
              [modulo(root - first.root, 12), name, modulo(bass - root, 12), beats].join(','),
            )
            .join(' '),
  }
}

/** Walks and pedals of the bass. */
function basses(chords: readonly { bass: number; root: number; name: string }[]): string[] {
  const found: string[] = []
  let [up, down, still] = [1, 1, 1]
  for (const [at, { bass, root, name }] of chords.entries()) {
    const before = chords[at - 1]
    if (!before) continue
    const by = modulo(bass - before.bass, 12)
    const isSame = by === 0 && root === before.root && name === before.name
    if (isSame) continue
    up = by === 1 || by === 2 ? up + 1 : 1
    down = by === 11 || by === 10 ? down + 1 : 1
    if (by !== 0) still = 1
    else if (root !== before.root) still += 1
    if (up === A_WALK) found.push('walking up')
    if (down === A_WALK) found.push('walking down')
    if (still === A_PEDAL) found.push('pedal')
  }
  return found
}

/**
 * Chords asked for by numerals, as patterns of SQL's LIKE over the two texts above; null where the
 * words are no numerals.
 */
export type NumeralsAsked = { inKey: string } | { steps: string }

const SIGNS: Readonly<Record<string, number>> = { '': 0, b: -1, '♭': -1, '#': 1, '♯': 1 }
const STEPS = [0, 2, 4, 5, 7, 9, 11]
const ROMANS = ['i', 'ii', 'iii', 'iv', 'v', 'vi', 'vii']
const NUMERAL =
  /^([b#♭♯]?)(vii|vi|iv|v|iii|ii|i|VII|VI|IV|V|III|II|I|[1-7])(?:maj|ma|m|ø|°|o|Δ|dim|sus)*(?:\d|[b#♭♯+])*$/

/**
 * "ii V I", "2-5-1", "I bVII IV": capitals for a major third, small letters for a minor one,
 * figures for either. A ii-V is found wherever it points; other chords, counted in the key the tune
 * is in there.
 */
export function numeralsAsked(query: string): NumeralsAsked | null {
  const words = query.split(/[\s|,–-]+/).filter(Boolean)
  if (words.length === 0) return null
  const read = words.map((word) => NUMERAL.exec(word))
  // One figure or letter alone is rather a word of a title.
  if (read.some((one) => one === null) || (words.length === 1 && !/[iv]{2}|^[b#♭♯]/i.test(firstOf(words))))
    return null
  const chords = read.map((one) => {
    const [, sign, name] = one!
    const isFigure = /\d/.test(name!)
    const step = itemAt(STEPS, isFigure ? Number(name) - 1 : ROMANS.indexOf(name!.toLowerCase()))
    const written = name === name!.toLowerCase() ? 'n' : 'j'
    return { step: modulo(step + SIGNS[sign!]!, 12), letter: isFigure ? '_' : written }
  })
  const isTwoFive = chords.some(
    ({ step, letter }, at) =>
      letter !== 'j' && step === 2 && chords[at + 1]?.step === 7 && itemAt(chords, at + 1).letter !== 'n',
  )
  return isTwoFive
    ? {
        steps: `%${chords
          .map(({ step, letter }, at) => {
            const next = chords[at + 1]
            return letter + (next ? modulo(next.step - step, 12).toString(12) : '')
          })
          .join('')}%`,
      }
    : { inKey: `% ${chords.map(({ step, letter }) => `${step}${letter}`).join(' ')} %` }
}
