import { firstOf, itemAt } from '../../../core/lists'
import { renderToStaticMarkup } from 'react-dom/server'
import { accompanied } from '../../../core/tune/accompaniment'
import { newDocument } from '../../../core/tune/document'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import { PLAIN_RHYTHM } from '../../../core/tune/rhythmSchema'
import { FigureLine, shareOf } from './FigureLine'
import { systemsOf } from './systemLayout'

const drawn = (text: string, figure: string, at = 0) => {
  const document = { ...newDocument('Ferry', text), rhythm: { ...PLAIN_RHYTHM, figure } }
  const reading = readTuneDocument(document)
  const { hits } = accompanied({ reading, document, which: 'new', grips: new Map(), order: 'written' })
  const system = itemAt(systemsOf(reading.chart.bars), at)
  const melody = [{ bar: 1, beat: 2, beats: 1 }]
  return { page: renderToStaticMarkup(<FigureLine system={system} hits={hits} melody={melody} />), system }
}
const count = (page: string, pattern: RegExp) => [...page.matchAll(pattern)].length

test('each hit is a sign at its place on the time of its system: accents, pushes with a hook, damped strokes crossed', () => {
  const { page } = drawn('| C | F | G | C |', 'pushes on the and of four')
  // Two a bar, and the first chord's own.
  expect(count(page, /class="rhythm-sign/g)).toBe(9)
  expect(count(page, /class="rhythm-push"/g)).toBe(3)
  expect(count(page, /class="rhythm-sign accent/g)).toBe(4)
  // Half a beat before the second bar line of four.
  expect(page).toContain(`x1="${(3.5 / 16) * 1000}"`)
  const { page: dry } = drawn('| C |', 'sixteenths with dead strokes')
  expect(count(dry, /class="rhythm-rings"/g)).toBe(5)
  expect(count(dry, /class="rhythm-sign ghost/g)).toBe(3)
})
test('a system draws what stands in it and nothing else', () => {
  const text = '| C | F | G | C | Am | Dm | G | C |'
  expect(count(drawn(text, 'whole notes', 0).page, /class="rhythm-sign/g)).toBe(4)
  const { page, system } = drawn(text, 'whole notes', 1)
  expect(count(page, /class="rhythm-sign/g)).toBe(4)
  expect(count(page, /class="rhythm-melody"/g)).toBe(0)
  expect(shareOf(system, { bar: 1, beat: 1 })).toBeNull()
  expect(shareOf(system, { bar: 6, beat: 3 })).toBeCloseTo(0.375)
})
test('the low voice hangs under the line, the voices above stand on it', () => {
  const { page } = drawn('| C |', 'bass, chord')
  const stems = [
    ...page.matchAll(/<g class="rhythm-sign[^"]*"><line x1="\S+" x2="\S+" y1="(\d+)" y2="(\d+)"/g),
  ].map(([, top, foot]) => [Number(top), Number(foot)])
  expect(firstOf(stems)[0]).toBe(itemAt(stems, 1)[1])
  expect(firstOf(stems)[1]).toBeGreaterThan(itemAt(itemAt(stems, 1), 1))
})
