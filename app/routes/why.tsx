import { firstOf } from '../../core/lists'
import Button from '@mui/material/Button'
import { data, Link } from 'react-router'
import { placeName } from '../../core/chart/chart'
import { farInFull } from '../../core/reharm/howFar'
import { readTune } from '../../db/tunes'
import { database } from '../database.server'
import { howFarGone } from '../../core/tune/decisions'
import { asVersion } from '../../core/tune/versions'
import { reasonsOf } from '../../core/tune/reasons'
import { ChordName } from '../services/notation/ChordName'
import { engraved, engravedWords, keyInWords } from '../../core/chord/engraved'
import { useNumerals } from '../services/notation/numeralCookie'
import { plainChord, readTuneDocument } from '../../core/tune/tuneReading'
import { PlacesMenu } from '../theme/Places'
import type { Route } from './+types/why'

export function loader({ params, request }: Route.LoaderArgs) {
  const state = readTune(database(), params.tuneId)
  if (!state) throw data('This tune is not in the songbook.', 404)
  const name = new URL(request.url).searchParams.get('version')
  const document = name === null ? state.document : asVersion(state.document, name)
  if (!document) throw data('This version is not kept with the tune any more.', 404)
  return { ...state, version: name, document }
}

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.document.title ?? 'Tune'} · reasons` },
]

/** A page to print: every chord that was changed, what it became, and why. */
export default function WhyPage({ loaderData: { id, document, version } }: Route.ComponentProps) {
  const reading = readTuneDocument(document, useNumerals().school)
  const reasons = reasonsOf(reading)
  return (
    <main className="sheet">
      <div className="sheet-tools">
        <PlacesMenu />
        <Link to={`/tunes/${id}/colour`}>Back to the tune</Link>
        <Button onClick={() => window.print()}>Print</Button>
      </div>
      <header>
        <h1>{document.title}</h1>
        <p>
          {version && `${version} · `}
          {document.others.length > 0 && `${document.chart} · `}
          {keyInWords(reading.analysis.key)} · what was changed, and why
        </p>
      </header>
      {reasons.length === 0 && (
        <p>Nothing is changed yet: the new line is the home line. Colour a chord or swap it first.</p>
      )}
      {reasons.length > 0 && (
        <table className="reasons" aria-label="Reasons">
          <thead>
            <tr>
              <th scope="col">Where</th>
              <th scope="col">Home</th>
              <th scope="col">New</th>
              <th scope="col">How</th>
              <th scope="col">Why</th>
              <th scope="col">How far out</th>
            </tr>
          </thead>
          <tbody>
            {reasons.map(({ decision, decision: { key, puts, because }, homes, byWhom }) => (
              <tr key={key}>
                <th scope="row">{placeName(firstOf(homes).slot)}</th>
                <td>
                  {homes.map((home) => (
                    <span className="reason-chord" key={home.key}>
                      <ChordName chord={plainChord(home)!} />{' '}
                      <span className="numeral">{engraved(home.reading!.roman)}</span>
                    </span>
                  ))}
                </td>
                <td>
                  {puts.map((put, at) => (
                    <span className="reason-chord" key={at}>
                      <ChordName chord={put.chord} />
                    </span>
                  ))}
                </td>
                <td>
                  {engravedWords(because.name)}
                  {byWhom && (
                    <>
                      <br />
                      <span className="quiet">{byWhom}</span>
                    </>
                  )}
                </td>
                <td>
                  {engravedWords(because.why)} <i>{because.mood}</i>
                </td>
                <td>
                  {farInFull(
                    howFarGone(
                      reading.chart,
                      reading.analysis,
                      [decision],
                      decision.index,
                      decision.index + decision.span - 1,
                    ),
                  )}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
      )}
      <footer>
        Numerals are counted in the key the tune is in at that place. How far out: 0 is the plain chord, 100
        changes as much as any rule could there.
      </footer>
    </main>
  )
}
