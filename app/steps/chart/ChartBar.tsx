import { theOne } from '../../../core/lists'
import { useState } from 'react'
import { sameKey } from '../../../core/analysis/localKeys'
import { withSetting } from '../../../core/chart/editBars'
import type { TuneDocument } from '../../../core/tune/document'
import { chartsOf } from '../../../core/tune/edits/chartEdits'
import type { TuneReading } from '../../../core/tune/tuneReading'
import { ControlBar, BarWord } from '../../services/controls/ControlBar'
import type { TuneSession } from '../../services/tune/session'
import { useStableValue, useStableCallback } from '../../services/words/stable'
import { BarTools, barsInWords } from './BarTools'
import { ChartsMenu } from './ChartsMenu'
import { ImportDialog } from './ImportDialog'
import { KeyAndCapo, NumeralsControl, SKELETON_SHOWN, ShownControl, type SkeletonShown } from './ChartTools'
import type { ChartEditing } from './useChartEditing'

interface Props {
  document: TuneDocument
  session: TuneSession
  reading: TuneReading
  editing: ChartEditing
  shown: SkeletonShown
  onShown: (shown: SkeletonShown) => void
  /** Words are typed under the bars. */
  words: boolean
  onWords: (words: boolean) => void
}

const sameNames = (a: readonly string[], b: readonly string[]) => a.join('\n') === b.join('\n')

/** Which chart, how it is shown, its key and capo, and what can be done with its bars. */
export function ChartBar({ document, session, reading, editing, shown, onShown, words, onWords }: Props) {
  const { chart, analysis } = reading
  const [bringing, setBringing] = useState(false)
  const names = useStableValue(
    chartsOf(document).map((one) => one.name),
    sameNames,
  )
  const keyNow = useStableValue(analysis.key, sameKey)
  const onTranspose = useStableCallback((to: string) => session.edit({ kind: 'transpose', to }))
  const onCapo = useStableCallback((fret: number) =>
    session.edit({
      kind: 'bars',
      text: withSetting(document.text, 'capo', fret === 0 ? null : String(fret)),
      did: fret === 0 ? 'no capo' : `capo ${fret}`,
    }),
  )
  const [from, to] = editing.bars ?? []
  const numberAt = (index: number | undefined) =>
    index === undefined ? null : (chart.bars[index]?.number ?? null)
  const [first, last] = [numberAt(from), numberAt(to)]
  const selected = first !== null && last !== null ? barsInWords(first, last) : 'none selected'
  return (
    <ControlBar label="The chart">
      <BarWord name="Chart" term="chart" says={names[document.at] ?? ''}>
        <ChartsMenu names={names} at={document.at} onEdit={session.edit} />
      </BarWord>
      {chart.bars.length > 0 && (
        <>
          <BarWord
            name="Shown"
            term="skeleton"
            says={theOne(SKELETON_SHOWN, ({ value }) => value === shown).label}
          >
            <ShownControl shown={shown} onShown={onShown} />
          </BarWord>
          <NumeralsControl />
          <KeyAndCapo keyNow={keyNow} capo={chart.capo} onTranspose={onTranspose} onCapo={onCapo} />
        </>
      )}
      {shown === 0 && (
        <BarWord name="Bars" says={chart.bars.length === 0 ? 'none yet' : selected}>
          <BarTools
            from={first}
            to={last}
            empty={chart.bars.length === 0}
            canPaste={editing.canPaste}
            says={editing.says}
            onAct={editing.act}
          />
        </BarWord>
      )}
      {shown === 0 && chart.bars.length > 0 && (
        <button
          type="button"
          className="tool"
          aria-pressed={words}
          title="Words typed under the bars (L)"
          onClick={() => onWords(!words)}
        >
          Type words
        </button>
      )}
      <button type="button" className="tool" onClick={() => setBringing(true)}>
        Bring in chords
      </button>
      <BarWord name="Signs" says="of the text">
        <Signs />
      </BarWord>
      {bringing && (
        <ImportDialog
          onClose={() => setBringing(false)}
          onBringIn={({ text, lyrics, grips }) =>
            session.edit({ kind: 'bring-in', text, lyrics, drawn: grips, did: 'chords brought in' })
          }
        />
      )}
    </ControlBar>
  )
}

/** How a chart is written. */
function Signs() {
  return (
    <p>
      <code>|</code> bar, <code>C . . G7</code> beats, <code>_G7</code> off the beat, <code>%</code> the bar
      again, <code>|: :|</code> repeat, <code>|1. |2.</code> endings, <code>[A]</code> section,{' '}
      <code>N.C.</code> silence, <code>D.S. al Coda</code>, <code>"lightly"</code> a remark,{' '}
      <code>pickup: 1</code>, <code>capo: 2</code>
    </p>
  )
}
