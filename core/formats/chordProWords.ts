/** A comment that names a part of the song: `{comment: Verse 2}`. */
export const PART_IN_WORDS =
  /^(?:Intro(?:duction)?|Verse|(?:Pre-?)?Chorus|Bridge|Refrain|Outro|Coda|Interlude|Ending|Solo|Instrumental|Vamp|Tag|[A-H])(?:\s*\d+)?\s*:?$/i
/** A comment that is a sign of the form. */
export const MARK = /^(?:Segno|To Coda|Coda|Fine|D\.[CS]\.(?: al (?:Fine|Coda))?)$/i
