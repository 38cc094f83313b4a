import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { ROOMS } from '../../steps/rooms'

const guide = readFileSync('docs/guide.md', 'utf8')
const headings = [...guide.matchAll(/^#+ (.*)$/gm)].map(([, words]) => words!)
const anchors = headings.map((words) =>
  words
    .toLowerCase()
    .replace(/[^a-z0-9 ]/g, '')
    .replaceAll(' ', '-'),
)

test('every place, picture and text that the guide leads to is there', () => {
  const links = [...guide.matchAll(/\]\(([^)]+)\)/g)].map(([, address]) => address!)
  expect(links.length).toBeGreaterThan(15)
  for (const address of links) {
    if (address.startsWith('#')) expect(anchors).toContain(address.slice(1))
    else expect([address, existsSync(`docs/${address}`)]).toEqual([address, true])
  }
})

test('every step of the work has its part, in their order', () => {
  const parts = headings.filter((words) => ROOMS.some(({ label }) => label === words))
  expect(parts).toEqual(ROOMS.map(({ label }) => label))
})

test('every word of a bar that leads to the glossary has its row there, and each only once', () => {
  const rows = [...readFileSync('docs/glossary.md', 'utf8').matchAll(/^\| ([^,|]*)[,|]/gm)].map(([, word]) =>
    word!
      .trim()
      .toLowerCase()
      .replace(/[^a-z0-9 ]/g, '')
      .trim()
      .replaceAll(' ', '-'),
  )
  const bars = readdirSync('app/steps', { recursive: true, encoding: 'utf8' }).filter((file) =>
    file.endsWith('.tsx'),
  )
  const terms = bars.flatMap((file) =>
    [...readFileSync(`app/steps/${file}`, 'utf8').matchAll(/\bterm="([^"]*)"/g)].map(([, term]) => term!),
  )
  expect(terms.length).toBeGreaterThan(20)
  for (const term of terms) expect([term, rows.filter((row) => row === term).length]).toEqual([term, 1])
})
