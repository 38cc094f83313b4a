/** What is drawn, read back from the drawing: grips, threads, the neck, chord names, systems. */
import { firstOf, itemAt } from '../../../core/lists'
import fc from 'fast-check'
import type { ReactElement } from 'react'
import { renderToStaticMarkup } from 'react-dom/server'
import { slotsOf } from '../../../core/chart/chart'
import { parseChart } from '../../../core/chart/parseChart'
import { chord } from '../../../core/chord/parseChord'
import { wholeNeck } from '../../../core/player/playerLimits'
import { DEFAULT_PLAYER, type PlayerSettings } from '../../../core/player/playerSettings'
import { voicingOf, type Voicing } from '../../../core/voicing/voicing'
import { PlayerContext } from '../player/PlayerContext'
import { ChordName } from './ChordName'
import { engraved, engravedWords } from '../../../core/chord/engraved'
import { gripInWords } from '../../../core/voicing/inWords'
import { GripDiagram } from './GripDiagram'
import { across, BARS_IN_SYSTEM, BARS_ON_A_PHONE, columnsOf, systemsOf, unitsOf } from './systemLayout'
import { Neck } from './Neck'
import { Threads } from './Threads'

const drawn = (element: ReactElement, settings: PlayerSettings = DEFAULT_PLAYER): string =>
  renderToStaticMarkup(
    <PlayerContext.Provider value={{ settings, liking: {} } as never}>{element}</PlayerContext.Provider>,
  )
/** Every value of an attribute of elements of a class. */
const all = (svg: string, className: string, attribute: string): string[] =>
  [...svg.matchAll(new RegExp(`<\\w+[^>]*class="${className}"[^>]*>`, 'g'))].map(
    ([tag]) =>
      new RegExp(` ${attribute}="([^"]*)"`).exec(tag)?.[1] ??
      itemAt(new RegExp(`${attribute}="([^"]*)"`).exec(tag)!, 1),
  )
const textsOf = (svg: string, className: string): string[] =>
  [...svg.matchAll(new RegExp(`<text[^>]*class="${className}"[^>]*>(.*?)</text>`, 'g'))].map(
    ([, text]) => text!,
  )
const held = (symbol: string, frets: readonly (number | null)[]): Voicing =>
  voicingOf([...frets], chord(symbol), wholeNeck(DEFAULT_PLAYER))!

describe('a grip', () => {
  const open = held('C', [null, 3, 2, 0, 1, 0])
  test('has a dot with a finger for each fretted string, a ring for each open one, a cross for each muted one', () => {
    const svg = drawn(<GripDiagram voicing={open} />)
    expect(textsOf(svg, 'grip-finger')).toEqual(['3', '2', '1'])
    expect(all(svg, 'grip-open', 'cx')).toHaveLength(2)
    expect(all(svg, 'grip-mute', 'd')).toHaveLength(1)
    expect(textsOf(svg, 'grip-degree')).toEqual(['1', '3', '5', '1', '3'])
    expect(all(svg, 'grip-nut', 'x1')).toHaveLength(1)
    expect(textsOf(svg, 'grip-fret')).toEqual([])
  })
  test('up the neck begins with its first fret, named, and without a nut', () => {
    const svg = drawn(<GripDiagram voicing={held('C6/9', [8, 7, 7, 7, null, null])} />)
    expect(textsOf(svg, 'grip-fret')).toEqual(['7'])
    expect(all(svg, 'grip-nut', 'x1')).toEqual([])
  })
  test('is mirrored for a left-handed player, and only that', () => {
    const [right, left] = [DEFAULT_PLAYER, { ...DEFAULT_PLAYER, leftHanded: true }].map((settings) =>
      all(drawn(<GripDiagram voicing={open} />, settings), 'grip-dot', 'cx').map(Number),
    )
    const middle = (firstOf(right!) + firstOf(left!)) / 2
    for (const [at, x] of right!.entries()) expect((x + itemAt(left!, at)) / 2).toBeCloseTo(middle)
    expect(left).not.toEqual(right)
  })
  test('a barre is one stroke over its strings', () => {
    const svg = drawn(<GripDiagram voicing={held('F', [1, 3, 3, 2, 1, 1])} />)
    expect(all(svg, 'grip-barre', 'x1')).toHaveLength(1)
  })
  test('with a capo frets are counted from it, as the hand finds them', () => {
    const limits = wholeNeck(DEFAULT_PLAYER)
    const capoed = voicingOf([null, 5, 4, 0, 3, 0], chord('D'), {
      ...limits,
      instrument: { ...limits.instrument, capo: 2 },
    })!
    const svg = drawn(<GripDiagram voicing={capoed} capo={2} />)
    expect(textsOf(svg, 'grip-fret').join('')).toContain('c')
    expect(all(svg, 'grip-dot', 'cy')).toEqual(all(drawn(<GripDiagram voicing={open} />), 'grip-dot', 'cy'))
  })
  test('is said string by string to those who listen', () =>
    expect(gripInWords(open)).toBe('Grip, lowest string first: muted, 3, 2, open, 1, open'))
})

describe('threads', () => {
  const [dm, g] = [held('Dm7', [null, 5, 7, 5, 6, null]), held('G7', [null, 5, 5, 4, 6, null])]
  const picture = (second: Voicing, symbol: string) =>
    drawn(
      <Threads
        wide={unitsOf({ room: BARS_IN_SYSTEM })}
        chords={[
          { key: '1:1', from: 0, to: 0.5, chord: chord('Dm7'), voicing: dm },
          { key: '2:1', from: 0.5, to: 1, chord: chord(symbol), voicing: second },
        ]}
        onward={null}
        range={[45, 76]}
        selected={null}
        taken={null}
        onSelect={() => undefined}
        onTake={() => undefined}
        onDrag={() => undefined}
      />,
    )
  test('each note carries its degree', () => {
    const degrees = [...picture(g!, 'G7').matchAll(/<text[^>]*>([♭♯]?\d+)<\/text>/g)].map(
      ([, degree]) => degree,
    )
    for (const { strings } of [dm, g!])
      for (const { degree } of strings) expect(degrees).toContain(engraved(degree))
  })
  test('a voice that is held goes through to the next chord, one that moves stops before it', () => {
    const ends = [...picture(g!, 'G7').matchAll(/class="thread [^"]*" x1="4" x2="(\d+)"/g)].map(([, x]) =>
      Number(x),
    )
    expect(ends).toHaveLength(dm.midis.length)
    const common = dm.midis.filter((midi) => g!.midis.includes(midi)).length
    expect(common).toBeGreaterThan(0)
    expect(ends.filter((x) => x > 500)).toHaveLength(common)
  })
  test('higher sounds are drawn higher', () => {
    const places = [...picture(g!, 'G7').matchAll(/class="thread [^"]*" x1="4" x2="\d+" y1="([\d.]+)"/g)].map(
      ([, y]) => Number(y),
    )
    expect(places).toEqual([...places].sort((a, b) => b - a))
  })
})

describe('the neck', () => {
  const neck = (frets: number, leftHanded = false) =>
    drawn(<Neck strings={6} frets={frets} marks={[]} label="Neck" onTouch={() => undefined} />, {
      ...DEFAULT_PLAYER,
      leftHanded,
    })
  test('has a place to touch for each string at the nut and each fret of the instrument', () =>
    expect(neck(20).match(/class="neck-touch"/g)).toHaveLength(6 * 21))
  test('frets stand as far apart as they are: each nearer the next by the twelfth root of two', () => {
    const widths = all(neck(20), 'neck-touch', 'width').slice(1, 21).map(Number)
    // Equal temperament: the distance to the bridge shrinks by 2^(-1/12) a fret.
    for (const [at, width] of widths.slice(1).entries())
      expect(width / itemAt(widths, at)).toBeCloseTo(2 ** (-1 / 12), 3)
  })
  test('a left-handed one runs the other way', () => {
    const places = (left: boolean) => all(neck(12, left), 'neck-touch', 'x').slice(1, 13).map(Number)
    expect(places(false)).toEqual([...places(false)].sort((a, b) => a - b))
    expect(places(true)).toEqual([...places(true)].sort((a, b) => b - a))
  })
})

describe('chord names', () => {
  test.each([
    ['Bbm7b5', 'B♭', 'ø', '7'],
    ['F#7#9', 'F♯', '', '7♯9'],
    ['Cmaj7', 'C', 'maj', '7'],
    ['Ebdim7', 'E♭', '°', '7'],
    ['Gaug', 'G', '+', ''],
    ['Am', 'A', 'm', ''],
  ])('%s: root, quality and what is raised', (symbol, root, quality, raised) => {
    const svg = renderToStaticMarkup(<ChordName chord={chord(symbol)} />)
    const part = (name: string) => new RegExp(`chord-${name}">(.*?)<`).exec(svg)?.[1] ?? ''
    expect([part('root'), part('quality'), part('raised')]).toEqual([root, quality, raised])
  })
  test('a bass stands after a stroke, with its own sign', () =>
    expect(renderToStaticMarkup(<ChordName chord={chord('C/Bb')} />)).toContain('/B♭'))
  test('inside a sentence only what is surely a note or a degree is changed', () => {
    expect(engravedWords('Bb is a b9 over A, back by bar 4')).toBe('B♭ is a ♭9 over A, back by bar 4')
    expect(engravedWords('F#m7 goes to Bm')).toBe('F♯m7 goes to Bm')
    expect(engravedWords('About Bach, Abby and dab')).toBe('About Bach, Abby and dab')
  })
})

describe('systems', () => {
  const bars = fc.array(fc.constantFrom('C', 'Am F', 'Dm G7 C A7'), { minLength: 1, maxLength: 23 })
  const chart = (texts: readonly string[]) => parseChart(texts.map((text) => `| ${text} `).join('') + '|')
  const rooms = fc.constantFrom(BARS_IN_SYSTEM, BARS_ON_A_PHONE)
  test('hold every bar once, no more to a system than it has room for, their edges in order from left to right', () =>
    fc.assert(
      fc.property(bars, rooms, (texts, room) => {
        const parsed = chart(texts)
        const systems = systemsOf(parsed.bars, room)
        expect(systems.flatMap(({ bars: inside }) => inside)).toEqual(parsed.bars)
        for (const system of systems) {
          expect(system.bars.length).toBeLessThanOrEqual(room)
          expect(system.edges).toHaveLength(system.bars.length + 1)
          expect(system.edges).toEqual([...system.edges].sort((a, b) => a - b))
          expect(system.edges.at(-1)).toBeLessThanOrEqual(1.0001)
          // A bar is as wide in the drawings of a phone's two as of four side by side.
          expect((itemAt(system.edges, 1) - firstOf(system.edges)) * unitsOf(system)).toBeCloseTo(
            unitsOf({ room: BARS_IN_SYSTEM }) / BARS_IN_SYSTEM,
          )
          expect(columnsOf(system).match(/minmax/g)!.length).toBeGreaterThanOrEqual(system.bars.length)
        }
      }),
    ))
  test('a chord stands where its beat is, and later ones further right', () =>
    fc.assert(
      fc.property(bars, (texts) => {
        const parsed = chart(texts)
        for (const system of systemsOf(parsed.bars))
          for (const [at, bar] of system.bars.entries()) {
            const places = slotsOf(parsed)
              .filter((slot) => slot.bar === bar.number)
              .map(({ beat }) => across(system, at, beat))
            expect(places).toEqual([...places].sort((a, b) => a - b))
            for (const place of places) expect(place).toBeGreaterThanOrEqual(itemAt(system.edges, at))
          }
      }),
    ))
})
