import { SearchProgressStore } from './progress'

test('a share is told to those who listen, once for each step, until they stop listening', () => {
  const howFar = new SearchProgressStore()
  const heard: number[] = []
  const stop = howFar.listen(() => heard.push(howFar.share()))
  expect(howFar.share()).toBe(0)
  howFar.tell({ done: 1, of: 4 })
  howFar.tell({ done: 2, of: 8 })
  howFar.tell({ done: 4, of: 4 })
  stop()
  howFar.tell({ done: 1, of: 2 })
  expect(heard).toEqual([0.25, 1])
})

test('counts that make no sense stay between nothing and all', () => {
  const howFar = new SearchProgressStore()
  howFar.tell({ done: 3, of: 0 })
  expect(howFar.share()).toBe(0)
  howFar.tell({ done: 9, of: 3 })
  expect(howFar.share()).toBe(1)
})
