import { summedUp } from './summedUp'

test('equal messages of two hundred files are one, with the names of all; what is said twice of one counts once', () => {
  const files = Array.from({ length: 200 }, (_, at) => ({
    of: `Tune ${at}`,
    messages: ['Each chord became a bar.'],
  }))
  const summed = summedUp([
    ...files,
    {
      of: 'Odd',
      messages: ['Two notes were left out.', 'Each chord became a bar.', 'Each chord became a bar.'],
    },
  ])
  expect(summed.map(({ message, of }) => [message, of.length])).toEqual([
    ['Each chord became a bar.', 201],
    ['Two notes were left out.', 1],
  ])
})
