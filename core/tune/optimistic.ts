import { lastOf } from '../lists'
import { type TuneDocument } from './document'
import { tryEdit } from './tryEdit'
import { isSearchResult, labelOf, type TuneEdit } from './tuneEdit'

/**
 * One thing a tab wants written: an edit or a step of the history, with the id by which the server
 * knows a repetition.
 */
export type Write = { id: string; edit: TuneEdit } | { id: string; step: 'undo' | 'redo' }

interface OptimisticFrame {
  document: TuneDocument
  /** What led here, for undo; null for the state on disk. */
  edit: TuneEdit | null
}

/**
 * The state on disk with what waits on top of it: undo and redo of what waits are known at once,
 * those of what is on disk wait for the server.
 */
export interface OptimisticState {
  stack: readonly OptimisticFrame[]
  undone: readonly OptimisticFrame[]
}

export const optimisticStateOf = (document: TuneDocument): OptimisticState => ({
  stack: [{ document, edit: null }],
  undone: [],
})
export const documentShown = ({ stack }: OptimisticState): TuneDocument => lastOf(stack).document
export const undoLabel = ({ stack }: OptimisticState, onDisk: string | null): string | null => {
  const { edit } = lastOf(stack)
  return edit ? labelOf(edit) : onDisk
}
export const redoLabel = ({ stack, undone }: OptimisticState, onDisk: string | null): string | null => {
  const next = undone.at(-1)?.edit
  if (next) return labelOf(next)
  if (stack.length > 1) return null
  return onDisk
}

/** A letter more of what is being typed. */
export const coalescesTyping = (edit: TuneEdit): boolean => edit.kind === 'text' && edit.joins === true

/** One write more; null where the edit cannot be done on what is there. */
export function applyWrite(state: OptimisticState, write: Write): OptimisticState | { refused: string } {
  const { stack, undone } = state
  if ('step' in write) {
    if (write.step === 'undo')
      return stack.length > 1 ? { stack: stack.slice(0, -1), undone: [...undone, lastOf(stack)] } : state
    return undone.length > 0 ? { stack: [...stack, lastOf(undone)], undone: undone.slice(0, -1) } : state
  }
  const tried = tryEdit(documentShown(state), write.edit)
  if (!tried.ok) return { refused: tried.message }
  const top = lastOf(stack)
  if (isSearchResult(write.edit))
    return { stack: [...stack.slice(0, -1), { ...top, document: tried.document }], undone }
  if (coalescesTyping(write.edit) && undone.length === 0 && (top.edit === null || top.edit.kind === 'text'))
    return { stack: [...stack.slice(0, -1), { ...top, document: tried.document }], undone }
  return { stack: [...stack, { document: tried.document, edit: write.edit }], undone: [] }
}

/**
 * The edits that are left of some writes when each undo has taken back the edit before it: steps of
 * a history that is another by now mean nothing.
 */
export function netEdits(writes: readonly Write[]): TuneEdit[] {
  const made: TuneEdit[] = []
  const undone: TuneEdit[] = []
  for (const write of writes) {
    if ('edit' in write) {
      made.push(write.edit)
      if (!isSearchResult(write.edit)) undone.length = 0
      continue
    }
    const [from, to] = write.step === 'undo' ? [made, undone] : [undone, made]
    const at = from.findLastIndex((edit) => !isSearchResult(edit))
    if (at >= 0) to.push(...from.splice(at, 1))
  }
  return made
}
