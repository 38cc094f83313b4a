import { firstOf, itemAt, theOne } from '../lists'
import fc from 'fast-check'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { playOrder } from '../chart/form'
import { slotsOf } from '../chart/chart'
import { pitchClass } from '../pitch/note'
import { changesAt, optionsAt } from './options'
import { unlanded } from './paths'
import { latticeOf } from './latticeOf'
import { reharmonise } from './reharmonise'
import { spotsOf } from './spot'
import { bassWalk } from './thread'

const spots = (text: string) => {
  const chart = parseChart(text)
  return spotsOf(chart, analyse(chart))
}
const namesAt = (text: string, index: number) =>
  optionsAt(text, index).map(({ puts }) => puts.map(({ chord }) => chord.canonical).join(' '))

describe('what comes next is what is played next, on all times through', () => {
  const endings = 'key: C\n|: Dm7 | G7 | Cmaj7 |1. G7 :|2. Cmaj7 |'
  test('behind a first ending comes the beginning of the repeat: no Db7 that would fall to Cmaj7', () => {
    expect(itemAt(spots(endings), 3)!.nexts.map(({ index }) => index)).toEqual([0])
    expect(namesAt(endings, 3)).not.toContain('Db7')
    expect(namesAt('key: C\n| Dm7 | G7 | Cmaj7 | G7 | Cmaj7 |', 3)).toContain('Db7')
  })
  test('what goes on one way the first time and another the second is offered what holds both times', () => {
    const twice = 'key: C\n|: Cmaj7 | G7 :| F | C |'
    expect(itemAt(spots(twice), 1)!.nexts.map(({ index }) => index)).toEqual([0, 2])
    expect(namesAt(twice, 1)).not.toContain('Db7')
    // Where both times lead to the same root the substitute stands.
    expect(namesAt('key: C\n|: Cmaj7 | G7 :| C | F |', 1)).toContain('Db7')
  })
  test('D.C. al Fine: behind its bar comes the top', () => {
    const form = 'key: C\n| Cmaj7 | F Fine | Am7 | G7 D.C. al Fine |'
    expect(itemAt(spots(form), 3)!.nexts.map(({ index }) => index)).toEqual([0])
    expect(namesAt(form, 3)).toContain('Db7')
  })
  test('nothing that takes the place of several chords is laid over the end of a first time', () => {
    // ii and V of the first ending, I of the second: on the page a ii V I, never played as one.
    const split = 'key: C\n|: Cmaj7 | Am7 |1. Dm7 | G7 :|2. Cmaj7 | % |'
    for (const index of [2, 3])
      for (const { span, index: from } of changesAt(itemAt(spots(split), index)!))
        expect(from + span).toBeLessThanOrEqual(4)
  })
  test('in whole-tune searches every chord that is led to is there when it is due', () => {
    const chord = fc.constantFrom('C', 'Am7', 'Dm7', 'G7', 'Fmaj7', 'E7', 'A7')
    fc.assert(
      fc.property(
        fc.array(chord, { minLength: 6, maxLength: 6 }),
        fc.constantFrom(0.3, 0.7, 1),
        ([a, b, c, d, e, f], distance) => {
          const text = `key: C\n|: ${a} | ${b} |1. ${c} | ${d} :|2. ${e} | ${f} |`
          const { spots: all } = latticeOf(text, {})
          for (const { changes } of reharmonise(text, { distance, count: 2 })) {
            const roots = new Map(
              all.flatMap((spot) => (spot ? [[spot.index, pitchClass(spot.chord.root)] as const] : [])),
            )
            for (const change of changes) {
              roots.set(change.index, pitchClass(firstOf(change.puts).chord.root))
              for (let at = change.index + 1; at < change.index + change.span; at += 1) roots.delete(at)
            }
            const chart = parseChart(text)
            const slots = slotsOf(chart)
            const order = playOrder(chart).map((bar) =>
              slots.findIndex((slot) => slot.bar === itemAt(chart.bars, bar).number),
            )
            for (const { landsOn, index, span } of changes) {
              if (landsOn === null) continue
              const ends = order.flatMap((slot, at) =>
                slot === index + span - 1 && at + 1 < order.length ? [itemAt(order, at + 1)] : [],
              )
              for (const next of ends) expect(roots.get(next)).toBe(landsOn)
            }
          }
        },
      ),
      { numRuns: 15 },
    )
  })
  test('a path that breaks such a promise is found out', () => {
    const { arcs, spots: all } = latticeOf('key: C\n| C |: Dm7 | G7 | Em7 | A7 :|', {})
    const leading = theOne(itemAt(arcs, 4), ({ landsOn }) => landsOn !== null)
    const [plain, other] = [
      firstOf(itemAt(arcs, 1)),
      theOne(itemAt(arcs, 1), ({ firstRoot, span }) => span === 1 && firstRoot !== leading.landsOn),
    ]
    expect(unlanded([plain, leading], all)).toEqual([])
    expect(unlanded([other, leading], all)).toEqual([leading])
  })
  test('a walking bass does not count the step from a first ending to the second', () => {
    const apart = bassWalk('key: C\n|: C | Am |1. F | G :|2. D7 | G |', 'down')
    expect(apart).toHaveLength(6)
  })
})
