/** The place that a key such as `3:2.5` names. */
export const placeOfKey = (key: string): { bar: number; beat: number } => {
  const [bar, beat] = key.split(':').map(Number)
  return { bar: bar!, beat: beat! }
}
