import { firstOf, itemAt } from '../lists'
import { analyse } from '../analysis/analyse'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { bestLines } from '../leading/lead'
import { weightsFrom } from '../leading/weights'
import { keyName } from '../pitch/key'
import { daysIn } from '../practice/days'
import { itemsOf } from '../practice/items'
import { throughKeys } from '../practice/keysPractised'
import { nextRung } from '../practice/ladder'
import { planOf } from '../practice/plan'
import { questionOf } from '../practice/questions/ask'
import { utcDay } from '../practice/recall'
import { recordsOf } from '../practice/record'
import { good } from '../result'
import { handTempo } from '../rhythm/handTempo'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { limitsFrom } from './requestLimits'
import { chordsOf, chordsOfChart, heldGrips } from './parts'
import type { AnswersTo } from './answersTo'

/** Beats a minute that are wanted where neither the request nor the chart says. */
const USUAL_GOAL = 120

/** Answers of the core's command line about practice. */
export const PRACTICE_ANSWERS: AnswersTo<'ladder' | 'plan' | 'question' | 'keys'> = {
  ladder: (climb) => good({ ...nextRung(climb) }),

  plan({ text, voicings, minutes, log, now, goal, zone, limits: input }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const chart = parseChart(text)
    const chords = chordsOfChart(chart)
    if (!chords.ok) return chords
    const held = heldGrips(voicings, chords.value, limits.value)
    if (!held.ok) return held
    const slots = slotsOf(chart).filter(({ symbol }) => symbol?.kind === 'chord')
    const grips = new Map(held.value.map((voicing, at) => [itemAt(slots, at), voicing]))
    const wanted = goal ?? chart.tempo ?? USUAL_GOAL
    const items = itemsOf({
      chart,
      analysis: analyse(chart),
      grips,
      hand: handTempo({ chart, grips, figure: null, limits: limits.value, help: false }),
      goal: wanted,
    })
    const dayOf = zone ? daysIn(zone) : utcDay
    const passes = log.flatMap(({ tempo, ...pass }) =>
      pass.at > now ? [] : [tempo === undefined ? pass : { ...pass, tempo }],
    )
    return good({
      items: planOf({
        items,
        records: recordsOf(passes, dayOf),
        goal: wanted,
        minutes,
        today: dayOf(now),
      }),
    })
  },

  question({ kind, symbols, voicings, key, seed, limits: input }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const chords = chordsOf(symbols)
    if (!chords.ok) return chords
    // Without grips of the player's own those of the smoothest line are asked about.
    const grips = voicings
      ? heldGrips(voicings, chords.value, limits.value)
      : smoothGrips(chords.value, input ? limits.value : TUNE_LIMITS)
    if (!grips.ok) return grips
    const asked = questionOf(kind, {
      chords: chords.value,
      voicings: grips.value,
      key: key ?? analyse(parseChart(`| ${symbols.join(' | ')} |`)).key,
      limits: limits.value,
      seed,
    })
    if (!asked.ok) return asked
    const { shows, answers, moves: _, sounds, ...question } = asked.value
    const fretsOf = (all: typeof shows) => all.map(({ frets }) => frets)
    return good({ ...question, grips: fretsOf(shows), answers: fretsOf(answers), sounds })
  },

  keys({ text, order, seed }) {
    const chart = parseChart(text)
    const chords = chordsOfChart(chart)
    if (!chords.ok) return chords
    const all = throughKeys(text, order, seed)
    return good({ keys: all.map(({ key }) => keyName(key)), texts: all.map((one) => one.text) })
  },
}

function smoothGrips(chords: Parameters<typeof bestLines>[0]['chords'], limits: typeof TUNE_LIMITS) {
  const lines = bestLines({ chords, limits, weights: weightsFrom('smooth'), count: 1 })
  return lines.ok ? good([...firstOf(lines.value).voicings]) : lines
}
