import { itemAt } from '../../lists'
import { preferences } from '../../../fit/judge'
import { judge } from './judge'
import { JUDGE_PRICES } from './prices'
import { JUDGED_TERMS } from './terms'

const PLAIN = 'key: C\nidiom: jazz\n[A] | Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6 |'
const faults = (bars: string, plain = PLAIN) =>
  judge(plain, plain.replace(/\[A\].*/, `[A] | ${bars} |`)).faults.map(({ bar, what }) => `${bar} ${what}`)

describe('the judge of versions', () => {
  test('agrees with players on nine of ten pairs of versions', () => {
    const all = preferences()
    const agreed = all.filter(
      ({ more }) =>
        more.reduce(
          (sum, amount, at) => sum + amount * (JUDGE_PRICES[itemAt(JUDGED_TERMS, at).name] ?? 0),
          0,
        ) < 0,
    )
    expect(all.length).toBeGreaterThan(300)
    expect(agreed.length / all.length).toBeGreaterThan(0.9)
  })
  test('every term has a price and a reason', () => {
    expect(Object.keys(JUDGE_PRICES).sort()).toEqual(JUDGED_TERMS.map(({ name }) => name).sort())
    for (const { why } of JUDGED_TERMS) expect(why).toMatch(/^[A-Z].*\.$/)
  })
  test.each([
    ['Fmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6', '1 home lost'],
    ['Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 Dbmaj7 | C6', '7 no bIImaj7 for triads'],
    ['Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 Fmaj7 | C6', '7 cadence weakened'],
    ['Cmaj7 | Gdim7 | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6', '2 passing diminished steps'],
    ['Cmaj7 | B7 | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6', '2 resolution missing'],
    ['Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6/G', '8 end at rest'],
    ['Cmaj7/G | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6', '1 bass of the chord'],
    ['Cmaj7 | A7/Bb | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6', '2 bass of the chord'],
    ['Cmaj7 | Am7 | Dm7 | G7 | Em7 | Am7 | Dm7 G7 | C6', '6 cadence weakened'],
    ['Cmaj7 | Am7 | Dm7 . . Abm7 | G7 | Em7 | A7 | Dm7 G7 | C6', '3 stray chord'],
  ])('%s: %s', (bars, fault) => expect(faults(bars)).toContain(fault))
  test('the plain chart, and colours of their degrees, are at no fault', () => {
    expect(faults('Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6')).toEqual([])
    // ii-Vs that fall by half steps have a goal; a line inside a chord may hang in its bass.
    expect(faults('Cmaj7 | Am7 | Ebm7 Ab7 | Dm7 G7 | Em7 | A7 | Dm7 G7 | C6')).toEqual([])
    expect(faults('Cmaj7 | Am7 Am7/G | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6')).toEqual([])
    expect(faults('Cmaj9 | Am9 | Dm9 | G13 | Em7 | A7b9 | Dm9 G13 | C6/9')).toEqual([])
  })
  test('too far and not far enough cost; a melody that clashes is told', () => {
    const near = judge(PLAIN, PLAIN.replace('Am7', 'Am9'), { asked: 0.1 })
    const far = judge(PLAIN, PLAIN.replace('Am7', 'Am9'), { asked: 0.9 })
    expect(far.cost).toBeGreaterThan(near.cost)
    const note = { bar: 4, beat: 1, beats: 4, note: { letter: 1, alter: 0, octave: 5 } }
    const clash = judge(PLAIN, PLAIN.replace('| G7 |', '| Db7 |'), { melody: [note] })
    expect(clash.faults.map(({ what }) => what)).toContain('melody clash')
  })
})
