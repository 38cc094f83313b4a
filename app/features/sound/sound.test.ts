import { readTuneDocument } from '../workspace/useTuneReading'
import { frequencyOf, pluckedString } from './pluckedString'
import { scheduleOf } from './schedule'
import { sequenceOf } from './sequence'

const RATE = 44100

/** Frequency of a tone near `expected`, by the phase it gains between two windows: far finer than a spectrum's bins. */
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
    const level = (from: number) => Math.sqrt(samples.slice(from, from + 4410).reduce((sum, one) => sum + one * one, 0) / 4410)
    expect(level(0)).toBeGreaterThan(level(44100))
    expect(level(44100)).toBeGreaterThan(level(120000))
    expect(samples.reduce((most, one) => Math.max(most, Math.abs(one)), 0)).toBeLessThanOrEqual(0.9 + 1e-6)
    expect(pluckedString(45, RATE, 3)).toEqual(samples)
  })
})

describe('the order in which chords are heard', () => {
  const reading = readTuneDocument({ text: 'meter: 3/4\npickup: 1\n| G7 |: C | F |1. G7 :|2. C |\nmeter: 6/8\n| Am |', colour: 0, choices: {}, fixed: {} })
  const heard = (anchor: number, focus: number) => { const { chords, range } = sequenceOf(reading, { anchor, focus }); return `${range}: ${chords.map((chord) => chord.slot.text).join(' ')}` }
  test('a single chord is where playing begins, and the form is followed from there', () => {
    expect(heard(0, 0)).toBe('all: G7 C F G7 C F C Am')
    expect(heard(3, 3)).toBe('from: G7 C F C Am')
    expect(heard(4, 4)).toBe('from: C Am')
  })
  test('a stretch is played as it stands', () => expect(heard(3, 1)).toBe('stretch: C F G7'))
  test('a bar of another beat lasts as long as its beats: six eighths are three quarters', () => expect(reading.chords.map((chord) => chord.lasts)).toEqual([1, 3, 3, 3, 3, 3]))
})

describe('what is heard', () => {
  const { chords } = readTuneDocument({ text: 'key: C\n| C | Am F | G |', colour: 1, choices: {}, fixed: {} })
  const plain = new Map(chords.map((chord, at) => [chord.key, [48 + at, 55 + at]]))
  const made = new Map(chords.map((chord, at) => [chord.key, [50 + at, 57 + at]]))
  test('the new version strikes each chord at its beat for its length, after the count-in', () => {
    const { strikes, clicks, countIn, length } = scheduleOf(chords, 'new', 4, { plain, new: made })
    expect(strikes.map((strike) => [strike.beat, strike.beats, strike.midis[0]])).toEqual([[4, 4, 50], [8, 2, 51], [10, 2, 52], [12, 4, 53]])
    expect(clicks.map((click) => click.strong)).toEqual([true, false, false, false])
    expect([countIn, length]).toEqual([4, 16])
  })
  test('both in turn: the same bars plain, then new', () => {
    const { strikes, length } = scheduleOf(chords.slice(1, 3), 'both', 0, { plain, new: made })
    expect(strikes.map((strike) => [strike.beat, strike.version, strike.index])).toEqual([[0, 'plain', 1], [2, 'plain', 2], [4, 'new', 1], [6, 'new', 2]])
    expect(length).toBe(8)
  })
  test('a chord without a grip leaves its time silent', () => {
    const { strikes, length } = scheduleOf(chords, 'new', 0, { plain, new: new Map([...made].slice(1)) })
    expect(strikes.map((strike) => strike.beat)).toEqual([4, 6, 8])
    expect(length).toBe(12)
  })
})
