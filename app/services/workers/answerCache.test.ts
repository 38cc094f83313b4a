import { AnswerCache } from './answerCache'

test('what was answered is there again, even where the answer was that there is nothing', () => {
  const before = new AnswerCache()
  expect(before.find('grips of C')).toBeUndefined()
  before.keep('grips of C', ['x32010'])
  before.keep('easier than x32010', null)
  expect(before.find('grips of C')).toEqual({ answer: ['x32010'] })
  expect(before.find('easier than x32010')).toEqual({ answer: null })
})

test('a question as long as a large file is not kept', () => {
  const before = new AnswerCache()
  const file = 'X:1\n'.repeat(1_000_000)
  before.keep(file, 'a tune')
  expect(before.find(file)).toBeUndefined()
})

test('an answer that is wanted anew is forgotten, and no more are kept than are allowed', () => {
  const before = new AnswerCache(2)
  before.keep('1', 'one')
  before.keep('2', 'two')
  expect(before.find('1')).toEqual({ answer: 'one' })
  before.keep('3', 'three')
  expect(before.find('2')).toBeUndefined()
  before.forget('3')
  expect([before.find('1')?.answer, before.find('3')]).toEqual(['one', undefined])
})
