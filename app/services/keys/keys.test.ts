import { firstOf } from '../../../core/lists'
import { actOn, pressOf, type KeyRow } from './keyTable'

function codeOf(key: string): string {
  if (/^[a-z]$/i.test(key)) return `Key${key.toUpperCase()}`
  return /^\d$/.test(key) ? `Digit${key}` : key
}
const press = (key: string, more: Partial<KeyboardEvent> = {}) =>
  ({
    key,
    code: codeOf(key),
    ctrlKey: false,
    metaKey: false,
    altKey: false,
    shiftKey: false,
    ...more,
  }) as KeyboardEvent

test.each([
  ['a letter, small or not', press('G', { shiftKey: true }), 'g'],
  ['Space by its name', press(' ', { code: 'Space' }), 'Space'],
  ['an arrow with Shift', press('ArrowUp', { shiftKey: true }), 'Shift+ArrowUp'],
  [
    'a digit with Shift, whatever sign the layout gives',
    press('"', { code: 'Digit2', shiftKey: true }),
    'Shift+2',
  ],
  ['a sign that needs Shift, by itself', press('?', { code: 'Slash', shiftKey: true }), '?'],
  ['plus on its key', press('+', { code: 'Equal', shiftKey: true }), '+'],
  ['Alt by the place of the key', press('ß', { code: 'KeyS', altKey: true }), 'Alt+s'],
  ['Alt and a digit', press('¡', { code: 'Digit1', altKey: true }), 'Alt+1'],
  ['Alt, Shift and a letter', press('ˆ', { code: 'KeyI', altKey: true, shiftKey: true }), 'Alt+Shift+i'],
  ['Control', press('z', { ctrlKey: true }), 'Ctrl+z'],
  ['the other system’s Control, with Shift', press('Z', { metaKey: true, shiftKey: true }), 'Ctrl+Shift+z'],
])('%s', (_, event, name) => expect(pressOf(event)).toBe(name))

test('the first row that has something to do does it; a row that has nothing to do gives the key on', () => {
  const done: string[] = []
  const row = (name: string, on: string[], act: () => boolean | void): KeyRow => ({
    on,
    shown: name,
    says: name,
    act: () => {
      done.push(name)
      return act()
    },
  })
  const rows = [
    row('shy', ['b'], () => false),
    row('bold', ['b', 'c'], () => undefined),
    row('late', ['b'], () => true),
  ]
  expect(actOn(rows, press('b'))).toBe(true)
  expect(done).toEqual(['shy', 'bold'])
  expect(actOn(rows, press('x'))).toBe(false)
  expect(actOn([firstOf(rows)], press('b'))).toBe(false)
})
