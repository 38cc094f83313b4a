import { Midi } from '@tonejs/midi'
import { plainPitchName } from '../pitch/note'
import { bad, good, type Result } from '../result'
import { inBounds } from './midiBounds'
import { TEMPO_RANGE } from '../chart/parse'
import { MOST_BARS_READ, MOST_NOTES_READ, type ImportedTune, type NamedMelodyNote } from './readTune'

/** A Standard MIDI file of at most so many bytes: hours of music. */
export const MOST_MIDI_BYTES = 2_000_000

/** Parts of a beat that notes are put on: quarters of it and thirds. */
const GRIDS = [4, 3] as const

/**
 * The melody of a Standard MIDI file: of the track that lies highest, one note at a time, put on the nearest quarter or third of a beat.
 * @param content the file in base64
 */
export function importMidi(content: string): Result<ImportedTune> {
  const bytes = bytesOf(content)
  const accepted = `a Standard MIDI file (type 0 or 1) in base64, of at most ${MOST_MIDI_BYTES} bytes`
  if (!bytes)
    return bad({ code: 'bad-file', message: 'The content is not base64.', accepted, text: 'content' })
  if (bytes.length > MOST_MIDI_BYTES)
    return bad({
      code: 'too-large',
      message: `The file has ${bytes.length} bytes.`,
      accepted,
      text: 'content',
    })
  const header = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength)
  if (bytes.length < 14 || header.getUint32(0) !== 0x4d546864)
    return bad({
      code: 'bad-file',
      message: 'This is no MIDI file: it does not begin with MThd.',
      accepted,
      text: 'content',
    })
  if (header.getUint16(8) === 2)
    return bad({
      code: 'bad-file',
      message: 'This is a MIDI file of type 2, a row of unrelated patterns.',
      accepted,
      text: 'content',
    })
  if (header.getUint16(10) === 0)
    return bad({ code: 'bad-file', message: 'The file has no tracks.', accepted, text: 'content' })
  const warnings: string[] = []
  const sound = inBounds(bytes, warnings)
  if (!sound.ok) return bad({ ...sound.fault, accepted, text: 'content' })
  let file: Midi
  try {
    file = new Midi(sound.value)
  } catch (error) {
    return bad({
      code: 'bad-file',
      message: `The file breaks off or is damaged: ${(error as Error).message}`,
      accepted,
      text: 'content',
    })
  }
  const tracks = file.tracks.filter(({ notes, channel }) => notes.length > 0 && channel !== DRUMS)
  if (tracks.length === 0)
    return bad({ code: 'bad-file', message: 'No track of the file has notes.', accepted, text: 'content' })
  const mean = ({ notes }: (typeof tracks)[number]) =>
    notes.reduce((sum, { midi }) => sum + midi, 0) / notes.length
  const track = tracks.reduce((highest, one) => (mean(one) > mean(highest) ? one : highest))
  if (tracks.length > 1)
    warnings.push(
      `The melody was taken from the track that lies highest${track.name ? `, "${track.name}"` : ''}; ${tracks.length - 1} other ${tracks.length === 2 ? 'track' : 'tracks'} left out.`,
    )

  const [beats, unit] = file.header.timeSignatures[0]?.timeSignature ?? [4, 4]
  if (file.header.timeSignatures.length > 1)
    warnings.push('The metre changes in the file; the bars are counted in the first one.')
  if (file.header.tempos.length > 1) warnings.push('The tempo changes in the file; the first one was taken.')
  const beatTicks = (file.header.ppq * 4) / unit!
  const grid = GRIDS.reduce(
    (best, one) =>
      offGrid(track.notes, beatTicks / one) < offGrid(track.notes, beatTicks / best) * 0.8 ? one : best,
    GRIDS[0] as number,
  )
  const voices = oneAtATime(
    track.notes.map(({ midi, ticks, durationTicks }) => ({
      midi,
      from: Math.round((ticks / beatTicks) * grid),
      to: Math.max(1, Math.round(((ticks + durationTicks) / beatTicks) * grid)),
    })),
  )
  if (voices.length < track.notes.length)
    warnings.push(`${track.notes.length - voices.length} notes that sounded under others were left out.`)
  if (voices.length > MOST_NOTES_READ)
    return bad({
      code: 'too-large',
      message: `The melody has ${voices.length} notes.`,
      accepted: `at most ${MOST_NOTES_READ} notes`,
      text: 'content',
    })
  const melody = voices.map(({ midi, from, to }): NamedMelodyNote => ({
    bar: Math.floor(from / (beats! * grid)) + 1,
    beat: (from % (beats! * grid)) / grid + 1,
    beats: (to - from) / grid,
    note: plainPitchName(midi),
  }))
  const bars = melody.at(-1)!.bar
  if (bars > MOST_BARS_READ)
    return bad({
      code: 'too-large',
      message: `The last note stands in bar ${bars}.`,
      accepted: `at most ${MOST_BARS_READ} bars`,
      text: 'content',
    })
  warnings.push(
    `Notes were put on ${grid === 3 ? 'thirds' : 'quarters'} of a beat. The file names no chords: the bars are silent until you type them.`,
  )
  const name = file.header.name.replace(/\s+/g, ' ').trim()
  const text = [
    ...(name ? [`title: ${name}`] : []),
    `meter: ${beats}/${unit}`,
    ...(file.header.tempos[0]
      ? [
          `tempo: ${Math.min(TEMPO_RANGE[1], Math.max(TEMPO_RANGE[0], Math.round(file.header.tempos[0].bpm)))}`,
        ]
      : []),
    `| ${Array<string>(bars).fill('N.C.').join(' | ')} |`,
  ].join('\n')
  return good({ text, melody, warnings })
}

/** MIDI channel 10, counted from 0. */
const DRUMS = 9

function bytesOf(content: string): Uint8Array | null {
  try {
    const binary = atob(content.replace(/\s+/g, ''))
    return Uint8Array.from(binary, (letter) => letter.charCodeAt(0))
  } catch {
    return null
  }
}

/** How far notes begin from the lines of a grid, in ticks together. */
const offGrid = (notes: readonly { ticks: number }[], ticks: number): number =>
  notes.reduce((sum, note) => sum + Math.abs(note.ticks - Math.round(note.ticks / ticks) * ticks), 0)

/** Of notes that begin together the highest; each ends where the next begins. */
function oneAtATime(
  notes: { midi: number; from: number; to: number }[],
): { midi: number; from: number; to: number }[] {
  const highest = new Map<number, { midi: number; from: number; to: number }>()
  for (const note of notes)
    if (!highest.has(note.from) || highest.get(note.from)!.midi < note.midi) highest.set(note.from, note)
  const inOrder = [...highest.values()].sort((a, b) => a.from - b.from)
  return inOrder.map((note, at) => ({
    ...note,
    to: Math.max(note.from + 1, Math.min(note.to, inOrder[at + 1]?.from ?? Infinity)),
  }))
}
