import { inflateSync } from 'node:zlib'

/**
 * Sizes and places in bytes of both headers (W3C: WOFF File Format 1.0, sections 3 and 4; ISO/IEC
 * 14496-22).
 */
const WOFF_HEADER = 44
const WOFF_ENTRY = 20
const SFNT_HEADER = 12
const SFNT_ENTRY = 16

const padded = (length: number): number => Math.ceil(length / 4) * 4

/**
 * A font out of its WOFF wrapping, so that its tables are unpacked once and not at every letter.
 * @throws where it is no WOFF file
 */
export function sfntOf(woff: Buffer): Buffer {
  if (woff.toString('latin1', 0, 4) !== 'wOFF') throw new Error('This is no WOFF file.')
  const count = woff.readUInt16BE(12)
  const tables = Array.from({ length: count }, (_, index) => {
    const entry = WOFF_HEADER + index * WOFF_ENTRY
    const [offset, packed, length] = [4, 8, 12].map((at) => woff.readUInt32BE(entry + at)) as [
      number,
      number,
      number,
    ]
    const bytes = woff.subarray(offset, offset + packed)
    return {
      tag: woff.subarray(entry, entry + 4),
      checksum: woff.readUInt32BE(entry + 16),
      bytes: packed < length ? inflateSync(bytes) : bytes,
    }
  })
  const head = SFNT_HEADER + count * SFNT_ENTRY
  const out = Buffer.alloc(head + tables.reduce((sum, { bytes }) => sum + padded(bytes.length), 0))
  const power = 2 ** Math.floor(Math.log2(count))
  out.writeUInt32BE(woff.readUInt32BE(4), 0)
  out.writeUInt16BE(count, 4)
  out.writeUInt16BE(power * 16, 6)
  out.writeUInt16BE(Math.log2(power), 8)
  out.writeUInt16BE((count - power) * 16, 10)
  let offset = head
  tables.forEach(({ tag, checksum, bytes }, index) => {
    const entry = SFNT_HEADER + index * SFNT_ENTRY
    tag.copy(out, entry)
    out.writeUInt32BE(checksum, entry + 4)
    out.writeUInt32BE(offset, entry + 8)
    out.writeUInt32BE(bytes.length, entry + 12)
    bytes.copy(out, offset)
    offset += padded(bytes.length)
  })
  return out
}
