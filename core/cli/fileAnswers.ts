import { itemAt } from '../lists'
import { parseChart } from '../chart/parseChart'
import { exportChart } from '../formats/exportChart'
import { importChart, LONGEST_IMPORT } from '../formats/importChart'
import { lettersOf } from '../formats/letters'
import { scoreInMxl } from '../formats/mxl'
import { importTune } from '../formats/importTune'
import { FORMATS, isFormat, NOTES_FORMATS, type NotesFormat } from '../formats/names'
import { bad, good, type Result } from '../result'
import { tuneAsBackup, tunesOfBackup } from './backupAnswers'
import { limitsFrom } from './requestLimits'
import { wrongStrings } from './parts'
import type { AnswersTo } from './answersTo'

/** Files in and out. */
export const FILE_ANSWERS: AnswersTo<'import' | 'export'> = {
  import({ content, format, encoding = 'utf-8', part }) {
    if (format === 'backup') return tunesOfBackup(content)
    if (isFormat(NOTES_FORMATS, format)) {
      const text =
        encoding === 'base64' && FORMATS[format].encoding === 'utf-8'
          ? decoded(content, format)
          : good(content)
      if (!text.ok) return text
      const file = importTune(text.value, format, part)
      return file.ok ? good({ ...file.value }) : file
    }
    if (content.length > LONGEST_IMPORT)
      return bad({
        code: 'too-large',
        message: `The text has ${content.length} letters.`,
        accepted: `at most ${LONGEST_IMPORT} letters`,
        text: 'content',
      })
    return good({ ...importChart(content, format), melody: [] })
  },

  export({ text, voicings = [], melody = [], lyrics = [], format, limits: input }) {
    const limits = limitsFrom(input)
    if (!limits.ok) return limits
    const wrong = voicings.findIndex((frets) => frets.length !== limits.value.instrument.tuning.length)
    if (wrong >= 0)
      return wrongStrings(itemAt(voicings, wrong), limits.value.instrument.tuning.length, `voicings.${wrong}`)
    const chart = parseChart(text)
    const tune = { chart, frets: voicings, melody, lyrics }
    const file =
      format === 'backup'
        ? tuneAsBackup({ ...tune, text })
        : exportChart({ ...tune, limits: limits.value }, format)
    return file.ok ? good({ ...file.value }) : file
  },
}

/** What stands in base64: text, or a compressed score (a zip begins with PK). */
function decoded(content: string, format: NotesFormat): Result<string> {
  const bytes = Buffer.from(content, 'base64')
  if (format !== 'musicxml' || bytes.toString('latin1', 0, 2) !== 'PK') return good(lettersOf(bytes))
  const score = scoreInMxl('The file', bytes)
  return score.ok ? good(lettersOf(score.value)) : score
}
