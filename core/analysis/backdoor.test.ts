import { parseChart } from '../chart/parseChart'
import { transposeText } from '../chart/transpose'
import { parseKey } from '../pitch/key'
import { must } from '../result'
import { analyse } from './analyse'

/**
 * Everything that is found of a chart, place by place, so that nothing more is found beside what is
 * looked for.
 */
const found = (text: string) => {
  const { readings, groups, idiom } = analyse(parseChart(text))
  return {
    idiom: idiom.idiom,
    readings: readings.map(({ roman, role }) => `${roman}: ${role}`),
    groups: groups.map(({ kind, from, to, resolves }) => [kind, from.bar, to.bar, resolves]),
  }
}
const KEYS = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'Gb', 'G', 'Ab', 'A', 'Bb', 'B']
const inKey = (text: string, to: string) => transposeText(text, must(parseKey('C')), must(parseKey(to)))

describe.each(KEYS)('in %s', (key) => {
  test('iv7 bVII7 I is one back door and no ii-V beside it; home stays a major I (common practice, no source)', () => {
    expect(found(inKey('key: C\n| C | Fm7 | Bb7 | C |', key))).toEqual({
      idiom: 'jazz',
      readings: ['I: I major', 'iv7: iv minor', 'bVII7: dominant at rest', 'I: I major'],
      groups: [['backdoor', 2, 4, true]],
    })
  })
  test('I bVII IV I without a leading note is Mixolydian', () => {
    expect(found(inKey('key: C\n| C | Bb | F | C |', key)).readings).toEqual([
      'I: Mixolydian tonic',
      'bVII: borrowed major',
      'IV: IV major',
      'I: Mixolydian tonic',
    ])
  })
  test.each(['Abmaj7', 'Ab', 'Am7'])('V going to %s where home was expected is deceptive', (goal) => {
    expect(found(inKey(`key: C\n| C | Dm7 | G7 | ${goal} |`, key)).groups).toEqual([
      ['ii-V', 2, 3, false],
      ['deceptive cadence', 3, 4, false],
    ])
  })
})
