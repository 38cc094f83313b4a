import { firstOf, itemAt } from '../lists'
import { Chord as TonalChord, ChordType } from 'tonal'
import fc from 'fast-check'
import { chord } from '../chord/parseChord'
import { soundAt, STANDARD_GUITAR } from '../neck/instrument'
import { parseKey } from '../pitch/key'
import { parseNote, pitchClass } from '../pitch/note'
import { must } from '../result'
import { namesOf } from './possibleNames'

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
  // tonal 6.4.3: the dictionary of a theory library, every chord type over every one of its roots
  // and without it.
  test('all chord types of a theory library, on their root and rootless', () => {
    const types = ChordType.all().filter(({ intervals }) => intervals.length >= 3 && intervals.length <= 6)
    expect(types.length).toBeGreaterThan(80)
    for (const { aliases } of types)
      for (const [up, root] of NOTES.entries()) {
        const sounds = TonalChord.getChord(firstOf(aliases), root).notes.map((note) =>
          NOTES.findIndex((one) => chroma(one) === chroma(note)),
        )
        const midis = sounds.map((sound) => 48 + sound)
        expect(over(midis, root).length).toBeGreaterThan(0)
        if (midis.length > 2)
          expect(
            firstOf(over(midis.slice(1), root)).rootless ||
              midis.slice(1).some((midi) => (midi - 48) % 12 === up),
          ).toBe(true)
      }
  })
})
const chroma = (note: string): number => {
  const natural = { C: 0, D: 2, E: 4, F: 5, G: 7, A: 9, B: 11 }[firstOf(note)]!
  return (
    (((natural + [...note.slice(1)].reduce((sum, sign) => sum + (sign === 'b' ? -1 : 1), 0)) % 12) + 12) % 12
  )
}

describe('usual spellings (common practice, no source)', () => {
  const best = (symbol: string, key?: string) => {
    const tones = chord(symbol).tones.map(({ note }) =>
      chroma(
        itemAt('CDEFGAB', note.letter) + (note.alter < 0 ? 'b'.repeat(-note.alter) : '#'.repeat(note.alter)),
      ),
    )
    const [root, ...others] = tones
    const midis = [36 + root!, ...others.map((sound) => 48 + sound)].sort((a, b) => a - b)
    return firstOf(namesOf(midis, key ? { key: must(parseKey(key)) } : {})).chord.canonical
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
    expect(firstOf(namesOf([43, 53, 59, 61])).chord.canonical).toMatch(/^G7(b5|#11)$/)
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

describe('names where a grip stands (common practice, no source)', () => {
  const named = (frets: readonly (number | null)[], where: { key: string; chord?: string; after?: string }) =>
    namesOf(
      frets.flatMap((fret, string) => (fret === null ? [] : [soundAt(STANDARD_GUITAR, string, fret)])),
      {
        key: must(parseKey(where.key)),
        ...(where.chord ? { chord: chord(where.chord) } : {}),
        ...(where.after ? { after: chord(where.after) } : {}),
      },
    ).map((one) => one.chord.canonical)
  test.each([
    [[null, null, 5, 6, 5, 7], { key: 'D', chord: 'A7' }, 'A9'],
    [[null, 9, 11, 9, 10, 9], { key: 'D', chord: 'Dmaj7' }, 'Dmaj9'],
    [[null, null, 5, 6, 7, null], { key: 'D', chord: 'A7' }, 'A13'],
    [[null, null, 4, 5, 4, 5], { key: 'Gm', chord: 'D7' }, 'D7b9'],
    [[7, null, 7, 7, 5, null], { key: 'A' }, 'Bm11'],
    [[null, 7, 7, 7, 7, null], { key: 'A' }, 'E9sus4'],
    [[null, 6, 7, 5, 7, null], { key: 'C' }, 'Ebdim7'],
    [[null, 4, 5, 3, 5, null], { key: 'C' }, 'C#dim7'],
  ] as const)('%j in %j is %s', (frets, where, name) => expect(named(frets, where)[0]).toBe(name))
  test('a reading over the lowest note, and one of the chord of the moment, are among the first three', () => {
    fc.assert(
      fc.property(
        fc.array(fc.option(fc.integer({ min: 0, max: 9 }), { freq: 3 }), { minLength: 6, maxLength: 6 }),
        fc.constantFrom('C', 'Gm', 'E', 'Ab'),
        fc.constantFrom('G7', 'Cmaj7', 'Am7', 'F#m7b5'),
        (frets, key, moment) => {
          const midis = frets.flatMap((fret, string) =>
            fret === null ? [] : [soundAt(STANDARD_GUITAR, string, fret)],
          )
          if (new Set(midis.map((midi) => midi % 12)).size < 2) return
          const first = namesOf(midis, { key: must(parseKey(key)), chord: chord(moment) }).slice(0, 3)
          const roots = first.map((one) => pitchClass(one.chord.root))
          expect(roots).toContain(Math.min(...midis) % 12)
          expect(roots).toContain(pitchClass(chord(moment).root))
        },
      ),
    )
  })
})
