import { itemAt } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { STOPPED } from '../leading/lead'
import { bestPaths } from '../leading/search'
import { PriceBook, type Layer } from '../leading/searchStage'
import { STYLES, weightsFrom } from '../leading/weights'
import { leastMotion } from '../pitch/motion'
import { pitchName } from '../pitch/note'
import { bad, good, type Result } from '../result'
import { CandidateBook, type Candidate } from './candidates'
import { happeningGroups, happeningHead, type CandidateGroup, type Happening } from './happenings'
import { highUpPrice } from './highUp'
import {
  placeKey,
  SILENT,
  type HarmonisedLine,
  type HarmonisedNote,
  type NotPlayed,
  type HarmoniseProblem,
} from './melodyLine'
import { analyse } from '../analysis/analyse'
import type { Reading } from '../analysis/chordReading'
import { barName, type Chart } from '../chart/chart'
import { coloursInLine } from '../leading/colours'
import type { Limits } from '../voicing/gripLimits'
import { movingLines } from './movingLines'
import { whyNoGrip } from '../voicing/whyNoGrip'
import { whyNoNote, type LimitNames } from './whyNoHarmony'
import { pluckedWhereThin, melodyTextureLimits, textureWeights } from './melodyTextures'

/** What a line pays for each note under which it sounds the very notes of an earlier one. */
const REPEATED = 4
/** A melody of which more than this cannot be played is refused: it lies in the wrong octave. */
const MOST_LEFT_OUT = 0.34

/**
 * A chord melody: what the density asks for gets a grip with the note on top; the notes between
 * move over that grip as long as a hand can reach them with it held, and stand alone where it
 * cannot. Under notes that are no chord tones the chords that lead on are tried too. The whole tune
 * is weighed together at its tempo, the melody always the highest note.
 */
export function harmonise(asked: HarmoniseProblem): Result<HarmonisedLine[]> {
  const problem = { ...asked, limits: pluckedWhereThin(asked.limits, asked.texture ?? 'full') }
  const {
    style = 'smooth',
    count = 1,
    texture = 'full',
    fixed = new Map(),
    onProgress = () => true,
    melody,
  } = problem
  if (texture === 'two lines') return movingLines(problem)
  const named = STYLES[style]
  const within = melodyTextureLimits(named.within ? named.within(problem.limits) : problem.limits, texture)
  const all = happeningGroups(problem)
  if (all.length === 0)
    return bad({
      code: 'no-melody',
      message: 'No melody note lies within the bars of the chart.',
      accepted: 'notes such as {"bar":1,"beat":1,"beats":1,"note":"E4"}',
      text: 'melody',
    })
  const book = new CandidateBook(within, problem.limits, texture, coloursIn(problem.chart))
  const tried = candidatesFor(
    all,
    book,
    (one) => stuckAt(one, within, problem.limitNames),
    fixed,
    (at) => onProgress(at, all.length + count),
  )
  if (!tried) return bad(WAS_STOPPED)
  const { candidates, groups, leftOut } = tried
  const first = leftOut[0]
  if (first && (groups.length === 0 || leftOut.length > MOST_LEFT_OUT * melody.length))
    return bad({
      code: 'no-grip',
      text: 'melody',
      at: Math.max(0, first.note ? melody.indexOf(first.note) : 0),
      message: first.message,
      accepted: first.accepted,
    })
  const weights = textureWeights(weightsFrom(style, problem.weights, within.bass), texture)
  const prices = new PriceBook(weights)
  const used = groups.map(() => new Set<string>())
  const found: { line: HarmonisedLine; indexes: string }[] = []
  for (let round = 0; round < count; round += 1) {
    if (!onProgress(groups.length + round, groups.length + count))
      return found.length > 0 ? good(found.map(({ line }) => line)) : bad(WAS_STOPPED)
    const layers = candidates.map((list, at): Layer => ({
      // A silence or a note alone has no chord to be led from: it is named by what stood before.
      chord: itemAt(groups, at).anchor.chord ?? SILENT,
      voicings: list.map(({ voicing }) => voicing),
      chords: list.map(({ chord }) => chord ?? SILENT),
      haste: itemAt(groups, at).haste,
      only: `${at}`,
      extra: list.map(
        ({ extra, voicing }) =>
          extra + highUpPrice(voicing) + (itemAt(used, at).has(voicing.midis.join()) ? REPEATED : 0),
      ),
    }))
    const [path] = bestPaths(layers, weights, within.instrument, 1, undefined, prices) ?? []
    if (!path || found.some(({ indexes }) => indexes === path.indexes.join())) break
    const repeated = path.indexes.filter((index, at) =>
      itemAt(used, at).has(itemAt(itemAt(candidates, at), index).voicing.midis.join()),
    ).length
    found.push({
      line: {
        cost: path.cost - repeated * REPEATED,
        notes: notesOf(path.indexes, candidates, groups),
        ...(leftOut.length > 0 ? { leftOut } : {}),
      },
      indexes: path.indexes.join(),
    })
    path.indexes.forEach((index, at) =>
      itemAt(used, at).add(itemAt(itemAt(candidates, at), index).voicing.midis.join()),
    )
  }
  return good(found.map(({ line }) => line).sort((a, b) => a.cost - b.cost))
}

const WAS_STOPPED = { code: STOPPED, message: 'The search was stopped.' } as const

/**
 * What can stand under each group, and the notes that nothing can stand under; null where it was
 * stopped.
 */
function candidatesFor(
  all: readonly CandidateGroup[],
  book: CandidateBook,
  stuck: (one: Happening) => ReturnType<typeof stuckAt>,
  fixed: NonNullable<HarmoniseProblem['fixed']>,
  goesOn: (at: number) => boolean,
) {
  const candidates: Candidate[][] = []
  const groups: CandidateGroup[] = []
  // One note that cannot be played is said; the rest of the tune stands.
  const leftOut: NotPlayed[] = []
  const leave = (one: Happening) => leftOut.push({ note: one.note, ...one.place, ...stuck(one) })
  for (const [at, group] of all.entries()) {
    if (!goesOn(at)) return null
    const rest = group.rest.filter((one) => {
      const there = one.midi === null || fixed.has(placeKey(one.place)) || book.has(one.midi)
      if (!there) leave(one)
      return there
    })
    // Where the note that was to have the chord cannot have it, the next one over the chord has.
    for (const [from, anchor] of [group.anchor, ...rest].entries()) {
      const here = { ...group, anchor, rest: rest.slice(from) }
      const list = book.of(here, fixed)
      if (list.length > 0) {
        candidates.push(list)
        groups.push(here)
        break
      }
      leave(anchor)
    }
  }
  return { candidates, groups, leftOut }
}

/**
 * What chords of a chart may become with the free tensions of their role, where they stand first.
 */
export function coloursIn(chart: Chart): (chord: ChordSymbol) => readonly ChordSymbol[] {
  let readings: readonly Reading[] | null = null
  return (chord) => {
    readings ??= analyse(chart).readings
    const reading = readings.find(
      ({ slot }) => slot.symbol?.kind === 'chord' && slot.symbol.chord.canonical === chord.canonical,
    )
    return reading ? coloursInLine(reading).slice(1) : []
  }
}

/** Why nothing can be held under a note, or for a chord in a rest. */
function stuckAt(
  { midi, note, place, chord }: Happening,
  limits: Limits,
  names: LimitNames | undefined,
): { message: string; accepted: string } {
  const where = barName(place.bar)
  const nowhere = midi === null || !note ? null : whyNoNote(midi, pitchName(note.note), where, limits, names)
  if (nowhere) return { message: nowhere.message, accepted: nowhere.accepted! }
  const what = chord?.canonical ?? 'the chord'
  return {
    message: `No grip of ${what}${note ? ` with ${pitchName(note.note)} on top` : ''} in ${where} keeps to the limits.`,
    accepted: chord ? whyNoGrip(chord, limits) : 'wider limits',
  }
}

function notesOf(
  indexes: readonly number[],
  candidates: readonly Candidate[][],
  groups: readonly CandidateGroup[],
): HarmonisedNote[] {
  return indexes.flatMap((index, at): HarmonisedNote[] => {
    const { voicing, rest, chord, kind } = itemAt(itemAt(candidates, at), index)
    const { anchor } = itemAt(groups, at)
    const alone = voicing.midis.length === 1
    return [
      {
        ...happeningHead(anchor),
        chord,
        kind: alone && kind !== 'by hand' ? 'single note' : kind,
        under: alone ? 'single' : 'chord',
        voicing,
      },
      ...rest.map((make) => make()),
    ]
  })
}

/** One way to hold a melody note, with how far its voices lie from the grips around it. */
export interface NoteChoice {
  note: HarmonisedNote
  /** Least motion in semitones from the grip before and to the grip after. */
  motion: number
}

/** Grips of one chord that are offered under a note. */
const GRIPS_OF_A_CHORD = 4
/** The note by itself stands behind everything else. */
const ALONE_LAST = 1000

/**
 * What a note of the melody could have under it where it stands: its own chord, chords that lead
 * on, and the note alone, the ones nearest to what stands around first. Each chord comes with its
 * best few grips.
 * @param place of the note
 * @param before sounding MIDI numbers of the grip before, lowest first; null where there is none;
 *   `after` likewise
 * @param others chords that could take the place of the one that stands there
 */
export function choicesUnder(
  asked: HarmoniseProblem,
  place: { bar: number; beat: number },
  before: readonly number[] | null,
  after: readonly number[] | null,
  others: readonly ChordSymbol[] = [],
): NoteChoice[] {
  const { style = 'smooth', texture = 'full' } = asked
  const limits = pluckedWhereThin(asked.limits, texture)
  const named = STYLES[style]
  const within = melodyTextureLimits(
    named.within ? named.within(limits) : limits,
    texture === 'two lines' ? 'two voices' : texture,
  )
  const key = placeKey(place)
  // Whatever the density, this note is asked about: a mark makes it one that has a chord of its
  // own.
  const mark = new Map([[key, { frets: [], chord: null }]])
  const group = happeningGroups({ ...asked, limits, fixed: mark }).find(
    ({ anchor }) => placeKey(anchor.place) === key,
  )
  if (!group) return []
  const book = new CandidateBook(
    within,
    limits,
    texture === 'two lines' ? 'two voices' : texture,
    coloursIn(asked.chart),
  )
  const own = { ...group, rest: [] }
  const list = [...book.of(own, new Map(), true), ...others.flatMap((chord) => book.another(own, chord))]
  const ranked = list
    .map(({ voicing, chord, kind, extra }): NoteChoice & { price: number } => {
      const motion =
        (before ? leastMotion(before, voicing.midis) : 0) + (after ? leastMotion(voicing.midis, after) : 0)
      const alone = voicing.midis.length === 1
      return {
        note: {
          ...happeningHead(group.anchor),
          chord,
          kind: alone ? 'single note' : kind,
          under: alone ? 'single' : 'chord',
          voicing,
        },
        motion,
        price:
          (alone ? ALONE_LAST : 0) +
          motion * 0.5 +
          voicing.fingering.difficulty +
          extra +
          highUpPrice(voicing),
      }
    })
    .sort((a, b) => a.price - b.price)
  const seen = new Map<string, number>()
  const grips = new Set<string>()
  return ranked.flatMap(({ note, motion }) => {
    // A grip that several chords share is offered once, under the name it does best by.
    if (grips.has(note.voicing.frets.join())) return []
    const of = note.under === 'single' ? 'alone' : (note.chord?.canonical ?? '')
    const count = (seen.get(of) ?? 0) + 1
    seen.set(of, count)
    if (count > (note.kind === 'another chord' ? 1 : GRIPS_OF_A_CHORD)) return []
    grips.add(note.voicing.frets.join())
    return [{ note, motion }]
  })
}
