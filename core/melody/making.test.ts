import { firstOf, itemAt, lastOf, theOne } from '../lists'
import fc from 'fast-check'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { chord, parseChord } from '../chord/parseChord'
import { parseKey, scaleNotes } from '../pitch/key'
import { midi, midiOf, modulo, parsePitch, pitchClass, pitchName } from '../pitch/note'
import { heardOver, type MelodyNote } from '../reharm/melodyFit'
import { must } from '../result'
import { tuneLimits, type Limits } from '../voicing/gripLimits'
import { blockHarmonised, scaleFrom } from './block'
import { Clock, sungIn } from './clock'
import { endsOf, withEnd } from './ends'
import { pitchNear, pitchOfLetter, playedIn, withChanged, withNote, withPassage, withRest } from './entry'
import { choicesUnder, harmonise } from './harmonise'
import { ringingLayers } from './ringing'
import { chordPlacesInTime } from './melodyLine'
import { byOctaves, octavesToSing, quantised } from './melody'
import { elsewhere, handEffort, keysRanked } from './move'
import { phrasesOf } from './phrases'
import { melodyReading, troubles } from './melodyReading'
import { chordsUnder } from './underNote'
import { MELODY_TEXTURE_NAMES } from './melodyTextures'

const LIMITS: Limits = { ...tuneLimits(0, 'chord'), frets: [0, 17], notes: [2, 5] }
const key = (name: string) => must(parseKey(name))
const note = (bar: number, beat: number, beats: number, name: string): MelodyNote => ({
  bar,
  beat,
  beats,
  note: must(parsePitch(name)),
})
const said = (melody: readonly MelodyNote[]) =>
  melody.map(({ bar, beat, beats, note: pitch }) => `${bar}:${beat} ${pitchName(pitch)} ${beats}`)
const chart = parseChart('key: C\ntempo: 90\n| Cmaj7 | A7 | Dm7 | G7 |')
const melody = [
  note(1, 1, 1, 'E4'),
  note(1, 2, 1, 'F4'),
  note(1, 3, 2, 'G4'),
  note(2, 1, 2, 'A4'),
  note(2, 3, 2, 'C#5'),
  note(3, 1, 2, 'D5'),
  note(3, 3, 2, 'C5'),
  note(4, 1, 4, 'B4'),
]

describe('density and texture', () => {
  const line = (more: object) => firstOf(must(harmonise({ chart, melody, limits: LIMITS, ...more })))
  test('a chord where the density asks for one, the melody over it between', () => {
    const struck = (density: string) =>
      line({ density })
        .notes.filter(({ under }) => under === 'chord')
        .map(({ bar, beat }) => `${bar}:${beat}`)
    expect(struck('bar')).toEqual(['1:1', '2:1', '3:1', '4:1'])
    expect(struck('note').length).toBeGreaterThan(6)
    for (const { kind } of line({ density: 'bar' }).notes) expect(kind).not.toBe('single note')
  })
  test.each(MELODY_TEXTURE_NAMES)(
    '%s: the melody is the highest sounding note of every grip, and the texture has its number of voices',
    (texture) => {
      const { notes } = line({ texture, density: 'chord' })
      for (const { note: sung, voicing } of notes)
        if (sung) expect(voicing.midis.at(-1)).toBe(midiOf(sung.note))
      const most = { full: 5, shells: 3, 'drop 2': 4, fourths: 4, 'two voices': 2, 'two lines': 2 }[texture]
      for (const { voicing } of notes) expect(voicing.midis.length).toBeLessThanOrEqual(most)
    },
  )
  test('chords under long notes are struck again with the note, and in rests by themselves', () => {
    const two = parseChart('| C Am | F G7 |')
    const { notes } = firstOf(
      must(harmonise({ chart: two, melody: [note(1, 1, 4, 'E4')], limits: LIMITS, fills: true })),
    )
    expect(notes.map(({ bar, beat, again, note: sung }) => [bar, beat, again, sung !== null])).toEqual([
      [1, 1, false, true],
      [1, 3, true, true],
      [2, 1, false, false],
      [2, 3, false, false],
    ])
  })
  test('a grip put there by hand stays, and the others are led around it', () => {
    const frets = [null, null, null, 5, 5, 5]
    const { notes } = line({ fixed: new Map([['2:1', { frets, chord: chord('Am7') }]]) })
    expect(notes.find(({ bar, beat }) => bar === 2 && beat === 1)).toMatchObject({
      kind: 'by hand',
      voicing: { frets },
    })
  })
  test('a grip rings until the next is struck; the melody over it is struck alone', () => {
    const { notes } = line({ density: 'bar' })
    const { upper, lower } = ringingLayers(chart, notes)
    expect(upper.map(({ from, to }) => to - from)).toEqual(melody.map(({ beats }) => beats))
    for (let at = 1; at < lower.length; at += 1)
      expect(itemAt(lower, at - 1).to).toBeLessThanOrEqual(itemAt(lower, at).from)
  })
})

describe('what can stand under a note', () => {
  test('its own chord, tensions and chords that lead on are named, and every one of them has the note', () => {
    fc.assert(
      fc.property(
        fc.constantFrom('Cmaj7', 'Am7', 'G7', 'Dm7', 'Em7b5'),
        fc.constantFrom('F', 'G7', 'Cmaj7', 'Dm'),
        fc.nat(11),
        fc.constantFrom(-2, -1, 1, 2),
        (symbol, next, sound, step) => {
          const found = chordsUnder(sound, chord(symbol), chord(next), step)
          expect(['own chord', 'tension', 'avoid note']).toContain(firstOf(found).kind)
          for (const { chord: one } of found)
            expect(one.tones.map((tone) => pitchClass(tone.note))).toContain(sound)
        },
      ),
    )
    // B over C on the way down to the C of a following F: a half step under it the shape of F, the
    // diminished seventh a half step under F, and its dominant.
    const kinds = chordsUnder(pitchClass({ letter: 3, alter: 0 }), chord('Cmaj7'), chord('Am7'), -1).map(
      ({ kind, chord: one }) => `${kind} ${one.canonical}`,
    )
    expect(kinds).toContain('sixth-diminished step Bdim7')
    expect(kinds.some((one) => one.startsWith('secondary dominant E'))).toBe(true)
  })
  test('choices for one note: all have it on top, those nearest to their neighbours first, the note alone last', () => {
    const choices = choicesUnder({ chart, melody, limits: LIMITS }, { bar: 2, beat: 1 }, [52, 59, 64], null, [
      chord('F#m7'),
    ])
    for (const {
      note: { voicing },
    } of choices)
      expect(voicing.midis.at(-1)).toBe(midi('A4'))
    expect(choices.some(({ note: { kind } }) => kind === 'another chord')).toBe(true)
    const alone = choices.map(({ note: { under } }) => under === 'single')
    expect(alone.indexOf(true)).toBe(alone.lastIndexOf(false) + 1)
    expect(choicesUnder({ chart, melody, limits: LIMITS }, { bar: 9, beat: 1 }, null, null)).toEqual([])
  })
})

describe('moved', () => {
  test('elsewhere on the neck: each place keeps to its frets or strings, the easiest first', () => {
    const places = must(elsewhere({ chart, melody, limits: LIMITS }))
    expect(places.length).toBeGreaterThan(3)
    for (const { window, strings, line } of places)
      for (const {
        voicing: { frets },
      } of line.notes)
        frets.forEach((fret, string) => {
          if (fret && window) expect(fret >= window[0] && fret <= window[1]).toBe(true)
          if (fret !== null && strings) expect(strings).toContain(string)
        })
    const weight = (one: (typeof places)[number]) => one.effort + one.alone
    expect(places.map(weight)).toEqual([...places].map(weight).sort((a, b) => a - b))
    for (const { line, effort } of places) expect(effort).toBeCloseTo(handEffort(line.notes, LIMITS))
  })
  test('all twelve keys: the same degrees under the same degrees, moved by the semitones that are said', () => {
    const keys = must(keysRanked({ chart, melody: melody.slice(0, 4), limits: LIMITS }))
    expect(keys).toHaveLength(12)
    expect(new Set(keys.map(({ key: one }) => pitchClass(one.tonic))).size).toBe(12)
    for (const { semitones, octaves, line } of keys)
      expect(
        line.notes
          .filter(({ note: sung }) => sung)
          .map(({ voicing }) => lastOf(voicing.midis) - semitones - 12 * octaves),
      ).toEqual(melody.slice(0, 4).map((one) => midiOf(one.note)))
  })
  test('can be stopped with what was found', () => {
    expect(
      must(elsewhere({ chart, melody, limits: LIMITS, onProgress: (done) => done < 3 })).length,
    ).toBeGreaterThan(0)
    expect(keysRanked({ chart, melody, limits: LIMITS, onProgress: () => false })).toMatchObject({
      ok: false,
      fault: { code: 'stopped' },
    })
  })
})

describe('blocks', () => {
  test.each(['C', 'Eb', 'A', 'Gm', 'F#m'])(
    'sevenths of %s with each tone on top, in drop 2: diatonic, the note on top',
    (name) => {
      const sounds = scaleNotes(key(name)).map(pitchClass)
      for (const tone of [1, 3, 5, 7] as const) {
        const notes = scaleFrom(scaleNotes(key(name)), 4)
        const blocks = must(
          blockHarmonised(notes, { kind: 'sevenths', key: key(name), tone, family: 'drop 2' }, LIMITS),
        )
        blocks.forEach(({ voicing, chord: one, note: top }, at) => {
          expect(voicing.midis.at(-1)).toBe(midiOf(itemAt(notes, at)))
          for (const sound of voicing.midis) expect(sounds).toContain(sound % 12)
          // Lower than E4 no hand has drop 2 under a note: any layout is taken there.
          if (midiOf(itemAt(notes, at)) >= midi('E4')) expect(voicing.families).toContain('drop 2')
          expect(
            theOne(one.tones, ({ note: each }) => pitchClass(each) === pitchClass(top)).degree.replace(
              /[b#]/g,
              '',
            ),
          ).toBe(String(tone))
        })
      }
    },
  )
  test('the sixth-diminished scale takes every note, those between its steps on a passing diminished', () => {
    const notes = ['C5', 'C#5', 'D5', 'Eb5', 'E5'].map((one) => must(parsePitch(one)))
    const blocks = must(
      blockHarmonised(notes, { kind: 'sixth-diminished', chord: chord('C6'), family: null }, LIMITS),
    )
    expect(blocks.map(({ chord: one, kind }) => [one.suffix, kind])).toEqual([
      ['6', 'sixth-diminished step'],
      ['dim7', 'passing diminished'],
      ['dim7', 'sixth-diminished step'],
      ['dim7', 'passing diminished'],
      ['6', 'sixth-diminished step'],
    ])
  })
  test('fourths of the key: three steps of the scale between neighbours', () => {
    const scale = scaleNotes(key('C')).map(pitchClass)
    for (const {
      voicing: { midis },
    } of must(
      blockHarmonised(scaleFrom(scaleNotes(key('C')), 4), { kind: 'fourths', key: key('C') }, LIMITS),
    ))
      for (let at = 1; at < 3; at += 1)
        expect(
          modulo(scale.indexOf(itemAt(midis, at) % 12) - scale.indexOf(itemAt(midis, at - 1) % 12), 7),
        ).toBe(3)
  })
  test('a note no hand reaches says which', () => {
    expect(
      blockHarmonised(
        [must(parsePitch('C7'))],
        { kind: 'sevenths', key: key('C'), tone: 1, family: null },
        LIMITS,
      ),
    ).toMatchObject({ ok: false, fault: { message: expect.stringContaining('C7') } })
  })
})

describe('introductions and endings, in all keys', () => {
  const names = [
    'C',
    'Db',
    'D',
    'Eb',
    'E',
    'F',
    'F#',
    'G',
    'Ab',
    'A',
    'Bb',
    'B',
    'Am',
    'Cm',
    'F#m',
    'Bbm',
    'Ebm',
  ]
  test.each(names)('%s: chords that can be read, put into the chart as bars of it', (name) => {
    for (const end of endsOf(key(name))) {
      for (const bar of end.bars)
        for (const symbol of bar.split(' ')) expect(parseChord(symbol).ok).toBe(true)
      const made = parseChart(withEnd(`key: ${name}\n| ${name} | ${name} |`, end)!)
      expect(made.problems).toEqual([])
      expect(made.bars).toHaveLength(2 + end.bars.length)
      expect(end.why).toMatch(/\.$/)
    }
  })
  test('the worked case: I VI ii V in front of a tune in F; an upbeat is left alone', () => {
    const turnaround = theOne(endsOf(key('F')), (end) => end.name === 'turnaround')
    expect(turnaround.bars).toEqual(['Fmaj7 D7', 'Gm7 C7'])
    expect(withEnd('key: F\n[A] | F | C7 |', turnaround)).toBe(
      'key: F\n[Intro] | Fmaj7 D7 | Gm7 C7 |\n[A] | F | C7 |',
    )
    expect(withEnd('key: F\npickup: 1\n| C7 | F |', turnaround)).toBeNull()
  })
})

describe('notes put in', () => {
  test('cut what sounded into them and take the place of what began in their time', () => {
    expect(said(withNote(chart, melody, note(1, 1.5, 1, 'C5')))).toEqual([
      '1:1 E4 0.5',
      '1:1.5 C5 1',
      '1:3 G4 2',
      ...said(melody.slice(3)),
    ])
    expect(said(withRest(chart, melody, { bar: 1, beat: 2 }, 1))).toEqual([
      '1:1 E4 1',
      '1:3 G4 2',
      ...said(melody.slice(3)),
    ])
  })
  test('never sound together, and notes beyond the chart are kept', () => {
    const any = fc.record({ at: fc.integer({ min: 0, max: 63 }), length: fc.integer({ min: 1, max: 12 }) })
    fc.assert(
      fc.property(fc.array(any, { maxLength: 14 }), (list) => {
        const beyond = note(9, 1, 1, 'C5')
        const made = list.reduce<MelodyNote[]>(
          (all, { at, length }) =>
            withNote(chart, all, note(Math.floor(at / 16) + 1, (at % 16) / 4 + 1, length / 4, 'E4')),
          [beyond],
        )
        expect(made).toContainEqual(beyond)
        const sung = made
          .filter(({ bar }) => bar < 9)
          .map((one) => {
            const from = new Clock(chart).at(one)
            return { from, to: from + one.beats }
          })
        for (let at = 1; at < sung.length; at += 1)
          expect(itemAt(sung, at).from).toBeGreaterThanOrEqual(itemAt(sung, at - 1).to - 1e-6)
      }),
    )
  })
  test('a letter goes to the nearest octave and as the key has it; a half step is spelled by the way it goes', () => {
    expect(pitchName(pitchOfLetter(6, key('F'), must(parsePitch('C5'))))).toBe('Bb4')
    expect(pitchName(pitchOfLetter(2, key('C'), null))).toBe('E4')
    expect([
      pitchName(pitchNear(midi('F#4'), key('C'), true)),
      pitchName(pitchNear(midi('F#4'), key('C'), false)),
      pitchName(pitchNear(midi('F#4'), key('D'), false)),
    ]).toEqual(['F#4', 'Gb4', 'F#4'])
    expect(said(withChanged(melody, { bar: 1, beat: 2 }, () => null))).toEqual(
      said(melody.filter((_, at) => at !== 1)),
    )
  })
  test('what is played in time comes on the grid, and goes over what stood there', () => {
    const tap = (from: number, to: number, name: string) => ({ from, to, pitch: must(parsePitch(name)) })
    // 120 beats a minute: half a second is a beat; a little early and a little late.
    const played = playedIn(
      chart,
      { bar: 2, beat: 1 },
      [tap(-0.03, 0.45, 'C5'), tap(0.52, 0.7, 'D5'), tap(0.77, 0.99, 'E5'), tap(1.01, 2, 'F5')],
      120,
      4,
    )
    expect(said(played)).toEqual(['2:1 C5 1', '2:2 D5 0.5', '2:2.5 E5 0.5', '2:3 F5 2'])
    expect(said(withPassage(chart, melody, played)).slice(3, 7)).toEqual(said(played))
  })
  test('put on a grid begins on it and is never gone but for two on one place', () => {
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            fc.double({ min: 0, max: 15.9, noNaN: true }),
            fc.double({ min: 0.05, max: 3, noNaN: true }),
          ),
          { maxLength: 10 },
        ),
        fc.constantFrom(1, 2, 3, 4, 6),
        (list, grid) => {
          const notes = list.map(([at, beats]) => note(Math.floor(at / 4) + 1, (at % 4) + 1, beats, 'G4'))
          const on = quantised(chart, notes, grid as 4)
          const clock = new Clock(chart)
          for (const one of on)
            expect(Math.abs(clock.at(one) * grid - Math.round(clock.at(one) * grid))).toBeLessThan(1e-2)
          expect(new Set(on.map(({ bar, beat }) => `${bar}:${beat.toFixed(3)}`)).size).toBe(on.length)
        },
      ),
    )
  })
  test('the octave where the guitar sings', () => {
    expect(octavesToSing(byOctaves(melody, 2), LIMITS)).toBe(-2)
    expect(octavesToSing(melody, LIMITS)).toBe(0)
  })
})

describe('read', () => {
  test('phrases end at rests and after long notes, and where the player says', () => {
    const tune = [
      note(1, 1, 1, 'C5'),
      note(1, 2, 1, 'D5'),
      note(1, 3, 1, 'E5'),
      note(2, 2, 1, 'F5'),
      note(2, 3, 1, 'E5'),
      note(3, 1, 4, 'D5'),
      note(4, 1, 1, 'C5'),
    ]
    const starts = (moved = {}) => phrasesOf(chart, tune, moved).map(({ from }) => `${from.bar}:${from.beat}`)
    expect(starts()).toEqual(['1:1', '2:2', '4:1'])
    expect(starts({ '2:2': false, '1:3': true })).toEqual(['1:1', '1:3', '3:1'])
  })
  test('a note is named over its chord; one that fights gets remedies that take it, the smallest first', () => {
    const fighting = [note(1, 1, 2, 'F4'), note(1, 3, 2, 'C5'), note(2, 1, 4, 'G#4')]
    const readings = melodyReading(chart, analyse(chart), chordPlacesInTime(chart), fighting)
    expect(readings.map(({ degree, heard }) => [degree, heard])).toEqual([
      ['11', 'avoid'],
      ['1', 'chord tone'],
      ['7', 'sour'],
    ])
    for (const {
      remedies,
      note: { note: pitch },
    } of readings)
      for (const one of remedies)
        if ('symbol' in one)
          expect(['chord tone', 'tension']).toContain(heardOver(pitchClass(pitch), chord(one.symbol)))
    expect(firstOf(readings).remedies.map((one) => ('symbol' in one ? one.symbol : one.kind))).toContain(
      'Csus4',
    )
    for (const { heard, remedies } of readings)
      expect(remedies.length > 0).toBe(heard === 'avoid' || heard === 'sour')
    const passing = melodyReading(chart, analyse(chart), chordPlacesInTime(chart), [
      note(1, 1, 1, 'E4'),
      note(1, 2, 1, 'F4'),
      note(1, 3, 1, 'G4'),
    ])
    expect(itemAt(passing, 1).remedies[0]).toMatchObject({ kind: 'passing note' })
  })
  test('a jump of the hand is said with its seconds, and is gone at a slower tempo', () => {
    const far = firstOf(
      must(
        harmonise({
          chart,
          melody: [note(1, 1, 0.5, 'E4'), note(1, 1.5, 0.5, 'C6')],
          limits: { ...LIMITS, frets: [0, 20] },
          density: 'note',
          fixed: new Map([
            ['1:1', { frets: [null, 3, 2, 0, 1, 0], chord: chord('C') }],
            ['1:1.5', { frets: [null, null, null, null, null, 20], chord: null }],
          ]),
        }),
      ),
    )
    expect(
      troubles(far.notes, 160, LIMITS).some(({ kind, says }) => kind === 'jumpy' && / mm .* s\.$/.test(says)),
    ).toBe(true)
    expect(troubles(far.notes, 20, LIMITS).some(({ kind }) => kind === 'jumpy')).toBe(false)
  })
  test('notes are sung one at a time, inside the bars', () => {
    const sung = sungIn(new Clock(chart), [
      note(1, 1, 4, 'C5'),
      note(1, 2, 1, 'D5'),
      note(1, 2, 1, 'E5'),
      note(7, 1, 1, 'F5'),
    ])
    expect(sung.map(({ midi: sound, from, to }) => [sound, from, to])).toEqual([
      [midi('C5'), 0, 1],
      [midi('E5'), 1, 2],
    ])
  })
})
