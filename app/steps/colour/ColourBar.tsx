import { useDeferredValue, useMemo, useState } from 'react'
import type { Decision } from '../../../core/tune/decisions'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneEdit } from '../../../core/tune/tuneEdit'
import type { TuneReading } from '../../../core/tune/tuneReading'
import { tuneFarInWords } from '../../../core/reharm/howFar'
import { tuneFarGone } from '../../../core/tune/decisions'
import { ControlBar, BarWord } from '../../services/controls/ControlBar'
import { withSetting } from '../../../core/chart/editBars'
import { ColourControl } from './ColourControl'
import { IdiomWord } from './IdiomWord'
import { CommonPanel, NO_THREAD, threadInWords, type CommonAsked } from './CommonPanel'
import { usePlayerSettings } from '../../services/player/PlayerContext'
import { FarControl, type JointBody, type WayBeside } from './FarControl'
import { JudgedPanel } from './JudgedPanel'
import { judgedLine } from './judged'
import { TastePanel } from './TastePanel'
import { TrailPanel } from './TrailPanel'
import { VersionsPanel } from './VersionsPanel'

const opinionInWords = ({ faults }: { faults: readonly unknown[] }): string => {
  if (faults.length === 0) return 'nothing against it'
  return faults.length === 1 ? 'one remark' : `${faults.length} remarks`
}

/** Rules on one another, as the bar says it. */
const DEPTH_SAYS = ['one rule', 'two rules', 'three rules'] as const

interface Props {
  document: TuneDocument
  reading: TuneReading
  /** First and last selected chord of the home line. */
  range: readonly [number, number]
  beside: string | null
  onBeside: (name: string | null) => void
  /** A way that is not taken yet is shown beside the new line, and heard in turn with it. */
  onBesideWay: (way: WayBeside | null) => void
  onEdit: (edit: TuneEdit) => void
  /** What grips keep to where they are chosen together with the chords. */
  joint: JointBody
  onLiftOut: (decision: Decision) => void
  onSelect: (index: number) => void
  /** Leads to the page with every change and its reason. */
  onReasons: (version?: string) => void
}

/** How coloured, how far, and what was made so far. */
export function ColourBar({
  document,
  reading,
  range,
  beside,
  onBeside,
  onBesideWay,
  onEdit,
  joint,
  onLiftOut,
  onSelect,
  onReasons,
}: Props) {
  const { chart, analysis, chords, decisions } = reading
  const [thread, setThread] = useState<CommonAsked>(NO_THREAD)
  const {
    settings: { taste, depth },
  } = usePlayerSettings()
  const chosen = decisions.filter(({ by }) => by !== 'control')
  const byHand = chosen.filter(({ by }) => by === 'hand').length
  const { text, melody } = document
  // It follows a moment behind what is touched.
  const deferred = useDeferredValue(useMemo(() => ({ text, melody, reading }), [text, melody, reading]))
  const judged = useMemo(
    () =>
      deferred.reading.decisions.some(({ rule }) => rule !== 'plain')
        ? judgedLine(deferred, deferred.reading)
        : null,
    [deferred],
  )
  const far = chosen.length > 0 ? tuneFarInWords(tuneFarGone(chart, analysis, decisions)) : 'not yet'
  return (
    <ControlBar label="Colour and changes">
      <ColourControl
        value={document.colour}
        byHand={byHand}
        onChange={(colour) => onEdit({ kind: 'colour', colour })}
      />
      {chords.length > 0 && (
        <IdiomWord
          idiom={analysis.idiom}
          set={chart.idiom}
          onSet={(idiom) =>
            onEdit({
              kind: 'bars',
              text: withSetting(document.text, 'idiom', idiom),
              did: idiom ? `idiom ${idiom}` : 'idiom as the chords say',
            })
          }
        />
      )}
      {chords.length > 0 && (
        <BarWord name="Take me further" term="way" says={far} keeps>
          <FarControl
            document={document}
            reading={reading}
            stretch={range[0] === range[1] ? null : range}
            joint={joint}
            onEdit={onEdit}
            beside={beside}
            onBesideWay={onBesideWay}
          />
        </BarWord>
      )}
      {judged && (
        <BarWord name="Second opinion" term="second-opinion" says={opinionInWords(judged)}>
          <JudgedPanel
            document={document}
            reading={reading}
            judged={judged}
            onEdit={onEdit}
            onSelect={onSelect}
          />
        </BarWord>
      )}
      <BarWord name="Trail" term="trail" says={chosen.length === 0 ? 'nothing yet' : chosen.length}>
        <TrailPanel reading={reading} onLiftOut={onLiftOut} onSelect={onSelect} />
      </BarWord>
      <BarWord
        name="Versions"
        term="version"
        says={document.versions.length === 0 ? 'none kept' : (beside ?? document.versions.length)}
      >
        <VersionsPanel
          document={document}
          reading={reading}
          beside={beside}
          onBeside={onBeside}
          onEdit={onEdit}
          onReasons={onReasons}
          range={range}
        />
      </BarWord>
      <BarWord name="Thread" term="held-note" says={threadInWords(thread)}>
        <CommonPanel
          wanted={thread}
          onWanted={setThread}
          document={document}
          chords={chords}
          range={range}
          onEdit={onEdit}
        />
      </BarWord>
      <BarWord name="Taste" term="taste" says={`${tuneFarInWords(taste.far)}, ${DEPTH_SAYS[depth - 1]}`}>
        <TastePanel />
      </BarWord>
      {decisions.some(({ rule }) => rule !== 'plain') && (
        <button type="button" className="tool" onClick={() => onReasons()}>
          All reasons
        </button>
      )}
    </ControlBar>
  )
}
