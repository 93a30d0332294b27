import { useCallback, useMemo, useSyncExternalStore } from 'react'

import { newEntry, type Entry } from './model'

/** Entries of the pages that are open. */
const open = new Map<string, { entry: Entry; pages: Set<() => void> }>()

function kept(key: string): Entry | null {
  try {
    const text = localStorage.getItem(key)
    // An entry kept by an older page lacks what came later.
    return text ? { ...newEntry(1), ...(JSON.parse(text) as Entry) } : null
  } catch {
    return null
  }
}

/** The entry of a key: that of an open page, else what the browser keeps, else a new one for pass `next`. */
function entryOf(key: string, next: number) {
  return open.get(key) ?? { entry: kept(key) ?? newEntry(next), pages: new Set<() => void>() }
}

/** The pass that is being typed; it survives a closed tab and a restarted server. `key` is where it is kept. */
export function useEntry(key: string, next: number) {
  // `next` is that of the moment the page opens: a later one must not renumber what is being typed.
  // eslint-disable-next-line react-hooks/exhaustive-deps
  const held = useMemo(() => ({ next, now: entryOf(key, next) }), [key])
  const subscribe = useCallback(
    (page: () => void) => {
      const { now } = held
      now.pages.add(page)
      open.set(key, now)
      return () => {
        now.pages.delete(page)
        if (now.pages.size === 0) open.delete(key)
      }
    },
    [held, key],
  )
  const entry = useSyncExternalStore(subscribe, () => held.now.entry)
  // Called after the page was left as well, by a value whose reading was still on its way: so it goes to
  // whatever page of this key is open by then.
  const put = useCallback(
    (step: (before: Entry) => Entry) => {
      const here = entryOf(key, held.next)
      here.entry = step(here.entry)
      try {
        localStorage.setItem(key, JSON.stringify(here.entry))
      } catch {
        // The browser's store is full or closed: the page itself still holds the entry.
      }
      for (const page of here.pages) page()
    },
    [held, key],
  )
  return { entry, put }
}
