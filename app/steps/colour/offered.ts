import { firstOf, itemAt } from '../../../core/lists'
import { slotKey, slotsOf } from '../../../core/chart/chart'
import { pitchClass } from '../../../core/pitch/note'
import { INTENTS, putsKey, type Intent, type Put } from '../../../core/reharm/change'
import { coloursOf } from '../../../core/reharm/colour'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import type { ChangeOption } from '../../../core/reharm/options'
import { rankedByTaste, type Ranked } from '../../../core/reharm/taste'
import type { Degree } from '../../../core/pitch/degree'
import type { KnownPlayer } from '../../services/player/PlayerContext'
import { howFarGone, optionsAtSpot } from '../../../core/tune/decisions'
import { MOST_WHY, type Choice } from '../../../core/tune/document'
import { plainChord, type TuneReading } from '../../../core/tune/tuneReading'

/**
 * Something that can stand in the place of one chord or of several neighbours, with what it does to
 * the tune.
 */
export interface Offered {
  key: string
  /** Place of the first chord of the home line it stands for, and how many it stands for. */
  place: string
  index: number
  span: number
  puts: readonly Put[]
  rule: string
  intent: Intent
  name: string
  why: string
  mood: string
  /** Degrees the plain chord does not have, for a colour. */
  added: readonly Degree[]
  special: boolean
  /** What it does; null for the plain chord. */
  option: ChangeOption | null
  /** How far it goes, 0 to 1; null for the plain chord. */
  far: number | null
  /** Why it stands where it does in the list. */
  parts: Ranked['parts'] | null
}

/** What the tune keeps of something offered. */
export const choiceOf = (
  { puts, span, rule, why }: Pick<Offered, 'puts' | 'span' | 'rule'> & { why?: string },
  at: number,
): Choice => ({
  chords: puts.map(({ chord, beats }) => ({ symbol: chord.canonical, beats })),
  span,
  rule,
  at,
  ...(why ? { why: why.slice(0, MOST_WHY) } : {}),
})

type OfferedFrom = Pick<TuneReading, 'chart' | 'analysis' | 'chords'>

/**
 * Everything a chord, or a stretch of chords, can become, by intent and in the order of the
 * player's taste; for a single chord the plain one first. For a stretch only what stands for two or
 * more of its chords, or puts several in the place of one.
 * @param to the same as `from` for a single chord
 */
export function offeredFor(
  reading: OfferedFrom,
  from: number,
  to: number,
  { settings, liking }: Pick<KnownPlayer, 'settings' | 'liking'>,
  melody?: readonly MelodyNote[],
): Offered[] {
  const { chart, analysis, chords } = reading
  const options: ChangeOption[] = []
  for (let index = from; index <= to; index += 1)
    options.push(
      ...optionsAtSpot(chart, analysis, index, settings.depth, melody).filter(
        (option) =>
          index + option.span - 1 <= Math.max(to, from === to ? chords.length : to) &&
          (from === to || option.span > 1),
      ),
    )
  const bassAt = (index: number) => {
    const chord = chords[index] && plainChord(chords[index])
    return chord ? pitchClass(chord.bass ?? chord.root) : null
  }
  const inOrder = rankedByTaste(options, settings.taste, liking, ({ index, span }) => ({
    before: bassAt(index - 1),
    behind: bassAt(index + span),
  }))
  const slots = slotsOf(chart)
  const offered = inOrder.map(({ option, parts }): Offered => ({
    ...option,
    key: putsKey(option),
    place: slotKey(itemAt(slots, option.index)),
    special: option.name === 'special colour',
    added: addedBy(reading, option),
    option,
    parts,
    far: howFarGone(chart, analysis, [option], option.index, option.index + option.span - 1),
  }))
  offered.sort((a, b) => INTENTS.indexOf(a.intent) - INTENTS.indexOf(b.intent))
  const plain = from === to ? plainOffered(reading, from) : null
  return plain ? [plain, ...offered] : offered
}

/** The plain chord as something offered, so that putting back is choosing. */
function plainOffered({ chords }: OfferedFrom, index: number): Offered | null {
  const here = itemAt(chords, index)
  const chord = plainChord(here)
  if (!chord) return null
  const puts = [{ chord, beats: here.slot.beats }]
  return {
    key: putsKey({ index, span: 1, puts }),
    place: here.key,
    index,
    span: 1,
    puts,
    rule: 'plain',
    intent: 'colour',
    name: 'as it is',
    why: 'As the band plays it.',
    mood: 'plain',
    added: [],
    special: false,
    option: null,
    parts: null,
    far: null,
  }
}

function addedBy({ chords }: OfferedFrom, { intent, index, puts }: ChangeOption): readonly Degree[] {
  const { reading } = itemAt(chords, index)
  if (intent !== 'colour' || puts.length > 1 || !reading) return []
  return (
    coloursOf(reading).find(({ chord }) => chord.canonical === firstOf(puts).chord.canonical)?.added ?? []
  )
}
