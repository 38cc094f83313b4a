import { analyse } from '../analysis/analyse'
import { availableTensions } from '../analysis/tensions'
import { skeletonOf } from '../analysis/skeleton'
import { formInWords, formSentence } from '../analysis/formWords'
import { meterName } from '../chart/chart'
import { playOrder } from '../chart/form'
import { parseChart } from '../chart/parseChart'
import { printChart } from '../chart/print'
import { parseSymbol } from '../chord/parseChord'
import { keyName } from '../pitch/key'
import { noteName } from '../pitch/note'
import { good } from '../result'
import { beatOfSlot, tidy } from './parts'
import type { AnswersTo } from './answersTo'

/** Answers about symbols and charts. */
export const CHART_ANSWERS: AnswersTo<'parse' | 'chart' | 'analyse' | 'skeleton'> = {
  parse({ symbol }) {
    const parsed = parseSymbol(symbol)
    if (!parsed.ok) return parsed
    if (parsed.value.kind === 'silence') return good({ root: null, bass: null, canonical: 'N.C.', tones: [] })
    const { root, bass, canonical, tones } = parsed.value.chord
    return good({
      root: noteName(root),
      bass: bass && noteName(bass),
      canonical,
      tones: tones.map(({ degree, note }) => ({ degree, note: noteName(note) })),
    })
  },

  chart({ text }) {
    const chart = parseChart(text)
    return good({
      title: chart.title,
      key: chart.key && keyName(chart.key),
      meter: meterName(chart.meter),
      tempo: chart.tempo,
      capo: chart.capo,
      pickup: chart.pickup,
      bars: chart.bars.map((bar) => ({
        section: bar.section,
        number: bar.number,
        meter: meterName(bar.meter),
        beats: tidy(bar.beats),
        key: bar.newKey && keyName(bar.newKey),
        opensRepeat: bar.opensRepeat,
        played: bar.played,
        ending: bar.ending,
        marks: bar.marks,
        remarks: bar.remarks,
        chords: bar.slots.map((slot) => ({
          symbol: slot.text,
          ...beatOfSlot(slot),
          beats: tidy(slot.beats),
        })),
      })),
      order: playOrder(chart),
      text: printChart(chart),
      problems: chart.problems,
    })
  },

  analyse({ text, numerals }) {
    const chart = parseChart(text)
    const analysis = analyse(chart, numerals)
    const { key, readings, groups, keyGuessed, confidence, otherKeys, regions, idiom } = analysis
    const form = formInWords(chart, analysis)
    return good({
      key: keyName(key),
      keyGuessed,
      confidence: tidy(confidence),
      otherKeys: otherKeys.map((other) => ({ key: keyName(other.key), confidence: tidy(other.confidence) })),
      regions: regions.map((region) => ({ ...region, key: keyName(region.key) })),
      idiom: idiom.idiom,
      idiomReason: idiom.reason,
      form: formSentence(form),
      formWhy: form,
      chords: readings.map(
        ({
          slot,
          roman,
          key: local,
          diatonic,
          function: fn,
          role,
          reason,
          place,
          placeReason,
          scale,
          why,
          alternatives,
        }) => ({
          bar: slot.bar,
          ...beatOfSlot(slot),
          symbol: slot.text,
          roman,
          key: keyName(local),
          diatonic,
          function: fn,
          role,
          reason,
          place,
          placeReason,
          alternatives,
          scale: scale && { name: scale.name, degrees: scale.degrees, notes: scale.notes.map(noteName) },
          why,
          ...(slot.symbol?.kind === 'chord' ? { tensions: availableTensions(slot.symbol.chord, role) } : {}),
        }),
      ),
      groups: groups.map((group) => ({ ...group, key: keyName(group.key) })),
      problems: chart.problems,
    })
  },

  skeleton({ text, level }) {
    const chart = parseChart(text)
    return good({ text: printChart(skeletonOf(chart, level)), problems: chart.problems })
  },
}
