import type { Degree } from '../pitch/degree'
import { bad, good, type Result } from '../result'

/** Everything a chord symbol says after its root and before its bass, read but not yet turned into tones. */
export interface Descriptor {
  quality: 'none' | 'major' | 'minor' | 'diminished' | 'augmented' | 'half-diminished'
  /** The triangle, `M7`, `maj7`: the seventh is major. */
  majorSeventh: boolean
  number: '' | '5' | '6' | '6/9' | '7' | '9' | '11' | '13'
  suspensions: Degree[]
  adds: Degree[]
  alterations: Degree[]
  omits: ('1' | '3' | '5')[]
  alt: boolean
}

const QUALITIES: readonly [RegExp, Descriptor['quality']][] = [
  [/^(?:major|Major|MAJ|maj|Maj|MA|ma(?!dd)|Ma(?!dd)|[mM]j|M|Δ|\^)/, 'major'],
  [/^(?:minor|Minor|MIN|min|Min|mi|Mi|m)/, 'minor'],
  // A dash is minor (C-7, C-9), except that C-5 lowers the fifth: there is no minor 5.
  [/^-(?!5)/, 'minor'],
  [/^(?:dim|Dim|°|o(?!mit))/, 'diminished'],
  [/^(?:halfdim|half-dim|ø|h)/, 'half-diminished'],
  // A plus is augmented (C+, C+7, C+9), except before 5 and 11, which it raises.
  [/^(?:aug|Aug|\+(?!5|11))/, 'augmented'],
]

const MAJOR_SEVENTH = /^(?:\/?(?:major|Major|MAJ|maj|Maj|MA|ma|Ma|[mM]j|M)(?=7|9|11|13)|[Δ^])/
const NUMBER = /^(?:6\/9|69|13|11|9|7|6|5)/

const SUSPENSIONS: readonly [RegExp, Degree[]][] = [
  [/^(?:sus2sus4|sus4sus2|sus24|sus42)/, ['2', '4']],
  [/^sus2/, ['2']],
  [/^sus4?/, ['4']],
]

const ADDABLE: Readonly<Record<string, Degree>> = {
  '2': '2',
  '4': '4',
  '6': '6',
  '9': '9',
  '11': '11',
  '13': '13',
  b9: 'b9',
  '#9': '#9',
  '#11': '#11',
  b13: 'b13',
}
const ALTERATIONS: Readonly<Record<string, Degree>> = {
  b5: 'b5',
  '#5': '#5',
  b9: 'b9',
  '#9': '#9',
  '#11': '#11',
  b13: 'b13',
}

const HELP =
  'after the root: maj m dim ° aug + ø; 5 6 6/9 7 9 11 13; sus2 sus4; add2 add4 add9 add11 add13; no1 no3 no5; alt; b5 #5 b9 #9 #11 b13; natural tensions in brackets; /bass'

/**
 * Reads what stands between root and bass, left to right: quality, number, then any mix of suspensions, additions,
 * alterations and omissions, bare or in brackets.
 * @param text already in plain accidentals, without root and bass
 * @param offset where `text` begins in the symbol, so that a fault can say where it is
 */
export function readDescriptor(text: string, offset: number): Result<Descriptor> {
  const d: Descriptor = {
    quality: 'none',
    majorSeventh: false,
    number: '',
    suspensions: [],
    adds: [],
    alterations: [],
    omits: [],
    alt: false,
  }
  let at = 0
  let depth = 0
  const rest = () => text.slice(at)
  const take = (pattern: RegExp): string | null => {
    const match = pattern.exec(rest())
    if (match) at += match[0].length
    return match ? match[0] : null
  }
  const fault = (message: string, length = text.length - at) =>
    bad({ code: 'bad-chord', message, accepted: HELP, at: offset + at, text: text.slice(at, at + length) })

  for (const [pattern, quality] of QUALITIES) {
    const word = take(pattern)
    if (!word) continue
    d.quality = quality
    // The bare triangle already means a major seventh; "maj" alone is a plain triad.
    d.majorSeventh = word === 'Δ' || word === '^'
    break
  }
  if (d.quality !== 'none' && d.quality !== 'major') {
    const bracket = /^\((?=(?:major|Major|MAJ|maj|Maj|MA|ma|Ma|[mM]j|M|Δ|\^))/.test(rest())
    if (bracket) at += 1
    if (take(MAJOR_SEVENTH)) d.majorSeventh = true
    if (bracket) {
      if (!d.majorSeventh) return fault('The bracket should hold maj7.')
      depth += 1
    }
  }
  const number = take(NUMBER)
  if (number) d.number = (number === '69' ? '6/9' : number) as Descriptor['number']
  // C2 is C with its second beside the third.
  if (!number && d.quality === 'none' && take(/^2(?!\d)/)) d.adds.push('2')
  if (d.majorSeventh && d.number === '') d.number = '7'
  if (d.quality === 'major' && ['7', '9', '11', '13'].includes(d.number)) d.majorSeventh = true
  if (d.number === '5' && d.quality !== 'none' && d.quality !== 'major')
    return bad({
      code: 'bad-chord',
      message: 'A "5" chord has no third, so it cannot be minor, diminished or augmented.',
      accepted: HELP,
      at: offset,
      text,
    })

  while (at < text.length) {
    if (take(/^\(/)) {
      depth += 1
      continue
    }
    if (rest()[0] === ')') {
      if (depth === 0) return fault('A closing bracket has no opening one.', 1)
      at += 1
      depth -= 1
      continue
    }
    if (take(depth > 0 ? /^[,\s]+/ : /^,/)) continue
    if (take(/^alt/)) {
      if (d.quality !== 'none' || !['', '7'].includes(d.number))
        return fault('"alt" belongs to a dominant seventh: C7alt.')
      d.alt = true
      d.number = '7'
      continue
    }
    const suspension = SUSPENSIONS.find(([pattern]) => take(pattern))
    if (suspension) {
      d.suspensions.push(...suspension[1].filter((x) => !d.suspensions.includes(x)))
      continue
    }
    const added = /^add(?:\(([b#+-]?\d+)\)|([b#+-]?\d+))/.exec(rest())
    if (added) {
      const degree = ADDABLE[(added[1] ?? added[2]!).replace(/^[+-]/, plainSign)]
      if (!degree) return fault(`Nothing is added by "${added[0]}".`, added[0].length)
      at += added[0].length
      d.adds.push(degree)
      continue
    }
    const omitted = /^(?:no|omit)([135])(?!\d)/.exec(rest())
    if (omitted) {
      at += omitted[0].length
      d.omits.push(omitted[1] as '1' | '3' | '5')
      continue
    }
    const altered = /^([b#+-])(5|9|11|13)/.exec(rest())
    if (altered) {
      const degree = ALTERATIONS[plainSign(altered[1]!) + altered[2]!]
      if (!degree)
        return fault(
          `"${altered[0]}" is not an alteration: b11 would sound as the third, #13 as the seventh.`,
          altered[0].length,
        )
      at += altered[0].length
      d.alterations.push(degree)
      continue
    }
    if (((d.number !== '' && d.number !== '5') || d.quality === 'minor') && take(/^(?:\+|aug)/)) {
      d.alterations.push('#5')
      continue
    }
    if (depth > 0) {
      const natural = take(/^(?:13|11|9)/)
      if (natural) {
        d.adds.push(ADDABLE[natural]!)
        continue
      }
    }
    return fault(`"${rest()}" could not be read.`)
  }
  if (depth > 0) return fault('A bracket is not closed.', 0)
  if (d.alt && (d.adds.length || d.suspensions.length || d.alterations.length))
    return bad({
      code: 'bad-chord',
      message: '"alt" already stands for every altered tone: write either alt or the alterations.',
      accepted: 'C7alt, or C7(b9,#5)',
      at: offset,
      text,
    })
  return good(d)
}

const plainSign = (sign: string): string => {
  if (sign === '-') return 'b'
  if (sign === '+') return '#'
  return sign
}
