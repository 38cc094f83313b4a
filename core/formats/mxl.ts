import { strFromU8, unzipSync } from 'fflate'
import { bad, good, type Result } from '../result'

/** The most that is unpacked of a compressed file, in bytes. */
const MOST_UNPACKED = 20_000_000

/**
 * The score of a compressed MusicXML file (W3C MusicXML 4.0, section "Compressed .MXL files"): the
 * first root file its container names.
 */
export function scoreInMxl(name: string, bytes: Uint8Array): Result<Uint8Array> {
  const refuse = (message: string) =>
    bad({
      code: 'bad-file',
      message: `${name}: ${message}`,
      accepted: 'a compressed MusicXML file (.mxl)',
      text: name,
    })
  try {
    const only = (wanted: (file: string) => boolean) =>
      unzipSync(bytes, {
        filter: ({ name: file, originalSize }) => wanted(file) && originalSize <= MOST_UNPACKED,
      })
    const container = only((file) => file === 'META-INF/container.xml')['META-INF/container.xml']
    const root = container && /<rootfile\b[^>]*\bfull-path="([^"]+)"/.exec(strFromU8(container))?.[1]
    const scores = only((file) => (root ? file === root : /^[^/]+\.(musicxml|xml)$/.test(file)))
    const [score] = Object.values(scores)
    return score ? good(score) : refuse('it names no score that is in it.')
  } catch (error) {
    return refuse(`it cannot be unpacked (${error instanceof Error ? error.message : String(error)}).`)
  }
}
