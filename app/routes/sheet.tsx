import Button from '@mui/material/Button'
import { useMemo } from 'react'
import { data, Link, redirect, useNavigation, useRevalidator } from 'react-router'
import { z } from 'zod'
import { placeName } from '../../core/chart/chart'
import { formatOf, SAVED_FORMATS } from '../../core/formats/names'
import { refusalInWords } from '../../core/refusal'
import { STRAIGHT } from '../../core/rhythm/swing'
import {
  layoutAddress,
  layoutName,
  MOST_LAYOUTS,
  sheetLayout,
  showsGrips,
} from '../../core/sheet/sheetLayout'
import { isAccompanied, swingOf } from '../../core/tune/accompaniment'
import { readTuneDocument } from '../../core/tune/tuneReading'
import { keepLayout, layoutsOf, letLayoutGo, takeLayoutBack } from '../../db/layouts'
import { readPlayer } from '../../db/player'
import { readTune } from '../../db/tunes'
import { database, withBook } from '../database.server'
import { layoutAsked } from '../features/paper/sheetAddress'
import { refuseTooMuch, tooMuchToDraw } from '../features/paper/bound.server'
import { PageView } from '../features/paper/PageView'
import { LayoutChoice, SheetComposer } from '../features/paper/SheetComposer'
import { usePrinted } from '../features/paper/usePrinted'
import { sheetPages, tuneAsked } from '../features/paper/sheetPages.server'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { Refused, WayBack, Working } from '../services/forms/Notices'
import { numeralsFromCookies } from '../services/notation/numeralCookie'
import { usePlayerSettings } from '../services/player/PlayerContext'
import { useEveryGrip } from '../steps/sheet/useEveryGrip'
import type { Route } from './+types/sheet'
import { fieldsOf } from '../services/forms/formFields'
import { PlacesMenu } from '../theme/Places'
import '../features/paper/paper.css'

export async function loader({ params, request }: Route.LoaderArgs) {
  const state = readTune(database(), params.tuneId)
  if (!state) throw data('This tune is not in the songbook.', 404)
  const asked = new URL(request.url).searchParams
  const kept = layoutsOf(database(), params.tuneId)
  const { from, layout } = layoutAsked(asked, kept)
  const version = asked.get('version') || null
  const document = tuneAsked(state.document, { version, key: null, tempo: null })
  if (!document) throw data('This version is not kept with the tune any more.', 404)
  refuseTooMuch(tooMuchToDraw(document))
  return {
    ...state,
    from,
    layout,
    kept,
    version,
    takenOut: asked.get('out'),
    // What the working line lacks is looked for in the page, where that can be watched and stopped.
    sheet: await sheetPages(document, {
      layout,
      player: readPlayer(database()),
      school: numeralsFromCookies(request.headers.get('cookie')),
      fill: version !== null,
      signal: request.signal,
    }),
  }
}

const intents = z.discriminatedUnion('intent', [
  z.object({
    intent: z.literal('keep'),
    name: layoutName,
    layout: z
      .string()
      .max(2_000)
      .transform((text, context): unknown => {
        try {
          return JSON.parse(text)
        } catch {
          context.addIssue({ code: 'custom', message: 'a layout' })
          return z.NEVER
        }
      })
      .pipe(sheetLayout),
  }),
  z.object({ intent: z.literal('take-out'), id: z.uuid() }),
  z.object({ intent: z.literal('put-back'), id: z.uuid() }),
])

export async function action({ request, params }: Route.ActionArgs) {
  const form = await fieldsOf(request)
  const wanted = intents.safeParse(form)
  if (!wanted.success) return data({ message: refusalInWords(wanted.error, form) }, 400)
  const asked = wanted.data
  const here = `/tunes/${params.tuneId}/sheet`
  return withBook((db) => {
    if (!readTune(db, params.tuneId))
      return data({ message: 'This tune is not in the songbook any more.' }, 404)
    switch (asked.intent) {
      case 'keep': {
        const id = keepLayout(db, params.tuneId, asked.name, asked.layout)
        return id
          ? redirect(`${here}?layout=${id}`)
          : data(
              {
                message: `There are ${MOST_LAYOUTS} layouts, as many as a tune can keep: take one out first.`,
              },
              400,
            )
      }
      case 'take-out':
        letLayoutGo(db, params.tuneId, asked.id)
        return redirect(`${here}?out=${asked.id}`)
      case 'put-back':
        takeLayoutBack(db, params.tuneId, asked.id)
        return redirect(`${here}?layout=${asked.id}`)
    }
  })
}

export const clientAction = ({ serverAction }: Route.ClientActionArgs) => unlessUnreachable(serverAction)
export const shouldRevalidate = revalidatesWhenAnswered

export const meta: Route.MetaFunction = ({ loaderData }) => [
  { title: `${loaderData?.document.title ?? 'Tune'} · sheet` },
]

/**
 * The page for the music stand, composed: what it carries at the side, the pages as they are
 * printed, and files to take along.
 */
export default function SheetPage({ loaderData, actionData }: Route.ComponentProps) {
  const { id, revision, document, sheet, layout, from, kept, version, takenOut } = loaderData
  const {
    settings: { instrument, hand },
  } = usePlayerSettings()
  const body = useMemo(() => ({ instrument, hand }), [instrument, hand])
  const { revalidate } = useRevalidator()
  const search = useEveryGrip(
    id,
    revision,
    document,
    body,
    version === null && showsGrips(layout),
    () => void revalidate(),
  )
  const reading = useMemo(() => readTuneDocument(document, 'case', body), [document, body])
  const elsewhere = reading.line.filter((one) => one.elsewhere)
  const printed = usePrinted()
  const composing = useNavigation().state === 'loading'
  const address = layoutAddress(layout)
  if (version !== null) address.set('version', version)
  return (
    <main className="sheet-page">
      <div className="sheet-head sheet-tools">
        <PlacesMenu />
        <Link to={`/tunes/${id}/lines`}>Back to the tune</Link>
        <h1>{document.title}</h1>
        <LayoutChoice from={from} kept={kept} version={version} />
        <Button
          component="a"
          className="sheet-main"
          variant="contained"
          color="primary"
          href={`/tunes/${id}/sheet.pdf?${address}`}
          download
          onClick={(event) => {
            event.preventDefault()
            void printed.make(`/tunes/${id}/sheet.pdf`, address)
          }}
        >
          PDF
        </Button>
        {printed.state.kind === 'working' && (
          <Working label="Printing the sheet" at={printed.state} onStop={printed.stop} />
        )}
        <Button onClick={() => window.print()}>Print</Button>
        <Link to={`/stand?tune=${id}${version === null ? '' : `&version=${encodeURIComponent(version)}`}`}>
          Stand
        </Link>
        <FilesMenu
          id={id}
          accompanied={isAccompanied(document.rhythm)}
          swings={swingsIn(document, reading)}
        />
      </div>
      <div className="sheet-pages" aria-busy={composing}>
        <div className="sheet-notes">
          <Refused said={actionData} />
          {printed.state.kind === 'fault' && (
            <p className="fault" role="alert">
              {printed.state.message}
            </p>
          )}
          {takenOut && (
            <WayBack intent="put-back" field={['id', takenOut]} act="Put it back">
              The layout was taken out.
            </WayBack>
          )}
          {search.state.kind === 'searching' && (
            <p role="status">
              Finding grips for the chords that have none{' '}
              <Button size="small" onClick={search.stop}>
                Stop
              </Button>
            </p>
          )}
          {search.state.kind === 'stopped' && (
            <p role="status">
              Stopped: some chords have no grip.{' '}
              <Button size="small" onClick={search.again}>
                Find them
              </Button>
            </p>
          )}
          {search.state.kind === 'fault' && (
            <p className="fault" role="alert">
              Some chords have no grip: {search.state.message}
            </p>
          )}
          {sheet.missing.length > 0 && (
            <p className="fault">
              No font of this program has {sheet.missing.join(' ')}: these letters are not printed, and the
              paper says so.
            </p>
          )}
          {elsewhere.length > 0 && (
            <p className="quiet">
              The {elsewhere.length === 1 ? 'grip' : 'grips'} you chose at{' '}
              {elsewhere.map(({ slot }) => placeName(slot)).join('; ')}{' '}
              {elsewhere.length === 1 ? 'is' : 'are'} for other open strings and cannot be played on these:
              what is printed there is another. Yours {elsewhere.length === 1 ? 'is' : 'are'} kept.
            </p>
          )}
        </div>
        {sheet.pages.map((page, at) => (
          <PageView key={at} page={page} number={at + 1} of={sheet.pages.length} black={sheet.black} />
        ))}
      </div>
      <SheetComposer
        layout={layout}
        from={from}
        kept={kept}
        versions={document.versions.map(({ name }) => name)}
        version={version}
      />
    </main>
  )
}

type SheetDocument = Route.ComponentProps['loaderData']['document']

const swingsIn = (
  { rhythm, tempo }: SheetDocument,
  { chart }: ReturnType<typeof readTuneDocument>,
): boolean => isAccompanied(rhythm) && swingOf(rhythm, tempo, chart.meter) > STRAIGHT

/** The tune in open formats. */
function FilesMenu({ id, accompanied, swings }: { id: string; accompanied: boolean; swings: boolean }) {
  const isWanted = { voices: accompanied, swung: swings }
  const files = SAVED_FORMATS.flatMap((name) => {
    const { label, ways } = formatOf(name)
    const others = ways.filter(({ asked }) => isWanted[asked])
    return [
      { address: name as string, label },
      ...others.map((way) => ({ address: `${name}?${way.asked}`, label: way.label })),
    ]
  })
  return (
    <details className="row-menu">
      <summary>Files</summary>
      <div>
        <Button component="a" href={`/files/backup?history=yes&tune=${id}`} download>
          The whole tune
        </Button>
        {files.map(({ address, label }) => (
          <Button key={address} component="a" href={`/tunes/${id}/file/${address}`} download>
            {label}
          </Button>
        ))}
      </div>
    </details>
  )
}
