import { itemAt } from '../lists'
import { analyse } from '../analysis/analyse'
import { slotsOf, type Chart } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { pitchName } from '../pitch/note'
import { bad, good } from '../result'
import { bassLine } from '../rhythm/bassLine'
import { FIGURES, lengthInCycle, type Cycle, type Figure } from '../rhythm/figures'
import { handTempo } from '../rhythm/handTempo'
import { layFigure } from '../rhythm/lay'
import { playedBars } from '../rhythm/playedTime'
import { STRAIGHT, SHUFFLE, swingAt, swungTime } from '../rhythm/swing'
import { figureFrom, tooMany } from './figureAsked'
import { limitsFrom } from './requestLimits'
import { chordsOf, chordsOfChart, heldGrips, NO_CHORDS, tidy } from './parts'
import type { AnswersTo } from './answersTo'
import type { timesSchema } from './requestFields'
import type { z } from 'zod'

/**
 * Long : short, from what is asked, what the figure is made for, and the tempo in quarters a
 * minute.
 */
function swingOf(
  asked: z.output<typeof timesSchema>['swing'],
  figure: Cycle | Figure,
  quarters: number,
): number {
  if (typeof asked === 'number') return asked
  const feel = asked ?? ('feel' in figure ? figure.feel : 'straight')
  if (feel === 'swing') return swingAt(quarters)
  return feel === 'shuffle' ? SHUFFLE : STRAIGHT
}

/** Answers of the core's command line about rhythm and the band. */
export const RHYTHM_ANSWERS: AnswersTo<'figures' | 'rhythm' | 'tempo' | 'bassline'> = {
  figures({ meter }) {
    const found = FIGURES.filter(({ meters }) => meter === undefined || meters.includes(meter))
    if (found.length === 0)
      return bad({
        code: 'no-figure',
        message: `There is no figure for ${meter}.`,
        accepted: [...new Set(FIGURES.flatMap(({ meters }) => meters))].join(', '),
        text: 'meter',
      })
    return good({
      figures: found.map((figure) => ({
        name: figure.name,
        cycle: figure.cycle,
        hits: figure.hits.map((hit) => ({
          at: hit.at,
          beats: tidy(lengthInCycle(figure, hit)),
          length: hit.length,
          part: hit.part,
          accent: hit.accent,
          stroke: hit.stroke,
          push: hit.push,
        })),
        meters: figure.meters,
        feel: figure.feel,
        hand: figure.hand,
        why: figure.why,
      })),
    })
  },

  rhythm({ text, figure: asked, restart, density, melody, seed, phrase, times }) {
    const chart = parseChart(text)
    if (!slotsOf(chart).some(({ symbol }) => symbol?.kind === 'chord')) return bad(NO_CHORDS)
    const figure = figureFrom(asked)
    if (!figure.ok) return figure
    const beyond = tooMany(chart, figure.value)
    if (beyond) return beyond
    const laid = layFigure(chart, figure.value, { restart, density, melody, seed, phrase })
    const bars = playedBars(chart)
    const swing = times && swingOf(times.swing, figure.value, (times.tempo * 4) / chart.meter.unit)
    const msOf = (time: number) => (swungTime(bars, time, swing!) * 60_000) / times!.tempo
    return good({
      hits: laid.hits.map((hit) => ({
        bar: hit.bar,
        beat: tidy(hit.beat),
        beats: tidy(hit.beats),
        symbol: hit.slot.text,
        part: hit.part,
        accent: hit.accent,
        stroke: hit.stroke,
        pushed: hit.pushed,
        ...(times ? { ms: tidy(msOf(hit.time), 3) } : {}),
        ...(hit.why ? { why: hit.why } : {}),
      })),
      silent: laid.silent.map(({ bar, beat, text: symbol, why }) => ({ bar, beat: tidy(beat), symbol, why })),
      leftOut: laid.leftOut.map(({ bar, beat, part, why }) => ({ bar, beat: tidy(beat), part, why })),
      notes: laid.notes,
      ...(swing ? { swing: tidy(swing) } : {}),
      problems: chart.problems,
    })
  },

  tempo({ text, symbols, voicings, figure: asked, restart, limits: input }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    // Chords without a chart stand for a bar of four each.
    const chart: Chart = parseChart(text ?? `| ${symbols!.join(' | ')} |`)
    const chords = text === undefined ? chordsOf(symbols!) : chordsOfChart(chart)
    if (!chords.ok) return chords
    const figure = asked === undefined ? good(null) : figureFrom(asked)
    if (!figure.ok) return figure
    const beyond = figure.value && tooMany(chart, figure.value)
    if (beyond) return beyond
    const held = heldGrips(voicings, chords.value, limits.value)
    if (!held.ok) return held
    const slots = slotsOf(chart).filter(({ symbol }) => symbol?.kind === 'chord')
    const grips = new Map(held.value.map((voicing, at) => [itemAt(slots, at), voicing]))
    const found = handTempo({ chart, grips, figure: figure.value, restart, limits: limits.value })
    return good({
      comfortable: tidy(found.comfortable, 1),
      changes: found.changes.map((change) => ({
        index: change.index,
        to: change.to,
        from: itemAt(chords.value, change.index).text,
        into: itemAt(chords.value, change.to).text,
        mm: tidy(change.mm, 1),
        fingers: change.fingers,
        needsMs: tidy(change.needsMs, 1),
        beats: tidy(change.beats),
        comfortable: tidy(change.comfortable, 1),
        help: change.help.map(({ text: says }) => says),
      })),
    })
  },

  bassline({ text, kind, seed = 0 }) {
    const chart = parseChart(text)
    if (!slotsOf(chart).some(({ symbol }) => symbol?.kind === 'chord')) return bad(NO_CHORDS)
    return good({
      notes: bassLine(chart, analyse(chart), kind, seed).map(({ bar, beat, beats, note, degree, why }) => ({
        bar,
        beat: tidy(beat),
        beats: tidy(beats),
        note: pitchName(note),
        degree,
        why,
      })),
      problems: chart.problems,
    })
  },
}
