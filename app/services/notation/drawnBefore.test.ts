import { DrawnBefore } from './drawnBefore'

const picture = (isConnected = false) => ({ isConnected })

test('what was drawn is there again, unless it is shown at present: no picture stands in two places', () => {
  const drawn = new DrawnBefore()
  expect(drawn.take('C major')).toBeNull()
  const staff = picture()
  drawn.keep('C major', staff)
  expect(drawn.take('C major')).toBe(staff)
  staff.isConnected = true
  expect(drawn.take('C major')).toBeNull()
})
test('no more are kept than are allowed: the one not shown for longest is drawn anew', () => {
  const drawn = new DrawnBefore(2)
  const [first, second, third] = [picture(), picture(), picture()]
  drawn.keep('1', first)
  drawn.keep('2', second)
  expect(drawn.take('1')).toBe(first)
  drawn.keep('3', third)
  expect(drawn.take('2')).toBeNull()
  expect([drawn.take('1'), drawn.take('3')]).toEqual([first, third])
})
