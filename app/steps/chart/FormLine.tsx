import { firstOf } from '../../../core/lists'
import { useMemo } from 'react'
import { formInWords } from '../../../core/analysis/formWords'
import { engravedWords } from '../../../core/chord/engraved'
import type { TuneReading } from '../../../core/tune/tuneReading'
import { Why } from '../../services/words/Why'

/** What a player would say of the tune before playing it. */
export function FormLine({ reading: { chart, analysis } }: { reading: TuneReading }) {
  const words = useMemo(() => formInWords(chart, analysis), [chart, analysis])
  if (words.length === 0) return null
  return (
    <div className="form-line" role="group" aria-label="Form">
      <p>{words.map(({ says }) => engravedWords(says)).join('; ')}.</p>
      <Why>
        {words.map(({ says, why }) => `${firstOf(says).toUpperCase()}${says.slice(1)}: ${why}`).join(' ')}
      </Why>
    </div>
  )
}
