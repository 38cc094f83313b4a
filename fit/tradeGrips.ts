import { chord } from '../core/chord/parseChord'
import type { ChordSymbol } from '../core/chord/symbol'
import { voicingsOf } from '../core/voicing/enumerate'
import { hasUsualForm } from '../core/voicing/gripIdiom'
import { STANDARD_GUITAR } from '../core/neck/instrument'
import { DEFAULT_LIMITS, type Limits } from '../core/voicing/gripLimits'
import type { Voicing } from '../core/voicing/voicing'

/**
 * The trade's own grips, which collections of full chords leave out, by their definitions (common
 * practice, no source): shells, shells with a colour on top, drop 2 and drop 3 on each string set,
 * rootless fours, triads on three strings.
 */
export interface Trade {
  chord: ChordSymbol
  limits: Limits
  isGrip: (voicing: Voicing) => boolean
  /** How much each of its grips counts against a shape of the dataset. */
  weight: number
}
const WEIGHT = 0.25
/** Forms are fewer a chord, and many stand in the dataset already. */
const FORM_WEIGHT = 0.15

const ANY: Limits = { ...DEFAULT_LIMITS, bass: 'any', notes: [3, 6] }
const ROOT: Limits = { ...ANY, bass: 'root' }
const ROOTLESS: Limits = { ...ANY, bass: 'none' }
const strings = (voicing: Voicing): string => voicing.strings.map(({ string }) => 6 - string).join(' ')
const degrees = (voicing: Voicing): string =>
  [...voicing.strings]
    .sort((a, b) => a.midi - b.midi)
    .map(({ degree }) => degree.replace(/^[b#]+/, ''))
    .join(' ')

const isShell = (voicing: Voicing): boolean =>
  ['6 4 3', '5 4 3'].includes(strings(voicing)) &&
  ['1 7 3', '1 3 7', '1 6 3', '1 3 6'].includes(degrees(voicing))
const isShellWithColour = (voicing: Voicing): boolean =>
  ['6 4 3 2', '5 4 3 2'].includes(strings(voicing)) &&
  /^1 (7 3|3 7|6 3|3 6) (9|11|13|5)$/.test(degrees(voicing))
const isDrop2 = (voicing: Voicing): boolean =>
  voicing.families.includes('drop 2') && ['6 5 4 3', '5 4 3 2', '4 3 2 1'].includes(strings(voicing))
const isDrop3 = (voicing: Voicing): boolean =>
  voicing.families.includes('drop 3') && ['6 4 3 2', '5 3 2 1'].includes(strings(voicing))
const isTriad = (voicing: Voicing): boolean =>
  voicing.midis.length === 3 &&
  voicing.families.includes('triad') &&
  ['4 3 2', '3 2 1', '5 4 3'].includes(strings(voicing))
const isRootlessFour = (voicing: Voicing): boolean =>
  voicing.midis.length === 4 &&
  (voicing.families.includes('drop 2') || voicing.families.includes('close')) &&
  ['5 4 3 2', '4 3 2 1'].includes(strings(voicing))

const ROOTS = ['C', 'F', 'A']
const of = (
  suffixes: readonly string[],
  limits: Limits,
  isGrip: (voicing: Voicing, chord: ChordSymbol) => boolean,
  weight = WEIGHT,
): Trade[] =>
  ROOTS.flatMap((root) =>
    suffixes.map((suffix) => {
      const one = chord(root + suffix)
      return { chord: one, limits, isGrip: (voicing) => isGrip(voicing, one), weight }
    }),
  )
const isForm = (voicing: Voicing, chord: ChordSymbol) => hasUsualForm(voicing, chord, STANDARD_GUITAR)

const KINDS = ['', 'm', 'aug', 'sus4', 'sus2', 'add9', '6', 'm6', '6/9', 'm6/9', '7', 'm7', 'maj7', 'm7b5', 'dim7', 'm(maj7)', '7sus4', '9sus4', '9', 'm9', 'maj9', '13', 'm11', 'maj7#11', '7b9', '7#9', '7alt', '7b5', '7#5', '13b9', 'maj13'] // prettier-ignore
const SLASHED = ['D/F#', 'G/B', 'C/E', 'F/A', 'A/C#', 'Bb/D', 'C/G', 'D/A', 'F/C', 'Am/G', 'Em/D', 'Am/C', 'Dm/F', 'C/Bb', 'D/C', 'F/G', 'C/D', 'G/A', 'Cm/Bb', 'C7/E', 'D7/F#', 'Fm/Ab'] // prettier-ignore

export const TRADE: readonly Trade[] = [
  ...of(
    ['maj7', '7', 'm7', '6', 'm6', 'm7b5', 'dim7'],
    ROOT,
    (one) => isShell(one) || isShellWithColour(one) || isDrop2(one) || isDrop3(one),
  ),
  ...of(
    ['9', '13', 'm9', 'maj9', '7b9', '7#9'],
    ROOT,
    (one) => isShellWithColour(one) || isDrop2(one) || isDrop3(one),
  ),
  ...of(['maj7', '7', 'm7', '6', 'm6', 'm7b5', 'dim7'], ANY, (one) => isDrop2(one) || isDrop3(one)),
  ...of(['9', 'm9', 'maj9', '13'], ROOTLESS, isRootlessFour),
  ...of(['', 'm', 'dim', 'aug'], ANY, isTriad),
  // The forms that are learned first, each for the chords it is a form of.
  ...of(KINDS, ROOT, isForm, FORM_WEIGHT),
  ...of(KINDS, ANY, isForm, FORM_WEIGHT),
  ...SLASHED.map((symbol): Trade => {
    const one = chord(symbol)
    return {
      chord: one,
      limits: DEFAULT_LIMITS,
      isGrip: (voicing) => isForm(voicing, one),
      weight: FORM_WEIGHT,
    }
  }),
]

export const gripsOfTrade = ({ chord: of_, limits, isGrip }: Trade): { all: Voicing[]; grips: number[] } => {
  const all = voicingsOf(of_, limits)
  // Stopped strings only: such grips are moved about the neck.
  return {
    all,
    grips: all.flatMap((voicing, at) => (isGrip(voicing) && !voicing.frets.includes(0) ? [at] : [])),
  }
}
