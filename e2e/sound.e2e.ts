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

/**
 * Strength of one frequency in a stretch of sound (one bin of a Fourier transform, Hann window).
 */
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
  // What does not sound is not there: a half step beside each pitch that no partial of the chord
  // falls on.
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
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible({ timeout: 60_000 })
  // In a loop it goes on until it is stopped.
  await page.getByRole('button', { name: 'Loop' }).click()
  await page.getByRole('button', { name: 'Play', exact: true }).click()
  // The tune lasts four seconds both ways: the home line is heard again and again.
  for (let round = 0; round < 3; round += 1) {
    await expect(sounding(newLine(page))).toBeVisible()
    await expect(sounding(homeLine(page))).toBeVisible()
  }
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
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible({ timeout: 60_000 })
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

/**
 * What the page hands to the sound card, all of it on the audio clock: how busy the machine is
 * changes none of it.
 */
interface Listened {
  /** When each string is to begin and how long it can sound, in seconds. */
  strings: { start: number; lasts: number }[]
  /**
   * Once Stop was pressed: what the clock said when the sound was asked to fade, and when it is
   * silent.
   */
  fades: { asked: number; silentAt: number }[]
  /** For each way out of the page: time and peak of stretches of 128 samples. */
  ears: [number, number][][]
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
    const listened: Listened = { strings: [], fades: [], ears: [] }
    window.listened = listened
    const MOST_EARS = 4
    const start = AudioBufferSourceNode.prototype.start
    AudioBufferSourceNode.prototype.start = function (when = 0, ...rest) {
      // The library tries out what the browser can with a start at once.
      if (when > 0) {
        const string = { start: when, lasts: this.buffer?.duration ?? 0 }
        listened.strings.push(string)
        const stop = this.stop.bind(this)
        this.stop = (until = 0) => {
          string.lasts = Math.min(string.lasts, until - when)
          stop(until)
        }
      }
      return start.call(this, when, ...rest)
    }
    let clock: BaseAudioContext | null = null
    let stopped = false
    const ramp = AudioParam.prototype.linearRampToValueAtTime
    AudioParam.prototype.linearRampToValueAtTime = function (value, until) {
      if (stopped && clock && value === 0) listened.fades.push({ asked: clock.currentTime, silentAt: until })
      return ramp.call(this, value, until)
    }
    addEventListener(
      'click',
      ({ target }) => {
        if ((target as Element).textContent === 'Stop') stopped = true
      },
      true,
    )
    const connect = AudioNode.prototype.connect as (this: AudioNode, to: AudioNode) => AudioNode
    AudioNode.prototype.connect = function (this: AudioNode, to: AudioNode) {
      // The library keeps each of its sources alive by a way out of its own; what is heard leaves
      // through the first gain.
      const leaves = to instanceof AudioDestinationNode && this instanceof GainNode
      if (leaves && this.context instanceof AudioContext && listened.ears.length < MOST_EARS) {
        const { context } = this
        clock ??= context
        const loud: [number, number][] = []
        listened.ears.push(loud)
        void context.audioWorklet
          .addModule(URL.createObjectURL(new Blob([ear], { type: 'text/javascript' })))
          .then(() => {
            const node = new AudioWorkletNode(context, 'ear')
            node.port.onmessage = ({ data }: MessageEvent<[number, number][]>) => loud.push(...data)
            connect.call(this, node)
          })
      }
      return connect.call(this, to)
    } as typeof AudioNode.prototype.connect
  }, EAR)
}

/** Stretches of over 5 ms in which no string sounds, between two times. */
function holesBetween(strings: Listened['strings'], from: number, to: number): number {
  let [holes, until] = [0, from]
  for (const { start, lasts } of [...strings].sort((a, b) => a.start - b.start)) {
    if (start > to) break
    if (start - until > 0.005) holes += 1
    until = Math.max(until, start + lasts)
  }
  return holes
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
    const strings = () => page.evaluate(() => window.listened.strings)
    /** The first string of each round, in order. */
    const rounds = async () => {
      const sorted = (await strings()).map(({ start }) => start).sort((a, b) => a - b)
      return sorted.filter((time, at) => at === 0 || time - sorted[at - 1]! > 0.1)
    }
    await expect.poll(async () => (await rounds()).length, { timeout: 200_000 }).toBeGreaterThanOrEqual(102)
    const begun = await rounds()
    begun.slice(0, 101).forEach((time, round) => {
      expect(Math.abs(time - begun[0]! - round * 0.3)).toBeLessThan(0.005)
    })
    expect(holesBetween(await strings(), begun[0]!, begun[100]!)).toBe(0)
    await page.getByRole('button', { name: 'Stop', exact: true }).click()
    /**
     * The way out that is heard (the library tries some of its own), and since when it is silent,
     * in seconds of sound.
     */
    const silence = () =>
      page.evaluate(() => {
        const loud = window.listened.ears.find((ear) => ear.some(([, peak]) => peak > 0.01)) ?? []
        const last = loud.filter(([, peak]) => peak > 0.001).at(-1)
        return last ? loud.at(-1)![0] - last[0] : 0
      })
    await expect.poll(silence).toBeGreaterThan(0.2)
    const { fades, ears } = await page.evaluate(() => window.listened)
    expect(fades.length).toBeGreaterThan(0)
    for (const { asked, silentAt } of fades) expect(silentAt - asked).toBeLessThan(0.05)
    // Never above full scale.
    expect(Math.max(...ears.flat().map(([, peak]) => peak))).toBeLessThan(1)
  })
})

test('bar after bar struck anew: rendered offline, nothing is silent for 5 ms in between nor above full scale', async ({
  page,
}) => {
  await haveTune(page, 'Bar by Bar', `meter: 2/4\ntempo: 400\n| C ${'| % '.repeat(15)}|`, 'Lines')
  await linesFound(page)
  await page.getByRole('button', { name: 'New', exact: true }).click()
  await withoutCountIn(page)
  const [download] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'Save as sound file' }).click(),
  ])
  const { rate, samples } = samplesOf((await download.path())!)
  const played = samples.subarray(Math.round(0.1 * rate), Math.round(16 * 0.3 * rate))
  let [silent, longest, loudest] = [0, 0, 0]
  for (const sample of played) {
    loudest = Math.max(loudest, Math.abs(sample))
    silent = Math.abs(sample) > 0.0001 ? 0 : silent + 1
    longest = Math.max(longest, silent)
  }
  expect(longest / rate).toBeLessThan(0.005)
  expect(loudest).toBeLessThan(1)
  expect(loudest).toBeGreaterThan(0.05)
})
