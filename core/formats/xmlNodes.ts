/**
 * An element as the XML reader gives it with its order kept: its name with its children, and its
 * attributes.
 */
export type XmlNode = Record<string, unknown>
const ATTRIBUTES = ':@'

export const nameOf = (node: XmlNode): string => Object.keys(node).find((key) => key !== ATTRIBUTES) ?? ''
export const childrenOf = (node: XmlNode): XmlNode[] => {
  const inside = node[nameOf(node)]
  return Array.isArray(inside) ? (inside as XmlNode[]) : []
}
export const all = (nodes: readonly XmlNode[], name: string): XmlNode[] =>
  nodes.filter((node) => nameOf(node) === name)
export const find = (nodes: readonly XmlNode[], name: string): XmlNode | undefined =>
  nodes.find((node) => nameOf(node) === name)
export const attribute = (node: XmlNode | undefined, name: string): string | null => {
  const value = (node?.[ATTRIBUTES] as Record<string, unknown> | undefined)?.[name]
  return value === undefined ? null : plain(String(value))
}
/**
 * What the XML library says: "Closing tag expected.:12:5", with line and column from 1 where it
 * knows them.
 */
export function faultOfXml(message: string): string {
  const [, words, line] = /^([^]*?)\.?(?::(\d+|undefined))?(?::(?:\d+|undefined))?$/.exec(
    message.slice(0, 120),
  )!
  return line && line !== 'undefined' ? `${words!} (line ${line}).` : `${words!}.`
}

export const textOf = (node: XmlNode | undefined): string =>
  node
    ? plain(
        all(childrenOf(node), '#text')
          .map((one) => String(one['#text']))
          .join('')
          .trim(),
      )
    : ''
export const textIn = (nodes: readonly XmlNode[], name: string): string => textOf(find(nodes, name))
export const numberIn = (nodes: readonly XmlNode[], name: string): number | null => {
  const text = textIn(nodes, name)
  const value = Number(text)
  return text === '' || !Number.isFinite(value) ? null : value
}

/**
 * The five entities of XML and characters by number; others do not occur, since no document type is
 * read.
 */
const plain = (text: string): string =>
  text.replace(/&(lt|gt|amp|quot|apos|#\d{1,7}|#x[\da-f]{1,6});/gi, (whole, name: string) => {
    if (name.startsWith('#')) {
      const code = name.startsWith('#x') ? Number.parseInt(name.slice(2), 16) : Number(name.slice(1))
      return code > 0 && code <= 0x10ffff ? String.fromCodePoint(code) : whole
    }
    return { lt: '<', gt: '>', amp: '&', quot: '"', apos: "'" }[name.toLowerCase()] ?? whole
  })

/** What stands between pointed brackets, and what ends it. */
const CLOSED_BY = [
  ['<!--', '-->'],
  ['<![CDATA[', ']]>'],
  ['<', '>'],
] as const

/**
 * How deep elements stand inside one another, by their tags alone; read once from left to right, so
 * that no content can hold it up.
 */
export function depthOf(content: string): number {
  let [depth, deepest] = [0, 0]
  for (let at = content.indexOf('<'); at >= 0; at = content.indexOf('<', at)) {
    const [, close] = CLOSED_BY.find(([open]) => content.startsWith(open, at))!
    const end = content.indexOf(close, at)
    if (end < 0) break
    if (content[at + 1] === '/') depth -= 1
    else if (content[at + 1] !== '!' && content[at + 1] !== '?' && content[end - 1] !== '/')
      deepest = Math.max(deepest, (depth += 1))
    at = end + close.length
  }
  return deepest
}
