import fc from 'fast-check'
import { parseChart } from '../../../core/chart/parseChart'
import { Clock } from '../../../core/melody/clock'
import { parseKey } from '../../../core/pitch/key'
import { must } from '../../../core/result'
import { pitchName, type Pitch } from '../../../core/pitch/note'
import type { MelodyNote } from '../../../core/reharm/melodyFit'
import { tryEdit } from '../../../core/tune/tryEdit'
import { newDocument } from '../../../core/tune/document'
import { keep } from '../../../core/tune/applyMelody'
import { firstDifference, keyStroke, NEW_PEN, penPlace, takenUp, type Paper, type Pen } from './pen'

const C = must(parseKey('C'))
const paperOf = (text: string, notes: readonly MelodyNote[] = []): Paper => {
  const chart = parseChart(text)
  return { chart, clock: new Clock(chart), notes, songKey: C }
}

/** Presses keys one after the other. */
function press(
  text: string,
  keys: readonly string[],
  start: { pen?: Partial<Pen>; notes?: readonly MelodyNote[] } = {},
) {
  let pen: Pen = { ...NEW_PEN, on: true, ...start.pen }
  let notes = start.notes ?? []
  let says: string | null = null
  const melodies: (readonly MelodyNote[])[] = []
  for (const key of keys) {
    const stroke = keyStroke(pen, paperOf(text, notes), {
      key: key.replace('Shift+', ''),
      shiftKey: key.startsWith('Shift+'),
    })
    if (!stroke) continue
    pen = { ...pen, ...stroke.pen }
    says = stroke.says
    if (stroke.written) {
      notes = stroke.written.notes
      melodies.push(notes)
    }
  }
  return { pen, notes, says, melodies }
}
const inWords = (notes: readonly MelodyNote[]) =>
  notes.map(({ note, bar, beat, beats }) => `${pitchName(note)} ${bar}:${beat} for ${beats}`)

describe('writing a melody by keys', () => {
  test('a tune that is full takes no more, says so, and keeps what is there', () => {
    const full = press('| C | G7 |', ['2', 'c', 'd', 'e', 'g', 'a', 'b'])
    expect(inWords(full.notes)).toEqual(['C5 1:1 for 2', 'D5 1:3 for 2', 'E5 2:1 for 2', 'G5 2:3 for 2'])
    expect(full.says).toMatch(/The tune ends here, after bar 2/)
    expect(full.melodies).toHaveLength(4)
  })
  test('the pen is taken up at the selected note of a full melody, else at the beginning, and Home and the arrows move it', () => {
    const { notes } = press('| C | G7 |', ['1', 'c', 'd'])
    const paper = paperOf('| C | G7 |', notes)
    expect(takenUp(NEW_PEN, paper, { bar: 2, beat: 1 })).toEqual({ on: true, caret: 4 })
    expect(takenUp(NEW_PEN, paper, null)).toEqual({ on: true, caret: 0 })
    expect(inWords(press('| C | G7 |', ['Home', '3', 'g'], { notes }).notes)).toEqual([
      'G4 1:1 for 1',
      'D5 2:1 for 4',
    ])
    expect(inWords(press('| C | G7 |', ['ArrowLeft', 'g'], { notes, pen: { quarters: 2 } }).notes)).toEqual([
      'C5 1:1 for 4',
      'D5 2:1 for 2',
      'G5 2:3 for 2',
    ])
  })
  test('a note grows to the next one or to the end, and no farther', () => {
    expect(inWords(press('| C |', ['2', 'c', '=', '=']).notes)).toEqual(['C5 1:1 for 4'])
    expect(press('| C |', ['2', 'c', '=', '=']).says).toMatch(/cannot be longer/)
    expect(inWords(press('| C |', ['3', 'c', 'd', 'ArrowLeft', '=']).notes)).toEqual([
      'C5 1:1 for 1',
      'D5 1:2 for 1',
    ])
  })
  test('undo takes the caret to where the melody changed', () => {
    const { clock, notes } = paperOf('| C | G7 |', press('| C | G7 |', ['1', 'c', 'd']).notes)
    expect(firstDifference(clock, notes, notes.slice(0, 1))).toBe(4)
    expect(firstDifference(clock, notes, notes)).toBeNull()
  })
  test('whatever keys are pressed, every melody is one that can be kept', () => {
    const keys = fc.array(
      fc.constantFrom(
        '1',
        '2',
        '3',
        '4',
        '5',
        'a',
        'b',
        'c',
        'd',
        'e',
        'f',
        'g',
        'r',
        '.',
        't',
        '=',
        'Backspace',
        'ArrowLeft',
        'ArrowRight',
        'ArrowUp',
        'ArrowDown',
        'Shift+ArrowUp',
        'Shift+ArrowUp',
        'Shift+ArrowDown',
        'Home',
        'End',
      ),
      { maxLength: 60 },
    )
    fc.assert(
      fc.property(
        fc.constantFrom(
          '| C | G7 |',
          'time: 6/8\n| Am |',
          'time: 3/4\n| | Dm |\n| C |',
          'time: 4/4\n| F | time: 7/8 | C |',
        ),
        keys,
        (text, pressed) => {
          const { melodies, pen, notes } = press(text, pressed)
          for (const melody of melodies)
            expect(
              tryEdit(newDocument('Keys', text), { kind: 'melody', melody: melody.map(keep), did: 'note' }),
            ).toMatchObject({ ok: true })
          const paper = paperOf(text, notes)
          const { caret } = penPlace(pen, paper)
          expect(caret).toBeGreaterThanOrEqual(0)
          expect(caret).toBeLessThanOrEqual(paper.clock.end)
          for (const note of notes as (MelodyNote & { note: Pitch })[])
            expect(paper.clock.at(note) + paper.clock.lasts(note.bar, note.beats)).toBeLessThanOrEqual(
              paper.clock.end + 1e-3,
            )
        },
      ),
    )
  })
})
