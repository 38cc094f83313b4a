import { data, redirect } from 'react-router'
import { z } from 'zod'
import { parseChord } from '../../core/chord/parseChord'
import { touched, type Frets } from '../../core/neck/instrument'
import { refusalInWords } from '../../core/refusal'
import { seedDemoGrips } from '../../db/demoGrips'
import { keepGrip, letGripGo, listGrips, listTakenOut, takeGripBack } from '../../db/grips'
import { database, withBook } from '../database.server'
import { GripInputs } from '../features/grips/GripInputs'
import { GripsFound } from '../features/grips/GripsFound'
import { ThisGrip } from '../features/grips/ThisGrip'
import { usePlayable } from '../features/grips/usePlayable'
import { useGripRead } from '../features/grips/useGripRead'
import { fieldsOf } from '../services/forms/formFields'
import { WayBack } from '../services/forms/Notices'
import { revalidatesWhenAnswered, unlessUnreachable } from '../services/forms/unlessUnreachable'
import { marksOfGrip, Neck } from '../services/notation/Neck'
import { usePlayerSettings } from '../services/player/PlayerContext'
import { PageHead } from '../theme/PageHead'
import type { Route } from './+types/grips'

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

/**
 * The player's vocabulary: fret a grip and read its names, find grips of a chord, keep them with
 * tags and notes.
 */
export default function GripsPage({
  loaderData: { grips, gone, takenOut },
  actionData,
}: Route.ComponentProps) {
  const {
    settings: { instrument },
  } = usePlayerSettings()
  const grip = useGripRead()
  const playable = usePlayable(grips)
  const { frets, voicing, chord } = grip
  const present = playable.find(
    ({ kept, voicing: one }) => kept.symbol === chord?.canonical && one.frets.join() === frets.join(),
  )?.kept
  return (
    <main className="page grip-book">
      <PageHead title="Grip book" />
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
        strings={instrument.tuning.length}
        frets={instrument.frets}
        label="Neck: touch a place to hold it, again to let it go"
        marks={marksOfGrip(
          frets,
          (string) => voicing?.strings.find((one) => one.string === string)?.degree ?? '',
        )}
        muted={frets.flatMap((fret, string) => (fret === null && grip.midis.length > 0 ? [string] : []))}
        reachFrom={lowestHeld(frets)}
        onTouch={(string, fret) => grip.take(touched(frets, string, fret))}
      />
      <GripInputs grip={grip} />
      <div className={grip.midis.length === 0 ? 'grip-columns resting' : 'grip-columns'}>
        <ThisGrip grip={grip} present={present} />
        <GripsFound
          grip={grip}
          playable={playable}
          count={grips.length}
          present={present}
          takenOut={takenOut}
        />
      </div>
    </main>
  )
}

const lowestHeld = (frets: Frets): number | null => {
  const held = frets.filter((fret): fret is number => fret !== null && fret > 0)
  return held.length > 0 ? Math.min(...held) : null
}
