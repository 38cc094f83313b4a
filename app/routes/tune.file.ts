import { exportScore, scoreText, type ScoreFormat, type TextFormat } from '../../core/formats/exportChart'
import { limitsFor } from '../../core/player/limits'
import { withEveryGrip } from '../../core/tune/problem'
import { readTuneDocument } from '../../core/tune/reading'
import { scoreOf } from '../../core/tune/score'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { fileAnswer, refusedFile } from '../features/paper/answers.server'
import { tooMuch } from '../features/paper/bound.server'
import { fileNameFrom } from '../services/sound/saveSound'
import type { Route } from './+types/tune.file'

const SCORES: Readonly<Record<ScoreFormat, { ending: string; type: string }>> = {
  musicxml: { ending: 'musicxml', type: 'application/vnd.recordare.musicxml+xml; charset=utf-8' },
  midi: { ending: 'mid', type: 'audio/midi' },
  abc: { ending: 'abc', type: 'text/vnd.abc; charset=utf-8' },
}
const TEXTS: Readonly<Record<TextFormat, { ending: string; type: string }>> = {
  chordpro: { ending: 'cho', type: 'text/plain; charset=utf-8' },
  tab: { ending: 'tab.txt', type: 'text/plain; charset=utf-8' },
}
/** The chart as it was typed. */
const CHART = { ending: 'txt', type: 'text/plain; charset=utf-8' }

const isIn = <Name extends string>(table: Readonly<Record<Name, unknown>>, name: string): name is Name =>
  Object.hasOwn(table, name)

/** The tune as a file to be opened elsewhere; with `?swung` a MIDI file has the feel that is heard, with `?voices` MusicXML and ABC have the
 * comping as the voices that sound and not as slashes. */
export function loader({ params: { format, tuneId }, request }: Route.LoaderArgs) {
  const asked = new URL(request.url).searchParams
  const swung = asked.has('swung')
  const comping = asked.has('voices') ? 'voices' : 'slashes'
  if (!isIn(SCORES, format) && !isIn(TEXTS, format) && format !== 'text')
    return refusedFile(
      `There is no format "${format}". Accepted: ${[...Object.keys(SCORES), ...Object.keys(TEXTS), 'text'].join(', ')}.`,
    )
  const state = readTune(database(), tuneId)
  if (!state) return refusedFile('This tune is not in the songbook.')
  const named = ({ ending, type }: { ending: string; type: string }, content: BodyInit) =>
    fileAnswer(content, `${fileNameFrom(state.document.title)}.${ending}`, type)
  if (format === 'text') return named(CHART, state.document.text)
  const tooLong = tooMuch(state.document)
  if (tooLong !== null) return refusedFile(tooLong, 422)
  const player = readPlayer(database())
  const whole = withEveryGrip(state.document, readTuneDocument(state.document, 'case', player), player)
  const score = scoreOf(whole, player, 'case', { swung, comping })
  if (isIn(TEXTS, format))
    return named(
      TEXTS[format],
      scoreText(
        { ...score, chart: { ...score.chart, title: score.title } },
        format,
        limitsFor(player, score.chart.capo, 'chord'),
      ),
    )
  const { content, encoding } = exportScore(score, format)
  return named(
    SCORES[format],
    encoding === 'base64' ? new Uint8Array(Buffer.from(content, 'base64')) : content,
  )
}
