import { firstOf } from '../lists'
import { parseChart } from '../chart/parseChart'
import { parseChord } from '../chord/parseChord'
import { midiOf, parsePitch } from '../pitch/note'
import { must } from '../result'
import { DEFAULT_LIMITS } from '../voicing/gripLimits'
import { harmonise } from './harmonise'
import type { MelodyTexture } from './melodyTextures'
import { harmonisedSixthDiminished } from './sixthDiminished'

const chart = parseChart('key: C\n| C | F | G | C |')
const melody = (
  [
    ['C5', 1, 8],
    ['B4', 3, 4],
    ['C5', 4, 4],
  ] as const
).map(([note, bar, beats]) => ({ bar, beat: 1, beats, note: must(parsePitch(note)) }))
const limits = { ...DEFAULT_LIMITS, frets: [0, 17] as const }
const made = (texture?: MelodyTexture) =>
  firstOf(must(harmonise({ chart, melody, limits, ...(texture ? { texture } : {}) }))).notes

describe('a chord is heard when it comes (common practice, no source)', () => {
  test('a chord that comes under a held note is struck, with the note on top', () => {
    const notes = made()
    expect(notes.map(({ bar, again, under }) => [bar, again, under])).toEqual([
      [1, false, 'chord'],
      [2, true, 'chord'],
      [3, false, 'chord'],
      [4, false, 'chord'],
    ])
    for (const { voicing, note } of notes) expect(voicing.midis.at(-1)).toBe(midiOf(note!.note))
  })
  test.each(['drop 2', 'fourths'] as const)(
    '%s: with a free tension where the chord by itself has none',
    (texture) => {
      const family = texture === 'fourths' ? 'quartal' : 'drop 2'
      const notes = made(texture)
      expect(notes.filter(({ voicing }) => voicing.families.includes(family)).length).toBeGreaterThanOrEqual(
        texture === 'drop 2' ? 4 : 2,
      )
    },
  )
})

test('the sixth-diminished scale sounds all four tones of each step, in one layout on one set of strings, in all keys', () => {
  for (const root of ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B'])
    for (const suffix of ['6', 'm6']) {
      const { line } = must(harmonisedSixthDiminished(must(parseChord(root + suffix)), limits))
      expect(line.voicings).toHaveLength(8)
      for (const { midis, families, strings } of line.voicings) {
        expect(new Set(midis.map((midi) => midi % 12)).size).toBe(4)
        expect(families.includes('drop 2') || families.includes('close')).toBe(true)
        expect(strings.map(({ string }) => string)).toEqual(
          firstOf(line.voicings).strings.map(({ string }) => string),
        )
      }
    }
})
