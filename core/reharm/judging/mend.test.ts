import { itemAt, theOne } from '../../lists'
import fc from 'fast-check'
import { parseChart } from '../../chart/parseChart'
import { analyse } from '../../analysis/analyse'
import { applyChanges } from '../apply'
import { chord } from '../../chord/parseChord'
import { changesAt } from '../options'
import { spotsOf } from '../spot'
import { judge } from './judge'
import { mendAt, type Made } from './mend'

const TEXT = 'key: C\nidiom: jazz\n[A] | Cmaj7 | Am7 | Dm7 | G7 | Em7 | A7 | Dm7 G7 | C6 |'
const put = (index: number, ...symbols: string[]): Made => ({
  index,
  span: 1,
  puts: symbols.map((symbol) => ({ chord: chord(symbol), beats: 4 / symbols.length })),
})
const costOf = (made: readonly Made[]) => judge(TEXT, applyChanges(TEXT, made)).cost

describe('what would mend a fault', () => {
  test.each([
    [put(2, 'Abm7'), 3],
    [put(1, 'Gdim7'), 2],
    [put(0, 'Fmaj7'), 1],
    [put(8, 'Cmaj7/G'), 8],
  ])('%j', (wrong, bar) => {
    const fault = theOne(judge(TEXT, applyChanges(TEXT, [wrong])).faults, (one) => one.bar === bar)
    const mend = mendAt(TEXT, [wrong], fault)!
    expect(mend.saves).toBeGreaterThan(0)
    const mended = mend.change ? [mend.change] : []
    expect(costOf([wrong]) - costOf(mended)).toBeCloseTo(mend.saves, 6)
    expect(judge(TEXT, applyChanges(TEXT, mended)).faults.filter((one) => one.bar === bar)).toEqual([])
  })
  test('whatever was made, what is offered makes the whole better and leaves the rest', () => {
    const chart = parseChart(TEXT)
    const spots = spotsOf(chart, analyse(chart))
    fc.assert(
      fc.property(fc.array(fc.nat(400), { minLength: spots.length, maxLength: spots.length }), (picks) => {
        const made = picks.flatMap((pick, index): Made[] => {
          const changes = changesAt(itemAt(spots, index)!).filter(({ span }) => span === 1)
          return pick % 3 === 0 ? [] : [itemAt(changes, pick % changes.length)]
        })
        for (const fault of judge(TEXT, applyChanges(TEXT, made)).faults.slice(0, 2)) {
          const mend = mendAt(TEXT, made, fault)
          if (!mend) continue
          const rest = made.filter(({ index }) => index < mend.index || index >= mend.index + mend.span)
          const after = costOf(mend.change ? [...rest, mend.change] : rest)
          expect(after).toBeLessThan(costOf(made))
        }
      }),
      { numRuns: 12 },
    )
  })
})
