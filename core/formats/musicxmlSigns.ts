import { itemAt } from '../lists'
import type { Bar, ChartMark, Meter } from '../chart/chart'
import { signatureOf, type Key } from '../pitch/key'
import { pitchAt, plainSpelling } from '../pitch/note'
import { NOTE_NAMES } from './musicxmlHarmony'
import { DIVISIONS } from './noteValues'
import type { XmlElement } from './xml'

export function writeAttributes(
  measure: XmlElement,
  {
    key,
    meter,
    begins,
  }: { key: Key | null; meter: Meter | null; begins?: { strings: Strings | null; capo: number } },
): void {
  const attributes = measure.ele('attributes')
  if (begins) attributes.ele('divisions').txt(String(DIVISIONS))
  if (key) {
    const keyElement = attributes.ele('key')
    keyElement.ele('fifths').txt(String(signatureOf(key)))
    keyElement.ele('mode').txt(key.mode)
  }
  if (meter) {
    const time = attributes.ele('time')
    time.ele('beats').txt(String(meter.beats))
    time.ele('beat-type').txt(String(meter.unit))
  }
  if (!begins) return
  const { strings } = begins
  if (strings) attributes.ele('staves').txt('2')
  const clef = attributes.ele('clef', strings ? { number: '1' } : {})
  clef.ele('sign').txt('G')
  clef.ele('line').txt('2')
  clef.ele('clef-octave-change').txt('-1')
  if (strings) writeTabStaff(attributes, strings)
  else if (begins.capo > 0) attributes.ele('staff-details').ele('capo').txt(String(begins.capo))
}

/** Strings of a staff of tablature: MIDI numbers from the lowest, without capo. */
interface Strings {
  tuning: readonly number[]
  capo: number
}

/**
 * The second staff: its clef, its lines, the lowest string on the lowest, and the capo (MusicXML
 * 4.0, `staff-details`).
 */
function writeTabStaff(attributes: XmlElement, { tuning, capo }: Strings): void {
  const clef = attributes.ele('clef', { number: '2' })
  clef.ele('sign').txt('TAB')
  clef.ele('line').txt(String(Math.ceil((tuning.length + 1) / 2)))
  const details = attributes.ele('staff-details', { number: '2' })
  details.ele('staff-lines').txt(String(tuning.length))
  tuning.forEach((open, at) => {
    const { letter, alter, octave } = pitchAt(open, plainSpelling(open % 12, false))
    const line = details.ele('staff-tuning', { line: String(at + 1) })
    line.ele('tuning-step').txt(itemAt(NOTE_NAMES, letter))
    if (alter !== 0) line.ele('tuning-alter').txt(String(alter))
    line.ele('tuning-octave').txt(String(octave))
  })
  if (capo > 0) details.ele('capo').txt(String(capo))
}

export function writeLeftBarline(measure: XmlElement, bar: Bar): void {
  const barline = measure.ele('barline', { location: 'left' })
  if (bar.opensRepeat) barline.ele('bar-style').txt('heavy-light')
  if (bar.ending.length > 0)
    barline.ele('ending', { number: bar.ending.join(','), type: 'start' }).txt(`${bar.ending.join(',')}.`)
  if (bar.opensRepeat) barline.ele('repeat', { direction: 'forward' })
}

/** A repeat sign, the end of an ending, or the double line at the end. */
export function writeRightBarline(measure: XmlElement, bars: readonly Bar[], index: number): void {
  const bar = itemAt(bars, index)
  const ending = endingThatStops(bars, index)
  const last = index === bars.length - 1
  if (bar.played === 0 && !ending && !last) return
  const barline = measure.ele('barline', { location: 'right' })
  if (bar.played > 0 || last) barline.ele('bar-style').txt('light-heavy')
  if (ending)
    barline.ele('ending', { number: ending.join(','), type: bar.played > 0 ? 'stop' : 'discontinue' })
  if (bar.played === 0) return
  // An ending for several passes is gone back from as often, and once more the passage is played to
  // the next ending (MusicXML 4.0, `times` of `repeat`).
  const times = Math.max(bar.played, (ending?.length ?? 0) + 1)
  barline.ele('repeat', { direction: 'backward', ...(times > 2 ? { times: String(times) } : {}) })
}

/**
 * The passes of the ending that is over after this bar: at its repeat sign, before another repeat
 * begins, or, for a last ending, after its first bar.
 */
function endingThatStops(bars: readonly Bar[], index: number): readonly number[] | null {
  let begins = index
  while (begins > 0 && itemAt(bars, begins).ending.length === 0 && itemAt(bars, begins - 1).played === 0)
    begins -= 1
  const { ending } = itemAt(bars, begins)
  if (ending.length === 0) return null
  const closes = bars.findIndex(
    (bar, at) => at >= begins && (bar.played > 0 || (bars[at + 1]?.ending.length ?? 0) > 0),
  )
  const another = bars.findIndex((bar, at) => at > begins && bar.opensRepeat)
  const open = closes < 0 || (another >= 0 && closes >= another)
  return index === (open ? begins : closes) ? ending : null
}

const MARK_SOUNDS: Readonly<Partial<Record<ChartMark, Record<string, string>>>> = {
  Segno: { segno: 'segno' },
  Coda: { coda: 'coda' },
  'To Coda': { tocoda: 'coda' },
  Fine: { fine: 'yes' },
  'D.C.': { dacapo: 'yes' },
  'D.C. al Fine': { dacapo: 'yes' },
  'D.C. al Coda': { dacapo: 'yes' },
  'D.S.': { dalsegno: 'segno' },
  'D.S. al Fine': { dalsegno: 'segno' },
  'D.S. al Coda': { dalsegno: 'segno' },
}

/** Words over the bar. */
export function writeWords(measure: XmlElement, words: string): XmlElement {
  const direction = measure.ele('direction', { placement: 'above' })
  direction.ele('direction-type').ele('words').txt(words)
  return direction
}

export function writeMark(measure: XmlElement, mark: ChartMark): void {
  const direction = measure.ele('direction', { placement: 'above' })
  const type = direction.ele('direction-type')
  if (mark === 'Segno') type.ele('segno')
  else if (mark === 'Coda') type.ele('coda')
  else type.ele('words').txt(mark)
  direction.ele('sound', MARK_SOUNDS[mark]!)
}

const BEAT_UNITS: Readonly<Record<number, string>> = { 2: 'half', 4: 'quarter', 8: 'eighth', 16: '16th' }

/** Parts that a swing ratio is written in. */
const SWING_PARTS = 10

/** Beats a minute, and how uneven eighths are where they swing: a ratio, 1 for straight. */
export function writeTempo(
  measure: XmlElement,
  { tempo, meter, swing }: { tempo: number; meter: Meter; swing: number },
): void {
  const direction = measure.ele('direction', { placement: 'above' })
  const metronome = direction.ele('direction-type').ele('metronome')
  metronome.ele('beat-unit').txt(BEAT_UNITS[meter.unit]!)
  metronome.ele('per-minute').txt(String(tempo))
  direction.ele('sound', { tempo: String((tempo * 4) / meter.unit) })
  if (swing === 1) return
  const element = writeWords(measure, 'Swing').ele('sound').ele('swing')
  element.ele('first').txt(String(Math.round(swing * SWING_PARTS)))
  element.ele('second').txt(String(SWING_PARTS))
  element.ele('swing-type').txt('eighth')
}
