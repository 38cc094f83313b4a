import type { Role } from '../analysis/role'
import type { RuleFamily } from './families'

/**
 * How far a colour goes: 1 the seventh or sixth; 2 the ninth; 3 the fuller tensions; 4 the sharp
 * ones. The one control of the Colour step counts in these.
 */
export type ColourLevel = 1 | 2 | 3 | 4

/** The rules of colouring, by name (common practice: ways to change a progression, a). */
// prettier-ignore
export const COLOUR_RULES = {
  'major-colour':      { family: 'a1', name: 'colours of major chords' },
  'minor-colour':      { family: 'a2', name: 'colours of minor chords' },
  'dominant-colour':   { family: 'a3', name: 'colours of dominants' },
  'altered-dominant':  { family: 'a4', name: 'altered dominants' },
  'resting-dominant':  { family: 'a5', name: 'colours of dominants that stay' },
  'diminished-colour': { family: 'a6', name: 'colours of half-diminished and diminished chords' },
  'raised-ninth':      { family: 'a7', name: 'the dominant with a raised ninth' },
} as const satisfies Readonly<Record<string, { family: RuleFamily; name: string }>>

export interface Colour {
  rule: keyof typeof COLOUR_RULES
  /** What stands after the root. */
  suffix: string
  level: ColourLevel
  /** Not free but a colour on purpose; the control leaves it to the player. */
  special?: true
  /** Why it works, for any chord in this role. `%` stands for the chord. */
  why: string
  mood: string
}

/**
 * The colours of each role, in the order a player would try them; the first that is not special on
 * a level is the one the control takes. Availability by function after Nettles & Graf, "The Chord
 * Scale Theory and Jazz Harmony", and Levine, "The Jazz Theory Book" (both from memory); moods are
 * common practice.
 */
// prettier-ignore
export const COLOURS: Readonly<Record<Role, readonly Colour[]>> = {
  'I major': [
    { rule: 'major-colour', suffix: 'maj7', level: 1, mood: 'calm, open', why: '% is home: its major seventh lies in the key, a half step under the root.' },
    { rule: 'major-colour', suffix: '6', level: 1, mood: 'settled, older', why: '% is home: the sixth rests without the pull of a seventh.' },
    { rule: 'major-colour', suffix: 'add9', level: 1, mood: 'bright, plain', why: 'The ninth of % is a whole step over the root and leaves the triad as it is.' },
    { rule: 'major-colour', suffix: '6/9', level: 2, mood: 'wide, at rest', why: '% is home: sixth and ninth are both free there and neither pulls away.' },
    { rule: 'major-colour', suffix: 'maj9', level: 2, mood: 'warm, open', why: '% is home: the ninth sits softly over the major seventh.' },
    { rule: 'major-colour', suffix: 'maj13', level: 3, mood: 'lush', why: '% is home: 7, 9 and 13 are all free there.' },
    { rule: 'major-colour', suffix: 'maj9#11', level: 4, special: true, mood: 'floating, bright', why: 'The #11 of % is outside the key: a special colour for a last or a long chord.' },
  ],
  'IV major': [
    { rule: 'major-colour', suffix: 'maj7', level: 1, mood: 'open', why: '% is the IV: its major seventh lies in the key.' },
    { rule: 'major-colour', suffix: '6', level: 1, mood: 'settled', why: '% is the IV: its sixth is the second of the key.' },
    { rule: 'major-colour', suffix: 'add9', level: 1, mood: 'bright, plain', why: 'The ninth of % lies in the key.' },
    { rule: 'major-colour', suffix: 'maj9', level: 2, mood: 'warm', why: '% is the IV: 7 and 9 are free there.' },
    { rule: 'major-colour', suffix: '6/9', level: 2, mood: 'wide', why: '% is the IV: 6 and 9 are free there.' },
    { rule: 'major-colour', suffix: 'maj7#11', level: 3, mood: 'floating', why: 'On the IV the #11 is the leading note of the key, so it is free.' },
    { rule: 'major-colour', suffix: 'maj13', level: 3, mood: 'lush', why: '% is the IV: 7, 9 and 13 are free there.' },
    { rule: 'major-colour', suffix: 'maj9#11', level: 4, mood: 'floating, bright', why: 'On the IV both the 9 and the #11 lie in the key.' },
  ],
  'borrowed major': [
    { rule: 'major-colour', suffix: 'maj7', level: 1, mood: 'dark, open', why: '% comes from the parallel minor, where its major seventh is at home.' },
    { rule: 'major-colour', suffix: '6', level: 1, mood: 'settled', why: 'The sixth of % rests without a pull.' },
    { rule: 'major-colour', suffix: 'add9', level: 1, mood: 'bright, plain', why: 'The ninth of % leaves the triad as it is.' },
    { rule: 'major-colour', suffix: 'maj9', level: 2, mood: 'dark, wide', why: '% is a major chord away from home: 7 and 9 are free on it.' },
    { rule: 'major-colour', suffix: '6/9', level: 2, mood: 'wide', why: '% is a major chord away from home: 6 and 9 are free on it.' },
    { rule: 'major-colour', suffix: 'maj7#11', level: 3, mood: 'floating', why: 'Away from home the #11 of % is free, as on a IV.' },
    { rule: 'major-colour', suffix: 'maj9#11', level: 4, mood: 'floating, far', why: 'Away from home 9 and #11 of % are free, as on a IV.' },
  ],
  'relative major': [
    { rule: 'major-colour', suffix: 'maj7', level: 1, mood: 'open', why: '% is the bIII, the major key on the third of a minor one: its major seventh lies there.' },
    { rule: 'major-colour', suffix: '6', level: 1, mood: 'settled', why: 'The sixth of % is the tonic of the minor key.' },
    { rule: 'major-colour', suffix: 'add9', level: 1, mood: 'bright, plain', why: 'The ninth of % leaves the triad as it is.' },
    { rule: 'major-colour', suffix: 'maj9', level: 2, mood: 'warm, open', why: '% is the bIII: 7 and 9 are free on it.' },
    { rule: 'major-colour', suffix: '6/9', level: 2, mood: 'wide', why: '% is the bIII: 6 and 9 are free on it.' },
    { rule: 'major-colour', suffix: 'maj13', level: 3, mood: 'lush', why: '% is the bIII: 7, 9 and 13 are free on it.' },
  ],
  'ii minor': [
    { rule: 'minor-colour', suffix: 'm7', level: 1, mood: 'soft', why: 'The flat seventh of % falls a half step to the third of the chord a fourth above.' },
    { rule: 'minor-colour', suffix: 'm9', level: 2, mood: 'soft, warm', why: '% does the work of a ii: its ninth is free.' },
    { rule: 'minor-colour', suffix: 'm7add11', level: 2, mood: 'open', why: '% does the work of a ii: its eleventh is free over a minor third.' },
    { rule: 'minor-colour', suffix: 'm11', level: 3, mood: 'open, wide', why: '% does the work of a ii: 9 and 11 are both free.' },
    { rule: 'minor-colour', suffix: 'm6', level: 1, special: true, mood: 'restless', why: 'The natural sixth of % is the third of its V: it makes % push like a V. Schools differ.' },
    { rule: 'minor-colour', suffix: 'm13', level: 4, special: true, mood: 'Dorian', why: 'The natural 13 of % makes a tritone with its third: Dorian colour. Schools differ.' },
  ],
  'iii minor': [
    { rule: 'minor-colour', suffix: 'm7', level: 1, mood: 'soft', why: 'The flat seventh of % lies in the key.' },
    { rule: 'minor-colour', suffix: 'm7add11', level: 2, mood: 'open', why: '% is the iii: of its tensions only the 11 lies in the key without a sour half step.' },
    { rule: 'minor-colour', suffix: 'm9', level: 3, special: true, mood: 'brighter', why: 'The 9 of a iii is borrowed: it is outside the key.' },
  ],
  'vi minor': [
    { rule: 'minor-colour', suffix: 'm7', level: 1, mood: 'soft', why: 'The flat seventh of % is the fifth of the key.' },
    { rule: 'minor-colour', suffix: 'madd9', level: 1, mood: 'wistful, plain', why: 'The ninth of % lies in the key and leaves the triad as it is.' },
    { rule: 'minor-colour', suffix: 'm9', level: 2, mood: 'wistful', why: '% is the vi: its ninth is free.' },
    { rule: 'minor-colour', suffix: 'm11', level: 3, mood: 'wide', why: '% is the vi: 9 and 11 are free.' },
  ],
  'iv minor': [
    { rule: 'minor-colour', suffix: 'm6', level: 1, mood: 'aching', why: 'The sixth of % is the second of the key: with the minor third it aches.' },
    { rule: 'minor-colour', suffix: 'm7', level: 1, mood: 'dark', why: 'The flat seventh of a minor iv is free.' },
    { rule: 'minor-colour', suffix: 'm6/9', level: 2, mood: 'aching, wide', why: 'On a minor iv 6 and 9 are free.' },
    { rule: 'minor-colour', suffix: 'm9', level: 2, mood: 'dark, warm', why: 'On a minor iv 7 and 9 are free.' },
    { rule: 'minor-colour', suffix: 'm13', level: 3, mood: 'deep', why: 'On a minor iv 7, 9 and 13 are free.' },
  ],
  'tonic minor': [
    { rule: 'minor-colour', suffix: 'm6', level: 1, mood: 'dark, at rest', why: '% is home in minor: the natural sixth colours it without a pull.' },
    { rule: 'minor-colour', suffix: 'madd9', level: 1, mood: 'plain, sad', why: 'The ninth of % leaves the triad as it is.' },
    { rule: 'minor-colour', suffix: 'm(maj7)', level: 1, mood: 'tense, glowing', why: 'The major seventh is the leading note of the key, held over home.' },
    { rule: 'minor-colour', suffix: 'm7', level: 1, special: true, mood: 'soft', why: 'The flat seventh makes % sound less like home: a special colour on a tonic minor.' },
    { rule: 'minor-colour', suffix: 'm6/9', level: 2, mood: 'dark, wide', why: '% is home in minor: 6 and 9 are free.' },
    { rule: 'minor-colour', suffix: 'm9', level: 2, special: true, mood: 'soft, dark', why: 'The ninth is free; the flat seventh is a special colour on a tonic minor.' },
    { rule: 'minor-colour', suffix: 'm(maj9)', level: 3, mood: 'tense, wide', why: '% is home in minor: 9 and the major seventh are free.' },
    { rule: 'minor-colour', suffix: 'm11', level: 3, special: true, mood: 'wide', why: '9 and 11 are free; the flat seventh is a special colour on a tonic minor.' },
  ],
  'half-diminished': [
    { rule: 'diminished-colour', suffix: 'm7b5', level: 1, mood: 'uneasy', why: 'The flat seventh makes % the ii of a minor key.' },
    { rule: 'diminished-colour', suffix: 'm7b5add11', level: 2, mood: 'uneasy, open', why: 'The 11 of a half-diminished chord is free.' },
    { rule: 'diminished-colour', suffix: 'm9b5', level: 3, special: true, mood: 'glassy', why: 'The natural 9 of a half-diminished chord is outside the key: a special colour.' },
  ],
  diminished: [
    { rule: 'diminished-colour', suffix: 'dim7', level: 1, mood: 'tense', why: 'With its diminished seventh % divides the octave in four and can lead four ways.' },
    { rule: 'diminished-colour', suffix: 'dim9', level: 3, mood: 'tense, glowing', why: 'Any tone a whole step above a chord tone is free on a diminished seventh: here the ninth.' },
  ],
  'dominant to major': [
    { rule: 'dominant-colour', suffix: '7', level: 1, mood: 'pushing', why: 'The flat seventh of % makes a tritone with its third, which opens into the next chord.' },
    { rule: 'dominant-colour', suffix: '7sus4', level: 1, mood: 'held back', why: 'The fourth of % waits to fall to the third.' },
    { rule: 'dominant-colour', suffix: '9', level: 2, mood: 'warm, pushing', why: '% goes to a major chord: its natural ninth is free.' },
    { rule: 'dominant-colour', suffix: '9sus4', level: 2, mood: 'held back, wide', why: '% with the fourth for the third: the ii over the bass of the V.' },
    { rule: 'dominant-colour', suffix: '13', level: 3, mood: 'rich, pushing', why: '% goes to a major chord: 9 and 13 are free.' },
    { rule: 'altered-dominant', suffix: '7b9', level: 3, special: true, mood: 'darker', why: '% resolves, so its ninth may be lowered: it falls a half step to the fifth of the next chord.' },
    { rule: 'altered-dominant', suffix: '7#5', level: 3, special: true, mood: 'straining', why: '% resolves: its raised fifth climbs a half step to the third of the next chord.' },
    { rule: 'altered-dominant', suffix: '13b9', level: 4, mood: 'rich, biting', why: '% resolves: the b9 falls to the fifth of the next chord, and the 13 above it to the ninth.' },
    { rule: 'altered-dominant', suffix: '7#9', level: 4, mood: 'biting', why: '% resolves: the raised ninth, a half step under the third, falls through the b9 or straight to the fifth of the next chord.' },
    { rule: 'altered-dominant', suffix: '7b9b13', level: 4, special: true, mood: 'dark, surprising', why: '% resolves to major with the tensions of minor: b9 and b13 fall by half steps, and the major third comes as a light.' },
    { rule: 'altered-dominant', suffix: '7b5', level: 4, mood: 'crooked', why: '% resolves: its lowered fifth falls a half step to the root of the next chord.' },
    { rule: 'altered-dominant', suffix: '7alt', level: 4, mood: 'far out, urgent', why: '% resolves, and every tone but root, third and seventh lies a half step from a tone of the next chord.' },
  ],
  'dominant to minor': [
    { rule: 'dominant-colour', suffix: '7', level: 1, mood: 'pushing', why: 'The flat seventh of % makes a tritone with its third, which opens into the next chord.' },
    { rule: 'dominant-colour', suffix: '7sus4', level: 1, mood: 'held back', why: 'The fourth of % waits to fall to the third.' },
    { rule: 'altered-dominant', suffix: '7b9', level: 2, mood: 'dark, pushing', why: '% goes to a minor chord: its b9 lies in that key and falls to the fifth.' },
    { rule: 'altered-dominant', suffix: '7b9b13', level: 3, mood: 'dark, full', why: '% goes to a minor chord: b9 and b13 lie in that key.' },
    { rule: 'raised-ninth', suffix: '7#9', level: 3, mood: 'biting', why: '% goes to a minor chord: the #9 is the flat seventh of that key.' },
    { rule: 'dominant-colour', suffix: '9', level: 3, special: true, mood: 'brighter', why: 'The natural 9 of a V going to minor is outside that key: a special colour.' },
    { rule: 'altered-dominant', suffix: '7#5', level: 3, mood: 'dark, straining', why: '% goes to a minor chord: its raised fifth is already the third of that chord.' },
    { rule: 'altered-dominant', suffix: '7alt', level: 4, mood: 'far out, urgent', why: '% resolves to minor: every altered tone leads down a step.' },
  ],
  'home dominant at rest': [
    { rule: 'dominant-colour', suffix: '7', level: 1, mood: 'pushing', why: '% is the V: the flat seventh is the fourth of the key.' },
    { rule: 'dominant-colour', suffix: '7sus4', level: 1, mood: 'held back', why: 'The fourth of % waits to fall to the third.' },
    { rule: 'dominant-colour', suffix: '9', level: 2, mood: 'warm', why: '% is the V: its ninth lies in the key. It does not go home next, so it is not altered.' },
    { rule: 'dominant-colour', suffix: '9sus4', level: 2, mood: 'wide', why: '% with the fourth for the third: the ii over the bass of the V.' },
    { rule: 'dominant-colour', suffix: '13', level: 3, mood: 'rich', why: '% is the V: 9 and 13 lie in the key. It does not go home next, so it is not altered.' },
    { rule: 'dominant-colour', suffix: '13sus4', level: 3, mood: 'rich, wide', why: '9 and 13 over the suspended V: nothing pulls.' },
  ],
  'blues I into IV': [
    { rule: 'resting-dominant', suffix: '7', level: 1, mood: 'bluesy', why: 'The flat seventh gives % the sound of the blues, and leads on to the IV.' },
    { rule: 'resting-dominant', suffix: '9', level: 2, mood: 'bluesy, warm', why: '% is the I of a blues: its natural 9 is free.' },
    { rule: 'resting-dominant', suffix: '13', level: 3, mood: 'rich', why: '% is the I of a blues: 9 and 13 are free.' },
    { rule: 'altered-dominant', suffix: '7#9', level: 3, special: true, mood: 'bluesy, biting', why: 'The #9 is the blue third of % beside its major one.' },
    { rule: 'altered-dominant', suffix: '7b9', level: 3, special: true, mood: 'pushing', why: '% goes to IV as its V: the b9 falls a half step to the fifth of that chord.' },
    { rule: 'altered-dominant', suffix: '7#5', level: 3, special: true, mood: 'straining', why: '% goes to IV as its V: the raised fifth climbs to the third of that chord.' },
    { rule: 'altered-dominant', suffix: '7alt', level: 4, special: true, mood: 'urgent', why: '% goes to IV as its V: every altered tone lies a half step from a tone of that chord.' },
  ],
  'dominant at rest': [
    { rule: 'major-colour', suffix: 'add9', level: 1, special: true, mood: 'bright, plain', why: 'The ninth of % leaves the triad as it is.' },
    { rule: 'resting-dominant', suffix: '7', level: 1, mood: 'bluesy', why: 'The flat seventh gives % the sound of a dominant that need not resolve down a fifth.' },
    { rule: 'resting-dominant', suffix: '9', level: 2, mood: 'bluesy, warm', why: '% does not fall a fifth: its natural 9 is free, the altered one would be sour.' },
    { rule: 'resting-dominant', suffix: '13', level: 3, mood: 'rich', why: '% does not fall a fifth: 9 and 13 are free.' },
    { rule: 'resting-dominant', suffix: '9#11', level: 4, mood: 'bright, floating', why: '% does not fall a fifth: the #11 is its own colour.' },
    { rule: 'resting-dominant', suffix: '13#11', level: 4, mood: 'rich, floating', why: '% does not fall a fifth: 9, #11 and 13 are free.' },
  ],
  augmented: [
    { rule: 'altered-dominant', suffix: '7#5', level: 1, mood: 'straining', why: 'The flat seventh makes the augmented % a dominant with a raised fifth.' },
    { rule: 'altered-dominant', suffix: '9#5', level: 2, mood: 'straining, whole-tone', why: 'Over a raised fifth the natural ninth of % keeps the whole-tone sound.' },
  ],
  suspended: [
    { rule: 'dominant-colour', suffix: '7sus4', level: 1, mood: 'held back', why: 'The flat seventh makes the suspended % wait like a V.' },
    { rule: 'dominant-colour', suffix: '9sus4', level: 2, mood: 'wide', why: 'Without a third the ninth of % is free.' },
    { rule: 'dominant-colour', suffix: '13sus4', level: 3, mood: 'rich, wide', why: 'Without a third 9 and 13 of % are free.' },
  ],
  'Mixolydian tonic': [
    { rule: 'resting-dominant', suffix: '7', level: 1, mood: 'open, rolling', why: 'The flat seventh of % belongs to its mode, Mixolydian: it rests there.' },
    { rule: 'major-colour', suffix: 'add9', level: 1, mood: 'bright, plain', why: 'The ninth of % lies in the mode and leaves the triad as it is.' },
    { rule: 'resting-dominant', suffix: '7sus4', level: 1, mood: 'held back', why: 'The fourth and the flat seventh of % both lie in its mode.' },
    { rule: 'resting-dominant', suffix: '9', level: 2, mood: 'warm, rolling', why: '% is home in Mixolydian: b7 and 9 lie in the mode.' },
    { rule: 'resting-dominant', suffix: '9sus4', level: 2, mood: 'wide', why: '% is home in Mixolydian: without its third b7 and 9 float.' },
    { rule: 'resting-dominant', suffix: '13', level: 3, mood: 'rich', why: '% is home in Mixolydian: b7, 9 and 13 lie in the mode.' },
  ],
  power: [
    { rule: 'major-colour', suffix: 'add9no3', level: 1, mood: 'open', why: '% has no third: the ninth keeps it open.' },
  ],
}
