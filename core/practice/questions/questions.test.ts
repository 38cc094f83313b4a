import { firstOf, itemAt } from '../../lists'
import fc from 'fast-check'
import { Chord, Interval, Note } from 'tonal'
import { analyse } from '../../analysis/analyse'
import { parseChart } from '../../chart/parseChart'
import { chord } from '../../chord/parseChord'
import { bestLines } from '../../leading/lead'
import { weightsFrom } from '../../leading/weights'
import { soundAt, STANDARD_GUITAR, writtenFrets } from '../../neck/instrument'
import { readFrets } from '../../neck/readFrets'
import { parseKey } from '../../pitch/key'
import { pitchClass } from '../../pitch/note'
import { must } from '../../result'
import { voicingsOf } from '../../voicing/enumerate'
import { DEFAULT_LIMITS, TUNE_LIMITS } from '../../voicing/gripLimits'
import { inversionsOf } from '../../voicing/related'
import { voicingOf, type Voicing } from '../../voicing/voicing'
import { isRight, questionOf } from './ask'
import { inversionAbove } from './nextInversion'
import { QUESTION_KINDS, type QuestionMaterial, type QuestionKind } from './question'

const SYMBOLS = ['Dm7', 'G7', 'Cmaj7', 'A7', 'Fmaj7', 'Bm7b5', 'E7', 'Am7']
const line = firstOf(
  must(
    bestLines({
      chords: SYMBOLS.map(chord),
      limits: TUNE_LIMITS,
      weights: weightsFrom('smooth'),
      count: 1,
    }),
  ),
)
const material = (seed: number, voicings: readonly Voicing[] = line.voicings): QuestionMaterial => ({
  chords: SYMBOLS.map(chord),
  voicings,
  key: must(parseKey('C')),
  limits: DEFAULT_LIMITS,
  seed,
})
const asked = (kind: QuestionKind, seed: number, voicings?: readonly Voicing[]) =>
  must(questionOf(kind, material(seed, voicings)))
const seeds = fc.integer({ min: 0, max: 10_000 })
const shown = (text: string) => line.voicings.findIndex(({ frets }) => text.includes(writtenFrets(frets)))

describe('every question', () => {
  test.each(QUESTION_KINDS)(
    '%s: a right answer among its choices, the others wrong, always the same',
    (kind) => {
      fc.assert(
        fc.property(seeds, (seed) => {
          const question = asked(kind, seed)
          expect(question).toEqual(asked(kind, seed))
          expect(question.ask).not.toBe('')
          expect(question.explain).not.toBe('')
          for (const accepted of question.accepts) expect(isRight(question, accepted)).toBe(true)
          if (!question.choices) return
          expect(new Set(question.choices).size).toBe(question.choices.length)
          expect(question.choices.filter((choice) => isRight(question, choice))).toHaveLength(1)
        }),
        { numRuns: 40 },
      )
    },
  )
  test('what the material has nothing for is refused with what it needs', () => {
    const refused = questionOf('next grip', { ...material(1, []), voicings: [] })
    expect(refused).toMatchObject({ ok: false, fault: { code: 'nothing-to-ask' } })
    expect(questionOf('third', { ...material(1), chords: [chord('C5')], voicings: [] }).ok).toBe(false)
  })
  test('answers are read as players write them', () => {
    expect(isRight({ kind: 'spelling', accepts: ['C E G Bb'] }, 'bb, c g e')).toBe(true)
    expect(isRight({ kind: 'spelling', accepts: ['C E G Bb'] }, 'C E G A#')).toBe(false)
    expect(isRight({ kind: 'inversion', accepts: ['x 5 7 5 6 x'] }, 'x-5-7-5-6-x')).toBe(true)
    expect(isRight({ kind: 'top', accepts: ['b3', 'F'] }, '♭3')).toBe(true)
  })
})

test('what is on top: the highest sound, as an interval over the root by definition', () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const { ask, accepts } = asked('top', seed)
      const at = shown(ask)
      const { midis } = itemAt(line.voicings, at)
      const [degree, note] = accepts
      expect(Note.chroma(note!)).toBe(Math.max(...midis) % 12)
      const semitones = (Math.max(...midis) - Note.chroma(Chord.get(itemAt(SYMBOLS, at)).tonic!)! + 120) % 12
      expect(DEGREE_SEMITONES[degree!]).toBe(semitones)
    }),
  )
})
/** Intervals over the root by definition. */
// prettier-ignore
const DEGREE_SEMITONES: Readonly<Record<string, number>> = {
  '1': 0, b9: 1, '9': 2, '#9': 3, b3: 3, '3': 4, '4': 5, '11': 5, '#11': 6, b5: 6, '5': 7, '#5': 8, b13: 8, '6': 9, '13': 9, bb7: 9, b7: 10, '7': 11,
}

test('the third: every place on the neck, against all of them looked at; or its strings in the grip', () => {
  for (let seed = 0; seed < 30; seed += 1) {
    const whole = asked('third', seed, [])
    const name = itemAt(/third of (\S+), anywhere/.exec(whole.ask)!, 1)
    const third = Note.chroma(itemAt(Chord.get(name).notes, 1))
    const places: string[] = []
    for (let string = 0; string < 6; string += 1)
      for (let fret = 0; fret <= 12; fret += 1)
        if (soundAt(STANDARD_GUITAR, string, fret) % 12 === third) places.push(`${6 - string}:${fret}`)
    expect([...whole.accepts].sort()).toEqual(places.sort())
    const inGrip = asked('third', seed)
    const frets = line.voicings[shown(inGrip.ask)]?.frets
    if (!frets) continue
    for (const place of inGrip.accepts) {
      const [string, fret] = place.split(':').map(Number)
      expect(frets[6 - string!]).toBe(fret)
    }
  }
})

test('the next inversion: one tone of the chord further on each string, as the list of all inversions has it', () => {
  const chords = ['Cmaj7', 'Am7', 'D7', 'Bm7b5', 'F6']
  for (const symbol of chords) {
    const limits = { ...DEFAULT_LIMITS, bass: 'any' as const, families: ['drop 2' as const] }
    const grips = voicingsOf(chord(symbol), limits).filter(
      ({ midis, frets }) => new Set(midis.map((midi) => midi % 12)).size === 4 && !frets.includes(0),
    )
    for (const voicing of grips.slice(0, 12)) {
      const next = inversionAbove(voicing, chord(symbol), DEFAULT_LIMITS)
      if (!next) continue
      expect(next.strings.map(({ string }) => string)).toEqual(voicing.strings.map(({ string }) => string))
      const all = inversionsOf(voicing, chord(symbol), DEFAULT_LIMITS)
      const here = all.findIndex(({ midis }) => midis.join() === voicing.midis.join())
      // Every tone of the chord is in each of them, and the bass goes to the next.
      expect(new Set(next.midis.map((midi) => midi % 12))).toEqual(
        new Set(voicing.midis.map((midi) => midi % 12)),
      )
      if (here >= 0 && all[here + 1] && next.families.includes('drop 2'))
        expect(next.midis).toEqual(itemAt(all, here + 1).midis)
    }
  }
})

test('guide tones: all ways by the shortest path, against every pairing of thirds and sevenths', () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const { ask, accepts } = asked('guide tones', seed)
      const [, from, into] = /^(\S+) goes to (\S+)\./.exec(ask)!
      const guides = (symbol: string) => [1, 3].map((at) => itemAt(Chord.get(symbol).notes, at))
      const apart = (a: string, b: string) => {
        const up = Math.abs(Interval.semitones(Interval.distance(a, b)) ?? 0) % 12
        return Math.min(up, 12 - up)
      }
      const ways = guides(from!).map((tone) => {
        const all = guides(into!)
        const least = Math.min(...all.map((one) => apart(tone, one)))
        return all.filter((one) => apart(tone, one) === least).map((one) => `${tone} to ${one}`)
      })
      const every = firstOf(ways).flatMap((third) => itemAt(ways, 1).map((seventh) => `${third}, ${seventh}`))
      expect([...accepts].sort()).toEqual(every.sort())
    }),
  )
})

test('spelling, against a general theory library', () => {
  for (let seed = 0; seed < 40; seed += 1) {
    const { ask, accepts } = asked('spelling', seed)
    const symbol = itemAt(/^Spell (\S+):/.exec(ask)!, 1)
    expect(accepts).toEqual([Chord.get(symbol).notes.join(' ')])
  }
})

test('the next grip: every set of frets with the same notes that a hand holds, against all grips of the neck', () => {
  for (let seed = 0; seed < 7; seed += 1) {
    const { accepts, ask } = asked('next grip', seed)
    const at = shown(ask)
    const next = itemAt(line.voicings, at + 1)
    const limits = {
      ...DEFAULT_LIMITS,
      bass: 'any' as const,
      notes: [next.midis.length, next.midis.length] as const,
    }
    const same = voicingsOf(chord(itemAt(SYMBOLS, at + 1)), { ...limits, notes: [...limits.notes] })
      .filter(({ midis }) => midis.join() === next.midis.join())
      .map(({ frets }) => writtenFrets(frets))
    expect(accepts[0]).toBe(writtenFrets(next.frets))
    expect([...accepts].sort()).toEqual([...new Set([writtenFrets(next.frets), ...same])].sort())
    for (const accepted of accepts) {
      const frets = must(readFrets(accepted, 6))
      expect(voicingOf(frets, chord(itemAt(SYMBOLS, at + 1)), DEFAULT_LIMITS)!.midis).toEqual(next.midis)
    }
  }
})

test('what a chord does: its numeral in both schools and its job', () => {
  const text = `key: C\n| ${SYMBOLS.join(' | ')} |`
  const readings = analyse(parseChart(text)).readings
  for (let seed = 0; seed < 20; seed += 1) {
    const { ask, accepts } = asked('function', seed)
    const at = SYMBOLS.indexOf(itemAt(/^What does (\S+) do/.exec(ask)!, 1))
    expect(accepts).toEqual(
      expect.arrayContaining([itemAt(readings, at).function, itemAt(readings, at).roman]),
    )
  }
})

test('what a grip is over a root: every name has all that sounds', () => {
  fc.assert(
    fc.property(seeds, (seed) => {
      const { ask, accepts } = asked('name', seed)
      const at = shown(ask)
      const sounds = new Set(itemAt(line.voicings, at).midis.map((midi) => midi % 12))
      for (const name of accepts) {
        const { tones, bass } = chord(name)
        const known = new Set([
          ...tones.map(({ note }) => pitchClass(note)),
          ...(bass ? [pitchClass(bass)] : []),
        ])
        for (const sound of sounds) expect(known).toContain(sound)
      }
    }),
    { numRuns: 60 },
  )
})

test('by ear: what is said to have sounded did, and where one voice moves the others stay', () => {
  const moved = [
    voicingOf([null, 3, 2, 0, 1, null], chord('C'), DEFAULT_LIMITS)!,
    voicingOf([null, 3, 2, 0, 0, null], chord('Cmaj7'), DEFAULT_LIMITS)!,
  ]
  const two: QuestionMaterial = { ...material(2, moved), chords: [chord('C'), chord('Cmaj7')] }
  expect(must(questionOf('ear', two))).toMatchObject({ accepts: ['the top'] })
  for (let seed = 1; seed < 40; seed += 2) {
    const { sounds, accepts, choices } = asked('ear', seed)
    expect(sounds).toHaveLength(3)
    expect(sounds[2]).toEqual(sounds[choices!.indexOf(firstOf(accepts))])
  }
})
