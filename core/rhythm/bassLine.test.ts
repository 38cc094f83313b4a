/**
 * Bass lines against the rules method books give for them (from memory: the bass of each chord
 * where it comes, a half step, whole step or dominant before it, chord tones on strong beats, the
 * rest by step, nothing further than an octave).
 */
import { firstOf, itemAt, theOne } from '../lists'
import fc from 'fast-check'
import { analyse } from '../analysis/analyse'
import { slotsOf, type Slot } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { modulo, pitchClass, pitchName } from '../pitch/note'
import { BASS_KINDS, BASS_RANGE, bassLine, type BassKind, type BassNote } from './bassLine'
import { halfOf, pulsesOf, walkingStep } from './pulses'

const SYMBOLS = [
  'C',
  'Am7',
  'Dm7',
  'G7',
  'Fmaj7',
  'Bbmaj7',
  'E7b9',
  'F#m7b5',
  'Db7',
  'C/E',
  'Ab6',
  'Bdim7',
  'Gsus4',
  'A7#5',
  'Eb5',
  'N.C.',
]
const METERS = ['4/4', '3/4', '5/4', '6/8', '12/8', '2/4', '7/4']
/** Charts of any metre, with one or two chords in a bar, silences, repeats and bars that go on. */
const charts = fc
  .record({
    meter: fc.constantFrom(...METERS),
    bars: fc.array(
      fc.oneof(
        {
          weight: 6,
          arbitrary: fc
            .array(fc.constantFrom(...SYMBOLS), { minLength: 1, maxLength: 2 })
            .map((chords) => chords.join(' ')),
        },
        { weight: 1, arbitrary: fc.constant('%') },
      ),
      { minLength: 1, maxLength: 16 },
    ),
  })
  .map(({ meter, bars }) => parseChart(`key: C\nmeter: ${meter}\n| ${bars.join(' | ')} |`))
const kinds = fc.constantFrom<BassKind>(...BASS_KINDS)
const seeds = fc.constantFrom(0, 1, 7, 4_711)

const slotAt = (slots: readonly Slot[], { bar, beat }: BassNote): Slot =>
  theOne(
    slots,
    (slot) => slot.bar === bar && slot.beat <= beat + 1e-6 && beat < slot.beat + slot.beats - 1e-6,
  )
const chordAt = (slots: readonly Slot[], note: BassNote) => {
  const { symbol } = slotAt(slots, note)
  if (symbol?.kind !== 'chord') throw new Error('a note over a silence')
  return symbol.chord
}
const soundOf = (note: BassNote) => modulo(note.midi, 12)

describe('on any chart, of any kind, for any seed', () => {
  const each = (holds: (notes: BassNote[], chart: ReturnType<typeof parseChart>, kind: BassKind) => void) =>
    fc.assert(
      fc.property(charts, kinds, seeds, (chart, kind, seed) =>
        holds(bassLine(chart, analyse(chart), kind, seed), chart, kind),
      ),
      { numRuns: 50 },
    )

  test('every chord is heard from its first beat to its last, silences stay silent, bars keep their beats', () =>
    each((notes, chart) => {
      const slots = slotsOf(chart)
      for (const slot of slots) {
        const inside = notes.filter((note) => slotAt(slots, note) === slot)
        const heard = inside.reduce((sum, { beats }) => sum + beats, 0)
        expect(heard).toBeCloseTo(slot.symbol?.kind === 'chord' ? slot.beats : 0)
        if (inside.length > 0) expect(firstOf(inside).beat).toBeCloseTo(slot.beat)
      }
    }))
  test('within E1 and G3, and no further than an octave from note to note', () =>
    each((notes) => {
      for (const [at, { midi }] of notes.entries()) {
        expect(midi).toBeGreaterThanOrEqual(BASS_RANGE[0])
        expect(midi).toBeLessThanOrEqual(BASS_RANGE[1])
        const before = notes[at - 1]
        const joined =
          before &&
          before.bar === itemAt(notes, at).bar &&
          Math.abs(before.beat + before.beats - itemAt(notes, at).beat) < 1e-6
        if (joined) expect(Math.abs(midi - before.midi)).toBeLessThanOrEqual(12)
      }
    }))
  test('the name, the sound and the degree of a note agree, and each says why it is there', () =>
    each((notes, chart) => {
      const slots = slotsOf(chart)
      for (const note of notes) {
        expect(pitchClass(note.note)).toBe(soundOf(note))
        expect(note.why.length).toBeGreaterThan(10)
        const tone = chordAt(slots, note).tones.find((one) => pitchClass(one.note) === soundOf(note))
        if (tone) expect(note.degree).toBe(tone.degree)
      }
    }))
  test('the same seed gives the same line', () =>
    fc.assert(
      fc.property(charts, kinds, seeds, (chart, kind, seed) => {
        const analysis = analyse(chart)
        expect(bassLine(chart, analysis, kind, seed)).toEqual(bassLine(chart, analysis, kind, seed))
      }),
      { numRuns: 40 },
    ))
})

describe('walking', () => {
  const walks = (holds: (notes: BassNote[], chart: ReturnType<typeof parseChart>) => void) =>
    fc.assert(
      fc.property(charts, seeds, (chart, seed) =>
        holds(bassLine(chart, analyse(chart), 'walking', seed), chart),
      ),
      { numRuns: 40 },
    )
  /** A note, the next one where they are joined, and whether another chord comes with that. */
  const changesOf = (notes: readonly BassNote[], chart: ReturnType<typeof parseChart>) => {
    const slots = slotsOf(chart)
    const pulses = pulsesOf(chart, 'steps')
    return notes.slice(0, -1).flatMap((note, at) => {
      const next = itemAt(notes, at + 1)
      return itemAt(pulses, at + 1).begins
        ? []
        : [
            {
              note,
              next,
              before: itemAt(pulses, at),
              after: itemAt(pulses, at + 1),
              chord: chordAt(slots, next),
            },
          ]
    })
  }

  test('a chord begins with its bass: the root, or the one that is written', () =>
    walks((notes, chart) => {
      const pulses = pulsesOf(chart, 'steps')
      expect(notes).toHaveLength(pulses.length)
      notes.forEach((note, at) => {
        const { chord, changes } = itemAt(pulses, at)
        if (changes) expect(soundOf(note)).toBe(pitchClass(chord.bass ?? chord.root))
      })
    }))
  test('the last note before another bass leads to it: by a half step, a whole step or as its dominant', () =>
    walks((notes, chart) => {
      for (const { note, next, before, after } of changesOf(notes, chart)) {
        const [bass, to] = [before.chord, after.chord].map((chord) => pitchClass(chord.bass ?? chord.root))
        if (!after.changes || before.changes || before.beginsBar || bass === to) continue
        expect([1, 2, 5, 7]).toContain(Math.abs(next.midi - note.midi))
        if (Math.abs(next.midi - note.midi) >= 5) expect([5, -7]).toContain(next.midi - note.midi)
      }
    }))
  test('strong beats sound tones of the chord', () =>
    walks((notes, chart) => {
      const pulses = pulsesOf(chart, 'steps')
      notes.forEach((note, at) => {
        const { strong, chord } = itemAt(pulses, at)
        const leads = pulses[at + 1]?.changes && !itemAt(pulses, at + 1).begins
        if (strong && !leads)
          expect([
            ...chord.tones.map((tone) => pitchClass(tone.note)),
            pitchClass(chord.bass ?? chord.root),
          ]).toContain(soundOf(note))
      })
    }))
  test('no note twice where the chord goes on', () =>
    walks((notes, chart) => {
      for (const { note, next, after } of changesOf(notes, chart))
        if (!after.changes) expect(next.midi).not.toBe(note.midi)
    }))
})

test('a ii-V-I is walked as it is taught: root, steps, and a half step or dominant into each root', () => {
  const chart = parseChart('key: C\n| Dm7 | G7 | Cmaj7 |')
  const notes = bassLine(chart, analyse(chart), 'walking')
  expect(notes.map(({ note }) => pitchName(note)).filter((_, at) => at % 4 === 0)).toEqual(['D2', 'G2', 'C2'])
  for (const at of [3, 7]) expect(Math.abs(itemAt(notes, at).midi - itemAt(notes, at + 1).midi)).toBe(1)
})

describe('the plainer kinds', () => {
  const line = (kind: BassKind, text: string) => {
    const chart = parseChart(text)
    return bassLine(chart, analyse(chart), kind).map(
      ({ bar, beat, note }) => `${bar}:${beat} ${pitchName(note).replace(/\d/, '')}`,
    )
  }
  test('roots: one a bar and one a chord', () =>
    expect(line('roots', '| C | Am F | % |')).toEqual(['1:1 C', '2:1 A', '2:3 F', '3:1 A', '3:3 F']))
  test('fifths: the root, then the fifth the chord has', () =>
    expect(line('fifths', '| C | Bm7b5 | G+ |')).toEqual([
      '1:1 C',
      '1:3 G',
      '2:1 B',
      '2:3 F',
      '3:1 G',
      '3:3 D#',
    ]))
  test('two-feel in three: the root on one, the other on three', () =>
    expect(line('two', 'meter: 3/4\n| F | % |').map((note) => note.split(' ')[0])).toEqual([
      '1:1',
      '1:3',
      '2:1',
      '2:3',
    ]))
  test('pedal: one sound through all chords, the fifth or the tonic of the key', () => {
    expect(
      new Set(line('pedal', 'key: C\n| Dm7 | G7 | Em7 | G7 |').map((note) => note.split(' ')[1])),
    ).toEqual(new Set(['G']))
    expect(new Set(line('pedal', 'key: C\n| C | F/C | C | Am |').map((note) => note.split(' ')[1]))).toEqual(
      new Set(['C']),
    )
  })
  test('a written bass is the bass', () => expect(line('roots', '| C/E | F/G |')).toEqual(['1:1 E', '2:1 G']))
  test('a pickup and a silence: nothing is played where nothing is written', () =>
    expect(
      line('walking', 'pickup: 1\n| N.C. | C | N.C. | F |').filter((note) => /^(0|2):/.test(note)),
    ).toEqual([]))
})

describe('the halves and steps of a metre', () => {
  test.each([
    ['4/4', 1, 3],
    ['3/4', 1, 3],
    ['2/4', 1, 2],
    ['5/4', 1, 4],
    ['7/4', 1, 5],
    ['6/8', 3, 4],
    ['9/8', 3, 7],
    ['12/8', 3, 7],
  ])('%s is walked in %d, its second half begins on %d', (name, step, half) => {
    const [beats, unit] = name.split('/').map(Number)
    expect([walkingStep({ beats: beats!, unit: unit! }), halfOf({ beats: beats!, unit: unit! })]).toEqual([
      step,
      half,
    ])
  })
})
