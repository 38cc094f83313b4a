import fc from 'fast-check'
import { readTokens, type Token } from './tokens'

const tokens = (text: string) => [...readTokens(text)]
/** Without line ends and places, as short words. */
const read = (text: string) =>
  tokens(text)
    .filter(({ text }) => text !== '\n')
    .map((token) => {
      switch (token.kind) {
        case 'barline':
          return `${token.opens ? 'opens' : ''}|${token.played > 0 ? `x${token.played}` : ''}`
        case 'setting':
          return `${token.name}=${token.text}`
        case 'ending':
          return `ending ${token.passes.join(' ')}`
        case 'mark':
          return `mark ${token.mark}`
        default:
          return `${token.kind} ${token.text}`
      }
    })

describe('pieces of chart text', () => {
  test('settings, with other words for the same; a repeat sign at the begin of a line is none', () => {
    expect(read('key: Bb')).toEqual(['key=Bb'])
    expect(read('Time: 3/4')).toEqual(['meter=3/4'])
    expect(read('bpm:120')).toEqual(['tempo=120'])
    expect(read('Am:|')).toEqual(['cell Am', '|x2'])
  })
  test('bar lines of any weight, repeats, and how often a passage is played', () => {
    expect(read('| C || F |]')).toEqual(['|', 'cell C', '|', 'cell F', '|'])
    expect(read('|: C :|')).toEqual(['opens|', 'cell C', '|x2'])
    expect(read('|: C :| x3')).toEqual(['opens|', 'cell C', '|x3'])
    expect(read('|: C :|(4x)')).toEqual(['opens|', 'cell C', '|x4'])
    expect(read('|: C :: F :|')).toEqual(['opens|', 'cell C', 'opens|x2', 'cell F', '|x2'])
  })
  test('endings stand where a bar begins; a figure elsewhere is a cell', () => {
    expect(read('|1. C :|2. D |')).toEqual(['|', 'ending 1', 'cell C', '|x2', 'ending 2', 'cell D', '|'])
    expect(read('|1,3. C |')).toEqual(['|', 'ending 1 3', 'cell C', '|'])
    expect(read('|1-3. C |')).toEqual(['|', 'ending 1 2 3', 'cell C', '|'])
    expect(read('| C 1. |')).toEqual(['|', 'cell C', 'cell 1.', '|'])
  })
  test('sections, marks and words for the players', () => {
    expect(read('[A] | C |')).toEqual(['section A', '|', 'cell C', '|'])
    expect(read('| C D.C. al Fine |')).toEqual(['|', 'cell C', 'mark D.C. al Fine', '|'])
    expect(read('| to coda C |')).toEqual(['|', 'mark To Coda', 'cell C', '|'])
    expect(read('| "softly" C |')).toEqual(['|', 'remark "softly"', 'cell C', '|'])
    // A chord in quotes is a chord, and words behind a chord are not looked for.
    expect(read('| "C7" |')).toEqual(['|', 'cell "C7"', '|'])
  })
  test('spaces inside the brackets of a symbol belong to it', () => {
    expect(read('| C7(b9, #11) F |')).toEqual(['|', 'cell C7(b9, #11)', 'cell F', '|'])
  })

  const pieces = fc.array(
    fc.constantFrom(
      ...['|', '||', '|:', ':|', '::', ' ', '\n', 'C', 'Dm7', 'G7(b9)', '[A]', '[', ']', '1.', '1,2.', 'x3'],
      ...['"slowly"', '"', 'fine', 'D.C.', '𝄋', '%', '.', '(', ')', 'key: C', ':', 'Xyz', '𝄌', '\t'],
    ),
    { maxLength: 40 },
  )
  test('every piece stands in the text where it says, in order, none over another; and nothing but spaces is left out', () => {
    fc.assert(
      fc.property(
        pieces.map((parts) => parts.join('')),
        (text) => {
          const lines = text.split('\n')
          const found = new Map<number, Token[]>()
          for (const token of tokens(text)) found.set(token.line, [...(found.get(token.line) ?? []), token])
          lines.forEach((content, at) => {
            let reached = 0
            let left = ''
            for (const token of found.get(at + 1) ?? []) {
              if (token.text === '\n') continue
              const from = token.column - 1
              expect(from).toBeGreaterThanOrEqual(reached)
              left += content.slice(reached, from)
              // A section says its name, which stands inside its brackets; a setting what stands
              // behind its colon.
              if (token.kind === 'section') {
                const end = content.indexOf(']', from)
                expect(content.slice(from + 1, end).trim()).toBe(token.text)
                reached = end + 1
                continue
              }
              if (token.kind === 'setting') left = ''
              expect(content.slice(from, from + token.text.length)).toBe(token.text)
              reached = from + token.text.length
            }
            expect((left + content.slice(reached)).trim()).toBe('')
          })
        },
      ),
      { numRuns: 1_000 },
    )
  })
})
