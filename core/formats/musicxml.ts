import { create } from 'xmlbuilder2'
import type { XMLBuilder } from 'xmlbuilder2/lib/interfaces'
import { beginsBar, slotKey, type Bar, type Chart, type Mark, type Meter, type Slot } from '../chart/chart'
import { hasDegree, type ChordSymbol } from '../chord/symbol'
import { stringNumber } from '../neck/instrument'
import type { Degree } from '../pitch/degree'
import { signatureOf, type Key } from '../pitch/key'
import { pitchAt, type Note } from '../pitch/note'
import type { Voicing } from '../voicing/voicing'

/** One slot of the tune as it goes on paper: the chord that stands there and the grip, if one is kept. */
export interface WrittenChord {
  chord: ChordSymbol
  voicing: Voicing | null
}

export interface Score {
  title: string
  chart: Chart
  key: Key
  /** Beats a minute. */
  tempo: number
  /** By slot key; slots without an entry are rests. */
  chords: ReadonlyMap<string, WrittenChord>
}

/** Parts of a quarter note: divides by eighths, sixteenths and triplets. */
const DIVISIONS = 12
const NOTE_NAMES = 'CDEFGAB'

/** Note values by their length in divisions, longest first. */
const VALUES: readonly { length: number; type: string; dots: number }[] = [
  { length: 48, type: 'whole', dots: 0 }, { length: 36, type: 'half', dots: 1 }, { length: 24, type: 'half', dots: 0 },
  { length: 18, type: 'quarter', dots: 1 }, { length: 12, type: 'quarter', dots: 0 }, { length: 9, type: 'eighth', dots: 1 },
  { length: 6, type: 'eighth', dots: 0 }, { length: 3, type: '16th', dots: 0 },
]

interface Value { length: number; type: string | null; dots: number; triplet: boolean }

/** A length as note values to be tied: as few as possible; a third of a longer value becomes a triplet. */
export function noteValues(length: number): Value[] {
  const triplet = VALUES.find((value) => value.dots === 0 && value.length * 2 === length * 3)
  if (triplet && !VALUES.some((value) => value.length === length)) return [{ ...triplet, length, triplet: true }]
  const values: Value[] = []
  let left = length
  for (const value of VALUES)
    while (value.length <= left) {
      values.push({ ...value, triplet: false })
      left -= value.length
    }
  if (left > 0) values.push({ length: left, type: null, dots: 0, triplet: false })
  return values
}

/** A tune as MusicXML 4.0 (W3C Community Group): chord symbols, chord frames, and the grips as notes with tablature marks. */
export function toMusicXml(score: Score): string {
  const root = create({ version: '1.0', encoding: 'UTF-8' })
    .dtd({ name: 'score-partwise', pubID: '-//Recordare//DTD MusicXML 4.0 Partwise//EN', sysID: 'http://www.musicxml.org/dtds/partwise.dtd' })
    .ele('score-partwise', { version: '4.0' })
  root.ele('work').ele('work-title').txt(score.title)
  root.ele('identification').ele('encoding').ele('software').txt('Yellow Heron')
  root.ele('part-list').ele('score-part', { id: 'P1' }).ele('part-name').txt('Guitar')
  const part = root.ele('part', { id: 'P1' })
  const { bars } = score.chart
  // A part needs a measure: a tune without bars is written as one bar of rest.
  if (bars.length === 0) {
    const measure = part.ele('measure', { number: '1' })
    writeAttributes(measure, { key: score.key, meter: score.chart.meter, first: true })
    writeRest(measure, lengthOf(score.chart.meter.beats, score.chart.meter))
  }
  bars.forEach((bar, index) => {
    const measure = part.ele('measure', { number: String(bar.number), ...(bar.beats < bar.meter.beats ? { implicit: 'yes' } : {}) })
    if (bar.opensRepeat || bar.ending.length > 0) writeLeftBarline(measure, bar)
    if (index === 0) writeAttributes(measure, { key: score.key, meter: bar.meter, first: true })
    else if (bar.newKey || bar.newMeter) writeAttributes(measure, { key: bar.newKey, meter: bar.newMeter ? bar.meter : null, first: false })
    if (bar.opensSection && bar.section) measure.ele('direction', { placement: 'above' }).ele('direction-type').ele('rehearsal').txt(bar.section)
    if (index === 0) writeTempo(measure, score)
    bar.marks.filter(beginsBar).forEach((mark) => writeMark(measure, mark))
    bar.slots.forEach((slot) => writeSlot(measure, slot, bar.meter, score))
    if (bar.slots.length === 0) writeRest(measure, lengthOf(bar.beats, bar.meter))
    bar.marks.filter((mark) => !beginsBar(mark)).forEach((mark) => writeMark(measure, mark))
    writeRightBarline(measure, bars, index)
  })
  return root.end({ prettyPrint: true })
}

const lengthOf = (beats: number, { unit }: Meter) => Math.round((beats * 4 * DIVISIONS) / unit)

function writeAttributes(measure: XMLBuilder, { key, meter, first }: { key: Key | null; meter: Meter | null; first: boolean }): void {
  const attributes = measure.ele('attributes')
  if (first) attributes.ele('divisions').txt(String(DIVISIONS))
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
  if (!first) return
  const clef = attributes.ele('clef')
  clef.ele('sign').txt('G')
  clef.ele('line').txt('2')
  clef.ele('clef-octave-change').txt('-1')
}

function writeLeftBarline(measure: XMLBuilder, bar: Bar): void {
  const barline = measure.ele('barline', { location: 'left' })
  if (bar.opensRepeat) barline.ele('bar-style').txt('heavy-light')
  if (bar.ending.length > 0) barline.ele('ending', { number: bar.ending.join(','), type: 'start' }).txt(`${bar.ending.join(',')}.`)
  if (bar.opensRepeat) barline.ele('repeat', { direction: 'forward' })
}

/** A repeat sign, the end of an ending, or the double line at the end. */
function writeRightBarline(measure: XMLBuilder, bars: readonly Bar[], index: number): void {
  const bar = bars[index]!
  const ending = endingThatStops(bars, index)
  const last = index === bars.length - 1
  if (bar.played === 0 && !ending && !last) return
  const barline = measure.ele('barline', { location: 'right' })
  if (bar.played > 0 || last) barline.ele('bar-style').txt('light-heavy')
  if (ending) barline.ele('ending', { number: ending.join(','), type: bar.played > 0 ? 'stop' : 'discontinue' })
  if (bar.played > 0) barline.ele('repeat', { direction: 'backward', ...(bar.played > 2 ? { times: String(bar.played) } : {}) })
}

/** The passes of the ending that is over after this bar: at its repeat sign, or, for a last ending, after its first bar. */
function endingThatStops(bars: readonly Bar[], index: number): readonly number[] | null {
  let begins = index
  while (begins > 0 && bars[begins]!.ending.length === 0 && bars[begins - 1]!.played === 0) begins -= 1
  const { ending } = bars[begins]!
  if (ending.length === 0) return null
  const closes = bars.findIndex((bar, at) => at >= begins && (bar.played > 0 || (bars[at + 1]?.ending.length ?? 0) > 0))
  return index === (closes < 0 ? begins : closes) ? ending : null
}

const MARK_SOUNDS: Readonly<Partial<Record<Mark, Record<string, string>>>> = {
  Segno: { segno: 'segno' }, Coda: { coda: 'coda' }, 'To Coda': { tocoda: 'coda' }, Fine: { fine: 'yes' },
  'D.C.': { dacapo: 'yes' }, 'D.C. al Fine': { dacapo: 'yes' }, 'D.C. al Coda': { dacapo: 'yes' },
  'D.S.': { dalsegno: 'segno' }, 'D.S. al Fine': { dalsegno: 'segno' }, 'D.S. al Coda': { dalsegno: 'segno' },
}

function writeMark(measure: XMLBuilder, mark: Mark): void {
  const direction = measure.ele('direction', { placement: 'above' })
  const type = direction.ele('direction-type')
  if (mark === 'Segno') type.ele('segno')
  else if (mark === 'Coda') type.ele('coda')
  else type.ele('words').txt(mark)
  direction.ele('sound', MARK_SOUNDS[mark]!)
}

const BEAT_UNITS: Readonly<Record<number, string>> = { 2: 'half', 4: 'quarter', 8: 'eighth', 16: '16th' }

function writeTempo(measure: XMLBuilder, { tempo, chart }: Score): void {
  const direction = measure.ele('direction', { placement: 'above' })
  const metronome = direction.ele('direction-type').ele('metronome')
  metronome.ele('beat-unit').txt(BEAT_UNITS[chart.meter.unit]!)
  metronome.ele('per-minute').txt(String(tempo))
  direction.ele('sound', { tempo: String((tempo * 4) / chart.meter.unit) })
}

function writeSlot(measure: XMLBuilder, slot: Slot, meter: Meter, score: Score): void {
  const length = lengthOf(slot.beats, meter)
  const written = score.chords.get(slotKey(slot))
  if (!written) return writeRest(measure, length)
  writeHarmony(measure, written)
  if (!written.voicing) return writeRest(measure, length)
  const values = noteValues(length)
  values.forEach((value, at) => writeChordNotes(measure, written.voicing!, value, { from: at > 0, on: at < values.length - 1 }))
}

function writeRest(measure: XMLBuilder, length: number): void {
  for (const value of noteValues(length)) {
    const note = measure.ele('note')
    note.ele('rest')
    writeValue(note, value)
  }
}

/** `voice` stands between duration and type; that is the order of the schema. */
function writeValue(note: XMLBuilder, value: Value, ties: { from: boolean; on: boolean } = { from: false, on: false }): void {
  note.ele('duration').txt(String(value.length))
  if (ties.from) note.ele('tie', { type: 'stop' })
  if (ties.on) note.ele('tie', { type: 'start' })
  note.ele('voice').txt('1')
  if (value.type) note.ele('type').txt(value.type)
  for (let dot = 0; dot < value.dots; dot += 1) note.ele('dot')
  if (!value.triplet) return
  const modification = note.ele('time-modification')
  modification.ele('actual-notes').txt('3')
  modification.ele('normal-notes').txt('2')
}

function writeChordNotes(measure: XMLBuilder, voicing: Voicing, value: Value, ties: { from: boolean; on: boolean }): void {
  voicing.strings.forEach(({ string, midi, note: spelled }, order) => {
    const { letter, alter, octave } = pitchAt(midi, spelled)
    const note = measure.ele('note')
    if (order > 0) note.ele('chord')
    const pitch = note.ele('pitch')
    pitch.ele('step').txt(NOTE_NAMES[letter]!)
    if (alter !== 0) pitch.ele('alter').txt(String(alter))
    pitch.ele('octave').txt(String(octave))
    writeValue(note, value, ties)
    const notations = note.ele('notations')
    if (ties.from) notations.ele('tied', { type: 'stop' })
    if (ties.on) notations.ele('tied', { type: 'start' })
    const technical = notations.ele('technical')
    technical.ele('string').txt(String(stringNumber(string, voicing.frets.length)))
    technical.ele('fret').txt(String(voicing.frets[string]))
  })
}

/** The kinds of MusicXML by the degrees they mean; the first whose degrees are all in the chord is taken. */
const KINDS: readonly (readonly [string, readonly Degree[]])[] = [
  ['major-minor', ['b3', '5', '7']], ['major-seventh', ['3', '5', '7']], ['major-seventh', ['3', '7']],
  ['half-diminished', ['b3', 'b5', 'b7']], ['diminished-seventh', ['b3', 'b5', 'bb7']], ['augmented-seventh', ['3', '#5', 'b7']],
  ['minor-seventh', ['b3', 'b7']], ['dominant', ['3', 'b7']],
  ['minor-sixth', ['b3', '6']], ['major-sixth', ['3', '6']],
  ['diminished', ['b3', 'b5']], ['augmented', ['3', '#5']],
  ['minor', ['b3']], ['major', ['3']],
  ['suspended-fourth', ['4']], ['suspended-second', ['2']], ['power', ['5']],
]
const ALTERED_FIFTHS: readonly Degree[] = ['b5', '#5']

function writeHarmony(measure: XMLBuilder, { chord, voicing }: WrittenChord): void {
  const harmony = measure.ele('harmony')
  const writeNote = (name: 'root' | 'bass', note: Note) => {
    const element = harmony.ele(name)
    element.ele(`${name}-step`).txt(NOTE_NAMES[note.letter]!)
    if (note.alter !== 0) element.ele(`${name}-alter`).txt(String(note.alter))
  }
  writeNote('root', chord.root)
  const [kind, meant] = KINDS.find(([, degrees]) => degrees.every((degree) => hasDegree(chord, degree))) ?? ['other', []]
  harmony.ele('kind', { text: chord.suffix }).txt(kind)
  if (chord.bass) writeNote('bass', chord.bass)
  for (const { degree } of chord.tones) {
    if (degree === '1' || degree === '5' || meant.includes(degree)) continue
    const [, accidentals, value] = /^([b#]*)(\d+)$/.exec(degree)!
    const element = harmony.ele('degree')
    element.ele('degree-value').txt(value!)
    element.ele('degree-alter').txt(String([...accidentals!].reduce((sum, sign) => sum + (sign === 'b' ? -1 : 1), 0) + (value === '7' && accidentals === '' ? 1 : 0)))
    element.ele('degree-type').txt(ALTERED_FIFTHS.includes(degree) ? 'alter' : 'add')
  }
  if (voicing) writeFrame(harmony, voicing)
}

/** A chord frame needs at least the frets held; open and muted strings are said by their notes or left out. */
function writeFrame(harmony: XMLBuilder, { frets, fingering }: Voicing): void {
  const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
  const highest = Math.max(4, ...held)
  const first = highest <= 4 ? 1 : Math.min(...held)
  const frame = harmony.ele('frame')
  frame.ele('frame-strings').txt(String(frets.length))
  frame.ele('frame-frets').txt(String(Math.max(4, highest - first + 1)))
  if (first > 1) frame.ele('first-fret').txt(String(first))
  frets.forEach((fret, string) => {
    if (fret === null) return
    const note = frame.ele('frame-note')
    note.ele('string').txt(String(stringNumber(string, frets.length)))
    note.ele('fret').txt(String(fret))
    const finger = fingering.fingers[string]
    if (finger) note.ele('fingering').txt(String(finger))
  })
}
