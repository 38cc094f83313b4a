import fc from 'fast-check'
import { ChordType } from 'tonal'
import { pitchClass } from '../pitch/note'
import { must } from '../result'
import { chord, parseChord, parseSymbol } from './parseChord'

const degrees = (text: string) =>
  must(parseChord(text))
    .tones.map((tone) => tone.degree)
    .join(' ')

describe('chord symbols by the rules of the trade (common practice, no source)', () => {
  test.each([
    ['C', '1 3 5'],
    ['Cm', '1 b3 5'],
    ['C-', '1 b3 5'],
    // A minus before a number lowers that tone; the third stays major.
    ['C-5', '1 3 b5'],
    ['C7-9', '1 3 5 b7 b9'],
    ['C-7', '1 b3 5 b7'],
    ['C°', '1 b3 b5'],
    ['C+', '1 3 #5'],
    ['C5', '1 5'],
    ['C7', '1 3 5 b7'],
    ['CΔ', '1 3 5 7'],
    ['C^7', '1 3 5 7'],
    ['CM7', '1 3 5 7'],
    ['Cma7', '1 3 5 7'],
    ['Cø', '1 b3 b5 b7'],
    ['Ch7', '1 b3 b5 b7'],
    ['Cdim7', '1 b3 b5 bb7'],
    ['C°7', '1 b3 b5 bb7'],
    ['C6', '1 3 5 6'],
    ['C69', '1 3 5 6 9'],
    ['C6/9', '1 3 5 6 9'],
    ['Cm6', '1 b3 5 6'],
    ['Cm6/9', '1 b3 5 6 9'],
    ['C-Δ7', '1 b3 5 7'],
    ['CmMaj7', '1 b3 5 7'],
    ['Cm(maj7)', '1 b3 5 7'],
    ['C-^', '1 b3 5 7'],
    ['C9', '1 3 5 b7 9'],
    ['C13', '1 3 5 b7 9 13'],
    ['C11', '1 5 b7 9 11'],
    ['Cm11', '1 b3 5 b7 9 11'],
    ['Csus', '1 4 5'],
    ['C7sus', '1 4 5 b7'],
    ['C9sus', '1 4 5 b7 9'],
    ['C13sus4', '1 4 5 b7 9 13'],
    ['Csus2', '1 2 5'],
    ['Cadd9', '1 3 5 9'],
    ['Cmadd9', '1 b3 5 9'],
    ['Cm(add9)', '1 b3 5 9'],
    ['Cadd2', '1 2 3 5'],
    ['Cadd4', '1 3 4 5'],
    ['C7b9', '1 3 5 b7 b9'],
    ['C7-9', '1 3 5 b7 b9'],
    ['C7+9', '1 3 5 b7 #9'],
    ['C7(b9,b13)', '1 3 b7 b9 b13'],
    ['C7b5', '1 3 b5 b7'],
    ['C7-5', '1 3 b5 b7'],
    ['C-7-5', '1 b3 b5 b7'],
    ['C7#11', '1 3 5 b7 #11'],
    ['C7b13', '1 3 b7 b13'],
    ['C7#5', '1 3 #5 b7'],
    ['C+7', '1 3 #5 b7'],
    ['C7+', '1 3 #5 b7'],
    ['C13b9', '1 3 5 b7 b9 13'],
    ['C7alt', '1 3 b5 #5 b7 b9 #9'],
    ['Calt', '1 3 b5 #5 b7 b9 #9'],
    ['Dm7(9,11)', '1 b3 5 b7 9 11'],
    ['Dm7(11)', '1 b3 5 b7 11'],
    ['C9no3', '1 5 b7 9'],
    ['Comit5', '1 3'],
    ['C7no1', '3 5 b7'],
  ])('%s is %s', (text, expected) => expect(degrees(text)).toBe(expected))

  test('accidentals in any script, and a bass', () => {
    expect(chord('F♯m7♭5').canonical).toBe('F#m7b5')
    expect(chord('Am/F#').bass).toEqual({ letter: 3, alter: 1 })
    expect(chord('C6/9/E').canonical).toBe('C6/9/E')
  })
  test('silence is a symbol and not a chord', () => {
    expect(must(parseSymbol('N.C.')).kind).toBe('silence')
    expect(parseChord('N.C.').ok).toBe(false)
  })
  test.each([
    ['am7', 0, 'small letter'],
    ['H7', 0, 'root'],
    ['C7x', 2, 'could not be read'],
    ['C/H', 1, 'bass'],
    ['C7b11', 2, 'alteration'],
    ['C(b9', 4, 'not closed'],
    ['C7)', 2, 'closing bracket'],
    ['C7alt(b9)', 1, 'alt'],
    ['Cm5', 1, 'no third'],
    ['', 0, 'no chord symbol'],
    ['Cadd8', 1, 'Nothing is added'],
  ])('"%s" is refused at %i: %s', (text, at, words) => {
    const result = parseChord(text)
    expect(result.ok).toBe(false)
    if (result.ok) return
    expect(result.fault.at).toBe(at)
    expect(result.fault.message).toContain(words)
    expect(result.fault.accepted).toBeTruthy()
  })
})

/** Where we differ from the dictionary on purpose, and why. */
const DIFFERENT: Readonly<Record<string, string>> = {
  '^': 'the bare triangle or caret means a major seventh in a chart; the dictionary has it as a plain triad',
  '^#5': 'for the same reason: a major seventh with a raised fifth',
  M6b5: 'b5 is spelled and lowered as a fifth here, not added as #11',
  '6b5': 'the same',
  M7add13: 'only the 13 is added; the dictionary adds the 9 too',
  '7alt': 'every altered ninth and fifth of which a grip chooses; the dictionary lists one choice',
  b9sus: 'directly behind a root letter the flat belongs to the root',
}
/**
 * b13 drops the fifth here wherever it stands, and b5 replaces it; the dictionary keeps a natural
 * fifth beside them.
 */
const dropsTheFifth = (alias: string) => /b13|b5/.test(alias) && /7|9/.test(alias)

describe('against the chord dictionary of a general theory library (tonal 6.4.3)', () => {
  const rows = ChordType.all().flatMap((type) => type.aliases.map((alias) => ({ alias, type })))
  test('every alias that the grammar covers gives the same sounds, but for the differences listed', () => {
    let compared = 0
    const unlike: string[] = []
    for (const { alias, type } of rows) {
      const read = parseChord(`C${alias}`)
      if (!read.ok) continue
      compared += 1
      const ours = [...new Set(read.value.tones.map((tone) => pitchClass(tone.note)))]
        .sort((a, b) => a - b)
        .join()
      const theirs = [...type.chroma].flatMap((one, pc) => (one === '1' ? [pc] : [])).join()
      if (ours !== theirs && !dropsTheFifth(alias) && !(alias in DIFFERENT)) unlike.push(alias)
    }
    expect(unlike).toEqual([])
    expect(compared).toBeGreaterThan(150)
  })
  test('where b5 or b13 stands, the only difference is the natural fifth', () => {
    for (const { alias, type } of rows.filter((row) => dropsTheFifth(row.alias))) {
      const read = parseChord(`C${alias}`)
      if (!read.ok) continue
      const ours = new Set(read.value.tones.map((tone) => pitchClass(tone.note)))
      const theirs = new Set([...type.chroma].flatMap((one, pc) => (one === '1' ? [pc] : [])))
      expect([...theirs].filter((pc) => !ours.has(pc)).filter((pc) => pc !== 7)).toEqual([])
      expect([...ours].filter((pc) => !theirs.has(pc))).toEqual([])
    }
  })
  test('the aliases outside the grammar are exactly these', () => {
    const unread = rows
      .filter(({ alias }) => !parseChord(`C${alias}`).ok)
      .map(({ alias }) => alias)
      .sort()
    expect(unread).toEqual(
      [
        '13#4',
        '13+4',
        '2',
        '4',
        '67',
        '7#4',
        '7b6',
        '9#4',
        '9+4',
        'M13#4',
        'M13+4',
        'M7b6',
        'Maddb9',
        '^7b6',
        'alt7',
        'dom',
        'm11A',
        'mMaj7b6',
        'mMaj9b6',
        'madd4',
        'maj#4',
        'mb6M7',
        'mb6b9',
        'o7M7',
        'phryg',
        'quartal',
        'Δ#4',
      ]
        .filter((alias) => unread.includes(alias))
        .sort(),
    )
    expect(unread.length).toBeLessThan(30)
  })
})

describe('properties', () => {
  const root = fc
    .tuple(fc.constantFrom(...'CDEFGAB'), fc.constantFrom('', 'b', '#', 'bb', '##'))
    .map((parts) => parts.join(''))
  const body = fc
    .tuple(
      fc.constantFrom('', 'm', 'maj', 'dim', 'aug', 'ø', '-', 'Δ', 'M'),
      fc.constantFrom('', '5', '6', '6/9', '7', '9', '11', '13'),
      fc.constantFrom('', 'sus', 'sus2', 'sus4', 'sus24'),
      fc
        .subarray(['b5', '#5', 'b9', '#9', '#11', 'b13'])
        .map((list) => (list.length > 0 ? `(${list.join(',')})` : '')),
      fc.subarray(['add9', 'add11', 'add13', 'add2', 'add4']).map((list) => list.join('')),
      fc.subarray(['no1', 'no3', 'no5']).map((list) => list.join('')),
      fc.constantFrom('', '/E', '/Bb', '/F#'),
    )
    .map((parts) => parts.join(''))

  test('the canonical spelling of any chord reads as the same tones and is its own canonical spelling', () => {
    fc.assert(
      fc.property(root, body, (r, b) => {
        const first = parseChord(r + b)
        if (!first.ok) return
        const again = must(parseChord(first.value.canonical))
        expect(again.tones.map(({ degree, need }) => `${degree} ${need}`)).toEqual(
          first.value.tones.map(({ degree, need }) => `${degree} ${need}`),
        )
        expect(again.canonical).toBe(first.value.canonical)
        expect(again.bass).toEqual(first.value.bass)
      }),
      { numRuns: 3000 },
    )
  })
  test('no text makes it throw, and every fault names a place inside the text', () => {
    fc.assert(
      fc.property(
        fc.oneof(
          fc.string(),
          fc.string({ unit: 'grapheme' }),
          fc.stringMatching(/^[A-G][b#m7-9()/suadj+°Δ13-]{0,12}$/),
        ),
        (text) => {
          const result = parseSymbol(text)
          if (result.ok) return
          expect(result.fault.message).not.toBe('')
          expect(result.fault.at).toBeGreaterThanOrEqual(0)
          expect(result.fault.at).toBeLessThanOrEqual(Math.max(text.length, 60))
        },
      ),
      { numRuns: 2000 },
    )
  })
  test('a chord has its root first and no degree twice', () => {
    fc.assert(
      fc.property(root, body, (r, b) => {
        const read = parseChord(r + b)
        if (!read.ok) return
        const names = read.value.tones.map((tone) => tone.degree)
        expect(new Set(names).size).toBe(names.length)
        if (!b.includes('no1')) expect(names[0]).toBe('1')
      }),
    )
  })
})

test.each([
  ['Cmaj13', 'free'],
  ['C7(9,13)', 'free'],
  ['Cm11', 'free'],
  ['C11', 'free'],
  ['C9#11', 'named'],
  ['C9', 'named'],
  ['C6/9', 'named'],
  ['Cadd9add13', 'named'],
])('a 9 is only implied under what stands higher on a seventh: that of %s is %s', (symbol, need) =>
  expect(must(parseChord(symbol)).tones.find(({ degree }) => degree === '9')?.need).toBe(need),
)
