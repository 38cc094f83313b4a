import { lastOf } from '../lists'

/** What is known of a format without reading or writing it. */
interface FormatKnown {
  /** As pages name it. */
  label: string
  /** Endings of files that are read as it; none where it is only pasted. */
  endings: readonly string[]
  /**
   * It holds notes: a melody can be brought in from it, and everything made of a tune goes out in
   * it.
   */
  notes: boolean
  /** What the core is given and gives: letters, or bytes in base64. */
  encoding: 'utf-8' | 'base64'
  /** A file that is saved in it: its ending and its type; null where none is written. */
  saved: { ending: string; type: string } | null
  /** The whole songbook goes out in it, a file for each tune. */
  songbook: boolean
  /** What is typed or pasted in it on the Chart step looks like this; null where it is not. */
  pasted: string | null
  /** Other ways to write it, by the word that asks for them, and what they are called. */
  ways: readonly { asked: 'voices' | 'swung'; label: string }[]
}

const PLAIN = 'text/plain; charset=utf-8'

/**
 * Every format of files and of pasted text, by the word that stands for it in addresses and on the
 * command line: dialogs, pages, routes and requests read off here what there is. How each is read
 * and written stands in `register`, by the same words.
 */
export const FORMATS = {
  musicxml: {
    label: 'MusicXML',
    endings: ['musicxml', 'xml', 'mxl'],
    notes: true,
    encoding: 'utf-8',
    saved: { ending: 'musicxml', type: 'application/vnd.recordare.musicxml+xml; charset=utf-8' },
    songbook: true,
    pasted: null,
    ways: [{ asked: 'voices', label: 'MusicXML, voices' }],
  },
  midi: {
    label: 'MIDI',
    endings: ['mid', 'midi'],
    notes: true,
    encoding: 'base64',
    saved: { ending: 'mid', type: 'audio/midi' },
    songbook: false,
    pasted: null,
    ways: [{ asked: 'swung', label: 'MIDI, swung' }],
  },
  abc: {
    label: 'ABC',
    endings: ['abc'],
    notes: true,
    encoding: 'utf-8',
    saved: { ending: 'abc', type: 'text/vnd.abc; charset=utf-8' },
    songbook: false,
    pasted: null,
    ways: [{ asked: 'voices', label: 'ABC, voices' }],
  },
  chordpro: {
    label: 'ChordPro',
    endings: ['cho', 'crd', 'chopro', 'chordpro', 'pro'],
    notes: false,
    encoding: 'utf-8',
    saved: { ending: 'cho', type: PLAIN },
    songbook: true,
    pasted: '{title: …}\n[G]words with [D7]chords',
    ways: [],
  },
  text: {
    label: 'Chart text',
    endings: ['txt'],
    notes: false,
    encoding: 'utf-8',
    saved: { ending: 'txt', type: PLAIN },
    songbook: false,
    pasted: 'C - Am - F - G\nor chords over lyrics, or bars: | C | Am F |',
    ways: [],
  },
  tab: {
    label: 'Tab',
    endings: ['tab'],
    notes: false,
    encoding: 'utf-8',
    saved: { ending: 'tab.txt', type: PLAIN },
    songbook: false,
    pasted:
      '   C       Am7\nE |0-------0-------|\nB |1-------1-------|\nG |0-------0-------|\nD |2-------2-------|\nA |3-------0-------|\nE |----------------|',
    ways: [],
  },
  numerals: {
    label: 'Numerals',
    endings: [],
    notes: false,
    encoding: 'utf-8',
    saved: null,
    songbook: false,
    pasted: 'key: Bb\n| I | vi7 | ii7 | V7 |\nor numbers: 1 - 6- - 4 - 5',
    ways: [],
  },
} as const satisfies Readonly<Record<string, FormatKnown>>

export type FormatName = keyof typeof FORMATS
type Having<Part extends Partial<Record<keyof FormatKnown, unknown>>> = {
  [Name in FormatName]: (typeof FORMATS)[Name] extends Part ? Name : never
}[FormatName]
/** Formats that hold notes; that are typed or pasted; that are written to files. */
export type NotesFormat = Having<{ notes: true }>
export type PastedFormat = Having<{ pasted: string }>
export type SavedFormat = Having<{ saved: object }>

export const formatOf = (name: FormatName): FormatKnown => FORMATS[name]
const all = Object.keys(FORMATS) as FormatName[]
export const NOTES_FORMATS = all.filter((name): name is NotesFormat => FORMATS[name].notes)
export const PASTED_FORMATS = all.filter((name): name is PastedFormat => FORMATS[name].pasted !== null)
export const SAVED_FORMATS = all.filter((name): name is SavedFormat => FORMATS[name].saved !== null)
export const SONGBOOK_FORMATS = SAVED_FORMATS.filter((name) => FORMATS[name].songbook)
/** Formats of files that are read, and the endings of all of them. */
export const READ_FORMATS = all.filter((name) => FORMATS[name].endings.length > 0)
export const FILE_ENDINGS: readonly string[] = all.flatMap((name) => FORMATS[name].endings)

export const isFormat = <Name extends FormatName>(names: readonly Name[], name: string): name is Name =>
  (names as readonly string[]).includes(name)

/** Names in a row: `A, B and C`. */
export const namesInWords = (names: readonly FormatName[]): string => {
  const labels = names.map((name) => FORMATS[name].label)
  return labels.length < 2 ? labels.join('') : `${labels.slice(0, -1).join(', ')} and ${lastOf(labels)}`
}

/** The format of a file by the ending of its name; null where it is none that is read. */
export const formatOfFile = (name: string): FormatName | null => {
  const ending = /\.([^.]+)$/.exec(name)?.[1]?.toLowerCase() ?? ''
  return all.find((one) => (FORMATS[one].endings as readonly string[]).includes(ending)) ?? null
}
