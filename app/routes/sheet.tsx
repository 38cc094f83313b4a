import Button from '@mui/material/Button'
import { data, Link } from 'react-router'
import { Fragment, useMemo, type CSSProperties } from 'react'
import { meterName, placeName, slotKey } from '../../core/chart/chart'
import { isStandard } from '../../core/neck/otherInstrument'
import { midi } from '../../core/pitch/note'
import { STRAIGHT } from '../../core/rhythm/swing'
import { accompanied, isAccompanied, swingOf } from '../../core/tune/accompaniment'
import { keyAbove } from '../../core/chart/transpose'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { BarHead, barLines } from '../services/notation/BarHead'
import { ChordName, engraved, keyInWords } from '../services/notation/ChordName'
import { FigureLine } from '../services/notation/FigureLine'
import { GripDiagram } from '../services/notation/GripDiagram'
import { usePlayerSettings } from '../services/player/PlayerContext'
import { useNumerals } from '../services/notation/numerals'
import { scoreOf } from '../../core/tune/score'
import { SheetMelody } from '../steps/sheet/SheetMelody'
import { useEveryGrip } from '../steps/sheet/useEveryGrip'
import { lineChordUnder } from '../../core/tune/decisions'
import { groupedBy } from '../../core/tune/grouped'
import { columnsOf, systemsOf } from '../services/notation/layout'
import { plainChord, shapeUnderCapo } from '../../core/tune/reading'
import type { Route } from './+types/sheet'

export function loader({ params }: Route.LoaderArgs) {
  const state = readTune(database(), params.tuneId)
  if (!state) throw data('This tune is not in the songbook.', 404)
  return state
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.document.title ?? 'Tune'} · sheet` },
]

const FORMAT_NAMES = { musicxml: 'MusicXML', midi: 'MIDI', abc: 'ABC' } as const

/** The page for the music stand: symbols, numerals, grips, four bars to a line. */
export default function SheetPage({ loaderData: { id, revision, document: asKept } }: Route.ComponentProps) {
  const {
    settings: { instrument, hand },
  } = usePlayerSettings()
  const body = useMemo(() => ({ instrument, hand }), [instrument, hand])
  const { school } = useNumerals()
  const { document, state, stop, again } = useEveryGrip(id, revision, asKept, body)
  const {
    reading,
    chords,
    chart,
    key,
    tempo,
    melody = [],
    chordMelody = [],
  } = useMemo(() => scoreOf(document, body, school), [document, body, school])
  const swings = isAccompanied(document.rhythm) && swingOf(document.rhythm, tempo, chart.meter) > STRAIGHT
  const { rhythm } = document
  const struck = useMemo(
    () =>
      rhythm.figure === null && Object.keys(rhythm.byHand).length === 0
        ? []
        : accompanied({ reading, document, which: 'new', grips: new Map(), order: 'written' }).hits,
    [reading, document, rhythm],
  )
  const figureName = typeof rhythm.figure === 'string' ? rhythm.figure : 'by hand'
  const elsewhere = reading.line.filter((one) => one.elsewhere)
  const shapeOf = shapeUnderCapo(chart, key)
  // Under each chord of the new line stand the chords of the home line that begin while it sounds.
  const homes = groupedBy(reading.chords, (chord) => lineChordUnder(reading.line, chord.index)?.key)
  return (
    <main className="sheet">
      <nav className="sheet-tools">
        <Link to={`/tunes/${id}/lines`}>Back to the tune</Link>
        <Button onClick={() => window.print()}>Print</Button>
        {(['musicxml', 'midi', 'abc'] as const).map((format) => (
          <Button key={format} component="a" href={`/tunes/${id}/file/${format}`} download>
            {FORMAT_NAMES[format]}
          </Button>
        ))}
        {isAccompanied(document.rhythm) &&
          (['musicxml', 'abc'] as const).map((format) => (
            <Button key={format} component="a" href={`/tunes/${id}/file/${format}?voices`} download>
              {FORMAT_NAMES[format]}, voices
            </Button>
          ))}
        {swings && (
          <Button component="a" href={`/tunes/${id}/file/midi?swung`} download>
            MIDI, swung
          </Button>
        )}
      </nav>
      <header>
        <h1>{document.title}</h1>
        <p>
          {keyInWords(key)} · {meterName(chart.meter)} · {tempo} beats a minute
          {struck.length > 0 && ` · ${figureName}`}
          {chart.capo > 0 && ` · capo ${chart.capo}, played in ${keyInWords(keyAbove(key, -chart.capo))}`}
          {!isStandard(instrument.tuning.map(midi)) &&
            ` · strings ${engraved(instrument.tuning.map((open) => open.replace(/\d/, '')).join(' '))}, from the lowest`}
        </p>
      </header>
      {chart.bars.length === 0 && <p>There are no bars yet. Type a chart first.</p>}
      {state.kind === 'searching' && (
        <p className="sheet-state" role="status">
          Finding grips for the chords that have none{' '}
          <Button size="small" onClick={stop}>
            Stop
          </Button>
        </p>
      )}
      {state.kind === 'stopped' && (
        <p className="sheet-state" role="status">
          Stopped: some chords have no grip.{' '}
          <Button size="small" onClick={again}>
            Find them
          </Button>
        </p>
      )}
      {state.kind === 'fault' && (
        <p className="fault" role="alert">
          Some chords have no grip: {state.message}
        </p>
      )}
      {systemsOf(chart.bars).map((system) => (
        <Fragment key={system.bars[0]!.number}>
          {struck.length > 0 && (
            <div className="sheet-figure" role="img" aria-label={`Rhythm: ${figureName}`}>
              <FigureLine system={system} hits={struck} melody={[]} />
            </div>
          )}
          <div className="sheet-bars" style={{ '--columns': columnsOf(system) } as CSSProperties}>
            {system.bars.map((bar) => (
              <section
                className={`sheet-bar ${barLines(bar)}`}
                key={bar.number}
                aria-label={bar.number === 0 ? 'Pickup' : `Bar ${bar.number}`}
              >
                <BarHead bar={bar} />
                <div className="slots">
                  {bar.slots.map((slot) => {
                    const written = chords.get(slotKey(slot))
                    const shape = written && shapeOf(written.chord)
                    return (
                      <div className="slot" key={slot.beat} style={{ flexGrow: slot.beats }}>
                        {written ? (
                          <ChordName chord={written.chord} />
                        ) : (
                          <span className="silence">{slot.text}</span>
                        )}
                        {shape && (
                          <span className="played-as">
                            as <ChordName chord={shape} />
                          </span>
                        )}
                        {homes.get(slotKey(slot))?.map((home) => {
                          const plain = plainChord(home)
                          return (
                            plain && (
                              <span className="sheet-home" key={home.key}>
                                <ChordName chord={plain} /> {engraved(home.reading!.roman)}
                              </span>
                            )
                          )
                        })}
                        {written?.voicing && (
                          <GripDiagram voicing={written.voicing} capo={chart.capo} scale={1.35} />
                        )}
                      </div>
                    )
                  })}
                </div>
              </section>
            ))}
          </div>
        </Fragment>
      ))}
      {melody.length > 0 && (
        <SheetMelody
          chart={reading.chart}
          songKey={key}
          melody={melody}
          made={chordMelody}
          strings={instrument.tuning.length}
        />
      )}
      {elsewhere.length > 0 && (
        <p className="quiet">
          The {elsewhere.length === 1 ? 'grip' : 'grips'} you chose at{' '}
          {elsewhere.map(({ slot }) => placeName(slot)).join('; ')} {elsewhere.length === 1 ? 'is' : 'are'}{' '}
          for other open strings and cannot be played on these: what is printed there is another. Yours{' '}
          {elsewhere.length === 1 ? 'is' : 'are'} kept.
        </p>
      )}
      <footer>
        Large: what the guitar plays. Small: the chord of the band, with its numeral in {keyInWords(key)}.
      </footer>
    </main>
  )
}
