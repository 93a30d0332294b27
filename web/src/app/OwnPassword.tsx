import { useQueryClient } from '@tanstack/react-query'
import { Suspense, lazy } from 'react'

import { sessionQuery } from '../queries/session'

// Opened by few, and seldom: it does not weigh on the first load.
const PasswordDialog = lazy(async () => ({ default: (await import('./PasswordDialog')).PasswordDialog }))

/** Change the own password; from then on the session is that of the new one. */
export function OwnPassword({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient()
  return (
    <Suspense>
      <PasswordDialog onClose={onClose} onDone={(next) => queries.setQueryData(sessionQuery.queryKey, next)} />
    </Suspense>
  )
}
