import { itemAt } from '../lists'
import { analyse } from '../analysis/analyse'
import { parseChart } from '../chart/parseChart'
import { IDEAS, ideasOf, NO_IDEA } from './ideas'
import { reharmonise } from './reharmonise'
import { spotsOf } from './spot'

// Invented tunes, one for each of some styles.
const TUNES = [
  'key: A\n[A] | A | E | F#m | D | A | D | E | A |\n[B] | F#m | D | A | E | F#m | D | Bm | E |',
  'key: Eb\n[A] | Ebmaj7 | Cm7 | Fm7 | Bb7 | Gm7 | C7 | Fm7 Bb7 | Ebmaj7 |',
  'key: F\n[A] | F7 | Bb7 | F7 | % | Bb7 | % | F7 | D7 | Gm7 | C7 | F7 | C7 |',
  'key: Bb\n[A] | Bb | D7 | Gm | Bb7 | Eb | Edim7 | Bb/F | F7 |',
  'key: Am\n[A] | Am7 | % | % | % | Dm7 | % | Am7 | % |',
]

describe('ideas of ways', () => {
  test('what a way says it is about, it does more than once; each belongs to the style', () => {
    const told = new Set<string>()
    for (const text of TUNES) {
      const chart = parseChart(text)
      const analysis = analyse(chart)
      const spots = spotsOf(chart, analysis)
      const own = ideasOf(analysis.idiom.idiom).map(({ name }) => name)
      for (const distance of [0.35, 0.5, 0.8])
        for (const { idea, changes } of reharmonise(text, { distance, count: 3 })) {
          told.add(idea)
          expect(own).toContain(idea)
          const found = IDEAS.find(({ name }) => name === idea)
          if (found)
            expect(
              changes.filter((change) => found.carriedBy(change, itemAt(spots, change.index)!)).length,
            ).toBeGreaterThan(1)
        }
    }
    expect([...told].filter((idea) => idea !== NO_IDEA.name).length).toBeGreaterThanOrEqual(5)
  })
  test('three ways are about different things, but for those that are about nothing', () => {
    for (const text of TUNES) {
      const ideas = reharmonise(text, { distance: 0.6, count: 3 })
        .map(({ idea }) => idea)
        .filter((idea) => idea !== NO_IDEA.name)
      expect(new Set(ideas).size).toBe(ideas.length)
    }
  })
  test('what is found keeps home, arrivals, cadences and what the chart writes of the bass', () => {
    const heavy = [
      'home lost',
      'arrival missed',
      'cadence weakened',
      'no bIImaj7 for triads',
      'written bass kept',
    ]
    for (const text of TUNES)
      for (const distance of [0.2, 0.5, 0.8])
        for (const { faults } of reharmonise(text, { distance, count: 3 }))
          expect(faults.filter(({ what }) => heavy.includes(what))).toEqual([])
  })
  test('the last time of a section that comes three times goes its own way, or says that it does not', () => {
    const again = '| Ebmaj7 | Cm7 | Fm7 | Bb7 | Gm7 | C7 | Fm7 Bb7 | Ebmaj7 |'
    const text = `key: Eb\n[A] ${again}\n[A] ${again}\n[B] | Abmaj7 | % | Gm7 | C7 | Fm7 | D7 | Gm7 | Bb7 |\n[A] ${again}`
    for (const distance of [0.5, 0.8])
      for (const { text: made, faults } of reharmonise(text, { distance, count: 2 })) {
        const sections = made.split('[A] ').slice(1)
        const [first, second, last] = sections.map((section) => section.split('\n')[0])
        expect(second).toBe(first)
        if (last === first) expect(faults.map(({ what }) => what)).toContain('vary the repeat')
      }
  })
})
