import { entryOf, firstOf, itemAt, lastOf, theOne } from '../lists'
import fc from 'fast-check'
import { Note, Chord } from 'tonal'
import { default_w } from 'ts-fsrs'
import { analyse } from '../analysis/analyse'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { chord } from '../chord/parseChord'
import { bestLines } from '../leading/lead'
import { weightsFrom } from '../leading/weights'
import { DEFAULT_HAND } from '../neck/hand'
import { must } from '../result'
import { handTempo } from '../rhythm/handTempo'
import { DEFAULT_LIMITS, TUNE_LIMITS } from '../voicing/gripLimits'
import { voicingOf } from '../voicing/voicing'
import { dateOf, dayOfDate, daysIn, dayInWords, isZone } from './days'
import { GRADES, itemKey, type Grade, type Pass } from './grade'
import { itemsOf, type Item } from './items'
import { keySteps, KEY_ORDERS, throughKeys } from './keysPractised'
import { nextRung, RUNGS } from './ladder'
import { movedShapes } from './moved'
import { planOf, SHARES } from './plan'
import { DAY_MS, recallOf, utcDay } from './recall'
import { recordsOf } from './record'
import { loadOf, REST_AFTER, restAfter } from './rests'
import { ended, gradeOf, gradesOf, pressed, READY, type Round } from './round'
import { topNoteOf, walkOf } from './walk'

const grades = fc.array(fc.constantFrom(...GRADES), { maxLength: 40 })
const tempos = fc.integer({ min: 20, max: 400 })

describe('the ladder', () => {
  test('never above the goal; a clean pass never lowers it, a failed one never raises it, the same passes give the same tempo', () => {
    fc.assert(
      fc.property(tempos, tempos, grades, (start, goal, passes) => {
        let before = nextRung({ start, goal, passes: [] })
        expect(before.tempo).toBeLessThanOrEqual(goal)
        passes.forEach((grade, at) => {
          const now = nextRung({ start, goal, passes: passes.slice(0, at + 1) })
          expect(now.tempo).toBeLessThanOrEqual(goal)
          expect(now.tempo).toBeGreaterThanOrEqual(Math.min(start, goal, 20))
          if (grade === 'clean') expect(now.tempo).toBeGreaterThanOrEqual(before.tempo)
          if (grade === 'failed') expect(now.tempo).toBeLessThanOrEqual(before.tempo)
          expect(now.done).toBe(grade === 'clean' && before.tempo >= goal)
          expect(now).toEqual(nextRung({ start, goal, passes: passes.slice(0, at + 1) }))
          before = now
        })
      }),
    )
  })
  test('clean passes reach the goal in steps of a few per cent; a failed one goes back by more than was climbed', () => {
    const clean = (count: number) =>
      nextRung({ start: 60, goal: 120, passes: Array<Grade>(count).fill('clean') })
    expect(clean(0).tempo).toBe(60)
    let at = 0
    while (!clean(at).done) at += 1
    expect(at).toBeLessThan(20)
    for (let step = 1; step <= at; step += 1)
      expect(clean(step).tempo / clean(step - 1).tempo).toBeLessThanOrEqual(1 + RUNGS.up + 0.01)
    expect(nextRung({ start: 60, goal: 120, passes: ['clean', 'failed'] }).tempo).toBeLessThan(60)
    // Slowly again after a fall; nearly three times in a row is a little too fast.
    expect(nextRung({ start: 100, goal: 120, passes: ['failed', 'clean'] }).tempo).toBe(94)
    expect(nextRung({ start: 100, goal: 120, passes: ['nearly', 'nearly'] }).tempo).toBe(100)
    expect(nextRung({ start: 100, goal: 120, passes: ['nearly', 'nearly', 'nearly'] }).tempo).toBe(96)
    expect(nextRung({ start: 150, goal: 120, passes: [] }).tempo).toBe(120)
  })
})

/**
 * FSRS 6, formulas and parameters as its authors publish them (open-spaced-repetition wiki, "The
 * Algorithm"), from memory.
 */
const FSRS = {
  // prettier-ignore
  w: [0.212, 1.2931, 2.3065, 8.2956, 6.4133, 0.8334, 3.0194, 0.001, 1.8722, 0.1666, 0.796, 1.4835, 0.0614, 0.2629, 1.6483, 0.6014, 1.8729, 0.5425, 0.0912, 0.0658, 0.1542],
  firstDifficulty: (rating: number) => itemAt(FSRS.w, 4) - Math.exp(itemAt(FSRS.w, 5) * (rating - 1)) + 1,
  recalled: (days: number, stability: number) => {
    const decay = -itemAt(FSRS.w, 20)
    return (1 + (0.9 ** (1 / decay) - 1) * (days / stability)) ** decay
  },
  nextStability: (difficulty: number, stability: number, recalled: number) =>
    stability *
    (1 +
      Math.exp(itemAt(FSRS.w, 8)) *
        (11 - difficulty) *
        stability ** -itemAt(FSRS.w, 9) *
        (Math.exp(itemAt(FSRS.w, 10) * (1 - recalled)) - 1)),
}

describe('recall', () => {
  const on = (day: number, grade: Grade, hour = 18) => ({ at: day * DAY_MS + hour * 3_600_000, grade })
  test('the library has the published parameters', () => expect([...default_w]).toEqual(FSRS.w))
  test('a first clean pass, and a second when it is due, by the published formulas', () => {
    const [again, inHard, inGood] = FSRS.w.slice(0, 3).map((stability) => Math.max(1, Math.round(stability)))
    // The library keeps the grades a day apart: a better one is always due later.
    const hard = Math.max(inHard!, again! + 1)
    const good = Math.max(inGood!, hard + 1)
    expect(recallOf([on(100, 'clean')], utcDay)).toMatchObject({ interval: good, due: 100 + good })
    expect(recallOf([on(100, 'nearly')], utcDay)!.interval).toBe(hard)
    expect(recallOf([on(100, 'failed')], utcDay)!.interval).toBe(again)
    const second = recallOf([on(100, 'clean'), on(100 + good, 'clean')], utcDay)!
    const stability = FSRS.nextStability(
      FSRS.firstDifficulty(3),
      itemAt(FSRS.w, 2),
      FSRS.recalled(good, itemAt(FSRS.w, 2)),
    )
    expect(second.interval).toBe(Math.round(stability))
    expect(second.tries).toBe(2)
  })
  test('the first pass of a day tells what was remembered; the others are practice; order does not matter', () => {
    const day = [on(100, 'failed', 9), on(100, 'clean', 10), on(100, 'clean', 11)]
    expect(recallOf(day, utcDay)).toEqual(recallOf([on(100, 'failed', 9)], utcDay))
    expect(recallOf([...day].reverse(), utcDay)).toEqual(recallOf(day, utcDay))
    expect(recallOf([], utcDay)).toBeNull()
  })
  test('due is a whole day, never before the last try, and clean is never due sooner than failed', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 0, max: 400 }), fc.constantFrom(...GRADES)), {
          minLength: 1,
          maxLength: 30,
        }),
        (tries) => {
          const passes = tries.map(([day, grade]) => on(day, grade))
          const last = Math.max(...tries.map(([day]) => day))
          const { due } = recallOf(passes, utcDay)!
          expect(Number.isInteger(due)).toBe(true)
          expect(due).toBeGreaterThan(last)
          const after = (grade: Grade) => recallOf([...passes, on(last + 1, grade)], utcDay)!.due
          expect(after('clean')).toBeGreaterThanOrEqual(after('failed'))
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('days', () => {
  test('a day begins at the player’s own midnight, through summer time', () => {
    const vienna = daysIn('Europe/Vienna')
    const before = Date.parse('2026-05-04T21:59:59Z')
    expect(dateOf(vienna(before))).toBe('2026-05-04')
    expect(dateOf(vienna(before + 1000))).toBe('2026-05-05')
    // The night in which the clock is put forward, and the one in which it goes back (last Sundays
    // of March and October).
    expect(dateOf(vienna(Date.parse('2026-03-28T22:59:59Z')))).toBe('2026-03-28')
    expect(dateOf(vienna(Date.parse('2026-03-28T23:00:00Z')))).toBe('2026-03-29')
    expect(dateOf(vienna(Date.parse('2026-10-25T22:59:59Z')))).toBe('2026-10-25')
    expect(dateOf(vienna(Date.parse('2026-10-25T23:00:00Z')))).toBe('2026-10-26')
    expect(dateOf(daysIn('Pacific/Auckland')(before))).toBe('2026-05-05')
    expect(dayOfDate('1970-01-02')).toBe(1)
    expect([isZone('Europe/Vienna'), isZone('Nowhere/Else')]).toEqual([true, false])
    expect([0, 1, -1, 5, -9].map((ahead) => dayInWords(100 + ahead, 100))).toEqual([
      'today',
      'tomorrow',
      'yesterday',
      'in 5 days',
      '9 days ago',
    ])
  })
})

const TEXT = 'key: C\ntempo: 140\n[A] | Dm7 | G7 | Cmaj7 | A7 | [B] | Dm7 G7 | Em7 A7 | Dm7 G7 | Cmaj7 |'
const material = (text: string, goal: number) => {
  const chart = parseChart(text)
  const slots = slotsOf(chart).filter(({ symbol }) => symbol?.kind === 'chord')
  const line = firstOf(
    must(
      bestLines({
        chords: slots.map(({ text: symbol }) => chord(symbol)),
        limits: TUNE_LIMITS,
        weights: weightsFrom('smooth'),
        count: 1,
      }),
    ),
  )
  const grips = new Map(slots.map((slot, at) => [slot, itemAt(line.voicings, at)]))
  const hand = handTempo({ chart, grips, figure: null, limits: TUNE_LIMITS })
  return { chart, analysis: analyse(chart), grips, hand, goal }
}
const items = itemsOf(material(TEXT, 140))
const NOW = Date.parse('2026-05-04T18:00:00Z')

describe('items', () => {
  const of = (kind: Item['kind']) => items.filter((item) => item.kind === kind)
  test('passages of four from each section, changes and grips once each, cadence in five areas, eleven other keys, the whole', () => {
    expect(of('passage').map(({ item, from, to }) => [item, from, to])).toEqual([
      ['bars 1 to 4', 1, 4],
      ['bars 5 to 8', 5, 8],
    ])
    expect(of('cadence')).toHaveLength(5)
    expect(of('keys')).toHaveLength(11)
    expect(of('tune')).toHaveLength(1)
    const keys = items.map(itemKey)
    expect(new Set(keys).size).toBe(keys.length)
    for (const { hard, from, to, why } of items) {
      expect(hard).toBeGreaterThanOrEqual(0)
      expect(hard).toBeLessThanOrEqual(1)
      expect(from).toBeLessThanOrEqual(to)
      expect(why).not.toBe('')
    }
  })
  test('a faster goal is never easier', () => {
    const faster = new Map(itemsOf(material(TEXT, 240)).map((item) => [itemKey(item), item.hard]))
    for (const item of items) expect(entryOf(faster, itemKey(item))).toBeGreaterThanOrEqual(item.hard - 1e-9)
  })
})

describe('the plan', () => {
  const log = fc.array(
    fc.record({
      of: fc.integer({ min: 0, max: items.length - 1 }),
      ago: fc.integer({ min: 0, max: 60 }),
      grade: fc.constantFrom(...GRADES),
      tempo: tempos,
    }),
    { maxLength: 40 },
  )
  const passesOf = (tries: { of: number; ago: number; grade: Grade; tempo: number }[]): Pass[] =>
    tries.map(({ of, ago, grade, tempo }) => ({
      kind: itemAt(items, of).kind,
      item: itemAt(items, of).item,
      at: NOW - ago * DAY_MS,
      grade,
      tempo,
    }))
  const planned = (passes: Pass[], minutes: number, wanted: ReadonlySet<string> = new Set()) =>
    planOf({ items, records: recordsOf(passes, utcDay), goal: 140, minutes, wanted, today: utcDay(NOW) })

  test('sums to at most the minutes, warm-up first, something whole last, easy before hard, rests between, always the same', () => {
    fc.assert(
      fc.property(log, fc.integer({ min: 1, max: 120 }), (tries, minutes) => {
        const plan = planned(passesOf(tries), minutes)
        expect(plan).toEqual(planned(passesOf(tries), minutes))
        expect(plan.reduce((sum, part) => sum + part.minutes, 0)).toBeLessThanOrEqual(minutes)
        for (const part of plan) {
          expect(part.minutes).toBeGreaterThan(0)
          expect(part.why).not.toBe('')
          if (part.tempo !== undefined) expect(part.tempo).toBeLessThanOrEqual(140)
        }
        if (minutes < SHARES.oneThing) return
        expect(firstOf(plan).kind).toBe('warm-up')
        expect(lastOf(plan).kind).toBe('tune')
        const worked = plan.filter(({ kind }) => !['warm-up', 'rest', 'tune', 'question'].includes(kind))
        expect(worked.length).toBeGreaterThan(0)
        const hard = worked.map(
          (part) => theOne(items, (item) => itemKey(item) === `${part.kind} ${part.item}`).hard,
        )
        expect(hard).toEqual([...hard].sort((a, b) => a - b))
        // Never two rests in a row, none at an end, and one in every session over a quarter of an
        // hour.
        plan.forEach(({ kind }, at) => {
          if (kind === 'rest') expect([plan[at - 1]?.kind, plan[at + 1]?.kind]).not.toContain('rest')
        })
        expect(lastOf(plan).kind).not.toBe('rest')
        if (minutes >= 20) expect(plan.some(({ kind }) => kind === 'rest')).toBe(true)
      }),
      { numRuns: 60 },
    )
  })
  test('what failed comes back, what is due comes back, what is wanted comes first, and each says why', () => {
    const grip = theOne(items, ({ kind }) => kind === 'grip')
    const pass = (item: Item, ago: number, grade: Grade): Pass => ({
      kind: item.kind,
      item: item.item,
      at: NOW - ago * DAY_MS,
      grade,
    })
    const find = (plan: ReturnType<typeof planned>, item: Item) =>
      plan.find((part) => part.kind === item.kind && part.item === item.item)
    expect(find(planned([pass(grip, 1, 'failed'), pass(grip, 2, 'failed')], 30), grip)!.why).toMatch(/^weak/)
    const [passage] = items
    // Everything else was clean yesterday: what is due is left.
    const others = items.filter((item) => item !== passage).map((item) => pass(item, 0, 'clean'))
    const due = planned([...others, pass(passage!, 40, 'clean')], 10)
    expect(find(due, passage!)!.why).toMatch(/^due .* ago: it was clean/)
    const key = theOne(items, ({ item }) => item === 'in Eb')
    expect(find(planned([], 20), key)).toBeUndefined()
    expect(find(planned([], 20, new Set([itemKey(key)])), key)!.why).toMatch(/^you want it/)
  })
  test('what the trainer missed, or what is due of it, is asked again behind the warm-up', () => {
    const missed: Pass = {
      kind: 'question',
      item: 'top: Dm7 (x 5 7 5 6 x)',
      at: NOW - DAY_MS,
      grade: 'failed',
    }
    expect(planned([missed], 20)[1]).toMatchObject({
      kind: 'question',
      item: 'one question of the trainer',
      minutes: SHARES.questions,
      why: '1 missed last time',
    })
    expect(planned([missed], 20).reduce((sum, part) => sum + part.minutes, 0)).toBeLessThanOrEqual(20)
    expect(
      planned([{ ...missed, at: NOW, grade: 'clean' }], 20).some(({ kind }) => kind === 'question'),
    ).toBe(false)
    expect(planned([missed], 10).some(({ kind }) => kind === 'question')).toBe(false)
  })
  test('the tempo of a part is a rung on from the last pass', () => {
    const [passage] = items
    const after = (grade: Grade) =>
      firstOf(planned([{ kind: 'passage', item: passage!.item, at: NOW - 2 * DAY_MS, tempo: 80, grade }], 5))
        .tempo
    expect(after('failed')).toBe(nextRung({ start: 80, goal: 140, passes: ['failed'] }).tempo)
    expect(after('nearly')).toBe(80)
  })
})

describe('through the keys', () => {
  test.each(KEY_ORDERS)('%s: all twelve, each once, home first', (order) => {
    const steps = keySteps(order, 5)
    expect([...steps].sort((a, b) => a - b)).toEqual(Array.from({ length: 12 }, (_, at) => at))
    expect(steps[0]).toBe(0)
  })
  test('by fourths, half steps, whole steps and major thirds; shuffled by the seed', () => {
    expect(keySteps('fourths').slice(0, 5)).toEqual([0, 5, 10, 3, 8])
    expect(keySteps('half steps').slice(0, 4)).toEqual([0, 1, 2, 3])
    expect(keySteps('whole steps').slice(0, 8)).toEqual([0, 2, 4, 6, 8, 10, 1, 3])
    expect(keySteps('thirds').slice(0, 5)).toEqual([0, 4, 8, 1, 5])
    expect(keySteps('random', 3)).toEqual(keySteps('random', 3))
    expect(keySteps('random', 3)).not.toEqual(keySteps('random', 4))
  })
  test('every root moves by the same way as the key, checked by a general theory library', () => {
    const texts = throughKeys('key: F\n| Gm7 | C7/E | Fmaj7 | D7b9 |', 'fourths')
    const roots = (text: string) =>
      slotsOf(parseChart(text)).map(({ text: symbol }) => Note.chroma(/^[A-G][b#]?/.exec(symbol)![0])!)
    const home = roots(firstOf(texts).text)
    for (const { semitones, text, key } of texts) {
      expect(roots(text)).toEqual(home.map((root) => (root + semitones) % 12))
      expect(analyse(parseChart(text)).key).toEqual(key)
      for (const { text: symbol } of slotsOf(parseChart(text)))
        expect(Chord.get(firstOf(symbol.split('/'))).empty).toBe(false)
    }
    // A chart that does not name its key does so in the others.
    expect(itemAt(throughKeys('| Dm7 | G7 | C |', 'fourths'), 1).text).toContain('key: F')
  })
  test('the same shapes go the nearer way that stays on the neck; open strings do not go', () => {
    const shapes = [
      [null, 5, 7, 5, 6, null],
      [3, null, 3, 4, 3, null],
    ]
    expect(movedShapes(shapes, 2, DEFAULT_LIMITS).by).toBe(2)
    expect(movedShapes(shapes, 10, DEFAULT_LIMITS).by).toBe(-2)
    expect(movedShapes(shapes, 10, DEFAULT_LIMITS).frets[1]).toEqual([1, null, 1, 2, 1, null])
    expect(movedShapes(shapes, 9, { frets: [0, 12] }).by).toBeNull()
    expect(movedShapes([[null, 3, 2, 0, 1, 0]], 5, DEFAULT_LIMITS)).toMatchObject({
      by: null,
      why: expect.stringContaining('open string'),
    })
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 11 }), (semitones) => {
        const { by, frets } = movedShapes(shapes, semitones, { frets: [0, 17] })
        if (by === null) return
        expect(((by % 12) + 12) % 12).toBe(semitones)
        frets.forEach((grip, at) =>
          grip.forEach((fret, string) =>
            expect(fret).toBe(
              itemAt(shapes, at)[string] === null ? null : itemAt(itemAt(shapes, at), string)! + by,
            ),
          ),
        )
      }),
    )
  })
})

describe('a round on one key', () => {
  const after = (...acts: ('press' | 'end' | 'cut')[]): Round =>
    acts.reduce<Round>(
      (round, act) => (act === 'end' ? ended(round, false) : pressed(round, act === 'cut')),
      READY,
    )
  test('a press begins, the end asks, presses say how it was', () => {
    expect(after('press').at).toBe('playing')
    expect(after('press', 'end')).toEqual({ at: 'asked', presses: 0, cut: false })
    expect(after('press', 'press')).toEqual({ at: 'asked', presses: 0, cut: false })
    expect(gradeOf(after('press', 'end'))).toBeNull()
    expect(
      [1, 2, 3, 5].map((times) => gradeOf(after('press', 'end', ...Array<'press'>(times).fill('press')))),
    ).toEqual(['clean', 'nearly', 'failed', 'failed'])
    expect(ended(READY, false)).toEqual(READY)
  })
  test('what was cut short is never clean, however it is said', () => {
    const cut = after('press', 'cut')
    expect(gradesOf(cut)).toEqual(['nearly', 'failed'])
    expect(gradesOf(after('press', 'end'))).toEqual(['clean', 'nearly', 'failed'])
    expect(
      [1, 2, 3].map((times) => gradeOf(after('press', 'cut', ...Array<'press'>(times).fill('press')))),
    ).toEqual(['nearly', 'failed', 'failed'])
    expect(ended({ at: 'playing' }, true)).toEqual({ at: 'asked', presses: 0, cut: true })
  })
})

describe('the walk', () => {
  const chart = parseChart(TEXT)
  const line = slotsOf(chart)
  test('every chord is walked once, in order, by phrases or four bars at a time', () => {
    const inOrder = (walked: ReturnType<typeof walkOf>) => {
      expect(firstOf(walked).from).toBe(0)
      expect(lastOf(walked).to).toBe(line.length - 1)
      walked.slice(1).forEach(({ from }, at) => expect(from).toBe(itemAt(walked, at).to + 1))
    }
    const plain = walkOf(line, chart.bars, [])
    inOrder(plain)
    expect(plain).toEqual([
      { from: 0, to: 3 },
      { from: 4, to: 10 },
    ])
    const phrases = [
      { from: { bar: 1, beat: 2 }, to: { bar: 2, beat: 4 }, notes: 4 },
      { from: { bar: 3, beat: 3 }, to: { bar: 5, beat: 1 }, notes: 4 },
    ]
    inOrder(walkOf(line, chart.bars, phrases))
    expect(walkOf(line, chart.bars, phrases)).toEqual([
      { from: 0, to: 1 },
      { from: 2, to: 10 },
    ])
    expect(walkOf([], [], [])).toEqual([])
  })
  test('the note on top, with the steps of the key above and below it on its string', () => {
    const voicing = voicingOf([null, 5, 7, 5, 6, null], chord('Dm7'), TUNE_LIMITS)!
    expect(topNoteOf(voicing, analyse(chart).key, TUNE_LIMITS.instrument, 17)).toEqual({
      name: 'F',
      degree: 'b3',
      string: 2,
      fret: 6,
      above: { name: 'G', fret: 8 },
      below: { name: 'E', fret: 5 },
    })
    const open = voicingOf([null, 3, 2, 0, 1, 0], chord('C'), TUNE_LIMITS)!
    expect(topNoteOf(open, analyse(chart).key, TUNE_LIMITS.instrument, 17).below).toBeNull()
  })
})

test('rests come sooner where most grips are barred or wide', () => {
  const light = voicingOf([null, 3, 2, 0, 1, 0], chord('C'), TUNE_LIMITS)!
  const barre = voicingOf([1, 3, 3, 2, 1, 1], chord('F'), TUNE_LIMITS)!
  expect(loadOf([], DEFAULT_HAND.reachMm)).toBe(0)
  expect(restAfter(loadOf([light, light], DEFAULT_HAND.reachMm))).toBe(REST_AFTER.usual)
  expect(restAfter(loadOf([light, barre], DEFAULT_HAND.reachMm))).toBe(REST_AFTER.heavy)
})
