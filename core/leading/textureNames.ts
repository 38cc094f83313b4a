/** The kinds of grip; a passage keeps to one. Common practice, no source. */
export const TEXTURE_NAMES = [
  'as it comes',
  'open',
  'shells',
  'shells and colour',
  'drop 2',
  'drop 3',
  'rootless',
  'upper structures',
  'fourths',
  'triads',
  'two voices',
] as const
export type TextureName = (typeof TEXTURE_NAMES)[number]
