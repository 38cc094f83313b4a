import Button from '@mui/material/Button'
import { data, Link } from 'react-router'
import { slotKey } from '../../core/chart/chart'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { ChordName, engraved, keyInWords } from '../features/notation/ChordName'
import { GripDiagram } from '../features/notation/GripDiagram'
import { scoreOf } from '../features/sheet/score'
import type { Route } from './+types/sheet'

export function loader({ params }: Route.LoaderArgs) {
  const state = readTune(database(), params.tuneId)
  if (!state) throw data('This tune is not in the songbook.', 404)
  return state
}

export const meta: Route.MetaFunction = ({ loaderData }) => [{ title: `${loaderData?.document.title ?? 'Tune'} · sheet` }]

/** The page for the music stand: symbols, numerals, grips, four bars to a line. */
export default function SheetPage({ loaderData: { id, document } }: Route.ComponentProps) {
  const { reading, chords, chart, key, tempo } = scoreOf(document)
  const byKey = new Map(reading.chords.map((chord) => [chord.key, chord]))
  return (
    <main className="sheet">
      <nav className="sheet-tools">
        <Link to={`/tunes/${id}/lines`}>Back to the tune</Link>
        <Button onClick={() => window.print()}>Print</Button>
        <Button component="a" href={`/tunes/${id}/musicxml`} download>MusicXML</Button>
      </nav>
      <header>
        <h1>{document.title}</h1>
        <p>{keyInWords(key)} · {chart.meter.beats}/{chart.meter.unit} · {tempo} beats a minute</p>
      </header>
      {chart.bars.length === 0 && <p>There are no bars yet. Type a chart first.</p>}
      <div className="sheet-bars">
        {chart.bars.map((bar) => (
          <section className="sheet-bar" key={bar.number} aria-label={`Bar ${bar.number}`}>
            <span className="bar-number">{bar.opensSection && <b className="section-letter">{bar.section}</b>}{bar.number}</span>
            <div className="slots">
              {bar.slots.map((slot) => {
                const written = chords.get(slotKey(slot))
                const reads = byKey.get(slotKey(slot))?.reading
                return (
                  <div className="slot" key={slot.beat} style={{ flexGrow: slot.beats }}>
                    {written ? <ChordName chord={written.chord} /> : <span className="silence">{slot.text}</span>}
                    {reads && slot.symbol?.kind === 'chord' && <span className="sheet-home"><ChordName chord={slot.symbol.chord} /> {engraved(reads.roman)}</span>}
                    {written?.voicing && <GripDiagram voicing={written.voicing} scale={1.35} />}
                  </div>
                )
              })}
            </div>
          </section>
        ))}
      </div>
      <footer>Large: what the guitar plays. Small: the chord of the band, with its numeral in {keyInWords(key)}.</footer>
    </main>
  )
}
