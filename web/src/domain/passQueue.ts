import { t } from '@lingui/core/macro'
import type { PassRecord } from '../api/types'
import type { Store } from './draftKeeper'

/** A pass that is saved here and not at the server yet. */
export type Waiting = {
  clientId: string
  record: PassRecord
  /** When it was saved, by this device's clock. */
  savedAt: string
  refused: { message: string; conflict: boolean } | null
}

/** How a sending ended. `passing`: the same may be sent again later. */
export type Sent =
  { kind: 'sent' } | { kind: 'passing'; message: string } | { kind: 'refused'; message: string; conflict: boolean }

export type QueueState = {
  waiting: readonly Waiting[]
  /** Why nothing gets through at the moment; empty while it does. */
  away: string
}

const AGAIN_MS = 3000

/**
 * Passes on their way to the server: kept in the browser until the server has them, sent in order,
 * each under its own id so that it is logged once. Tabs share what is kept.
 */
export class PassQueue {
  private now: QueueState
  private busy = false
  private timer: ReturnType<typeof setTimeout> | undefined
  private readonly listeners = new Set<() => void>()
  private readonly key: string

  constructor(
    couponId: number,
    private readonly send: (one: Waiting) => Promise<Sent>,
    private readonly store: Store,
    private readonly onSent: () => void | Promise<void>,
  ) {
    this.key = `passes-${String(couponId)}`
    this.now = { waiting: this.stored(), away: '' }
  }

  readonly snapshot = (): QueueState => this.now

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener)
    const seen = (event: StorageEvent) => {
      if (event.key === this.key) this.put({ waiting: this.stored() })
    }
    window.addEventListener('storage', seen)
    window.addEventListener('online', this.flush)
    window.addEventListener('signed-in', this.flush)
    void this.flush()
    return () => {
      this.listeners.delete(listener)
      window.removeEventListener('storage', seen)
      window.removeEventListener('online', this.flush)
      window.removeEventListener('signed-in', this.flush)
      if (this.listeners.size === 0) clearTimeout(this.timer)
    }
  }

  readonly add = (one: Waiting): void => {
    this.keep([...this.stored(), one])
    void this.flush()
  }

  /** Take a refused pass out, to be changed or thrown away. */
  readonly remove = (clientId: string): void => {
    this.keep(this.stored().filter((one) => one.clientId !== clientId))
  }

  /** Give a refused pass another number and send it again. */
  readonly renumber = (clientId: string, number: number): void => {
    this.keep(
      this.stored().map((one) =>
        one.clientId === clientId ? { ...one, record: { ...one.record, number }, refused: null } : one,
      ),
    )
    void this.flush()
  }

  readonly flush = async (): Promise<void> => {
    clearTimeout(this.timer)
    if (this.busy) return
    this.busy = true
    try {
      for (;;) {
        const next = this.stored().find((one) => one.refused === null)
        if (!next) break
        const result = await this.send(next)
        if (result.kind === 'passing') {
          this.put({ away: result.message })
          this.timer = setTimeout(() => void this.flush(), AGAIN_MS)
          return
        }
        this.put({ away: '' })
        if (result.kind === 'sent') {
          // What stands at the server is read before the pass leaves the list: it is never nowhere.
          await this.onSent()
          this.remove(next.clientId)
        } else
          this.keep(
            this.stored().map((one) =>
              one.clientId === next.clientId
                ? { ...one, refused: { message: result.message, conflict: result.conflict } }
                : one,
            ),
          )
      }
    } finally {
      this.busy = false
    }
  }

  private stored(): Waiting[] {
    try {
      const text = this.store.getItem(this.key)
      return text ? (JSON.parse(text) as Waiting[]) : []
    } catch {
      return []
    }
  }

  private keep(waiting: Waiting[]): void {
    try {
      if (waiting.length > 0) this.store.setItem(this.key, JSON.stringify(waiting))
      else this.store.removeItem(this.key)
    } catch {
      this.put({ away: t`The browser’s store is full: leave this page open until the server answers.` })
    }
    this.put({ waiting })
  }

  private put(changes: Partial<QueueState>): void {
    this.now = { ...this.now, ...changes }
    for (const listener of this.listeners) listener()
  }
}
