import { itemAt } from '../lists'
import { Key as TonalKey, Mode, Scale } from 'tonal'
import { parseChart } from '../chart/parseChart'
import { chord } from '../chord/parseChord'
import { keyName, parseKey } from '../pitch/key'
import { noteName, parseNote, pitchClass } from '../pitch/note'
import { must } from '../result'
import { analyse } from './analyse'
import { numeralOf } from './numeral'
import { chordScale, SCALES, type ScaleName } from './scales'
import { spellDegree } from '../pitch/degree'

const read = (text: string) => analyse(parseChart(text))

/**
 * Progressions as textbooks analyse them, with every numeral and the key each chord speaks in. All
 * from memory: the types of progression and their analysis, in our way of writing (a substitute
 * dominant is bII7, or bII7/x), not the books' pages.
 */
// prettier-ignore
const WORKED: readonly { source: string; what: string; text: string; romans: string; keys: string }[] = [
  {
    source: 'Levine, The Jazz Theory Book (from memory)', what: 'major: I VI ii V',
    text: 'key: C\n| Cmaj7 | A7 | Dm7 | G7 | Cmaj7 |', romans: 'Imaj7 V7/ii ii7 V7 Imaj7', keys: 'C Dm C C C',
  },
  {
    source: 'Levine, The Jazz Theory Book (from memory)', what: 'tritone substitutes in a iii VI ii V',
    text: 'key: C\n| Em7 | Eb7 | Dm7 | Db7 | Cmaj7 |', romans: 'iii7 bII7/ii ii7 bII7 Imaj7', keys: 'C Dm C C C',
  },
  {
    source: 'Nettles & Graf, The Chord Scale Theory and Jazz Harmony (from memory)', what: 'secondary dominants with their related ii',
    text: 'key: F\n| Fmaj7 | Em7b5 A7 | Dm7 | Cm7 F7 | Bbmaj7 | Am7 D7 | Gm7 C7 | F6 |',
    romans: 'Imaj7 viiø7 V7/vi vi7 ii7/IV V7/IV IVmaj7 iii7 V7/ii ii7 V7 I6', keys: 'F F Dm F Bb Bb F F Gm F F F',
  },
  {
    source: 'Nettles & Graf, The Chord Scale Theory and Jazz Harmony (from memory)', what: 'passing diminished, up and down',
    text: 'key: C\n| Cmaj7 C#dim7 | Dm7 D#dim7 | Em7 Ebdim7 | Dm7 G7 | C6 |', romans: 'Imaj7 #i°7 ii7 #ii°7 iii7 biii°7 ii7 V7 I6', keys: 'C C C C C C C C C',
  },
  {
    source: 'Mulholland & Hojnacki, The Berklee Book of Jazz Harmony (from memory)', what: 'subdominant minor, borrowed from the parallel key',
    text: 'key: Eb\n| Ebmaj7 | Abmaj7 | Abm6 | Ebmaj7 | Abm7 Db7 | Ebmaj7 | Cbmaj7 | Ebmaj7 |', romans: 'Imaj7 IVmaj7 iv6 Imaj7 iv7 bVII7 Imaj7 bVImaj7 Imaj7', keys: 'Eb Eb Eb Eb Eb Eb Eb Eb Eb',
  },
  {
    source: 'Mulholland & Hojnacki, The Berklee Book of Jazz Harmony (from memory)', what: 'extended dominants',
    text: 'key: Bb\n| Bbmaj7 | D7 | G7 | C7 | F7 | Bbmaj7 |', romans: 'Imaj7 V7/VI V7/II V7/V V7 Imaj7', keys: 'Bb G C F Bb Bb',
  },
  {
    source: 'Rawlins & Bahha, Jazzology (from memory)', what: 'minor: iiø V7b9 i, the relative major, and back',
    text: 'key: Cm\n| Cm7 | Fm7 | Bb7 | Ebmaj7 | Abmaj7 | Dm7b5 | G7b9 | Cm6 |', romans: 'i7 iv7 bVII7 bIIImaj7 bVImaj7 iiø7 V7b9 i6', keys: 'Cm Cm Cm Cm Cm Cm Cm Cm',
  },
  {
    source: 'Jaffe, Jazz Harmony (from memory)', what: 'twelve-bar jazz blues',
    text: 'key: F\n| F7 | Bb7 | F7 | F7 | Bb7 | Bb7 | F7 | D7 | Gm7 | C7 | F7 D7 | Gm7 C7 |',
    romans: 'I7 IV7 I7 I7 IV7 IV7 I7 V7/ii ii7 V7 I7 V7/ii ii7 V7', keys: 'F F F F F F F Gm F F F Gm F F',
  },
  {
    source: 'Levine, The Jazz Theory Book (from memory)', what: 'twelve-bar minor blues',
    text: 'key: Cm\n| Cm7 | Fm7 | Cm7 | Cm7 | Fm7 | Fm7 | Cm7 | Cm7 | Ab7 | G7 | Cm7 | G7 |', romans: 'i7 iv7 i7 i7 iv7 iv7 i7 i7 bII7/V V7 i7 V7', keys: 'Cm Cm Cm Cm Cm Cm Cm Cm G Cm Cm Cm',
  },
  {
    source: 'Coker, Knapp & Vincent, Hearin\' the Changes (from memory)', what: 'modulating: I turns minor and becomes the ii of a new key, twice',
    text: 'key: G\n| Gmaj7 | % | Gm7 | C7 | Fmaj7 | % | Fm7 | Bb7 | Ebmaj7 | Am7b5 D7b9 | Gmaj7 | % |',
    romans: 'Imaj7 Imaj7 ii7 V7 Imaj7 Imaj7 ii7 V7 Imaj7 iiø7 V7b9 Imaj7 Imaj7', keys: 'G G F F F F Eb Eb Eb G G G G',
  },
  {
    source: 'Kostka & Payne, Tonal Harmony (from memory)', what: 'modulating to the dominant and staying',
    text: 'key: C\n| C | F | G7 | C | Am | D7 | G | C | D7 | G | Am | D7 | G | C | D7 | G |', romans: 'I IV V7 I ii V7 I IV V7 I ii V7 I IV V7 I', keys: 'C C C C G G G G G G G G G G G G',
  },
  {
    source: 'Kostka & Payne, Tonal Harmony (from memory)', what: 'deceptive and plagal cadence, secondary leading-tone chord',
    text: 'key: C\n| C | G7 | Am | F#dim7 | G | G7 | F | C |', romans: 'I V7 vi vii°7/V V V7 IV I', keys: 'C C C G C C C C',
  },
  {
    source: 'Levine, The Jazz Theory Book (from memory)', what: 'bridge of secondary dominants, two bars each',
    text: 'key: Bb\n[A] | Bb6 | Cm7 F7 | Bb6 | Cm7 F7 |\n[B] | D7 | % | G7 | % | C7 | % | F7 | % |\n[A] | Bb6 | Cm7 F7 | Bb6 | % |',
    romans: 'I6 ii7 V7 I6 ii7 V7 V7/VI V7/VI V7/II V7/II V7/V V7/V V7 V7 I6 ii7 V7 I6 I6', keys: 'Bb Bb Bb Bb Bb Bb G G C C F F Bb Bb Bb Bb Bb Bb Bb',
  },
  {
    source: 'Terefenko, Jazz Theory (from memory)', what: 'a bridge in the key of the major mediant, with a ii-V back',
    text: 'key: Eb\n[A] | Ebmaj7 | Fm7 Bb7 | Ebmaj7 | % |\n[B] | Am7 | D7 | Gmaj7 | % | Am7 | D7 | Gmaj7 | Fm7 Bb7 |\n[A] | Ebmaj7 | Fm7 Bb7 | Ebmaj7 | % |',
    romans: 'Imaj7 ii7 V7 Imaj7 Imaj7 ii7 V7 Imaj7 Imaj7 ii7 V7 Imaj7 ii7 V7 Imaj7 ii7 V7 Imaj7 Imaj7', keys: 'Eb Eb Eb Eb Eb G G G G G G G Eb Eb Eb Eb Eb Eb Eb',
  },
]

describe('worked analyses', () => {
  test.each(WORKED)('$source: $what', ({ text, romans, keys }) => {
    const { readings } = read(text)
    expect(readings.map((reading) => reading.roman).join(' ')).toBe(romans)
    expect(readings.map((reading) => keyName(reading.key)).join(' ')).toBe(keys)
    expect(readings.every((reading) => reading.scale !== null)).toBe(true)
  })
  test('twelve and more, of every sort asked for', () => expect(WORKED.length).toBeGreaterThanOrEqual(12))
})

describe('the sevenths of the three minor scales in all twelve keys, as a general theory library has them (tonal 6.4.3)', () => {
  const NUMERALS = {
    natural: ['i7', 'iiø7', 'bIIImaj7', 'iv7', 'v7', 'bVImaj7', 'bVII7'],
    harmonic: ['i(maj7)', 'iiø7', 'bIIImaj7#5', 'iv7', 'V7', 'bVImaj7', 'vii°7'],
    melodic: ['i(maj7)', 'ii7', 'bIIImaj7#5', 'IV7', 'V7', 'viø7', 'viiø7'],
  } as const
  test.each(['C', 'G', 'D', 'A', 'E', 'B', 'F#', 'C#', 'G#', 'Eb', 'Bb', 'F'])('%s minor', (tonic) => {
    const key = must(parseKey(`${tonic}m`))
    for (const form of ['natural', 'harmonic', 'melodic'] as const) {
      const scale = TonalKey.minorKey(tonic)[form].scale
      // The library builds the chords of melodic minor with sixths on I: sevenths are built here
      // from its scale, by thirds.
      const chords = scale.map((root, step) =>
        seventhOn(
          [0, 2, 4, 6].map((third) => itemAt(scale, (step + third) % 7)),
          root,
        ),
      )
      expect(chords.map((symbol) => numeralOf(chord(symbol), key, 'case'))).toEqual(NUMERALS[form])
      const { readings } = read(`key: ${tonic}m\n| ${chords.join(' | ')} |`)
      expect(
        readings
          .filter((reading) => !reading.diatonic && keyName(reading.key) === keyName(key))
          .map((reading) => reading.slot.text),
      ).toEqual([])
    }
  })
  /** The symbol whose tones are these notes. */
  function seventhOn(notes: readonly string[], root: string): string {
    const symbol = ['maj7', '7', 'm7', 'm7b5', 'dim7', 'm(maj7)', 'maj7#5']
      .map((suffix) => root + suffix)
      .find(
        (one) =>
          chord(one)
            .tones.map((tone) => noteName(tone.note))
            .join() === notes.join(),
      )
    if (!symbol) throw new Error(`no seventh chord of ${notes.join()}`)
    return symbol
  }
})

describe('chord scales', () => {
  /** Our names by those of the library, where they differ. */
  const THEIRS: Partial<Record<ScaleName, string>> = {
    Ionian: 'major',
    'Lydian augmented': 'lydian augmented',
    'Mixolydian b13': 'mixolydian b6',
    'Locrian ♮9': 'locrian #2',
    'Mixolydian b9 b13': 'phrygian dominant',
    'half-whole diminished': 'half-whole diminished',
    'whole-half diminished': 'diminished',
    'whole tone': 'whole tone',
    'Ionian augmented': 'ionian augmented',
  }
  test.each(Object.keys(SCALES) as ScaleName[])(
    '%s has the sounds a general theory library gives it (tonal 6.4.3)',
    (name) => {
      const theirs = Scale.get(`C ${THEIRS[name] ?? name.toLowerCase()}`)
      expect(theirs.empty).toBe(false)
      const ours = SCALES[name].degrees.map((degree) =>
        noteName(spellDegree({ letter: 0, alter: 0 }, degree)),
      )
      const chroma = (notes: readonly string[]) =>
        notes.map((note) => pitchClass(must(parseNote(note)))).sort((a, b) => a - b)
      expect(chroma(ours)).toEqual(chroma(theirs.notes))
    },
  )
  test('the modes of the major scale over its own sevenths: Ionian, Dorian, Phrygian, Lydian, Mixolydian, Aeolian, Locrian (tonal 6.4.3)', () => {
    const names = ['ionian', 'dorian', 'phrygian', 'lydian', 'mixolydian', 'aeolian', 'locrian']
    for (const tonic of ['C', 'A', 'Eb', 'F#', 'Db']) {
      const chords = TonalKey.majorKey(tonic).chords
      const { readings } = read(`key: ${tonic}\n| ${chords.join(' | ')} |`)
      expect(readings.map((reading) => reading.scale!.name.toLowerCase())).toEqual(names)
      readings.forEach((reading, step) =>
        expect(reading.scale!.notes.map(noteName)).toEqual(
          Mode.notes(itemAt(names, step), itemAt(TonalKey.majorKey(tonic).scale, step)),
        ),
      )
    }
  })
  test.each([
    ['C7alt', 'dominant to minor', 'altered'],
    ['G13b9', 'dominant to major', 'half-whole diminished'],
    ['F7#11', 'dominant at rest', 'Lydian dominant'],
    ['E7b9', 'dominant to minor', 'Mixolydian b9 b13'],
    ['Bdim7', 'diminished', 'whole-half diminished'],
    ['C7#5', 'dominant to major', 'Mixolydian b13'],
  ] as const)('%s as %s is heard in %s (Levine, from memory)', (symbol, role, name) =>
    expect(chordScale(chord(symbol), role)!.name).toBe(name),
  )
})
