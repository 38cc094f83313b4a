import type { Key } from '../../../core/pitch/key'
import type { Voicing } from '../../../core/voicing/voicing'
import type { NearGrip, Related, SearchReply } from '../../../workers/messages'
import type { LineChord } from '../tune/decisions'
import type { TuneDocument, TuneEdit } from '../tune/document'
import { madeChord } from '../workspace/useTuneReading'
import { ConditionsPanel } from './ConditionsPanel'
import { GripDrawer } from './GripDrawer'
import { PulledPanel } from './PulledPanel'
import { hasRoom, type usePulledActs } from './usePulledActs'
import type { usePulling } from './usePulling'
import { WaysOn } from './WaysOn'

interface Props {
  document: Pick<TuneDocument, 'conditions'>
  line: readonly LineChord[]
  focus: LineChord
  next: LineChord | undefined
  /** First and last selected chord. */
  range: readonly [number, number]
  voicings: ReadonlyMap<string, Voicing>
  near: NearGrip[] | null
  related: Related | null
  between: Extract<SearchReply, { kind: 'between' }> | null
  pulling: ReturnType<typeof usePulling>
  acts: ReturnType<typeof usePulledActs>
  capo: number
  strings: number
  songKey: Key
  onEdit: (edit: TuneEdit) => void
  onFix: (voicing: Voicing | null) => void
  onHear: (midis: readonly number[]) => void
}

/** What the drawer says of a chord of the line: the pulled note, its grip and others, what is asked of it, and how it goes on. */
export function LinesDrawer({ document, line, focus, next, range, voicings, near, related, between, pulling, acts, capo, strings, songKey, onEdit, onFix, onHear }: Props) {
  const grip = voicings.get(focus.key)
  return (
    <>
      {pulling.shown && (
        <PulledPanel
          pulled={pulling.shown} canName={focus.decision?.span === 1 && focus.decision.puts.length === 1} onKeep={acts.keep} onName={acts.name}
          onCarry={next ? acts.carry : null} onLetGo={pulling.letGo}
        />
      )}
      <GripDrawer key={focus.key} chord={focus} voicing={grip} grips={near} related={related} capo={capo} songKey={songKey} onFix={onFix} onKeep={(voicing) => keepInBook(voicing, madeChord(focus)!.canonical)} onHear={({ midis }) => onHear(midis)} />
      <ConditionsPanel
        conditions={document.conditions} from={line[range[0]]!} to={line[range[1]]!} grip={grip ?? null} strings={strings}
        taken={pulling.taken?.string ?? null} onAdd={(condition) => onEdit({ kind: 'condition-add', condition })} onRemove={(at) => onEdit({ kind: 'condition-remove', at })}
      />
      {next && grip && (
        <WaysOn
          found={between} capo={capo} now={voicings.get(next.key)?.frets.join() ?? ''} room={{ 'end of first': hasRoom(focus, line), 'beginning of second': hasRoom(next, line) }}
          onTake={(way) => {
            onEdit({ kind: 'fix-many', grips: { [focus.key]: [...grip.frets], [next.key]: [...way.voicing.frets] }, did: `way on from bar ${focus.slot.bar}` })
            onHear(way.voicing.midis)
          }}
          onHear={(stop) => onHear(stop.voicing.midis)} onStop={(stop) => acts.stopOnTheWay(focus, stop)}
        />
      )}
    </>
  )
}

/** The grip book takes it behind the screen; what it answers is seen there. */
function keepInBook(voicing: Voicing, symbol: string): void {
  const form = new FormData()
  for (const [name, value] of Object.entries({ intent: 'keep', symbol, frets: JSON.stringify(voicing.frets), tags: '', note: '' })) form.set(name, value)
  void fetch('/grips', { method: 'POST', body: form, keepalive: true }).catch(() => null)
}
