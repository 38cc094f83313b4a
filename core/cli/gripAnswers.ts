import { firstOf, lastOf } from '../lists'
import { parseChord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { fingeringsOf } from '../neck/fingering'
import { soundAt, STANDARD_GUITAR } from '../neck/instrument'
import { bad, good } from '../result'
import { voicingsOf } from '../voicing/enumerate'
import { usualFirst } from '../voicing/gripIdiom'
import { namesOf } from '../voicing/possibleNames'
import type { Voicing } from '../voicing/voicing'
import { whyNone } from '../voicing/whyNoGrip'
import { limitsFrom } from './requestLimits'
import { fingeringAnswer, voicingAnswer, wrongStrings } from './parts'
import type { AnswersTo } from './answersTo'

/** Answers about single grips. */
export const GRIP_ANSWERS: AnswersTo<'name' | 'finger' | 'voicings'> = {
  name({ frets, notes, tuning, over, key, ...context }) {
    const around = { chord: context.chord, before: context.before, after: context.after }
    const read: { chord?: ChordSymbol; before?: ChordSymbol; after?: ChordSymbol } = {}
    for (const [field, symbol] of Object.entries(around)) {
      if (symbol === undefined) continue
      const chord = parseChord(symbol)
      if (!chord.ok) return chord
      read[field as keyof typeof read] = chord.value
    }
    const instrument = tuning ? { ...STANDARD_GUITAR, tuning } : STANDARD_GUITAR
    if (frets && frets.length !== instrument.tuning.length)
      return wrongStrings(frets, instrument.tuning.length, 'frets')
    const midis = frets
      ? frets.flatMap((fret, string) => (fret === null ? [] : [soundAt(instrument, string, fret)]))
      : notes!
    if (midis.length === 0)
      return bad({
        code: 'bad-field',
        message: 'No string sounds.',
        accepted: 'at least one fret that is not null',
        text: 'frets',
      })
    return good({
      names: namesOf(midis, { over, key, ...read }).map(({ chord, ...name }) => ({
        symbol: chord.canonical,
        ...name,
      })),
    })
  },

  finger({ frets, limits: input }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const { instrument, hand } = limits.value
    if (frets.length !== instrument.tuning.length)
      return wrongStrings(frets, instrument.tuning.length, 'frets')
    const found = fingeringsOf(frets, instrument, hand)
    if (!found.playable) return good({ playable: false, fingerings: [], why: found.why })
    return good({ playable: true, fingerings: found.fingerings.map(fingeringAnswer) })
  },

  voicings({ symbol, limits: input, count, sort = 'easy' }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const chord = parseChord(symbol)
    if (!chord.ok) return chord
    const voicings = voicingsOf(chord.value, limits.value)
    if (voicings.length === 0) {
      const tight = whyNone(chord.value, limits.value)
      return good({
        total: 0,
        voicings: [],
        tooTight: tight,
        why:
          tight.length > 0
            ? `Nothing is left by limits.${tight.map(({ limit }) => limit).join(' and limits.')}: ${tight.map(({ loosen }) => loosen).join('; or ')}.`
            : `No grip of ${chord.value.canonical} can be held on this instrument.`,
      })
    }
    const inOrder =
      sort === 'low' || sort === 'high'
        ? voicings.sort(ORDERS[sort])
        : usualFirst(voicings, chord.value, limits.value.instrument)
    return good({ total: voicings.length, voicings: inOrder.slice(0, count).map(voicingAnswer) })
  },
}

const lowest = (voicing: Voicing) => firstOf(voicing.midis)
const highest = (voicing: Voicing) => lastOf(voicing.midis)
const byEase = (a: Voicing, b: Voicing) => a.fingering.difficulty - b.fingering.difficulty
const ORDERS = {
  low: (a: Voicing, b: Voicing) => lowest(a) - lowest(b) || highest(a) - highest(b) || byEase(a, b),
  high: (a: Voicing, b: Voicing) => highest(b) - highest(a) || lowest(b) - lowest(a) || byEase(a, b),
}
