import { newDocument } from '../../../core/tune/document'
import { readTuneDocument } from '../../../core/tune/tuneReading'
import { sequenceOf } from '../sound/sequence'
import { hearingInWords, silenceInWords } from './placeWords'

const heard = (text: string, from: number, to = from) => {
  const reading = readTuneDocument(newDocument('Ferry', text))
  const sequence = sequenceOf(reading, { anchor: from, focus: to })
  return {
    says: hearingInWords(sequence),
    silent: (...searches: Parameters<typeof silenceInWords>[2]) =>
      silenceInWords(reading.chords, sequence, searches),
  }
}

test('what is played is said by its place: all of it, from a chord on, or a stretch', () => {
  expect(heard('| C | Am | F |', 0).says).toBe('The whole tune')
  expect(heard('| C | Am | F |', 1).says).toBe('From bar 2, beat 1 to the end')
  expect(heard('| C | Am | F |', 0, 1).says).toBe('bar 1, beat 1 to bar 2, beat 1')
})

describe('why nothing is heard', () => {
  test('a tune without chords, and one of which none can be read', () => {
    expect(heard('', 0).silent('none')).toBe('There are no chords to play yet.')
    expect(heard('| Hzz13 | Cwat7 |', 0).silent('none')).toBe('There is no chord that can be read yet.')
  })
  test('from a chord that cannot be read, with nothing behind it, no grips are waited for', () => {
    expect(heard('| C | Cwat7 |', 1).silent('found', 'found')).toBe(
      'No chord sounds from here on: select one before it.',
    )
    expect(heard('| Cwat7 | C |', 0).silent('searching', 'none')).toBe('Finding grips to play…')
  })
  test('grips are waited for only until it is known that there are none', () => {
    expect(heard('| C | Am |', 0).silent('searching', 'none')).toBe('Finding grips to play…')
    expect(heard('| C | Am |', 0).silent('found', 'fault')).toBe('No grip fits: the Lines step says why.')
  })
})
