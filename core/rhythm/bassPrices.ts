/**
 * What a bass line pays for, in one table. The rules are those of walking bass lines as method
 * books give them (roots on the change, a leading tone or dominant before it, chord tones on strong
 * beats, steps between; from memory); the sizes are ours: a rule that is seldom broken costs
 * several times what a matter of taste costs.
 */
// prettier-ignore
export const BASS_PRICES = {
  /**
   * Another chord tone than the bass where the same chord goes on into a new bar: allowed, the root
   * is plainer.
   */
  otherOnBar: 0.8,
  /** A seventh or sixth on a strong beat: it says the chord, but the triad carries the line. */
  sixthOrSeventh: 0.4,
  /** The root again inside its own chord. */
  rootAgain: 0.3,
  /** A chord tone on a weak beat, where a scale step would walk. */
  toneOnWeak: 0.1,
  /** Leading by a whole step, by the dominant: the half step leads most. */
  wholeStepLead: 0.25, dominantLead: 0.35,
  /** In two-feel the fifth is the usual second note; what leads is the spice. */
  leadInTwo: 0.9, otherInTwo: 0.5,
  /** A note of the scale that is not left or reached by step. */
  leftByLeap: 3,
  /** The same note twice: only where the bass stays under a change. */
  repeated: 20, stays: 0.5,
  /** Turning round on a weak beat, and where a bar begins. */
  turn: 0.35, turnOnBar: 0.15,
  /** Distance from the middle of the register, for the square of an octave. */
  register: 0.7,
  /** The most that a seed changes the price of a note. */
  seed: 0.6,
} as const

/**
 * The price of a leap by its half steps, 0 to 12: steps are free, fifths and octaves are the bass's
 * own leaps, tritones and sevenths are rare.
 */
export const LEAP_PRICES = [0, 0, 0, 0.25, 0.35, 0.45, 1.2, 0.45, 0.9, 1.1, 1.8, 2, 0.8] as const
