import { entryOf, firstOf, itemAt, theOne } from '../lists'
import { constrained } from '../leading/constraints'
import { leadInStyle } from '../leading/inStyle'
import { DEFAULT_PLAYER } from '../player/playerSettings'
import { must } from '../result'
import { parseChord } from '../chord/parseChord'
import { DEFAULT_LIMITS } from '../voicing/gripLimits'
import { voicingsOf } from '../voicing/enumerate'
import type { Voicing } from '../voicing/voicing'
import { accompanied, figureOfBar, isAccompanied, swingOf } from './accompaniment'
import { newDocument, tuneDocument, type TuneDocument } from './document'
import { applyEdit, labelOf, tuneEdit, type TuneEdit } from './tuneEdit'
import { lateHand, lateQuestion } from './lateHand'
import { problemOf } from './searchQuestion'
import { newQuestion } from './questions'
import { madeChord, readTuneDocument } from './tuneReading'
import { PLAIN_RHYTHM, rhythmSchema, type Rhythm } from './rhythmSchema'

const doc = (text: string, set: Partial<Rhythm> = {}): TuneDocument => ({
  ...newDocument('Ferry', text),
  rhythm: { ...PLAIN_RHYTHM, ...set },
})
const gripOf = (symbol: string): Voicing => {
  const chord = parseChord(symbol)
  if (!chord.ok) throw new Error(symbol)
  return firstOf(voicingsOf(chord.value, DEFAULT_LIMITS))
}
const played = (
  document: TuneDocument,
  which: 'plain' | 'new' = 'new',
  order: 'played' | 'written' = 'played',
) => {
  const reading = readTuneDocument(document)
  const grips = new Map(
    reading.line.flatMap((one) => (madeChord(one) ? [[one.key, gripOf(madeChord(one)!.canonical)]] : [])),
  )
  return { reading, grips, ...accompanied({ reading, document, which, grips, order }) }
}

describe('a tune accompanied', () => {
  test('the guitar plays the new chords by the figure, each hit with what it sounds of the grip', () => {
    const { hits, grips } = played(doc('| C | Am |', { figure: 'bass, chord' }))
    expect(hits.map(({ bar, beat, part }) => `${bar}:${beat} ${part}`)).toEqual([
      '1:1 bass',
      '1:2 upper',
      '1:3 bass',
      '1:4 upper',
      '2:1 bass',
      '2:2 upper',
      '2:3 bass',
      '2:4 upper',
    ])
    const grip = entryOf(grips, '1:1')
    expect(firstOf(hits).midis).toEqual([grip.midis[0]])
    expect(itemAt(hits, 1).midis).toEqual(grip.midis.slice(1))
  })
  test('a section has its own figure, or rests and says so', () => {
    const text = '[A] | C | [B] | F | [C] | G |'
    const { hits, laid } = played(
      doc(text, { figure: 'whole notes', sections: { B: null, C: 'half notes' } }),
    )
    expect(hits.map(({ bar, beat }) => `${bar}:${beat}`)).toEqual(['1:1', '3:1', '3:3'])
    expect(laid.silent).toEqual([{ bar: 2, beat: 1, text: 'F', why: 'the guitar rests here' }])
    expect(
      figureOfBar({ figure: 'gone from the table', sections: {}, bars: {} })({ section: null, number: 1 })!
        .hits,
    ).toHaveLength(1)
  })
  test('bass and time follow the form as it is played; as written each bar stands once', () => {
    const band = doc('|: C | F :|', { bass: 'roots', time: 'two and four' })
    expect(played(band).bass.map(({ time }) => time)).toEqual([0, 4, 8, 12])
    expect(played(band).beats.map(({ time }) => time)).toEqual([1, 3, 5, 7, 9, 11, 13, 15])
    expect(played(band, 'new', 'written').bass).toHaveLength(2)
    expect(played(doc('| C |', { time: 'brushes' })).beats.map(({ brush }) => brush)).toEqual([
      'sweep',
      'tap',
      'sweep',
      'tap',
    ])
  })
  test('the feel is the figure’s, or what is set, and falls with the tempo', () => {
    const four = { beats: 4, unit: 4 }
    const swing = (set: Partial<Rhythm>, tempo: number) => swingOf({ ...PLAIN_RHYTHM, ...set }, tempo, four)
    expect(swing({}, 120)).toBe(1)
    expect(swing({ figure: 'four to the bar' }, 120)).toBeCloseTo(2)
    expect(swing({ figure: 'four to the bar' }, 240)).toBeLessThan(1.4)
    expect(swing({ figure: 'four to the bar', feel: 'straight' }, 120)).toBe(1)
    expect(swing({ feel: 'shuffle' }, 240)).toBe(2)
    expect(swing({ feel: 1.7 }, 90)).toBe(1.7)
  })
  test('the guitar listens to the melody when it is asked to', () => {
    const melody = [1, 2, 3, 4].map((beat) => ({ bar: 1, beat, beats: 1, note: 'E5' }))
    const sung = (listens: boolean) =>
      played({ ...doc('| C | F |', { figure: 'four to the bar', listens }), melody }).hits.filter(
        ({ bar }) => bar === 1,
      )
    expect(sung(false)).toHaveLength(4)
    expect(sung(true)).toHaveLength(1)
  })
})

describe('edits of the accompaniment', () => {
  const done = (document: TuneDocument, ...edits: TuneEdit[]) =>
    edits.reduce((now, edit) => {
      expect(tuneEdit.parse(edit)).toEqual(edit)
      expect(labelOf(edit)).not.toBe('')
      const next = applyEdit(now, edit)
      expect(tuneDocument.parse(next)).toEqual(next)
      return next
    }, document)
  const hit = { length: 1, part: 'all', accent: 'accent', stroke: 'down', push: false } as const
  test('settings that are not named stay; a section has its figure, rests, or gives it back', () => {
    const one = done(
      doc('| C |'),
      { kind: 'rhythm', set: { figure: 'waltz' }, did: 'waltz' },
      { kind: 'rhythm', set: { density: 0.5 }, did: 'density 50' },
    )
    expect(one.rhythm).toMatchObject({ figure: 'waltz', density: 0.5, restart: 'section' })
    expect(isAccompanied(one.rhythm)).toBe(true)
    expect(isAccompanied(PLAIN_RHYTHM)).toBe(false)
    const rests = done(one, { kind: 'rhythm-section', section: 'B', figure: 'silent' })
    expect(rests.rhythm.sections).toEqual({ B: null })
    expect(done(rests, { kind: 'rhythm-section', section: 'B', figure: null }).rhythm.sections).toEqual({})
  })
  test('bars have their own figure, or rest, over their section, and it goes with them', () => {
    const made = done(
      doc('[A] | C | F | G | C |', { figure: 'whole notes', sections: { A: 'half notes' } }),
      { kind: 'rhythm-bars', from: 2, to: 3, figure: 'two and four' },
      { kind: 'rhythm-bars', from: 3, to: 3, figure: 'silent' },
    )
    const places = (document: TuneDocument) => played(document).hits.map(({ bar, beat }) => `${bar}:${beat}`)
    expect(places(made)).toEqual(['1:1', '1:3', '2:2', '2:4', '4:1', '4:3'])
    const moved = applyEdit(made, {
      kind: 'bars',
      text: '[A] | Am | C | F | G | C |',
      did: 'bar put in before',
    })
    expect(moved.rhythm.bars).toEqual({ 3: 'two and four', 4: null })
    const back = done(made, { kind: 'rhythm-bars', from: 1, to: 4, figure: null })
    expect(back.rhythm.bars).toEqual({})
  })
  test('hits by hand stand over the figure, are left out, are given back, and go with their bars', () => {
    const made = done(doc('| C | F |', { figure: 'whole notes' }), {
      kind: 'rhythm-hits',
      hits: { '2:1': null, '2:2.5': hit },
      free: [],
      did: 'hit later',
    })
    const places = (document: TuneDocument) => played(document).hits.map(({ bar, beat }) => `${bar}:${beat}`)
    expect(places(made)).toEqual(['1:1', '2:2.5'])
    const moved = applyEdit(made, { kind: 'bars', text: '| G | C | F |', did: 'bar put in before' })
    expect(Object.keys(moved.rhythm.byHand).sort()).toEqual(['3:1', '3:2.5'])
    const back = done(made, { kind: 'rhythm-hits', hits: {}, free: ['2:1', '2:2.5'], did: 'back' })
    expect(places(back)).toEqual(['1:1', '2:1'])
  })
  test('a version keeps its own', () => {
    const kept = done(doc('| C |', { figure: 'waltz' }), {
      kind: 'version-keep',
      name: 'Slow',
      at: 1,
    } as TuneEdit)
    expect(firstOf(kept.versions).rhythm.figure).toBe('waltz')
  })
  test('what cannot be is refused', () => {
    for (const wrong of [
      { density: 2 },
      { feel: 9 },
      { figure: { cycle: 2, hits: [{ at: 3, ...hit }] } },
      { bass: 'slap' },
    ])
      expect(rhythmSchema.safeParse({ ...PLAIN_RHYTHM, ...wrong }).success).toBe(false)
  })
  test('a document from before there was rhythm has none', () => {
    const { rhythm: _, ...old } = newDocument('Old', '| C |')
    expect(tuneDocument.parse(old).rhythm).toEqual(PLAIN_RHYTHM)
  })
})

test('where the hand is late is asked in plain data, and answered by the places of the grips', () => {
  const document = doc('| C | F | C |', { figure: 'four to the bar' })
  const { reading, grips } = played(document)
  const question = lateQuestion(reading, document, grips, DEFAULT_PLAYER)!
  expect(JSON.parse(JSON.stringify(question)).grips).toEqual(question.grips)
  const { changes, comfortable } = lateHand(question)
  expect(changes.map(({ index, to }) => [index, to]).sort()).toEqual([
    [0, 1],
    [1, 2],
  ])
  expect(comfortable).toBe(firstOf(changes).comfortable)
  expect(lateQuestion(reading, document, new Map(), DEFAULT_PLAYER)).toBeNull()
})

test('a figure that parts the thumb asks the search for grips with two low notes, where a chord has them', () => {
  const led = (figure: string) => {
    const document = doc('| Dm7 | G7 | Cmaj7 | A7 |', { figure })
    const reading = readTuneDocument(document)
    const sounding = reading.line.filter((one) => madeChord(one))
    const question = newQuestion(sounding, { ...document, bass: 'any' }, reading.chart, DEFAULT_PLAYER)!
    const lines = leadInStyle(problemOf({ ...question, count: 1 }))
    if (!lines.ok) throw new Error(lines.fault.message)
    return { question, voicings: firstOf(lines.value).voicings }
  }
  const plain = led('four to the bar')
  expect(plain.question.constraints).toEqual([])
  const thumb = led('alternating thumb')
  expect(thumb.question.constraints).toEqual([{ kind: 'thumb', from: 0, to: 3 }])
  for (const { strings, midis } of thumb.voicings) {
    const low = strings.filter(({ string }) => string < 4)
    expect(theOne(low, ({ midi }) => midi === midis[0]).string).toBeLessThan(3)
    expect(low.some(({ midi }) => midi !== midis[0] && midi !== midis.at(-1))).toBe(true)
  }
  // Only the bars that have such a figure ask for it: a section's, or single ones.
  const inParts = doc('[A] | Dm7 | G7 | [B] | Cmaj7 | A7 |', {
    figure: 'four to the bar',
    sections: { B: 'alternating thumb' },
    bars: { 1: 'alternating thumb', 4: 'half notes' },
  })
  const parts = readTuneDocument(inParts)
  expect(
    newQuestion(parts.line, { ...inParts, bass: 'any' }, parts.chart, DEFAULT_PLAYER)!.constraints,
  ).toEqual([
    { kind: 'thumb', from: 0, to: 0 },
    { kind: 'thumb', from: 2, to: 2 },
  ])
  // A grip that the hand cannot have otherwise stays: three strings have no thumb.
  const high = constrained(must(parseChord('C')), { ...DEFAULT_LIMITS, strings: [3, 4, 5], bass: 'any' }, [
    { kind: 'thumb', from: 0, to: 0 },
  ])
  expect(high.length).toBeGreaterThan(0)
})
