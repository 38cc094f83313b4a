import type { TuneState } from '../../../db/tunes'
import { askState, sendWrite, type WriteAnswer } from './writeAnswer'
import { type TuneDocument } from '../../../core/tune/document'
import { typedOn, type Typed } from '../../../core/tune/burst'
import { asideOf, dropAside, dropDraft, keepAside, type SetAside } from './drafts'
import { TabDraft } from './tabDraft'
import {
  applyWrite,
  optimisticStateOf,
  coalescesTyping,
  netEdits,
  redoLabel,
  documentShown,
  undoLabel,
  type OptimisticState,
  type Write,
} from '../../../core/tune/optimistic'
import { isSearchResult, labelOf, tuneEdit, type TuneEdit } from '../../../core/tune/tuneEdit'

export type SaveStatus =
  /** As the server sends the page: nothing listens to the player yet. */
  | { kind: 'opening' }
  | { kind: 'saved' }
  | { kind: 'saving' }
  /**
   * The server does not take it now; what was made waits in this browser. `message` where it says
   * why.
   */
  | { kind: 'waiting'; message?: string | undefined }
  /**
   * Another tab wrote first. `theirs` is what it made. `trouble`: what the player chose could not
   * be done.
   */
  | { kind: 'conflict'; theirs: TuneState; trouble?: string | undefined }

export interface SessionView {
  document: TuneDocument
  undo: string | null
  redo: string | null
  /** What undo or redo did last, in words; null since something else was done. */
  stepped: string | null
  status: SaveStatus
  /**
   * What waits is on this browser's disk too; false where the browser has no room or no store for
   * it.
   */
  keptHere: boolean
  /** What could not be taken, the oldest first. */
  aside: readonly SetAside[]
}

/** Typing is sent when it has paused this long. */
const TYPING_PAUSE_MS = 350
/** A server that does not answer is asked again after this long. */
const RETRY_MS = 1500
/**
 * A write on which the server fails this often is set aside, so that it does not hold up what comes
 * after it.
 */
const MOST_FAILURES = 3

/**
 * One tab's work on one tune: applies each edit at once, sends what was done in order, keeps what
 * is not yet on disk in the browser's own store, and says so when another tab was first. A write
 * that is refused is set aside and said; it never holds up or takes back another.
 */
export class TuneSession {
  private view: SessionView
  /** The last state the server gave. */
  private onDisk: Pick<TuneState, 'revision' | 'document' | 'undo' | 'redo'>
  private readonly pending: Write[] = []
  private optimistic: OptimisticState
  /** Before the last write, so that a burst of typing can put another text in its place. */
  private confirmed: OptimisticState
  private sending = false
  private failures = 0
  private timer: ReturnType<typeof setTimeout> | undefined
  private readonly listeners = new Set<() => void>()
  private closed = false
  private readonly initial: SessionView
  private readonly draft: TabDraft

  constructor(
    private readonly id: string,
    state: TuneState,
  ) {
    this.draft = new TabDraft(id)
    this.onDisk = state
    this.optimistic = this.confirmed = optimisticStateOf(state.document)
    this.view = {
      document: state.document,
      undo: state.undo,
      redo: state.redo,
      stepped: null,
      status: { kind: 'saved' },
      keptHere: true,
      aside: [],
    }
    this.initial = { ...this.view, status: { kind: 'opening' } }
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }

  readonly read = (): SessionView => this.view

  /** What the server rendered, for the first drawing in the browser. */
  readonly readInitial = (): SessionView => this.initial

  /** Begins this tab's work in the browser: takes up what a tab closed since could not send. */
  async resume(): Promise<void> {
    this.closed = false
    await this.draft.hold()
    const draft = await this.draft.orphan().catch(() => null)
    this.show({ aside: await asideOf(this.id).catch(() => []) })
    if (!draft) return
    const { writes, unread } = readWrites(draft.writes)
    if (unread.length > 0) this.setAside('edits that waited here', 'This version does not know them.', unread)
    const onlyFound = writes.every((write) => 'edit' in write && isSearchResult(write.edit))
    // What a search found is found again; what the player made waits for the next visit when this
    // one has begun its own work.
    if (writes.length === 0 || (onlyFound && draft.base !== this.onDisk.revision))
      return void dropDraft(draft.key).catch(() => null)
    if (this.pending.length > 0 || this.closed) return
    this.pending.push(...writes)
    this.refold()
    // Shown at once: the server may be away for long.
    this.showFold({ kind: 'saving' })
    await this.keepPending()
    // Only when this tab has it is it taken from the one that is gone.
    await dropDraft(draft.key).catch(() => null)
    if (this.pending.length === 0) return this.showFold({ kind: 'saved' })
    // On another state a repetition is still known by its ids: the server says whether it is one.
    this.onDisk = { ...this.onDisk, revision: draft.base }
    this.send()
  }

  close(): void {
    this.closed = true
    clearTimeout(this.timer)
    this.draft.letGo()
  }

  /**
   * Does an edit at once; one that cannot be done is said and set aside, and nothing else is
   * touched.
   */
  readonly edit = (given: TuneEdit): void => {
    const last = this.pending.at(-1)
    const edit = this.asTyped(given)
    // Of several pauses in one burst of typing only the last text matters; the first may be on its
    // way already.
    const replaces =
      last &&
      'edit' in last &&
      edit.kind === last.edit.kind &&
      (coalescesTyping(edit) || edit.kind === 'title' || edit.kind === 'tempo' || isSearchResult(edit)) &&
      !(this.sending && this.pending.length === 1)
    // What takes the place of a letter not yet sent joins what that one joined.
    const write: Write = {
      id: crypto.randomUUID(),
      edit:
        replaces && last.edit.kind === 'text' && edit.kind === 'text'
          ? { ...edit, joins: last.edit.joins ?? false }
          : edit,
    }
    const from = replaces ? this.confirmed : this.optimistic
    const next = applyWrite(from, write)
    if ('refused' in next) {
      if (!isSearchResult(edit)) this.setAside(labelOf(edit), next.refused, [edit])
      return
    }
    if (replaces) this.pending.pop()
    if (this.view.stepped !== null && !isSearchResult(edit)) this.show({ stepped: null })
    this.confirmed = from
    this.optimistic = next
    this.pending.push(write)
    void this.keepPending()
    this.showFold(this.view.status.kind === 'saved' ? { kind: 'saving' } : this.view.status)
    clearTimeout(this.timer)
    if (edit.kind === 'text' || edit.kind === 'tempo')
      this.timer = setTimeout(() => this.send(), TYPING_PAUSE_MS)
    else this.send()
  }

  private typed: Typed | null = null

  /** Text with whether it goes on with what was typed last. */
  private asTyped(edit: TuneEdit): TuneEdit {
    if (edit.kind !== 'text') {
      if (!isSearchResult(edit)) this.typed = null
      return edit
    }
    // Nothing typed is joined to what undo has brought back, or to a state another edit made.
    this.typed = typedOn(this.typed, this.view.document.text, edit.text, Date.now())
    return { ...edit, joins: (this.typed as ReturnType<typeof typedOn>).joins }
  }

  /**
   * Undo or redo, in order with the edits: of what waits at once, of what is on disk when the
   * server answers.
   */
  readonly step = async (direction: 'undo' | 'redo'): Promise<void> => {
    if (!this.view[direction] || this.view.status.kind === 'conflict') return
    this.typed = null
    const what = this.view[direction]
    const write: Write = { id: crypto.randomUUID(), step: direction }
    this.confirmed = this.optimistic
    this.optimistic = applyWrite(this.optimistic, write) as OptimisticState
    this.pending.push(write)
    void this.keepPending()
    this.show({ stepped: `${direction === 'undo' ? 'Undone' : 'Done again'}: ${what}` })
    this.showFold(this.view.status.kind === 'saved' ? { kind: 'saving' } : this.view.status)
    clearTimeout(this.timer)
    this.send()
    await this.flush()
  }

  /**
   * Resolves when everything made so far is on disk, or cannot be at present: then it is tried
   * again when it is time.
   */
  async flush(): Promise<void> {
    while (
      this.sending ||
      (this.pending.length > 0 && (this.view.status.kind === 'saved' || this.view.status.kind === 'saving'))
    ) {
      if (this.sending) await new Promise((resolve) => setTimeout(resolve, 15))
      else {
        clearTimeout(this.timer)
        this.send()
      }
    }
  }

  /**
   * After a conflict: what this tab made is put on top of what the other made; the other's state
   * stays in undo.
   */
  readonly putMineOnTop = (): void => {
    if (this.view.status.kind !== 'conflict') return
    const { theirs } = this.view.status
    const edits = netEdits(this.pending)
    // A write keeps its id: where it was done before, it is not done again.
    const ids = new Map(
      this.pending.flatMap((write) => ('edit' in write ? [[write.edit, write.id] as const] : [])),
    )
    this.pending.splice(
      0,
      this.pending.length,
      ...edits.map((edit): Write => ({
        id: ids.get(edit) ?? crypto.randomUUID(),
        edit: edit.kind === 'text' ? { ...edit, joins: false } : edit,
      })),
    )
    this.onDisk = theirs
    this.refold()
    void this.keepPending()
    this.showFold({ kind: this.pending.length > 0 ? 'saving' : 'saved' })
    this.send()
  }

  private copyId = crypto.randomUUID()

  /**
   * After a conflict: what this tab made becomes a tune of its own, and the other's state is shown
   * here.
   */
  readonly keepMineAsCopy = async (): Promise<void> => {
    if (this.view.status.kind !== 'conflict') return
    const { theirs } = this.view.status
    const answer = await this.post({
      id: this.copyId,
      base: this.onDisk.revision,
      copy: netEdits(this.pending),
    })
    if (answer.kind !== 'copied') {
      const why = 'message' in answer && answer.message ? answer.message : 'The server does not answer.'
      return this.show({
        status: {
          kind: 'conflict',
          theirs,
          trouble: `The copy could not be made: ${why} What you made is still here; it can be taken out as a file.`,
        },
      })
    }
    this.copyId = crypto.randomUUID()
    this.pending.length = 0
    void this.keepPending()
    this.adopt(theirs)
  }

  /** What was set aside is let go, by the player's word. */
  readonly letAsideGo = (id: string): void => {
    this.show({ aside: this.view.aside.filter((one) => one.id !== id) })
    void dropAside(id).catch(() => null)
  }

  /**
   * Everything of this tab that is not on the server's disk, and the tune as it is shown, as a file
   * to keep.
   */
  readonly asFile = (): string =>
    JSON.stringify(
      {
        yellowHeron: 'kept by hand',
        tune: this.id,
        title: this.view.document.title,
        document: this.view.document,
        notSaved: this.pending,
        notTaken: this.view.aside,
      },
      null,
      1,
    )

  private send(): void {
    const write = this.pending[0]
    if (this.sending || this.closed || !write || this.view.status.kind === 'conflict') return
    this.sending = true
    if (this.view.status.kind !== 'waiting') this.show({ status: { kind: 'saving' } })
    void this.post({ base: this.onDisk.revision, ...write }).then((answer) => {
      this.sending = false
      this.take(write, answer)
    })
  }

  private take(write: Write, answer: WriteAnswer): void {
    const later = () => {
      clearTimeout(this.timer)
      this.timer = setTimeout(() => this.send(), RETRY_MS)
    }
    switch (answer.kind) {
      case 'done': {
        this.failures = 0
        this.pending.shift()
        void this.keepPending()
        // Known from before, and another tab has written since: what is still to come was not made
        // on that.
        if (answer.made && answer.made !== answer.state.revision && this.pending.length > 0)
          return this.conflict(answer.state, answer.made)
        this.onDisk = answer.state
        if (this.pending.length === 0) return this.adopt(answer.state)
        if ('step' in write) this.refold()
        this.showFold({ kind: 'saving' })
        return this.send()
      }
      case 'conflict':
        return this.conflict(answer.theirs)
      case 'refused':
        return this.leaveOut(write, answer.message)
      case 'failed': {
        this.failures += 1
        if (this.failures >= MOST_FAILURES) return this.leaveOut(write, answer.message)
        this.show({ status: { kind: 'waiting', message: answer.message } })
        return later()
      }
      case 'unreachable': {
        this.show({ status: { kind: 'waiting', message: answer.message } })
        return later()
      }
      case 'copied':
        return this.leaveOut(write, 'The server answered something else.')
    }
  }

  /** A write that cannot be taken: out of the way of the others, kept, and said. */
  private leaveOut(write: Write, message: string): void {
    this.failures = 0
    this.pending.splice(this.pending.indexOf(write), 1)
    if ('step' in write) this.setAside(write.step, message, [])
    else if (!isSearchResult(write.edit)) this.setAside(labelOf(write.edit), message, [write.edit])
    this.refold()
    void this.keepPending()
    this.showFold({ kind: this.pending.length > 0 ? 'saving' : 'saved' })
    this.send()
  }

  private conflict(theirs: TuneState, base = this.onDisk.revision): void {
    this.onDisk = { ...this.onDisk, revision: base }
    // What a search found is no work of the player's: after another tab's change it is found again.
    if (this.pending.every((write) => 'edit' in write && isSearchResult(write.edit))) {
      this.pending.length = 0
      void this.keepPending()
      return this.adopt(theirs)
    }
    this.show({ status: { kind: 'conflict', theirs } })
  }

  private setAside(what: string, message: string, edits: unknown[]): void {
    const one: SetAside = { id: crypto.randomUUID(), tune: this.id, what, message, at: Date.now(), edits }
    this.show({ aside: [...this.view.aside, one] })
    void keepAside(one).catch(() => null)
  }

  /** What is shown, anew from the state on disk; what can no longer be done is set aside. */
  private refold(): void {
    let fold = optimisticStateOf(this.onDisk.document)
    this.confirmed = fold
    for (const write of [...this.pending]) {
      const next = applyWrite(fold, write)
      if ('refused' in next) {
        this.pending.splice(this.pending.indexOf(write), 1)
        if ('edit' in write && !isSearchResult(write.edit))
          this.setAside(labelOf(write.edit), next.refused, [write.edit])
        continue
      }
      this.confirmed = fold
      fold = next
    }
    this.optimistic = fold
  }

  private showFold(status: SaveStatus): void {
    this.show({
      document: documentShown(this.optimistic),
      undo: undoLabel(this.optimistic, this.onDisk.undo),
      redo: redoLabel(this.optimistic, this.onDisk.redo),
      status,
    })
  }

  private adopt(state: TuneState): void {
    this.onDisk = state
    this.optimistic = this.confirmed = optimisticStateOf(state.document)
    this.showFold({ kind: 'saved' })
  }

  private post(body: unknown): Promise<WriteAnswer> {
    return sendWrite(`/tunes/${this.id}/edits`, body)
  }

  /** Looks whether another tab has written since; where nothing waits here, its state is shown. */
  readonly look = async (): Promise<void> => {
    if (this.pending.length > 0 || this.sending || this.closed) return
    const answer = await askState(`/tunes/${this.id}/edits`)
    if (
      answer.kind === 'done' &&
      this.pending.length === 0 &&
      !this.sending &&
      answer.state.revision !== this.onDisk.revision
    )
      this.adopt(answer.state)
  }

  private show(change: Partial<SessionView>): void {
    this.view = { ...this.view, ...change }
    this.listeners.forEach((listener) => listener())
  }

  /** Writes what waits into the browser's store; says so where that does not go. */
  private keepPending(): Promise<void> {
    return this.draft.keep(
      () => ({ base: this.onDisk.revision, writes: [...this.pending] }),
      (kept) => {
        if (kept !== this.view.keptHere && (kept || this.pending.length > 0)) this.show({ keptHere: kept })
      },
    )
  }
}

/** Writes as an earlier visit, perhaps of another version, left them. */
function readWrites(kept: readonly unknown[]): { writes: Write[]; unread: unknown[] } {
  const writes: Write[] = []
  const unread: unknown[] = []
  for (const one of kept) {
    const given = one as { id?: unknown; step?: unknown; edit?: unknown } | null
    const id = typeof given?.id === 'string' ? given.id : crypto.randomUUID()
    const edit = tuneEdit.safeParse(given?.edit)
    if (given?.step === 'undo' || given?.step === 'redo') writes.push({ id, step: given.step })
    else if (edit.success) writes.push({ id, edit: edit.data })
    else unread.push(given?.edit ?? given)
  }
  return { writes, unread }
}
