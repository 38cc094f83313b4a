import { XMLBuilder } from 'fast-xml-parser'

type Written = { '#text': string } | { [name: string]: Written[] | Record<string, string> }

/** Letters that XML 1.0 (W3C, section 2.2) has no place for. */
const NO_LETTERS = /[^\t\n\r\u{20}-\u{D7FF}\u{E000}-\u{FFFD}\u{10000}-\u{10FFFF}]/gu
const letters = (text: string): string => text.replace(NO_LETTERS, '')

const writer = new XMLBuilder({
  preserveOrder: true,
  ignoreAttributes: false,
  format: true,
  indentBy: '  ',
  suppressEmptyNode: true,
  processEntities: true,
  suppressBooleanAttributes: false,
})

/**
 * An element of XML while it is written: what is put into it stands in the order in which it was
 * put.
 */
export class XmlElement {
  private readonly inside: Written[] = []

  /** Puts an element in. @returns the new one */
  ele(name: string, attributes: Readonly<Record<string, string>> = {}): XmlElement {
    const child = new XmlElement()
    const named = Object.entries(attributes).map(([key, value]) => [`@_${key}`, letters(value)])
    this.inside.push({
      [name]: child.inside,
      ...(named.length > 0 ? { ':@': Object.fromEntries(named) as Record<string, string> } : {}),
    })
    return child
  }

  /** Puts text in. @returns the element itself */
  txt(text: string): this {
    this.inside.push({ '#text': letters(text) })
    return this
  }

  /** What is in it, as XML in lines. */
  written(): string {
    return (writer.build(this.inside) as string).trim()
  }
}
