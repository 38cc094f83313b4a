import { theOne } from '../lists'
import { parseChart } from '../chart/parseChart'
import { keyName } from '../pitch/key'
import { analyse } from './analyse'
import { formInWords, formSentence } from './formWords'

const read = (text: string) => analyse(parseChart(text))
const groups = (text: string) =>
  read(text).groups.map(
    ({ kind, key, from, to, resolves, atTop }) =>
      `${kind} ${keyName(key)} ${from.bar}-${to.bar}${resolves ? '' : ' open'}${atTop ? ' top' : ''}`,
  )
const form = (text: string) => {
  const chart = parseChart(text)
  return formSentence(formInWords(chart, analyse(chart)))
}

describe('groups (common practice, no source)', () => {
  test.each([
    ['key: C\n| Dm7 | G7 | C |', ['ii-V-I C 1-3']],
    ['key: C\n| C | Dm7 | G7 |', ['ii-V C 2-3 open top']],
    ['key: C\n| Dm7 | Db7 | C |', ['substituted ii-V C 1-3']],
    ['key: C\n| C | Fm7 Bb7 | C | Bb7 | C |', ['backdoor C 2-3', 'backdoor C 4-5']],
    ['key: C\n| C | F | C |', ['plagal cadence C 2-3']],
    ['key: C\n| C | F | G | C |', ['authentic cadence C 3-4']],
    ['key: C\n| C | G7 | Am | F |', ['deceptive cadence C 2-3 open']],
    [
      'key: C\n[A] | C | F | G |\n[B] | Am | F | C | C |',
      ['half cadence C 2-3 open', 'plagal cadence C 5-6'],
    ],
    ['key: C\n| C C#°7 | Dm7 Dm7 | F | C |', ['passing diminished C 1-2', 'plagal cadence C 3-4']],
    ['key: C\n| E7 | A7 | D7 | G7 | C |', ['dominant chain C 1-5', 'authentic cadence C 4-5']],
    ['key: Am\n| Am Am(maj7) | Am7 Am6 | F |', ['line cliché Am 1-2']],
    ['key: Am\n| Am Am/G# | Am/G Am/F# | F |', ['line cliché Am 1-2']],
    ['key: C\n| C C+ | C6 C7 | F |', ['line cliché C 1-2']],
    [
      'key: C\n| Em7 A7 | Dm7 G7 | Cm7 F7 | Bb |',
      ['minor ii-V Dm 1-2', 'ii-V chain Bb 1-4', 'turnaround C 1-2', 'minor ii-V Cm 2-3', 'ii-V-I Bb 3-4'],
    ],
  ])('%j: %j', (text, expected) => expect(groups(text)).toEqual(expect.arrayContaining(expected)))

  test('a chord that only shares roots is no line cliché, and far dominants are no chain', () => {
    expect(groups('key: C\n| C Cm | C | C7 C13 |').join()).not.toContain('line')
    expect(groups('key: C\n| E7 | G7 | C |').join()).not.toContain('chain')
  })
  test('a blues is twelve bars with its IV in the fifth', () => {
    const blues = (fifth: string) =>
      groups(`key: C\n| C7 | F7 | C7 | % | ${fifth} | % | C7 | % | G7 | F7 | C7 | G7 |`).join()
    expect(blues('F7')).toContain('blues form C 1-12')
    expect(blues('Am7')).not.toContain('blues')
  })
  test('every reason names a chord of the group', () => {
    for (const { why, kind } of read(
      'key: C\n| Em7 A7 | Dm7 G7 | C C#°7 | Dm7 Db7 | C | Fm7 Bb7 | C | G7 | Am | F | C |',
    ).groups)
      expect(`${kind}: ${why}`).toMatch(/[A-G][b#]?(m|7|°|dim)?/)
  })
  test('groups go on over a repeat sign as they are played, and stand where they are written', () => {
    // Behind the first ending comes the beginning again, so the ii-V in it lands.
    const found = read('key: C\n|: C | Am7 |1. Dm7 | G7 :|2. F | C |')
    expect(found.groups.find((group) => group.kind === 'ii-V-I')).toMatchObject({
      from: { bar: 3 },
      to: { bar: 4 },
      resolves: true,
    })
    expect(found.readings.map((reading) => reading.roman)).toEqual(['I', 'vi7', 'ii7', 'V7', 'IV', 'I'])
  })
})

describe('keys of a tune', () => {
  const regions = (text: string) =>
    read(text).regions.map(({ key, from, to }) => `${keyName(key)} ${from.bar}-${to.bar}`)
  test.each([
    ['key: C\n| C | Gm7 C7 | F | Dm7 G7 | C |', ['C 1-5']],
    ['key: C\n| C | Am | Dm | G7 | E | F#m7 B7 | E | B7 | E | Dm7 G7 | C |', ['C 1-4', 'E 5-9', 'C 10-11']],
    ['key: C\n| C | Am | Dm | G7 |\nkey: Ab\n| Ab | Fm | Bbm7 | Eb7 |', ['C 1-4', 'Ab 5-8']],
    ['key: C\n| C | Ebm7 Ab7 | Dm7 G7 | C |', ['C 1-4']],
  ])('%j: %j', (text, expected) => expect(regions(text)).toEqual(expected))
  test('a chord in another key is also read from home', () => {
    const reading = theOne(
      read('key: C\n| C | Am | Dm | G7 | E | F#m7 B7 | E | B7 | E | Dm7 G7 | C |').readings,
      (one) => one.slot.bar === 5,
    )
    expect([reading.roman, keyName(reading.key), reading.alternatives[0]]).toEqual([
      'I',
      'E',
      { roman: 'III', reason: 'Counted from home, C.' },
    ])
  })
  test('the found key has a confidence, rivals have theirs, and more evidence makes it surer', () => {
    const short = read('| C | G |')
    const long = read('| C | Am | Dm7 | G7 | C | F | G7 | C |')
    expect(keyName(long.key)).toBe('C')
    expect(long.confidence).toBeGreaterThan(short.confidence)
    expect(short.otherKeys.map((other) => keyName(other.key))).toContain('G')
    expect(read('key: G\n| C |')).toMatchObject({ confidence: 1, otherKeys: [] })
    expect(read('').confidence).toBe(0)
  })
})

describe('the form in words', () => {
  const A = '| G | Em7 | Am7 | D7 |\n| Bbm7 | Eb7 | Am7 D7 | G |'
  test.each([
    [
      `key: G\n[A] ${A}\n[A] ${A}\n[B] | Am7 | % | % | D7 | Am7 | % | % | D7 |\n[A] ${A}`,
      '32 bars, A A B A; home G; B sits on ii; the second half of A steps up a half step for two bars and does not land',
    ],
    [
      'meter: 3/4\npickup: 1\nkey: C\n| G7 |: C | F | G7 |1. C :|2. C | C |',
      '6 bars written, 9 played, a pickup of one beat; in 3/4; home C',
    ],
    [
      'key: Cm\n| Cm | Fm | Cm | % | Fm | % | Cm | % | Ab7 | G7 | Cm | G7 |',
      '12 bars; home Cm; a 12-bar minor blues',
    ],
    [
      'key: Eb\n[A] | Eb | Fm7 Bb7 | Eb | Eb |\n[B] | Am7 | D7 | G | % | Am7 | D7 | G | Fm7 Bb7 |\n[A] | Eb | Fm7 Bb7 | Eb | Eb |',
      '16 bars, A B A; home Eb; B is in G',
    ],
    ['', ''],
  ])('%j', (text, words) => expect(form(text)).toBe(words))
  test('without section marks, stretches of eight bars that begin alike share a letter', () => {
    const eight = (first: string) => `| ${[first, 'F', 'G', 'C', 'Am', 'F', 'G', 'C'].join(' | ')} |`
    expect(form(`key: C\n${eight('C')}\n${eight('C')}\n${eight('Am')}\n${eight('C')}`)).toContain(
      'it reads as A A B A',
    )
  })
})
