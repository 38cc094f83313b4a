import { Chord as TonalChord, ChordType } from 'tonal'
import { chord } from '../chord/parse'
import { parseKey } from '../pitch/key'
import { parseNote } from '../pitch/note'
import { must } from '../result'
import { namesOf } from './name'

const NOTES = ['C', 'Db', 'D', 'Eb', 'E', 'F', 'F#', 'G', 'Ab', 'A', 'Bb', 'B']
const over = (midis: number[], root: string) => namesOf(midis, { over: must(parseNote(root)) })

describe('every set over every root has a name', () => {
  test('two to four sounds, all of them, over three roots; degrees for each note', () => {
    for (let set = 1; set < 4096; set += 1) {
      const midis = NOTES.flatMap((_, sound) => (set & (1 << sound) ? [48 + sound] : []))
      if (midis.length < 2 || midis.length > 4) continue
      for (const root of ['C', 'F#', 'Bb']) {
        const [name] = over(midis, root)
        expect(name).toBeDefined()
        expect(name!.degrees).toHaveLength(midis.length)
      }
    }
  })
  // tonal 6.4.3: the dictionary of a theory library, every chord type over every one of its roots and without it.
  test('all chord types of a theory library, on their root and rootless', () => {
    const types = ChordType.all().filter(({ intervals }) => intervals.length >= 3 && intervals.length <= 6)
    expect(types.length).toBeGreaterThan(80)
    for (const { aliases } of types)
      for (const [up, root] of NOTES.entries()) {
        const sounds = TonalChord.getChord(aliases[0]!, root).notes.map((note) =>
          NOTES.findIndex((one) => chroma(one) === chroma(note)),
        )
        const midis = sounds.map((sound) => 48 + sound)
        expect(over(midis, root).length).toBeGreaterThan(0)
        if (midis.length > 2)
          expect(
            over(midis.slice(1), root)[0]!.rootless || midis.slice(1).some((midi) => (midi - 48) % 12 === up),
          ).toBe(true)
      }
  })
})
const chroma = (note: string): number => {
  const natural = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }[note[0]!]!
  return (
    (((natural + [...note.slice(1)].reduce((sum, sign) => sum + (sign === 'b' ? -1 : 1), 0)) % 12) + 12) % 12
  )
}

describe('usual spellings (common practice, no source)', () => {
  const best = (symbol: string, key?: string) => {
    const tones = chord(symbol).tones.map(({ note }) =>
      chroma('CDEFGAB'[note.letter]! + (note.alter < 0 ? 'b'.repeat(-note.alter) : '#'.repeat(note.alter))),
    )
    const [root, ...others] = tones
    const midis = [36 + root!, ...others.map((sound) => 48 + sound)].sort((a, b) => a - b)
    return namesOf(midis, key ? { key: must(parseKey(key)) } : {})[0]!.chord.canonical
  }
  test.each([
    ['Gbm7', 'F#m7'],
    ['Dbm7', 'C#m7'],
    ['Abm7', 'G#m7'],
    ['A#m7', 'Bbm7'],
    ['Cbmaj7', 'Bmaj7'],
    ['A#aug', 'Bbaug'],
    ['Gb7', 'F#7'],
    ['D#7', 'Eb7'],
  ])('%s without a key is %s', (from, to) => expect(best(from)).toBe(to))
  test('a key decides where it can', () => {
    expect(best('F#7', 'Db')).toBe('Gb7')
    expect(best('F#m7', 'E')).toBe('F#m7')
    expect(best('Db7', 'A')).toBe('C#7')
  })
  test('altered names come before slash names of strangers', () => {
    const names = namesOf([48, 52, 58, 61, 66].map((midi) => midi)).map((one) => one.chord.canonical)
    expect(names[0]).toMatch(/^C7/)
    expect(namesOf([43, 53, 59, 61])[0]!.chord.canonical).toMatch(/^G7(b5|#11)$/)
  })
  test('no name stands there twice, over any root', () => {
    for (const over of ['A', 'C', 'Eb', 'F#', 'B'])
      for (const midis of [
        [48, 52, 55, 59],
        [43, 53, 59, 64],
        [45, 49, 56],
        [48, 54, 58, 63],
      ]) {
        const names = namesOf(midis, { over: must(parseNote(over)) }).map((one) => one.chord.canonical)
        expect(new Set(names).size).toBe(names.length)
        expect(names.length).toBeGreaterThan(0)
      }
  })
})
