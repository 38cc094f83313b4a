import { itemAt } from '../../core/lists'
import fc from 'fast-check'
import {
  isRead,
  isReadWith,
  keptPagesAsHtml,
  otherWindow,
  stepInstead,
  tuneOfAddress,
  requestKindOf,
} from './cachePolicy'

const at = (path: string) => new URL(path, 'https://songbook.example')
const [ONE, TWO] = ['11111111-1111-4111-8111-111111111111', '22222222-2222-4222-8222-222222222222']

test('pages that are read are kept; what writes, files and the way in are not', () => {
  for (const path of [
    '/',
    `/tunes/${ONE}/lines`,
    `/tunes/${ONE}/sheet`,
    '/sets',
    `/sets/${TWO}`,
    '/guide/glossary',
    `/stand?tune=${ONE}`,
  ])
    expect([path, isRead(at(path))]).toEqual([path, true])
  for (const path of [
    '/sign-in',
    '/files',
    '/files/backup',
    `/tunes/${ONE}/edits`,
    `/tunes/${ONE}/file/midi`,
    `/tunes/${ONE}/sheet.pdf`,
    '/log/file',
    '/trainer',
    '/service-worker.js',
    '/certificate',
  ])
    expect([path, isRead(at(path))]).toEqual([path, false])
  expect(isReadWith(at(`/stand/pages?tune=${ONE}`))).toBe(true)
  expect(isReadWith(at('/stand'))).toBe(false)
})

test('a tune is known from its steps and from the stand', () => {
  expect(tuneOfAddress(at(`/tunes/${ONE}/chart`))).toBe(ONE)
  expect(tuneOfAddress(at(`/stand?version=x&tune=${TWO}`))).toBe(TWO)
  expect(tuneOfAddress(at('/sets'))).toBeNull()
})

test('another step stands in for one that is not kept, never another tune, never the sheet', () => {
  const kept = [at(`/tunes/${TWO}/practice`), at(`/tunes/${ONE}/sheet`), at(`/tunes/${ONE}/lines`)]
  expect(stepInstead(at(`/tunes/${ONE}/chart`), kept)?.pathname).toBe(`/tunes/${ONE}/lines`)
  expect(stepInstead(at(`/tunes/${ONE}/sheet`), kept.slice(2))).toBeNull()
  expect(stepInstead(at(`/tunes/${ONE}/chart`), kept.slice(0, 2))).toBeNull()
  expect(stepInstead(at('/sets'), kept)).toBeNull()
  expect(stepInstead(at(`/tunes/${ONE}/edits`), kept)).toBeNull()
  // A step that is new to it stands in like any other, after those that say most of a tune.
  const later = [at(`/tunes/${ONE}/newest`), at(`/tunes/${ONE}/why`)]
  expect(stepInstead(at(`/tunes/${ONE}/chart`), later)).toBe(later[0])
  expect(stepInstead(at(`/tunes/${ONE}/newest`), [...later.slice(1), ...kept])).toBe(kept[2])
})

test('pages of the stand for another window serve, those nearest in size; another version or key does not', () => {
  const pages = (width: number, more = '') =>
    at(`/stand/pages?tune=${ONE}&shown=grips&width=${width}&height=300&note=${more}`)
  const kept = [pages(300), pages(420), pages(480, '&version=A'), pages(480, '&key=Bb')]
  expect(otherWindow(pages(500), kept)).toBe(kept[1])
  expect(otherWindow(pages(310), kept)).toBe(kept[0])
  expect(otherWindow(pages(500, '&version=A'), kept)).toBe(kept[2])
  expect(otherWindow(pages(500, '&version=B'), kept)).toBeNull()
})

test('what is kept is listed by tune, with where to read it', () => {
  const html = keptPagesAsHtml(
    [
      { address: at(`/tunes/${TWO}/chart`), title: 'Weir Song · Yellow Heron' },
      { address: at(`/tunes/${ONE}/practice`), title: 'Halyard Waltz · Yellow Heron' },
      { address: at(`/tunes/${ONE}/sheet`), title: 'Halyard Waltz, sheet · Yellow Heron' },
      { address: at(`/stand?tune=${ONE}`), title: 'Halyard Waltz · stand' },
      { address: at('/'), title: 'Songbook · Yellow Heron' },
    ],
    '/assets/root-1.css',
  )
  expect([...html.matchAll(/<li>(.*?)<\/li>/g)].map(([, row]) => row!.replace(/<[^>]*>/g, ''))).toEqual([
    'Halyard Waltz: Practice · Sheet · Stand',
    'Weir Song: Open',
  ])
  expect(html).toContain('<a href="/">Songbook</a>')
  expect(html).toContain('href="/assets/root-1.css"')
})

test('no title of a tune becomes markup there', () => {
  fc.assert(
    fc.property(fc.string({ unit: 'grapheme' }), (title) => {
      const html = keptPagesAsHtml([{ address: at(`/tunes/${ONE}/chart`), title: `<b x="${title}">` }], null)
      const row = itemAt(/<li><b>(.*?)<\/b>: <a/s.exec(html)!, 1)
      expect(row).not.toMatch(/[<>"]/)
    }),
  )
})

test.each([
  ['GET', 'navigate', '/sign-in', 'signs in'],
  ['POST', 'navigate', '/sign-out', 'signs out'],
  ['POST', 'navigate', '/sign-out-everywhere', 'signs out'],
  ['POST', 'cors', '/tunes/1/edits', 'other'],
  ['GET', 'navigate', '/tunes/1/lines', 'kept'],
  ['GET', 'navigate', '/files', 'page'],
  ['GET', 'cors', '/stand/pages', 'kept'],
  ['GET', 'no-cors', '/assets/a.js', 'file'],
] as const)('%s %s %s is a request that %s', (method, mode, path, kind) =>
  expect(requestKindOf(new URL(path, 'https://workroom.local'), { method, mode })).toBe(kind),
)
