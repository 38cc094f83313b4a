import { firstOf } from '../lists'
import { answer } from './answerRequest'

const asked = (request: unknown) => answer(request) as unknown as Record<string, never> & { ok: boolean }

const TEXT = 'key: C\ntempo: 140\n| Dm7 | G7 | Cmaj7 | A7 |'
const VOICINGS = [
  [null, 5, 7, 5, 6, null],
  [3, null, 3, 4, 3, null],
  [null, 3, 5, 4, 5, null],
  [null, 0, 2, 0, 2, 0],
]

describe('ladder', () => {
  test('has what the contract names', () =>
    expect(asked({ do: 'ladder', start: 60, goal: 80, passes: ['clean', 'failed'] })).toEqual({
      ok: true,
      tempo: 58,
      done: false,
      why: 'Failed at 63: back to 58.',
    }))
  test.each([
    [{ start: 5, goal: 80, passes: [] }, 'start'],
    [{ start: 60, goal: 80, passes: ['perfect'] }, 'passes.0'],
    [{ start: 60, passes: [] }, 'goal'],
  ])('%j is refused', (more, where) =>
    expect(asked({ do: 'ladder', ...more })).toMatchObject({
      ok: false,
      error: { code: 'bad-field', where },
    }),
  )
})

describe('plan', () => {
  const plan = {
    do: 'plan',
    text: TEXT,
    voicings: VOICINGS,
    minutes: 30,
    log: [],
    now: '2026-05-04T10:00:00Z',
  }
  interface Part {
    kind: string
    item: string
    minutes: number
    why: string
  }
  test('has what the contract names; moments as dates or as ms', () => {
    const { items } = asked(plan) as unknown as { items: Part[] }
    expect(firstOf(items).kind).toBe('warm-up')
    expect(items.reduce((sum, { minutes }) => sum + minutes, 0)).toBeLessThanOrEqual(30)
    expect(asked({ ...plan, now: Date.parse(plan.now) })).toEqual(asked(plan))
  })
  test('what lies after now is not known yet, and days are the zone’s', () => {
    const failed = {
      kind: 'passage',
      item: 'bars 1 to 4',
      grade: 'failed',
      tempo: 90,
      at: '2026-05-04T11:00:00Z',
    }
    expect(asked({ ...plan, log: [failed] })).toEqual(asked(plan))
    const due = (zone: string) =>
      firstOf(
        (
          asked({
            ...plan,
            minutes: 5,
            log: [{ ...failed, grade: 'clean', at: '2026-04-30T23:30:00Z' }],
            zone,
          }) as unknown as { items: Part[] }
        ).items,
      ).why
    expect(due('UTC')).not.toBe(due('Pacific/Auckland'))
  })
  test.each([
    [{ voicings: VOICINGS.slice(1) }, 'bad-field', 'voicings'],
    [{ minutes: 0 }, 'bad-field', 'minutes'],
    [{ now: 'yesterday' }, 'bad-field', 'now'],
    [{ zone: 'Atlantis' }, 'bad-field', 'zone'],
    [{ text: '| N.C. |', voicings: [VOICINGS[0]] }, 'no-chord', 'text'],
  ])('%j is refused', (more, code, where) =>
    expect(asked({ ...plan, ...more })).toMatchObject({ ok: false, error: { code, where } }),
  )
})

describe('question', () => {
  test('has what the contract names, with grips of its own where none are given', () => {
    const question = asked({ do: 'question', kind: 'top', symbols: ['Dm7', 'G7'], seed: 1 })
    expect(question).toMatchObject({
      ok: true,
      ask: expect.any(String),
      accepts: expect.any(Array),
      choices: expect.any(Array),
      explain: expect.any(String),
    })
    expect(
      asked({ do: 'question', kind: 'third', symbols: ['Dm7'], voicings: [VOICINGS[0]], seed: 1 }),
    ).toMatchObject({ accepts: ['2:6'] })
  })
  test('needs a seed, and chords that have something for it', () => {
    expect(asked({ do: 'question', kind: 'top', symbols: ['Dm7'] })).toMatchObject({
      ok: false,
      error: { where: 'seed' },
    })
    expect(asked({ do: 'question', kind: 'guide tones', symbols: ['Dm7'], seed: 1 })).toMatchObject({
      ok: false,
      error: { code: 'nothing-to-ask', where: 'symbols' },
    })
  })
})

test('keys: names and texts in the order asked for', () => {
  expect(asked({ do: 'keys', text: TEXT, order: 'fourths' })).toMatchObject({
    keys: ['C', 'F', 'Bb', 'Eb', 'Ab', 'Db', 'Gb', 'B', 'E', 'A', 'D', 'G'],
    texts: expect.arrayContaining([
      TEXT,
      TEXT.replace('key: C', 'key: F').replace('| Dm7 | G7 | Cmaj7 | A7 |', '| Gm7 | C7 | Fmaj7 | D7 |'),
    ]),
  })
  expect(asked({ do: 'keys', text: TEXT, order: 'sideways' })).toMatchObject({ ok: false })
})
