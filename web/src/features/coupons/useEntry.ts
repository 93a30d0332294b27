import { useCallback, useState } from 'react'

import { newEntry, type Entry } from './model'

function kept(key: string): Entry | null {
  try {
    const text = localStorage.getItem(key)
    // An entry kept by an older page lacks what came later.
    return text ? { ...newEntry(1), ...(JSON.parse(text) as Entry) } : null
  } catch {
    return null
  }
}

/** The pass that is being typed; it survives a closed tab and a restarted server. `key` is where it is kept. */
export function useEntry(key: string, next: number) {
  const [entry, setEntry] = useState<Entry>(() => kept(key) ?? newEntry(next))
  const put = useCallback(
    (step: (before: Entry) => Entry) => {
      setEntry((before) => {
        const after = step(before)
        try {
          localStorage.setItem(key, JSON.stringify(after))
        } catch {
          // The browser's store is full or closed: the page itself still holds the entry.
        }
        return after
      })
    },
    [key],
  )
  return { entry, put }
}
