import { z } from 'zod'
import { applyEdit, isFound, labelOf, tuneEdit, type TuneDocument, type TuneEdit } from './document'
import type { TuneState } from '../../../db/tunes'

export type SaveStatus =
  | { kind: 'saved' } | { kind: 'saving' }
  /** The server cannot be reached; what was made waits in this browser. */
  | { kind: 'waiting' }
  /** Another tab wrote first. `theirs` is what it made. */
  | { kind: 'conflict'; theirs: TuneState }
  | { kind: 'refused'; message: string }

export interface SessionView {
  document: TuneDocument
  undo: string | null
  redo: string | null
  status: SaveStatus
}

/** Typing is sent when it has paused this long. */
const TYPING_PAUSE_MS = 350
const RETRY_MS = 1500

/** What a browser keeps of edits not yet on disk, so that a closed tab or a killed server loses none. */
interface Draft {
  base: string
  edits: TuneEdit[]
}

/** Drafts are kept by tune and tab; a tab that is open holds a lock of its name, so that no other takes up its draft. */
const DRAFTS = 'heron-draft:'
const TABS = 'heron-tab:'

/**
 * One tab's work on one tune: applies each edit at once, sends edits in order, keeps unsent ones in the browser's
 * storage, and stops and says so when another tab was first.
 */
export class TuneSession {
  private view: SessionView
  private revision: string
  private readonly pending: TuneEdit[] = []
  private sending = false
  private timer: ReturnType<typeof setTimeout> | undefined
  private readonly listeners = new Set<() => void>()
  private closed = false
  private readonly initial: SessionView
  private readonly tab = crypto.randomUUID()
  /** Ends this tab's lock. */
  private release: (() => void) | null = null

  constructor(private readonly id: string, state: TuneState) {
    this.revision = state.revision
    this.view = { document: state.document, undo: state.undo, redo: state.redo, status: { kind: 'saved' } }
    this.initial = this.view
  }

  readonly subscribe = (listener: () => void) => {
    this.listeners.add(listener)
    return () => void this.listeners.delete(listener)
  }

  readonly read = (): SessionView => this.view

  /** What the server rendered, for the first drawing in the browser. */
  readonly readInitial = (): SessionView => this.initial

  /** Begins this tab's work in the browser: takes up edits that a tab closed since could not send. */
  async resume(): Promise<void> {
    this.closed = false
    await new Promise<void>((held) => {
      void navigator.locks.request(TABS + this.tab, () => {
        held()
        return new Promise<void>((release) => { this.release = release })
      })
    })
    const draft = await this.takeOrphan()
    if (!draft) return
    // What a search found is found again; what the player made waits for the next visit when this one has begun its own work.
    const onlyFound = draft.edits.every(isFound)
    if (onlyFound && draft.base !== this.revision) return
    if (this.pending.length > 0 || this.closed) {
      if (!onlyFound) localStorage.setItem(`${DRAFTS}${this.id}:${crypto.randomUUID()}`, JSON.stringify(draft))
      return
    }
    this.pending.push(...draft.edits)
    this.keepDraft()
    this.show({ document: draft.edits.reduce(applyEdit, this.view.document), status: { kind: 'saving' } })
    if (draft.base === this.revision) this.send()
    else void this.fetchTheirs()
  }

  close(): void {
    this.closed = true
    clearTimeout(this.timer)
    this.release?.()
  }

  readonly edit = (edit: TuneEdit): void => {
    const status: SaveStatus = this.view.status.kind === 'saved' ? { kind: 'saving' } : this.view.status
    this.show({ document: applyEdit(this.view.document, edit), status })
    const last = this.pending.at(-1)
    // Of several pauses in one burst of typing only the last text matters; the first may be on its way already.
    if (edit.kind === last?.kind && (edit.kind === 'text' || edit.kind === 'title' || isFound(edit)) && !(this.sending && this.pending.length === 1)) this.pending.pop()
    this.pending.push(edit)
    this.keepDraft()
    clearTimeout(this.timer)
    if (edit.kind === 'text') this.timer = setTimeout(() => this.send(), TYPING_PAUSE_MS)
    else this.send()
  }

  readonly step = async (direction: 'undo' | 'redo'): Promise<void> => {
    await this.flush()
    if (this.view.status.kind !== 'saved' || !this.view[direction]) return
    await this.exchange({ base: this.revision, step: direction })
  }

  /** Resolves when everything made so far is on disk, or cannot be at present. */
  async flush(): Promise<void> {
    clearTimeout(this.timer)
    while (this.sending || (this.pending.length > 0 && (this.view.status.kind === 'saved' || this.view.status.kind === 'saving'))) {
      if (this.sending) await new Promise((resolve) => setTimeout(resolve, 15))
      else this.send()
    }
  }

  /** After a conflict: what this tab made is put on top of what the other made; the other's state stays in undo. */
  readonly putMineOnTop = (): void => {
    if (this.view.status.kind !== 'conflict') return
    const { theirs } = this.view.status
    if (this.pending.length === 0) return this.adopt(theirs)
    this.revision = theirs.revision
    this.show({ document: this.pending.reduce(applyEdit, theirs.document), undo: theirs.undo, redo: theirs.redo, status: { kind: 'saving' } })
    this.keepDraft()
    this.send()
  }

  /** After a conflict: what this tab shows becomes a tune of its own, and the other's state is shown here. */
  readonly keepMineAsCopy = async (): Promise<void> => {
    if (this.view.status.kind !== 'conflict') return
    const { theirs } = this.view.status
    const response = await this.post({ copy: this.view.document })
    if (!response?.ok) return
    this.pending.length = 0
    this.keepDraft()
    this.adopt(theirs)
  }

  private send(): void {
    if (this.sending || this.closed || this.pending.length === 0 || this.view.status.kind === 'conflict') return
    this.sending = true
    void this.exchange({ base: this.revision, edit: this.pending[0]! }).then((outcome) => {
      this.sending = false
      if (outcome === 'done' || outcome === 'refused') {
        this.pending.shift()
        this.keepDraft()
        if (this.pending.length > 0) this.send()
        else if (outcome === 'done') this.show({ status: { kind: 'saved' } })
      } else if (outcome === 'unreachable') {
        this.timer = setTimeout(() => this.send(), RETRY_MS)
      } else if (this.onlyFoundBySearch()) {
        this.pending.length = 0
        this.keepDraft()
        this.show({ status: { kind: 'saved' } })
      }
    })
  }

  private async exchange(write: unknown): Promise<'done' | 'conflict' | 'refused' | 'unreachable'> {
    if (this.view.status.kind !== 'waiting' && this.view.status.kind !== 'refused') this.show({ status: { kind: 'saving' } })
    const response = await this.post(write)
    if (!response || response.status >= 500) {
      this.show({ status: { kind: 'waiting' } })
      return 'unreachable'
    }
    const answer = (await response.json()) as TuneState & { message?: string }
    if (response.status === 409) {
      this.show({ status: this.onlyFoundBySearch() ? { kind: 'saved' } : { kind: 'conflict', theirs: answer } })
      return 'conflict'
    }
    if (response.status === 404) {
      // Deleted in another tab: what was made waits here until the deletion is undone.
      this.show({ status: { kind: 'refused', message: answer.message ?? response.statusText } })
      return 'unreachable'
    }
    if (!response.ok) {
      this.show({ status: { kind: 'refused', message: answer.message ?? response.statusText } })
      return 'refused'
    }
    this.revision = answer.revision
    // Edits made while this one was on its way are already shown and still to come.
    const later = 'edit' in (write as object) ? this.pending.slice(1) : []
    this.show({
      document: later.length > 0 ? this.view.document : answer.document,
      undo: later.length > 0 ? labelOf(later.at(-1)!) : answer.undo, redo: later.length > 0 ? null : answer.redo,
      status: { kind: later.length > 0 ? 'saving' : 'saved' },
    })
    return 'done'
  }

  /** What a search found is no work of the player's: after another tab's change it is found again. */
  private onlyFoundBySearch(): boolean {
    return this.pending.length > 0 && this.pending.every(isFound)
  }

  private post(body: unknown): Promise<Response | null> {
    return fetch(`/tunes/${this.id}/edits`, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body), keepalive: JSON.stringify(body).length < 60_000 }).catch(() => null)
  }

  private async fetchTheirs(): Promise<void> {
    const response = await fetch(`/tunes/${this.id}/edits`).catch(() => null)
    if (response?.ok) this.show({ status: { kind: 'conflict', theirs: (await response.json()) as TuneState } })
  }

  private adopt(state: TuneState): void {
    this.revision = state.revision
    this.show({ document: state.document, undo: state.undo, redo: state.redo, status: { kind: 'saved' } })
  }

  private show(change: Partial<SessionView>): void {
    this.view = { ...this.view, ...change }
    this.listeners.forEach((listener) => listener())
  }

  private get draftKey() { return `${DRAFTS}${this.id}:${this.tab}` }

  private keepDraft(): void {
    if (this.pending.length === 0) localStorage.removeItem(this.draftKey)
    else localStorage.setItem(this.draftKey, JSON.stringify({ base: this.revision, edits: this.pending } satisfies Draft))
  }

  /** The draft of a tab of this tune that is open no more, taken out of the storage. */
  private async takeOrphan(): Promise<Draft | null> {
    const prefix = `${DRAFTS}${this.id}:`
    const open = new Set((await navigator.locks.query()).held?.map((lock) => lock.name))
    const key = Object.keys(localStorage).find((name) => name.startsWith(prefix) && name !== this.draftKey && !open.has(TABS + name.slice(prefix.length)))
    if (!key) return null
    const text = localStorage.getItem(key)
    localStorage.removeItem(key)
    const draft = draftSchema.safeParse(readJson(text))
    return draft.success && draft.data.edits.length > 0 ? draft.data : null
  }
}

const draftSchema: z.ZodType<Draft> = z.object({ base: z.string(), edits: z.array(tuneEdit) })

function readJson(text: string | null): unknown {
  try {
    return JSON.parse(text ?? 'null')
  } catch {
    return null
  }
}
