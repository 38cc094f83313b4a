import { pitchAt, pitchName } from '../../../core/pitch/note'
import { stringNumber } from '../../../core/neck/instrument'
import { engravedWords } from '../../../core/chord/engraved'
import type { Key } from '../../../core/pitch/key'
import type { Voicing } from '../../../core/voicing/voicing'
import type { Between, NearGrip, Related } from '../../../workers/searchQuestions'
import type { KnownBook } from '../../services/grips/book'
import type { LineChord } from '../../../core/tune/decisions'
import type { TuneDocument } from '../../../core/tune/document'
import { ConditionsPanel } from './ConditionsPanel'
import { GripDrawer } from './GripDrawer'
import { PulledPanel } from './PulledPanel'
import { hasRoom, type usePulledActs } from './usePulledActs'
import type { usePulling } from './usePulling'
import { WaysOn } from './WaysOn'
import type { TuneEdit } from '../../../core/tune/edit'

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
  pulling: ReturnType<typeof usePulling>
  acts: ReturnType<typeof usePulledActs>
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

/** What the drawer says of a chord of the line: the pulled note, its grip and others, what is asked of it, and how it goes on. */
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
        key={focus.key}
        chord={focus}
        voicing={grip}
        grips={near}
        related={related}
        capo={capo}
        songKey={songKey}
        onFix={onFix}
        book={book}
        onCall={(called) => grip && onEdit({ kind: 'fix', slot: focus.key, frets: [...grip.frets], called })}
        onHear={({ midis }) => onHear(midis)}
      />
      <ConditionsPanel
        conditions={document.conditions}
        from={line[range[0]]!}
        to={line[range[1]]!}
        grip={grip ?? null}
        strings={strings}
        songKey={songKey}
        taken={pulling.taken?.string ?? null}
        onAdd={(condition) => onEdit({ kind: 'condition-add', condition })}
        onRemove={(at) => onEdit({ kind: 'condition-remove', at })}
      />
      {next && grip && (
        <WaysOn
          found={between}
          capo={capo}
          now={voicings.get(next.key)?.frets.join() ?? ''}
          room={{ 'end of first': hasRoom(focus, line), 'beginning of second': hasRoom(next, line) }}
          onTake={(way) => {
            onEdit({
              kind: 'fix-many',
              grips: { [focus.key]: [...grip.frets], [next.key]: [...way.voicing.frets] },
              did: `way on from bar ${focus.slot.bar}`,
            })
            onHear(way.voicing.midis)
          }}
          onHear={(stop) => onHear(stop.voicing.midis)}
          onStop={(stop) => acts.stopOnTheWay(focus, stop)}
        />
      )}
    </>
  )
}
