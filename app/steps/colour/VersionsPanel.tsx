import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useState } from 'react'
import { barName } from '../../../core/chart/chart'
import { tuneFarInFull } from '../../../core/reharm/howFar'
import { tuneFarGone } from '../../../core/tune/decisions'
import { MOST_VERSIONS, type TuneDocument } from '../../../core/tune/document'
import { readingWith, type TuneReading } from '../../../core/tune/tuneReading'
import { whenInWords } from '../../services/words/written'
import type { TuneEdit } from '../../../core/tune/tuneEdit'

interface Props {
  document: TuneDocument
  reading: TuneReading
  /** First and last selected chord of the home line. */
  range: readonly [number, number]
  /** The version shown beside the new line. */
  beside: string | null
  onBeside: (name: string | null) => void
  onEdit: (edit: TuneEdit) => void
  /** Leads to the page of reasons of a version. */
  onReasons: (version: string) => void
}

/**
 * What was made of the chart, kept under names: to be shown beside the new line, heard in turn with
 * it, or taken up again.
 */
export function VersionsPanel({ document, reading, range, beside, onBeside, onEdit, onReasons }: Props) {
  const [name, setName] = useState('')
  const wanted = name.trim()
  const replaces = document.versions.some((one) => one.name === wanted)
  const full = document.versions.length >= MOST_VERSIONS && !replaces
  const bars = barsOf(reading, range)
  const keep = () => {
    if (!wanted || full) return
    onEdit({ kind: 'version-keep', name: wanted, at: Date.now() })
    setName('')
  }
  return (
    <section className="panel" aria-label="Versions">
      <form
        className="version-keep"
        onSubmit={(event) => {
          event.preventDefault()
          keep()
        }}
      >
        <TextField
          label="Keep what stands now as"
          value={name}
          size="small"
          slotProps={{ htmlInput: { maxLength: 40 } }}
          onChange={(event) => setName(event.target.value)}
        />
        <Button type="submit" disabled={!wanted || full}>
          {replaces ? 'Keep in its place' : 'Keep'}
        </Button>
        {full && (
          <span className="fault">A chart keeps at most {MOST_VERSIONS} versions: delete one first.</span>
        )}
      </form>
      <table className="trail">
        <tbody>
          <tr>
            <th scope="row">Now</th>
            <td>{inNumbers(reading)}</td>
            <td />
            <td />
          </tr>
          {document.versions.map((version) => (
            <tr key={version.name}>
              <th scope="row">{version.name}</th>
              <td>{inNumbers(readingWith(reading, version))}</td>
              <td className="quiet">{version.at > 0 ? whenInWords(version.at) : ''}</td>
              <td className="row-tools">
                <Button
                  size="small"
                  aria-pressed={beside === version.name}
                  onClick={() => onBeside(beside === version.name ? null : version.name)}
                >
                  {beside === version.name ? 'Hide' : 'Show beside'}
                </Button>
                <Button size="small" onClick={() => onReasons(version.name)}>
                  Reasons
                </Button>
                <Button size="small" onClick={() => onEdit({ kind: 'version-take', name: version.name })}>
                  Work on this version
                </Button>
                {bars && (
                  <Button
                    size="small"
                    onClick={() =>
                      onEdit({
                        kind: 'version-bars',
                        name: version.name,
                        from: bars.from,
                        to: bars.to,
                        at: Date.now(),
                        did: `${bars.says} of ${version.name}`,
                      })
                    }
                  >
                    Take {bars.says} of it
                  </Button>
                )}
                <Button
                  size="small"
                  onClick={() => {
                    if (beside === version.name) onBeside(null)
                    onEdit({ kind: 'version-remove', name: version.name })
                  }}
                >
                  Delete this version
                </Button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
    </section>
  )
}

/** What was chosen, how many chords there are, and how far they go. */
function inNumbers({ chart, analysis, chords, decisions, line }: TuneReading): string {
  const chosen = decisions.filter(({ by }) => by !== 'control').length
  return `${tuneFarInFull(tuneFarGone(chart, analysis, decisions))}; ${chosen} chosen, ${line.filter(({ decision }) => decision).length} chords for ${chords.filter(({ reading }) => reading).length}`
}

/** The bars in which the selection lies: their first and last chord, and what they are called. */
function barsOf(
  { chords }: TuneReading,
  [first, last]: readonly [number, number],
): { from: number; to: number; says: string } | null {
  const [a, b] = [chords[first]?.slot.bar, chords[last]?.slot.bar]
  if (a === undefined || b === undefined) return null
  return {
    from: chords.findIndex(({ slot }) => slot.bar === a),
    to: chords.findLastIndex(({ slot }) => slot.bar === b),
    says: a === b ? barName(a) : `bars ${a} to ${b}`,
  }
}
