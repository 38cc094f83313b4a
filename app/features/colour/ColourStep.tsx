import Button from '@mui/material/Button'
import { useState } from 'react'
import { rangeOf, type Selection } from '../workspace/selection'
import type { Decision } from '../../../core/tune/decisions'
import type { TuneDocument } from '../../../core/tune/document'
import type { TuneReading } from '../../../core/tune/reading'
import { ColourControl } from './ColourControl'
import { CommonPanel } from './CommonPanel'
import { FarControl, type JointBody } from './FarControl'
import { TastePanel } from './TastePanel'
import { TrailPanel } from './TrailPanel'
import { VersionsPanel } from './VersionsPanel'
import type { TuneEdit } from '../../../core/tune/edit'

type Panel = 'trail' | 'versions' | 'common' | 'taste'

interface Props {
  document: TuneDocument
  reading: TuneReading
  selection: Selection
  beside: string | null
  onBeside: (name: string | null) => void
  onEdit: (edit: TuneEdit) => void
  /** What grips keep to where they are chosen together with the chords. */
  joint: JointBody
  onLiftOut: (decision: Decision) => void
  onSelect: (index: number) => void
  /** Leads to the page with every change and its reason. */
  onReasons: (version?: string) => void
}

/** The controls of the Colour step: how coloured, how far, and what was made so far. */
export function ColourStep({ document, reading, selection, beside, onBeside, onEdit, joint, onLiftOut, onSelect, onReasons }: Props) {
  const [panel, setPanel] = useState<Panel | null>(null)
  const { chords, decisions } = reading
  const range = rangeOf(selection)
  const chosen = decisions.filter(({ by }) => by !== 'control').length
  const byHand = decisions.filter(({ by }) => by === 'hand').length
  const labels: Readonly<Record<Panel, string>> = {
    trail: `Trail (${chosen})`, versions: `Versions (${document.versions.length})`, common: 'Held note, bass line', taste: 'Taste',
  }
  return (
    <>
      <div className="colour-controls">
        <ColourControl value={document.colour} byHand={byHand} onChange={(colour) => onEdit({ kind: 'colour', colour })} />
        {chords.length > 0 && <FarControl document={document} reading={reading} stretch={range[0] === range[1] ? null : range} joint={joint} onEdit={onEdit} />}
      </div>
      <div className="panel-tabs">
        {(Object.keys(labels) as Panel[]).map((one) => (
          <Button key={one} size="small" aria-expanded={panel === one} onClick={() => setPanel(panel === one ? null : one)}>{labels[one]}</Button>
        ))}
        {decisions.some(({ rule }) => rule !== 'plain') && <Button size="small" onClick={() => onReasons()}>All reasons on a page</Button>}
      </div>
      {panel === 'trail' && <TrailPanel reading={reading} onLiftOut={onLiftOut} onSelect={onSelect} />}
      {panel === 'versions' && <VersionsPanel document={document} reading={reading} beside={beside} onBeside={onBeside} onEdit={onEdit} onReasons={onReasons} />}
      {panel === 'common' && <CommonPanel document={document} chords={chords} range={range} onEdit={onEdit} />}
      {panel === 'taste' && <TastePanel />}
    </>
  )
}
