import fc from 'fast-check'
import { XMLParser, XMLValidator } from 'fast-xml-parser'
import { XmlElement } from './xml'

const parser = new XMLParser({ ignoreAttributes: false, trimValues: false, parseTagValue: false })
const written = (text: string, attribute: string): string => {
  const file = new XmlElement()
  const one = file.ele('one', { said: attribute })
  one.ele('empty')
  one.ele('words').txt(text)
  return file.written()
}

test('elements stand in the order in which they were put, empty ones short, words on one line', () => {
  const file = new XmlElement()
  const note = file.ele('note', { default: '1' })
  note.ele('chord')
  note.ele('pitch').ele('step').txt('C')
  note.ele('duration').txt('48')
  note.ele('pitch')
  expect(file.written()).toBe(
    [
      '<note default="1">',
      '  <chord/>',
      '  <pitch>',
      '    <step>C</step>',
      '  </pitch>',
      '  <duration>48</duration>',
      '  <pitch/>',
      '</note>',
    ].join('\n'),
  )
})

test('any letters are XML that can be read, and come back', () => {
  const letters = fc.string({ unit: 'binary' }).map((text) => text.replace(/\r/g, ''))
  fc.assert(
    fc.property(letters, letters, (text, attribute) => {
      const xml = written(`x${text}x`, `x${attribute.replace(/\s/g, ' ')}x`)
      expect(XMLValidator.validate(xml)).toBe(true)
      const { one } = parser.parse(xml) as { one: { words: string; '@_said': string } }
      expect(one.words.replace(/[^ -~]/gu, '')).toBe(`x${text}x`.replace(/[^ -~]/gu, ''))
      expect(one['@_said'].length).toBeGreaterThan(1)
    }),
  )
})

test('letters that XML has no place for are left out (XML 1.0, W3C, section 2.2)', () => {
  expect(written('a\u0000b\u000bc\ufffed\ud800e', '')).toContain('<words>abcde</words>')
})
