import { readFileSync } from 'node:fs'
import {
  expect,
  linesFound,
  saved,
  test,
  haveTune,
  typeTune,
  withoutCountIn,
  whatIsPlayed,
  threads,
  sounding,
  homeLine,
  newLine,
} from './fixtures'
import type { Page } from '@playwright/test'

/** Sounding notes of the first grip, from the words of its threads: names with octaves. */
async function firstChordPitches(page: Page): Promise<number[]> {
  const words = (await threads(page).first().getAttribute('aria-label'))!
  const names = words.replace('Threads: ', '').split(';')[0]!.trim().split(' ').slice(1)
  return names.map((name) => {
    const [, letter, signs, octave] = /^([A-G])([b#]*)(\d)$/.exec(name)!
    return (
      12 * (Number(octave) + 1) +
      [9, 11, 0, 2, 4, 5, 7]['ABCDEFG'.indexOf(letter!)]! +
      [...signs!].reduce((sum, sign) => sum + (sign === 'b' ? -1 : 1), 0)
    )
  })
}

/** 16-bit mono WAV samples. */
function samplesOf(file: string): { rate: number; samples: Float64Array } {
  const bytes = readFileSync(file)
  expect(bytes.toString('latin1', 0, 4)).toBe('RIFF')
  const rate = bytes.readUInt32LE(24)
  const data = bytes.subarray(44)
  return {
    rate,
    samples: Float64Array.from({ length: data.length / 2 }, (_, at) => data.readInt16LE(at * 2) / 32768),
  }
}

/** Strength of one frequency in a stretch of sound (one bin of a Fourier transform, Hann window). */
function strength(samples: Float64Array, rate: number, hz: number): number {
  let real = 0
  let imaginary = 0
  for (let i = 0; i < samples.length; i += 1) {
    const window = 0.5 - 0.5 * Math.cos((2 * Math.PI * i) / samples.length)
    real += samples[i]! * window * Math.cos((2 * Math.PI * hz * i) / rate)
    imaginary += samples[i]! * window * Math.sin((2 * Math.PI * hz * i) / rate)
  }
  return Math.hypot(real, imaginary)
}

/** Cents from `expected` to the strongest frequency within a quarter tone of it. */
function centsOff(samples: Float64Array, rate: number, expected: number): number {
  let best = { cents: 0, strength: 0 }
  for (let cents = -50; cents <= 50; cents += 1) {
    const found = strength(samples, rate, expected * 2 ** (cents / 1200))
    if (found > best.strength) best = { cents, strength: found }
  }
  return best.cents
}

test('a chord rendered through the offline audio context has its pitches within 10 cents', async ({
  page,
}) => {
  await haveTune(page, 'One Chord', 'tempo: 60\n| Am7 |', 'Lines')
  await linesFound(page)
  const pitches = await firstChordPitches(page)
  expect(pitches.length).toBeGreaterThanOrEqual(3)
  await page.getByRole('button', { name: 'New', exact: true }).click()
  await withoutCountIn(page)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as sound file' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('One Chord.wav')
  const { rate, samples } = samplesOf((await download.path())!)
  expect(rate).toBe(44100)
  const stretch = samples.subarray(Math.round(0.2 * rate), Math.round(1.8 * rate))
  expect(Math.max(...stretch)).toBeGreaterThan(0.02)
  for (const midi of pitches)
    expect(Math.abs(centsOff(stretch, rate, 440 * 2 ** ((midi - 69) / 12)))).toBeLessThanOrEqual(10)
  // What does not sound is not there: a half step beside each pitch that no partial of the chord falls on.
  const floor =
    Math.max(...pitches.map((midi) => strength(stretch, rate, 440 * 2 ** ((midi - 69) / 12)))) / 50
  const silent = pitches
    .map((midi) => midi + 1)
    .find((midi) => !pitches.some((one) => [0, 12, 19, 24, 28, 31].includes(midi - one)))!
  expect(strength(stretch, rate, 440 * 2 ** ((silent - 69) / 12))).toBeLessThan(floor)
})

test('plain, new and both in turn; the chord that sounds is shown; stop stops at once', async ({ page }) => {
  await haveTune(page, 'Two Bars', 'tempo: 240\n| C | G7 |', 'Lines')
  await linesFound(page)
  await withoutCountIn(page)
  await page.getByRole('button', { name: 'Both in turn' }).click()
  await page.locator('body').press(' ')
  await expect(sounding(homeLine(page))).toBeVisible()
  await expect(sounding(newLine(page))).toBeVisible()
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible({ timeout: 10_000 })
  // In a loop it goes on until it is stopped.
  await page.getByRole('button', { name: 'Loop' }).click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await page.waitForTimeout(5000)
  await expect(page.getByRole('button', { name: 'Stop', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Stop', exact: true }).click()
  await expect(sounding(page.getByRole('region', { name: 'Music' }))).toHaveCount(0)
  await page.waitForTimeout(600)
  await expect(sounding(page.getByRole('region', { name: 'Music' }))).toHaveCount(0)
})

test('plain and new are switched while it plays, at the same place', async ({ page }) => {
  await haveTune(page, 'Switched', 'tempo: 50\n| C | F | G7 |', 'Lines')
  await linesFound(page)
  await withoutCountIn(page)
  await page.getByRole('button', { name: 'New', exact: true }).click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  await expect(sounding(newLine(page))).toBeVisible()
  const at = Number(await sounding(newLine(page)).getAttribute('data-slot'))
  await page.getByRole('button', { name: 'Plain', exact: true }).click()
  await expect(sounding(homeLine(page))).toBeVisible()
  await expect(sounding(newLine(page))).toHaveCount(0)
  expect(Number(await sounding(homeLine(page)).getAttribute('data-slot'))).toBeGreaterThanOrEqual(at)
  await page.getByRole('button', { name: 'New', exact: true }).click()
  await expect(sounding(newLine(page))).toBeVisible()
  // It ends where the tune does: nothing begins again.
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible({ timeout: 20_000 })
})

test('tempo and selection: what is typed is kept, what is out of range is refused, the selection is what is played', async ({
  page,
}) => {
  await typeTune(page, 'Long Way', '| C | F | G7 | C |')
  const tempo = page.getByLabel('Tempo in beats a minute')
  await tempo.fill('500')
  await expect(page.getByText('20 to 400')).toBeVisible()
  // The 20 on the way to 200 is no tempo of its own: one step of undo goes back to before it.
  await tempo.fill('')
  await tempo.pressSequentially('200')
  await saved(page)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(tempo).toHaveValue('96')
  await tempo.fill('150')
  await saved(page)
  await page.reload()
  await expect(tempo).toHaveValue('150')
  await homeLine(page).getByRole('button').nth(1).click()
  await page.keyboard.press('Shift+ArrowRight')
  await expect(whatIsPlayed(page)).toHaveText('bar 2, beat 1 to bar 3, beat 1')
})

/** What the page hands to the sound card: when strings begin, in seconds of the audio clock, and how loud each short stretch is. */
interface Listened {
  starts: number[]
  /** Those that were told after their time: a machine with other work can keep the page from telling. */
  late: number[]
  /** For each way out of the page: time and peak of stretches of 128 samples. */
  ears: [number, number][][]
  stopped: number | null
}
declare global {
  interface Window {
    listened: Listened
  }
}

/** Beside the page's own work: every 128 samples with their own time, told ten times a second. */
const EAR = `registerProcessor('ear', class extends AudioWorkletProcessor {
  heard = []
  process([[samples = []]]) {
    let peak = 0
    for (const sample of samples) peak = Math.max(peak, Math.abs(sample))
    this.heard.push([currentTime, peak])
    if (this.heard.length >= 32) this.port.postMessage(this.heard.splice(0))
    return true
  }
})`

/** Listens to the page's own sound, at the last place before it leaves. */
async function listenTo(page: Page): Promise<void> {
  await page.addInitScript((ear) => {
    const listened: Listened = { starts: [], late: [], ears: [], stopped: null }
    window.listened = listened
    const MOST_EARS = 4
    const start = AudioBufferSourceNode.prototype.start
    AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
      // The library tries out what the browser can with a start at once.
      if (when > 0) {
        listened.starts.push(when)
        if (this.context.currentTime > when) listened.late.push(when)
      }
      return start.call(this, when, ...rest)
    }
    const connect = AudioNode.prototype.connect as (this: AudioNode, to: AudioNode) => AudioNode
    AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode) {
      // The library keeps each of its sources alive by a way out of its own; what is heard leaves through the first gain.
      const leaves = to instanceof AudioDestinationNode && this instanceof GainNode
      if (leaves && this.context instanceof AudioContext && listened.ears.length < MOST_EARS) {
        const { context } = this
        const loud: [number, number][] = []
        listened.ears.push(loud)
        void context.audioWorklet
          .addModule(URL.createObjectURL(new Blob([ear], { type: 'text/javascript' })))
          .then(() => {
            const node = new AudioWorkletNode(context, 'ear')
            node.port.onmessage = ({ data }: MessageEvent<[number, number][]>) => loud.push(...data)
            connect.call(this, node)
          })
        addEventListener(
          'click',
          ({ target }) => {
            if ((target as Element).textContent === 'Stop') listened.stopped = context.currentTime
          },
          true,
        )
      }
      return connect.call(this, to)
    } as typeof AudioNode.prototype.connect
  }, EAR)
}

test.describe('listened to in the page', () => {
  // The page's own rules let no script in that is not its own; the ear is one.
  test.use({ apart: true, bypassCSP: true })

  test('a loop of a hundred rounds neither drifts nor has a gap over 5 ms, and stop is silence within 50 ms', async ({
    page,
  }) => {
    await listenTo(page)
    // A bar of two beats at 400 lasts 0.3 s.
    await haveTune(page, 'Round and Round', 'meter: 2/4\ntempo: 400\n| C |', 'Lines')
    await linesFound(page)
    await withoutCountIn(page)
    await page.getByRole('button', { name: 'New', exact: true }).click()
    await page.getByRole('button', { name: 'Loop' }).click()
    await page.getByRole('button', { name: 'Play', exact: true }).click()
    /** The first string of each round, in order. */
    const rounds = () =>
      page.evaluate(() => {
        const sorted = [...window.listened.starts].sort((a, b) => a - b)
        return sorted.filter((time, at) => at === 0 || time - sorted[at - 1]! > 0.1)
      })
    await expect.poll(async () => (await rounds()).length, { timeout: 60_000 }).toBeGreaterThanOrEqual(101)
    const begun = await rounds()
    begun.slice(0, 101).forEach((time, round) => {
      expect(Math.abs(time - begun[0]! - round * 0.3)).toBeLessThan(0.005)
    })
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    await page.waitForTimeout(400)
    const { ears, late, stopped } = await page.evaluate(() => window.listened)
    // The library tries ways out of its own; one is where the band plays.
    const loud = ears.find((ear) => ear.some(([, peak]) => peak > 0.01)) ?? []
    expect(stopped).not.toBeNull()
    const heard = loud.filter(([, peak]) => peak > 0.001)
    expect(heard.length).toBeGreaterThan(100)
    expect(loud.at(-1)![0]).toBeGreaterThan(stopped! + 0.2)
    expect(heard.at(-1)![0] - stopped!).toBeLessThan(0.05)
    // Never above full scale, and never silent in between.
    expect(Math.max(...loud.map(([, peak]) => peak))).toBeLessThan(1)
    const between = loud.filter(([time]) => time > begun[2]! && time < begun[100]!)
    /** Stretches of more than 5 ms in which nothing sounds, though what sounds next was told in time. */
    let [gaps, silentFrom] = [0, null as number | null]
    for (const [time, peak] of between) {
      const before = silentFrom
      silentFrom = peak > 0.0001 ? null : (silentFrom ?? time)
      if (before === null || silentFrom !== null || time - before <= 0.005) continue
      if (!late.some((when) => when <= time && when > before - 0.05)) gaps += 1
    }
    // A gap of the loop's own would be there in every round; a machine with other work may starve the sound itself now and then.
    expect(gaps).toBeLessThanOrEqual(3)
    expect(late.length).toBeLessThan(begun.length / 2)
  })
})
