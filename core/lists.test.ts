import { entryOf, firstOf, itemAt, lastOf, theOne } from './lists'

test('what is in a list is given; what is not is an error that says where', () => {
  expect([firstOf([1, 2]), lastOf([1, 2]), itemAt('abc', 1)]).toEqual([1, 2, 'b'])
  for (const wrong of [() => firstOf([]), () => lastOf([]), () => itemAt([1], -1), () => itemAt([1], 1)])
    expect(wrong).toThrow(RangeError)
  expect(() => itemAt([1, 2], 5)).toThrow('there is no item 5 in a list of 2')
  expect(() => itemAt([1, 2], NaN)).toThrow(RangeError)
})

test('an item that is undefined itself is still an item', () => {
  expect(itemAt([undefined], 0)).toBeUndefined()
  expect(entryOf(new Map([['a', undefined]]), 'a')).toBeUndefined()
})

test('what is in a map is given, and what one of a list is looked for', () => {
  expect(entryOf(new Map([['a', 1]]), 'a')).toBe(1)
  expect(() => entryOf(new Map([['a', 1]]), 'b')).toThrow('there is no entry b in a map of 1')
  expect(theOne([3, 4, 5], (item) => item > 3)).toBe(4)
  expect(() => theOne([3], (item) => item > 3)).toThrow(RangeError)
})
