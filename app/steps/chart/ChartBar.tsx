import { useState } from 'react'
import { sameKey } from '../../../core/analysis/localKeys'
import { withSetting } from '../../../core/chart/edit'
import type { TuneDocument } from '../../../core/tune/document'
import { chartsOf } from '../../../core/tune/edits/chart'
import type { TuneReading } from '../../../core/tune/reading'
import { Bar, Word } from '../../services/controls/Bar'
import type { TuneSession } from '../../services/tune/session'
import { useSame, useSteady } from '../../services/words/steady'
import { BarTools, barsInWords } from './BarTools'
import { ChartsMenu } from './ChartsMenu'
import { ImportDialog } from './ImportDialog'
import { KeyAndCapo, NumeralsControl, SHOWN, ShownControl, type SkeletonShown } from './ChartTools'
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
  const names = useSame(
    chartsOf(document).map((one) => one.name),
    sameNames,
  )
  const keyNow = useSame(analysis.key, sameKey)
  const onTranspose = useSteady((to: string) => session.edit({ kind: 'transpose', to }))
  const onCapo = useSteady((fret: number) =>
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
    <Bar label="The chart">
      <Word name="Chart" term="chart" says={names[document.at] ?? ''}>
        <ChartsMenu names={names} at={document.at} onEdit={session.edit} />
      </Word>
      {chart.bars.length > 0 && (
        <>
          <Word name="Shown" term="skeleton" says={SHOWN.find(({ value }) => value === shown)!.label}>
            <ShownControl shown={shown} onShown={onShown} />
          </Word>
          <NumeralsControl />
          <KeyAndCapo keyNow={keyNow} capo={chart.capo} onTranspose={onTranspose} onCapo={onCapo} />
        </>
      )}
      {shown === 0 && (
        <Word name="Bars" says={chart.bars.length === 0 ? 'none yet' : selected}>
          <BarTools
            from={first}
            to={last}
            empty={chart.bars.length === 0}
            canPaste={editing.canPaste}
            says={editing.says}
            onAct={editing.act}
          />
        </Word>
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
      <Word name="Signs" says="of the text">
        <Signs />
      </Word>
      {bringing && (
        <ImportDialog
          onClose={() => setBringing(false)}
          onBringIn={({ text, lyrics, grips }) =>
            session.edit({ kind: 'bring-in', text, lyrics, drawn: grips, did: 'chords brought in' })
          }
        />
      )}
    </Bar>
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
