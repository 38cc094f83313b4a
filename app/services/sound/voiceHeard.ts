/** Voices of the new line that are heard: all alike, one in front of the others, or one alone. */
export type VoiceHeard = 'all' | 'bass' | 'top' | 'bass alone' | 'inner alone' | 'top alone'

export const VOICES: readonly { name: VoiceHeard; label: string; title: string }[] = [
  { name: 'all', label: 'All voices', title: 'Every voice as loud as the others' },
  { name: 'bass', label: 'Bass in front', title: 'The lowest voice louder than the others' },
  { name: 'top', label: 'Top in front', title: 'The highest voice louder than the others' },
  { name: 'bass alone', label: 'Bass', title: 'The lowest voice alone' },
  { name: 'inner alone', label: 'Inner', title: 'The voices between alone' },
  { name: 'top alone', label: 'Top', title: 'The highest voice alone' },
]

/** Loudness of a voice that stands behind another, from 0 to 1: about 12 dB down. */
const BEHIND = 0.25

/** How loud each note of a grip is, lowest first, from 0 silent to 1. */
export function levelsOf(notes: number, voice: VoiceHeard): number[] {
  const place = (at: number) => {
    if (at === 0) return 'bass'
    if (at === notes - 1) return 'top'
    return 'inner'
  }
  return Array.from({ length: notes }, (_, at) => {
    // A note alone is the melody and the bass at once.
    const is = (wanted: string) => place(at) === wanted || (notes === 1 && wanted !== 'inner')
    if (voice === 'all') return 1
    if (voice.endsWith(' alone')) return is(voice.replace(' alone', '')) ? 1 : 0
    return is(voice) ? 1 : BEHIND
  })
}
