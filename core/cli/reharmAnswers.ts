import { firstOf, itemAt, lastOf } from '../lists'
import { analyse } from '../analysis/analyse'
import { idiomNamed } from '../analysis/tuneIdiom'
import { NEAR_WRITTEN } from '../chart/beats'
import { slotsOf } from '../chart/chart'
import { withBeat } from '../chart/editBars'
import { parseChart } from '../chart/parseChart'
import { applyChanges } from '../reharm/apply'
import { FAMILY_CODES } from '../reharm/families'
import type { Change } from '../reharm/change'
import { optionsAt, type ChangeOption } from '../reharm/options'
import { judge } from '../reharm/judging/judge'
import { reharmonise } from '../reharm/reharmonise'
import { bad, good } from '../result'
import { familiesIn, isAskedBy, RULE_IDS } from '../reharm/ruleNames'
import { choicesAnswer, inIdiom, NO_CHORDS, tidy } from './parts'
import type { AnswersTo } from './answersTo'

/** Answers about other chords in a chart. */
export const REHARM_ANSWERS: AnswersTo<'options' | 'reharmonise' | 'judge'> = {
  options({ text: asked, bar, beat, melody, rules, depth, idiom }) {
    const { text: whole, back } = inIdiom(asked, idiom)
    const text = splitAt(whole, bar, beat)
    const chart = parseChart(text)
    const slots = slotsOf(chart)
    const index = slots.findIndex((slot) => slot.bar === bar && Math.abs(slot.beat - beat) < NEAR_WRITTEN)
    const unknown = rules?.find((asked) => !RULE_IDS.some((rule) => isAskedBy(rule, asked)))
    if (unknown !== undefined)
      return bad({
        code: 'bad-field',
        message: `There is no rule "${unknown}".`,
        accepted: `${RULE_IDS.join(', ')}; a family (${firstOf(FAMILY_CODES)} to ${lastOf(FAMILY_CODES)}), or its letter for all of a kind`,
        text: 'rules',
      })
    if (index < 0)
      return bad({
        code: 'no-chord',
        message: `No chord begins on bar ${bar}, beat ${beat}.`,
        accepted:
          slots
            .slice(0, 8)
            .map((slot) => `bar ${slot.bar}, beat ${tidy(slot.beat)}`)
            .join('; ') || 'a chart with a chord',
        text: 'bar, beat',
      })
    if (itemAt(slots, index).symbol?.kind !== 'chord')
      return bad({
        code: 'no-chord',
        message: `"${itemAt(slots, index).text}" on bar ${bar}, beat ${beat} is no chord that could be changed.`,
        accepted: 'the place of a chord',
        text: 'bar, beat',
      })
    const options = optionsAt(text, index, {
      rules,
      ...(depth ? { depth } : {}),
      ...(melody ? { melody } : {}),
    })
    return good({
      options: options.map((option) => optionAnswer(option, (change) => back(applyChanges(text, [change])))),
      problems: chart.problems,
    })
  },

  judge({ text, new: version, melody, idiom, asked }) {
    const [plain, changed] = [parseChart(text), parseChart(version)]
    if (![plain, changed].every((chart) => slotsOf(chart).some(({ symbol }) => symbol?.kind === 'chord')))
      return bad(NO_CHORDS)
    if (plain.bars.length !== changed.bars.length)
      return bad({
        code: 'bad-field',
        message: `The new version has ${changed.bars.length} bars, the plain one ${plain.bars.length}.`,
        accepted: 'a version with the bars of the plain chart',
        text: 'new',
      })
    const { cost, parts, distance, faults, ideas } = judge(text, version, {
      ...(melody ? { melody } : {}),
      idiom: idiom === undefined ? null : idiomNamed(idiom, analyse(plain).idiom.idiom),
      asked: asked ?? null,
    })
    return good({
      cost: tidy(cost),
      parts: parts.map(({ name, amount, price }) => ({ name, amount: tidy(amount), price })),
      distance: tidy(distance),
      faults: faults.map(({ beat, ...fault }) => ({ ...fault, beat: tidy(beat) })),
      ideas,
    })
  },

  reharmonise({ text: asked, distance, count = 1, melody, seed = 1, guards, idiom }) {
    const { text, back } = inIdiom(asked, idiom)
    const slots = slotsOf(parseChart(text))
    if (!slots.some(({ symbol }) => symbol?.kind === 'chord')) return bad(NO_CHORDS)
    const results = reharmonise(text, {
      distance,
      count,
      seed,
      ...(melody ? { melody } : {}),
      ...(guards ? { guards } : {}),
    })
    return good({
      results: results.map((result) => ({
        text: back(result.text),
        distance: tidy(result.distance),
        reached: result.reached,
        says: result.says,
        idea: result.idea,
        ...(result.farthest ? { farthest: { ...result.farthest, far: tidy(result.farthest.far) } } : {}),
        faults: result.faults.map((fault) => ({ ...fault, beat: tidy(fault.beat) })),
        choices: choicesAnswer(result.changes, slots),
      })),
    })
  },
}

/** @param after the whole chart with a change in it */
const optionAnswer = (
  {
    rule,
    name,
    intent,
    puts,
    why,
    distance,
    reach,
    mood,
    school,
    melody: fit,
    kept,
    lost,
    added,
    into,
    out,
    basses,
    also,
    depth: deep,
    ...change
  }: ChangeOption,
  after: (change: Change) => string,
) => ({
  rule,
  family: familiesIn(rule),
  name,
  intent,
  symbols: puts.map((put) => put.chord.canonical),
  beats: puts.map((put) => tidy(put.beats)),
  text: after({ rule, name, intent, puts, why, mood, school, depth: deep, ...change }),
  why,
  distance: tidy(distance.total),
  distanceParts: { tones: tidy(distance.tones), root: tidy(distance.root) },
  reach: tidy(reach),
  mood,
  school,
  melody: fit,
  kept,
  lost,
  added,
  into,
  out,
  basses,
  also,
})

/**
 * A chart in which a chord that sounds on at some place begins there: what is put there takes the
 * rest of it alone.
 */
function splitAt(text: string, bar: number, beat: number): string {
  const chart = parseChart(text)
  const index = chart.bars.findIndex(({ number }) => number === bar)
  const inside = chart.bars[index]?.slots.find(
    (slot) => slot.beat < beat - NEAR_WRITTEN && beat < slot.beat + slot.beats - NEAR_WRITTEN,
  )
  return inside?.symbol?.kind === 'chord' && Number.isInteger(beat)
    ? withBeat(text, index, beat, inside.symbol.chord.canonical)
    : text
}
