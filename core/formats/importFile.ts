import { parseChart } from '../chart/parseChart'
import { bad, good, type Result } from '../result'
import { lettersOf } from './letters'
import { scoreInMxl } from './mxl'
import { FILE_ENDINGS, FORMATS, formatOfFile } from './names'
import { LONGEST_FILE, type ImportedTune } from './readTune'
import { tunesInText, READERS } from './register'

/** A tune out of a file, under its own title or the file's name. */
export interface TuneInFile extends ImportedTune {
  title: string
}

/** Tunes that are taken out of one file. */
const MOST_TUNES = 2_000

/**
 * The tunes in a file, told by the ending of its name: one for each song of ChordPro and each `X:`
 * of ABC. Those that cannot be read are named in `refused`.
 * @returns an error where the file is of no kind that is read, too long, or has no tune at all
 */
export function importFile(
  name: string,
  bytes: Uint8Array,
): Result<{ tunes: TuneInFile[]; refused: string[] }> {
  const format = formatOfFile(name)
  if (!format)
    return bad({
      code: 'bad-file',
      message: `${name} is of no kind that is read here.`,
      accepted: `files that end in ${FILE_ENDINGS.map((ending) => `.${ending}`).join(', ')}`,
      text: name,
    })
  const packed = format === 'musicxml' && (/\.mxl$/i.test(name) || isZip(bytes))
  const asked = packed ? scoreInMxl(name, bytes) : good(bytes)
  if (!asked.ok) return asked
  const content = FORMATS[format].encoding === 'base64' ? base64(asked.value) : lettersOf(asked.value)
  const pieces = tunesInText(content, format)
  if (pieces.some((piece) => piece.length > LONGEST_FILE) || pieces.length > MOST_TUNES)
    return bad({
      code: 'too-large',
      message: `${name} has ${pieces.length} tunes and ${content.length} letters.`,
      accepted: `at most ${MOST_TUNES} tunes of ${LONGEST_FILE} letters`,
      text: name,
    })
  const plain = name.replace(/^.*[\\/]/, '').replace(/\.[^.]+$/, '')
  const tunes: TuneInFile[] = []
  const refused: string[] = []
  pieces.forEach((piece, at) => {
    const read = READERS[format](piece)
    const which = pieces.length > 1 ? `${plain} ${at + 1}` : plain
    if (read.ok)
      tunes.push({
        ...read.value,
        title: (parseChart(read.value.text).title ?? which).slice(0, 120) || 'Untitled',
      })
    else refused.push(`${which}: ${read.fault.message}`)
  })
  return tunes.length > 0
    ? good({ tunes, refused })
    : bad({
        code: 'bad-file',
        message: `No tune could be read: ${refused.join(' ')}`,
        accepted: 'a file with chords or notes',
        text: name,
      })
}

/** A zip begins with PK. */
const isZip = (bytes: Uint8Array): boolean => bytes[0] === 0x50 && bytes[1] === 0x4b

function base64(bytes: Uint8Array): string {
  let letters = ''
  for (let at = 0; at < bytes.length; at += 8192)
    letters += String.fromCharCode(...bytes.subarray(at, at + 8192))
  return btoa(letters)
}
