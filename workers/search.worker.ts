import { chord } from '../core/chord/parse'
import { arrange } from '../core/leading/arrange'
import type { Change } from '../core/reharm/change'
import { singleProblem, styledLines } from '../core/leading/inStyle'
import { KeptSearch } from '../core/leading/kept'
import { onTheWay } from '../core/leading/onTheWay'
import { leastMotion } from '../core/pitch/motion'
import { stepInWords } from '../core/leading/words'
import { reharmonise } from '../core/reharm/reharmonise'
import { voicingsOf } from '../core/voicing/enumerate'
import { parseKey } from '../core/pitch/key'
import { easierThan, type Easier } from '../core/voicing/ease'
import { strangenessOf, usualFirst } from '../core/voicing/idiom'
import { harmonisedScale, inversionsOf, onOtherStrings } from '../core/voicing/related'
import { voicingOf } from '../core/voicing/voicing'
import { problemOf } from '../core/tune/problem'
import { read } from '../core/tune/applyMelody'
import { melodyLimits } from '../core/player/melodyLimits'
import { limitsFor, wholeNeck } from '../core/player/limits'
import type { NearGrip, SearchReply, SearchRequest } from './messages'

const reply = (message: SearchReply) => self.postMessage(message)

/** At most this often is progress told, in ms. */
const PROGRESS_EVERY_MS = 60

self.onmessage = ({ data: request }: MessageEvent<SearchRequest>) => {
  if (request.kind === 'lines') findLines(request)
  else if (request.kind === 'first') findFirst(request)
  else if (request.kind === 'ways') findWays(request)
  else if (request.kind === 'book') findBook(request)
  else if (request.kind === 'related') findRelated(request)
  else if (request.kind === 'easier') findEasier(request)
  else if (request.kind === 'between') findBetween(request)
  else findGrips(request)
}

function findLines({ kind: _, id, ...question }: Extract<SearchRequest, { kind: 'lines' }>): void {
  let told = performance.now()
  const lines = styledLines({
    ...problemOf(question), different: true,
    onProgress: (done, of) => {
      if (performance.now() - told > PROGRESS_EVERY_MS) {
        told = performance.now()
        reply({ kind: 'progress', id, done, of })
      }
      return true
    },
  })
  reply(lines.ok ? { kind: 'lines', id, ...lines.value } : { kind: 'fault', id, message: `${lines.fault.message} Accepted: ${lines.fault.accepted ?? 'another chord'}.` })
}

const kept = new KeptSearch()
let settling: ReturnType<typeof setTimeout> | undefined

/** Answers, and then works out what the next question may want, a little at a time so that the next question does not wait. */
function findFirst({ id, question }: Extract<SearchRequest, { kind: 'first' }>): void {
  const problem = singleProblem(problemOf(question))
  const found = problem && kept.best(problem)
  reply({ kind: 'first', id, line: found?.ok ? found.value : null })
  clearTimeout(settling)
  const settle = () => { if (kept.settle()) settling = setTimeout(settle) }
  settling = setTimeout(settle)
}

function findWays({ id, text, distances, keep, count, taste, liking, melody, guards, joint }: Extract<SearchRequest, { kind: 'ways' }>): void {
  distances.forEach((distance, round) => {
    const found = ({ distance: distanceGone, reached, says, changes }: { distance: number; reached: boolean; says: string; changes: readonly Change[] }) => reply({ kind: 'way', id, way: {
      distance: distanceGone, reached, says,
      changes: changes.map(({ index, span, puts, rule, name }) => ({ index, span, chords: puts.map(({ chord: one, beats }) => ({ symbol: one.canonical, beats })), rule, name })),
    } })
    const asked = { text, distance, count, keep: new Set(keep), taste, liking, guards, melody: melody.map(read) }
    const onProgress = (done: number, of: number) => { reply({ kind: 'progress', id, done: round + done / of, of: distances.length }); return true }
    if (joint) arrange({ ...asked, onProgress, limits: melody.length > 0 ? melodyLimits(joint.body, joint.capo, joint.bass) : limitsFor(joint.body, joint.capo, joint.bass), style: joint.style, onFound: found })
    else reharmonise(text, { ...asked, onProgress, onFound: found })
  })
  reply({ kind: 'ways done', id })
}

/** Every grip of one chord, those that lie best between their neighbours first: motion counted with ease of the grip and how usual it is. */
function findGrips({ id, symbol, bass, capo, before, after, body }: Extract<SearchRequest, { kind: 'grips' }>): void {
  const limits = limitsFor(body, capo, bass)
  const grips = voicingsOf(chord(symbol), limits).map((voicing): NearGrip => ({
    voicing,
    motion: (before ? leastMotion(before, voicing.midis) : 0) + (after ? leastMotion(voicing.midis, after) : 0),
  }))
  const rank = ({ voicing, motion }: NearGrip) => motion + voicing.fingering.difficulty + strangenessOf(voicing, chord(symbol), limits.instrument)
  grips.sort((a, b) => rank(a) - rank(b))
  reply({ kind: 'grips', id, grips })
}

function findBook({ id, symbol, body }: Extract<SearchRequest, { kind: 'book' }>): void {
  const limits = wholeNeck(body)
  const grips = usualFirst(voicingsOf(chord(symbol), limits), chord(symbol), limits.instrument)
  reply({ kind: 'book', id, grips })
}

function findRelated({ id, symbol, frets, capo, bass, key, body }: Extract<SearchRequest, { kind: 'related' }>): void {
  const limits = { ...limitsFor(body, capo, bass), frets: [0, body.instrument.cutaway] as const, notes: [2, body.instrument.tuning.length] as const }
  const target = chord(symbol)
  const voicing = voicingOf(frets, target, limits)
  if (!voicing) return reply({ kind: 'related', id, related: { easier: [], otherStrings: [], inversions: [], scale: [] } })
  const within = key === null ? null : parseKey(key)
  reply({ kind: 'related', id, related: {
    easier: easierThan(voicing, target, limits), otherStrings: onOtherStrings(voicing, target, limits), inversions: inversionsOf(voicing, target, limits),
    scale: within?.ok ? harmonisedScale(voicing, within.value, limits).map((step) => ({ symbol: step.chord.canonical, voicing: step.voicing })) : [],
  } })
}

function findEasier({ id, grips, capo, bass, body }: Extract<SearchRequest, { kind: 'easier' }>): void {
  const limits = limitsFor(body, capo, bass)
  reply({ kind: 'easier', id, easier: grips.map(({ symbol, frets }) => {
    const voicing = voicingOf(frets, chord(symbol), limits)
    const [first, ...others] = voicing ? easierThan(voicing, chord(symbol), limits) : []
    const travel = (one: Easier) => leastMotion(voicing!.midis, one.voicing.midis)
    return first ? others.reduce((nearest, one) => (travel(one) < travel(nearest) ? one : nearest), first) : null
  }) })
}

/** Where on the way from the smoothest to the boldest the ways shown lie. */
const SHARES = [0, 0.02, 0.08, 0.25, 0.5, 1]

function findBetween({ id, symbol, frets, next, capo, bass, body }: Extract<SearchRequest, { kind: 'between' }>): void {
  const limits = limitsFor(body, capo, bass)
  const [first, second] = [chord(symbol), chord(next.symbol)]
  const from = voicingOf(frets, first, limits)
  if (!from) return reply({ kind: 'between', id, ways: [], stops: [] })
  const inOrder = voicingsOf(second, limits).map((voicing) => ({ voicing, motion: leastMotion(from.midis, voicing.midis) }))
    .sort((a, b) => a.motion - b.motion || a.voicing.fingering.difficulty - b.voicing.fingering.difficulty)
  // Grips that sound the same count once, the easiest of them.
  const sounds = new Set<string>()
  const different = inOrder.filter(({ voicing }) => { const key = voicing.midis.join(); const seen = sounds.has(key); sounds.add(key); return !seen })
  const places = [...new Set(SHARES.map((share) => Math.round(share * (different.length - 1))))]
  const to = next.frets && voicingOf(next.frets, second, limits)
  reply({
    kind: 'between', id, ways: different.length === 0 ? [] : places.map((at) => ({ ...different[at]!, words: stepInWords(from, different[at]!.voicing) })),
    stops: to ? onTheWay({ chord: first, voicing: from }, { chord: second, voicing: to }, limits) : [],
  })
}
