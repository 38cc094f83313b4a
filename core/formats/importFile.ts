import { parseChart } from '../chart/parse'
import { bad, good, type Result } from '../result'
import { guessFormat, importChart } from './importChart'
import { importAbc } from './importAbc'
import { importMidi } from './importMidi'
import { importMusicXml } from './importMusicXml'
import { lettersOf } from './letters'
import { scoreInMxl } from './mxl'
import { LONGEST_FILE, type ImportedTune } from './readTune'

/** A tune out of a file, under its own title or the file's name. */
export interface TuneInFile extends ImportedTune {
  title: string
}

/** Endings of file names, and what is read by them. */
const ENDINGS: Readonly<Record<string, FileFormat>> = {
  musicxml: 'musicxml',
  xml: 'musicxml',
  mxl: 'mxl',
  mid: 'midi',
  midi: 'midi',
  abc: 'abc',
  cho: 'chordpro',
  crd: 'chordpro',
  chopro: 'chordpro',
  chordpro: 'chordpro',
  pro: 'chordpro',
  txt: 'text',
  tab: 'text',
}
type FileFormat = 'musicxml' | 'mxl' | 'midi' | 'abc' | 'chordpro' | 'text'
export const FILE_ENDINGS = Object.keys(ENDINGS)

/** Tunes that are taken out of one file. */
const MOST_TUNES = 2_000

/**
 * The tunes in a file, told by the ending of its name: one for each song of ChordPro and each `X:` of ABC. Those that cannot be read are named in `refused`.
 * @returns an error where the file is of no kind that is read, too long, or has no tune at all
 */
export function importFile(
  name: string,
  bytes: Uint8Array,
): Result<{ tunes: TuneInFile[]; refused: string[] }> {
  const format = ENDINGS[/\.([^.]+)$/.exec(name)?.[1]?.toLowerCase() ?? '']
  if (!format)
    return bad({
      code: 'bad-file',
      message: `${name} is of no kind that is read here.`,
      accepted: `files that end in ${FILE_ENDINGS.map((ending) => `.${ending}`).join(', ')}`,
      text: name,
    })
  const asked = format === 'mxl' ? scoreInMxl(name, bytes) : good(bytes)
  if (!asked.ok) return asked
  const content = format === 'midi' ? base64(asked.value) : lettersOf(asked.value)
  const pieces = piecesOf(content, format)
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
    const read = readPiece(piece, format)
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

function readPiece(piece: string, format: FileFormat): Result<ImportedTune> {
  switch (format) {
    case 'midi':
      return importMidi(piece)
    case 'musicxml':
    case 'mxl':
      return importMusicXml(piece)
    case 'abc':
      return importAbc(piece)
    case 'chordpro':
    case 'text': {
      const { text, lyrics, grips, warnings } = importChart(
        piece,
        format === 'chordpro' ? 'chordpro' : guessFormat(piece),
        { key: null },
      )
      return parseChart(text).bars.length > 0
        ? good({ text, melody: [], lyrics, grips, warnings: warnings.map((one) => one.message) })
        : bad({
            code: 'bad-file',
            message: 'No chord was found.',
            accepted: 'chords in bars or over words',
            text: 'content',
          })
    }
  }
}

/** Several tunes in one file, each with what stands before the first of them for all. */
function piecesOf(content: string, format: FileFormat): string[] {
  if (format === 'chordpro')
    return content.split(/^[ \t]*\{(?:new_song|ns)\}[ \t]*$/im).filter((song) => song.trim() !== '')
  if (format !== 'abc') return [content]
  const [head = '', ...tunes] = content.split(/^(?=X:)/m)
  if (head.startsWith('X:')) return [head, ...tunes]
  return tunes.length === 0 ? [content] : tunes.map((tune) => head + tune)
}

function base64(bytes: Uint8Array): string {
  let letters = ''
  for (let at = 0; at < bytes.length; at += 8192)
    letters += String.fromCharCode(...bytes.subarray(at, at + 8192))
  return btoa(letters)
}
