import type { Schedule, Strike } from './schedule'
import { SoundStore } from './soundStore'

/** A player that makes no sound and says what it was asked for. */
const asked: unknown[][] = []
let onStrike: (strike: Strike | null) => void = () => undefined
let broken: Error | null = null

jest.mock('./soundPlayer', () => ({
  Player: class {
    play(schedule: Schedule, tempo: number, loop: boolean, tell: (strike: Strike | null) => void) {
      if (broken) return Promise.reject(broken)
      asked.push(['play', schedule, tempo, loop])
      onStrike = tell
      return Promise.resolve(12)
    }
    swap = (...given: unknown[]) => asked.push(['swap', ...given])
    setLevels = (levels: unknown) => asked.push(['levels', levels])
    setTempo = (tempo: number) => asked.push(['tempo', tempo])
    strumNow = (midis: unknown) => Promise.resolve(asked.push(['strum', midis]))
    stop = () => asked.push(['stop'])
  },
}))

const strike = (index: number, version: Strike['version'] = 'new') => ({ index, version }) as Strike
const schedule = (...indexes: number[]) => ({ strikes: indexes.map((index) => strike(index)) }) as Schedule
const SCORE = schedule(0, 1, 2)

let sound: SoundStore
let told: number
beforeEach(() => {
  asked.length = 0
  broken = null
  told = 0
  sound = new SoundStore()
  sound.subscribe(() => (told += 1))
})

test('what plays is told to those that draw it: that it plays, each chord as it sounds, and the end', async () => {
  expect(sound.read()).toEqual({ playing: false, trouble: null })
  expect(await sound.playTune(SCORE, 96, true)).toBe(12)
  expect(asked).toEqual([['play', SCORE, 96, true]])
  expect(sound.read().playing).toBe(true)
  const before = told
  onStrike(strike(1))
  expect(told).toBe(before + 1)
  expect(sound.soundingIn('new')).toBe(1)
  onStrike(null)
  expect(sound.read().playing).toBe(false)
  expect(sound.soundingIn('new')).toBeNull()
})

test('what is stopped before the sound library is there does not begin', async () => {
  const begun = sound.play(SCORE, 96)
  sound.stop()
  expect(await begun).toBeNull()
  expect(asked.filter(([what]) => what === 'play')).toEqual([])
  expect(sound.read().playing).toBe(false)
  expect(await sound.play(SCORE, 96)).toBe(12)
})

test('a chord sounds in its own line only, and only where it stands', async () => {
  await sound.playTune(SCORE, 96, false)
  onStrike(strike(5, 'plain'))
  expect(sound.soundingIn('new')).toBeNull()
  expect(sound.soundingIn('plain')).toBe(5)
  expect(sound.soundingIn('plain', 0, 4)).toBeNull()
  expect(sound.soundingIn('plain', 5, 8)).toBe(5)
})

test('stop is silence at once, and said; who no longer listens is told nothing', async () => {
  await sound.playTune(SCORE, 96, false)
  onStrike(strike(2))
  let others = 0
  const leave = sound.subscribe(() => (others += 1))
  leave()
  sound.stop()
  expect(asked.at(-1)).toEqual(['stop'])
  expect(sound.read()).toEqual({ playing: false, trouble: null })
  expect(sound.soundingIn('new')).toBeNull()
  expect(others).toBe(0)
})

test('another score takes the place of the tune while it plays, never of a part that is tried, nor of nothing', async () => {
  const other = schedule(0, 1)
  sound.swap(other, false, 4)
  await sound.play(SCORE, 96)
  sound.swap(other, false, 4)
  expect(asked.filter(([what]) => what === 'swap')).toEqual([])
  await sound.playTune(SCORE, 96, true)
  sound.swap(schedule(), true, 4)
  expect(asked.filter(([what]) => what === 'swap')).toEqual([])
  sound.swap(other, true, 4)
  expect(asked.at(-1)).toEqual(['swap', other, true, 4])
  sound.stop()
  sound.swap(other, true, 4)
  expect(asked.filter(([what]) => what === 'swap')).toHaveLength(1)
})

test('levels set before anything sounds hold when it does', async () => {
  const levels = { guitar: 0.5 } as unknown as Parameters<SoundStore['setLevels']>[0]
  sound.setLevels(levels)
  expect(asked).toEqual([])
  await sound.strumNow([60, 64])
  expect(asked).toEqual([
    ['levels', levels],
    ['strum', [60, 64]],
  ])
  sound.setTempo(140)
  expect(asked.at(-1)).toEqual(['tempo', 140])
})

test('where no sound can be made it is said why, and the next try is a new one', async () => {
  broken = new Error('the device is taken')
  expect(await sound.playTune(SCORE, 96, false)).toBeNull()
  expect(sound.read()).toEqual({
    playing: false,
    trouble: 'The sound could not be started: the device is taken',
  })
  broken = null
  await sound.playTune(SCORE, 96, false)
  expect(sound.read()).toEqual({ playing: true, trouble: null })
})
