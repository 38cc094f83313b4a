import { createHash } from 'node:crypto'
import { pipeline } from 'node:stream/promises'
import { Readable } from 'node:stream'
import { ZipFile } from 'yazl'
import { exportScore, scoreText } from '../../core/formats/exportChart'
import { limitsFor } from '../../core/player/limits'
import type { PlayerSettings } from '../../core/player/settings'
import { scoreOf } from '../../core/tune/score'
import type { Db } from '../../db/connect'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { listTunes } from '../../db/songbook'
import { database } from '../database.server'
import { streamedFile } from '../features/files/streamed.server'
import { refusedFile } from '../features/paper/answers.server'
import { fileNameFrom } from '../services/sound/saveSound'
import type { Route } from './+types/files.songbook'

const FORMATS = { chordpro: 'cho', musicxml: 'musicxml' } as const
type SongFormat = keyof typeof FORMATS

/** Every tune of the songbook as a file of its own, in one zip. Grips that were not found yet are left out. */
export function loader({ params: { format } }: Route.LoaderArgs) {
  if (!Object.hasOwn(FORMATS, format))
    return refusedFile(
      `There is no format "${format}" for a songbook. Accepted: ${Object.keys(FORMATS).join(', ')}.`,
    )
  const asked = format as SongFormat
  const db = database()
  const player = readPlayer(db)
  return streamedFile(`songbook-${asked}.zip`, async (out, signal) => {
    const zip = new ZipFile()
    const names = new Set<string>()
    for (const { id, title } of listTunes(db, { sort: 'title' }).entries) {
      const plain = fileNameFrom(title)
      const name = names.has(plain)
        ? `${plain} ${createHash('sha256').update(id).digest('hex').slice(0, 6)}`
        : plain
      names.add(name)
      zip.addReadStreamLazy(`${name}.${FORMATS[asked]}`, { compress: true }, (done) =>
        done(null, Readable.from([contentOf(db, player, id, asked)])),
      )
    }
    zip.end()
    await pipeline(zip.outputStream, out, { signal })
  })
}

function contentOf(db: Db, player: PlayerSettings, id: string, format: SongFormat): Buffer {
  const state = readTune(db, id)
  if (!state) return Buffer.from('')
  const score = scoreOf(state.document, player)
  const titled = { ...score, chart: { ...score.chart, title: score.title } }
  return Buffer.from(
    format === 'chordpro'
      ? scoreText(titled, 'chordpro', limitsFor(player, score.chart.capo, 'chord'))
      : exportScore(score, 'musicxml').content,
  )
}
