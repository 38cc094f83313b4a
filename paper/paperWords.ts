import { lyricInWords, type Lyric } from '../core/melody/lyrics'
import { said, type Box } from './marks'

/** Points of the letters of words, and white between them, at the usual size. */
export const WORDS_SIZE = 10
export const WORDS_GAP = 3

/** Words as they stand under a beat. @param unit 1 at the usual size */
export const wordsBox = (lyric: Lyric, unit: number): Box =>
  said(lyricInWords(lyric), { size: WORDS_SIZE * unit, face: 'serif' })
