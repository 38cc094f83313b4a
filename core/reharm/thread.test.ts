import { itemAt } from '../lists'
import fc from 'fast-check'
import { chord } from '../chord/parseChord'
import type { ChordSymbol } from '../chord/symbol'
import { modulo, parseNote, pitchClass } from '../pitch/note'
import { must } from '../result'
import { bassWalk, commonThread, heldThrough, nameOver } from './thread'

const note = (name: string) => must(parseNote(name))

describe('a sound held through the tune', () => {
  test('G through I vi ii V: the nearest chord that has it, and what it is there', () => {
    const found = commonThread('key: C\n| C | Am | Dm | G |', note('G'))
    expect(found.map((one) => [one!.chord.canonical, one!.degree])).toEqual([
      ['C', '5'],
      ['Am7', 'b7'],
      ['Dm7add11', '11'],
      ['G', '1'],
    ])
    expect(found.map((one) => one!.change === null)).toEqual([true, false, false, true])
  })
  test('what is found has the sound, and where nothing is found nothing is said', () => {
    fc.assert(
      fc.property(
        fc.array(fc.constantFrom('C', 'Am', 'Dm7', 'G7', 'E7', 'Fm', 'Bb7', 'N.C.', 'x'), {
          minLength: 1,
          maxLength: 8,
        }),
        fc.constantFrom('C', 'E', 'F#', 'Bb', 'D'),
        (symbols, held) => {
          const found = commonThread(`key: C\n| ${symbols.join(' | ')} |`, note(held))
          expect(found).toHaveLength(symbols.length)
          for (const one of found)
            if (one)
              expect(one.chord.tones.some((tone) => pitchClass(tone.note) === pitchClass(note(held)))).toBe(
                true,
              )
        },
      ),
    )
  })
  test.each([
    ['G', 'Cmaj7', '5'],
    ['G', 'Fmaj7', '9'],
    ['B', 'Am7', '9'],
    ['Eb', 'C7', 'b3'],
  ])('%s over %s is its %s', (held, symbol, degree) =>
    expect(nameOver(note(held), chord(symbol))).toBe(degree),
  )
})

describe('a walking bass made of inversions and substitutes', () => {
  const basses = (text: string, direction: 'up' | 'down') =>
    bassWalk(text, direction).map((one) => pitchClass(one!.chord.bass ?? one!.chord.root))
  test('down by steps through a plain progression', () => {
    const line = basses('key: C\n| C | G | Am | Em | F | C | Dm | G |', 'down')
    const moves = line.slice(1).map((bass, at) => modulo(itemAt(line, at) - bass, 12))
    expect(moves.filter((move) => move === 1 || move === 2).length).toBeGreaterThanOrEqual(6)
  })
  test('the other way it goes up', () => {
    const line = basses('key: C\n| C | Dm | C | F |', 'up')
    expect(line.slice(1).every((bass, at) => [1, 2].includes(modulo(bass - itemAt(line, at), 12)))).toBe(true)
  })
})

test('both wishes together: a bass down by step over a note that every chord keeps which can', () => {
  const text = 'key: C\n| C | Am | F | G7 |'
  const held = note('G')
  const keeping = (walk: readonly ({ chord: ChordSymbol } | null)[]) =>
    walk.filter(
      (one) =>
        one && heldThrough([one.chord, chord('G')]).some((sound) => pitchClass(sound) === pitchClass(held)),
    ).length
  const both = bassWalk(text, 'down', held)
  // Some change of each of the four chords has G (the thread over the same tune finds them), so
  // each keeps it.
  expect(commonThread(text, held).every(Boolean)).toBe(true)
  expect(keeping(both)).toBe(4)
  const other = note('E')
  expect(keeping(bassWalk(text, 'down', other))).toBeLessThan(4)
})
