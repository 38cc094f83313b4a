import { firstOf, itemAt } from '../lists'
import { playOrder } from './form'
import { parseChart } from './parseChart'

/** First chords of the bars as they are played. */
const played = (text: string) => {
  const chart = parseChart(text)
  return playOrder(chart)
    .map((index) => firstOf(itemAt(chart.bars, index).slots).text)
    .join(' ')
}

describe('the order in which bars are played (common practice, no source)', () => {
  test.each([
    ['| C | D | E |', 'C D E'],
    ['|: C | D :| E |', 'C D C D E'],
    ['| C | D :| E |', 'C D C D E'],
    ['|: C :|x3 D |', 'C C C D'],
    ['|: C | D |1. E :|2. F | G |', 'C D E C D F G'],
    ['|: C |1,2. D :|3. E |', 'C D C D C E'],
    ['|: C |1. D :|2. E :|3. F | G |', 'C D C E C F G'],
    ['|: C :| |: D |1. E :|2. F |', 'C C D E D F'],
    ['| C | D Fine | E D.C. al Fine |', 'C D E C D'],
    ['| C | Segno D | E To Coda | F D.S. al Coda | Coda G | A |', 'C D E F D E G A'],
    ['|: C :| D D.C. |', 'C C D C D'],
    ['|: C |1. D :|2. E Fine | F D.C. al Fine |', 'C D C E F C E'],
    ['|: C | D D.C. :|', 'C D C D C D'],
    ['pickup: 1\n| G | C | D :|', 'G C D G C D'],
  ])('%j is %s', (text, order) => expect(played(text)).toBe(order))

  test.each([
    ['| C D.S. al Fine |', 'nowhere-to-go', 'Segno and no Fine'],
    ['| C To Coda | D D.C. al Coda |', 'nowhere-to-go', 'no Coda'],
    ['| C |1. D | E |', 'ending-without-repeat', 'nothing is repeated'],
    ['| C |2. D | E |', 'ending-without-repeat', 'nothing is repeated'],
    ['| C |: ', 'nothing-after', 'before no bar'],
    [':| C |', 'nothing-to-repeat', 'no bar before'],
    ['| C :|x40', 'bad-times', '40 times'],
  ])('%j: what leads nowhere is said, and the rest is played', (text, code, words) => {
    const chart = parseChart(text)
    expect(chart.problems).toHaveLength(1)
    expect(chart.problems[0]).toMatchObject({ code, line: 1 })
    expect(firstOf(chart.problems).message).toContain(words)
    expect(playOrder(chart).length).toBeGreaterThanOrEqual(chart.bars.length)
  })
})

describe('beats and bars', () => {
  const bars = (text: string) => parseChart(text).bars
  test('off-beats: a beat in equal parts', () => {
    expect(firstOf(bars('| C . _G7 . |')).slots.map(({ text, beat, beats }) => [text, beat, beats])).toEqual([
      ['C', 1, 2.5],
      ['G7', 3.5, 1.5],
    ])
  })
  test.each([
    ['3/4', 3],
    ['4/4', 4],
    ['6/8', 7],
  ])('in %s a pickup of %i beats is a whole bar or more, and no pickup', (meter, beats) => {
    const chart = parseChart(`meter: ${meter}\npickup: ${beats}\n| C | F |`)
    expect(chart.problems.map(({ code }) => code)).toEqual(['bad-pickup'])
    expect(chart.bars.map(({ number }) => number)).toEqual([1, 2])
  })
  test('a pickup is bar 0, ends where the first bar begins, and is counted from its beat', () => {
    const chart = parseChart('meter: 3/4\npickup: 1\n| G7 | C | F |')
    expect(
      chart.bars.map((bar) => [bar.number, bar.from, firstOf(bar.slots).beat, firstOf(bar.slots).beats]),
    ).toEqual([
      [0, 3, 3, 1],
      [1, 1, 1, 3],
      [2, 1, 1, 3],
    ])
  })
  test('key and metre change inside the tune', () => {
    const chart = parseChart('key: C\n| C |\nkey: Eb\nmeter: 3/4\n| Eb | Bb7 |')
    expect(
      chart.bars.map((bar) => [
        bar.newKey?.tonic.letter ?? null,
        bar.newMeter,
        bar.meter.beats,
        firstOf(bar.slots).beats,
      ]),
    ).toEqual([
      [null, false, 4, 4],
      [2, true, 3, 3],
      [null, false, 3, 3],
    ])
    expect(chart.key!.tonic.letter).toBe(0)
  })
  test('too many or too few beats are shown and kept as written', () => {
    const chart = parseChart('| C . . G . | F . |')
    expect(chart.problems.map((one) => [one.code, one.bar, one.message])).toEqual([
      ['wrong-beats', 1, 'Bar 1 has 5 beats; it should have 4.'],
      ['wrong-beats', 2, 'Bar 2 has 2 beats; it should have 4.'],
    ])
    expect(chart.bars.map((bar) => [bar.beats, bar.slots.map((slot) => slot.beats)])).toEqual([
      [5, [3, 2]],
      [2, [2]],
    ])
  })
  test.each([
    ['5/4', 5],
    ['6/8', 6],
    ['12/8', 12],
    ['7/8', 7],
  ])('%s has %i beats', (meter, beats) => {
    expect(
      bars(`meter: ${meter}\n| C | ${['G', ...Array<string>(beats - 1).fill('.')].join(' ')} |`).map(
        (bar) => bar.beats,
      ),
    ).toEqual([beats, beats])
  })
})
