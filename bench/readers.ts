import { answerLine } from '../core/cli/answerRequest'

/**
 * `npm run bench:readers`: each reader on patterns that are hard to read, at half its limit and at
 * the whole: the ratio is 2 where time grows with the text, 4 where it grows with its square.
 */
const PATTERNS = [
  '(', 'C(', ':|', '[', '|', '|C', '|C\n', 'C\n', 'C ', '%|', '_', '"', '"a" ', 'C_', '1.', 'Am7 | ', '[A] | C |\n', 'x', '{c: a}\n', '[C]a ',
  'key: C\n| C |\n', 'e|--3--|\nB|--0--|\nG|--0--|\nD|--0--|\n', 'I ', '.', '...x', '"', '-', '//', 'E |0|\nB |1|\nG |0|\nD |2|\n', 'Qz ',
] // prettier-ignore
const READERS: Readonly<Record<string, (text: string) => object>> = {
  text: (content) => ({ do: 'import', format: 'text', content }),
  chordpro: (content) => ({ do: 'import', format: 'chordpro', content }),
  numerals: (content) => ({ do: 'import', format: 'numerals', content, key: 'C' }),
  tab: (content) => ({ do: 'import', format: 'tab', content }),
  abc: (content) => ({ do: 'import', format: 'abc', content: `X:1\nK:C\n${content}` }),
  chart: (text) => ({ do: 'chart', text }),
  analyse: (text) => ({ do: 'analyse', text }),
  reharmonise: (text) => ({ do: 'reharmonise', text, distance: 0.5 }),
}
const WHOLE = 100_000
/** The header of a tune, and the last piece, may make it longer than the limit by some letters. */
const ROOM = 100
/** What a player waits at most. */
const MOST_SECONDS = 2

const secondsOf = (request: object): number => {
  const line = JSON.stringify(request)
  const begun = performance.now()
  answerLine(line)
  return (performance.now() - begun) / 1000
}

let slow = 0
for (const [name, ask] of Object.entries(READERS)) {
  for (const pattern of PATTERNS) {
    const text = (letters: number) => `${pattern.repeat(Math.floor((letters - ROOM) / pattern.length))}&"`
    const half = secondsOf(ask(text(WHOLE / 2)))
    const whole = secondsOf(ask(text(WHOLE)))
    if (whole > MOST_SECONDS) slow += 1
    console.log(
      `${name.padEnd(12)} ${JSON.stringify(pattern.slice(0, 16)).padEnd(22)} ${(whole / half).toFixed(2).padStart(6)} times      ${whole.toFixed(2)} s at ${WHOLE} letters${whole > MOST_SECONDS ? '   OVER 2 s' : ''}`,
    )
  }
}
console.log(`${slow} over ${MOST_SECONDS} s`)
