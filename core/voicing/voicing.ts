import { itemAt } from '../lists'
import type { ChordSymbol } from '../chord/symbol'
import { easiestFingering, type Fingering } from '../neck/fingering'
import { soundAt, type Frets, type Instrument } from '../neck/instrument'
import { degreeBetween, spellDegree, type Degree } from '../pitch/degree'
import { pitchAt, pitchClass, pitchName, type Note } from '../pitch/note'
import { familiesOf, type Family } from './family'
import type { Limits } from './gripLimits'

/** A chord held at one place on the neck: a grip with what it sounds and who holds it. */
export interface Voicing {
  frets: Frets
  /** Sounding MIDI numbers, lowest pitch first, doubles kept. */
  midis: readonly number[]
  /** For each sounding string from the lowest: its degree, spelled note and MIDI number. */
  strings: readonly { string: number; midi: number; degree: Degree; note: Note }[]
  fingering: Fingering
  families: readonly Family[]
}

/** A grip as it sounds, whoever holds it. */
export type SoundingGrip = Omit<Voicing, 'fingering'>

export const pitchNames = (voicing: Voicing): string[] =>
  voicing.strings.map(({ midi, note }) => pitchName(pitchAt(midi, note)))

export const degreesOfVoicing = (voicing: Voicing): Degree[] => voicing.strings.map(({ degree }) => degree)

/**
 * What each sound is in a chord. Sounds outside the chord are named by their distance from its
 * root.
 */
export class ToneNames {
  private readonly names: (readonly [Degree, Note])[] = []

  constructor(private readonly chord: ChordSymbol) {
    for (const { degree, note } of [...chord.tones].reverse()) this.names[pitchClass(note)] = [degree, note]
  }

  of(midi: number): readonly [Degree, Note] {
    return (this.names[midi % 12] ??= this.outside(midi % 12))
  }

  private outside(pc: number): readonly [Degree, Note] {
    const { root, bass } = this.chord
    if (bass && pitchClass(bass) === pc) return [degreeBetween(root, bass), bass]
    const degree = itemAt(LOOSE, (pc - pitchClass(root) + 12) % 12)
    return [degree, spellDegree(root, degree)]
  }
}
const LOOSE: readonly Degree[] = ['1', 'b9', '9', 'b3', '3', '11', '#11', '5', 'b13', '13', 'b7', '7']

/** What a grip sounds, whoever holds it. */
export function soundingOf(
  frets: Frets,
  names: ToneNames,
  instrument: Instrument,
): Pick<Voicing, 'midis' | 'strings' | 'families'> {
  const strings: Voicing['strings'][number][] = []
  frets.forEach((fret, string) => {
    if (fret === null) return
    const midi = soundAt(instrument, string, fret)
    const [degree, note] = names.of(midi)
    strings.push({ string, midi, degree, note })
  })
  const byPitch = [...strings].sort((a, b) => a.midi - b.midi)
  const openAmongFretted = frets.includes(0) && frets.some((fret) => fret !== null && fret > 0)
  return {
    strings,
    midis: byPitch.map(({ midi }) => midi),
    families: familiesOf({ notes: byPitch, openAmongFretted }),
  }
}

/**
 * A given grip read against a chord, or null when the hand cannot hold it. The grip need not be a
 * full voicing of the chord.
 */
export function voicingOf(
  frets: Frets,
  chord: ChordSymbol,
  limits: Pick<Limits, 'instrument' | 'hand'>,
): Voicing | null {
  const fingering = easiestFingering(frets, limits.instrument, limits.hand)
  return fingering && { frets, fingering, ...soundingOf(frets, new ToneNames(chord), limits.instrument) }
}
