import 'fake-indexeddb/auto'
import {
  changedBy,
  DEFAULT_PLAYER,
  type PlayerChange,
  type PlayerSettings,
} from '../../../core/player/playerSettings'
import { dropWaiting, waitingFor } from '../tune/drafts'
import { SettingsOutbox, type KeepingState } from './settingsOutbox'

/** A server in the same process: away, refusing, or taking what comes. */
let server: 'there' | 'away' | 'refuses'
let kept: PlayerSettings
let asked: PlayerChange[]
let states: KeepingState[]
/** Held back answers are given when this is called. */
let release: (() => void) | null

const keeping = () =>
  new SettingsOutbox(
    (state) => states.push(state),
    (settings) => (kept = settings),
  )
const until = async (holds: () => boolean | Promise<boolean>) => {
  for (let at = 0; at < 400; at += 1) {
    if (await holds()) return
    await new Promise((resolve) => setTimeout(resolve, 10))
  }
  throw new Error(`it never came to that: ${JSON.stringify(states)}`)
}

beforeEach(async () => {
  server = 'there'
  kept = DEFAULT_PLAYER
  asked = []
  states = []
  release = null
  await dropWaiting('player')
  let settings = DEFAULT_PLAYER
  globalThis.fetch = async (_address, request) => {
    const { change } = JSON.parse(request!.body as string) as { change: PlayerChange }
    asked.push(change)
    if (server === 'away') throw new TypeError('fetch failed')
    if (server === 'refuses') return Response.json({ message: 'The reach is 60 to 200 mm.' }, { status: 400 })
    settings = changedBy(settings, change)
    if (release) await new Promise<void>((resolve) => (release = resolve))
    return Response.json({ settings })
  }
})

test('what is changed in one go is sent as one, and is said to be saved when the server has it', async () => {
  const player = keeping()
  player.add({ leftHanded: true })
  player.add({ hand: { reachMm: 120 } })
  expect(states).toEqual(['saving', 'saving'])
  expect(asked).toEqual([])
  player.flush()
  await until(() => states.at(-1) === 'saved')
  expect(asked).toEqual([{ leftHanded: true, hand: { reachMm: 120 } }])
  expect(kept.leftHanded).toBe(true)
  expect(kept.hand.reachMm).toBe(120)
  await until(async () => (await waitingFor('player')) === undefined)
})

test('while the server is away it waits in this browser, is sent again, and the later word holds', async () => {
  server = 'away'
  const player = keeping()
  player.add({ leftHanded: true })
  player.flush()
  await until(() => states.at(-1) === 'waiting')
  expect(await waitingFor('player')).toEqual({ leftHanded: true })
  player.add({ leftHanded: false, hand: { reachMm: 110 } })
  server = 'there'
  player.flush()
  await until(() => states.at(-1) === 'saved')
  expect(asked.at(-1)).toEqual({ leftHanded: false, hand: { reachMm: 110 } })
  expect(kept.leftHanded).toBe(false)
})

test('it is sent again without being asked, when the server is back', async () => {
  server = 'away'
  const player = keeping()
  player.add({ leftHanded: true })
  player.flush()
  await until(() => states.at(-1) === 'waiting')
  server = 'there'
  await until(() => states.at(-1) === 'saved')
  expect(asked).toHaveLength(2)
})

test('what an earlier visit could not send is taken up by the next, and told to the page', async () => {
  server = 'away'
  const before = keeping()
  before.add({ hand: { reachMm: 99 } })
  await until(async () => (await waitingFor('player')) !== undefined)
  server = 'there'
  const after = keeping()
  expect(await after.resume()).toEqual({ hand: { reachMm: 99 } })
  await until(() => states.at(-1) === 'saved')
  expect(kept.hand.reachMm).toBe(99)
  expect(await keeping().resume()).toEqual({})
  // The earlier visit sends it too, once its pause is over: not in the middle of the next test.
  await until(() => asked.length === 2)
})

test('what is changed while an answer is under way is sent behind it; what the page shows is not put back to before', async () => {
  release = () => undefined
  const player = keeping()
  player.add({ leftHanded: true })
  player.flush()
  await until(() => asked.length === 1)
  player.add({ hand: { reachMm: 130 } })
  player.flush()
  expect(asked).toHaveLength(1)
  const answer = release
  release = null
  answer()
  await until(() => states.at(-1) === 'saved')
  expect(asked).toEqual([{ leftHanded: true }, { hand: { reachMm: 130 } }])
  expect(kept).toMatchObject({ leftHanded: true, hand: { reachMm: 130 } })
})

test('what is refused is said in the server’s words, and is not sent again', async () => {
  server = 'refuses'
  const player = keeping()
  player.add({ hand: { reachMm: 100 } })
  player.flush()
  await until(() => typeof states.at(-1) === 'object')
  expect(states.at(-1)).toEqual({ refused: 'The reach is 60 to 200 mm.' })
  await until(async () => (await waitingFor('player')) === undefined)
  player.flush()
  expect(asked).toHaveLength(1)
})
