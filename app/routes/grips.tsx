import Button from '@mui/material/Button'
import TextField from '@mui/material/TextField'
import { useMemo, useState } from 'react'
import { data, Form, Link, redirect } from 'react-router'
import { z } from 'zod'
import { parseChord } from '../../core/chord/parse'
import { parseKey } from '../../core/pitch/key'
import { leastMotion } from '../../core/pitch/motion'
import { noteName, parseNote, plainSpelling } from '../../core/pitch/note'
import { soundAt, touched, type Frets } from '../../core/neck/instrument'
import { readFrets } from '../../core/neck/readFrets'
import { fingeringsOf } from '../../core/neck/fingering'
import { namesOf } from '../../core/voicing/name'
import { voicingOf, type Voicing } from '../../core/voicing/voicing'
import { seedDemoGrips } from '../../db/demoGrips'
import { keepGrip, letGripGo, listGrips, listTakenOut, takeGripBack, type BookGrip } from '../../db/grips'
import { database, withBook } from '../database.server'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { WayBack } from '../services/forms/Notices'
import { fretsHere, stringingOf } from '../../core/tune/sounding'
import { refusalInWords } from '../../core/refusal'
import { GripFacts } from '../services/grips/GripFacts'
import { GripFilters, NO_FILTER, passes, type GripFilter } from '../services/grips/GripFilters'
import { GripNames } from '../services/grips/GripNames'
import { RelatedGrips } from '../services/grips/RelatedGrips'
import { useAnswer } from '../services/workers/useAnswer'
import { ChordName } from '../services/notation/ChordName'
import { engraved } from '../../core/chord/engraved'
import { gripInWords } from '../../core/voicing/inWords'
import { GripDiagram } from '../services/notation/GripDiagram'
import { marksOfGrip, Neck } from '../services/notation/Neck'
import { limitsFor, wholeNeck } from '../../core/player/limits'
import { usePlayerSettings } from '../services/player/PlayerContext'
import { excerptOf } from '../services/sound/schedule'
import { SOUND } from '../services/sound/store'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/grips'
import { fieldsOf } from '../services/forms/fields'

/** Beats a minute at which the notes of a grip are heard one by one. */
const NOTE_BY_NOTE_TEMPO = 120

const frets = z
  .array(z.int().min(0).max(36).nullable())
  .min(4, 'a grip of 4 to 8 strings')
  .max(8, 'a grip of 4 to 8 strings')
const intents = z.discriminatedUnion('intent', [
  z.object({
    intent: z.literal('keep'),
    symbol: z
      .string()
      .max(80)
      .refine((text) => parseChord(text).ok, 'a chord symbol such as Am9'),
    frets: z
      .string()
      .max(200)
      .transform((text, context) => {
        try {
          return frets.parse(JSON.parse(text))
        } catch {
          context.addIssue({
            code: 'custom',
            message: 'frets from the lowest string, such as [null,3,2,0,1,0]',
          })
          return z.NEVER
        }
      }),
    tags: z
      .string()
      .max(200)
      .transform((text) => [
        ...new Set(
          text
            .split(',')
            .map((tag) => tag.trim())
            .filter(Boolean),
        ),
      ]),
    note: z.string().max(500),
    instrument: z.string().max(80).optional(),
  }),
  z.object({ intent: z.literal('let-go'), id: z.uuid() }),
  z.object({ intent: z.literal('take-back'), id: z.uuid() }),
  z.object({ intent: z.literal('demo') }),
])

export function loader({ request }: Route.LoaderArgs) {
  return {
    grips: listGrips(database()),
    takenOut: listTakenOut(database()),
    gone: z.uuid().nullable().catch(null).parse(new URL(request.url).searchParams.get('gone')),
  }
}

export async function action({ request }: Route.ActionArgs) {
  const given = await fieldsOf(request)
  const wanted = intents.safeParse(given)
  if (!wanted.success) return data({ message: refusalInWords(wanted.error, given) }, 400)
  const form = wanted.data
  return withBook((db) => {
    switch (form.intent) {
      case 'keep':
        keepGrip(db, { ...form, instrument: form.instrument ?? null })
        return null
      case 'let-go':
        return letGripGo(db, form.id)
          ? redirect(`/grips?gone=${form.id}`)
          : data({ message: 'That grip is not in the book any more.' }, 404)
      case 'take-back':
        return takeGripBack(db, form.id) ? redirect('/grips') : data({ message: 'That grip is erased.' }, 404)
      case 'demo':
        seedDemoGrips(db)
        return null
    }
  })
}

/** Without an answer the page stays with what was typed. */
export const clientAction = ({ serverAction }: Route.ClientActionArgs) => unlessUnreachable(serverAction)
export const shouldRevalidate = revalidatesWhenAnswered

export const meta: Route.MetaFunction = () => [{ title: 'Grip book · Yellow Heron' }]

/** Grips drawn at once. */
const AT_ONCE = 24

/** The player's vocabulary: fret a grip and read its names, find grips of a chord, keep them with tags and notes. */
export default function GripsPage({
  loaderData: { grips, gone, takenOut },
  actionData,
}: Route.ComponentProps) {
  const { settings } = usePlayerSettings()
  const strings = settings.instrument.tuning.length
  const [held, setHeld] = useState<Frets>(() => Array<null>(strings).fill(null))
  const [symbol, setSymbol] = useState('')
  const [keyText, setKeyText] = useState('')
  const [overText, setOverText] = useState('')
  const [compared, setCompared] = useState<{ frets: Frets; symbol: string } | null>(null)
  const [where, setWhere] = useState<'book' | 'neck'>('book')
  const [filter, setFilter] = useState<GripFilter>(NO_FILTER)
  const [sought, setSought] = useState('')
  const [shown, setShown] = useState(AT_ONCE)
  const frets: Frets = held.length === strings ? held : Array<null>(strings).fill(null)

  const limits = useMemo(() => wholeNeck(settings), [settings])
  const midis = frets.flatMap((fret, string) =>
    fret === null ? [] : [soundAt(limits.instrument, string, fret)],
  )
  const highest = Math.max(0, ...frets.map((fret) => fret ?? 0))
  const parsedKey = keyText ? parseKey(keyText) : null
  const parsedOver = overText ? parseNote(overText) : null
  const songKey = parsedKey?.ok ? parsedKey.value : undefined
  const over = parsedOver?.ok ? parsedOver.value : undefined
  const wanted = symbol ? parseChord(symbol) : null
  const likeliest =
    midis.length > 0
      ? (namesOf(midis, { ...(over ? { over } : {}), ...(songKey ? { key: songKey } : {}) })[0]?.chord ??
        null)
      : null
  const chord = wanted?.ok ? wanted.value : likeliest
  const answer = midis.length > 0 ? fingeringsOf(frets, limits.instrument, limits.hand) : null
  const voicing = chord && answer?.playable ? voicingOf(frets, chord, limits) : null
  const related = useAnswer(
    'search',
    'related',
    voicing && chord
      ? {
          symbol: chord.canonical,
          frets: [...frets],
          capo: 0,
          bass: 'any',
          key: songKey ? keyText : null,
          body: settings,
        }
      : null,
    { quiet: true },
  )
  const all = useAnswer(
    'search',
    'book',
    where === 'neck' && chord ? { symbol: chord.canonical, body: settings } : null,
    { quiet: true },
  )

  const stringing = stringingOf(settings, 0)
  // A grip kept for other open strings is shown at the same pitches on these, where they can be had.
  const kept = useMemo(
    () =>
      grips.flatMap((grip) => {
        const of = parseChord(grip.symbol)
        const own = limitsFor(settings, 0, 'any')
        const here = of.ok
          ? fretsHere(grip.frets, grip.instrument ?? undefined, of.value, {
              ...own,
              frets: [0, settings.instrument.frets],
            })
          : null
        const read = of.ok && here ? voicingOf(here.frets, of.value, own) : null
        return read && here && of.ok ? [{ grip, chord: of.value, voicing: read, moved: here.moved }] : []
      }),
    [grips, settings],
  )
  const words = sought.toLowerCase().split(/\s+/).filter(Boolean)
  const found = kept.filter(
    (one) =>
      passes(one.voicing, filter) &&
      words.every((word) =>
        `${one.grip.symbol} ${one.grip.tags.join(' ')} ${one.grip.note}`.toLowerCase().includes(word),
      ),
  )
  const onNeck = (all.now ?? []).filter((one) => passes(one, filter))
  const present = kept.find(
    ({ grip, voicing: one }) => chord && grip.symbol === chord.canonical && one.frets.join() === frets.join(),
  )?.grip

  const take = (next: Frets, name?: string) => {
    setHeld(next)
    if (name !== undefined) setSymbol(name)
    const sounding = next.flatMap((fret, string) =>
      fret === null ? [] : [soundAt(limits.instrument, string, fret)],
    )
    void SOUND.strumNow([...sounding].sort((a, b) => a - b))
  }
  const noteByNote = () =>
    void SOUND.play(
      excerptOf([...midis].sort((a, b) => a - b).map((midi) => ({ beats: 1, midis: [midi] }))),
      NOTE_BY_NOTE_TEMPO,
    )
  const other = compared && voicing ? voicingFor(compared, limits) : null
  return (
    <main className="page grip-book">
      <PageHead title="Grip book" here="/grips" />
      {actionData && 'message' in actionData && (
        <p className="notice" role="alert">
          {actionData.message}
        </p>
      )}
      {gone && (
        <WayBack intent="take-back" field={['id', gone]} act="Put it back">
          The grip was taken out of the book.
        </WayBack>
      )}
      <Neck
        strings={strings}
        frets={settings.instrument.frets}
        label="Neck: touch a place to hold it, again to let it go"
        marks={marksOfGrip(
          frets,
          (string) => voicing?.strings.find((one) => one.string === string)?.degree ?? '',
        )}
        muted={frets.flatMap((fret, string) => (fret === null && midis.length > 0 ? [string] : []))}
        reachFrom={lowestHeld(frets)}
        onTouch={(string, fret) => take(touched(frets, string, fret))}
      />
      <div className="grip-inputs">
        <FretsField key={frets.join()} frets={frets} onFrets={(next) => take(next)} />
        <TextField
          size="small"
          label={wanted && !wanted.ok ? 'not a chord symbol' : 'Chord'}
          error={wanted !== null && !wanted.ok}
          value={symbol}
          placeholder={likeliest?.canonical ?? 'Am9'}
          onChange={(event) => {
            setSymbol(event.target.value)
            setShown(AT_ONCE)
          }}
          sx={{ width: 150 }}
        />
        <TextField
          size="small"
          label={parsedKey && !parsedKey.ok ? 'not a key' : 'In the key'}
          error={parsedKey !== null && !parsedKey.ok}
          value={keyText}
          placeholder="Bb"
          onChange={(event) => setKeyText(event.target.value)}
          sx={{ width: 110 }}
        />
        <TextField
          size="small"
          label={parsedOver && !parsedOver.ok ? 'not a note' : 'Over the root'}
          error={parsedOver !== null && !parsedOver.ok}
          value={overText}
          placeholder="D"
          onChange={(event) => setOverText(event.target.value)}
          sx={{ width: 120 }}
        />
        <Button
          disabled={midis.length === 0}
          onClick={() => void SOUND.strumNow([...midis].sort((a, b) => a - b))}
        >
          Strum
        </Button>
        <Button disabled={midis.length === 0} onClick={noteByNote}>
          Note by note
        </Button>
        <Button
          disabled={midis.length === 0}
          onClick={() => {
            setHeld(Array<null>(strings).fill(null))
            setSymbol('')
          }}
        >
          Clear
        </Button>
      </div>
      <div className="grip-columns">
        <section aria-label="This grip">
          {midis.length === 0 && (
            <p className="empty">
              Touch the neck, or type frets such as x 3 2 0 1 0, to read what a grip is called; or type a
              chord and look for its grips.
            </p>
          )}
          {midis.length > 0 && (
            <>
              <h2>{chord ? <ChordName chord={chord} /> : 'No usual name'}</h2>
              {!chord && (
                <p>
                  It sounds {midis.map((midi) => engraved(noteName(plainSpelling(midi, false)))).join(', ')}:
                  no usual chord has all of these. Name a root above to read it against.
                </p>
              )}
              {highest > settings.instrument.frets && (
                <p className="fault">
                  Fret {highest} is beyond the neck: the instrument has {settings.instrument.frets} frets
                  (Player page).
                </p>
              )}
              {answer && !answer.playable && (
                <p className="fault">This hand does not hold it: {answer.why}.</p>
              )}
              {voicing && chord && (
                <div className="present-grip">
                  <GripDiagram voicing={voicing} scale={1.6} />
                  <GripFacts voicing={voicing} chord={chord} />
                </div>
              )}
              <h3>It can be called</h3>
              <GripNames
                midis={midis}
                {...(over ? { over } : {})}
                {...(songKey ? { songKey } : {})}
                onName={(name) => setSymbol(name.canonical)}
              />
              {voicing && chord && (
                <>
                  <KeepForm
                    key={`${chord.canonical}${frets.join()}`}
                    symbol={chord.canonical}
                    frets={frets}
                    instrument={stringing}
                    present={present}
                  />
                  <div className="drawer-buttons">
                    <Button size="small" onClick={() => setCompared({ frets, symbol: chord.canonical })}>
                      Compare others with this one
                    </Button>
                  </div>
                  {other && compared && (
                    <Comparison first={other} symbol={compared.symbol} second={voicing} />
                  )}
                  <RelatedGrips
                    related={related.now}
                    now={frets.join()}
                    onTake={(one, name) => take(one.frets, name ?? chord.canonical)}
                  />
                </>
              )}
            </>
          )}
        </section>
        <section aria-label="Grips found">
          <div className="panel-tabs">
            <Button size="small" aria-expanded={where === 'book'} onClick={() => setWhere('book')}>
              In the book ({grips.length})
            </Button>
            <Button
              size="small"
              aria-expanded={where === 'neck'}
              disabled={!chord}
              onClick={() => setWhere('neck')}
            >
              On the neck{chord ? ` for ${engraved(chord.canonical)}` : ''}
            </Button>
          </div>
          {where === 'book' && (
            <TextField
              size="small"
              label="Search chords, tags, notes"
              value={sought}
              onChange={(event) => setSought(event.target.value)}
              fullWidth
            />
          )}
          <GripFilters
            grips={where === 'book' ? kept.map((one) => one.voicing) : (all.now ?? [])}
            filter={filter}
            onFilter={(next) => {
              setFilter(next)
              setShown(AT_ONCE)
            }}
          />
          {where === 'book' && grips.length === 0 && (
            <Form method="post" className="empty">
              The book is empty. Fret a grip and keep it, or begin with the demo grips.{' '}
              <Button type="submit" name="intent" value="demo">
                Put the demo grips in
              </Button>
            </Form>
          )}
          {where === 'book' && (
            <ul className="book-list">
              {found.slice(0, shown).map(({ grip, chord: of, voicing: one, moved }) => (
                <li key={grip.id}>
                  <button
                    type="button"
                    className="grip-choice"
                    aria-pressed={present?.id === grip.id}
                    aria-label={`${grip.symbol}: ${gripInWords(one)}`}
                    onClick={() => take(one.frets, grip.symbol)}
                  >
                    <ChordName chord={of} />
                    <GripDiagram voicing={one} />
                    <span>
                      {grip.tags.join(', ') || one.families[0]}
                      {moved ? ', moved to this tuning' : ''}
                    </span>
                  </button>
                </li>
              ))}
            </ul>
          )}
          {where === 'neck' && !all.now && <p className="quiet">Looking over the neck.</p>}
          {where === 'neck' && all.now && (
            <>
              <p className="quiet">
                {onNeck.length} of {all.now.length} grips, the usual ones first
              </p>
              <ul className="book-list">
                {onNeck.slice(0, shown).map((one) => (
                  <li key={one.frets.join()}>
                    <button
                      type="button"
                      className="grip-choice"
                      aria-pressed={one.frets.join() === frets.join()}
                      aria-label={gripInWords(one)}
                      onClick={() => take(one.frets, chord!.canonical)}
                    >
                      <GripDiagram voicing={one} />
                      <span>{one.families[0]}</span>
                    </button>
                  </li>
                ))}
              </ul>
            </>
          )}
          {(where === 'book' ? found.length : onNeck.length) > shown && (
            <Button onClick={() => setShown(shown + AT_ONCE)}>Show more</Button>
          )}
          {where === 'book' && grips.length > kept.length && (
            <p className="quiet">
              {grips.length - kept.length} grips of the book cannot be played on these open strings, or by
              this hand; they are kept.
            </p>
          )}
          {where === 'book' && takenOut.length > 0 && (
            <details>
              <summary>Taken out of the book ({takenOut.length})</summary>
              <ul className="taken-out">
                {takenOut.map(({ id, symbol: of, frets: at }) => (
                  <li key={id}>
                    <Form method="post" preventScrollReset>
                      <input type="hidden" name="intent" value="take-back" />
                      <input type="hidden" name="id" value={id} />
                      {engraved(of)}: {at.map((fret) => fret ?? 'x').join(' ')}{' '}
                      <Button size="small" type="submit">
                        Put it back
                      </Button>
                    </Form>
                  </li>
                ))}
              </ul>
            </details>
          )}
        </section>
      </div>
    </main>
  )
}

const lowestHeld = (frets: Frets): number | null => {
  const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
  return held.length > 0 ? Math.min(...held) : null
}

function voicingFor(
  { frets, symbol }: { frets: Frets; symbol: string },
  limits: ReturnType<typeof wholeNeck>,
): Voicing | null {
  const of = parseChord(symbol)
  return of.ok && frets.length === limits.instrument.tuning.length ? voicingOf(frets, of.value, limits) : null
}

/** Frets as text, lowest string first: `x 3 2 0 1 0` or `x32010`. */
function FretsField({ frets, onFrets }: { frets: Frets; onFrets: (frets: Frets) => void }) {
  const [typed, setTyped] = useState(
    frets.some((fret) => fret !== null) ? frets.map((fret) => fret ?? 'x').join(' ') : '',
  )
  const [left, setLeft] = useState(false)
  const read = typed.trim() === '' ? null : readFrets(typed, frets.length)
  const send = () => {
    setLeft(true)
    if (read?.ok && read.value.join() !== frets.join()) onFrets(read.value)
  }
  const wrong = left && read !== null && !read.ok
  return (
    <TextField
      size="small"
      label="Frets, lowest string first"
      error={wrong}
      helperText={wrong ? `${read.fault.message} Accepted: ${read.fault.accepted!}.` : undefined}
      value={typed}
      placeholder="x 3 2 0 1 0"
      sx={{ width: 230 }}
      onChange={(event) => {
        setTyped(event.target.value)
        setLeft(false)
      }}
      onBlur={send}
      onKeyDown={(event) => event.key === 'Enter' && send()}
    />
  )
}

/** Tags and a note, and keeping or letting go. */
function KeepForm({
  symbol,
  frets,
  instrument,
  present,
}: {
  symbol: string
  frets: Frets
  instrument: string
  present: BookGrip | undefined
}) {
  return (
    <Form method="post" className="keep-grip" preventScrollReset>
      <input type="hidden" name="symbol" value={symbol} />
      <input type="hidden" name="frets" value={JSON.stringify(frets)} />
      <input type="hidden" name="instrument" value={instrument} />
      <TextField
        size="small"
        name="tags"
        label="Tags, with commas"
        defaultValue={present?.tags.join(', ') ?? ''}
        slotProps={{ htmlInput: { maxLength: 200 } }}
      />
      <TextField
        size="small"
        name="note"
        label="Note"
        defaultValue={present?.note ?? ''}
        slotProps={{ htmlInput: { maxLength: 500 } }}
      />
      <Button type="submit" name="intent" value="keep">
        {present ? 'Keep the changes' : 'Keep in the book'}
      </Button>
      {present && (
        <>
          <input type="hidden" name="id" value={present.id} />
          <Button type="submit" name="intent" value="let-go">
            Take it out of the book
          </Button>
        </>
      )}
      {present && (
        <p className="quiet">
          {present.usedIn.length > 0 ? (
            <>
              Used in{' '}
              {present.usedIn.map((tune, at) => (
                <span key={tune.id}>
                  {at > 0 && ', '}
                  <Link to={`/tunes/${tune.id}/lines`}>{tune.title}</Link>
                </span>
              ))}
            </>
          ) : (
            'No tune uses it now.'
          )}
        </p>
      )}
    </Form>
  )
}

/** Two grips beside one another: what they share, and how far their voices lie apart. */
function Comparison({ first, symbol, second }: { first: Voicing; symbol: string; second: Voicing }) {
  const soundsOf = (one: Voicing) => new Set(one.midis.map((midi) => midi % 12))
  const shared = [...soundsOf(first)].filter((sound) => soundsOf(second).has(sound)).length
  const held = first.midis.filter((midi) => second.midis.includes(midi)).length
  const motion = leastMotion(first.midis, second.midis)
  return (
    <div className="present-grip" role="group" aria-label="Comparison">
      <GripDiagram voicing={first} scale={1.2} />
      <p>
        With {engraved(symbol)}: {shared} {shared === 1 ? 'tone' : 'tones'} in common, {held} at the same
        pitch; {motion} {motion === 1 ? 'semitone' : 'semitones'} of motion between them.
      </p>
    </div>
  )
}
