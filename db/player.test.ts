import { bothChanges, changedBy, DEFAULT_PLAYER, differences } from '../core/player/playerSettings'
import { openDatabase, type Db } from './connect'
import { changePlayer, countLiking, forgetLiking, readLiking, readPlayer } from './player'
import { settings } from './schema'

let db: Db
beforeEach(() => {
  db = openDatabase(':memory:')
})
afterEach(() => db.$client.close())

test('settings are the usual ones until they are changed, and one that is not understood is the usual one again', () => {
  expect(readPlayer(db)).toEqual(DEFAULT_PLAYER)
  changePlayer(db, { taste: { far: 0.9 } })
  changePlayer(db, { depth: 3 })
  expect(readPlayer(db)).toEqual({
    ...DEFAULT_PLAYER,
    depth: 3,
    taste: { ...DEFAULT_PLAYER.taste, far: 0.9 },
  })
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

test('two tabs that change different things keep one another’s changes; what would not be understood is refused in words', () => {
  const [one, two] = [DEFAULT_PLAYER, DEFAULT_PLAYER]
  changePlayer(db, differences(one, { ...one, hand: { ...one.hand, reachMm: 80 } }))
  changePlayer(db, differences(two, { ...two, hand: { ...two.hand, thumb: !two.hand.thumb }, styles: [] }))
  expect(readPlayer(db).hand).toEqual({
    ...DEFAULT_PLAYER.hand,
    reachMm: 80,
    thumb: !DEFAULT_PLAYER.hand.thumb,
  })
  expect(changePlayer(db, { instrument: { frets: 10 } })).toEqual({
    refused: expect.stringContaining('highest fret at ease'),
  })
  expect(readPlayer(db).instrument).toEqual(DEFAULT_PLAYER.instrument)
})

test('changes on top of one another are one change; styles are kept and given up by name', () => {
  const style = (name: string, motion = 1) => ({
    name,
    base: 'smooth' as const,
    weights: { motion } as never,
  })
  const now = { ...DEFAULT_PLAYER, styles: [style('Mine'), style('Old')] }
  const first = differences(DEFAULT_PLAYER, now)
  const second = differences(now, { ...now, depth: 2, styles: [style('Mine', 2)] })
  expect(second).toEqual({ depth: 2, styles: { kept: [style('Mine', 2)], gone: ['Old'] } })
  expect(changedBy(DEFAULT_PLAYER, bothChanges(first, second))).toEqual({
    ...DEFAULT_PLAYER,
    depth: 2,
    styles: [style('Mine', 2)],
  })
})
