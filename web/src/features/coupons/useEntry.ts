import { useCallback, useState } from 'react'

import { newEntry, type Entry } from './model'

const keyOf = (couponId: number) => `entry-${String(couponId)}`

function kept(couponId: number): Entry | null {
  try {
    const text = localStorage.getItem(keyOf(couponId))
    return text ? (JSON.parse(text) as Entry) : null
  } catch {
    return null
  }
}

/** The pass that is being typed; it survives a closed tab and a restarted server. */
export function useEntry(couponId: number, next: number) {
  const [entry, setEntry] = useState<Entry>(() => kept(couponId) ?? newEntry(next))
  const put = useCallback(
    (step: (before: Entry) => Entry) => {
      setEntry((before) => {
        const after = step(before)
        try {
          localStorage.setItem(keyOf(couponId), JSON.stringify(after))
        } catch {
          // The browser's store is full or closed: the page itself still holds the entry.
        }
        return after
      })
    },
    [couponId],
  )
  return { entry, put }
}
