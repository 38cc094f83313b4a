import { firstOf, itemAt } from '../lists'
import fc from 'fast-check'
import { chord } from '../chord/parseChord'
import { must } from '../result'
import { DEFAULT_LIMITS, TUNE_LIMITS } from '../voicing/gripLimits'
import { leadInStyle, styledLines } from './inStyle'
import { nearnessOf, textureLimits, textureOf } from './texture'
import { usualTextures } from './usualTextures'
import { TEXTURE_NAMES } from './textureNames'
import type { TextureName } from './textureNames'

const symbols = (text: string) => text.split(' ').map(chord)
const shown = (line: { voicings: readonly { frets: readonly (number | null)[] }[] }) =>
  line.voicings.map(({ frets }) => frets.map((fret) => fret ?? 'x').join(' ')).join(' / ')
const led = (text: string, more: Partial<Parameters<typeof styledLines>[0]> = {}) =>
  must(styledLines({ chords: symbols(text), limits: DEFAULT_LIMITS, style: 'smooth', count: 1, ...more }))

describe('the first line is the one a player would take (common practice, no source)', () => {
  test.each([
    ['Dm7 G7 Cmaj7', 'shells', 'x 5 3 5 x x / 3 x 3 4 x x / x 3 2 4 x x'],
    ['Gm7 C7 Fmaj7', 'shells', '3 x 3 3 x x / x 3 2 3 x x / 1 x 2 2 x x'],
    ['C Am F G', 'open', 'x 3 2 0 1 0 / x 0 2 2 1 0 / 1 3 3 2 1 1 / 3 2 0 0 0 3'],
    ['G Em C D', 'open', '3 2 0 0 0 3 / 0 2 2 0 0 0 / x 3 2 0 1 0 / x x 0 2 3 2'],
  ])('%s: %s', (text, texture, grips) => {
    const found = led(text)
    expect([found.texture, shown(firstOf(found.lines))]).toEqual([texture, grips])
  })
  test('the default is read from the chart and from who plays the bass', () => {
    expect(usualTextures(symbols('C Am F G'), { bass: 'chord' })[0]).toBe('open')
    expect(usualTextures(symbols('Cmaj7 A7 Dm7 G7'), { bass: 'chord' })[0]).toBe('shells')
    expect(usualTextures(symbols('Cmaj7 A7 Dm7 G7'), { bass: 'any' })[0]).toBe('drop 2')
    expect(usualTextures(symbols('Cmaj7 A7 Dm7 G7'), { bass: 'none' })[0]).toBe('rootless')
  })
})

const tune = fc.array(
  fc.constantFrom(
    'Cmaj7',
    'Am7',
    'Dm7',
    'G7',
    'E7',
    'Fmaj7',
    'Bm7b5',
    'Bb7',
    'Ebmaj7',
    'F#m7',
    'C#dim7',
    'A7b9',
    'D9',
  ),
  { minLength: 2, maxLength: 5 },
)

describe('textures', () => {
  test.each(TEXTURE_NAMES)(
    '%s: every grip belongs, or it is said which stand in; the notes are as many as it has',
    (texture) => {
      fc.assert(
        fc.property(tune, (text) => {
          const {
            lines: [line],
            says,
          } = must(
            styledLines({ chords: text.map(chord), limits: TUNE_LIMITS, style: 'smooth', count: 1, texture }),
          )
          const within = textureLimits(texture, TUNE_LIMITS)
          const others = line!.voicings.filter(
            (voicing, at) =>
              (nearnessOf(texture, voicing, itemAt(line!.chords, at), within) ?? Infinity) >
              (textureOf(texture, within).belongs ?? 0),
          )
          expect(says.length > 0).toBe(others.length > 0)
          // No tone three times in a grip of fewer than six notes.
          for (const { midis } of line!.voicings)
            if (midis.length < 6)
              for (const midi of midis)
                expect(midis.filter((other) => other % 12 === midi % 12).length).toBeLessThan(3)
        }),
        { numRuns: 4 },
      )
    },
  )
  test('roots of shells lie low, and the line is registered by its cost', () => {
    fc.assert(
      fc.property(tune, (text) => {
        const [line] = must(
          leadInStyle({
            chords: text.map(chord),
            limits: TUNE_LIMITS,
            style: 'smooth',
            count: 1,
            texture: 'shells',
          }),
        )
        for (const { midis } of line!.voicings) expect(firstOf(midis)).toBeLessThanOrEqual(60)
        expect(Object.values(line!.parts).reduce((sum, part) => sum + part, 0)).toBeCloseTo(line!.cost, 6)
      }),
      { numRuns: 10 },
    )
  })
  test('a rootless line takes tensions for its roots, and says which', () => {
    const {
      lines: [line],
    } = led('Dm7 G7 Cmaj7', { limits: { ...DEFAULT_LIMITS, bass: 'none' } })
    line!.voicings.forEach(({ midis, strings }, at) => {
      expect(new Set(midis.map((midi) => midi % 12)).size).toBe(4)
      expect(strings.some(({ degree }) => degree === '1')).toBe(false)
      expect(itemAt(line!.chords, at).canonical).not.toBe(itemAt(symbols('Dm7 G7 Cmaj7'), at).canonical)
    })
  })
})

describe('styles beside smooth', () => {
  test.each(['Dm7 G7 Cmaj7 A7', 'Am7 D7 Gmaj7 E7', 'Fm7 Bb7 Ebmaj7 C7'])(
    '%s: tension adds tensions, bass goes by step, drone sounds through',
    (text) => {
      const of = (style: 'smooth' | 'tension' | 'bass' | 'drone') => led(text, { style })
      expect(
        firstOf(of('tension').lines).chords.some(
          ({ canonical }, at) => canonical !== itemAt(symbols(text), at).canonical,
        ),
      ).toBe(true)
      const leaps = (style: 'smooth' | 'bass') => firstOf(of(style).lines).measures.bass
      expect(leaps('bass')).toBeLessThan(leaps('smooth'))
      expect(of('drone').says.join(' ')).toMatch(/is the drone/)
    },
  )
  test('a drone rests where it would be a note to avoid', () => {
    const {
      lines: [line],
      says,
    } = led('Cmaj7 Dm7 Fmaj7 G7', { style: 'drone', drone: { midi: 65 } })
    expect(says.join(' ')).toMatch(/rests over Cmaj7/)
    expect(firstOf(line!.voicings).midis).not.toContain(65)
    expect(itemAt(line!.voicings, 1).midis).toContain(65)
  })
})

describe('several lines', () => {
  test.each(['Cmaj7 Am7 Dm7 G7 Em7 A7 Dm7 G7', 'C Am F G C Am F G'])(
    '%s: no two share more than half of their grips, the cheapest first',
    (text) => {
      const { lines } = led(text, { count: 4, different: true })
      expect(lines.length).toBeGreaterThanOrEqual(3)
      expect(lines.map(({ cost }) => cost)).toEqual(lines.map(({ cost }) => cost).sort((a, b) => a - b))
      lines.forEach((one, a) =>
        lines.slice(a + 1).forEach((other) => {
          const shared = one.voicings.filter(
            ({ frets }, at) => frets.join() === itemAt(other.voicings, at).frets.join(),
          ).length
          expect(shared).toBeLessThanOrEqual(one.voicings.length / 2)
        }),
      )
    },
  )
  const names: readonly TextureName[] = ['shells', 'drop 3']
  test('a texture that is asked for is kept to', () => {
    for (const texture of names)
      for (const line of led('Cmaj7 Am7 Dm7 G7', { count: 3, different: true, texture }).lines)
        expect(
          line.voicings.every(
            (voicing, at) =>
              nearnessOf(
                texture,
                voicing,
                itemAt(line.chords, at),
                textureLimits(texture, DEFAULT_LIMITS),
              ) === 0,
          ),
        ).toBe(true)
  })
})

test.each(TEXTURE_NAMES)('%s: whatever the number of notes, there is an answer or a reason', (texture) => {
  for (const notes of [
    [1, 1],
    [2, 2],
    [6, 6],
  ] as const) {
    const found = styledLines({
      chords: symbols('Dm7 G7'),
      limits: { ...DEFAULT_LIMITS, bass: 'any', notes },
      style: 'smooth',
      count: 1,
      texture,
    })
    if (found.ok)
      for (const { midis } of firstOf(found.value.lines).voicings) expect(midis).toHaveLength(notes[0])
    else expect(found.fault).toMatchObject({ code: 'no-grip', at: 0 })
  }
})
