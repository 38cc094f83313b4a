/** The tablature of a chord melody, read back from the drawing. */
import { itemAt } from '../../../core/lists'
import { renderToStaticMarkup } from 'react-dom/server'
import { chord } from '../../../core/chord/parseChord'
import type { HarmonisedNote } from '../../../core/melody/melodyLine'
import { wholeNeck } from '../../../core/player/playerLimits'
import { DEFAULT_PLAYER } from '../../../core/player/playerSettings'
import { midi, pitchName } from '../../../core/pitch/note'
import { voicingOf } from '../../../core/voicing/voicing'
import type { EventShown } from './melodyShown'
import { TabStrip } from './TabStrip'

const LIMITS = wholeNeck(DEFAULT_PLAYER)
const E4 = { letter: 2, alter: 0, octave: 4 }
const C = voicingOf([null, 3, 2, 0, 1, 0], chord('C'), LIMITS)!

/** An event of bar 1 on a beat, with the highest sound of its grip as the melody. */
function event(beat: number, made: Partial<HarmonisedNote> = {}): EventShown {
  return {
    key: `1:${beat}`,
    index: beat - 1,
    from: beat - 1,
    to: beat,
    fixed: false,
    made: {
      note: { bar: 1, beat, beats: 1, note: E4 },
      again: false,
      bar: 1,
      beat,
      beats: 1,
      chord: chord('C'),
      under: 'chord',
      kind: 'own chord',
      voicing: C,
      ...made,
    },
  }
}

const drawn = (
  events: EventShown[],
  more: Partial<Pick<Parameters<typeof TabStrip>[0], 'before' | 'capo' | 'selected' | 'sounding'>> = {},
) =>
  renderToStaticMarkup(
    <TabStrip
      events={events}
      before={undefined}
      strings={6}
      capo={0}
      width={400}
      left={0}
      edges={[0, 400]}
      at={({ made }) => 10 + (made.beat - 1) * 90}
      selected={null}
      sounding={null}
      onSelect={() => undefined}
      {...more}
    />,
  )

/** Frets from the highest line down, as [place across, height, fret]. */
const fretsOf = (strip: string) =>
  [...strip.matchAll(/<text class="tab-fret[^"]*" x="([\d.]+)" y="([\d.]+)">(\d+)<\/text>/g)]
    .map(([, x, y, fret]) => ({ x: Number(x), y: Number(y), fret: Number(fret) }))
    .sort((a, b) => a.x - b.x || a.y - b.y)
const namesOf = (strip: string) =>
  [...strip.matchAll(/class="chord-name" aria-label="([^"]+)"/g)].map(([, name]) => name)

test('each fret stands on the line of its string, the highest string on top, and the melody is underlined', () => {
  expect([pitchName(E4), midi('E4')]).toEqual(['E4', C.midis.at(-1)])
  const strip = drawn([event(1)])
  expect(fretsOf(strip).map(({ fret }) => fret)).toEqual([0, 1, 0, 2, 3])
  const heights = fretsOf(strip).map(({ y }) => y)
  expect(heights.slice(1).map((y, at) => y - itemAt(heights, at))).toEqual([11, 11, 11, 11])
  expect(strip.match(/class="tab-fret melody"/g)).toHaveLength(1)
  expect(strip).toMatch(/<text class="tab-fret melody" x="10" y="12">0<\/text>/)
  expect(strip.match(/class="tab-melody"/g)).toHaveLength(1)
})

test('over a grip that is held only the melody is struck again; a line under a held melody leaves it out', () => {
  expect(fretsOf(drawn([event(1), event(2, { under: 'held' })])).filter(({ x }) => x > 50)).toEqual([
    { x: 100, y: 12, fret: 0 },
  ])
  const line = drawn([event(1, { under: 'line' })])
  expect(fretsOf(line).map(({ fret }) => fret)).toEqual([1, 0, 2, 3])
  expect(line).not.toContain('tab-melody')
})

test('with a capo frets are counted from it', () => {
  const limits = { ...LIMITS, instrument: { ...LIMITS.instrument, capo: 2 } }
  const voicing = voicingOf([null, 5, 4, 0, 3, 0], chord('D'), limits)!
  const strip = drawn([event(1, { voicing, chord: chord('D') })], { capo: 2 })
  expect(fretsOf(strip).map(({ fret }) => fret)).toEqual([0, 1, 0, 2, 3])
})

test('a chord is named where it changes, also over the edge of a system; silence has no name', () => {
  const am = voicingOf([null, 0, 2, 2, 1, 0], chord('Am'), LIMITS)!
  const events = [event(1), event(2), event(3, { chord: chord('Am'), voicing: am }), event(4)]
  expect(namesOf(drawn(events))).toEqual(['C', 'Am', 'C'])
  expect(namesOf(drawn(events, { before: event(1) }))).toEqual(['Am', 'C'])
  expect(namesOf(drawn([event(1, { chord: null })]))).toEqual([])
})

test('a grip by hand says so, what sounds and what is selected are told apart, and each event is told in words', () => {
  const strip = drawn([{ ...event(1), fixed: true }, event(2)], { selected: '1:2', sounding: '1:1' })
  expect(strip.match(/by hand/g)).toHaveLength(1)
  expect(strip).toContain('class="tab-event sounding" aria-current="true"')
  expect(strip).toContain('class="tab-event selected"')
  expect(strip).toContain('<title>C, own chord; frets from the lowest string: x 3 2 0 1 0</title>')
})
