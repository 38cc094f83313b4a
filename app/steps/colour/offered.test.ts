import { firstOf, itemAt, theOne } from '../../../core/lists'
import { INTENTS } from '../../../core/reharm/change'
import { DEFAULT_PLAYER } from '../../../core/player/playerSettings'
import { madeChord, readTuneDocument } from '../../../core/tune/tuneReading'
import { offeredFor } from './offered'
import { reasonsOf } from '../../../core/tune/reasons'

const one = (symbol: string, rule: string) => ({ chords: [{ symbol, beats: 4 }], span: 1, rule, at: 0 })
const read = (text: string, choices = {}) => readTuneDocument({ text, colour: 0, choices, fixed: {} })
const player = { settings: DEFAULT_PLAYER, liking: {} }
const offered = (text: string, from: number, to = from, more: object = {}) =>
  offeredFor(read(text), from, to, { ...player, ...more })
const chords = ({ puts }: ReturnType<typeof offered>[number]) =>
  puts.map(({ chord }) => chord.canonical).join(' ')

describe('what the drawer offers for one chord', () => {
  const text = 'key: C\n| Dm7 | G7 | Cmaj7 |'
  test('the plain chord first, then by intent, each result once', () => {
    const list = offered(text, 1)
    expect(list[0]).toMatchObject({ name: 'as it is', option: null })
    const intents = list.map((each) => INTENTS.indexOf(each.intent))
    expect(intents).toEqual([...intents].sort((a, b) => a - b))
    expect(new Set(list.map((each) => each.key)).size).toBe(list.length)
  })
  test('within an intent in the order of the taste: how far out decides, and a rule often kept rises', () => {
    const firstSwap = (more: object) =>
      chords(theOne(offered(text, 1, 1, more), (each) => each.intent === 'swap'))
    const taste = (far: number) => ({
      settings: { ...DEFAULT_PLAYER, taste: { ...DEFAULT_PLAYER.taste, far } },
    })
    expect(firstSwap(taste(0))).not.toBe(firstSwap(taste(1)))
    const placeOf = (liking: object) =>
      offered(text, 1, 1, { liking })
        .filter((each) => each.intent === 'swap')
        .findIndex((each) => each.rule === 'tritone-substitution')
    expect(placeOf({ 'tritone-substitution': 5 })).toBeLessThan(placeOf({}))
  })
  test('a school never wanted is left out', () => {
    const never = {
      settings: {
        ...DEFAULT_PLAYER,
        taste: {
          ...DEFAULT_PLAYER.taste,
          schools: { ...DEFAULT_PLAYER.taste.schools, bebop: 'never' as const },
        },
      },
    }
    expect(offered(text, 1).some((each) => each.rule === 'tritone-substitution')).toBe(true)
    expect(offered(text, 1, 1, never).some((each) => each.rule === 'tritone-substitution')).toBe(false)
  })
  test('chords put in on the way, and rules on top of one another where the player wants them', () => {
    expect(offered(text, 0).map(chords)).toContain('Dm7 Ab7')
    const deep = offered(text, 1, 1, { settings: { ...DEFAULT_PLAYER, depth: 2 } })
    expect(deep.map((each) => `${each.rule}: ${chords(each)}`)).toContain(
      'tritone-substitution+related-ii: Abm7 Db7',
    )
  })
  test('a stretch: only what stands for two of its chords or more', () => {
    const long = offered('key: C\n| Dm7 | G7 | Cmaj7 | Cmaj7 |', 0, 2)
    expect(long.length).toBeGreaterThan(0)
    expect(long.every((each) => each.span > 1 && each.index + each.span <= 3)).toBe(true)
  })
})

describe('choices in the new line', () => {
  const text = 'key: C\n| Dm7 | G7 | Cmaj7 |'
  test('a swap chosen is kept with its reason; when its place has another job the choice stays, and that is said', () => {
    const choices = { '2:1': one('Db7', 'tritone-substitution') }
    const { line, decisions } = read(text, choices)
    expect([madeChord(itemAt(line, 1))!.canonical, itemAt(decisions, 1).by]).toEqual(['Db7', 'hand'])
    expect(itemAt(decisions, 1).because.why).toContain('has the third and seventh of G7, swapped')
    const moved = read('key: C\n| Dm7 | G7 | F |', choices)
    expect([madeChord(itemAt(moved.line, 1))!.canonical, itemAt(moved.decisions, 1).because.why]).toEqual([
      'Db7',
      'Chosen when this chord stood elsewhere or had another job.',
    ])
  })
  test('rules put on one another keep the reasons of both', () => {
    const { decisions } = read(text, {
      '2:1': {
        chords: [
          { symbol: 'Abm7', beats: 2 },
          { symbol: 'Db7', beats: 2 },
        ],
        span: 1,
        rule: 'tritone-substitution+related-ii',
        at: 0,
      },
    })
    expect(itemAt(decisions, 1).because).toMatchObject({
      name: 'tritone substitution, then its ii before a dominant',
    })
  })
})

test('the page of reasons: every chord changed, how, and by whom', () => {
  const choices = {
    '2:1': one('Db7', 'tritone-substitution'),
    '3:1': { ...one('Em7', 'iii-for-i'), by: 'tune' as const },
  }
  const reading = readTuneDocument({
    text: 'key: C\n| Dm7 | G7 | Cmaj7 | N.C. |',
    colour: 2,
    choices,
    fixed: {},
  })
  expect(
    reasonsOf(reading).map(({ homes, decision, byWhom }) => [
      firstOf(homes).slot.text,
      firstOf(decision.puts).chord.canonical,
      decision.because.name,
      byWhom,
    ]),
  ).toEqual([
    ['Dm7', 'Dm9', 'colour', ''],
    ['G7', 'Db7', 'tritone substitution', 'by hand'],
    ['Cmaj7', 'Em7', 'shared tones: iii for I', 'with the whole tune'],
  ])
  expect(reasonsOf(readTuneDocument({ text: '| C |', colour: 0, choices: {}, fixed: {} }))).toEqual([])
})
