import { firstOf, itemAt, theOne } from '../lists'
import fc from 'fast-check'
import { Note as TonalNote } from 'tonal'
import { analyse } from '../analysis/analyse'
import { slotsOf } from '../chart/chart'
import { parseChart } from '../chart/parseChart'
import { transposeText } from '../chart/transpose'
import { chord, parseChord } from '../chord/parseChord'
import { parseKey } from '../pitch/key'
import { noteName, parsePitch, pitchClass } from '../pitch/note'
import { must } from '../result'
import { applyChanges } from './apply'
import { INTENTS } from './change'
import { distanceFrom, fifthsBetween, reachOf } from './distance'
import { heardOver } from './melodyFit'
import { optionsAt } from './options'
import { reharmonise } from './reharmonise'
import { RULES } from './ruleNames'

const KEYS = ['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'Db', 'Ab', 'Eb', 'Bb', 'F']
const inKey = (text: string, key: string) => transposeText(text, must(parseKey('C')), must(parseKey(key)))
const sounds = (symbol: string) => chord(symbol).tones.map((tone) => pitchClass(tone.note))
/** Results of a rule at one chord, as symbols with beats. */
const by = (rule: string, text: string, index: number) =>
  optionsAt(text, index, { rules: [rule] }).map((option) =>
    option.puts
      .map((put) => (put.beats === 4 ? put.chord.canonical : `${put.chord.canonical}*${put.beats}`))
      .join(' '),
  )

describe('substitutions that players know by heart, in all twelve keys', () => {
  const TWO_FIVE = 'key: C\n| Dm7 | G7 | Cmaj7 | Cmaj7 |'
  test.each(KEYS)('%s', (key) => {
    const text = inKey(TWO_FIVE, key)
    const [two, five, one] = slotsOf(parseChart(text)).map((slot) => slot.text) as [string, string, string]
    const root = (symbol: string) => noteName(chord(symbol).root)
    // Tritone pairs (Levine, The Jazz Theory Book, from memory): same third and seventh, a half
    // step above the I (tonal 6.4.3 for the interval).
    const [sub] = by('b1', text, 1)
    expect(TonalNote.chroma(root(sub!))).toBe(TonalNote.chroma(TonalNote.transpose(root(five), '4A')))
    const guides = (symbol: string) =>
      chord(symbol)
        .tones.filter((tone) => ['3', 'b7'].includes(tone.degree))
        .map((tone) => pitchClass(tone.note))
        .sort()
    expect(guides(sub!)).toEqual(guides(five))
    // The four diminished sevenths of one V7b9 have the same four sounds: 3 5 b7 b9 of the V
    // (Levine, from memory).
    const [symmetric] = optionsAt(text, 1, { rules: ['b3'] })
    const family = [firstOf(symmetric!.puts).chord.canonical, ...symmetric!.basses]
    expect(family).toHaveLength(4)
    for (const one of family)
      expect(new Set(sounds(one))).toEqual(
        new Set(sounds(`${root(five)}7b9`).filter((sound) => sound !== pitchClass(chord(five).root))),
      )
    // The augmented triads on the root, third and raised fifth are one chord (common practice).
    for (const one of by('b4', text, 1))
      expect(new Set(sounds(one))).toEqual(new Set(sounds(`${root(five)}aug`)))
    // Backdoor, and the iv6 in it (Mulholland & Hojnacki, The Berklee Book of Jazz Harmony, from
    // memory).
    const [backdoor, fourSix] = by('b5', text, 1)
    expect(pitchClass(chord(backdoor!).root)).toBe((pitchClass(chord(one).root) + 10) % 12)
    expect(sounds(fourSix!).every((sound) => sounds(`${root(backdoor!)}9`).includes(sound))).toBe(true)
    // Relative and mediant swaps of I share at least three tones with Imaj9 or I6 (Nettles & Graf,
    // from memory).
    for (const swap of by('b2', text, 2))
      expect(
        sounds(swap).filter((sound) =>
          [...sounds(`${root(one)}maj9`), ...sounds(`${root(one)}6`)].includes(sound),
        ).length,
      ).toBeGreaterThanOrEqual(3)
    // The ii and the V for one another (Dm7, G7sus, G7: common practice).
    expect(by('b7', text, 0)).toEqual([`${root(five)}7`, `${root(five)}7sus4`])
    expect(by('b7', text, 1)).toEqual([two])
    expect(by('d1', text, 0)).toEqual([`${root(two)}7`])
    expect(by('d2', text, 0)).toEqual([`${root(two)}m7b5`])
  })
})

describe('what is put in, where, and where not (common practice unless a source is named)', () => {
  test.each([
    [
      'its ii before a dominant, half the time each',
      'c1',
      'key: C\n| C | A7 | Dm7 | G7 |',
      1,
      ['Em7b5*2 A7*2'],
    ],
    ['no ii where it stands already', 'c1', 'key: C\n| Dm7 | G7 | C |', 1, []],
    [
      'a dominant on the way',
      'c2',
      'key: C\n| C | Am7 | F | C |',
      0,
      ['C*2 E7*2', 'C*2 Bb7*2', 'C*2 B7*1 E7*1', 'C*2 Bm7b5*1 E7*1'],
    ],
    ['the shape from above and below', 'c3', 'key: C\n| C | Dm7 | G7 |', 0, ['C*3 Ebm7*1', 'C*3 C#m7*1']],
    ['passing diminished up', 'c4', 'key: C\n| C | Dm7 | G7 |', 0, ['C*2 C#dim7*2']],
    ['passing diminished down', 'c4', 'key: C\n| Em7 | Dm7 | G7 |', 0, ['Em7*2 Ebdim7*2']],
    ['not between chords a fourth apart', 'c4', 'key: C\n| C | F | C |', 0, []],
    ['only the bass rises', 'c5', 'key: C\n| C | Dm7 | G7 |', 0, ['Cmaj7*2 C#m7b5*2']],
    [
      'turnarounds on a last I',
      'c6',
      'key: C\n| Dm7 | G7 | Cmaj7 |',
      2,
      [
        // The last I is an arrival: those that begin on it come first.
        'Cmaj7*1 A7*1 Dm7*1 G7*1',
        'Cmaj7*1 Ebmaj7*1 Abmaj7*1 Dbmaj7*1',
        'Em7*1 A7*1 Dm7*1 G7*1',
        'Em7*1 Eb7*1 Dm7*1 Db7*1',
      ],
    ],
    ['a ii-V from a half step above', 'd3', 'key: C\n| Dm7 | G7 | C |', 0, ['Ebm7*2 Ab7*2 Dm7*2 G7*2']],
    [
      'major thirds over a long ii-V-I',
      'b9',
      'key: C\nmeter: 4/4\n| Dm7 | G7 | Cmaj7 . . . | % |',
      0,
      ['Dm7*2 Eb7*2 Abmaj7*1 B7*1 Emaj7*1 G7*1 Cmaj7'],
    ],
    [
      'minor line cliché',
      'e4',
      'key: Am\n| Am | % | F | E7 |',
      0,
      ['Am*1 Am(maj7)*1 Am7*1 Am6*1', 'Am*1 Am(b13)*1 Am6*1 Am(b13)*1'],
    ],
    ['sixth-diminished', 'e6', 'key: C\n| C | % | F | G7 |', 0, ['C6*1 Ddim7*1 C6/E*1 Fdim7*1']],
    ['nothing standing, no texture', 'e4', 'key: Am\n| Am | F | E7 |', 0, []],
    ['the related ii goes', 'f1', 'key: C\n| Dm7 | G7 | C |', 0, ['G7*8']],
  ])('%s: %s in %j', (_, rule, text, index, expected) => expect(by(rule, text, index)).toEqual(expected))
  test('a tritone substitute only where the dominant resolves; altered likewise; m6 on ii and not on vi', () => {
    expect(by('b1', 'key: C\n| C | G7 | F | C |', 1)).toEqual([])
    expect(by('a4', 'key: C\n| C | G7 | F | C |', 1)).toEqual([])
    expect(by('a2', 'key: C\n| Dm | G7 | C |', 0)).toContain('Dm6')
    expect(by('a2', 'key: C\n| C | Am | F | C |', 1)).not.toContain('Am6')
  })
  test('three beats for two chords are two and one', () =>
    expect(by('c1', 'key: C\nmeter: 3/4\n| C | A7 | Dm7 | G7 |', 1)).toEqual(['Em7b5*2 A7*1']))
  test('no room, no insertion', () =>
    expect(by('c1', 'key: C\nmeter: 4/4\n| C C A7 Dm7 | G7 |', 2)).toEqual([]))
  test('two ways to one result are told once, with both reasons', () => {
    const backdoor = theOne(
      optionsAt('key: C\n| Dm7 | G7 | Cmaj7 |', 1),
      (option) => firstOf(option.puts).chord.canonical === 'Bb7',
    )
    expect([backdoor.rule, ...backdoor.also.map((other) => other.rule)]).toEqual([
      'backdoor-dominant',
      'flat-vii',
    ])
  })
  test('rules on top of rules: a substitute gets its own ii, a swap its own colour', () => {
    const deep = optionsAt('key: C\n| Dm7 | G7 | Cmaj7 |', 1, { depth: 2 })
    const texts = deep.map((option) => option.puts.map((put) => put.chord.canonical).join(' '))
    expect(texts).toContain('Abm7 Db7')
    expect(texts).toContain('Db9#11')
    expect(deep.length).toBeGreaterThan(optionsAt('key: C\n| Dm7 | G7 | Cmaj7 |', 1).length)
  })
})

describe('measures', () => {
  test('steps on the circle of fifths', () => {
    expect([0, 7, 2, 9, 4, 11, 6, 1, 8, 3, 10, 5].map((sound) => fifthsBetween(0, sound))).toEqual([
      0, 1, 2, 3, 4, 5, 6, 5, 4, 3, 2, 1,
    ])
  })
  test('distance from home is 0 for I, grows with tones outside and with fifths, and is counted by time', () => {
    const key = must(parseKey('C'))
    const far = (...symbols: string[]) =>
      distanceFrom(
        symbols.map((symbol) => ({ chord: chord(symbol), beats: 2 })),
        key,
      )
    expect(far('Cmaj7')).toEqual({ total: 0, tones: 0, root: 0 })
    expect(far('Db7')).toEqual({
      total: expect.closeTo((0.7 * 2) / 4 + (0.3 * 5) / 6, 6) as number,
      tones: 2,
      root: 5,
    })
    expect(far('C', 'Db7').total).toBeCloseTo(far('Db7').total / 2, 6)
    expect(reachOf([{ chord: chord('C'), beats: 4 }], [{ chord: chord('C'), beats: 4 }], key)).toBe(0)
  })
  test.each([
    ['E4', 'C7', 'chord tone'],
    ['D4', 'C7', 'tension'],
    ['F4', 'Cmaj7', 'avoid'],
    ['Db4', 'C7', 'tension'],
    ['Db4', 'Cmaj7', 'sour'],
    ['F4', 'Dm7', 'chord tone'],
    ['B3', 'Dm7', 'tension'],
    ['Eb4', 'Dm7', 'sour'],
    ['Ab4', 'C', 'sour'],
  ])('%s over %s is a %s (Nettles & Graf, from memory)', (note, symbol, heard) => {
    expect(heardOver(pitchClass(must(parsePitch(note))), chord(symbol))).toBe(heard)
  })
  test('an option says how every melody note over it is heard', () => {
    const melody = [
      { bar: 2, beat: 1, beats: 2, note: must(parsePitch('B4')) },
      { bar: 2, beat: 3, beats: 2, note: must(parsePitch('D5')) },
      { bar: 3, beat: 1, beats: 4, note: must(parsePitch('C5')) },
    ]
    const options = optionsAt('key: C\n| Dm7 | G7 | Cmaj7 |', 1, { melody })
    const heard = (symbol: string) =>
      theOne(
        options,
        (option) => firstOf(option.puts).chord.canonical === symbol && option.puts.length === 1,
      ).melody.map((one) => `${one.note} ${one.heard}`)
    expect(heard('G9')).toEqual(['B4 chord tone', 'D5 chord tone'])
    expect(heard('Db7')).toEqual(['B4 chord tone', 'D5 avoid'])
    expect(heard('Bb7')).toEqual(['B4 avoid', 'D5 chord tone'])
  })
})

const tune = fc
  .tuple(
    fc.constantFrom('C', 'Am', 'Eb', 'F#m'),
    fc.constantFrom('4/4', '3/4', '6/8'),
    fc.array(
      fc.constantFrom(
        'C',
        'Am',
        'Dm7',
        'G7',
        'E7 Am',
        'Fm',
        'Bb7',
        'Bm7b5 E7',
        'C#dim',
        'Eb',
        'D',
        'Gsus4',
        'C+',
        '%',
        'Dm9 . G7b9',
        'F/A',
        'A5',
        'Am(maj7)',
        'N.C.',
        'what',
        'C_G7 . . .',
        '|: C',
        'F :',
      ),
      { minLength: 1, maxLength: 12 },
    ),
  )
  .map(([key, meter, chords]) => `title: Kept\nkey: ${key}\nmeter: ${meter}\n[A] | ${chords.join(' | ')} |`)
/** Lengths of the bars, and all that is not a chord. */
const frame = (text: string) =>
  parseChart(text).bars.map((bar) => [
    bar.beats,
    bar.section,
    bar.opensRepeat,
    bar.played,
    Number(bar.slots.reduce((sum, slot) => sum + slot.beats, 0).toFixed(6)),
  ])

describe('whatever is chosen', () => {
  test('bars keep their length, every result parses, every reason names a chord that is there, the rest stays', () => {
    fc.assert(
      fc.property(tune, fc.nat(11), fc.integer({ min: 1, max: 2 }), (text, at, depth) => {
        const before = slotsOf(parseChart(text))
        for (const option of optionsAt(text, Math.min(at, before.length - 1), { depth })) {
          const after = applyChanges(text, [option])
          expect(frame(after)).toEqual(frame(text))
          expect(INTENTS).toContain(option.intent)
          for (const put of option.puts) expect(parseChord(put.chord.canonical).ok).toBe(true)
          const named = [
            ...option.puts.map((put) => put.chord.canonical),
            ...[...before, firstOf(before)]
              .slice(option.index, option.index + option.span + 1)
              .map((slot) => (slot.symbol?.kind === 'chord' ? slot.symbol.chord.canonical : slot.text)),
          ]
          // On a second level the reason goes by way of the chord in between.
          if (
            option.depth === 1 &&
            option.intent !== 'colour' &&
            !named.some((symbol) => option.why.includes(symbol))
          )
            throw new Error(`${option.rule} ${named.join(' ')}: ${option.why}`)
          expect(option.puts.reduce((sum, put) => sum + put.beats, 0)).toBeCloseTo(
            before.slice(option.index, option.index + option.span).reduce((sum, slot) => sum + slot.beats, 0),
            6,
          )
          expect(option.reach).toBeGreaterThanOrEqual(0)
          expect(option.distance.total).toBeLessThanOrEqual(1)
          // Other chords sound where they sounded.
          const others = (slots: typeof before, from: number, to: number) =>
            slots
              .filter((slot) => slot.bar < from || slot.bar > to)
              .map((slot) => [slot.bar, slot.text, slot.beats])
          const [first, last] = [
            itemAt(before, option.index).bar,
            itemAt(before, option.index + option.span - 1).bar,
          ]
          expect(others(slotsOf(parseChart(after)), first, last)).toEqual(others(before, first, last))
        }
      }),
      { numRuns: 30 },
    )
  })
  test('no changes is the plain chart, letter for letter', () => {
    fc.assert(fc.property(tune, (text) => expect(applyChanges(text, [])).toBe(text)))
  })
  test('every rule of the catalogue can happen', () => {
    const texts = [
      'key: C\n| C | % | Am7 | Dm7 | G7 | Cmaj7 | A7 | Dm7 | Em7 | F | G7 | C |',
      'key: Am\n| Am | % | Bm7b5 | E7 | Am | Am(maj7) | G9 |',
      'key: C\n| Am | % | G7 | C | Dm7 | Cmaj7 | Dm7 |',
      'key: Am\n| Am | Em | Am |',
    ]
    const seen = new Set(
      texts.flatMap((text) =>
        slotsOf(parseChart(text)).flatMap((_, index) =>
          optionsAt(text, index).flatMap((option) => [
            option.name,
            ...option.also.map((other) => other.name),
          ]),
        ),
      ),
    )
    expect(RULES.map((rule) => rule.name).filter((name) => !seen.has(name))).toEqual([])
  })
})

describe('the whole tune', () => {
  const text =
    'key: C\n| Cmaj7 | A7 | Dm7 | G7 | Em7 | A7 | Dm7 | G7 |\n| Fmaj7 | Fm6 | Cmaj7 | A7 | Dm7 | G7 | Cmaj7 | % |'
  test('distance 0 is the plain chart; the wanted distance is met where the rules allow it', () => {
    expect(reharmonise(text, { distance: 0, count: 3 })).toEqual([
      {
        text,
        distance: 0,
        reached: true,
        says: 'as it is',
        idea: 'as it is',
        farthest: null,
        faults: [],
        changes: [],
      },
    ])
    for (const distance of [0.2, 0.4, 0.6])
      for (const result of reharmonise(text, { distance, count: 3 }))
        expect(Math.abs(result.distance - distance)).toBeLessThan(0.05)
  })
  test('the wanted distance is met however long and dense the tune is', () => {
    const dense = `meter: 5/4\n| ${Array.from({ length: 64 }, (_, at) => ['F#m9 B13b9', 'Emaj9#11 N.C.', 'A6/9 G#7#9', 'Bsus E+', 'Cdim7 F#5', 'Amaj7/C# D#m7b5'][(at * 5) % 6]).join(' | ')} |`
    for (const distance of [0.15, 0.4, 0.7])
      expect(Math.abs(firstOf(reharmonise(dense, { distance })).distance - distance)).toBeLessThan(0.03)
  })
  test('the same seed gives the same, another seed another, and several results differ', () => {
    const texts = (seed: number) =>
      reharmonise(text, { distance: 0.4, count: 4, seed }).map((result) => result.text)
    expect(texts(7)).toEqual(texts(7))
    expect(texts(7)).not.toEqual(texts(8))
    expect(new Set(texts(7)).size).toBe(4)
  })
  test('bars keep their length, changes do not overlap, what is led to comes, and kept chords stay', () => {
    fc.assert(
      fc.property(tune, fc.double({ min: 0.05, max: 1, noNaN: true }), fc.nat(9), (chart, distance, seed) => {
        const before = slotsOf(parseChart(chart))
        const keep = new Set([0, 3])
        for (const result of reharmonise(chart, { distance, seed, count: 2, keep })) {
          expect(frame(result.text)).toEqual(frame(chart))
          const touched = result.changes.flatMap((change) =>
            Array.from({ length: change.span }, (_, at) => change.index + at),
          )
          expect(new Set(touched).size).toBe(touched.length)
          expect(touched.some((index) => keep.has(index))).toBe(false)
          for (const change of result.changes) {
            if (change.landsOn === null) continue
            // Behind the last chord the form begins again.
            const goal = (change.index + change.span) % before.length
            const behind = result.changes.find((other) => other.index === goal)
            const symbol = before[goal]?.symbol
            const next = behind?.puts[0]?.chord ?? (symbol?.kind === 'chord' ? symbol.chord : null)
            expect(next && pitchClass(next.root)).toBe(change.landsOn)
          }
          expect(result.changes.length === 0 ? result.text : chart).toBe(chart)
        }
      }),
      { numRuns: 25 },
    )
  })
  test('a melody keeps sour chords away where there is another way', () => {
    const melody = slotsOf(parseChart(text)).map((slot) => ({
      bar: slot.bar,
      beat: 1,
      beats: 4,
      note: must(parsePitch('C5')),
    }))
    for (const { text: result } of reharmonise(text, { distance: 0.3, count: 2, melody })) {
      const plainSour = slotsOf(parseChart(text)).filter(
        (slot) => slot.symbol?.kind === 'chord' && heardOver(0, slot.symbol.chord) === 'sour',
      ).length
      expect(
        slotsOf(parseChart(result)).filter(
          (slot) =>
            slot.beat === 1 && slot.symbol?.kind === 'chord' && heardOver(0, slot.symbol.chord) === 'sour',
        ).length,
      ).toBeLessThanOrEqual(plainSour)
    }
  })
  test('it can be stopped with what was found', () => {
    expect(reharmonise(text, { distance: 0.5, count: 5, onProgress: (done) => done < 2 })).toHaveLength(2)
    expect(
      analyse(parseChart(firstOf(reharmonise(text, { distance: 0.5 })).text)).readings.length,
    ).toBeGreaterThan(10)
  })
})
