import fc from 'fast-check'
import { analyse } from '../../analysis/analyse'
import { parseChart } from '../../chart/parseChart'
import { parseChord } from '../../chord/parseChord'
import { itemAt } from '../../lists'
import { easiestFingering } from '../../neck/fingering'
import { writtenFrets } from '../../neck/instrument'
import { must } from '../../result'
import { DEFAULT_LIMITS, type Limits } from '../../voicing/gripLimits'
import { goesThatWay, HOLD_STEPS, HOLD_WAYS, holdRuns, holdSteps, type Hold } from './hold'
import { holdLines } from './holdLines'
import { soundsWithin, placeScale, highestOf } from './heldRun'
import { rungsAt } from './rungs'
import { laddersOf } from './ladders'

const LIMITS: Limits = { ...DEFAULT_LIMITS, frets: [0, 15] }
const stepsOf = (text: string, every: Hold['every'] = 'bar') => holdSteps(parseChart(text), every)

/** Lines of a chart whose chords that last are kept alive. */
function held(text: string, hold: Hold, count = 1, limits = LIMITS) {
  const chart = parseChart(text)
  const steps = holdSteps(chart, hold.every)
  const { readings, key } = analyse(chart)
  const found = must(
    holdLines({
      chords: steps.map(({ chord }) => chord),
      roles: steps.map(({ of }) => itemAt(readings, of).role),
      limits,
      style: 'smooth',
      count,
      steps,
      hold,
      key,
    }),
  )
  return { ...found, steps, readings }
}

const fretsOf = (text: string, hold: Hold): string[] =>
  held(text, hold).lines[0]!.line.voicings.map(({ frets }) => writtenFrets(frets).replaceAll(' ', '.'))

describe('the steps of a chord that lasts', () => {
  it('begin where it is written and again at each bar, half bar or beat', () => {
    const places = (every: Hold['every']) =>
      stepsOf('time: 5/4\n| C . . F . | G |', every).map(({ of, bar, beat }) => `${of}:${bar}.${beat}`)
    expect(places('bar')).toEqual(['0:1.1', '1:1.4', '2:2.1'])
    // Half of an odd metre ends after its larger part.
    expect(places('half')).toEqual(['0:1.1', '1:1.4', '2:2.1', '2:2.4'])
    expect(places('beat')).toHaveLength(10)
  })

  it('make a run where a chord is there twice, or two come back in turn', () => {
    const runs = (text: string) => holdRuns(stepsOf(text)).map(({ from, to }) => `${from}-${to}`)
    expect(runs('| C | F | G | C |')).toEqual([])
    expect(runs('| C | % | F | G |')).toEqual(['0-1'])
    expect(runs('| Dm7 | G7 | Dm7 | G7 | C |')).toEqual(['0-3'])
    expect(runs('| Dm7 | G7 | C | % |')).toEqual(['2-3'])
    expect(runs('| C | F | C | G |')).toEqual([])
    expect(runs('| Dm7 | G7 | Dm7 | G7 | Dm7 | % |')).toEqual(['0-3', '4-5'])
    expect(runs('| G | % | C | % | G | % | C |')).toEqual(['0-1', '2-3', '4-5'])
  })

  it('go up once, or up and back home; again from below where there are too few grips', () => {
    expect(rungsAt('climbs', 4, 4)).toEqual([0, 1, 2, 3])
    expect(rungsAt('climbs', 8, 4)).toEqual([0, 1, 2, 3, 0, 1, 2, 3])
    expect(rungsAt('returns', 5, 3)).toEqual([0, 1, 2, 1, 0])
    expect(rungsAt('returns', 4, 3)).toEqual([0, 1, 2, 0])
    expect(rungsAt('returns', 7, 2)).toEqual([0, 1, 0, 1, 0, 1, 0])
  })
})

describe('a chord that lasts', () => {
  it.each([
    ['| Amaj7 | % | % | % |', 1],
    ['| Dm7 | % | % | % |', undefined],
    ['| G7 | % | % | % |', undefined],
    ['| Dm7 | G7 | Dm7 | G7 |', undefined],
    ['| Am7 | D7 | Am7 | D7 |', 1],
  ])('climbs: %s', (text, drone) => {
    const { line } = held(text, { how: 'climbs', every: 'bar', ...(drone ? { drone } : {}) }).lines[0]!
    const tops = line.voicings.map(highestOf)
    expect(line.voicings).toHaveLength(4)
    expect(goesThatWay('climbs', tops)).toBe(true)
    if (drone) for (const { frets } of line.voicings) expect(frets[drone]).toBe(0)
  })

  // Inversions on the top four strings, as players spell them out; common practice, no source.
  it('goes through its inversions on one set of strings, one after the other', () => {
    expect(fretsOf('key: F\n| Gm7 | % | % | % |', { how: 'climbs', every: 'bar' })).toEqual([
      'x.x.3.3.3.3',
      'x.x.5.7.6.6',
      'x.x.8.10.8.10',
      'x.x.12.12.11.13',
    ])
    expect(fretsOf('key: F\n| C7 | % |', { how: 'falls', every: 'half' })).toEqual([
      'x.x.10.12.11.12',
      'x.x.8.9.8.8',
      'x.x.5.5.5.6',
      'x.x.2.3.1.3',
    ])
  })

  it('is kept alive by other ideas too, each named', () => {
    const lines = held('key: Em\n| Em | % |', { how: 'falls', every: 'half' }, 5).lines
    const inner = lines.find(({ ladders }) => ladders.get(0)?.idea === 'inner line')!
    expect(inner.line.chords.map(({ canonical }) => canonical)).toEqual(['Em', 'Em(maj7)', 'Em7', 'Em6'])
    expect(inner.line.voicings.every(({ midis }) => midis[0] === inner.line.voicings[0]!.midis[0])).toBe(true)
    const sounds = lines.map(({ line }) => line.voicings.map(({ frets }) => writtenFrets(frets)).join(' '))
    expect(new Set(sounds).size).toBe(5)
  })

  it('takes turns with its neighbour under either name', () => {
    const names = (tones: Hold['tones']) =>
      held('| Am | % | % | % |', { how: 'climbs', every: 'bar', tones }).lines[0]!.line.chords.map(
        ({ canonical }) => canonical,
      )
    expect(names('diminished')).toEqual(['Am6', 'Bdim7', 'Am6', 'Bdim7'])
    expect(names('dominant')).toEqual(['Am6', 'E7b9', 'Am6', 'E7b9'])
  })

  it('keeps to the strings it is asked for, and to chord tones', () => {
    const { line } = held('| C7 | % | % | % |', {
      how: 'climbs',
      every: 'bar',
      strings: [2, 3, 4, 5],
      tones: 'chord',
    }).lines[0]!
    for (const { frets } of line.voicings)
      expect(frets.map((fret) => fret !== null)).toEqual([false, false, true, true, true, true])
    expect(line.chords.every(({ canonical }) => canonical === 'C7')).toBe(true)
  })

  it('leaves grips the player has fixed, and the chords between are led', () => {
    const chart = parseChart('| C | % | F | G7 |')
    const steps = holdSteps(chart, 'bar')
    const { readings, key } = analyse(chart)
    const fixed = new Map([[0, [null, 3, 2, 0, 1, 0]]])
    const { lines } = must(
      holdLines({
        chords: steps.map(({ chord }) => chord),
        roles: steps.map(({ of }) => itemAt(readings, of).role),
        limits: LIMITS,
        style: 'smooth',
        count: 1,
        steps,
        hold: { how: 'climbs', every: 'bar' },
        key,
        fixed,
      }),
    )
    expect(lines[0]!.line.voicings[0]!.frets).toEqual([null, 3, 2, 0, 1, 0])
    expect(lines[0]!.line.voicings).toHaveLength(4)
    expect(lines[0]!.ladders.size).toBe(0)
  })
})

describe('the first answer, whatever lasts', () => {
  const CHORDS = [
    'C',
    'Am',
    'F6',
    'Gm6',
    'Dm7',
    'Bbmaj7',
    'Eb7',
    'A7b9',
    'Bm7b5',
    'F#m7',
    'E9',
    'Abmaj7',
    'Cm9',
    'D7sus4',
  ]
  const LEAVES: readonly string[] = ['inner line', 'side step', 'diminished neighbour', 'dominant neighbour']
  it('is playable, goes its way or begins again, and keeps to its scale', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...CHORDS),
        fc.constantFrom(...HOLD_WAYS),
        fc.constantFrom(...HOLD_STEPS),
        fc.integer({ min: 2, max: 4 }),
        fc.constantFrom(undefined, 'chord' as const, 'tensions' as const),
        (symbol, how, every, bars, tones) => {
          const chord = must(parseChord(symbol))
          const chart = parseChart(`| ${Array(bars).fill(symbol).join(' | ')} |`)
          const { readings, key } = analyse(chart)
          const steps = holdSteps(chart, every)
          const [ladder] = laddersOf(
            {
              chords: steps.map(() => chord),
              roles: steps.map(({ of }) => itemAt(readings, of).role),
              hold: { how, every, tones },
              limits: LIMITS,
              key,
            },
            1,
          )
          if (!ladder) return false
          const scale = placeScale(chord, readings[0]!.role)
          return (
            ladder.voicings.length === steps.length &&
            ladder.voicings.every(
              ({ frets }) => easiestFingering(frets, LIMITS.instrument, LIMITS.hand) !== null,
            ) &&
            (!ladder.whole || how === 'stays' || goesThatWay(how, ladder.voicings.map(highestOf))) &&
            (LEAVES.includes(ladder.idea) || ladder.voicings.every((grip) => soundsWithin(grip, scale)))
          )
        },
      ),
      { numRuns: 40 },
    )
  })
})
