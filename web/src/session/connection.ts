import { useQueryClient, type QueryClient } from '@tanstack/react-query'
import { useCallback, useSyncExternalStore } from 'react'

import { isReached, noteAnswer, onReached } from '../api/connection'
import { sessionQuery } from '../queries/session'

/** Queries whose answers do not age: words, units, codes. */
const AGELESS = new Set(['units', 'codes', 'terms', 'session'])
const ASKS_AGAIN_MS = 4000

/** Whether the server answers; while it does not, it is asked again by itself. */
export function useReached(): boolean {
  const queries = useQueryClient()
  const subscribe = useCallback(
    (listener: () => void) => {
      const lost = () => noteAnswer(false)
      const again = () => {
        if (!isReached() && navigator.onLine)
          void queries.refetchQueries({ queryKey: sessionQuery.queryKey, exact: true })
      }
      const timer = setInterval(again, ASKS_AGAIN_MS)
      window.addEventListener('offline', lost)
      window.addEventListener('online', again)
      const leave = onReached(() => {
        // What was asked for meanwhile is asked for again.
        if (isReached()) void queries.invalidateQueries({ predicate: (one) => one.queryKey[0] !== 'session' })
        listener()
      })
      return () => {
        clearInterval(timer)
        window.removeEventListener('offline', lost)
        window.removeEventListener('online', again)
        leave()
      }
    },
    [queries],
  )
  return useSyncExternalStore(subscribe, isReached)
}

/** When the oldest of what the page shows was read from the server; nothing where it shows nothing of it. */
export function useReadAt(): number | null {
  const queries = useQueryClient()
  const subscribe = useCallback((listener: () => void) => queries.getQueryCache().subscribe(listener), [queries])
  return useSyncExternalStore(subscribe, () => oldest(queries))
}

function oldest(queries: QueryClient): number | null {
  const shown = queries
    .getQueryCache()
    .getAll()
    .filter((one) => one.isActive() && one.state.data !== undefined && !AGELESS.has(String(one.queryKey[0])))
  return shown.length === 0 ? null : Math.min(...shown.map((one) => one.state.dataUpdatedAt))
}
