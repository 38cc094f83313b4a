import { DEFAULT_PLAYER } from '../app/features/player/settings'
import { openDatabase, type Db } from './connect'
import { countLiking, forgetLiking, keepPlayer, readLiking, readPlayer } from './player'
import { settings } from './schema'

let db: Db
beforeEach(() => { db = openDatabase(':memory:') })
afterEach(() => db.$client.close())

test('settings are the usual ones until they are changed, and one that is not understood is the usual one again', () => {
  expect(readPlayer(db)).toEqual(DEFAULT_PLAYER)
  keepPlayer(db, { taste: { ...DEFAULT_PLAYER.taste, far: 0.9 } })
  keepPlayer(db, { depth: 3 })
  expect(readPlayer(db)).toEqual({ ...DEFAULT_PLAYER, depth: 3, taste: { ...DEFAULT_PLAYER.taste, far: 0.9 } })
  db.update(settings).set({ value: 'far out' }).run()
  expect(readPlayer(db)).toEqual(DEFAULT_PLAYER)
})

test('what is kept counts for each of its rules, and can be forgotten one by one or all', () => {
  countLiking(db, 'b1+c1')
  countLiking(db, 'b1')
  countLiking(db, 'd1')
  expect(readLiking(db)).toEqual({ b1: 2, c1: 1, d1: 1 })
  forgetLiking(db, 'b1')
  expect(readLiking(db)).toEqual({ c1: 1, d1: 1 })
  forgetLiking(db)
  expect(readLiking(db)).toEqual({})
})
