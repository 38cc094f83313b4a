import { typedOn, type Typed } from './burst'

/** Types a text letter by letter, 100 ms apart, and gives the text at each step of undo. */
function stepsOf(letters: string, pauses: Readonly<Record<number, number>> = {}) {
  let last: Typed | null = null
  let text = ''
  let now = 0
  const steps: string[] = []
  ;[...letters].forEach((letter, at) => {
    const next = letter === '<' ? text.slice(0, -1) : text + letter
    now += pauses[at] ?? 100
    const typed = typedOn(last, text, next, now)
    if (typed.joins) steps[steps.length - 1] = next
    else steps.push(next)
    last = typed
    text = next
  })
  return steps
}

test('a word with the sign behind it is one step', () =>
  expect(stepsOf('Dm7 G7 | C')).toEqual(['Dm7 ', 'Dm7 G7 | ', 'Dm7 G7 | C']))
test('a pause begins another', () => expect(stepsOf('Dm7', { 1: 2_000 })).toEqual(['D', 'Dm7']))
test('deleting is a step of its own', () => expect(stepsOf('Dm7<<sus')).toEqual(['Dm7', 'D', 'Dsus']))
test('what was pasted stands alone', () => {
  const pasted = typedOn({ text: 'C', at: 0, kind: 'word' }, 'C', 'C | Am | F', 50)
  expect(pasted.joins).toBe(false)
  expect(typedOn(pasted, 'C | Am | F', 'C | Am | F7', 100).joins).toBe(false)
})
test('another text in between (undo, another tab) ends the word', () =>
  expect(typedOn({ text: 'Dm', at: 0, kind: 'word' }, 'C', 'C7', 50).joins).toBe(false))
