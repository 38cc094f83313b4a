import { fileNameFrom } from '../../../core/formats/fileName'
import type { Levels } from './soundPlayer'
import type { Schedule } from './schedule'

/** Renders a schedule and hands it to the browser as a WAV file. */
export async function saveSound(
  schedule: Schedule,
  beatsPerMinute: number,
  title: string,
  levels?: Levels,
): Promise<void> {
  const [{ renderSchedule }, { default: toWav }] = await Promise.all([
    import('./soundPlayer'),
    import('audiobuffer-to-wav'),
  ])
  const wav = toWav(await renderSchedule(schedule, beatsPerMinute, levels))
  saveFile(new Blob([wav], { type: 'audio/wav' }), `${fileNameFrom(title)}.wav`)
}

export function saveFile(blob: Blob, name: string): void {
  const link = document.createElement('a')
  link.href = URL.createObjectURL(blob)
  link.download = name
  link.click()
  setTimeout(() => URL.revokeObjectURL(link.href), 10_000)
}
