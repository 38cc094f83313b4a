import { itemAt } from '../lists'
import type { Degree } from '../pitch/degree'
import { bad, good, type Fault, type Result } from '../result'

/**
 * Everything a chord symbol says after its root and before its bass, read but not yet turned into
 * tones.
 */
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

/** What is left of a symbol while it is read, and what was read of it. */
class DescriptorReader {
  readonly read: Descriptor = {
    quality: 'none',
    majorSeventh: false,
    number: '',
    suspensions: [],
    adds: [],
    alterations: [],
    omits: [],
    alt: false,
  }
  private at = 0
  /** Brackets that are open. */
  private depth = 0

  constructor(
    private readonly text: string,
    private readonly offset: number,
  ) {}

  /** Quality and number; a fault where they cannot stand together. */
  head(): Fault | null {
    const { read } = this
    for (const [pattern, quality] of QUALITIES) {
      const word = this.take(pattern)
      if (!word) continue
      read.quality = quality
      // The bare triangle already means a major seventh; "maj" alone is a plain triad.
      read.majorSeventh = word === 'Δ' || word === '^'
      break
    }
    if (read.quality !== 'none' && read.quality !== 'major') {
      const bracket = /^\((?=(?:major|Major|MAJ|maj|Maj|MA|ma|Ma|[mM]j|M|Δ|\^))/.test(this.rest)
      if (bracket) this.at += 1
      if (this.take(MAJOR_SEVENTH)) read.majorSeventh = true
      if (bracket) {
        if (!read.majorSeventh) return this.fault('The bracket should hold maj7.')
        this.depth += 1
      }
    }
    const number = this.take(NUMBER)
    if (number) read.number = (number === '69' ? '6/9' : number) as Descriptor['number']
    // C2 is C with its second beside the third.
    if (!number && read.quality === 'none' && this.take(/^2(?!\d)/)) read.adds.push('2')
    if (read.majorSeventh && read.number === '') read.number = '7'
    if (read.quality === 'major' && ['7', '9', '11', '13'].includes(read.number)) read.majorSeventh = true
    return read.number === '5' && read.quality !== 'none' && read.quality !== 'major'
      ? this.whole('A "5" chord has no third, so it cannot be minor, diminished or augmented.', HELP)
      : null
  }

  /** Everything behind the number. */
  signs(): Fault | null {
    while (this.at < this.text.length) {
      const fault = this.bracket() ?? this.sign()
      if (fault !== READ) return fault
    }
    if (this.depth > 0) return this.fault('A bracket is not closed.', 0)
    const { alt, adds, suspensions, alterations } = this.read
    return alt && (adds.length || suspensions.length || alterations.length)
      ? this.whole(
          '"alt" already stands for every altered tone: write either alt or the alterations.',
          'C7alt, or C7(b9,#5)',
        )
      : null
  }

  private get rest(): string {
    return this.text.slice(this.at)
  }

  private take(pattern: RegExp): string | null {
    const match = pattern.exec(this.rest)
    if (match) this.at += match[0].length
    return match ? match[0] : null
  }

  private fault(message: string, length = this.text.length - this.at): Fault {
    const at = this.offset + this.at
    return {
      code: 'bad-chord',
      message,
      accepted: HELP,
      at,
      text: this.text.slice(this.at, this.at + length),
    }
  }

  private whole(message: string, accepted: string): Fault {
    return { code: 'bad-chord', message, accepted, at: this.offset, text: this.text }
  }

  /** A bracket or what parts signs; null where none stands here. */
  private bracket(): Fault | typeof READ | null {
    if (this.take(/^\(/)) {
      this.depth += 1
      return READ
    }
    if (this.rest[0] === ')') {
      if (this.depth === 0) return this.fault('A closing bracket has no opening one.', 1)
      this.at += 1
      this.depth -= 1
      return READ
    }
    return this.take(this.depth > 0 ? /^[,\s]+/ : /^,/) ? READ : null
  }

  private sign(): Fault | typeof READ {
    const { read } = this
    if (this.take(/^alt/)) {
      if (read.quality !== 'none' || !['', '7'].includes(read.number))
        return this.fault('"alt" belongs to a dominant seventh: C7alt.')
      read.alt = true
      read.number = '7'
      return READ
    }
    const suspension = SUSPENSIONS.find(([pattern]) => this.take(pattern))
    if (suspension) {
      read.suspensions.push(...suspension[1].filter((x) => !read.suspensions.includes(x)))
      return READ
    }
    return this.added() ?? this.omitted() ?? this.altered() ?? this.fault(`"${this.rest}" could not be read.`)
  }

  private added(): Fault | typeof READ | null {
    const added = /^add(?:\(([b#+-]?\d+)\)|([b#+-]?\d+))/.exec(this.rest)
    if (!added) return null
    const degree = ADDABLE[(added[1] ?? itemAt(added, 2)).replace(/^[+-]/, plainSign)]
    if (!degree) return this.fault(`Nothing is added by "${added[0]}".`, added[0].length)
    this.at += added[0].length
    this.read.adds.push(degree)
    return READ
  }

  private omitted(): typeof READ | null {
    const omitted = /^(?:no|omit)([135])(?!\d)/.exec(this.rest)
    if (!omitted) return null
    this.at += omitted[0].length
    this.read.omits.push(omitted[1] as '1' | '3' | '5')
    return READ
  }

  private altered(): Fault | typeof READ | null {
    const { read } = this
    const altered = /^([b#+-])(5|9|11|13)/.exec(this.rest)
    if (altered) {
      const degree = ALTERATIONS[plainSign(itemAt(altered, 1)) + itemAt(altered, 2)]
      if (!degree)
        return this.fault(
          `"${altered[0]}" is not an alteration: b11 would sound as the third, #13 as the seventh.`,
          altered[0].length,
        )
      this.at += altered[0].length
      read.alterations.push(degree)
      return READ
    }
    if (
      ((read.number !== '' && read.number !== '5') || read.quality === 'minor') &&
      this.take(/^(?:\+|aug)/)
    ) {
      read.alterations.push('#5')
      return READ
    }
    const natural = this.depth > 0 ? this.take(/^(?:13|11|9)/) : null
    if (!natural) return null
    read.adds.push(ADDABLE[natural]!)
    return READ
  }
}
/** A sign was read. */
const READ = 'read'

/**
 * Reads what stands between root and bass, left to right: quality, number, then any mix of
 * suspensions, additions, alterations and omissions, bare or in brackets.
 * @param text already in plain accidentals, without root and bass
 * @param offset where `text` begins in the symbol, so that a fault can say where it is
 */
export function readDescriptor(text: string, offset: number): Result<Descriptor> {
  const reader = new DescriptorReader(text, offset)
  const fault = reader.head() ?? reader.signs()
  return fault ? bad(fault) : good(reader.read)
}

const plainSign = (sign: string): string => {
  if (sign === '-') return 'b'
  if (sign === '+') return '#'
  return sign
}
