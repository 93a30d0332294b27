import type { Procedure } from '../api/types'
import { choose, merge, type Clash, type Merged } from './merge'

export type SaveState = 'saved' | 'waiting' | 'saving' | 'no-answer' | 'signed-out' | 'refused' | 'conflict'
export type Theirs = { version: number; document: Procedure; saved_by: string; saved_at: string }

/** How a save ended. */
export type SaveResult =
  | { kind: 'saved'; version: number; savedAt: string }
  | { kind: 'conflict'; theirs: Theirs; message: string }
  | {
      kind: 'signed-out' | 'refused' | 'no-answer'
      message: string
      errors: readonly { path: string; message: string }[]
    }

export type Draft = {
  document: Procedure
  state: SaveState
  theirs: Theirs | null
  /** Fields that both changed; what only one changed is merged already. */
  clashes: readonly Clash[]
  /** Who else saved in the meantime, where that was merged without a question. */
  mergedWith: string
  message: string
  errors: readonly { path: string; message: string }[]
  savedAt: string
  /** Whether something was brought back that was not saved last time. */
  restored: boolean
}

/** Where unsaved work is kept between page loads. */
export type Store = Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>
type Start = { id: number; version: number; document: Procedure; savedBy: string; savedAt: string; frozen: boolean }
type Send = (version: number, document: Procedure) => Promise<SaveResult>

const PAUSE_MS = 600
const AGAIN_MS = 3000

/**
 * Keeps a draft: saves a pause after typing, keeps what is not saved in the browser, never saves
 * over someone else's version, and tries again while there is no answer.
 */
export class DraftKeeper {
  private now: Draft
  private version: number
  /** The document at `version`: what both sides came from. */
  private base: Procedure
  private merged: Merged<Procedure> | null = null
  private timer: ReturnType<typeof setTimeout> | undefined
  private busy = false
  private readonly listeners = new Set<() => void>()
  private readonly key: string

  constructor(
    start: Start,
    private readonly send: Send,
    private readonly store: Store,
  ) {
    this.key = `draft-${String(start.id)}`
    this.version = start.version
    this.base = start.document
    this.now = {
      document: start.document,
      state: 'saved',
      theirs: null,
      clashes: [],
      mergedWith: '',
      message: '',
      errors: [],
      savedAt: start.savedAt,
      restored: false,
    }
    const kept = start.frozen ? null : this.kept()
    if (!kept || JSON.stringify(kept.document) === JSON.stringify(start.document)) return
    this.now = { ...this.now, document: kept.document, restored: true, state: 'waiting' }
    if (kept.version === start.version) return
    // Without what both came from, every field that differs is asked about.
    this.base = kept.base ?? ({} as Procedure)
    this.version = kept.version
    this.meet({ version: start.version, document: start.document, saved_by: start.savedBy, saved_at: start.savedAt })
  }

  readonly snapshot = (): Draft => this.now

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    if (this.now.state === 'waiting') this.schedule(PAUSE_MS)
    return () => {
      this.listeners.delete(listener)
      if (this.listeners.size === 0) clearTimeout(this.timer)
    }
  }

  readonly change = (step: (before: Procedure) => Procedure): void => {
    const document = step(this.now.document)
    if (document === this.now.document) return
    this.keep(document)
    const { theirs } = this.now
    this.put({ document, ...(theirs ? {} : { state: 'waiting' as const }) })
    if (theirs) this.meet(theirs)
    if (this.now.state === 'waiting') this.schedule(PAUSE_MS)
  }

  /** Settle a conflict: theirs altogether, or mine with theirs at the chosen paths. */
  readonly settle = (choice: 'theirs' | ReadonlySet<string>): void => {
    const { theirs } = this.now
    if (!theirs || !this.merged) return
    this.version = theirs.version
    this.base = theirs.document
    const settled = { theirs: null, clashes: [], message: '', errors: [] }
    if (choice === 'theirs') {
      this.store.removeItem(this.key)
      this.put({ ...settled, document: theirs.document, state: 'saved', savedAt: theirs.saved_at })
    } else {
      const document = choose(this.merged, choice)
      this.keep(document)
      this.put({ ...settled, document, state: 'waiting' })
      void this.save()
    }
    this.merged = null
  }

  readonly save = async (): Promise<void> => {
    clearTimeout(this.timer)
    if (this.busy || this.now.state === 'conflict' || this.now.state === 'saved') return
    this.busy = true
    const sent = this.now.document
    this.put({ state: 'saving' })
    const result = await this.send(this.version, sent)
    this.busy = false
    if (result.kind === 'saved') {
      this.version = result.version
      this.base = sent
      const more = this.now.document !== sent
      if (more) this.keep(this.now.document)
      else this.store.removeItem(this.key)
      this.put({ state: more ? 'waiting' : 'saved', savedAt: result.savedAt, message: '', errors: [] })
      if (more) this.schedule(PAUSE_MS)
    } else if (result.kind === 'conflict') {
      this.meet(result.theirs)
      if (this.now.state === 'waiting') void this.save()
    } else {
      this.put({ state: result.kind, message: result.message, errors: result.errors })
      if (result.kind === 'no-answer') this.schedule(AGAIN_MS)
    }
  }

  /** Someone else saved: merge, and ask only where both changed the same field. */
  private meet(theirs: Theirs): void {
    const merged = merge(this.base, this.now.document, theirs.document)
    if (merged.clashes.length > 0) {
      this.merged = merged
      this.put({ state: 'conflict', theirs, clashes: merged.clashes })
      return
    }
    this.version = theirs.version
    this.base = theirs.document
    this.keep(merged.document)
    this.put({ document: merged.document, state: 'waiting', mergedWith: theirs.saved_by })
  }

  private schedule(ms: number): void {
    clearTimeout(this.timer)
    this.timer = setTimeout(() => void this.save(), ms)
  }

  private put(changes: Partial<Draft>): void {
    this.now = { ...this.now, ...changes }
    for (const listener of this.listeners) listener()
  }

  private kept(): { version: number; document: Procedure; base?: Procedure } | null {
    try {
      const text = this.store.getItem(this.key)
      return text ? (JSON.parse(text) as { version: number; document: Procedure; base?: Procedure }) : null
    } catch {
      return null
    }
  }

  private keep(document: Procedure): void {
    try {
      this.store.setItem(this.key, JSON.stringify({ version: this.version, document, base: this.base }))
    } catch {
      // The browser's store is full or closed: the page itself still holds what was typed.
    }
  }
}
