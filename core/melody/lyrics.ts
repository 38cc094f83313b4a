import { itemAt } from '../lists'
import { NEAR_WRITTEN } from '../chart/beats'
import type { Bar } from '../chart/chart'

/** Words sung from a place on. */
export interface Lyric {
  /** As `Bar.number`. */
  bar: number
  beat: number
  /** A syllable, a word or several, of at most `MOST_LYRIC` letters; never blank. */
  text: string
  /** The word goes on at the next place: it is written with a hyphen behind. */
  joins?: true | undefined
}

/** Letters that can stand at one place. */
export const MOST_LYRIC = 200
/** Places of a chart that can have words. */
export const MOST_LYRICS = 5_000

/** Where nothing is sung though a note begins, as it is typed. */
const SKIPPED = '.'
const PLACE = /^@(\d{1,3}(?:\.\d{1,3})?)$/

/**
 * Words as they can be kept: on one line, and none that reads as a place. Null where nothing is
 * left.
 */
export function lyricAt(place: { bar: number; beat: number }, words: string): Lyric | null {
  const plain = words
    .replace(/[\s\p{C}]+/gu, ' ')
    .replace(/@(?=\d)/g, '@ ')
    .trim()
  const text = plain.replace(/[\s-]+$/, '').slice(0, MOST_LYRIC)
  if (text.trim() === '' || text === SKIPPED) return null
  return { bar: place.bar, beat: place.beat, text, ...(/-$/.test(plain) ? { joins: true as const } : {}) }
}

export const lyricInWords = ({ text, joins }: Lyric): string => (joins ? `${text}-` : text)

/**
 * What is typed under a bar, as words at their places: one on each note of the bar, a word in
 * syllables over several (`sum-mer`), `.` for a note without one; what is left over stands with the
 * last. Where no note begins, all of it stands at the beginning of the bar. `@3` says the beat
 * itself: what comes after it stands there.
 * @param onsets beats of the bar on which notes begin, in order
 */
export function readLyrics(
  typed: string,
  bar: Pick<Bar, 'number' | 'from' | 'beats'>,
  onsets: readonly number[],
): Lyric[] {
  const words = typed.split(/\s+/).filter((word) => word !== '')
  const firstPlace = words.findIndex((word) => PLACE.test(word))
  const free = firstPlace < 0 ? words : words.slice(0, firstPlace)
  const found = onsets.length > 0 ? onNotes(free, bar.number, onsets) : atBeginning(free, bar)
  for (let at = firstPlace; at >= 0 && at < words.length;) {
    const next = words.findIndex((word, index) => index > at && PLACE.test(word))
    const end = next < 0 ? words.length : next
    const beat = Number(PLACE.exec(itemAt(words, at))![1])
    const lyric = lyricAt({ bar: bar.number, beat }, words.slice(at + 1, end).join(' '))
    if (lyric && beat >= bar.from && beat < bar.from + bar.beats) found.push(lyric)
    at = next
  }
  return lyricsInOrder(found)
}

function atBeginning(words: readonly string[], { number, from }: Pick<Bar, 'number' | 'from'>): Lyric[] {
  const lyric = lyricAt({ bar: number, beat: from }, words.join(' '))
  return lyric ? [lyric] : []
}

function onNotes(words: readonly string[], bar: number, onsets: readonly number[]): Lyric[] {
  const syllables = words.flatMap((word) => word.match(/[^-]+-?|-/g) ?? [])
  const last = onsets.length - 1
  return onsets.flatMap((beat, at) => {
    const here = at < last ? syllables.slice(at, at + 1) : syllables.slice(at)
    const lyric = lyricAt({ bar, beat }, here.filter((one) => one !== SKIPPED).join(' '))
    return lyric ? [lyric] : []
  })
}

/** The words of a bar as they would be typed: `readLyrics` gives them back. */
export function printLyrics(
  lyrics: readonly Lyric[],
  bar: Pick<Bar, 'number' | 'from' | 'beats'>,
  onsets: readonly number[],
): string {
  const here = lyricsInOrder(lyrics.filter((one) => one.bar === bar.number))
  const onEach = onsets.map((beat) => here.find((one) => isAt(one, beat)))
  const byNotes =
    onsets.length > 0
      ? onEach
          .slice(0, onEach.findLastIndex((one) => one !== undefined) + 1)
          .map((one) => (one ? lyricInWords(one) : SKIPPED))
          .join(' ')
          // Syllables of one word stand together, as they are typed.
          .replace(/- /g, '-')
      : here.map(lyricInWords).join(' ')
  if (same(readLyrics(byNotes, bar, onsets), here)) return byNotes
  return here.map((one) => `@${Math.round(one.beat * 1000) / 1000} ${lyricInWords(one)}`).join(' ')
}

const isAt = ({ beat }: Lyric, other: number): boolean => Math.abs(beat - other) < NEAR_WRITTEN

const same = (some: readonly Lyric[], others: readonly Lyric[]): boolean =>
  some.length === others.length &&
  some.every(
    (one, at) => isAt(one, itemAt(others, at).beat) && lyricInWords(one) === lyricInWords(itemAt(others, at)),
  )

/** In the order in which they are sung; of several at one place the first stays. */
export function lyricsInOrder(lyrics: readonly Lyric[]): Lyric[] {
  const sorted = [...lyrics].sort((a, b) => a.bar - b.bar || a.beat - b.beat)
  return sorted.filter((one, at) => {
    const before = sorted[at - 1]
    return !before || before.bar !== one.bar || !isAt(before, one.beat)
  })
}
