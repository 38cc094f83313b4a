import type { ImportedTune } from '../../../core/formats/readTune'
import type { Key } from '../../../core/pitch/key'
import { Neck, marksOfGrip } from '../notation/Neck'
import { usePlayerSettings } from '../player/PlayerContext'
import type { TuneDocument } from '../../../core/tune/document'
import { BlocksTab } from './BlocksTab'
import { BringInDialog } from './BringInDialog'
import { ElsewhereTab } from './ElsewhereTab'
import { EndsTab } from './EndsTab'
import { MelodyPanel } from './MelodyPanel'
import { UnderTab } from './UnderTab'
import type { MelodyStepState } from './useMelodyStep'
import { WriteTab } from './WriteTab'
import type { TuneEdit } from '../../../core/tune/edit'

interface Props {
  state: MelodyStepState
  document: TuneDocument
  songKey: Key
  capo: number
  onEdit: (edit: TuneEdit) => void
  onHear: (midis: readonly number[]) => void
}

/** Frets of the neck that is touched. */
const MOST_FRETS = 17

/** The head of the Melody step. */
export function MelodyStep({ state, document, songKey, capo, onEdit, onHear }: Props) {
  const { view, writing } = state
  const { settings: { instrument, hand } } = usePlayerSettings()
  const event = view.events.find(({ key }) => key === view.selected)
  const bringIn = ({ text, melody }: ImportedTune, withChords: boolean) =>
    onEdit(withChords ? { kind: 'bring-in', text, melody, did: 'tune brought in' } : { kind: 'melody', melody, did: `${melody.length} notes brought in` })
  return (
    <MelodyPanel tab={state.tab} onTab={state.setTab} threads={state.threads} onThreads={state.setThreads}>
      {state.tab === 'write' && <WriteTab view={view} writing={writing} onPen={state.takeUpPen} playing={state.playing} limits={state.limits} neck={state.neck} onNeck={state.setNeck} onBringIn={() => state.setBringIn(true)} />}
      {state.tab === 'under' && <UnderTab document={document} view={view} onEdit={onEdit} />}
      {state.tab === 'elsewhere' && <ElsewhereTab document={document} notes={view.notes} asked={view.asked} onEdit={onEdit} onHear={state.hearLine} />}
      {state.tab === 'blocks' && <BlocksTab view={view} text={document.text} songKey={songKey} capo={capo} body={{ instrument, hand }} onEdit={onEdit} onHear={onHear} />}
      {state.tab === 'ends' && <EndsTab text={document.text} songKey={songKey} onEdit={onEdit} onHear={state.hearChords} />}
      {state.tab === 'write' && state.neck && (
        <Neck
          strings={instrument.tuning.length} frets={Math.min(instrument.frets, MOST_FRETS)} marks={event ? marksOfGrip(event.made.voicing.frets, (string) => event.made.voicing.strings.find((one) => one.string === string)?.degree ?? '') : []}
          onTouch={state.putFret} label="Touch the neck to put a note in"
        />
      )}
      {state.bringIn && <BringInDialog onClose={() => state.setBringIn(false)} onBringIn={bringIn} title={document.title} chart={view.chart} notes={view.notes} songKey={songKey} tempo={document.tempo} />}
    </MelodyPanel>
  )
}
