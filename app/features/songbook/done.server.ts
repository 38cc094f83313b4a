import { data, redirect } from 'react-router'
import { z } from 'zod'
import type { Db } from '../../../db/connect'
import { demoBook } from '../../../db/demo'
import { beginOwnBook } from '../../../db/demoHere'
import { addToSet, createSet } from '../../../db/sets'
import { deleteTune, deleteTunes, restoreDeletedAt, restoreTunes, tagTunes } from '../../../db/songbook'
import { copyTune, createTune, editTune, newDocument, readTune } from '../../../db/tunes'
import { MOST_ROWS } from './entries'

const title = z
  .string()
  .trim()
  .min(1, 'A title needs at least one letter.')
  .max(120, 'A title has at most 120 letters.')
const tag = z
  .string()
  .trim()
  .min(1, 'A tag needs at least one letter.')
  .max(40, 'A tag has at most 40 letters.')
/** As many as the page shows can be chosen. */
const ids = z
  .string()
  .transform((all) => all.split(' '))
  .pipe(z.array(z.uuid()).min(1).max(MOST_ROWS))
/** What can be asked to be done with tunes of the songbook. */
export const songbookIntents = z.discriminatedUnion('intent', [
  z.object({ intent: z.literal('tag'), ids, tag }),
  z.object({ intent: z.literal('untag'), ids, tag }),
  z.object({ intent: z.literal('intoSet'), ids, set: z.union([z.uuid(), z.literal('new')]) }),
  z.object({ intent: z.literal('deleteAll'), ids }),
  z.object({ intent: z.literal('restoreAll'), at: z.coerce.number().int().positive() }),
  z.object({ intent: z.literal('new'), title }),
  z.object({ intent: z.literal('rename'), id: z.uuid(), title }),
  z.object({ intent: z.literal('duplicate'), id: z.uuid() }),
  z.object({ intent: z.literal('delete'), id: z.uuid() }),
  z.object({ intent: z.literal('restore'), id: z.uuid() }),
  z.object({ intent: z.literal('demo') }),
  z.object({ intent: z.literal('own') }),
])

const gone = () => data({ message: 'That tune is not in the songbook any more.' }, 404)
const counted = (tunes: number) => `${tunes} ${tunes === 1 ? 'tune' : 'tunes'}`
const backTo = (view: URLSearchParams, more: Record<string, string>) =>
  redirect(`/?${new URLSearchParams([...view, ...Object.entries(more)]).toString()}`)

/**
 * Does what a form of the songbook asks.
 * @param back the tunes that were asked for: what is done with several goes back to them
 */
export function doneInBook(db: Db, form: z.infer<typeof songbookIntents>, back: URLSearchParams) {
  switch (form.intent) {
    case 'tag':
      return backTo(back, {
        said: `${counted(tagTunes(db, form.ids, form.tag, true))} got the tag “${form.tag}”.`,
      })
    case 'untag':
      return backTo(back, {
        said: `The tag “${form.tag}” was taken off ${counted(tagTunes(db, form.ids, form.tag, false))}.`,
      })
    case 'intoSet':
      return intoSet(db, form.ids, form.set)
    case 'deleteAll': {
      const at = Date.now()
      return deleteTunes(db, form.ids, at) > 0 ? backTo(back, { deletedAt: String(at) }) : gone()
    }
    case 'restoreAll':
      restoreDeletedAt(db, form.at)
      return backTo(back, {})
    case 'new':
      return redirect(`/tunes/${createTune(db, newDocument(form.title))}/chart`)
    case 'rename': {
      const state = readTune(db, form.id)
      if (!state) return gone()
      const outcome =
        form.title === state.document.title
          ? null
          : editTune(db, form.id, state.revision, { kind: 'title', title: form.title })
      return outcome?.kind === 'refused' ? data({ message: outcome.message }, 400) : redirect('/')
    }
    case 'duplicate':
      return copyTune(db, form.id).kind === 'copied' ? redirect('/') : gone()
    case 'delete':
      return deleteTune(db, form.id) ? redirect(`/?deleted=${form.id}`) : gone()
    case 'restore':
      restoreTunes(db, [form.id])
      return redirect('/')
    case 'own':
      beginOwnBook(db)
      return redirect('/')
    case 'demo':
      demoBook().forEach(({ document }) => createTune(db, document))
      return redirect('/')
  }
}

/** In the order in which they are listed, at the end of the set. */
function intoSet(db: Db, ids: readonly string[], set: string) {
  const into = set === 'new' ? createSet(db, 'New set') : set
  for (const id of ids) {
    const refused = addToSet(db, into, id)
    if (refused) return data({ message: refused }, 400)
  }
  return redirect(`/sets/${into}`)
}
