import { readFrets } from './readFrets'

test.each([
  ['x 3 2 0 1 0', [null, 3, 2, 0, 1, 0]],
  ['x32010', [null, 3, 2, 0, 1, 0]],
  ['X,3,2,0,1,0', [null, 3, 2, 0, 1, 0]],
  ['x-10-9-10-11-x', [null, 10, 9, 10, 11, null]],
  ['24 24 24 24 24 24', [24, 24, 24, 24, 24, 24]],
  ['(x)32010', [null, 3, 2, 0, 1, 0]],
])('%s', (text, frets) => expect(readFrets(text, 6)).toEqual({ ok: true, value: frets }))

test.each([
  ['x3201', '5 strings; the instrument has 6'],
  ['x 3 2 0 1 q', '“q” is no fret'],
  ['99 0 0 0 0 0', 'beyond any neck'],
  ['', '0 strings'],
])('%s is refused with why and what is accepted', (text, why) => {
  const read = readFrets(text, 6)
  expect(read.ok ? '' : `${read.fault.message} ${read.fault.accepted}`).toContain(why)
  expect(read.ok ? '' : read.fault.accepted).toContain('x32010')
})
