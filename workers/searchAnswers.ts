import { itemAt } from '../core/lists'
import type { Line } from '../core/leading/line'
import { MOST_WHY } from '../core/tune/document'
import type { LinesQuestion } from '../core/tune/linesQuestion'
import type { Voicing } from '../core/voicing/voicing'
import { chord } from '../core/chord/parseChord'
import { arrange } from '../core/leading/arrange'
import type { Reharmonisation } from '../core/reharm/reharmonise'
import { singleProblem, styledLines } from '../core/leading/inStyle'
import { KeptSearch } from '../core/leading/kept'
import { onTheWay } from '../core/leading/onTheWay'
import { leastMotion } from '../core/pitch/motion'
import { stepInWords } from '../core/leading/lineWords'
import { reharmonise } from '../core/reharm/reharmonise'
import { voicingsOf } from '../core/voicing/enumerate'
import { parseKey } from '../core/pitch/key'
import { easierThan, type Easier } from '../core/voicing/ease'
import { strangenessOf, usualFirst } from '../core/voicing/gripIdiom'
import { harmonisedScale, inversionsOf, onOtherStrings } from '../core/voicing/related'
import { voicingOf } from '../core/voicing/voicing'
import { lateHand, type LateQuestion } from '../core/tune/lateHand'
import { problemOf } from '../core/tune/searchQuestion'
import { read } from '../core/tune/applyMelody'
import { melodyLimits } from '../core/player/melodyLimits'
import { limitsFor, wholeNeck } from '../core/player/playerLimits'
import { progressTo, type Progress } from './answering'
import type {
  Between,
  BetweenQuestion,
  BookQuestion,
  EasierQuestion,
  GripsQuestion,
  LinesFound,
  NearGrip,
  Related,
  RelatedQuestion,
  WaysEnd,
  WaysQuestion,
  VersionsProgress,
} from './searchQuestions'
/** The lines of a question; the reason where none can be led. */
function lines(question: LinesQuestion, tell: (told: Progress) => void): LinesFound {
  const found = styledLines({ ...problemOf(question), different: true, onProgress: progressTo(tell) })
  if (!found.ok)
    throw new Error(`${found.fault.message} Accepted: ${found.fault.accepted ?? 'another chord'}.`)
  return found.value
}

const kept = new KeptSearch()
let settling: ReturnType<typeof setTimeout> | undefined

/**
 * The best line alone, from a search that keeps what it knows between questions; null where that is
 * not answered quickly. Answers, and then works out what the next question may want, a little at a
 * time so that the next question does not wait.
 */
function first(question: LinesQuestion): Line | null {
  const problem = singleProblem(problemOf(question))
  const found = problem && kept.best(problem)
  clearTimeout(settling)
  const settle = () => {
    if (kept.settle()) settling = setTimeout(settle)
  }
  settling = setTimeout(settle)
  return found?.ok ? found.value : null
}

/** Ways through a whole tune, each told as soon as it is found. */
function ways(
  { text, distances, keep, count, taste, liking, melody, guards, joint }: WaysQuestion,
  tell: (told: VersionsProgress) => void,
): WaysEnd {
  const onWay = ({
    distance,
    reached,
    says,
    idea = null,
    farthest = null,
    faults = [],
    changes,
  }: Pick<Reharmonisation, 'distance' | 'reached' | 'says' | 'changes'> & { idea?: string | null } & Partial<
      Pick<Reharmonisation, 'farthest' | 'faults'>
    >) =>
    tell({
      way: {
        distance,
        reached,
        says,
        idea,
        farthest,
        faults,
        changes: changes.map(({ index, span, puts, rule, name, why }) => ({
          index,
          span,
          chords: puts.map(({ chord: one, beats }) => ({ symbol: one.canonical, beats })),
          rule,
          name,
          why: why.slice(0, MOST_WHY),
        })),
      },
    })
  let none: string | null = null
  distances.forEach((distance, round) => {
    const progress = progressTo(tell)
    const asked = {
      text,
      distance,
      count,
      keep: new Set(keep),
      taste,
      liking,
      guards,
      melody: melody.map(read),
      onFound: onWay,
      onProgress: (done: number, of: number) => progress(round + done / of, distances.length),
    }
    const limits =
      joint &&
      (melody.length > 0
        ? melodyLimits(joint.body, joint.capo, joint.bass)
        : limitsFor(joint.body, joint.capo, joint.bass))
    if (!joint || !limits) return void reharmonise(text, asked)
    const found = arrange({ ...asked, limits, style: joint.style })
    if (!found.ok) none = `${found.fault.message} Accepted: ${found.fault.accepted ?? 'another distance'}.`
  })
  return { none }
}

/**
 * Every grip of one chord, those that lie best between their neighbours first: motion counted with
 * ease of the grip and how usual it is.
 */
function grips({ symbol, bass, capo, before, after, body }: GripsQuestion): NearGrip[] {
  const limits = limitsFor(body, capo, bass)
  const found = voicingsOf(chord(symbol), limits).map((voicing): NearGrip => ({
    voicing,
    motion:
      (before ? leastMotion(before, voicing.midis) : 0) + (after ? leastMotion(voicing.midis, after) : 0),
  }))
  const rank = ({ voicing, motion }: NearGrip) =>
    motion + voicing.fingering.difficulty + strangenessOf(voicing, chord(symbol), limits.instrument)
  return found.sort((a, b) => rank(a) - rank(b))
}

function book({ symbol, body }: BookQuestion): Voicing[] {
  const limits = wholeNeck(body)
  return usualFirst(voicingsOf(chord(symbol), limits), chord(symbol), limits.instrument)
}

function related({ symbol, frets, capo, bass, key, body }: RelatedQuestion): Related {
  const limits = {
    ...limitsFor(body, capo, bass),
    frets: [0, body.instrument.cutaway] as const,
    notes: [2, body.instrument.tuning.length] as const,
  }
  const target = chord(symbol)
  const voicing = voicingOf(frets, target, limits)
  if (!voicing) return { easier: [], otherStrings: [], inversions: [], scale: [] }
  const within = key === null ? null : parseKey(key)
  return {
    easier: easierThan(voicing, target, limits),
    otherStrings: onOtherStrings(voicing, target, limits),
    inversions: inversionsOf(voicing, target, limits),
    scale: within?.ok
      ? harmonisedScale(voicing, within.value, limits).map((step) => ({
          symbol: step.chord.canonical,
          voicing: step.voicing,
        }))
      : [],
  }
}

function easier({ grips: held, capo, bass, body }: EasierQuestion): (Easier | null)[] {
  const limits = limitsFor(body, capo, bass)
  return held.map(({ symbol, frets }) => {
    const voicing = voicingOf(frets, chord(symbol), limits)
    const [nearestByEase, ...others] = voicing ? easierThan(voicing, chord(symbol), limits) : []
    const travel = (one: Easier) => leastMotion(voicing!.midis, one.voicing.midis)
    return nearestByEase
      ? others.reduce((nearest, one) => (travel(one) < travel(nearest) ? one : nearest), nearestByEase)
      : null
  })
}

/** Where on the way from the smoothest to the boldest the ways shown lie. */
const SHARES = [0, 0.02, 0.08, 0.25, 0.5, 1]

function between({ symbol, frets, next, capo, bass, body }: BetweenQuestion): Between {
  const limits = limitsFor(body, capo, bass)
  const [here, there] = [chord(symbol), chord(next.symbol)]
  const from = voicingOf(frets, here, limits)
  if (!from) return { ways: [], stops: [] }
  const inOrder = voicingsOf(there, limits)
    .map((voicing) => ({ voicing, motion: leastMotion(from.midis, voicing.midis) }))
    .sort((a, b) => a.motion - b.motion || a.voicing.fingering.difficulty - b.voicing.fingering.difficulty)
  // Grips that sound the same count once, the easiest of them.
  const sounds = new Set<string>()
  const different = inOrder.filter(({ voicing }) => {
    const key = voicing.midis.join()
    const seen = sounds.has(key)
    sounds.add(key)
    return !seen
  })
  const places = [...new Set(SHARES.map((share) => Math.round(share * (different.length - 1))))]
  const to = next.frets && voicingOf(next.frets, there, limits)
  return {
    ways:
      different.length === 0
        ? []
        : places.map((at) => ({
            ...itemAt(different, at),
            words: stepInWords(from, itemAt(different, at).voicing),
          })),
    stops: to ? onTheWay({ chord: here, voicing: from }, { chord: there, voicing: to }, limits) : [],
  }
}

/** Where the hand is late, with what would help. */
const late = (question: LateQuestion) => lateHand(question)

export const searchAnswers = { lines, first, ways, grips, book, related, easier, between, late }
export type SearchAnswers = typeof searchAnswers
