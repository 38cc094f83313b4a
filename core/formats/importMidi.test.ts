import { Midi } from '@tonejs/midi'
import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { parsePitch, pitchName } from '../pitch/note'
import { must } from '../result'
import { TUNE_LIMITS } from '../voicing/gripLimits'
import { exportChart } from './exportChart'
import { importMidi } from './importMidi'

const base64 = (bytes: Uint8Array | number[]) => Buffer.from(bytes).toString('base64')

test('what is exported comes back: bars, beats, lengths and pitches', () => {
  const note = fc.record({
    at: fc.nat(47),
    length: fc.integer({ min: 1, max: 4 }),
    pitch: fc.constantFrom('C4', 'Eb4', 'G4', 'A4', 'D5'),
  })
  fc.assert(
    fc.property(fc.uniqueArray(note, { minLength: 1, maxLength: 12, selector: ({ at }) => at }), (notes) => {
      const inOrder = [...notes].sort((a, b) => a.at - b.at)
      // Quarters of a beat; each ends at the latest where the next begins.
      const melody = inOrder.map(({ at, length, pitch }, order) => {
        const beats = Math.min(length, (inOrder[order + 1]?.at ?? 48) - at) / 4
        return {
          bar: Math.floor(at / 16) + 1,
          beat: (at % 16) / 4 + 1,
          beats,
          note: must(parsePitch(pitch)),
          name: pitch,
        }
      })
      const file = must(
        exportChart(
          {
            chart: parseChart('title: Back\ntempo: 90\n| C | F | G |'),
            frets: [],
            melody,
            limits: TUNE_LIMITS,
          },
          'midi',
        ),
      )
      const back = must(importMidi(file.content))
      expect(back.melody).toEqual(
        melody.map(({ bar, beat, beats, name }) => ({ bar, beat, beats, note: name })),
      )
      expect(back.text).toContain('meter: 4/4\ntempo: 90')
      // The guitar's part names the chords.
      expect(back.text.split('\n').at(-1)).toBe('| C | F | G |')
    }),
    { numRuns: 40 },
  )
})

test('of several tracks the highest is taken, of notes together the highest, and thirds of a beat are seen; each is said', () => {
  const file = new Midi()
  const [low, high] = [file.addTrack(), file.addTrack()]
  low.addNote({ midi: 40, ticks: 0, durationTicks: 480 })
  high.name = 'Tune'
  ;[0, 160, 320].forEach((ticks, at) => high.addNote({ midi: 72 + at, ticks, durationTicks: 160 }))
  high.addNote({ midi: 60, ticks: 0, durationTicks: 480 })
  const { melody, warnings } = must(importMidi(base64(file.toArray())))
  expect(melody.map(({ beat, note }) => [Number(beat.toFixed(3)), note])).toEqual([
    [1, 'C5'],
    [1.333, 'Db5'],
    [1.667, 'D5'],
  ])
  expect(warnings.join(' ')).toMatch(
    /"Tune"; 1 other track left out.*1 notes that sounded under others.*thirds of a beat/,
  )
})

test('a pickup, changes of metre and key, and the beat of 6/8 come back', () => {
  const text =
    'title: On the Way\nkey: Eb\nmeter: 4/4\ntempo: 100\npickup: 1\n| Bb7 |\n| Ebmaj7 | Ab6 Bb7 |\nmeter: 3/4\n| Cm7 | Ebmaj7 |'
  const melody = [
    { bar: 0, beat: 4, beats: 1, note: must(parsePitch('Bb4')) },
    { bar: 1, beat: 1, beats: 2, note: must(parsePitch('G5')) },
    { bar: 3, beat: 3, beats: 1, note: must(parsePitch('C5')) },
  ]
  const out = (chart: string) =>
    must(exportChart({ chart: parseChart(chart), frets: [], melody, limits: TUNE_LIMITS }, 'midi')).content
  const file = new Midi(Buffer.from(out(text), 'base64'))
  // As a reader of MIDI that is not ours counts: the first whole bar begins after one beat.
  expect(
    file.header.timeSignatures.map(({ ticks, timeSignature }) => [ticks / file.header.ppq, ...timeSignature]),
  ).toEqual([
    [0, 1, 4],
    [1, 4, 4],
    [9, 3, 4],
  ])
  expect(file.header.keySignatures).toMatchObject([{ ticks: 0, key: 'Eb', scale: 'major' }])
  const back = must(importMidi(out(text)))
  expect(back.text).toBe(
    'title: On the Way\nkey: Eb\nmeter: 4/4\ntempo: 100\npickup: 1\n| Bb7 | Ebmaj7 | Ab6 . Bb7 . |\nmeter: 3/4\n| Cm7 | Ebmaj7 |',
  )
  expect(back.melody).toEqual(melody.map((note) => ({ ...note, note: pitchName(note.note) })))
  const six = must(importMidi(out('meter: 6/8\ntempo: 180\n| C | G7 | C | C |')))
  expect(six.text).toContain('meter: 6/8\ntempo: 180')
})

test.each(['C', 'Cb', 'F#', 'Am', 'Ebm', 'G#m', 'Cm'])(
  'the key %s goes out as its signature and comes back',
  (key) => {
    const { content } = must(
      exportChart(
        { chart: parseChart(`key: ${key}\n| C | F |`), frets: [], melody: [], limits: TUNE_LIMITS },
        'midi',
      ),
    )
    expect(must(importMidi(content)).text).toContain(`key: ${key}\n`)
  },
)

test('sixteenths in one bar and triplets in the next', () => {
  const file = new Midi()
  const track = file.addTrack()
  ;[0, 120, 240, 360].forEach((ticks) => track.addNote({ midi: 72, ticks, durationTicks: 120 }))
  ;[0, 160, 320].forEach((ticks) => track.addNote({ midi: 74, ticks: 1920 + ticks, durationTicks: 160 }))
  const { melody, warnings } = must(importMidi(base64(file.toArray())))
  expect(melody.map(({ bar, beat }) => [bar, Number(beat.toFixed(3))])).toEqual([
    [1, 1],
    [1, 1.25],
    [1, 1.5],
    [1, 1.75],
    [2, 1],
    [2, 1.333],
    [2, 1.667],
  ])
  expect(warnings.join(' ')).toContain('quarters and thirds of a beat')
})

test('chords alone are a chart without a melody', () => {
  const { content } = must(
    exportChart(
      {
        chart: parseChart('key: C\n| Cmaj7 | Am7 D7 | Dm7 G7 | C |'),
        frets: [],
        melody: [],
        limits: TUNE_LIMITS,
      },
      'midi',
    ),
  )
  const { melody, text, warnings } = must(importMidi(content))
  expect(melody).toEqual([])
  expect(text.split('\n').at(-1)).toBe('| Cmaj7 | Am7 . D7 . | Dm7 . G7 . | C |')
  expect(warnings.join(' ')).toContain('no melody')
})

test('no two notes of one pitch sound at once in a track', () => {
  const text = 'key: C\nmeter: 4/4\n| C | C | Am |'
  const frets = [
    [null, 3, 2, 0, 1, 0],
    [null, 3, 2, 0, 1, 0],
    [null, 0, 2, 2, 1, 0],
  ]
  const { content } = must(
    exportChart({ chart: parseChart(text), frets, melody: [], limits: TUNE_LIMITS }, 'midi'),
  )
  for (const { notes } of new Midi(Buffer.from(content, 'base64')).tracks)
    for (const one of notes)
      for (const other of notes)
        if (one !== other && one.midi === other.midi && one.ticks <= other.ticks)
          expect(one.ticks + one.durationTicks).toBeLessThanOrEqual(other.ticks)
})

describe('bad files: a clear error, and nothing hangs', () => {
  const head = (format: number, tracks: number) => [
    0x4d,
    0x54,
    0x68,
    0x64,
    0,
    0,
    0,
    6,
    0,
    format,
    0,
    tracks,
    0,
    96,
  ]
  test.each([
    ['no base64', '???', /not base64/],
    ['no MIDI', base64([1, 2, 3]), /no MIDI file/],
    ['type 2', base64(head(2, 1)), /type 2/],
    ['no tracks', base64(head(1, 0)), /no tracks/],
    [
      'truncated',
      base64([...head(1, 1), 0x4d, 0x54, 0x72, 0x6b, 0, 0, 1, 0, 0, 0x90]),
      /breaks off|No track/,
    ],
    ['too large', base64(new Uint8Array(2_000_001)), /bytes/],
  ])('%s', (_, content, message) => {
    const result = importMidi(content)
    expect(result.ok).toBe(false)
    if (!result.ok) {
      expect(result.fault.message).toMatch(message)
      expect(result.fault.accepted).toContain('Standard MIDI file')
    }
  })
  test('a note far out in time is refused before any bar is made', () => {
    const file = new Midi()
    file.addTrack().addNote({ midi: 60, ticks: 480 * 4 * 10_000, durationTicks: 480 })
    expect(importMidi(base64(file.toArray()))).toMatchObject({
      ok: false,
      fault: { code: 'too-large', message: expect.stringContaining('beyond bar') },
    })
  })
  /** A whole file of one track with some events. */
  const whole = (events: number[], division = [0, 96], format = 1, tracks = 1) =>
    base64([
      ...head(format, tracks).slice(0, 12),
      ...division,
      0x4d,
      0x54,
      0x72,
      0x6b,
      0,
      0,
      0,
      events.length + 4,
      ...events,
      0,
      0xff,
      0x2f,
      0,
    ])
  const aNote = [0, 0x90, 60, 80, 0x60, 0x80, 60, 0]
  test.each([
    ['time in frames', whole(aNote, [0xe7, 40]), /SMPTE/],
    ['no ticks', whole(aNote, [0, 0]), /no ticks/],
    ['2^28 ticks', whole([0xff, 0xff, 0xff, 0x7f, 0x90, 60, 80, 0x60, 0x80, 60, 0]), /beyond bar/],
    ['a note of 2^28 ticks', whole([0, 0x90, 60, 80, 0xff, 0xff, 0xff, 0x7f, 0x80, 60, 0]), /beyond bar/],
    ['an event longer than its track', whole([0, 0xff, 0x03, 0xff, 0xff, 0xff, 0x7f, 1]), /not whole/],
    [
      'a track longer than the file',
      base64([...head(1, 1), 0x4d, 0x54, 0x72, 0x6b, 0xff, 0xff, 0xff, 0xff, ...aNote]),
      /longer than what is there/,
    ],
    ['255 tracks that are not there', base64([...head(1, 0xff)]), /names 255 tracks and has 0/],
  ])('%s is refused before it is read', (_, content, message) => {
    const result = importMidi(content)
    expect(result.ok).toBe(false)
    if (!result.ok) expect(result.fault.message).toMatch(message)
  })
  test.each([
    ['metre 0/4', [0, 0xff, 0x58, 4, 0, 2, 24, 8], 'A metre of 0/4 was read as 4/4.', 'meter: 4/4'],
    ['metre 4/1', [0, 0xff, 0x58, 4, 4, 0, 24, 8], 'A metre of 4/1 was read as 4/4.', 'meter: 4/4'],
    ['tempo 0', [0, 0xff, 0x51, 3, 0, 0, 0], 'A tempo of nothing was read as 120.', 'tempo: 120'],
  ])('%s is put right and said', (_, event, said, line) => {
    const { text, warnings } = must(importMidi(whole([...event, ...aNote])))
    expect(warnings).toContain(said)
    expect(text).toContain(line)
    expect(parseChart(text).problems).toEqual([])
  })
  test('whatever a track holds, it is answered, and what is read is within a chart', () => {
    const event = fc.oneof(
      fc.constant(aNote),
      fc
        .tuple(fc.nat(127), fc.constantFrom(0x51, 0x58, 0x59, 0x03, 0x2f), fc.uint8Array({ maxLength: 6 }))
        .map(([wait, type, data]) => [wait, 0xff, type, data.length, ...data]),
      fc.uint8Array({ maxLength: 5 }).map((bytes) => [...bytes]),
    )
    fc.assert(
      fc.property(
        fc.array(event, { maxLength: 8 }),
        fc.uint8Array({ minLength: 2, maxLength: 2 }),
        (events, division) => {
          const result = importMidi(whole(events.flat().slice(0, 120), [...division]))
          if (result.ok) expect(parseChart(result.value.text).problems).toEqual([])
          else expect(result.fault.message).not.toBe('')
        },
      ),
      { numRuns: 400 },
    )
  })
  test('noise behind a good head is refused or read, never thrown', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 200 }), (noise) => {
        expect(typeof importMidi(base64([...head(1, 1), ...noise])).ok).toBe('boolean')
      }),
    )
  })
})

test('words go out with their notes and come back with them; those under no note are told', () => {
  const lyrics = [
    { bar: 1, beat: 1, text: 'süß', joins: true as const },
    { bar: 1, beat: 2, text: 'mer' },
    { bar: 2, beat: 3, text: 'far off' },
  ]
  const melody = [1, 2].map((beat) => ({ bar: 1, beat, beats: 1, note: must(parsePitch('G4')) }))
  const { content } = must(
    exportChart(
      { chart: parseChart('title: Über “Łódź”\n| C | F |'), frets: [], melody, lyrics, limits: TUNE_LIMITS },
      'midi',
    ),
  )
  const read = must(importMidi(content))
  expect(read.lyrics).toEqual(lyrics.slice(0, 2))
  expect(parseChart(read.text).title).toBe('Über “Łódź”')
  expect(read.warnings.join(' ')).toContain('1 words that stand under no note')
})

/** A file of one track: events of a wait, a status and data. */
function ofEvents(events: readonly (readonly number[])[]): string {
  const body = [...events.flat(), 0, 0xff, 0x2f, 0]
  const four = (value: number) => [value >>> 24, (value >>> 16) & 255, (value >>> 8) & 255, value & 255]
  return base64([
    ...[0x4d, 0x54, 0x68, 0x64, ...four(6), 0, 0, 0, 1, 1, 224],
    ...[0x4d, 0x54, 0x72, 0x6b, ...four(body.length), ...body],
  ])
}
/** The processor's time of a piece of work, in ms: other jobs on the machine do not count. */
function worked(work: () => void): number {
  const begin = process.cpuUsage()
  work()
  return process.cpuUsage(begin).user / 1000
}

test.each([
  ['ends of other pitches', (at: number) => (at % 2 === 0 ? [0, 0x90, 60, 90] : [0, 0x80, 61, 0])],
  ['notes that never end', (at: number) => [0, 0x90, at % 128, 90]],
  ['ends without notes', (at: number) => [0, 0x80, at % 128, 0]],
])(
  'a long track of %s is read in proportion to its length, and what has no other half is said',
  (_, event) => {
    const melody = [
      [0, 0x90, 72, 90],
      [0x83, 0x60, 0x80, 72, 0],
    ]
    const of = (count: number) =>
      ofEvents([...melody, ...Array.from({ length: count }, (_one, at) => event(at))])
    const short = must(importMidi(of(1_000)))
    expect(short.melody).toEqual([{ bar: 1, beat: 1, beats: 1, note: 'C5' }])
    expect(short.warnings.join(' ')).toMatch(/\d+ events that begin or end notes have no other half/)
    const long = of(120_000)
    // A search through the rest of the track for each took 80 s.
    expect(worked(() => must(importMidi(long)))).toBeLessThan(8_000)
  },
)

test('what is left out leaves the rest as it was: running status and waits', () => {
  const read = must(
    importMidi(
      ofEvents([
        [0, 0x90, 60, 90],
        [0x83, 0x60, 60, 0],
        // An end without a note, whose status those behind it go on with.
        [0, 0x80, 10, 0],
        [0, 0x90, 62, 90],
        [0x83, 0x60, 62, 0],
        [0x83, 0x60, 64, 90],
        [0x83, 0x60, 64, 0],
      ]),
    ),
  )
  expect(read.melody).toEqual([
    { bar: 1, beat: 1, beats: 1, note: 'C4' },
    { bar: 1, beat: 2, beats: 1, note: 'D4' },
    { bar: 1, beat: 4, beats: 1, note: 'E4' },
  ])
})
