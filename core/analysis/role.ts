/**
 * What a chord does where it stands, as the table of available tensions divides it
 * (docs/glossary.md: role). This, not the letter of the chord, decides which colours it can take.
 */
export type Role =
  | 'I major'
  | 'IV major'
  | 'borrowed major'
  | 'relative major'
  | 'ii minor'
  | 'iii minor'
  | 'vi minor'
  | 'iv minor'
  | 'tonic minor'
  | 'half-diminished'
  | 'diminished'
  | 'dominant to major'
  | 'dominant to minor'
  | 'dominant at rest'
  | 'home dominant at rest'
  | 'blues I into IV'
  | 'augmented'
  | 'suspended'
  | 'Mixolydian tonic'
  | 'power'
