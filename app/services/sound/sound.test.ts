import { itemAt } from '../../../core/lists'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import { frequencyOf, pluckedString } from './pluckedString'
import { placeIn, ringingAt, scheduleOf } from './schedule'
import { playedBehind, sequenceOf } from './sequence'

const RATE = 44100

/**
 * Frequency of a tone near `expected`, by the phase it gains between two windows: far finer than a
 * spectrum's bins.
 */
function measuredHz(samples: Float32Array, expected: number): number {
  const size = 16384
  const gap = 4096
  const phase = (from: number) => {
    let real = 0
    let imaginary = 0
    for (let i = 0; i < size; i += 1) {
      const hann = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / size)
      const angle = (2 * Math.PI * expected * (from + i)) / RATE
      real += samples[from + i]! * hann * Math.cos(angle)
      imaginary -= samples[from + i]! * hann * Math.sin(angle)
    }
    return Math.atan2(imaginary, real)
  }
  let drift = phase(6000 + gap) - phase(6000)
  drift -= 2 * Math.PI * Math.round(drift / (2 * Math.PI))
  return expected + (drift * RATE) / (2 * Math.PI * gap)
}

describe('the plucked string', () => {
  test('is in tune within 5 cents over the whole neck (equal temperament, A4 = 440 Hz, ISO 16)', () => {
    for (let midi = 40; midi <= 88; midi += 1) {
      const expected = frequencyOf(midi)
      const cents = 1200 * Math.log2(measuredHz(pluckedString(midi, RATE, 1), expected) / expected)
      expect(Math.abs(cents)).toBeLessThan(5)
    }
  })
  test('begins loud, dies away, never clips and is the same each time', () => {
    const samples = pluckedString(45, RATE, 3)
    const level = (from: number) =>
      Math.sqrt(samples.slice(from, from + 4410).reduce((sum, one) => sum + one * one, 0) / 4410)
    expect(level(0)).toBeGreaterThan(level(44100))
    expect(level(44100)).toBeGreaterThan(level(120000))
    expect(samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0)).toBeLessThanOrEqual(0.9 + 1e-6)
    expect(pluckedString(45, RATE, 3)).toEqual(samples)
  })
})

describe('the order in which chords are heard', () => {
  const reading = readTuneDocument({
    text: 'meter: 3/4\npickup: 1\n| G7 |: C | F |1. G7 :|2. C |\nmeter: 6/8\n| Am |',
    colour: 0,
    choices: {},
    fixed: {},
  })
  const heard = (anchor: number, focus: number) => {
    const { home, line, range } = sequenceOf(reading, { anchor, focus })
    expect(line.map((one) => one.home)).toEqual(home.map((one) => one.index))
    return `${range}: ${home.map((chord) => chord.slot.text).join(' ')}`
  }
  test('a single chord is where playing begins, and the form is followed from there', () => {
    expect(heard(0, 0)).toBe('all: G7 C F G7 C F C Am')
    expect(heard(3, 3)).toBe('from: G7 C F C Am')
    expect(heard(4, 4)).toBe('from: C Am')
  })
  test('a stretch is played as it stands', () => expect(heard(3, 1)).toBe('stretch: C F G7'))
  test('a bar of another beat lasts as long as its beats: six eighths are three quarters', () =>
    expect(reading.chords.map((chord) => chord.lasts)).toEqual([1, 3, 3, 3, 3, 3]))
})

describe('the new line in playing', () => {
  const choices = {
    '2:1': {
      chords: [
        { symbol: 'Am7', beats: 2 },
        { symbol: 'Abm7', beats: 1 },
        { symbol: 'Db7', beats: 1 },
      ],
      span: 1,
      rule: 'related-ii',
      at: 0,
    },
    '3:1': {
      chords: [
        { symbol: 'Dm7', beats: 6 },
        { symbol: 'G7', beats: 2 },
      ],
      span: 2,
      rule: 'cycle-of-major-thirds',
      at: 0,
    },
  }
  const reading = readTuneDocument({
    text: 'key: C\n|: C | Am :| Dm | G | C |',
    colour: 0,
    choices,
    fixed: {},
  })
  const made = (anchor: number, focus: number) =>
    sequenceOf(reading, { anchor, focus })
      .line.map((one) => `${one.slot.text}${one.lasts}`)
      .join(' ')
  test('follows the form, chords put in and chords that go on over a bar line among them', () => {
    expect(made(0, 0)).toBe('C4 Am72 Abm71 Db71 C4 Am72 Abm71 Db71 Dm74 Dm72 G72 C4')
    expect(made(1, 1)).toBe('Am72 Abm71 Db71 C4 Am72 Abm71 Db71 Dm74 Dm72 G72 C4')
    expect(made(3, 3)).toBe('Dm72 G72 C4')
  })
  test('a stretch takes what stands for its chords', () => expect(made(1, 2)).toBe('Am72 Abm71 Db71 Dm74'))
  test('both lines last equally long, wherever they begin', () => {
    for (let at = 0; at < 5; at += 1) {
      const { home, line } = sequenceOf(reading, { anchor: at, focus: at })
      expect(line.reduce((sum, one) => sum + one.lasts, 0)).toBe(
        home.reduce((sum, one) => sum + one.lasts, 0),
      )
    }
  })
})

describe('the chord that is played behind another', () => {
  const behind = (text: string, index: number) => {
    const { chart, line } = readTuneDocument({ text, colour: 0, choices: {}, fixed: {} })
    return playedBehind(chart, line, itemAt(line, index))?.slot.text
  }
  test.each([
    ['| C F | G |', 0, 'F'],
    ['| C F | G |', 1, 'G'],
    ['| C F | G |', 2, undefined],
    ['|: C | Am |1. F | G7 :|2. D7 | G |', 3, 'C'],
    ['|: C | Am |1. F | G7 :|2. D7 | G |', 1, 'F'],
    ['| C | F Fine | Am | G7 D.C. al Fine |', 3, 'C'],
  ] as const)('%s, chord %d: %s', (text, index, next) => expect(behind(text, index)).toBe(next))
})

describe('what is heard', () => {
  const chords = [
    [0, 4],
    [1, 2],
    [2, 2],
    [3, 4],
  ].map(([index, lasts]) => ({ index: index!, lasts: lasts! }))
  const plain = chords.map((chord) => ({ ...chord, midis: [48 + chord.index, 55 + chord.index] }))
  const made = chords.map((chord) => ({ ...chord, midis: [50 + chord.index, 57 + chord.index] }))
  const beside = chords.slice(0, 1).map((chord) => ({ ...chord, midis: [40, 47] }))
  test('the new version strikes each chord at its beat for its length, after the count-in', () => {
    const { strikes, clicks, countIn, length } = scheduleOf({ plain, new: made, beside: [] }, 'new', 4)
    expect(strikes.map((strike) => [strike.beat, strike.beats, strike.midis[0]])).toEqual([
      [4, 4, 50],
      [8, 2, 51],
      [10, 2, 52],
      [12, 4, 53],
    ])
    expect(clicks.map((click) => click.strong)).toEqual([true, false, false, false])
    expect([countIn, length]).toEqual([4, 16])
  })
  test('both in turn: the same bars plain, then new; or new, then the version beside it', () => {
    const { strikes, length } = scheduleOf(
      { plain: plain.slice(1, 3), new: made.slice(1, 3), beside },
      'both',
      0,
    )
    expect(strikes.map((strike) => [strike.beat, strike.version, strike.index])).toEqual([
      [0, 'plain', 1],
      [2, 'plain', 2],
      [4, 'new', 1],
      [6, 'new', 2],
    ])
    expect(length).toBe(8)
    expect(
      scheduleOf({ plain, new: made.slice(0, 1), beside }, 'turn', 0).strikes.map((strike) => [
        strike.beat,
        strike.version,
      ]),
    ).toEqual([
      [0, 'new'],
      [4, 'beside'],
    ])
  })
  test('a pickup is counted in with a stress on each bar', () => {
    expect(
      scheduleOf({ plain, new: made, beside: [] }, 'new', 7, 4).clicks.map(({ strong }) => strong),
    ).toEqual([true, false, false, false, true, false, false])
  })
  test('another version goes on at the same place of the music, and what has been sounding there is struck with what is left of it', () => {
    const all = { plain, new: made, beside }
    const [before, both, next] = [
      scheduleOf(all, 'new', 4),
      scheduleOf(all, 'both', 4),
      scheduleOf(all, 'plain', 4),
    ]
    expect(placeIn(next, before, 9)).toBe(9)
    // On the second time through of both in turn: the place of the first.
    expect(placeIn(next, both, 4 + 12 + 5)).toBe(9)
    expect(placeIn(next, scheduleOf(all, 'new', 0), 5)).toBe(9)
    // While it is still counted in, as many clicks are left.
    expect(placeIn(scheduleOf(all, 'plain', 8), before, 2)).toBe(6)
    expect(ringingAt(next, 6)).toMatchObject({ beat: 6, beats: 2, midis: [48, 55], version: 'plain' })
    expect(ringingAt(next, 8)).toBeNull()
    expect(ringingAt(next, 2)).toBeNull()
  })
  test('a chord without a grip leaves its time silent', () => {
    const { strikes, length } = scheduleOf(
      { plain, new: made.map((one, at) => (at === 0 ? { ...one, midis: null } : one)), beside },
      'new',
      0,
    )
    expect(strikes.map((strike) => strike.beat)).toEqual([4, 6, 8])
    expect(length).toBe(12)
  })
})
