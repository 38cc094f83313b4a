/**
 * A file's bytes as text: UTF-16 where it begins so, UTF-8 where it can be that, else the letters
 * of Western Europe (windows-1252), as older programs write them.
 */
export function lettersOf(bytes: Uint8Array): string {
  const [first, second] = bytes
  if (first === 0xfe && second === 0xff) return new TextDecoder('utf-16be').decode(bytes)
  if (first === 0xff && second === 0xfe) return new TextDecoder('utf-16le').decode(bytes)
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(bytes)
  } catch {
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** Text for a writer that takes each letter for a byte: the bytes of its UTF-8, a letter each. */
export const asByteLetters = (text: string): string =>
  [...new TextEncoder().encode(text)].map((byte) => String.fromCharCode(byte)).join('')

/** Text from a reader that gave each byte as a letter. */
export const ofByteLetters = (letters: string): string =>
  lettersOf(Uint8Array.from(letters, (letter) => letter.charCodeAt(0)))
