import { withSetting } from '../../../core/chart/edit'
import { sameKey } from '../../../core/analysis/localKeys'
import { type TuneDocument } from '../../../core/tune/document'
import type { TuneSession } from '../tune/session'
import { useSame, useSteady } from '../workspace/steady'
import type { TuneReading } from '../../../core/tune/reading'
import { BarTools } from './BarTools'
import { ChartEditor } from './ChartEditor'
import { ChartsMenu } from './ChartsMenu'
import { ChartTools, type Shown } from './ChartTools'
import { FormLine } from './FormLine'
import type { ChartEditing } from './useChartEditing'
import { chartsOf } from '../../../core/tune/edits/chart'

interface Props {
  document: TuneDocument
  session: TuneSession
  reading: TuneReading
  editing: ChartEditing
  shown: Shown
  onShown: (shown: Shown) => void
}

const sameNames = (a: readonly string[], b: readonly string[]) => a.join('\n') === b.join('\n')

/** What stands over the systems on the Chart step: the text, what it says in words, and the tools. Redrawn at every key press, so its parts are handed only what concerns them. */
export function ChartStep({ document, session, reading, editing, shown, onShown }: Props) {
  const { chart, analysis } = reading
  const names = useSame(chartsOf(document).map((one) => one.name), sameNames)
  const keyNow = useSame(analysis.key, sameKey)
  const onText = useSteady((text: string) => session.edit({ kind: 'text', text }))
  const onStep = useSteady((direction: 'undo' | 'redo') => void session.step(direction))
  const onLeave = useSteady(() => void session.flush())
  const onTranspose = useSteady((to: string) => session.edit({ kind: 'transpose', to }))
  const onCapo = useSteady((fret: number) => session.edit({ kind: 'bars', text: withSetting(document.text, 'capo', fret === 0 ? null : String(fret)), did: fret === 0 ? 'no capo' : `capo ${fret}` }))
  const [from, to] = editing.bars ?? []
  const numberAt = (index: number | undefined) => (index === undefined ? null : (chart.bars[index]?.number ?? null))
  return (
    <>
      <ChartEditor text={document.text} reading={reading} head={<ChartsMenu names={names} at={document.at} onEdit={session.edit} />} onText={onText} onLeave={onLeave} onStep={onStep} />
      <FormLine reading={reading} />
      {chart.bars.length > 0 && <ChartTools keyNow={keyNow} capo={chart.capo} shown={shown} onShown={onShown} onTranspose={onTranspose} onCapo={onCapo} />}
      {shown === 0 && <BarTools from={numberAt(from)} to={numberAt(to)} empty={chart.bars.length === 0} canPaste={editing.canPaste} says={editing.says} onAct={editing.act} />}
    </>
  )
}
