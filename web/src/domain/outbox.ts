import { t } from '@lingui/core/macro'

/** Who saved something on this device. */
export type Writer = { id: number; name: string }

/** What is saved on this device and not at the server yet. */
export type Kept = {
  clientId: string
  /** When it was saved, by this device's clock. */
  savedAt: string
  /** Who saved it: it is sent under no other name. Unknown where an older page kept it. */
  by: Writer | null
  refused: { message: string; conflict: boolean } | null
  /** Place in the order of sending; given when it is added. */
  order?: number
}

/** How a sending ended. `passing`: the same may be sent again later. */
export type Sent =
  { kind: 'sent' } | { kind: 'passing'; message: string } | { kind: 'refused'; message: string; conflict: boolean }

export type OutboxState<K extends Kept> = {
  waiting: readonly K[]
  /** Why nothing gets through at the moment; empty while it does. */
  away: string
}

export type Shelf = Pick<Storage, 'getItem' | 'setItem' | 'removeItem' | 'key' | 'length'>

const AGAIN_MS = 3000

/**
 * What is on its way to the server: kept in the browser until the server has it, sent in order, each under
 * its own id so that it is entered once, and only while the person who saved it is signed in. Tabs share
 * what is kept; each entry has a place of its own in the store, so that no tab writes over another's.
 */
export class Outbox<K extends Kept> {
  private now: OutboxState<K>
  private busy = false
  private timer: ReturnType<typeof setTimeout> | undefined
  private readonly listeners = new Set<() => void>()
  /** What the browser's store did not take: this page holds it. */
  private readonly held = new Map<string, K>()
  private readonly prefix: string

  constructor(
    place: string,
    private readonly who: () => Writer | null,
    private readonly send: (one: K) => Promise<Sent>,
    private readonly store: Shelf,
    private readonly onSent: () => void | Promise<void>,
  ) {
    this.prefix = `${place}:`
    this.now = { waiting: this.all(), away: '' }
  }

  readonly snapshot = (): OutboxState<K> => this.now

  readonly subscribe = (listener: () => void): (() => void) => {
    if (this.listeners.size === 0) {
      window.addEventListener('storage', this.seen)
      window.addEventListener('online', this.flush)
      window.addEventListener('signed-in', this.flush)
    }
    this.listeners.add(listener)
    void this.flush()
    return () => {
      this.listeners.delete(listener)
      if (this.listeners.size > 0) return
      window.removeEventListener('storage', this.seen)
      window.removeEventListener('online', this.flush)
      window.removeEventListener('signed-in', this.flush)
      clearTimeout(this.timer)
    }
  }

  readonly add = (one: K): void => {
    const last = this.all().at(-1)?.order ?? 0
    this.keep({ ...one, order: last + 1 })
    void this.flush()
  }

  /** Take an entry out, to be changed or thrown away. */
  readonly remove = (clientId: string): void => {
    this.held.delete(clientId)
    this.store.removeItem(this.prefix + clientId)
    this.tell()
  }

  /** Change a refused entry and send it again. */
  readonly mend = (clientId: string, change: (one: K) => K): void => {
    const found = this.all().find((one) => one.clientId === clientId)
    if (found) this.keep({ ...change(found), refused: null })
    void this.flush()
  }

  readonly flush = async (): Promise<void> => {
    clearTimeout(this.timer)
    if (this.busy) return
    this.busy = true
    try {
      for (;;) {
        const me = this.who()
        const next = this.all().find((one) => one.refused === null && me !== null && one.by?.id === me.id)
        if (!next) break
        const result = await this.send(next)
        if (result.kind === 'passing') {
          this.put({ away: result.message })
          this.timer = setTimeout(() => void this.flush(), AGAIN_MS)
          return
        }
        this.put({ away: '' })
        if (result.kind === 'sent') {
          // What stands at the server is read before the entry leaves the list: it is never nowhere.
          await this.onSent()
          this.remove(next.clientId)
        } else this.keep({ ...next, refused: { message: result.message, conflict: result.conflict } })
      }
      this.put({ away: '' })
    } finally {
      this.busy = false
    }
  }

  private readonly seen = (event: StorageEvent): void => {
    if (event.key === null || event.key.startsWith(this.prefix)) this.tell()
  }

  private all(): K[] {
    const found = new Map(this.held)
    for (const key of keysOf(this.store, this.prefix)) {
      const one = read<K>(this.store.getItem(key))
      if (one) found.set(one.clientId, one)
    }
    return [...found.values()].toSorted((a, b) => (a.order ?? 0) - (b.order ?? 0))
  }

  private keep(one: K): void {
    try {
      this.store.setItem(this.prefix + one.clientId, JSON.stringify(one))
      this.held.delete(one.clientId)
    } catch {
      this.held.set(one.clientId, one)
      this.put({ away: t`The browser’s store is full: leave this page open until the server answers.` })
    }
    this.tell()
  }

  private tell(): void {
    this.put({ waiting: this.all() })
  }

  private put(changes: Partial<OutboxState<K>>): void {
    this.now = { ...this.now, ...changes }
    for (const listener of this.listeners) listener()
  }
}

/** Places of a kind in which something is kept, such as `pass:7` for the kind `pass`. */
export function placesOf(store: Shelf, kind: string): string[] {
  const places = keysOf(store, `${kind}:`).map((key) => key.slice(0, key.lastIndexOf(':')))
  return [...new Set(places)]
}

function keysOf(store: Shelf, prefix: string): string[] {
  const keys = Array.from({ length: store.length }, (_, at) => store.key(at))
  return keys.filter((key) => key?.startsWith(prefix)) as string[]
}

function read<K extends Kept>(text: string | null): K | null {
  try {
    return text ? (JSON.parse(text) as K) : null
  } catch {
    return null
  }
}
