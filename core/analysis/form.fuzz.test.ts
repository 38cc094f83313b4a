import fc from 'fast-check'
import { parseChart } from '../chart/parseChart'
import { slotsOf } from '../chart/chart'
import { playOrder } from '../chart/form'
import { analyse } from './analyse'
import { formInWords } from './formWords'
import { GROUP_KINDS } from './chordReading'
import { skeletonOf } from './skeleton'

const sign = fc.constantFrom(
  'C',
  'Am7',
  'Dm7',
  'G7',
  'E7',
  'F#m7b5',
  'B°7',
  'Ebmaj7',
  'Ab7',
  'Db7',
  'Gsus4',
  'C+',
  'D5',
  'Bbm6',
  'N.C.',
  'zz',
  'Cm(maj7)',
  'C/E',
  '%',
  '.',
  '_G7',
)
const piece = fc.oneof(
  { weight: 6, arbitrary: sign },
  fc.constantFrom(
    ' | ',
    ' | ',
    ' | ',
    ' |: ',
    ' :| ',
    ' :|x3 |',
    ' |1. ',
    ' |2. ',
    '[B] ',
    ' Segno ',
    ' Coda ',
    ' To Coda ',
    ' Fine ',
    ' D.C. al Fine ',
    ' D.S. al Coda ',
    '\nkey: Ab\n',
    '\nmeter: 6/8\n',
    'pickup: 1\n',
  ),
)
const chart = fc.array(piece, { maxLength: 60 }).map((pieces) => pieces.join(' '))

test('any chart is read: every chord once, with a numeral and reasons; groups stand in it; the form is said; nothing throws or runs away', () => {
  fc.assert(
    fc.property(fc.oneof(chart, fc.string()), (text) => {
      const read = parseChart(text)
      expect(playOrder(read).length).toBeLessThanOrEqual(read.bars.length * 34)
      const analysis = analyse(read)
      const chords = slotsOf(read).filter((slot) => slot.symbol?.kind === 'chord')
      expect(analysis.readings.map((reading) => reading.slot)).toEqual(chords)
      for (const reading of analysis.readings) {
        expect(reading.roman).not.toBe('')
        for (const why of Object.values(reading.why)) expect(why).toMatch(/\.$/)
      }
      for (const group of analysis.groups) {
        expect(GROUP_KINDS).toContain(group.kind)
        expect(
          group.from.bar < group.to.bar ||
            (group.from.bar === group.to.bar && group.from.beat <= group.to.beat),
        ).toBe(true)
        expect(group.why).toMatch(/\.$/)
      }
      for (const { says, why } of formInWords(read, analysis))
        expect(`${says}${why}`).not.toMatch(/undefined|NaN|null/)
      for (const level of [1, 2, 3] as const)
        expect(skeletonOf(read, level).bars).toHaveLength(read.bars.length)
    }),
    { numRuns: 600 },
  )
})
