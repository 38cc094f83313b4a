import { itemAt } from '../../../core/lists'
import { useMemo } from 'react'
import { pitchAt, pitchName } from '../../../core/pitch/note'
import { stringNumber } from '../../../core/neck/instrument'
import { engravedWords } from '../../../core/chord/engraved'
import type { Key } from '../../../core/pitch/key'
import type { OnTheWay } from '../../../core/leading/onTheWay'
import type { Voicing } from '../../../core/voicing/voicing'
import type { Between, NearGrip, Related, NextGrip } from '../../../workers/searchQuestions'
import type { KnownBook } from '../../services/grips/book'
import { useStableCallback } from '../../services/words/stable'
import type { LineChord } from '../../../core/tune/decisions'
import type { Condition, TuneDocument } from '../../../core/tune/document'
import { ConditionsPanel } from './ConditionsPanel'
import { GripDrawer } from './GripDrawer'
import { PulledPanel } from './PulledPanel'
import { hasRoom, type PulledActs } from './usePulledActs'
import type { NotePulling } from './usePulling'
import { WaysOn } from './WaysOn'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

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
  between: Between | null
  pulling: NotePulling
  acts: PulledActs
  capo: number
  strings: number
  book: KnownBook
  songKey: Key
  onEdit: (edit: TuneEdit) => void
  onFix: (voicing: Voicing | null) => void
  onHear: (midis: readonly number[]) => void
}

/** What is said when a note is taken hold of. */
export function heldInWords(grip: Voicing, string: number): string {
  const held = grip.strings.find((one) => one.string === string)
  if (!held) return ''
  const name = engravedWords(pitchName(pitchAt(held.midi, held.note)))
  return `Holding ${name}, the ${engravedWords(held.degree)}, on string ${stringNumber(string, grip.frets.length)}. Arrows up and down pull it.`
}

/**
 * What the drawer says of a chord of the line: the pulled note, its grip and others, what is asked
 * of it, and how it goes on.
 */
export function LinesDrawer({
  document,
  line,
  focus,
  next,
  range,
  voicings,
  near,
  related,
  between,
  pulling,
  acts,
  capo,
  strings,
  book,
  songKey,
  onEdit,
  onFix,
  onHear,
}: Props) {
  const grip = voicings.get(focus.key)
  const room = useMemo(
    () => ({ 'end of first': hasRoom(focus, line), 'beginning of second': !!next && hasRoom(next, line) }),
    [focus, next, line],
  )
  // The parts are drawn anew when what they show has changed, each by itself.
  const call = useStableCallback(
    (called: string | null) =>
      grip && onEdit({ kind: 'fix', slot: focus.key, frets: [...grip.frets], called }),
  )
  const hear = useStableCallback(({ midis }: Pick<Voicing, 'midis'>) => onHear(midis))
  const steadyFix = useStableCallback(onFix)
  const add = useStableCallback((condition: Condition) => onEdit({ kind: 'condition-add', condition }))
  const remove = useStableCallback((at: number) => onEdit({ kind: 'condition-remove', at }))
  const takeWay = useStableCallback((way: NextGrip) => {
    if (!next || !grip) return
    onEdit({
      kind: 'fix-many',
      grips: { [focus.key]: [...grip.frets], [next.key]: [...way.voicing.frets] },
      did: `way on from bar ${focus.slot.bar}`,
    })
    onHear(way.voicing.midis)
  })
  const hearStop = useStableCallback((stop: OnTheWay) => onHear(stop.voicing.midis))
  const putStop = useStableCallback((stop: OnTheWay) => acts.stopOnTheWay(focus, stop))
  return (
    <>
      <p className="visually-hidden" aria-live="polite">
        {pulling.taken && grip && heldInWords(grip, pulling.taken.string)}
      </p>
      {pulling.shown && (
        <PulledPanel
          pulled={pulling.shown}
          canName={focus.decision?.span === 1 && focus.decision.puts.length === 1}
          onKeep={acts.keep}
          onName={acts.name}
          onCarry={next ? acts.carry : null}
          onLetGo={pulling.letGo}
        />
      )}
      <GripDrawer
        chord={focus}
        voicing={grip}
        grips={near}
        related={related}
        capo={capo}
        songKey={songKey}
        onFix={steadyFix}
        book={book}
        onCall={call}
        onHear={hear}
      />
      <ConditionsPanel
        conditions={document.conditions}
        from={itemAt(line, range[0])}
        to={itemAt(line, range[1])}
        grip={grip ?? null}
        strings={strings}
        songKey={songKey}
        taken={pulling.taken?.string ?? null}
        onAdd={add}
        onRemove={remove}
      />
      {next && grip && (
        <WaysOn
          found={between}
          capo={capo}
          now={voicings.get(next.key)?.frets.join() ?? ''}
          room={room}
          onTake={takeWay}
          onHear={hearStop}
          onStop={putStop}
        />
      )}
    </>
  )
}
