import { Midi } from '@tonejs/midi'
import { toMidi } from '../formats/midi'
import { DEFAULT_PLAYER } from '../player/settings'
import { newDocument } from './document'
import { withEveryGrip } from './problem'
import { readTuneDocument } from './reading'
import { PLAIN_RHYTHM, type Rhythm } from './rhythmSchema'
import { scoreOf } from './score'

/** The MIDI file of a tune with its band, read back by a general parser (@tonejs/midi). */
function readBack(text: string, set: Partial<Rhythm>, swung = false) {
  const document = { ...newDocument('Ferry', text), rhythm: { ...PLAIN_RHYTHM, ...set } }
  const whole = withEveryGrip(document, readTuneDocument(document, 'case', DEFAULT_PLAYER), DEFAULT_PLAYER)
  const bytes = Uint8Array.from(Buffer.from(toMidi(scoreOf(whole, DEFAULT_PLAYER, 'case', swung)), 'base64'))
  const file = new Midi(bytes)
  const beats = (name: string) =>
    file.tracks
      .find((track) => track.name === name)!
      .notes.map(({ ticks, midi }) => [Math.round((ticks / file.header.ppq) * 1000) / 1000, midi] as const)
  return { file, beats }
}

test('guitar, bass and brushes each have a track and a channel of their own, and play what the band plays', () => {
  const { file, beats } = readBack('tempo: 120\n|: C | F :|', {
    figure: 'half notes',
    bass: 'roots',
    time: 'two and four',
  })
  expect(file.tracks.map(({ name, channel }) => [name, channel])).toEqual([
    ['Melody', 0],
    ['Guitar', 1],
    ['Bass', 3],
    ['Brushes', 9],
  ])
  expect([...new Set(beats('Guitar').map(([at]) => at))]).toEqual([0, 2, 4, 6, 8, 10, 12, 14])
  expect(beats('Bass').map(([at]) => at)).toEqual([0, 4, 8, 12])
  expect(beats('Brushes').map(([at]) => at)).toEqual([1, 3, 5, 7, 9, 11, 13, 15])
})
test('straight or swung, as asked', () => {
  const places = (swung: boolean) => [
    ...new Set(
      readBack('| C |', { figure: 'dotted quarter and eighth', feel: 'shuffle' }, swung)
        .beats('Guitar')
        .map(([at]) => at),
    ),
  ]
  expect(places(false)).toEqual([0, 1.5])
  expect(places(true)).toEqual([0, 1.667])
})
test('tempo counts quarters, whatever a beat is; metre changes stand where they are played', () => {
  const { file } = readBack('meter: 6/8\ntempo: 144\n| C | % |\nmeter: 4/4\n| F |', {
    figure: 'two dotted beats',
  })
  expect(file.header.tempos[0]!.bpm).toBeCloseTo(72)
  expect(
    file.header.timeSignatures.map(({ ticks, timeSignature }) => [ticks / file.header.ppq, timeSignature]),
  ).toEqual([
    [0, [6, 8]],
    [6, [4, 4]],
  ])
})
test('a pitch struck again ends where it is struck: no two of one pitch at once', () => {
  const { file } = readBack('| C | % |', { figure: 'eighths through the voices' })
  const notes = file.tracks.find(({ name }) => name === 'Guitar')!.notes
  for (const one of notes)
    for (const other of notes)
      if (other.midi === one.midi && other.ticks > one.ticks)
        expect(one.ticks + one.durationTicks).toBeLessThanOrEqual(other.ticks)
})
