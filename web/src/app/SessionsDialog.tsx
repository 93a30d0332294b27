import { t } from '@lingui/core/macro'
import { Trans } from '@lingui/react/macro'
import { useMutation, useQuery, useQueryClient } from '@tanstack/react-query'

import { api, unwrap } from '../api/client'
import { dayAndTime } from '../domain/dayAndTime'
import { Button } from '../ui/Button'
import { Modal } from '../ui/Modal'
import { Notice } from '../ui/Notice'

const KEY = ['session', 'all']

/** The own sessions: a tablet that was lost or left signed in is signed out from here. */
export function SessionsDialog({ onClose }: { onClose: () => void }) {
  const queries = useQueryClient()
  const found = useQuery({ queryKey: KEY, queryFn: () => unwrap(api.GET('/api/session/all')), staleTime: 0 })
  const end = useMutation({
    mutationFn: (id: number | null) =>
      unwrap(
        id === null
          ? api.DELETE('/api/session/all')
          : api.DELETE('/api/session/all/{session_id}', { params: { path: { session_id: id } } }),
      ),
    onSuccess: (left) => queries.setQueryData(KEY, left),
  })
  const others = found.data?.filter((one) => !one.this) ?? []
  return (
    <Modal title={t`Where you are signed in`} open onClose={onClose}>
      {found.isError && <Notice mark="breach">{found.error.message}</Notice>}
      {end.isError && <Notice mark="breach">{end.error.message}</Notice>}
      <ul className="grid gap-2 text-[14px]">
        {found.data?.map((one) => (
          <li key={one.id} className="flex items-start gap-3 border-b border-line pb-2">
            <div className="min-w-0 grow">
              <span className="font-semibold break-words">
                {one.device || t`A device that does not say what it is`}
              </span>
              {one.this && <span className="ml-2 text-steel2">{t`this one`}</span>}
              <div className="text-[12.5px] text-steel2">
                {t`from ${one.address}; signed in ${dayAndTime(one.began_at)}, last used ${dayAndTime(one.last_at)}`}
              </div>
            </div>
            {!one.this && (
              <Button
                className="shrink-0 whitespace-nowrap"
                aria-label={t`Sign out ${one.device || one.address}`}
                disabled={end.isPending}
                onClick={() => end.mutate(one.id)}
              >
                <Trans>Sign out</Trans>
              </Button>
            )}
          </li>
        ))}
      </ul>
      {found.data && others.length === 0 && (
        <p className="mt-2 text-[13px] text-steel2" role="status">
          <Trans>You are signed in nowhere else.</Trans>
        </p>
      )}
      <p className="mt-2 text-[13px] text-steel2">
        <Trans>If you do not know one of these, sign it out and change your password.</Trans>
      </p>
      <div className="mt-3 flex justify-end gap-2">
        {others.length > 1 && (
          <Button disabled={end.isPending} onClick={() => end.mutate(null)}>
            <Trans>Sign out everywhere else</Trans>
          </Button>
        )}
        <Button look="main" onClick={onClose}>
          <Trans>Close</Trans>
        </Button>
      </div>
    </Modal>
  )
}
