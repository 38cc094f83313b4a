import { bad, good, type Result } from '../result'
import { MOST_LYRICS } from '../melody/lyrics'
import { lettersOf } from './letters'
import { LONGEST_BAR_READ, MOST_BARS_READ } from './readTune'

/** Notes of one track that sound together at most: what is struck beyond them is left out. */
const MOST_SOUNDING = 256
const UNITS = [2, 4, 8, 16]
/** A tempo of 120 and a metre of 4/4, as bytes of their events. */
const PLAIN_TEMPO = [0x07, 0xa1, 0x20]

/**
 * Walks once through a Standard MIDI File and says what a reader would trip over, before anything
 * is made of it: time in frames, no ticks, pieces that are longer than the file, notes beyond any
 * tune. A metre or tempo of nothing is put right in a copy and said; so is a note that never ends
 * or an end without its note, which the reader would look for through all of the track each time.
 * Format: Standard MIDI Files 1.0 (MIDI Manufacturers Association, 1996).
 * @param bytes a file that begins with a whole header chunk
 * @param words what is sung, in any track, is put there
 */
export function inBounds(
  bytes: Uint8Array,
  warnings: string[],
  words: SungInFile[] = [],
): Result<Uint8Array> {
  const refuse = (message: string) => bad({ code: 'bad-file', message })
  const copy = bytes.slice()
  const view = new DataView(copy.buffer)
  const division = view.getUint16(12)
  if (division >= 0x8000) return refuse('The file counts its time in frames of film (SMPTE), not in beats.')
  if (division === 0) return refuse('The file has no ticks in a beat.')
  const latest = MOST_BARS_READ * LONGEST_BAR_READ * division
  let at = 8 + view.getUint32(4)
  let tracks = 0
  let unpaired = 0
  const pieces: Uint8Array[] = [copy.subarray(0, Math.min(at, copy.length))]
  while (at + 8 <= copy.length) {
    const isTrack = view.getUint32(at) === 0x4d54726b
    const end = at + 8 + view.getUint32(at + 4)
    if (end > copy.length)
      return refuse('The file breaks off or is damaged: a piece of it is longer than what is there.')
    if (isTrack) {
      tracks += 1
      const events: EventOfTrack[] = []
      const wrong = track(copy, at + 8, end, latest, warnings, words, events)
      if (wrong)
        return wrong === FAR_OUT
          ? bad({
              code: 'too-large',
              message: `A note stands beyond bar ${MOST_BARS_READ}, the last one that is read.`,
            })
          : refuse(wrong)
      const left = unpairedIn(events, copy)
      unpaired += left.size
      pieces.push(left.size > 0 ? chunkOf(events, left, copy) : copy.subarray(at, end))
    } else pieces.push(copy.subarray(at, end))
    at = end
  }
  const named = view.getUint16(10)
  if (tracks < named)
    return refuse(`The file breaks off or is damaged: it names ${named} tracks and has ${tracks}.`)
  if (unpaired > 0)
    warnings.push(
      `${unpaired} ${unpaired === 1 ? 'event that begins or ends a note has' : 'events that begin or end notes have'} no other half and ${unpaired === 1 ? 'was' : 'were'} left out.`,
    )
  return good(unpaired > 0 ? joined(pieces) : copy)
}

/** An event of a track: where its data stand, behind the wait and the status. */
interface EventOfTrack {
  /** Ticks since the event before it. */
  wait: number
  status: number
  from: number
  to: number
}
const NOTE_OFF = 0x8
const NOTE_ON = 0x9

/**
 * Beginnings without an end and ends without a beginning: a note ends with the next end of its
 * pitch.
 */
function unpairedIn(events: readonly EventOfTrack[], bytes: Uint8Array): Set<EventOfTrack> {
  const open = new Map<number, EventOfTrack[]>()
  const left = new Set<EventOfTrack>()
  let sounding = 0
  for (const event of events) {
    const kind = event.status >> 4
    if (kind !== NOTE_ON && kind !== NOTE_OFF) continue
    const pitch = bytes[event.from]!
    const ofPitch = open.get(pitch) ?? []
    open.set(pitch, ofPitch)
    const begins = kind === NOTE_ON && bytes[event.from + 1] !== 0
    if (begins && sounding < MOST_SOUNDING) {
      ofPitch.push(event)
      sounding += 1
    } else if (!begins && ofPitch.length > 0) {
      ofPitch.shift()
      sounding -= 1
    } else left.add(event)
  }
  for (const one of [...open.values()].flat()) left.add(one)
  return left
}

/**
 * A track chunk of some of its events, each with its status written out; the time before one that
 * is left out goes to the one behind it.
 */
function chunkOf(
  events: readonly EventOfTrack[],
  left: ReadonlySet<EventOfTrack>,
  bytes: Uint8Array,
): Uint8Array {
  const kept: Uint8Array[] = []
  let waited = 0
  for (const event of events) {
    waited += event.wait
    if (left.has(event)) continue
    kept.push(waitOf(waited), Uint8Array.of(event.status), bytes.subarray(event.from, event.to))
    waited = 0
  }
  const body = joined(kept)
  const head = Uint8Array.of(0x4d, 0x54, 0x72, 0x6b, 0, 0, 0, 0)
  new DataView(head.buffer).setUint32(4, body.length)
  return joined([head, body])
}

/** A number as seven bits a byte, the highest first. */
function waitOf(ticks: number): Uint8Array {
  const bytes = [ticks & 0x7f]
  for (let left = Math.floor(ticks / 128); left > 0; left = Math.floor(left / 128))
    bytes.unshift((left & 0x7f) | 0x80)
  return Uint8Array.from(bytes)
}

function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const whole = new Uint8Array(pieces.reduce((sum, { length }) => sum + length, 0))
  let at = 0
  for (const piece of pieces) {
    whole.set(piece, at)
    at += piece.length
  }
  return whole
}

/** A syllable at its time (Standard MIDI Files 1.0, meta event 05). */
export interface SungInFile {
  ticks: number
  text: string
}
const LYRIC = 0x05

const FAR_OUT = 'far out'

/** What is wrong with the events of a track; null where nothing is. @param events are put there */
function track(
  bytes: Uint8Array,
  from: number,
  end: number,
  latest: number,
  warnings: string[],
  words: SungInFile[],
  events: EventOfTrack[],
): string | null {
  const cut = 'The file breaks off or is damaged: an event of it is not whole.'
  let at = from
  let time = 0
  let running = 0
  /** A number of up to four bytes, seven bits each; -1 where it does not end. */
  const length = (): number => {
    let value = 0
    for (let count = 0; count < 4 && at < end; count += 1) {
      const byte = bytes[at]!
      at += 1
      value = value * 128 + (byte & 0x7f)
      if (byte < 0x80) return value
    }
    return -1
  }
  while (at < end) {
    const wait = length()
    if (wait < 0) return cut
    time += wait
    if (time > latest) return FAR_OUT
    if (at >= end) return cut
    let status = bytes[at]!
    if (status >= 0x80) at += 1
    else status = running
    const data = at
    if (status === 0xff) {
      const type = bytes[at]!
      at += 1
      const size = length()
      if (size < 0 || at + size > end) return cut
      if (type === 0x51 && size === 3 && bytes[at] === 0 && bytes[at + 1] === 0 && bytes[at + 2] === 0) {
        bytes.set(PLAIN_TEMPO, at)
        warnings.push('A tempo of nothing was read as 120.')
      }
      if (type === 0x58 && size >= 2) {
        const [beats, unit] = [bytes[at]!, 2 ** bytes[at + 1]!]
        if (beats < 1 || beats > 16 || !UNITS.includes(unit)) {
          warnings.push(`A metre of ${beats}/${unit} was read as 4/4.`)
          bytes.set([4, 2], at)
        }
      }
      if (type === LYRIC && words.length < MOST_LYRICS)
        words.push({ ticks: time, text: lettersOf(bytes.subarray(at, at + size)) })
      at += size
    } else if (status === 0xf0 || status === 0xf7) {
      const size = length()
      if (size < 0 || at + size > end) return cut
      at += size
    } else if (status >= 0x80 && status < 0xf0) {
      running = status
      const size = status >= 0xc0 && status < 0xe0 ? 1 : 2
      if (at + size > end) return cut
      at += size
    } else return cut
    events.push({ wait, status, from: data, to: at })
  }
  return null
}
