import { itemAt } from '../lists'
import { analyse } from '../analysis/analyse'
import { idiomNamed } from '../analysis/tuneIdiom'
import { withSetting } from '../chart/editBars'
import { parseChart } from '../chart/parseChart'
import { slotsOf, type Chart, type Slot } from '../chart/chart'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { addedTo } from '../leading/colours'
import type { Line } from '../leading/line'
import { TERM_NAMES } from '../leading/weights'
import type { Fingering } from '../neck/fingering'
import { writtenFrets, type Frets } from '../neck/instrument'
import type { Change } from '../reharm/change'
import { bad, good, type Fault, type Result } from '../result'
import { familiesIn } from '../reharm/ruleNames'
import type { Limits } from '../voicing/gripLimits'
import { degreesOfVoicing, pitchNames, voicingOf, type Voicing } from '../voicing/voicing'

/** What several answers share. */
export const tidy = (value: number, digits = 4): number => Number(value.toFixed(digits))
export const beatOfSlot = (slot: Slot) => ({ beat: tidy(slot.beat) })

/** What was changed of a chart, each at its place. */
export const choicesAnswer = (changes: readonly Change[], slots: readonly Slot[]) =>
  changes.map(({ index, rule, name, why, puts }) => ({
    bar: itemAt(slots, index).bar,
    ...beatOfSlot(itemAt(slots, index)),
    rule,
    family: familiesIn(rule),
    name,
    why,
    symbols: puts.map(({ chord }) => chord.canonical),
  }))

export const wrongStrings = (frets: Frets, strings: number, text: string) =>
  bad({
    code: 'bad-field',
    message: `${frets.length} frets were given for ${strings} strings.`,
    accepted: `${strings} entries, lowest string first, null where a string is not played`,
    text,
  })

export const fingeringAnswer = ({ fingers, barres, thumb, reachMm, difficulty, parts }: Fingering) => ({
  fingers,
  barres,
  thumb,
  reachMm: tidy(reachMm, 1),
  difficulty: tidy(difficulty),
  parts: Object.fromEntries(Object.entries(parts).map(([part, value]) => [part, tidy(value)])),
})

export const voicingAnswer = (voicing: Voicing) => ({
  frets: voicing.frets,
  notes: pitchNames(voicing),
  degrees: degreesOfVoicing(voicing),
  family: voicing.families[0],
  families: voicing.families,
  reachMm: tidy(voicing.fingering.reachMm, 1),
  difficulty: tidy(voicing.fingering.difficulty),
  fingers: voicing.fingering.fingers,
})

export const lineAnswer = (line: Line, chords: readonly ChordSymbol[]) => ({
  cost: tidy(line.cost),
  parts: Object.fromEntries(TERM_NAMES.map((term) => [term, tidy(line.parts[term])])),
  measures: Object.fromEntries(TERM_NAMES.map((term) => [term, tidy(line.measures[term])])),
  voicings: line.voicings.map((voicing, at) => ({
    symbol:
      itemAt(line.chords, at).canonical === itemAt(chords, at).canonical
        ? itemAt(chords, at).text
        : itemAt(line.chords, at).canonical,
    added: addedTo(itemAt(chords, at), itemAt(line.chords, at)),
    frets: voicing.frets,
    notes: pitchNames(voicing),
    degrees: degreesOfVoicing(voicing),
    fingers: voicing.fingering.fingers,
  })),
  steps: line.steps.map((step) => ({ ...step, hand: tidy(step.hand, 1) })),
})

export function chordsOf(symbols: readonly string[]): Result<ChordSymbol[]> {
  const chords: ChordSymbol[] = []
  for (const [index, symbol] of symbols.entries()) {
    const chord = parseChord(symbol)
    if (!chord.ok) return bad({ ...chord.fault, message: `Chord ${index + 1}: ${chord.fault.message}` })
    chords.push(chord.value)
  }
  return good(chords)
}

/** The chords of a chart in order; silences sound nothing and have no grip. */
export function chordsOfChart(chart: Chart): Result<ChordSymbol[]> {
  const problem = chart.problems[0]
  if (problem)
    return bad({
      code: problem.code,
      message: `Line ${problem.line}, column ${problem.column}: ${problem.message}`,
      accepted: problem.accepted,
      text: problem.text,
    })
  const chords = slotsOf(chart).flatMap((slot) => (slot.symbol?.kind === 'chord' ? [slot.symbol.chord] : []))
  return chords.length > 0 ? good(chords) : bad(NO_CHORDS)
}

/** The fault of a chart with nothing to work on. */
export const NO_CHORDS: Fault = {
  code: 'no-chord',
  message: 'The chart has no chords.',
  accepted: 'a chart such as | C | Am | Dm | G |',
  text: 'text',
}

/** A grip for each chord, as the hand of these limits holds it. */
export function heldGrips(
  voicings: readonly Frets[],
  chords: readonly ChordSymbol[],
  limits: Limits,
): Result<Voicing[]> {
  if (voicings.length !== chords.length)
    return bad({
      code: 'bad-field',
      message: `${voicings.length} grips were given for ${chords.length} chords.`,
      accepted: 'one grip for each chord, in the order of the chart',
      text: 'voicings',
    })
  const held: Voicing[] = []
  for (const [at, frets] of voicings.entries()) {
    if (frets.length !== limits.instrument.tuning.length)
      return wrongStrings(frets, limits.instrument.tuning.length, `voicings.${at}`)
    const voicing = voicingOf(frets, itemAt(chords, at), limits)
    if (!voicing)
      return bad({
        code: 'not-playable',
        message: `No hand of these limits holds grip ${at + 1}, ${writtenFrets(frets)}.`,
        accepted: 'a grip that finger finds playable',
        text: `voicings.${at}`,
      })
    held.push(voicing)
  }
  return good(held)
}

/**
 * A chart in a style that was asked for, and results of it as they were asked for: without a line
 * that the chart does not have.
 */
export function inIdiom(
  text: string,
  idiom: string | undefined,
): { text: string; back: (result: string) => string } {
  if (idiom === undefined) return { text, back: (result) => result }
  const chart = parseChart(text)
  const named = idiomNamed(idiom, analyse({ ...chart, idiom: null }).idiom.idiom)
  return {
    text: withSetting(text, 'idiom', named),
    back: (result) => withSetting(result, 'idiom', chart.idiom),
  }
}
