import { whenInWords, writtenAs } from './written'

test('a moment is written as days are here, with its time where it has one', () => {
  const noon = new Date(2026, 10, 27, 12, 5)
  expect(whenInWords(noon)).toBe('27 Nov 2026, 12:05')
  expect(whenInWords(noon.getTime())).toBe(whenInWords(noon))
  expect(writtenAs({ dateStyle: 'full', timeZone: 'UTC' })(Date.UTC(2026, 10, 27))).toEqual(
    expect.stringMatching(/^Friday,? 27 November 2026$/),
  )
})

test('nothing is made before it is asked for, and only once', () => {
  const made = jest.spyOn(Intl, 'DateTimeFormat')
  const written = writtenAs({ dateStyle: 'long' })
  expect(made).not.toHaveBeenCalled()
  written(0)
  written(1)
  expect(made).toHaveBeenCalledTimes(1)
  made.mockRestore()
})
