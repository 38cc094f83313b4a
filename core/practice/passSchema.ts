import { z } from 'zod'
import { TEMPO_RANGE } from '../chart/parseChart'
import { isZone } from './days'
import { GRADES, ITEM_KINDS } from './grade'

/** Longest name of what is practised, longest note and key, in letters. */
export const MOST_NAME = 300
const MOST_WORDS = 2_000
/** Nobody practises one pass for longer than this, in seconds. */
export const MOST_SECONDS = 4 * 60 * 60
/** Times that a log can have, in ms since 1970: to the year 2200. */
const LAST_MS = Date.UTC(2200, 0, 1)

const tempo = z.number().min(TEMPO_RANGE[0]).max(TEMPO_RANGE[1])
const bar = z.int().min(0).max(9_999)

/** One pass as the log keeps it. Moments are ms since 1970, tempos beats a minute. */
export const loggedPass = z.strictObject({
  /** Given where it was played: the same pass sent twice counts once. */
  id: z.uuid(),
  /** Null for what belongs to no tune. */
  tuneId: z.uuid().nullable(),
  /** The tune's title then, so that the log can be read when the tune is gone. */
  title: z.string().max(120),
  kind: z.enum(ITEM_KINDS),
  item: z.string().min(1).max(MOST_NAME),
  fromBar: bar.nullable(),
  toBar: bar.nullable(),
  key: z.string().max(40).nullable(),
  tempo: tempo.nullable(),
  goal: tempo.nullable(),
  grade: z.enum(GRADES),
  seconds: z.number().min(0).max(MOST_SECONDS),
  at: z.int().min(0).max(LAST_MS),
  /** Where the player is, so that the day it belongs to is theirs. */
  zone: z.string().max(60).refine(isZone, 'an IANA time zone such as Europe/Vienna'),
  note: z.string().max(MOST_WORDS),
  /** The hand hurt, and it was ended. */
  hurt: z.boolean(),
})
export type LoggedPass = z.infer<typeof loggedPass>

/** What can be corrected of a pass afterwards. */
export const correction = loggedPass.pick({ grade: true, tempo: true, note: true, hurt: true }).partial()
export type Correction = z.infer<typeof correction>
