import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import type { Put } from '../../../core/reharm/change'
import { distanceFrom } from '../../../core/reharm/distance'
import { MOST_VERSIONS, type TuneDocument, type TuneEdit } from '../tune/document'
import { readingWith, type TuneReading } from '../workspace/useTuneReading'

interface Props {
  document: TuneDocument
  reading: TuneReading
  /** The version shown beside the new line. */
  beside: string | null
  onBeside: (name: string | null) => void
  onEdit: (edit: TuneEdit) => void
  /** Leads to the page of reasons of a version. */
  onReasons: (version: string) => void
}

const WHEN = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })

/** What was made of the chart, kept under names: to be shown beside the new line, heard in turn with it, or taken up again. */
export function VersionsPanel({ document, reading, beside, onBeside, onEdit, onReasons }: Props) {
  const [name, setName] = useState('')
  const wanted = name.trim()
  const replaces = document.versions.some((one) => one.name === wanted)
  const full = document.versions.length >= MOST_VERSIONS && !replaces
  const keep = () => {
    if (!wanted || full) return
    onEdit({ kind: 'version-keep', name: wanted, at: Date.now() })
    setName('')
  }
  return (
    <section className="panel" aria-label="Versions">
      <form className="version-keep" onSubmit={(event) => { event.preventDefault(); keep() }}>
        <TextField label="Keep what stands now as" value={name} size="small" slotProps={{ htmlInput: { maxLength: 40 } }} onChange={(event) => setName(event.target.value)} />
        <Button type="submit" disabled={!wanted || full}>{replaces ? 'Keep in its place' : 'Keep'}</Button>
        {full && <span className="fault">A chart keeps at most {MOST_VERSIONS} versions: let one go first.</span>}
      </form>
      <table className="trail">
        <tbody>
          <tr><th scope="row">Now</th><td>{inNumbers(reading)}</td><td /><td /></tr>
          {document.versions.map((version) => (
            <tr key={version.name}>
              <th scope="row">{version.name}</th>
              <td>{inNumbers(readingWith(reading, version))}</td>
              <td className="quiet">{version.at > 0 ? WHEN.format(version.at) : ''}</td>
              <td className="row-tools">
                <Button size="small" aria-pressed={beside === version.name} onClick={() => onBeside(beside === version.name ? null : version.name)}>{beside === version.name ? 'Put away' : 'Show beside'}</Button>
                <Button size="small" onClick={() => onReasons(version.name)}>Reasons</Button>
                <Button size="small" onClick={() => onEdit({ kind: 'version-take', name: version.name })}>Take up</Button>
                <Button size="small" onClick={() => { if (beside === version.name) onBeside(null); onEdit({ kind: 'version-remove', name: version.name }) }}>Let go</Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

/** What was chosen, how many chords there are, and how far they lie from home on average. */
function inNumbers({ chords, decisions, line }: TuneReading): string {
  const chosen = decisions.filter(({ by }) => by !== 'control').length
  const beatsOf = (puts: readonly Put[]) => puts.reduce((sum, { beats }) => sum + beats, 0)
  const beats = decisions.reduce((sum, { puts }) => sum + beatsOf(puts), 0)
  const far = decisions.reduce((sum, { index, puts }) => sum + distanceFrom(puts, chords[index]!.reading!.key).total * beatsOf(puts), 0)
  return `${chosen} chosen, ${line.filter(({ decision }) => decision).length} chords for ${chords.filter(({ reading }) => reading).length}, ${(beats > 0 ? far / beats : 0).toFixed(2)} from home`
}
